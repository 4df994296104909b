package ready

import (
	"slices"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
)

// Act is something that happens to an order or a job, said in two taps.
type Act struct {
	Key, Name string
	Letter    string // the key that says it
	Said      string // in the history, before what it happened to
	of        func(f *facts.All, line int) bool
	on        func(f *facts.All, line int) *plan.Plan
}

// slipDays is how much later something comes that slips.
const slipDays = 7

// acts are what happens to orders.
var acts = []Act{
	{"ordered", "Ordered today", "o", "Ordered", func(f *facts.All, at int) bool { return ToOrder(&f.Plan.Lines[at]) }, func(f *facts.All, at int) *plan.Plan {
		return f.Plan.Supplying(at, func(s *plan.Supply) { s.Ordered = f.AsOf })
	}},
	{"came", "It came", "m", "Came", coming, func(f *facts.All, at int) *plan.Plan {
		return f.Plan.Supplying(at, func(s *plan.Supply) { s.Came = f.AsOf })
	}},
	{"wrong", "The wrong one came", "n", "The wrong one came, ordered again", coming, func(f *facts.All, at int) *plan.Plan {
		return f.Plan.Supplying(at, func(s *plan.Supply) { s.Wrong, s.Ordered, s.Promised, s.Came = f.AsOf, f.AsOf, "", "" })
	}},
	{"slip", "A week later", "s", "Comes a week later", coming, func(f *facts.All, at int) *plan.Plan {
		day := f.Ready.Today
		if j := orderOf(f, at); j >= 0 {
			day = max(day, f.Ready.Morning(f.Ready.Table.Rows[j].End))
		}
		later := (day + slipDays).String()
		return f.Plan.Supplying(at, func(s *plan.Supply) {
			if f.Plan.Lines[at].Decision == plan.Ordered {
				s.Promised = later
			} else {
				s.NotBefore = (f.Ready.Today + slipDays).String()
			}
		})
	}},
}

// coming reports whether a line's part is not here yet.
func coming(f *facts.All, at int) bool {
	l := &f.Plan.Lines[at]
	return ToOrder(l) || l.Decision == plan.Ordered && l.Supplied().Came == ""
}

// orderOf is the job of a line that waits for its part, −1 for none.
func orderOf(f *facts.All, line int) int {
	return slices.IndexFunc(f.Ready.Jobs, func(j facts.Job) bool { return j.Line == line && j.Kind == facts.JobOrder })
}

// Acts are what can happen to a line.
func Acts(f *facts.All, line int) []Act {
	return slices.DeleteFunc(slices.Clone(acts), func(a Act) bool { return line < 0 || line >= len(f.Plan.Lines) || !a.of(f, line) })
}

// Happened is the plan after an act on a line, and what the history says; ok is false where that cannot be.
func Happened(f *facts.All, act string, line int) (changed *plan.Plan, said string, ok bool) {
	for _, a := range Acts(f, line) {
		if a.Key == act {
			return a.on(f, line), a.Said + ": " + f.Plan.Lines[line].Title(), true
		}
	}
	return nil, "", false
}

// Done is the plan with a job done today: what is fitted is on the bike, what came is here, what
// was to be put right is. ok is false for a job that there is not.
func Done(f *facts.All, id string) (changed *plan.Plan, said string, ok bool) {
	at := f.Ready.Index(id)
	if at < 0 {
		return nil, "", false
	}
	job := &f.Ready.Jobs[at]
	said = "Done: " + job.Name
	switch {
	case job.Kind == facts.JobOrder && job.Line >= 0:
		return f.Plan.Supplying(job.Line, func(s *plan.Supply) { s.Came = f.AsOf }), said, true
	case (job.Kind == facts.JobFit || job.Kind == facts.JobShop) && job.Line >= 0 && f.Plan.Lines[job.Line].Part != nil:
		return f.Plan.Altered(job.Line, func(l *plan.Line) { *l = f.Plan.Fit(*l) }), said, true
	case job.Kind == facts.JobRight && job.Line < 0 && isCheck(job.Key):
		answer, _ := f.Plan.Baseline.Answer(job.Key)
		answer.Verdict = baseline.Done
		return f.Plan.Answered(answer), said, true
	}
	p := *f.Plan
	p.Ready.Done = append(slices.Clone(p.Ready.Done), plan.DoneJob{Job: id, On: f.AsOf})
	return &p, said, true
}

func isCheck(key string) bool { _, ok := baseline.CheckOf(key); return ok }

// Again is the plan with a job that was done to be done again.
func Again(p *plan.Plan, id string) *plan.Plan {
	changed := *p
	changed.Ready.Done = slices.DeleteFunc(slices.Clone(p.Ready.Done), func(d plan.DoneJob) bool { return d.Job == id })
	return &changed
}

// Lost is the plan with a day on which nothing is done.
func Lost(p *plan.Plan, day string) *plan.Plan {
	changed := *p
	changed.Ready.Away = append(slices.Clone(p.Ready.Away), plan.Span{From: day, Why: "lost"})
	return &changed
}

// Reorder is the plan with its jobs in another order, by their places.
func Reorder(p *plan.Plan, r *facts.Ready, order []int) *plan.Plan {
	changed := *p
	changed.Ready.Order = make([]string, len(order))
	for i, j := range order {
		changed.Ready.Order[i] = r.Jobs[j].ID()
	}
	return &changed
}

// Moved is the order of the work with one job put before another, or with then < 0 at the end; what has to
// be over first goes along. nil where one of them is none.
func Moved(r *facts.Ready, job, then int) []int {
	if r.Net == nil || job < 0 || !r.Net.Jobs[job].Serial() {
		return nil
	}
	order := slices.DeleteFunc(slices.Clone(r.Order), func(j int) bool { return j == job })
	at := len(order)
	if then >= 0 {
		if at = slices.Index(order, then); at < 0 {
			return nil
		}
	}
	return r.Net.Arranged(slices.Insert(order, at, job))
}

// OrderBy is the last day on which a line that waits may be ordered so that it is there in time, four times in
// five by its own days; ok is false where nobody has said when all has to be done.
func OrderBy(r *facts.Ready, job int) (day calendar.Day, ok bool) {
	if job < 0 || !r.Dated {
		return 0, false
	}
	return r.Day(r.Table.Rows[job].LatestEnd - r.Net.Jobs[job].Takes.Quantile(sure)), true
}
