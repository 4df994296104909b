package plan

import (
	"math"
	"slices"
	"strconv"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
)

// Spanner is what a rider can do with tools, and has.
type Spanner string

// The spanners. A rider who has not said is not judged.
const (
	NoSpanner   Spanner = "none"
	HomeSpanner Spanner = "home"
	FullSpanner Spanner = "full"
)

// Spanners lists them.
func Spanners() []entry.Option {
	return []entry.Option{
		entry.Opt(NoSpanner, "None: a workshop fits"),
		entry.Opt(HomeSpanner, "Own tools, some help"),
		entry.Opt(FullSpanner, "Press, stand, torque, wiring"),
	}
}

// reach is the most that a spanner does.
func (s Spanner) reach() parts.Effort {
	switch s {
	case HomeSpanner:
		return parts.Tools
	case FullSpanner:
		return parts.Press
	}
	return parts.Hands
}

// ToFit is the hours that a line's part still takes, and whether they are the
// rider's own. A part that is fitted, or is not decided for, takes none.
func (p *Plan) ToFit(l *Line) (hours float64, own bool) {
	if l.Part == nil || l.Standing() != In || l.Decision == OnTheBike {
		return 0, true
	}
	info, _ := parts.KindOf(l.Part.Slot)
	own = p.Brief.Spanner == "" || info.Takes <= p.Brief.Spanner.reach()
	switch l.Supplied().By {
	case ByRider:
		own = true
	case ByOthers:
		own = false
	}
	hours = info.Hours + l.Part.WorkHours()
	if own {
		hours *= p.Brief.Practice.Factor()
	}
	return hours, own
}

// Practice is how used to spanners a rider is, from 1; 0 where nobody has said.
type Practice int

// practices are how they are called, and how much longer than somebody used to it they take
// [memory, the handbook's calendar].
var practices = []struct {
	name   string
	factor float64
}{
	{"", 1}, {"First time", 2}, {"Now and then", 1.5}, {"Used to it", 1}, {"Often", 0.8}, {"Every day", 0.7},
}

// Practices lists them.
func Practices() []entry.Option {
	var list []entry.Option
	for i, p := range practices[1:] {
		list = append(list, entry.Option{Value: strconv.Itoa(i + 1), Name: p.name})
	}
	return list
}

// Valid reports whether it is one, or none.
func (p Practice) Valid() bool { return p >= 0 && int(p) < len(practices) }

// Factor is how much longer a job takes than for somebody who is used to it.
func (p Practice) Factor() float64 {
	if !p.Valid() {
		return 1
	}
	return practices[p].factor
}

// OwnHours is what a line takes of the rider's time: as noted, or else what such a
// part usually takes where their tools reach.
func (p *Plan) OwnHours(l *Line) float64 {
	if l.Hours.Known() {
		return l.Hours.In("h")
	}
	hours, own := p.ToFit(l)
	if !own {
		return 0
	}
	return hours
}

// Workshop is the lines whose parts are beyond the rider's tools and still to be fitted, with what a
// workshop takes for them where its rate is known.
func (p *Plan) Workshop() []Line {
	var list []Line
	for i := range p.Lines {
		l := &p.Lines[i]
		if hours, own := p.ToFit(l); !own {
			list = append(list, Line{Kind: Workshop, Name: "Fit " + l.Part.Name, Need: l.Need, Amount: p.workshopTakes(hours)})
		}
	}
	return list
}

// workshopTakes is what some hours of a workshop come to; missing where its rate is.
func (p *Plan) workshopTakes(hours float64) money.Amount {
	rate := p.Brief.HourRate
	if !rate.Known() {
		return money.Amount{}
	}
	return money.New(int64(math.Round(float64(rate.Minor())*hours)), rate.Code())
}

// Fit is a line with its part fitted. What that took goes with it, as it was planned until somebody
// says what it was: fitted changes no cost.
func (p *Plan) Fit(l Line) Line {
	if l.Part == nil || l.Decision == OnTheBike {
		return l
	}
	planned := l
	planned.Decision = ""
	switch hours, own := p.ToFit(&planned); {
	case !own && !l.Workshop.Known():
		l.Workshop = p.workshopTakes(hours)
	case own && !l.Hours.Known() && hours > 0:
		if err := l.Hours.Enter(strconv.FormatFloat(hours, 'f', -1, 64), "h"); err != nil {
			panic(err) // a number is one
		}
	}
	l.Decision = OnTheBike
	return l
}

// Took is what the workshop took for lines that were fitted.
func (p *Plan) Took() []Line {
	var list []Line
	for i := range p.Lines {
		if l := &p.Lines[i]; l.Part != nil && l.Workshop.Known() && l.Paid() {
			list = append(list, Line{Kind: Workshop, Name: "Fit " + l.Part.Name, Need: l.Need, Amount: l.Workshop, Decision: OnTheBike})
		}
	}
	return list
}

// CameBack is what came back of what was spent: sold, sent back. Its amounts are below zero.
func (p *Plan) CameBack() []Line {
	var list []Line
	for i := range p.Lines {
		if l := &p.Lines[i]; l.Back.Known() && l.Paid() {
			list = append(list, Line{Kind: GivenBack, Name: "Back for " + l.Title(), Need: l.Need, Amount: money.New(-l.Back.Minor(), l.Back.Code()), Decision: l.Decision})
		}
	}
	return list
}

// Beside is what costs money, or gives some back, beside the plan's own lines: what is due first, see [Plan.Due],
// what workshops take at a rate that is known, and took, and what came back.
func (p *Plan) Beside(due []Line) []Line {
	list := slices.Clone(due)
	if p.Brief.HourRate.Known() {
		list = append(list, p.Workshop()...)
	}
	return append(append(list, p.Took()...), p.CameBack()...)
}
