package plan

import (
	"math"

	"valiantmule/internal/core/money"
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
func Spanners() []Option {
	return []Option{
		{string(NoSpanner), "None: a workshop fits"},
		{string(HomeSpanner), "Own tools, some help"},
		{string(FullSpanner), "Press, stand, torque, wiring"},
	}
}

// level is what a spanner reaches to.
func (s Spanner) level() int {
	switch s {
	case HomeSpanner:
		return 1
	case FullSpanner:
		return 2
	}
	return 0
}

// fitting is how long a part of a slot takes, and what it takes: 0 hands, 1 tools
// and patience, 2 a press, a balancer or a hand for wiring and structure
// [practice].
var fitting = map[Slot]struct {
	hours float64
	level int
}{
	FrontTyre: {0.8, 1}, RearTyre: {1, 1}, FrontTube: {0.3, 1}, RearTube: {0.3, 1}, FrontLock: {0.4, 1}, RearLock: {0.4, 1}, FrontSealant: {0.2, 0}, RearSealant: {0.2, 0},
	FrontWheel: {0.5, 1}, RearWheel: {0.7, 1}, FrontSprocket: {0.7, 1}, RearSprocket: {0.8, 1}, Chain: {0.6, 1}, ChainSlider: {1.5, 1}, Speedometer: {0.8, 2}, SideStand: {0.5, 1},
	HandGuards: {0.8, 1}, SkidPlate: {0.6, 1}, EngineBars: {1.5, 1}, CaseCovers: {0.6, 1}, CoolerGuard: {0.6, 1}, LampGuard: {0.4, 0}, FrontMudguard: {0.8, 1}, ForkGuards: {0.4, 1},
	FrameGuards: {0.5, 0}, TankGuard: {0.3, 0}, DashGuard: {0.2, 0}, CaseSaver: {0.5, 1}, ChainGuide: {0.5, 1}, BrakeGuard: {0.4, 1}, StandGuard: {0.2, 1}, Indicators: {1, 2}, PlateHolder: {0.8, 1},
	Handlebar: {1.5, 1}, Risers: {0.8, 1}, Grips: {0.5, 1}, Levers: {0.4, 1}, Mirrors: {0.2, 0}, Windscreen: {0.7, 1}, Seat: {0.1, 0}, Pegs: {0.5, 1}, ShiftLever: {0.2, 1}, BrakePedal: {0.4, 1},
	KneeGrip: {0.3, 0}, HighwayPegs: {0.4, 1}, NavMount: {0.3, 0}, Socket: {0.8, 2}, Monitor: {0.8, 2},
	RearRack: {1, 1}, SideRack: {1.5, 1}, SideBags: {0.4, 0}, TailBag: {0.1, 0}, TopBox: {0.5, 1}, TankBag: {0.1, 0}, ToolTube: {0.5, 1}, BarBags: {0.2, 0},
	FuelTank: {2, 1}, AuxTank: {3, 2}, FuelBladder: {0.2, 0}, FuelCans: {0.5, 1},
}

// HoursToFit is what a part of the slot usually takes, h.
func (s Slot) HoursToFit() float64 { return fitting[s].hours }

// toFit is the hours that a line's part still takes, and whether they are the
// rider's own. A part that is fitted, or is not decided for, takes none.
func (p *Plan) toFit(l *Line) (hours float64, own bool) {
	if l.Part == nil || l.Standing() != In || l.Decision == OnTheBike {
		return 0, true
	}
	f := fitting[l.Part.Slot]
	return f.hours, p.Brief.Spanner == "" || f.level <= p.Brief.Spanner.level()
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
