package ready

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// timeForm is the rider's hours, sellers, workshops, jobs of their own and what comes first.
var timeForm = desk.StageForm{
	Stage: "time", Title: "Hours and sellers as typed", Save: "Keep it so", Read: readTime,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return timeOf(d, typed, errs), nil
	},
}

type timeView struct {
	Week     []desk.FieldView
	Settings []desk.FieldView
	Practice []desk.OptionView
	Lists    []listView
	desk.FormState
}

// listView is rows of one kind of thing.
type listView struct {
	Title, Help string
	Rows        []rowView
}

type rowView struct {
	Cells []cellView
	Out   string // name of the box that takes it out, "" for a new one
	Error string
	Key   string
}

// cellView is a field of a row, or a choice.
type cellView struct {
	desk.FieldView
	Options []desk.OptionView
}

// lister is a list of the form: its columns, what is in it, and how a row is read.
type lister struct {
	list  *desk.List
	title string
	help  string
	// rows are the values as they are shown.
	rows func(d *desk.Desk) [][]string
	// read appends a row to the plan's list.
	read func(d *desk.Desk, r *plan.Ready, cells []string) error
	// clear empties the plan's list.
	clear   func(r *plan.Ready)
	labels  []string
	options map[string]func(d *desk.Desk) ([]entry.Option, string)
}

func spansText(list []plan.Span) string {
	var words []string
	for _, s := range list {
		text := s.From
		if s.To != "" && s.To != s.From {
			text += " to " + s.To
		}
		words = append(words, text)
	}
	return strings.Join(words, ", ")
}

// spansOf reads days as spansText writes them; what somebody noted beside them before stays.
func spansOf(u words.Units, text string, was []plan.Span) ([]plan.Span, error) {
	var list []plan.Span
	for _, part := range strings.Split(text, ",") {
		part = strings.TrimSpace(part)
		if part == "" {
			continue
		}
		from, to, _ := strings.Cut(part, " to ")
		var s plan.Span
		var err error
		if s.From, err = u.Date(from); err != nil {
			return nil, err
		}
		if s.To, err = u.Date(to); err != nil {
			return nil, err
		}
		if _, ok := s.Days(); !ok {
			return nil, fmt.Errorf("%q are no days, want e.g. 2027-04-02 to 2027-04-09", entry.Cut(part))
		}
		for _, o := range was {
			if o.From == s.From && o.To == s.To {
				s.Why = o.Why
			}
		}
		list = append(list, s)
	}
	return list, nil
}

func supplyOptions(*desk.Desk) ([]entry.Option, string) { return parts.Supplies(), "not said" }

func placeOptions(*desk.Desk) ([]entry.Option, string) {
	var list []entry.Option
	for _, row := range calendar.Places() {
		list = append(list, entry.Opt(row.Place, row.Name))
	}
	return list, "nothing apart"
}

func jobOptions(d *desk.Desk) ([]entry.Option, string) {
	r := asks(d).Ready
	var list []entry.Option
	for j := range r.Jobs {
		if !r.Net.Jobs[j].Last {
			list = append(list, entry.Option{Value: r.Jobs[j].ID(), Name: r.Jobs[j].Name})
		}
	}
	for _, b := range d.Plan.Ready.Firsts { // what has gone stays to be seen
		for _, id := range []string{b.Job, b.Then} {
			if !entry.Among(list, id) {
				list = append(list, entry.Option{Value: id, Name: nameOf(id)})
			}
		}
	}
	return list, "…"
}

func yesNo(*desk.Desk) ([]entry.Option, string) {
	return []entry.Option{{Value: "part", Name: "a part; the bike stays"}}, "the bike"
}

// enter reads a number that may be left out.
func enter(d *desk.Desk, into entry.Entry, text, unit string) error {
	if strings.TrimSpace(text) == "" {
		return nil
	}
	return d.Units.Enter(into, text, unit)
}

func amount(d *desk.Desk, into *money.Amount, text string) (err error) {
	*into, err = d.Units.Amount(text, d.Plan.Currency)
	return err
}

// firstOf is the first error of a list.
func firstOf(errs ...error) error {
	for _, err := range errs {
		if err != nil {
			return err
		}
	}
	return nil
}

var listers = []lister{
	{
		list: &desk.List{Name: "Days away", Columns: []string{"away_from", "away_to", "away_why"}, Out: "out_away"}, title: "Days away", help: "On which nothing is done at the bike.",
		labels: []string{"From", "To", "Why"},
		rows: func(d *desk.Desk) (rows [][]string) {
			for _, s := range d.Plan.Ready.Away {
				rows = append(rows, []string{s.From, s.To, s.Why})
			}
			return rows
		},
		clear: func(r *plan.Ready) { r.Away = nil },
		read: func(d *desk.Desk, r *plan.Ready, cells []string) error {
			from, err := d.Units.Date(cells[0])
			to, also := d.Units.Date(cells[1])
			s := plan.Span{From: from, To: to, Why: cells[2]}
			if _, ok := s.Days(); !ok && firstOf(err, also) == nil {
				err = fmt.Errorf("%q to %q are no days one after the other, want e.g. 2027-04-02 to 2027-04-09", entry.Cut(cells[0]), entry.Cut(cells[1]))
			}
			r.Away = append(r.Away, s)
			return firstOf(err, also)
		},
	},
	{
		list: &desk.List{Name: "Sellers", Columns: []string{"seller", "seller_likely", "seller_from", "freight", "express", "extra", "seller_closed"}, Out: "out_seller"}, title: "Sellers",
		help:   "Their days hold for all that they send; freight is paid once a parcel.",
		labels: []string{"Name", "Days", "Kind", "Freight", "Express, days", "… costs", "Closed"},
		rows: func(d *desk.Desk) (rows [][]string) {
			for _, s := range d.Plan.Ready.Sellers {
				rows = append(rows, []string{s.Name, d.Units.Shown(s.Lead.Likely.String()), string(s.From), d.Units.Shown(s.Freight.String()), d.Units.Shown(s.Express.String()), d.Units.Shown(s.Extra.String()), spansText(s.Closed)})
			}
			return rows
		},
		clear: func(r *plan.Ready) { r.Sellers = nil },
		read: func(d *desk.Desk, r *plan.Ready, cells []string) (err error) {
			s := plan.Seller{Name: cells[0], From: calendar.Supply(cells[2])}
			was := plan.Seller{}
			if old := d.Plan.Ready.SellerOf(cells[0]); old != nil {
				was = *old
				if d.Units.Shown(was.Lead.Likely.String()) == cells[1] {
					s.Lead = was.Lead
				}
			}
			if s.Closed, err = spansOf(d.Units, cells[6], was.Closed); err != nil {
				return err
			}
			err = firstOf(enter(d, &s.Lead.Likely, cells[1], "d"), amount(d, &s.Freight, cells[3]), enter(d, &s.Express, cells[4], "d"), amount(d, &s.Extra, cells[5]))
			r.Sellers = append(r.Sellers, s)
			return err
		},
		options: map[string]func(*desk.Desk) ([]entry.Option, string){"seller_from": supplyOptions},
	},
	{
		list: &desk.List{Name: "Workshops", Columns: []string{"shop", "shop_queue", "shop_takes", "shop_parts", "shop_costs", "shop_closed", "shop_not"}, Out: "out_shop"}, title: "Workshops and specialists",
		help:   "The first takes what your tools do not reach, unless a line names another.",
		labels: []string{"Name", "Until it has time, days", "Then takes, days", "One brings", "Costs", "Closed", "Does not take"},
		rows: func(d *desk.Desk) (rows [][]string) {
			for _, s := range d.Plan.Ready.Shops {
				brings := ""
				if s.Parts {
					brings = "part"
				}
				not := ""
				if len(s.Not) > 0 {
					not = string(s.Not[0])
				}
				rows = append(rows, []string{s.Name, d.Units.Shown(s.Queue.Likely.String()), d.Units.Shown(s.Takes.Likely.String()), brings, d.Units.Shown(s.Costs.String()), spansText(s.Closed), not})
			}
			return rows
		},
		clear: func(r *plan.Ready) { r.Shops = nil },
		read: func(d *desk.Desk, r *plan.Ready, cells []string) (err error) {
			s := plan.Shop{Name: cells[0], Parts: cells[3] == "part"}
			was := plan.Shop{}
			if old := d.Plan.Ready.ShopOf(cells[0]); old != nil {
				was = *old
				if d.Units.Shown(was.Queue.Likely.String()) == cells[1] {
					s.Queue = was.Queue
				}
				if d.Units.Shown(was.Takes.Likely.String()) == cells[2] {
					s.Takes = was.Takes
				}
			}
			switch not := parts.Slot(cells[6]); {
			case not == "":
			case len(was.Not) > 0 && was.Not[0] == not:
				s.Not = was.Not
			default:
				s.Not = []parts.Slot{not}
			}
			if s.Closed, err = spansOf(d.Units, cells[5], was.Closed); err != nil {
				return err
			}
			err = firstOf(enter(d, &s.Queue.Likely, cells[1], "d"), enter(d, &s.Takes.Likely, cells[2], "d"), amount(d, &s.Costs, cells[4]))
			r.Shops = append(r.Shops, s)
			return err
		},
		options: map[string]func(*desk.Desk) ([]entry.Option, string){"shop_parts": yesNo, "shop_not": func(*desk.Desk) ([]entry.Option, string) { return parts.KindOptions(), "takes all" }},
	},
	{
		list: &desk.List{Name: "Your own jobs", Columns: []string{"own_job", "own_takes", "own_kind", "own_opens", "own_from", "own_id"}, Out: "out_job"}, title: "Jobs of your own",
		help:   "Hours at the bike, or days that pass: a date at an office, a paint shop.",
		labels: []string{"What", "Takes", "How", "Apart for it", "Not before", ""},
		rows: func(d *desk.Desk) (rows [][]string) {
			for _, j := range d.Plan.Ready.Jobs {
				opens := ""
				if len(j.Opens) > 0 {
					opens = string(j.Opens[0])
				}
				rows = append(rows, []string{j.Name, d.Units.Shown(j.Takes.String()), j.Kind, opens, j.From, j.ID})
			}
			return rows
		},
		clear: func(r *plan.Ready) { r.Jobs = nil },
		read: func(d *desk.Desk, r *plan.Ready, cells []string) (err error) {
			j := plan.OwnJob{ID: cells[5], Name: cells[0], Kind: cells[2]}
			for _, old := range d.Plan.Ready.Jobs {
				if old.ID == j.ID && j.ID != "" {
					j = old
					j.Name, j.Kind, j.Takes, j.From = cells[0], cells[2], unit.Duration{}, ""
				}
			}
			for n := len(r.Jobs) + 1; j.ID == ""; n++ {
				id := fmt.Sprintf("own-%d", n)
				taken := func(o plan.OwnJob) bool { return o.ID == id }
				if !slices.ContainsFunc(r.Jobs, taken) && !slices.ContainsFunc(d.Plan.Ready.Jobs, taken) {
					j.ID = id
				}
			}
			usual := "h"
			if j.Kind == plan.JobWait || j.Kind == plan.JobVisit {
				usual = "d"
			}
			switch {
			case cells[3] == "":
				j.Opens = nil
			case len(j.Opens) == 0 || string(j.Opens[0]) != cells[3]:
				j.Opens = []calendar.Place{calendar.Place(cells[3])}
			}
			j.From, err = d.Units.Date(cells[4])
			if _, ok := calendar.ParseDay(j.From); err == nil && j.From != "" && !ok {
				err = fmt.Errorf("%q is no day, want e.g. 2027-03-14", entry.Cut(j.From))
			}
			err = firstOf(err, enter(d, &j.Takes, cells[1], usual))
			r.Jobs = append(r.Jobs, j)
			return err
		},
		options: map[string]func(*desk.Desk) ([]entry.Option, string){
			"own_kind":  func(*desk.Desk) ([]entry.Option, string) { return plan.JobKinds()[1:], plan.JobKinds()[0].Name },
			"own_opens": placeOptions,
		},
	},
	{
		list: &desk.List{Name: "First this, then that", Columns: []string{"first_job", "first_then", "first_cut"}, Out: "out_first"}, title: "First this, then that",
		help:   "Beside what the trade knows. What comes first there may be cut here.",
		labels: []string{"First", "Then", ""},
		rows: func(d *desk.Desk) (rows [][]string) {
			for _, b := range d.Plan.Ready.Firsts {
				cut := ""
				if b.Cut {
					cut = "cut"
				}
				rows = append(rows, []string{b.Job, b.Then, cut})
			}
			return rows
		},
		clear: func(r *plan.Ready) { r.Firsts = nil },
		read: func(_ *desk.Desk, r *plan.Ready, cells []string) error {
			if cells[0] == "" || cells[1] == "" || cells[0] == cells[1] {
				return fmt.Errorf("want two jobs")
			}
			r.Firsts = append(r.Firsts, plan.Before{Job: cells[0], Then: cells[1], Cut: cells[2] == "cut"})
			return nil
		},
		options: map[string]func(*desk.Desk) ([]entry.Option, string){"first_job": jobOptions, "first_then": jobOptions, "first_cut": func(*desk.Desk) ([]entry.Option, string) {
			return []entry.Option{{Value: "cut", Name: "not so here"}}, "in this order"
		}},
	},
}

// Fields lists the values of the form, for what changed in two places.
func (v timeView) Fields() []desk.FieldView {
	fields := slices.Concat(v.Settings, v.Week, []desk.FieldView{desk.Selected("practice", "Used to spanners", v.Practice)})
	for _, l := range v.Lists {
		for _, row := range l.Rows {
			for _, c := range row.Cells {
				if c.Options != nil {
					c.Value = desk.Selected("", "", c.Options).Value
				}
				fields = append(fields, c.FieldView)
			}
		}
	}
	return fields
}

func (v timeView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func timeOf(d *desk.Desk, form url.Values, errs desk.FormErrors) timeView {
	v := timeView{FormState: desk.FormState{Error: errs["form"], Try: d.Href("time/try"), Save: d.Href("time")}}
	r := d.Plan.Ready
	for _, f := range r.Fields() {
		v.Settings = append(v.Settings, desk.FieldOf(d.Units, f, form, errs))
	}
	usual, _ := r.Hours()
	for i, f := range r.Week.Fields() {
		field := desk.FieldOf(d.Units, f, form, errs)
		field.Guess = words.Number(usual[i], 1)
		v.Week = append(v.Week, field)
	}
	practice := ""
	if d.Plan.Brief.Practice > 0 {
		practice = fmt.Sprint(int(d.Plan.Brief.Practice))
	}
	v.Practice = desk.OptionsOf(plan.Practices(), desk.Typed(form, "practice", practice), "not said: used to it")
	for i := range listers {
		v.Lists = append(v.Lists, listers[i].view(d, form, errs))
	}
	return v
}

// manyOptions is how many choices each row of a list still offers.
const manyOptions = 40

func (l *lister) view(d *desk.Desk, form url.Values, errs desk.FormErrors) listView {
	v := listView{Title: l.title, Help: l.help}
	stored := l.rows(d)
	rows := len(stored) + 1
	if form != nil {
		for rows = 0; form.Has(desk.RowKey(l.list.Columns[0], rows)); rows++ {
		}
	}
	choices := map[string][]entry.Option{}
	nones := map[string]string{}
	for column, of := range l.options {
		choices[column], nones[column] = of(d)
	}
	for i := range rows {
		values := make([]string, len(l.list.Columns))
		if i < len(stored) {
			values = stored[i]
		}
		key := desk.RowKey(l.list.Columns[0], i)
		row := rowView{Key: key, Error: errs[key]}
		if i < len(stored) {
			row.Out = desk.RowKey(l.list.Out, i)
		}
		for c, column := range l.list.Columns {
			key := desk.RowKey(column, i)
			cell := cellView{FieldView: desk.FieldView{Key: key, Label: l.labels[c], Value: desk.Typed(form, key, values[c]), List: l.list}}
			if options, ok := choices[column]; ok {
				if i < len(stored) && len(options) > manyOptions { // as it is kept; another is a row of its own
					options = slices.DeleteFunc(slices.Clone(options), func(o entry.Option) bool { return o.Value != cell.Value })
				}
				cell.Options = desk.OptionsOf(options, cell.Value, nones[column])
			}
			row.Cells = append(row.Cells, cell)
		}
		v.Rows = append(v.Rows, row)
	}
	return v
}

// readTime takes the form as a whole.
func readTime(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	said := desk.Enter(d.Units, desk.Sent(append(changed.Ready.Fields(), changed.Ready.Week.Fields()...), form), form, errs)
	if form.Has("practice") {
		var practice plan.Practice
		for i, o := range plan.Practices() {
			if o.Value == form.Get("practice") {
				practice = plan.Practice(i + 1)
			}
		}
		if practice != changed.Brief.Practice {
			said = append(said, "Used to spanners: "+entry.NameOf(plan.Practices(), form.Get("practice")))
			changed.Brief.Practice = practice
		}
	}
	for i := range listers {
		said = append(said, listers[i].take(d, &changed.Ready, form, errs)...)
	}
	if len(errs) == 0 {
		desk.Problems(&changed, "ready.", errs)
	}
	return &changed, said, errs
}

// take reads a list, and says whether it is another than before.
func (l *lister) take(d *desk.Desk, r *plan.Ready, form url.Values, errs desk.FormErrors) []string {
	if !form.Has(desk.RowKey(l.list.Columns[0], 0)) {
		return nil
	}
	was := fmt.Sprint(l.rows(d))
	l.clear(r)
	for i := 0; form.Has(desk.RowKey(l.list.Columns[0], i)); i++ {
		cells := make([]string, len(l.list.Columns))
		blank := true
		for c, column := range l.list.Columns {
			cells[c] = strings.TrimSpace(form.Get(desk.RowKey(column, i)))
			if _, chosen := l.options[column]; !chosen || l.list.Columns[0] == "first_job" {
				blank = blank && cells[c] == ""
			}
		}
		if blank || form.Has(desk.RowKey(l.list.Out, i)) {
			continue
		}
		key := desk.RowKey(l.list.Columns[0], i)
		if cells[0] == "" {
			errs[key] = "say what it is"
			continue
		}
		if err := l.read(d, r, cells); err != nil {
			errs[key] = err.Error()
		}
	}
	changed := *d.Plan
	changed.Ready = *r
	if fmt.Sprint(l.rows(d.With(&changed))) == was {
		return nil
	}
	return []string{l.title + " changed"}
}
