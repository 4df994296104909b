package desk

import (
	"crypto/rand"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// Save puts a changed plan on top of a revision, once for the page that it comes from.
func (s *House) Save(r *http.Request, d *Desk, base string, changed *plan.Plan, summary string) error {
	// What was wrong before may stay until it is mended; nothing else may become so.
	if problem := worse(d.Plan, changed); problem != nil {
		return problem
	}
	id := r.PostFormValue("save")
	if !entry.ValidID(id) {
		id = ""
	}
	when := d.WhenOf(r.PostForm, FormErrors{})
	return s.Store.Save(r.Context(), s.Rider(r), d.ID, store.Change{
		Base: base, ID: id, Plan: when.Ran(changed, d.AsOf), Summary: summary, Seen: r.PostFormValue("bike_seen"), Day: when.Day, Odometer: when.Odometer,
	})
}

// Amend changes the plan as it is now, whatever the page was made from, once for the id that the
// device gave what it sends; a change without a summary is none. The id is what the answer names.
func (s *House) Amend(r *http.Request, d *Desk, change func(head *Desk) (changed *plan.Plan, summary string)) (id string, err error) {
	if id = r.PostFormValue("id"); !entry.ValidID(id) {
		id = rand.Text()
	}
	return id, s.Store.Amend(r.Context(), s.Rider(r), d.ID, id, func(p *plan.Plan) (*plan.Plan, string) { return change(d.With(p)) })
}

// Refused is a change that would leave the plan such that it could not be read again.
type Refused struct{ entry.Problem }

// worse is the first problem of a changed plan that it had not before.
func worse(was, now *plan.Plan) error {
	problems := now.Validate()
	if len(problems) == 0 {
		return nil
	}
	before := was.Validate()
	for _, p := range problems {
		if !slices.Contains(before, p) {
			return Refused{p}
		}
	}
	return nil
}

// StageForm is a stage whose page is a form: it is shown, tried on the bench as
// it is typed, and saved.
type StageForm struct {
	Stage string
	Title string // of what is typed, on the bench
	Save  string // what the button that keeps it says
	Read  func(d *Desk, typed url.Values) (changed *plan.Plan, summary []string, errs FormErrors)
	View  func(r *http.Request, d *Desk, typed url.Values, errs FormErrors) (FormBody, error)
	// Rows is set where what is sent are rows by themselves: each joins a plan that has changed
	// since, unless somebody else has changed the same one.
	Rows bool
	// Show, where it is set, is what the bench shows of a form as typed instead of
	// what would be saved.
	Show func(d *Desk, changed *plan.Plan, typed url.Values) *plan.Plan
	// Kept, where it is set, follows a save; it says where that leads.
	Kept func(s *House, r *http.Request, d *Desk, changed *plan.Plan) (href string, err error)
}

// FormBody is the body of a stage's page with its form.
type FormBody interface {
	Fields() []FieldView // as a browser would send them
	With(state FormState) FormBody
}

// Page shows the form as the plan has it.
func (f StageForm) Page(s *House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	bench, _, err := d.Tried(r, f.Stage)
	if err != nil {
		return err
	}
	body, err := f.View(r, d, nil, nil)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, f.Stage, bench, body)
}

// Try holds the form as typed against the one that is saved.
func (f StageForm) Try(s *House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	changed, _, errs := f.Read(d, r.PostForm)
	if len(errs) == 0 && f.Show != nil {
		changed = f.Show(d, changed, r.PostForm)
	}
	bench, err := f.Bench(d, changed, errs)
	if err != nil {
		return err
	}
	body, err := f.View(r, d, r.PostForm, errs)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, f.Stage, bench, body)
}

// Bench lays the form as typed on the bench. A remedy would be tried on the plan
// as it is saved, so there are none: first this form.
func (f StageForm) Bench(d *Desk, changed *plan.Plan, errs FormErrors) (*BenchView, error) {
	if len(errs) > 0 {
		return &BenchView{Title: f.Title, Problem: "Something typed cannot be used yet; what is wrong stands beside its field.", Errors: errs, Leave: d.Href(f.Stage)}, nil
	}
	bench, err := d.Bench(eval.Alternative{Label: f.Title, Plan: changed}, f.Stage, nil)
	if err == nil {
		bench.SaveAs = f.Save
	}
	return bench, err
}

// Keep saves the form, or shows it again with what was typed and why.
func (f StageForm) Keep(s *House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if base := r.PostFormValue("base"); base != d.Revision {
		if f.landed(s, r, d, base) {
			return f.kept(s, w, r, d, d.Plan)
		}
		joins, err := f.joins(s, r, d, base)
		if err != nil {
			return err
		}
		if !joins {
			return f.conflict(s, w, r, d)
		}
	}
	changed, summary, errs := f.Read(d, r.PostForm)
	if len(errs) > 0 {
		note := "Not saved. What is wrong stands beside its field; what you typed is still here."
		return f.again(s, w, r, d, http.StatusUnprocessableEntity, r.PostForm, errs, FormState{Note: note, Error: errs["form"]})
	}
	if len(summary) > 0 {
		err = s.Save(r, d, d.Revision, changed, strings.Join(summary, "; "))
	}
	var refused Refused
	if errors.As(err, &refused) {
		note := "Not saved: " + refused.Error() + ". What you typed is still here."
		return f.again(s, w, r, d, http.StatusUnprocessableEntity, r.PostForm, nil, FormState{Note: note})
	}
	var moved *store.Moved
	if errors.As(err, &moved) {
		return f.movedOn(s, w, r, d, moved)
	}
	if errors.Is(err, store.ErrStale) { // changed since this request read it
		if d, err = s.Open(r); err == nil {
			return f.conflict(s, w, r, d)
		}
	}
	if refused := refusedBy(err); refused != "" {
		return f.again(s, w, r, d, http.StatusConflict, r.PostForm, nil, FormState{Note: "Not saved: " + refused + " What you typed is still here."})
	}
	if err != nil {
		return err
	}
	return f.kept(s, w, r, d, changed)
}

// landed tells whether just this save is there already: the page was sent twice, or the
// answer to the first time was lost.
func (f StageForm) landed(s *House, r *http.Request, d *Desk, base string) bool {
	was, err := s.Store.PlanAt(r.Context(), s.Rider(r), d.ID, base)
	if err != nil {
		return false
	}
	changed, summary, errs := f.Read(d.With(was), r.PostForm)
	return len(errs) == 0 && len(summary) > 0 && s.Save(r, d, base, changed, strings.Join(summary, "; ")) == nil
}

// joins reports whether what is sent can be put on the plan as it is now: rows that nobody else
// has changed.
func (f StageForm) joins(s *House, r *http.Request, d *Desk, base string) (bool, error) {
	if !f.Rows {
		return false, nil
	}
	was, now, err := f.bothSides(s, r, d, base)
	if err != nil {
		return false, err
	}
	stood, stands := valuesOf(was), valuesOf(now)
	for key := range r.PostForm {
		if stood.Get(key) != stands.Get(key) {
			return false, nil
		}
	}
	return true, nil
}

// bothSides are the form's fields on the revision that it was opened on, and on the plan as it is now.
func (f StageForm) bothSides(s *House, r *http.Request, d *Desk, base string) (was, now []FieldView, err error) {
	opened, err := s.Store.PlanAt(r.Context(), s.Rider(r), d.ID, base)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil, store.ErrStale // a page of no known revision cannot be put together
	}
	if err != nil {
		return nil, nil, err
	}
	before, err := f.View(r, d.With(opened), nil, nil)
	if err != nil {
		return nil, nil, err
	}
	after, err := f.View(r, d, nil, nil)
	if err != nil {
		return nil, nil, err
	}
	return before.Fields(), after.Fields(), nil
}

// kept leads on from a form that is saved.
func (f StageForm) kept(s *House, w http.ResponseWriter, r *http.Request, d *Desk, changed *plan.Plan) error {
	if f.Kept == nil {
		return SeeOther(w, r, d.Href(f.Stage))
	}
	href, err := f.Kept(s, r, d, changed)
	if err != nil {
		return err
	}
	return SeeOther(w, r, href)
}

// conflict shows a form that was opened on an older revision again: what was
// typed, on top of the plan as it is now, and both sides of what differs.
func (f StageForm) conflict(s *House, w http.ResponseWriter, r *http.Request, d *Desk) error {
	d.look()
	was, now, err := f.bothSides(s, r, d, r.PostFormValue("base"))
	if err != nil {
		return err
	}
	typed, conflicts := merge(was, now, r.PostForm)
	note := "Not saved yet: the plan has changed since this page was opened. What you typed stands in the form, on top of the plan as it is now. Look at what differs, then save."
	return f.again(s, w, r, d, http.StatusConflict, typed, nil, FormState{Note: note, Conflicts: conflicts})
}

// movedOn shows a form again of whose fields the bike says something else than the plan did:
// what was typed, on top of the bike as it is now, and both sides of what differs. Sent once
// more, it goes over what was shown.
func (f StageForm) movedOn(s *House, w http.ResponseWriter, r *http.Request, d *Desk, moved *store.Moved) error {
	d.look()
	was, err := f.View(r, d, nil, nil)
	if err != nil {
		return err
	}
	is := moved.Machine
	is.Garage, is.Readings = d.Plan.Garage, d.Plan.Readings
	now, err := f.View(r, d.With(d.Plan.Taking(is)), nil, nil)
	if err != nil {
		return err
	}
	typed, conflicts := merge(was.Fields(), now.Fields(), r.PostForm)
	d.seen = moved.Head
	note := "Not saved yet: the bike has moved on since this plan took it over. What you typed stands in the form, on top of the bike as it is now. Look at what differs, then save."
	return f.again(s, w, r, d, http.StatusConflict, typed, nil, FormState{Note: note, Conflicts: conflicts})
}

func (f StageForm) again(s *House, w http.ResponseWriter, r *http.Request, d *Desk, status int, typed url.Values, errs FormErrors, state FormState) error {
	d.look()
	body, err := f.View(r, d, typed, errs)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, status, d, f.Stage, nil, body.With(state))
}

// Form is the routes of a page that is a form: looked at, kept, and tried as it is
// typed.
func Form(f StageForm) []Route {
	return []Route{Get("/"+f.Stage, f.Page), Post("/"+f.Stage, f.Keep), Post("/"+f.Stage+"/try", f.Try)}
}
