package ready

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	study "valiantmule/internal/core/study/ready"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// ordersForm is how one line comes, and who fits it.
var ordersForm = desk.SettingsOf(desk.StageForm{Stage: "ready", Title: "How it comes, as typed", Save: "Keep it so", Rows: true, Read: readSupply}, ordersOf)

// ordersView is what has to come, by whom it is sent.
type ordersView struct {
	Says     saysView
	Empty    bool
	Sellers  []sellerView
	Together []desk.LinkView // the same in one parcel
	Open     *supplyView     // the line that is looked at
	Back     []backRow
	Act      string
	Leave    string // where a first departure is said; "" where one is
	LeaveBy  desk.FieldView
	File     string
	Undated  bool
	desk.FormState
}

// saysView is how it stands, in words.
type saysView struct {
	Ready, Middle, Leaves, Spare string
	State                        desk.StateView
	Holds                        []holdView
	Begin                        string // nothing is late, and nothing has to be begun before then
	Usual                        int
	Time                         string // where hours and sellers are said
	Hours, Saved                 string
	HoldsWord                    string
	Never                        bool // there is no hour for what is to be done
}

// holdView is one of the jobs that hold the day up.
type holdView struct{ Name, Takes, Href string }

// sellerView is one seller with what it sends.
type sellerView struct {
	Name, From, Freight, Waits, Closed string
	Rows                               []orderRow
}

// orderRow is one line.
type orderRow struct {
	Key, Name, Slots, State, Comes, By, Spare, Href, Cost string
	Takes                                                 string
	Late, Usual, Holds                                    bool
	First                                                 *study.Act // what mostly happens to it next
	Acts                                                  []study.Act
	Ways                                                  []desk.LinkView
	Job                                                   int
	by                                                    calendar.Day
}

// backRow is what was ordered and went back.
type backRow struct{ Name, Says string }

// supplyView is how a line comes, as fields.
type supplyView struct {
	Name, Key      string
	Fields         []desk.FieldView
	Froms, Bys     []desk.OptionView
	Sellers, Shops []string
	UseUp, CanUse  bool
	Notes          []desk.FieldView // torque, what to look at
	Leave          string
	Spread         string
}

// Fields lists the values of the form, for what changed in two places.
func (v ordersView) Fields() []desk.FieldView {
	if v.Open == nil {
		return nil
	}
	list := slices.Concat(v.Open.Fields, v.Open.Notes, []desk.FieldView{desk.Selected("from", "From", v.Open.Froms), desk.Selected("by", "Fitted by", v.Open.Bys)})
	if v.Open.CanUse {
		list = append(list, desk.Checked("use_up", "Use the old one up", v.Open.UseUp))
	}
	return list
}

func (v ordersView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// readyOf are the facts of time of what a page shows; there are some without a bike too.
func readyOf(d *desk.Desk, s desk.Shown) *facts.All {
	if s.After != nil {
		return s.After.Facts
	}
	return asks(d.With(s.Plan))
}

func ordersOf(d *desk.Desk, s desk.Shown) (desk.FormBody, error) {
	f := readyOf(d, s)
	v := ordersView{Act: d.Href("ready/act"), File: d.Href("orders.csv"), FormState: s.State, Says: says(d, f)}
	v.Undated, v.Leave = !f.Ready.Dated, d.Href("ready/leave")
	v.LeaveBy = desk.FieldView{Key: "leave", Label: "When do you leave?", Value: desk.Typed(s.Form, "leave", f.Plan.Brief.Start), Error: s.Errs["leave"], Guess: "three weeks, or 2027-05-14"}
	groups := map[string]*sellerView{}
	var names []string
	for i := range f.Plan.Lines {
		l := &f.Plan.Lines[i]
		if l.Decision == plan.SentBack || l.Supplied().Wrong != "" {
			v.Back = append(v.Back, backOf(l))
		}
		row, seller, ok := rowOf(d, f, i, s.Tried)
		if !ok {
			continue
		}
		g := groups[seller]
		if g == nil {
			g = &sellerView{Name: seller}
			groups[seller] = g
			names = append(names, seller)
		}
		g.Rows = append(g.Rows, row)
	}
	for _, name := range names {
		v.Sellers = append(v.Sellers, grouped(d, f, groups[name]))
		if way, ok := study.Together(f, name); ok && len(v.Together) < 4 {
			v.Together = append(v.Together, desk.LinkView{Name: way.Name, Href: d.Href("ready", s.Tried.Turning(wayKey, way.Value)...)})
		}
	}
	slices.SortStableFunc(v.Sellers, func(a, b sellerView) int { return cmp.Compare(a.Rows[0].by, b.Rows[0].by) })
	v.Empty = len(v.Sellers) == 0
	key := s.Query.Get("line")
	if s.Form != nil {
		key = s.Form.Get("line")
	}
	if at := f.Plan.LineAt(key); at >= 0 && key != "" {
		open, err := supplyOf(d, s, at)
		if err != nil {
			return nil, err
		}
		v.Open = open
	}
	return v, nil
}

// says tells how it stands.
func says(d *desk.Desk, f *facts.All) saysView {
	r := &f.Ready
	v := saysView{Usual: r.Usual, Time: d.Href("time"), HoldsWord: "sets the day"}
	if r.Net == nil {
		v.Ready = r.Today.String()
		return v
	}
	if math.IsInf(r.Outlook.Share(0.8), 0) {
		v.Never = true
		return v
	}
	late, middle := r.Morning(r.Outlook.Share(0.8)), r.Morning(r.Outlook.Share(0.5))
	v.Ready, v.Middle = late.String(), middle.String()
	v.Hours = words.Number(r.Table.Hours, 1) + " h"
	if r.Table.Saved > 0.05 {
		v.Saved = words.Number(r.Table.Saved, 1) + " h"
	}
	for _, j := range r.Table.Holds() {
		v.Holds = append(v.Holds, holdView{r.Jobs[j].Name, takes(r, j), jobHref(d, f, j)})
	}
	if !r.Dated {
		return v
	}
	if v.Leaves = r.Leaves.String(); late > r.Leaves {
		v.HoldsWord = "holds it up"
	}
	switch spare := int(r.Leaves - late); {
	case spare > 0:
		v.Spare = count(spare, "day") + " to spare"
	case spare == 0:
		v.Spare = "no day to spare"
	default:
		v.Spare = count(-spare, "day") + " short"
	}
	first := calendar.Day(0)
	for j := range r.Jobs {
		if by := begin(r, j); first == 0 || by < first {
			first = by
		}
	}
	if first > r.Today+begins {
		v.Begin = first.String()
	}
	return v
}

// begins is how far away something has to be that it is said to be begun only then, days.
const begins = 10

// begin is how late a job may begin.
func begin(r *facts.Ready, j int) calendar.Day {
	if r.Jobs[j].Kind == facts.JobOrder {
		by, _ := study.OrderBy(r, j)
		return by
	}
	return r.Day(r.Table.Rows[j].LatestStart)
}

func count(n int, of string) string {
	if n == 1 {
		return "1 " + of
	}
	return words.Number(float64(n), 0) + " " + of + "s"
}

// takes is how long a job likely takes.
func takes(r *facts.Ready, j int) string {
	if r.Net.Jobs[j].Kind == calendar.Work {
		return words.Number(r.Table.Rows[j].Takes, 1) + " h"
	}
	return words.Number(r.Table.Rows[j].End-r.Table.Rows[j].Start, 0) + " d"
}

// jobHref leads to where a job is looked at.
func jobHref(d *desk.Desk, f *facts.All, j int) string {
	job := &f.Ready.Jobs[j]
	switch {
	case job.Line >= 0:
		return d.Href("ready", "line", f.Plan.LineKeys()[job.Line]) + "#line"
	case job.Kind == facts.JobRight:
		return d.Href("baseline")
	}
	return d.Href("days")
}

// rowOf is a line of the plan that is to come or to be fitted; ok is false for others.
func rowOf(d *desk.Desk, f *facts.All, at int, tried desk.Laid) (row orderRow, seller string, ok bool) {
	r, l := &f.Ready, &f.Plan.Lines[at]
	order, fit := -1, -1
	for j := range r.Jobs {
		if r.Jobs[j].Line != at {
			continue
		}
		switch r.Jobs[j].Kind {
		case facts.JobOrder:
			order = j
		case facts.JobFit, facts.JobShop:
			fit = j
		}
	}
	if order < 0 && fit < 0 {
		return row, "", false
	}
	key := f.Plan.LineKeys()[at]
	row = orderRow{Key: key, Name: l.Title(), Job: order, State: state(f, at), Href: d.Href("ready", "line", key) + "#line"}
	if acts := study.Acts(f, at); len(acts) > 0 {
		row.First, row.Acts = &acts[0], acts[1:]
	}
	if l.Part != nil {
		kind, _ := parts.KindOf(l.Part.Slot)
		row.Slots = kind.Name
	}
	if cost := f.Plan.CostOf(l); cost.Known() {
		row.Cost = cost.Display()
	}
	job := order
	if job < 0 {
		job = fit
	}
	of := &r.Table.Rows[job]
	row.Takes, row.Usual = spreadWords(r.Net.Jobs[job].Takes, r.Net.Jobs[job].Kind), r.Jobs[job].Usual
	row.Comes = r.Morning(of.End).String()
	row.Holds = slices.Contains(r.Table.Holds(), job)
	row.by = begin(r, job)
	if r.Dated {
		row.By = row.by.String()
		days := of.Spare
		if study.ToOrder(l) { // by the day on which it has to be ordered
			days = float64(row.by - r.Today)
		}
		row.Spare, row.Late = spare(days), days < -0.05
	}
	if row.Late || r.Dated && r.Morning(r.Outlook.Share(0.8)) > r.Leaves && row.Holds {
		for _, way := range study.Ways(f, at) {
			row.Ways = append(row.Ways, desk.LinkView{Name: way.Name, Href: d.Href("ready", tried.Turning(wayKey, way.Value)...)})
		}
	}
	seller = l.SellerOf()
	switch {
	case order < 0:
		seller = here
	case seller == "":
		from, _, _ := f.Plan.Comes(l)
		known, _ := calendar.SupplyOf(from)
		seller = known.Name + ", nobody named"
	}
	return row, seller, true
}

// here is the group of what has come.
const here = "Here, to be fitted"

// spreadWords is how long something takes, with its ends where they differ.
func spreadWords(s calendar.Spread, kind calendar.Kind) string {
	unit, digits := " d", 0
	if kind == calendar.Work {
		unit, digits = " h", 1
	}
	text := words.Number(s.Likely, digits)
	if low, high := words.Number(s.Low, digits), words.Number(s.High, digits); low != text || high != text {
		text += " (" + low + "–" + high + ")"
	}
	return text + unit
}

// state is how far a line is.
func state(f *facts.All, at int) string {
	l := &f.Plan.Lines[at]
	s := l.Supplied()
	switch {
	case s.Came != "":
		return "came " + s.Came
	case l.Decision == plan.Owned:
		return "here"
	case l.Decision == plan.Ordered && s.Promised != "":
		return "promised for " + s.Promised
	case l.Decision == plan.Ordered && s.Ordered != "":
		return "ordered " + s.Ordered
	case l.Decision == plan.Ordered:
		return "ordered"
	case s.NotBefore > f.AsOf:
		return "not before " + s.NotBefore
	case s.Most.Known() && s.Last != "":
		return "used up to " + s.Most.Display() + ", until " + s.Last
	}
	return "to order"
}

func backOf(l *plan.Line) backRow {
	if wrong := l.Supplied().Wrong; wrong != "" {
		return backRow{l.Title(), "the wrong one came on " + wrong}
	}
	says := "sent back"
	if l.Back.Known() {
		says += ", " + l.Back.Display() + " came back"
	}
	return backRow{l.Title(), says}
}

// grouped is a seller with what is known of it, its rows by their last day.
func grouped(d *desk.Desk, f *facts.All, g *sellerView) sellerView {
	slices.SortStableFunc(g.Rows, func(a, b orderRow) int { return cmp.Compare(a.by, b.by) })
	if s := f.Plan.Ready.SellerOf(g.Name); s != nil {
		if row, ok := calendar.SupplyOf(s.From); ok {
			g.From = row.Name
		}
		if s.Freight.Known() {
			g.Freight = "freight " + s.Freight.Display() + " once"
		}
		var closed []string
		for _, span := range s.Closed {
			if days, ok := span.Days(); ok && days.To >= f.Ready.Today {
				closed = append(closed, days.String())
			}
		}
		if closed != nil {
			g.Closed = "closed " + strings.Join(closed, ", ")
		}
	}
	if g.Name == here || len(g.Rows) < 2 {
		return *g
	}
	slowest, next, name := 0.0, 0.0, ""
	for _, row := range g.Rows {
		if row.Job < 0 || f.Plan.Lines[f.Ready.Jobs[row.Job].Line].Decision == plan.Ordered {
			continue
		}
		switch end := f.Ready.Table.Rows[row.Job].End; {
		case end > slowest:
			slowest, next, name = end, slowest, row.Name
		case end > next:
			next = end
		}
	}
	if next > 0 && slowest-next >= 1 {
		g.Waits = fmt.Sprintf("in one parcel all of it waits %s for %s", count(int(slowest-next), "day"), name)
	}
	return *g
}

// supplyOf is the form of one line.
func supplyOf(d *desk.Desk, s desk.Shown, at int) (*supplyView, error) {
	p := s.Plan
	l := &p.Lines[at]
	sup := l.Supplied()
	key := p.LineKeys()[at]
	v := &supplyView{Name: l.Title(), Key: key, Leave: d.Href("ready", s.Tried.Query()...)}
	text := func(key, label, value, help string) desk.FieldView {
		return desk.FieldView{Key: key, Label: label, Value: desk.Typed(s.Form, key, value), Help: help, Error: s.Errs[key]}
	}
	from, days, usual := p.Comes(l)
	row, _ := calendar.SupplyOf(from)
	v.Spread = row.Name + ": " + spreadWords(days, calendar.Wait)
	if usual {
		v.Spread += ", as is usual; ask, and type what they say"
	}
	seller := text("seller", "Seller", sup.Seller, "What one sends comes, and slips, together.")
	if l.Part != nil {
		seller.Guess = l.Part.Sold.By
	}
	v.Fields = append(v.Fields, seller)
	for _, f := range sup.Lead.Fields("") {
		field := desk.FieldOf(d.Units, f, s.Form, s.Errs)
		if f.Key == "likely" {
			field.Guess = words.Number(days.Likely, 0)
		}
		v.Fields = append(v.Fields, field)
	}
	v.Fields = append(v.Fields,
		text("ordered", "Ordered on", sup.Ordered, ""), text("promised", "Promised for", sup.Promised, ""), text("came", "Came on", sup.Came, ""),
		text("not_before", "Not before", sup.NotBefore, "A part for a new model, the next wage."),
		text("up_to", "Used, up to", d.Units.Shown(sup.Most.String()), "What a used one may cost."), text("last_day", "… looked for until", sup.Last, ""), text("then", "… and then", sup.Then, "A new one; without."),
	)
	if l.Part != nil {
		shop := text("shop", "Workshop", sup.Shop, "")
		v.Fields = append(v.Fields, shop)
		v.Bys = desk.OptionsOf(plan.FitBys(), desk.Typed(s.Form, "by", string(sup.By)), "")
		v.CanUse = l.Part.Slot == parts.FrontTyre || l.Part.Slot == parts.RearTyre
		if v.CanUse {
			v.UseUp = sup.UseUp
			if s.Form != nil {
				v.UseUp = s.Form.Has("use_up")
			}
			v.Fields = append(v.Fields, desk.FieldView{Key: "left", Label: "The old one still runs", Unit: d.Units.Of("km"), Value: desk.Typed(s.Form, "left", d.Units.Shown(sup.Left.String())), Help: "Empty: by its kind and what is left of its tread.", Error: s.Errs["left"]})
		}
	}
	var list []entry.Option
	for _, row := range calendar.Supplies() {
		list = append(list, entry.Opt(row.Supply, row.Name))
	}
	v.Froms = desk.OptionsOf(list, desk.Typed(s.Form, "from", string(sup.From)), "as the seller, or the sheet, says")
	v.Notes = []desk.FieldView{text("torque", "Torque, as the manual has it", sup.Torque, ""), text("look", "Look at, and write down, before it comes apart", sup.Look, "")}
	for _, known := range p.Ready.Sellers {
		v.Sellers = append(v.Sellers, known.Name)
	}
	for _, shop := range p.Ready.Shops {
		v.Shops = append(v.Shops, shop.Name)
	}
	return v, nil
}

// readSupply takes what the form says of one line.
func readSupply(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	at := d.Plan.LineAt(form.Get("line"))
	if at < 0 {
		errs["form"] = "That line is not in the plan any more."
		return d.Plan, nil, errs
	}
	var said []string
	changed := d.Plan.Supplying(at, func(s *plan.Supply) {
		note := func(label string, into *string, now string) {
			if now != *into {
				said = append(said, desk.ChangedWords(label, *into, now))
				*into = now
			}
		}
		for _, t := range []struct {
			key, label string
			into       *string
		}{{"seller", "Seller", &s.Seller}, {"then", "And then", &s.Then}, {"shop", "Workshop", &s.Shop}, {"torque", "Torque", &s.Torque}, {"look", "Look at", &s.Look}} {
			if form.Has(t.key) {
				note(t.label, t.into, strings.TrimSpace(form.Get(t.key)))
			}
		}
		for _, t := range []struct {
			key, label string
			into       *string
		}{{"ordered", "Ordered on", &s.Ordered}, {"promised", "Promised for", &s.Promised}, {"came", "Came on", &s.Came}, {"not_before", "Not before", &s.NotBefore}, {"last_day", "Looked for until", &s.Last}} {
			if !form.Has(t.key) {
				continue
			}
			day, err := d.Units.Date(form.Get(t.key))
			if _, ok := calendar.ParseDay(day); err == nil && day != "" && !ok {
				err = fmt.Errorf("%q is no day, want e.g. 2027-03-14", entry.Cut(day))
			}
			if err != nil {
				errs[t.key] = err.Error()
				continue
			}
			note(t.label, t.into, day)
		}
		said = append(said, desk.Enter(d.Units, desk.Sent(s.Lead.Fields(""), form), form, errs)...)
		if form.Has("left") {
			was := s.Left.String()
			if err := d.Units.Enter(&s.Left, form.Get("left"), "km"); err != nil {
				errs["left"] = err.Error()
			} else if s.Left.String() != was {
				said = append(said, desk.ChangedWords("The old one still runs", was, s.Left.String()))
			}
		}
		if form.Has("up_to") {
			sum, err := d.Units.Amount(form.Get("up_to"), d.Plan.Currency)
			if err == nil && sum.Known() && sum.Minor() < 0 {
				err = errors.New("a sum is not below zero")
			}
			if err != nil {
				errs["up_to"] = err.Error()
			} else if sum != s.Most {
				said = append(said, desk.ChangedWords("Used, up to", s.Most.String(), sum.String()))
				s.Most = sum
			}
		}
		var supplies []entry.Option
		for _, row := range calendar.Supplies() {
			supplies = append(supplies, entry.Opt(row.Supply, row.Name))
		}
		said = append(said, desk.Picked(&s.From, "From", supplies, form, "from")...)
		said = append(said, desk.Picked(&s.By, "Fitted by", plan.FitBys(), form, "by")...)
		if slot := d.Plan.Lines[at].Part; slot != nil && (slot.Slot == parts.FrontTyre || slot.Slot == parts.RearTyre) && form.Has("by") {
			if use := form.Has("use_up"); use != s.UseUp {
				s.UseUp = use
				said = append(said, "The old one is used up first: "+map[bool]string{true: "yes", false: "no"}[use])
			}
		}
	})
	if len(errs) == 0 {
		desk.Problems(changed, fmt.Sprintf("lines[%d].supply.", at), errs)
		if wrong := errs["lead"]; wrong != "" { // of three fields
			delete(errs, "lead")
			errs["likely"] = wrong
		}
	}
	if len(said) > 0 {
		said[0] = d.Plan.Lines[at].Title() + ": " + said[0]
	}
	return changed, said, errs
}

// act is something that happened to an order.
func act(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return changing(s, w, r, []string{"ready"}, func(d *desk.Desk) (*plan.Plan, string, bool) {
		f := asks(d)
		return study.Happened(f, r.PostFormValue("act"), f.Plan.LineAt(r.PostFormValue("line")))
	})
}

// leave is the one number that a rider says who says no more: when they leave, or in how long.
func leave(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	day, err := d.Units.DayFrom(r.PostFormValue("leave"), d.AsOf)
	if _, is := calendar.ParseDay(day); err == nil && !is {
		err = errors.New("want a day, 2027-05-14, or how long there is: three weeks")
	}
	if err != nil {
		shown := desk.Shown{Plan: d.Plan, Form: url.Values{"leave": {r.PostFormValue("leave")}}, Errs: desk.FormErrors{"leave": err.Error()}}
		if d.Plan.Bike != nil {
			shown.After = d.Report
		}
		shown.State = desk.FormState{Try: d.Href("ready/try"), Save: d.Href("ready")}
		body, err := ordersOf(d, shown)
		if err != nil {
			return err
		}
		return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, "ready", nil, body)
	}
	changed := *d.Plan
	changed.Brief.Start = day
	if err := s.Save(r, d, r.PostFormValue("base"), &changed, "Departure on "+day); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("ready"))
}
