// Package calendar is the order of jobs, what is apart meanwhile, and the day on which all of
// it is done.
//
// It knows jobs, places and days, and no plan: a [Job] waits, or takes hours of one person's
// own, one job after the other in an order that is given; a [Net] holds them with what comes
// first. Days are counted from a first one, [Clock] says how much of something passes on each.
// Durations are spreads of low, likely and high; [Net.Table] reckons with the likely ones
// (critical path: Kelley and Walker 1959), [Net.Outlook] with 64 fixed scenarios. Nothing here
// has a clock of its own or a seed: the same jobs give the same days.
package calendar

import (
	"fmt"
	"time"
)

// Day counts days from 1970-01-01, which is 0.
type Day int

// ParseDay reads a date as 2027-05-14; ok is false for anything else.
func ParseDay(text string) (d Day, ok bool) {
	if len(text) != len(time.DateOnly) { // most dates of a plan are not said
		return 0, false
	}
	t, err := time.Parse(time.DateOnly, text)
	if err != nil {
		return 0, false
	}
	return Day(t.Unix() / 86400), true
}

// String is the date, 2027-05-14.
func (d Day) String() string { return d.Time().Format(time.DateOnly) }

// Time is the beginning of the day, in UTC.
func (d Day) Time() time.Time { return time.Unix(int64(d)*86400, 0).UTC() }

// Weekday from Monday, which is 0.
func (d Day) Weekday() int { return ((int(d)+3)%7 + 7) % 7 }

// Span is days from one to another, both in it.
type Span struct{ From, To Day }

// String is both of its dates, or the one.
func (s Span) String() string {
	if s.From == s.To {
		return s.From.String()
	}
	return fmt.Sprintf("%s to %s", s.From, s.To)
}
