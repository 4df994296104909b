package eval

import (
	"reflect"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// again is the report of a change of the plan that another report is of: only steps and
// rules that need something that has changed are run again.
func (p *Program) again(was *LoadoutReport, of filled, l *plan.Loadout) LoadoutReport {
	before, now := was.Facts, of.plan
	if now.Bike == nil || before.Plan.Bike != now.Bike {
		return p.report(of, p.shared(of, before.AsOf, before.Shelf), l)
	}
	f := *before
	f.Plan, f.Guessed, f.Loadout, f.Built, f.Builds = now, of.guessed, l, now.Build(l.ID), nil
	changed := p.ofPlan(&f, touched(before, &f), 0)
	r := &study.Run{All: &f, Figures: slices.Clone(was.center), Table: &p.table, Where: was.where}
	f.Figured = p.figured(r.Figures)
	changed = p.rerun(r, changed, 0)
	return p.reported(of, r, was.spoke, changed)
}

// rerun runs the loadout's steps again that need something that has changed, or that give
// some groups; it returns what has changed then.
func (p *Program) rerun(r *study.Run, changed, give facts.Set) facts.Set {
	for i := range p.of {
		s := &p.of[i]
		if s.Needs&changed == 0 && s.Gives&give == 0 {
			continue
		}
		changed |= s.Gives
		r.Forget(s.Gives)
		for _, id := range s.Figures {
			at := p.table.Place[id]
			r.Figures[at] = study.Begin(p.rows[at], r.Plan.Currency)
		}
		p.step(r, s)
	}
	return changed
}

// touched is what of all that is put in is another than before, of one bike. What is shared
// by both plans is the same; what is not may be.
func touched(before, after *facts.All) facts.Set {
	was, now := before.Plan, after.Plan
	set := touchedParts(before.Built, after.Built)
	note := func(same bool, what facts.Set) {
		if !same {
			set |= what
		}
	}
	note(reflect.DeepEqual(&was.Brief, &now.Brief) && reflect.DeepEqual(was.Risk, now.Risk), facts.InBrief)
	note(shared(was.Lines, now.Lines) && shared(was.Rates, now.Rates) && was.Currency == now.Currency, facts.InLines)
	note(before.Loadout == after.Loadout && shared(was.Loadouts, now.Loadouts) && was.Clicks == now.Clicks && was.Baseline.Set == now.Baseline.Set, facts.InLoadout)
	note(was.ForkThrough == now.ForkThrough, facts.InLoadout|facts.InTime) // it is work too
	looked := shared(was.Baseline.Answers, now.Baseline.Answers) && shared(was.Baseline.Changes, now.Baseline.Changes) && shared(was.Baseline.AsBuilt, now.Baseline.AsBuilt)
	note(looked, facts.InLooked)
	note(was.Route == now.Route && shared(was.Group, now.Group) && shared(was.Reports, now.Reports), facts.InWay)
	note(shared(was.Readings, now.Readings), facts.InLog)
	note(sameTime(was, now), facts.InTime)
	note(was.BoxSits == now.BoxSits && shared(was.Wired, now.Wired) && shared(was.Seen, now.Seen) && shared(was.Trials, now.Trials) && shared(was.Touches, now.Touches), facts.InRest)
	return set
}

// sameTime reports whether two plans say the same of time, and of who fits.
func sameTime(was, now *plan.Plan) bool {
	if x, y := &was.Brief, &now.Brief; x.Start != y.Start || x.Ships != y.Ships || x.Spanner != y.Spanner || x.Practice != y.Practice {
		return false
	}
	a, b := &was.Ready, &now.Ready
	return a.Weekly == b.Weekly && a.Week == b.Week && a.Ride == b.Ride && a.Margin == b.Margin && shared(a.Away, b.Away) && shared(a.Sellers, b.Sellers) &&
		shared(a.Shops, b.Shops) && shared(a.Jobs, b.Jobs) && shared(a.Firsts, b.Firsts) && shared(a.Done, b.Done) && shared(a.Order, b.Order)
}

// shared reports whether two lists are one.
func shared[T any](a, b []T) bool {
	return len(a) == len(b) && (len(a) == 0 || &a[0] == &b[0])
}

// touchedParts tells by families which parts are others, and whether tags or figures may be.
func touchedParts(was, now *plan.Built) facts.Set {
	set := facts.Set(0)
	for kind := range was.Against(now) {
		set |= facts.OfFamily(kind.Family)
	}
	if !was.SameTags(now) {
		set |= facts.InTags
	}
	if !was.SameFigures(now) {
		set |= facts.InFigures
	}
	if !was.SameOff(now) {
		set |= facts.InParts | facts.InTags
	}
	return set
}
