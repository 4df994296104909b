package eval_test

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// retyped is a part whose sheet was filled in from another's, field by field, as text.
func retyped(t *testing.T, p *parts.Part) *parts.Part {
	t.Helper()
	from, to := parts.DraftOf(p), parts.DraftOf(&parts.Part{ID: "own-copy", Slot: p.Slot, Name: p.Name, Price: p.Price, Place: p.Place, Origin: p.Origin})
	asks := to.Asks()
	for g, group := range from.Asks() {
		for i, f := range group.Fields {
			require.NoError(t, asks[g].Fields[i].Entry.Enter(f.Entry.String(), f.Unit), "%s: %s", p.ID, f.Key)
		}
		for i, choice := range group.Picks {
			asks[g].Picks[i].Set(choice.Get())
		}
		for i, s := range group.Severals {
			asks[g].Severals[i].Set(s.Get())
		}
		for i, words := range group.Texts {
			*asks[g].Texts[i].Words = *words.Words
		}
	}
	if covers := to.Covers(); covers != nil {
		*covers = *from.Covers()
	}
	return to.Done()
}

// TestOwnPartIsAsGoodAsTheShelfs: for every part of every slot, one of the rider's own
// with the same fields gives the same figures, to the last digit, and the same findings.
func TestOwnPartIsAsGoodAsTheShelfs(t *testing.T) {
	b := studytest.New(t)
	slots := map[parts.Slot]bool{}
	for _, p := range b.Shelf {
		slots[p.Slot] = true
		own := retyped(t, p)
		bike := "holt-650"
		for id, candidate := range b.Bikes {
			if b.Shelf.CouldFit((&plan.Plan{Machine: plan.Machine{Bike: candidate}}).BuildStandard(), p) && id < bike {
				bike = id
			}
		}
		report := func(part *parts.Part) (figures []study.Figure, findings []string) {
			r, err := eval.EvaluateLoadout(b.Standard(bike).With(plan.Choice{Slot: part.Slot, Part: part}), b.Shelf, "travel", "2026-11-26")
			require.NoError(t, err)
			for _, f := range r.Findings {
				findings = append(findings, f.ID+" "+string(f.State))
			}
			return slices.Concat(r.Gauges, r.Others), findings
		}
		wantFigures, wantFindings := report(p)
		figures, findings := report(own)
		require.Equal(t, len(wantFigures), len(figures))
		for i, want := range wantFigures {
			assert.Equal(t, fmt.Sprint(want.Value, want.State), fmt.Sprint(figures[i].Value, figures[i].State), "%s of %s", want.ID, p.ID)
		}
		assert.Equal(t, wantFindings, findings, p.ID)
	}
	for _, info := range parts.Kinds() {
		assert.True(t, slots[info.Slot], "nothing on the shelf shows what parts of %s have", info.Slot)
	}
}

// TestTags: whatever the shelf's parts provide is asked of their slot, and whatever they
// need somebody can provide and is said in words.
func TestTags(t *testing.T) {
	b := studytest.New(t)
	for _, p := range b.Shelf {
		for _, tag := range p.Provides {
			found := false
			for _, o := range parts.TagsBy(p.Slot) {
				found = found || o.Value == tag
			}
			assert.True(t, found, "%s provides %s, and parts of %s are not asked for it", p.ID, tag, p.Slot)
		}
		for _, tag := range append(p.Needs, p.Excludes...) {
			assert.NotEqual(t, tag, parts.TagWords(tag), "%s: %s is not in words", p.ID, tag)
		}
	}
}

// TestWhatDoesNotGoOnIsCreditedWithNothing but its price, and all of it is said.
func TestWhatDoesNotGoOnIsCreditedWithNothing(t *testing.T) {
	b := studytest.New(t)
	bare := b.Standard("holt-650")
	off := b.With("holt-650", "skid-alu-a", "side-rack-f", "rear-h6-47")
	report := func(p *plan.Plan) *eval.LoadoutReport {
		r, err := eval.EvaluateLoadout(p, b.Shelf, "travel", "2026-11-26")
		require.NoError(t, err)
		return r
	}
	with, without := report(off), report(b.With("holt-650", "rear-h6-47"))
	for _, f := range slices.Concat(without.Gauges, without.Others) {
		if got, _ := with.Figure(f.ID); f.Stage != figure.Spend && f.Stage != figure.Ready && f.Known { // it is money and work all the same
			assert.Equal(t, f.Value, got.Value, f.ID)
		}
	}
	price := func(r *eval.LoadoutReport) float64 { f, _ := r.Figure(figure.Cost); return f.Value }
	assert.Greater(t, price(with), price(without))
	said := string(b.Findings(off)["part-does-not-fit"].Tell().What)
	assert.Contains(t, said, "Averill 720")
	assert.Contains(t, said, "Fennick single", "not only the first")

	fits := *b.Part("skid-alu-a").Part
	fits.Fitment = &parts.Fitment{Verdict: parts.FitsWithWork}
	assert.NotContains(t, b.Findings(bare.With(plan.Choice{Slot: fits.Slot, Part: &fits})), "part-does-not-fit", "whoever tried it knows better")
	own := b.Standard("holt-650")
	own.Bike.Provides = nil
	findings := b.Findings(own.With(b.Part("skid-alu-h")))
	assert.Contains(t, findings, "fitment-unknown", "a sheet that names no frame leaves it open")
	assert.NotContains(t, findings, "part-does-not-fit")
}

// TestTheWholeWay: what a needed thing needs is offered with it, as one choice.
func TestTheWholeWay(t *testing.T) {
	b := studytest.New(t)
	way := b.Findings(b.With("holt-650", "hands-bar-28"))["part-does-not-fit"].Remedies()
	require.NotEmpty(t, way)
	var slots []parts.Slot
	for _, c := range way[0].Choices {
		slots = append(slots, c.Slot)
	}
	assert.Equal(t, []parts.Slot{parts.Handlebar, parts.Risers, parts.HandGuards}, slots, "the bar, the clamps that it needs, and the guards on top")
	assert.NotContains(t, b.Findings(b.With("holt-650").With(way[0].Choices...)), "part-does-not-fit")
}

// TestUnknownIsSaidAndNeverHelps: a part of which nobody knows more than its name puts no
// number that is none into a sentence, and no gauge stands better for it than for the
// bike without.
func TestUnknownIsSaidAndNeverHelps(t *testing.T) {
	b := studytest.New(t)
	for _, bike := range []string{"holt-650", "corrin-1180", "sorrel-320"} {
		bare := b.Standard(bike)
		without, err := eval.EvaluateLoadout(bare, b.Shelf, "travel", "2026-11-26")
		require.NoError(t, err)
		for _, info := range parts.Kinds() {
			own := parts.DraftOf(&parts.Part{ID: "own-blank", Slot: info.Slot, Name: "Mine"}).Done()
			p := bare.With(plan.Choice{Slot: info.Slot, Part: own})
			r, err := eval.EvaluateLoadout(p, p.WithOwn(b.Shelf), "travel", "2026-11-26")
			require.NoError(t, err)
			for _, f := range r.Findings {
				words := f.Tell()
				assert.NotRegexp(t, `NaN|Inf|%!`, words.What+words.Why+words.Do, "%s of a %s", f.ID, info.Slot)
				f.Remedies()
			}
			needs, _ := r.Needs()
			for _, n := range needs {
				a := n.Tell()
				assert.NotRegexp(t, `NaN|Inf|%!`, a.Because+a.Bare+a.Fitted+a.Short, "%s with a %s", n.ID, info.Slot)
			}
			for i, g := range r.Gauges {
				if was := without.Gauges[i]; was.State != verdict.OK && g.State == verdict.OK {
					assert.Fail(t, "better for what nobody knows", "%s: %s is %s, was %s", info.Slot, g.ID, g.State, was.State)
				}
			}
		}
	}
}

// TestAsFoundIsWhatIsComputed: what a change of before put on is on, until it is undone,
// and a tread that was measured is not asked for again.
func TestAsFoundIsWhatIsComputed(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	p.Baseline, p.Ready = plan.Inspection{}, plan.Ready{}
	standard := studytest.Value(t, p, "cruise-rpm")
	short := parts.Counted(parts.FrontSprocket, 13)
	p.Baseline.Changes = []plan.Change{{Name: "13 teeth in front", Fate: baseline.Keep, Part: short}}
	assert.Greater(t, studytest.Value(t, p, "cruise-rpm"), standard)
	p.Baseline.Changes[0].Fate = baseline.Undo
	assert.Equal(t, standard, studytest.Value(t, p, "cruise-rpm"))

	a := plan.Answer{Check: "rear-tyre", Verdict: baseline.Good}
	studytest.Enter(t, &a.New, "8", "mm")
	studytest.Enter(t, &a.Now, "3", "mm")
	studytest.Enter(t, &a.Limit, "1", "mm")
	studytest.Enter(t, &p.Bike.RearTread, "100", "%")
	whole := studytest.Value(t, p, "rear-life")
	p.Baseline.Answers = []plan.Answer{a}
	assert.InEpsilon(t, 2.0/7*whole, studytest.Value(t, p, "rear-life"), 1e-9, "2 of 7 mm above the limit")
}

// TestFittedOnTheWay: what is packed weighs behind the seat where it is not on, what
// stays behind does not; a line with a mass weighs where it sits.
func TestFittedOnTheWay(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	choice := b.Part("screen-tall")
	choice.Loadout = "travel"
	p = p.With(choice)
	kg := choice.Part.Mass.In("kg")
	day := func() float64 {
		r, err := eval.EvaluateLoadout(p, b.Shelf, "trail-day", "2026-11-26")
		require.NoError(t, err)
		f, _ := r.Figure("loaded-mass")
		return f.Value
	}
	left := day()
	p.Lines[0].Swap = &plan.Swap{Packed: true}
	studytest.Enter(t, &p.Lines[0].Swap.Minutes, "12", "min")
	assert.InDelta(t, left+kg, day(), 1e-9)
	over := p.Changeover("travel", "trail-day")
	assert.InDelta(t, 12, over.Minutes, 1e-9)
	assert.Len(t, over.Off, 1)
	assert.Len(t, over.Packed, 1)
	assert.Empty(t, over.StayHome)
	charger := plan.Line{Kind: plan.Gear, Name: "Charger", Need: plan.Wanted, Place: "tank-bag"}
	studytest.Enter(t, &charger.Mass, "0.7", "kg")
	p.Lines = append(p.Lines, charger)
	require.Empty(t, p.Validate())
	assert.InDelta(t, left+kg+0.7, day(), 1e-9)
}

// TestLoadoutsAreTheRiders: added like another, renamed, dropped with what was fitted in
// it alone.
func TestLoadoutsAreTheRiders(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	choice := b.Part("screen-tall")
	choice.Loadout = "travel"
	own := *b.Part("tail-22").Part
	own.ID = "own-bag"
	p = p.With(choice, plan.Choice{Slot: own.Slot, Part: &own, Loadout: "travel"})
	id := plan.LoadoutID("Winter!", func(id string) bool { return id == "winter" })
	assert.Equal(t, "winter-2", id)
	both := p.Relaid(append(slices.Clone(p.Loadouts), plan.Loadout{ID: id, Name: "Winter", Days: 3}), map[string]string{id: "travel"})
	require.Empty(t, both.Validate())
	assert.Equal(t, "screen-tall", both.Chosen(parts.Windscreen, id).ID)
	was, _ := p.Loadout("travel")
	now, _ := both.Loadout(id)
	assert.Equal(t, was.Loads, now.Loads)
	one := p.Relaid(p.Loadouts[:1], nil)
	require.Empty(t, one.Validate())
	assert.Nil(t, one.Chosen(parts.Windscreen, "trail-day"))
	assert.Equal(t, []*parts.Part{&own}, one.Owned(), "nobody else has its sheet")
}

// TestASecondSet, carried or changed on the way, makes the tyres last the trip.
func TestASecondSet(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "hackle-140-80-18")
	rear, front := studytest.Value(t, p, "rear-life"), studytest.Value(t, p, "front-life")
	assert.InDelta(t, min(rear, front), studytest.Value(t, p, "tyre-life"), 1e-6)
	same := *b.Part("hackle-140-80-18").Part
	same.ID, same.Slot, same.Provides = "own-second", parts.SpareRear, []string{"waits-on-the-way"}
	two := p.With(plan.Choice{Slot: same.Slot, Part: &same})
	assert.InDelta(t, min(2*rear, front), studytest.Value(t, two, "tyre-life"), 1e-6, "the same again")
	assert.Equal(t, rear, studytest.Value(t, two, "rear-life"))
	assert.InDelta(t, studytest.Value(t, p, "loaded-mass"), studytest.Value(t, two, "loaded-mass"), 1e-9, "it waits on the way")
	carried := p.With(b.Part("spare-hackle-90-90-21"))
	assert.InDelta(t, studytest.Value(t, p, "loaded-mass")+4.3, studytest.Value(t, carried, "loaded-mass"), 1e-9)
}

// TestOnlyWhatIsSettledIsSettled: a rule that falls silent because a number went missing has
// not been answered.
func TestOnlyWhatIsSettledIsSettled(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "bracken-140-80-18")
	bench, err := eval.NewBench(p, b.Shelf, "travel", "2026-11-26")
	require.NoError(t, err)
	blank := parts.DraftOf(&parts.Part{ID: "own-blank", Slot: parts.RearTyre, Name: "A tyre"}).Done()
	diffs, err := bench.Preview(
		eval.Alternative{Plan: p.With(plan.Choice{Slot: parts.RearTyre, Part: blank})},
		eval.Alternative{Plan: p.With(plan.Choice{Slot: parts.RearTyre})})
	require.NoError(t, err)
	ids := func(list []study.Finding) (ids []string) {
		for _, f := range list {
			ids = append(ids, f.ID)
		}
		return ids
	}
	assert.NotContains(t, ids(diffs[0].Vanish), "tyre-moves-gearing")
	assert.Contains(t, ids(diffs[0].Unseen), "tyre-moves-gearing")
	assert.Contains(t, ids(diffs[1].Vanish), "tyre-moves-gearing")
	assert.Empty(t, diffs[1].Unseen)
}

// TestOneRounding: what reads the same as its limit is not past it, in gauge and rule alike.
func TestOneRounding(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	kg := studytest.Value(t, p, "loaded-mass")
	for _, c := range []struct {
		over float64
		past bool
	}{{0.04, false}, {0.06, true}, {-0.04, false}, {0, false}} {
		require.NoError(t, p.Bike.Permitted.Enter(strconv.FormatFloat(math.Round(10*kg)/10-c.over, 'f', 3, 64), "kg"))
		f, _ := studytest.Report(t, p).Figure("loaded-mass")
		_, spoke := b.Findings(p)["overweight"]
		assert.Equal(t, c.past, f.State == verdict.Stop, "%+v", c)
		assert.Equal(t, c.past, spoke, "%+v", c)
	}
}

// TestRoomMeasured with the tyre mounted answers what the sheet only guesses.
func TestRoomMeasured(t *testing.T) {
	b := studytest.New(t)
	own := *b.Part("bracken-140-80-18").Part
	own.ID = "own-tall"
	p := b.Standard("holt-650").With(plan.Choice{Slot: own.Slot, Part: &own})
	studytest.Enter(t, &p.Bike.RearMaxWidth, "130", "mm")
	require.Equal(t, verdict.Stop, b.Findings(p)["rear-tyre-clearance"].State)
	studytest.Say(t, &own, "room", "7")
	assert.NotContains(t, b.Findings(p), "rear-tyre-clearance")
	studytest.Say(t, &own, "room", "4")
	assert.Equal(t, verdict.Watch, b.Findings(p)["rear-tyre-clearance"].State)
	studytest.Say(t, &own, "room", "0")
	assert.Equal(t, verdict.Stop, b.Findings(p)["rear-tyre-clearance"].State)
}
