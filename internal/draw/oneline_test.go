package draw_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/power"
	"valiantmule/internal/draw"
)

// TestOneLine: rows of the box stand first, under one another, those with fuses of their own
// below it, all on the bus of one battery.
func TestOneLine(t *testing.T) {
	d := draw.OneLineOf("8 Ah", "A box", "20 A", "", []draw.OneCircuit{{Name: "horn"}, {Name: "grips", Channel: "1"}, {Channel: "2", Spare: true}, {Name: "a lamp whose name is far too long for the room that there is beside it"}})
	require.Len(t, d.Rows, 4)
	assert.Equal(t, []string{"grips", "", "horn"}, []string{d.Rows[0].Name, d.Rows[1].Name, d.Rows[2].Name})
	require.True(t, d.Box.Shown)
	for i, r := range d.Rows {
		inBox := r.Y > d.Box.Y && r.Y < d.Box.Y+d.Box.H
		assert.Equal(t, r.Channel != "", inBox, "row %d", i)
		if i > 0 {
			assert.Greater(t, r.Y, d.Rows[i-1].Y)
		}
	}
	assert.LessOrEqual(t, d.Top, d.Box.FeedY)
	assert.Equal(t, d.Rows[3].Y, d.Bottom)
	assert.Greater(t, d.Height, d.Bottom)
	assert.LessOrEqual(t, len([]rune(d.Rows[3].Name)), 40)
	bare := draw.OneLineOf("8 Ah", "", "", "", []draw.OneCircuit{{Name: "horn"}})
	assert.False(t, bare.Box.Shown)
	assert.Equal(t, bare.Top, bare.Bottom)
	assert.False(t, draw.OneLineOf("8 Ah", "", "", "", nil).Shown)
}

// TestPulses: ninety a minute are six in four seconds, as long on as off; what nobody knows is
// not drawn.
func TestPulses(t *testing.T) {
	d := draw.PulsesOf(90, power.FlashLeast, power.FlashMost)
	require.Len(t, d.Rows, 3)
	assert.Len(t, d.Rows[1].On, 6)
	assert.Len(t, d.Rows[0].On, 4)
	assert.Len(t, d.Rows[2].On, 8)
	on := d.Rows[1].On
	assert.InDelta(t, float64(2*on[0].W), float64(on[1].X-on[0].X), 0.01)
	assert.False(t, draw.PulsesOf(math.NaN(), 60, 120).Shown)
}

// TestVoltsRule: readings stand in the band that they mean, one off the rule at its end, and
// what was not read nowhere.
func TestVoltsRule(t *testing.T) {
	d := draw.VoltsRule([]draw.VoltRead{{Name: "idle", Volts: 12.2}, {Name: "riding", Volts: math.NaN()}, {Name: "all on", Volts: 17}}, power.Lead.RestingV, power.Lead.ChargingV, power.BoilsV)
	require.Len(t, d.Marks, 2)
	in := func(m draw.VoltMark) (kinds []string) {
		for _, b := range d.Bands {
			if m.X >= b.X && m.X <= b.X+b.W {
				kinds = append(kinds, b.Kind)
			}
		}
		return kinds
	}
	assert.Equal(t, []string{"dead"}, in(d.Marks[0]))
	assert.Equal(t, []string{"high"}, in(d.Marks[1]))
	assert.True(t, d.Marks[0].Worst && d.Marks[1].Worst)
	assert.Less(t, d.Marks[0].TextY, d.Marks[1].TextY, "names do not lie on one another")
	assert.False(t, draw.VoltsRule(nil, 12.8, 13.5, 14.8).Shown)
}
