package calendar

import (
	"math"
	"math/rand/v2"
	"slices"
	"sync"
)

// Scenarios is how many ways things may go are looked at.
const Scenarios = 64

// lane is one number in each scenario.
type lane [Scenarios]float64

// Each job has its own permutation of the strata, by what it slips with: a Latin hypercube [pub:
// McKay, Beckman, Conover, Technometrics 21 (1979)]. They are fixed, so that the same jobs give
// the same days.
const rankings = 512

var (
	ranks             [rankings][Scenarios]uint8
	rootLow, rootHigh lane // √u and √(1−u) of each stratum's middle
)

func init() {
	random := rand.New(rand.NewPCG(1959, 1979))
	for i := range ranks {
		for k := range ranks[i] {
			ranks[i][k] = uint8(k)
		}
		random.Shuffle(Scenarios, func(a, b int) { ranks[i][a], ranks[i][b] = ranks[i][b], ranks[i][a] })
	}
	for r := range Scenarios {
		u := stratum(r)
		rootLow[r], rootHigh[r] = math.Sqrt(u), math.Sqrt(1-u)
	}
}

// stratum is the middle of one.
func stratum(r int) float64 { return (float64(r) + 0.5) / Scenarios }

// Outlook is when all is done, in each scenario, the earliest first.
type Outlook struct{ Ready [Scenarios]float64 }

// Share is the moment by which all is done in a share of all cases, interpolated between the
// strata's middles.
func (o Outlook) Share(share float64) float64 {
	at := share*Scenarios - 0.5
	i := int(math.Floor(at))
	switch {
	case i < 0:
		return o.Ready[0]
	case i >= Scenarios-1:
		return o.Ready[Scenarios-1]
	}
	return o.Ready[i] + (at-float64(i))*(o.Ready[i+1]-o.Ready[i])
}

// Outlook is when all is done in an order of the serial jobs, with each duration drawn from its
// triangle: one way through the jobs a scenario. What can be late in none of them is not drawn.
func (n *Net) Outlook(order []int) Outlook {
	l := pool.Get().(*lanes)
	defer pool.Put(l)
	l.begin(n)
	l.look(order)
	clear(l.done)
	before := -1
	for at, j := range order {
		l.draw(&l.takes, j, n.saved(before, j))
		l.ready(j)
		if n.Jobs[j].Kind == Work {
			l.work(j, l.need[j] || at == len(order)-1 || n.Jobs[order[at+1]].Kind != Work)
		} else {
			l.visit(j)
		}
		before = j
	}
	var o Outlook
	ready := (*lane)(&o.Ready)
	ready.all(l.last)
	ready.later(&l.now)
	for _, j := range n.order {
		if l.need[j] && !n.Jobs[j].Serial() {
			l.wait(j)
			ready.later(&l.ends[j])
		}
	}
	for _, j := range n.order {
		if job := &n.Jobs[j]; job.Last {
			l.draw(&l.takes, j, 0)
			for k := range o.Ready {
				o.Ready[k] = job.over(max(o.Ready[k], job.From), l.takes[k])
			}
		}
	}
	slices.Sort(o.Ready[:])
	return o
}

// pool keeps the room that a way through the jobs takes.
var pool = sync.Pool{New: func() any { return new(lanes) }}

// begin makes room for jobs.
func (l *lanes) begin(n *Net) {
	l.n = n
	jobs := len(n.Jobs)
	l.ends = slices.Grow(l.ends[:0], jobs)[:jobs]
	l.done = cleared(l.done, jobs)
	l.need = cleared(l.need, jobs)
	l.over = cleared(l.over, jobs)
	l.least = cleared(l.least, jobs)
	l.rank = slices.Grow(l.rank[:0], jobs)[:jobs]
	clear(l.owner[:])
	for j := range n.Jobs {
		l.rank[j] = l.ranking(&n.Jobs[j])
	}
	l.now, l.hours, l.byHours = lane{}, lane{}, true
}

// ranking is the job's permutation: that of whatever it slips with, else of its name.
func (l *lanes) ranking(job *Job) uint16 {
	name := max(1, job.Name)
	if job.Slips != 0 {
		name = job.Slips
	}
	at := name % rankings
	for tries := 0; l.owner[at] != 0 && l.owner[at] != name && tries < rankings; tries++ {
		at = (at + 1) % rankings
	}
	l.owner[at] = name
	return uint16(at)
}

// cleared is a list with room for so many, all of them zero.
func cleared[T any](list []T, size int) []T {
	list = slices.Grow(list[:0], size)[:size]
	clear(list)
	return list
}

// visit reckons a serial job that takes days.
func (l *lanes) visit(j int) {
	if l.byHours {
		l.moments()
		l.byHours = false
	}
	job, end := &l.n.Jobs[j], &l.ends[j]
	for k := range end {
		end[k] = job.over(max(l.from[k], l.now[k]), l.takes[k])
	}
	l.now = *end
}

// work reckons one of one's own hours; told says that somebody has to know when it is over.
func (l *lanes) work(j int, told bool) {
	if !l.byHours {
		for k := range l.hours {
			l.hours[k] = l.n.Own.At(l.now[k])
		}
		l.byHours = true
	}
	if l.waits {
		for k := range l.hours {
			if by := l.n.Own.At(l.from[k]); by > l.hours[k] {
				l.hours[k] = by
			}
		}
	}
	for k := range l.hours {
		l.hours[k] += l.takes[k]
	}
	if !told {
		return
	}
	l.moments()
	if l.waits { // what takes next to nothing is over when it can begin
		l.now.later(&l.from)
	}
	l.ends[j] = l.now
}

// lanes is a way through the jobs in all scenarios at once.
type lanes struct {
	n     *Net
	ends  []lane         // of what somebody has to know it of
	done  []bool         // waits whose end is there
	over  []reach        // … and in which bounds each job is over
	need  []bool         // waits that something is late by, and serial jobs before such
	least []float64      // moments before which a serial job begins in no scenario, where waits say so
	last  float64        // … and before which all is done in none
	rank  []uint16       // the permutation of each job
	owner [rankings]Name // whose each is, 0 for nobody's

	now     lane // when the last serial job was over
	hours   lane // by how much of one's own time, where byHours
	byHours bool

	takes lane // what the serial job that is looked at takes
	from  lane // when all is over that comes before it
	waits bool // whether anything does
}

// draw is what a job takes in each scenario, less what it finds open.
func (l *lanes) draw(into *lane, j int, saved float64) {
	s := &l.n.Jobs[j].Takes
	if s.Certain() {
		into.all(max(0, s.Likely-saved))
		return
	}
	width, left := s.High-s.Low, s.Likely-s.Low
	rise, fall := math.Sqrt(width*left), math.Sqrt(width*(s.High-s.Likely))
	low, high := s.Low-saved, s.High-saved
	turn := min(Scenarios, max(0, int(math.Ceil(left/width*Scenarios-0.5)))) // strata below it are on the rising side
	var by lane
	for r := range turn {
		by[r] = low + rise*rootLow[r]
	}
	for r := turn; r < Scenarios; r++ {
		by[r] = high - fall*rootHigh[r]
	}
	if low < 0 {
		by.later(&lane{})
	}
	rank := &ranks[l.rank[j]]
	for k := range into {
		into[k] = by[rank[k]&(Scenarios-1)]
	}
}

// ready is when all is over that comes before a serial job; another serial one that stands before
// it in the order is no news, nor is what the order is never late by.
func (l *lanes) ready(j int) {
	from := l.least[j]
	l.waits = from > 0
	l.from.all(from)
	for _, first := range l.n.Firsts(j) {
		if l.need[first] && !l.n.Jobs[first].Serial() {
			l.wait(first)
			l.waits = true
			l.from.later(&l.ends[first])
		}
	}
}

// later moves each moment to another's where that is later.
func (a *lane) later(b *lane) {
	for k := range a {
		if b[k] > a[k] {
			a[k] = b[k]
		}
	}
}

// wait reckons a job that passes by itself.
func (l *lanes) wait(j int) {
	if l.done[j] {
		return
	}
	l.done[j] = true
	job, end, firsts := &l.n.Jobs[j], &l.ends[j], l.n.Firsts(j)
	for _, first := range firsts {
		if !l.n.Jobs[first].Serial() {
			l.wait(first)
		}
	}
	l.draw(end, j, 0)
	var start lane
	start.all(job.From)
	for _, first := range firsts {
		start.later(&l.ends[first])
	}
	for k := range end {
		if job.Clock == nil {
			end[k] += start[k]
		} else {
			end[k] = job.over(start[k], end[k])
		}
	}
	if job.From < 0 { // what is under way is over today, at the earliest
		end.later(&lane{})
	}
}

// all sets each moment.
func (a *lane) all(to float64) {
	for k := range a {
		a[k] = to
	}
}

// moments sets now by hours; what takes none after a visit is over when the visit is.
func (l *lanes) moments() {
	for k, hours := range l.hours {
		if at := l.n.Own.Until(hours); at > l.now[k] {
			l.now[k] = at
		}
	}
}
