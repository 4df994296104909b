package calendar

import "math"

// hair is by how much less or more still counts as so much: sums of parts of days are no whole ones.
const hair = 1e-9

// ahead is how many days a clock has by heart; beyond them each week is as usual.
const ahead = 420

// Clock says how much of something passes on each day from a first one on: hours of one's own,
// days on which a workshop is open. Within a day it passes evenly.
type Clock struct {
	first Day
	by    [ahead + 1]float64 // what has passed by the morning of each day
	rate  float64            // a day, beyond
	last  float64            // by the last morning
}

// NewClock is the clock of a usual week, from Monday, without the days that are off.
func NewClock(first Day, week [7]float64, off []Span) *Clock {
	c := &Clock{first: first}
	for i, at := 0, first.Weekday(); i < ahead; i++ { // what passes on each day …
		c.by[i+1] = week[at]
		if at++; at == 7 {
			at = 0
		}
	}
	for _, s := range off {
		for d := max(0, int(s.From-first)); d < ahead && d <= int(s.To-first); d++ {
			c.by[d+1] = 0
		}
	}
	for i := range ahead { // … and by then
		c.by[i+1] += c.by[i]
	}
	c.last = c.by[ahead]
	for _, pass := range week {
		c.rate += pass / 7
	}
	return c
}

// At is how much has passed by a moment, in days from the first; nothing has before it.
func (c *Clock) At(t float64) float64 {
	switch {
	case t <= 0:
		return 0
	case t >= ahead:
		return c.last + (t-ahead)*c.rate
	}
	i := int(t)
	return c.by[i] + (t-float64(i))*(c.by[i+1]-c.by[i])
}

// Until is the first moment by which so much has passed; never is +Inf.
func (c *Clock) Until(passed float64) float64 {
	if passed <= hair {
		return 0
	}
	return c.from(c.day(passed-hair), passed)
}

// Since is the last moment at which no more than so much had passed: the latest start of what
// takes the rest.
func (c *Clock) Since(passed float64) float64 {
	if passed < -hair {
		return passed / c.rate // before the first day each is as usual
	}
	return c.from(c.day(passed+hair), passed)
}

// day is the last morning by which no more than so much had passed.
func (c *Clock) day(passed float64) int {
	guess := 0
	if c.rate > 0 { // most days are about where the usual week has them
		guess = int(min(ahead, passed/c.rate))
	}
	return c.near(guess, passed)
}

// near is day, looked for from a day that is not far.
func (c *Clock) near(i int, passed float64) int {
	for i > 0 && c.by[i] > passed {
		i--
	}
	for i < ahead && c.by[i+1] <= passed {
		i++
	}
	return i
}

// from is the moment, on a day or after, by which so much has passed.
func (c *Clock) from(i int, passed float64) float64 {
	if i >= ahead {
		if c.rate <= 0 {
			return math.Inf(1)
		}
		return ahead + (passed-c.last)/c.rate
	}
	pass := c.by[i+1] - c.by[i]
	if pass <= 0 {
		return float64(i)
	}
	return float64(i) + max(0, passed-c.by[i])/pass
}

// After is the moment at which so much more has passed than at another; what takes nothing is over at once.
func (c *Clock) After(t, amount float64) float64 {
	if amount <= 0 {
		return t
	}
	return max(t, c.Until(c.At(t)+amount))
}

// Before is the latest moment from which so much passes until another.
func (c *Clock) Before(t, amount float64) float64 {
	if amount <= 0 {
		return t
	}
	return min(t, c.Since(c.At(t)-amount))
}
