package eval_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/track"
	"valiantmule/internal/demo"
	"valiantmule/internal/studytest"
)

// The targets of the product, in units of BenchmarkUnit and least of five runs: a full
// evaluation 0.30 and 450 allocations, a preview of 40 options 6. Speed is not asserted;
// `make bench` shows it.

func BenchmarkEvaluate(b *testing.B) {
	p, err := demo.Plan()
	require.NoError(b, err)
	shelf, err := demo.Parts()
	require.NoError(b, err)
	b.ReportAllocs()
	for b.Loop() {
		eval.Evaluate(p, shelf, studytest.Today)
	}
}

// BenchmarkLongLog is the same with a log of years: 400 days and 3000 fills of other trips; twice the demo's cost is the bound
// of its pages.
func BenchmarkLongLog(b *testing.B) {
	p, err := demo.Plan()
	require.NoError(b, err)
	shelf, err := demo.Parts()
	require.NoError(b, err)
	p.Readings = studytest.LongLog(b, p, 400, 3000)
	b.ReportAllocs()
	for b.Loop() {
		eval.Evaluate(p, shelf, studytest.Today)
	}
}

func BenchmarkPreview40(b *testing.B) {
	p, err := demo.Plan()
	require.NoError(b, err)
	shelf, err := demo.Parts()
	require.NoError(b, err)
	var alternatives []eval.Alternative
	for _, part := range shelf[:40] {
		alternatives = append(alternatives, eval.Alternative{Label: part.Name, Plan: p.With(plan.Choice{Slot: part.Slot, Part: part})})
	}
	b.ReportAllocs()
	for b.Loop() {
		bench, err := eval.NewBench(p, shelf, "travel", studytest.Today)
		require.NoError(b, err)
		_, err = bench.Preview(alternatives...)
		require.NoError(b, err)
	}
}

// BenchmarkLegsOfALongTrack takes a track of more than a hundred thousand points
// from its points to legs held against the fuel on board.
func BenchmarkLegsOfALongTrack(b *testing.B) {
	p, _ := studytest.Demo(b)
	parts, _ := demo.Island(7)
	points := track.Join(parts).Points
	if len(points) < 100_000 {
		b.Fatal("only", len(points), "points")
	}
	for b.Loop() {
		route := *p.Route
		route.Nodes = track.Measure(points).Reduce(plan.UsualNodes)
		changed := *p
		changed.Route = &route
		if _, err := eval.EvaluateLoadout(&changed, nil, "travel", studytest.Today); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkUnit is the fixed piece of work that the others are held against, so that
// a slow hour of the machine cancels: 20 000 powers.
func BenchmarkUnit(b *testing.B) {
	sum := 0.0
	for b.Loop() {
		for i := range 20_000 {
			sum += math.Pow(1+float64(i)/20_000, 1.7)
		}
	}
	b.ReportMetric(sum/float64(b.N), "sum/op")
}
