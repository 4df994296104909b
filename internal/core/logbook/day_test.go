package logbook_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
)

// day is one that was ridden: km, litres, full, by what.
func day(t *testing.T, on, km, litres string, full bool, by logbook.DistanceBy) logbook.Reading {
	t.Helper()
	d := &logbook.Day{Trip: "T", By: by, Full: full}
	require.NoError(t, d.Distance.Enter(km, "km"))
	if litres != "" {
		require.NoError(t, d.Litres.Enter(litres, "L"))
	}
	return logbook.Reading{ID: strings.Repeat("A", 24) + on[len(on)-2:], Kind: logbook.DayRidden, On: on, Bike: "own", Read: d}
}

// TestRefuelled: from brim to brim counts the days between, those without fuel as well; where a fill was written down
// on the trip, fills alone count.
func TestRefuelled(t *testing.T) {
	days := []logbook.Reading{
		day(t, "2027-06-01", "150", "9", true, logbook.ByGPS),
		day(t, "2027-06-02", "100", "", false, logbook.ByGPS),
		day(t, "2027-06-03", "50", "4", false, logbook.ByGPS),
		day(t, "2027-06-04", "120", "8", true, logbook.ByGPS),
	}
	in := logbook.Intervals(logbook.Refuelled(nil, days))
	require.Len(t, in, 1)
	assert.InDelta(t, 270, in[0].Km, 1e-9)
	assert.InDelta(t, 12, in[0].Litres, 1e-9)

	f := &logbook.Fill{By: logbook.ByTrip}
	require.NoError(t, f.Litres.Enter("5", "L"))
	require.NoError(t, f.Trip.Enter("90", "km"))
	for on, left := range map[string]int{"2027-06-03": 1, "2027-05-30": 5, "2027-06-05": 5} {
		fill := logbook.Reading{ID: "F", Kind: logbook.FillReading, On: on, Bike: "own", Read: f}
		assert.Len(t, logbook.Refuelled([]logbook.Reading{fill}, days), left, on)
	}
}

// ExampleDay_Km: a wheel that is 4 % smaller than the one that its meter was made for turns more often, and the meter shows
// more than was ridden; a satellite does not care.
func ExampleDay_Km() {
	d := &logbook.Day{By: logbook.ByTrip}
	_ = d.Distance.Enter("208", "km")
	_ = d.Shows.Enter("1.04", "")
	fmt.Printf("%.0f\n", d.Km())
	d.By = logbook.ByGPS
	fmt.Printf("%.0f\n", d.Km())
	// Output:
	// 200
	// 208
}
