package web

import (
	"crypto/rand"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/bojanz/currency"
	"github.com/go-chi/chi/v5"
	"golang.org/x/text/language"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

type garageView struct {
	Bikes          []bikeGroup // with the plans of this page
	Idle           []bikeLine  // without a plan
	Aside          []bikeLine  // put aside
	Pages          desk.Paging
	Removed        []removedView
	Onto           []desk.OptionView // whose bike a plan's of a file may be
	Name, Currency string            // of a new plan, as typed
	Errors         desk.FormErrors
}

// bikeGroup is a bike of the garage with its plans, or the plans that have none.
type bikeGroup struct {
	bikeLine
	Plans []planCard
	Next  string // of its trips, with its day; "" where nobody has said when one starts
}

// bikeLine is a bike in a line: whose it is, and what stands out.
type bikeLine struct {
	ID, Name, Says string
	Buying         bool // it is looked at, before buying
}

// plansAPage is how many plans a page of the garage shows.
const plansAPage = 12

// removedView is a plan that can still be brought back.
type removedView struct{ ID, Kind, Name, Until string }

// planCard is a plan as it stands in the garage.
type planCard struct {
	ID, Name, Bike, Trip, Changed string
	Start                         string // day, 2027-05-14; "" where nobody has said
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
	ids, err := s.Store.PlansAtHand(r.Context(), s.Rider(r))
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
		d, err := s.DeskOf(r.Context(), s.Rider(r), snapshot, shelf, version, last.ID, desk.UnitsOf(r))
		if err != nil {
			return err
		}
		card := planCard{ID: snapshot.ID, Name: p.Name, Bike: "No bike yet", Changed: snapshot.MadeAt.Format("2 January 2006, 15:04 UTC"),
			Trip: trip(&p.Brief), Start: p.Brief.Start, State: desk.StateOf(d.Report.Worst())}
		if p.Bike != nil {
			card.Bike = p.Bike.Name
		}
		card.Strip = d.Row()
		if p.Bike != nil {
			card.First, card.Next = d.Leads("")
		}
		view.put(p, card)
	}
	garage, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	view.fill(garage)
	view.nextTrips(desk.Today())
	for _, b := range garage {
		if !b.Archived {
			view.Onto = append(view.Onto, desk.OptionView{Value: b.ID, Name: "the same machine as the " + b.Name})
		}
	}
	if view.Onto != nil {
		view.Onto = append([]desk.OptionView{{Name: "as its file says"}, {Value: newBike, Name: "a new one in the garage"}}, view.Onto...)
	}
	removed, err := s.Store.Removed(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	for _, gone := range removed {
		view.Removed = append(view.Removed, removedView{gone.ID, string(gone.Kind), gone.Name, gone.Until().Format("2 January 2006")})
	}
	return s.Show(w, r, status, "garage", "Garage", &view)
}

// put lays a plan's card to its bike, the bikes in the order of their newest plans.
func (v *garageView) put(p *plan.Plan, card planCard) {
	at := slices.IndexFunc(v.Bikes, func(g bikeGroup) bool { return g.ID == p.Garage })
	if at < 0 {
		at = len(v.Bikes)
		g := bikeGroup{bikeLine: bikeLine{ID: p.Garage, Name: card.Bike}}
		if p.Garage != "" {
			g.Says = standsOut(p)
		}
		v.Bikes = append(v.Bikes, g)
	}
	v.Bikes[at].Plans = append(v.Bikes[at].Plans, card)
}

// standsOut says in a few words what of a bike wants doing.
func standsOut(p *plan.Plan) string {
	due := len(p.ToPutRight())
	if due == 0 {
		return ""
	}
	return fmt.Sprintf("%d %s to be put right", due, desk.Plural(due, "thing"))
}

// fill says whose the bikes are, and lists those that no plan of the page rides.
func (v *garageView) fill(garage []store.GarageBike) {
	for _, b := range garage {
		line := bikeLine{ID: b.ID, Name: b.Name, Says: entry.NameOf(plan.Helds(), string(b.Held)), Buying: b.Held == plan.Looked}
		switch at := slices.IndexFunc(v.Bikes, func(g bikeGroup) bool { return g.ID == b.ID }); {
		case at >= 0:
			g := &v.Bikes[at]
			g.Name, g.Buying = line.Name, line.Buying
			g.Says = strings.Join(slices.DeleteFunc([]string{line.Says, g.Says}, func(s string) bool { return s == "" }), ", ")
		case b.Archived:
			v.Aside = append(v.Aside, line)
		case b.Trips == 0:
			v.Idle = append(v.Idle, line)
		}
	}
}

// nextTrips finds for each bike of several trips the one that starts next.
func (v *garageView) nextTrips(today string) {
	for i := range v.Bikes {
		g := &v.Bikes[i]
		first := ""
		for _, p := range g.Plans {
			if p.Start >= today && (first == "" || p.Start < first) {
				first, g.Next = p.Start, "next: "+p.Name+", "+p.Start
			}
		}
		if len(g.Plans) < 2 {
			g.Next = ""
		}
	}
}

// Solo reports whether there is one bike with one trip and nothing else: then nothing needs to
// be told apart.
func (v *garageView) Solo() bool {
	return len(v.Bikes) <= 1 && len(v.Idle)+len(v.Aside) == 0 && (len(v.Bikes) == 0 || len(v.Bikes[0].Plans) == 1)
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

// asRider has a new plan begin with what its rider has said of their own body.
func (s *Server) asRider(r *http.Request, p *plan.Plan) error {
	person, err := s.Store.Person(r.Context(), s.Rider(r))
	p.Brief.Person = person
	return err
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
	p.Trip = rand.Text()
	p.Guesses = plan.GuessTable
	if err := s.asRider(r, p); err != nil {
		return err
	}
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
	read, bike, err := format.ReadAny(file)
	if err != nil {
		view.Errors["file"] = fmt.Sprintf("%s was not taken, and nothing was changed. %v", name, err)
		return s.showGarage(w, r, http.StatusUnprocessableEntity, view)
	}
	if bike != nil {
		id, err := s.Store.CreateBike(r.Context(), s.Rider(r), bike.Machine, bike.Currency, "Imported from "+name, bike.Things...)
		if err != nil {
			return err
		}
		return desk.SeeOther(w, r, "/bikes/"+id)
	}
	p := &read.Plan
	if p.Garage, err = s.sameBike(r, p, view.Errors); err != nil {
		return err
	}
	if read.Things, err = s.sameThings(r, read, view.Errors); err != nil {
		return err
	}
	if len(view.Errors) > 0 {
		return s.showGarage(w, r, http.StatusUnprocessableEntity, view)
	}
	id, err := s.Store.ImportPlan(r.Context(), s.Rider(r), p, read.Things, "Imported from "+name)
	if errors.Is(err, store.ErrClash) || errors.Is(err, store.ErrFull) {
		view.Errors["file"] = fmt.Sprintf("%s was not taken, and nothing was changed. %v", name, err)
		return s.showGarage(w, r, http.StatusUnprocessableEntity, view)
	}
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/plans/"+id+"/brief")
}

// newBike says of a plan's bike that it is none of the garage.
const newBike = "new"

// sameBike is the bike of the garage that the rider says a plan's is, "" for none: then it is
// a new one. Where the garage has one of its name and nobody has said, that is asked.
func (s *Server) sameBike(r *http.Request, p *plan.Plan, errs desk.FormErrors) (string, error) {
	onto := r.PostFormValue("onto")
	if onto == newBike || p.Bike == nil {
		return "", nil
	}
	garage, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return "", err
	}
	for _, b := range garage {
		switch {
		case b.ID == onto:
			return onto, nil
		case onto == "" && b.Name == p.Bike.Name:
			errs["onto"] = fmt.Sprintf("The garage has a %s. Say whether it is that machine or a new one, and choose the file again; nothing was changed.", b.Name)
			return "", nil
		}
	}
	if onto != "" {
		return "", store.ErrNotFound
	}
	return "", nil
}

// sameThings are the things of a file that the garage does not have yet, or all of them where the rider says that they
// are others. Where it has some and nobody has said, that is asked.
func (s *Server) sameThings(r *http.Request, file *format.PlanFile, errs desk.FormErrors) ([]garage.Packed, error) {
	if len(file.Things) == 0 {
		return nil, nil
	}
	there, err := s.Store.Things(r.Context(), s.Rider(r))
	if err != nil {
		return nil, err
	}
	var names []string
	fresh := slices.DeleteFunc(slices.Clone(file.Things), func(t garage.Packed) bool {
		_, is := there.Held(t.ID)
		if is {
			names = append(names, t.Name())
		}
		return is
	})
	switch said := r.PostFormValue("parts"); {
	case len(names) == 0 || said == "same":
		return fresh, nil
	case said == "other":
		return file.Things, nil
	}
	errs["parts"] = fmt.Sprintf("The garage has %s already. Say whether they are the same parts or others, and choose the file again; nothing was changed.", strings.Join(names, ", "))
	return nil, nil
}

func (s *Server) exportPlan(w http.ResponseWriter, r *http.Request) error {
	of, err := s.Snapshot(r)
	if err != nil {
		return err
	}
	desk.Attach(w, "application/json", format.FileName(of.Plan.Name, ".plan.json"))
	things, err := s.Things(r.Context(), s.Rider(r), of)
	if err != nil {
		return err
	}
	return format.WritePlan(w, of.Plan, things.Pack(things.OfPlan(of.Plan), of.Plan.Garage)...)
}
