package ready

import (
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	study "valiantmule/internal/core/study/ready"
	"valiantmule/internal/draw"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// daysView is what is done while what is apart, day by day.
type daysView struct {
	Says    saysView
	Empty   bool
	Drawing weeksView
	Better  *betterView
	Days    []dayGroup
	Waits   []waitRow
	Done    []doneRow
	Did     string // where a job is said to be done
	Again   string
	Lost    string
	Today   string
	File    string
	Orders  string
	Turn    string // address of this page, to which a move is added
	Circle  []string
}

// weeksView is the drawing with the word for what it all hangs on.
type weeksView struct {
	draw.Weeks
	HoldsWord string
}

// betterView is an order that a search found.
type betterView struct {
	Says, Href string
}

// dayGroup is a day at the bike.
type dayGroup struct {
	Date, Weekday, Hours, Sheet string
	Jobs                        []jobRow
}

// jobRow is one job on its day.
type jobRow struct {
	ID, Name, Takes, Saved, Apart, Spare string
	Late, Holds, Usual                   bool
	Earlier, Later                       string
	Href                                 string
}

// waitRow is what passes by itself.
type waitRow struct {
	Name, From, To, Spare string
	Holds, Usual          bool
}

type doneRow struct{ ID, Name, On string }

// daysPage is the page of spanner days, with what lies on the bench.
func daysPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	bench, tried, err := d.Tried(r, "days")
	if err != nil {
		return err
	}
	f := readyOf(d.With(tried.Plan), d.After)
	return s.ShowPage(w, r, http.StatusOK, d, "days", bench, daysOf(d, f, tried))
}

func daysOf(d *desk.Desk, f *facts.All, tried desk.Laid) daysView {
	r, look := &f.Ready, lookAt(d, f, tried)
	v := daysView{
		Says: look.says(), Empty: r.Net == nil, Did: d.Href("days/done"), Again: d.Href("days/again"), Lost: d.Href("days/lost"), Today: d.AsOf,
		File: d.Href("days.ics"), Orders: d.Href("ready"), Turn: d.Href("days", tried.Query()...), Circle: r.Circle,
	}
	for _, done := range f.Plan.Ready.Done {
		v.Done = append(v.Done, doneRow{done.Job, nameOf(done.Job), done.On})
	}
	if v.Empty {
		return v
	}
	v.Drawing = weeksView{weeks(r), v.Says.HoldsWord}
	v.Better = look.offer()
	for i, j := range r.Order {
		day := r.Day(r.Table.Rows[j].Start)
		if n := len(v.Days); n == 0 || v.Days[n-1].Date != day.String() {
			v.Days = append(v.Days, dayGroup{Date: day.String(), Weekday: plan.Weekdays[day.Weekday()], Sheet: d.Href("spanner-day", "date", day.String()), Hours: hoursOn(r, day)})
		}
		g := &v.Days[len(v.Days)-1]
		g.Jobs = append(g.Jobs, look.job(i))
	}
	for j := range r.Jobs {
		job := &r.Jobs[j]
		if r.Net.Jobs[j].Serial() || job.Kind == facts.JobOrder {
			continue
		}
		row := &r.Table.Rows[j]
		w := waitRow{Name: job.Name, From: r.Day(max(0, row.Start)).String(), To: r.Morning(row.End).String(), Holds: slices.Contains(look.holds, j), Usual: job.Usual}
		if r.Dated {
			w.Spare = spare(row.Spare)
		}
		v.Waits = append(v.Waits, w)
	}
	slices.SortStableFunc(v.Waits, func(a, b waitRow) int { return strings.Compare(a.To, b.To) })
	return v
}

// nameOf is a job that is done, by its id.
func nameOf(id string) string {
	kind, key, _ := strings.Cut(id, "/")
	slot, _, _ := strings.Cut(key, ".")
	return desk.Capital(kind + " " + strings.ReplaceAll(slot, "-", " "))
}

// hoursOn is how many of one's own a day has.
func hoursOn(r *facts.Ready, day calendar.Day) string {
	return words.Number(study.HoursOn(r, day), 1) + " h"
}

// spare is how many days something may slip.
func spare(days float64) string {
	switch {
	case math.IsNaN(days):
		return ""
	case study.TooLate(days):
		return count(max(1, int(math.Ceil(-days))), "day") + " late"
	}
	return count(int(days), "day") + " to spare"
}

// job is one of the jobs in their order.
func (l *look) job(at int) jobRow {
	r := l.r
	j := r.Order[at]
	job, row := &r.Jobs[j], &r.Table.Rows[j]
	v := jobRow{ID: r.Jobs[j].ID(), Name: job.Name, Takes: takes(r, j), Holds: slices.Contains(l.holds, j), Usual: job.Usual, Href: l.jobHref(j), Apart: apart(job)}
	if row.Saved > 0.04 {
		v.Saved = words.Number(row.Saved, 1) + " h saved"
	}
	if r.Dated {
		v.Spare, v.Late = spare(row.Spare), study.TooLate(row.Spare)
	}
	moved := func(then string) string {
		return l.Href("days", l.tried.Turning(orderKey, v.ID+before+then)...)
	}
	if at > 0 {
		v.Earlier = moved(r.Jobs[r.Order[at-1]].ID())
	}
	switch {
	case at+2 < len(r.Order):
		v.Later = moved(r.Jobs[r.Order[at+2]].ID())
	case at+2 == len(r.Order):
		v.Later = moved("")
	}
	return v
}

// apart is what is open for a job, in words.
func apart(job *facts.Job) string {
	var names []string
	for _, p := range job.Places {
		row, _ := calendar.PlaceOf(p)
		names = append(names, row.Apart)
	}
	if job.Shop != "" {
		names = append(names, "at "+job.Shop)
	}
	return strings.Join(names, ", ")
}

// worth is how many hours another order has to save that is no sooner.
const worth = 0.5

// offer is a better order of the work, nil where a search finds none.
func (l *look) offer() *betterView {
	if slices.Contains(l.tried.Values(orderKey), better) {
		return nil
	}
	r := l.r
	found := r.Net.Better(r.Order)
	sooner, fewer := int(r.Morning(r.Table.Ready)-r.Morning(found.Table.Ready)), r.Table.Hours-found.Table.Hours
	if sooner <= 0 && fewer < worth {
		return nil
	}
	v := betterView{Href: l.Href("days", l.tried.Turning(orderKey, better)...)}
	hours := words.Number(fewer, 1) + " h less at the bike"
	switch soon := count(sooner, "day") + " sooner"; {
	case sooner <= 0:
		v.Says = "Another order of the same jobs takes " + hours + ", and is ready as soon."
	case fewer < 0.05:
		v.Says = "Another order of the same jobs is ready " + soon + ", by likely durations."
	default:
		v.Says = "Another order of the same jobs is ready " + soon + " and takes " + hours + ", by likely durations."
	}
	if found.Exact {
		v.Says += " No order is ready sooner."
	} else {
		v.Says += " No order is ready before " + r.Morning(found.Bound).String() + "."
	}
	return &v
}

// weeks draws the jobs around the places that are open.
func weeks(r *facts.Ready) draw.Weeks {
	var lanes []string
	lane := func(name string) int {
		at := slices.Index(lanes, name)
		if at < 0 {
			at, lanes = len(lanes), append(lanes, name)
		}
		return at
	}
	holds := r.Table.Holds()
	var spans []draw.WeekSpan
	for j := range r.Jobs {
		if r.Jobs[j].Kind == facts.JobOrder {
			row := &r.Table.Rows[j]
			spans = append(spans, draw.WeekSpan{Lane: lane("comes"), From: row.Start, To: row.End, Point: true, Holds: slices.Contains(holds, j), Title: r.Jobs[j].Name + " comes " + r.Morning(row.End).String()})
		}
	}
	openings := study.Openings(r)
	for _, place := range calendar.Places() { // as one walks around the bike
		if slices.ContainsFunc(openings, func(o study.Opening) bool { return o.Place == place.Place }) {
			lane(place.Apart)
		}
	}
	for _, o := range openings {
		name := "nothing apart"
		if place, at := calendar.PlaceOf(o.Place); at >= 0 {
			name = place.Apart
		} else if o.Shop {
			name = "at a workshop"
		}
		names := make([]string, len(o.Jobs))
		for i, j := range o.Jobs {
			names[i] = r.Jobs[j].Name
		}
		spans = append(spans, draw.WeekSpan{
			Lane: lane(name), From: o.From, To: o.To, Title: strings.Join(names, "; "),
			Holds: slices.ContainsFunc(o.Jobs, func(j int) bool { return slices.Contains(holds, j) }),
		})
	}
	for j := range r.Jobs {
		if row := &r.Table.Rows[j]; r.Net.Jobs[j].Last {
			spans = append(spans, draw.WeekSpan{Lane: lane("shakedown"), From: row.Start, To: row.End, Holds: slices.Contains(holds, j), Title: r.Jobs[j].Name})
		}
	}
	leaves := math.NaN()
	if r.Dated {
		leaves = float64(r.Leaves - r.Today)
	}
	monday := (7 - r.Today.Weekday()) % 7
	return draw.WeeksOf(lanes, spans, monday, r.Outlook.Share(0.5), r.Outlook.Share(0.8), leaves, func(day int) string {
		return (r.Today + calendar.Day(day)).Time().Format("2 Jan")
	})
}

// done is a job that is done, said on the page of all days or on a day's sheet: on the plan as it
// is now, once for the id that the page or the device made.
func done(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	gone := false
	id, err := s.Amend(r, d, func(head *desk.Desk) (*plan.Plan, string) {
		changed, said, ok := study.Done(asks(head), r.PostFormValue("job"))
		if gone = !ok; gone {
			return head.Plan, ""
		}
		return changed, said
	})
	if err != nil {
		return err
	}
	if gone {
		return store.ErrStale
	}
	back := []string{"days", "kept", id}
	if date := r.PostFormValue("date"); date != "" {
		back = []string{"spanner-day", "date", date, "kept", id}
	}
	return desk.SeeOther(w, r, d.Href(back[0], back[1:]...))
}

// again is a job that is not done after all.
func again(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return changing(s, w, r, []string{"days"}, func(d *desk.Desk) (*plan.Plan, string, bool) {
		id := r.PostFormValue("job")
		return study.Again(d.Plan, id), "Not done after all: " + nameOf(id), d.Plan.Ready.DoneOn(id) != ""
	})
}

// lost is a day on which nothing was done.
func lost(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return changing(s, w, r, []string{"days"}, func(d *desk.Desk) (*plan.Plan, string, bool) {
		day := r.PostFormValue("day")
		_, ok := calendar.ParseDay(day)
		return study.Lost(d.Plan, day), fmt.Sprintf("A day lost, %s", day), ok
	})
}

// changing saves a change of the plan as it is now, and leads back; what cannot be any more is stale.
func changing(s *desk.House, w http.ResponseWriter, r *http.Request, back []string, change func(*desk.Desk) (*plan.Plan, string, bool)) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	changed, said, ok := change(d)
	if !ok {
		return store.ErrStale
	}
	if err := s.Save(r, d, r.PostFormValue("base"), changed, said); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href(back[0], back[1:]...))
}
