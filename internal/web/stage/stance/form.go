package stance

import (
	"net/http"
	"net/url"
	"slices"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// settings is a page of what is set by hand, tried with the parts that lie on the bench.
type settings struct {
	desk.StageForm
	of func(d *desk.Desk, r *http.Request, tried []plan.Choice, typed url.Values, errs desk.FormErrors) (desk.FormBody, error)
}

// settingsOf is the page of a form; saving it leaves the parts on the bench.
func settingsOf(f desk.StageForm, of func(d *desk.Desk, r *http.Request, tried []plan.Choice, typed url.Values, errs desk.FormErrors) (desk.FormBody, error)) settings {
	f.View = func(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		tried, err := d.Choices(r.URL.Query()["try"])
		if err != nil {
			return nil, err
		}
		return of(d, r, tried, typed, errs)
	}
	f.Kept = func(_ *desk.House, r *http.Request, d *desk.Desk, changed *plan.Plan) (string, error) {
		tried, err := d.With(changed).Choices(r.URL.Query()["try"])
		return d.Href(f.Stage, desk.Tries(tried)...), err
	}
	return settings{f, of}
}

func (f settings) routes() []desk.Route {
	return []desk.Route{desk.Get("/"+f.Stage, f.Page), desk.Post("/"+f.Stage, f.Keep), desk.Post("/"+f.Stage+"/try", f.try)}
}

// try holds the settings as typed, with the parts on the bench, against the plan.
func (f settings) try(s *desk.House, w http.ResponseWriter, r *http.Request) error {
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
		bench.Title = desk.Title(tried) + ", set as typed"
	}
	body, err := f.of(d, r, tried, r.PostForm, errs)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, f.Stage, bench, body)
}

// loadoutOf is a copy of the plan with a loadout on view of its own.
func loadoutOf(d *desk.Desk) (*plan.Plan, *plan.Loadout) {
	changed := *d.Plan
	changed.Loadouts = slices.Clone(d.Plan.Loadouts)
	l, err := changed.Loadout(d.Loadout)
	if err != nil {
		l = &plan.Loadout{}
	}
	return &changed, l
}

// offered are the fields that a form has sent; what it did not show stays as it is.
func offered(fields []plan.Field, form url.Values) []plan.Field {
	return slices.DeleteFunc(fields, func(f plan.Field) bool { return !form.Has(f.Key) })
}

// readSits takes where the rider sits.
func readSits(form url.Values, l *plan.Loadout, errs desk.FormErrors) (changed []string) {
	if !form.Has("sits") {
		return nil
	}
	was, now := l.Sits, plan.Sit(form.Get("sits"))
	if !slices.ContainsFunc(plan.Sits(), func(o plan.Option) bool { return o.Value == string(now) }) {
		errs["sits"] = "choose one of them"
		return nil
	}
	if l.Sits = now; now != was {
		changed = append(changed, desk.ChangedWords("Rider sits", plan.NameOf(plan.Sits(), string(was)), plan.NameOf(plan.Sits(), string(now))))
	}
	return changed
}

// sitsOf are the places as a form has them, or the loadout.
func sitsOf(form url.Values, l *plan.Loadout) []desk.OptionView {
	return desk.OptionsOf(plan.Sits(), desk.Typed(form, "sits", string(l.Sits)), "")
}
