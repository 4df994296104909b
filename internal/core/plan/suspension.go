package plan

import (
	"math"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/unit"
)

// Setting is how the suspension is set for a loadout. What is missing is as on the bike's
// sheet.
type Setting struct {
	FrontPreload unit.Length   `json:"front_preload,omitzero"`
	RearPreload  unit.Length   `json:"rear_preload,omitzero"`
	ForkAir      unit.Pressure `json:"fork_air,omitzero"` // over the atmosphere, wheel hanging
}

// Fields lists the numbers of a setting.
func (s *Setting) Fields() []Field {
	return []Field{
		{"front_preload", "Fork preload", "mm", 0, 80, "How much the springs are pressed together with the wheel hanging. Empty: as on the bike's sheet.", &s.FrontPreload},
		{"rear_preload", "Shock preload", "mm", 0, 80, "Free length less length on the shock, wheel hanging. Empty: as on the bike's sheet.", &s.RearPreload},
		{"fork_air", "Air in the fork", "kPa", 0, 250, "By valves in the caps, wheel hanging, cold. Empty: as on the bike's sheet.", &s.ForkAir},
	}
}

// Turned lists the numbers of how the bike is turned about its wheels by what costs nothing.
func (p *Plan) Turned() []Field {
	return []Field{{"fork_through", "Fork through its clamps", "mm", -40, 40, "Further up than standard lowers the front; further down raises it. Within the maker's marks.", &p.ForkThrough}}
}

// Spring is what a spring is beyond a part, or what a whole fork or shock comes with: of a
// fork both legs together.
type Spring struct {
	Rate   unit.Stiffness `json:"rate,omitzero"`
	Second unit.Stiffness `json:"second,omitzero"` // of one with two rates
	Knee   unit.Length    `json:"knee,omitzero"`   // compression from which on the second holds
}

// Is it as the formulas take it.
func (s *Spring) Is() stance.Spring {
	return stance.Spring{Nmm: s.Rate.In("N/mm"), SecondNmm: s.Second.In("N/mm"), KneeMM: s.Knee.In("mm")}
}

// Adjuster is how preload is set: by how much a turn or a step, and between what.
type Adjuster struct {
	By    AdjustBy    `json:"by,omitempty"`
	Per   unit.Length `json:"per,omitzero"` // of preload, one turn or step
	Least unit.Length `json:"least,omitzero"`
	Most  unit.Length `json:"most,omitzero"`
}

// AdjustBy is what an adjuster counts in.
type AdjustBy string

// What they count in.
const (
	Turns AdjustBy = "turns"
	Steps AdjustBy = "steps"
)

func adjustsBy() []Option {
	return []Option{{string(Turns), "turns"}, {string(Steps), "steps"}}
}

// Count is a preload in turns or steps from all out; ok is false where nobody has said what
// one of them is.
func (a Adjuster) Count(preloadMM float64) (n float64, ok bool) {
	per := a.Per.In("mm")
	return (preloadMM - a.LeastMM()) / per, per > 0 && a.By != ""
}

// LeastMM is the preload with the adjuster all out; 0 where nobody has said.
func (a Adjuster) LeastMM() float64 {
	if a.Least.Known() {
		return a.Least.In("mm")
	}
	return 0
}

// springSlots may bring a spring, those first whose spring counts.
var (
	frontSprings   = []Slot{ForkSprings, Fork}
	rearSprings    = []Slot{ShockSpring, Shock}
	frontAdjusters = []Slot{ForkCaps, Fork}
	rearAdjusters  = []Slot{ShockAdjuster, Shock}
)

// Springs reports whether parts of a slot may bring a spring, Adjusts whether they may
// bring an adjuster of preload.
func (s Slot) Springs() bool {
	return s == ForkSprings || s == Fork || s == ShockSpring || s == Shock
}

// Adjusts reports whether parts of a slot may bring an adjuster of preload.
func (s Slot) Adjusts() bool { return s == ForkCaps || s == Fork || s == ShockAdjuster || s == Shock }

// Sprung is the spring of an end as built; the part that brings it is nil for the bike's
// own.
func (b *Built) Sprung(rear bool) (is stance.Spring, by *Part) {
	slots := frontSprings
	own := Spring{b.Bike.FrontSpring, b.Bike.FrontSpringSecond, b.Bike.FrontSpringKnee}
	if rear {
		slots = rearSprings
		own = Spring{b.Bike.RearSpring, b.Bike.RearSpringSecond, b.Bike.RearSpringKnee}
	}
	for _, slot := range slots {
		if p := b.Part(slot); p != nil && p.Spring != nil {
			return p.Spring.Is(), p
		}
	}
	return own.Is(), nil
}

// Adjuster of an end as built.
func (b *Built) Adjuster(rear bool) Adjuster {
	slots := frontAdjusters
	own := Adjuster{b.Bike.FrontAdjustBy, b.Bike.FrontPrePer, b.Bike.FrontPreLeast, b.Bike.FrontPreMost}
	if rear {
		slots = rearAdjusters
		own = Adjuster{b.Bike.RearAdjustBy, b.Bike.RearPrePer, b.Bike.RearPreLeast, b.Bike.RearPreMost}
	}
	for _, slot := range slots {
		if p := b.Part(slot); p != nil && p.Adjuster != nil {
			return *p.Adjuster
		}
	}
	return own
}

// LinkRatio is shock travel over wheel travel as built.
func (b *Built) LinkRatio() float64 {
	return b.Bike.LinkRatio.In("") * (1 + b.Figure(LinkPercent)/100)
}

// RaisesRearMM is by how much links and shock raise the frame over the rear axle, wheel
// hanging: a longer shock by its length over the ratio.
func (b *Built) RaisesRearMM() float64 {
	rise := b.Figure(LinkRise)
	if longer := b.Figure(ShockLength); longer != 0 {
		rise += longer / b.LinkRatio()
	}
	return rise
}

// Sit is where the rider sits.
type Sit string

// The places; "" is the middle.
const (
	SitsForward Sit = "forward"
	SitsMiddle  Sit = ""
	SitsBack    Sit = "back"
	Stands      Sit = "standing"
)

// Sits lists them.
func Sits() []Option {
	return []Option{{string(SitsForward), "Forward"}, {string(SitsMiddle), "Middle"}, {string(SitsBack), "Back"}, {string(Stands), "Standing"}}
}

// Place of a rider who sits there.
func (s Sit) Place() load.Place {
	switch s {
	case SitsForward:
		return load.RiderForward
	case SitsBack:
		return load.RiderBack
	case Stands:
		return load.RiderStanding
	}
	return load.Rider
}

// SpringUses lists what springs are set for.
func SpringUses() []Option {
	return []Option{{string(stance.Trail), "Trail"}, {string(stance.Mixed), "Both"}, {string(stance.Road), "Road"}}
}

// SpringUse is what the springs are set for: the rider's word, or what the ground asks
// for; "" where nobody has said either.
func (b *Brief) SpringUse() stance.Use {
	mix := b.Mix()
	switch {
	case b.SpringsFor != "":
		return b.SpringsFor
	case mix.Said():
		return stance.UseOf(mix.Loose())
	}
	return ""
}

// UnsprungKg is what hangs below the springs of the bike as it came, front and rear, and
// whether somebody has weighed it.
func (b *Bike) UnsprungKg() (front, rear float64, weighed [2]bool) {
	front, rear = stance.UnsprungKg(b.KerbMass.In("kg"))
	if weighed[0] = b.FrontUnsprung.Known(); weighed[0] {
		front = b.FrontUnsprung.In("kg")
	}
	if weighed[1] = b.RearUnsprung.Known(); weighed[1] {
		rear = b.RearUnsprung.In("kg")
	}
	return front, rear, weighed
}

// StandFootMM2 is what the stand's foot comes down on, as built: the foot, or a plate that
// is carried for it.
func (b *Built) StandFootMM2() (area float64, measured bool) {
	const cm2 = 100
	area = stance.StandFootMM2
	if measured = b.Bike.StandFoot.Known(); measured {
		area = b.Bike.StandFoot.In("cm²") * cm2
	}
	if set := b.Figure(StandFoot); set > 0 {
		area, measured = set*cm2, true
	}
	if plate := b.Figure(StandPlate); plate > 0 {
		area, measured = math.Max(area, plate*cm2), true
	}
	return area, measured
}
