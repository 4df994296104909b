package eval_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/demo"
	"valiantmule/internal/studytest"
)

// brief is an invented one in a line.
type briefly struct {
	distance, cruise, day, help string
	mix                         map[terrain.Kind]string
	weather                     plan.Weather
	skill                       guard.Skill
}

func planOf(t *testing.T, bike string, b briefly) *plan.Plan {
	t.Helper()
	p := plan.New("P", "EUR")
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	at := slices.IndexFunc(bikes, func(b *plan.Bike) bool { return b.ID == bike })
	require.NotEqual(t, -1, at, bike)
	p.Bike = bikes[at]
	enter := func(e interface{ Enter(text, unit string) error }, text, unit string) {
		require.NoError(t, e.Enter(text, unit))
	}
	enter(&p.Brief.Distance, b.distance, "km")
	enter(&p.Brief.Cruise, b.cruise, "km/h")
	enter(&p.Brief.Day, b.day, "h")
	enter(&p.Brief.Help, b.help, "h")
	enter(&p.Brief.Rider, "85", "kg")
	enter(&p.Brief.Inseam, "830", "mm")
	p.Brief.Weather, p.Brief.Skill = b.weather, b.skill
	for _, g := range terrain.Grounds() {
		if text, ok := b.mix[g.Kind]; ok {
			s := terrain.Stretch{Ground: g.Kind}
			enter(&s.Share, text, "%")
			p.Brief.Terrain = append(p.Brief.Terrain, s)
		}
	}
	require.Empty(t, p.Validate())
	return p
}

func asked(t *testing.T, p *plan.Plan) map[string]study.Need {
	t.Helper()
	r, err := eval.EvaluateLoadout(p, nil, "travel", studytest.Today)
	require.NoError(t, err)
	list, known := r.Needs()
	require.True(t, known)
	all := map[string]study.Need{}
	short := 0.0
	for _, n := range list {
		all[n.ID] = n
		a := n.Tell()
		assert.NotEmpty(t, a.Because, n.ID)
		assert.NotEmpty(t, a.Fitted, n.ID)
		assert.Equal(t, n.Met, a.Short == "", n.ID)
		if !n.Met {
			short++
		}
	}
	f, _ := r.Figure("needs")
	assert.Equal(t, short, f.Value, "the gauge counts what is short")
	return all
}

func needIDs() []string {
	var ids []string
	for _, n := range eval.Needs() {
		ids = append(ids, n.ID)
	}
	return ids
}

// TestBriefs: what the trade would tell these riders, written before any output was
// looked at [practice].
func TestBriefs(t *testing.T) {
	for _, c := range []struct {
		name, bike string
		brief      briefly
		asks, not  []string
		why        string
	}{
		{"to work", "averill-720", briefly{"30", "80", "1", "0", map[terrain.Kind]string{terrain.Paved: "100"}, plan.Warm, ""},
			nil, needIDs(), "a bike as it came does that"},
		{"tar to a fair", "averill-720", briefly{"350", "90", "4", "2", map[terrain.Kind]string{terrain.Paved: "100"}, plan.Warm, ""},
			[]string{"seat", "mend-a-flat"}, []string{"tyres-for-the-ground", "sump", "stand", "wind", "navigation"}, "hours on a seat, and a nail"},
		{"motorway to the sea", "fennick-300", briefly{"1400", "115", "7", "2", map[terrain.Kind]string{terrain.Motorway: "90", terrain.Paved: "10"}, plan.Warm, ""},
			[]string{"wind", "seat", "mend-a-flat"}, []string{"tyres-for-the-ground", "pegs", "hands"}, "a light bike tires its rider on open roads"},
		{"the same on a faired tourer", "corrin-1180", briefly{"1400", "115", "7", "2", map[terrain.Kind]string{terrain.Motorway: "90", terrain.Paved: "10"}, plan.Warm, ""},
			[]string{"wind", "seat"}, []string{"stand"}, "it has its screen; the need is there and met"},
		{"gravel weekend", "holt-650", briefly{"450", "90", "5", "6", map[terrain.Kind]string{terrain.SmoothGravel: "60", terrain.Paved: "40"}, plan.Warm, ""},
			[]string{"tyres-for-the-ground", "stand", "pegs", "mend-a-flat"}, []string{"mud", "warm-hands"}, "loose ground is ridden standing, on blocks"},
		{"one day of single track", "fennick-250", briefly{"90", "60", "6", "3", map[terrain.Kind]string{terrain.SingleTrack: "100"}, plan.Warm, guard.Learning},
			[]string{"tyres-for-the-ground", "stand", "pegs", "hands"}, []string{"wind", "navigation", "mend-a-flat"}, "a learner falls, and a lever goes first"},
		{"two weeks of rock", "holt-650", briefly{"2600", "90", "7", "30", map[terrain.Kind]string{terrain.RoughGravel: "50", terrain.SingleTrack: "15", terrain.Paved: "35"}, plan.Wet, ""},
			[]string{"sump", "cases", "cooler", "hands", "tyres-for-the-ground", "mend-a-flat", "navigation", "seat", "pegs"}, []string{"mud"}, "what breaks far out ends the trip"},
		{"the same with an old hand on tar", "holt-650", briefly{"2600", "90", "7", "2", map[terrain.Kind]string{terrain.Paved: "100"}, plan.Wet, guard.Old},
			[]string{"seat"}, []string{"sump", "cases", "hands", "pegs"}, "the road breaks little"},
		{"forest after rain", "fennick-450", briefly{"500", "70", "6", "5", map[terrain.Kind]string{terrain.Mud: "25", terrain.Track: "50", terrain.Paved: "25"}, plan.Wet, ""},
			[]string{"mud", "tyres-for-the-ground", "hands", "stand"}, []string{"wind", "warm-hands"}, "packed mud brakes the wheel, and one falls in it"},
		{"frost in the passes", "morrow-400", briefly{"1600", "80", "6", "8", map[terrain.Kind]string{terrain.Paved: "75", terrain.SmoothGravel: "25"}, plan.Cold, ""},
			[]string{"warm-hands", "navigation", "seat"}, []string{"wind", "mud", "tyres-for-the-ground"}, "cold hands do not feel a brake"},
		{"dunes", "fennick-450", briefly{"1800", "80", "6", "40", map[terrain.Kind]string{terrain.Sand: "40", terrain.Track: "40", terrain.Paved: "20"}, plan.Warm, ""},
			[]string{"hands", "cooler", "tyres-for-the-ground", "navigation", "stand"}, []string{"mud", "warm-hands"}, "sand throws one gently and often"},
		{"a shaft twin on white roads", "corrin-1180", briefly{"3000", "100", "7", "12", map[terrain.Kind]string{terrain.Paved: "60", terrain.SmoothGravel: "40"}, plan.Wet, ""},
			[]string{"tyres-for-the-ground", "stand", "navigation", "seat"}, []string{"mud", "warm-hands"}, "it cruises by itself; blocks and bars are what is missing"},
		{"a faired bike on a field track", "sorrel-320", briefly{"120", "80", "3", "1", map[terrain.Kind]string{terrain.Track: "40", terrain.Paved: "60"}, plan.Warm, ""},
			[]string{"tyres-for-the-ground"}, []string{"navigation", "mend-a-flat", "wind", "hands"}, "an afternoon asks for tyres, not for armour"},
	} {
		all := asked(t, planOf(t, c.bike, c.brief))
		for _, id := range c.asks {
			assert.Contains(t, all, id, "%s: %s", c.name, c.why)
		}
		for _, id := range c.not {
			assert.NotContains(t, all, id, "%s: %s", c.name, c.why)
		}
	}
	cruise := asked(t, planOf(t, "corrin-1180", briefly{"1400", "115", "7", "2", map[terrain.Kind]string{terrain.Motorway: "100"}, plan.Warm, ""}))
	assert.True(t, cruise["wind"].Met, "its own screen answers the wind")
}

// TestAdvice: what the trade would say to these riders of the bike as it came, and what it
// would not trouble them with, written before any output was looked at [practice].
func TestAdvice(t *testing.T) {
	tall := func(inseam, kg string) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			studytest.Enter(t, &p.Brief.Inseam, inseam, "mm")
			studytest.Enter(t, &p.Brief.Sole, "30", "mm")
			studytest.Enter(t, &p.Brief.Rider, kg, "kg")
		}
	}
	gravel := map[terrain.Kind]string{terrain.SmoothGravel: "50", terrain.Track: "20", terrain.Paved: "30"}
	for _, c := range []struct {
		name, bike   string
		brief        briefly
		change       func(p *plan.Plan)
		says, silent []string // findings, or needs
		why          string
	}{
		{"1.60 m on a tall single", "fennick-450", briefly{"600", "80", "6", "5", gravel, plan.Warm, ""}, tall("720", "60"),
			[]string{"out-of-reach"}, []string{"knees-bent", "bars-low-standing", "room-short"}, "tiptoe at best; the bars are high enough"},
		{"1.98 m on a low twin", "averill-720", briefly{"600", "80", "6", "5", gravel, plan.Warm, ""}, tall("960", "105"),
			[]string{"knees-bent", "bars-low-standing"}, []string{"out-of-reach"}, "folded seated, bent standing, both feet flat"},
		{"a roadster on rock", "averill-720", briefly{"500", "80", "6", "6", map[terrain.Kind]string{terrain.RoughGravel: "60", terrain.Paved: "40"}, plan.Warm, ""}, nil,
			[]string{"room-short", "sump"}, []string{"overweight", "front-tyre-rim"}, "its header hangs where the stones are"},
		{"wet clay on the standard tyres", "holt-650", briefly{"400", "80", "6", "6", map[terrain.Kind]string{terrain.Mud: "20", terrain.Track: "40", terrain.Paved: "40"}, plan.Wet, ""}, nil,
			[]string{"front-wet-grip", "front-tyre-against-ground"}, []string{"cruise-not-held", "ends-unlike"}, "a road tread fills with clay"},
		{"headwind on open land", "fennick-300", briefly{"900", "105", "7", "6", map[terrain.Kind]string{terrain.Paved: "90", terrain.SmoothGravel: "10"}, plan.Warm, ""},
			func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Headwind, "45", "km/h") }, []string{"cruise-not-held"}, []string{"climb-short", "room-short"}, "a small single has nothing left for the wind"},
		{"the same in still air", "fennick-300", briefly{"900", "85", "7", "6", map[terrain.Kind]string{terrain.Paved: "90", terrain.SmoothGravel: "10"}, plan.Warm, ""}, nil,
			nil, []string{"cruise-not-held", "climb-short", "room-short"}, "it ambles along"},
		{"two up on a tourer", "corrin-1180", briefly{"1500", "100", "6", "6", map[terrain.Kind]string{terrain.Paved: "90", terrain.SmoothGravel: "10"}, plan.Warm, ""},
			func(p *plan.Plan) { studytest.Enter(t, &p.Loadouts[1].Pillion, "65", "kg") }, nil, []string{"overweight", "axle-overload", "front-light", "tyre-overload"}, "that is what it was built for"},
		{"a 250 on motorways, into a breeze", "fennick-250", briefly{"900", "115", "7", "3", map[terrain.Kind]string{terrain.Motorway: "90", terrain.Paved: "10"}, plan.Warm, ""},
			func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Headwind, "15", "km/h") }, []string{"cruise-not-held", "light-for-the-road", "wind"}, []string{"room-short", "heavy-for-the-ground"}, "flat out all day"},
	} {
		p := planOf(t, c.bike, c.brief)
		if c.change != nil {
			c.change(p)
		}
		r, err := eval.EvaluateLoadout(p, nil, "travel", studytest.Today)
		require.NoError(t, err)
		var said []string
		for _, f := range r.Findings {
			said = append(said, f.ID)
		}
		needs, _ := r.Needs()
		for _, n := range needs {
			said = append(said, n.ID)
		}
		for _, id := range c.says {
			assert.Contains(t, said, id, "%s: %s", c.name, c.why)
		}
		for _, id := range c.silent {
			assert.NotContains(t, said, id, "%s: %s", c.name, c.why)
		}
	}
}

// TestNeedsAreMet by what was made for them, and then they ask for nothing.
func TestNeedsAreMet(t *testing.T) {
	shelf, err := demo.Parts()
	require.NoError(t, err)
	p := planOf(t, "holt-650", briefly{"2600", "105", "8", "30", map[terrain.Kind]string{terrain.RoughGravel: "40", terrain.SingleTrack: "10", terrain.Mud: "10", terrain.Paved: "40"}, plan.Cold, ""})
	require.NoError(t, p.Brief.Inseam.Enter("920", "mm"))
	require.NoError(t, p.Brief.Gap.Enter("210", "km"))
	require.NoError(t, p.Brief.HandSpan.Enter("172", "mm"))
	for id, by := range map[string][]string{
		"levers": {"levers-adjust"}, "seen-by-day": {"aux-seen"}, "tyres-for-the-ground": {"bracken-140-80-18"}, "mend-a-flat": {"kit-tubes"}, "fuel": {"tank-25-h"}, "sump": {"skid-alu-h"}, "cases": {"skid-alu-h", "bars-low-h"}, "cooler": {"cooler-grille-h"},
		"hands": {"hands-bar-22"}, "mud": {"mudguard-high"}, "seat": {"seat-wide"}, "stand": {"bar-22-high"}, "pegs": {"pegs-wide"}, "wind": {"screen-mid"},
		"warm-hands": {"grips-heated"}, "navigation": {"nav-paper"}, "charging": {"mount-damped", "nav-tablet", "socket-sealed"},
	} {
		with := p
		for _, name := range by {
			at := slices.IndexFunc(shelf, func(p *parts.Part) bool { return p.ID == name })
			require.NotEqual(t, -1, at, name)
			with = with.With(plan.Choice{Slot: shelf[at].Slot, Part: shelf[at]})
		}
		after, there := asked(t, with)[id]
		require.True(t, there, id)
		assert.True(t, after.Met, "%s with %v is short of %s", id, by, after.Tell().Short)
		if before, there := asked(t, p)[id]; there {
			assert.False(t, before.Met, "%s is short without", id)
		}
	}
	nowhere := plan.New("P", "EUR")
	nowhere.Bike = p.Bike
	r, err := eval.EvaluateLoadout(nowhere, nil, "travel", studytest.Today)
	require.NoError(t, err)
	_, known := r.Needs()
	assert.False(t, known, "who has not said where asks for nothing yet")
}
