// Package ical writes days as a calendar for other programs (RFC 5545).
package ical

import (
	"io"
	"time"

	ics "github.com/arran4/golang-ical"
)

// Event is something that fills whole days.
type Event struct {
	ID       string // the same whenever it is written again, so that programs move it
	From, To time.Time
	Name     string
	Says     string
	Busy     bool
}

// Write writes a calendar of a name. Made is the moment at which it is written.
func Write(w io.Writer, name string, made time.Time, events []Event) error {
	cal := ics.NewCalendarFor("Valiant Mule")
	cal.SetMethod(ics.MethodPublish)
	cal.SetName(name)
	cal.SetXWRCalName(name)
	for _, e := range events {
		v := cal.AddEvent(e.ID)
		v.SetDtStampTime(made)
		v.SetAllDayStartAt(e.From)
		v.SetAllDayEndAt(e.To.AddDate(0, 0, 1)) // the day after, as RFC 5545 has it
		v.SetSummary(e.Name)
		if e.Says != "" {
			v.SetDescription(e.Says)
		}
		how := ics.TransparencyTransparent
		if e.Busy {
			how = ics.TransparencyOpaque
		}
		v.SetTimeTransparency(how)
	}
	return cal.SerializeTo(w)
}
