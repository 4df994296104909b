package eval

import (
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Question is one of those that are asked of a bike before money is spent on it.
type Question struct {
	ID, Name string
	State    verdict.State
	Figures  []study.Figure  // what answers it
	Findings []study.Finding // what the rules say to it
}

var questions = []struct {
	id, name string
	figures  []figure.ID
	rules    []string
}{
	{"mass", "Light enough for the ground?", nil, []string{"heavy-for-the-ground"}},
	{"rating", "Carries it all?", []figure.ID{figure.LoadedMass, figure.PayloadLeft}, []string{"overweight", "axle-overload"}},
	{"range", "Reaches the next pump?", []figure.ID{figure.Distance}, []string{"range-short"}},
	{"reach", "Feet on the ground?", []figure.ID{figure.SeatReach}, []string{"out-of-reach"}},
	{"wind", "Holds the open road?", []figure.ID{figure.CruiseRPM, figure.HoldGear, figure.TopSpeed}, []string{"light-for-the-road", "cruise-not-held"}},
	{"clearance", "Clears the ground?", []figure.ID{figure.Clearance}, []string{"room-short"}},
	{"climb", "Climbs it loaded?", []figure.ID{figure.Climb}, []string{"climb-short", "climb-spins"}},
}

// AsItCame is the plan with a bike on which nothing is changed: brief and loads
// stay, parts do not.
func AsItCame(p *plan.Plan, bike *plan.Bike) *plan.Plan {
	bare := *p.Riding(bike)
	if bike == p.Bike {
		bare.Readings = p.Readings
	}
	bare.Lines = nil
	for _, l := range p.Lines {
		if l.Part == nil {
			bare.Lines = append(bare.Lines, l)
		}
	}
	return &bare
}

// AsFound is the plan with its bike as it was found: with what previous owners put on and set, and
// nothing of the plan's own.
func AsFound(p *plan.Plan) *plan.Plan {
	found := *AsItCame(p, p.Bike)
	found.Baseline = p.Baseline
	return &found
}

// RightBike holds a bike's report against the brief: is it the right one? Without
// a bike there is nothing to ask.
func RightBike(report *LoadoutReport) []Question {
	f := report.Facts
	if f.Built == nil {
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
