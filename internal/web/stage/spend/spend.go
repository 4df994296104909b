package spend

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

var spendForm = desk.StageForm{
	Stage: "spend", Title: "The ledger as typed", Save: "Save the ledger", Read: readSpend,
	View: func(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		also, err := d.AlsoCounted(r.Context())
		v := spend(d, typed, errs)
		for i := range v.Parts {
			if names := also[v.Parts[i].thing]; len(names) > 0 {
				v.Parts[i].Also = "bought for " + strings.Join(names, ", ") + " too"
			}
		}
		return v, err
	},
}

// spendView is the ledger of the plan: the parts that were chosen, and the other
// sums.
type spendView struct {
	Parts    []partRow
	Beside   []besideRow // of the total, from other stages
	Unfitted string      // what parts cost of which nobody knows whether they go on
	Rates    []rateRow
	Rows     []spendRow
	Totals   []desk.GaugeView
	Stairs   draw.Stairs
	Currency string
	Over     string // what the budget is short of
	Open     string // what is undecided, from least to most; "" where it is one sum
	MovedOn  desk.FieldView
	MovedAt  desk.FieldView
	desk.FormState
}

// lineWords is what is said of a line beside its price.
type lineWords struct {
	Needs, Decisions, Sources []desk.OptionView
	Why, Hours                string
	Off                       bool   // it does not count
	Aside                     string // source, hours and reason in words, "" for a plain new one
}

type partRow struct {
	Key                string // in the form
	Name, Slots, Price string // the list price
	Amount, Error      string // what the rider pays, where that differs
	Out                bool
	Ask                string // why nobody knows whether it goes on, "" where somebody does
	Sheet              string // of a part of one's own
	Scoped             bool   // for one loadout: it is fitted on the way
	Minutes, Tools     string
	Packed             bool
	Loadouts           []desk.OptionView // that it is for; none where there is one
	Back, Workshop     string            // what came back for it, what a workshop took
	Where, WhereHref   string            // it is, as a thing of the rider's; "" for a wish
	Also               string            // who else counts on it

	thing string
	lineWords
}

// besideRow is a sum of another stage that is in the total.
type besideRow struct {
	Name, Amount, Href, State string
}

type spendRow struct {
	Index        int
	Name, Amount string
	Error        string
	Kinds        []desk.OptionView
	Mass, Draw   string
	Places       []desk.OptionView
	Out, New     bool
	lineWords
}

type rateRow struct {
	Index                 int
	From, Rate, On, Error string
}

var rates = &desk.List{Name: "Rates", Columns: []string{"rate_from", "rate", "rate_on"}}

var ledger = &desk.List{Name: "Other sums", Columns: []string{"name", "amount", "kind", "need", "decision", "source", "why", "hours", "mass", "place", "draw"}, Out: "out"}

// Fields lists the values of the ledger, for what changed in two places.
func (v spendView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Parts {
		fields = append(fields, desk.Selected("need."+row.Key, row.Name, row.Needs), desk.Selected("decision."+row.Key, row.Name+", decision", row.Decisions),
			desk.Selected("source."+row.Key, row.Name+", source", row.Sources), desk.FieldView{Key: "amount." + row.Key, Label: row.Name + ", paid", Value: row.Amount},
			desk.FieldView{Key: "why." + row.Key, Label: row.Name + ", why", Value: row.Why}, desk.FieldView{Key: "hours." + row.Key, Label: row.Name + ", hours", Value: row.Hours},
			desk.FieldView{Key: "back." + row.Key, Label: row.Name + ", came back", Value: row.Back}, desk.FieldView{Key: "workshop." + row.Key, Label: row.Name + ", workshop", Value: row.Workshop},
			desk.Checked("out."+row.Key, row.Name+", taken out", row.Out))
		if row.Loadouts != nil {
			fields = append(fields, desk.Selected("loadout."+row.Key, row.Name+", for which loadout", row.Loadouts))
		}
		if row.Scoped {
			fields = append(fields, desk.FieldView{Key: "minutes." + row.Key, Label: row.Name + ", minutes", Value: row.Minutes}, desk.FieldView{Key: "tools." + row.Key, Label: row.Name + ", tools", Value: row.Tools},
				desk.Checked("packed."+row.Key, row.Name+", comes along", row.Packed))
		}
	}
	for _, row := range v.Rows {
		fields = append(fields, ledger.Fields(row.Index, row.Name, row.Amount, desk.Selected("", "", row.Kinds).Value, desk.Selected("", "", row.Needs).Value,
			desk.Selected("", "", row.Decisions).Value, desk.Selected("", "", row.Sources).Value, row.Why, row.Hours, row.Mass, desk.Selected("", "", row.Places).Value, row.Draw)...)
	}
	for _, row := range v.Rates {
		fields = append(fields, rates.Fields(row.Index, row.From, row.Rate, row.On)...)
	}
	return fields
}

func (v spendView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// wordsOf shows what is said of a line; in the form its fields end in key.
func wordsOf(d *desk.Desk, form url.Values, key string, l plan.Line) lineWords {
	decision, source := string(l.Decision), string(l.Source)
	if decision == "" {
		decision = string(plan.Chosen)
	}
	if source == "" {
		source = string(plan.BoughtNew)
	}
	v := lineWords{
		Needs:     desk.OptionsOf([]entry.Option{{Value: string(plan.Needed), Name: "Needed"}, {Value: string(plan.Wanted), Name: "Wanted"}}, desk.Typed(form, "need."+key, string(l.Need)), ""),
		Decisions: desk.OptionsOf(decisionsOf(l), desk.Typed(form, "decision."+key, decision), ""),
		Sources:   desk.OptionsOf(plan.Sources(), desk.Typed(form, "source."+key, source), ""),
		Why:       desk.Typed(form, "why."+key, l.Why), Hours: desk.Typed(form, "hours."+key, d.Units.Shown(l.Hours.String())), Off: l.Standing() != plan.In,
	}
	var aside []string
	for _, o := range v.Sources {
		if o.Selected && o.Value != string(plan.BoughtNew) {
			aside = append(aside, strings.ToLower(o.Name))
		}
	}
	for _, text := range []string{v.Hours, v.Why} {
		if text != "" {
			aside = append(aside, text)
		}
	}
	v.Aside = strings.Join(aside, ", ")
	return v
}

// decisionsOf are those that a line can have: on another bike, or about to come off, only what is so; a sum is on none.
func decisionsOf(l plan.Line) []entry.Option {
	return slices.DeleteFunc(plan.Decisions(), func(o entry.Option) bool {
		switch d := plan.Decision(o.Value); d {
		case plan.OnAnother:
			return l.Decision != d
		case plan.ComesOff:
			return l.Decision != d && l.Decision != plan.OnTheBike
		case plan.LentOut, plan.WornOut, plan.Sold, plan.SentBack:
			return l.Part == nil && l.Decision != d
		}
		return false
	})
}

// readWords sets what is said of a line from the form. What the form does not
// have stays.
func readWords(d *desk.Desk, form url.Values, key string, l *plan.Line) error {
	if form.Has("need." + key) {
		l.Need = plan.Need(form.Get("need." + key))
	}
	if form.Has("decision." + key) {
		if l.Decision = plan.Decision(form.Get("decision." + key)); l.Decision == plan.Chosen {
			l.Decision = ""
		}
	}
	if form.Has("source." + key) {
		if l.Source = plan.Source(form.Get("source." + key)); l.Source == plan.BoughtNew {
			l.Source = ""
		}
	}
	if form.Has("why." + key) {
		l.Why = strings.TrimSpace(form.Get("why." + key))
	}
	if form.Has("hours." + key) {
		return d.Units.Enter(&l.Hours, form.Get("hours."+key), "h")
	}
	return nil
}

func spend(d *desk.Desk, form url.Values, errs desk.FormErrors) spendView {
	v := spendView{Currency: d.Plan.Currency, FormState: desk.FormState{Error: errs["form"], Try: d.Href("spend/try"), Save: d.Href("spend")}}
	var built *plan.Built
	if d.Plan.Bike != nil {
		built = d.Report.Facts.Built
	}
	v.beside(d, built)
	var sums []plan.Line
	keys := d.Plan.LineKeys()
	for i, l := range d.Plan.Lines {
		if l.Part == nil {
			sums = append(sums, l)
			continue
		}
		key := keys[i]
		info, _ := parts.KindOf(l.Part.Slot)
		row := partRow{Key: key, Name: l.Part.Name, Slots: info.Name, Price: "no price", Out: form.Has("out." + key),
			Amount: desk.Typed(form, "amount."+key, d.Units.Shown(l.Amount.String())), Error: errs["line."+key], lineWords: wordsOf(d, form, key, l)}
		if only, err := d.Plan.Loadout(l.Loadout); err == nil {
			row.Slots += ", " + only.Name + " only"
			row.Scoped = true
			swap := plan.Swap{}
			if l.Swap != nil {
				swap = *l.Swap
			}
			row.Minutes, row.Tools, row.Packed = desk.Typed(form, "minutes."+key, d.Units.Shown(swap.Minutes.String())), desk.Typed(form, "tools."+key, swap.Tools), swap.Packed
			if form != nil {
				row.Packed = form.Has("packed." + key)
			}
		}
		if l.Standing() == plan.In && built != nil && !l.FitKnown(built) {
			row.Ask = "nobody knows yet whether it goes on"
		}
		row.Back, row.Workshop = desk.Typed(form, "back."+key, d.Units.Shown(l.Back.String())), desk.Typed(form, "workshop."+key, d.Units.Shown(l.Workshop.String()))
		if len(d.Plan.Loadouts) > 1 {
			row.Loadouts = desk.OptionsOf(loadoutOptions(d.Plan), desk.Typed(form, "loadout."+key, l.Loadout), "every loadout")
		}
		if h, ok := d.Things.Held(l.Thing); ok {
			row.thing, row.Where, row.WhereHref = l.Thing, h.Place.Words(d.Things.Bikes), "/parts/"+l.Thing
		}
		if l.Part.Own() {
			row.Sheet = d.Href("part", "edit", l.Part.ID)
		}
		if l.Part.Price.Known() {
			row.Price = l.Part.Price.Display()
		}
		v.Parts = append(v.Parts, row)
	}
	rows := len(sums) + desk.BlankRows
	if form != nil {
		for rows = 0; form.Has(desk.RowKey("name", rows)); rows++ {
		}
	}
	for i := range rows {
		stored := plan.Line{Kind: plan.Gear, Need: plan.Needed}
		if i < len(sums) {
			stored = sums[i]
		}
		v.Rows = append(v.Rows, spendRow{
			Index: i, New: i >= len(sums), Error: errs[desk.RowKey("line", i)], Out: form.Has(desk.RowKey("out", i)),
			Name:      desk.Typed(form, desk.RowKey("name", i), stored.Name),
			Amount:    desk.Typed(form, desk.RowKey("amount", i), d.Units.Shown(cmp.Or(stored.Amount.String(), stored.Percent.String()))),
			Mass:      desk.Typed(form, desk.RowKey("mass", i), d.Units.Shown(stored.Mass.String())),
			Draw:      desk.Typed(form, desk.RowKey("draw", i), d.Units.Shown(stored.Draw.String())),
			Places:    desk.OptionsOf(desk.Places(), desk.Typed(form, desk.RowKey("place", i), string(stored.Place)), "behind the seat"),
			Kinds:     desk.OptionsOf(plan.LineKinds(), desk.Typed(form, desk.RowKey("kind", i), string(stored.Kind)), ""),
			lineWords: wordsOf(d, form, strconv.Itoa(i), stored),
		})
	}
	rows = len(d.Plan.Rates) + 1
	if form != nil {
		for rows = 0; form.Has(desk.RowKey("rate", rows)); rows++ {
		}
	}
	for i := range rows {
		stored := plan.Rate{}
		if i < len(d.Plan.Rates) {
			stored = d.Plan.Rates[i]
		}
		v.Rates = append(v.Rates, rateRow{
			Index: i, Error: errs[desk.RowKey("rates", i)],
			From: desk.Typed(form, desk.RowKey("rate_from", i), stored.From), Rate: desk.Typed(form, desk.RowKey("rate", i), d.Units.Numbers().ShownRatio(stored.Rate.String())), On: desk.Typed(form, desk.RowKey("rate_on", i), stored.On),
		})
	}
	v.Stairs = stairs(d)
	ids := []figure.ID{"cost", "cost-needed", "cost-wanted", "cost-baseline", "cost-spent", "cost-open", "cost-later", "contingency", "own-hours"}
	if back, _ := d.Report.Figure(figure.CostBack); back.Value != 0 {
		ids = append(ids, figure.CostBack)
	}
	v.Totals = d.Gauges(d.Report, "spend", desk.Laid{}, ids...)
	cost, _ := d.Report.Figure(figure.Cost)
	v.Over = over(cost)
	if open, _ := d.Report.Figure(figure.CostOpen); open.Known && open.Banded {
		v.Open = money.New(int64(open.Low), d.Plan.Currency).Display() + " to " + money.New(int64(open.High), d.Plan.Currency).Display()
	}
	v.MovedOn = desk.FieldView{Key: "moved_on", Label: "Parts moved on", Value: desk.Typed(form, "moved_on", ""), Error: errs["moved_on"], Help: "Of what is fitted, taken off or sold here. Empty: today."}
	v.MovedAt = desk.FieldView{Key: "moved_at", Label: "The odometer showed", Unit: d.Units.Of("km"), Value: desk.Typed(form, "moved_at", ""), Error: errs["moved_at"], Help: "Kilometres on a part follow from it. Empty: what the plan knows."}
	return v
}

// beside lists what the total has from other stages, and what of it is for parts of which
// nobody knows whether they go on.
func (v *spendView) beside(d *desk.Desk, built *plan.Built) {
	checks := map[string]string{}
	for _, a := range d.Plan.Baseline.Answers {
		if c, ok := baseline.CheckOf(a.Check); ok {
			checks[c.Name] = d.Href("baseline") + "#check-" + c.ID
		}
	}
	for _, l := range slices.Concat(d.Plan.Due(), d.Plan.Workshop(), d.Plan.Took(), d.Plan.CameBack()) {
		row := besideRow{Name: l.Title(), Amount: "no price", Href: checks[l.Title()]}
		if l.Amount.Known() {
			row.Amount = l.Amount.Display()
		}
		switch {
		case l.Kind == plan.GivenBack:
			row.State = "came back"
		case l.Kind == plan.Workshop && l.Decision == plan.OnTheBike:
			row.State = "a workshop took it, spent"
		case l.Kind == plan.Workshop:
			row.Href, row.State = d.Href("brief")+"#f-spanner", "beyond your tools: a workshop"
			if !l.Amount.Known() {
				row.Amount = "no rate"
			}
		case l.Decision == plan.OnTheBike:
			row.State = "put right, spent"
		case row.Href == "":
			row.Href, row.State = d.Href("record"), "to be undone"
		default:
			row.State = "to be put right first"
		}
		v.Beside = append(v.Beside, row)
	}
	sum, n := money.New(0, d.Plan.Currency), 0
	for i := range d.Plan.Lines {
		l := &d.Plan.Lines[i]
		home, _, ok := d.Plan.Home(d.Plan.CostOf(l))
		if l.Part == nil || l.Standing() != plan.In || built == nil || l.FitKnown(built) || !ok || !home.Known() {
			continue
		}
		if more, err := sum.Plus(home); err == nil {
			sum, n = more, n+1
		}
	}
	if n > 0 {
		v.Unfitted = sum.Display()
	}
}

// stairs is the plan's lines as a staircase: what is needed, what is wanted, what
// is undecided, each group by size.
func stairs(d *desk.Desk) draw.Stairs {
	order := []string{"needed", "wanted", "open"}
	var list []draw.StairStep
	for _, l := range d.Plan.Spending() {
		kind := string(l.Need)
		switch l.Standing() {
		case plan.Open:
			kind = "open"
		case plan.Later, plan.Out:
			continue
		}
		home, _, ok := d.Plan.Home(d.Plan.CostOf(&l))
		if ok && home.Known() && home.Minor() > 0 {
			list = append(list, draw.StairStep{Cost: float64(home.Minor()), Kind: kind, Title: l.Title() + ", " + home.Display()})
		}
	}
	slices.SortStableFunc(list, func(a, b draw.StairStep) int {
		return cmp.Or(cmp.Compare(slices.Index(order, a.Kind), slices.Index(order, b.Kind)), cmp.Compare(b.Cost, a.Cost))
	})
	budget := math.NaN()
	if amount := d.Plan.Brief.Budget; amount.Known() && amount.Code() == d.Plan.Currency {
		budget = float64(amount.Minor())
	}
	return draw.Staircase(list, budget, func(minor float64) string { return money.New(int64(minor), d.Plan.Currency).Rough() })
}

// over says by how much the budget is passed.
func over(f study.Figure) string {
	if !f.Known || !f.Limited || f.Value <= f.Limit {
		return ""
	}
	return money.New(int64(f.Value-f.Limit), f.Unit).Display()
}

// readSpend is the plan with its ledger as typed, and what changed in words. The
// parts keep their places among the lines; new sums come last.
func readSpend(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	changed.Lines = nil
	var summary []string
	put := func(was, line plan.Line, keep bool) {
		switch {
		case !keep && was.Title() != "":
			summary = append(summary, was.Title()+" taken out")
		case keep && line != was:
			words := []string{strings.TrimSpace(line.Title() + " " + line.Cost().String()), string(line.Need)}
			if line.Decision != "" {
				words = append(words, strings.ToLower(entry.NameOf(plan.Decisions(), string(line.Decision))))
			}
			if line.Source != "" {
				words = append(words, strings.ToLower(entry.NameOf(plan.Sources(), string(line.Source))))
			}
			if line.Why != "" {
				words = append(words, line.Why)
			}
			summary = append(summary, strings.Join(words, ", "))
		}
		if keep {
			changed.Lines = append(changed.Lines, line)
		}
	}
	next := 0
	sum := func(was plan.Line) {
		line, keep, err := readSum(d, form, next, was)
		if err != nil {
			errs[desk.RowKey("line", next)] = err.Error()
		} else {
			put(was, line, keep)
		}
		next++
	}
	keys := d.Plan.LineKeys()
	for i, was := range d.Plan.Lines {
		if was.Part == nil {
			sum(was)
			continue
		}
		line, key := was, keys[i]
		err := readWords(d, form, key, &line)
		err = cmp.Or(err, readThing(d, form, key, &line))
		if line.Decision == plan.OnTheBike && was.Decision != plan.OnTheBike {
			planned := line
			planned.Decision = ""
			line = d.Plan.Fit(planned)
		}
		if err == nil && was.Loadout != "" && form.Has("minutes."+key) {
			line.Swap, err = readSwap(d, form, key, was.Swap)
		}
		if form.Has("amount." + key) { // one chosen since the form was made is not in it: it stays
			var paid error
			line.Amount, paid = d.Units.Amount(form.Get("amount."+key), d.Plan.Currency)
			err = cmp.Or(err, paid)
		}
		if err != nil {
			errs["line."+key] = err.Error()
			continue
		}
		put(was, line, !form.Has("out."+key))
	}
	for form.Has(desk.RowKey("name", next)) {
		sum(plan.Line{})
	}
	changed.Rates = nil
	for i := 0; form.Has(desk.RowKey("rate", i)); i++ {
		rate, keep, err := readRate(d, form, i)
		if err != nil {
			errs[desk.RowKey("rates", i)] = err.Error()
		} else if keep {
			changed.Rates = append(changed.Rates, rate)
		}
	}
	if was, now := ratesText(d.Plan.Rates), ratesText(changed.Rates); was != now {
		summary = append(summary, desk.ChangedWords("Rates", was, now))
	}
	when := d.WhenOf(form, errs)
	if len(errs) == 0 {
		desk.Problems(&changed, "lines", errs)
	}
	return when.Ran(&changed, d.AsOf), summary, errs
}

// readThing reads what is said of a part as a thing: what came back for it, what a workshop took, for which loadout
// it is on. What the form does not have stays.
func readThing(d *desk.Desk, form url.Values, key string, l *plan.Line) (err error) {
	for name, sum := range map[string]*money.Amount{"back.": &l.Back, "workshop.": &l.Workshop} {
		if !form.Has(name + key) {
			continue
		}
		var said error
		if *sum, said = d.Units.Amount(form.Get(name+key), d.Plan.Currency); said == nil && sum.Known() && sum.Minor() < 0 {
			said = errors.New("a sum that came back, or was taken, is not below zero")
		}
		err = cmp.Or(err, said)
	}
	if form.Has("loadout." + key) {
		l.Loadout = form.Get("loadout." + key)
	}
	return err
}

func loadoutOptions(p *plan.Plan) []entry.Option {
	var list []entry.Option
	for _, l := range p.Loadouts {
		list = append(list, entry.Option{Value: l.ID, Name: l.Name + " only"})
	}
	return list
}

// readSwap reads what changing a part over takes; nil where nothing is said.
func readSwap(d *desk.Desk, form url.Values, key string, was *plan.Swap) (*plan.Swap, error) {
	s := plan.Swap{Tools: strings.TrimSpace(form.Get("tools." + key)), Packed: form.Has("packed." + key)}
	err := d.Units.Enter(&s.Minutes, form.Get("minutes."+key), "min")
	switch {
	case s == plan.Swap{}:
		return nil, err
	case was != nil && s == *was:
		return was, err
	}
	return &s, err
}

// readRate reads row i of the rates; keep is false for a blank one.
func readRate(d *desk.Desk, form url.Values, i int) (rate plan.Rate, keep bool, err error) {
	rate = plan.Rate{From: strings.ToUpper(strings.TrimSpace(form.Get(desk.RowKey("rate_from", i)))), On: strings.TrimSpace(form.Get(desk.RowKey("rate_on", i)))}
	if rate.On, err = d.Units.Date(rate.On); err != nil {
		return rate, true, err
	}
	text := strings.TrimSpace(form.Get(desk.RowKey("rate", i)))
	if rate.From == "" && text == "" {
		return rate, false, nil
	}
	if rate.Rate, err = d.Units.Rate(text); err != nil {
		return rate, false, err
	}
	// What the document would refuse is said here, beside its row.
	alone := plan.New("rate", d.Plan.Currency)
	alone.Rates = []plan.Rate{rate}
	if problems := alone.Validate(); len(problems) > 0 {
		return rate, false, errors.New(problems[0].What)
	}
	return rate, true, nil
}

func ratesText(rates []plan.Rate) string {
	words := make([]string, len(rates))
	for i, r := range rates {
		words[i] = fmt.Sprintf("1 %s = %s on %s", r.From, r.Rate, r.On)
	}
	return strings.Join(words, ", ")
}

// readSum reads row i of the sums on top of what it was; keep is false for one
// that is blank or taken out.
func readSum(d *desk.Desk, form url.Values, i int, was plan.Line) (line plan.Line, keep bool, err error) {
	line = was
	line.Name, line.Kind = strings.TrimSpace(form.Get(desk.RowKey("name", i))), plan.LineKind(form.Get(desk.RowKey("kind", i)))
	text := strings.TrimSpace(form.Get(desk.RowKey("amount", i)))
	switch {
	case form.Has(desk.RowKey("out", i)) || (line.Name == "" && text == ""):
		return line, false, nil
	case line.Name == "":
		return line, false, errors.New("say what the money is for")
	}
	line.Percent, line.Amount = unit.Ratio{}, money.Amount{}
	if strings.HasSuffix(text, "%") && line.Kind == plan.Tax {
		err = d.Units.Enter(&line.Percent, text, "%")
	} else {
		line.Amount, err = d.Units.Amount(text, d.Plan.Currency)
	}
	if err != nil {
		return line, false, err
	}
	if form.Has(desk.RowKey("mass", i)) {
		line.Place = load.Place(form.Get(desk.RowKey("place", i)))
		if err := d.Units.Enter(&line.Mass, form.Get(desk.RowKey("mass", i)), "kg"); err != nil {
			return line, false, err
		}
	}
	if form.Has(desk.RowKey("draw", i)) {
		if err := d.Units.Enter(&line.Draw, form.Get(desk.RowKey("draw", i)), "W"); err != nil {
			return line, false, err
		}
	}
	err = readWords(d, form, strconv.Itoa(i), &line)
	return line, err == nil, err
}
