package limp_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/limp"
)

// TestRows: each bike has the rows of what it can break, each row says what to do with empty hands, and needs things that
// there are.
func TestRows(t *testing.T) {
	names := func(b limp.Bike) (ids []string) {
		for _, r := range limp.Rows(b) {
			ids = append(ids, r.ID)
		}
		return ids
	}
	old := names(limp.Bike{Chain: true, Tubes: true})
	assert.Subset(t, old, []string{"tube", "chain", "jet", "key", "stand", "shock"})
	assert.NotContains(t, old, "radiator")
	assert.NotContains(t, old, "fuel-pump")
	twin := names(limp.Bike{Liquid: true, Injected: true})
	assert.Subset(t, twin, []string{"plug", "radiator", "hose", "fuel-pump"})
	assert.NotContains(t, twin, "chain")
	for _, b := range []limp.Bike{{true, true, true, true}, {}} {
		for _, r := range limp.Rows(b) {
			assert.NotEmpty(t, r.Without, r.ID)
			assert.NotEmpty(t, r.Far, r.ID)
			assert.Equal(t, len(r.Needs) > 0, r.With != "", "%s: what is done with things wants things", r.ID)
			for _, id := range r.Needs {
				_, ok := limp.ItemOf(id)
				assert.True(t, ok, "%s needs %q", r.ID, id)
			}
		}
	}
}

// TestIn: things are known by the names under which they are packed.
func TestIn(t *testing.T) {
	along := func(id string, names ...string) bool {
		item, ok := limp.ItemOf(id)
		assert.True(t, ok, id)
		return item.In(names)
	}
	assert.True(t, along("tube", "Socks", "Spare TUBES, both"))
	assert.True(t, along("irons", "Tyre irons in a pouch"))
	assert.False(t, along("link", "Link cable for the phone"), "a word by itself is not the thing")
	assert.False(t, along("putty"))
}

// ExampleRow_Missing is a chain that breaks far away.
func ExampleRow_Missing() {
	for _, r := range limp.Rows(limp.Bike{Chain: true}) {
		if r.ID == "chain" {
			fmt.Println(r.Missing(func(item string) bool { return item == "breaker" }))
		}
	}
	// Output: [chain link]
}
