package web

import (
	"cmp"
	"crypto/rand"
	"fmt"
	"net/http"
	"net/url"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// buyingView is a bike that is looked at: what is asked for it, ten answers, and what it costs
// until it is ready for a trip.
type buyingView struct {
	New                 bool // nobody has kept it yet
	Name, Year          desk.FieldView
	Asking, Worth, Note desk.FieldView
	Picks               []pickView
	Fields              []desk.FieldView
	Save                string
	Error               string
	Walk                string // to the walk around it
	Walked              string
	Trip                string // that it is to be ready for
	Trips               []desk.OptionView
	Ready               []readyColumn // this one, then the one that the trip has
	Offer, Why          string        // the most to offer, and how that comes about
	Against             string        // what is asked
	Lacks               []lackView
	Serves              []string
}

type pickView struct {
	Key, Label string
	Options    []desk.OptionView
	Error      string
}

// readyColumn is what one bike costs until it is ready.
type readyColumn struct{ Name, Price, Due, Lacks, Ready, Needs, Unpriced string }

type lackView struct{ What, By, Cost, Measure string }

// The ten answers beside its name: what a seller knows, and the rest is guessed by.
var (
	buyingFields = []string{"displacement", "odometer"}
	buyingPicks  = []string{"class", "cylinders", "cooling", "fuelling", "final", "front_wheel_build"}
)

// askBuying shows the questions about a bike that is looked at for the first time.
func (s *Server) askBuying(w http.ResponseWriter, r *http.Request) error {
	v := buyingForm(desk.UnitsOf(r), &plan.Plan{Currency: currencyOf(r), Machine: lookedAt()}, nil, nil)
	v.New, v.Save = true, "/buying"
	return s.Show(w, r, http.StatusOK, "buying", "Before buying", v)
}

func lookedAt() plan.Machine {
	return plan.Machine{Held: plan.Looked, Bike: &plan.Bike{ID: "looked-at", Origin: sheet.Rider}}
}

// beginBuying keeps a bike that is looked at, under an id that is its own.
func (s *Server) beginBuying(w http.ResponseWriter, r *http.Request) error {
	p := lookedAt().Alone(currencyOf(r))
	errs := readBuying(desk.UnitsOf(r), p, r.PostForm)
	if len(errs) > 0 {
		v := buyingForm(desk.UnitsOf(r), p, r.PostForm, errs)
		v.New, v.Save = true, "/buying"
		return s.Show(w, r, http.StatusUnprocessableEntity, "buying", "Before buying", v)
	}
	id := r.PostFormValue("id")
	if !entry.ValidID(id) {
		id = rand.Text()
	}
	if err := s.Store.CreateBikeAs(r.Context(), s.Rider(r), id, p.Machine, p.Currency, "Looked at: "+p.Bike.Name); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/bikes/"+id+"/buying?kept="+id)
}

func buyingForm(u words.Units, p *plan.Plan, form url.Values, errs desk.FormErrors) buyingView {
	b, offer := p.Bike, plan.Offer{}
	if p.Offer != nil {
		offer = *p.Offer
	}
	year := ""
	if b.Year > 0 {
		year = strconv.Itoa(b.Year)
	}
	v := buyingView{
		Name:   desk.FieldView{Key: "name", Label: "What it is called", Value: desk.Typed(form, "name", b.Name), Error: errs["name"]},
		Year:   desk.FieldView{Key: "year", Label: "Year", Value: desk.Typed(form, "year", year), Error: errs["year"]},
		Asking: desk.FieldView{Key: "asking", Label: "They ask", Unit: p.Currency, Value: desk.Typed(form, "asking", u.Shown(offer.Asking.String())), Error: errs["asking"]},
		Worth: desk.FieldView{Key: "worth", Label: "Ready, it is worth to you", Unit: p.Currency, Value: desk.Typed(form, "worth", u.Shown(offer.Worth.String())), Error: errs["worth"],
			Help: "Empty: what the bike that the trip has now would have cost, made ready."},
		Note:  desk.FieldView{Key: "note", Label: "Where, whose", Value: desk.Typed(form, "note", offer.Note), Error: errs["note"]},
		Error: errs["form"],
	}
	for _, f := range entry.Only(b.Fields(), buyingFields...) {
		v.Fields = append(v.Fields, desk.FieldOf(u, f, form, errs))
	}
	for _, pick := range b.Picks() {
		if slices.Contains(buyingPicks, pick.Key) {
			v.Picks = append(v.Picks, pickView{pick.Key, pick.Label, desk.OptionsOf(pick.Options, desk.Typed(form, pick.Key, pick.Get()), "Not looked yet"), errs[pick.Key]})
		}
	}
	return v
}

// readBuying sets what was answered on a plan of the machine alone.
func readBuying(u words.Units, p *plan.Plan, form url.Values) desk.FormErrors {
	errs := desk.FormErrors{}
	b, offer := *p.Bike, plan.Offer{}
	b.Name = strings.TrimSpace(form.Get("name"))
	b.Year = 0
	if text := strings.TrimSpace(form.Get("year")); text != "" {
		var err error
		if b.Year, err = strconv.Atoi(text); err != nil {
			errs["year"] = fmt.Sprintf("%q is not a year like 2019.", text)
		}
	}
	desk.Enter(u, entry.Only(b.Fields(), buyingFields...), form, errs)
	for _, pick := range b.Picks() {
		if slices.Contains(buyingPicks, pick.Key) && form.Has(pick.Key) {
			pick.Set(form.Get(pick.Key))
		}
	}
	for key, into := range offer.Amounts() {
		var err error
		if *into, err = u.Amount(form.Get(key), p.Currency); err != nil {
			errs[key] = err.Error()
		}
	}
	offer.Note = strings.TrimSpace(form.Get("note"))
	p.Bike, p.Offer = &b, &offer
	if b.Name == "" {
		errs["name"] = "Give it a name, such as what the advertisement says."
	}
	for _, problem := range p.Machine.Validate() {
		at := problem.Path[strings.LastIndex(problem.Path, ".")+1:]
		if !form.Has(at) {
			at = "form"
		}
		errs[at] = cmp.Or(errs[at], problem.What)
	}
	return errs
}

func (s *Server) buying(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.showBuying(w, r, http.StatusOK, d, nil, nil)
}

func (s *Server) showBuying(w http.ResponseWriter, r *http.Request, status int, d *desk.Desk, form url.Values, errs desk.FormErrors) error {
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	v := buyingForm(d.Units, d.Plan, form, errs)
	v.Save, v.Walk = d.At()+"/buying", d.Href("baseline")
	v.Walked = fmt.Sprintf("%d looked at so far", len(d.Plan.Baseline.Answers))
	ids, err := s.Store.PlansAtHand(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	const most = 30 // trips to choose from, the latest
	trips, err := s.Store.PlansOf(r.Context(), s.Rider(r), ids[:min(most, len(ids))])
	if err != nil {
		return err
	}
	var trip *store.Snapshot
	for _, t := range trips {
		switch asked := r.FormValue("trip"); {
		case asked == t.ID, trip == nil, asked == "" && len(trip.Plan.Brief.Terrain) == 0 && len(t.Plan.Brief.Terrain) > 0:
			trip = t // the one that is asked for, or the latest that says where it goes
		}
	}
	for _, t := range trips {
		v.Trips = append(v.Trips, desk.OptionView{Value: t.ID, Name: t.Plan.Name, Selected: t == trip})
	}
	if trip != nil {
		v.Trip = trip.ID
		if err := v.compare(d, trip.Plan); err != nil {
			return err
		}
	}
	return s.Render(w, r, status, "buying", desk.Frame{Title: "Before buying · " + d.Plan.Name, Plan: d.View("buying", nil), Body: v})
}

// compare sets what the bike costs until it is ready for a trip beside the one that the trip has.
func (v *buyingView) compare(d *desk.Desk, trip *plan.Plan) error {
	loadout := trip.Loadouts[len(trip.Loadouts)-1].ID
	this, err := eval.ReadyFor(trip, d.Plan.Machine, nil, d.Shelf, loadout, d.AsOf)
	if err != nil {
		return err
	}
	offer := plan.Offer{}
	if d.Plan.Offer != nil {
		offer = *d.Plan.Offer
	}
	column, _ := readyColumnOf(trip, this, d.Plan.Bike.Name, offer.Asking)
	v.Ready = append(v.Ready, column)
	for _, l := range this.Lacks {
		row := lackView{What: d.Units.Text(l.What), By: cmp.Or(l.By, "nothing on the shelf answers it"), Measure: strings.Join(l.Measure, ", ")}
		if l.Cost.Known() {
			row.Cost = l.Cost.Rough()
		}
		v.Lacks = append(v.Lacks, row)
	}
	for _, served := range this.Serves {
		text := served.Name + ": asked by no need of the brief"
		if len(served.Needs) > 0 {
			text = served.Name + ": " + strings.ToLower(strings.Join(served.Needs, ", "))
		}
		v.Serves = append(v.Serves, text)
	}
	worth, from := offer.Worth, "what it is worth to you"
	if trip.Bike != nil && trip.Garage != d.Plan.Garage {
		own, err := eval.ReadyFor(trip, trip.Machine, trip.OnTheBike(), d.Shelf, loadout, d.AsOf)
		if err != nil {
			return err
		}
		column, ready := readyColumnOf(trip, own, trip.Bike.Name, trip.Bike.Price)
		v.Ready = append(v.Ready, column)
		if !worth.Known() && ready.Known() {
			worth, from = ready, "what the "+trip.Bike.Name+" comes to, ready"
		}
	}
	if len(trip.Brief.Terrain) == 0 {
		v.Why = "The brief of this trip says nothing of its ground yet, so nothing can be lacking: write it first."
		return nil
	}
	most := this.MostToOffer(worth)
	switch home, _, _ := trip.Home(worth); {
	case !most.Known():
		v.Why = "Say what it would be worth to you, ready for the trip, and the most to offer follows."
	case most.Minor() <= 0:
		v.Offer, v.Why = "nothing", fmt.Sprintf("Making it ready takes %s, and %s is %s.", this.Cost().Rough(), from, home.Rough())
	default:
		v.Offer, v.Against = most.Rough(), against(trip, offer.Asking, most)
		v.Why = fmt.Sprintf("%s (%s) less %s to put right and %s that the brief lacks.", home.Rough(), from, this.DueCost.Rough(), this.LackCost.Rough())
	}
	return nil
}

// against sets what is asked beside the most to offer, "" where nobody has said it.
func against(trip *plan.Plan, asking, most money.Amount) string {
	asked, _, ok := trip.Home(asking)
	switch {
	case !asking.Known() || !ok:
		return ""
	case asked.Minor() > most.Minor():
		return "They ask " + money.New(asked.Minor()-most.Minor(), trip.Currency).Rough() + " more."
	}
	return "They ask " + asked.Rough() + ", which is less."
}

// readyColumnOf is one bike's sums, and all of them together, missing where its price is.
func readyColumnOf(trip *plan.Plan, r *eval.Readiness, name string, price money.Amount) (readyColumn, money.Amount) {
	met, all := r.Met()
	c := readyColumn{Name: name, Price: "not said", Due: r.DueCost.Rough(), Lacks: r.LackCost.Rough(), Ready: "its price is missing", Needs: fmt.Sprintf("%d of %d", met, all)}
	if r.Unpriced > 0 {
		c.Unpriced = fmt.Sprintf("and %d without a price", r.Unpriced)
	}
	ready := r.Ready(price)
	if ready.Known() {
		home, _, _ := trip.Home(price)
		c.Price, c.Ready = home.Rough(), ready.Rough()
	}
	return c, ready
}

// keepBuying keeps the answers.
func (s *Server) keepBuying(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	changed := *d.Plan
	if errs := readBuying(d.Units, &changed, r.PostForm); len(errs) > 0 {
		return s.showBuying(w, r, http.StatusUnprocessableEntity, d, r.PostForm, errs)
	}
	base, save := r.PostFormValue("base"), r.PostFormValue("save")
	back := d.At() + "/buying?" + url.Values{"trip": {r.PostFormValue("trip")}, "kept": {save}}.Encode()
	if base != d.Revision {
		if _, err := s.Store.PlanAt(r.Context(), s.Rider(r), d.ID, save); err == nil { // sent twice
			return desk.SeeOther(w, r, back)
		}
		// What was looked at meanwhile, on the walk around it, is no other answer to this.
		was, err := s.Store.PlanAt(r.Context(), s.Rider(r), d.ID, base)
		if err == nil && reflect.DeepEqual(buyingForm(d.Units, was, nil, nil), buyingForm(d.Units, d.Plan, nil, nil)) {
			base = d.Revision
		}
	}
	if err := s.Save(r, d, base, &changed, "Before buying: what was answered"); err != nil {
		return err
	}
	return desk.SeeOther(w, r, back)
}

// bought makes a bike that was looked at one of the rider's own.
func (s *Server) bought(w http.ResponseWriter, r *http.Request) error {
	return s.hold(w, r, "", "Bought")
}

// forget throws a bike away that was only looked at.
func (s *Server) forget(w http.ResponseWriter, r *http.Request) error {
	bike, err := s.Snapshot(r)
	if err != nil {
		return err
	}
	if bike.Plan.Held != plan.Looked {
		return store.ErrNotFound
	}
	if err := s.Store.Remove(r.Context(), s.Rider(r), bike.ID); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/garage#removed")
}
