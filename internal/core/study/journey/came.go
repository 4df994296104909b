package journey

import (
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/journey"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/tyre"
)

// PlannedDays is how many days the trip was to take, NaN where nobody has said how far, on what, or how long a day.
func PlannedDays(f *facts.All) float64 {
	return f.Figure(figure.RideHours).Value / f.Plan.Brief.Day.In("h")
}

// TanksToGo is how many tanks the rest of the trip takes at the rate of its days, NaN where nobody knows.
func TanksToGo(f *facts.All) float64 {
	litres := f.Journey.ToGo(f.Plan.Brief.Distance.In("km")) * f.Figure(figure.Consumption).Value / 100
	return litres / f.Figure(figure.UsableFuel).Value
}

// Came is a figure as it was foretold at departure beside what the days of the trip say.
type Came struct {
	Row      *figure.Row
	Foretold logbook.Foretold
	Came     float64 // in the row's unit
	By       string  // what says so
}

// In reports whether it came within its band.
func (c Came) In() bool { return c.Foretold.Low <= c.Came && c.Came <= c.Foretold.High }

// Off is how far the model was off, as a share of what was foretold.
func (c Came) Off() float64 { return c.Came/c.Foretold.Value - 1 }

// Trip is a trip of a bike of which somebody has said what was expected.
type Trip struct {
	ID, On string // and its first day
	By     string // the program that said so
	Km     float64
	Rows   []Came
}

// Trips are those of the plan's bike, the oldest first.
func Trips(p *plan.Plan) []Trip {
	forecasts := p.ReadingsOf(logbook.Foretelling)
	byTrip := map[string][]logbook.Reading{}
	var order []string
	for _, r := range p.ReadingsOf(logbook.DayRidden) {
		id := r.Day().Trip
		if _, ok := byTrip[id]; !ok {
			order = append(order, id)
		}
		byTrip[id] = append(byTrip[id], r)
	}
	fills := p.ReadingsOf(logbook.FillReading)
	var list []Trip
	for _, id := range order {
		told := logbook.FirstForecast(forecasts, id)
		if told == nil {
			continue
		}
		days := byTrip[id]
		t := Trip{ID: id, On: days[0].On, By: told.Forecast().By}
		for _, d := range days {
			t.Km += d.Day().Ridden()
		}
		add := func(fig figure.ID, came float64, by string) {
			if f, ok := told.Forecast().Of(string(fig)); ok && !math.IsNaN(came) {
				row, _ := figure.Of(fig)
				t.Rows = append(t.Rows, Came{Row: row, Foretold: f, Came: came, By: by})
			}
		}
		add(figure.Consumption, burnt(fills, days), "from brim to brim")
		add(figure.RearLife, lasted(days, func(d *logbook.Day) float64 { return d.TreadRear.In("mm") }), "by its depth")
		add(figure.FrontLife, lasted(days, func(d *logbook.Day) float64 { return d.TreadFront.In("mm") }), "by its depth")
		add(figure.RideHours, hours(p, days), "as the days say")
		list = append(list, t)
	}
	return list
}

// burnt is what a trip took, L/100 km, between full tanks; NaN where two were not.
func burnt(fills, days []logbook.Reading) float64 {
	from, to := days[0].On, days[len(days)-1].On
	ours := slices.DeleteFunc(slices.Clone(fills), func(r logbook.Reading) bool { return r.On < from || r.On > to })
	litres, km := 0.0, 0.0
	for _, in := range logbook.Intervals(logbook.Refuelled(ours, days)) {
		litres, km = litres+in.Litres, km+in.Km
	}
	if km == 0 {
		return math.NaN()
	}
	return 100 * litres / km
}

// lasted is how far a tyre runs from the departure on, km, by how its depth went down; NaN by fewer than two readings.
func lasted(days []logbook.Reading, depth func(*logbook.Day) float64) float64 {
	km := 0.0
	var points []journey.Point
	for _, r := range days {
		km += r.Day().Ridden()
		if mm := depth(r.Day()); !math.IsNaN(mm) {
			points = append(points, journey.Point{Km: km, Reading: mm})
		}
	}
	rate, ok := journey.Slope(points, tyre.DepthSpreadMM)
	if !ok || rate.PerKm >= 0 {
		return math.NaN()
	}
	last := points[len(points)-1]
	return last.Km + max(0, last.Reading-tyre.LegalDepthMM)/-rate.PerKm
}

// hours are those in the saddle that the whole trip would take, by the days that say them; NaN where none does.
func hours(p *plan.Plan, days []logbook.Reading) float64 {
	said, km := 0.0, 0.0
	for _, r := range days {
		if d := r.Day(); d.Hours.Known() && d.Km() > 0 {
			said, km = said+d.Hours.In("h"), km+d.Km()
		}
	}
	if km == 0 {
		return math.NaN()
	}
	return said / km * p.Brief.Distance.In("km")
}
