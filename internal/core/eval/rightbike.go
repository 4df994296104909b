package eval

import (
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
)

// Question is one of those that are asked of a bike before money is spent on it.
type Question struct {
	ID, Name string
	State    verdict.State
	Figures  []Figure        // what answers it
	Findings []knock.Finding // what the rules say to it
}

var questions = []struct {
	id, name string
	figures  []string
	rules    []string
}{
	{"mass", "Light enough for the ground?", nil, []string{"heavy-for-the-ground"}},
	{"rating", "Carries it all?", []string{"loaded-mass", "payload-left"}, []string{"overweight", "axle-overload"}},
	{"range", "Reaches the next pump?", []string{"range"}, []string{"range-short"}},
	{"reach", "Feet on the ground?", []string{"seat-reach"}, []string{"out-of-reach"}},
	{"wind", "Holds the open road?", []string{"cruise-rpm", "hold-gear", "top-speed"}, []string{"light-for-the-road", "cruise-not-held"}},
	{"clearance", "Clears the ground?", []string{"clearance"}, []string{"room-short"}},
	{"climb", "Climbs it loaded?", []string{"climb"}, []string{"climb-short"}},
}

// AsItCame is the plan with a bike on which nothing is changed: brief and loads
// stay, parts do not.
func AsItCame(p *plan.Plan, bike *plan.Bike) *plan.Plan {
	bare := *p.Riding(bike)
	bare.Lines = nil
	for _, l := range p.Lines {
		if l.Part == nil {
			bare.Lines = append(bare.Lines, l)
		}
	}
	return &bare
}

// RightBike holds a bike's report against the brief: is it the right one? Without
// a bike there is nothing to ask.
func RightBike(report *LoadoutReport) []Question {
	f := report.Facts
	if f == nil {
		return nil
	}
	list := make([]Question, len(questions))
	for i, q := range questions {
		asked := Question{ID: q.id, Name: q.name, State: verdict.OK}
		for _, id := range q.figures {
			if figure, ok := report.Figure(id); ok {
				asked.Figures = append(asked.Figures, figure)
				asked.State = verdict.Worse(asked.State, figure.State)
			}
		}
		for _, id := range q.rules {
			for _, finding := range report.Findings {
				if finding.ID == id {
					asked.Findings = append(asked.Findings, finding)
					asked.State = verdict.Worse(asked.State, finding.State)
				}
			}
		}
		if q.id == "mass" && !f.Built.Bike.KerbMass.Known() {
			asked.State = verdict.Unknown
		}
		list[i] = asked
	}
	return list
}
