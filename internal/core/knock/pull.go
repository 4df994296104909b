package knock

import (
	"math"
	"slices"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
)

// Rows of what the engine must pull, and of two gearings on one chain.

const (
	jettingFromM = 1800.0 // above which a carburettor runs rich enough to be felt [practice]
	swapNoticeMM = 1.5    // of axle that a chain's slack does not forgive
)

func cruiseNotHeld(f *Facts) (Finding, bool) {
	c := f.Cruise
	if !c.Known || c.Gear == c.Gears {
		return Finding{}, false
	}
	finding := Finding{
		State: verdict.Watch,
		What:  say("Top gear does not hold {%.0f km/h} here; gear %d of %d does.", f.CruiseKmh, c.Gear, c.Gears),
		Why:   "Load, headwind and thin air take more than the engine gives at that speed: you change down at every rise.",
		Do:    "Gear it shorter, or cruise slower; a screen and narrow bags take air away.",
	}
	if c.Gear == 0 {
		finding.State = verdict.Over
		finding.What = say("No gear holds {%.0f km/h} here, loaded and into the headwind.", f.CruiseKmh)
		finding.Do = "Cruise slower: gearing cannot give power that is not there."
	}
	return finding, true
}

func climbShort(f *Facts) (Finding, bool) {
	slope, limit := f.Climb.Slope()
	if !(slope < f.Climb.Wish) {
		return Finding{}, false
	}
	do := map[string]Text{
		"pull":            "Gear it shorter, or carry less: the engine stalls first.",
		"grip":            "Tyres, less pressure, a run-up: the rear wheel spins first. More pull does not help.",
		"the front wheel": "Load lower and further forward, stand and lean in: the front wheel lifts first.",
	}[limit]
	return Finding{
		State: verdict.Over,
		What:  say("It climbs %.0f %% on “%s”; the brief asks for %.0f %%. %s sets the limit.", 100*slope, f.Climb.Ground.Name, 100*f.Climb.Wish, upper(limit)),
		Why:   "A loaded bike that stops on a slope falls there.",
		Do:    do,
	}, true
}

func upper(limit string) string {
	return map[string]string{"pull": "The pull", "grip": "Grip", "the front wheel": "The lifting front wheel"}[limit]
}

func carburettorAltitude(f *Facts) (Finding, bool) {
	high := f.Plan.Brief.Altitude.In("m")
	if f.Built.Bike.Fuelling != plan.Carburettor || !(high > jettingFromM) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("A carburettor at {%.0f m}.", high),
		Why:   "The mixture grows rich as the air thins. How much that matters is disputed for constant-velocity ones; plain slides feel it.",
		Do:    "Ask what others ran up there; carry the leaner main jet and a clip's change of the needle, and change back down low.",
	}, true
}

// swapSlack looks at the other loadouts: two gearings on one chain, changed at
// the trail head.
func swapSlack(f *Facts) (Finding, bool) {
	b := f.Built.Bike
	pitch, known := drive.PitchMM(b.Chain)
	swaps := slices.ContainsFunc(f.Plan.Lines, func(l plan.Line) bool { return l.Loadout != "" })
	if !swaps || !known || f.Chain.Links == 0 || f.Pair.Front == 0 {
		return Finding{}, false
	}
	for _, l := range f.Plan.Loadouts {
		if l.ID == f.Loadout {
			continue
		}
		other := f.Plan.Build(l.ID)
		pair, ok := other.Sprockets()
		if !ok || pair == f.Pair || int(other.Figure(plan.ChainLinks)) != f.Chain.Links {
			continue
		}
		here, err := drive.CentreMM(f.Pair, pitch, float64(f.Chain.Links))
		there, errThere := drive.CentreMM(pair, pitch, float64(f.Chain.Links))
		shift := here - there
		if err != nil || errThere != nil || math.Abs(shift) < swapNoticeMM {
			continue
		}
		finding := Finding{
			State: verdict.Watch,
			What:  say("Changing from %d/%d for “%s” to %d/%d, the axle moves %s.", pair.Front, pair.Rear, l.Name, f.Pair.Front, f.Pair.Rear, shiftWords(shift)),
			Do:    "Take the axle spanner and a wheel-alignment mark with you, or leave one gearing on.",
		}
		if shift > 0 {
			finding.Why = say("Left where it is, the lower run moves {%.0f mm} up and down on top of its slack: it jumps.", drive.SlackMM(f.Pair, pitch, there, shift))
		} else {
			finding.Why = "Left where it is, the chain is too tight to go on."
		}
		return finding, true
	}
	return Finding{}, false
}
