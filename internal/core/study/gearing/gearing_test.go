package gearing_test

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
	"valiantmule/internal/core/chains"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestWornWhereWearSaysSo: who has looked and found the old half good hears nothing; who
// has measured it past half does.
func TestWornWhereWearSaysSo(t *testing.T) {
	b := studytest.New(t)
	looked := func(verdicts baseline.Verdict, now string) map[string]study.Finding {
		p := b.With("holt-650", "rear-h6-46")
		chain := plan.Answer{Check: "chain-wear", Verdict: verdicts}
		if now != "" {
			studytest.Enter(t, &chain.New, "317.5", "mm")
			studytest.Enter(t, &chain.Limit, "322", "mm")
			studytest.Enter(t, &chain.Now, now, "mm")
		}
		p.Baseline.Answers = []plan.Answer{chain, {Check: "sprockets", Verdict: baseline.Good}}
		return b.Findings(p)
	}
	assert.NotContains(t, looked(baseline.Good, ""), "worn-together")
	assert.NotContains(t, looked(baseline.Watch, "319"), "worn-together", "a third of its measure")
	assert.Contains(t, looked(baseline.Good, "320.5"), "worn-together", "two thirds")
	assert.Contains(t, looked(baseline.Watch, ""), "worn-together")
}

// TestLawsOfPull: more teeth behind never weaken it at walking pace, more mass
// never makes it climb or run faster, thinner air never pulls more.
func TestLawsOfPull(t *testing.T) {
	for id, bike := range studytest.New(t).Bikes {
		p := studytest.On(t, id)
		if !bike.Shaft() {
			std, _ := bike.StandardIn(parts.RearSprocket).Count()
			pull := 0.0
			for teeth := std - 4; teeth <= std+6; teeth++ {
				now := studytest.Value(t, p.With(plan.Choice{Slot: parts.RearSprocket, Part: plan.Unlisted(bike, parts.RearSprocket, teeth)}), "crawl-pull")
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
				now := studytest.Value(t, &changed, id)
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
	p, _ := studytest.Demo(t)
	ground := p.Brief.SteepGround()
	left := air.PowerPercent(air.Density(p.Brief.Altitude.In("m"))) / 100
	thrust := 0.75 * p.Bike.Torque.In("Nm") * left * 2.095 * 2.917 * 43 / 15 * 0.9 / (2.041 / (2 * math.Pi))
	angle := math.Atan(studytest.Value(t, p, "crawl-pull") / 100)
	weight := studytest.Value(t, p, "loaded-mass") * 9.80665
	assert.InEpsilon(t, thrust, weight*(math.Sin(angle)+ground.Rolling*math.Cos(angle)), 1e-6)
}

// TestThrustAgreesWithTheGauges: the chart draws what the figures say.
func TestThrustAgreesWithTheGauges(t *testing.T) {
	p, _ := studytest.Demo(t)
	r := studytest.Report(t, p)
	chart, ok := gearing.Thrust(r.Facts, p.Brief.SteepGround())
	require.True(t, ok)
	require.Len(t, chart.Gears, 5)
	climb := studytest.Value(t, p, "climb") / 100
	assert.InDelta(t, min(chart.Traction.Slope, chart.Wheelie.Slope, chart.Gears[0].Slope), climb, 0.02, "the air at that speed aside")
	for i, g := range chart.Gears[1:] {
		assert.Less(t, g.Slope, chart.Gears[i].Slope, "each gear climbs less than the one below")
	}
	hold := int(studytest.Value(t, p, "hold-gear"))
	assert.True(t, chart.Gears[hold-1].Kept)
	for _, g := range chart.Gears[hold:] {
		assert.False(t, g.Kept)
	}
	paved, _ := terrain.Of(terrain.Paved)
	onRoad, _ := gearing.Thrust(r.Facts, paved)
	assert.Greater(t, onRoad.Traction.Slope, chart.Traction.Slope, "tarmac grips better than gravel")
	require.NoError(t, p.Bike.Torque.Enter("", "Nm"))
	_, ok = gearing.Thrust(studytest.Report(t, p).Facts, paved)
	assert.False(t, ok)
}

// TestChainRuns: both even counts stand there with what fits them, and the chain
// that is on where it is a third.
func TestChainRuns(t *testing.T) {
	p, shelf := studytest.Demo(t)
	for teeth, want := range map[string][]int{"rear-h6-46": {110, 112}, "rear-h6-47": {112, 114, 110}} {
		with := p.With(plan.Choice{Slot: parts.RearSprocket, Part: shelf.Find(p.Bike, parts.RearSprocket, teeth)})
		r, err := eval.EvaluateLoadout(with, shelf, "travel", studytest.Today)
		require.NoError(t, err)
		var links []int
		for _, run := range gearing.ChainRuns(r.Facts) {
			links = append(links, run.Links)
			assert.Equal(t, run.Links == 110, run.Current)
			assert.Equal(t, run.Current, run.Choices == nil)
			after := studytest.Value(t, with.With(run.Choices...), "axle-shift")
			assert.InDelta(t, run.ShiftMM, after, 1e-9, "the chain offered is the one that was computed")
		}
		assert.Equal(t, want, links, teeth)
	}
	assert.Nil(t, gearing.ChainRuns(studytest.Report(t, studytest.On(t, shaftID(t))).Facts))
}

// TestSwaps: another front sprocket on the same chain moves the axle as the
// geometry of the handbook says, and is what its preview says.
func TestSwaps(t *testing.T) {
	p, shelf := studytest.Demo(t)
	r, err := eval.EvaluateLoadout(p, shelf, "travel", studytest.Today)
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
		assert.InDelta(t, studytest.Value(t, p.With(s.Choices...), "crawl-speed"), s.PaceKmh, 1e-9)
	}
}

func shaftID(t *testing.T) string {
	for id, b := range studytest.New(t).Bikes {
		if b.Shaft() {
			return id
		}
	}
	require.Fail(t, "no bike with a shaft")
	return ""
}

// TestShaft: gears by its own ratio, and no rule or figure asks for a chain.
func TestShaft(t *testing.T) {
	p := studytest.On(t, shaftID(t))
	r := studytest.Report(t, p)
	b := p.Bike
	rear := b.StandardIn(parts.RearTyre).Tyre().CircumferenceMM()
	assert.InDelta(t, p.Brief.Cruise.In("km/h")/3.6/rear*1000*60*b.Primary.In("")*b.Gearbox.Top()*b.FinalRatio.In(""), studytest.Value(t, p, "cruise-rpm"), 1e-6)
	for _, id := range []figure.ID{"chain-links", "axle-shift"} {
		f, _ := r.Figure(id)
		assert.False(t, f.Known, id)
	}
	assert.Empty(t, gearing.Sprockets(r.Facts).Pairs)
	fan := gearing.Fan(r.Facts)
	require.NotEmpty(t, fan)
	assert.InDelta(t, studytest.Value(t, p, "cruise-rpm"), fan[len(fan)-1].CruiseRPM, 1e-6)
	for _, f := range r.Findings {
		assert.False(t, slices.Contains([]string{"chain-slider", "swap-slack", "slots-short", "sprockets-as-set"}, f.ID), f.ID)
	}
}

func TestSprocketField(t *testing.T) {
	p, shelf := studytest.Demo(t)
	r, err := eval.EvaluateLoadout(p, shelf, "travel", studytest.Today)
	require.NoError(t, err)
	field := gearing.Sprockets(r.Facts)
	require.NotEmpty(t, field.Pairs)
	allowed := 0
	for _, pair := range field.Pairs {
		with := studytest.Report(t, p.With(pair.Choices...))
		pace, _ := with.Figure("crawl-speed")
		rpm, _ := with.Figure("cruise-rpm")
		assert.InDelta(t, pace.Value, pair.PaceKmh, 1e-9, "the field says of %v what its preview says", pair.Pair)
		assert.InDelta(t, rpm.Value, pair.CruiseRPM, 1e-6)
		assert.Equal(t, pair.Pair, with.Facts.Drive.Pair)
		if pair.Allowed { // by the limits as they stand; a gauge that passes one by less than it is known is watch
			assert.True(t, pace.State != verdict.Over && rpm.State != verdict.Over, "%v", pair.Pair)
		} else {
			assert.True(t, pace.State != verdict.OK || rpm.State != verdict.OK, "%v", pair.Pair)
		}
		assert.Equal(t, pair.Pair == r.Facts.Drive.Pair, pair.Current)
		if pair.Allowed {
			allowed++
		}
	}
	assert.Equal(t, 9, allowed, "of what the trade sells for a 520: 12/37, 12/38, 13/40, 13/41, 14/44, 15/47, 16/50, 17/53, 17/54")
	assert.Equal(t, allowed, field.Allowed())
	low, high := field.Window()
	for _, pair := range field.Pairs {
		assert.Equal(t, pair.Allowed, pair.Pair.Ratio() >= low && pair.Pair.Ratio() <= high, "%v against the window", pair.Pair)
	}
}

// TestFieldIsWhatTheTradeSells for the chain, own sprockets marked, and none recommended that
// nobody has.
func TestFieldIsWhatTheTradeSells(t *testing.T) {
	p, shelf := studytest.Demo(t)
	own := &parts.Part{ID: "own-sprocket", Slot: parts.RearSprocket, Name: "56 from a farm"}
	own.Recount(56)
	p = p.With(plan.Choice{Slot: own.Slot, Part: own, Decision: plan.Undecided})
	r, err := eval.EvaluateLoadout(p, p.WithOwn(shelf), "travel", studytest.Today)
	require.NoError(t, err)
	front, rear, _ := drive.Sold("520")
	for _, pair := range gearing.Sprockets(r.Facts).Pairs {
		assert.True(t, front.Has(pair.Pair.Front), pair.Pair)
		assert.True(t, rear.Has(pair.Pair.Rear) || pair.Pair.Rear == 56, pair.Pair)
		assert.Equal(t, pair.Pair.Rear == 56, pair.Own, pair.Pair)
	}
	assert.Empty(t, chains.PairRemedy(r.Facts, drive.Pair{Front: 15, Rear: 57}, "%s"), "nobody sells that")
	assert.NotEmpty(t, chains.PairRemedy(r.Facts, drive.Pair{Front: 15, Rear: 48}, "%s"))
	assert.NotEmpty(t, chains.PairRemedy(r.Facts, drive.Pair{Front: 15, Rear: 56}, "%s"), "the rider has it")
}

// TestFieldOfAnUnlistedBike: sprockets that no shelf has can still be tried.
func TestFieldOfAnUnlistedBike(t *testing.T) {
	p, _ := studytest.Demo(t)
	p.Bike.Provides = nil
	field := gearing.Sprockets(studytest.Report(t, p).Facts)
	assert.Greater(t, len(field.Pairs), 30)
	p.Bike.Standard = nil
	assert.Empty(t, gearing.Sprockets(studytest.Report(t, p).Facts).Pairs, "without teeth there is no field")
}

func TestFan(t *testing.T) {
	p, _ := studytest.Demo(t)
	fan := gearing.Fan(studytest.Report(t, p).Facts)
	require.Len(t, fan, 5)
	for i, g := range fan {
		assert.Equal(t, i+1, g.Gear)
		assert.InEpsilon(t, 7500.0/1850, g.ToKmh/g.FromKmh, 1e-9, "speed goes with engine speed")
		if i > 0 {
			assert.Greater(t, g.ToKmh, fan[i-1].ToKmh)
		}
	}
	assert.InDelta(t, studytest.Value(t, p, "cruise-rpm"), fan[4].CruiseRPM, 1e-6)
	assert.InDelta(t, 100*(1-1.842/2.917), fan[0].StepToNextPercent, 1e-9)
	require.NoError(t, p.Bike.MaxRPM.Enter("", "rpm"))
	assert.Nil(t, gearing.Fan(studytest.Report(t, p).Facts))
}

// TestSheetsAgree: the top speed on a demo bike's sheet is the one that its power and its
// drag area hold, its rider on it, upright and without wind.
func TestSheetsAgree(t *testing.T) {
	for id, bike := range studytest.New(t).Bikes {
		p := studytest.On(t, id)
		studytest.Enter(t, &p.Brief.Altitude, "0", "m")
		studytest.Enter(t, &p.Brief.Headwind, "0", "km/h")
		studytest.Packed()(p)
		assert.InEpsilon(t, bike.TopSpeed.In("km/h"), studytest.Value(t, p, figure.TopSpeed), 0.08, id)
	}
}
