package desk

import (
	"math"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// TestReadingHead: a new form has an id and today; one that comes back keeps what was typed,
// with what is wrong beside it.
func TestReadingHead(t *testing.T) {
	fresh := ReadingHeadOf(nil, nil, "Which one.")
	assert.True(t, entry.ValidID(fresh.ID))
	assert.Equal(t, Today(), fresh.On.Value)
	assert.Equal(t, "Which one.", fresh.Note.Help)
	again := ReadingHeadOf(url.Values{"id": {"MINE"}, "on": {"yesterday"}, "note": {"cold"}}, FormErrors{"on": "no date", "form": "all of it"}, "")
	assert.Equal(t, []string{"MINE", "yesterday", "no date", "cold", "all of it"}, []string{again.ID, again.On.Value, again.On.Error, again.Note.Value, again.Error})
}

// TestNoteThen: what is known is entered with its digits, what is not stays missing.
func TestNoteThen(t *testing.T) {
	var known, missing unit.Power
	require.NoError(t, NoteThen(1, Then{&known, 192.04, "W"}, Then{&missing, math.NaN(), "W"}))
	assert.Equal(t, "192.0 W", known.String())
	assert.False(t, missing.Known())
	assert.Error(t, NoteThen(1, Then{&known, 1, "lm"}), "another dimension")
}

// TestPicked: a choice that a form has not, or leaves, is none; another is set and said.
func TestPicked(t *testing.T) {
	options := []entry.Option{{Value: "", Name: "Nothing"}, {Value: "a", Name: "An apple"}}
	value := parts.Feed("a")
	assert.Empty(t, Picked(&value, "Eats", options, url.Values{}, "eats"))
	assert.Empty(t, Picked(&value, "Eats", options, url.Values{"eats": {"a"}}, "eats"))
	assert.Equal(t, parts.Feed("a"), value)
	assert.Equal(t, []string{"Eats An apple → Nothing"}, Picked(&value, "Eats", options, url.Values{"eats": {""}}, "eats"))
	assert.Empty(t, value)
}

// TestSent: only what a form has is entered.
func TestSent(t *testing.T) {
	fields := []entry.Field{{Key: "one"}, {Key: "two"}}
	left := Sent(fields, url.Values{"two": {""}})
	require.Len(t, left, 1)
	assert.Equal(t, "two", left[0].Key)
}
