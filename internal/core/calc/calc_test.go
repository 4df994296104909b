package calc_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/calc"
)

func run(t *testing.T, line string) (map[string]any, error) {
	t.Helper()
	words := strings.Split(line, "|")
	c, err := calc.Find(words[0])
	require.NoError(t, err)
	results, err := c.Run(words[1:])
	values := map[string]any{}
	for _, r := range results {
		values[r.Key] = r.Value
	}
	return values, err
}

func TestTyre(t *testing.T) {
	got, err := run(t, "tyre|code=140/80-18 M/C 70R TT")
	require.NoError(t, err)
	assert.InDelta(t, 681.2*2.99, got["rolling_circumference_mm"], 1e-9, "bias")
	delete(got, "rolling_circumference_mm")
	assert.Equal(t, map[string]any{
		"section_mm": 140.0, "aspect_percent": 80.0, "rim_in": 18.0, "overall_diameter_mm": 681.2,
		"construction": "diagonal", "load_index": 70, "max_load_kg": 335.0, "speed_symbol": "R", "max_speed_kmh": 170.0,
	}, got)
	got, err = run(t, "tyre|code=120/70 ZR 17")
	require.NoError(t, err)
	assert.Equal(t, "radial", got["construction"])
	assert.NotContains(t, got, "load_index", "what the code does not say is left out")
}

func TestGearing(t *testing.T) {
	got, err := run(t, "gearing|primary=2|gearbox=3,1|front=15|rear=45|circumference_mm=2000|rpm=3000|stock_front=15|stock_rear=43|stock_circumference_mm=2000")
	require.NoError(t, err)
	// 3000 rpm / (2 · 3 · 3) × 60 × 2 m = 20 km/h; thrice that in second.
	assert.InDeltaSlice(t, []float64{18, 6}, got["overall"], 1e-12)
	assert.InDeltaSlice(t, []float64{20, 60}, got["speed_kmh"], 1e-9)
	assert.InDelta(t, 100*(45.0/43-1), got["change_percent"], 1e-9, "more teeth behind is shorter, +")
}

func TestChain(t *testing.T) {
	got, err := run(t, "chain|front=13|rear=48|pitch_mm=15.875|centre_mm=590")
	require.NoError(t, err)
	assert.InDelta(t, 105.67, got["exact_links"], 0.005, "the handbook's example")
	assert.Equal(t, 106, got["links"])
	assert.InDelta(t, got["centre_mm"].(float64)-590, got["axle_shift_mm"], 1e-12)
	assert.Positive(t, got["axle_shift_mm"], "more links than asked for push the axle back, +")
}

func TestRefuses(t *testing.T) {
	gearing := "gearing|primary=2|gearbox=3,1|front=15|rear=45|circumference_mm=2000"
	for name, line := range map[string]string{
		"missing":         gearing,
		"unknown":         gearing + "|rpm=3000|colour=red",
		"twice":           gearing + "|rpm=3000|rpm=3000",
		"not key=value":   gearing + "|rpm",
		"not a number":    gearing + "|rpm=fast",
		"NaN":             gearing + "|rpm=NaN",
		"infinite":        gearing + "|rpm=Inf",
		"hexadecimal":     gearing + "|rpm=0x10",
		"overflow":        gearing + "|rpm=1e999",
		"absurd":          gearing + "|rpm=9e9",
		"half a tooth":    strings.Replace(gearing, "front=15", "front=15.5", 1) + "|rpm=3000",
		"empty gear":      strings.Replace(gearing, "3,1", "3,,1", 1) + "|rpm=3000",
		"some of stock":   gearing + "|rpm=3000|stock_front=15",
		"sprockets touch": "chain|front=13|rear=48|pitch_mm=15.875|centre_mm=120",
		"no tyre":         "tyre|code=round",
	} {
		got, err := run(t, line)
		require.Error(t, err, name)
		assert.Empty(t, got, name)
		assert.NotContains(t, err.Error(), "\n", "%s: one line", name)
	}
	_, err := calc.Find("horoscope")
	assert.ErrorContains(t, err, "gearing", "it lists what there is")
}
