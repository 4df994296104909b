package ready

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what time says.

// Late are the orders that cannot be there in time by their likely days, the worst first.
func Late(f *facts.Ready) []int {
	if f.Net == nil || !f.Dated {
		return nil
	}
	var list []int
	for j := range f.Jobs {
		if k := f.Jobs[j].Kind; (k == facts.JobOrder || k == facts.JobShop) && TooLate(f.Table.Rows[j].Spare) {
			list = append(list, j)
		}
	}
	return list
}

// TooLate reports whether days to spare are past.
func TooLate(spare float64) bool { return spare < -late }

// late is by how many days something may be late that reads the same.
const late = 0.05

func startIsPast(f *facts.All) (study.Finding, bool) {
	r := &f.Ready
	if !r.Dated || r.Leaves >= r.Today || f.Journey.Km > 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("The day of departure, %s, is past.", r.Leaves),
			Why:  "Whatever is reckoned back from it is late.",
			Do:   "If the trip is over, leave the plan as it is, or begin the next one from it. If it is put off, say to when.",
		}
	})
}

func cannotBeThere(f *facts.All) (study.Finding, bool) {
	r := &f.Ready
	list := Late(r)
	if len(list) == 0 || r.Leaves < r.Today {
		return study.Finding{}, false
	}
	names := make([]string, len(list))
	worst := 0.0
	for i, j := range list {
		names[i] = r.Jobs[j].Name
		worst = min(worst, r.Table.Rows[j].Spare)
	}
	return study.FoundBy(-worst, 0, verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("Not there in time by their likely days: %s; the worst by %.0f days.", study.Listed(names), max(1, -worst)),
			Why:  "What comes late is fitted in a hurry, and gets its first test on the trip.",
			Do:   "Another seller, express, a workshop, something meanwhile, after the trip, or a later start: Orders has each of them to try.",
		}
	})
}

func waitsForItself(f *facts.All) (study.Finding, bool) {
	circle := f.Ready.Circle
	if len(circle) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		text := ""
		for _, name := range circle {
			text += name + ", then "
		}
		return study.Words{
			What: study.Say("In a circle: %sthe first again.", text),
			Why:  "None of them can begin. Until then what you said of the order is left out.",
			Do:   "Take back one of the things that come first (Spanner days).",
		}
	})
}

func overdue(f *facts.All) (study.Finding, bool) {
	r := &f.Ready
	var names []string
	for j := range r.Jobs {
		job := &r.Jobs[j]
		if job.Kind != facts.JobOrder || job.Line < 0 {
			continue
		}
		if s := f.Plan.Lines[job.Line].Supplied(); s.Promised != "" && s.Came == "" && s.Promised < f.AsOf {
			names = append(names, job.Name)
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("Promised for a day that is past: %s.", study.Listed(names)),
			Why:  "A parcel that is late is mostly later than it says.",
			Do:   "Ask the seller today; then say that it came, that the wrong one came, or the new day.",
		}
	})
}
