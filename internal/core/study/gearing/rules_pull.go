package gearing

import (
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what the engine must pull, and of two gearings on one chain.

const (
	jettingFromM = 1800.0 // above which a carburettor runs rich enough to be felt [practice]
	swapNoticeMM = 1.5    // of axle that a chain's slack does not forgive
)

func cruiseNotHeld(f *facts.All) (study.Finding, bool) {
	c := f.Cruise
	if !c.Known || c.Gear == c.Gears {
		return study.Finding{}, false
	}
	state := verdict.Watch
	if c.Gear == 0 {
		state = verdict.Over
	}
	return study.Found(state, func() study.Words {
		words := study.Words{
			What: study.Say("Top gear does not hold {%.0f km/h} here; gear %d of %d does.", f.Drive.CruiseKmh, c.Gear, c.Gears),
			Why:  study.Say("The engine gives less at that speed than it takes against %s: you change down at every rise.", against(f)),
			Do:   "Gear it shorter, or cruise slower; a screen and narrow bags take air away.",
		}
		if c.Gear == 0 {
			words.What = study.Say("No gear holds {%.0f km/h} against %s.", f.Drive.CruiseKmh, against(f))
			words.Do = "Cruise slower: gearing cannot give power that is not there."
		}
		return words
	})
}

// thinFromM is from how high up thin air is named [memory].
const thinFromM = 800.0

// against is what the cruise is held against, by name and number: what the brief does not
// say is no excuse.
func against(f *facts.All) string {
	names := []string{"the load", "the air"}
	if f.Plan.Brief.Headwind.Base() > 0 {
		names = append(names, fmt.Sprintf("a headwind of {%.0f km/h}", f.Plan.Brief.Headwind.In("km/h")))
	}
	if f.Plan.Brief.Altitude.In("m") >= thinFromM {
		names = append(names, fmt.Sprintf("thin air at {%.0f m}", f.Plan.Brief.Altitude.In("m")))
	}
	return study.Listed(names)
}

// climbShort speaks of climbs on which one of some things gives out.
func climbShort(of ...string) func(*facts.All) (study.Finding, bool) {
	return func(f *facts.All) (study.Finding, bool) {
		slope, limit := f.Climb.Slope()
		says := climbLimits[limit]
		if !slices.Contains(of, limit) || !(slope < f.Climb.Wish*(1-says.half)) {
			return study.Finding{}, false
		}
		return study.FoundBy(slope, f.Climb.Wish, verdict.Over, func() study.Words {
			return study.Words{
				What: study.Say("It climbs %.0f %% on “%s”; the brief asks for %.0f %%. %s sets the limit.", 100*slope, f.Climb.Ground.Name, 100*f.Climb.Wish, says.what),
				Why:  "A loaded bike that stops on a slope falls there.",
				Do:   says.do,
			}
		})
	}
}

// climbLimits are what sets the steepest climb, in words, and half of the band in which each is
// known, a share of it [memory]: of torque and gears, of grip on the loose, of where it all sits.
var climbLimits = map[string]struct {
	what string
	do   study.Text
	half float64
}{
	"pull":            {"The pull", "Gear it shorter, or carry less: the engine stalls first.", 0.05},
	"grip":            {"Grip", "Tyres, less pressure, a run-up: the rear wheel spins first. More pull does not help.", 0.2},
	"the front wheel": {"The lifting front wheel", "Load lower and further forward, stand and lean in: the front wheel lifts first.", 0.1},
}

func carburettorAltitude(f *facts.All) (study.Finding, bool) {
	high := f.Plan.Brief.Altitude.In("m")
	if f.Built.Bike.Fuelling != plan.Carburettor || !(high > jettingFromM) {
		return study.Finding{}, false
	}
	return study.FoundBy(high, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("A carburettor at {%.0f m}.", high),
			Why:  "The mixture grows rich as the air thins. How much that matters is disputed for constant-velocity ones; plain slides feel it.",
			Do:   "Ask what others ran up there; carry the leaner main jet and a clip's change of the needle, and change back down low.",
		}
	})
}

// swapSlack looks at the other loadouts: two gearings on one chain, changed at
// the trail head.
func swapSlack(f *facts.All) (study.Finding, bool) {
	b := f.Built.Bike
	pitch, known := drive.PitchMM(b.Chain)
	swaps := slices.ContainsFunc(f.Plan.Lines, func(l plan.Line) bool {
		return l.Loadout != "" && l.Part != nil && (l.Part.Slot == parts.FrontSprocket || l.Part.Slot == parts.RearSprocket || l.Part.Slot == parts.Chain)
	})
	if !swaps || !known || f.Chain.Links == 0 || f.Drive.Pair.Front == 0 {
		return study.Finding{}, false
	}
	for _, l := range f.Plan.Loadouts {
		if l.ID == f.Loadout.ID {
			continue
		}
		other := f.BuiltFor(l.ID)
		pair, ok := other.Sprockets()
		if !ok || pair == f.Drive.Pair || int(other.Figure(parts.ChainLinks)) != f.Chain.Links {
			continue
		}
		here, err := drive.CentreMM(f.Drive.Pair, pitch, float64(f.Chain.Links))
		there, errThere := drive.CentreMM(pair, pitch, float64(f.Chain.Links))
		shift := here - there
		if err != nil || errThere != nil || math.Abs(shift) < swapNoticeMM {
			continue
		}
		return study.OnTheDay(func() study.Words {
			words := study.Words{
				Short: "The chain's slack, after the change of sprockets",
				What:  study.Say("Changing from %d/%d for “%s” to %d/%d, the axle moves %s.", pair.Front, pair.Rear, l.Name, f.Drive.Pair.Front, f.Drive.Pair.Rear, shiftWords(shift)),
				Why:   "Left where it is, the chain is too tight to go on.",
				Do:    "Take the axle spanner and a wheel-alignment mark with you, or leave one gearing on.",
			}
			if shift > 0 {
				words.Why = study.Say("Left where it is, the lower run moves {%.0f mm} up and down on top of its slack: it jumps.", drive.SlackMM(f.Drive.Pair, pitch, there, shift))
			}
			return words
		})
	}
	return study.Finding{}, false
}
