package web

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/store"
	"valiantmule/internal/words"
)

// workingView is how a figure came about.
type workingView struct {
	Figure  gaugeView
	Loadout string
	Steps   []stepView
	Notes   []string
}

type stepView struct {
	Formula, Origin, Source string
	In                      []valueView
	Out                     valueView
}

type valueView struct{ Name, Value, Origin, Note string }

// originWords say how far to trust a number.
var originWords = map[sheet.Origin]string{
	sheet.Measured: "measured", sheet.Published: "published", sheet.Maker: "maker", sheet.Computed: "computed",
	sheet.Rider: "yours", sheet.Practice: "common practice", sheet.Memory: "from memory", sheet.Demo: "demo",
}

func valueOf(u words.Units, v sheet.Value) valueView {
	return valueView{Name: v.Name, Value: u.Plain(v.Number, v.Unit), Origin: originWords[v.Origin], Note: v.Note}
}

func stepsOf(u words.Units, working *sheet.Sheet) []stepView {
	steps := make([]stepView, len(working.Steps))
	for i, step := range working.Steps {
		steps[i] = stepView{Formula: step.Formula.Text, Origin: originWords[step.Formula.Origin], Source: step.Formula.Source, Out: valueOf(u, step.Out)}
		for _, in := range step.In {
			steps[i].In = append(steps[i].In, valueOf(u, in))
		}
	}
	return steps
}

// working shows the formula, the numbers put in and where each came from. With
// something on the bench it is the working of that.
func (s *Server) working(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	id := figure.ID(chi.URLParam(r, "figure"))
	if _, ok := d.report.Figure(id); !ok {
		return store.ErrNotFound
	}
	choices, err := d.choices(r.URL.Query()["try"])
	if err != nil {
		return err
	}
	shown, working, err := eval.Explain(d.Plan.With(choices...), d.loadout, id, d.asOf)
	if err != nil {
		return err
	}
	loadout, _ := d.Plan.Loadout(d.loadout)
	view := workingView{Figure: gaugeOf(d.units, shown, ""), Loadout: loadout.Name, Notes: working.Notes}
	view.Steps = stepsOf(d.units, working)
	return s.render(w, r, http.StatusOK, "working", frame{Title: shown.Name + ": the working", Plan: d.view(pageOf(r.FormValue("stage")), nil), Body: view})
}
