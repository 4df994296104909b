package web

import (
	"crypto/rand"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// atBike is where the addresses of a bike by itself begin.
const atBike = "/bikes/{bike}"

// machineView is a bike by itself: how it stands, and what hangs on it.
type machineView struct {
	Held     string
	Heads    []desk.OptionView // whose it may be
	Facts    []factView
	Ways     []desk.LinkView // to its pages
	Due      []string        // what is to be put right
	Read     []string        // the latest readings
	Runs     []string        // what the odometer showed before, the latest first
	Parts    []onItView      // that are on it
	Gaps     []onItView      // that were on it, and are elsewhere for now
	Sum      *sumRow         // over its life; nil for none
	HandOver string
	Handed   string // when, to whom, for how much; "" where it is here
	Trips    []tripView
	Pages    desk.Paging       // of its trips
	Others   []desk.OptionView // bikes of the garage that may be the same machine
	Archived bool
	Buying   string // to the page before buying, "" where it is nobody's to buy
	Hangs    string // what goes with it
	Name     string // of a new trip, as typed
	Error    string
}

type factView struct{ Name, Value string }

// onItView is a part of the rider's own on a bike.
type onItView struct{ Name, Href, Says string }

type tripView struct{ Name, Href, Says string }

func (s *Server) bike(w http.ResponseWriter, r *http.Request) error {
	return s.showBike(w, r, http.StatusOK, machineView{})
}

func (s *Server) showBike(w http.ResponseWriter, r *http.Request, status int, view machineView) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	m := &d.Plan.Machine
	if m.Held != "" {
		view.Held = m.Held.Word()
	}
	view.Heads = desk.OptionsOf(plan.Helds(), string(m.Held), plan.OwnBike)
	view.Facts = facts(d)
	for _, st := range s.Stages {
		for _, p := range st.Pages {
			if p.Bike {
				view.Ways = append(view.Ways, desk.LinkView{Name: p.Name, Href: d.Href(p.ID)})
			}
		}
	}
	for _, l := range d.Plan.ToPutRight() {
		view.Due = append(view.Due, l.Name)
	}
	const latest = 4
	for i := len(m.Readings) - 1; i >= 0 && len(view.Read) < latest; i-- {
		view.Read = append(view.Read, desk.ReadWords(m.Readings[i]))
	}
	for i := len(m.Runs) - 2; i >= 0 && len(view.Runs) < latest; i-- {
		view.Runs = append(view.Runs, d.Units.Quantity(m.Runs[i].At.In("km"), "km")+" on "+m.Runs[i].On)
	}
	view.parts(d)
	view.HandOver = d.At() + "/hand-over"
	if h := m.Handed; h != nil {
		view.HandOver, view.Handed = "", "Handed over on "+h.On
		if h.Whom != "" {
			view.Handed += " to " + h.Whom
		}
		if h.For.Known() {
			view.Handed += " for " + h.For.Display()
		}
	}
	ids, err := s.Store.TripsOf(r.Context(), s.Rider(r), d.ID)
	if err != nil {
		return err
	}
	view.Pages = desk.PagesOf(len(ids), plansAPage, r.URL.Query().Get("page"), func(n string) string { return d.At() + "?page=" + n })
	trips, err := s.Store.PlansOf(r.Context(), s.Rider(r), ids[view.Pages.From:view.Pages.To])
	if err != nil {
		return err
	}
	for _, t := range trips {
		says := trip(&t.Plan.Brief)
		if news, err := s.Store.News(r.Context(), s.Rider(r), t); err != nil {
			return err
		} else if news.Any() {
			says += ", has not taken over all of it"
		}
		view.Trips = append(view.Trips, tripView{t.Plan.Name, "/plans/" + t.ID + "/brief", says})
	}
	garage, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	for _, b := range garage {
		if b.ID == d.ID {
			view.Archived = b.Archived
			continue
		}
		view.Others = append(view.Others, desk.OptionView{Value: b.ID, Name: b.Name})
	}
	if m.Held == plan.Looked {
		view.Buying = d.At() + "/buying"
	}
	view.Hangs = hangs(len(ids), len(m.Readings))
	return s.Render(w, r, status, "machine", desk.Frame{Title: d.Plan.Name, Plan: d.View("machine", nil), Body: view})
}

// parts lists what is on a bike of the rider's own, and what has left a gap.
func (v *machineView) parts(d *desk.Desk) {
	today := desk.Today()
	for _, id := range d.Things.OnBike(d.ID) {
		h, _ := d.Things.Held(id)
		says := ran(d.Things, id, d.Units)
		if says != "" {
			says += " on it"
		}
		if from := d.Things.CameFrom(id); from != "" {
			says = strings.TrimPrefix(says+", from the "+from, ", ")
		}
		switch {
		case h.Overdue(today):
			says = "was to come off by " + h.Until
		case h.Until != "":
			says = "comes off by " + h.Until
		}
		v.Parts = append(v.Parts, onItView{h.Name(), "/parts/" + id, says})
	}
	slices.SortFunc(v.Parts, func(a, b onItView) int { return strings.Compare(a.Name, b.Name) })
	for _, h := range d.Things.LeftBike(d.ID) {
		v.Gaps = append(v.Gaps, onItView{h.Name(), "/parts/" + h.ID, h.Place.Words(d.Things.Bikes)})
	}
	if l := d.Things.Ledgers()[d.ID]; l != nil {
		v.Sum = &sumRow{Spent: amounts(l.Spent), Back: amounts(l.Back), Per: per1000(l, d.Plan.Bike.Odometer.In("km"))}
	}
}

// hangs says what goes with a bike that is thrown away.
func hangs(trips, readings int) string {
	var list []string
	if trips > 0 {
		list = append(list, fmt.Sprintf("%d %s", trips, desk.Plural(trips, "trip")))
	}
	if readings > 0 {
		list = append(list, fmt.Sprintf("%d %s off it", readings, desk.Plural(readings, "reading")))
	}
	if len(list) == 0 {
		return "nothing but its sheet"
	}
	return strings.Join(list, " and ")
}

// facts are a bike in a few numbers.
func facts(d *desk.Desk) []factView {
	b, u := d.Plan.Bike, d.Units
	if b == nil {
		return nil
	}
	var list []factView
	add := func(name string, known bool, value string) {
		if known {
			list = append(list, factView{name, value})
		}
	}
	add("Kind", b.Kind != "", b.Kind)
	add("Year", b.Year > 0, fmt.Sprint(b.Year))
	odometer := u.Quantity(b.Odometer.In("km"), "km")
	if runs := d.Plan.Runs; len(runs) > 0 && runs[len(runs)-1].At == b.Odometer {
		odometer += ", " + runs[len(runs)-1].On
	}
	add("Odometer", b.Odometer.Known(), odometer)
	add("Ready to ride", b.KerbMass.Known(), u.Quantity(b.KerbMass.In("kg"), "kg"))
	add("Tank", b.Tank.Known(), u.Plain(b.Tank.In("L"), "L"))
	add("Seat", b.SeatHeight.Known(), u.Quantity(b.SeatHeight.In("mm"), "mm"))
	add("Worth", b.Price.Known(), b.Price.Rough())
	return list
}

// newTrip begins a plan for a bike of the garage.
func (s *Server) newTrip(w http.ResponseWriter, r *http.Request) error {
	bike, err := s.Snapshot(r)
	if err != nil {
		return err
	}
	p := plan.New(strings.TrimSpace(r.PostFormValue("name")), bike.Plan.Currency)
	p.Trip = rand.Text()
	p.Guesses, p.Machine = plan.GuessTable, bike.Plan.Machine.Bare()
	things, err := s.Things(r.Context(), s.Rider(r), bike)
	if err != nil {
		return err
	}
	p = garage.Standing(p, things.All())
	if err := s.asRider(r, p); err != nil {
		return err
	}
	if problems := p.Validate(); len(problems) > 0 {
		return s.showBike(w, r, http.StatusUnprocessableEntity, machineView{Name: r.PostFormValue("name"), Error: "Give the trip a name, such as where it goes."})
	}
	id, err := s.Store.CreatePlan(r.Context(), s.Rider(r), p, "New trip for "+p.BikeName())
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/plans/"+id+"/brief")
}

// setHeld keeps whose a bike is.
func (s *Server) setHeld(w http.ResponseWriter, r *http.Request) error {
	held := plan.Held(r.PostFormValue("held"))
	if !entry.Among(plan.Helds(), string(held)) && held != "" {
		return store.ErrNotFound
	}
	return s.hold(w, r, held, "Whose it is: "+held.Word())
}

// hold saves whose a bike is.
func (s *Server) hold(w http.ResponseWriter, r *http.Request, held plan.Held, said string) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if held != d.Plan.Held {
		changed := *d.Plan
		changed.Held = held
		if err := s.Save(r, d, r.PostFormValue("base"), &changed, said); err != nil {
			return err
		}
	}
	return desk.SeeOther(w, r, d.At())
}

func (s *Server) archiveBike(w http.ResponseWriter, r *http.Request) error {
	if err := s.Store.Archive(r.Context(), s.Rider(r), chi.URLParam(r, "bike"), r.PostFormValue("back") == ""); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/garage")
}

// removeBike throws a bike away with its trips, once that is said twice.
func (s *Server) removeBike(w http.ResponseWriter, r *http.Request) error {
	if r.PostFormValue("sure") == "" {
		return s.showBike(w, r, http.StatusUnprocessableEntity, machineView{Error: "Tick that you know what goes with it."})
	}
	if err := s.Store.Remove(r.Context(), s.Rider(r), chi.URLParam(r, "bike")); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/garage#removed")
}

// joinBike makes two bikes of the garage one machine.
func (s *Server) joinBike(w http.ResponseWriter, r *http.Request) error {
	into := r.PostFormValue("into")
	if err := s.Store.Join(r.Context(), s.Rider(r), chi.URLParam(r, "bike"), into); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/bikes/"+into)
}

func (s *Server) exportBike(w http.ResponseWriter, r *http.Request) error {
	bike, err := s.Snapshot(r)
	if err != nil {
		return err
	}
	desk.Attach(w, "application/json", format.FileName(bike.Plan.Name, ".bike.json"))
	things, err := s.Things(r.Context(), s.Rider(r), bike)
	if err != nil {
		return err
	}
	return format.WriteBike(w, bike.Plan, things.Pack(things.OnBike(bike.ID), bike.ID)...)
}

// bikeRoutes are those of a bike by itself; its pages are the stages'.
func (s *Server) bikeRoutes(r chi.Router) {
	r.Get(atBike, s.handle(s.bike))
	r.Get(atBike+"/hand-over", s.handle(s.askHandOver))
	r.Get(atBike+"/hand-over/file", s.handle(s.handOverFile))
	r.Post(atBike+"/hand-over", s.handle(s.handOver))
	r.Get(atBike+"/export", s.handle(s.exportBike))
	r.Get(atBike+"/history", s.handle(s.history))
	r.Post(atBike+"/restore", s.handle(s.restore))
	r.Post(atBike+"/undo", s.of((*desk.House).Undo))
	r.Post(atBike+"/redo", s.of((*desk.House).Redo))
	r.Get(atBike+"/working/{figure}", s.of(s.Kept(func(_ *desk.House, w http.ResponseWriter, r *http.Request) error { return s.working(w, r) }, false)))
	r.Get("/buying", s.of(away(func(_ *desk.House, w http.ResponseWriter, r *http.Request) error { return s.askBuying(w, r) })))
	r.Post("/buying", s.handle(s.beginBuying))
	r.Get(atBike+"/buying", s.of(away(func(_ *desk.House, w http.ResponseWriter, r *http.Request) error { return s.buying(w, r) })))
	r.Post(atBike+"/buying", s.handle(s.keepBuying))
	r.Post(atBike+"/bought", s.handle(s.bought))
	r.Post(atBike+"/forget", s.handle(s.forget))
	r.Post(atBike+"/trip", s.handle(s.newTrip))
	r.Post(atBike+"/held", s.handle(s.setHeld))
	r.Post(atBike+"/archive", s.handle(s.archiveBike))
	r.Post(atBike+"/remove", s.handle(s.removeBike))
	r.Post(atBike+"/join", s.handle(s.joinBike))
}
