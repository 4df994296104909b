package calc

import "valiantmule/internal/core/stance"

// Keys that the spring calculators share. A motion ratio over 1.3 is a fork of
// no bike: it is refused.
var (
	motionKey  = Key{Name: "motion_ratio", Label: "Motion ratio", Min: 0.1, Max: 1.3, Help: "shock travel over wheel travel; 1 for a fork along its leg", Example: "0.42"}
	preloadKey = Key{Name: "preload_mm", Label: "Preload", Min: 0, Max: 100, Unit: "mm", Help: "spring compression at full extension", Example: "10"}
	sprungKey  = Key{Name: "mass_kg", Label: "Sprung mass on that wheel", Min: 1, Max: 600, Unit: "kg", Help: "bike, rider and load on the wheel, less the wheel itself", Example: "150"}
)

const springCaution = "Suspension is structural: springs and preload by the maker's manual, or by a specialist."

var sagCalculator = Calculator{
	Name: "sag", Title: "How far it sinks", Caution: springCaution,
	Keys: []Key{
		sprungKey,
		{Name: "spring_n_mm", Label: "Spring rate", Min: 1, Max: 500, Unit: "N/mm", Help: "both springs of a fork together", Example: "88"},
		motionKey, preloadKey,
		{Name: "travel_mm", Label: "Wheel travel", Min: 20, Max: 400, Unit: "mm", Help: "at the wheel", Example: "220"},
	},
	run: func(in input) ([]Result, error) {
		sag := Result{"sag_mm", "Sag", "mm", stance.SagMM(in.number("mass_kg"), in.number("spring_n_mm"), in.number("motion_ratio"), in.number("preload_mm"), in.number("travel_mm"))}
		in.step(stance.SagFormula, sag, []string{"mass_kg", "spring_n_mm", "motion_ratio", "preload_mm", "travel_mm"})
		return []Result{sag, {"sag_percent", "Of the travel", "%", 100 * sag.Value.(float64) / in.number("travel_mm")}}, nil
	},
}

var springCalculator = Calculator{
	Name: "spring", Title: "The spring for a sag", Caution: springCaution,
	Keys: []Key{
		sprungKey, motionKey, preloadKey,
		{Name: "sag_mm", Label: "Sag wanted", Min: 0, Max: 400, Unit: "mm", Help: "at the wheel, rider on", Example: "66"},
	},
	run: func(in input) ([]Result, error) {
		rate, err := stance.SpringNmm(in.number("mass_kg"), in.number("motion_ratio"), in.number("preload_mm"), in.number("sag_mm"))
		if err != nil {
			return nil, ErrKey{"sag_mm", err}
		}
		spring := Result{"spring_n_mm", "Spring rate", "N/mm", rate}
		in.step(stance.SpringFormula, spring, []string{"mass_kg", "motion_ratio", "preload_mm", "sag_mm"})
		return []Result{spring}, nil
	},
}

var wheelrateCalculator = Calculator{
	Name: "wheelrate", Title: "The spring that is in it, from two readings", Caution: springCaution,
	Keys: []Key{
		{Name: "mass1_kg", Label: "First mass", Min: 1, Max: 600, Unit: "kg", Help: "on that wheel", Example: "110"},
		{Name: "sag1_mm", Label: "First sag", Min: 0, Max: 400, Unit: "mm", Help: "at the wheel", Example: "38"},
		{Name: "mass2_kg", Label: "Second mass", Min: 1, Max: 600, Unit: "kg", Help: "on that wheel", Example: "160"},
		{Name: "sag2_mm", Label: "Second sag", Min: 0, Max: 400, Unit: "mm", Help: "at the wheel", Example: "66"},
		motionKey,
	},
	run: func(in input) ([]Result, error) {
		rate, err := stance.WheelRateNmm(in.number("mass1_kg"), in.number("sag1_mm"), in.number("mass2_kg"), in.number("sag2_mm"))
		if err != nil {
			return nil, ErrKey{"sag2_mm", err}
		}
		wheel := Result{"wheel_rate_n_mm", "Rate at the wheel", "N/mm", rate}
		spring := Result{"spring_n_mm", "Spring rate", "N/mm", stance.SpringOfRate(rate, in.number("motion_ratio"))}
		in.step(stance.WheelRateFormula, wheel, []string{"mass1_kg", "sag1_mm", "mass2_kg", "sag2_mm"})
		in.step(stance.SpringOfRateFormula, spring, []string{"motion_ratio"}, wheel)
		return []Result{wheel, spring}, nil
	},
}

var geometryCalculator = Calculator{
	Name: "geometry", Title: "Rake and trail when an end is raised",
	Caution: "Less trail steers quicker and is less steady at speed and in sand.",
	Keys: []Key{
		{Name: "rake_deg", Label: "Rake", Min: 10, Max: 45, Unit: "°", Help: "steering axis from the vertical", Example: "27.5"},
		{Name: "offset_mm", Label: "Fork offset", Min: -50, Max: 120, Unit: "mm", Help: "axle ahead of the steering axis", Example: "35"},
		{Name: "front_diameter_mm", Label: "Front diameter", Min: 300, Max: 900, Unit: "mm", Help: "overall, of the front tyre", Example: "695"},
		{Name: "wheelbase_mm", Label: "Wheelbase", Min: 800, Max: 2500, Unit: "mm", Help: "axle to axle", Example: "1495"},
		{Name: "raise_front_mm", Label: "Front raised by", Min: -200, Max: 200, Unit: "mm", Help: "vertical, at the axle", Example: "0"},
		{Name: "raise_rear_mm", Label: "Rear raised by", Min: -200, Max: 200, Unit: "mm", Help: "vertical, at the axle", Example: "20"},
	},
	run: func(in input) ([]Result, error) {
		rake, offset, diameter := in.number("rake_deg"), in.number("offset_mm"), in.number("front_diameter_mm")
		now := stance.RakeDeg(rake, in.number("wheelbase_mm"), in.number("raise_front_mm"), in.number("raise_rear_mm"))
		wasTrail := Result{"stock_trail_mm", "Trail before", "mm", stance.TrailMM(rake, offset, diameter)}
		nowRake := Result{"rake_deg", "Rake", "°", now}
		nowTrail := Result{"trail_mm", "Trail", "mm", stance.TrailMM(now, offset, diameter)}
		in.step(stance.TrailFormula, wasTrail, []string{"rake_deg", "offset_mm", "front_diameter_mm"})
		in.step(stance.RakeFormula, nowRake, []string{"rake_deg", "wheelbase_mm", "raise_front_mm", "raise_rear_mm"})
		in.step(stance.TrailFormula, nowTrail, []string{"offset_mm", "front_diameter_mm"}, nowRake)
		return []Result{{"stock_rake_deg", "Rake before", "°", rake}, wasTrail, nowRake, nowTrail}, nil
	},
}
