package contact_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/studytest"
)

func TestKneesFrom68Degrees(t *testing.T) {
	b := studytest.New(t)
	knee := func(inseam string) (float64, bool) {
		p := b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Inseam, inseam, "mm") })()
		_, said := b.Findings(p)["knees-bent"]
		return b.Facts(p).Contact.KneeDegrees, said
	}
	for inseam := 780; inseam <= 980; inseam += 10 {
		degrees, said := knee(fmt.Sprint(inseam))
		assert.Equal(t, degrees < 68, said, "%d mm: %.1f°", inseam, degrees)
	}
}

func TestSeatBehindAScreen(t *testing.T) {
	b := studytest.New(t)
	assert.Equal(t, 2.0, b.Facts(b.With("holt-650")).Contact.SeatHours)
	assert.Equal(t, 3.5, b.Facts(b.With("corrin-1180")).Contact.SeatHours, "it has a screen of its own")
	assert.Equal(t, 3.5, b.Facts(b.With("holt-650", "screen-mid")).Contact.SeatHours)
}

// TestStandingBars: what a rider of 1.75 m is asked to raise is what riders end with, 25 to 50
// mm in all [practice]; beyond it come lower pegs, and then it does not fit; nobody's seated
// back is thrown past upright.
func TestStandingBars(t *testing.T) {
	b := studytest.New(t)
	for statureMM, within := range map[float64][2]float64{1600: {764, 793}, 1750: {798, 828}, 1900: {838, 869}, 1980: {860, 892}} { // HANDBOOK 11, a segment model
		grips := fit.GripOverPegMM(0.47 * statureMM)
		assert.GreaterOrEqual(t, grips, within[0], statureMM)
		assert.LessOrEqual(t, grips, within[1], statureMM)
	}
	for bike := range b.Bikes {
		for _, inseam := range []string{"720", "820", "920", "980"} {
			p := b.With(bike)
			studytest.Enter(t, &p.Brief.Inseam, inseam, "mm")
			studytest.Enter(t, &p.Bike.CableSlack, "200", "mm")
			low, said := b.Findings(p)["bars-low-standing"]
			if !said {
				continue
			}
			before := b.Facts(p)
			assert.Regexp(t, `\{([0-4]?\d|50) mm\} by risers|too high to sit behind`, string(low.Tell().Do))
			for _, r := range low.Remedies() {
				after := b.Facts(p.With(r.Choices...))
				rise := after.Contact.BarRiseMM - before.Contact.BarRiseMM
				assert.LessOrEqual(t, rise, before.Body.RiseMostMM+1e-9, "%s, %s: %s throws the seated back past upright", bike, inseam, r.Label)
				assert.Less(t, after.Contact.BarShortMM, before.Contact.BarShortMM)
			}
		}
	}
}

// TestBarsNoHigherThanOneSits: what is offered to stand keeps to what one can sit behind.
func TestBarsNoHigherThanOneSits(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650")
	studytest.Enter(t, &p.Brief.Inseam, "980", "mm")
	studytest.Enter(t, &p.Bike.CableSlack, "200", "mm")
	low, said := b.Findings(p)["bars-low-standing"]
	require.True(t, said)
	require.NotEmpty(t, low.Remedies())
	for _, r := range low.Remedies() {
		rise := 0.0
		for _, c := range r.Choices {
			rise += c.Part.Adds(parts.BarRise)
		}
		assert.LessOrEqual(t, rise, 50.0)
	}
}

// TestAnotherBarChangesWhatClampsToIt: guards, clamps and mounts hang on its
// diameter.
func TestAnotherBarChangesWhatClampsToIt(t *testing.T) {
	b := studytest.New(t)
	silent := func(bike string, parts ...string) bool {
		_, spoke := b.Findings(b.With(bike, parts...))["part-does-not-fit"]
		return !spoke
	}
	assert.True(t, silent("holt-650", "hands-bar-22", "bar-22-high"))
	assert.False(t, silent("holt-650", "bar-28-mid"), "a 28.6 bar wants its clamps")
	assert.True(t, silent("holt-650", "riser-22-28", "bar-28-mid"))
	assert.False(t, silent("holt-650", "riser-22-28", "bar-28-mid", "hands-bar-22"), "and the guards of the old bar no longer clamp")
	assert.True(t, silent("holt-650", "riser-22-28", "bar-28-mid", "hands-bar-28"))
	assert.False(t, silent("holt-650", "highway-pegs"), "they hang on engine bars")
	assert.True(t, silent("holt-650", "highway-pegs", "bars-low-h"))
	assert.Contains(t, b.Findings(b.With("corrin-850", "bar-flex", "hands-bar-28")), "cannot-both")
	way := b.Findings(b.With("holt-650", "nav-phone"))["part-does-not-fit"].Remedies()
	require.Len(t, way, 1, "what it needs is the next thing to try")
	assert.Equal(t, parts.NavMount, way[0].Choices[0].Slot)
}

// TestBarsSayWhichGuards: a clamp for another bar does not go on.
func TestBarsSayWhichGuards(t *testing.T) {
	b := studytest.New(t)
	assert.Contains(t, b.Findings(b.With("holt-650", "hands-bar-28")), "part-does-not-fit")
	assert.NotContains(t, b.Findings(b.With("holt-650", "hands-bar-22")), "part-does-not-fit")
	assert.Contains(t, b.Findings(b.With("corrin-850", "hands-bar-22")), "part-does-not-fit")
}

// TestContactLaws: a taller seat raises the reach by just that and opens the knee,
// higher bars shorten what standing lacks, lower pegs do both.
func TestContactLaws(t *testing.T) {
	p, shelf := studytest.Demo(t)
	with := func(slot parts.Slot, id string) *plan.Plan {
		part := shelf.Find(p.Bike, slot, id)
		require.NotNil(t, part, id)
		return p.With(plan.Choice{Slot: slot, Part: part})
	}
	reach, knee, short := studytest.Value(t, p, "seat-reach"), studytest.Value(t, p, "knee"), studytest.Value(t, p, "bar-short")
	tall := with(parts.Seat, "seat-tall")
	assert.Greater(t, studytest.Value(t, tall, "knee"), knee)
	assert.InDelta(t, 30, studytest.Value(t, tall, "seat-reach")-reach, 0.5, "but for the lean over its width")
	assert.InDelta(t, short-20, studytest.Value(t, with(parts.Risers, "riser-20-22"), "bar-short"), 1e-9)
	low := with(parts.Pegs, "pegs-low")
	assert.InDelta(t, short-20, studytest.Value(t, low, "bar-short"), 1e-9)
	assert.Greater(t, studytest.Value(t, low, "knee"), knee)
	assert.InDelta(t, 6, studytest.Value(t, with(parts.Seat, "seat-wide"), "seat-hours"), 1e-9)
	// 6.5 hours; of the riding time so much is loose, and half of that is stood.
	mix := p.Brief.Mix()
	loose := 1 - mix.RoadHours(1)/mix.Hours(1)
	assert.InDelta(t, 6.5*(1-loose/2), studytest.Value(t, p, "seated-hours"), 1e-9)
}

// TestWhatIsFittedIsFitted: nobody looks under a grip before ordering one that is on; sleeves
// go over the old one, and one with its tube needs no look.
func TestWhatIsFittedIsFitted(t *testing.T) {
	b := studytest.New(t)
	own := func(tags ...string) *plan.Plan {
		return b.With("holt-650").With(plan.Choice{Slot: parts.Grips, Part: &parts.Part{ID: "own-grips", Slot: parts.Grips, Name: "Mine", Provides: tags}})
	}
	assert.Contains(t, b.Findings(own()), "glued-grips")
	assert.NotContains(t, b.Findings(own("grip-sleeves")), "glued-grips")
	assert.NotContains(t, b.Findings(own("with-tube")), "glued-grips")
	p := own()
	p.Lines[len(p.Lines)-1].Decision = plan.OnTheBike
	assert.NotContains(t, b.Findings(p), "glued-grips")
}

// TestPegsAndLean: lower or longer pegs touch sooner, higher or shorter ones later, and only
// sooner is spoken of.
func TestPegsAndLean(t *testing.T) {
	b := studytest.New(t)
	pegs := func(down, out string) *plan.Plan {
		p := b.Changing("holt-650", studytest.Paved(t))()
		part := &parts.Part{ID: parts.OwnPrefix + "pegs", Slot: parts.Pegs, Name: "Pegs"}
		studytest.Say(t, part, "peg_drop", down)
		studytest.Say(t, part, "peg_out", out)
		return p.With(plan.Choice{Slot: parts.Pegs, Part: part})
	}
	bare := studytest.Value(t, b.Standard("holt-650"), figure.PegLean)
	for _, c := range []struct {
		down, out string
		sooner    bool
	}{{"20", "0", true}, {"0", "15", true}, {"-20", "0", false}, {"0", "-15", false}} {
		p := pegs(c.down, c.out)
		assert.Equal(t, c.sooner, studytest.Value(t, p, figure.PegLean) < bare, c)
		_, speaks := b.Findings(p)["pegs-drag"]
		assert.Equal(t, c.sooner, speaks, c)
	}
}
