package eval_test

import (
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func nothing(*study.Run) {}

// TestCompileNamesWhatDoesNotFit: at start, with its place.
func TestCompileNamesWhatDoesNotFit(t *testing.T) {
	row := func(id figure.ID) *figure.Row { return &figure.Row{ID: id, Name: "A figure", Stage: figure.Load} }
	needs, _ := figure.Of(figure.Needs)
	silent := func(*facts.All) (f study.Finding, ok bool) { return f, false }
	for name, c := range map[string]struct {
		rows    []*figure.Row
		studies study.Study
		says    []string
	}{
		"a group that nobody gives": {nil, study.Study{Steps: []study.Step{{Name: "eats", Needs: facts.WheelsGroup, Run: nothing}}}, []string{`"eats"`, "Wheels"}},
		"a group that two give": {nil, study.Study{Steps: []study.Step{
			{Name: "one", Gives: facts.WheelsGroup, Run: nothing}, {Name: "two", Gives: facts.WheelsGroup | facts.ChainGroup, Run: nothing},
		}}, []string{`"one"`, `"two"`, "Wheels"}},
		"a circle": {nil, study.Study{Steps: []study.Step{
			{Name: "hen", Needs: facts.WheelsGroup, Gives: facts.ChainGroup, Run: nothing}, {Name: "egg", Needs: facts.ChainGroup, Gives: facts.WheelsGroup, Run: nothing},
		}}, []string{"circle", "hen", "egg"}},
		"a step of the plan that reads a loadout": {nil, study.Study{Steps: []study.Step{
			{Name: "packs", Gives: facts.MassesGroup, Run: nothing}, {Name: "plans", Needs: facts.MassesGroup, Run: nothing, OfPlan: true},
		}}, []string{`"plans"`, "Masses"}},
		"a figure without a row":    {nil, study.Study{Steps: []study.Step{{Name: "guesses", Figures: []figure.ID{"luck"}, Run: nothing}}}, []string{`"guesses"`, `"luck"`}},
		"a figure without a step":   {[]*figure.Row{row("luck")}, study.Study{}, []string{`"luck"`}},
		"a figure of two steps":     {[]*figure.Row{row("luck")}, study.Study{Steps: []study.Step{{Name: "one", Figures: []figure.ID{"luck"}, Run: nothing}, {Name: "two", Figures: []figure.ID{"luck"}, Run: nothing}}}, []string{`"one"`, `"two"`, `"luck"`}},
		"a row twice":               {[]*figure.Row{row("luck"), row("luck")}, study.Study{}, []string{`"luck"`}},
		"a gauge behind the others": {[]*figure.Row{row("luck"), {ID: "fate", Name: "Fate", Stage: figure.Load, Gauge: true}}, study.Study{}, []string{`"fate"`}},
		"a row without a name":      {[]*figure.Row{{ID: "luck"}}, study.Study{}, []string{`"luck"`}},
		"a rule twice":              {nil, study.Study{Rules: []study.Rule{{ID: "speak", Judge: silent}, {ID: "speak", Judge: silent}}}, []string{`"speak"`}},
		"a need twice":              {nil, study.Study{Needs: []study.NeedRule{{ID: "want"}, {ID: "want"}}}, []string{`"want"`}},
	} {
		_, err := eval.Compile(append([]*figure.Row{needs}, c.rows...), []study.Study{c.studies})
		if !assert.Error(t, err, name) {
			continue
		}
		for _, word := range c.says {
			assert.ErrorContains(t, err, word, name)
		}
	}
}

// TestSteps: on several plans, each step gives the same when all that it does not
// declare is unknown, and writes nothing but what it gives.
func TestSteps(t *testing.T) {
	demo, shelf := studytest.Demo(t)
	bare := *demo
	bare.Brief = plan.Brief{}
	blank := *demo
	blank.Bike = &plan.Bike{ID: "own", Name: "Own"}
	plans := map[string]*plan.Plan{"demo": demo, "an empty brief": &bare, "a blank sheet": &blank}
	for id := range studytest.New(t).Bikes {
		plans[id] = studytest.On(t, id)
	}
	for name, p := range plans {
		for _, l := range p.Loadouts {
			err := eval.EachStep(p, shelf, l.ID, func(step study.Step, before, after, alone *study.Run) {
				for _, g := range (facts.Every &^ facts.Inputs).Groups() {
					switch {
					case step.Gives.Has(g):
						assert.True(t, same(group(after, g), group(alone, g)), "%s, %s: %v is the same whatever else is known", name, step.Name, g)
					default:
						assert.True(t, same(group(before, g), group(after, g)), "%s, %s writes %v and does not say so", name, step.Name, g)
					}
				}
				for _, id := range step.Figures {
					at := after.Table.Place[id]
					assert.True(t, same(after.Figures[at], alone.Figures[at]), "%s, %s: %s is the same whatever else is known", name, step.Name, id)
					assert.NotEmpty(t, after.Figures[at].State, "%s, %s works %s out", name, step.Name, id)
				}
			})
			require.NoError(t, err)
		}
	}
}

// TestReads: a rule and a need judge the same when no group and no figure is known but what
// they say that they read.
func TestReads(t *testing.T) {
	b := studytest.New(t)
	demo, shelf := studytest.Demo(t)
	plans := []*plan.Plan{demo, b.With("holt-650", "hackle-140-80-18", "boxes-2x36", "side-rack-h", "links-low-40", "aux-spot", "tank-25-h", "front-h20-13", "seat-low")}
	for id := range b.Bikes {
		plans = append(plans, studytest.On(t, id))
	}
	for _, p := range plans {
		for _, l := range p.Loadouts {
			require.NoError(t, eval.EachReader(p, shelf, l.ID, func(what string, known, alone any) {
				assert.Equal(t, known, alone, "%s on %s, %s", what, p.Bike.ID, l.ID)
			}))
		}
	}
}

// TestAgainIsAnew: after any change of what is put in, what a bench runs again comes to what
// the whole evaluation comes to.
func TestAgainIsAnew(t *testing.T) {
	garage := studytest.New(t)
	demo, shelf := studytest.Demo(t)
	plans := []*plan.Plan{demo}
	for id := range garage.Bikes {
		plans = append(plans, studytest.On(t, id))
	}
	random := rand.New(rand.NewPCG(16, 11))
	for _, p := range plans {
		bench, err := eval.NewBench(p, shelf, "travel", studytest.Today)
		require.NoError(t, err)
		for range 60 {
			changed := edited(t, p, shelf, random)
			again, err := bench.Evaluate(changed)
			require.NoError(t, err)
			anew, err := eval.EvaluateLoadout(changed, shelf, "travel", studytest.Today)
			require.NoError(t, err)
			for _, row := range figure.All() {
				one, _ := again.Figure(row.ID)
				two, _ := anew.Figure(row.ID)
				require.True(t, same(one, two), "%s of %s: %v, anew %v", row.ID, p.Bike.ID, one, two)
			}
			require.Equal(t, judged(anew.Findings), judged(again.Findings), p.Bike.ID)
			one, known := again.Needs()
			two, _ := anew.Needs()
			require.Len(t, one, len(two))
			for i := range one {
				require.Equal(t, two[i].Met, one[i].Met, "%t %s", known, one[i].ID)
			}
		}
	}
}

func judged(list []study.Finding) []string {
	var words []string
	for _, f := range list {
		words = append(words, f.ID+" "+string(f.State)+" "+string(f.Tell().What))
	}
	return words
}

// edited is the plan with one or two things changed at random, of each kind of what is put in.
func edited(t *testing.T, p *plan.Plan, shelf plan.Shelf, random *rand.Rand) *plan.Plan {
	changed := p.With()
	for range 1 + random.IntN(2) {
		switch random.IntN(9) {
		case 0, 1, 2:
			part := shelf[random.IntN(len(shelf))]
			changed = changed.With(plan.Choice{Slot: part.Slot, Part: part})
		case 3:
			fields := changed.Brief.Fields()
			f := fields[random.IntN(len(fields))]
			require.NoError(t, f.Entry.Enter(strconv.FormatFloat(math.Round(f.Min+random.Float64()*(f.Max-f.Min)), 'f', 0, 64), f.Unit))
		case 4:
			c, l := changed.OwnLoads("travel")
			if len(l.Loads) > 0 {
				studytest.Enter(t, &l.Loads[0].Mass, strconv.Itoa(1+random.IntN(60)), "kg")
			}
			studytest.Enter(t, &l.Setting.RearPreload, strconv.Itoa(random.IntN(15)), "mm")
			changed = c
		case 5:
			a := plan.Answer{Check: "rear-tyre", Verdict: baseline.Do}
			studytest.Enter(t, &a.New, "8", "mm")
			studytest.Enter(t, &a.Now, strconv.Itoa(2+random.IntN(6)), "mm")
			studytest.Enter(t, &a.Limit, "1", "mm")
			changed = changed.Answered(a)
		case 6:
			changed.Route, changed.Group = nil, nil
		case 7:
			volts := logbook.Reading{ID: "VOLTSAAAAAAAAAAAAAAAAAAAAA", Kind: logbook.VoltsRead, On: studytest.Today, Bike: p.Bike.ID, Read: new(logbook.Volts)}
			studytest.Enter(t, &volts.Volts().AllOn, "12.6", "V")
			changed.Readings = append(slices.Clone(changed.Readings), volts)
		case 8:
			changed.BoxSits, changed.Wired = plan.BoxAtLamp, changed.Rewired(plan.Wired{Slot: parts.Grips, Feed: parts.FeedAlways})
			studytest.Enter(t, &changed.ForkThrough, strconv.Itoa(random.IntN(30)), "mm")
		}
	}
	return changed
}

// group is the facts of one group.
func group(r *study.Run, g facts.Set) any {
	return reflect.ValueOf(*r.All).FieldByName(g.String()).Interface()
}

// same is equality of what is behind pointers, too, where NaN is NaN.
func same(a, b any) bool { return sameValue(reflect.ValueOf(a), reflect.ValueOf(b)) }

func sameValue(a, b reflect.Value) bool {
	if a.IsValid() != b.IsValid() || a.IsValid() && a.Type() != b.Type() {
		return false
	}
	switch a.Kind() {
	case reflect.Invalid:
		return true
	case reflect.Float64:
		return a.Float() == b.Float() || math.IsNaN(a.Float()) && math.IsNaN(b.Float())
	case reflect.Pointer, reflect.Interface:
		return a.IsNil() == b.IsNil() && (a.IsNil() || a.Kind() == reflect.Pointer && a.Pointer() == b.Pointer() || sameValue(a.Elem(), b.Elem()))
	case reflect.Struct:
		for i := range a.NumField() {
			if !sameValue(a.Field(i), b.Field(i)) {
				return false
			}
		}
		return true
	case reflect.Slice, reflect.Array:
		if a.Len() != b.Len() {
			return false
		}
		for i := range a.Len() {
			if !sameValue(a.Index(i), b.Index(i)) {
				return false
			}
		}
		return true
	}
	return a.Equal(b)
}

// TestThrowaway: a figure, a rule and a need of a study that nobody has heard of are
// found by all that lists them.
func TestThrowaway(t *testing.T) {
	mirrors := &figure.Row{ID: "mirror-width", Name: "Over the mirrors", Unit: "mm", Digits: 1, Stage: figure.Contact, LimitName: "gate"}
	throwaway := study.Study{
		Name: "mirrors",
		Steps: []study.Step{{
			Name: "mirrors", Needs: facts.Bike | facts.WheelsGroup, Figures: []figure.ID{"mirror-width"},
			Run: func(r *study.Run) {
				c := r.Figure("mirror-width")
				roll := c.On(figure.RearCircumference, "roll-out")
				c.Is(roll.Number / 2)
				c.AtMost(study.Computed("gate", 1000, "mm"), 0.9, verdict.Over)
			},
		}},
		Rules: []study.Rule{{ID: "gate-too-narrow", Class: cause.Rest, Cause: cause.Posture, Stage: figure.Contact, Judge: func(f *facts.All) (study.Finding, bool) {
			return study.Finding{State: verdict.Over, Tell: func() study.Words { return study.Words{What: "It does not go through the gate."} }}, true
		}}},
		Needs: []study.NeedRule{{ID: "gate", Name: "Through the gate", Stage: figure.Contact, Ask: func(f *facts.All) (study.Need, bool) {
			return study.Need{Tell: func() study.Answer { return study.Answer{Short: "folding mirrors"} }}, true
		}}},
	}
	program, err := eval.Compile(append(figure.All(), mirrors), append(eval.Studies(), throwaway))
	require.NoError(t, err)
	p, shelf := studytest.Demo(t)
	before := studytest.Report(t, p)
	r := program.Evaluate(p, shelf, studytest.Today).Loadouts[1]
	f, ok := r.Figure("mirror-width")
	require.True(t, ok)
	assert.InDelta(t, 2041.0/2, f.Value, 1e-9)
	assert.Equal(t, verdict.Over, f.State)
	assert.Equal(t, f, r.Others[len(r.Others)-1], "listed in the order of the table")
	last := r.Findings[len(r.Findings)-1]
	assert.Equal(t, "gate-too-narrow", last.ID)
	assert.Equal(t, figure.Contact, last.Stage)
	asked, known := r.Needs()
	require.True(t, known)
	assert.Equal(t, "gate", asked[len(asked)-1].ID)
	was, _ := before.Figure(figure.Needs)
	now, _ := r.Figure(figure.Needs)
	assert.Equal(t, was.Value+1, now.Value, "it counts")
	bench, err := program.NewBench(p, shelf, "travel", studytest.Today)
	require.NoError(t, err)
	standard := *p
	standard.Lines = nil
	diffs, err := bench.Preview(eval.Alternative{Plan: &standard})
	require.NoError(t, err)
	moved := false
	for _, m := range diffs[0].Moves {
		moved = moved || m.After.ID == "mirror-width"
	}
	assert.True(t, moved, "an option that moves it says so")
}

// TestFirstBike: a bike laid on an empty plan moves each figure from unknown, under
// its own name and in its own unit.
func TestFirstBike(t *testing.T) {
	p := plan.New("New", "EUR")
	bench, err := eval.NewBench(p, nil, "travel", studytest.Today)
	require.NoError(t, err)
	diffs, err := bench.Preview(eval.Alternative{Plan: p.Riding(studytest.New(t).Bikes["holt-650"])})
	require.NoError(t, err)
	require.NotEmpty(t, diffs[0].Moves)
	for _, m := range diffs[0].Moves {
		assert.Equal(t, m.Before.ID, m.After.ID)
		assert.Equal(t, m.Before.Unit, m.After.Unit, m.After.ID)
		if m.After.ID == figure.FrontCircumference {
			assert.False(t, m.Before.Known)
			assert.Equal(t, "mm", m.Before.Unit)
		}
	}
}

// TestEmptyPlanIsNotOK: no stage of a plan of which nothing is known says "ok".
func TestEmptyPlanIsNotOK(t *testing.T) {
	r := studytest.Report(t, plan.New("New", "EUR"))
	for _, row := range figure.All() {
		assert.NotEqual(t, verdict.OK, r.Stage(row.Stage), row.Stage)
	}
	assert.Equal(t, verdict.Unknown, r.Stage(figure.Baseline), "a stage without figures, too")
}

// TestGroundUnsaid: a brief that names no ground is neither all road nor all off it.
func TestGroundUnsaid(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "boxes-2x36", "side-rack-h", "pegs-low")
	foam := p.With(b.Part("foam-rear-18"))
	for id, p := range map[string]*plan.Plan{"hard-boxes-trap": p, "tyre-tools": p, "foam-speed": foam} {
		require.Contains(t, b.Findings(p), id)
	}
	p.Brief.Terrain, foam.Brief.Terrain = nil, nil
	assert.NotContains(t, b.Findings(foam), "foam-speed")
	for _, id := range []string{"hard-boxes-trap", "tyre-tools", "pegs-drag", "cast-on-rock", "tyre-against-ground", "heavy-for-the-ground", "light-for-the-road", "pressure-pinch"} {
		assert.NotContains(t, b.Findings(p), id)
	}
}

// TestNothingFromNothing: a tyre life without a loaded mass is no life.
func TestNothingFromNothing(t *testing.T) {
	p, _ := studytest.Demo(t)
	require.NoError(t, p.Brief.Rider.Enter("", "kg"))
	f, _ := studytest.Report(t, p).Figure(figure.TyreLife)
	assert.False(t, f.Known)
	assert.Equal(t, verdict.Unknown, f.State)
	assert.Contains(t, f.Missing, "loaded mass")
}
