package desk

import (
	"net/http"
	"net/url"

	"valiantmule/internal/core/plan"
)

// Settings are a page of what is set by hand, tried with the parts that lie on the bench.
type Settings struct {
	StageForm
	of func(d *Desk, r *http.Request, tried []plan.Choice, typed url.Values, errs FormErrors) (FormBody, error)
}

// SettingsOf is the page of a form; saving it leaves the parts on the bench.
func SettingsOf(f StageForm, of func(d *Desk, r *http.Request, tried []plan.Choice, typed url.Values, errs FormErrors) (FormBody, error)) Settings {
	f.View = func(r *http.Request, d *Desk, typed url.Values, errs FormErrors) (FormBody, error) {
		tried, err := d.Choices(r.URL.Query()["try"])
		if err != nil {
			return nil, err
		}
		return of(d, r, tried, typed, errs)
	}
	f.Kept = func(_ *House, r *http.Request, d *Desk, changed *plan.Plan) (string, error) {
		tried, err := d.With(changed).Choices(r.URL.Query()["try"])
		return d.Href(f.Stage, Tries(tried)...), err
	}
	return Settings{f, of}
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
	tried, err := d.Choices(r.URL.Query()["try"])
	if err != nil {
		return err
	}
	changed, _, errs := f.Read(d.With(d.Plan.With(tried...)), r.PostForm)
	bench, err := f.Bench(d, changed, errs)
	if err != nil {
		return err
	}
	if len(tried) > 0 && len(errs) == 0 {
		bench.Title = Title(tried) + ", set as typed"
	}
	body, err := f.of(d, r, tried, r.PostForm, errs)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, f.Stage, bench, body)
}
