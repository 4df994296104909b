package calc

import (
	"valiantmule/internal/core/lamp"
	"valiantmule/internal/core/power"
)

var wireCalculator = Calculator{
	Name: "wire", Title: "Wire and fuse for an accessory",
	Caution: "The fuse sits near the battery and never carries more than its wire. Electrical work belongs to somebody who has done it before.",
	Keys: []Key{
		{Name: "amps", Label: "Current", Min: 0.01, Max: 100, Unit: "A", Help: "what it draws", Example: "6"},
		{Name: "length_m", Label: "Length, one way", Min: 0.01, Max: 50, Unit: "m", Help: "from the battery to it", Example: "1.8"},
		{Name: "volts", Label: "Voltage", Min: 1, Max: 60, Unit: "V", Help: "of the system", Example: "13.5"},
		{Name: "max_drop_percent", Label: "Drop allowed", Min: 0.1, Max: 50, Unit: "%", Help: "3 % is a good aim", Example: "3"},
	},
	run: func(in input) ([]Result, error) {
		amps, length, volts := in.number("amps"), in.number("length_m"), in.number("volts")
		fuse, err := power.FuseA(amps)
		if err != nil {
			return nil, ErrKey{"amps", err}
		}
		wire, err := power.WireFor(amps, length, volts, in.number("max_drop_percent"), fuse)
		if err != nil {
			return nil, ErrKey{"length_m", err}
		}
		blade := Result{"fuse_a", "Fuse", "A", fuse}
		area := Result{"area_mm2", "Wire", "mm²", wire.AreaMM2}
		drop := Result{"drop_v", "Drop", "V", power.DropV(amps, length, wire.AreaMM2)}
		in.step(power.FuseFormula, blade, []string{"amps"})
		in.step(power.WireFormula, area, []string{"volts", "max_drop_percent"}, blade)
		in.step(power.DropFormula, drop, []string{"length_m", "amps"}, area)
		return []Result{area, drop, {"drop_percent", "Of the voltage", "%", 100 * drop.Value.(float64) / volts}, blade}, nil
	},
}

var drainCalculator = Calculator{
	Name: "drain", Title: "How long a parked battery lasts",
	Keys: []Key{
		{Name: "battery_ah", Label: "Battery", Min: 0.5, Max: 200, Unit: "Ah", Help: "capacity", Example: "8.6"},
		{Name: "draw_ma", Label: "Draw", Min: 0.01, Max: 100000, Unit: "mA", Help: "of everything unswitched", Example: "14"},
		{Name: "usable_percent", Label: "Usable", Min: 1, Max: 100, Unit: "%", Help: "that still leaves a start: about half", Example: "50"},
	},
	run: func(in input) ([]Result, error) {
		days := Result{"days", "Lasts", "days", power.DrainDays(in.number("battery_ah"), in.number("draw_ma"), in.number("usable_percent"))}
		in.step(power.DrainFormula, days, []string{"battery_ah", "draw_ma", "usable_percent"})
		return []Result{days}, nil
	},
}

// Keys that the sight calculators share.
var (
	reactionKey = Key{Name: "reaction_s", Label: "Reaction", Min: 0, Max: 10, Unit: "s", Help: "2.5 s is what roads are designed for; an awake rider 1–1.5", Example: "1.5"}
	decelKey    = Key{Name: "decel_ms2", Label: "Braking", Min: 0.1, Max: 12, Unit: "m/s²", Help: "grip × 9.81: gravel 3.4–4.9, mud 2–3, wet road 5", Example: "4"}
	candelaKey  = Key{Name: "candela", Label: "Intensity", Min: 1, Max: 1e7, Unit: "cd", Help: "of the beam; lumens sold are not candela", Example: "30000"}
	luxKey      = Key{Name: "lux", Label: "Light wanted", Min: 0.1, Max: 1000, Unit: "lx", Help: "3 usual, 1 optimistic, 5 cautious", Example: "3"}
)

const sightCaution = "Arithmetic, not permission. On a single-lane track with traffic both ways half the sight is yours."

var stopCalculator = Calculator{
	Name: "stop", Title: "How far it takes to stop", Caution: sightCaution,
	Keys: []Key{{Name: "speed_kmh", Label: "Speed", Min: 0, Max: 350, Unit: "km/h", Help: "before braking", Example: "80"}, reactionKey, decelKey},
	run: func(in input) ([]Result, error) {
		reaction := lamp.Reaction(in.number("speed_kmh"), in.number("reaction_s"))
		braking := lamp.Braking(in.number("speed_kmh"), in.number("decel_ms2"))
		total := Result{"total_m", "To standing", "m", reaction + braking}
		in.step(lamp.StopFormula, total, []string{"speed_kmh", "reaction_s", "decel_ms2"})
		return []Result{{"reaction_m", "Before braking", "m", reaction}, {"braking_m", "Braking", "m", braking}, total}, nil
	},
}

var beamCalculator = Calculator{
	Name: "beam", Title: "How far a lamp reaches", Caution: sightCaution,
	Keys: []Key{candelaKey, luxKey},
	run: func(in input) ([]Result, error) {
		reach := Result{"range_m", "Reach", "m", lamp.BeamM(in.number("candela"), in.number("lux"))}
		in.step(lamp.BeamFormula, reach, []string{"candela", "lux"})
		return []Result{reach}, nil
	},
}

var outrunCalculator = Calculator{
	Name: "outrun", Title: "The speed that outruns the lamp", Caution: sightCaution,
	Keys: []Key{candelaKey, luxKey, reactionKey, decelKey},
	run: func(in input) ([]Result, error) {
		reach := Result{"", "Reach", "m", lamp.BeamM(in.number("candela"), in.number("lux"))}
		speed := Result{"speed_kmh", "Stopping meets the beam at", "km/h", lamp.OutrunKmh(reach.Value.(float64), in.number("reaction_s"), in.number("decel_ms2"))}
		in.step(lamp.BeamFormula, reach, []string{"candela", "lux"})
		in.step(lamp.OutrunFormula, speed, []string{"reaction_s", "decel_ms2"}, reach)
		return []Result{speed}, nil
	},
}
