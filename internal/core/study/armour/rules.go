package armour

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what ends the ride, and of what guards and lamps get in the way of.

// Chances over the trip from which a place is worth a word, and from which it is
// worth one aloud [memory].
const (
	strandsWatch = 0.03
	strandsOver  = 0.10
)

func cannotBoth(f *facts.All) (study.Finding, bool) {
	for _, a := range f.Built.Fitted {
		for _, tag := range a.Part.Excludes {
			for _, b := range f.Built.Fitted {
				if b.Part != a.Part && slices.Contains(b.Part.Provides, tag) {
					return study.Finding{
						State: verdict.Stop,
						Offer: func() []study.Remedy { return []study.Remedy{study.Without(a), study.Without(b)} },
						Tell: func() study.Words {
							return study.Words{
								What: study.Say("%s and %s do not go on together.", a.Part.Name, b.Part.Name),
								Why:  "They want the same place.",
								Do:   "Choose one of them, or another version of the other.",
							}
						},
					}, true
				}
			}
		}
	}
	return study.Finding{}, false
}

// ends are the places that may end the ride, the likeliest first.
func ends(f *facts.All) []guard.Risk {
	list := slices.DeleteFunc(slices.Clone(f.Risks), func(r guard.Risk) bool { return !(r.Left.Stranded > strandsWatch) })
	slices.SortStableFunc(list, func(a, b guard.Risk) int { return cmp.Compare(b.Left.Stranded, a.Left.Stranded) })
	return list
}

// endsTheRide is one list of all that may end the ride. Where all of it is guarded, guards are
// no way out any more, and it is small unless it is likely all the same.
func endsTheRide(f *facts.All) (study.Finding, bool) {
	worst, bare := 0.0, false
	for i := range f.Risks {
		if r := &f.Risks[i]; r.Left.Stranded > strandsWatch {
			worst, bare = max(worst, r.Left.Stranded), bare || !isGuarded(r)
		}
	}
	if worst == 0 {
		return study.Finding{}, false
	}
	likely := worst > strandsOver
	state := verdict.Watch
	if likely {
		state = verdict.Over
	}
	return study.Finding{
		State: state,
		Value: 100 * worst,
		Small: !bare && !likely,
		Offer: func() []study.Remedy { return guarding(f, ends(f)) },
		Tell: func() study.Words {
			list := ends(f)
			names := make([]string, len(list))
			for i, r := range list {
				names[i] = fmt.Sprintf("%s %.0f", strings.ToLower(r.Place.Name), 100*r.Left.Stranded)
			}
			words := study.Words{
				Short: study.Say("what ends the ride: %s of 100", names[0]),
				What:  study.Say("What most likely ends the ride, of 100 such trips: %s.", study.Listed(names)),
				Why:   "It breaks, and most riders are stuck then. The rates are guesses that you can change.",
				Do:    "Guard it, carry what mends it, or ride where help is near.",
			}
			if !bare {
				words.Do = "What guards it is on: carry what mends it, or ride where help is near."
			}
			return words
		},
	}, true
}

// guardedShare is what a place that is guarded is left with of its risk, at most [memory].
const guardedShare = 0.7

func isGuarded(r *guard.Risk) bool { return r.Left.Stranded <= guardedShare*r.Bare.Stranded }

// Guards are offered for so many places, and only where they take so much off the chance of
// being stranded, as it is written.
const (
	mostGuards  = 3
	guardsLeast = 0.01
)

// guarding offers, of each place in turn, the part that takes most of its risk away, of those
// that go on and take enough.
func guarding(f *facts.All, list []guard.Risk) []study.Remedy {
	var remedies []study.Remedy
	var offered []*parts.Part
	for _, r := range list {
		p := bestGuard(f, r)
		if p == nil || slices.Contains(offered, p) {
			continue
		}
		offered, remedies = append(offered, p), append(remedies, study.Take(p, "%s")...)
		if len(remedies) == mostGuards {
			break
		}
	}
	return remedies
}

// bestGuard is the part of any kind that leaves least of a place's risk; nil where none moves
// the figure.
func bestGuard(f *facts.All, r guard.Risk) *parts.Part {
	var best *parts.Part
	least := 1 - guardsLeast/r.Left.Stranded
	for _, p := range f.Shelf {
		if !p.Guards(r.Place.Place) || f.Built.Chosen(p.Slot) {
			continue
		}
		left, all := 0.0, 0.0
		for _, t := range r.Threats {
			through := t.Events * t.Breaks * t.Left
			all += through
			covers, _ := p.Covers()
			for _, c := range covers {
				if c.Place == r.Place.Place && slices.Contains(c.Against, t.Hazard) {
					through *= 1 - c.Stops.In("")
				}
			}
			left += through
		}
		if share := left / all; share < least && f.Built.Fits(p) {
			best, least = p, share
		}
	}
	return best
}

// newKm is up to where paint is as good as new [memory].
const newKm = 300

// bareFromNew: what only helps before the first kilometre, on a bike that has hardly run one.
func bareFromNew(f *facts.All) (study.Finding, bool) {
	if !(f.Built.Bike.Odometer.In("km") <= newKm) {
		return study.Finding{}, false
	}
	for _, c := range f.Built.Covers() {
		if c.Place == guard.Frame && c.Hazard == guard.Rub {
			return study.Finding{}, false
		}
	}
	return study.Finding{
		State: verdict.Watch,
		Early: true,
		Offer: func() []study.Remedy {
			glued := func(p *parts.Part) bool { return parts.GuardMount.In(p) == parts.Glued }
			return slices.Concat(study.Offer(f, parts.FrameGuards, glued), study.Offer(f, parts.DashGuard, glued))
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("At {%.0f km} frame and swingarm are bare, where boots and straps rub.", f.Built.Bike.Odometer.In("km")),
				Why:  "Paint is through in a season, and no strip brings it back; on a new bike it costs next to nothing.",
				Do:   "Clean it and put strips or film on frame, swingarm and dash before the first ride.",
			}
		},
	}, true
}

func lampBehindMudguard(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("raised-mudguard") {
		return study.Finding{}, false
	}
	for _, c := range f.Built.Covers() {
		if c.Place == guard.Lamp && c.Hazard == guard.Stone {
			return study.Finding{}, false
		}
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return study.Offer(f, parts.LampGuard, func(*parts.Part) bool { return true }) },
		Tell: func() study.Words {
			return study.Words{
				What: "The raised front mudguard lets stones of the front wheel up to the headlamp.",
				Why:  "What the low one caught now flies on.",
				Do:   "A guard that stands off the lamp and folds away to clean it.",
			}
		},
	}, true
}

func guardsAtTheBars(f *facts.All) (study.Finding, bool) {
	p := f.Built.Part(parts.HandGuards)
	if p == nil || !slices.Contains(p.Provides, "bar-ends") {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "guards in the bar's ends",
			What:  study.Say("%s clamp to the bar and into its ends.", p.Name),
			Why:   "They want hollow bar ends, levers that end before the guard, and room for heated-grip wires; a long lever jams.",
			Do:    "Look into a bar end and pull the lever to the grip before you order. Saw a lever only where it has a notch to break.",
		}
	})
}

func blockedAccess(f *facts.All) (study.Finding, bool) {
	var words []string
	for _, fitted := range f.Built.Fitted {
		if g := fitted.Part.Guard(); g != nil && len(g.Blocks) > 0 {
			names := make([]string, len(g.Blocks))
			for i, a := range g.Blocks {
				names[i] = entry.NameOf(parts.Accesses(), string(a))
			}
			words = append(words, fitted.Part.Name+" before "+strings.Join(names, " and "))
		}
	}
	if len(words) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("In the way: %s.", strings.Join(words, "; ")),
			Why:  "What has to come off at each oil change is left off one day.",
			Do:   "Look for an opening in it, or count its bolts; thread-lock and a torque wrench on every refit.",
		}
	})
}

func blowIntoCases(f *facts.All) (study.Finding, bool) {
	p := f.Built.Part(parts.SkidPlate)
	if p == nil || parts.GuardMount.In(p) != parts.ToEngine {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy {
			return study.Offer(f, parts.SkidPlate, func(p *parts.Part) bool { return parts.GuardMount.In(p) == parts.ToFrame })
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("%s hangs on the engine: a hard blow goes into the cases.", p.Name),
				Why:  "A plate on the frame keeps it out of them; a lug that breaks off beats a cracked case.",
				Do:   "Take one that bolts to the frame where the ground is rock.",
			}
		},
	}, true
}

func shortPlateHolder(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("short-plate") {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: "A short plate holder: plate light, reflector and the plate's angle have to be there still.",
			Why:  "Inspections fail without them, and bags may stand before the lamp.",
			Do:   "Look at it from behind at night with the bags on.",
		}
	})
}
