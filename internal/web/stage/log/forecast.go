package log

import (
	"crypto/rand"
	"math"
	"runtime/debug"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/study/journey"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// besideGauges are figures that are foretold beside the gauges: those that the days can hold against them.
var besideGauges = []figure.ID{figure.Consumption, figure.RearLife, figure.FrontLife, figure.RideHours, figure.ArmourStranded}

// foretold is what is expected, to be kept with the first day of a trip; nothing where the trip has begun.
func foretold(d *desk.Desk, on string) []logbook.Reading {
	if len(d.Report.Facts.Journey.Days) > 0 || logbook.FirstForecast(d.Plan.ReadingsOf(logbook.Foretelling), d.Plan.Trip) != nil {
		return nil
	}
	f := forecastOf(d.Report, d.Plan.Trip)
	if len(f.Figures) == 0 {
		return nil
	}
	return []logbook.Reading{{ID: rand.Text(), Kind: logbook.Foretelling, On: on, Bike: d.Plan.Bike.ID, Read: f}}
}

func forecastOf(report *eval.LoadoutReport, trip string) *logbook.Forecast {
	f := &logbook.Forecast{Trip: trip, By: program(), Loadout: report.Facts.Loadout.Name}
	ids := besideGauges
	for _, row := range figure.Gauges() {
		ids = append(ids, row.ID)
	}
	for _, id := range ids {
		v, ok := report.Figure(id)
		if !ok || !v.Known || math.IsInf(v.Value, 0) {
			continue
		}
		told := logbook.Foretold{ID: string(id), Value: v.Value, Low: v.Value, High: v.Value, State: string(v.State)}
		if v.Banded && !math.IsInf(v.Low+v.High, 0) {
			told.Low, told.High = min(v.Low, v.Value), max(v.High, v.Value)
		}
		f.Figures = append(f.Figures, told)
	}
	return f
}

// program is the version of this one.
func program() string {
	info, ok := debug.ReadBuildInfo()
	if !ok {
		return "unknown"
	}
	for _, s := range info.Settings {
		if s.Key == "vcs.revision" && len(s.Value) > 12 {
			return s.Value[:12]
		}
	}
	return info.Main.Version
}

// cameRow is a figure at departure and as it came.
type cameRow struct {
	Name, Foretold, Came, By, Off string
	State                         desk.StateView
}

// offRow is how far a model was off on a trip.
type offRow struct{ On, Km, Off string }

// came lists what was foretold beside what came, of this trip and over all of them.
func (v *logView) came(d *desk.Desk) {
	for _, trip := range journey.Trips(d.Plan) {
		var off []string
		for _, c := range trip.Rows {
			word := offWords(c)
			off = append(off, strings.ToLower(d.Units.Name(c.Row))+" "+word)
			if trip.ID != d.Plan.Trip {
				continue
			}
			row := cameRow{Name: d.Units.Name(c.Row), Foretold: d.Units.As(c.Row.ID, c.Foretold.Value), Came: d.Units.As(c.Row.ID, c.Came), By: c.By, Off: word, State: desk.StateOf(verdict.OK)}
			if c.Foretold.Low < c.Foretold.High {
				row.Foretold = d.Units.As(c.Row.ID, c.Foretold.Low) + " to " + d.Units.As(c.Row.ID, c.Foretold.High)
			}
			if !c.In() {
				row.State = desk.StateOf(verdict.Watch)
			}
			v.Came = append(v.Came, row)
		}
		if len(off) > 0 {
			v.Offs = append(v.Offs, offRow{On: trip.On, Km: d.Units.Quantity(trip.Km, "km"), Off: strings.Join(off, "; ")})
		}
	}
}

// offWords say how far a model was off.
func offWords(c journey.Came) string {
	share := 100 * c.Off()
	switch {
	case math.Abs(share) < 1:
		return "as foretold"
	case share > 0:
		return words.Number(share, 0) + " % more"
	}
	return words.Number(-share, 0) + " % less"
}
