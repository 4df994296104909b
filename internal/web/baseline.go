package web

import (
	"crypto/rand"
	"math"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// baselineView is the walk around the bike, check by check.
type baselineView struct {
	Has      bool
	Areas    []areaView
	Done, Of int
	Percent  float64
	Next     string // id of the first check that nobody has made, "" for none
}

type areaView struct {
	ID, Name string
	Done, Of int
	Checks   []checkView
}

// checkView is one check with its answer.
type checkView struct {
	ID, Name, How string
	Measure       string
	Verdicts      []verdictView
	Answered      bool
	Open          bool // something is noted beside the verdict
	Left          string
	LeftState     stateView
	Fields        []fieldView
	Cost, Note    string
	CostError     string
	Error         string
	Action        string
}

type verdictView struct {
	ID, Name string
	Current  bool
}

func (s *Server) baselinePage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	return s.showPage(w, r, http.StatusOK, d, "baseline", nil, d.walk("", nil, nil))
}

// walk shows the checks of the bike. For the check whose answer was refused it
// shows what was typed, with what is wrong.
func (d *desk) walk(refused string, form url.Values, errs formErrors) baselineView {
	v := baselineView{Has: d.Plan.Bike != nil}
	if !v.Has {
		return v
	}
	areas := map[baseline.Area]int{}
	for _, a := range baseline.Areas() {
		areas[a.Area] = len(v.Areas)
		v.Areas = append(v.Areas, areaView{ID: string(a.Area), Name: a.Name})
	}
	for _, c := range baseline.For(d.Plan.Bike.Has) {
		answer, done := d.Plan.Baseline.Answer(c.ID)
		check := d.check(c, answer, done)
		if c.ID == refused {
			check.refuse(form, errs)
		}
		area := &v.Areas[areas[c.Area]]
		area.Checks = append(area.Checks, check)
		area.Of++
		v.Of++
		if done {
			area.Done++
			v.Done++
		} else if v.Next == "" {
			v.Next = c.ID
		}
	}
	v.Percent = share(float64(v.Done), float64(v.Of))
	return v
}

func (d *desk) check(c baseline.Check, a plan.Answer, done bool) checkView {
	v := checkView{ID: c.ID, Name: c.Name, How: c.How, Measure: c.Measure, Answered: done, Action: d.href("baseline/answer"), Cost: a.Cost.String(), Note: a.Note}
	for _, info := range baseline.Verdicts() {
		v.Verdicts = append(v.Verdicts, verdictView{string(info.Verdict), info.Name, done && info.Verdict == a.Verdict})
	}
	v.Open = a.Cost.Known() || a.Note != ""
	for _, f := range a.Fields() {
		v.Fields = append(v.Fields, fieldOf(d.units, f, nil, nil))
		v.Open = v.Open || f.Entry.Known()
	}
	v.Left, v.LeftState = d.left(c, a.Worn())
	return v
}

// left says how far a worn part still goes, against the trip.
func (d *desk) left(c baseline.Check, w baseline.Worn) (string, stateView) {
	left, trip := w.LeftKm(), d.Plan.Brief.Distance.In("km")
	switch {
	case c.Wear == baseline.NoMeasure:
		return "", stateView{}
	case w.Past(c.Wear):
		return "at its limit", stateOf("stop")
	case math.IsNaN(left):
		return "", stateView{}
	case math.IsInf(left, 1):
		return "no wear to be measured", stateOf("ok")
	case left < trip:
		return d.units.Quantity(left, "km") + " left, less than the trip", stateOf("watch")
	}
	return d.units.Quantity(left, "km") + " left", stateOf("ok")
}

// refuse puts what was typed back, with what is wrong.
func (v *checkView) refuse(form url.Values, errs formErrors) {
	v.Open, v.Cost, v.Note = true, form.Get("cost"), form.Get("note")
	v.CostError, v.Error = errs["cost"], errs["form"]
	for i := range v.Fields {
		v.Fields[i].Value, v.Fields[i].Error = form.Get(v.Fields[i].Key), errs[v.Fields[i].Key]
	}
	for i := range v.Verdicts {
		v.Verdicts[i].Current = v.Verdicts[i].ID == form.Get("verdict")
	}
}

// answer keeps one check's answer: at once, whatever else has changed, and once
// for the id that the page made for it.
func (s *Server) answer(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	check, ok := baseline.CheckOf(r.PostFormValue("check"))
	if !ok || d.Plan.Bike == nil || (check.Only != baseline.Always && !d.Plan.Bike.Has(check.Only)) {
		return store.ErrNotFound
	}
	answer, errs := d.readAnswer(check, r.PostForm)
	if len(errs) > 0 {
		return s.showPage(w, r, http.StatusUnprocessableEntity, d, "baseline", nil, d.walk(check.ID, r.PostForm, errs))
	}
	id := r.PostFormValue("id")
	if !store.ValidID(id) {
		id = rand.Text()
	}
	err = s.store.Amend(r.Context(), s.rider(r), d.PlanID, id, func(p *plan.Plan) (*plan.Plan, string) {
		was, done := p.Baseline.Answer(check.ID)
		if done && was == answer {
			return p, ""
		}
		return p.Answered(answer), check.Name + ": " + answerWords(answer)
	})
	if err != nil {
		return err
	}
	return seeOther(w, r, d.href("baseline")+"#check-"+check.ID)
}

func (d *desk) readAnswer(c baseline.Check, form url.Values) (plan.Answer, formErrors) {
	errs := formErrors{}
	a := plan.Answer{Check: c.ID, Verdict: baseline.Verdict(form.Get("verdict")), Note: strings.TrimSpace(form.Get("note"))}
	for _, f := range a.Fields() {
		if err := f.Enter(form.Get(f.Key), d.units.Of(f.Unit)); err != nil {
			errs[f.Key] = err.Error()
		}
	}
	var err error
	if a.Cost, err = readAmount(form.Get("cost"), d.Plan.Currency); err != nil {
		errs["cost"] = err.Error()
	}
	if err := a.Validate(); err != nil && len(errs) == 0 {
		errs["form"] = err.Error()
	}
	return a, errs
}

func answerWords(a plan.Answer) string {
	words := string(a.Verdict)
	for _, info := range baseline.Verdicts() {
		if info.Verdict == a.Verdict {
			words = strings.ToLower(info.Name)
		}
	}
	if a.Now.Known() {
		words += ", " + a.Now.String()
	}
	if a.Cost.Known() {
		words += ", " + a.Cost.Display()
	}
	return words
}
