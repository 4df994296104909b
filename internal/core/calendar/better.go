package calendar

import (
	"slices"
)

// ExactUpTo is how many serial jobs all orders of are looked through; of more, [Net.Better] says
// before which day no order is ready.
const ExactUpTo = 9

// Better is what a search for an order came to.
type Better struct {
	Order []int
	Table Table
	Exact bool    // no order is ready earlier, and none that is ready as early takes fewer hours
	Bound float64 // no order is ready before
}

// sooner reports whether a moment and the hours that it takes are better than others: the day
// first, then the hours.
func sooner(ready, hours, thanReady, thanHours float64) bool {
	const same = 1e-7
	return ready < thanReady-same || ready < thanReady+same && hours < thanHours-same
}

// Better looks for an order of the serial jobs by which all is done sooner or, as soon, in fewer
// hours; by likely durations. What it begins from is an order that can be, see [Net.Arranged].
func (n *Net) Better(from []int) Better {
	s := search{n: n, order: slices.Clone(from), most: make([]float64, len(n.Jobs))}
	for j := range n.Jobs {
		for k := range n.Jobs {
			if k != j && n.Jobs[k].Serial() {
				s.most[j] = max(s.most[j], n.saved(k, j))
			}
		}
	}
	s.table = n.Table(s.order)
	if other := n.Dispatch(); len(from) > 0 {
		if t := n.Table(other); sooner(t.Ready, t.Hours, s.table.Ready, s.table.Hours) {
			s.order, s.table = other, t
		}
	}
	s.improve()
	best := Better{Bound: s.bound(nil)}
	if len(from) <= ExactUpTo {
		s.all(nil)
		best.Exact, best.Bound = true, s.table.Ready
	}
	best.Order, best.Table = s.order, s.table
	return best
}

type search struct {
	n     *Net
	order []int // the best so far
	table Table
	most  []float64 // the most that each job may find open behind any other
}

// How far a search beyond all orders goes: a job is moved past so many others at most, and so many
// rows of tables are reckoned.
const (
	movesPast  = 15
	movesWorth = 1_500_000
)

// improve moves one job after the other to where it is better, until none is or it has been
// enough.
func (s *search) improve() {
	size, left := len(s.order), movesWorth/max(1, len(s.n.Jobs))
	for left > 0 {
		found := false
		for i := range size {
			for to := max(0, i-movesPast); to < min(size, i+movesPast+1) && left > 0; to++ {
				if to == i {
					continue
				}
				left--
				order := slices.Clone(s.order)
				j := order[i]
				order = slices.Insert(slices.Delete(order, i, i+1), to, j)
				if !s.can(order) {
					continue
				}
				if t := s.n.Table(order); sooner(t.Ready, t.Hours, s.table.Ready, s.table.Hours) {
					s.order, s.table, found = order, t, true
				}
			}
		}
		if !found {
			return
		}
	}
}

// can reports whether each job stands behind those that have to be over first.
func (s *search) can(order []int) bool {
	waits, _ := s.n.serialFirsts()
	for _, j := range order {
		if waits[j] > 0 {
			return false
		}
		s.n.free(waits, j, nil)
	}
	return true
}

// all goes through every order that begins so and may be better than the best so far.
func (s *search) all(begin []int) {
	waits, serial := s.n.serialFirsts()
	for _, j := range begin {
		s.n.free(waits, j, nil)
	}
	if len(begin) == len(serial) {
		if t := s.n.Table(begin); sooner(t.Ready, t.Hours, s.table.Ready, s.table.Hours) {
			s.order, s.table = slices.Clone(begin), t
		}
		return
	}
	for _, j := range serial {
		if waits[j] > 0 || slices.Contains(begin, j) {
			continue
		}
		next := append(slices.Clone(begin), j)
		if sooner(s.bound(next), s.least(next), s.table.Ready, s.table.Hours) {
			s.all(next)
		}
	}
}

// least is how many hours of one's own an order takes at least that begins so: all that can be
// found open is.
func (s *search) least(begin []int) float64 {
	sum, before := 0.0, -1
	in := make([]bool, len(s.n.Jobs))
	for _, j := range begin {
		if job := &s.n.Jobs[j]; job.Kind == Work {
			sum += max(0, job.Takes.Likely-s.n.saved(before, j))
		}
		in[j], before = true, j
	}
	for j := range s.n.Jobs {
		if job := &s.n.Jobs[j]; job.Kind == Work && !in[j] {
			sum += max(0, job.Takes.Likely-s.most[j])
		}
	}
	return sum
}

// bound is a moment before which nothing is ready in an order that begins so: as if the other
// jobs hindered nobody, or as if nothing were waited for.
func (s *search) bound(begin []int) float64 {
	p := s.n.pass()
	before := -1
	for _, j := range begin {
		p.do(before, j)
		before = j
	}
	then := p.now
	hours := 0.0
	for _, j := range s.n.order { // by themselves, each finding open what it can
		job := &s.n.Jobs[j]
		if job.Last || p.done[j] {
			continue
		}
		if !job.Serial() {
			p.wait(j)
			continue
		}
		start, _ := p.from(j, max(then, job.From))
		takes := max(0, job.Takes.Likely-s.most[j])
		row := &p.rows[j]
		row.Start = start
		if job.Kind == Work {
			row.End = s.n.Own.After(start, takes)
			hours += takes
		} else {
			row.End = job.over(start, takes)
		}
		p.done[j] = true
	}
	ready := s.n.Own.After(then, hours)
	for j := range p.rows {
		if !s.n.Jobs[j].Last {
			ready = max(ready, p.rows[j].End)
		}
	}
	for j := range s.n.Jobs {
		if job := &s.n.Jobs[j]; job.Last {
			ready = job.over(ready, job.Takes.Likely)
		}
	}
	return ready
}
