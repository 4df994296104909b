package plan

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// Draft is a part while its sheet is filled in: all that a part of its slot can have,
// known or not. Whatever is left empty stays unknown, and a figure that rests on it
// says so.
type Draft struct {
	Part

	size    sizeEntry
	tyre    Tyre
	wheel   Wheel
	filling Filling
	guard   Guard
	carrier Carrier
	bag     Bag
	rack    Rack
	spring  Spring
	adjust  Adjuster
	power   Electric
	lamp    Lamp
	box     Box
	flasher Flasher
	blinks  Blinkers
	fitment Fitment

	teeth, links countEntry
	moves        [len(lengths)]unit.Length // by the order of lengths
	hours        unit.Duration
	shelter      unit.Ratio
	leverage     unit.Ratio
	foot         unit.Area
	rated        unit.Power
	capacity     unit.Charge
	cranks       unit.Current
	others       []Effect // that the sheet does not ask for
	from, to     countEntry
}

// sizeEntry is a tyre's code as a rider types it.
type sizeEntry struct{ tyre.Size }

// Known reports whether there is a code.
func (e *sizeEntry) Known() bool { return !e.IsZero() }

// String is the code, "" without one.
func (e *sizeEntry) String() string {
	if e.IsZero() {
		return ""
	}
	return e.Size.String()
}

// Enter reads a code; an empty one is not known.
func (e *sizeEntry) Enter(text, _ string) error {
	if strings.TrimSpace(text) == "" {
		e.Size = tyre.Size{}
		return nil
	}
	size, err := tyre.Parse(text)
	if err == nil {
		e.Size = size
	}
	return err
}

// countEntry is a whole number above zero.
type countEntry int

// Known reports whether there is one.
func (e *countEntry) Known() bool { return *e > 0 }

// In is the number.
func (e *countEntry) In(string) float64 { return float64(*e) }

// String is the number, "" without one.
func (e *countEntry) String() string {
	if *e == 0 {
		return ""
	}
	return strconv.Itoa(int(*e))
}

// Enter reads a whole number; an empty one is not known.
func (e *countEntry) Enter(text, _ string) error {
	if text = strings.TrimSpace(text); text == "" {
		*e = 0
		return nil
	}
	n, err := strconv.Atoi(text)
	if err != nil || n <= 0 {
		return fmt.Errorf("%q is not a whole number", text)
	}
	*e = countEntry(n)
	return nil
}

// DraftOf is the sheet of a part as it is.
func DraftOf(p *Part) *Draft {
	d := &Draft{Part: *p, from: countEntry(p.Made.From), to: countEntry(p.Made.To)}
	d.Provides, d.Needs, d.Excludes = slices.Clone(p.Provides), slices.Clone(p.Needs), slices.Clone(p.Excludes)
	take(&d.tyre, p.Tyre)
	take(&d.wheel, p.Wheel)
	take(&d.filling, p.Filling)
	take(&d.guard, p.Guard)
	take(&d.carrier, p.Carrier)
	take(&d.bag, p.Bag)
	take(&d.rack, p.Rack)
	take(&d.spring, p.Spring)
	take(&d.adjust, p.Adjuster)
	take(&d.power, p.Electric)
	take(&d.lamp, p.Lamp)
	take(&d.box, p.Box)
	take(&d.flasher, p.Flasher)
	take(&d.blinks, p.Blinkers)
	take(&d.fitment, p.Fitment)
	d.size.Size = d.tyre.Size
	for _, e := range p.Effects {
		if !d.takes(e) {
			d.others = append(d.others, e)
		}
	}
	return d
}

// take copies what there is.
func take[T any](to, from *T) {
	if from != nil {
		*to = *from
	}
}

// takes notes an effect where the sheet asks for it.
func (d *Draft) takes(e Effect) bool {
	number := strconv.FormatFloat(e.Value, 'f', -1, 64)
	at := slices.Index(lengths[:], e.Figure)
	switch {
	case e.Op == Set && e.Figure == countOf[d.Slot].figure && (e.Figure == FrontTeeth || e.Figure == RearTeeth):
		d.teeth = countEntry(e.Value)
	case e.Op == Set && e.Figure == countOf[d.Slot].figure && e.Figure == ChainLinks:
		d.links = countEntry(e.Value)
	case e.Op == Add && at >= 0 && slices.Contains(movesOf[d.Slot], e.Figure):
		return d.moves[at].Enter(number, "mm") == nil
	case e.Op == Set && e.Figure == SeatHours && d.Slot == Seat:
		return d.hours.Enter(number, "h") == nil
	case e.Op == Add && e.Figure == Shelter && d.Slot == Windscreen:
		return d.shelter.Enter(number, "%") == nil
	case e.Op == Add && e.Figure == LinkPercent && d.Slot == Links:
		return d.leverage.Enter(number, "%") == nil
	case e.Op == Set && e.Figure == AlternatorW && d.Slot == Stator:
		return d.rated.Enter(number, "W") == nil
	case e.Op == Set && e.Figure == BatteryAh && d.Slot == Battery:
		return d.capacity.Enter(number, "Ah") == nil
	case e.Op == Set && e.Figure == CrankAmps && d.Slot == Battery:
		return d.cranks.Enter(number, "A") == nil
	case e.Op == Set && footOf[d.Slot] == e.Figure:
		return d.foot.Enter(number, "cm²") == nil
	default:
		return false
	}
	return true
}

// movesOf are the lengths that parts of a slot move.
var movesOf = map[Slot][]Figure{
	Handlebar: {BarRise, BarBack}, Risers: {BarRise, BarBack}, Clamps: {BarRise}, Cables: {CableSlack}, Seat: {SeatRise, SeatWidth}, Pegs: {PegDrop}, SideStand: {StandLength},
	Fork: {ForkLength, ForkTravel}, Shock: {ShockLength, RearTravel}, Links: {LinkRise, RearTravel}, SteeringDamper: {BarRise},
}

// footOf is what of a stand's foot parts of a slot set.
var footOf = map[Slot]Figure{SideStand: StandFoot, StandPlateSlot: StandPlate}

// Done is the part that the sheet describes.
func (d *Draft) Done() *Part {
	p := d.Part
	p.Made.From, p.Made.To = int(d.from), int(d.to)
	p.Tyre, p.Wheel, p.Filling, p.Guard, p.Carrier, p.Bag, p.Rack, p.Spring, p.Adjuster, p.Electric, p.Lamp, p.Fitment, p.Effects = nil, nil, nil, nil, nil, nil, nil, nil, nil, nil, nil, nil, nil
	p.Box, p.Flasher, p.Blinkers = nil, nil, nil
	t := d.tyre
	t.Size = d.size.Size
	switch {
	case isTyreSlot(p.Slot):
		p.Tyre = &t
	case isWheelSlot(p.Slot):
		p.Wheel = given(d.wheel)
	case fillingSlots[p.Slot]:
		p.Filling = given(d.filling)
	case slices.Contains(fuelSlots, p.Slot):
		if p.Carrier = given(d.carrier); p.Carrier != nil && p.Carrier.Kind == "" {
			p.Carrier.Kind = usualCarrier[p.Slot]
		}
	case slices.Contains(bagSlots, p.Slot):
		p.Bag = given(d.bag)
	case slices.Contains(RackSlots(), p.Slot):
		p.Rack = given(d.rack)
	}
	if p.Slot.Springs() {
		p.Spring = given(d.spring)
	}
	if p.Slot.Adjusts() {
		p.Adjuster = given(d.adjust)
	}
	if p.Slot.Lights() {
		p.Lamp = given(d.lamp)
	}
	switch p.Slot {
	case PowerBox:
		p.Box = given(d.box)
	case Flashing:
		p.Flasher = given(d.flasher)
	case Indicators:
		p.Blinkers = given(d.blinks)
	}
	if p.Slot.Draws() {
		p.Electric = given(d.power)
	}
	if g := d.guard; guardSlots[p.Slot] && (g.Mount != "" || g.Width.Known() || len(g.Blocks)+len(g.Covers) > 0 || g.Bolts != "") {
		p.Guard = &g
	}
	p.Fitment = given(d.fitment)
	p.Effects = d.effects()
	return &p
}

// usualCarrier is how the fuel of such a part gets to the engine, unless its sheet says.
var usualCarrier = map[Slot]CarrierKind{FuelTank: MainTank, AuxTank: Plumbed, FuelBladder: Poured, FuelCans: Poured, FuelBottles: Poured}

// given is what a sheet says, nil where it says nothing.
func given[T comparable](t T) *T {
	if t == *new(T) {
		return nil
	}
	return &t
}

// effects of what the sheet says, in the order of the figures, and others as they were.
func (d *Draft) effects() []Effect {
	var list []Effect
	if is, ok := countOf[d.Slot]; ok && max(d.teeth, d.links) > 0 {
		list = append(list, Effect{is.figure, Set, float64(max(d.teeth, d.links))})
	}
	for i, f := range lengths {
		if slices.Contains(movesOf[d.Slot], f) && d.moves[i].Known() {
			list = append(list, Effect{f, Add, round(d.moves[i].In("mm"))})
		}
	}
	if d.Slot == Seat && d.hours.Known() {
		list = append(list, Effect{SeatHours, Set, round(d.hours.In("h"))})
	}
	if d.Slot == Windscreen && d.shelter.Known() {
		list = append(list, Effect{Shelter, Add, round(d.shelter.In("%"))})
	}
	if d.Slot == Links && d.leverage.Known() {
		list = append(list, Effect{LinkPercent, Add, round(d.leverage.In("%"))})
	}
	for _, set := range []struct {
		figure Figure
		entry  Entry
		value  float64
	}{{AlternatorW, &d.rated, d.rated.In("W")}, {BatteryAh, &d.capacity, d.capacity.In("Ah")}, {CrankAmps, &d.cranks, d.cranks.In("A")}} {
		if set.entry.Known() && (d.Slot == Stator || d.Slot == Battery) {
			list = append(list, Effect{set.figure, Set, round(set.value)})
		}
	}
	if foot := footOf[d.Slot]; foot != "" && d.foot.Known() {
		list = append(list, Effect{foot, Set, round(d.foot.In("cm²"))})
	}
	return append(list, d.others...)
}

// round takes the tail off that a change of units leaves on a number.
func round(v float64) float64 { return math.Round(v*1e6) / 1e6 }

func isTyreSlot(s Slot) bool {
	return s == FrontTyre || s == RearTyre || s == SpareFront || s == SpareRear
}

func isWheelSlot(s Slot) bool { return s == FrontWheel || s == RearWheel }

// fillingSlots hold what goes into a tyre.
var fillingSlots = map[Slot]bool{FrontTube: true, RearTube: true, FrontLock: true, RearLock: true, FrontSealant: true, RearSealant: true}

// guardSlots hold what keeps something whole.
var guardSlots = map[Slot]bool{
	HandGuards: true, SkidPlate: true, EngineBars: true, CaseCovers: true, CoolerGuard: true, LampGuard: true, FrontMudguard: true, ForkGuards: true,
	FrameGuards: true, TankGuard: true, DashGuard: true, CaseSaver: true, ChainGuide: true, BrakeGuard: true, StandGuard: true, Indicators: true, PlateHolder: true,
}

// Guards reports whether such a part is asked what it guards.
func (d *Draft) Guards() bool { return guardSlots[d.Slot] }

// Covers are the places guarded, for the sheet to change.
func (d *Draft) Covers() *[]Cover { return &d.guard.Covers }

// Asked is a group of what a sheet asks, under a heading.
type Asked struct {
	Name     string
	Fields   []Field
	Picks    []Pick
	Texts    []Text
	Checks   []Check
	Severals []Several
}

// Asks lists all that the sheet asks of a part of its slot. A help says how one finds a
// thing out, and what stays unknown without it.
func (d *Draft) Asks() []Asked {
	info, _ := InfoOf(d.Slot)
	list := []Asked{{Name: "Mass", Fields: []Field{
		{"mass", "It weighs", "kg", 0, 99, "On a kitchen or luggage scale. Without it the loaded mass and the axles are unknown.", &d.Mass},
		{"replaces", "What it replaces weighs", "kg", 0, 99, "What comes off for it; 0 where nothing does. Empty: what the bike's sheet says of it.", &d.Replaces},
	}}}
	own := Asked{Name: "As a " + strings.ToLower(info.Name), Fields: d.numbers(), Picks: d.picks(), Texts: d.texts(), Checks: d.checks(), Severals: d.severals()}
	if len(own.Fields)+len(own.Picks)+len(own.Texts)+len(own.Checks)+len(own.Severals) > 0 {
		list = append(list, own)
	}
	return append(list, Asked{
		Name:  "Does it go on?",
		Picks: []Pick{pick("fit", "As far as you know", &d.fitment.Verdict, FitVerdicts()...)},
		Texts: []Text{
			{"fit_work", "Work it takes", "Trim, drill, a longer hose; another year's mount rubs.", &d.fitment.Work},
			{"fit_tools", "Tools it takes", "", &d.fitment.Tools},
			{"fit_ask", "Ask whom, what", "While nobody knows.", &d.fitment.Ask},
			{"fit_reason", "Why it does not", "", &d.fitment.Reason},
			{"made_family", "Made for", "The kind of bike, as part lists call it.", &d.Made.Family},
			{"made_variant", "… its variant", "", &d.Made.Variant},
		},
		Fields: []Field{
			{"made_from", "… model years from", "", 1950, 2100, "Another year's part is a finding.", &d.from},
			{"made_to", "… to", "", 1950, 2100, "", &d.to},
			{"fit_hours", "Work beyond the usual", "h", 0, 200, "Where it fits with work.", &d.fitment.Hours},
		},
		Checks: []Check{{"blind", "a torque wrench cannot get at its fasteners", &d.fitment.Blind}},
		Severals: []Several{
			several("needs", "It needs", "What is not there keeps it off the bike.", &d.Needs, also(needable(), d.Needs)),
			several("excludes", "It cannot be with", "", &d.Excludes, also(excludable, d.Excludes)),
		},
	})
}

// numbers are those that only parts of the slot have.
func (d *Draft) numbers() []Field {
	s, t := d.Slot, &d.tyre
	var own []Field
	ask := func(f ...Field) { own = append(own, f...) }
	switch {
	case isTyreSlot(s):
		ask(
			Field{"code", "Code on the sidewall", "", 0, 0, "E.g. 120/80-18 M/C 62S TT. Without it size, gearing, load and speed are unknown.", &d.size},
			Field{"width", "Measured width", "mm", 40, 320, "Mounted and inflated. Empty: the code's, which differs between makes.", &t.Width},
			Field{"roll_out", "One turn of the wheel", "mm", 800, 3000, "Rolled out along a tape, rider on. Empty: by the code.", &t.RollOut},
			Field{"tread", "Tread left", "%", 1, 100, "Of a used one: depth left over depth when new, above the legal limit. Empty: new.", &t.Tread},
			Field{"room", "Least room around it", "mm", -20, 200, "Measured with it mounted, to swingarm, chain, fork or mudguard. Empty: by the bike's sheet.", &t.Room},
			Field{"rated_at", "Pressure on the sidewall", "kPa", 40, 450, "At which it carries its rated load. Without it the load floor of the pressures is unknown.", &t.RatedAt},
			Field{"min_pressure", "Maker's least pressure", "kPa", 40, 450, "Without it nobody says how soft it may be.", &t.MinPressure},
			Field{"life_low", "It lasts from", "km", 100, 100000, "As a rear on an ordinary bike, by those who wore it out. Empty: as its kind does.", &t.LifeLow},
			Field{"life_high", "… to", "km", 100, 100000, "Both or neither.", &t.LifeHigh})
	case isWheelSlot(s):
		ask(
			Field{"rim", "Rim diameter", "in", 8, 25, "Without it no tyre can be held against it.", &d.wheel.Diameter},
			Field{"rim_width", "Rim width", "in", 1, 8, "Between the flanges. Without it the tyre's profile is unknown.", &d.wheel.Width})
	case fillingSlots[s]:
		ask(
			Field{"rim", "For rims of", "in", 8, 25, "Empty: any.", &d.filling.Rim},
			Field{"rim_width", "… as wide as", "in", 1, 8, "Of a rim lock. Empty: any.", &d.filling.RimWidth},
			Field{"max_speed", "Its maker allows", "km/h", 20, 250, "Foam inserts and ultra-heavy tubes have a limit. Empty: none is known.", &d.filling.MaxSpeed})
	case s == FrontSprocket:
		ask(Field{"teeth", "Teeth", "", 8, 30, "Count them. Without it every gear is unknown.", &d.teeth})
	case s == RearSprocket:
		ask(Field{"teeth", "Teeth", "", 20, 80, "Count them. Without it every gear is unknown.", &d.teeth})
	case s == Chain:
		ask(Field{"links", "Links", "", 60, 200, "Count rivets: a link each. Without it the axle's place is unknown.", &d.links})
	case slices.Contains(fuelSlots, s):
		ask(
			Field{"holds", "It holds", "L", 0.2, 80, "Filled to the brim from dry; a pair together. Without it the range is unknown.", &d.carrier.Holds},
			Field{"unusable", "Never reached", "L", 0, 20, "What stays in it. Empty: nothing does.", &d.carrier.Unusable},
			Field{"wider", "Wider at the knees by", "mm", 0, 300, "Both sides together.", &d.carrier.Wider})
	case slices.Contains(bagSlots, s):
		ask(
			Field{"litres", "It holds", "L", 0.5, 200, "A pair together. Without it nobody knows whether the packing goes in.", &d.bag.Litres},
			Field{"carries", "May carry", "kg", 0.5, 80, "By its maker, a pair together. Without it an overload is not seen.", &d.bag.Carries},
			Field{"max_speed", "Speed limit", "km/h", 40, 250, "With it on, by its maker.", &d.bag.MaxSpeed},
			Field{"width", "Width over all", "mm", 200, 1400, "Of the bike with it on.", &d.bag.Width})
	case slices.Contains(RackSlots(), s):
		ask(Field{"carries", "May carry", "kg", 0.5, 80, "By its maker, both sides together; a home-made one by what you trust it with. Without it an overload is not seen.", &d.rack.Carries})
	case s == Indicators:
		ask(
			Field{"front", "One in front draws", "W", 0.3, 30, "On its bulb; diodes 1–3 W. Empty: those that are on the bike stay there.", &d.blinks.Front},
			Field{"rear", "One behind draws", "W", 0.3, 30, "Empty: those that are on the bike stay there.", &d.blinks.Rear},
			Field{"guard_width", "Makes the bike wider by", "mm", 0, 500, "Both sides together.", &d.guard.Width})
	case s == PowerBox:
		ask(
			Field{"channels", "Channels", "", 1, maxChannels, "Outputs that it switches. Without it nothing hangs on it.", &d.box.Channels},
			Field{"limit", "Each carries", "A", 0.5, 150, "By its maker. Without it an overload is not seen.", &d.box.Limit},
			Field{"total", "All together", "A", 1, 150, "By its maker.", &d.box.Total},
			Field{"delay", "It waits", "s", 0, 3600, "After the start, before it feeds them: the starter has the battery to itself.", &d.box.Delay})
	case s == Flashing:
		ask(Field{"rated", "It was made for", "W", 1, 200, "The lamps of one side together, e.g. 2 × 10 W. Empty: what the bike came with.", &d.flasher.Rated})
	case guardSlots[s]:
		ask(Field{"guard_width", "Makes the bike wider by", "mm", 0, 500, "Both sides together.", &d.guard.Width})
	case s == Stator:
		ask(Field{"rated", "It gives", "W", 40, 1500, "Rated. Without it the bike's own holds.", &d.rated})
	case s == Battery:
		ask(
			Field{"capacity", "It holds", "Ah", 1, 60, "On its label. Without it the bike's own holds.", &d.capacity},
			Field{"cranks", "Cold crank", "A", 20, 900, "On its label.", &d.cranks})
	case s == Links:
		ask(Field{"leverage", "The shock moves more by", "%", -40, 40, "For the same travel of the wheel; lowering links mostly make it less, which is negative. Without it the sag is judged as with the standard ones.", &d.leverage})
	case footOf[s] != "":
		ask(Field{"foot", "Its sole", "cm²", 2, 2000, "Length × width. Without it the standard foot counts.", &d.foot})
	case s == Seat:
		ask(Field{"hours", "Comfortable for", "h", 0.25, 24, "A day, until it hurts. Without it the seat is not judged.", &d.hours})
	case s == Windscreen:
		ask(Field{"shelter", "Takes off the wind", "%", -50, 100, "Of what reaches the rider without it; a large screen takes 40 %, a low one 15 %.", &d.shelter})
	}
	if s.Springs() {
		rear := s == ShockSpring || s == Shock
		rate, of := "Rate of both springs together", "both legs together"
		if rear {
			rate, of = "Rate of the spring", "as it stands on the spring"
		}
		ask(
			Field{"rate", rate, "N/mm", 2, 600, strings.ToUpper(of[:1]) + of[1:] + ". Without it the sag is unknown.", &d.spring.Rate},
			Field{"second", "… its second rate", "N/mm", 2, 900, "Of one with two rates. Empty: one rate.", &d.spring.Second},
			Field{"knee", "… from a compression of", "mm", 1, 300, "Where the close coils are shut.", &d.spring.Knee})
	}
	if s.Adjusts() {
		ask(
			Field{"per", "Preload, each", "mm", 0.1, 20, "A turn or a step.", &d.adjust.Per},
			Field{"least", "… all out", "mm", 0, 80, "Empty: none.", &d.adjust.Least},
			Field{"most", "… all in", "mm", 0, 80, "Without it nobody knows when it runs out.", &d.adjust.Most})
	}
	if s.Lights() {
		ask(
			Field{"candela", "Intensity", "cd", 0, 1e6, "Of a pair both together; from its approval, or lux × metres². Without it, or lumens with the angle, the lit distance is unknown.", &d.lamp.Candela},
			Field{"lumens", "… or lumens", "lm", 0, 1e5, "Of a pair both together. Bare lumens say nothing of a distance: ask for the angle.", &d.lamp.Lumens},
			Field{"beam", "… in a beam of", "°", 1, 360, "The full angle, over which it gives at least half.", &d.lamp.Beam},
			Field{"lasts", "It lasts", "yr", 0.1, 50, "Until it is faded, drowned or shaken to pieces: what it costs a year follows.", &d.lamp.Lasts})
	}
	if slices.Contains(ToSeeBy(), s) {
		ask(Field{"outward", "Each points outward by", "°", 0, 80, "Of a pair, to its own side. Empty: straight ahead.", &d.lamp.Outward})
	}
	if s.Draws() {
		unsaid := "Empty: nothing from the bike."
		switch {
		case s == Grips:
			unsaid = "Of warm ones: without it the charging is unknown."
		case thirsty[s]:
			unsaid = "Without it the charging is unknown; 0 where it has a battery of its own."
		}
		ask(
			Field{"draw", "It draws", "W", 0, 1000, "With it on, by its label: volts × amperes. " + unsaid, &d.power.Draw},
			Field{"duty", "… for a share of the time", "%", 0, 100, "While it is used: heated grips on step three of five draw 60 %. Empty: all of it.", &d.power.Duty},
			Field{"parked", "Parked it takes", "mA", 0, 5000, "With the key out, where it is always live: a converter or a voltmeter 15–40.", &d.power.Parked})
	}
	for _, f := range movesOf[s] {
		at := slices.Index(lengths[:], f)
		word := moveWords[f]
		ask(Field{string(f), word.label, "mm", -300, 300, word.help, &d.moves[at]})
	}
	return own
}

// moveWords are how a length that parts move is asked for.
var moveWords = map[Figure]struct{ label, help string }{
	BarRise:     {"Grips higher by", "Against the standard ones; lower is negative. Without it reach, cables and standing are judged as standard."},
	BarBack:     {"Grips further back by", "Towards the rider."},
	SeatRise:    {"Seat higher by", "At its lowest point, rider on; lower is negative. Without it the reach to the ground is the standard seat's."},
	CableSlack:  {"Bars may rise further by", "Beyond what the standard cables and hoses allow, at full lock. Without it they are judged as standard."},
	PegDrop:     {"Pegs lower by", "Against the standard ones. Without it the knees are judged as standard."},
	StandLength: {"Longer by", "Than the standard stand; shorter is negative."},
	SeatWidth:   {"Wider by", "Where the legs go down; narrower is negative."},
	ForkLength:  {"Longer by", "Than the standard fork, wheel hanging; shorter is negative."},
	ForkTravel:  {"More travel by", "Along the leg; less is negative."},
	ShockLength: {"Longer by", "Than the standard shock, eye to eye; shorter is negative."},
	LinkRise:    {"Raises the rear by", "Wheel hanging; lowering links are negative. Without it the height is judged as standard."},
	RearTravel:  {"More travel by", "At the wheel; less is negative."},
}

// picks are the words that only parts of the slot have.
func (d *Draft) picks() []Pick {
	var list []Pick
	s := d.Slot
	switch {
	case isTyreSlot(s):
		var kinds []Option
		for _, c := range tyre.Characters() {
			kinds = append(kinds, Option{string(c.Kind), c.Name})
		}
		list = append(list, pick("kind", "Kind of tyre", &d.tyre.Kind, kinds...))
	case isWheelSlot(s):
		list = append(list, pick("build", "Built", &d.wheel.Build, builds()...))
	case fillingSlots[s]:
		var kinds []Option
		for _, c := range tyre.Contents() {
			kinds = append(kinds, Option{string(c.Filling), c.Name})
		}
		list = append(list, pick("kind", "What it is", &d.filling.Kind, kinds...))
	case slices.Contains(fuelSlots, s) && s != FuelTank:
		list = append(list, pick("kind", "Its fuel", &d.carrier.Kind, CarrierKinds()[1:]...))
	case slices.Contains(bagSlots, s):
		list = append(list, pick("kind", "Kind of bag", &d.bag.Kind, BagKinds()...))
	case s == Flashing:
		list = append(list, pick("kind", "It", &d.flasher.Kind, FlasherKinds()...))
	case s.Lights():
		list = append(list, pick("lamp_mount", "It sits on", &d.lamp.Mount, LampMounts()...), pick("feed", "It hangs on", &d.power.Feed, Feeds()...), pick("use", "It is on", &d.power.Use, Uses()...))
	case s.Draws():
		list = append(list, pick("feed", "It hangs on", &d.power.Feed, Feeds()...), pick("use", "It is on", &d.power.Use, Uses()...))
	case s.Adjusts():
		list = append(list, pick("by", "It counts in", &d.adjust.By, adjustsBy()...))
	case guardSlots[s]:
		list = append(list, pick("mount", "Mounted on", &d.guard.Mount, Mounts()...))
	}
	return list
}

// Check is a yes or no of a sheet.
type Check struct {
	Key, Label string
	On         *bool
}

// checks are what parts of the slot are or are not.
func (d *Draft) checks() []Check {
	s := d.Slot
	switch {
	case slices.Contains(fuelSlots, s):
		return []Check{
			{"plastic", "plastic: swells, and wants metal unions", &d.carrier.Plastic}, {"approved", "approved for fuel", &d.carrier.Approved},
			{"seen", "the level shows from outside", &d.carrier.Seen},
		}
	case slices.Contains(bagSlots, s):
		return []Check{{"pair", "a pair", &d.bag.Pair}, {"handy", "opened without unloading", &d.bag.Handy}, {"quick", "off in a minute", &d.bag.Quick},
			{"on_seat", "lies across the pillion's seat, not on the rack", &d.bag.OnSeat}}
	case slices.Contains(RackSlots(), s):
		return []Check{{"seat_stays", "the seat does not come off with it on", &d.rack.SeatStays}, {"no_pegs", "takes the place of the pillion's pegs", &d.rack.NoPegs}}
	}
	return nil
}

// Text is words of a sheet.
type Text struct {
	Key, Label, Help string
	Words            *string
}

// texts are the words that only parts of the slot have.
func (d *Draft) texts() []Text {
	if !guardSlots[d.Slot] {
		return nil
	}
	return []Text{{"bolts", "Held by", "Fasteners, and by what torque.", &d.guard.Bolts}}
}

// Several is any number of words out of a list.
type Several struct {
	Key, Label, Help string
	Options          []Option
	Get              func() []string
	Set              func([]string)
}

func several[S ~string](key, label, help string, list *[]S, options []Option) Several {
	return Several{key, label, help, options, func() []string {
		var words []string
		for _, s := range *list {
			words = append(words, string(s))
		}
		return words
	}, func(words []string) {
		*list = nil
		for _, w := range words {
			*list = append(*list, S(w))
		}
	}}
}

// severals are the words of which parts of the slot have any number.
func (d *Draft) severals() []Several {
	var list []Several
	if guardSlots[d.Slot] {
		list = append(list, several("blocks", "In the way of", "Until it is taken off.", &d.guard.Blocks, Accesses()))
	}
	if by := TagsBy(d.Slot); len(by) > 0 {
		list = append(list, several("provides", "It brings", "", &d.Provides, also(by, d.Provides)))
	}
	return list
}

// needable are tags that parts may need: what a bike or another part brings to hang on.
func needable() []Option {
	var list []Option
	for _, o := range KnownTags() {
		if slices.Contains([]string{
			"bar-22", "bar-28", "clamp-22", "clamp-28", "nav-place", "engine-bars", "rear-rack", "side-rack", "wide-pegs", "radiator", "oil-cooler", "chain-drive", "speedometer-pulse", "socket",
		}, o.Value) {
			list = append(list, o)
		}
	}
	return append(list, Option{"chain: 520", TagWords("chain: 520")}, Option{"chain: 525", TagWords("chain: 525")}, Option{"chain: 428", TagWords("chain: 428")}, Option{"chain: 530", TagWords("chain: 530")})
}

// excludable are tags that two parts may want one place for.
var excludable = []Option{{"bar-ends", TagWords("bar-ends")}, {"wraps-cases", TagWords("wraps-cases")}, {"rear-rack", TagWords("rear-rack")}, {"side-rack", TagWords("side-rack")}}

// also are options with what is there beside them.
func also(options []Option, have []string) []Option {
	list := slices.Clone(options)
	for _, tag := range have {
		if !hasOption(list, tag) {
			list = append(list, Option{tag, TagWords(tag)})
		}
	}
	return list
}

// FoundBy is the one number by which what was found in a slot is known: a count, a code, a draw, a
// length; ok is false for slots whose parts are known by more.
func FoundBy(s Slot) (f Field, ok bool) {
	known := isTyreSlot(s) || countOf[s].figure != "" || len(movesOf[s]) > 0 || s.Springs() || s.Draws() || s == Battery || s == Stator
	if !known || s == SpareFront || s == SpareRear {
		return f, false
	}
	return DraftOf(&Part{Slot: s}).Found(), true
}

// Found is that number of the sheet.
func (d *Draft) Found() Field {
	numbers := d.numbers()
	if d.Slot == Seat { // its height, not its hours
		return numbers[slices.IndexFunc(numbers, func(f Field) bool { return f.Key == string(SeatRise) })]
	}
	if d.Slot.Draws() {
		return numbers[slices.IndexFunc(numbers, func(f Field) bool { return f.Key == "draw" })]
	}
	return numbers[0]
}

// Hazards that a guard may stop, for the rows of what it guards.
func Hazards() []Option {
	var list []Option
	for _, h := range guard.Hazards() {
		list = append(list, Option{string(h.Hazard), h.Name})
	}
	return list
}

// Vulnerable lists the places that break.
func Vulnerable() []Option {
	var list []Option
	for _, p := range guard.Places() {
		list = append(list, Option{string(p.Place), p.Name})
	}
	return list
}
