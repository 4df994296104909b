package plan

import (
	"math"

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

// toFit is the hours that a line's part still takes, and whether they are the
// rider's own. A part that is fitted, or is not decided for, takes none.
func (p *Plan) toFit(l *Line) (hours float64, own bool) {
	if l.Part == nil || l.Standing() != In || l.Decision == OnTheBike {
		return 0, true
	}
	info, _ := parts.KindOf(l.Part.Slot)
	return info.Hours + l.Part.WorkHours(), p.Brief.Spanner == "" || info.Takes <= p.Brief.Spanner.reach()
}

// OwnHours is what a line takes of the rider's time: as noted, or else what such a
// part usually takes where their tools reach.
func (p *Plan) OwnHours(l *Line) float64 {
	if l.Hours.Known() {
		return l.Hours.In("h")
	}
	hours, own := p.toFit(l)
	if !own {
		return 0
	}
	return hours
}

// Workshop is the lines whose parts are beyond the rider's tools, with what a
// workshop takes for them where its rate is known.
func (p *Plan) Workshop() []Line {
	var list []Line
	for i := range p.Lines {
		l := &p.Lines[i]
		hours, own := p.toFit(l)
		if own {
			continue
		}
		line := Line{Kind: Workshop, Name: "Fit " + l.Part.Name, Need: l.Need}
		if rate := p.Brief.HourRate; rate.Known() {
			line.Amount = money.New(int64(math.Round(float64(rate.Minor())*hours)), rate.Code())
		}
		list = append(list, line)
	}
	return list
}

// Priced is the workshop's lines at a rate that is known.
func (p *Plan) Priced() []Line {
	if !p.Brief.HourRate.Known() {
		return nil
	}
	return p.Workshop()
}
