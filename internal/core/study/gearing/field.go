package gearing

import (
	"math"
	"slices"

	"valiantmule/internal/core/chains"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// PairFigures is what one pair of sprockets would give on the tyres as built.
// Floats are NaN when a number is missing.
type PairFigures struct {
	Pair          drive.Pair
	PaceKmh       float64 // in first at the lowest clean engine speed
	CruiseRPM     float64 // in top gear at the brief's cruise
	ChangePercent float64 // against standard, the tyre included
	Standard      bool
	Current       bool
	Allowed       bool // by walking pace and cruise limit, both known
	Links         int  // of the chain that it would run on, 0 when unknown or out of reach
	NewChain      bool // that chain is not the one that is on
	NoChain       bool // no even number of links brings the axle into its slots
	Weak          bool // top gear does not hold the cruise, loaded, up there, into the wind
	ClimbPercent  float64
	Own           bool // one of its sprockets is the rider's own
	Choices       []plan.Choice
}

// SprocketField is every pair that the trade sells for the chain within a quarter of the standard
// ratio. Floats are NaN when a number is missing.
//
// Pace and engine speed both follow from the ratio alone: pace = PaceByRatio /
// ratio, engine speed = RPMByRatio × ratio.
type SprocketField struct {
	Pairs           []PairFigures // by front, then rear teeth
	PaceLimitKmh    float64       // NaN when the brief has none
	CruiseLimitRPM  float64
	CruiseKmh       float64
	PaceByRatio     float64
	RPMByRatio      float64
	HoldRatio       float64 // from which top gear holds the cruise; NaN when nothing in the field does, or a number is missing
	ClimbKnown      bool    // whether ClimbAt can be asked
	pull            puller
	steepest        float64 // by grip and the front wheel's weight, a slope
	RearForOneFront float64 // rear teeth that do what one front tooth fewer does
}

// Window is what the brief leaves of the ratios: walking pace wants low or more,
// the cruise limit high or less. low is above high when no gearing does both; NaN
// where a number is missing.
func (f SprocketField) Window() (low, high float64) {
	return f.PaceByRatio / (f.PaceLimitKmh + paceReads), (f.CruiseLimitRPM + rpmReads) / f.RPMByRatio
}

// What still reads as the limit where pace and engine speed are written, half of the last
// digit.
const paceReads, rpmReads = 0.05, 0.5

// ClimbAt is the slope in per cent that first gear climbs at walking pace on a
// final ratio: clutch home, at the lowest clean engine speed, as far as grip and the front
// wheel's weight let it.
func (f SprocketField) ClimbAt(ratio float64) float64 {
	p := f.pull
	pull := drive.SteepestByPull(p.at(p.engine.CleanRPM, p.ratios[0], ratio).Newton, p.road.MassKg, p.road.Rolling)
	if f.steepest < pull { // NaN where the balance is not known
		pull = f.steepest
	}
	return 100 * pull
}

// Allowed counts the pairs that stand in the window.
func (f SprocketField) Allowed() int {
	n := 0
	for _, p := range f.Pairs {
		if p.Allowed {
			n++
		}
	}
	return n
}

// fieldSpan is how far from the standard ratio pairs are of use: beyond it
// neither slider nor gearbox was meant to run [practice].
const fieldSpan = 0.25

// Sprockets holds every pair against the brief. It has no pairs when the bike's
// own sprockets are unknown.
func Sprockets(f *facts.All) SprocketField {
	nan := math.NaN()
	field := SprocketField{PaceLimitKmh: nan, CruiseLimitRPM: nan, CruiseKmh: nan, PaceByRatio: nan, RPMByRatio: nan, HoldRatio: nan, RearForOneFront: nan}
	if f.Built == nil || f.Drive.Pair.Front == 0 || f.Drive.StandardPair.Front == 0 {
		return field
	}
	field.CruiseKmh = f.Drive.CruiseKmh
	field.RearForOneFront = drive.RearForFront(f.Drive.Pair)
	if b := f.Built.Bike; b.Gearbox.Known() {
		first, top := drive.Overall(b.Primary.In(""), b.Gearbox.First(), 1), drive.Overall(b.Primary.In(""), b.Gearbox.Top(), 1)
		field.PaceByRatio = drive.SpeedKmh(b.CleanRPM.In("rpm"), first, f.Wheels.CircumferenceMM.Rear)
		field.RPMByRatio = drive.RPM(field.CruiseKmh, top, f.Wheels.CircumferenceMM.Rear)
	}
	field.PaceLimitKmh, field.CruiseLimitRPM = f.Drive.PaceLimitKmh, f.Drive.CruiseLimitRPM
	field.pull, field.ClimbKnown = pullOf(f, f.Plan.Brief.SteepGround())
	field.steepest = math.Min(f.Climb.Traction, f.Climb.Wheely)
	for _, front := range teethOf(f, parts.FrontSprocket, parts.FrontTeeth, f.Drive.Pair.Front, f.Drive.StandardPair.Front) {
		for _, rear := range teethOf(f, parts.RearSprocket, parts.RearTeeth, f.Drive.Pair.Rear, f.Drive.StandardPair.Rear) {
			pair := drive.Pair{Front: front, Rear: rear}
			if pair == f.Drive.Pair || math.Abs(pair.Ratio()/f.Drive.StandardPair.Ratio()-1) <= fieldSpan {
				field.Pairs = append(field.Pairs, field.figures(f, pair))
			}
		}
	}
	field.HoldRatio = field.holdRatio()
	return field
}

// holdRatio is the ratio from which top gear holds the cruise: between the last
// pair that does not and the first that does, by halving.
func (f *SprocketField) holdRatio() float64 {
	weak, strong := math.Inf(-1), math.Inf(1)
	for _, p := range f.Pairs {
		if ratio := p.Pair.Ratio(); p.Weak {
			weak = max(weak, ratio)
		} else {
			strong = min(strong, ratio)
		}
	}
	if !f.ClimbKnown || math.IsNaN(f.CruiseKmh) || math.IsInf(weak, 0) || math.IsInf(strong, 0) || strong < weak {
		return math.NaN()
	}
	top := f.pull.ratios[len(f.pull.ratios)-1]
	for range 30 {
		middle := (weak + strong) / 2
		if holds, _ := f.pull.holds(f.CruiseKmh, top, middle); holds {
			strong = middle
		} else {
			weak = middle
		}
	}
	return strong
}

// For a bike of which nobody has named the chain, what is usually to be had around the
// standard ones.
var aroundStandard = map[parts.Slot]int{parts.FrontSprocket: 2, parts.RearSprocket: 6}

const leastTeeth = 10

// teethOf lists the tooth counts that are sold for a slot, or lie on the shelf, with the ones
// that are on or were.
func teethOf(f *facts.All, slot parts.Slot, figure parts.Figure, more ...int) []int {
	teeth := slices.Clone(more)
	for _, p := range f.Shelf {
		if n := int(p.Sets(figure)); p.Slot == slot && n > 0 && f.Standard.Fits(p) {
			teeth = append(teeth, n)
		}
	}
	between, rear, ok := drive.Sold(f.Built.Bike.Chain)
	if slot == parts.RearSprocket {
		between = rear
	}
	if !ok {
		standard := int(f.Standard.Figure(figure))
		between = drive.Teeth{Least: max(leastTeeth, standard-aroundStandard[slot]), Most: standard + aroundStandard[slot]}
	}
	for n := between.Least; n <= between.Most; n++ {
		teeth = append(teeth, n)
	}
	slices.Sort(teeth)
	return slices.Compact(teeth)
}

// owns reports whether the rider has a sprocket of their own with so many teeth.
func owns(f *facts.All, slot parts.Slot, teeth int) bool {
	return slices.ContainsFunc(f.Plan.Owned(), func(p *parts.Part) bool {
		n, ok := p.Count()
		return ok && p.Slot == slot && n == teeth
	})
}

func (field *SprocketField) figures(f *facts.All, pair drive.Pair) PairFigures {
	out := PairFigures{
		Pair: pair, Standard: pair == f.Drive.StandardPair, Current: pair == f.Drive.Pair,
		PaceKmh:       field.PaceByRatio / pair.Ratio(),
		CruiseRPM:     field.RPMByRatio * pair.Ratio(),
		ChangePercent: drive.ChangePercent(pair.Ratio(), f.Drive.StandardPair.Ratio(), f.Wheels.CircumferenceMM.Rear, f.Wheels.StandardCircumferenceMM.Rear),
		Own:           owns(f, parts.FrontSprocket, pair.Front) || owns(f, parts.RearSprocket, pair.Rear),
		Choices:       chains.PairChoices(f, pair),
	}
	low, high := field.Window()
	out.Allowed = pair.Ratio() >= low && pair.Ratio() <= high
	out.ClimbPercent = math.NaN()
	if field.ClimbKnown {
		out.ClimbPercent = field.ClimbAt(pair.Ratio())
		holds, _ := field.pull.holds(field.CruiseKmh, field.pull.ratios[len(field.pull.ratios)-1], pair.Ratio())
		out.Weak = !holds && !math.IsNaN(field.CruiseKmh)
	}
	if links, _, ok := chains.For(f, pair); ok {
		out.Links, out.NewChain = links, links != f.Chain.Links
	} else {
		out.NoChain = !math.IsNaN(f.Chain.ShiftMM)
	}
	return out
}

// GearRange is one gear's road speeds over the engine's useful range, km/h.
type GearRange struct {
	Gear              int // 1 is first
	FromRPM, ToRPM    float64
	FromKmh, ToKmh    float64
	CruiseRPM         float64 // at the brief's cruise
	StepToNextPercent float64 // engine speed falls by, to the next gear; NaN for the last
}

// Fan is the road speed in each gear from the lowest clean engine speed to the
// highest; nil when a number of the drive is missing.
func Fan(f *facts.All) []GearRange {
	if f.Built == nil || math.IsNaN(f.Built.FinalRatio()) || math.IsNaN(f.Wheels.CircumferenceMM.Rear) {
		return nil
	}
	b := f.Built.Bike
	clean, highest := b.CleanRPM.In("rpm"), b.MaxRPM.In("rpm")
	if !b.Gearbox.Known() || !b.Primary.Known() || math.IsNaN(clean) || math.IsNaN(highest) {
		return nil
	}
	ratios := b.Gearbox.Ratios()
	fan := make([]GearRange, len(ratios))
	for i, ratio := range ratios {
		overall := drive.Overall(b.Primary.In(""), ratio, f.Built.FinalRatio())
		g := GearRange{
			Gear: i + 1, FromRPM: clean, ToRPM: highest,
			FromKmh:           drive.SpeedKmh(clean, overall, f.Wheels.CircumferenceMM.Rear),
			ToKmh:             drive.SpeedKmh(highest, overall, f.Wheels.CircumferenceMM.Rear),
			CruiseRPM:         drive.RPM(f.Drive.CruiseKmh, overall, f.Wheels.CircumferenceMM.Rear),
			StepToNextPercent: math.NaN(),
		}
		if i+1 < len(ratios) {
			g.StepToNextPercent = 100 * (1 - ratios[i+1]/ratio)
		}
		fan[i] = g
	}
	return fan
}
