package calendar_test

import (
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/referee"
)

// program is the search for an order as a mixed-integer program in the LP format: which job directly
// follows which, when each begins, the day first and then the hours.
func program(jobs []calendar.Job, links []calendar.Link) string {
	var b strings.Builder
	var serial []int
	big := 1.0
	for i := range jobs {
		big += jobs[i].Takes.Likely + max(0, jobs[i].From)
		if jobs[i].Serial() {
			serial = append(serial, i)
		}
	}
	saved := func(j, i int) float64 { // i directly behind j
		sum := 0.0
		for _, o := range jobs[i].Opens {
			for _, p := range jobs[j].Opens {
				if o.Place == p.Place {
					sum += o.Takes
				}
			}
		}
		return sum
	}
	row := func(format string, args ...any) { fmt.Fprintf(&b, format+"\n", args...) }
	row("Minimize\n obj: 1000 ready + hours\nSubject To")
	total := 0.0
	hours := "hours"
	for _, i := range serial {
		total += jobs[i].Takes.Likely
		// end = start + takes - what is found open
		text := fmt.Sprintf("e%d - s%d", i, i)
		for _, j := range serial {
			if s := saved(j, i); j != i && s > 0 {
				text += fmt.Sprintf(" + %g x%d_%d", s, j, i)
				hours += fmt.Sprintf(" + %g x%d_%d", s, j, i)
			}
		}
		row(" %s = %g", text, jobs[i].Takes.Likely)
		before, behind := fmt.Sprintf("first_%d", i), []string{}
		for _, j := range serial {
			if j == i {
				continue
			}
			before += fmt.Sprintf(" + x%d_%d", j, i)
			behind = append(behind, fmt.Sprintf("x%d_%d", i, j))
			row(" s%d - e%d - %g x%d_%d >= %g", i, j, big, j, i, -big)
		}
		row(" %s = 1", before)
		if len(behind) > 0 {
			row(" %s <= 1", strings.Join(behind, " + "))
		}
	}
	row(" %s = %g", hours, total)
	first := make([]string, len(serial))
	for k, i := range serial {
		first[k] = fmt.Sprintf("first_%d", i)
	}
	row(" %s = 1", strings.Join(first, " + "))
	for i := range jobs {
		if !jobs[i].Serial() {
			row(" e%d - s%d = %g", i, i, jobs[i].Takes.Likely)
		}
		row(" s%d >= %g", i, max(0, jobs[i].From))
		row(" ready - e%d >= 0", i)
	}
	for _, l := range links {
		row(" s%d - e%d >= 0", l.Then, l.First)
	}
	row("Binary")
	for _, i := range serial {
		row(" first_%d", i)
		for _, j := range serial {
			if j != i {
				row(" x%d_%d", i, j)
			}
		}
	}
	row("End")
	return b.String()
}

// TestBetterAgainstGlpsol: 200 small random lists of jobs have an order of the same day and the same hours by
// GNU's glpsol.
func TestBetterAgainstGlpsol(t *testing.T) {
	solver := referee.Program(t, "glpsol", "glpk-utils")
	dir := t.TempDir()
	value := regexp.MustCompile(`(?m)^\s*\d+ (ready|hours)\s+\*?\s+([0-9.e+]+)`)
	compared := 0
	for seed := uint64(0); compared < 200; seed++ {
		random := rand.New(rand.NewPCG(seed, 200))
		jobs := make([]calendar.Job, 3+random.IntN(6))
		works, links := 0, []calendar.Link(nil)
		for i := range jobs {
			job := calendar.Job{Name: calendar.Named(fmt.Sprint(i)), Takes: calendar.Just(float64(2 + random.IntN(8)))}
			if works < 5 && random.IntN(4) > 0 {
				job.Kind = calendar.Work
				works++
				if random.IntN(3) > 0 {
					job.Opens = []calendar.Open{{Place: random.IntN(2), Takes: 1}}
				}
			}
			for k := range i {
				if random.IntN(i+1) == 0 {
					links = append(links, calendar.Link{First: k, Then: i})
				}
			}
			if random.IntN(4) == 0 {
				job.From = float64(random.IntN(12))
			}
			jobs[i] = job
		}
		if works < 2 {
			continue
		}
		compared++
		n, err := calendar.NewNet(jobs, links, always())
		require.NoError(t, err)
		found := n.Better(n.Arranged(nil))
		require.True(t, found.Exact)

		lp, out := filepath.Join(dir, "order.lp"), filepath.Join(dir, "order.txt")
		require.NoError(t, os.WriteFile(lp, []byte(program(jobs, links)), 0o600))
		said, err := exec.Command(solver, "--lp", lp, "--tmlim", "60", "-o", out).CombinedOutput()
		require.NoError(t, err, "%s", said)
		text, err := os.ReadFile(out)
		require.NoError(t, err)
		is := map[string]float64{}
		for _, m := range value.FindAllStringSubmatch(string(text), -1) {
			is[m[1]], err = strconv.ParseFloat(m[2], 64)
			require.NoError(t, err)
		}
		assert.InDelta(t, is["ready"], found.Table.Ready, 1e-4, "seed %d", seed)
		assert.InDelta(t, is["hours"], found.Table.Hours, 1e-4, "seed %d", seed)
	}
}
