package plan

import (
	"maps"
	"slices"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Bike is the bike before the plan, standard but for its wear. Every number is
// optional; the figure that lacks one says so.
type Bike struct {
	ID   string `json:"id"`
	Name string `json:"name" is:"name"`
	Kind string `json:"kind,omitempty"` // in a rider's words, "650 single"
	// Class is what kind of bike it is, which what nobody has said of it is guessed by.
	Class Class `json:"class,omitempty"`
	Year  int   `json:"year,omitempty"`
	// Family and Variant are what part lists tell bikes of one name apart by.
	Family  string `json:"family,omitempty"`
	Variant string `json:"variant,omitempty"`
	Note    string `json:"note,omitempty"`

	// Origin is where its numbers come from, Origins where single ones do, by
	// field key.
	Origin  sheet.Origin            `json:"origin,omitempty"`
	Origins map[string]sheet.Origin `json:"origins,omitempty"`

	Price money.Amount `json:"price,omitzero"` // what one like it costs, or this one would fetch

	KerbMass     unit.Mass   `json:"kerb_mass,omitzero"`
	KerbFuel     unit.Ratio  `json:"kerb_fuel,omitzero"`  // fuel share at which kerb mass was taken
	KerbFront    unit.Mass   `json:"kerb_front,omitzero"` // of the kerb mass, under the front wheel
	CentreHeight unit.Length `json:"centre_height,omitzero"`
	Permitted    unit.Mass   `json:"permitted_mass,omitzero"`
	FrontLimit   unit.Mass   `json:"front_axle_limit,omitzero"`
	RearLimit    unit.Mass   `json:"rear_axle_limit,omitzero"`
	RackLimit    unit.Mass   `json:"rack_limit,omitzero"` // behind the seat, on what the factory fitted
	Wheelbase    unit.Length `json:"wheelbase,omitzero"`
	SeatHeight   unit.Length `json:"seat_height,omitzero"`
	SeatWidth    unit.Length `json:"seat_width,omitzero"` // where the legs go down
	Clearance    unit.Length `json:"clearance,omitzero"`  // under the engine, unloaded
	Odometer     unit.Length `json:"odometer,omitzero"`

	Displacement unit.Volume   `json:"displacement,omitzero"`
	Power        unit.Power    `json:"power,omitzero"`
	PowerRPM     unit.Rotation `json:"power_rpm,omitzero"`
	Torque       unit.Torque   `json:"torque,omitzero"`
	TorqueRPM    unit.Rotation `json:"torque_rpm,omitzero"`
	CleanRPM     unit.Rotation `json:"clean_rpm,omitzero"`   // the lowest at which it pulls clean
	ComfortRPM   unit.Rotation `json:"comfort_rpm,omitzero"` // held all day
	MaxRPM       unit.Rotation `json:"max_rpm,omitzero"`
	TopSpeed     unit.Speed    `json:"top_speed,omitzero"`
	Cylinders    Cylinders     `json:"cylinders,omitempty"`
	Fuelling     Fuelling      `json:"fuelling,omitempty"`
	Cooling      Cooling       `json:"cooling,omitempty"`

	Tank     unit.Volume      `json:"tank,omitzero"`
	Unusable unit.Volume      `json:"unusable,omitzero"` // what the pickup never reaches
	Economy  unit.Consumption `json:"economy,omitzero"`  // rider alone, on paved roads

	Final           Final       `json:"final,omitempty"`
	Primary         unit.Ratio  `json:"primary,omitzero"`
	Gearbox         Gears       `json:"gearbox,omitzero"`     // first gear first
	FinalRatio      unit.Ratio  `json:"final_ratio,omitzero"` // of a shaft drive
	Chain           string      `json:"chain,omitempty"`      // number, "520"
	Centre          unit.Length `json:"centre,omitzero"`      // sprocket centres as set now, with the standard parts
	AdjusterForward unit.Length `json:"adjuster_forward,omitzero"`
	AdjusterBack    unit.Length `json:"adjuster_back,omitzero"`

	FrontRimDiameter unit.Length      `json:"front_rim_diameter,omitzero"`
	FrontRimWidth    unit.Length      `json:"front_rim_width,omitzero"`
	RearRimDiameter  unit.Length      `json:"rear_rim_diameter,omitzero"`
	RearRimWidth     unit.Length      `json:"rear_rim_width,omitzero"`
	FrontBuild       parts.WheelBuild `json:"front_wheel_build,omitempty"`
	RearBuild        parts.WheelBuild `json:"rear_wheel_build,omitempty"`
	FrontMaxWidth    unit.Length      `json:"front_max_width,omitzero"`    // of a tyre that clears fork legs and mudguard
	FrontMaxDiameter unit.Length      `json:"front_max_diameter,omitzero"` // of a tyre that clears the mudguard
	RearMaxWidth     unit.Length      `json:"rear_max_width,omitzero"`     // of a tyre that clears swingarm and chain
	RearMaxDiameter  unit.Length      `json:"rear_max_diameter,omitzero"`  // of a tyre that clears mudguard and pivot, axle as set now
	FrontTread       unit.Ratio       `json:"front_tread,omitzero"`        // left on the tyre that is on it
	RearTread        unit.Ratio       `json:"rear_tread,omitzero"`

	FrontPressure       unit.Pressure `json:"front_pressure,omitzero"` // cold, by the placard, rider alone
	RearPressure        unit.Pressure `json:"rear_pressure,omitzero"`
	FrontPressureLoaded unit.Pressure `json:"front_pressure_loaded,omitzero"`
	RearPressureLoaded  unit.Pressure `json:"rear_pressure_loaded,omitzero"`

	Rake        unit.Angle     `json:"rake,omitzero"` // of the steering head from upright
	Offset      unit.Length    `json:"offset,omitzero"`
	FrontTravel unit.Length    `json:"front_travel,omitzero"` // at the wheel
	RearTravel  unit.Length    `json:"rear_travel,omitzero"`
	FrontSpring unit.Stiffness `json:"front_spring,omitzero"` // both legs together
	RearSpring  unit.Stiffness `json:"rear_spring,omitzero"`
	FrontPre    unit.Length    `json:"front_preload,omitzero"`
	RearPre     unit.Length    `json:"rear_preload,omitzero"`
	LinkRatio   unit.Ratio     `json:"link_ratio,omitzero"` // shock travel over wheel travel, mean over the sag range
	FrontSag    unit.Length    `json:"front_sag,omitzero"`  // with the rider on and nothing else
	RearSag     unit.Length    `json:"rear_sag,omitzero"`

	FrontSpringSecond unit.Stiffness `json:"front_spring_second,omitzero"` // of springs with two rates
	FrontSpringKnee   unit.Length    `json:"front_spring_knee,omitzero"`
	RearSpringSecond  unit.Stiffness `json:"rear_spring_second,omitzero"`
	RearSpringKnee    unit.Length    `json:"rear_spring_knee,omitzero"`
	FrontAdjustBy     parts.AdjustBy `json:"front_preload_by,omitempty"`
	RearAdjustBy      parts.AdjustBy `json:"rear_preload_by,omitempty"`
	FrontPrePer       unit.Length    `json:"front_preload_per,omitzero"` // of preload, one turn or step of the adjuster
	FrontPreLeast     unit.Length    `json:"front_preload_least,omitzero"`
	FrontPreMost      unit.Length    `json:"front_preload_most,omitzero"`
	RearPrePer        unit.Length    `json:"rear_preload_per,omitzero"`
	RearPreLeast      unit.Length    `json:"rear_preload_least,omitzero"`
	RearPreMost       unit.Length    `json:"rear_preload_most,omitzero"`
	ForkBore          unit.Length    `json:"fork_bore,omitzero"` // of the tube that the air stands in
	ForkGap           unit.Length    `json:"fork_air_gap,omitzero"`
	ForkAir           unit.Pressure  `json:"fork_air,omitzero"` // over the atmosphere, wheel hanging
	FrontUnsprung     unit.Mass      `json:"front_unsprung,omitzero"`
	RearUnsprung      unit.Mass      `json:"rear_unsprung,omitzero"`
	StandLean         unit.Angle     `json:"stand_lean,omitzero"`
	StandFoot         unit.Area      `json:"stand_foot,omitzero"`

	Clicks Clicks `json:"clicks,omitzero"` // standard

	Levers      LeverReach  `json:"levers,omitempty"`
	Body        Body        `json:"body,omitempty"`
	DragArea    unit.Area   `json:"drag_area,omitzero"` // drag coefficient × frontal area, rider on it
	BarHeight   unit.Length `json:"bar_height,omitzero"`
	BarWidth    unit.Length `json:"bar_width,omitzero"`
	BarDiameter unit.Length `json:"bar_diameter,omitzero"`
	CableSlack  unit.Length `json:"cable_slack,omitzero"` // that bars may rise on the standard cables
	PegHeight   unit.Length `json:"peg_height,omitzero"`
	PegAhead    unit.Length `json:"peg_ahead,omitzero"` // of the rider's hip, seated; behind it is less than nothing
	FrontDisc   unit.Length `json:"front_disc,omitzero"`
	RearDisc    unit.Length `json:"rear_disc,omitzero"`

	Alternator    unit.Power     `json:"alternator,omitzero"`     // rated output
	AlternatorRPM unit.Rotation  `json:"alternator_rpm,omitzero"` // engine speed at which it gives that
	IdleRPM       unit.Rotation  `json:"idle_rpm,omitzero"`
	OwnDraw       unit.Power     `json:"own_draw,omitzero"`   // ignition, pump, lamps
	Cranks        unit.Current   `json:"cold_crank,omitzero"` // of the battery, by its label
	Battery       unit.Charge    `json:"battery,omitzero"`
	Headlamp      unit.Intensity `json:"headlamp,omitzero"` // main beam

	HeadlampBeam  unit.Angle      `json:"headlamp_beam,omitzero"` // full angle
	HeadlampMount parts.LampMount `json:"headlamp_mount,omitempty"`
	Indicator     unit.Power      `json:"indicator,omitzero"` // one lamp
	Flasher       power.Relay     `json:"flasher,omitempty"`

	LampHeight unit.Length `json:"lamp_height,omitzero"`
	LampAim    unit.Angle  `json:"lamp_aim,omitzero"` // of the dipped beam below level, its rider alone

	Speedometer     drive.Pickup `json:"speedometer,omitempty"`
	SpeedometerOver unit.Ratio   `json:"speedometer_over,omitzero"` // shown over true speed, less 1
	AntiLock        bool         `json:"anti_lock,omitempty"`
	TractionControl bool         `json:"traction_control,omitempty"`

	Provides []string     `json:"provides,omitempty"` // tags that parts may need: mounts, splines
	Standard []parts.Part `json:"standard"`           // what is in each slot from the factory
}

// IdlesAt is its idle speed, rpm, the usual one where nobody has said.
func (b *Bike) IdlesAt() float64 {
	if b.IdleRPM.Known() {
		return b.IdleRPM.In("rpm")
	}
	return power.UsualIdleRPM
}

// PegAheadMM is how far ahead of the hip the foot rests, as on upright bikes where nobody has
// said.
func (b *Bike) PegAheadMM() float64 {
	if b.PegAhead.Known() {
		return b.PegAhead.In("mm")
	}
	return fit.Forward
}

// OriginOf a field's number.
func (b *Bike) OriginOf(key string) sheet.Origin {
	if o, ok := b.Origins[key]; ok {
		return o
	}
	return b.Origin
}

// SetOrigin records where a single number came from.
func (b *Bike) SetOrigin(key string, o sheet.Origin) {
	origins := make(map[string]sheet.Origin, len(b.Origins)+1)
	for k, v := range b.Origins {
		origins[k] = v
	}
	origins[key] = o
	b.Origins = origins
}

// StandardIn is the factory's part in a slot, nil when there is none.
func (b *Bike) StandardIn(s parts.Slot) *parts.Part {
	for i := range b.Standard {
		if b.Standard[i].Slot == s {
			return &b.Standard[i]
		}
	}
	return nil
}

// Came is a copy of the factory's part in a slot; told is false where nobody has said one, and
// it is one of which nothing is said yet.
func (b *Bike) Came(s parts.Slot) (p parts.Part, told bool) {
	if standing := b.StandardIn(s); standing != nil {
		return *standing, true
	}
	kind, _ := parts.KindOf(s)
	return parts.Part{ID: parts.StandardPrefix + string(s), Slot: s, Name: "Standard " + strings.ToLower(kind.Name), Origin: sheet.Rider}, false
}

// SetStandard puts a part into a slot as the factory's.
func (b *Bike) SetStandard(p parts.Part) {
	b.ClearStandard(p.Slot)
	b.Standard = append(b.Standard, p)
}

// ClearStandard makes the factory's part in a slot unknown.
func (b *Bike) ClearStandard(s parts.Slot) {
	b.Standard = slices.DeleteFunc(slices.Clone(b.Standard), func(p parts.Part) bool { return p.Slot == s })
}

// UsualKerbFuel is how full the tank is for a kerb mass of which nobody says [practice].
const UsualKerbFuel = 0.9

// KerbShare is how full the tank was for the kerb mass, as a share; usual where nobody says.
func (b *Bike) KerbShare() (share float64, usual bool) {
	if b.KerbFuel.Known() {
		return b.KerbFuel.In(""), false
	}
	return UsualKerbFuel, true
}

// Shaft reports a drive without sprockets and chain.
func (b *Bike) Shaft() bool { return b.Final == ShaftDrive }

// Sections lists the bike's numbers for forms and validation, in the order in
// which one reads a data sheet and then takes a tape to the bike.
func (b *Bike) Sections() []entry.Section {
	return []entry.Section{
		{Name: "Mass and size", Fields: []entry.Field{
			entry.Ask("kerb_mass", "Kerb mass", "kg", 60, 500, "Ready to ride. “Dry” in a brochure means different things: ask, or weigh it.", &b.KerbMass),
			entry.Ask("kerb_fuel", "… with the tank at", "%", 0, 100, "How full the tank was for that mass. 90 % is usual on a data sheet.", &b.KerbFuel),
			entry.Ask("kerb_front", "… under the front wheel", "kg", 25, 300, "One bathroom scale under the front wheel, bike upright, wheels level.", &b.KerbFront),
			entry.Ask("centre_height", "… its centre above ground", "mm", 300, 900, "Hard to measure. About 0.6 of the seat height is a fair first guess.", &b.CentreHeight),
			entry.Ask("permitted_mass", "Permitted mass", "kg", 100, 900, "The maximum on the bike's plate or papers.", &b.Permitted),
			entry.Ask("front_axle_limit", "Front axle limit", "kg", 60, 400, "On the plate or in the papers, beside the permitted mass.", &b.FrontLimit),
			entry.Ask("rear_axle_limit", "Rear axle limit", "kg", 60, 500, "On the plate or in the papers.", &b.RearLimit),
			entry.Ask("rack_limit", "Rear rack carries", "kg", 0, 80, "Stamped on it, or in the manual.", &b.RackLimit),
			entry.Ask("wheelbase", "Wheelbase", "mm", 900, 2000, "Axle to axle, straight ahead.", &b.Wheelbase),
			entry.Ask("seat_height", "Seat height", "mm", 500, 1200, "Unloaded, at the lowest point of the seat.", &b.SeatHeight),
			entry.Ask("seat_width", "Seat width", "mm", 100, 500, "Where your legs go down, with a straightedge across.", &b.SeatWidth),
			entry.Ask("clearance", "Clearance", "mm", 60, 450, "Unloaded, from the ground to the lowest part of engine or frame.", &b.Clearance),
			entry.Ask("odometer", "Odometer", "km", 0, 500000, "What it has run: chain and sprockets have run it too.", &b.Odometer),
		}},
		{Name: "Engine", Fields: []entry.Field{
			entry.Ask("displacement", "Displacement", "cc", 40, 2500, "", &b.Displacement),
			entry.Ask("power", "Power", "kW", 2, 200, "At the crankshaft, by the papers.", &b.Power),
			entry.Ask("power_rpm", "… at", "rpm", 2000, 18000, "By the papers.", &b.PowerRPM),
			entry.Ask("torque", "Torque", "Nm", 2, 250, "The most, by the data sheet.", &b.Torque),
			entry.Ask("torque_rpm", "… at", "rpm", 1000, 16000, "By the data sheet.", &b.TorqueRPM),
			entry.Ask("clean_rpm", "Pulls clean from", "rpm", 800, 5000, "The lowest engine speed at which it pulls without snatching, clutch home. Singles 1800–2200, twins 1500–1800.", &b.CleanRPM),
			entry.Ask("comfort_rpm", "Comfortable to", "rpm", 2000, 14000, "What you would let it turn all day.", &b.ComfortRPM),
			entry.Ask("max_rpm", "Highest", "rpm", 3000, 18000, "Where the limiter cuts in.", &b.MaxRPM),
			entry.Ask("top_speed", "Top speed", "km/h", 50, 300, "From the papers; the tyres' speed symbols are held against it.", &b.TopSpeed),
		}},
		{Name: "Fuel", Fields: []entry.Field{
			entry.Ask("tank", "Tank", "L", 2, 60, "Filled to the brim from dry.", &b.Tank),
			entry.Ask("unusable", "Never reached", "L", 0, 10, "What stays in the tank when the engine starves: run it dry once, then fill.", &b.Unusable),
			entry.Ask("economy", "Consumption", "L/100 km", 1.5, 15, "Rider alone on ordinary roads, full tank to full tank or by the papers. Fills that you write down lead once there are some.", &b.Economy),
		}},
		{Name: "Gearbox and final drive", Fields: []entry.Field{
			entry.Ask("primary", "Primary ratio", "", 1, 5, "Crankshaft to clutch, from the manual.", &b.Primary),
			entry.Ask("gearbox", "Gearbox", "", 0, 0, "First gear first, separated by blanks: 2.75 1.75 1.31 1.05 0.88", &b.Gearbox),
			entry.Ask("final_ratio", "Shaft's ratio", "", 1.5, 6, "Of a shaft drive; a chain's follows from its teeth.", &b.FinalRatio),
			entry.Ask("centre", "Sprocket centres", "mm", 300, 1000, "Gearbox shaft to rear axle as it is set now, with the sprockets and chain that are on it.", &b.Centre),
			entry.Ask("adjuster_forward", "Axle can go forward", "mm", 0, 100, "From where it is now to the end of the slot.", &b.AdjusterForward),
			entry.Ask("adjuster_back", "Axle can go back", "mm", 0, 100, "From where it is now to the end of the slot.", &b.AdjusterBack),
		}},
		{Name: "Wheels and tyres", Fields: []entry.Field{
			entry.Ask("front_rim_diameter", "Front rim", "in", 8, 25, "Diameter, from the tyre or the rim.", &b.FrontRimDiameter),
			entry.Ask("front_rim_width", "Front rim width", "in", 1, 8, "Between the flanges.", &b.FrontRimWidth),
			entry.Ask("rear_rim_diameter", "Rear rim", "in", 8, 25, "Diameter, from the tyre or the rim.", &b.RearRimDiameter),
			entry.Ask("rear_rim_width", "Rear rim width", "in", 1, 8, "Between the flanges.", &b.RearRimWidth),
			entry.Ask("front_max_width", "Widest front tyre", "mm", 50, 250, "The width with 5 mm left on each side to fork and mudguard.", &b.FrontMaxWidth),
			entry.Ask("front_max_diameter", "Tallest front tyre", "mm", 400, 900, "The diameter with 15 mm left to the mudguard.", &b.FrontMaxDiameter),
			entry.Ask("rear_max_width", "Widest rear tyre", "mm", 50, 300, "The width with 5 mm left on each side to swingarm and chain.", &b.RearMaxWidth),
			entry.Ask("rear_max_diameter", "Tallest rear tyre", "mm", 400, 900, "The diameter with 10 mm left to mudguard and swingarm, axle as set now.", &b.RearMaxDiameter),
			entry.Ask("front_tread", "Front tread left", "%", 0, 100, "On the tyre that is on it now: depth left over depth when new, above the legal limit.", &b.FrontTread),
			entry.Ask("rear_tread", "Rear tread left", "%", 0, 100, "On the tyre that is on it now.", &b.RearTread),
			entry.Ask("front_pressure", "Placard, front", "kPa", 80, 450, "Cold, rider alone: on the swingarm, the chain guard or in the manual.", &b.FrontPressure),
			entry.Ask("rear_pressure", "Placard, rear", "kPa", 80, 450, "Cold, rider alone.", &b.RearPressure),
			entry.Ask("front_pressure_loaded", "Placard, front loaded", "kPa", 80, 450, "Cold, with bags or a passenger.", &b.FrontPressureLoaded),
			entry.Ask("rear_pressure_loaded", "Placard, rear loaded", "kPa", 80, 450, "Cold, with bags or a passenger.", &b.RearPressureLoaded),
		}},
		{Name: "Springs and steering", Fields: []entry.Field{
			entry.Ask("rake", "Rake", "°", 15, 40, "Of the steering head from upright, by the data sheet.", &b.Rake),
			entry.Ask("offset", "Fork offset", "mm", 0, 120, "Steering axis to wheel axle, square to the axis.", &b.Offset),
			entry.Ask("front_travel", "Front travel", "mm", 60, 400, "At the wheel.", &b.FrontTravel),
			entry.Ask("rear_travel", "Rear travel", "mm", 60, 400, "At the wheel.", &b.RearTravel),
			entry.Ask("front_spring", "Fork springs", "N/mm", 2, 40, "Both legs together; the rate stands on the spring.", &b.FrontSpring),
			entry.Ask("rear_spring", "Shock spring", "N/mm", 20, 400, "The rate stands on the spring.", &b.RearSpring),
			entry.Ask("front_preload", "Fork preload", "mm", 0, 80, "How much the springs are pressed together with the wheel hanging.", &b.FrontPre),
			entry.Ask("rear_preload", "Shock preload", "mm", 0, 80, "Free length less length on the shock, wheel hanging.", &b.RearPre),
			entry.Ask("link_ratio", "Shock over wheel travel", "", 0.2, 1.3, "Below 1: the shock moves less than the wheel. A mean over the range that sag uses.", &b.LinkRatio),
			entry.Ask("front_sag", "Front sag, rider on", "mm", 0, 300, "Along the leg, wheel hanging against you on it, dressed to ride, no bags: push down and lift, take the middle. It leads over what is computed.", &b.FrontSag),
			entry.Ask("rear_sag", "Rear sag, rider on", "mm", 0, 350, "From the axle straight up to the frame, hanging against you on it, no bags. It leads over what is computed.", &b.RearSag),
		}},
		{Name: "Preload, air, stand", Fields: []entry.Field{
			entry.Ask("front_preload_per", "Fork adjuster, each", "mm", 0.1, 20, "Of preload, a turn or a step: count them from all out to all in, and measure how far the cap goes.", &b.FrontPrePer),
			entry.Ask("front_preload_least", "Fork preload, all out", "mm", 0, 80, "Empty: none.", &b.FrontPreLeast),
			entry.Ask("front_preload_most", "Fork preload, all in", "mm", 0, 80, "Without it nobody knows when the adjuster runs out.", &b.FrontPreMost),
			entry.Ask("rear_preload_per", "Shock adjuster, each", "mm", 0.1, 20, "Of preload, a turn of the ring or a step of the cam.", &b.RearPrePer),
			entry.Ask("rear_preload_least", "Shock preload, all out", "mm", 0, 80, "Empty: none.", &b.RearPreLeast),
			entry.Ask("rear_preload_most", "Shock preload, all in", "mm", 0, 80, "Without it nobody knows when the adjuster runs out.", &b.RearPreMost),
			entry.Ask("front_spring_second", "Fork springs, second rate", "N/mm", 2, 60, "Of springs with two rates, both legs together. Empty: one rate.", &b.FrontSpringSecond),
			entry.Ask("front_spring_knee", "… from a compression of", "mm", 1, 300, "Where the close coils are shut.", &b.FrontSpringKnee),
			entry.Ask("rear_spring_second", "Shock spring, second rate", "N/mm", 20, 600, "Empty: one rate.", &b.RearSpringSecond),
			entry.Ask("rear_spring_knee", "… from a compression of", "mm", 1, 200, "Where the close coils are shut.", &b.RearSpringKnee),
			entry.Ask("fork_bore", "Fork tube, inside", "mm", 20, 60, "Across the tube that the air stands in. Without it the air is left out.", &b.ForkBore),
			entry.Ask("fork_air_gap", "Fork air gap", "mm", 30, 400, "From the oil up to the rim of the tube, fork pressed together, springs out.", &b.ForkGap),
			entry.Ask("fork_air", "Air in the fork", "kPa", 0, 250, "By valves in the caps, wheel hanging, cold. Empty: none.", &b.ForkAir),
			entry.Ask("front_unsprung", "Front wheel and what hangs on it", "kg", 4, 60, "Wheel, tyre, brake, half the fork: what is below the springs. Empty: as usual for its mass.", &b.FrontUnsprung),
			entry.Ask("rear_unsprung", "Rear wheel and what hangs on it", "kg", 4, 90, "Wheel, tyre, brake, sprocket, half the swingarm. Empty: as usual for its mass.", &b.RearUnsprung),
			entry.Ask("stand_lean", "Leans on its stand by", "°", 2, 25, "On level hard ground, as it came: a phone's level against a brake disc. Empty: 11°.", &b.StandLean),
			entry.Ask("stand_foot", "Foot of the stand", "cm²", 2, 300, "Its sole: length × width. Empty: 14 cm².", &b.StandFoot),
		}},
		{Name: "Clickers, standard", Fields: b.Clicks.Fields("clicks_")},
		{Name: "Wind, bars, brakes", Fields: []entry.Field{
			entry.Ask("drag_area", "Drag area", "m²", 0.2, 1.5, "Upright with bags 0.55–0.75, small and tucked in 0.4; a screen takes off a little.", &b.DragArea),
			entry.Ask("bar_height", "Bar height", "mm", 600, 1500, "Grips above ground.", &b.BarHeight),
			entry.Ask("bar_width", "Bar width", "mm", 500, 1100, "Over the ends.", &b.BarWidth),
			entry.Ask("bar_diameter", "Bar diameter", "mm", 20, 32, "At the clamp: 22.2 or 28.6 are usual.", &b.BarDiameter),
			entry.Ask("cable_slack", "Cables allow", "mm", 0, 150, "How far the bars may rise before a cable or hose is tight at full lock.", &b.CableSlack),
			entry.Ask("peg_height", "Foot pegs", "mm", 150, 600, "Above ground.", &b.PegHeight),
			entry.Ask("peg_ahead", "Pegs ahead of the hip", "mm", -150, 400, "Along the bike, seated as one rides; negative behind it, as on sporty bikes. Empty: 180 mm.", &b.PegAhead),
			entry.Ask("front_disc", "Front disc", "mm", 120, 350, "Across.", &b.FrontDisc),
			entry.Ask("rear_disc", "Rear disc", "mm", 120, 350, "Across.", &b.RearDisc),
		}},
		{Name: "Power and light", Fields: []entry.Field{
			entry.Ask("alternator", "Alternator", "W", 40, 1500, "Rated output, near 5000 rpm.", &b.Alternator),
			entry.Ask("alternator_rpm", "… at", "rpm", 1000, 12000, "Empty: 5000.", &b.AlternatorRPM),
			entry.Ask("idle_rpm", "Idles at", "rpm", 500, 3000, "Warm. Empty: 1400.", &b.IdleRPM),
			entry.Ask("own_draw", "The bike itself draws", "W", 20, 500, "Ignition, pump, lamps: 120–200 W is usual. A clamp meter knows.", &b.OwnDraw),
			entry.Ask("battery", "Battery", "Ah", 1, 40, "On its label.", &b.Battery),
			entry.Ask("cold_crank", "Cold crank", "A", 20, 600, "Of the battery, on its label.", &b.Cranks),
			entry.Ask("headlamp", "Main beam", "cd", 1000, 300000, "From the lamp's approval or a lux meter: lux × metres².", &b.Headlamp),
			entry.Ask("headlamp_beam", "… in a beam of", "°", 1, 180, "The full angle. Empty: 12°, a narrow one, which lights no bend.", &b.HeadlampBeam),
			entry.Ask("lamp_height", "Headlamp's height", "mm", 400, 1600, "Its middle above ground. Empty: 1.05 of the seat's.", &b.LampHeight),
			entry.Ask("lamp_aim", "Dipped beam points down by", "°", 0, 5, "With you alone on it: on a wall ten metres away, 10 cm below the lamp are 0.57°. Empty: 0.72°, as most are set.", &b.LampAim),
			entry.Ask("indicator", "One indicator", "W", 0.3, 30, "On its bulb. Empty: 10 W.", &b.Indicator),
			entry.Ask("speedometer_over", "Speedometer reads high by", "%", -10, 20, "Against a GPS, on the bike as it is now.", &b.SpeedometerOver),
		}},
	}
}

// Fields lists the numbers of all sections.
func (b *Bike) Fields() []entry.Field { return entry.FieldsOf(b.Sections()) }

func (b *Bike) validate(v *entry.Problems, at string) {
	v.Name(at+".name", b.Name)
	v.Short(at+".id", b.ID)
	v.Fields(at, b.Fields())
	v.That(sheet.IsOrigin(b.Origin), at+".origin", "%q is not an origin", b.Origin)
	for _, key := range slices.Sorted(maps.Keys(b.Origins)) {
		v.That(sheet.IsOrigin(b.Origins[key]), at+".origins."+key, "%q is not an origin", b.Origins[key])
	}
	for _, p := range b.Picks() {
		v.Pick(at+"."+p.Key, p.Get(), p.Options)
	}
	if b.KerbMass.Known() && b.KerbFront.Known() {
		share := b.KerbFront.Base() / b.KerbMass.Base()
		v.That(share > 0.3 && share < 0.7, at+".kerb_front", "is %.0f %% of the kerb mass, want 30–70 %%: check both scales", 100*share)
	}
	b.adjuster(false).Check(v, at+".front_preload_most")
	b.adjuster(true).Check(v, at+".rear_preload_most")
	v.That(len(b.Family) <= entry.MaxName && len(b.Variant) <= entry.MaxName, at+".family", "is longer than %d bytes", entry.MaxName)
	v.That(b.Year == 0 || b.Year >= 1900 && b.Year <= 2100, at+".year", "%d is outside 1900–2100", b.Year)
	v.Short(at+".kind", b.Kind)
	v.Note(at+".note", b.Note)
	v.Tags(at+".provides", b.Provides)
	v.Few(at+".standard", len(b.Standard), len(parts.Kinds()))
	for i := range b.Standard {
		b.Standard[i].Validate(v, at+".standard"+entry.At(i))
	}
}
