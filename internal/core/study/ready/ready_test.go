package ready_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ready"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// on is the ready-date of a plan as of a day, as a day.
func on(t *testing.T, p *plan.Plan, asOf string) (calendar.Day, verdict.State) {
	t.Helper()
	r, err := eval.EvaluateLoadout(p, nil, "travel", asOf)
	require.NoError(t, err)
	f, ok := r.Figure(figure.ReadyDate)
	require.True(t, ok)
	require.True(t, f.Known)
	return calendar.Day(f.Value), f.State
}

// TestLaws of the day: a later today is never an earlier one with one order, a later start is never less sure.
func TestLaws(t *testing.T) {
	p, _ := studytest.Demo(t)
	f := facts.Unknown()
	f.Plan, f.AsOf = p, studytest.Today
	r := ready.Jobs(&f)
	p = ready.Reorder(p, &r, r.Order)
	today, _ := calendar.ParseDay(studytest.Today)
	last := calendar.Day(0)
	for d := today; d < today+40; d += 5 {
		day, _ := on(t, p, d.String())
		assert.GreaterOrEqual(t, day, last, d)
		last = day
	}
	rank := 100
	for d := today + 60; d < today+160; d += 4 {
		p.Brief.Start = d.String()
		_, state := on(t, p, studytest.Today)
		assert.LessOrEqual(t, state.Rank(), rank, d)
		rank = state.Rank()
	}
	assert.Equal(t, verdict.OK.Rank(), rank)
}

// TestWatchBetween: watch where only the middle makes it, over where the middle misses it.
func TestWatchBetween(t *testing.T) {
	p, _ := studytest.Demo(t)
	r, err := eval.EvaluateLoadout(p, nil, "travel", studytest.Today)
	require.NoError(t, err)
	f, _ := r.Figure(figure.ReadyDate)
	require.Less(t, f.Low, f.High)
	for _, c := range []struct {
		leaves float64
		state  verdict.State
	}{{f.High, verdict.OK}, {f.High - 1, verdict.Watch}, {f.Low, verdict.Watch}, {f.Low - 1, verdict.Over}} {
		p.Brief.Start = calendar.Day(c.leaves).String()
		_, state := on(t, p, studytest.Today)
		assert.Equal(t, c.state, state, p.Brief.Start)
	}
}

// TestShipping: what takes the bike away is the last day, where it is before the start.
func TestShipping(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "skid-alu-h")
	p.Brief.Ships = "2026-12-10"
	_, state := on(t, p, studytest.Today)
	assert.Equal(t, verdict.Over, state)
	p.Brief.Ships = "2027-05-10"
	_, state = on(t, p, studytest.Today)
	assert.Equal(t, verdict.OK, state)
}

// TestRacks: one that comes in nine weeks against one of three days.
func TestRacks(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650")
	for _, part := range b.Shelf {
		if part.Slot == parts.RearRack {
			p = p.With(plan.Choice{Slot: part.Slot, Part: part})
			break
		}
	}
	at := p.LineAt(p.LineKeys()[len(p.Lines)-1])
	far := p.Supplying(at, func(s *plan.Supply) { s.From, s.Lead = calendar.Abroad, plan.Days(calendar.Just(63)) })
	near := p.Supplying(at, func(s *plan.Supply) { s.From, s.Lead = calendar.Stock, plan.Days(calendar.Just(3)) })
	late, _ := on(t, far, studytest.Today)
	soon, _ := on(t, near, studytest.Today)
	assert.InDelta(t, 60, float64(late-soon), 7, "nine weeks less three days, to the next day at the bike")
}

// TestNothingToDo: a bike as it came is ready today, without a shakedown.
func TestNothingToDo(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	p.Lines, p.Baseline, p.Ready = nil, plan.Inspection{}, plan.Ready{}
	day, state := on(t, p, studytest.Today)
	assert.Equal(t, studytest.Today, day.String())
	assert.Equal(t, verdict.OK, state)
}

// TestHomeMade: tried on before it is painted, painted before it is fitted.
func TestHomeMade(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "skid-alu-h")
	p.Lines[0].Source = plan.HomeMade
	f := b.Facts(p)
	ends := map[facts.JobKind]float64{}
	for j := range f.Ready.Jobs {
		ends[f.Ready.Jobs[j].Kind] = f.Ready.Table.Rows[j].End
	}
	for _, pair := range [][2]facts.JobKind{{facts.JobOrder, facts.JobMake}, {facts.JobMake, facts.JobTry}, {facts.JobTry, facts.JobPaint}, {facts.JobPaint, facts.JobFit}, {facts.JobFit, facts.JobShake}} {
		assert.Less(t, ends[pair[0]], ends[pair[1]], "%s before %s", pair[0], pair[1])
	}
}

// TestFirstThis: the trade's order holds on a whole plan, and the rider may cut it.
func TestFirstThis(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "riser-20-22", "hands-bar-22", "bracken-140-80-18", "tube-heavy-rear-18")
	before := func(p *plan.Plan, first, then string) bool {
		r := b.Facts(p).Ready
		a, z := r.Index(first), r.Index(then)
		require.NotEqual(t, -1, a, first)
		require.NotEqual(t, -1, z, then)
		return r.Table.Rows[a].End <= r.Table.Rows[z].Start+1e-9
	}
	assert.True(t, before(p, "fit/risers.", "fit/hand-guards."), "bar before guards")
	assert.True(t, before(p, "fit/rear-tyre.", "set/lamp"), "tyres before the lamp")
	assert.True(t, before(p, "fit/hand-guards.", "shakedown/ride"), "shakedown last")
	p.Ready.Order = []string{"fit/hand-guards.", "fit/risers."}
	assert.True(t, before(p, "fit/risers.", "fit/hand-guards."), "an order that cannot be is put right")
	p.Ready.Firsts = []plan.Before{{Job: "fit/risers.", Then: "fit/hand-guards.", Cut: true}}
	assert.True(t, before(p, "fit/hand-guards.", "fit/risers."), "cut, it may")
}

// TestSlipsTogether: parts of one seller are late together, so that two are no later than one.
func TestSlipsTogether(t *testing.T) {
	wait := func(id, seller string) calendar.Job {
		return calendar.Job{Name: calendar.Named(id), Takes: calendar.Spread{Low: 7, Likely: 14, High: 42}, Slips: calendar.Named(seller)}
	}
	own := calendar.NewClock(0, [7]float64{1, 1, 1, 1, 1, 1, 1}, nil)
	day := func(jobs ...calendar.Job) float64 {
		n, err := calendar.NewNet(jobs, nil, own)
		require.NoError(t, err)
		return n.Outlook(nil).Share(0.8)
	}
	one := day(wait("a", "s"))
	assert.InDelta(t, one, day(wait("a", "s"), wait("b", "s")), 1e-9)
	assert.Greater(t, day(wait("a", "s"), wait("b", "t")), one+1)
}
