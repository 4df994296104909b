package format_test

import (
	"bytes"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
)

const head = `{"format":"valiant-mule-plan","version":2,"name":"P","currency":"EUR",`
const tail = `"loadouts":[{"id":"travel","name":"Travel"}]}`

func file(t *testing.T) string {
	t.Helper()
	p, err := demo.Plan()
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, format.WritePlan(&b, p))
	return b.String()
}

func TestRoundTrip(t *testing.T) {
	first := file(t)
	p, err := format.ReadPlan(strings.NewReader(first))
	require.NoError(t, err)
	var again bytes.Buffer
	require.NoError(t, format.WritePlan(&again, p))
	assert.Equal(t, first, again.String())

	stored, err := format.EncodePlan(p)
	require.NoError(t, err)
	loaded, aside, err := format.DecodePlan(stored)
	require.NoError(t, err)
	assert.Empty(t, aside)
	assert.Equal(t, p, loaded)
}

// TestSetAside: of a stored document what cannot be read is left out by its place, and the
// rest is read.
func TestSetAside(t *testing.T) {
	p, err := format.ReadPlan(strings.NewReader(file(t)))
	require.NoError(t, err)
	stored, err := format.EncodePlan(p)
	require.NoError(t, err)
	spoilt := strings.Replace(string(stored), `"name":"`+p.Loadouts[0].Name+`"`, `"name":17`, 1)
	spoilt = strings.Replace(spoilt, `"rider":"`+p.Brief.Rider.String()+`"`, `"rider":"many stone"`, 1)
	read, aside, err := format.DecodePlan([]byte(spoilt))
	require.NoError(t, err)
	require.Len(t, aside, 2)
	assert.Contains(t, strings.Join(aside, "\n"), "brief.rider")
	assert.Contains(t, strings.Join(aside, "\n"), "loadouts[0].name")
	assert.False(t, read.Brief.Rider.Known())
	assert.Equal(t, p.Brief.Distance, read.Brief.Distance)
	assert.Equal(t, p.Bike, read.Bike)
	assert.Len(t, read.Loadouts, len(p.Loadouts))
	_, _, err = format.DecodePlan([]byte(`{"brief":`))
	assert.Error(t, err, "what is no JSON is nothing")
	_, _, err = format.DecodePlan([]byte(`[]`))
	assert.Error(t, err)
}

// TestTypedTextStays: what a rider typed, in its unit, is in the file to the digit.
func TestTypedTextStays(t *testing.T) {
	p, err := format.ReadPlan(strings.NewReader(head + `"brief":{"distance":"2600,50 mi","rider":"229 lb","budget":"1650.00 EUR"},` + tail))
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, format.WritePlan(&b, p))
	for _, typed := range []string{`"2600,50 mi"`, `"229 lb"`, `"1650.00 EUR"`} {
		assert.Contains(t, b.String(), typed)
	}
	assert.NotContains(t, b.String(), "cruise", "what is missing stays missing")
}

// TestRefuses: one line that names the place.
func TestRefuses(t *testing.T) {
	for name, c := range map[string]struct{ text, place string }{
		"empty":           {``, "document"},
		"not JSON":        {`plan: yes`, "document"},
		"cut off":         {head, ""},
		"another format":  {`{"format":"recipe","version":1}`, "format"},
		"another version": {`{"format":"valiant-mule-plan","version":7}`, "version"},
		"unknown field":   {head + `"brief":{"colour":"red"},` + tail, "brief.colour"},
		"doubled field":   {head + `"name":"Q","brief":{},` + tail, "name"},
		"wrong type":      {head + `"brief":{"distance":4200},` + tail, "brief.distance"},
		"no unit":         {head + `"brief":{"distance":"4200"},` + tail, "brief.distance"},
		"NaN":             {head + `"brief":{"distance":"NaN km"},` + tail, "brief.distance"},
		"out of range":    {head + `"brief":{"distance":"1 km"},` + tail, "brief.distance"},
		"in a list":       {head + `"brief":{},"lines":[{"kind":"gear","name":"Bag","amount":"10 EUR","need":"needed"},{"kind":"gear","name":"Box","amount":"ten","need":"needed"}],` + tail, "lines[1].amount"},
		"a bad tyre":      {head + `"brief":{},"lines":[{"kind":"part","need":"needed","part":{"id":"x","slot":"rear-tyre","name":"X","has":{"code":"140/80"}}}],` + tail, "lines[0].part.has.code"},
		"no property":     {head + `"brief":{},"lines":[{"kind":"part","need":"needed","part":{"id":"x","slot":"seat","name":"X","has":{"colour":"red"}}}],` + tail, "lines[0].part.has.colour"},
		"of another kind": {head + `"brief":{},"lines":[{"kind":"part","need":"needed","part":{"id":"x","slot":"seat","name":"X","has":{"capacity":"12 Ah"}}}],` + tail, "lines[0].part.has.capacity"},
		"a part's number": {head + `"brief":{},"lines":[{"kind":"part","need":"needed","part":{"id":"x","slot":"battery","name":"X","has":{"capacity":"1400 Ah"}}}],` + tail, "lines[0].part.has.capacity"},
		"no loadout":      {head + `"brief":{},"loadouts":[]}`, "loadouts"},
		"nested":          {strings.Repeat("[", 100_000), ""},
		"more after it":   {head + `"brief":{},` + tail + `{}`, ""},
	} {
		_, err := format.ReadPlan(strings.NewReader(c.text))
		require.Error(t, err, name)
		assert.True(t, strings.HasPrefix(err.Error(), c.place) || strings.Contains(err.Error(), c.place), "%s: %q names %q", name, err, c.place)
		assert.NotContains(t, err.Error(), "\n", name)
		assert.Less(t, len(err.Error()), 400, name)
	}
	_, err := format.ReadPlan(strings.NewReader(head + strings.Repeat(" ", format.MaxPlanBytes) + tail))
	assert.ErrorContains(t, err, "4 MB")
}

func FuzzReadPlan(f *testing.F) {
	p, err := demo.Plan()
	require.NoError(f, err)
	whole, err := format.EncodePlan(p)
	require.NoError(f, err)
	f.Add(string(whole))
	f.Add(head + `"brief":{"distance":"4200 km"},` + tail)
	f.Add(`{"format":"valiant-mule-plan","version":1,"bike":{"gearbox":"9 8 7"}}`)
	f.Fuzz(func(t *testing.T, text string) {
		p, err := format.ReadPlan(strings.NewReader(text))
		if err != nil {
			return
		}
		require.Empty(t, p.Validate())
		var b bytes.Buffer
		require.NoError(t, format.WritePlan(&b, p))
		again, err := format.ReadPlan(&b)
		require.NoError(t, err)
		require.Equal(t, p, again)
	})
}

func ExampleReadPlan() {
	_, err := format.ReadPlan(strings.NewReader(head + `"brief":{"rider":"104 kilos"},` + tail))
	fmt.Println(err)
	var p *plan.Plan
	p, err = format.ReadPlan(strings.NewReader(head + `"brief":{"rider":"104 kg"},` + tail))
	fmt.Println(p.Brief.Rider, err)
	// Output:
	// brief.rider: "104 kilos": unknown unit "kilos", want one of kg, g, lb, oz, st
	// 104 kg <nil>
}
