// Package ready is the study of time: what has to come, what is done while what is apart, and
// the day on which the bike is ready.
package ready

import (
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Study of the time that there is.
var Study = study.Study{
	Name: "ready",
	Steps: []study.Step{
		{Name: "jobs", Needs: reads, Gives: facts.ReadyGroup, Run: func(r *study.Run) { r.Ready = Jobs(r.All) }, OfPlan: true},
		{Name: "ready", Needs: facts.ReadyGroup | facts.JourneyGroup, Run: readyDate, Figures: []figure.ID{figure.ReadyDate}},
	},
	Rules: []study.Rule{
		{ID: "start-is-past", Class: cause.Fails, Cause: cause.Time, Free: true, Stage: figure.Ready, Reads: facts.ReadyGroup | facts.JourneyGroup, Judge: startIsPast},
		{ID: "cannot-be-there", Class: cause.Ends, Cause: cause.Time, Stage: figure.Ready, Reads: facts.InLines | facts.ReadyGroup, Judge: cannotBeThere},
		{ID: "waits-for-itself", Class: cause.Rest, Cause: cause.Time, Free: true, Stage: figure.Ready, Reads: facts.ReadyGroup, Judge: waitsForItself},
		{ID: "overdue", Class: cause.Rest, Cause: cause.Time, Free: true, Stage: figure.Ready, Reads: facts.InLines | facts.ReadyGroup, Judge: overdue},
	},
}

// reads is what jobs are made of.
const reads = facts.InLines | facts.InLooked | facts.InLog | facts.InRest | facts.InTime

// sure is how sure the day is that the gauge shows, and middling that of the middle.
const (
	sure     = 0.8
	middling = 0.5
)

var (
	readyFormula = sheet.Formula{Text: "ready = first morning by which all is done in 4 of 5 of 64 scenarios, each job after those it waits for, own hours one job after the other, the shakedown last", Origin: sheet.Computed}
	leadFormula  = sheet.Formula{Text: "low, likely, high: as said, else 0.7 and 1.5 × likely, 2 × from abroad", Origin: sheet.Memory}
)

// readyDate is the first morning by which all is done, four times in five.
func readyDate(r *study.Run) {
	c := r.Figure(figure.ReadyDate)
	f := &r.Ready
	if f.Dated && r.Journey.Km > 0 && f.Leaves <= f.Today {
		c.Sheet.Note("The trip has begun: what is still open is done on the way, or after it.")
		c.Is(float64(f.Leaves))
		c.AtMost(sheet.Value{Number: float64(f.Leaves)}, math.Inf(1), verdict.Over)
		return
	}
	c.Usual = int32(f.Usual)
	day := func(t float64) float64 { return float64(f.Morning(t)) }
	late, middle := 0.0, 0.0
	if f.Net != nil {
		late, middle = f.Outlook.Share(sure), f.Outlook.Share(middling)
	}
	if math.IsInf(late, 0) {
		c.LacksAt("hours of your own", "page/days")
	}
	c.Is(day(late))
	c.Band(day(middle), day(late))
	if c.Sheet != nil {
		working(c, late, middle)
	}
	limit := math.NaN()
	if f.Dated {
		limit = float64(f.Leaves)
	}
	c.AtMost(sheet.Value{Number: limit}, math.Inf(1), verdict.Over)
	if !f.Dated {
		c.Unsure(study.Lack{What: "date of departure (Brief)", At: "brief/start"})
	}
	c.Settle(func() []study.Lack {
		list := widest(f)
		if _, usual := r.Plan.Ready.Hours(); usual {
			list = append(list, study.Lack{What: "your own hours a week", At: "page/time"})
		}
		return list
	})
}

// working shows what holds the day up, job by job, and the shares of the scenarios.
func working(c study.Calc, late, middle float64) {
	f := &c.Run.Ready
	if f.Net == nil {
		c.Sheet.Note("Nothing has to come, and nothing has to be done: it is ready today.")
		return
	}
	var in []sheet.Value
	for _, j := range f.Table.Holds() {
		job, row := &f.Jobs[j], &f.Table.Rows[j]
		origin, unit := sheet.Rider, "d"
		if job.Usual {
			origin = sheet.Memory
		}
		if f.Net.Jobs[j].Kind == calendar.Work {
			unit = "h"
		}
		in = append(in, sheet.Value{Name: job.Name, Number: row.Takes, Unit: unit, Origin: origin, Note: "from " + f.Day(row.Start).String() + " to " + f.Day(row.End).String()})
	}
	c.Sheet.Step(leadFormula, study.Computed("days until all is done, likely", f.Table.Ready, "d"), in...)
	c.Sheet.Step(readyFormula, study.Computed("ready", float64(f.Morning(late)), figure.Date), study.Computed("days until all is done, 4 of 5", late, "d"),
		study.Computed("days, in the middle", middle, "d"), study.Computed("hours of your own", f.Table.Hours, "h"), study.Computed("hours that places open already save", f.Table.Saved, "h"))
	c.Sheet.Note("What one seller sends is late together. The shakedown is the last job, counted once. Days that nobody has said are as usual for where the part comes from.")
}

// widest are the waits whose days would be worth asking for, the widest of those that hold it up first.
func widest(f *facts.Ready) []study.Lack {
	var list []study.Lack
	holds := f.Table.Holds()
	slices.SortStableFunc(holds, func(a, b int) int {
		wide := func(j int) float64 { s := f.Net.Jobs[j].Takes; return s.High - s.Low }
		return int(math.Copysign(1, wide(b)-wide(a)))
	})
	for _, j := range holds {
		if f.Jobs[j].Usual && len(list) < 3 {
			list = append(list, study.Lack{What: "days of: " + strings.ToLower(f.Jobs[j].Name[:1]) + f.Jobs[j].Name[1:], At: "page/ready"})
		}
	}
	return list
}
