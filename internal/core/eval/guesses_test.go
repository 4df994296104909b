package eval_test

import (
	"math"
	"runtime"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// begun is a plan as a minute's start leaves it: of the bike no more than its kind and how large
// its engine is.
func begun(p *plan.Plan, class plan.Class) *plan.Plan {
	then := *p
	then.Guesses = plan.GuessTable
	then.Bike = &plan.Bike{ID: "begun", Name: "Begun", Class: class, Displacement: p.Bike.Displacement}
	return &then
}

// everyClass visits a plan of each class, each another trip.
func everyClass(t *testing.T, each int, visit func(name string, p *plan.Plan)) {
	g := studytest.New(t)
	classes := plan.Classes()
	for n, s := range studytest.Trips(g) {
		if n%each == 0 {
			class := plan.Class(classes[n/each%len(classes)].Value)
			visit(s.Name+", as "+string(class), begun(s.Plan, class))
		}
	}
}

// TestGuessesEnter: what a guess moves is downstream of the groups of facts that its row says it
// enters, and of nothing else.
func TestGuessesEnter(t *testing.T) {
	g := studytest.New(t)
	met := map[string]bool{}
	everyClass(t, 17, func(name string, p *plan.Plan) {
		// What makers' plates say, so that rules that judge by it speak; and a brief with less.
		b := g.Bikes["fennick-250"]
		p.Bike.Permitted, p.Bike.FrontLimit, p.Bike.RearLimit = b.Permitted, b.FrontLimit, b.RearLimit
		if len(name)%2 == 0 {
			p.Bike.Displacement = plan.Bike{}.Displacement
			p.Brief.Rider, p.Brief.Inseam, p.Brief.Sole, p.Brief.Cruise, p.Brief.WalkingPace, p.Brief.Day = plan.Brief{}.Rider, plan.Brief{}.Inseam, plan.Brief{}.Sole, plan.Brief{}.Cruise, plan.Brief{}.WalkingPace, plan.Brief{}.Day
		}
		p.Loadouts = slices.Clone(p.Loadouts)
		if len(name)%3 == 0 {
			p.Loadouts[1].Loads, p.Loadouts[1].Kit = nil, plan.CampKit
		}
		require.NoError(t, eval.EachMove(p, g.Shelf, "travel", func(gs *guess.Guess, some, all eval.Moved) {
			met[gs.At] = true
			for i := range all.Figures {
				a, b := some.Figures[i], all.Figures[i]
				assert.Equal(t, b.State, a.State, "%s, %s: %s", name, gs.At, a.ID)
				assert.InDelta(t, b.Value, a.Value, 1e-9*math.Max(1, math.Abs(b.Value)), "%s, %s: %s", name, gs.At, a.ID)
				assert.InDelta(t, b.Limit, a.Limit, 1e-9*math.Max(1, math.Abs(b.Limit)), "%s, %s: %s", name, gs.At, a.ID)
			}
			for i, rule := range eval.Rules() {
				assert.Equal(t, all.Says[i], some.Says[i], "%s, %s: %s", name, gs.At, rule.ID)
			}
		}))
	})
	for _, r := range guess.Rows() {
		assert.True(t, met[r.At], "%s was guessed in no plan", r.At)
	}
}

// BenchmarkGuesses is one loadout of a plan with every guess.
func BenchmarkGuesses(b *testing.B) {
	g := studytest.New(b)
	p := begun(studytest.Trips(g)[5].Plan, plan.DualSport)
	for b.Loop() {
		_, err := eval.EvaluateLoadout(p, g.Shelf, "travel", studytest.Today)
		require.NoError(b, err)
	}
}

// TestVerdictsByGuess: thirty riders of the invented bikes, by no more than what kind of bike it
// is and its plate, are told what the full sheet says, or to watch it; and of what the full sheet
// says otherwise at most a third is only to be watched.
func TestVerdictsByGuess(t *testing.T) {
	g := studytest.New(t)
	trips := studytest.Trips(g)
	agree, evaded, all := 0, 0, 0
	points, wrong := 0, 0
	for n := range 30 {
		trip := trips[n*len(trips)/30]
		full := trip.Plan
		b := full.Bike
		roughly := begun(full, b.Class)
		bike := roughly.Bike // its papers, and what its name says of what fits it
		bike.Permitted, bike.FrontLimit, bike.RearLimit = b.Permitted, b.FrontLimit, b.RearLimit
		bike.ID, bike.Family, bike.Variant, bike.Provides = b.ID, b.Family, b.Variant, b.Provides
		is, said := g.Report(full), g.Report(roughly)
		for _, f := range study.Loud(said.Findings) {
			points++
			if !slices.ContainsFunc(is.Findings, func(o study.Finding) bool { return o.ID == f.ID }) {
				wrong++
				t.Logf("%s: %s is no point: %s", trip.Name, f.ID, f.Tell().What)
			}
		}
		for i := range is.Gauges {
			knows, guesses := is.Gauges[i], said.Gauges[i]
			if !knows.Known {
				continue
			}
			if !guesses.Known {
				assert.Equal(t, figure.TyreLoad, knows.ID, "%s: only a rating is not guessed", trip.Name)
				continue
			}
			all++
			switch guesses.State {
			case knows.State:
				agree++
			case verdict.Watch:
				agree, evaded = agree+1, evaded+1
			default:
				t.Logf("%s: %s is %s, %.4g of %.4g, and guessed %s, %.4g to %.4g of %.4g", trip.Name, knows.ID, knows.State, knows.Value, knows.Limit, guesses.State, guesses.Low, guesses.High, guesses.Limit)
			}
		}
	}
	t.Logf("%d of %d agree, %d of them only to be watched", agree, all, evaded)
	assert.GreaterOrEqual(t, float64(agree), 0.95*float64(all))
	assert.LessOrEqual(t, float64(evaded), float64(all)/3)
	t.Logf("%d points, %d of them none by the full sheet", points, wrong)
	assert.LessOrEqual(t, float64(wrong), 0.05*float64(points))
}

// TestPointsHoldAtAllEnds: with everything guessed every open point is one with each guess at both
// ends, as bad or worse; what a guess would silence is none, and sells nothing.
func TestPointsHoldAtAllEnds(t *testing.T) {
	g := studytest.New(t)
	asked, open := 0, 0
	everyClass(t, 19, func(name string, p *plan.Plan) {
		r := g.Report(p)
		filled, guesses := guess.Fill(p)
		for _, f := range study.Guessed(r.Findings) {
			open++
			assert.Equal(t, "guess", f.Aside(), "%s: %s", name, f.ID)
		}
		for _, together := range guess.Moves(guesses) {
			for _, at := range []float64{-1, 1} {
				then := g.Findings(guess.Moved(filled, together, at))
				for _, f := range study.Loud(r.Findings) {
					asked++
					assert.Contains(t, then, f.ID, "%s: with %s at %v", name, together[0].At, at)
					assert.GreaterOrEqual(t, then[f.ID].State.Rank(), f.State.Rank(), "%s: %s with %s at %v", name, f.ID, together[0].At, at)
				}
			}
		}
	})
	assert.Greater(t, asked, 1000)
	assert.Greater(t, open, 20)
}

// TestMeasuredBeforeBought: a need of which a guess decides whether it is met names the guess, and
// once that is typed it decides no more.
func TestMeasuredBeforeBought(t *testing.T) {
	g := studytest.New(t)
	met := 0
	everyClass(t, 37, func(name string, p *plan.Plan) {
		r := g.Report(p)
		needs, known := r.Needs()
		require.True(t, known, name)
		for _, n := range needs {
			for _, of := range r.Unsure(n.ID) {
				met++
				for _, after := range g.Report(of.Typed(p)).Unsure(n.ID) {
					assert.NotEqual(t, of.At, after.At, "%s: %s", name, n.ID)
				}
			}
		}
	})
	assert.Positive(t, met)
}

// TestGuessLaws: over trips of all classes, a gauge is ok only where all of its band is good; the
// ends of a band stand around its value; and what is typed as it was guessed leaves every value.
func TestGuessLaws(t *testing.T) {
	g := studytest.New(t)
	everyClass(t, 41, func(name string, p *plan.Plan) {
		r := g.Report(p)
		assert.Greater(t, len(r.Guesses), 50, name)
		for _, f := range r.Gauges {
			if !f.Known || !f.Banded {
				continue
			}
			assert.LessOrEqual(t, f.Low, f.Value, "%s: %s", name, f.ID)
			assert.GreaterOrEqual(t, f.High, f.Value, "%s: %s", name, f.ID)
			if f.State == verdict.OK && f.Limited && f.Usual > 0 {
				assert.False(t, f.Open(), "%s: %s is ok, %.4g to %.4g of %.4g", name, f.ID, f.Low, f.High, f.Limit)
			}
		}
		for _, said := range r.Guesses {
			typed := said.Typed(p)
			after := g.Report(typed)
			assert.Less(t, len(after.Guesses), len(r.Guesses), "%s: %s typed", name, said.At)
			for i := range r.Gauges {
				was, now := r.Gauges[i], after.Gauges[i]
				assert.InDelta(t, was.Value, now.Value, 1e-9*math.Max(1, math.Abs(was.Value)), "%s: %s typed as guessed, %s", name, said.At, was.ID)
				assert.LessOrEqual(t, now.High-now.Low, (was.High-was.Low)*1.01+1e-9, "%s: %s typed as guessed, band of %s", name, said.At, was.ID)
				if was.State != verdict.Watch {
					assert.Equal(t, was.State, now.State, "%s: %s typed as guessed, %s", name, said.At, was.ID)
				}
			}
		}
	})
}

// TestBandsOnAnyMachine: the same plan has the same bands, on one processor or several.
func TestBandsOnAnyMachine(t *testing.T) {
	g := studytest.New(t)
	p := begun(studytest.Trips(g)[40].Plan, plan.RallySingle)
	many := g.Report(p)
	was := runtime.GOMAXPROCS(1)
	defer runtime.GOMAXPROCS(was)
	one := g.Report(p)
	for i := range many.Gauges {
		a, b := many.Gauges[i], one.Gauges[i]
		assert.Equal(t, []any{a.State, a.Value, a.Low, a.High, a.Usual}, []any{b.State, b.Value, b.Low, b.High, b.Usual}, a.ID)
	}
	assert.Equal(t, ids(many.Findings), ids(one.Findings))
}

func ids(findings []study.Finding) (list []string) {
	for _, f := range findings {
		list = append(list, f.ID+" "+string(f.State)+" "+f.Aside())
	}
	return list
}

// TestBandsByHand: five bands are what the ends of one guess make by hand, everything else typed.
func TestBandsByHand(t *testing.T) {
	g := studytest.New(t)
	for _, by := range []struct {
		leave func(b *plan.Bike) // what is not said
		id    figure.ID
		half  func(r *eval.LoadoutReport, half float64) float64 // of the figure's band, by half of the guess's
	}{
		// Nothing else weighs: a kilogram is a kilogram.
		{func(b *plan.Bike) { b.KerbMass = plan.Bike{}.KerbMass }, figure.LoadedMass, func(_ *eval.LoadoutReport, kg float64) float64 { return kg }},
		// v = n·60·C/(1000·overall): a share of the engine speed is that share of the pace.
		{func(b *plan.Bike) { b.CleanRPM = plan.Bike{}.CleanRPM }, figure.CrawlSpeed, func(r *eval.LoadoutReport, rpm float64) float64 {
			pace, _ := r.Figure(figure.CrawlSpeed)
			return pace.Value * rpm / r.Facts.Plan.Bike.CleanRPM.In("rpm")
		}},
		// Watts of its own are watts off the margin.
		{func(b *plan.Bike) { b.OwnDraw = plan.Bike{}.OwnDraw }, figure.ChargeMargin, func(_ *eval.LoadoutReport, w float64) float64 { return w }},
		// Room under the engine is the sheet's less what the springs give.
		{func(b *plan.Bike) { b.Clearance = plan.Bike{}.Clearance }, figure.Clearance, func(_ *eval.LoadoutReport, mm float64) float64 { return mm }},
		// A third of the seat's width is added to its height.
		{func(b *plan.Bike) { b.SeatWidth = plan.Bike{}.SeatWidth }, figure.SeatReach, func(_ *eval.LoadoutReport, mm float64) float64 { return 0.33 * mm }},
	} {
		p := *g.With("holt-650")
		bike := *p.Bike
		bare := plan.Inspection{}
		p.Bike, p.Guesses, p.Readings, p.Baseline = &bike, plan.GuessTable, nil, bare
		without := g.Report(&p)
		by.leave(&bike)
		r := g.Report(&p)
		is, _ := r.Figure(by.id)
		was, _ := without.Figure(by.id)
		own := 0.0
		if was.Banded {
			own = (was.High - was.Low) / 2
		}
		half := by.half(r, guessed(t, r, without))
		assert.InDelta(t, math.Hypot(half, own), (is.High-is.Low)/2, 2e-3*half, by.id)
	}
}

// guessed is half of the band of the one guess that a report has more than another.
func guessed(t *testing.T, r, without *eval.LoadoutReport) float64 {
	for _, g := range r.Guesses {
		if !slices.ContainsFunc(without.Guesses, func(o eval.Guess) bool { return o.At == g.At }) {
			return (g.High - g.Low) / 2
		}
	}
	require.Fail(t, "nothing more is guessed")
	return 0
}
