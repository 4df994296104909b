package web

import (
	"crypto/rand"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// partsView are the rider's own parts: where each is, what it has run and cost.
type partsView struct {
	Query    string
	Where    []desk.OptionView
	Fits     []desk.OptionView // bikes that it would go on
	Rows     []partRow
	Found    int
	Pages    desk.Paging
	Sums     []sumRow // over the life of each bike, and of the garage
	Kinds    []desk.OptionView
	Any      bool // there are parts at all
	Overdue  []string
	Searched bool
}

// partRow is one part in the list.
type partRow struct {
	Href, Name, Kind, Where, Ran, Spent string
	Back                                string
	Overdue                             bool
}

// sumRow is what a bike, or the garage, took and gave back.
type sumRow struct{ Name, Href, Spent, Back, Per string }

// partsAPage is how many parts a page shows.
const partsAPage = 40

// anywhere is what the list shows where nobody has said: all that is not gone.
const anywhere, goneToo = "", "all"

func (s *Server) parts(w http.ResponseWriter, r *http.Request) error {
	things, err := s.Store.Things(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	query := r.URL.Query()
	v := partsView{Query: strings.TrimSpace(query.Get("q")), Any: len(things.All()) > 0, Searched: query.Has("q")}
	where, fits := query.Get("where"), query.Get("fits")
	v.Where = desk.OptionsOf(append(garage.States(), entry.Option{Value: goneToo, Name: "everywhere, and what is gone"}), where, "all that is not gone")
	v.Kinds = desk.OptionsOf(parts.KindOptions(), "", "What kind of part")
	bikes, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	var ofBikes []entry.Option
	for _, b := range bikes {
		if !b.Archived {
			ofBikes = append(ofBikes, entry.Option{Value: b.ID, Name: "goes on the " + b.Name})
		}
	}
	v.Fits = desk.OptionsOf(ofBikes, fits, "fits any bike, or none")
	goes := func(*parts.Part) bool { return true }
	if fits != "" {
		if goes, err = s.goesOn(r, things, fits); err != nil {
			return err
		}
	}
	asked := strings.Fields(strings.ToLower(v.Query))
	u, today := desk.UnitsOf(r), desk.Today()
	var found []garage.Held
	for _, h := range garage.Sorted(things.All()) {
		kind, _ := parts.KindOf(h.Part.Slot)
		text := strings.ToLower(h.Name() + " " + kind.Name + " " + h.Place.Words(things.Bikes))
		if h.Overdue(today) {
			v.Overdue = append(v.Overdue, h.Name()+" "+h.Place.Words(things.Bikes))
		}
		if h.State == garage.Nowhere || where == anywhere && h.State.Gone() || where != anywhere && where != goneToo && string(h.State) != where || !goes(h.Part) ||
			slices.ContainsFunc(asked, func(word string) bool { return !strings.Contains(text, word) }) {
			continue
		}
		found = append(found, h)
	}
	v.Found = len(found)
	v.Pages = desk.PagesOf(len(found), partsAPage, query.Get("page"), func(n string) string {
		next := url.Values{"q": {v.Query}, "where": {where}, "fits": {fits}, "page": {n}}
		return "/parts?" + next.Encode()
	})
	for _, h := range found[v.Pages.From:v.Pages.To] {
		kind, _ := parts.KindOf(h.Part.Slot)
		called := kind.Name
		if b, ok := things.Bikes[h.For]; ok && h.State != garage.On {
			called += ", for the " + b.Name
		}
		row := partRow{Href: "/parts/" + h.ID, Name: h.Name(), Kind: called, Where: h.Place.Words(things.Bikes), Ran: ran(things, h.ID, u), Overdue: h.Overdue(today)}
		sum := things.Money(h.ID)
		row.Spent, row.Back = amounts(sum.Spent), amounts(sum.Back)
		v.Rows = append(v.Rows, row)
	}
	v.Sums = sums(things, bikes)
	return s.Show(w, r, http.StatusOK, "parts", "Parts of your own", v)
}

// ran is how far a part has run, in words.
func ran(things *store.Things, id string, u words.Units) string {
	km, whole := things.Ridden(id)
	switch {
	case km == 0 && whole:
		return ""
	case km == 0:
		return "not known"
	case !whole:
		return "at least " + u.Quantity(km, "km")
	}
	return u.Quantity(km, "km")
}

// amounts are sums of several currencies in a line.
func amounts(list []money.Amount) string {
	said := make([]string, 0, len(list))
	for _, a := range list {
		if a.Minor() != 0 {
			said = append(said, a.Display())
		}
	}
	return strings.Join(said, " + ")
}

// sums are what each bike took over its life, and all of the garage.
func sums(things *store.Things, bikes []store.GarageBike) []sumRow {
	ledgers := things.Ledgers()
	var whole garage.Ledger
	var list []sumRow
	for _, l := range ledgers {
		whole.Add(*l)
	}
	for _, b := range bikes {
		if l := ledgers[b.ID]; l != nil {
			list = append(list, sumRow{b.Name, "/bikes/" + b.ID, amounts(l.Spent), amounts(l.Back), per1000(l, things.Bikes[b.ID].Odometer.In("km"))})
		}
	}
	if l := ledgers[""]; l != nil {
		list = append(list, sumRow{Name: "For no bike", Spent: amounts(l.Spent), Back: amounts(l.Back)})
	}
	if len(list) == 0 {
		return nil
	}
	return append(list, sumRow{Name: "The garage", Spent: amounts(whole.Spent), Back: amounts(whole.Back)})
}

// per1000 is what parts took per 1000 km of a bike's odometer, "" where nobody can tell.
func per1000(l *garage.Ledger, km float64) string {
	if a := l.Per1000(km); a.Known() {
		return a.Display()
	}
	return ""
}

// goesOn tells which parts go on a bike as it stands, by fitment.
func (s *Server) goesOn(r *http.Request, things *store.Things, bike string) (func(*parts.Part) bool, error) {
	list, err := s.Store.PlansOf(r.Context(), s.Rider(r), []string{bike})
	if err != nil {
		return nil, err
	}
	if len(list) == 0 || list[0].Kind != store.OfBike || list[0].Plan.Bike == nil {
		return nil, store.ErrNotFound
	}
	built := garage.Standing(list[0].Plan, things.All()).Build("")
	return func(p *parts.Part) bool { goes, _ := built.Says(p); return goes }, nil
}

// newPart asks for a part that is had: its kind first, and then all that such parts have.
func (s *Server) newPart(w http.ResponseWriter, r *http.Request) error {
	return s.showSheet(w, r, http.StatusOK, garage.Held{}, nil, nil)
}

// sheetView is the form of a part by itself.
type sheetView struct {
	ID, Kind, Named string // "" for a new one
	Save            string
	Name, Price     desk.FieldView
	Note, Bought    desk.FieldView
	By              desk.FieldView
	Currency        string
	Kinds           []desk.OptionView
	Sources         []desk.OptionView
	Errors          desk.FormErrors
	desk.DraftView
}

// showSheet shows the form of a part: of one that is there, or of a new one of a kind.
func (s *Server) showSheet(w http.ResponseWriter, r *http.Request, status int, h garage.Held, typed url.Values, errs desk.FormErrors) error {
	part := h.Part
	if part == nil {
		part = &parts.Part{Slot: parts.Slot(r.FormValue("kind"))}
	}
	kind, known := parts.KindOf(part.Slot)
	if !known {
		return desk.SeeOther(w, r, "/parts")
	}
	d := s.Blank(r, currencyOf(r))
	v := sheetView{ID: h.ID, Kind: string(part.Slot), Named: strings.ToLower(kind.Name), Save: rand.Text(), Errors: errs}
	v.Name = desk.FieldView{Key: "name", Label: "Name", Value: desk.Typed(typed, "name", part.Name), Error: errs["name"], Help: "As you would say it in the garage."}
	v.Price = desk.FieldView{Key: "cost", Label: "What it cost", Value: desk.Typed(typed, "cost", d.Units.Shown(h.Cost.String())), Error: errs["cost"], Help: "With its currency, or in " + d.Plan.Currency + ". 0 where it cost nothing."}
	v.Bought = desk.FieldView{Key: "bought", Label: "Bought on", Value: desk.Typed(typed, "bought", h.Bought), Error: errs["bought"], Help: "Empty: nobody knows."}
	v.By = desk.FieldView{Key: "by", Label: "Paid by", Value: desk.Typed(typed, "by", h.By), Error: errs["by"], Help: "Empty: by you."}
	v.Note = desk.FieldView{Key: "note", Label: "Note", Value: desk.Typed(typed, "note", part.Note), Error: errs["note"]}
	source := h.Source
	if source == "" {
		source = plan.BoughtNew
	}
	v.Sources = desk.OptionsOf(plan.Sources(), desk.Typed(typed, "source", string(source)), "")
	v.DraftView = d.DraftOf(parts.DraftOf(part), typed, errs)
	title := "A part of your own"
	if h.ID != "" {
		title = h.Name()
	}
	return s.Show(w, r, status, "part-sheet", title, v)
}

// keepPart keeps a part's sheet, or a new part at home.
func (s *Server) keepPart(w http.ResponseWriter, r *http.Request) error {
	act := r.PostFormValue("save")
	if !entry.ValidID(act) {
		act = rand.Text()
	}
	var h garage.Held
	if id := chi.URLParam(r, "thing"); id != "" {
		things, err := s.Store.Things(r.Context(), s.Rider(r))
		if err != nil {
			return err
		}
		is, ok := things.Held(id)
		if !ok {
			return store.ErrNotFound
		}
		h = is
	}
	t := h.Thing
	if t.Part == nil {
		slot := parts.Slot(r.PostFormValue("kind"))
		if _, known := parts.KindOf(slot); !known {
			return store.ErrNotFound
		}
		t = garage.Thing{ID: store.MadeBy(act), Part: &parts.Part{ID: parts.OwnPrefix + strings.ToLower(act[:16]), Slot: slot, Origin: sheet.Rider}}
	}
	d, errs := s.Blank(r, currencyOf(r)), desk.FormErrors{}
	draft := parts.DraftOf(t.Part)
	if draft.Name = strings.TrimSpace(r.PostFormValue("name")); draft.Name == "" {
		errs["name"] = "say what it is"
	}
	draft.Note = strings.TrimSpace(r.PostFormValue("note"))
	var err error
	if t.Cost, err = d.Units.Amount(r.PostFormValue("cost"), d.Plan.Currency); err != nil {
		errs["cost"] = err.Error()
	}
	if t.Bought, err = d.Units.Date(strings.TrimSpace(r.PostFormValue("bought"))); err != nil {
		errs["bought"] = err.Error()
	}
	t.By, t.Source = strings.TrimSpace(r.PostFormValue("by")), plan.Source(r.PostFormValue("source"))
	if t.Source == plan.BoughtNew {
		t.Source = ""
	}
	t.Part = d.ReadDraft(draft, r.PostForm, errs)
	if len(errs) == 0 {
		for _, problem := range t.Validate() {
			errs[parts.KeyAt(strings.TrimPrefix(problem.Path, "part."))] = problem.What
		}
	}
	if len(errs) > 0 {
		shown := h
		if shown.Part == nil {
			shown.Part = &parts.Part{Slot: t.Part.Slot}
		}
		return s.showSheet(w, r, http.StatusUnprocessableEntity, shown, r.PostForm, errs)
	}
	do := store.Act{ID: act, Day: desk.Today(), Put: []garage.Thing{t}}
	if h.ID == "" {
		do.Events = []garage.Event{{Thing: t.ID, To: garage.Home, Day: desk.Today()}}
	}
	if err := s.Store.Do(r.Context(), s.Rider(r), do); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/parts/"+t.ID)
}

// partRoutes are those of the rider's own parts.
func (s *Server) partRoutes(r chi.Router) {
	r.Get("/parts", s.handle(s.parts))
	r.Get("/parts/new", s.handle(s.newPart))
	r.Post("/parts", s.handle(s.keepPart))
	r.Get(atThing, s.handle(s.part))
	r.Get(atThing+"/sheet", s.handle(s.partSheet))
	r.Post(atThing+"/sheet", s.handle(s.keepPart))
	r.Post(atThing+"/move", s.handle(s.movePart))
	r.Post(atThing+"/undo", s.handle(s.undoPart))
}

// atThing is where the addresses of one part begin.
const atThing = "/parts/{thing}"

func (s *Server) partSheet(w http.ResponseWriter, r *http.Request) error {
	things, err := s.Store.Things(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	h, ok := things.Held(chi.URLParam(r, "thing"))
	if !ok {
		return store.ErrNotFound
	}
	return s.showSheet(w, r, http.StatusOK, h, nil, nil)
}

// stepWords say what happened to a part.
func stepWords(things *store.Things, step garage.Step, from garage.State, u words.Units) string {
	said := "noted"
	if step.To != "" {
		said = garage.Place{State: step.To, Bike: step.Bike, Whom: step.Whom, Until: step.Until}.Words(things.Bikes)
	}
	if step.Off.Known() {
		said += ", off at " + u.Quantity(step.Off.In("km"), "km")
	}
	if step.At.Known() {
		said += ", on at " + u.Quantity(step.At.In("km"), "km")
	}
	if step.Money.Known() {
		how := "came back"
		if step.Spends(from) {
			how = "spent"
		}
		said += fmt.Sprintf(", %s %s", step.Money.Display(), how)
	}
	return said
}
