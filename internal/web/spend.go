package web

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

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/draw"
)

var spendForm = stageForm{
	stage: "spend", title: "The ledger as typed", save: "Save the ledger", read: (*desk).readSpend,
	view: func(_ *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
		return d.spend(typed, errs), nil
	},
}

// spendView is the ledger of the plan: the parts that were chosen, and the other
// sums.
type spendView struct {
	Parts    []partRow
	Rates    []rateRow
	Rows     []spendRow
	Totals   []gaugeView
	Stairs   draw.Stairs
	Currency string
	Over     string // what the budget is short of
	formState
}

// lineWords is what is said of a line beside its price.
type lineWords struct {
	Needs, Decisions, Sources []optionView
	Why, Hours                string
	Off                       bool   // it does not count
	Aside                     string // source, hours and reason in words, "" for a plain new one
}

type partRow struct {
	Key                string // in the form
	Name, Slots, Price string // the list price
	Amount, Error      string // what the rider pays, where that differs
	Out                bool
	lineWords
}

type spendRow struct {
	Index        int
	Name, Amount string
	Error        string
	Kinds        []optionView
	Out, New     bool
	lineWords
}

type rateRow struct {
	Index                 int
	From, Rate, On, Error string
}

var rates = &list{Name: "Rates", Columns: []string{"rate_from", "rate", "rate_on"}}

var ledger = &list{Name: "Other sums", Columns: []string{"name", "amount", "kind", "need", "decision", "source", "why", "hours"}, Out: "out"}

// fields lists the values of the ledger, for what changed in two places.
func (v spendView) fields() []fieldView {
	var fields []fieldView
	for _, row := range v.Parts {
		fields = append(fields, selected("need."+row.Key, row.Name, row.Needs), selected("decision."+row.Key, row.Name+", decision", row.Decisions),
			selected("source."+row.Key, row.Name+", source", row.Sources), fieldView{Key: "amount." + row.Key, Label: row.Name + ", paid", Value: row.Amount},
			fieldView{Key: "why." + row.Key, Label: row.Name + ", why", Value: row.Why}, fieldView{Key: "hours." + row.Key, Label: row.Name + ", hours", Value: row.Hours},
			checked("out."+row.Key, row.Name+", taken out", row.Out))
	}
	for _, row := range v.Rows {
		fields = append(fields, ledger.fields(row.Index, row.Name, row.Amount, selected("", "", row.Kinds).Value, selected("", "", row.Needs).Value,
			selected("", "", row.Decisions).Value, selected("", "", row.Sources).Value, row.Why, row.Hours)...)
	}
	for _, row := range v.Rates {
		fields = append(fields, rates.fields(row.Index, row.From, row.Rate, row.On)...)
	}
	return fields
}

func (v spendView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

// partKey is a part's line in the form: its slot, the loadout it is for, its id.
func partKey(l plan.Line) string { return string(l.Part.Slot) + "." + l.Loadout + "." + l.Part.ID }

// wordsOf shows what is said of a line; in the form its fields end in key.
func wordsOf(form url.Values, key string, l plan.Line) lineWords {
	decision, source := string(l.Decision), string(l.Source)
	if decision == "" {
		decision = string(plan.Chosen)
	}
	if source == "" {
		source = string(plan.BoughtNew)
	}
	v := lineWords{
		Needs:     optionsOf([]plan.Option{{Value: string(plan.Needed), Name: "Needed"}, {Value: string(plan.Wanted), Name: "Wanted"}}, typed(form, "need."+key, string(l.Need)), ""),
		Decisions: optionsOf(plan.Decisions(), typed(form, "decision."+key, decision), ""),
		Sources:   optionsOf(plan.Sources(), typed(form, "source."+key, source), ""),
		Why:       typed(form, "why."+key, l.Why), Hours: typed(form, "hours."+key, l.Hours.String()), Off: l.Standing() != plan.In,
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

// readWords sets what is said of a line from the form. What the form does not
// have stays.
func readWords(form url.Values, key string, l *plan.Line) error {
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
		return l.Hours.Enter(form.Get("hours."+key), "h")
	}
	return nil
}

func (d *desk) spend(form url.Values, errs formErrors) spendView {
	v := spendView{Currency: d.Plan.Currency, formState: formState{Error: errs["form"], Try: d.href("spend/try"), Save: d.href("spend")}}
	var sums []plan.Line
	for _, l := range d.Plan.Lines {
		if l.Part == nil {
			sums = append(sums, l)
			continue
		}
		key := partKey(l)
		info, _ := plan.InfoOf(l.Part.Slot)
		row := partRow{Key: key, Name: l.Part.Name, Slots: info.Name, Price: "no price", Out: form.Has("out." + key),
			Amount: typed(form, "amount."+key, l.Amount.String()), Error: errs["line."+key], lineWords: wordsOf(form, key, l)}
		if only, err := d.Plan.Loadout(l.Loadout); err == nil {
			row.Slots += ", " + only.Name + " only"
		}
		if l.Part.Price.Known() {
			row.Price = l.Part.Price.Display()
		}
		v.Parts = append(v.Parts, row)
	}
	rows := len(sums) + blankRows
	if form != nil {
		for rows = 0; form.Has(rowKey("name", rows)); rows++ {
		}
	}
	for i := range rows {
		stored := plan.Line{Kind: plan.Gear, Need: plan.Needed}
		if i < len(sums) {
			stored = sums[i]
		}
		v.Rows = append(v.Rows, spendRow{
			Index: i, New: i >= len(sums), Error: errs[rowKey("line", i)], Out: form.Has(rowKey("out", i)),
			Name:      typed(form, rowKey("name", i), stored.Name),
			Amount:    typed(form, rowKey("amount", i), stored.Amount.String()),
			Kinds:     optionsOf(plan.LineKinds(), typed(form, rowKey("kind", i), string(stored.Kind)), ""),
			lineWords: wordsOf(form, strconv.Itoa(i), stored),
		})
	}
	rows = len(d.Plan.Rates) + 1
	if form != nil {
		for rows = 0; form.Has(rowKey("rate", rows)); rows++ {
		}
	}
	for i := range rows {
		stored := plan.Rate{}
		if i < len(d.Plan.Rates) {
			stored = d.Plan.Rates[i]
		}
		v.Rates = append(v.Rates, rateRow{
			Index: i, Error: errs[rowKey("rates", i)],
			From: typed(form, rowKey("rate_from", i), stored.From), Rate: typed(form, rowKey("rate", i), stored.Rate.String()), On: typed(form, rowKey("rate_on", i), stored.On),
		})
	}
	v.Stairs = d.stairs()
	for _, id := range []figure.ID{"cost", "cost-needed", "cost-wanted", "cost-baseline", "cost-spent", "cost-open", "cost-later", "contingency", "own-hours"} {
		if f, ok := d.report.Figure(id); ok {
			v.Totals = append(v.Totals, gaugeOf(d.units, f, d.href("working/"+string(id), "stage", "spend")))
			v.Over += over(f)
		}
	}
	return v
}

// stairs is the plan's lines as a staircase: what is needed, what is wanted, what
// is undecided, each group by size.
func (d *desk) stairs() draw.Stairs {
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
		home, _, ok := d.Plan.Home(l.Cost())
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
	if f.ID != "cost" || !f.Known || !f.Limited || f.Value <= f.Limit {
		return ""
	}
	return money.New(int64(f.Value-f.Limit), f.Unit).Display()
}

// readSpend is the plan with its ledger as typed, and what changed in words. The
// parts keep their places among the lines; new sums come last.
func (d *desk) readSpend(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed := *d.Plan
	changed.Lines = nil
	var summary []string
	put := func(was, line plan.Line, keep bool) {
		switch {
		case !keep && was.Title() != "":
			summary = append(summary, was.Title()+" taken out")
		case keep && line != was:
			words := []string{strings.TrimSpace(line.Title() + " " + line.Cost().String()), string(line.Need)}
			for _, word := range []string{string(line.Decision), string(line.Source), line.Why} {
				if word != "" {
					words = append(words, word)
				}
			}
			summary = append(summary, strings.Join(words, ", "))
		}
		if keep {
			changed.Lines = append(changed.Lines, line)
		}
	}
	next := 0
	sum := func(was plan.Line) {
		line, keep, err := readSum(form, next, was, d.Plan.Currency)
		if err != nil {
			errs[rowKey("line", next)] = err.Error()
		} else {
			put(was, line, keep)
		}
		next++
	}
	for _, was := range d.Plan.Lines {
		if was.Part == nil {
			sum(was)
			continue
		}
		line, key := was, partKey(was)
		err := readWords(form, key, &line)
		if form.Has("amount." + key) { // one chosen since the form was made is not in it: it stays
			var paid error
			line.Amount, paid = readAmount(form.Get("amount."+key), d.Plan.Currency)
			err = cmp.Or(err, paid)
		}
		if err != nil {
			errs["line."+key] = err.Error()
			continue
		}
		put(was, line, !form.Has("out."+key))
	}
	for form.Has(rowKey("name", next)) {
		sum(plan.Line{})
	}
	changed.Rates = nil
	for i := 0; form.Has(rowKey("rate", i)); i++ {
		rate, keep, err := d.readRate(form, i)
		if err != nil {
			errs[rowKey("rates", i)] = err.Error()
		} else if keep {
			changed.Rates = append(changed.Rates, rate)
		}
	}
	if was, now := ratesText(d.Plan.Rates), ratesText(changed.Rates); was != now {
		summary = append(summary, changedWords("Rates", was, now))
	}
	if len(errs) == 0 {
		problems(&changed, "lines", errs)
	}
	return &changed, summary, errs
}

// readRate reads row i of the rates; keep is false for a blank one.
func (d *desk) readRate(form url.Values, i int) (rate plan.Rate, keep bool, err error) {
	rate = plan.Rate{From: strings.ToUpper(strings.TrimSpace(form.Get(rowKey("rate_from", i)))), On: strings.TrimSpace(form.Get(rowKey("rate_on", i)))}
	text := strings.TrimSpace(form.Get(rowKey("rate", i)))
	if rate.From == "" && text == "" {
		return rate, false, nil
	}
	if rate.Rate, err = money.ParseRate(text); err != nil {
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
func readSum(form url.Values, i int, was plan.Line, currency string) (line plan.Line, keep bool, err error) {
	line = was
	line.Name, line.Kind = strings.TrimSpace(form.Get(rowKey("name", i))), plan.LineKind(form.Get(rowKey("kind", i)))
	text := strings.TrimSpace(form.Get(rowKey("amount", i)))
	switch {
	case form.Has(rowKey("out", i)) || (line.Name == "" && text == ""):
		return line, false, nil
	case line.Name == "":
		return line, false, errors.New("say what the money is for")
	}
	if line.Amount, err = readAmount(text, currency); err != nil {
		return line, false, err
	}
	err = readWords(form, strconv.Itoa(i), &line)
	return line, err == nil, err
}
