package words_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/words"
)

func TestNumber(t *testing.T) {
	for _, c := range []struct {
		v      float64
		digits int
		want   string
	}{
		{4588.3, 0, "4588"}, {23400, 0, "23\u202f400"}, {1234567.8, 1, "1\u202f234\u202f567.8"}, {-4.81, 1, "−4.8"},
		{-0.04, 1, "0.0"}, {math.NaN(), 1, "?"}, {math.Inf(1), 0, "?"},
	} {
		assert.Equal(t, c.want, words.Number(c.v, c.digits))
	}
}

// of is a figure of the table with a value, NaN for none.
func of(id figure.ID, v float64) study.Figure {
	row, _ := figure.Of(id)
	f := study.Begin(row, "EUR")
	f.Known, f.Value = !math.IsNaN(v), v
	return f
}

func TestValue(t *testing.T) {
	for _, c := range []struct {
		f    study.Figure
		want string
	}{
		{of("cost", 171450), "€1,715"},
		{of("cost", 4250), "€42.50"},
		{of("tyre-life", 4391), "4400\u00a0km"},
		{of("crawl-speed", 12.93), "12.9\u00a0km/h"},
		{of("rake-change", 0.63), "0.6°"},
		{of("cost", math.NaN()), "?"},
	} {
		assert.Equal(t, c.want, words.Units(nil).Value(c.f), c.f.ID)
	}
}

func TestDelta(t *testing.T) {
	rpm := of("cruise-rpm", math.NaN())
	assert.Equal(t, "+427\u00a0rpm", words.Units(nil).Delta(rpm, 426.8))
	assert.Equal(t, "−427\u00a0rpm", words.Units(nil).Delta(rpm, -426.8))
	assert.Empty(t, words.Units(nil).Delta(rpm, 0.2), "too small to be shown")
}

func TestPlain(t *testing.T) {
	assert.Equal(t, "2.095", words.Units(nil).Plain(2.095, ""))
	assert.Equal(t, "2041\u00a0mm", words.Units(nil).Plain(2041, "mm"))
	assert.Equal(t, "€112.00", words.Units(nil).Plain(11200, "EUR"))
	assert.Equal(t, "?\u00a0mm", words.Units(nil).Plain(math.NaN(), "mm"))
}

func TestOwnUnits(t *testing.T) {
	us := words.Presets()[1].Units
	assert.Equal(t, "707.5\u00a0lb", us.Value(of("loaded-mass", 320.9)), "320.9 / 0.45359237")
	assert.Equal(t, "8.0\u00a0mph", us.Value(of("crawl-speed", 12.93)))
	assert.Equal(t, "4588\u00a0rpm", us.Value(of("cruise-rpm", 4588)), "a unit without a choice stays")
	assert.Equal(t, "+0.67\u00a0in", us.Delta(of("axle-shift", math.NaN()), 17))
	assert.Equal(t, "The tyres raise the seat by 0.4 in.", us.Text("The tyres raise the seat by {10 mm}."))

	mixed := words.Units{"kg": "st", "km": "mi"}
	assert.Equal(t, mixed, words.ParseUnits(mixed.String()))
	assert.Equal(t, words.Units{"kg": "lb"}, words.ParseUnits("kg=lb,kg=parsec,furlong=km,mm=mm"))
	assert.Empty(t, words.ParseUnits(""))
}

// TestByDistance: what a thousand kilometres cost, a thousand miles cost by 1.609 more (NIST
// SP 811: a mile is 1609.344 m).
func TestByDistance(t *testing.T) {
	f := of("tyre-cost", 2000)
	assert.Equal(t, "€20.00", words.Units(nil).Value(f))
	us := words.Units{"km": "mi"}
	assert.Equal(t, "€32.19", us.Value(f))
	assert.Equal(t, "Tyres per 1000 mi", us.Name(f.Row))
}

// TestAsTyped: round numbers of a rider's own unit come back round, however a sentence rounded
// the metric one; by hand, 6000 ft are 1828.8 m, 21 psi 144.8 kPa, 65 mph 104.6 km/h.
func TestAsTyped(t *testing.T) {
	us := words.Presets()[1].Units
	for said, want := range map[study.Text]string{
		"{1829 m}": "6000 ft", "{145 kPa}": "21 psi", "{105 km/h}": "65 mph", "{128 kg}": "282 lb", "{1030 mm}": "40.6 in", "{2 m}": "7 ft", "{225 km}": "140 mi", "turned by {1.7°}": "turned by 1.7°",
	} {
		assert.Equal(t, want, us.Text(said), said)
	}
	row, _ := figure.Of(figure.TyreLife)
	trip := study.Figure{Row: row, Unit: "km", Known: true, Limited: true, Value: 1000, Limit: 225.308}
	assert.Equal(t, "140\u00a0mi", us.Limit(trip))
}
