package ready

import (
	"net/http"
	"slices"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	study "valiantmule/internal/core/study/ready"
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
	ID, Name, Takes, Apart string
	Note, Work, Tools      string
	Torque, Look, Blind    string
	How                    string // a fault is looked at
	Try                    string // of what is home-made
	Notes                  []string
	Waits                  string // what has not come yet
	Sheet                  string // where torque and notes are typed
	Thing                  string // the part's own page, where notes stay with it
	Continues              bool
}

// dayPage is the sheet of the day that the address names, or of the next one at the bike.
func dayPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	day, ok := calendar.ParseDay(r.URL.Query().Get("date"))
	f := readyOf(d, d.Report)
	return s.ShowPage(w, r, http.StatusOK, d, "spanner-day", nil, dayOf(d, f, day, ok))
}

// tries is what a home-made part is tried for before it is painted.
const tries = "Trial fit before paint: room at full lock both ways and at full travel, bolted to the frame and not to pipes or cases, nothing rubs. Look for cracks after the shakedown, at every weld and hole."

func dayOf(d *desk.Desk, f *facts.All, day calendar.Day, said bool) dayView {
	r := &f.Ready
	days, look := study.WorkDays(r), lookAt(d, f, desk.Laid{})
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
		on := study.On(r, j)
		if day < on.From || day > on.To {
			continue
		}
		v.Jobs = append(v.Jobs, look.sheet(j, day < on.To))
		v.Careful = v.Careful || study.Grave(&r.Jobs[j])
		for _, p := range r.Jobs[j].Places {
			row, _ := calendar.PlaceOf(p)
			if !slices.Contains(v.Open, row.Apart) {
				v.Open = append(v.Open, row.Apart)
			}
		}
		if tools := v.Jobs[len(v.Jobs)-1].Tools; tools != "" && !slices.Contains(v.Tools, tools) {
			v.Tools = append(v.Tools, tools)
		}
	}
	return v
}

// sheet is one job with what its part says.
func (l *look) sheet(j int, continues bool) sheetJob {
	r := l.r
	job := &r.Jobs[j]
	v := sheetJob{ID: r.Jobs[j].ID(), Name: job.Name, Takes: words.Number(r.Table.Rows[j].Takes, 1) + " h", Apart: apart(job), Continues: continues}
	if r.Net.Jobs[j].Kind == calendar.Visit {
		v.Takes = takes(r, j)
	}
	for _, first := range r.Net.Firsts(j) {
		if r.Jobs[first].Kind == facts.JobOrder && r.Table.Rows[first].End > 0 {
			v.Waits = "not here yet: likely " + r.Morning(r.Table.Rows[first].End).String()
		}
	}
	if job.Kind == facts.JobTry || job.Kind == facts.JobMake {
		v.Try = tries
	}
	if check, ok := baseline.CheckOf(job.Key); ok && job.Kind == facts.JobRight {
		answer, _ := l.f.Plan.Baseline.Answer(job.Key)
		v.How, v.Note = check.How, answer.Note
	}
	if job.Line < 0 {
		return v
	}
	line := &l.f.Plan.Lines[job.Line]
	sup := line.Supplied()
	v.Torque, v.Look, v.Sheet = sup.Torque, sup.Look, l.lineHref(job.Line)
	v.Notes = l.Things.Notes(line.Thing)
	if line.Thing != "" {
		v.Thing = "/parts/" + line.Thing
	}
	if p := line.Part; p != nil {
		v.Note = p.Note
		if p.Fitment != nil {
			v.Work, v.Tools = p.Fitment.Work, p.Fitment.Tools
			if p.Fitment.Blind == entry.Yes {
				v.Blind = "No torque wrench gets at its fasteners: thread-lock, and look again after the first ride."
			}
		}
	}
	return v
}
