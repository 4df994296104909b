package bike

import (
	"cmp"
	"slices"
	"strings"

	"valiantmule/internal/core/facts"
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
	openRoadShare         = 0.5
	openRoadKmh           = 100.0
)

func heavyForGround(f *facts.All) (study.Finding, bool) {
	mix, kerb := f.Plan.Brief.Mix(), f.Built.Bike.KerbMass.In("kg")
	tight, loose := mix.Of(terrain.SingleTrack), mix.Of(terrain.Mud)+mix.Of(terrain.Sand)
	switch {
	case kerb > heavyTightKg && tight >= tightShare:
		return study.Found(verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kg} ready to ride, and %.0f %% of the trip is single track.", kerb, 100*tight),
				Why:  "A heavy bike is the wrong tool where it is tight: it is picked up, turned round and held on slopes by one person.",
				Do:   "Hold a lighter bike against it below before parts are bought.",
			}
		})
	case kerb > heavyKg && loose >= looseShare:
		return study.Found(verdict.Watch, func() study.Words {
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
	road, kerb := mix.Road(), b.KerbMass.In("kg")
	if !(road >= openRoadShare && f.Drive.CruiseKmh >= openRoadKmh && kerb < lightKg) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		why := study.Text("A light bike tires its rider on open windy roads, hour after hour.")
		if b.Body == plan.Naked {
			why = "Nothing keeps the wind off. " + why
		}
		return study.Words{
			What: study.Say("{%.0f kg} at {%.0f km/h}, and %.0f %% of the trip is road.", kerb, f.Drive.CruiseKmh, 100*road),
			Why:  why,
			Do:   "A slower cruise and smaller roads, or a truck to the trail head; else hold a heavier bike against it below.",
		}
	})
}

// tagWords are what tags mean; one that is not here is called by itself.
var tagWords = map[string]string{
	"bar-22": "a bar of 22.2 mm", "bar-28": "a bar of 28.6 mm", "clamp-22": "clamps for a 22.2 mm bar", "clamp-28": "clamps for a 28.6 mm bar",
	"nav-place": "a mount to sit on", "engine-bars": "engine bars to hang on", "wide-pegs": "toothed pegs", "radiator": "a radiator", "oil-cooler": "an oil cooler",
	"chain-drive": "a chain", "side-rack": "a side rack to hang on", "rear-rack": "a rear rack to stand on",
}

func doesNotFit(f *facts.All) (study.Finding, bool) {
	for _, fitted := range f.Built.Fitted {
		lacks := func(tag string) bool { return !f.Built.Provides(tag) }
		if !slices.ContainsFunc(fitted.Part.Needs, lacks) {
			continue
		}
		return study.Finding{
			State: verdict.Stop,
			Offer: func() []study.Remedy {
				var remedies []study.Remedy
				for _, tag := range fitted.Part.Needs {
					if lacks(tag) {
						remedies = append(remedies, study.Take(f.Shelf.Providing(f.Built, tag), "%s")...)
					}
				}
				return remedies
			},
			Tell: func() study.Words {
				var lacking []string
				for _, tag := range fitted.Part.Needs {
					if lacks(tag) {
						lacking = append(lacking, cmp.Or(tagWords[tag], tag))
					}
				}
				return study.Words{
					What: study.Say("%s needs %s, which this bike does not have.", fitted.Part.Name, strings.Join(lacking, " and ")),
					Why:  "It does not go on as it comes.",
					Do:   "Choose the version for this bike; check the model year before you pay.",
				}
			},
		}, true
	}
	return study.Finding{}, false
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
