package desk

import (
	"math"
	"net/http"
	"slices"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guide"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
	"valiantmule/internal/words"
)

// Guides are a page that leads from a symptom to one step at a time.
type Guides struct {
	Page         string
	Title, Intro string
	List         []guide.Guide
}

// guidesView is where one of them has come to.
type guidesView struct {
	Has          bool
	Title, Intro string
	Guides       []LinkView
	Name, Says   string // of the one that is open, "" for none
	ID           string
	Action       string
	Step         *guide.Step
	Pending      bool
	Ended        string // what the end says
	Figures      []GaugeView
	Change       string // what the change comes to, in words
	Wont         string // why it cannot be done
	Measure      *LinkView
	Answers      []guide.Answer
	List         *OptionList
	Trail        []trailRow
	Loadout      string
}

// trailRow is a step that was taken.
type trailRow struct{ On, Words, Answer string }

// Routes of the page.
func (g Guides) Routes() []Route {
	return []Route{Get("/"+g.Page, g.show), Post("/"+g.Page, g.take)}
}

// open is the guide that a request names, or else the one whose steps were taken last.
func (g Guides) open(p *plan.Plan, id string) *guide.Guide {
	if found, ok := guide.Find(g.List, id); ok {
		return found
	}
	for _, t := range slices.Backward(p.Trials) {
		if found, ok := guide.Find(g.List, t.Guide); ok {
			return found
		}
	}
	return nil
}

func (g Guides) show(s *House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	v := guidesView{Has: d.Plan.Bike != nil, Title: g.Title, Intro: g.Intro, Action: d.Href(g.Page)}
	of := g.open(d.Plan, r.URL.Query().Get("guide"))
	for i := range g.List {
		v.Guides = append(v.Guides, LinkView{g.List[i].Name, d.Href(g.Page, "guide", g.List[i].ID), of != nil && of.ID == g.List[i].ID})
	}
	bench, tried, err := d.Tried(r, g.Page)
	if err != nil {
		return err
	}
	if of != nil && v.Has {
		if bench, err = g.fill(d, &v, of, tried, bench); err != nil {
			return err
		}
	}
	return s.ShowPage(w, r, http.StatusOK, d, g.Page, bench, v)
}

// fill shows where a guide stands; a change that it proposes lies on the bench.
func (g Guides) fill(d *Desk, v *guidesView, of *guide.Guide, tried Laid, bench *BenchView) (*BenchView, error) {
	loadout, _ := d.Plan.Loadout(d.Loadout)
	v.ID, v.Name, v.Says, v.Loadout = of.ID, of.Name, of.Says, loadout.Name
	v.Trail = trailOf(d.Plan, of)
	at := of.Walk(d.Plan.TrialsOf(of.ID))
	if v.Step, v.Pending = at.Step, at.Pending; v.Step == nil {
		v.Ended = endWords(at)
		return bench, nil
	}
	v.Figures = d.Gauges(d.After, g.Page, tried, v.Step.Figures...)
	switch s := v.Step; s.Kind {
	case guide.Ask, guide.Measure:
		v.Answers = s.Answers
		if s.Kind == guide.Measure {
			v.Measure = &LinkView{Name: d.house.PageName(s.Page), Href: d.Href(s.Page)}
		}
	case guide.Part:
		columns := []Column{Moves("Cost", figure.Cost)}
		for _, id := range s.Figures {
			row, _ := figure.Of(id)
			columns = append(columns, Becomes(row.Name+" then", id))
		}
		built := d.Plan.Build(d.Loadout)
		list, err := d.OptionsFor(parts.Slot(s.Slot), g.Page, func(p *parts.Part) bool { return d.Shelf.CouldFit(built, p) }, columns, []string{"guide", of.ID}, tried)
		if err != nil {
			return nil, err
		}
		v.List = &list
	case guide.Change:
		changed, words, err := d.change(s)
		if err != nil {
			v.Wont = err.Error()
			return bench, nil
		}
		if v.Change = words; !v.Pending && changed != d.Plan && bench == nil {
			return d.Bench(eval.Alternative{Label: s.Words, Plan: changed}, g.Page, nil)
		}
	}
	return bench, nil
}

// endWords is what an ended path says.
func endWords(at guide.Stand) string {
	switch at.Answer {
	case guide.Better:
		return "Better: leave it so, and write it down. One change at a time is how one knows what did it."
	case guide.Worse:
		return "Taken back. There is nothing further here: somebody who does it for a living."
	}
	return "There is nothing further here: somebody who does it for a living."
}

// change is the plan with a step's change made, and what it comes to in words.
func (d *Desk) change(s *guide.Step) (changed *plan.Plan, said string, err error) {
	changed, _, err = d.Plan.Changed(d.Loadout, s.Setting, s.By, d.setNow(s.Setting))
	if err != nil || s.Setting == guide.ByHand {
		return d.Plan, "", err
	}
	said = settingWords(d, s)
	return changed, said, nil
}

// setNow is what a preload stands at where a part's spring and not the sheet says so.
func (d *Desk) setNow(s guide.Setting) float64 {
	switch f := &d.Report.Facts.Springs; s {
	case guide.FrontPreload:
		return f.Front.SetMM
	case guide.RearPreload:
		return f.Rear.SetMM
	}
	return math.NaN()
}

// settingWords is a change in the rider's units.
func settingWords(d *Desk, s *guide.Step) string {
	sign := func(text string) string {
		if s.By < 0 {
			return "less by " + text
		}
		return "more by " + text
	}
	switch s.Setting {
	case guide.FrontPreload, guide.RearPreload:
		text := d.Units.Quantity(math.Abs(s.By), "mm")
		e := d.Report.Facts.Springs.Of(s.Setting == guide.RearPreload)
		if n, ok := e.Adjuster.Count(e.Adjuster.LeastMM() + math.Abs(s.By)); ok {
			text += ", about " + words.Number(math.Max(1, n), 0) + " " + string(e.Adjuster.By)
		}
		return "Preload " + sign(text) + "."
	case guide.ForkThrough:
		if s.By < 0 {
			return "Fork " + d.Units.Quantity(-s.By, "mm") + " down in its clamps."
		}
		return "Fork " + d.Units.Quantity(s.By, "mm") + " up through its clamps."
	case guide.Forward:
		return "You sit forward."
	case guide.ByHand:
		return ""
	}
	if s.By < 0 {
		return words.Number(-s.By, 0) + " clicks in."
	}
	return words.Number(s.By, 0) + " clicks out."
}

// answerWords are the answers to a change and to a part.
var answerWords = map[string]string{guide.Set: "set", guide.Better: "better", guide.Same: "the same", guide.Worse: "worse, taken back", guide.Begin: "begun anew"}

// trailOf lists the steps that were taken since the beginning, or since it was begun anew.
func trailOf(p *plan.Plan, g *guide.Guide) []trailRow {
	var rows []trailRow
	for _, t := range p.Trials {
		if t.Guide != g.ID {
			continue
		}
		if t.Answer == guide.Begin {
			rows = nil
			continue
		}
		s, ok := g.Step(t.Step)
		if !ok {
			continue
		}
		row := trailRow{On: t.On, Words: s.Words, Answer: answerWords[t.Answer]}
		for _, a := range s.Answers {
			if a.ID == t.Answer {
				row.Answer = within(a.Words)
			}
		}
		rows = append(rows, row)
	}
	return rows
}

// take goes one step on or back, and writes it down.
func (g Guides) take(s *House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	of, ok := guide.Find(g.List, r.PostFormValue("guide"))
	if !ok || d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	t := plan.Trial{Guide: of.ID, Answer: r.PostFormValue("answer"), On: d.AsOf, Loadout: d.Loadout}
	if r.PostFormValue("base") != d.Revision {
		return store.ErrStale
	}
	changed, said := d.Plan, of.Name+": "
	if t.Answer == guide.Begin {
		said += "begun anew"
	} else {
		at := of.Walk(d.Plan.TrialsOf(of.ID))
		if at.Step == nil || at.Step.ID != r.PostFormValue("step") {
			return store.ErrStale
		}
		if _, _, ok := at.Step.To(t.Answer); !ok {
			return store.ErrNotFound
		}
		t.Step = at.Step.ID
		if changed, err = d.step(at, &t); err != nil {
			return SeeOther(w, r, d.Href(g.Page, "guide", of.ID)) // the page says why it cannot be done
		}
		said += strings.TrimSuffix(at.Step.Words, ".")
		if words := answerWords[t.Answer]; words != "" {
			said += ", " + words
		}
	}
	if err := s.Save(r, d, d.Revision, changed.Tried(t), said); err != nil {
		return err
	}
	return SeeOther(w, r, d.Href(g.Page, "guide", of.ID))
}

// step makes the change of a step that is set, or takes it back where it made it worse.
func (d *Desk) step(at guide.Stand, t *plan.Trial) (changed *plan.Plan, err error) {
	if at.Step.Kind != guide.Change {
		return d.Plan, nil
	}
	switch {
	case t.Answer == guide.Set:
		changed, t.Was, err = d.Plan.Changed(d.Loadout, at.Step.Setting, at.Step.By, d.setNow(at.Step.Setting))
		return changed, err
	case t.Answer == guide.Worse && at.Pending:
		for _, was := range slices.Backward(d.Plan.Trials) {
			if was.Guide == t.Guide && was.Step == t.Step && was.Answer == guide.Set {
				return d.Plan.TakenBack(was.Loadout, at.Step.Setting, was.Was)
			}
		}
	}
	return d.Plan, nil
}
