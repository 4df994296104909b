package parts

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/unit"
)

// What guards have.
var (
	GuardMount = choice[Mount]("mount", "Mounted on", Mounts)
	GuardWidth = prop[unit.Length]("guard_width", "Makes the bike wider by", "mm", 0, 500, "Both sides together.")
	Bolts      = prop[entry.Line]("bolts", "Held by", "", 0, 0, "Fasteners, and by what torque.")
	Blocks     = prop[entry.Words]("blocks", "In the way of", "", 0, 0, "Until it is taken off.").Among(Accesses)
	Hangs      = (Prop[unit.Length]{prop[unit.Length]("hangs", "Hangs below the engine by", "mm", 0, 120, "From the lowest point of engine or frame down to its own.").Moving(HangsBelow, Add)})
	Covering   = prop[Covers]("covers", "What it guards", "", 0, 0, "")
)

// Cover is the share of hazards' events that a guard stops from breaking a place.
type Cover struct {
	Place   guard.Place    `json:"place"`
	Against []guard.Hazard `json:"against"`
	Stops   unit.Ratio     `json:"stops"`
}

// Covers are the places that a part guards.
type Covers []Cover

// Known reports whether there is one.
func (c *Covers) Known() bool { return len(*c) > 0 }

// String names the places.
func (c *Covers) String() string {
	var list []string
	for _, cover := range *c {
		list = append(list, fmt.Sprintf("%s %v %s", cover.Place, cover.Against, cover.Stops))
	}
	return strings.Join(list, "; ")
}

// Enter is for what is typed in one piece; covers are rows.
func (c *Covers) Enter(string, string) error { return fmt.Errorf("give places one by one") }

func (c *Covers) check(v *entry.Problems, at string) {
	v.Few(at, len(*c), maxGuarded)
	for i, cover := range *c {
		at := fmt.Sprintf("%s[%d]", at, i)
		_, known := guard.PlaceOf(cover.Place)
		v.That(known, at+".place", "%q is not a place that breaks", cover.Place)
		v.That(cover.Stops.Known() && cover.Stops.Base() >= 0 && cover.Stops.Base() <= 1, at+".stops", "want 0–100 %%")
		v.Few(at+".against", len(cover.Against), maxGuarded)
		for j, h := range cover.Against {
			_, known := guard.HazardOf(h)
			v.That(known, fmt.Sprintf("%s.against[%d]", at, j), "%q is not a hazard", h)
		}
	}
}

// Mount is what a guard hangs on.
type Mount string

// The mounts.
const (
	ToFrame  Mount = "frame"
	ToEngine Mount = "engine"
	ToBars   Mount = "bars"
	ToFork   Mount = "fork"
	Glued    Mount = "glued"
)

// Mounts lists them.
func Mounts() []entry.Option {
	return []entry.Option{entry.Opt(ToFrame, "frame"), entry.Opt(ToEngine, "engine"), entry.Opt(ToBars, "bars"), entry.Opt(ToFork, "fork"), entry.Opt(Glued, "glued or strapped")}
}

// Access is what has to be reached.
type Access string

// What guards are in the way of.
const (
	OilFilter Access = "oil-filter"
	Drain     Access = "drain"
	SeatOff   Access = "seat"
)

// Accesses lists them.
func Accesses() []entry.Option {
	return []entry.Option{entry.Opt(OilFilter, "the oil filter"), entry.Opt(Drain, "the drain plug"), entry.Opt(SeatOff, "taking the seat off")}
}

// Guard is what a guard does, and what it is in the way of.
type Guard struct {
	Mount  Mount
	Width  unit.Length // that it adds to the bike at its place, both sides
	Blocks []Access    // until it is taken off
	Bolts  string      // how it is held, and by what torque one can reach
	Covers []Cover
}

// Guard is what is known of a part as a guard, nil where nothing is.
func (p *Part) Guard() *Guard {
	if !p.Has.any(GuardMount, GuardWidth, Bolts, Blocks, Covering) || !p.Slot.Has(Covering) {
		return nil
	}
	g := &Guard{Mount: GuardMount.In(p), Width: GuardWidth.In(p), Bolts: string(Bolts.In(p)), Covers: Covering.In(p)}
	for _, what := range Blocks.In(p) {
		g.Blocks = append(g.Blocks, Access(what))
	}
	return g
}

// Guards reports whether the part guards a place.
func (p *Part) Guards(place guard.Place) bool {
	covers, _ := p.Covers()
	return slices.ContainsFunc(covers, func(c Cover) bool { return c.Place == place })
}

// ActsOn reports whether the part acts on a hazard to a place: it guards the place, or of what
// strikes from below it lifts the bike away.
func (p *Part) ActsOn(place guard.Place, from guard.Hazard) bool {
	return p.Guards(place) || from == guard.Strike && p.Adds(ForkLength)+p.Adds(ShockLength)+p.Adds(LinkRise) > 0
}

// Covers are the places that the part guards; usual is true where nobody has said so of a
// part that is [Part.Told], and such guards do.
func (p *Part) Covers() (covers Covers, usual bool) {
	if covers = Covering.In(p); len(covers) > 0 || !p.Told() {
		return covers, false
	}
	covers = UsualCovers(p.Slot)
	return covers, len(covers) > 0
}

// UsualCovers are what guards of a kind keep whole by what they are, none for other kinds.
func UsualCovers(s Slot) Covers { return usualCovers[s] }

// usualCovers is what guards of a kind keep whole by what they are, at the middling share of
// their kind [memory].
var usualCovers = map[Slot]Covers{
	HandGuards:    {stops(guard.Levers, 60, guard.SlowFall), stops(guard.Levers, 40, guard.FastFall), stops(guard.Levers, 80, guard.Branch)},
	SkidPlate:     {stops(guard.Sump, 80, guard.Strike), stops(guard.Sump, 90, guard.Stone), stops(guard.Cases, 50, guard.Strike)},
	EngineBars:    {stops(guard.Cases, 70, guard.SlowFall), stops(guard.Cases, 40, guard.FastFall), stops(guard.Radiator, 50, guard.SlowFall)},
	CaseCovers:    {stops(guard.Cases, 65, guard.SlowFall), stops(guard.Cases, 40, guard.FastFall)},
	CoolerGuard:   {stops(guard.Radiator, 85, guard.Stone, guard.Branch), stops(guard.Radiator, 40, guard.SlowFall, guard.FastFall), stops(guard.OilCooler, 85, guard.Stone)},
	LampGuard:     {stops(guard.Lamp, 85, guard.Stone), stops(guard.Lamp, 60, guard.Branch)},
	FrontMudguard: {stops(guard.Mudguard, 60, guard.PackedMud)},
	ForkGuards:    {stops(guard.Fork, 60, guard.Stone, guard.Branch), stops(guard.Fork, 50, guard.PackedMud)},
	FrameGuards:   {stops(guard.Frame, 80, guard.Rub)},
	TankGuard:     {stops(guard.Tank, 25, guard.SlowFall)},
	DashGuard:     {stops(guard.Dash, 50, guard.Branch)},
	CaseSaver:     {stops(guard.Drive, 60, guard.BrokeChain)},
	ChainGuide:    {stops(guard.Swingarm, 50, guard.Strike, guard.BrokeChain)},
	BrakeGuard:    {stops(guard.RearBrake, 60, guard.Strike), stops(guard.RearBrake, 40, guard.Stone)},
	StandGuard:    {stops(guard.Stand, 70, guard.Strike, guard.Branch, guard.PackedMud)},
	ShaftGuard:    {stops(guard.Swingarm, 50, guard.Strike)},
}

// stops is a cover of so many of a hundred.
func stops(place guard.Place, percent int, against ...guard.Hazard) Cover {
	c := Cover{Place: place, Against: against}
	if err := c.Stops.Enter(strconv.Itoa(percent), "%"); err != nil {
		panic(err)
	}
	return c
}

// Strength is how well a guard stops what it is against, as one says it.
type Strength struct {
	Word    string
	Percent int
}

// Strengths lists them [memory].
func Strengths() []Strength {
	return []Strength{{"a little", 25}, {"about half", 50}, {"most of it", 75}, {"nearly all", 90}}
}

// Hazards that a guard may stop, for the rows of what it guards.
func Hazards() []entry.Option {
	var list []entry.Option
	for _, h := range guard.Hazards() {
		list = append(list, entry.Option{Value: string(h.Hazard), Name: h.Name})
	}
	return list
}

// Vulnerable lists the places that break.
func Vulnerable() []entry.Option {
	var list []entry.Option
	for _, p := range guard.Places() {
		list = append(list, entry.Option{Value: string(p.Place), Name: p.Name})
	}
	return list
}
