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
// triangle: one way through the jobs a scenario.
func (n *Net) Outlook(order []int) Outlook {
	l := pool.Get().(*lanes)
	defer pool.Put(l)
	l.begin(n)
	before := -1
	for at, j := range order {
		job := &n.Jobs[j]
		l.draw(&l.takes, job, n.saved(before, j))
		l.ready(j)
		if job.Kind == Work {
			l.work(j, at == len(order)-1 || l.feeds(j, order[at+1]))
		} else {
			l.visit(j)
		}
		l.done[j], before = true, j
	}
	o := Outlook{Ready: l.now}
	for _, j := range n.order {
		job := &n.Jobs[j]
		if job.Last || job.Serial() {
			continue
		}
		l.wait(j)
		(*lane)(&o.Ready).later(&l.ends[j])
	}
	for _, j := range n.order {
		if job := &n.Jobs[j]; job.Last {
			l.draw(&l.takes, job, 0)
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
	l.ends = slices.Grow(l.ends[:0], len(n.Jobs))[:len(n.Jobs)]
	l.done = slices.Grow(l.done[:0], len(n.Jobs))[:len(n.Jobs)]
	clear(l.done)
	clear(l.picked[:])
	clear(l.by)
	l.now, l.hours, l.byHours = lane{}, lane{}, true
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
			l.hours[k] = max(l.hours[k], l.n.Own.At(l.from[k]))
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
	n      *Net
	ends   []lane
	done   []bool
	picked [rankings]bool // permutations that a job has
	by     map[string]int

	now     lane // when the last serial job was over
	hours   lane // by how much of one's own time, where byHours
	byHours bool

	takes lane // what the serial job that is looked at takes
	from  lane // when all is over that comes before it
	waits bool // whether anything does
}

// draw is what a job takes in each scenario, less what it finds open.
func (l *lanes) draw(into *lane, job *Job, saved float64) {
	s := &job.Takes
	if s.Certain() {
		v := max(0, s.Likely-saved)
		for k := range into {
			into[k] = v
		}
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
		for r := range by {
			by[r] = max(0, by[r])
		}
	}
	rank := &ranks[l.ranking(job)]
	for k := range into {
		into[k] = by[rank[k]&(Scenarios-1)]
	}
}

// ranking is the job's permutation: that of whatever it slips with, else one that no other job has.
func (l *lanes) ranking(job *Job) int {
	name := job.ID
	if job.Slips != "" {
		if at, ok := l.by[job.Slips]; ok {
			return at
		}
		name = job.Slips
	}
	hash := uint32(2166136261) // FNV-1a
	for i := range len(name) {
		hash = (hash ^ uint32(name[i])) * 16777619
	}
	at := int(hash % rankings)
	for tries := 0; l.picked[at] && tries < rankings; tries++ {
		at = (at + 1) % rankings
	}
	l.picked[at] = true
	if job.Slips != "" {
		if l.by == nil {
			l.by = map[string]int{}
		}
		l.by[job.Slips] = at
	}
	return at
}

// ready is when all is over that comes before a serial job; another serial one that stands before
// it in the order is no news.
func (l *lanes) ready(j int) {
	from := max(0, l.n.Jobs[j].From)
	l.waits = from > 0
	for k := range l.from {
		l.from[k] = from
	}
	for _, first := range l.n.Jobs[j].After {
		if !l.n.Jobs[first].Serial() {
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
	job, end := &l.n.Jobs[j], &l.ends[j]
	for _, first := range job.After {
		if !l.n.Jobs[first].Serial() {
			l.wait(first)
		}
	}
	l.draw(end, job, 0)
	if len(job.After) == 0 && job.Clock == nil {
		for k := range end {
			end[k] = max(0, job.From+end[k])
		}
		return
	}
	var start lane
	for k := range start {
		start[k] = job.From
	}
	for _, first := range job.After {
		start.later(&l.ends[first])
	}
	for k := range end {
		end[k] = max(0, start[k], job.over(start[k], end[k]))
	}
}

// feeds reports whether somebody has to know when a job of one's own is over: a wait behind it,
// or a visit that follows.
func (l *lanes) feeds(j, following int) bool {
	return l.n.Jobs[following].Kind != Work || slices.ContainsFunc(l.n.next[j], func(k int) bool { return !l.n.Jobs[k].Serial() })
}

// moments sets now by hours.
func (l *lanes) moments() {
	c, day := l.n.Own, 0
	for k := range l.now {
		if passed := l.hours[k] - hair; passed < 0 {
			l.now[k] = 0
		} else {
			day = c.near(day, passed)
			l.now[k] = c.from(day, l.hours[k])
		}
	}
}
