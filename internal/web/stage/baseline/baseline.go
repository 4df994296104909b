package baseline

import (
	"math"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
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
	LeftState     desk.StateView
	Fields        []desk.FieldView
	Cost, Note    string
	CostError     string
	Error         string
	Action        string
}

type verdictView struct {
	ID, Name string
	Current  bool
}

func baselinePage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "baseline", nil, walk(d, "", nil, nil))
}

// walk shows the checks of the bike. For the check whose answer was refused it
// shows what was typed, with what is wrong.
func walk(d *desk.Desk, refused string, form url.Values, errs desk.FormErrors) baselineView {
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
		check := check(d, c, answer, done)
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
	v.Percent = desk.Share(float64(v.Done), float64(v.Of))
	return v
}

func check(d *desk.Desk, c baseline.Check, a plan.Answer, done bool) checkView {
	v := checkView{ID: c.ID, Name: c.Name, How: c.How, Measure: c.Measure, Answered: done, Action: d.Href("baseline/answer"), Cost: a.Cost.String(), Note: a.Note}
	for _, info := range baseline.Verdicts() {
		v.Verdicts = append(v.Verdicts, verdictView{string(info.Verdict), info.Name, done && info.Verdict == a.Verdict})
	}
	v.Open = a.Cost.Known() || a.Note != ""
	for _, f := range a.Fields() {
		v.Fields = append(v.Fields, desk.FieldOf(d.Units, f, nil, nil))
		v.Open = v.Open || f.Entry.Known()
	}
	v.Left, v.LeftState = left(d, c, a.Worn())
	return v
}

// left says how far a worn part still goes, against the trip.
func left(d *desk.Desk, c baseline.Check, w baseline.Worn) (string, desk.StateView) {
	left, trip := w.LeftKm(), d.Plan.Brief.Distance.In("km")
	switch {
	case c.Wear == baseline.NoMeasure:
		return "", desk.StateView{}
	case w.Past(c.Wear):
		return "at its limit", desk.StateOf("stop")
	case math.IsNaN(left):
		return "", desk.StateView{}
	case math.IsInf(left, 1):
		return "no wear to be measured", desk.StateOf("ok")
	case left < trip:
		return d.Units.Quantity(left, "km") + " left, less than the trip", desk.StateOf("watch")
	}
	return d.Units.Quantity(left, "km") + " left", desk.StateOf("ok")
}

// refuse puts what was typed back, with what is wrong.
func (v *checkView) refuse(form url.Values, errs desk.FormErrors) {
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
func answer(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	check, ok := baseline.CheckOf(r.PostFormValue("check"))
	if !ok || d.Plan.Bike == nil || (check.Only != baseline.Always && !d.Plan.Bike.Has(check.Only)) {
		return store.ErrNotFound
	}
	answer, errs := readAnswer(d, check, r.PostForm)
	if len(errs) > 0 {
		return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, "baseline", nil, walk(d, check.ID, r.PostForm, errs))
	}
	id, err := s.Amend(r, d, func(head *desk.Desk) (*plan.Plan, string) {
		was, done := head.Plan.Baseline.Answer(check.ID)
		if done && was == answer {
			return head.Plan, ""
		}
		return head.Plan.Answered(answer), check.Name + ": " + desk.AnswerWords(answer)
	})
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("baseline", "kept", id)+"#check-"+check.ID)
}

func readAnswer(d *desk.Desk, c baseline.Check, form url.Values) (plan.Answer, desk.FormErrors) {
	errs := desk.FormErrors{}
	a := plan.Answer{Check: c.ID, Verdict: baseline.Verdict(form.Get("verdict")), Note: strings.TrimSpace(form.Get("note"))}
	for _, f := range a.Fields() {
		if err := d.Units.EnterField(f, form.Get(f.Key)); err != nil {
			errs[f.Key] = err.Error()
		}
	}
	var err error
	if a.Cost, err = d.Units.Amount(form.Get("cost"), d.Plan.Currency); err != nil {
		errs["cost"] = err.Error()
	}
	if err := a.Validate(); err != nil && len(errs) == 0 {
		errs["form"] = err.Error()
	}
	return a, errs
}
