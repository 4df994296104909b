package inspection

import (
	"math"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what the inspection found.

// wearing names what tell says of the answers with a measure, of parts that stay.
func wearing(f *facts.All, tell func(c baseline.Check, w baseline.Worn) bool) []string {
	var names []string
	for _, a := range f.Plan.Baseline.Answers {
		c, ok := baseline.CheckOf(a.Check)
		if ok && c.Wear != baseline.NoMeasure && !f.Built.Chosen(plan.SlotOf(a.Check)) && tell(c, a.Worn()) {
			names = append(names, c.Name)
		}
	}
	return names
}

func wornPast(f *facts.All) (study.Finding, bool) {
	names := wearing(f, func(c baseline.Check, w baseline.Worn) bool { return w.Past(c.Wear) })
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Stop, func() study.Words {
		return study.Words{
			What: study.Say("Worn to the limit that you entered: %s.", study.Listed(names)),
			Why:  "The manual's limit is where it stops doing its work, brakes and tyres first.",
			Do:   "Replace it before it is ridden; brakes by a competent mechanic.",
		}
	})
}

func wearShort(f *facts.All) (study.Finding, bool) {
	trip := f.Plan.Brief.Distance.In("km")
	least := math.Inf(1)
	names := wearing(f, func(c baseline.Check, w baseline.Worn) bool {
		left := w.LeftKm()
		short := left < trip && !w.Past(c.Wear)
		if short {
			least = min(least, left)
		}
		return short
	})
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.FoundBy(least, trip, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("Does not last the trip of {%.0f km} as it wears now: %s; the first is through after {%.0f km}.", trip, study.Listed(names), least),
			Why:  "Wear goes on at the pace that you measured, and faster in mud and dust.",
			Do:   "Replace it before the start, or carry it and know where it is changed on the way.",
		}
	})
}

func blocksTrip(f *facts.All) (study.Finding, bool) {
	var names []string
	for _, a := range f.Plan.Baseline.Answers {
		if c, ok := baseline.CheckOf(a.Check); ok && a.Verdict == baseline.Blocks && !f.Built.Chosen(plan.SlotOf(a.Check)) {
			names = append(names, c.Name)
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("Blocks the trip: %s.", study.Listed(names)),
			Why:  "So the inspection says.",
			Do:   "Put it right first; until then money for other parts can wait.",
		}
	})
}

func dueFirst(f *facts.All) (study.Finding, bool) {
	var names []string
	for _, l := range f.Ledger.Due {
		if l.Decision != plan.OnTheBike { // that is put right
			names = append(names, l.Title())
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("To be put right before the trip: %s.", study.Listed(names)),
			Why:  "A part on top of a fault hides it; standard settings are what every change is measured from.",
			Do:   "Do these before parts are fitted, and tick them off as put right when they are: what they cost stays in the ledger.",
		}
	})
}
