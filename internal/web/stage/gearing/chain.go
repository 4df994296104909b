package gearing

import (
	"fmt"
	"math"
	"net/http"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// chainView is the chain run, the chains that come into question, a second front
// sprocket, and what the speedometer makes of it all.
type chainView struct {
	Has     bool
	Shaft   bool
	Missing []desk.LinkView
	Exact   string
	Drawing draw.ChainRun
	Runs    []runRow
	Swaps   []swapRow
	Loadout string // that a swap would be fitted for
	Kits    []kitRow
	Lists   []desk.OptionList
	Reads   []readingRow
	Checked bool // somebody has held the speedometer against a GPS
	Working []desk.GaugeView
}

type runRow struct {
	Links, Centre, Shift, Slot string
	Href                       string
	Current, Reaches, Tried    bool
}

type swapRow struct {
	Pair, Change, Pace, Cruise, Shift, Slack string
	Href                                     string
	Reaches                                  bool
}

// kitRow is the gearing of a loadout.
type kitRow struct{ Name, Pair, Links, Pace, Cruise, Axle string }

type readingRow struct {
	Name, Change, Reads string
	Own                 bool
}

func chainPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return s.PartsPage(w, r, "chain", func(d *desk.Desk, tried desk.Laid) (any, error) {
		view := chainView{Has: d.Plan.Bike != nil}
		if !view.Has {
			return view, nil
		}
		err := chain(d, &view, tried)
		return view, err
	})
}

func chain(d *desk.Desk, v *chainView, tried desk.Laid) error {
	after := d.After
	v.readings(d, after)
	if v.Shaft = d.Plan.Bike.Shaft(); v.Shaft {
		return nil
	}
	v.Working = d.Gauges(d.Report, "chain", desk.Laid{}, "chain-links", "axle-shift")
	v.Missing = desk.MissingOf(v.Working)
	runs := gearing.ChainRuns(after.Facts)
	for _, run := range runs {
		row := runRow{
			Links: fmt.Sprint(run.Links), Centre: d.Units.As(figure.AxleShift, run.CentreMM), Shift: shift(d, run.ShiftMM),
			Reaches: run.Reaches, Current: run.Current, Slot: slotWords(after.Facts.Chain.Adjuster, run),
		}
		if run.Choices != nil {
			row.Href = d.Href("chain", tried.Query(run.Choices...)...)
		}
		v.Runs = append(v.Runs, row)
	}
	if exact := after.Facts.Chain.Exact; !math.IsNaN(exact) {
		v.Exact = d.Units.Plain(exact, "")
	}
	v.drawing(d, after, runs)
	if !d.Wants("main") {
		return nil
	}
	v.swaps(d)
	if err := v.kits(d); err != nil {
		return err
	}
	fits := func(p *parts.Part) bool { return after.Facts.Built.Fits(p) }
	for _, slot := range []parts.Slot{parts.ChainSlider, parts.Speedometer} {
		list, err := d.OptionsFor(slot, "chain", fits, []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Display", "speedometer")}, nil, tried)
		if err != nil {
			return err
		}
		v.Lists = append(v.Lists, list)
	}
	return nil
}

// shift is an axle's move in words.
func shift(d *desk.Desk, mm float64) string {
	switch {
	case math.IsNaN(mm):
		return words.Unknown
	case math.Abs(mm) < 0.05:
		return "where it was"
	case mm < 0:
		return d.Units.As(figure.AxleShift, -mm) + " forward"
	}
	return d.Units.As(figure.AxleShift, mm) + " back"
}

// slotWords says where in its slot the axle comes to sit.
func slotWords(a drive.Adjuster, run gearing.ChainRun) string {
	length := a.ForwardMM + a.BackMM
	switch {
	case math.IsNaN(length):
		return "the slot's ends are not known"
	case !run.Reaches && run.ShiftMM < 0:
		return "out of reach: too long for the slot's front"
	case !run.Reaches:
		return "out of reach: too far back"
	}
	return fmt.Sprintf("%.0f %% from its front end, %.0f %% left for wear", 100*(run.ShiftMM+a.ForwardMM)/length, 100*(a.BackMM-run.ShiftMM)/length)
}

func (v *chainView) drawing(d *desk.Desk, after *eval.LoadoutReport, runs []gearing.ChainRun) {
	f := after.Facts
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	if !known || len(runs) == 0 {
		return
	}
	var places []draw.AxlePlace
	centre := math.NaN()
	for _, run := range runs {
		style := draw.Ghost
		if run.Current {
			style, centre = draw.Current, run.CentreMM
		}
		places = append(places, draw.AxlePlace{ShiftMM: run.ShiftMM, Text: fmt.Sprintf("%d links", run.Links), Style: style})
	}
	v.Drawing = draw.Chain(f.Drive.Pair, pitch, centre, f.Chain.Adjuster, places)
}

// swaps are the other front sprockets on the same chain, for the loadout that is
// not on view: the road's is on, the trail's is carried.
func (v *chainView) swaps(d *desk.Desk) {
	field := gearing.Sprockets(d.Report.Facts)
	loadout, _ := d.Plan.Loadout(d.Loadout)
	v.Loadout = loadout.Name
	change, _ := d.Report.Figure(figure.GearChange)
	for _, s := range gearing.Swaps(field, d.Report.Facts) {
		row := swapRow{
			Pair: fmt.Sprintf("%d/%d", s.Pair.Front, s.Pair.Rear), Change: d.Units.Delta(change, s.Change),
			Pace: d.Units.As(figure.CrawlSpeed, s.PaceKmh), Cruise: d.Units.As(figure.CruiseRPM, s.CruiseRPM),
			Shift: shift(d, s.ShiftMM), Reaches: s.Reaches, Slack: "too tight to go on",
		}
		if s.ShiftMM >= 0 {
			row.Slack = d.Units.Quantity(s.SlackMM, "mm") + " up and down more"
		}
		choices := s.Choices
		for i := range choices {
			if choices[i].Part != nil {
				choices[i].Loadout = d.Loadout
			}
		}
		row.Href = d.Href("chain", desk.Laid{}.Query(choices...)...)
		v.Swaps = append(v.Swaps, row)
	}
}

// kits is what each loadout is geared at.
func (v *chainView) kits(d *desk.Desk) error {
	for _, l := range d.Plan.Loadouts {
		report, err := eval.EvaluateLoadout(d.Plan, nil, l.ID, d.AsOf)
		if err != nil {
			return err
		}
		pace, _ := report.Figure(figure.CrawlSpeed)
		rpm, _ := report.Figure(figure.CruiseRPM)
		moves, _ := report.Figure(figure.AxleShift)
		row := kitRow{Name: l.Name, Pair: "not said", Links: "not said", Pace: d.Units.Told(pace), Cruise: d.Units.Told(rpm), Axle: d.Units.Told(moves)}
		if moves.Known {
			row.Axle = shift(d, moves.Value)
		}
		if pair := report.Facts.Drive.Pair; pair.Front > 0 {
			row.Pair = fmt.Sprintf("%d/%d", pair.Front, pair.Rear)
		}
		if links := report.Facts.Chain.Links; links > 0 {
			row.Links = fmt.Sprint(links)
		}
		v.Kits = append(v.Kits, row)
	}
	return nil
}

// readings are what a speedometer shows that counts at each place.
func (v *chainView) readings(d *desk.Desk, after *eval.LoadoutReport) {
	over := d.Plan.Bike.SpeedometerOver
	v.Checked = over.Known()
	for _, r := range gearing.Readings(after.Facts) {
		row := readingRow{Name: pickupWords[r.Pickup], Change: "needs both tyres", Reads: "its own error is not said", Own: r.Own}
		if !math.IsNaN(r.Factor) {
			row.Change = words.Signed(100*(r.Factor-1), 1) + " %"
			if over.Known() {
				row.Reads = words.Signed(100*((1+over.Base())*r.Factor-1), 1) + " %"
			}
		}
		v.Reads = append(v.Reads, row)
	}
}

var pickupWords = map[drive.Pickup]string{drive.FrontWheel: "At the front wheel", drive.RearWheel: "At the rear wheel", drive.Gearbox: "At the gearbox output"}
