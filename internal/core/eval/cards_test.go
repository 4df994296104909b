package eval_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestFewCards: a rider who begins reads a handful of cards, not every consequence of each.
// How few they have to be is what a practitioner acts on [practice].
func TestFewCards(t *testing.T) {
	const middle, most = 6, 11
	b := studytest.New(t)
	var counts []int
	for _, trip := range studytest.Trips(b) {
		cards := study.Cards(b.Report(trip.Plan).Findings)
		counts = append(counts, len(cards))
		assert.LessOrEqual(t, len(cards), most, trip.Name)
	}
	slices.Sort(counts)
	t.Log("median", counts[len(counts)/2], "most", counts[len(counts)-1])
	assert.Len(t, counts, 324)
	assert.LessOrEqual(t, counts[len(counts)/2], middle)
}

// TestPlantedFaults: what the trade always warns of is loud, planted alone [practice: overload,
// what a tyre, a bag or a wire is not made for, what an inspection finds].
func TestPlantedFaults(t *testing.T) {
	b := studytest.New(t)
	heavy := func(kg string, place load.Place) func(*plan.Plan) {
		return studytest.Packed(studytest.Thing(t, kg, "5", "", "", place))
	}
	in := func(kg, litres string) func(*plan.Plan) {
		return studytest.Packed(studytest.Thing(t, kg, litres, parts.SideBags, plan.Left, load.Panniers))
	}
	answer := func(a plan.Answer) func(*plan.Plan) {
		return func(p *plan.Plan) { p.Baseline.Answers = []plan.Answer{a} }
	}
	worn := plan.Answer{Check: "rear-pads"}
	studytest.Enter(t, &worn.New, "5", "mm")
	studytest.Enter(t, &worn.Now, "0.9", "mm")
	studytest.Enter(t, &worn.Limit, "1", "mm")
	nothing := func(*plan.Plan) {}
	faults := []struct {
		rule  string
		state verdict.State
		plant func(*plan.Plan)
		parts []string
	}{
		{"overweight", verdict.Stop, heavy("120", load.Engine), nil},
		{"axle-overload", verdict.Stop, heavy("80", load.Tail), nil},
		{"rack-overload", verdict.Stop, heavy("14", load.Tail), []string{"rear-rack-h"}},
		{"bag-overload", verdict.Stop, in("26", "10"), []string{"bags-rackless-38"}},
		{"bag-overfull", verdict.Over, in("5", "40"), []string{"bags-rackless-38"}},
		{"bag-speed", verdict.Watch, func(p *plan.Plan) { in("5", "10")(p); studytest.Enter(t, &p.Brief.Cruise, "135", "km/h") }, []string{"bags-rackless-38"}},
		{"worn-past-limit", verdict.Stop, answer(worn), nil},
		{"blocks-the-trip", verdict.Over, answer(plan.Answer{Check: "frame", Verdict: baseline.Blocks}), nil},
		{"holds-no-air", verdict.Stop, func(p *plan.Plan) {
			p.Bike.Standard = slices.DeleteFunc(slices.Clone(p.Bike.Standard), func(s parts.Part) bool { return s.Slot == parts.RearTube })
		}, nil},
		{"rear-tyre-rim", verdict.Stop, nothing, []string{"lanner-150-70r17"}},
		{"filling-size", verdict.Stop, nothing, []string{"tube-heavy-rear-17"}},
		{"foam-speed", verdict.Stop, nothing, []string{"foam-rear-18"}},
		{"rim-lock-fit", verdict.Stop, nothing, []string{"lock-rear-185"}},
		{"chain-length", verdict.Stop, func(p *plan.Plan) { p.Lines = b.Count(p, parts.RearSprocket, 52).Lines }, nil},
		{"fuse-over-wire", verdict.Stop, func(p *plan.Plan) {
			laid := plan.Wired{Slot: parts.VestLead, Use: parts.InCold}
			studytest.Enter(t, &laid.Area, "1", "mm²")
			studytest.Enter(t, &laid.Fuse, "15", "A")
			p.Wired = append(p.Wired, laid)
		}, []string{"vest-75"}},
		{"part-does-not-fit", verdict.Stop, nothing, []string{"rear-c5-47"}},
		{"cannot-both", verdict.Stop, nothing, []string{"skid-plastic-h", "bars-low-h"}},
		{"can-not-approved", verdict.Over, nothing, []string{"cans-water-5"}},
		{"not-ridden-loaded", verdict.Watch, func(p *plan.Plan) { p.Lines[0].Source = plan.BoughtUsed }, []string{"rear-rack-h"}},
		{"range-short", verdict.Over, func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Gap, "600", "km") }, nil},
		{"cables-short", verdict.Over, func(p *plan.Plan) { p.Bike.SetOrigin("cable_slack", sheet.Measured) }, []string{"riser-30-22"}},
	}
	assert.GreaterOrEqual(t, len(faults), 20)
	for _, f := range faults {
		p := b.Changing("holt-650", func(p *plan.Plan) { p.Route = nil; f.plant(p) }, f.parts...)()
		said := map[string]verdict.State{}
		for _, card := range study.Cards(b.Report(p).Findings) {
			for _, finding := range append(card.More, card.Lead) {
				said[finding.ID] = finding.State
			}
		}
		assert.Equal(t, f.state, said[f.rule], f.rule)
	}
}

// TestUnprovedStandsFirst: a used part that carries and was not ridden loaded leads what else may
// end the ride and is as bad, until it was (HANDBOOK 16).
func TestUnprovedStandsFirst(t *testing.T) {
	b := studytest.New(t)
	p := b.Changing("holt-650", func(p *plan.Plan) { p.Lines[0].Source = plan.BoughtUsed }, "shock-tourer-h", "grips-fat")()
	cards := study.Cards(b.Report(p).Findings)
	at := slices.IndexFunc(cards, func(c study.Card) bool { return c.Lead.ID == "not-ridden-loaded" })
	first := slices.IndexFunc(cards, func(c study.Card) bool { return c.Lead.Class == cause.Ends && c.Lead.State == verdict.Watch })
	assert.Equal(t, first, at)
	studytest.OnParts(func(part *parts.Part) { parts.Proved.Put(part, entry.Yes) })(p)
	for _, f := range b.Report(p).Findings {
		assert.NotEqual(t, "not-ridden-loaded", f.ID)
	}
}

// TestCards: the first of a cause leads, the rest stay with it, and what stands aside is in none.
// What pulls one setting from both sides is one card, whatever it comes of.
func TestCards(t *testing.T) {
	b := studytest.New(t)
	for _, trip := range studytest.Trips(b)[:60] {
		findings := b.Report(trip.Plan).Findings
		n, seen := 0, map[string]bool{}
		for _, card := range study.Cards(findings) {
			of := string(card.Lead.Cause)
			if card.Pull != "" {
				of = "pull " + string(card.Pull)
			}
			assert.False(t, seen[of])
			seen[of] = true
			ways := map[bool]bool{card.Lead.Pulls.Up: true}
			for _, f := range card.More {
				if card.Pull == "" {
					assert.Equal(t, card.Lead.Cause, f.Cause)
				} else {
					assert.Equal(t, card.Pull, f.Pulls.Setting)
				}
				ways[f.Pulls.Up] = true
				assert.LessOrEqual(t, study.Before(card.Lead, f), 0)
			}
			assert.True(t, card.Pull == "" || len(ways) == 2, "both sides of it")
			n += 1 + len(card.More)
		}
		assert.Len(t, study.Loud(findings), n)
		for _, f := range study.OfTheDay(findings) {
			assert.NotEqual(t, verdict.Over, f.State, "%s: what is set on the day is never over", f.ID)
		}
	}
}
