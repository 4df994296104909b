package power_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/power"
)

// TestMeter at its edges (13.5–14.5 V while it charges, common practice), and by what was read.
func TestMeter(t *testing.T) {
	none := math.NaN()
	for _, c := range []struct {
		idle, riding, all float64
		want              power.Meter
	}{
		{13.9, 14.2, 13.5, power.Holds}, {13.9, 14.2, 13.49, power.JustHolds}, {13.9, 14.2, 13, power.JustHolds}, {13.9, 14.2, 12.99, power.Drains}, {none, none, 12.9, power.Drains},
		{13.9, 13.49, 13.4, power.NotCharging}, {13.9, 14.81, 14, power.Boils}, {15, none, none, power.Boils}, {none, none, 14.9, power.Boils}, {14.8, 14.8, 14.8, power.Holds},
		{12.79, 14, 13.6, power.DrainsIdle}, {12.8, 14, 13.6, power.Holds}, {13.8, none, none, power.IdleAlone}, {none, 14, none, power.ChargesBare},
	} {
		assert.Equal(t, c.want, power.MeterOf(c.idle, c.riding, c.all, power.Lead), "%+v", c)
	}
	assert.Equal(t, power.NotCharging, power.MeterOf(none, 13.6, none, power.Lithium), "thin for lead, not charging for lithium")
}
