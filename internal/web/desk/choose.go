package desk

import (
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// Choose puts what lies on the bench into the plan.
func (s *House) Choose(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	l, err := d.read(r, r.PostForm)
	if err != nil {
		return err
	}
	l = l.decided(d.Plan, r.PostForm)
	if !l.Any() || l.Plan.Bike == nil {
		return store.ErrNotFound
	}
	stage := s.PageOf(r.PostFormValue("stage"))
	changed, problem := d.rated(l.Plan, r.PostForm)
	if problem != "" {
		return s.Show(w, r, http.StatusUnprocessableEntity, "stale", "That rate cannot be used", staleView{"Nothing was fitted. " + problem + ".", d.Href(stage, l.Query()...)})
	}
	err = s.Save(r, d, r.PostFormValue("base"), changed, l.said(d))
	if errors.Is(err, store.ErrStale) {
		return s.stale(w, r, d, stage, "Nothing was fitted. Here it is against the plan as it is now.", l)
	}
	if err != nil {
		return err
	}
	return SeeOther(w, r, d.Href(stage))
}

// decided is what lies on the bench of a plan with what the form says of the parts: whether they are
// needed, and whether they are chosen or only thought of.
func (l Laid) decided(p *plan.Plan, form url.Values) Laid {
	need := plan.Need(form.Get("need"))
	if need != plan.Needed && need != plan.Wanted {
		need = ""
	}
	decision := plan.Decision(form.Get("decision"))
	if decision == plan.Chosen || !entry.Among(plan.Decisions(), string(decision)) {
		decision = ""
	}
	l.Tried = slices.Clone(l.Tried)
	for i := range l.Tried {
		l.Tried[i].Need = need
		l.Tried[i].First = FirstOf(form)
		if l.Tried[i].Part != nil {
			l.Tried[i].Decision = decision
		}
	}
	l.Plan = l.On(p)
	return l
}

// rated is a plan with the rates that came with a choice; problem says what is wrong with
// one.
func (d *Desk) rated(p *plan.Plan, form url.Values) (changed *plan.Plan, problem string) {
	copied := *p
	copied.Rates = slices.Clone(p.Rates)
	for i, from := range form["rate_from"] {
		if i >= len(form["rate"]) || strings.TrimSpace(form["rate"][i]) == "" {
			continue
		}
		rate, err := d.Units.Rate(form["rate"][i])
		if err != nil {
			return p, "1 " + from + ": " + err.Error()
		}
		copied.Rates = append(copied.Rates, plan.Rate{From: from, Rate: rate, On: d.AsOf})
	}
	if len(copied.Rates) == len(p.Rates) {
		return p, ""
	}
	if problems := copied.Validate(); len(problems) > 0 {
		return p, problems[0].Error()
	}
	return &copied, ""
}

// staleView says that the plan has moved on, and where the same thing can be
// tried again.
type staleView struct{ What, Href string }

// stale says that the plan has changed since the page was made.
func (s *House) stale(w http.ResponseWriter, r *http.Request, d *Desk, stage, what string, l Laid) error {
	return s.Show(w, r, http.StatusConflict, "stale", "The plan has changed", staleView{what, d.Href(stage, l.Query()...)})
}
