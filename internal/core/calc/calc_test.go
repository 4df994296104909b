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

// TestOthers: each number is worked out in the package that it comes from; here
// the contract's keys are held against a case by hand.
func TestOthers(t *testing.T) {
	for line, want := range map[string]map[string]float64{
		"range|usable_l=13|l_per_100km=5|reserve_percent=10":                            {"range_km": 260, "safe_km": 234, "mpg_us": 47.043, "mpg_uk": 56.496, "km_per_l": 20},
		"axles|wheelbase_mm=1500|kerb_front_kg=80|kerb_rear_kg=90|items=90@600,20@-150": {"front_kg": 114, "rear_kg": 166, "total_kg": 280, "front_percent": 40.714},
		"axles|wheelbase_mm=1500|kerb_front_kg=80|kerb_rear_kg=90|items=-3@0":           {"front_kg": 80, "rear_kg": 87, "total_kg": 167, "front_percent": 47.904},
		"sag|mass_kg=150|spring_n_mm=100|motion_ratio=0.5|preload_mm=10|travel_mm=200":  {"sag_mm": 38.84, "sag_percent": 19.42},
		"spring|mass_kg=150|motion_ratio=0.5|preload_mm=10|sag_mm=38.84":                {"spring_n_mm": 100},
		"wheelrate|mass1_kg=100|sag1_mm=30|mass2_kg=150|sag2_mm=50|motion_ratio=0.5":    {"wheel_rate_n_mm": 24.517, "spring_n_mm": 98.067},
		"geometry|rake_deg=27|offset_mm=35|front_diameter_mm=690|wheelbase_mm=1450|raise_front_mm=0|raise_rear_mm=30": {
			"stock_rake_deg": 27, "stock_trail_mm": 136.504, "rake_deg": 25.815, "trail_mm": 128.002},
		"wire|amps=8|length_m=3|volts=13.5|max_drop_percent=3":   {"area_mm2": 2.5, "drop_v": 0.331, "drop_percent": 2.452, "fuse_a": 10},
		"drain|battery_ah=12|draw_ma=20|usable_percent=50":       {"days": 12.5},
		"stop|speed_kmh=90|reaction_s=2|decel_ms2=5":             {"reaction_m": 50, "braking_m": 62.5, "total_m": 112.5},
		"beam|candela=30000|lux=3":                               {"range_m": 100},
		"outrun|candela=37968.75|lux=3|reaction_s=2|decel_ms2=5": {"speed_kmh": 90},
		"air|altitude_m=2000":                                    {"density_kg_m3": 1.0065, "power_percent": 82.163},
	} {
		got, err := run(t, line)
		require.NoError(t, err, line)
		assert.Len(t, got, len(want), line)
		for key, v := range want {
			assert.InEpsilon(t, v, got[key], 1e-4, "%s: %s", line, key)
		}
	}
}

// TestExamples: each calculator computes the example that it shows, with a
// working that gives every formula an origin.
func TestExamples(t *testing.T) {
	assert.Len(t, calc.All(), 15)
	for _, c := range calc.All() {
		var args []string
		for _, k := range c.Keys {
			require.NotEmpty(t, k.Label, "%s %s", c.Name, k.Name)
			args = append(args, k.Name+"="+k.Example)
		}
		results, err := c.Run(args)
		require.NoError(t, err, c.Name)
		explained, working, err := c.Explain(args)
		require.NoError(t, err, c.Name)
		assert.Equal(t, results, explained, "%s: looking changes nothing", c.Name)
		require.NotEmpty(t, working.Steps, c.Name)
		for _, step := range working.Steps {
			assert.NotEmpty(t, step.Formula.Text, c.Name)
			assert.NotEmpty(t, step.Formula.Origin, c.Name)
		}
		for _, r := range results {
			assert.NotEmpty(t, r.Label, "%s %s", c.Name, r.Key)
		}
	}
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
		"a fork of 2":     "sag|mass_kg=150|spring_n_mm=100|motion_ratio=2|preload_mm=10|travel_mm=200",
		"no spring":       "spring|mass_kg=150|motion_ratio=0.5|preload_mm=0|sag_mm=0",
		"the same sag":    "wheelrate|mass1_kg=100|sag1_mm=30|mass2_kg=150|sag2_mm=30|motion_ratio=0.5",
		"no wire":         "wire|amps=20|length_m=30|volts=12|max_drop_percent=1",
		"no fuse":         "wire|amps=60|length_m=1|volts=12|max_drop_percent=5",
		"too high":        "air|altitude_m=9001",
		"no place":        "axles|wheelbase_mm=1500|kerb_front_kg=80|kerb_rear_kg=90|items=20",
		"no items":        "axles|wheelbase_mm=1500|kerb_front_kg=80|kerb_rear_kg=90|items=",
		"NaN item":        "axles|wheelbase_mm=1500|kerb_front_kg=80|kerb_rear_kg=90|items=NaN@10",
		"nothing left":    "axles|wheelbase_mm=1500|kerb_front_kg=80|kerb_rear_kg=90|items=-400@10",
		"no braking":      "stop|speed_kmh=90|reaction_s=2|decel_ms2=0",
	} {
		got, err := run(t, line)
		require.Error(t, err, name)
		assert.Empty(t, got, name)
		assert.NotContains(t, err.Error(), "\n", "%s: one line", name)
	}
	_, err := calc.Find("horoscope")
	assert.ErrorContains(t, err, "gearing", "it lists what there is")
}
