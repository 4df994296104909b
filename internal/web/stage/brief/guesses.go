package brief

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/web/desk"
)

// guessesForm is what is guessed, each answered on the spot.
var guessesForm = desk.StageForm{
	Stage: "guesses", Title: "As you measured it", Save: "Take it", Read: readAnswer,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return guessesOf(d, typed, errs), nil
	},
	Kept: func(s *desk.House, r *http.Request, d *desk.Desk, _ *plan.Plan) (string, error) {
		return d.Href(s.PageOf(r.PostFormValue("stage"))), nil // the script leads on to the next field
	},
}

// guessesView is what stands in for what nobody has said, what could turn a verdict first.
type guessesView struct {
	Has, On bool
	Kinds   []desk.OptionView // of bike, where nobody has said
	First   []guessView       // that could turn something
	Rest    []guessView
	Bad     bool               // an answer to one of the rest cannot be used
	Open    []desk.FindingView // of which a guess decides whether they are so
	All     int
	desk.FormState
}

// guessView is one guess, and what is typed in its place.
type guessView struct {
	At, ID, Name, About, Band, Source string
	Turns                             []string
	Minutes, Tools, Help              string
	Unit, Value, Error                string
	Options                           []desk.OptionView // of a word
	Href                              string            // where it is answered otherwise
}

// Fields lists the values of the form, for what changed in two places.
func (v guessesView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, g := range slices.Concat(v.First, v.Rest) {
		if g.Value != "" {
			fields = append(fields, desk.FieldView{Key: "value", Label: g.Name, Value: g.Value})
		}
	}
	return fields
}

func (v guessesView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func guessesOf(d *desk.Desk, form url.Values, errs desk.FormErrors) guessesView {
	v := guessesView{Has: d.Plan.Bike != nil, On: d.Plan.Guesses > 0, FormState: desk.FormState{Error: errs["form"], Try: d.Href("guesses/try"), Save: d.Href("guesses")}}
	if v.Has && d.Plan.Bike.Class == "" {
		v.Kinds = desk.OptionsOf(plan.Classes(), "", "Not said yet")
	}
	ranked := eval.ToMeasure(d.Report.Guesses)
	v.All = len(ranked)
	for i := range ranked {
		g := guessOf(d, &ranked[i], form, errs)
		if len(ranked[i].Turns) > 0 {
			v.First = append(v.First, g)
		} else {
			v.Rest, v.Bad = append(v.Rest, g), v.Bad || g.Error != ""
		}
	}
	for _, f := range study.Guessed(d.Report.Findings) {
		v.Open = append(v.Open, d.Finding(f))
	}
	return v
}

func guessOf(d *desk.Desk, g *eval.Guess, form url.Values, errs desk.FormErrors) guessView {
	v := guessView{At: g.At, ID: strings.NewReplacer("/", "-", "_", "-").Replace(g.At), Name: desk.Capital(g.Name), Source: sourceWords(g), Tools: g.Tools, Error: errs[g.At]}
	if form.Get("at") == g.At {
		v.Value = form.Get("value")
	}
	if g.Minutes > 0 {
		v.Minutes = fmt.Sprintf("%.0f min", g.Minutes)
	}
	v.Turns = turnsOf(d, g.Turns)
	v.About, v.Band = wordsOf(d, g)
	if page, other := strings.CutPrefix(g.At, "page/"); other {
		v.Href = d.Href(page)
		return v
	}
	q := questionOf(d, g.At)
	v.Help, v.Unit = d.Units.Prose(q.help), d.Units.Of(q.unit)
	if q.options != nil {
		v.Options = desk.OptionsOf(q.options, v.Value, "Not said")
	}
	return v
}

// question is how what is guessed is asked for where it is typed.
type question struct {
	help, unit string
	options    []entry.Option // of a word
}

func questionOf(d *desk.Desk, at string) (q question) {
	kind, key, _ := strings.Cut(at, "/")
	var fields []entry.Field
	switch kind {
	case "bike":
		fields = d.Plan.Bike.Fields()
		for _, p := range d.Plan.Bike.Picks() {
			if p.Key == key {
				q.options = p.Options
			}
		}
	case "brief":
		fields = d.Plan.Brief.Fields()
	case "came":
		slot, of, _ := strings.Cut(key, "/")
		if row := parts.Slot(slot).Asks(of); row != nil {
			q.help = row.Help
			if row.Options != nil {
				q.options = row.Options()
			}
		}
	}
	if f, ok := entry.FieldIn(fields, key); ok {
		q.help, q.unit = f.Help, f.Unit
	}
	return q
}

// wordsOf are a guess and its band in the rider's units.
func wordsOf(d *desk.Desk, g *eval.Guess) (about, band string) {
	if g.Words[1] != "" {
		options := questionOf(d, g.At).options
		about = strings.ToLower(entry.NameOf(options, g.Words[1]))
		if g.Words[0] != g.Words[1] {
			band = "or " + strings.ToLower(entry.NameOf(options, g.Words[0]))
		}
		return about, band
	}
	return d.Units.Quantity(g.Value, g.Unit), d.Units.Quantity(g.Low, g.Unit) + " to " + d.Units.Quantity(g.High, g.Unit)
}

func sourceWords(g *eval.Guess) string {
	if g.Like != "" {
		return "as on the " + g.Like
	}
	switch g.Origin {
	case sheet.Published:
		return "from a published table"
	case sheet.Practice:
		return "common practice"
	}
	return "of such bikes, from memory"
}

// turnsOf say what a guess could turn: gauges by name, points by how many of a stage.
func turnsOf(d *desk.Desk, turns []eval.Turn) (list []string) {
	var stages []figure.Stage
	points := map[figure.Stage]int{}
	for _, t := range turns {
		if t.Figure != nil {
			list = append(list, d.Units.Name(t.Figure))
			continue
		}
		if points[t.Rule.Stage]++; points[t.Rule.Stage] == 1 {
			stages = append(stages, t.Rule.Stage)
		}
	}
	for _, st := range stages {
		list = append(list, fmt.Sprintf("%d %s of %s", points[st], desk.Plural(points[st], "point"), d.StageName(st)))
	}
	return list
}

// readAnswer is the plan with one answer, or with what nobody has said guessed from now on.
func readAnswer(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	if form.Has("guess") {
		changed := *d.Plan
		changed.Guesses = plan.GuessTable
		if class := plan.Class(form.Get("class")); class != "" && d.Plan.Bike != nil {
			if !entry.Among(plan.Classes(), string(class)) {
				return d.Plan, nil, desk.FormErrors{"form": "Pick a kind of bike from the list."}
			}
			bike := *d.Plan.Bike
			bike.Class = class
			changed.Bike = &bike
		}
		return &changed, []string{"What nobody has said is guessed"}, nil
	}
	row, err := rowAt(form.Get("at"))
	if err != nil {
		return d.Plan, nil, desk.FormErrors{"form": desk.Sentence(err)}
	}
	changed, said, err := answered(d, row, form.Get("value"))
	if err != nil {
		return d.Plan, nil, desk.FormErrors{row.At: err.Error()}
	}
	return changed, []string{said}, nil
}
