package web

import (
	"cmp"
	"crypto/rand"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/stage/bike"
	stage "valiantmule/internal/web/stage/brief"
	"valiantmule/internal/words"
)

// startView is ten questions: what a plan is begun with whose every other number is guessed.
type startView struct {
	Kinds, Shelf, Own, Like    []desk.OptionView // of the bike
	Displacement, Name         desk.FieldView
	Rider, Stature, Pillion    desk.FieldView
	Budget, Currency           desk.FieldView
	Distance, Gap, Start       desk.FieldView
	Grounds                    []groundView
	Kits, Bothers              []desk.OptionView
	Units                      string // in which numbers are typed, in words
	BikeError, KitError, Error string
}

// likeThis is put before the id of a bike that the rider's is only like.
const likeThis = "like:"

// groundView is how much of one ground there is, from nothing to ten.
type groundView struct{ Key, Name, Value string }

// The three grounds, with what they stand at first.
var threeGrounds = []struct{ key, name, first string }{
	{"road", "Roads", "5"}, {"gravel", "Gravel and tracks", "4"}, {"rough", "Rock, sand, single track", "1"},
}

func (s *Server) startPage(w http.ResponseWriter, r *http.Request) error {
	v, err := s.startOf(r, nil, nil)
	if err != nil {
		return err
	}
	return s.Show(w, r, http.StatusOK, "start", "A verdict in a minute", v)
}

// start begins a plan by the answers, with everything else guessed.
func (s *Server) start(w http.ResponseWriter, r *http.Request) error {
	if err := r.ParseForm(); err != nil {
		return err
	}
	p, errs, err := s.begun(r, r.PostForm)
	if err != nil {
		return err
	}
	if len(errs) > 0 {
		v, err := s.startOf(r, r.PostForm, errs)
		if err != nil {
			return err
		}
		return s.Show(w, r, http.StatusUnprocessableEntity, "start", "A verdict in a minute", v)
	}
	id, err := s.Store.CreatePlan(r.Context(), s.Rider(r), p, "Begun in a minute")
	if err != nil {
		return err
	}
	if p.Held != plan.Another {
		if err := s.Store.SetPerson(r.Context(), s.Rider(r), p.Brief.Person); err != nil {
			return err
		}
	}
	return desk.SeeOther(w, r, "/plans/"+id+"/matters?loadout=travel")
}

func (s *Server) startOf(r *http.Request, form url.Values, errs desk.FormErrors) (startView, error) {
	u := desk.UnitsOf(r)
	var blank plan.Bike
	var brief plan.Brief
	person, err := s.Store.Person(r.Context(), s.Rider(r))
	if err != nil {
		return startView{}, err
	}
	brief.Person = person
	field := func(fields []entry.Field, key, label, help string) desk.FieldView {
		f, _ := entry.FieldIn(fields, key)
		v := desk.FieldOf(u, f, form, errs)
		v.Label, v.Help = label, u.Prose(help)
		return v
	}
	b, t := blank.Fields(), brief.Fields()
	v := startView{
		Displacement: field(b, "displacement", "Its engine", "Roughly."),
		Name:         desk.FieldView{Key: "name", Label: "What you call it", Value: desk.Typed(form, "name", ""), Error: errs["name"]},
		Rider:        field(t, "rider", "You, dressed to ride", "With boots, helmet, armour and water: 8–12 kg more than on the scale at home."),
		Stature:      field(t, "stature", "You stand", "Seat, pegs and bars are held against it."),
		Pillion:      desk.FieldView{Key: "pillion", Label: "Passenger, dressed", Unit: u.Of("kg"), Value: desk.Typed(form, "pillion", ""), Error: errs["pillion"], Help: "Empty: you ride alone."},
		Budget:       desk.FieldView{Key: "budget", Label: "Money for it", Value: desk.Typed(form, "budget", ""), Error: errs["budget"], Help: "For parts and fitting. “none” where there is no limit."},
		Currency:     desk.FieldView{Key: "currency", Label: "Counted in", Value: desk.Typed(form, "currency", currencyOf(r)), Error: errs["currency"]},
		Distance:     field(t, "distance", "How far", "Door to door."),
		Gap:          field(t, "gap", "Longest between pumps", "A guess decides the tank: look it up."),
		Start:        desk.FieldView{Key: "start", Label: "When", Value: desk.Typed(form, "start", ""), Error: errs["start"], Help: "The day that the bike must be ready, or how long there is: three weeks."},
		Kits:         desk.OptionsOf(plan.Kits(), desk.Typed(form, "kit", string(plan.CampKit)), ""),
		Bothers:      desk.OptionsOf(plan.Bothers(), desk.Typed(form, "bothers", ""), "Nothing yet"),
		Units:        unitsIn(u), BikeError: errs["bike"], KitError: errs["kit"], Error: errs["form"],
	}
	for _, g := range threeGrounds {
		v.Grounds = append(v.Grounds, groundView{g.key, g.name, desk.Typed(form, g.key, g.first)})
	}
	chosen := desk.Typed(form, "bike", "")
	for _, c := range plan.Classes() {
		v.Kinds = append(v.Kinds, desk.OptionView{Value: bike.OfKind + c.Value, Name: c.Name, Selected: chosen == bike.OfKind+c.Value})
	}
	shelf, err := s.Store.Bikes(r.Context())
	if err != nil {
		return v, err
	}
	offer := func(list *[]desk.OptionView, id, name string) {
		*list = append(*list, desk.OptionView{Value: id, Name: name, Selected: chosen == id})
		v.Like = append(v.Like, desk.OptionView{Value: likeThis + id, Name: "Like the " + name + ", but another", Selected: chosen == likeThis+id})
	}
	for _, of := range shelf {
		offer(&v.Shelf, of.ID, of.Name+", "+of.Kind)
	}
	garage, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return v, err
	}
	for _, of := range garage {
		offer(&v.Own, bike.OfGarage+of.ID, of.Name)
	}
	return v, nil
}

// unitsIn says in which units a bare number is read.
func unitsIn(u words.Units) string {
	return strings.Join([]string{u.Of("km"), u.Of("kg"), u.Of("mm")}, ", ")
}

// begun is the plan that the answers make; what cannot be used of them is said by its field.
func (s *Server) begun(r *http.Request, form url.Values) (*plan.Plan, desk.FormErrors, error) {
	u, errs := desk.UnitsOf(r), desk.FormErrors{}
	currency := currencyIn(form, errs)
	p := plan.New("", currency)
	p.Trip = rand.Text()
	p.Guesses = plan.GuessTable
	m, err := s.bikeOf(r, form)
	switch {
	case errors.Is(err, store.ErrNotFound):
		errs["bike"] = "Say what kind of bike it is, or pick one: everything else is guessed from that."
		m.Bike = &plan.Bike{}
	case err != nil:
		return nil, nil, err
	}
	if m.Garage == "" { // of one that is in the garage its sheet knows
		desk.Enter(u, desk.Sent(entry.Only(m.Bike.Fields(), "displacement"), form), form, errs)
	}
	p.Machine, p.Name = m, cmp.Or(strings.TrimSpace(form.Get("name")), m.Bike.Name)
	if err := s.asRider(r, p); err != nil {
		return nil, nil, err
	}
	b := &p.Brief
	asked := []string{"rider", "stature", "distance", "gap"}
	desk.Enter(u, entry.Only(b.Fields(), asked...), form, errs)
	if b.Start, err = u.DayFrom(form.Get("start"), desk.Today()); err != nil {
		errs["start"] = err.Error()
	}
	if errs["currency"] == "" {
		if err := stage.EnterBudget(u, b, form.Get("budget"), currency); err != nil {
			errs["budget"] = err.Error()
		}
	}
	var share [3]float64
	for i, g := range threeGrounds {
		share[i], _ = strconv.ParseFloat(form.Get(g.key), 64)
	}
	b.Terrain = terrain.Roughly(share[0], share[1], share[2])
	b.Bothers = plan.Bother(form.Get("bothers"))
	kit := plan.Kit(form.Get("kit"))
	for i := range p.Loadouts {
		l := &p.Loadouts[i]
		l.Kit = kit
		if l.ID == "trail-day" && kit != plan.NoKit {
			l.Kit = plan.DayKit
		}
		if l.ID == "travel" {
			if err := cmp.Or(u.Enter(&l.Pillion, form.Get("pillion"), "kg"), l.Check()); err != nil {
				errs["pillion"] = err.Error()
			}
		}
	}
	if len(errs) > 0 {
		return p, errs, nil
	}
	for _, problem := range p.Validate() {
		at := problem.Path[strings.LastIndex(problem.Path, ".")+1:]
		if !slices.Contains([]string{"displacement", "name", "budget", "start", "kit", "bothers"}, at) && !slices.Contains(asked, at) {
			at = "form"
		}
		errs[at] = cmp.Or(errs[at], problem.What)
	}
	return p, errs, nil
}

// bikeOf is the bike of the answers: one of the garage as it is, a copy of another, or one that is
// only like it.
func (s *Server) bikeOf(r *http.Request, form url.Values) (plan.Machine, error) {
	id, only := strings.CutPrefix(form.Get("bike"), likeThis)
	m, err := bike.Of(s.House, r, id)
	if err != nil {
		return m, err
	}
	name := strings.TrimSpace(form.Get("name"))
	if only {
		own := &plan.Bike{ID: bike.Blank, Name: cmp.Or(name, "Like the "+m.Bike.Name), Class: m.Bike.Class, Origin: sheet.Rider}
		return plan.Machine{Bike: own, Like: m.Bike}, nil
	}
	if m.Garage != "" {
		return m.Bare(), nil
	}
	taken := *m.Bike
	taken.Name = cmp.Or(name, taken.Name)
	return plan.Machine{Bike: &taken}, nil
}
