package calendar

import "slices"

// reach is the least and the most of something in any scenario.
type reach struct{ low, high float64 }

// later moves both to another's where that is later.
func (r *reach) later(o reach) { r.low, r.high = max(r.low, o.low), max(r.high, o.high) }

// look finds the waits that something may be late by, in an order of the serial jobs: those that
// may last longer than all else must. It goes the way through the jobs once, with the least and
// the most of each.
func (l *lanes) look(order []int) {
	n, own := l.n, l.n.Own
	var now, hours reach // when the last serial job was over; by hours of one's own while byHours
	byHours, before := true, -1
	for at, j := range order {
		job := &n.Jobs[j]
		from, waits := l.free(j)
		saved := n.saved(before, j)
		takes := reach{max(0, job.Takes.Low-saved), max(0, job.Takes.High-saved)}
		if job.Kind == Work {
			if !byHours {
				hours, byHours = reach{own.At(now.low), own.At(now.high)}, true
			}
			if waits {
				begins := own.Since
				if takes.low <= hair { // what takes nothing is over at once, whatever the day
					begins = own.Until
				}
				l.floor(j, from.low, begins(hours.low))
				hours.later(reach{own.At(from.low), own.At(from.high)})
				l.late(j, begins(hours.low))
			}
			hours.low, hours.high = hours.low+takes.low, hours.high+takes.high
			if at == len(order)-1 || l.feeds(j, order[at+1]) {
				now.later(reach{own.Until(hours.low), own.Until(hours.high)})
				now.later(from)
			}
		} else {
			l.floor(j, from.low, now.low)
			now.later(from)
			l.late(j, now.low)
			now, byHours = reach{job.over(now.low, takes.low), job.over(now.high, takes.high)}, false
		}
		l.over[j], before = now, j
	}
	l.last = now.low
	for j := range n.Jobs {
		if !n.Jobs[j].Serial() && !n.Jobs[j].Last {
			l.last = max(l.last, l.wide(j).low)
		}
	}
	for j := range n.Jobs {
		if !n.Jobs[j].Serial() && !n.Jobs[j].Last && l.over[j].high > l.last {
			l.mark(j)
		}
	}
}

// floor notes the moment before which a serial job begins in no scenario, where it does not follow from the job before.
func (l *lanes) floor(j int, low, follows float64) {
	if low > follows {
		l.least[j] = low
	}
}

// free is when a serial job is free to begin, by the waits before it; held reports whether something holds it at all.
func (l *lanes) free(j int) (from reach, held bool) {
	job := &l.n.Jobs[j]
	from = reach{max(0, job.From), max(0, job.From)}
	held = from.high > 0
	for _, first := range l.n.Firsts(j) {
		if !l.n.Jobs[first].Serial() {
			from.later(l.wide(first))
			held = true
		}
	}
	return from, held
}

// wide is when a wait is over.
func (l *lanes) wide(j int) reach {
	if l.done[j] {
		return l.over[j]
	}
	l.done[j] = true
	job := &l.n.Jobs[j]
	start := reach{job.From, job.From}
	for _, first := range l.n.Firsts(j) {
		if l.n.Jobs[first].Serial() {
			start.later(l.over[first])
		} else {
			start.later(l.wide(first))
		}
	}
	end := reach{job.over(start.low, job.Takes.Low), job.over(start.high, job.Takes.High)}
	end.later(reach{max(0, start.low), max(0, start.high)})
	l.over[j] = end
	return end
}

// late marks the waits before a job that may last beyond a moment.
func (l *lanes) late(j int, moment float64) {
	for _, first := range l.n.Firsts(j) {
		if !l.n.Jobs[first].Serial() && l.over[first].high > moment {
			l.mark(first)
		}
	}
}

// mark notes a wait, with all that it waits for, as one that something may be late by.
func (l *lanes) mark(j int) {
	if l.need[j] {
		return
	}
	l.need[j] = true
	for _, first := range l.n.Firsts(j) {
		if l.n.Jobs[first].Serial() {
			l.need[first] = true
		} else {
			l.mark(first)
		}
	}
}

// feeds reports whether somebody has to know when a job of one's own is over: a wait behind it,
// or a visit that follows.
func (l *lanes) feeds(j, following int) bool {
	return l.n.Jobs[following].Kind != Work || slices.ContainsFunc(l.n.thens.of(j), func(k int) bool { return !l.n.Jobs[k].Serial() })
}
