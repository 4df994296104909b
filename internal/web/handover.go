package web

import (
	"crypto/rand"
	"errors"
	"net/http"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/format"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// handOverView is what goes along with a bike to its next owner.
type handOverView struct {
	Name  string
	File  string // where the file is
	Parts []handOverPart
	Ticks []handOverTick // what is private, and goes along only where it is ticked
	Day   desk.FieldView
	At    desk.FieldView
	Whom  desk.FieldView
	Price desk.FieldView
	Error string
}

type handOverPart struct{ ID, Name string }

type handOverTick struct{ Key, Says string }

func (s *Server) askHandOver(w http.ResponseWriter, r *http.Request) error {
	return s.showHandOver(w, r, http.StatusOK, desk.FormErrors{})
}

func (s *Server) showHandOver(w http.ResponseWriter, r *http.Request, status int, errs desk.FormErrors) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	typed := r.PostForm
	field := func(key, label, unit, help string) desk.FieldView {
		return desk.FieldView{Key: key, Label: label, Unit: d.Units.Of(unit), Value: typed.Get(key), Error: errs[key], Help: help}
	}
	v := handOverView{
		Name: d.Plan.BikeName(), File: d.At() + "/hand-over/file", Error: errs["form"],
		Day: field("day", "On", "", "Empty: today."), At: field("at", "Its odometer", "km", "Empty: as last written down."),
		Whom: field("whom", "To whom", "", ""), Price: field("price", "For how much", d.Plan.Currency, "Of the bike with what goes along. It stays in your history."),
	}
	for _, id := range d.Things.OnBike(d.ID) {
		h, _ := d.Things.Held(id)
		v.Parts = append(v.Parts, handOverPart{id, h.Name()})
	}
	for _, p := range plan.Privates() {
		v.Ticks = append(v.Ticks, handOverTick{p.Key, p.Says})
	}
	return s.Render(w, r, status, "hand-over", desk.Frame{Title: "Handing over · " + d.Plan.Name, Plan: d.View("hand-over", nil), Body: v})
}

// handOverFile is the bike as it goes to its next owner: its record, the parts that stay on it, and of what is private
// only what is ticked.
func (s *Server) handOverFile(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	given := d.Plan.Taking(d.Plan.Given(r.Form.Has))
	parts := d.Things.Pack(staying(r, d), d.ID)
	if !r.Form.Has("money") {
		parts = garage.Without(parts)
	}
	desk.Attach(w, "application/json", format.FileName(d.Plan.BikeName(), ".bike.json"))
	return format.WriteBike(w, given, parts...)
}

// staying are the parts on a bike that go along with it: all but those that a form keeps.
func staying(r *http.Request, d *desk.Desk) []string {
	return slices.DeleteFunc(d.Things.OnBike(d.ID), func(id string) bool { return r.Form.Has("keep." + id) })
}

// handOver notes that a bike has gone: parts that went along are sold with it, the others lie at home; it is put aside
// with its history.
func (s *Server) handOver(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	errs := desk.FormErrors{}
	form := r.PostForm
	id := form.Get("save")
	if !entry.ValidID(id) {
		id = rand.Text()
	}
	day, err := d.Units.Date(strings.TrimSpace(form.Get("day")))
	if err != nil {
		errs["day"] = err.Error()
	}
	if day == "" {
		day = d.AsOf
	}
	price, err := d.Units.Amount(form.Get("price"), d.Plan.Currency)
	if err == nil && price.Known() && price.Minor() < 0 {
		err = errors.New("is below zero")
	}
	if err != nil {
		errs["price"] = err.Error()
	}
	var odometer unit.Length
	if err := d.Units.Enter(&odometer, form.Get("at"), "km"); err != nil {
		errs["at"] = err.Error()
	}
	whom := strings.TrimSpace(form.Get("whom"))
	if len(errs) > 0 {
		return s.showHandOver(w, r, http.StatusUnprocessableEntity, errs)
	}
	act := store.Act{ID: id, Day: day, HandOver: &store.HandOver{Bike: d.ID, As: func(m plan.Machine) plan.Machine {
		if odometer.Known() {
			m = m.Ran(day, odometer)
		}
		m.Held, m.Handed = plan.Gone, &plan.Handed{On: day, Whom: whom, For: price}
		return m
	}}}
	off := odometer
	if !off.Known() {
		off = d.Plan.Bike.Odometer
	}
	stays := staying(r, d)
	for _, one := range d.Things.OnBike(d.ID) {
		e := garage.Event{Thing: one, To: garage.Home, Day: day, Off: off}
		if slices.Contains(stays, one) {
			e.To, e.Whom, e.Note = garage.Sold, whom, "went along with the bike"
		}
		act.Events = append(act.Events, e)
	}
	err = s.Store.Do(r.Context(), s.Rider(r), act)
	var problem entry.Problem
	if errors.As(err, &problem) {
		return s.showHandOver(w, r, http.StatusUnprocessableEntity, desk.FormErrors{"form": problem.Error()})
	}
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.At())
}
