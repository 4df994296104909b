package ready

import (
	"net/http"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	study "valiantmule/internal/core/study/ready"
	"valiantmule/internal/web/desk"
)

// Keys of what an address turns about time.
const (
	wayKey   = "way"
	orderKey = "job"
)

// readyOf are the facts of time of a desk's plan as a report has them; there are some without a bike too.
func readyOf(d *desk.Desk, report *eval.LoadoutReport) *facts.All {
	if d.Plan.Bike != nil && report != nil {
		return report.Facts
	}
	return asks(d)
}

// asks are the facts of a plan that the order of its jobs follows from, of the plan as its rider has
// it: what is changed of it can be saved.
func asks(d *desk.Desk) *facts.All {
	f := facts.Unknown()
	f.Plan, f.AsOf = d.Plan, d.AsOf
	f.Ready = study.Jobs(&f)
	return &f
}

// wayTurn takes a way out for what cannot be there in time.
var wayTurn = desk.Turn{Key: wayKey, Read: func(_ *desk.House, _ *http.Request, d *desk.Desk, values []string) ([]desk.Turned, error) {
	var list []desk.Turned
	for _, value := range values {
		f := asks(d)
		way, ok := study.WayOf(f, value)
		if !ok {
			continue
		}
		list = append(list, desk.Turned{Value: value, Name: way.Name, Said: way.Said, Act: "Do it so", On: way.On})
		d = d.With(way.On(d.Plan))
	}
	return list, nil
}}

// better is the value by which the order is searched.
const better = "better"

// before stands between a job and the one that it is put before.
const before = "|"

// orderTurn puts the jobs in another order: one before another, or as a search finds it.
var orderTurn = desk.Turn{Key: orderKey, Read: func(_ *desk.House, _ *http.Request, d *desk.Desk, values []string) ([]desk.Turned, error) {
	var list []desk.Turned
	for _, value := range values {
		r := asks(d).Ready
		order, name := ordered(&r, value)
		if order == nil {
			continue
		}
		changed := study.Reorder(d.Plan, &r, order).Ready.Order
		on := func(p *plan.Plan) *plan.Plan {
			now := *p
			now.Ready.Order = changed
			return &now
		}
		list = append(list, desk.Turned{Value: value, Name: name, Said: name, Act: "Keep this order", On: on})
		d = d.With(on(d.Plan))
	}
	return list, nil
}}

// ordered is the order that a value stands for, and how it is called; nil for none.
func ordered(r *facts.Ready, value string) (order []int, name string) {
	if r.Net == nil {
		return nil, ""
	}
	if value == better {
		return r.Net.Better(r.Order).Order, "A better order of the work"
	}
	id, then, _ := strings.Cut(value, before)
	job := r.Index(id)
	if job < 0 {
		return nil, ""
	}
	next := r.Index(then)
	if next < 0 && then != "" {
		return nil, ""
	}
	name = r.Jobs[job].Name + " last"
	if next >= 0 {
		name = r.Jobs[job].Name + " before " + r.Jobs[next].Name
	}
	return study.Moved(r, job, next), name
}
