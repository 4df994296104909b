package calendar_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"sort"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/calendar"
)

// always is a clock by which a day has one hour of one's own: hours are days.
func always() *calendar.Clock {
	return calendar.NewClock(monday, [7]float64{1, 1, 1, 1, 1, 1, 1}, nil)
}

var monday, _ = calendar.ParseDay("2026-11-30")

// network is jobs by a letter each, that wait for others.
func network(t *testing.T, rows []activity) *calendar.Net {
	t.Helper()
	at := map[string]int{}
	jobs, links := make([]calendar.Job, len(rows)), []calendar.Link(nil)
	for i, r := range rows {
		at[r.id] = i
		jobs[i] = calendar.Job{Name: calendar.Named(r.id), Kind: r.kind, Takes: r.takes}
		for _, first := range r.after {
			links = append(links, calendar.Link{First: at[string(first)], Then: i})
		}
	}
	n, err := calendar.NewNet(jobs, links, always())
	require.NoError(t, err)
	return n
}

type activity struct {
	id    string
	after string
	takes calendar.Spread
	kind  calendar.Kind
}

func activities(rows ...[2]string) []activity {
	var list []activity
	for _, r := range rows {
		var s calendar.Spread
		if n, _ := fmt.Sscanf(r[1], "%f %f %f", &s.Low, &s.Likely, &s.High); n == 1 {
			s = calendar.Just(s.Low)
		}
		list = append(list, activity{id: r[0][:1], after: r[0][1:], takes: s})
	}
	return list
}

// reliable is the worked network of Hillier and Lieberman, Introduction to Operations Research,
// chapter on PERT/CPM (Reliable Construction Co.): three estimates a job, in weeks.
var reliable = activities(
	[2]string{"A", "1 2 3"}, [2]string{"BA", "2 3.5 8"}, [2]string{"CB", "6 9 18"}, [2]string{"DC", "4 5.5 10"}, [2]string{"EC", "1 4.5 5"},
	[2]string{"FE", "4 4 10"}, [2]string{"GD", "5 6.5 11"}, [2]string{"HEG", "5 8 17"}, [2]string{"IC", "3 7.5 9"}, [2]string{"JFI", "3 9 9"},
	[2]string{"KJ", "4 4 4"}, [2]string{"LJ", "1 5.5 7"}, [2]string{"MH", "1 2 3"}, [2]string{"NKL", "5 5.5 9"},
)

// TestPERT: mean and variance of each job and of the critical path as the book has them.
func TestPERT(t *testing.T) {
	mean := map[string]float64{"A": 2, "B": 4, "C": 10, "D": 6, "E": 4, "F": 5, "G": 7, "H": 9, "I": 7, "J": 8, "K": 4, "L": 5, "M": 2, "N": 6}
	means, variance := make([]activity, len(reliable)), 0.0
	for i, r := range reliable {
		assert.InDelta(t, mean[r.id], r.takes.Mean(), 1e-9, r.id)
		means[i] = r
		means[i].takes = calendar.Just(r.takes.Mean())
	}
	n := network(t, means)
	table := n.Table(nil)
	path := ""
	for _, j := range table.Holds() {
		path += reliable[j].id
		variance += math.Pow(reliable[j].takes.Deviation(), 2)
	}
	assert.Equal(t, "ABCEFJLN", path)
	assert.InDelta(t, 44, table.Ready, 1e-9)
	assert.InDelta(t, 9, variance, 1e-9)
}

// TestCriticalPath of two worked networks: when each job starts, how late it may, what holds the end up.
func TestCriticalPath(t *testing.T) {
	for _, book := range []struct {
		name, path string
		rows       []activity
		ready      float64
		spare      map[string]float64
	}{
		{
			"Hillier and Lieberman, Reliable Construction", "ABCEFJLN", func() []activity {
				list := activities()
				for _, r := range reliable {
					r.takes = calendar.Just(r.takes.Mean())
					list = append(list, r)
				}
				return list
			}(), 44,
			map[string]float64{"D": 4, "G": 4, "H": 4, "I": 2, "K": 1, "M": 4},
		},
		{
			"Winston, Operations Research, Widgetco", "BDEF",
			activities([2]string{"A", "6"}, [2]string{"B", "9"}, [2]string{"CAB", "8"}, [2]string{"DAB", "7"}, [2]string{"ED", "10"}, [2]string{"FCE", "12"}), 38,
			map[string]float64{"A": 3, "C": 9},
		},
	} {
		t.Run(book.name, func(t *testing.T) {
			n := network(t, book.rows)
			table := n.Table(nil)
			n.By(&table, table.Ready)
			path := ""
			for _, j := range table.Holds() {
				path += book.rows[j].id
			}
			assert.Equal(t, book.path, path)
			assert.InDelta(t, book.ready, table.Ready, 1e-9)
			for j, row := range table.Rows {
				assert.InDelta(t, book.spare[book.rows[j].id], row.Spare, 1e-9, book.rows[j].id)
				assert.InDelta(t, row.Start+row.Spare+row.Takes, row.LatestEnd, 1e-9)
			}
		})
	}
}

// TestFound: five jobs of two hours on one wheel, 0.8 of each out and in, take 6.8 hours.
func TestFound(t *testing.T) {
	var jobs []calendar.Job
	for i := range 5 {
		jobs = append(jobs, calendar.Job{Name: calendar.Named(fmt.Sprint(i)), Kind: calendar.Work, Takes: calendar.Just(2), Opens: []calendar.Open{{Place: 1, Takes: 0.8}}})
	}
	n, err := calendar.NewNet(jobs, nil, always())
	require.NoError(t, err)
	table := n.Table(n.Arranged(nil))
	assert.InDelta(t, 6.8, table.Hours, 1e-9)
	assert.InDelta(t, 3.2, table.Saved, 1e-9)

	jobs = append(jobs, calendar.Job{Name: calendar.Named("elsewhere"), Kind: calendar.Work, Takes: calendar.Just(1)})
	n, err = calendar.NewNet(jobs, nil, always())
	require.NoError(t, err)
	apart := n.Table([]int{0, 1, 5, 2, 3, 4})
	assert.InDelta(t, 1+6.8+0.8, apart.Hours, 1e-9, "another job between closes it")
	better := n.Better(apart.Order)
	assert.True(t, better.Exact)
	assert.InDelta(t, 7.8, better.Table.Hours, 1e-9, "it is found again")
}

// TestCircle names who waits for whom.
func TestCircle(t *testing.T) {
	links := []calendar.Link{{First: 0, Then: 1}, {First: 3, Then: 1}, {First: 1, Then: 2}, {First: 2, Then: 3}}
	_, err := calendar.NewNet(make([]calendar.Job, 4), links, always())
	var circle *calendar.Circle
	require.ErrorAs(t, err, &circle)
	assert.ElementsMatch(t, []int{1, 2, 3}, circle.Jobs)
}

// TestClock: a Saturday of four hours and a Sunday of two, with one weekend away.
func TestClock(t *testing.T) {
	c := calendar.NewClock(monday, [7]float64{5: 4, 6: 2}, []calendar.Span{{From: monday + 12, To: monday + 13}})
	assert.InDelta(t, 5.5, c.After(0, 2), 1e-9, "two of four hours: Saturday noon")
	assert.InDelta(t, 7, c.After(0, 6), 1e-9)
	assert.InDelta(t, 19.25, c.After(0, 7), 1e-9, "the next weekend is away")
	assert.InDelta(t, 5.5, c.Before(7, 4), 1e-9)
	assert.InDelta(t, 19, c.Before(19.25, 1), 1e-9, "it may begin as late as that")
	assert.InDelta(t, 700+2*7./6, c.After(700, 2), 1e-6, "beyond what it has by heart, by the week's mean")
	for _, h := range []float64{0.1, 3, 6, 6.01, 100, 700} {
		assert.InDelta(t, h, c.At(c.Until(h)), 1e-9)
		assert.InDelta(t, h, c.At(c.Since(h)), 1e-9)
	}
}

// TestClosed: a workshop has the wheel for four days and closes for ten on the third.
func TestClosed(t *testing.T) {
	shop := calendar.NewClock(monday, [7]float64{1, 1, 1, 1, 1, 1, 1}, []calendar.Span{{From: monday + 2, To: monday + 11}})
	jobs := []calendar.Job{{Name: calendar.Named("lace the wheel"), Takes: calendar.Just(4), Clock: shop}}
	n, err := calendar.NewNet(jobs, nil, always())
	require.NoError(t, err)
	table := n.Table(nil)
	assert.InDelta(t, 14, table.Ready, 1e-9)
	assert.InDelta(t, 14, n.Outlook(nil).Share(0.8), 1e-9)
	n.By(&table, 20)
	assert.InDelta(t, 16, table.Rows[0].LatestStart, 1e-9)
}

// TestOneVisit: two jobs of a workshop in direct succession bring the bike once.
func TestOneVisit(t *testing.T) {
	visit := func(id string) calendar.Job {
		return calendar.Job{Name: calendar.Named(id), Kind: calendar.Visit, Takes: calendar.Just(2), Opens: []calendar.Open{{Place: 100, Takes: 1}}}
	}
	jobs := []calendar.Job{visit("springs"), {Name: calendar.Named("guards"), Kind: calendar.Work, Takes: calendar.Just(1)}, visit("map")}
	n, err := calendar.NewNet(jobs, nil, always())
	require.NoError(t, err)
	assert.InDelta(t, 5, n.Table([]int{0, 1, 2}).Ready, 1e-9)
	assert.InDelta(t, 4, n.Better([]int{0, 1, 2}).Table.Ready, 1e-9)
}

// TestShare of one triangle, and of the later of two, against their distributions: P(max ≤ x) is
// the product.
func TestShare(t *testing.T) {
	long, short := calendar.Spread{Low: 21, Likely: 35, High: 56}, calendar.Spread{Low: 18, Likely: 40, High: 50}
	n := network(t, []activity{{id: "a", takes: long}})
	o := n.Outlook(nil)
	for _, share := range []float64{0.2, 0.5, 0.8, 0.95} {
		assert.InDelta(t, long.Quantile(share), o.Share(share), 0.35, "%v", share)
	}
	n = network(t, []activity{{id: "a", takes: long}, {id: "b", takes: short}})
	o = n.Outlook(nil)
	below := func(s calendar.Spread, x float64) float64 {
		low, high := 0.0, 1.0
		for range 60 {
			if mid := (low + high) / 2; s.Quantile(mid) < x {
				low = mid
			} else {
				high = mid
			}
		}
		return low
	}
	for _, share := range []float64{0.5, 0.8} {
		x, high := 0.0, 100.0
		for range 60 {
			if mid := (x + high) / 2; below(long, mid)*below(short, mid) < share {
				x = mid
			} else {
				high = mid
			}
		}
		assert.InDelta(t, x, o.Share(share), math.Max(1, 0.05*35), "%v", share)
	}
}

// TestAgainstRandomRuns: the 80th percentile of 64 scenarios lies within a day, or a twentieth of the spread, of that of
// 100 000 runs drawn at random.
func TestAgainstRandomRuns(t *testing.T) {
	for seed := range uint64(3) {
		random := rand.New(rand.NewPCG(seed, 34))
		jobs, links := randomJobs(random, 24)
		own := calendar.NewClock(monday, [7]float64{1, 0, 2, 0, 1, 4, 3}, nil)
		n, err := calendar.NewNet(jobs, links, own)
		require.NoError(t, err)
		order := n.Arranged(nil)
		o := n.Outlook(order)
		const runs = 100_000
		ready := make([]float64, 0, runs)
		once := make([]calendar.Job, len(jobs))
		for range runs {
			copy(once, jobs)
			slips := map[calendar.Name]float64{}
			for i := range once {
				u := random.Float64()
				if key := once[i].Slips; key != 0 {
					if was, ok := slips[key]; ok {
						u = was
					}
					slips[key] = u
				}
				once[i].Takes = calendar.Just(jobs[i].Takes.Quantile(u))
			}
			m, err := calendar.NewNet(once, links, own)
			require.NoError(t, err)
			ready = append(ready, m.Table(order).Ready)
		}
		sort.Float64s(ready)
		spread := ready[runs-1] - ready[0]
		at := func(share float64) float64 { return ready[int(share*float64(len(ready)))] }
		assert.InDelta(t, at(0.8), o.Share(0.8), math.Max(1, spread/20), "seed %d", seed)
		assert.InDelta(t, at(0.5), o.Share(0.5), math.Max(1, spread/20), "seed %d", seed)
	}
}

// randomJobs are so many, each waiting for a few before it.
func randomJobs(random *rand.Rand, size int) (jobs []calendar.Job, links []calendar.Link) {
	jobs = make([]calendar.Job, size)
	for i := range jobs {
		job := calendar.Job{Name: calendar.Named(fmt.Sprintf("job %d", i)), Kind: calendar.Kind(random.IntN(3))}
		days := float64(random.IntN(9))
		if job.Kind == calendar.Wait {
			days *= 3
			if random.IntN(3) == 0 {
				job.Slips = calendar.Named(fmt.Sprintf("seller %d", random.IntN(3)))
			}
		}
		job.Takes = calendar.Spread{Low: days / 2, Likely: days, High: days * (1 + random.Float64())}
		if job.Kind == calendar.Work {
			job.Takes = job.Takes.Times(0.4)
		}
		for k, firsts := 0, 0; k < i; k++ {
			if random.IntN(i+2) == 0 && firsts < 4 {
				links = append(links, calendar.Link{First: k, Then: i})
				firsts++
			}
		}
		if random.IntN(2) == 0 {
			job.Opens = []calendar.Open{{Place: random.IntN(3), Takes: job.Takes.Low / 2}}
		}
		if random.IntN(8) == 0 {
			job.From = float64(random.IntN(20) - 5)
		}
		jobs[i] = job
	}
	return jobs, links
}

// TestLaws: with one order, a longer wait is never ready earlier, nor is it with a later first day; what shares
// never takes more hours.
func TestLaws(t *testing.T) {
	week, off := [7]float64{0, 1.5, 0, 1.5, 0, 5, 3}, []calendar.Span{{From: monday + 18, To: monday + 25}}
	for seed := range uint64(300) {
		random := rand.New(rand.NewPCG(seed, 7))
		jobs, links := randomJobs(random, 3+random.IntN(30))
		own := calendar.NewClock(monday, week, off)
		n, err := calendar.NewNet(jobs, links, own)
		require.NoError(t, err)
		order := n.Arranged(nil)
		table, look := n.Table(order), n.Outlook(order)

		longer := append([]calendar.Job(nil), jobs...)
		at := random.IntN(len(longer))
		longer[at].Takes = longer[at].Takes.Plus(calendar.Spread{Low: 0, Likely: float64(random.IntN(3)), High: float64(2 + random.IntN(5))})
		m, err := calendar.NewNet(longer, links, own)
		require.NoError(t, err)
		slow, later := m.Table(order), m.Outlook(order)
		assert.GreaterOrEqual(t, slow.Ready, table.Ready-1e-9, "seed %d", seed)
		for _, share := range []float64{0.1, 0.5, 0.8, 0.95} {
			assert.GreaterOrEqual(t, later.Share(share), look.Share(share)-1e-9, "seed %d", seed)
			assert.GreaterOrEqual(t, look.Share(share), look.Share(share-0.1)-1e-9)
		}

		const days = 3
		moved := append([]calendar.Job(nil), jobs...)
		for i := range moved {
			moved[i].From -= days
		}
		m, err = calendar.NewNet(moved, links, calendar.NewClock(monday+days, week, off))
		require.NoError(t, err)
		assert.GreaterOrEqual(t, m.Table(order).Ready+days, table.Ready-1e-6, "seed %d: a later first day", seed)
		assert.GreaterOrEqual(t, m.Outlook(order).Share(0.8)+days, look.Share(0.8)-1e-6, "seed %d: a later first day", seed)

		alone := append([]calendar.Job(nil), jobs...)
		for i := range alone {
			alone[i].Opens = nil
		}
		m, err = calendar.NewNet(alone, links, own)
		require.NoError(t, err)
		assert.LessOrEqual(t, table.Hours, m.Table(order).Hours+1e-9, "seed %d: sharing", seed)

		sure := append([]calendar.Job(nil), jobs...)
		for i := range sure {
			sure[i].Takes = calendar.Just(sure[i].Takes.Likely)
		}
		m, err = calendar.NewNet(sure, links, own)
		require.NoError(t, err)
		all := m.Outlook(order).Ready
		assert.InDelta(t, table.Ready, all[0], 1e-6, "seed %d: where each duration is known there is one day", seed)
		assert.InDelta(t, table.Ready, all[calendar.Scenarios-1], 1e-6, "seed %d", seed)

		n.By(&table, table.Ready)
		for j := range table.Rows {
			assert.GreaterOrEqual(t, table.Rows[j].Spare, -1e-6, "seed %d job %d: with its own day as the last nothing is late", seed, j)
		}
		better := n.Better(order)
		assert.LessOrEqual(t, better.Bound, better.Table.Ready+1e-9, "seed %d", seed)
		assert.LessOrEqual(t, better.Table.Ready, table.Ready+1e-9, "seed %d", seed)
	}
}

// ExampleNet is a tyre that comes in two days and is fitted on the next weekend.
func ExampleNet() {
	weekend := calendar.NewClock(monday, [7]float64{5: 4, 6: 2}, nil)
	n, _ := calendar.NewNet([]calendar.Job{
		{Name: calendar.Named("tyre on its way"), Takes: calendar.Just(2)},
		{Name: calendar.Named("fit it"), Kind: calendar.Work, Takes: calendar.Just(1)},
	}, []calendar.Link{{First: 0, Then: 1}}, weekend)
	table := n.Table(n.Arranged(nil))
	fmt.Println(monday+calendar.Day(table.Ready), table.Hours)
	// Output: 2026-12-05 1
}

func BenchmarkOutlook(b *testing.B) {
	random := rand.New(rand.NewPCG(1, 2))
	jobs, links := randomJobs(random, 120)
	for i := range jobs {
		if jobs[i].Kind == calendar.Visit && i%20 > 0 {
			jobs[i].Kind = calendar.Wait
		}
	}
	week := [7]float64{0, 1.5, 0, 1.5, 0, 5, 3}
	order := []int(nil)
	b.Run("120 jobs", func(b *testing.B) {
		for b.Loop() {
			n, err := calendar.NewNet(jobs, links, calendar.NewClock(monday, week, nil))
			if err != nil {
				b.Fatal(err)
			}
			if order == nil {
				order = n.Arranged(nil)
			}
			o := n.Outlook(order)
			if o.Share(0.8) < 0 {
				b.Fatal("before it began")
			}
		}
	})
	b.Run("unit", func(b *testing.B) {
		sum := 0.0
		for b.Loop() {
			for i := range 20_000 {
				sum += math.Pow(1+float64(i)/20_000, 1.7)
			}
		}
		if sum == 0 {
			b.Fatal(sum)
		}
	})
}

// TestShortWork: the last job follows all others though it takes longer than they do.
func TestShortWork(t *testing.T) {
	n, err := calendar.NewNet([]calendar.Job{{Name: calendar.Named("shakedown"), Takes: calendar.Just(9), Last: true}, {Name: calendar.Named("parcel"), Takes: calendar.Just(3)}}, nil, always())
	require.NoError(t, err)
	table := n.Table(nil)
	assert.InDelta(t, 12, table.Ready, 1e-9)
	assert.InDelta(t, 12, n.Outlook(nil).Share(0.8), 1e-9)
	assert.Equal(t, []int{1, 0}, table.Holds())
}
