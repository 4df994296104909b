package ready_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ready"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/demo"
	"valiantmule/internal/studytest"
)

// many is the demo's plan with own jobs until there are so many in all.
func many(tb testing.TB, jobs int) *facts.All {
	p, err := demo.Plan()
	require.NoError(tb, err)
	f := facts.Unknown()
	f.Plan, f.AsOf, f.Standard = p, studytest.Today, p.BuildStandard()
	have := len(ready.Jobs(&f).Jobs)
	for i := have; i < jobs; i++ {
		var takes unit.Duration
		require.NoError(tb, takes.Enter("1.5 h", "h"))
		kind := ""
		if i%2 == 0 {
			kind = plan.JobWait
		}
		p.Ready.Jobs = append(p.Ready.Jobs, plan.OwnJob{ID: fmt.Sprintf("own-%d", i), Name: "One more", Kind: kind, Takes: takes})
		if i%3 == 0 && i > have {
			p.Ready.Firsts = append(p.Ready.Firsts, plan.Before{Job: fmt.Sprintf("own/own-%d", i-1), Then: fmt.Sprintf("own/own-%d", i)})
		}
	}
	return &f
}

// BenchmarkJobs is all that Evaluate does for the day: the jobs of a plan, their order, 64 scenarios. Beside it is the
// fixed piece of work that speed is told in.
func BenchmarkJobs(b *testing.B) {
	for _, n := range []int{0, 120} {
		f := many(b, n)
		b.Run(fmt.Sprintf("%d jobs", len(ready.Jobs(f).Jobs)), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				ready.Jobs(f)
			}
		})
	}
	b.Run("unit", func(b *testing.B) {
		sum := 0.0
		for b.Loop() {
			for i := range 20_000 {
				sum += math.Pow(1+float64(i)/20_000, 1.7)
			}
		}
		b.ReportMetric(sum/float64(b.N), "sum/op")
	})
}
