package web

import (
	"cmp"
	"crypto/rand"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// thingView is one part of the rider's own: where it is, what it has seen, and the form that moves it.
type thingView struct {
	ID, Name, Kind, Where string
	Facts                 []factView
	Counted               []string // plans that count on it
	Notes, Steps          []string
	Fits                  []fitView
	Undo, Redo            string // act that can be taken back, or done again; "" for none
	UndoSays, RedoSays    string
	Home                  *desk.LinkView // where it was before, to go back in one step: its address is what "to" says
	Move                  moveView
}

// fitView is whether it goes on a bike of the garage.
type fitView struct {
	Name string
	Goes bool
	Says string
}

// moveView is the form that moves a part, as typed.
type moveView struct {
	Save                         string
	To                           []desk.OptionView
	Day, Off, At                 desk.FieldView
	Leaves                       bool // it is on a bike
	Money, Whom, Until, NoteText desk.FieldView
	Room                         bool // what has its place is to go home
	More                         bool // something of what is folded is said
	Error                        string
}

// onBike begins what a form says of a bike that a part goes on.
const onBike = "on:"

func (s *Server) part(w http.ResponseWriter, r *http.Request) error {
	return s.showPart(w, r, http.StatusOK, nil, desk.FormErrors{})
}

func (s *Server) showPart(w http.ResponseWriter, r *http.Request, status int, typed url.Values, errs desk.FormErrors) error {
	things, err := s.Store.Things(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	id := chi.URLParam(r, "thing")
	h, ok := things.Held(id)
	if !ok {
		return store.ErrNotFound
	}
	u := desk.UnitsOf(r)
	kind, _ := parts.KindOf(h.Part.Slot)
	v := thingView{ID: id, Name: h.Name(), Kind: kind.Name, Where: h.Place.Words(things.Bikes), Notes: things.Notes(id)}
	add := func(name, value string) {
		if value != "" {
			v.Facts = append(v.Facts, factView{name, value})
		}
	}
	if h.Part.Mass.Known() {
		add("Weighs", u.Quantity(h.Part.Mass.In("kg"), "kg"))
	}
	add("Has run", ran(things, id, u))
	sum := things.Money(id)
	add("Spent on it", amounts(sum.Spent))
	add("Came back", amounts(sum.Back))
	add("Bought", h.Bought)
	add("Paid by", h.By)
	add("Came from", entry.NameOf(plan.Sources(), string(h.Source)))
	if h.Hours.Known() {
		add("Own hours", u.Shown(h.Hours.String()))
	}
	add("Note", h.Part.Note)
	counting, err := s.Store.Counting(r.Context(), s.Rider(r), []string{id})
	if err != nil {
		return err
	}
	for _, c := range counting {
		v.Counted = append(v.Counted, "“"+c.Name+"”")
	}
	v.steps(things, h, u)
	bikes, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	bikes = slices.DeleteFunc(bikes, func(b store.GarageBike) bool { return b.Archived })
	if err := s.fits(r, things, h, bikes, &v); err != nil {
		return err
	}
	v.move(u, things, h, bikes, typed, errs)
	return s.Show(w, r, status, "part-of-own", h.Name(), v)
}

// steps tell what has happened, the latest first, and what of it can be taken back.
func (v *thingView) steps(things *store.Things, h garage.Held, u words.Units) {
	from, before := garage.Nowhere, garage.Event{}
	steps := things.Steps(h.ID)
	for _, step := range steps {
		words := step.Day + ": " + stepWords(things, step, from, u)
		if step.Back {
			words += " (taken back)"
		} else if step.To != "" {
			from = step.To
		}
		v.Steps = append([]string{words}, v.Steps...)
	}
	last := len(steps) - 1
	for last >= 0 && steps[last].Back {
		v.Redo, v.RedoSays = steps[last].Act, stepWords(things, steps[last], "", u)
		last--
	}
	if last < 0 {
		return
	}
	if last > 0 {
		v.Undo, v.UndoSays = steps[last].Act, stepWords(things, steps[last], "", u)
	}
	for i := last - 1; i >= 0; i-- {
		if steps[i].To != "" && steps[i].Bike != h.Bike {
			before = steps[i].Event
			break
		}
	}
	if h.State != garage.Home && !h.State.Gone() {
		switch {
		case before.To == garage.On && things.Bikes[before.Bike].Name != "":
			v.Home = &desk.LinkView{Name: "Back to the " + things.Bikes[before.Bike].Name, Href: onBike + before.Bike}
		case h.State == garage.On && h.Until != "" || h.State == garage.Lent:
			v.Home = &desk.LinkView{Name: "Back home", Href: string(garage.Home)}
		}
	}
}

// fits tells on which bikes of the garage the part goes, as they stand.
func (s *Server) fits(r *http.Request, things *store.Things, h garage.Held, bikes []store.GarageBike, v *thingView) error {
	ids := make([]string, len(bikes))
	for i, b := range bikes {
		ids[i] = b.ID
	}
	list, err := s.Store.PlansOf(r.Context(), s.Rider(r), ids)
	if err != nil {
		return err
	}
	for _, b := range list {
		if b.Plan.Bike == nil || h.State == garage.On && h.Bike == b.ID {
			continue
		}
		row := fitView{Name: b.Plan.Bike.Name}
		row.Goes, row.Says = garage.Standing(b.Plan, things.All()).Build("").Says(h.Part)
		v.Fits = append(v.Fits, row)
	}
	slices.SortFunc(v.Fits, func(a, b fitView) int { return strings.Compare(a.Name, b.Name) })
	return nil
}

// move fills the form that moves the part.
func (v *thingView) move(u words.Units, things *store.Things, h garage.Held, bikes []store.GarageBike, typed url.Values, errs desk.FormErrors) {
	var to []entry.Option
	for _, b := range bikes {
		if h.State != garage.On || h.Bike != b.ID {
			to = append(to, entry.Option{Value: onBike + b.ID, Name: "On the " + b.Name})
		}
	}
	for _, o := range garage.States() {
		if o.Value != string(garage.On) && o.Value != string(h.State) {
			to = append(to, entry.Option{Value: o.Value, Name: strings.ToUpper(o.Name[:1]) + o.Name[1:]})
		}
	}
	field := func(key, label, unit, help string) desk.FieldView {
		return desk.FieldView{Key: key, Label: label, Unit: u.Of(unit), Value: typed.Get(key), Error: errs[key], Help: help}
	}
	v.Move = moveView{
		Save: rand.Text(), To: desk.OptionsOf(to, typed.Get("to"), "only a note"), Error: errs["form"], Room: typed.Has("room"),
		Day:      field("day", "On", "", "Empty: today."),
		At:       field("at", "Odometer where it goes on", "km", "Empty: as last written down."),
		Money:    field("money", "Money", "", "Came back, where it is sold or sent back; spent, where a workshop fits it or it is bought back."),
		Whom:     field("whom", "To whom", "", "Lent, sold."),
		Until:    field("until", "Until", "", "The day by which it comes back, or the bike is put back to standard."),
		NoteText: field("text", "Note", "", "Filed, cut, turns counted, a bolt that no wrench reaches: it stays with the part."),
	}
	v.Move.More = typed.Get("money")+typed.Get("whom")+typed.Get("until") != "" || errs["money"]+errs["until"] != ""
	if h.State == garage.On {
		v.Move.Leaves = true
		v.Move.Off = field("off", "Odometer where it comes off", "km", "Of the "+things.Bikes[h.Bike].Name+". Empty: as last written down.")
	}
}

// movePart does what the form says, all of it or none.
func (s *Server) movePart(w http.ResponseWriter, r *http.Request) error {
	things, err := s.Store.Things(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	h, ok := things.Held(chi.URLParam(r, "thing"))
	if !ok {
		return store.ErrNotFound
	}
	act, errs := s.actOf(r, things, h)
	if len(errs) > 0 {
		return s.showPart(w, r, http.StatusUnprocessableEntity, r.PostForm, errs)
	}
	err = s.Store.Do(r.Context(), s.Rider(r), act)
	var refusal *garage.Refusal
	var problem entry.Problem
	switch {
	case errors.As(err, &refusal):
		return s.showPart(w, r, http.StatusConflict, r.PostForm, desk.FormErrors{"form": refusal.Error()})
	case errors.As(err, &problem):
		key := map[string]string{"on": "day", "note": "text"}[problem.Path]
		if key == "" {
			key = problem.Path
		}
		return s.showPart(w, r, http.StatusUnprocessableEntity, r.PostForm, desk.FormErrors{key: problem.What})
	case err != nil:
		return err
	}
	return desk.SeeOther(w, r, "/parts/"+h.ID)
}

// actOf reads the form.
func (s *Server) actOf(r *http.Request, things *store.Things, h garage.Held) (store.Act, desk.FormErrors) {
	errs, form := desk.FormErrors{}, r.PostForm
	d := s.Blank(r, currencyOf(r))
	act := store.Act{ID: form.Get("save"), Odometers: map[string]unit.Length{}}
	if !entry.ValidID(act.ID) {
		act.ID = rand.Text()
	}
	var err error
	if act.Day, err = d.Units.Date(strings.TrimSpace(form.Get("day"))); err != nil {
		errs["day"] = err.Error()
	}
	if act.Day == "" {
		act.Day = desk.Today()
	}
	e := garage.Event{Thing: h.ID, Day: act.Day, Whom: strings.TrimSpace(form.Get("whom")), Note: strings.TrimSpace(form.Get("text"))}
	if e.Until, err = d.Units.Date(strings.TrimSpace(form.Get("until"))); err != nil {
		errs["until"] = err.Error()
	}
	if e.Money, err = d.Units.Amount(form.Get("money"), d.Plan.Currency); err != nil {
		errs["money"] = err.Error()
	}
	to := cmp.Or(form.Get("back"), form.Get("to"))
	if bike, on := strings.CutPrefix(to, onBike); on {
		e.To, e.Bike = garage.On, bike
	} else {
		e.To = garage.State(to)
	}
	odometer := func(key, bike string) (at unit.Length) {
		if err := d.Units.Enter(&at, form.Get(key), "km"); err != nil {
			errs[key] = err.Error()
			return at
		}
		if !at.Known() {
			return things.Bikes[bike].Odometer
		}
		act.Odometers[bike] = at
		return at
	}
	if h.State == garage.On && e.To != "" {
		e.Off = odometer("off", h.Bike)
	}
	if e.To == garage.On {
		e.At = odometer("at", e.Bike)
		if form.Has("room") {
			act.Events = things.MakeRoom(e)
		}
	}
	if e.To == "" && e.Note == "" {
		errs["text"] = "say where it goes, or note something"
	}
	act.Events = append(act.Events, e)
	return act, errs
}

// undoPart takes the latest that happened to a part back, or does it again.
func (s *Server) undoPart(w http.ResponseWriter, r *http.Request) error {
	id, act := chi.URLParam(r, "thing"), r.PostFormValue("save")
	if !entry.ValidID(act) {
		act = rand.Text()
	}
	way := s.Store.UndoAct
	if r.PostForm.Has("again") {
		way = s.Store.RedoAct
	}
	err := way(r.Context(), s.Rider(r), r.PostFormValue("act"), act)
	var refusal *garage.Refusal
	if errors.As(err, &refusal) {
		return s.showPart(w, r, http.StatusConflict, nil, desk.FormErrors{"form": refusal.Error()})
	}
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/parts/"+id)
}
