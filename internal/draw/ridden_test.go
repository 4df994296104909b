package draw_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/draw"
)

// TestRiddenDays: a week has a mark for each day, four hundred days have marks that can be told apart, and both end where the
// trip is.
func TestRiddenDays(t *testing.T) {
	list := func(n int) (days []draw.RiddenDay) {
		for i := range n {
			days = append(days, draw.RiddenDay{On: i, Distance: 200, Fuel: 9, Tread: 8 - float64(i)/100, TreadText: fmt.Sprintf("depth %d", i), Day: fmt.Sprint("day ", i)})
		}
		return days
	}
	week := draw.RiddenDays(list(7), 1400, 7)
	assert.Len(t, week.Dots, 7)
	assert.Len(t, week.Fuel, 7)
	assert.Len(t, week.Tread, 7)
	assert.Equal(t, week.Home.Y, week.Dots[6].Y, "ridden as far as it was to be")

	long := draw.RiddenDays(list(400), 80_000, 400)
	assert.LessOrEqual(t, len(long.Dots), 60)
	assert.Len(t, long.Fuel, len(long.Dots))
	assert.LessOrEqual(t, len(long.Tread), 14)
	require.NotEmpty(t, long.Tread)
	assert.Equal(t, "depth 399", long.Tread[len(long.Tread)-1].Text)
	assert.Equal(t, long.Home.Y, long.Dots[len(long.Dots)-1].Y)
	assert.Equal(t, len(long.Dots), strings.Count(long.Line, "L"))

	none := draw.RiddenDays([]draw.RiddenDay{{Distance: 10, Fuel: math.NaN(), Tread: math.NaN()}}, math.NaN(), math.NaN())
	assert.Empty(t, none.Fuel)
	assert.Empty(t, none.Tread)
	assert.False(t, none.Home.Shown)
}
