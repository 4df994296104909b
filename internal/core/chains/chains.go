// Package chains is what sprockets and chains can be had for a pair, as remedies: more than
// one study offers them.
package chains

import (
	"fmt"
	"math"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// PairChoices are the choices that bring the bike from its pair to another; nil
// for the pair that is on.
func PairChoices(f *facts.All, pair drive.Pair) []plan.Choice {
	var choices []plan.Choice
	for _, want := range []struct {
		slot     parts.Slot
		figure   parts.Figure
		teeth    int
		now, std int
	}{
		{parts.FrontSprocket, parts.FrontTeeth, pair.Front, f.Drive.Pair.Front, f.Drive.StandardPair.Front},
		{parts.RearSprocket, parts.RearTeeth, pair.Rear, f.Drive.Pair.Rear, f.Drive.StandardPair.Rear},
	} {
		if want.teeth == want.now {
			continue
		}
		if want.teeth == want.std {
			choices = append(choices, plan.Choice{Slot: want.slot})
			continue
		}
		choices = append(choices, plan.Choice{Slot: want.slot, Part: partWith(f, want.slot, want.figure, want.teeth)})
	}
	return f.Plan.Scoped(choices, f.Loadout.ID)
}

// partWith is the shelf's part that sets a figure to a count and goes on the
// bike, or else one that is not listed and has no price yet.
func partWith(f *facts.All, slot parts.Slot, figure parts.Figure, count int) *parts.Part {
	for _, p := range f.Shelf {
		if p.Slot == slot && int(p.Sets(figure)) == count && f.Standard.Fits(p) {
			return p
		}
	}
	return plan.Unlisted(f.Built.Bike, slot, count)
}

// For is the chain for a pair: the one that is on if the adjuster reaches,
// or else the even number of links that it does reach.
func For(f *facts.All, pair drive.Pair) (links int, shiftMM float64, ok bool) {
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	centre, err := f.StandardCentreMM()
	if !known || err != nil {
		return 0, 0, false
	}
	if now, err := drive.CentreMM(pair, pitch, float64(f.Chain.Links)); err == nil && f.Chain.Adjuster.Reaches(now-centre) {
		return f.Chain.Links, now - centre, true
	}
	return drive.LinksInReach(pair, pitch, centre, f.Chain.Adjuster)
}

// Of is a chain of so many links.
func Of(f *facts.All, links int) *parts.Part {
	return partWith(f, parts.Chain, parts.ChainLinks, links)
}

// RestOfTheDrive renews what of chain and sprockets the plan leaves old, with the counts that
// are on; none where a count is not known.
func RestOfTheDrive(f *facts.All) []study.Remedy {
	links := f.Chain.Links
	if f.Chain.Best > 0 && !f.Chain.Adjuster.Reaches(f.Chain.ShiftMM) {
		links = f.Chain.Best
	}
	var r study.Remedy
	var names []string
	for _, of := range []struct {
		slot   parts.Slot
		figure parts.Figure
		count  int
	}{{parts.Chain, parts.ChainLinks, links}, {parts.FrontSprocket, parts.FrontTeeth, f.Drive.Pair.Front}, {parts.RearSprocket, parts.RearTeeth, f.Drive.Pair.Rear}} {
		if f.Built.Chosen(of.slot) {
			continue
		}
		if of.count == 0 {
			return nil
		}
		part := partWith(f, of.slot, of.figure, of.count)
		r.Choices, names = append(r.Choices, plan.Choice{Slot: of.slot, Part: part}), append(names, part.Name)
	}
	r.Label = "Renew the rest: " + strings.Join(names, ", ")
	return []study.Remedy{r}
}

// Choice fits a chain of so many links.
func Choice(f *facts.All, links int) []plan.Choice {
	c := plan.Choice{Slot: parts.Chain}
	if int(f.Standard.Figure(parts.ChainLinks)) != links {
		c.Part = Of(f, links)
	}
	return f.Plan.Scoped([]plan.Choice{c}, f.Loadout.ID)
}

// Remedy offers the chain that the adjuster reaches best, where it is another one.
func Remedy(f *facts.All, label string) []study.Remedy {
	if f.Chain.Best == 0 || f.Chain.Best == f.Chain.Links {
		return nil
	}
	choices := Choice(f, f.Chain.Best)
	if choices[0].Part == nil {
		return []study.Remedy{{Label: "Back to the standard chain", Choices: choices}}
	}
	return []study.Remedy{{Label: fmt.Sprintf(label, choices[0].Part.Name), Choices: choices}}
}

// Closer is Remedy when another chain sets the axle clearly nearer.
func Closer(f *facts.All) []study.Remedy {
	if math.Abs(f.Chain.BestShift) > math.Abs(f.Chain.ShiftMM)-2 {
		return nil
	}
	return Remedy(f, "Take %s: the axle stays nearer to where it was")
}

// had reports whether sprockets with the teeth of choices are to be had: from the shelf, or
// by what the trade sells for the chain.
func had(f *facts.All, choices []plan.Choice) bool {
	front, rear, known := drive.Sold(f.Built.Bike.Chain)
	for _, c := range choices {
		if c.Part == nil || !strings.HasPrefix(c.Part.ID, "any-") || !known {
			continue
		}
		teeth, _ := c.Part.Count()
		if c.Slot == parts.FrontSprocket && !front.Has(teeth) || c.Slot == parts.RearSprocket && !rear.Has(teeth) {
			return false
		}
	}
	return true
}

// PairRemedy offers a pair of sprockets that are to be had, and the chain if the one that is
// on does not reach.
func PairRemedy(f *facts.All, pair drive.Pair, label string) []study.Remedy {
	choices := PairChoices(f, pair)
	if choices == nil || !had(f, choices) {
		return nil
	}
	if links, _, ok := For(f, pair); ok && links != f.Chain.Links {
		choices = append(choices, plan.Choice{Slot: parts.Chain, Part: Of(f, links)})
		label += fmt.Sprintf(", with a chain of %d links", links)
	}
	return []study.Remedy{{Label: label, Choices: choices}}
}
