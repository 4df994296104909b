package ready

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"

	"valiantmule/internal/core/logbook"
	study "valiantmule/internal/core/study/ready"
	"valiantmule/internal/web/desk"
)

// shakedownView is what is looked at after the first rides.
type shakedownView struct {
	desk.ReadingHead
	Has                bool
	Says, Short        string
	Groups             []lookGroup
	Loaded, Rough, Hot bool
	Found              desk.FieldView
	Send               string
}

// lookGroup is the looks after one kind of ride.
type lookGroup struct {
	ID, Name, Says string
	Left           int
	Looks          []lookRow
}

type lookRow struct {
	ID, Name, Says, On string
	Held, Wrong, Asks  bool   // asks is one that was well after a ride that was not hard enough
	Measure            string // where its number is written down, "" for none
}

func shakedownPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "shakedown", nil, shakedownOf(d, nil, nil))
}

// readOn are the pages that take what is measured with a look.
var readOn = map[logbook.Kind]string{logbook.VoltsRead: "volts", logbook.SagRead: "measure", logbook.FillReading: "fills"}

func shakedownOf(d *desk.Desk, form url.Values, errs desk.FormErrors) shakedownView {
	v := shakedownView{Has: d.Plan.Bike != nil, Send: d.Href("shakedown")}
	if !v.Has {
		return v
	}
	v.ReadingHead = desk.ReadingHeadOf(form, errs, "")
	v.Found = desk.FieldView{Key: "note", Label: "What was found", Value: form.Get("note"), Error: errs["note"], Help: "For one that is not right: it becomes a job."}
	v.Loaded, v.Rough, v.Hot = form.Has("loaded"), form.Has("rough"), form.Has("hot")
	left, grave, wrong := 0, 0, 0
	list := study.Looks(d.Plan)
	for _, when := range study.Whens() {
		g := lookGroup{ID: string(when.When), Name: d.Units.Prose(when.Name), Says: when.Says}
		for i := range list {
			l := &list[i]
			if l.When != when.When {
				continue
			}
			row := lookRow{ID: l.ID, Name: l.Name, Says: l.Says, On: l.On, Held: l.Held(), Wrong: l.Wrong()}
			if page := readOn[l.Reads]; page != "" {
				row.Measure = d.Href(page)
			}
			row.Asks = l.Last != nil && !row.Held && !row.Wrong
			if !row.Held {
				g.Left++
				left++
				if l.Grave {
					grave++
				}
			}
			if row.Wrong {
				wrong++
			}
			g.Looks = append(g.Looks, row)
		}
		v.Groups = append(v.Groups, g)
	}
	v.Says = fmt.Sprintf("%d looks left of %d.", left, len(list))
	if left == 0 {
		v.Says = "All of it was looked at."
	}
	if wrong > 0 {
		v.Says += fmt.Sprintf(" %s not right: among the jobs of the spanner days.", verb(wrong))
	}
	r := &d.Report.Facts.Ready
	if days := int(r.Leaves - r.Today); r.Dated && days >= 0 && float64(days) < d.Plan.Ready.MarginDays() && grave > 0 {
		v.Short = fmt.Sprintf("%d days until you leave: at the least the %d that stand first in each list. They are what ends a ride or throws its rider.", days, grave)
	}
	return v
}

// verb is a number with the verb that follows it.
func verb(n int) string {
	if n == 1 {
		return "1 is"
	}
	return fmt.Sprintf("%d are", n)
}

// looked keeps one look: well, or not right.
var looked = desk.AddReading("shakedown", logbook.Shaken, func(d *desk.Desk, form url.Values, into *logbook.Reading, errs desk.FormErrors) error {
	of, wrong := form.Get("well"), false
	if of == "" {
		of, wrong = form.Get("wrong"), true
	}
	if !slices.ContainsFunc(study.Looks(d.Plan), func(l study.Look) bool { return l.ID == of }) {
		errs["form"] = "That is not looked at in this plan any more: the list is anew."
	}
	into.Read = &logbook.Shake{Trip: d.Plan.Trip, Of: of, Wrong: wrong, Loaded: form.Has("loaded"), Rough: form.Has("rough"), Hot: form.Has("hot")}
	return nil
}, func(d *desk.Desk, form url.Values, errs desk.FormErrors) any { return shakedownOf(d, form, errs) })
