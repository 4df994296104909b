package calendar

import (
	"fmt"
	"slices"
)

// Kind is what a job needs while it lasts.
type Kind uint8

// The kinds.
const (
	Wait  Kind = iota // passes by itself, beside anything else: a parcel, glue that sets
	Work              // hours of one's own, one job after the other
	Visit             // the bike is away: no work meanwhile
)

// Job is one thing that has to be done, or waited for.
type Job struct {
	Name  Name
	Slips Name // jobs of one of these are late together; 0 for by itself
	Kind  Kind
	Last  bool    // after all others
	Takes Spread  // hours of a Work, days of the others
	From  float64 // day before which it does not begin; below zero it is under way
	Clock *Clock  // on which its days pass; nil: every day
	Opens []Open  // what is taken apart for it, or where it is brought
}

// Link says that a job is over before another begins, both by their place in the list.
type Link struct{ First, Then int }

// Name tells jobs apart, and what they are late by: the same one gives the same scenarios.
type Name uint32

// Named is the name of what some words stand for together; never 0. (FNV-1a.)
func Named(words ...string) Name {
	hash := uint32(2166136261)
	for _, word := range words {
		for i := range len(word) {
			hash = (hash ^ uint32(word[i])) * 16777619
		}
	}
	return Name(max(1, hash))
}

// Open is a place that is opened for a job and closed again, and how much of what the job takes
// that is. A job that directly follows one with the same place finds it open.
type Open struct {
	Place int
	Takes float64
}

// Net is jobs that fit together: those that come first are over first, and none waits for itself.
type Net struct {
	Jobs []Job
	Own  *Clock // hours of one's own

	firsts fan   // what each job waits for
	thens  fan   // what waits for it
	order  []int // all jobs, each behind those that come first
}

// fan is some jobs of each job, one list behind the other.
type fan struct {
	jobs []int
	from []int // where the list of each begins
}

func (f *fan) of(j int) []int { return f.jobs[f.from[j]:f.from[j+1]] }

// fanOut sorts links by one of their ends.
func fanOut(size int, links []Link, by func(Link) (of, to int)) fan {
	numbers := make([]int, len(links)+size+2)
	f := fan{numbers[:len(links)], numbers[len(links):]}
	for _, l := range links {
		of, _ := by(l)
		f.from[of+2]++
	}
	for j := 2; j < len(f.from); j++ {
		f.from[j] += f.from[j-1]
	}
	for _, l := range links { // a list begins where the one before it has come to
		of, to := by(l)
		f.jobs[f.from[of+1]] = to
		f.from[of+1]++
	}
	f.from = f.from[:size+1]
	return f
}

// Circle is why jobs do not fit together: each waits for the one before, and the first for the last.
type Circle struct{ Jobs []int }

func (c *Circle) Error() string { return fmt.Sprintf("jobs %v wait for one another", c.Jobs) }

// NewNet puts jobs together; the error is a *Circle.
func NewNet(jobs []Job, links []Link, own *Clock) (*Net, error) {
	n := &Net{
		Jobs: jobs, Own: own, order: make([]int, 0, len(jobs)),
		firsts: fanOut(len(jobs), links, func(l Link) (of, to int) { return l.Then, l.First }),
		thens:  fanOut(len(jobs), links, func(l Link) (of, to int) { return l.First, l.Then }),
	}
	waits := make([]int, len(jobs))
	for i := range jobs {
		if waits[i] = len(n.Firsts(i)); waits[i] == 0 {
			n.order = append(n.order, i)
		}
	}
	for k := 0; k < len(n.order); k++ {
		for _, j := range n.thens.of(n.order[k]) {
			if waits[j]--; waits[j] == 0 {
				n.order = append(n.order, j)
			}
		}
	}
	if len(n.order) < len(jobs) {
		return nil, n.circle(waits)
	}
	return n, nil
}

// Firsts are the jobs that are over before one begins.
func (n *Net) Firsts(j int) []int { return n.firsts.of(j) }

// circle finds one among the jobs that are still waited for.
func (n *Net) circle(waits []int) *Circle {
	at := slices.IndexFunc(waits, func(w int) bool { return w > 0 })
	var path []int
	for {
		if i := slices.Index(path, at); i >= 0 {
			path = path[i:]
			slices.Reverse(path) // as the work would go
			return &Circle{path}
		}
		path = append(path, at)
		for _, first := range n.Firsts(at) {
			if waits[first] > 0 {
				at = first
				break
			}
		}
	}
}

// Serial reports whether a job is one of those that are done one after the other.
func (j *Job) Serial() bool { return j.Kind != Wait }

// Arranged is a list of the jobs that are done one after the other in an order that can be: as
// wished, where that does not put a job before one that has to be over first; what the wish does
// not name comes as [Net.Dispatch] would have it.
func (n *Net) Arranged(wished []int) []int {
	if len(wished) == 0 {
		return n.Dispatch()
	}
	rank := make([]int, len(n.Jobs))
	for i, j := range n.all(wished) {
		rank[j] = i
	}
	waits, serial := n.serialFirsts()
	list := make([]int, 0, len(serial))
	can := slices.DeleteFunc(serial, func(j int) bool { return waits[j] > 0 })
	for len(can) > 0 {
		best := 0
		for i, j := range can {
			if rank[j] < rank[can[best]] {
				best = i
			}
		}
		j := can[best]
		list = append(list, j)
		can = n.free(waits, j, slices.Delete(can, best, best+1))
	}
	return list
}

// all is a wish with the serial jobs that it does not name: each behind the one that it would
// follow by itself.
func (n *Net) all(wished []int) []int {
	named := make([]bool, len(n.Jobs))
	for _, j := range wished {
		named[j] = true
	}
	if !slices.ContainsFunc(n.order, func(j int) bool { return n.Jobs[j].Serial() && !named[j] }) {
		return wished
	}
	list := slices.Clone(wished)
	at := 0 // behind which the next one goes
	for _, j := range n.Dispatch() {
		if named[j] {
			at = slices.Index(list, j) + 1
			continue
		}
		list = slices.Insert(list, at, j)
		at++
	}
	return list
}

// serialFirsts counts of each job what has to be over first and is not yet, and lists the serial ones in order. Waits
// before which nothing is left are over.
func (n *Net) serialFirsts() (waits, serial []int) {
	waits = make([]int, len(n.Jobs))
	for i := range n.Jobs {
		waits[i] = len(n.Firsts(i))
		if n.Jobs[i].Serial() {
			serial = append(serial, i)
		}
	}
	for i := range n.Jobs {
		if len(n.Firsts(i)) == 0 && !n.Jobs[i].Serial() {
			n.free(waits, i, nil)
		}
	}
	return waits, serial
}

// free counts a job as over for those that wait for it; it adds to a list the serial ones for which
// all is over then.
func (n *Net) free(waits []int, j int, can []int) []int {
	for _, k := range n.thens.of(j) {
		if waits[k]--; waits[k] > 0 {
			continue
		}
		if n.Jobs[k].Serial() {
			can = append(can, k)
		} else {
			can = n.free(waits, k, can)
		}
	}
	return can
}

// Dispatch is an order by which nobody waits while something can be done: at each step what can
// begin first, of what can begin now what finds its place open, of those the first of the list.
func (n *Net) Dispatch() []int {
	order, _ := n.dispatch()
	return order
}

// dispatch is the order, and the way through it in time.
func (n *Net) dispatch() ([]int, *pass) {
	waits, serial := n.serialFirsts()
	p := n.pass()
	type candidate struct {
		job  int
		from float64 // when all is over that comes before it
	}
	can := make([]candidate, 0, len(serial)) // by their place in the list
	put := func(j int) {
		at, _ := slices.BinarySearchFunc(can, j, func(c candidate, j int) int { return c.job - j })
		from, _ := p.from(j, max(0, n.Jobs[j].From))
		can = slices.Insert(can, at, candidate{j, from})
	}
	for _, j := range serial {
		if waits[j] == 0 {
			put(j)
		}
	}
	list := make([]int, 0, len(serial))
	var freed []int
	last := -1
	for len(can) > 0 {
		best, soonest, shares := -1, 0.0, false
		may := last >= 0 && len(n.Jobs[last].Opens) > 0 // share
		for i := range can {
			begin := max(p.now, can[i].from)
			if best >= 0 && (begin > soonest+hair || shares && begin >= soonest-hair) {
				continue
			}
			with := may && n.saved(last, can[i].job) > 0
			if best < 0 || begin < soonest-hair || with {
				best, soonest, shares = i, begin, with
			}
			if soonest <= p.now && shares == may { // nothing is better
				break
			}
		}
		j := can[best].job
		can = slices.Delete(can, best, best+1)
		list = append(list, j)
		p.do(last, j)
		freed = n.free(waits, j, freed[:0])
		for _, k := range freed {
			put(k)
		}
		last = j
	}
	return list, p
}

// saved is how much less a job takes behind another: what both have open.
func (n *Net) saved(before, j int) float64 {
	if before < 0 {
		return 0
	}
	sum := 0.0
	a, b := &n.Jobs[before], &n.Jobs[j]
	if a.Kind != b.Kind {
		return 0
	}
	for _, is := range b.Opens {
		for _, was := range a.Opens {
			if was.Place == is.Place {
				sum += is.Takes
			}
		}
	}
	return sum
}
