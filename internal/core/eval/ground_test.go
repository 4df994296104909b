package eval_test

import (
	"errors"
	"math"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/demo"
)

func bikes(t testing.TB) map[string]*plan.Bike {
	t.Helper()
	list, err := demo.Bikes()
	require.NoError(t, err)
	all := map[string]*plan.Bike{}
	for _, b := range list {
		all[b.ID] = b
	}
	return all
}

// on is the demo's brief and loads on another bike, as it came.
func on(t testing.TB, id string) *plan.Plan {
	t.Helper()
	p, _ := demoPlan(t)
	bike := bikes(t)[id]
	require.NotNil(t, bike, id)
	return eval.AsItCame(p, bike)
}

// TestEveryBikeHasItsNumbers: the bikes of the demo leave no gauge of these stages
// open, the shaft drive's too.
func TestEveryBikeHasItsNumbers(t *testing.T) {
	for id := range bikes(t) {
		r := report(t, on(t, id))
		for _, gauge := range []figure.ID{"cost", "loaded-mass", "axle-front", "axle-rear", "tyre-load", "tyre-life", "cruise-rpm", "crawl-speed", "range", "seat-reach", "clearance", "crawl-pull", "climb", "top-speed", "hold-gear"} {
			f, ok := r.Figure(gauge)
			require.True(t, ok, gauge)
			assert.True(t, f.Known || gauge == "hold-gear", "%s: %s lacks %v", id, gauge, f.Missing)
		}
		for _, q := range eval.RightBike(r) {
			assert.NotEqual(t, verdict.Unknown, q.State, "%s: %s", id, q.Name)
		}
	}
}

// TestRightBike asks what a rider would ask before money is spent.
func TestRightBike(t *testing.T) {
	states := func(p *plan.Plan) map[string]verdict.State {
		all := map[string]verdict.State{}
		for _, q := range eval.RightBike(report(t, p)) {
			all[q.ID] = q.State
		}
		return all
	}
	p, _ := demoPlan(t)
	single := states(eval.AsItCame(p, p.Bike))
	assert.Equal(t, verdict.Over, single["range"], "215 km of gravel and rock are too far for its tank")
	assert.Equal(t, verdict.OK, single["rating"])

	short := on(t, "holt-650")
	require.NoError(t, short.Brief.Inseam.Enter("720", "mm"))
	assert.NotEqual(t, verdict.OK, states(short)["reach"], "the same bike for a shorter rider")
	for id := range bikes(t) {
		near := on(t, id)
		near.Route = nil
		require.NoError(t, near.Brief.Gap.Enter("60", "km"))
		assert.Equal(t, verdict.OK, states(near)["range"], "%s: any bike reaches the next village", id)
	}
	blank := plan.New("P", "EUR")
	assert.Nil(t, eval.RightBike(report(t, blank)), "without a bike there is nothing to ask")
	blank.Bike = &plan.Bike{ID: "own", Name: "Own"}
	for id, state := range states(blank) {
		if id != "climb" && id != "clearance" { // asked only of who wishes for it
			assert.Equal(t, verdict.Unknown, state, "an empty sheet answers nothing: %s", id)
		}
	}
}

func TestAsItCameKeepsTheSums(t *testing.T) {
	p, _ := demoPlan(t)
	bare := eval.AsItCame(p, p.Bike)
	assert.NotEmpty(t, bare.Lines)
	for _, l := range bare.Lines {
		assert.Nil(t, l.Part)
	}
	assert.True(t, slices.ContainsFunc(p.Lines, func(l plan.Line) bool { return l.Part != nil }), "the plan itself stays")
}

// TestLawsOfPull: more teeth behind never weaken it at walking pace, more mass
// never makes it climb or run faster, thinner air never pulls more.
func TestLawsOfPull(t *testing.T) {
	for id, bike := range bikes(t) {
		p := on(t, id)
		if !bike.Shaft() {
			std, _ := bike.StandardIn(plan.RearSprocket).Count()
			pull := 0.0
			for teeth := std - 4; teeth <= std+6; teeth++ {
				now := value(t, p.With(plan.Choice{Slot: plan.RearSprocket, Part: plan.Unlisted(bike, plan.RearSprocket, teeth)}), "crawl-pull")
				assert.GreaterOrEqual(t, now, pull, "%s with %d teeth", id, teeth)
				pull = now
			}
		}
		falls := func(name string, id figure.ID, change func(p *plan.Plan, step float64) error) {
			before := math.Inf(1)
			for step := range 6 {
				bike, changed := *p.Bike, *p
				changed.Bike = &bike
				require.NoError(t, change(&changed, float64(step)))
				now := value(t, &changed, id)
				assert.LessOrEqual(t, now, before+1e-9, "%s: %s with more %s", p.Bike.ID, id, name)
				before = now
			}
		}
		kg := func(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
		for _, figure := range []figure.ID{"climb", "crawl-pull", "top-speed"} {
			falls("height", figure, func(p *plan.Plan, step float64) error { return p.Brief.Altitude.Enter(kg(800*step), "m") })
			// A heavier bike with its own centre where it is.
			falls("mass", figure, func(p *plan.Plan, step float64) error {
				more, front := 1+0.08*step, p.Bike.KerbFront.In("kg")
				return errors.Join(p.Bike.KerbMass.Enter(kg(more*p.Bike.KerbMass.In("kg")), "kg"), p.Bike.KerbFront.Enter(kg(more*front), "kg"))
			})
		}
		// A heavier rider sits far back and brings grip, but never pull.
		for _, figure := range []figure.ID{"crawl-pull", "top-speed"} {
			falls("rider", figure, func(p *plan.Plan, step float64) error { return p.Brief.Rider.Enter(kg(60+15*step), "kg") })
		}
	}
}

// TestCrawlPullByHand: the demo in first on rough gravel at 2400 m. Three quarters
// of the greatest torque in the air that is left, through 2.095 × 2.917 × 43/15 and
// nine tenths, on 2.041 m, against 323 kg.
func TestCrawlPullByHand(t *testing.T) {
	p, _ := demoPlan(t)
	ground := p.Brief.SteepGround()
	left := air.PowerPercent(air.Density(p.Brief.Altitude.In("m"))) / 100
	thrust := 0.75 * p.Bike.Torque.In("Nm") * left * 2.095 * 2.917 * 43 / 15 * 0.9 / (2.041 / (2 * math.Pi))
	angle := math.Atan(value(t, p, "crawl-pull") / 100)
	weight := value(t, p, "loaded-mass") * 9.80665
	assert.InEpsilon(t, thrust, weight*(math.Sin(angle)+ground.Rolling*math.Cos(angle)), 1e-6)
}

// TestThrustAgreesWithTheGauges: the chart draws what the figures say.
func TestThrustAgreesWithTheGauges(t *testing.T) {
	p, _ := demoPlan(t)
	r := report(t, p)
	chart, ok := gearing.Thrust(r.Facts, p.Brief.SteepGround())
	require.True(t, ok)
	require.Len(t, chart.Gears, 5)
	climb := value(t, p, "climb") / 100
	assert.InDelta(t, min(chart.Traction.Slope, chart.Wheelie.Slope, chart.Gears[0].Slope), climb, 0.02, "the air at that speed aside")
	for i, g := range chart.Gears[1:] {
		assert.Less(t, g.Slope, chart.Gears[i].Slope, "each gear climbs less than the one below")
	}
	hold := int(value(t, p, "hold-gear"))
	assert.True(t, chart.Gears[hold-1].Kept)
	for _, g := range chart.Gears[hold:] {
		assert.False(t, g.Kept)
	}
	paved, _ := terrain.Of(terrain.Paved)
	onRoad, _ := gearing.Thrust(r.Facts, paved)
	assert.Greater(t, onRoad.Traction.Slope, chart.Traction.Slope, "tarmac grips better than gravel")
	require.NoError(t, p.Bike.Torque.Enter("", "Nm"))
	_, ok = gearing.Thrust(report(t, p).Facts, paved)
	assert.False(t, ok)
}

// TestChainRuns: both even counts stand there with what fits them, and the chain
// that is on where it is a third.
func TestChainRuns(t *testing.T) {
	p, shelf := demoPlan(t)
	for teeth, want := range map[string][]int{"rear-h6-46": {110, 112}, "rear-h6-47": {112, 114, 110}} {
		with := p.With(plan.Choice{Slot: plan.RearSprocket, Part: shelf.Find(p.Bike, plan.RearSprocket, teeth)})
		r, err := eval.EvaluateLoadout(with, shelf, "travel", today)
		require.NoError(t, err)
		var links []int
		for _, run := range gearing.ChainRuns(r.Facts) {
			links = append(links, run.Links)
			assert.Equal(t, run.Links == 110, run.Current)
			assert.Equal(t, run.Current, run.Choices == nil)
			after := value(t, with.With(run.Choices...), "axle-shift")
			assert.InDelta(t, run.ShiftMM, after, 1e-9, "the chain offered is the one that was computed")
		}
		assert.Equal(t, want, links, teeth)
	}
	assert.Nil(t, gearing.ChainRuns(report(t, on(t, shaftID(t))).Facts))
}

// TestSwaps: another front sprocket on the same chain moves the axle as the
// geometry of the handbook says, and is what its preview says.
func TestSwaps(t *testing.T) {
	p, shelf := demoPlan(t)
	r, err := eval.EvaluateLoadout(p, shelf, "travel", today)
	require.NoError(t, err)
	swaps := gearing.Swaps(gearing.Sprockets(r.Facts), r.Facts)
	require.NotEmpty(t, swaps)
	for _, s := range swaps {
		assert.Equal(t, r.Facts.Drive.Pair.Rear, s.Pair.Rear)
		fewer := s.Pair.Front < r.Facts.Drive.Pair.Front
		assert.Equal(t, fewer, s.ShiftMM > 0, "%v: fewer teeth in front leave chain over", s.Pair)
		assert.InDelta(t, 3.6*float64(r.Facts.Drive.Pair.Front-s.Pair.Front), s.ShiftMM, 0.6, "about 3.6 mm a tooth")
		assert.Equal(t, fewer, s.SlackMM > 0, "too tight is no slack")
		assert.Equal(t, fewer, s.Change > 0)
		assert.InDelta(t, value(t, p.With(s.Choices...), "crawl-speed"), s.PaceKmh, 1e-9)
	}
}

// TestReadings: which speedometers see which change.
func TestReadings(t *testing.T) {
	p, shelf := demoPlan(t)
	p.Lines = nil
	p = p.With(plan.Choice{Slot: plan.RearSprocket, Part: shelf.Find(p.Bike, plan.RearSprocket, "rear-h6-47")})
	factor := map[drive.Pickup]float64{}
	own := 0
	for _, reading := range gearing.Readings(report(t, p).Facts) {
		factor[reading.Pickup] = reading.Factor
		if reading.Own {
			own++
		}
	}
	assert.InDelta(t, 1, factor[drive.FrontWheel], 1e-12)
	assert.InDelta(t, 1, factor[drive.RearWheel], 1e-12)
	assert.InDelta(t, 47.0/43, factor[drive.Gearbox], 1e-12, "the output shaft turns more often")
	assert.Equal(t, 1, own)
}

func shaftID(t *testing.T) string {
	for id, b := range bikes(t) {
		if b.Shaft() {
			return id
		}
	}
	require.Fail(t, "no bike with a shaft")
	return ""
}

// TestShaft: gears by its own ratio, and no rule or figure asks for a chain.
func TestShaft(t *testing.T) {
	p := on(t, shaftID(t))
	r := report(t, p)
	b := p.Bike
	rear := b.StandardIn(plan.RearTyre).Tyre.CircumferenceMM()
	assert.InDelta(t, p.Brief.Cruise.In("km/h")/3.6/rear*1000*60*b.Primary.In("")*b.Gearbox.Top()*b.FinalRatio.In(""), value(t, p, "cruise-rpm"), 1e-6)
	for _, id := range []figure.ID{"chain-links", "axle-shift"} {
		f, _ := r.Figure(id)
		assert.False(t, f.Known, id)
	}
	assert.Empty(t, gearing.Sprockets(r.Facts).Pairs)
	fan := gearing.Fan(r.Facts)
	require.NotEmpty(t, fan)
	assert.InDelta(t, value(t, p, "cruise-rpm"), fan[len(fan)-1].CruiseRPM, 1e-6)
	for _, f := range r.Findings {
		assert.False(t, slices.Contains([]string{"chain-slider", "swap-slack", "slots-short", "sprockets-as-set"}, f.ID), f.ID)
	}
}

// TestPressureWorking explains the corner of the card that it is asked for.
func TestPressureWorking(t *testing.T) {
	p, _ := demoPlan(t)
	r := report(t, p)
	at := slices.IndexFunc(r.Facts.Pressures, func(q facts.Pressure) bool { return q.Surface.ID == "rock" })
	require.NotEqual(t, -1, at)
	end, working, err := eval.PressureWorking(p, "travel", &study.RearWheel, "rock", today)
	require.NoError(t, err)
	assert.Equal(t, r.Facts.Pressures[at].Rear.Advice, end.Advice)
	require.NotEmpty(t, working.Steps)
	for _, step := range working.Steps {
		assert.NotEmpty(t, step.Formula.Text)
		assert.False(t, math.IsNaN(step.Out.Number), step.Formula.Text)
	}
	_, _, err = eval.PressureWorking(p, "travel", &study.RearWheel, "ice", today)
	assert.Error(t, err)
}

// TestBaselineCounts: what is due costs money and hours; without a price nobody
// knows the sum; what the plan replaces anyway is not paid twice; hands are free.
func TestBaselineCounts(t *testing.T) {
	p, shelf := demoPlan(t)
	before := value(t, p, "cost")
	pads := plan.Answer{Check: "rear-pads", Verdict: baseline.Do}
	require.NoError(t, pads.Cost.UnmarshalText([]byte("32 EUR")))
	assert.InDelta(t, before+3200, value(t, p.Answered(pads), "cost"), 1e-9)
	free := p.Answered(plan.Answer{Check: "bar-roll", Verdict: baseline.Do})
	assert.InDelta(t, before, value(t, free, "cost"), 1e-9)
	cost, _ := report(t, p.Answered(plan.Answer{Check: "rear-bearings", Verdict: baseline.Blocks})).Figure("cost")
	assert.False(t, cost.Known)
	assert.Contains(t, cost.Missing[0], "Rear wheel bearings")

	chain := plan.Answer{Check: "chain-wear", Verdict: baseline.Do}
	require.NoError(t, chain.Cost.UnmarshalText([]byte("95 EUR")))
	worn := p.Answered(chain)
	assert.InDelta(t, before+9500, value(t, worn, "cost"), 1e-9)
	part := shelf.Find(p.Bike, plan.Chain, "chain-520-110")
	replaced := worn.With(plan.Choice{Slot: plan.Chain, Part: part})
	assert.InDelta(t, before+float64(part.Price.Minor()), value(t, replaced, "cost"), 1e-9, "a chain that is bought is not mended")
	assert.True(t, p.Riding(p.Bike).Baseline.IsZero())
}

// TestContactLaws: a taller seat raises the reach by just that and opens the knee,
// higher bars shorten what standing lacks, lower pegs do both.
func TestContactLaws(t *testing.T) {
	p, shelf := demoPlan(t)
	with := func(slot plan.Slot, id string) *plan.Plan {
		part := shelf.Find(p.Bike, slot, id)
		require.NotNil(t, part, id)
		return p.With(plan.Choice{Slot: slot, Part: part})
	}
	reach, knee, short := value(t, p, "seat-reach"), value(t, p, "knee"), value(t, p, "bar-short")
	tall := with(plan.Seat, "seat-tall")
	assert.Greater(t, value(t, tall, "knee"), knee)
	assert.InDelta(t, 30, value(t, tall, "seat-reach")-reach, 0.5, "but for the lean over its width")
	assert.InDelta(t, short-20, value(t, with(plan.Risers, "riser-20-22"), "bar-short"), 1e-9)
	low := with(plan.Pegs, "pegs-low")
	assert.InDelta(t, short-20, value(t, low, "bar-short"), 1e-9)
	assert.Greater(t, value(t, low, "knee"), knee)
	assert.InDelta(t, 6, value(t, with(plan.Seat, "seat-wide"), "seat-hours"), 1e-9)
	// 6.5 hours; of the riding time so much is loose, and half of that is stood.
	mix := p.Brief.Mix()
	loose := 1 - mix.RoadHours(1)/mix.Hours(1)
	assert.InDelta(t, 6.5*(1-loose/2), value(t, p, "seated-hours"), 1e-9)
}

// TestArmourFigures: guards lower what is to be feared and never raise it, and the
// figures are the sums of the places.
func TestArmourFigures(t *testing.T) {
	p, shelf := demoPlan(t)
	bare := *p
	bare.Lines = nil
	stranded, days := value(t, &bare, "armour-stranded"), value(t, &bare, "armour-days")
	for _, part := range shelf {
		if part.Guard == nil {
			continue
		}
		with := bare.With(plan.Choice{Slot: part.Slot, Part: part})
		assert.LessOrEqual(t, value(t, with, "armour-stranded"), stranded+1e-9, part.ID)
		assert.LessOrEqual(t, value(t, with, "armour-days"), days+1e-9, part.ID)
	}
	r := report(t, p)
	stays, sum := 1.0, 0.0
	for _, risk := range r.Facts.Risks {
		stays *= 1 - risk.Left.Stranded
		sum += risk.Left.Days
	}
	assert.InDelta(t, 100*(1-stays), value(t, p, "armour-stranded"), 1e-9)
	assert.InDelta(t, sum, value(t, p, "armour-days"), 1e-9)
	assert.InDelta(t, 0, value(t, &bare, "armour-cover"), 1e-9)
	nowhere := *p
	nowhere.Brief.Terrain = nil
	f, _ := report(t, &nowhere).Figure("armour-stranded")
	assert.False(t, f.Known, "nobody has said where")
}
