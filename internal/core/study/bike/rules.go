package bike

import (
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Rows of whether it is the right bike, and of what goes on it.

const (
	heavyKg, heavyTightKg = 200.0, 165.0 // kerb masses that are work where it is loose, or tight [practice]
	looseShare            = 0.15
	tightShare            = 0.10
	lightKg               = 150.0 // kerb mass that the wind moves about [practice]
	openRoadH             = 2.0   // a day in the open, from which wind tires [memory]
	usualDayH             = 6.0   // in the saddle, where nobody has said [memory]
	openRoadKmh           = 100.0
)

func heavyForGround(f *facts.All) (study.Finding, bool) {
	mix, kerb := f.Plan.Brief.Mix(), f.Built.Bike.KerbMass.In("kg")
	tight, loose := mix.Of(terrain.SingleTrack), mix.Of(terrain.Mud)+mix.Of(terrain.Sand)
	switch {
	case kerb > heavyTightKg && tight >= tightShare:
		return study.FoundBy(kerb, 0, verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kg} ready to ride, and %.0f %% of the trip is single track.", kerb, 100*tight),
				Why:  "A heavy bike is the wrong tool where it is tight: it is picked up, turned round and held on slopes by one person.",
				Do:   "Hold a lighter bike against it below before parts are bought.",
			}
		})
	case kerb > heavyKg && loose >= looseShare:
		return study.FoundBy(kerb, 0, verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kg} ready to ride, and %.0f %% of the trip is mud and sand.", kerb, 100*loose),
				Why:  "Where it is deep, mass digs in, and every kilogram is lifted out again.",
				Do:   "Hold a lighter bike against it below, or shift the route.",
			}
		})
	}
	return study.Finding{}, false
}

func lightForRoad(f *facts.All) (study.Finding, bool) {
	b, mix := f.Built.Bike, f.Plan.Brief.Mix()
	day, kerb := usualDayH, b.KerbMass.In("kg")
	if f.Plan.Brief.Day.Known() {
		day = f.Plan.Brief.Day.In("h")
	}
	hours := day * mix.RoadHours(1) / mix.Hours(1)
	if !(hours >= openRoadH && f.Drive.CruiseKmh >= openRoadKmh && kerb < lightKg) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		why := study.Text("A light bike tires its rider on open windy roads, hour after hour.")
		if b.Body == plan.Naked {
			why = "Nothing keeps the wind off. " + why
		}
		do := study.Text("A slower cruise and smaller roads; else hold a heavier bike against it below.")
		if mix.Loose() > 0 {
			do = "A slower cruise and smaller roads, or a truck to the trail head; else hold a heavier bike against it below."
		}
		return study.Words{
			What: study.Say("{%.0f kg} at {%.0f km/h}, and {%.1f h} a day are road.", kerb, f.Drive.CruiseKmh, hours),
			Why:  why,
			Do:   do,
		}
	})
}

func doesNotFit(f *facts.All) (study.Finding, bool) {
	return off(f, verdict.Stop, func(o plan.Off) bool { return !o.Unsure }, func(what string) study.Words {
		return study.Words{
			What: study.Text(what),
			Why:  "It does not go on as it comes, so it is credited with nothing but its price.",
			Do:   "Choose the version for this bike; check the model year before you pay. Where you know better, say so on the part's sheet.",
		}
	})
}

func fitmentUnknown(f *facts.All) (study.Finding, bool) {
	return off(f, verdict.Unknown, func(o plan.Off) bool { return o.Unsure }, func(what string) study.Words {
		return study.Words{
			What: study.Text(what),
			Why:  "Fitment comes before money: until somebody knows, it is credited with nothing but its price.",
			Do:   "Ask the maker or somebody who has it on the same bike, then say so on the part's sheet or on the bike's.",
		}
	})
}

// off speaks of all that does not go on and is of one kind.
func off(f *facts.All, state verdict.State, is func(plan.Off) bool, tell func(what string) study.Words) (study.Finding, bool) {
	if !slices.ContainsFunc(f.Built.Off, is) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: state,
		Offer: func() []study.Remedy {
			var remedies []study.Remedy
			for _, o := range f.Built.Off {
				for _, tag := range o.Lacks {
					if is(o) {
						remedies = append(remedies, study.Together(f.Shelf.Bringing(f.Built, tag), o.Part)...)
					}
				}
			}
			return remedies
		},
		Tell: func() study.Words {
			var sentences []string
			for _, o := range f.Built.Off {
				if is(o) {
					sentences = append(sentences, whyOff(o))
				}
			}
			return tell(strings.Join(sentences, " "))
		},
	}, true
}

// whyOff is what keeps a part off, in a sentence.
func whyOff(o plan.Off) string {
	if len(o.Lacks) == 0 {
		fit := o.Part.Fitment
		if o.Unsure {
			return o.Part.Name + ": nobody knows yet whether it goes on" + after(": ask ", fit.Ask) + "."
		}
		return o.Part.Name + " does not go on" + after(": ", fit.Reason) + "."
	}
	lacking := make([]string, len(o.Lacks))
	for i, tag := range o.Lacks {
		lacking[i] = parts.TagWords(tag)
	}
	if o.Unsure {
		return o.Part.Name + " needs " + strings.Join(lacking, " and ") + "; the bike's sheet does not say whether that is there."
	}
	return o.Part.Name + " needs " + strings.Join(lacking, " and ") + ", which this bike does not have."
}

// after puts words behind others, "" for none.
func after(between, words string) string {
	if words == "" {
		return ""
	}
	return between + words
}

// chosen are the parts that the plan puts on and that are not on yet.
func chosen(f *facts.All) func(yield func(*parts.Part) bool) {
	return func(yield func(*parts.Part) bool) {
		for _, fitted := range f.Built.Fitted {
			if fitted.Chosen && !fitted.On && !yield(fitted.Part) {
				return
			}
		}
	}
}

func fitsWithWork(f *facts.All) (study.Finding, bool) {
	var works []string
	for p := range chosen(f) {
		if fit := p.Fitment; fit != nil && (fit.Verdict == parts.FitsWithWork || fit.Blind == entry.Yes) {
			works = append(works, work(p.Name, fit))
		}
	}
	if len(works) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Text(strings.Join(works, " ")),
			Why:  "What is trimmed or drilled does not go back on the shelf, and what a torque wrench cannot reach works loose unseen.",
			Do:   "Have the tools and the hours before the weekend; mark blind fasteners with paint and look at them on the way.",
		}
	})
}

// work is what fitting a part takes, in a sentence.
func work(name string, fit *parts.Fitment) string {
	sentence := name
	if fit.Verdict == parts.FitsWithWork {
		sentence += " goes on with work" + after(": ", fit.Work)
		if fit.Hours.Known() {
			sentence += ", " + fit.Hours.String()
		}
		sentence += after(", with ", fit.Tools)
		if fit.Blind == entry.Yes {
			sentence += "; a torque wrench cannot get at its fasteners"
		}
		return sentence + "."
	}
	return sentence + ": a torque wrench cannot get at its fasteners."
}

func anotherYear(f *facts.All) (study.Finding, bool) {
	var others []string
	for p := range chosen(f) {
		if is, _ := f.Built.Bike.IsFor(p.Made); !is && (p.Fitment == nil || p.Fitment.Verdict == "") {
			kind := strings.Join(strings.Fields(strings.Join([]string{p.Made.Family, p.Made.Variant, p.Made.Years()}, " ")), " ")
			others = append(others, p.Name+" is made for "+kind+".")
		}
	}
	if len(others) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		return study.Words{
			What: study.Text(strings.Join(others, " ")),
			Why:  "This bike is of another year or kind: mounts move, hoses rub, plugs differ.",
			Do:   "Ask what differs before you pay; then say on the part's sheet that it fits, with what work, or that it does not.",
		}
	})
}

func effectsClash(f *facts.All) (study.Finding, bool) {
	if len(f.Built.Clashes) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("Two parts both set %s.", f.Built.Clashes[0]),
			Why:  "Only one of them can be right, so the figures that rest on it are not.",
			Do:   "Take one of the two out, or correct its data.",
		}
	})
}
