package tyres

import (
	"math"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/journey"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
)

var (
	leftFormula     = sheet.Formula{Text: "left = life × tread left", Origin: sheet.Practice}
	untilFormula    = sheet.Formula{Text: "on the day = left − a week × weeks", Origin: sheet.Computed}
	frontFormula    = sheet.Formula{Text: "front = rear of its kind × 1.6", Origin: sheet.Practice}
	toGoFormula     = sheet.Formula{Text: "still to ride = trip distance − ridden", Origin: sheet.Computed}
	tyreCostFormula = sheet.Formula{Text: "per 1000 km = price / life, over both tyres of the plan", Origin: sheet.Computed}
)

// lives is how long the tyres last, and what that costs.
func lives(r *study.Run) {
	front, rear := oneLife(r, figure.FrontLife, parts.FrontTyre), oneLife(r, figure.RearLife, parts.RearTyre)
	r.Lives = facts.Ends{Front: front.Mid, Rear: rear.Mid}
	tyreLife(r, front, rear)
	tyreCost(r, front, rear)
}

func oneLife(r *study.Run, id figure.ID, slot parts.Slot) tyre.Band {
	c := r.Figure(id)
	band := life(c, slot)
	c.Is(band.Mid)
	c.Band(band.Low, band.High)
	c.Plain()
	return band
}

// tyreLife is the shorter-lived tyre of the two on this mix, with its spare, against the trip:
// ok when the low end of its band lasts, watch when only the middle does.
func tyreLife(r *study.Run, front, rear tyre.Band) {
	c := r.Figure(figure.TyreLife)
	c.On(figure.FrontLife, "")
	c.On(figure.RearLife, "")
	front, rear = with(c, front, parts.SpareFront), with(c, rear, parts.SpareRear)
	band := rear
	if front.Mid < rear.Mid {
		band = front
	}
	c.Is(band.Mid)
	c.Band(band.Low, band.High)
	trip := c.Brief("trip distance", "km", &r.Plan.Brief.Distance).Number
	if r.Journey.Km > 0 {
		togo := r.Journey.ToGo(trip)
		c.Sheet.Step(toGoFormula, study.Computed("still to ride", togo, "km"), study.Computed("trip distance", trip, "km"), study.Computed("ridden", r.Journey.Km, "km"))
		trip = togo
	}
	c.Against(trip, band.Mid < trip, band.Low < trip)
}

// with is a tyre's band and that of the one that is changed to on the way, where the
// plan has one.
func with(c study.Calc, b tyre.Band, spare parts.Slot) tyre.Band {
	if c.Run.Built.Part(spare) == nil {
		return b
	}
	more := life(c, spare)
	return tyre.Band{Low: b.Low + more.Low, Mid: b.Mid + more.Mid, High: b.High + more.High}
}

// life is the band of what is left of a tyre: all of it for one that the plan
// fits, what is left of the tread for one that is on the bike.
func life(c study.Calc, slot parts.Slot) tyre.Band {
	r, b := c.Run, c.Run.Built.Bike
	t := r.Built.Tyre(slot)
	info, _ := parts.KindOf(slot)
	if t == nil {
		c.Lacks(info.Name + " (Tyres)")
		return tyre.Band{Low: math.NaN(), Mid: math.NaN(), High: math.NaN()}
	}
	base, named := tyre.CharacterOf(t.Kind)
	if !named && !t.LifeLow.Known() {
		c.Lacks("kind of the " + strings.ToLower(info.Name) + " (Tyres)")
	}
	usual := base.Life()
	wear := tyre.Wear{LowKm: usual.Low, HighKm: usual.High, Under: tyre.Ordinary()}
	wear.Style = r.Plan.Brief.Style
	origin, seen := sheet.Practice, t.LifeLow.Known()
	if seen {
		wear.LowKm, wear.HighKm = t.LifeLow.In("km"), t.LifeHigh.In("km")
		origin = r.Built.Part(slot).Origin
	}
	if wear.Style == "" {
		wear.Style = tyre.Steady
		c.Sheet.Note("The brief does not say how hard you are on tyres: taken as steady.")
	}
	mix := r.Plan.Brief.Mix()
	if !mix.Said() {
		c.LacksGround()
	}
	wear.Abrasion = mix.Abrasion()
	power := c.Bike("power", "power", "kW", &b.Power)
	wear.PowerKW, wear.LoadedKg = power.Number, r.Loaded.Kg
	if math.IsNaN(wear.LoadedKg) {
		c.Lacks("loaded mass")
	}
	if seen {
		wear.Under = worn(t, wear.Conditions)
	}
	band := tyre.Life(wear)
	if c.Sheet != nil {
		low := sheet.Value{Name: "base, low", Number: wear.LowKm, Unit: "km", Origin: origin, Note: string(t.Kind)}
		high := sheet.Value{Name: "base, high", Number: wear.HighKm, Unit: "km", Origin: origin}
		c.Sheet.Step(tyre.LifeFormula, study.Computed(string(slot)+", middle of the band", band.Mid, "km"), low, high,
			study.Computed("loaded mass", wear.LoadedKg, "kg"), power,
			study.Computed("abrasion of the mix", wear.Abrasion, ""),
			sheet.Value{Name: "style, " + string(wear.Style), Number: tyre.StyleFactor(wear.Style), Origin: sheet.Practice})
	}
	if !seen && (slot == parts.FrontTyre || slot == parts.SpareFront) { // kinds are known as rears
		band = scale(band, tyre.FrontLife)
		if c.Sheet != nil {
			c.Sheet.Step(frontFormula, study.Computed("front tyre", band.Mid, "km"))
		}
	}
	if measured, ok := byDepth(c, slot, band); ok {
		return measured
	}
	left := treadLeft(c, slot)
	if math.IsNaN(left.Number) && r.Built.Chosen(slot) {
		return band // a new one
	}
	band = scale(band, left.Number/100)
	if c.Sheet != nil {
		c.Sheet.Step(leftFormula, study.Computed(string(slot)+", what is left", band.Mid, "km"), left)
	}
	return until(c, slot, band)
}

// byDepth is what is left of a tyre by its depth on the way: how fast that goes down is what the kind's
// life says together with what was read.
func byDepth(c study.Calc, slot parts.Slot, life tyre.Band) (left tyre.Band, ok bool) {
	points := c.Run.Journey.Tread(slot).Of(c.Run.Built.Chosen(slot))
	if len(points) == 0 || slot != parts.FrontTyre && slot != parts.RearTyre {
		return tyre.Band{}, false
	}
	depth := points[len(points)-1].Reading - tyre.LegalDepthMM
	fresh := max(tyre.FreshDepth(c.Run.Built.Tyre(slot).Kind), points[0].Reading) - tyre.LegalDepthMM
	// What kinds do is known very widely: from one end of its band to the other is one deviation.
	before := journey.Rate{PerKm: fresh / life.Mid, Spread: fresh / life.Mid * math.Log(life.High/life.Low)}
	seen, _ := journey.Slope(points, tyre.DepthSpreadMM)
	seen.PerKm = -seen.PerKm
	rate := before.With(seen)
	low, mid, high := rate.Band(fuel.BandSigma)
	left = tyre.Band{Low: max(0, depth-tyre.DepthSpreadMM) / high, Mid: max(0, depth) / mid, High: (max(0, depth) + tyre.DepthSpreadMM) / low}
	if c.Sheet != nil {
		by := func(name string, perKm float64, origin sheet.Origin) sheet.Value {
			return sheet.Value{Name: name + ", by 1000 km", Number: 1000 * perKm, Unit: "mm", Origin: origin}
		}
		if len(points) > 1 {
			c.Sheet.Step(journey.SlopeFormula, by("seen", seen.PerKm, sheet.Measured), study.Computed("over", points[len(points)-1].Km-points[0].Km, "km"), study.Computed("spread, by 1000 km", 1000*seen.Spread, "mm"))
		}
		c.Sheet.Step(journey.BothFormula, by("both", rate.PerKm, sheet.Computed), by("by its kind's life", before.PerKm, sheet.Practice), by("seen", seen.PerKm, sheet.Measured))
		c.Sheet.Step(journey.LeftFormula, study.Computed(string(slot)+", what is left", left.Mid, "km"), sheet.Value{Name: "depth", Number: points[len(points)-1].Reading, Unit: "mm", Origin: sheet.Measured},
			sheet.Value{Name: "least depth", Number: tyre.LegalDepthMM, Unit: "mm", Origin: sheet.Memory, Note: "often the law's; look at yours"})
	}
	return left, true
}

// until is what is left of a tyre that stays on the bike on the day of departure: less what is still
// ridden until then, where the rider says how far that is a week.
func until(c study.Calc, slot parts.Slot, band tyre.Band) tyre.Band {
	p := c.Run.Plan
	leaves, dated := calendar.ParseDay(p.Brief.Leaves())
	today, _ := calendar.ParseDay(c.Run.AsOf)
	if !p.Ready.Ride.Known() || !dated || leaves <= today || c.Run.Built.Chosen(slot) {
		return band
	}
	ride := sheet.Value{Name: "still ridden, a week", Number: p.Ready.Ride.In("km"), Unit: "km", Origin: sheet.Rider}
	weeks := float64(leaves-today) / 7
	ridden := ride.Number * weeks
	band = tyre.Band{Low: max(0, band.Low-ridden), Mid: max(0, band.Mid-ridden), High: max(0, band.High-ridden)}
	if c.Sheet != nil {
		c.Sheet.Step(untilFormula, study.Computed(string(slot)+", on the day of departure", band.Mid, "km"), ride, study.Computed("weeks until then", weeks, ""))
	}
	return band
}

// worn are the conditions under which somebody saw a tyre's life: on this bike or one like it its
// mass and power, else an ordinary one's; the ground of mixed use, and the style that was said.
func worn(t *parts.Tyre, now tyre.Conditions) tyre.Conditions {
	under := tyre.Ordinary()
	if t.LifeOn == parts.OnThis || t.LifeOn == parts.OnLike {
		under.LoadedKg, under.PowerKW = now.LoadedKg, now.PowerKW
	}
	if t.Style != "" {
		under.Style = t.Style
	}
	return under
}

// treadLeft is what is left on a tyre: as its own sheet says of one that the plan
// fits, NaN for a new one; as the bike's says of the one that is on it.
func treadLeft(c study.Calc, slot parts.Slot) sheet.Value {
	b := c.Run.Built.Bike
	if c.Run.Built.Chosen(slot) {
		part := c.Run.Built.Part(slot)
		return sheet.Value{Name: "tread left", Number: part.Tyre().Tread.In("%"), Unit: "%", Origin: part.Origin}
	}
	if measured := c.Run.Plan.Baseline.Tread(slot); !math.IsNaN(measured) {
		return sheet.Value{Name: "tread left, by its depth", Number: 100 * measured, Unit: "%", Origin: sheet.Measured}
	}
	if slot == parts.FrontTyre {
		return c.Bike("front_tread", "front tread left", "%", &b.FrontTread)
	}
	return c.Bike("rear_tread", "rear tread left", "%", &b.RearTread)
}

func scale(b tyre.Band, by float64) tyre.Band {
	return tyre.Band{Low: b.Low * by, Mid: b.Mid * by, High: b.High * by}
}

// tyreCost is what the plan's tyres cost per 1000 km, in minor units.
func tyreCost(r *study.Run, front, rear tyre.Band) {
	c := r.Figure(figure.TyreCost)
	sum := 0.0
	for _, of := range []struct {
		slot parts.Slot
		life figure.ID
		band tyre.Band
	}{{parts.FrontTyre, figure.FrontLife, front}, {parts.RearTyre, figure.RearLife, rear}} {
		part := r.Built.Part(of.slot)
		if part == nil || !r.Built.Chosen(of.slot) {
			continue
		}
		price, _, ok := r.Plan.Home(part.Price)
		if !ok {
			c.Lacks("price of " + part.Name + " in " + r.Plan.Currency)
			continue
		}
		c.On(of.life, "")
		per := float64(price.Minor()) / of.band.Mid * 1000
		if c.Sheet != nil {
			c.Sheet.Step(tyreCostFormula, study.Computed(part.Name, per, r.Plan.Currency),
				sheet.Value{Name: "price", Number: float64(price.Minor()), Unit: r.Plan.Currency, Origin: part.Origin},
				study.Computed("life", of.band.Mid, "km"))
		}
		sum += per
	}
	if sum == 0 {
		c.Lacks("tyres in the plan (Tyres)")
	}
	c.Is(sum)
	if c.Sheet != nil {
		c.Sheet.Step(tyreCostFormula, study.Computed("both together", sum, r.Plan.Currency))
	}
	c.Plain()
}
