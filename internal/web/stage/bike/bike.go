package bike

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/draw"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// bikeView is the choice of a bike, and whether it is the right one.
type bikeView struct {
	Bikes     []bikeCard
	Own       []bikeCard // others of the rider's garage
	Names     []string   // of the bikes that are asked about, the plan's first
	Questions []questionRow
	Measures  []measureRow
	Money     string // what the plan spends against another bike
	Sheet     draw.Sheet
	Sides     []draw.SideView
	Marks     []heightMark
	Beside    *besideView // the bike that is tried, for a variant of its own
}

// besideView is a bike by the id that it is tried under.
type besideView struct{ ID, Name string }

// questionRow is one question, answered for each of the bikes.
type questionRow struct {
	Name    string
	Answers []answerView
}

type answerView struct {
	State   desk.StateView
	Figures []string
	Says    []string
}

type measureRow struct {
	Name  string
	Cells []string
}

// heightMark is a height written beside the drawing.
type heightMark struct {
	X, Y, TextX, TextY draw.N
	Text               string
	Style              draw.Style
}

type bikeCard struct {
	ID, Name, Kind, Note, Href string
	Facts                      []string
	Current, Tried             bool
}

// Blank is what a rider starts from whose bike is not in the list.
const Blank = "own-bike"

// Of finds a bike: a blank sheet, one of a kind, one of the rider's garage, or a copy of the
// catalogue's.
func Of(s *desk.House, r *http.Request, id string) (plan.Machine, error) {
	if id == Blank {
		return plan.Machine{Bike: &plan.Bike{ID: Blank, Name: "My bike", Origin: sheet.Rider}}, nil
	}
	if class, found := strings.CutPrefix(id, OfKind); found {
		if !entry.Among(plan.Classes(), class) {
			return plan.Machine{}, store.ErrNotFound
		}
		return plan.Machine{Bike: &plan.Bike{ID: Blank, Name: entry.NameOf(plan.Classes(), class), Class: plan.Class(class), Origin: sheet.Rider}}, nil
	}
	if own, found := strings.CutPrefix(id, OfGarage); found {
		of, err := s.Store.Plan(r.Context(), s.Rider(r), own)
		if err != nil {
			return plan.Machine{}, err
		}
		if of.Kind != store.OfBike || of.Plan.Bike == nil {
			return plan.Machine{}, store.ErrNotFound
		}
		return of.Plan.Machine, nil
	}
	bike, err := s.Store.Bike(r.Context(), id)
	return plan.Machine{Bike: bike}, err
}

// What is put before the id of a bike of the garage, and before a class.
const (
	OfGarage = "own:"
	OfKind   = "kind:"
)

// bikeTurn is another bike, with the parts that go on it.
var bikeTurn = desk.Turn{Key: bikeKey, Read: func(s *desk.House, r *http.Request, _ *desk.Desk, ids []string) ([]desk.Turned, error) {
	m, err := Of(s, r, ids[0])
	if err != nil {
		return nil, err
	}
	return []desk.Turned{{
		Value: ids[0], Name: m.Bike.Name, Said: "Bike: " + m.Bike.Name, Act: "Take this bike",
		On: func(p *plan.Plan) *plan.Plan { return p.Taking(m) },
	}}, nil
}}

const bikeKey = "bike"

func bikePage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	bench, laid, err := d.Tried(r, "bike")
	if err != nil {
		return err
	}
	view, err := bikes(s, r, d, laid)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "bike", bench, view)
}

// bikes is the page: what there is to choose from, and the plan's bike beside the
// one that is tried.
func bikes(s *desk.House, r *http.Request, d *desk.Desk, laid desk.Laid) (bikeView, error) {
	tried := strings.Join(laid.Values(bikeKey), "")
	list, err := s.Store.Bikes(r.Context())
	if err != nil {
		return bikeView{}, err
	}
	v := bikeView{}
	has := d.Plan.Bike != nil
	for _, b := range list {
		v.Bikes = append(v.Bikes, card(d, b, b.ID, tried, has && d.Plan.Bike.ID == b.ID))
	}
	v.Bikes = append(v.Bikes, bikeCard{
		ID: Blank, Name: "My own bike", Kind: "blank sheet", Href: d.Href("bike", bikeKey, Blank), Tried: tried == Blank,
		Note:    "Every number is optional; a gauge that lacks one says so, and the sheet says how to measure it.",
		Current: has && d.Plan.Bike.ID == Blank,
	})
	if v.Own, err = ownBikes(s, r, d, tried); err != nil {
		return v, err
	}
	asked := []*plan.Bike{}
	if has {
		asked = append(asked, d.Plan.Bike)
	}
	if tried != "" {
		asked = append(asked, laid.Plan.Bike)
		if has {
			v.Beside = &besideView{tried, laid.Plan.Bike.Name}
		}
	}
	return v, ask(d, &v, asked)
}

func card(d *desk.Desk, b *plan.Bike, id, tried string, current bool) bikeCard {
	card := bikeCard{ID: id, Name: b.Name, Kind: b.Kind, Note: b.Note, Href: d.Href("bike", bikeKey, id), Tried: tried == id, Current: current}
	for _, fact := range []struct {
		known bool
		text  string
	}{
		{b.KerbMass.Known(), d.Units.Plain(b.KerbMass.In("kg"), "kg")},
		{b.Power.Known(), d.Units.Plain(b.Power.In("kW"), "kW")},
		{b.SeatHeight.Known(), "seat " + d.Units.Plain(b.SeatHeight.In("mm"), "mm")},
		{b.Price.Known(), b.Price.Rough()},
	} {
		if fact.known {
			card.Facts = append(card.Facts, fact.text)
		}
	}
	return card
}

// ownBikes are the others of the rider's garage, with all that is known of each.
func ownBikes(s *desk.House, r *http.Request, d *desk.Desk, tried string) ([]bikeCard, error) {
	garage, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return nil, err
	}
	var ids []string
	for _, b := range garage {
		if b.ID != d.Plan.Garage && !b.Archived {
			ids = append(ids, b.ID)
		}
	}
	list, err := s.Store.PlansOf(r.Context(), s.Rider(r), ids)
	if err != nil {
		return nil, err
	}
	var cards []bikeCard
	for _, b := range list {
		if b.Plan.Bike == nil { // it cannot be read
			continue
		}
		card := card(d, b.Plan.Bike, OfGarage+b.ID, tried, false)
		card.Note = cmp.Or(entry.NameOf(plan.Helds(), string(b.Plan.Held)), "In your garage") + ", with what was found and measured."
		cards = append(cards, card)
	}
	return cards, nil
}

// ask holds bikes as they came against brief and loads, and draws them over one
// another.
func ask(d *desk.Desk, v *bikeView, bikes []*plan.Bike) error {
	var silhouettes []draw.Silhouette
	for _, b := range bikes {
		report, err := d.On.Evaluate(eval.AsItCame(d.Plan, b))
		if err != nil {
			return err
		}
		v.Names = append(v.Names, b.Name)
		for i, q := range eval.RightBike(report) {
			if i == len(v.Questions) {
				v.Questions = append(v.Questions, questionRow{Name: q.Name})
			}
			v.Questions[i].Answers = append(v.Questions[i].Answers, answer(d, q))
		}
		for i, m := range measures {
			if i == len(v.Measures) {
				v.Measures = append(v.Measures, measureRow{Name: m.name})
			}
			v.Measures[i].Cells = append(v.Measures[i].Cells, m.cell(d.Units, b, report))
		}
		silhouettes = append(silhouettes, desk.Silhouette(b, report))
	}
	v.Money = anotherBike(d, bikes)
	v.Sheet = draw.SideSheet(silhouettes...)
	for i, style := range []draw.Style{draw.Current, draw.Tried} {
		if i >= len(silhouettes) {
			break
		}
		side, ok := v.Sheet.Side(silhouettes[i], style)
		if !ok {
			continue
		}
		v.Sides = append(v.Sides, side)
		for _, mark := range []struct {
			at   draw.Mark2D
			name string
		}{{side.Bar, "bars"}, {side.Seat, "seat"}, {side.Bottom, "clear"}} {
			if mark.at.Shown {
				v.Marks = append(v.Marks, heightMark{
					X: mark.at.X, Y: mark.at.Y, TextX: v.Sheet.Width - 100, TextY: mark.at.Y, Style: style,
					Text: mark.name + " " + d.Units.Quantity(mark.at.Height, "mm"),
				})
			}
		}
	}
	spread(v.Marks)
	return nil
}

// spread moves words apart that would stand on one another, from the top down.
func spread(marks []heightMark) {
	const line = 15
	slices.SortStableFunc(marks, func(a, b heightMark) int { return cmp.Compare(a.TextY, b.TextY) })
	for i := 1; i < len(marks); i++ {
		marks[i].TextY = max(marks[i].TextY, marks[i-1].TextY+line)
	}
}

func answer(d *desk.Desk, q eval.Question) answerView {
	a := answerView{State: desk.StateOf(q.State)}
	for _, f := range q.Figures {
		text := f.Name + " " + d.Units.Told(f)
		if f.Limited {
			text += ", " + desk.LimitWord(f) + " " + d.Units.Limit(f)
		}
		if !f.Known && len(f.Missing) > 0 {
			text = f.Name + ": needs " + strings.Join(f.Missing, ", ")
		}
		a.Figures = append(a.Figures, text)
	}
	for _, f := range q.Findings {
		told := f.Tell()
		a.Says = append(a.Says, d.Units.Text(told.What)+" "+d.Units.Text(told.Do))
	}
	return a
}

// measures are the bikes' own numbers, side by side.
var measures = []struct {
	name string
	cell func(u words.Units, b *plan.Bike, r *eval.LoadoutReport) string
}{
	{"Ready to ride", func(u words.Units, b *plan.Bike, _ *eval.LoadoutReport) string {
		return u.Quantity(b.KerbMass.In("kg"), "kg")
	}},
	{"Power", func(u words.Units, b *plan.Bike, _ *eval.LoadoutReport) string {
		return u.Quantity(b.Power.In("kW"), "kW")
	}},
	{"… per loaded tonne", func(u words.Units, b *plan.Bike, r *eval.LoadoutReport) string {
		f, _ := r.Figure(figure.LoadedMass)
		if !f.Known {
			return words.Unknown
		}
		return u.Quantity(1000*b.Power.In("kW")/f.Value, "kW")
	}},
	{"May still be put on", func(u words.Units, _ *plan.Bike, r *eval.LoadoutReport) string {
		f, _ := r.Figure(figure.PayloadLeft)
		return u.Told(f)
	}},
	{"Tank", func(u words.Units, b *plan.Bike, _ *eval.LoadoutReport) string { return u.Plain(b.Tank.In("L"), "L") }},
	{"Seat", func(u words.Units, b *plan.Bike, _ *eval.LoadoutReport) string {
		return u.Quantity(b.SeatHeight.In("mm"), "mm")
	}},
	{"Clearance, unloaded", func(u words.Units, b *plan.Bike, _ *eval.LoadoutReport) string {
		return u.Quantity(b.Clearance.In("mm"), "mm")
	}},
	{"Travel, front and rear", func(u words.Units, b *plan.Bike, _ *eval.LoadoutReport) string {
		return u.Quantity(b.FrontTravel.In("mm"), "mm") + ", " + u.Quantity(b.RearTravel.In("mm"), "mm")
	}},
	{"Wheels", func(u words.Units, b *plan.Bike, _ *eval.LoadoutReport) string {
		return u.Plain(b.FrontRimDiameter.In("in"), "in") + " " + wheelWord(b.FrontBuild) + ", " + u.Plain(b.RearRimDiameter.In("in"), "in") + " " + wheelWord(b.RearBuild)
	}},
	{"Worth", func(_ words.Units, b *plan.Bike, _ *eval.LoadoutReport) string {
		if !b.Price.Known() {
			return words.Unknown
		}
		return b.Price.Rough()
	}},
}

func wheelWord(build parts.WheelBuild) string {
	if build == "" {
		return "build not known"
	}
	return string(build)
}

// anotherBike says what the plan spends on its bike against the difference to
// the other one: past some sum that is cheaper.
func anotherBike(d *desk.Desk, bikes []*plan.Bike) string {
	cost, _ := d.Report.Figure(figure.Cost)
	if len(bikes) < 2 || !cost.Known {
		return ""
	}
	own, _, ok := d.Plan.Home(bikes[0].Price)
	other, _, okOther := d.Plan.Home(bikes[1].Price)
	if !ok || !okOther || !own.Known() || !other.Known() {
		return "Enter what both bikes are worth on their sheets, and the sum that the plan spends is held against the difference."
	}
	spent := money.New(int64(cost.Value), d.Plan.Currency)
	difference := other.Minor() - own.Minor()
	switch {
	case difference <= 0:
		return fmt.Sprintf("The plan spends %s on the %s; the %s is worth %s less.", spent.Rough(), bikes[0].Name, bikes[1].Name, money.New(-difference, d.Plan.Currency).Rough())
	case spent.Minor() >= difference:
		return fmt.Sprintf("The plan spends %s on the %s; for %s the %s is to be had instead, before a part goes onto it.", spent.Rough(), bikes[0].Name, money.New(difference, d.Plan.Currency).Rough(), bikes[1].Name)
	}
	return fmt.Sprintf("The plan spends %s on the %s; the %s costs %s more.", spent.Rough(), bikes[0].Name, bikes[1].Name, money.New(difference, d.Plan.Currency).Rough())
}
