package desk

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestWithin: what a rider wrote begins with whatever letter it begins with.
func TestWithin(t *testing.T) {
	for text, want := range map[string]string{"Two screws": "two screws", "Überwurfmutter": "überwurfmutter", "… more": "… more", "M8": "m8"} {
		assert.Equal(t, want, within(text))
	}
}
