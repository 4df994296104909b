package unit_test

import (
	"fmt"
	"math"
	"os/exec"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/unit"
	"valiantmule/internal/referee"
)

func ExampleQuantity_Enter() {
	var m unit.Mass
	for _, typed := range []string{"96", "211,5 lb", "heavy"} {
		if err := m.Enter(typed, "kg"); err != nil {
			fmt.Println(err)
		}
		fmt.Printf("%s = %.1f kg\n", m, m.In("kg"))
	}
	// Output:
	// 96 kg = 96.0 kg
	// 211,5 lb = 95.9 kg
	// "heavy": number missing, want a number in kg, or one with its unit
	// 211,5 lb = 95.9 kg
}

func TestParseRefuses(t *testing.T) {
	for name, text := range map[string]string{
		"nothing": "", "no unit": "96", "another dimension": "96 mm", "two marks": "1,000.5 kg", "exponent": "1e3 kg",
		"not a number": "NaN kg", "infinity": "inf kg", "a unit that is none": "96 stones-ish", "sign alone": "- kg", "two signs": "--3 kg",
	} {
		var m unit.Mass
		assert.Error(t, m.UnmarshalText([]byte(text)), name)
	}
}

func TestMissingIsNotZero(t *testing.T) {
	var q unit.Length
	assert.False(t, q.Known())
	assert.True(t, math.IsNaN(q.In("mm")), "a missing length spoils a sum")
	require.NoError(t, q.Enter("0", "mm"))
	assert.True(t, q.Known())
	require.NoError(t, q.Enter("  ", "mm"))
	assert.False(t, q.Known(), "an emptied field is missing again")
}

func TestTextSurvives(t *testing.T) {
	for _, text := range []string{"26 psi", "1,8 bar", "180 kPa", "0.0300 bar"} {
		var q unit.Pressure
		require.NoError(t, q.UnmarshalText([]byte(text)))
		back, err := q.MarshalText()
		require.NoError(t, err)
		assert.Equal(t, text, string(back))
	}
}

type quantity interface {
	Enter(text, fallback string) error
	In(unit string) float64
}

// TestAgainstGNUUnits holds every conversion against GNU units, Debian's package
// units, whose definitions come from NIST SP 811 and the standards it cites.
func TestAgainstGNUUnits(t *testing.T) {
	program := referee.Program(t, "units", "units")
	for _, c := range []struct {
		quantity    quantity
		typed, in   string
		from, to    string
		description string
	}{
		{new(unit.Length), "1 in", "mm", "1 inch", "mm", "inch"},
		{new(unit.Length), "1 ft", "m", "1 foot", "m", "foot"},
		{new(unit.Length), "1 mi", "km", "1 mile", "km", "mile"},
		{new(unit.Mass), "1 lb", "kg", "1 lb", "kg", "pound"},
		{new(unit.Mass), "1 st", "kg", "1 stone", "kg", "stone"},
		{new(unit.Speed), "1 mph", "km/h", "1 mile/hour", "km/hour", "mile an hour"},
		{new(unit.Volume), "1 US gal", "L", "1 gallon", "liter", "US gallon"},
		{new(unit.Volume), "1 UK gal", "L", "1 brgallon", "liter", "UK gallon"},
		{new(unit.Volume), "644 cc", "L", "644 cm^3", "liter", "cubic centimetre"},
		{new(unit.Pressure), "1 psi", "kPa", "1 psi", "kPa", "psi"},
		{new(unit.Pressure), "1 bar", "psi", "1 bar", "psi", "bar"},
		{new(unit.Power), "1 PS", "W", "1 metrichorsepower", "W", "metric horsepower"},
		{new(unit.Power), "1 hp", "W", "1 horsepower", "W", "horsepower"},
		{new(unit.Torque), "1 lbf ft", "Nm", "1 lbf ft", "N m", "pound-foot"},
		{new(unit.Area), "1 ft²", "m²", "1 ft^2", "m^2", "square foot"},
		{new(unit.Stiffness), "1 lbf/in", "N/mm", "1 lbf/inch", "N/mm", "spring rate"},
		{new(unit.Stiffness), "1 kgf/mm", "N/mm", "1 kgf/mm", "N/mm", "spring rate by kilograms"},
		{new(unit.Consumption), "50 mpg US", "L/100 km", "1/(50 mile/gallon)", "liter/(100 km)", "miles per US gallon"},
		{new(unit.Consumption), "50 mpg UK", "L/100 km", "1/(50 mile/brgallon)", "liter/(100 km)", "miles per imperial gallon"},
		{new(unit.Consumption), "4.7 L/100 km", "km/L", "1/(4.7 liter/(100 km))", "km/liter", "kilometres per litre"},
	} {
		out, err := exec.Command(program, "--terse", "--output-format", "%.15g", c.from, c.to).Output()
		require.NoError(t, err, c.description)
		theirs, err := strconv.ParseFloat(strings.TrimSpace(string(out)), 64)
		require.NoError(t, err, c.description)
		require.NoError(t, c.quantity.Enter(c.typed, ""), c.description)
		assert.InEpsilon(t, theirs, c.quantity.In(c.in), 1e-9, c.description)
	}
}

func FuzzEnter(f *testing.F) {
	for _, seed := range []string{"26 psi", "1,8 bar", "", "NaN", "1e9 kg", "−3 kg", "0x1p-2 kg", "1..2 mm", strings.Repeat("9", 400) + " kg"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		var q unit.Pressure
		if q.Enter(text, "kPa") != nil || !q.Known() {
			return
		}
		require.False(t, math.IsNaN(q.Base()) || math.IsInf(q.Base(), 0), "%q became %g", text, q.Base())
		var again unit.Pressure
		require.NoError(t, again.UnmarshalText([]byte(q.String())), "what was kept of %q reads again", text)
		require.Equal(t, q, again)
	})
}

// TestFeetAndInches: by hand, 6 ft 1 in is 73 in of 25.4 mm, 1.8542 m [pub: NIST SP 811].
func TestFeetAndInches(t *testing.T) {
	for _, text := range []string{`6'1"`, `6' 1"`, "6 ft 1 in", "6ft 1in", "6′1″", "6 ft 1"} {
		var q unit.Length
		require.NoError(t, q.Enter(text, "mm"), text)
		assert.InDelta(t, 1.8542, q.In("m"), 1e-12, text)
		assert.Equal(t, text, q.String(), "as typed")
		var again unit.Length
		require.NoError(t, again.UnmarshalText([]byte(q.String())))
		assert.Equal(t, q, again)
	}
	var q unit.Length
	require.NoError(t, q.Enter("6'", "mm"))
	assert.InDelta(t, 1.8288, q.In("m"), 1e-12)
	require.NoError(t, q.Enter("6 ft", "mm"))
	assert.Equal(t, "6 ft", q.String())
	require.NoError(t, q.Enter("1.85 m", "mm"))
	assert.InDelta(t, 1850, q.In("mm"), 1e-9)
	assert.Error(t, q.Enter(`6'13"`, "mm"))
	var kg unit.Mass
	assert.Error(t, kg.Enter(`6'1"`, "kg"))
}
