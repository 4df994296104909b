package ready

import (
	"net/http"
	"slices"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// dayView is one day at the bike, to be had beside it: by thumb, or on paper.
type dayView struct {
	Date, Weekday, Hours string
	Open                 []string // places that are apart that day
	Tools                []string
	Jobs                 []sheetJob
	Before, After        string // days beside it on which something is done
	BeforeHref           string
	AfterHref            string
	Did, Lost            string
	Careful              bool // brakes, steering, wheels, wires
	Days                 string
}

// sheetJob is one job of the day, with what one has to know beside the bike.
type sheetJob struct {
	ID, Name, Takes, Apart  string
	Part, Note, Work, Tools string
	Torque, Look, Blind     string
	How                     string // a fault is looked at
	Try                     string // of what is home-made
	Notes                   []string
	Waits                   string // what has not come yet
	Sheet                   string // where torque and notes are typed
	Thing                   string // the part's own page, where notes stay with it
	Continues               bool
}

// dayPage is the sheet of the day that the address names, or of the next one at the bike.
func dayPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	day, ok := calendar.ParseDay(r.URL.Query().Get("date"))
	f := asks(d)
	return s.ShowPage(w, r, http.StatusOK, d, "spanner-day", nil, dayOf(d, f, day, ok))
}

// tries is what a home-made part is tried for before it is painted.
const tries = "Trial fit before paint: room at full lock both ways and at full travel, bolted to the frame and not to pipes or cases, nothing rubs. Look for cracks after the shakedown, at every weld and hole."

// longest is how many days of one job have a sheet.
const longest = 200

// careful are the slots whose work somebody's life hangs on.
var careful = []calendar.Place{calendar.FrontWheel, calendar.RearWheel, calendar.Fork, calendar.FrontFluid, calendar.RearFluid, calendar.Bars, calendar.Swingarm}

func dayOf(d *desk.Desk, f *facts.All, day calendar.Day, said bool) dayView {
	r := &f.Ready
	var days []calendar.Day
	on := func(j int) (from, to calendar.Day) {
		row := &r.Table.Rows[j]
		return r.Day(row.Start), max(r.Day(row.Start), r.Day(row.End-1e-6))
	}
	for _, j := range r.Order {
		from, to := on(j)
		for to = min(to, from+longest); from <= to; from++ {
			if r.Net.Own.At(float64(from-r.Today)+1) > r.Net.Own.At(float64(from-r.Today)) || r.Net.Jobs[j].Kind == calendar.Visit {
				days = append(days, from)
			}
		}
	}
	slices.Sort(days)
	days = slices.Compact(days)
	if !said {
		day = r.Today
		if len(days) > 0 {
			day = days[0]
		}
	}
	v := dayView{Date: day.String(), Weekday: plan.Weekdays[day.Weekday()], Did: d.Href("days/done"), Lost: d.Href("days/lost"), Days: d.Href("days")}
	for _, other := range days {
		switch {
		case other < day:
			v.Before, v.BeforeHref = other.String(), d.Href("spanner-day", "date", other.String())
		case other > day && v.After == "":
			v.After, v.AfterHref = other.String(), d.Href("spanner-day", "date", other.String())
		}
	}
	if r.Net == nil {
		return v
	}
	v.Hours = hoursOn(r, day)
	for _, j := range r.Order {
		from, to := on(j)
		if day < from || day > to {
			continue
		}
		v.Jobs = append(v.Jobs, sheetOf(d, f, j, day < to))
		for _, p := range r.Jobs[j].Places {
			row, _ := calendar.PlaceOf(p)
			if !slices.Contains(v.Open, row.Apart) {
				v.Open = append(v.Open, row.Apart)
			}
			v.Careful = v.Careful || slices.Contains(careful, p)
		}
		if tools := v.Jobs[len(v.Jobs)-1].Tools; tools != "" && !slices.Contains(v.Tools, tools) {
			v.Tools = append(v.Tools, tools)
		}
		if kind, ok := parts.KindOf(r.Jobs[j].Slot); ok && kind.Family == parts.Electrics {
			v.Careful = true
		}
	}
	return v
}

// sheetOf is one job with what its part says.
func sheetOf(d *desk.Desk, f *facts.All, j int, continues bool) sheetJob {
	r := &f.Ready
	job := &r.Jobs[j]
	v := sheetJob{ID: r.Net.Jobs[j].ID, Name: job.Name, Takes: words.Number(r.Table.Rows[j].Takes, 1) + " h", Apart: apart(job), Continues: continues}
	if r.Net.Jobs[j].Kind == calendar.Visit {
		v.Takes = takes(r, j)
	}
	for _, first := range r.Net.Jobs[j].After {
		if r.Jobs[first].Kind == facts.JobOrder && r.Table.Rows[first].End > 0 {
			v.Waits = "not here yet: likely " + r.Morning(r.Table.Rows[first].End).String()
		}
	}
	if job.Kind == facts.JobTry || job.Kind == facts.JobMake {
		v.Try = tries
	}
	if check, ok := baseline.CheckOf(job.Key); ok && job.Kind == facts.JobRight {
		answer, _ := f.Plan.Baseline.Answer(job.Key)
		v.How, v.Note = check.How, answer.Note
	}
	if job.Line < 0 {
		return v
	}
	l := &f.Plan.Lines[job.Line]
	sup := l.Supplied()
	v.Torque, v.Look, v.Sheet = sup.Torque, sup.Look, d.Href("ready", "line", f.Plan.LineKeys()[job.Line])+"#line"
	v.Notes = d.Things.Notes(l.Thing)
	if l.Thing != "" {
		v.Thing = "/parts/" + l.Thing
	}
	if p := l.Part; p != nil {
		v.Part, v.Note = p.Name, p.Note
		if p.Fitment != nil {
			v.Work, v.Tools = p.Fitment.Work, p.Fitment.Tools
			if p.Fitment.Blind == entry.Yes {
				v.Blind = "No torque wrench gets at its fasteners: thread-lock, and look again after the first ride."
			}
		}
	}
	return v
}
