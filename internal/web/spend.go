package web

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
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
	Currency string
	Over     string // what the budget is short of
	formState
}

type partRow struct {
	Slot               plan.Slot
	Name, Slots, Price string
	Needs              []optionView
	Out                bool
}

type spendRow struct {
	Index        int
	Name, Amount string
	Error        string
	Kinds, Needs []optionView
	Out, New     bool
}

type rateRow struct {
	Index                 int
	From, Rate, On, Error string
}

var rates = &list{Name: "Rates", Columns: []string{"rate_from", "rate", "rate_on"}}

var ledger = &list{Name: "Other sums", Columns: []string{"name", "amount", "kind", "need"}, Out: "out"}

// fields lists the values of the ledger, for what changed in two places.
func (v spendView) fields() []fieldView {
	var fields []fieldView
	for _, row := range v.Parts {
		fields = append(fields, selected("need."+string(row.Slot), row.Name, row.Needs), checked("out."+string(row.Slot), row.Name+", taken out", row.Out))
	}
	for _, row := range v.Rows {
		fields = append(fields, ledger.fields(row.Index, row.Name, row.Amount, selected("", "", row.Kinds).Value, selected("", "", row.Needs).Value)...)
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

func needsOf(chosen string) []optionView {
	return optionsOf([]plan.Option{{Value: string(plan.Needed), Name: "Needed"}, {Value: string(plan.Wanted), Name: "Wanted"}}, chosen, "")
}

func (d *desk) spend(form url.Values, errs formErrors) spendView {
	v := spendView{Currency: d.Plan.Currency, formState: formState{Error: errs["form"], Try: d.href("spend/try"), Save: d.href("spend")}}
	var sums []plan.Line
	for _, l := range d.Plan.Lines {
		if l.Part == nil {
			sums = append(sums, l)
			continue
		}
		info, _ := plan.InfoOf(l.Part.Slot)
		row := partRow{Slot: l.Part.Slot, Name: l.Part.Name, Slots: info.Name, Price: "no price yet", Out: form.Has("out." + string(l.Part.Slot)),
			Needs: needsOf(typed(form, "need."+string(l.Part.Slot), string(l.Need)))}
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
			Name:   typed(form, rowKey("name", i), stored.Name),
			Amount: typed(form, rowKey("amount", i), stored.Amount.String()),
			Kinds:  optionsOf(plan.LineKinds(), typed(form, rowKey("kind", i), string(stored.Kind)), ""),
			Needs:  needsOf(typed(form, rowKey("need", i), string(stored.Need))),
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
	for _, id := range []string{"cost", "cost-needed", "cost-wanted", "contingency"} {
		if f, ok := d.report.Figure(id); ok {
			v.Totals = append(v.Totals, gaugeOf(d.units, f, d.href("working/"+id, "stage", "spend")))
			v.Over += over(f)
		}
	}
	return v
}

// over says by how much the budget is passed.
func over(f eval.Figure) string {
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
			summary = append(summary, strings.TrimSpace(fmt.Sprintf("%s %s, %s", line.Title(), line.Cost(), line.Need)))
		}
		if keep {
			changed.Lines = append(changed.Lines, line)
		}
	}
	next := 0
	sum := func(was plan.Line) {
		line, keep, err := readSum(form, next, d.Plan.Currency)
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
		line := was
		if key := "need." + string(was.Part.Slot); form.Has(key) { // chosen since the form was made: it stays
			line.Need = plan.Need(form.Get(key))
		}
		put(was, line, !form.Has("out."+string(was.Part.Slot)))
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

// readSum reads row i of the sums; keep is false for one that is blank or taken
// out.
func readSum(form url.Values, i int, currency string) (line plan.Line, keep bool, err error) {
	line = plan.Line{
		Name: strings.TrimSpace(form.Get(rowKey("name", i))),
		Kind: plan.LineKind(form.Get(rowKey("kind", i))),
		Need: plan.Need(form.Get(rowKey("need", i))),
	}
	text := strings.TrimSpace(form.Get(rowKey("amount", i)))
	switch {
	case form.Has(rowKey("out", i)) || (line.Name == "" && text == ""):
		return line, false, nil
	case line.Name == "":
		return line, false, errors.New("say what the money is for")
	case text != "":
		line.Amount, err = money.Parse(text, currency)
	}
	return line, err == nil, err
}
