package web

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"github.com/bojanz/currency"
	"github.com/go-chi/chi/v5"
	"golang.org/x/text/language"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

type garageView struct {
	Plans          []planCard
	Pages          desk.Paging
	Removed        []removedView
	Name, Currency string // of a new plan, as typed
	Errors         desk.FormErrors
}

// plansAPage is how many plans a page of the garage shows.
const plansAPage = 12

// removedView is a plan that can still be brought back.
type removedView struct{ ID, Name, Until string }

// planCard is a plan as it stands in the garage.
type planCard struct {
	ID, Name, Bike, Trip, Changed string
	State                         desk.StateView
	Strip                         desk.StripView
	First                         []desk.PointView // what leads
	Next                          *desk.LinkView   // in the work, where nothing does
}

func (s *Server) garage(w http.ResponseWriter, r *http.Request) error {
	return s.showGarage(w, r, http.StatusOK, garageView{Currency: currencyOf(r)})
}

// currencyOf is the currency of the country that the browser's language names, to be changed;
// the euro where it names none.
func currencyOf(r *http.Request) string {
	for _, country := range countriesOf(r) {
		if code, ok := currency.ForCountryCode(country); ok {
			return code
		}
	}
	return "EUR"
}

// unitsOf are the units of the first country that the browser's language names, to be changed;
// metric where they are that, or none is named.
func unitsOf(r *http.Request) words.Units {
	countries := countriesOf(r)
	if len(countries) == 0 {
		return nil
	}
	presets := map[string]string{"US": "US", "GB": "UK"}
	for _, p := range words.Presets() {
		if p.Name == presets[countries[0]] {
			return p.Units
		}
	}
	return nil
}

// countriesOf are the countries that the browser's language names.
func countriesOf(r *http.Request) []string {
	tags, _, err := language.ParseAcceptLanguage(r.Header.Get("Accept-Language"))
	if err != nil {
		return nil
	}
	var list []string
	for _, tag := range tags {
		if region, sure := tag.Region(); sure == language.Exact {
			list = append(list, region.String())
		}
	}
	return list
}

func (s *Server) showGarage(w http.ResponseWriter, r *http.Request, status int, view garageView) error {
	ids, err := s.Store.PlanIDs(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	view.Pages = desk.PagesOf(len(ids), plansAPage, r.URL.Query().Get("page"), func(n string) string { return "/garage?page=" + n })
	plans, err := s.Store.PlansOf(r.Context(), s.Rider(r), ids[view.Pages.From:view.Pages.To])
	if err != nil {
		return err
	}
	shelf, version, err := s.Store.Shelf(r.Context())
	if err != nil {
		return err
	}
	for _, snapshot := range plans {
		p := snapshot.Plan
		last := p.Loadouts[len(p.Loadouts)-1]
		d, err := s.DeskOf(s.Rider(r), snapshot, shelf, version, last.ID, desk.UnitsOf(r))
		if err != nil {
			return err
		}
		card := planCard{ID: snapshot.ID, Name: p.Name, Bike: "No bike yet", Changed: snapshot.MadeAt.Format("2 January 2006, 15:04 UTC"),
			Trip: trip(&p.Brief), State: desk.StateOf(d.Report.Worst())}
		if p.Bike != nil {
			card.Bike = p.Bike.Name
		}
		card.Strip = d.Row()
		if p.Bike != nil {
			card.First, card.Next = d.Leads("")
		}
		view.Plans = append(view.Plans, card)
	}
	removed, err := s.Store.Removed(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	for _, gone := range removed {
		view.Removed = append(view.Removed, removedView{gone.ID, gone.Name, gone.Until().Format("2 January 2006")})
	}
	return s.Show(w, r, status, "garage", "Garage", view)
}

// removePlan throws a plan away; the garage can bring it back for a while.
func (s *Server) removePlan(w http.ResponseWriter, r *http.Request) error {
	if err := s.Store.Remove(r.Context(), s.Rider(r), chi.URLParam(r, "plan")); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/garage#removed")
}

func (s *Server) recoverPlan(w http.ResponseWriter, r *http.Request) error {
	if err := s.Store.Recover(r.Context(), s.Rider(r), r.PostFormValue("plan")); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/garage")
}

// trip is the brief in a few words.
func trip(b *plan.Brief) string {
	var parts []string
	if b.Distance.Known() {
		parts = append(parts, b.Distance.String())
	}
	if n := len(b.Terrain); n > 0 {
		parts = append(parts, fmt.Sprintf("%d kinds of ground", n))
	}
	if b.Start != "" {
		parts = append(parts, "from "+b.Start)
	}
	if len(parts) == 0 {
		return "No brief yet"
	}
	return strings.Join(parts, ", ")
}

// currencyIn is the currency of a form that begins a plan.
func currencyIn(form url.Values, errs desk.FormErrors) string {
	code := strings.ToUpper(strings.TrimSpace(form.Get("currency")))
	if !money.Valid(code) {
		errs["currency"] = fmt.Sprintf("%q is not a currency code: want three letters such as EUR, GBP or USD.", code)
	}
	return code
}

func (s *Server) newPlan(w http.ResponseWriter, r *http.Request) error {
	view := garageView{Name: strings.TrimSpace(r.PostFormValue("name")), Errors: desk.FormErrors{}}
	if view.Name == "" {
		view.Errors["name"] = "Give the plan a name, such as the trip's."
	}
	view.Currency = currencyIn(r.PostForm, view.Errors)
	p := plan.New(view.Name, view.Currency)
	p.Guesses = plan.GuessTable
	if len(view.Errors) == 0 {
		for _, problem := range p.Validate() {
			view.Errors[problem.Path] = problem.What
		}
	}
	if len(view.Errors) > 0 {
		return s.showGarage(w, r, http.StatusUnprocessableEntity, view)
	}
	id, err := s.Store.CreatePlan(r.Context(), s.Rider(r), p, "New plan")
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/plans/"+id+"/brief")
}

func (s *Server) importPlan(w http.ResponseWriter, r *http.Request) error {
	view := garageView{Currency: currencyOf(r), Errors: desk.FormErrors{}}
	file, name, err := desk.Upload(r, "file")
	if errors.Is(err, http.ErrMissingFile) {
		view.Errors["file"] = "Choose a plan file first."
		return s.showGarage(w, r, http.StatusUnprocessableEntity, view)
	}
	if err != nil {
		return err
	}
	defer file.Close()
	p, err := format.ReadPlan(file)
	if err != nil {
		view.Errors["file"] = fmt.Sprintf("%s was not taken, and nothing was changed. %v", name, err)
		return s.showGarage(w, r, http.StatusUnprocessableEntity, view)
	}
	id, err := s.Store.CreatePlan(r.Context(), s.Rider(r), p, "Imported from "+name)
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/plans/"+id+"/brief")
}

func (s *Server) exportPlan(w http.ResponseWriter, r *http.Request) error {
	snapshot, err := s.Store.Plan(r.Context(), s.Rider(r), chi.URLParam(r, "plan"))
	if err != nil {
		return err
	}
	desk.Attach(w, "application/json", format.FileName(snapshot.Plan.Name, ".plan.json"))
	return format.WritePlan(w, snapshot.Plan)
}
