package parts

import (
	"math"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// Code is a tyre's code as a rider types it.
type Code struct{ tyre.Size }

// Known reports whether there is a code.
func (c *Code) Known() bool { return !c.IsZero() }

// String is the code, "" without one.
func (c *Code) String() string {
	if c.IsZero() {
		return ""
	}
	return c.Size.String()
}

// Enter reads a code; an empty one is not known.
func (c *Code) Enter(text, _ string) error {
	if strings.TrimSpace(text) == "" {
		c.Size = tyre.Size{}
		return nil
	}
	size, err := tyre.Parse(text)
	if err == nil {
		c.Size = size
	}
	return err
}

// What tyres have.
var (
	TyreCode    = prop[Code]("code", "Code on the sidewall", "", 0, 0, "E.g. 120/80-18 M/C 62S TT. Without it size, gearing, load and speed are unknown.")
	TyreKind    = choice[tyre.Kind]("tyre_kind", "Kind of tyre", tyreKinds)
	TyreWidth   = prop[unit.Length]("width", "Measured width", "mm", 40, 320, "Mounted and inflated. Empty: the code's, which differs between makes.")
	RollOut     = prop[unit.Length]("roll_out", "One turn of the wheel", "mm", 800, 3000, "Rolled out along a tape, rider on. Empty: by the code.")
	Tread       = prop[unit.Ratio]("tread", "Tread left", "%", 1, 100, "Of a used one: depth left over depth when new, above the legal limit. Empty: new.")
	TyreRoom    = prop[unit.Length]("room", "Least room around it", "mm", -20, 200, "Measured with it mounted, to swingarm, chain, fork or mudguard. Empty: by the bike's sheet.")
	RatedAt     = prop[unit.Pressure]("rated_at", "Pressure on the sidewall", "kPa", 40, 450, "At which it carries its rated load. Without it the load floor of the pressures is unknown.")
	MinPressure = prop[unit.Pressure]("min_pressure", "Maker's least pressure", "kPa", 40, 450, "Without it nobody says how soft it may be.")
	LifeLow     = prop[unit.Length]("life_low", "It lasts from", "km", 100, 100000, "By somebody who wore one out, a front as a front. Empty: as its kind does.")
	LifeHigh    = prop[unit.Length]("life_high", "… to", "km", 100, 100000, "Both or neither.")
	LifeOn      = choice[WornOn]("life_on", "That was on", wornOns)
	LifeStyle   = choice[tyre.Style]("life_style", "Ridden", Styles)
)

// WornOn is the bike on which somebody saw how long a tyre lasts.
type WornOn string

// On what: what differs between such a bike and the plan's counts, and nothing else.
const (
	OnOrdinary WornOn = "ordinary"
	OnThis     WornOn = "this"
	OnLike     WornOn = "like"
)

func wornOns() []entry.Option {
	return []entry.Option{entry.Opt(OnThis, "this bike"), entry.Opt(OnLike, "one like it"), entry.Opt(OnOrdinary, "an ordinary one, or nobody says")}
}

// Styles lists how riders treat tyres.
func Styles() []entry.Option {
	return []entry.Option{
		entry.Opt(tyre.Gentle, "Gentle on tyres"),
		entry.Opt(tyre.Steady, "Steady"),
		entry.Opt(tyre.Hard, "Hard: late braking, wheelspin"),
	}
}

func tyreKinds() []entry.Option {
	var kinds []entry.Option
	for _, c := range tyre.Characters() {
		kinds = append(kinds, entry.Option{Value: string(c.Kind), Name: c.Name})
	}
	return kinds
}

// Tyre is what a tyre is beyond a part. Measured numbers overrule the size.
type Tyre struct {
	Size     tyre.Size
	Kind     tyre.Kind
	Width    unit.Length // measured, mounted
	RollOut  unit.Length // one wheel turn, rider on
	LifeLow  unit.Length // of one where it goes, front or rear
	LifeHigh unit.Length // both or neither
	LifeOn   WornOn      // "" is an ordinary bike
	Style    tyre.Style  // in which it was ridden then, "" is steady
	Tread    unit.Ratio  // left on it; missing: all of it
	Room     unit.Length // the least around it, measured with it mounted

	RatedAt     unit.Pressure // cold, on the sidewall: where it carries its rated load
	MinPressure unit.Pressure // the maker's least
}

// Tyre is what is known of a part as a tyre, nil where nothing is. It is the part's own: nobody writes to it.
func (p *Part) Tyre() *Tyre {
	if p.Has.tyre == nil || !p.Slot.Has(TyreCode) {
		return nil
	}
	return p.Has.tyre
}

func tyreSaid(h Properties) *Tyre {
	if !h.any(TyreCode, TyreKind, TyreWidth, RollOut, Tread, TyreRoom, RatedAt, MinPressure, LifeLow, LifeHigh, LifeOn, LifeStyle) {
		return nil
	}
	return &Tyre{
		Size: TyreCode.of(h).Size, Kind: TyreKind.of(h), Width: TyreWidth.of(h), RollOut: RollOut.of(h), LifeLow: LifeLow.of(h), LifeHigh: LifeHigh.of(h),
		LifeOn: LifeOn.of(h), Style: LifeStyle.of(h),
		Tread: Tread.of(h), Room: TyreRoom.of(h), RatedAt: RatedAt.of(h), MinPressure: MinPressure.of(h),
	}
}

// Shape of the tyre where it meets the ground.
func (t *Tyre) Shape() tyre.Shape {
	return tyre.Shape{DiameterMM: t.DiameterMM(), WidthMM: t.WidthMM(), HeightMM: (t.DiameterMM() - 25.4*t.Size.RimIn) / 2}
}

// WidthMM is the measured width or else the code's, NaN when neither is known.
func (t *Tyre) WidthMM() float64 {
	if t.Width.Known() || t.Size.IsZero() {
		return t.Width.In("mm")
	}
	return t.Size.SectionMM
}

// CircumferenceMM is the measured roll-out or else the code's.
func (t *Tyre) CircumferenceMM() float64 {
	if t.RollOut.Known() || t.Size.IsZero() {
		return t.RollOut.In("mm")
	}
	return t.Size.RollingCircumferenceMM()
}

// DiameterMM is the overall diameter; a measured roll-out overrules the code.
func (t *Tyre) DiameterMM() float64 {
	if t.Size.IsZero() {
		return math.NaN()
	}
	if t.RollOut.Known() {
		return t.RollOut.In("mm") / t.Size.RollingFactor()
	}
	return t.Size.OverallDiameterMM()
}

// check tells what of a tyre's numbers cannot be true together.
func (t *Tyre) check(v *entry.Problems, at string) {
	v.That(t.LifeLow.Known() == t.LifeHigh.Known(), at+LifeHigh.Key, "life is a band: give both ends or neither")
	v.That(!(t.LifeLow.In("km") > t.LifeHigh.In("km")), at+LifeLow.Key, "is more than %s", t.LifeHigh)
	if t.Size.IsZero() {
		return
	}
	v.That(!t.Width.Known() || math.Abs(t.Width.In("mm")/t.Size.SectionMM-1) < 0.25, at+TyreWidth.Key, "%s is more than a quarter off its code %s", t.Width, t.Size)
	v.That(!t.RollOut.Known() || math.Abs(t.RollOut.In("mm")/t.Size.RollingCircumferenceMM()-1) < 0.15, at+RollOut.Key, "%s is more than 15 %% off its code %s", t.RollOut, t.Size)
}
