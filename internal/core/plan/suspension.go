package plan

import (
	"math"
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
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
func (s *Setting) Fields() []entry.Field {
	return []entry.Field{
		entry.Ask("front_preload", "Fork preload", "mm", 0, 80, "How much the springs are pressed together with the wheel hanging. Empty: as on the bike's sheet.", &s.FrontPreload),
		entry.Ask("rear_preload", "Shock preload", "mm", 0, 80, "Free length less length on the shock, wheel hanging. Empty: as on the bike's sheet.", &s.RearPreload),
		entry.Ask("fork_air", "Air in the fork", "kPa", 0, 250, "By valves in the caps, wheel hanging, cold. Empty: as on the bike's sheet.", &s.ForkAir),
	}
}

// Turned lists the numbers of how the bike is turned about its wheels by what costs nothing.
func (p *Plan) Turned() []entry.Field {
	return []entry.Field{entry.Ask("fork_through", "Fork through its clamps", "mm", -40, 40, "Further up than standard lowers the front; further down raises it. Within the maker's marks.", &p.ForkThrough)}
}

// springSlots may bring a spring, those first whose spring counts.
var (
	frontSprings   = []parts.Slot{parts.ForkSprings, parts.Fork}
	rearSprings    = []parts.Slot{parts.ShockSpring, parts.Shock}
	frontAdjusters = []parts.Slot{parts.ForkCaps, parts.Fork}
	rearAdjusters  = []parts.Slot{parts.ShockAdjuster, parts.Shock}
)

// spring is the bike's own at an end.
func (b *Bike) spring(rear bool) parts.Spring {
	if rear {
		return parts.Spring{Rate: b.RearSpring, Second: b.RearSpringSecond, Knee: b.RearSpringKnee}
	}
	return parts.Spring{Rate: b.FrontSpring, Second: b.FrontSpringSecond, Knee: b.FrontSpringKnee}
}

// adjuster is the bike's own at an end.
func (b *Bike) adjuster(rear bool) parts.Adjuster {
	if rear {
		return parts.Adjuster{By: b.RearAdjustBy, Per: b.RearPrePer, Least: b.RearPreLeast, Most: b.RearPreMost}
	}
	return parts.Adjuster{By: b.FrontAdjustBy, Per: b.FrontPrePer, Least: b.FrontPreLeast, Most: b.FrontPreMost}
}

// Sprung is the spring of an end as built; the part that brings it is nil for the bike's
// own. What a plan puts in brings its own, also one whose rate nobody knows: the standard's is
// out, unless the part says that it stays.
func (b *Built) Sprung(rear bool) (is stance.Spring, by *parts.Part) {
	slots, own := frontSprings, b.Bike.spring(rear)
	if rear {
		slots = rearSprings
	}
	for _, slot := range slots {
		p := b.Part(slot)
		if p == nil {
			continue
		}
		if s := p.Spring(); s != nil {
			return s.Is(), p
		}
		if keeps, _ := p.Gives("keeps-spring"); b.Chosen(slot) && !keeps {
			return (&parts.Spring{}).Is(), p
		}
	}
	return own.Is(), nil
}

// OtherSprings reports whether the plan puts a part into an end that may bring its spring.
func (b *Built) OtherSprings(rear bool) bool {
	slots := frontSprings
	if rear {
		slots = rearSprings
	}
	return slices.ContainsFunc(slots, b.Chosen)
}

// Adjuster of an end as built.
func (b *Built) Adjuster(rear bool) parts.Adjuster {
	slots := frontAdjusters
	if rear {
		slots = rearAdjusters
	}
	for _, slot := range slots {
		if p := b.Part(slot); p != nil {
			if a := p.Adjuster(); a != nil {
				return *a
			}
		}
	}
	return b.Bike.adjuster(rear)
}

// LinkRatio is shock travel over wheel travel as built.
func (b *Built) LinkRatio() float64 { return b.Bike.LinkRatio.In("") * b.LinkScale() }

// linkPercentPerMM is by how much the shock moves more with links that raise the rear by a
// millimetre, and less with lowering ones [memory].
const linkPercentPerMM = 0.12

// LinkScale is by what links multiply the travel of the shock for the same of the wheel: as
// their sheet says, or as is usual for links of which only the rise is known.
func (b *Built) LinkScale() float64 {
	percent := b.Figure(parts.LinkPercent)
	if p := b.Part(parts.Links); p != nil && p.Told() && !parts.Leverage.In(p).Known() {
		percent += linkPercentPerMM * p.Adds(parts.LinkRise)
	}
	return 1 + percent/100
}

// RaisesRearMM is by how much links and shock raise the frame over the rear axle, wheel
// hanging: a longer shock by its length over the ratio.
func (b *Built) RaisesRearMM() float64 {
	rise := b.Figure(parts.LinkRise)
	if longer := b.Figure(parts.ShockLength); longer != 0 {
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
func Sits() []entry.Option {
	return []entry.Option{entry.Opt(SitsForward, "Forward"), entry.Opt(SitsMiddle, "Middle"), entry.Opt(SitsBack, "Back"), entry.Opt(Stands, "Standing")}
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
func SpringUses() []entry.Option {
	return []entry.Option{entry.Opt(stance.Trail, "Trail"), entry.Opt(stance.Mixed, "Both"), entry.Opt(stance.Road, "Road")}
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
	if set := b.Figure(parts.StandFoot); set > 0 {
		area, measured = set*cm2, true
	}
	if plate := b.Figure(parts.StandPlate); plate > 0 {
		area, measured = math.Max(area, plate*cm2), true
	}
	return area, measured
}
