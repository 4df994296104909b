package calendar

import (
	"math"
	"slices"
)

// Row is one job in its time, in days from the first.
type Row struct {
	Start, End   float64
	LatestStart  float64 // NaN without a day by which all has to be done
	LatestEnd    float64
	Spare        float64 // days that it may slip and nothing is late; below zero it is late
	Takes, Saved float64 // in the job's unit, with places that were found open
	By           int     // the job that its start waits for, −1 for none
}

// Table is the jobs in their time.
type Table struct {
	Rows  []Row
	Order []int   // of those that are done one after the other
	Ready float64 // the moment when all are done
	Last  int     // the job that ends then, −1 without jobs
	Hours float64 // of one's own
	Saved float64 // of them, that places were open already
}

// pass is one way through the jobs in time, by likely durations.
type pass struct {
	n     *Net
	rows  []Row
	done  []bool
	now   float64 // when the last serial job was over
	saved float64
	hours float64
}

func (n *Net) pass() *pass {
	return &pass{n: n, rows: make([]Row, len(n.Jobs)), done: make([]bool, len(n.Jobs))}
}

// from is when all is over that comes before a job, and by which of them, −1 for none; not before
// a moment. Waits are reckoned as they come.
func (p *pass) from(j int, start float64) (at float64, by int) {
	at, by = start, -1
	for _, first := range p.n.Firsts(j) {
		p.wait(first)
		if end := p.rows[first].End; end > at || by < 0 && end >= at && end > 0 {
			at, by = end, first
		}
	}
	return at, by
}

// wait reckons a job that passes by itself.
func (p *pass) wait(j int) {
	job, row := &p.n.Jobs[j], &p.rows[j]
	if p.done[j] || job.Serial() {
		return
	}
	p.done[j] = true
	row.Start, row.By = p.from(j, job.From)
	row.Takes = job.Takes.Likely
	row.End = max(0, row.Start, job.over(row.Start, row.Takes))
}

// over is when a job that begins at a moment and takes so many days is over.
func (j *Job) over(start, takes float64) float64 {
	if j.Clock == nil || start < 0 {
		return start + takes
	}
	return j.Clock.After(start, takes)
}

// do reckons a serial job behind another, −1 for none.
func (p *pass) do(before, j int) {
	job, row := &p.n.Jobs[j], &p.rows[j]
	start, by := p.from(j, max(0, job.From))
	if p.now > start || before >= 0 && p.now == start && by < 0 {
		start, by = p.now, before
	}
	row.Saved = min(job.Takes.Likely, p.n.saved(before, j))
	row.Takes = job.Takes.Likely - row.Saved
	row.By = by
	if job.Kind == Work {
		row.Start, row.End = p.n.Own.During(start, row.Takes)
		p.hours, p.saved = p.hours+row.Takes, p.saved+row.Saved
	} else {
		row.Start, row.End = start, job.over(start, row.Takes)
	}
	p.now, p.done[j] = row.End, true
}

// Table is the jobs by their likely durations, in an order in which all serial jobs stand and
// each behind what comes first, see [Net.Arranged].
func (n *Net) Table(order []int) Table {
	p := n.pass()
	before := -1
	for _, j := range order {
		p.do(before, j)
		before = j
	}
	return p.table(order)
}

// Schedule is the table of the order that is wished, as far as it can be, see [Net.Arranged].
func (n *Net) Schedule(wished []int) Table {
	if len(wished) == 0 {
		order, p := n.dispatch()
		return p.table(order)
	}
	return n.Table(n.Arranged(wished))
}

// table adds what is waited for, and what follows all others, to the serial jobs.
func (p *pass) table(order []int) Table {
	n := p.n
	t := Table{Rows: p.rows, Order: order, Last: -1, Hours: p.hours, Saved: p.saved}
	for _, j := range n.order {
		if p.wait(j); !n.Jobs[j].Last && (t.Last < 0 || p.rows[j].End > t.Ready) {
			t.Ready, t.Last = p.rows[j].End, j
		}
	}
	for _, j := range n.order { // what follows all others
		job, row := &n.Jobs[j], &t.Rows[j]
		if !job.Last {
			continue
		}
		row.Start, row.By = max(t.Ready, job.From), t.Last
		row.End = job.over(row.Start, row.Takes)
		t.Ready, t.Last = row.End, j
	}
	for i := range t.Rows {
		row := &t.Rows[i]
		row.LatestStart, row.LatestEnd, row.Spare = math.NaN(), math.NaN(), math.NaN()
	}
	return t
}

// By reckons back from a moment by which all has to be done: how late each job may begin, and
// how many days it has to spare.
func (n *Net) By(t *Table, deadline float64) {
	after := make([]int, len(n.Jobs)) // the serial job behind each
	for i := range after {
		after[i] = -1
	}
	for i := 1; i < len(t.Order); i++ {
		after[t.Order[i-1]] = t.Order[i]
	}
	last := deadline
	for _, j := range n.order {
		if n.Jobs[j].Last {
			row := &t.Rows[j]
			row.LatestEnd, row.LatestStart = last, last-row.Takes
			row.Spare = row.LatestStart - row.Start
			last = row.LatestStart
		}
	}
	done := make([]bool, len(n.Jobs))
	var back func(j int) float64
	back = func(j int) float64 {
		job, row := &n.Jobs[j], &t.Rows[j]
		if job.Last || done[j] {
			return row.LatestStart
		}
		done[j] = true
		end := last
		for _, k := range n.thens.of(j) {
			end = min(end, back(k))
		}
		if k := after[j]; k >= 0 {
			end = min(end, back(k))
		}
		row.LatestEnd = end
		switch {
		case job.Kind == Work:
			row.LatestStart = n.Own.Before(end, row.Takes)
		case job.Clock != nil:
			row.LatestStart = job.Clock.Before(end, row.Takes)
		default:
			row.LatestStart = end - row.Takes
		}
		row.Spare = row.LatestStart - row.Start
		return row.LatestStart
	}
	for j := range n.Jobs {
		back(j)
	}
}

// Holds is what holds the last day up: the jobs that follow one another without a gap until
// everything is done, the first of them first; none without jobs.
func (t *Table) Holds() []int {
	if len(t.Rows) == 0 {
		return nil
	}
	var list []int
	for j := t.Last; j >= 0 && len(list) <= len(t.Rows); j = t.Rows[j].By {
		list = append(list, j)
	}
	slices.Reverse(list)
	return list
}
