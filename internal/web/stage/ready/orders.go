package ready

import (
	"cmp"
	"errors"
	"fmt"
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
	Leave    string // where a departure is said
	LeaveBy  desk.FieldView
	File     string
	Undated  bool
	desk.FormState
}

// saysView is how it stands, in words.
type saysView struct {
	Ready, Middle, Leaves, Spare string
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
	Name, Key     string
	Fields        []desk.FieldView
	Froms, Bys    []desk.OptionView
	UseUp, CanUse bool
	Notes         []desk.FieldView // torque, what to look at
	Leave         string
	Spread        string
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

// look is a plan's time as one request looks at it.
type look struct {
	*desk.Desk
	f     *facts.All
	r     *facts.Ready
	keys  []string // of the plan's lines
	holds []int    // jobs that hold the day up
	tried desk.Laid
}

func lookAt(d *desk.Desk, f *facts.All, tried desk.Laid) *look {
	return &look{d, f, &f.Ready, f.Plan.LineKeys(), f.Ready.Table.Holds(), tried}
}

// lineHref leads to where it is said how a line comes.
func (l *look) lineHref(at int) string { return l.Href("ready", "line", l.keys[at]) + "#line" }

// mostTogether is for how many sellers a parcel of all is offered.
const mostTogether = 4

func ordersOf(d *desk.Desk, s desk.Shown) (desk.FormBody, error) {
	f := readyOf(d.With(s.Plan), s.After)
	look := lookAt(d, f, s.Tried)
	v := ordersView{Act: d.Href("ready/act"), File: d.Href("orders.csv"), FormState: s.State, Says: look.says()}
	v.Undated, v.Leave = !f.Ready.Dated, d.Href("ready/leave")
	v.LeaveBy = desk.FieldView{Key: "leave", Label: "When do you leave?", Value: desk.Typed(s.Form, "leave", f.Plan.Brief.Start), Error: s.Errs["leave"], Guess: "three weeks, or 2027-05-14"}
	groups := map[string]*sellerView{}
	var names []string
	for i := range f.Plan.Lines {
		l := &f.Plan.Lines[i]
		if study.WasSentBack(l) {
			v.Back = append(v.Back, backOf(l))
		}
		row, seller, ok := look.row(i)
		if !ok {
			continue
		}
		if groups[seller] == nil {
			groups[seller] = &sellerView{Name: seller}
			names = append(names, seller)
		}
		groups[seller].Rows = append(groups[seller].Rows, row)
	}
	for _, name := range names {
		look.group(groups[name])
		v.Sellers = append(v.Sellers, *groups[name])
		if len(v.Together) < mostTogether {
			if way, ok := study.Together(f, name); ok {
				v.Together = append(v.Together, desk.LinkView{Name: way.Name, Href: d.Href("ready", s.Tried.Turning(wayKey, way.Value)...)})
			}
		}
	}
	slices.SortStableFunc(v.Sellers, func(a, b sellerView) int { return cmp.Compare(a.Rows[0].by, b.Rows[0].by) })
	v.Empty = len(v.Sellers) == 0
	key := s.Query.Get("line")
	if s.Form != nil {
		key = s.Form.Get("line")
	}
	if at := slices.Index(look.keys, key); at >= 0 {
		v.Open = supplyOf(d, s, at)
	}
	return v, nil
}

// says tells how it stands.
func (l *look) says() saysView {
	r := l.r
	late, middle, ok := study.Days(r)
	v := saysView{Usual: r.Usual, Time: l.Href("time"), HoldsWord: "sets the day", Never: !ok, Ready: late.String()}
	if r.Net == nil || v.Never {
		return v
	}
	v.Middle = middle.String()
	v.Hours = words.Number(r.Table.Hours, 1) + " h"
	if r.Table.Saved > 0.05 {
		v.Saved = words.Number(r.Table.Saved, 1) + " h"
	}
	for _, j := range l.holds {
		v.Holds = append(v.Holds, holdView{r.Jobs[j].Name, takes(r, j), l.jobHref(j)})
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
	if first, ok := study.FirstDay(r); ok && first > r.Today+begins {
		v.Begin = first.String()
	}
	return v
}

// begins is how far away something has to be that it is said to be begun only then, days.
const begins = 10

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
func (l *look) jobHref(j int) string {
	job := &l.r.Jobs[j]
	switch {
	case job.Line >= 0:
		return l.lineHref(job.Line)
	case job.Kind == facts.JobRight:
		return l.Href("baseline")
	}
	return l.Href("days")
}

// row is a line of the plan that is to come or to be fitted, and by whom; ok is false for others.
func (l *look) row(at int) (row orderRow, seller string, ok bool) {
	order, job := study.Of(l.r, at)
	if order >= 0 {
		job = order
	}
	if job < 0 {
		return row, "", false
	}
	r, of, line := l.r, &l.r.Table.Rows[job], &l.f.Plan.Lines[at]
	row = orderRow{
		Key: l.keys[at], Name: line.Title(), Job: order, State: state(l.f, at), Href: l.lineHref(at), Holds: slices.Contains(l.holds, job), Comes: r.Morning(of.End).String(),
		Takes: spreadWords(r.Net.Jobs[job].Takes, r.Net.Jobs[job].Kind), Usual: r.Jobs[job].Usual, by: study.Begin(r, job),
	}
	if acts := study.Acts(l.f, at); len(acts) > 0 {
		row.First, row.Acts = &acts[0], acts[1:]
	}
	if line.Part != nil {
		kind, _ := parts.KindOf(line.Part.Slot)
		row.Slots = kind.Name
	}
	if cost := l.f.Plan.CostOf(line); cost.Known() {
		row.Cost = cost.Display()
	}
	if r.Dated {
		days, late := study.Spare(l.f, at, job)
		row.By, row.Spare, row.Late = row.by.String(), spare(days), late
	}
	if day, _, _ := study.Days(r); row.Late || r.Dated && day > r.Leaves && row.Holds {
		for _, way := range study.Ways(l.f, at) {
			row.Ways = append(row.Ways, desk.LinkView{Name: way.Name, Href: l.Href("ready", l.tried.Turning(wayKey, way.Value)...)})
		}
	}
	seller = line.SellerOf()
	switch {
	case order < 0:
		seller = here
	case seller == "":
		from, _, _ := l.f.Plan.Comes(line)
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

// group says what is known of a seller, its rows by their last day.
func (l *look) group(g *sellerView) {
	slices.SortStableFunc(g.Rows, func(a, b orderRow) int { return cmp.Compare(a.by, b.by) })
	if s := l.f.Plan.Ready.SellerOf(g.Name); s != nil {
		if row, ok := calendar.SupplyOf(s.From); ok {
			g.From = row.Name
		}
		if s.Freight.Known() {
			g.Freight = "freight " + s.Freight.Display() + " once"
		}
		var closed []string
		for _, span := range plan.Spans(s.Closed) {
			if span.To >= l.r.Today {
				closed = append(closed, span.String())
			}
		}
		if closed != nil {
			g.Closed = "closed " + strings.Join(closed, ", ")
		}
	}
	var orders []int
	for _, row := range g.Rows {
		if row.Job >= 0 && study.ToOrder(&l.f.Plan.Lines[l.r.Jobs[row.Job].Line]) {
			orders = append(orders, row.Job)
		}
	}
	if job, waits := study.Slowest(l.r, orders); waits >= 1 {
		g.Waits = fmt.Sprintf("in one parcel all of it waits %s for %s", count(int(waits), "day"), l.r.Jobs[job].Name)
	}
}

// supplyOf is the form of one line.
func supplyOf(d *desk.Desk, s desk.Shown, at int) *supplyView {
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
	v.Froms = desk.OptionsOf(parts.Supplies(), desk.Typed(s.Form, "from", string(sup.From)), "as the seller, or the sheet, says")
	v.Notes = []desk.FieldView{text("torque", "Torque, as the manual has it", sup.Torque, ""), text("look", "Look at, and write down, before it comes apart", sup.Look, "")}
	return v
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
		said = append(said, desk.Picked(&s.From, "From", parts.Supplies(), form, "from")...)
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
		shown := desk.Shown{
			Plan: d.Plan, After: d.Report, Form: url.Values{"leave": {r.PostFormValue("leave")}}, Errs: desk.FormErrors{"leave": err.Error()},
			State: desk.FormState{Try: d.Href("ready/try"), Save: d.Href("ready")},
		}
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
