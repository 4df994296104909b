package guess_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
)

// measures are the rows whose numbers a tape or a scale gives: their bands are narrower.
var measures = []string{"bike/kerb_mass", "bike/kerb_front", "bike/seat_height", "bike/wheelbase", "bike/front_rim_diameter", "bike/rear_rim_diameter", "bike/front_rim_width", "bike/rear_rim_width"}

// TestBikesByTheirKind guesses each invented bike by nothing but its kind and displacement. The
// table was written down before it was held against them.
func TestBikesByTheirKind(t *testing.T) {
	bikes, err := demo.Bikes()
	assert.NoError(t, err)
	inside, all := 0, 0
	var narrow, wide []float64
	for _, b := range bikes {
		p := plan.New("by its kind", "EUR")
		p.Guesses = plan.GuessTable
		p.Bike = &plan.Bike{ID: b.ID, Name: b.Name, Class: b.Class, Displacement: b.Displacement}
		_, guesses := guess.Fill(p)
		for _, g := range guesses {
			is := said(b, g.At)
			if math.IsNaN(is) || math.IsNaN(g.Value) {
				continue
			}
			all++
			if is >= g.Low-1e-9 && is <= g.High+1e-9 {
				inside++
			} else {
				t.Logf("%s: %s is %.4g, guessed %.4g to %.4g", b.ID, g.At, is, g.Low, g.High)
			}
			if slices.Contains(measures, g.At) {
				narrow = append(narrow, g.Half())
			} else {
				wide = append(wide, g.Half())
			}
		}
	}
	t.Logf("%d of %d inside", inside, all)
	assert.GreaterOrEqual(t, float64(inside), 0.9*float64(all))
	assert.LessOrEqual(t, median(narrow), 0.15)
	assert.LessOrEqual(t, median(wide), 0.25)
}

func median(list []float64) float64 {
	slices.Sort(list)
	return list[len(list)/2]
}

// said is what a bike's sheet says where a row guesses, NaN where it says nothing.
func said(b *plan.Bike, at string) float64 {
	for _, f := range b.Fields() {
		if q, ok := f.Entry.(interface{ In(string) float64 }); ok && "bike/"+f.Key == at && f.Entry.Known() {
			return q.In(f.Unit)
		}
	}
	for _, s := range []parts.Slot{parts.FrontSprocket, parts.RearSprocket} {
		if p := b.StandardIn(s); p != nil && at == "came/"+string(s)+"/"+parts.Teeth.Key {
			n, _ := p.Count()
			return float64(n)
		}
	}
	return math.NaN()
}

// TestLikeAnotherGearbox: gears that are typed in any of the ways in which they are read move by
// their band.
func TestLikeAnotherGearbox(t *testing.T) {
	for _, text := range []string{"2.6/1.8/1.4", "2.6; 1.8; 1.4", "2.6, 1.8, 1.4"} {
		like := &plan.Bike{ID: "like", Name: "Like", Class: plan.DualSport}
		require.NoError(t, like.Gearbox.Enter(text, ""))
		p := plan.New("gears", "EUR")
		p.Guesses, p.Like, p.Bike = plan.GuessTable, like, &plan.Bike{ID: "own", Name: "Own", Class: plan.DualSport}
		filled, list := guess.Fill(p)
		at := slices.IndexFunc(list, func(g guess.Guess) bool { return g.At == "bike/gearbox" })
		require.GreaterOrEqual(t, at, 0)
		assert.Greater(t, guess.Moved(filled, list[at:at+1], 1).Bike.Gearbox.First(), filled.Bike.Gearbox.First(), text)
	}
}

// TestLikeAnother: a bike that is like one with a sheet takes that one's numbers, in half the
// bands, but what has been said of it; and no rating.
func TestLikeAnother(t *testing.T) {
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	other := bikes[slices.IndexFunc(bikes, func(b *plan.Bike) bool { return b.ID == "holt-650" })]
	by := func(like *plan.Bike) (*plan.Bike, map[string]guess.Guess) {
		p := plan.New("like", "EUR")
		p.Guesses, p.Like = plan.GuessTable, like
		p.Bike = &plan.Bike{ID: "own", Name: "Own", Class: other.Class, Displacement: other.Displacement}
		require.NoError(t, p.Bike.SeatHeight.Enter("920", "mm"))
		filled, list := guess.Fill(p)
		named := map[string]guess.Guess{}
		for _, g := range list {
			named[g.At] = g
		}
		return filled.Bike, named
	}
	_, table := by(nil)
	b, like := by(other)
	assert.Equal(t, 920.0, b.SeatHeight.In("mm"))
	assert.Equal(t, other.Wheelbase.In("mm"), b.Wheelbase.In("mm"))
	assert.Equal(t, other.Gearbox.Ratios(), b.Gearbox.Ratios())
	assert.False(t, b.Permitted.Known())
	assert.Zero(t, parts.TyreCode.In(b.StandardIn(parts.FrontTyre)).LoadIndex)
	for at, g := range like {
		if g.Like == "" || math.IsNaN(g.Value) || g.Value == 0 {
			continue
		}
		assert.Equal(t, other.Name, g.Like)
		assert.InDelta(t, said(other, at), g.Value, 1e-9, at)
		if _, ok := table[at]; ok && !strings.HasPrefix(at, "came/") {
			assert.LessOrEqual(t, g.Half(), table[at].Half()/2+1e-9, at)
		}
	}
}
