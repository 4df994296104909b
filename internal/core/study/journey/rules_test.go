package journey_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/journey"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// ridden is a plan of so many kilometres on which days were written down; a day is distance and one reading.
func ridden(t *testing.T, b *studytest.Garage, distance string, days ...[3]string) func() *plan.Plan {
	return b.Changing("holt-650", func(p *plan.Plan) {
		require.NoError(t, p.Brief.Distance.Enter(distance, "km"))
		for i, d := range days {
			p.Readings = append(p.Readings, written(t, p, i, d))
		}
	})
}

func written(t *testing.T, p *plan.Plan, i int, d [3]string) logbook.Reading {
	day := &logbook.Day{Trip: p.Trip, By: logbook.ByGPS}
	require.NoError(t, day.Distance.Enter(d[0], "km"))
	for _, f := range day.Fields() {
		if f.Key == d[1] {
			require.NoError(t, f.Entry.Enter(d[2], f.Unit))
		}
	}
	return logbook.Reading{ID: "DAY" + strings.Repeat("A", 22) + string(rune('A'+i)), Kind: logbook.DayRidden, On: fmt.Sprintf("2026-09-%02d", i+1), Bike: p.Bike.ID, Read: day}
}

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	worn, fine := ridden(t, b, "4000", [3]string{"200", "tread_rear", "7"}, [3]string{"1000", "tread_rear", "4"}), ridden(t, b, "4000", [3]string{"200", "tread_rear", "9"}, [3]string{"1000", "tread_rear", "8.6"})
	chain, good := ridden(t, b, "4000", [3]string{"200", "chain", "0"}, [3]string{"1000", "chain", "12"}), ridden(t, b, "4000", [3]string{"200", "chain", "0"}, [3]string{"1000", "chain", "1"})
	thirsty, dry := ridden(t, b, "4000", [3]string{"200", "oil", "0"}, [3]string{"1000", "oil", "0.6"}), ridden(t, b, "4000", [3]string{"200", "oil", "0"}, [3]string{"1000", "oil", "0"})
	studytest.Rows(t, b, journey.Study, map[string]studytest.Row{
		"tyre-ends-on-the-way":  studytest.Speaks(verdict.Over, worn, fine, ""),
		"chain-ends-on-the-way": studytest.Speaks(verdict.Over, chain, good, ""),
		"oil-on-the-way":        studytest.Speaks(verdict.Watch, thirsty, dry, ""),
	})
}
