package fuel_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/fuel"
)

func TestRange(t *testing.T) {
	assert.InDelta(t, 300, fuel.RangeKm(13.5, 4.5), 1e-9)
	assert.InDelta(t, 255, fuel.BeforeReserveKm(300, 15), 1e-9)
}

// TestEconomy: NIST SP 811, B.8 gives 235.215 for the US gallon; with the
// imperial gallon of 4.54609 L it is 282.481.
func TestEconomy(t *testing.T) {
	assert.InDelta(t, 235.215, fuel.MpgUS(1), 5e-4)
	assert.InDelta(t, 282.481, fuel.MpgUK(1), 5e-4)
	assert.InDelta(t, 235.215/4.7, fuel.MpgUS(4.7), 1e-3)
}
