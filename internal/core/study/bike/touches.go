package bike

import (
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what its rider has found to be in each other's way.

func cannotBeTogether(f *facts.All) (study.Finding, bool) {
	return meeting(f, verdict.Over, study.Words{
		Why: "One of the two has to go, or to be another.", Do: "Leave one out, or find its other version; where you were wrong, say so.",
	}, plan.Never)
}

func inTheWay(f *facts.All) (study.Finding, bool) {
	return meeting(f, verdict.Watch, study.Words{
		Why: "What rubs wears through, and what is short of room ends the steering, the travel or a hose.",
		Do:  "Put it right before the first ride, look with full lock and full travel, then say that it is mended.",
	}, plan.Touches, plan.Adapter)
}

// meeting speaks of what is in each other's way on the bike as built, in one of these ways,
// and is not mended.
func meeting(f *facts.All, state verdict.State, words study.Words, how ...plan.Meeting) (study.Finding, bool) {
	open := func(t *plan.Touch) bool { return slices.Contains(how, t.How) && !t.Mended && t.Meets(f.Built) }
	if !slices.ContainsFunc(f.Plan.Touches, func(t plan.Touch) bool { return open(&t) }) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: state,
		Offer: func() []study.Remedy {
			var remedies []study.Remedy
			for i := range f.Plan.Touches {
				t := &f.Plan.Touches[i]
				for _, end := range []plan.End{t.One, t.Other} {
					if part, _ := end.On(f.Built); part != nil && open(t) {
						remedies = append(remedies, study.Without(plan.Fitted{Slot: part.Slot, Part: part}))
					}
				}
			}
			return remedies
		},
		Tell: func() study.Words {
			names := f.Plan.Ends()
			var sentences []string
			for i := range f.Plan.Touches {
				if t := &f.Plan.Touches[i]; open(t) {
					sentences = append(sentences, saying(t, names))
				}
			}
			words.What = study.Text(strings.Join(sentences, " "))
			return words
		},
	}, true
}

// saying is one of them in a sentence, which starts with a part where there is one.
func saying(t *plan.Touch, names []entry.Option) string {
	one, other := t.One, t.Other
	if one.Place() {
		one, other = other, one
	}
	text := entry.NameOf(names, string(one)) + " " + entry.NameOf(plan.Meetings(), string(t.How)) + " " + entry.NameOf(names, string(other))
	if mm := t.Room.In("mm"); mm >= 0 {
		text += fmt.Sprintf(", {%.0f mm} between them", mm)
	} else if mm < 0 {
		text += fmt.Sprintf(", {%.0f mm} are missing", -mm)
	}
	if t.Words != "" {
		text += ": " + strings.TrimRight(t.Words, ". ")
	}
	return text + "."
}
