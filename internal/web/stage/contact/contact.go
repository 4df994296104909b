package contact

import (
	"net/http"
	"slices"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

// contactView is where the rider touches the bike, or the cockpit.
type contactView struct {
	Has     bool
	Drawing draw.RiderView
	Tried   bool
	Asks    []string
	Free    []freeView
	Working []desk.GaugeView
	Lists   []desk.OptionList
}

// freeView is an adjustment that costs nothing.
type freeView struct {
	Name, How, Href string
	State           desk.StateView
	Done            string
}

// contactSlots are the slots of the two pages, in the order in which they are
// tried.
var contactSlots = map[string][]parts.Slot{
	"contact": {parts.Seat, parts.Pegs, parts.Risers, parts.Handlebar, parts.Windscreen, parts.KneeGrip, parts.HighwayPegs},
	"cockpit": {parts.Grips, parts.Levers, parts.Mirrors, parts.ShiftLever, parts.BrakePedal, parts.NavMount, parts.Navigator, parts.Socket, parts.Monitor},
}

// contactColumns are what the parts of a slot are compared by.
var contactColumns = map[parts.Slot][]desk.Column{
	parts.Seat:      {desk.Moves("Reach", "seat-reach"), desk.Moves("Knee", "knee"), desk.Becomes("Does", "seat-hours")},
	parts.Pegs:      {desk.Moves("Knee", "knee"), desk.Becomes("Bars low by", "bar-short"), desk.Becomes("Touch at", "peg-lean")},
	parts.Risers:    {desk.Becomes("Bars low by", "bar-short")},
	parts.Handlebar: {desk.Becomes("Bars low by", "bar-short")},
}

func contactPage(page string) desk.Handler {
	return func(s *desk.House, w http.ResponseWriter, r *http.Request) error {
		return s.PartsPage(w, r, page, func(d *desk.Desk, tried desk.Laid) (any, error) {
			view := contactView{Has: d.Plan.Bike != nil, Tried: tried.Any()}
			if !view.Has {
				return view, nil
			}
			err := contactPoints(d, &view, page, tried)
			return view, err
		})
	}
}

func contactPoints(d *desk.Desk, v *contactView, page string, tried desk.Laid) error {
	var err error
	v.Lists, err = d.ListsOf(contactSlots[page], page, func(slot parts.Slot) []desk.Column {
		return append([]desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Mass", "loaded-mass"), desk.Moves("Needs", "needs")}, contactColumns[slot]...)
	}, tried)
	if err != nil || page != "contact" {
		return err
	}
	after := d.After
	postures := []draw.Posture{posture(d, d.Report, draw.Current)}
	if v.Tried {
		postures = append(postures, posture(d, after, draw.Tried))
	}
	v.Drawing = draw.RiderOn(desk.Silhouette(d.Plan.Bike, d.Report), postures...)
	v.Working = d.Gauges(after, page, tried, "seat-reach", "knee", "bar-short", "peg-lean", "seated-hours", "seat-hours")
	for _, g := range v.Working {
		for _, missing := range g.Missing {
			if !slices.Contains(v.Asks, missing.Name) {
				v.Asks = append(v.Asks, missing.Name)
			}
		}
	}
	for _, c := range baseline.For(d.Plan.Bike.Has) {
		if c.Area != baseline.Free {
			continue
		}
		free := freeView{Name: c.Name, How: c.How, Href: d.Href("baseline") + "#check-" + c.ID, State: desk.StateOf("unknown"), Done: "not looked at"}
		if a, ok := d.Plan.Baseline.Answer(c.ID); ok {
			free.State, free.Done = desk.StateOf("watch"), desk.AnswerWords(a)
			if a.Verdict == baseline.Good || a.Verdict == baseline.Done {
				free.State = desk.StateOf("ok")
			}
		}
		v.Free = append(v.Free, free)
	}
	return nil
}

// posture is the rider on the bike of a report.
func posture(d *desk.Desk, report *eval.LoadoutReport, style draw.Style) draw.Posture {
	b, built := d.Plan.Bike, report.Facts.Built
	return draw.Posture{
		InseamMM: d.Plan.Brief.Inseam.In("mm"), AheadMM: b.PegAheadMM(), SeatMM: b.SeatHeight.In("mm") + built.Figure(parts.SeatRise),
		PegMM: b.PegHeight.In("mm") - built.Figure(parts.PegDrop), BarMM: b.BarHeight.In("mm") + built.Figure(parts.BarRise), Style: style,
	}
}
