package eval

import (
	"math"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// tyreLife is the shorter-lived tyre of the two on this mix, against the trip:
// ok when the low end of its band lasts, watch when only the middle does.
func (r *run) tyreLife() Figure {
	c := r.gauge("tyre-life")
	front, rear := c.life(plan.FrontTyre), c.life(plan.RearTyre)
	band := rear
	if front.Mid < rear.Mid {
		band = front
	}
	c.is(band.Mid)
	if c.figure.Known {
		c.figure.Banded, c.figure.Low, c.figure.High = true, band.Low, band.High
	}
	trip := c.brief("trip distance", "km", r.plan.Brief.Distance)
	if !math.IsNaN(trip.Number) {
		c.figure.Limited, c.figure.Limit = true, trip.Number
	}
	switch {
	case !c.figure.Known || !c.figure.Limited:
		c.figure.State = verdict.Unknown
	case band.Low >= trip.Number:
		c.figure.State = verdict.OK
	case band.Mid >= trip.Number:
		c.figure.State = verdict.Watch
	default:
		c.figure.State = verdict.Over
	}
	return c.figure
}

func (r *run) rearLife() Figure  { return r.oneLife("rear-life", "Rear tyre lasts", plan.RearTyre) }
func (r *run) frontLife() Figure { return r.oneLife("front-life", "Front tyre lasts", plan.FrontTyre) }

func (r *run) oneLife(id, name string, slot plan.Slot) Figure {
	c := r.figure(id, name, "km")
	band := c.life(slot)
	c.is(band.Mid)
	if c.figure.Known {
		c.figure.Banded, c.figure.Low, c.figure.High = true, band.Low, band.High
	}
	return c.plain()
}

var (
	leftFormula  = sheet.Formula{Text: "left = life × tread left", Origin: sheet.Practice}
	frontFormula = sheet.Formula{Text: "front = rear of its kind × 1.6", Origin: sheet.Practice}
)

// life is the band of what is left of a tyre: all of it for one that the plan
// fits, what is left of the tread for one that is on the bike.
func (c *calc) life(slot plan.Slot) tyre.Band {
	r, b := c.run, c.run.built.Bike
	t := r.built.Tyre(slot)
	if t == nil {
		info, _ := plan.InfoOf(slot)
		c.lacks(info.Name + " (Tyres)")
		return tyre.Band{Mid: math.NaN()}
	}
	base, _ := tyre.CharacterOf(t.Kind)
	wear := tyre.Wear{LowKm: base.LifeLowKm, HighKm: base.LifeHighKm, Style: r.plan.Brief.Style}
	origin := sheet.Practice
	if t.LifeLow.Known() {
		wear.LowKm, wear.HighKm = t.LifeLow.In("km"), t.LifeHigh.In("km")
		origin = r.built.Part(slot).Origin
	}
	if wear.Style == "" {
		wear.Style = tyre.Steady
		c.working.Note("The brief does not say how hard you are on tyres: taken as steady.")
	}
	mix := r.plan.Brief.Mix()
	if mix == nil {
		c.lacks("terrain shares (Brief)")
	}
	wear.Abrasion = mix.Abrasion()
	power := c.bike("power", "power", "kW", b.Power)
	wear.PowerKW, wear.LoadedKg = power.Number, r.facts.LoadedKg
	if math.IsNaN(wear.LoadedKg) {
		c.lacks("loaded mass")
	}
	band := tyre.Life(wear)
	if c.working != nil {
		low := sheet.Value{Name: "base, low", Number: wear.LowKm, Unit: "km", Origin: origin, Note: string(t.Kind)}
		high := sheet.Value{Name: "base, high", Number: wear.HighKm, Unit: "km", Origin: origin}
		c.working.Step(tyre.LifeFormula, computed(string(slot)+" as a rear, middle of the band", band.Mid, "km"), low, high,
			computed("loaded mass", wear.LoadedKg, "kg"), power,
			computed("abrasion of the mix", wear.Abrasion, ""),
			sheet.Value{Name: "style, " + string(wear.Style), Number: tyre.StyleFactor(wear.Style), Origin: sheet.Practice})
	}
	if slot == plan.FrontTyre {
		band = scale(band, tyre.FrontLife)
		if c.working != nil {
			c.working.Step(frontFormula, computed("front tyre", band.Mid, "km"))
		}
	}
	if r.built.Chosen(slot) {
		return band
	}
	left := c.treadLeft(slot)
	band = scale(band, left.Number/100)
	if c.working != nil {
		c.working.Step(leftFormula, computed(string(slot)+", what is left", band.Mid, "km"), left)
	}
	return band
}

func (c *calc) treadLeft(slot plan.Slot) sheet.Value {
	b := c.run.built.Bike
	if slot == plan.FrontTyre {
		return c.bike("front_tread", "front tread left", "%", b.FrontTread)
	}
	return c.bike("rear_tread", "rear tread left", "%", b.RearTread)
}

func scale(b tyre.Band, by float64) tyre.Band {
	return tyre.Band{Low: b.Low * by, Mid: b.Mid * by, High: b.High * by}
}

var tyreCostFormula = sheet.Formula{Text: "per 1 000 km = price / life × 1 000, over both tyres of the plan", Origin: sheet.Computed}

// tyreCost is what the two tyres cost per 1000 km, in minor units.
func (r *run) tyreCost() Figure {
	c := r.figure("tyre-cost", "Tyres per 1 000 km", r.plan.Currency)
	sum := 0.0
	for _, slot := range []plan.Slot{plan.FrontTyre, plan.RearTyre} {
		part := r.built.Part(slot)
		if part == nil || !r.built.Chosen(slot) {
			continue
		}
		price, _, ok := r.plan.Home(part.Price)
		if !ok {
			c.lacks("price of " + part.Name + " in " + r.plan.Currency)
			continue
		}
		life := c.life(slot)
		per := float64(price.Minor()) / life.Mid * 1000
		if c.working != nil {
			c.working.Step(tyreCostFormula, computed(part.Name, per, r.plan.Currency),
				sheet.Value{Name: "price", Number: float64(price.Minor()), Unit: r.plan.Currency, Origin: part.Origin},
				computed("life", life.Mid, "km"))
		}
		sum += per
	}
	if sum == 0 {
		c.lacks("tyres in the plan (Tyres)")
	}
	c.is(sum)
	if c.working != nil {
		c.working.Step(tyreCostFormula, computed("both together", sum, r.plan.Currency))
	}
	return c.plain()
}

var hoursFormula = sheet.Formula{Text: "hours = Σ distance × share / typical speed", Origin: sheet.Memory}

// rideHours is the time in the saddle at each ground's typical speed.
func (r *run) rideHours() Figure {
	c := r.figure("ride-hours", "Hours in the saddle", "h")
	distance := c.brief("trip distance", "km", r.plan.Brief.Distance)
	mix := r.plan.Brief.Mix()
	if mix == nil {
		c.lacks("terrain shares (Brief)")
	}
	hours := mix.Hours(distance.Number)
	c.is(hours)
	if c.working != nil {
		c.working.Step(hoursFormula, computed("hours", hours, "h"), distance)
	}
	return c.plain()
}
