package format_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
)

// TestBikeFile: what leaves comes back to the digit, is what an independent validator of the
// published schema takes, and is refused by its place where it is wrong, here and there alike.
func TestBikeFile(t *testing.T) {
	c := jsonschema.NewCompiler()
	c.AssertFormat()
	s, err := c.Compile("../../docs/formats/valiant-mule-bike.schema.json")
	require.NoError(t, err)
	p, err := demo.Plan()
	require.NoError(t, err)
	looked, err := demo.Looked()
	require.NoError(t, err)
	for _, text := range []string{written(t, p.Machine.Alone("EUR")), written(t, looked.Machine.Alone(looked.Currency))} {
		require.NoError(t, s.Validate(document(t, text)))
		file, err := format.ReadBike(strings.NewReader(text))
		require.NoError(t, err)
		assert.Equal(t, text, written(t, file.Machine.Alone(file.Currency)))
		none, bike, err := format.ReadAny(strings.NewReader(text))
		require.NoError(t, err)
		assert.Nil(t, none)
		assert.Equal(t, file, *bike)
	}
	whole := written(t, p.Machine.Alone("EUR"))
	for name, change := range map[string][2]string{
		"version": {`"version": 1`, `"version": 2`}, "format": {format.BikeFormat, "a-bike"}, "currency": {`"currency": "EUR"`, `"currency": "money"`},
		"unknown field": {`"format"`, `"colour": "red", "format"`}, "no unit": {`"kerb_mass": "176 kg"`, `"kerb_mass": "176"`}, "another unit": {`"kerb_mass": "176 kg"`, `"kerb_mass": "176 mm"`},
		"whose": {`"format"`, `"held": "nobody", "format"`},
	} {
		bad := strings.Replace(whole, change[0], change[1], 1)
		require.NotEqual(t, whole, bad, name)
		_, err := format.ReadBike(strings.NewReader(bad))
		assert.Error(t, err, name)
		assert.Error(t, s.Validate(document(t, bad)), name)
	}
	_, err = format.ReadBike(strings.NewReader(`{"format":"valiant-mule-bike","version":1,"currency":"EUR"}`))
	assert.ErrorContains(t, err, "bike")
	_, err = format.ReadBike(strings.NewReader(strings.Repeat(" ", format.MaxPlanBytes+2)))
	assert.Error(t, err)
}

func written(t *testing.T, p *plan.Plan) string {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, format.WriteBike(&b, p))
	return b.String()
}

// FuzzReadBike: whatever is read is believed, and written and read it is the same.
func FuzzReadBike(f *testing.F) {
	looked, err := demo.Looked()
	require.NoError(f, err)
	var b bytes.Buffer
	require.NoError(f, format.WriteBike(&b, looked.Machine.Alone("EUR")))
	f.Add(b.String())
	f.Add(`{"format":"valiant-mule-bike","version":1,"currency":"EUR","bike":{"id":"x","name":"X","standard":[]},"odometers":[{"on":"2026-11-20","at":"12 km"}]}`)
	f.Fuzz(func(t *testing.T, text string) {
		file, err := format.ReadBike(strings.NewReader(text))
		if err != nil {
			return
		}
		require.Empty(t, file.Machine.Validate())
		again, err := format.ReadBike(strings.NewReader(written(t, file.Machine.Alone(file.Currency))))
		require.NoError(t, err)
		require.Equal(t, file, again)
	})
}
