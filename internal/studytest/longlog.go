package studytest

import (
	"fmt"
	"strconv"
	"strings"
	"testing"
	"time"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"

	"github.com/stretchr/testify/require"
)

// LongLog is the plan's readings with so many fills, and days of its trip, before them.
func LongLog(tb testing.TB, p *plan.Plan, days, fills int) []logbook.Reading {
	var list []logbook.Reading
	first := time.Date(2016, 1, 1, 0, 0, 0, 0, time.UTC)
	for i := range max(days, fills) {
		on := first.AddDate(0, 0, i).Format(time.DateOnly)
		if i < fills {
			f := &logbook.Fill{By: logbook.ByTrip, As: logbook.Ridden{Name: "as it came"}}
			require.NoError(tb, f.Litres.Enter("9.5", "L"))
			require.NoError(tb, f.Trip.Enter(strconv.Itoa(200+i%50), "km"))
			list = append(list, logbook.Reading{ID: numbered("FILL", i), Kind: logbook.FillReading, On: on, Bike: p.Bike.ID, Read: f})
		}
		if i < days {
			d := &logbook.Day{Trip: p.Trip, By: logbook.ByTrip}
			require.NoError(tb, d.Distance.Enter("210", "km"))
			require.NoError(tb, d.SlowFalls.Enter(strconv.Itoa(i%7/6), ""))
			require.NoError(tb, d.TreadRear.Enter(fmt.Sprintf("%.1f", 9-float64(i%20)*0.3), "mm"))
			list = append(list, logbook.Reading{ID: numbered("DAY", i), Kind: logbook.DayRidden, On: on, Bike: p.Bike.ID, Read: d})
		}
	}
	return append(list, p.Readings...)
}

// numbered is an id of a reading.
func numbered(kind string, i int) string {
	const letters = "ABCDEFGHIJ"
	id := []byte(kind + strings.Repeat("A", 26-len(kind)))
	for at := len(id) - 1; i > 0; at, i = at-1, i/10 {
		id[at] = letters[i%10]
	}
	return string(id)
}
