package web

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
)

// spendView is the ledger of the plan.
type spendView struct {
	Rows     []spendRow
	Totals   []gaugeView
	Currency string
	Over     string // what the budget is short of
	Error    string
	Note     string
	Try      string
	Save     string
}

type spendRow struct {
	Index        int
	Part         bool
	Name, Amount string
	Detail       string
	Error        string
	Kinds, Needs []optionView
	Out          bool
	New          bool
}

func (s *Server) spendPage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	bench, _, err := d.tried(r, "spend")
	if err != nil {
		return err
	}
	return s.showStage(w, r, http.StatusOK, d, "spend", bench, d.spend(nil, nil))
}

func (s *Server) trySpend(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	changed, _, errs := d.readSpend(r.PostForm)
	bench, err := d.triedForm("The ledger as typed", "Save the ledger", "spend", changed, errs)
	if err != nil {
		return err
	}
	return s.showStage(w, r, http.StatusOK, d, "spend", bench, d.spend(r.PostForm, errs))
}

func (s *Server) saveSpend(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	changed, summary, errs := d.readSpend(r.PostForm)
	return s.saveForm(w, r, d, form{
		stage: "spend", changed: changed, summary: summary, errs: errs,
		again: func(note string) any {
			v := d.spend(r.PostForm, errs)
			v.Note = note
			return v
		},
	})
}

func rowKey(name string, i int) string { return fmt.Sprintf("%s.%d", name, i) }

func (d *desk) spend(form url.Values, errs formErrors) spendView {
	v := spendView{Currency: d.Plan.Currency, Error: errs["form"], Try: d.href("spend/try"), Save: d.href("spend")}
	rows := len(d.Plan.Lines) + blankRows
	for i := range rows {
		stored := plan.Line{Kind: plan.Gear, Need: plan.Needed}
		if i < len(d.Plan.Lines) {
			stored = d.Plan.Lines[i]
		}
		row := spendRow{Index: i, New: i >= len(d.Plan.Lines), Error: errs[rowKey("line", i)], Out: form.Has(rowKey("out", i))}
		row.Needs = optionsOf([]plan.Option{{Value: string(plan.Needed), Name: "Needed"}, {Value: string(plan.Wanted), Name: "Wanted"}},
			typed(form, rowKey("need", i), string(stored.Need)), "")
		if stored.Part != nil {
			info, _ := plan.InfoOf(stored.Part.Slot)
			row.Part, row.Name, row.Detail, row.Amount = true, stored.Part.Name, info.Name, "no price yet"
			if stored.Part.Price.Known() {
				row.Amount = stored.Part.Price.Display()
			}
		} else {
			row.Name = typed(form, rowKey("name", i), stored.Name)
			row.Amount = typed(form, rowKey("amount", i), stored.Amount.String())
			row.Kinds = optionsOf(plan.LineKinds(), typed(form, rowKey("kind", i), string(stored.Kind)), "")
		}
		v.Rows = append(v.Rows, row)
	}
	for _, id := range []string{"cost", "cost-needed", "cost-wanted", "contingency"} {
		if f, ok := d.report.Figure(id); ok {
			v.Totals = append(v.Totals, gaugeOf(f, d.href("working/"+id, "stage", "spend")))
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

// readSpend is the plan with its ledger as typed, and what changed in words.
func (d *desk) readSpend(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed := *d.Plan
	changed.Lines = nil
	var summary []string
	for i := 0; i < len(d.Plan.Lines) || form.Has(rowKey("name", i)); i++ {
		was := plan.Line{}
		if i < len(d.Plan.Lines) {
			was = d.Plan.Lines[i]
		}
		line, keep, err := readLine(was, form, i, d.Plan.Currency)
		if err != nil {
			errs[rowKey("line", i)] = err.Error()
			continue
		}
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
	if len(errs) == 0 {
		problems(&changed, "lines", errs)
	}
	return &changed, summary, errs
}

// readLine reads row i of the ledger; keep is false for one that is blank or
// taken out.
func readLine(was plan.Line, form url.Values, i int, currency string) (line plan.Line, keep bool, err error) {
	line = was
	line.Need = plan.Need(form.Get(rowKey("need", i)))
	if form.Has(rowKey("out", i)) {
		return line, false, nil
	}
	if was.Part != nil {
		return line, true, nil
	}
	line.Name = strings.TrimSpace(form.Get(rowKey("name", i)))
	line.Kind = plan.LineKind(form.Get(rowKey("kind", i)))
	text := strings.TrimSpace(form.Get(rowKey("amount", i)))
	switch {
	case line.Name == "" && text == "":
		return line, false, nil
	case line.Name == "":
		return line, false, fmt.Errorf("say what the money is for")
	case text == "":
		line.Amount = money.Amount{}
	default:
		if line.Amount, err = money.Parse(text, currency); err != nil {
			return line, false, err
		}
	}
	return line, true, nil
}
