package eval_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/track"
	"valiantmule/internal/demo"
)

// The targets of the product: a full evaluation under 300 µs, a preview of 40
// options under 30 ms. Speed is not asserted; `make bench` shows it.

func BenchmarkEvaluate(b *testing.B) {
	p, err := demo.Plan()
	require.NoError(b, err)
	shelf, err := demo.Parts()
	require.NoError(b, err)
	b.ReportAllocs()
	for b.Loop() {
		eval.Evaluate(p, shelf)
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
		_, err := eval.Preview(p, shelf, "travel", alternatives)
		require.NoError(b, err)
	}
}

// BenchmarkLegsOfALongTrack takes a track of more than a hundred thousand points
// from its points to legs held against the fuel on board.
func BenchmarkLegsOfALongTrack(b *testing.B) {
	p, _ := demoPlan(b)
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
		if _, err := eval.EvaluateLoadout(&changed, nil, "travel"); err != nil {
			b.Fatal(err)
		}
	}
}
