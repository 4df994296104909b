package calendar

import "math"

// hair is by how much less or more still counts as so much: sums of parts of days are no whole ones.
const hair = 1e-9

// ahead is how many days a clock has by heart at most; beyond them each week is as usual.
const ahead = 420

// Clock says how much of something passes on each day from a first one on: hours of one's own,
// days on which a workshop is open. Within a day it passes evenly.
type Clock struct {
	by   []float64 // what has passed by the morning of each day
	rate float64   // a day, beyond

	steps float64  // into how many parts what passes is cut, by what passes in all of them
	step  []uint16 // the day on which each of them begins
}

// NewClock is the clock of a usual week, from Monday, without the days that are off.
func NewClock(first Day, week [7]float64, off []Span) *Clock {
	c := &Clock{}
	days, same := 0, true
	for _, pass := range week {
		c.rate += pass / 7
		same = same && pass == week[0]
	}
	if same { // then there is nothing to know of what is beyond the last day off
		for _, s := range off {
			days = max(days, min(ahead, int(s.To-first)+1))
		}
	} else {
		days = ahead
	}
	c.by = make([]float64, days+1)
	for i, at := 1, first.Weekday(); i <= days; i++ { // what passes on each day …
		c.by[i] = week[at]
		if at++; at == 7 {
			at = 0
		}
	}
	for _, s := range off {
		for d := max(0, int(s.From-first)); d < days && d <= int(s.To-first); d++ {
			c.by[d+1] = 0
		}
	}
	for i := range days { // … and by then
		c.by[i+1] += c.by[i]
	}
	if c.last() > 0 {
		c.steps = c.days() / c.last()
		c.step = make([]uint16, days)
		day := 0
		for i := range c.step {
			for float64(i) >= c.by[day+1]*c.steps {
				day++
			}
			c.step[i] = uint16(day)
		}
	}
	return c
}

// days is how many the clock has by heart, and last what has passed by then.
func (c *Clock) days() float64 { return float64(len(c.by) - 1) }
func (c *Clock) last() float64 { return c.by[len(c.by)-1] }

// At is how much has passed by a moment, in days from the first; nothing has before it.
func (c *Clock) At(t float64) float64 {
	switch {
	case t <= 0:
		return 0
	case t >= c.days():
		return c.last() + (t-c.days())*c.rate
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
	at := int(passed * c.steps)
	switch {
	case at < 0:
		at = 0
	case at >= len(c.step):
		return c.near(len(c.by)-1, passed)
	}
	return c.near(int(c.step[at]), passed)
}

// near is day, looked for from a day that is not far.
func (c *Clock) near(i int, passed float64) int {
	for i > 0 && c.by[i] > passed {
		i--
	}
	for i < len(c.by)-1 && c.by[i+1] <= passed {
		i++
	}
	return i
}

// from is the moment, on a day or after, by which so much has passed.
func (c *Clock) from(i int, passed float64) float64 {
	if i >= len(c.by)-1 {
		if c.rate <= 0 {
			return math.Inf(1)
		}
		return c.days() + (passed-c.last())/c.rate
	}
	rest, pass := passed-c.by[i], c.by[i+1]-c.by[i]
	if pass <= 0 || rest <= 0 {
		return float64(i)
	}
	return float64(i) + rest/pass
}

// After is the moment at which so much more has passed than at another; what takes nothing is over at once.
func (c *Clock) After(t, amount float64) float64 {
	if amount <= 0 {
		return t
	}
	return max(t, c.Until(c.At(t)+amount))
}

// During is from when to when so much passes that does not begin before a moment: it begins when something passes.
func (c *Clock) During(t, amount float64) (start, end float64) {
	if amount <= hair {
		return t, c.After(t, amount)
	}
	passed := c.At(t)
	day := c.day(passed + hair)
	start = max(t, c.from(day, passed))
	return start, max(t, c.from(c.near(day, passed+amount-hair), passed+amount))
}

// Before is the latest moment from which so much passes until another.
func (c *Clock) Before(t, amount float64) float64 {
	if amount <= 0 {
		return t
	}
	return min(t, c.Since(c.At(t)-amount))
}
