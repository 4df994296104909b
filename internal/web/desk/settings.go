package desk

import (
	"net/http"
	"net/url"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
)

// Settings are a page of what is set by hand, tried with what else lies on the bench.
type Settings struct {
	StageForm
	of func(d *Desk, s Shown) (FormBody, error)
}

// Shown is what a page of settings shows: the plan with what lies on the bench and, where
// it can be used, what is typed.
type Shown struct {
	Tried Laid
	Form  url.Values // as it was sent, nil where nothing was
	Errs  FormErrors
	Query url.Values // of the address
	Plan  *plan.Plan
	After *eval.LoadoutReport // of that plan, nil without a bike
	State FormState
}

// Touched reports whether it is another plan than the one that is saved.
func (s Shown) Touched() bool { return s.Tried.Any() || s.Form != nil }

// SettingsOf is the page of a form; saving it leaves the parts on the bench.
func SettingsOf(f StageForm, of func(d *Desk, s Shown) (FormBody, error)) Settings {
	page := Settings{f, of}
	page.View = func(r *http.Request, d *Desk, typed url.Values, errs FormErrors) (FormBody, error) {
		tried, err := d.Laid(r)
		if err != nil {
			return nil, err
		}
		return page.body(d, r, tried, typed, errs)
	}
	page.Kept = func(_ *House, r *http.Request, d *Desk, changed *plan.Plan) (string, error) {
		l, err := d.With(changed).read(r, url.Values{"try": r.URL.Query()["try"]})
		return d.Href(f.Stage, l.Query()...), err
	}
	return page
}

// body is the page of the plan as tried and typed.
func (f Settings) body(d *Desk, r *http.Request, tried Laid, typed url.Values, errs FormErrors) (FormBody, error) {
	s := Shown{
		Tried: tried, Form: typed, Errs: errs, Query: r.URL.Query(), Plan: tried.Plan,
		State: FormState{Error: errs["form"], Try: d.Href(f.Stage+"/try", tried.Query()...), Save: d.Href(f.Stage, tried.Query()...)},
	}
	if typed != nil && len(errs) == 0 {
		s.Plan, _, _ = f.Read(d.With(s.Plan), typed)
	}
	if d.Plan.Bike != nil {
		var err error
		if s.After, err = d.Evaluate(s.Plan); err != nil {
			return nil, err
		}
	}
	return f.of(d, s)
}

// Routes of the page.
func (f Settings) Routes() []Route {
	return []Route{Get("/"+f.Stage, f.Page), Post("/"+f.Stage, f.Keep), Post("/"+f.Stage+"/try", f.try)}
}

// try holds the settings as typed, with the parts on the bench, against the plan.
func (f Settings) try(s *House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	tried, err := d.Laid(r)
	if err != nil {
		return err
	}
	changed, _, errs := f.Read(d.With(tried.Plan), r.PostForm)
	bench, err := f.Bench(d, changed, errs)
	if err != nil {
		return err
	}
	if tried.Any() && len(errs) == 0 {
		bench.Title = tried.Title() + ", set as typed"
	}
	body, err := f.body(d, r, tried, r.PostForm, errs)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, f.Stage, bench, body)
}
