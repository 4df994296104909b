package plan

import (
	"maps"
	"math"
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/unit"
)

// Risk is the rates of hazards and breaking that the rider knows better, by their
// keys.
type Risk map[string]unit.Ratio

// Rates are the numbers of the rider's own.
func (r Risk) Rates() guard.Rates {
	if len(r) == 0 {
		return nil
	}
	rates := make(guard.Rates, len(r))
	for key, v := range r {
		rates[key] = v.In("")
	}
	return rates
}

// Exposed is what the trip exposes any bike to.
func (b *Brief) Exposed() guard.Trip {
	trip := guard.Trip{DistanceKm: b.Distance.In("km"), Mix: b.Mix(), Skill: b.Skill, Falls: b.Falls.In(""), RoomMM: math.NaN(), PerEuro: math.NaN()}
	if b.Help.Known() {
		trip.HelpDays = b.Help.In("h") / 24
	}
	return trip
}

// muchAsEuros are the currencies in which a price from memory is about the same number.
var muchAsEuros = []string{"EUR", "USD", "GBP", "CHF"}

// PerEuro is what a price in euros from memory is multiplied by in the plan's currency, NaN
// where the plan has no rate for it.
func (p *Plan) PerEuro() float64 {
	if slices.Contains(muchAsEuros, p.Currency) {
		return 1
	}
	const many = 1_000_000
	home, _, ok := p.Home(money.New(100*many, "EUR"))
	if !ok {
		return math.NaN()
	}
	return float64(home.Minor()) / money.Minors(p.Currency) / many
}

// Vulnerable reports whether the bike has a place that can break. Where the sheet
// does not say, it has what most bikes have.
func (b *Bike) Vulnerable(p guard.Place) bool {
	switch p {
	case guard.Radiator:
		return b.Cooling == LiquidCooled
	case guard.OilCooler:
		return b.Cooling == OilCooled
	case guard.Fairing:
		return b.Body == Faired
	case guard.Drive, guard.Swingarm:
		return !b.Shaft()
	}
	return true
}

// usualCovers is how much guards cover on a bike that has several.
const usualCovers = 24

// Covers are what the fitted guards do.
func (b *Built) Covers() []guard.Cover {
	covers := make([]guard.Cover, 0, usualCovers)
	for _, f := range b.Fitted {
		list, _ := f.Part.Covers()
		for _, c := range list {
			for _, h := range c.Against {
				covers = append(covers, guard.Cover{Place: c.Place, Hazard: h, Share: c.Stops.In("")})
			}
		}
	}
	return covers
}

func (r Risk) validate(v *entry.Problems) {
	for _, key := range slices.Sorted(maps.Keys(r)) {
		k, known := guard.KeyOf(key)
		value := r[key]
		v.That(known, "risk."+key, "is not a rate")
		v.That(!known || (value.Known() && value.In("") >= k.Min && value.In("") <= k.Max), "risk."+key, "%s is outside %g–%g", value, k.Min, k.Max)
	}
}
