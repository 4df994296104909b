package calendar

import (
	"fmt"
	"slices"
)

// Kind is what a job needs while it lasts.
type Kind int

// The kinds.
const (
	Wait  Kind = iota // passes by itself, beside anything else: a parcel, glue that sets
	Work              // hours of one's own, one job after the other
	Visit             // the bike is away: no work meanwhile
)

// Job is one thing that has to be done, or waited for.
type Job struct {
	ID    string
	Kind  Kind
	Takes Spread  // hours of a Work, days of the others
	From  float64 // day before which it does not begin; below zero it is under way
	After []int   // jobs that are over first, by their place in the list
	Last  bool    // after all others
	Slips string  // jobs of one of these are late together; "" for by itself
	Clock *Clock  // on which its days pass; nil: every day
	Opens []Open  // what is taken apart for it, or where it is brought
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

	next  [][]int // jobs that wait for each
	order []int   // all jobs, each behind those that come first
}

// Circle is why jobs do not fit together: each waits for the one before, and the first for the last.
type Circle struct{ Jobs []int }

func (c *Circle) Error() string { return fmt.Sprintf("jobs %v wait for one another", c.Jobs) }

// NewNet puts jobs together; the error is a *Circle.
func NewNet(jobs []Job, own *Clock) (*Net, error) {
	n := &Net{Jobs: jobs, Own: own, next: make([][]int, len(jobs))}
	waits, count := make([]int, len(jobs)), 0
	for i := range jobs {
		waits[i] = len(jobs[i].After)
		count += waits[i]
	}
	backing, sizes := make([]int, count), make([]int, len(jobs))
	for i := range jobs {
		for _, first := range jobs[i].After {
			sizes[first]++
		}
	}
	at := 0
	for i, size := range sizes {
		n.next[i] = backing[at : at : at+size]
		at += size
	}
	for i := range jobs {
		for _, first := range jobs[i].After {
			n.next[first] = append(n.next[first], i)
		}
	}
	n.order = make([]int, 0, len(jobs))
	for i := range jobs {
		if waits[i] == 0 {
			n.order = append(n.order, i)
		}
	}
	for k := 0; k < len(n.order); k++ {
		for _, j := range n.next[n.order[k]] {
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
		for _, first := range n.Jobs[at].After {
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
	waits, open := n.serialFirsts()
	list := make([]int, 0, len(open))
	for len(open) > 0 {
		best := -1
		for i, j := range open {
			if waits[j] == 0 && (best < 0 || rank[j] < rank[open[best]]) {
				best = i
			}
		}
		j := open[best]
		open = slices.Delete(open, best, best+1)
		list = append(list, j)
		n.free(waits, j)
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
		waits[i] = len(n.Jobs[i].After)
		if n.Jobs[i].Serial() {
			serial = append(serial, i)
		}
	}
	for i := range n.Jobs {
		if len(n.Jobs[i].After) == 0 && !n.Jobs[i].Serial() {
			n.free(waits, i)
		}
	}
	return waits, serial
}

// free counts a job as over for those that wait for it.
func (n *Net) free(waits []int, j int) {
	for _, k := range n.next[j] {
		if waits[k]--; waits[k] == 0 && !n.Jobs[k].Serial() {
			n.free(waits, k)
		}
	}
}

// Dispatch is an order by which nobody waits while something can be done: at each step what can
// begin first, of what can begin now what finds its place open, of those the first of the list.
func (n *Net) Dispatch() []int {
	waits, open := n.serialFirsts()
	p := n.pass()
	from := make([]float64, len(n.Jobs)) // when all is over that comes first, of those for which it is
	ready := func() {
		for _, j := range open {
			if waits[j] == 0 && from[j] == 0 {
				from[j], _ = p.from(j, max(0, n.Jobs[j].From))
			}
		}
	}
	list := make([]int, 0, len(open))
	last := -1
	for len(open) > 0 {
		ready()
		best, soonest, shares := -1, 0.0, false
		for i, j := range open {
			if waits[j] > 0 {
				continue
			}
			begin := max(p.now, from[j])
			if best >= 0 && begin > soonest+hair {
				continue
			}
			with := last >= 0 && n.saved(last, j) > 0
			if best < 0 || begin < soonest-hair || with && !shares {
				best, soonest, shares = i, begin, with
			}
		}
		j := open[best]
		open = slices.Delete(open, best, best+1)
		list = append(list, j)
		p.do(last, j)
		n.free(waits, j)
		last = j
	}
	return list
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
