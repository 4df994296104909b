package web

import (
	"net/http"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/draw"
)

// contactView is where the rider touches the bike, or the cockpit.
type contactView struct {
	Has     bool
	Drawing draw.RiderView
	Tried   bool
	Asks    []string
	Free    []freeView
	Working []gaugeView
	Lists   []optionList
}

// freeView is an adjustment that costs nothing.
type freeView struct {
	Name, How, Href string
	State           stateView
	Done            string
}

// contactSlots are the slots of the two pages, in the order in which they are
// tried.
var contactSlots = map[string][]plan.Slot{
	"contact": {plan.Seat, plan.Pegs, plan.Risers, plan.Handlebar, plan.Windscreen, plan.KneeGrip, plan.HighwayPegs},
	"cockpit": {plan.Grips, plan.Levers, plan.Mirrors, plan.ShiftLever, plan.BrakePedal, plan.NavMount, plan.Navigator, plan.Socket, plan.Monitor},
}

// contactColumns are what the parts of a slot are compared by.
var contactColumns = map[plan.Slot][]column{
	plan.Seat:      {moves("Reach", "seat-reach"), moves("Knee", "knee"), becomes("Does", "seat-hours")},
	plan.Pegs:      {moves("Knee", "knee"), becomes("Bars low by", "bar-short")},
	plan.Risers:    {becomes("Bars low by", "bar-short")},
	plan.Handlebar: {becomes("Bars low by", "bar-short")},
}

func (s *Server) contactPage(page string) http.HandlerFunc {
	return s.handle(func(w http.ResponseWriter, r *http.Request) error {
		return s.partsPage(w, r, page, func(d *desk, tried []plan.Choice) (any, error) {
			view := contactView{Has: d.Plan.Bike != nil, Tried: len(tried) > 0}
			if !view.Has {
				return view, nil
			}
			err := d.contactPoints(&view, page, tried)
			return view, err
		})
	})
}

func (d *desk) contactPoints(v *contactView, page string, tried []plan.Choice) error {
	built := d.Plan.Build(d.loadout)
	for _, slot := range contactSlots[page] {
		columns := append([]column{moves("Cost", "cost"), moves("Mass", "loaded-mass"), moves("Needs", "needs")}, contactColumns[slot]...)
		fits := func(p *plan.Part) bool { return d.shelf.CouldFit(built, p) }
		list, err := d.optionsFor(slot, page, fits, columns, nil, tried)
		if err != nil {
			return err
		}
		v.Lists = append(v.Lists, list)
	}
	if page != "contact" {
		return nil
	}
	after := d.report
	if v.Tried {
		var err error
		if after, err = d.on.Evaluate(d.Plan.With(tried...)); err != nil {
			return err
		}
	}
	postures := []draw.Posture{d.posture(d.report, draw.Current)}
	if v.Tried {
		postures = append(postures, d.posture(after, draw.Tried))
	}
	v.Drawing = draw.RiderOn(silhouette(d.Plan.Bike, d.report), postures...)
	asked := map[string]bool{}
	for _, id := range []figure.ID{"seat-reach", "knee", "bar-short", "seated-hours", "seat-hours"} {
		if f, ok := after.Figure(id); ok {
			v.Working = append(v.Working, gaugeOf(d.units, f, d.href("working/"+string(id), "stage", page)))
			for _, missing := range f.Missing {
				if !asked[missing] {
					asked[missing] = true
					v.Asks = append(v.Asks, missing)
				}
			}
		}
	}
	for _, c := range baseline.For(d.Plan.Bike.Has) {
		if c.Area != baseline.Free {
			continue
		}
		free := freeView{Name: c.Name, How: c.How, Href: d.href("baseline") + "#check-" + c.ID, State: stateOf("unknown"), Done: "not looked at"}
		if a, ok := d.Plan.Baseline.Answer(c.ID); ok {
			free.State, free.Done = stateOf("watch"), answerWords(a)
			if a.Verdict == baseline.Good {
				free.State = stateOf("ok")
			}
		}
		v.Free = append(v.Free, free)
	}
	return nil
}

// posture is the rider on the bike of a report.
func (d *desk) posture(report *eval.LoadoutReport, style draw.Style) draw.Posture {
	b, built := d.Plan.Bike, report.Facts.Built
	return draw.Posture{
		InseamMM: d.Plan.Brief.Inseam.In("mm"), SeatMM: b.SeatHeight.In("mm") + built.Figure(plan.SeatRise),
		PegMM: b.PegHeight.In("mm") - built.Figure(plan.PegDrop), BarMM: b.BarHeight.In("mm") + built.Figure(plan.BarRise), Style: style,
	}
}
