package facts_test

import (
	"math"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/facts"
)

// put is what is put in; every other field of All is a group.
var put = map[string]bool{"Plan": true, "Loadout": true, "Built": true, "Builds": true, "Standard": true, "Shelf": true, "AsOf": true, "Figured": true, "Guessed": true}

// TestGroups: each field is a group, once, and is named by its set.
func TestGroups(t *testing.T) {
	var a facts.All
	fields := reflect.TypeOf(a)
	named := strings.Split(facts.Every.String(), "+")
	want := strings.Split(facts.Inputs.String(), "+")
	for i := range fields.NumField() {
		if name := fields.Field(i).Name; !put[name] {
			want = append(want, name)
		}
	}
	assert.Equal(t, want, named)
	assert.True(t, facts.Every.Has(facts.WheelsGroup|facts.RisksGroup))
	assert.False(t, facts.WheelsGroup.Has(facts.WheelsGroup|facts.RisksGroup))
	assert.Equal(t, "Wheels", facts.WheelsGroup.String())
}

// TestUnknown: nobody knows anything before a step has run, and again after it is
// forgotten.
func TestUnknown(t *testing.T) {
	a := facts.Unknown()
	count := floats(t, reflect.ValueOf(&a).Elem())
	assert.Greater(t, count, 60)
	a.Loaded.Kg, a.Climb.Ground.Name, a.Range.Legs = 300, "Sand", []facts.Leg{{}}
	a.Forget(facts.LoadedGroup | facts.ClimbGroup)
	assert.True(t, math.IsNaN(a.Loaded.Kg))
	assert.Empty(t, a.Climb.Ground.Name)
	assert.Len(t, a.Range.Legs, 1, "what was not named stays")
}

// floats counts the floats of a value, each of which must be NaN.
func floats(t *testing.T, v reflect.Value) (n int) {
	switch v.Kind() {
	case reflect.Float64:
		require.True(t, math.IsNaN(v.Float()))
		return 1
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				n += floats(t, v.Field(i))
			}
		}
	case reflect.Array:
		for i := range v.Len() {
			n += floats(t, v.Index(i))
		}
	}
	return n
}
