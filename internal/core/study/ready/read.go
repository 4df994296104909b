package ready

import (
	"math"
	"slices"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// What pages show of the jobs beyond the gauge.

// Days are the day that the gauge shows and that of the middle; ok is false where there is no hour
// for what is to be done, ever.
func Days(r *facts.Ready) (day, middle calendar.Day, ok bool) {
	if r.Net == nil {
		return r.Today, r.Today, true
	}
	late := r.Outlook.Share(sure)
	return r.Morning(late), r.Morning(r.Outlook.Share(middling)), !math.IsInf(late, 0)
}

// Begin is how late a job may begin; an order's day is that on which it is placed.
func Begin(r *facts.Ready, job int) calendar.Day {
	if by, ok := OrderBy(r, job); ok && r.Jobs[job].Kind == facts.JobOrder {
		return by
	}
	return r.Day(r.Table.Rows[job].LatestStart)
}

// FirstDay is the first day on which something has to begin so that nothing is late; ok is false
// where nobody has said when all has to be done, or nothing has.
func FirstDay(r *facts.Ready) (day calendar.Day, ok bool) {
	if !r.Dated {
		return 0, false
	}
	for j := range r.Jobs {
		if by := Begin(r, j); !ok || by < day {
			day, ok = by, true
		}
	}
	return day, ok
}

// Of are the jobs by which a line of the plan comes and is fitted, −1 for none.
func Of(r *facts.Ready, line int) (order, fit int) {
	order, fit = -1, -1
	for j := range r.Jobs {
		if r.Jobs[j].Line != line {
			continue
		}
		switch r.Jobs[j].Kind {
		case facts.JobOrder:
			order = j
		case facts.JobFit, facts.JobShop:
			fit = j
		}
	}
	return order, fit
}

// Spare is how many days a line has: until it has to be ordered, or what its job may slip.
func Spare(f *facts.All, line, job int) (days float64, tooLate bool) {
	days = f.Ready.Table.Rows[job].Spare
	if f.Ready.Dated && ToOrder(&f.Plan.Lines[line]) {
		days = float64(Begin(&f.Ready, job) - f.Ready.Today)
	}
	return days, TooLate(days)
}

// Slowest is the order of some that comes last, and by how many days the others would wait for it in
// one parcel; −1 where they are fewer than two.
func Slowest(r *facts.Ready, orders []int) (job int, waits float64) {
	if len(orders) < 2 {
		return -1, 0
	}
	ends := slices.Clone(orders)
	slices.SortStableFunc(ends, func(a, b int) int { return int(math.Copysign(1, r.Table.Rows[b].End-r.Table.Rows[a].End)) })
	return ends[0], r.Table.Rows[ends[0]].End - r.Table.Rows[ends[1]].End
}

// Opening is a place that is apart, or a workshop that has the bike, with the jobs that are done
// meanwhile.
type Opening struct {
	Place    calendar.Place // "" for none
	Shop     bool
	Jobs     []int
	From, To float64
}

// Openings are what is apart when, in the order of the work: jobs that follow one another at one
// place find it open.
func Openings(r *facts.Ready) []Opening {
	var list []Opening
	type key struct {
		place calendar.Place
		shop  bool
	}
	open := map[key]int{} // that the job before has
	for _, j := range r.Order {
		job, row := &r.Jobs[j], &r.Table.Rows[j]
		keys := []key{{shop: job.Shop != ""}}
		if len(job.Places) > 0 {
			keys = nil
			for _, p := range job.Places {
				keys = append(keys, key{place: p})
			}
		}
		next := make(map[key]int, len(keys))
		for _, k := range keys {
			at, stays := open[k]
			if !stays {
				at = len(list)
				list = append(list, Opening{Place: k.place, Shop: k.shop, From: row.Start})
			}
			list[at].Jobs, list[at].To = append(list[at].Jobs, j), row.End
			next[k] = at
		}
		open = next
	}
	return list
}

// longest is how many days of one job are told one by one.
const longest = 200

// On are the first and the last day of a job.
func On(r *facts.Ready, job int) calendar.Span {
	row := &r.Table.Rows[job]
	from := r.Day(row.Start)
	return calendar.Span{From: from, To: max(from, r.Day(row.End-1e-6))}
}

// HoursOn is how many hours of one's own a day has.
func HoursOn(r *facts.Ready, day calendar.Day) float64 {
	t := float64(day - r.Today)
	return r.Net.Own.At(t+1) - r.Net.Own.At(t)
}

// WorkDays are those on which something of one's own is done, or the bike is away.
func WorkDays(r *facts.Ready) []calendar.Day {
	var days []calendar.Day
	for _, j := range r.Order {
		on := On(r, j)
		for day := on.From; day <= min(on.To, on.From+longest); day++ {
			if r.Net.Jobs[j].Kind == calendar.Visit || HoursOn(r, day) > 0 {
				days = append(days, day)
			}
		}
	}
	slices.Sort(days)
	return slices.Compact(days)
}

// grave are places at which somebody's life hangs on the work.
var grave = []calendar.Place{calendar.FrontWheel, calendar.RearWheel, calendar.Fork, calendar.FrontFluid, calendar.RearFluid, calendar.Bars, calendar.Swingarm}

// Grave reports whether somebody's life hangs on a job: brakes, steering, wheels, wires.
func Grave(job *facts.Job) bool {
	kind, ok := parts.KindOf(job.Slot)
	return ok && kind.Family == parts.Electrics || slices.ContainsFunc(job.Places, func(p calendar.Place) bool { return slices.Contains(grave, p) })
}

// WasSentBack reports whether what a line bought went back, or the wrong one came.
func WasSentBack(l *plan.Line) bool { return l.Decision == plan.SentBack || l.Supplied().Wrong != "" }
