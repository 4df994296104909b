package calc

import (
	"errors"
	"fmt"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/drive"
)

var gearingCalculator = Calculator{
	Name: "gearing", Title: "Road speed per gear, and the change against standard",
	Keys: []Key{
		{Name: "primary", Label: "Primary ratio", Min: 0.5, Max: 10, Help: "crankshaft to clutch", Example: "2.095"},
		{Name: "gearbox", Label: "Gearbox", Kind: List, Min: 0.2, Max: 10, Help: "ratios, first gear first, comma between", Example: "2.917,1.842,1.381,1.087,0.891"},
		{Name: "front", Label: "Front teeth", Kind: Whole, Min: 6, Max: 40, Unit: "teeth", Help: "engine sprocket", Example: "15"},
		{Name: "rear", Label: "Rear teeth", Kind: Whole, Min: 10, Max: 120, Unit: "teeth", Help: "wheel sprocket", Example: "47"},
		{Name: "circumference_mm", Label: "Roll-out", Min: 500, Max: 4000, Unit: "mm", Help: "rolling circumference of the rear tyre", Example: "2041"},
		{Name: "rpm", Label: "Engine speed", Min: 1, Max: 25000, Unit: "rpm", Help: "engine speed", Example: "4500"},
		{Name: "stock_front", Label: "Standard front teeth", Kind: Whole, Min: 6, Max: 40, Unit: "teeth", Optional: true, Help: "standard engine sprocket", Example: "15"},
		{Name: "stock_rear", Label: "Standard rear teeth", Kind: Whole, Min: 10, Max: 120, Unit: "teeth", Optional: true, Help: "standard wheel sprocket", Example: "43"},
		{Name: "stock_circumference_mm", Label: "Standard roll-out", Min: 500, Max: 4000, Unit: "mm", Optional: true, Help: "standard rolling circumference", Example: "1941"},
	},
	run: gearing,
}

func gearing(in input) ([]Result, error) {
	stock := 0
	for _, key := range []string{"stock_front", "stock_rear", "stock_circumference_mm"} {
		if in.has(key) {
			stock++
		}
	}
	if stock != 0 && stock != 3 {
		return nil, errors.New("stock_front, stock_rear and stock_circumference_mm: give all three or none")
	}
	pair := drive.Pair{Front: in.teeth("front"), Rear: in.teeth("rear")}
	var overall, speed []float64
	for i, gear := range in.list("gearbox") {
		o := drive.Overall(in.number("primary"), gear, pair.Ratio())
		v := drive.SpeedKmh(in.number("rpm"), o, in.number("circumference_mm"))
		overall, speed = append(overall, o), append(speed, v)
		turns := Result{"", fmt.Sprintf("overall, gear %d", i+1), "", o}
		in.step(drive.OverallFormula, turns, []string{"primary", "front", "rear"}, Result{"", fmt.Sprintf("gear %d", i+1), "", gear})
		in.step(drive.SpeedFormula, Result{"", fmt.Sprintf("speed, gear %d", i+1), "km/h", v}, []string{"rpm", "circumference_mm"}, turns)
	}
	out := []Result{{"overall", "Overall ratio", "", overall}, {"speed_kmh", "Road speed", "km/h", speed}}
	if stock == 3 {
		was := drive.Pair{Front: in.teeth("stock_front"), Rear: in.teeth("stock_rear")}
		change := Result{"change_percent", "Shorter than standard by", "%", drive.ChangePercent(pair.Ratio(), was.Ratio(), in.number("circumference_mm"), in.number("stock_circumference_mm"))}
		in.step(drive.ChangeFormula, change, []string{"front", "rear", "circumference_mm", "stock_front", "stock_rear", "stock_circumference_mm"})
		out = append(out, change)
	}
	return out, nil
}

var chainCalculator = Calculator{
	Name: "chain", Title: "Chain length and where it puts the axle",
	Caution: "Plan chain and both sprockets together; set the slack at the tightest point of the travel.",
	Keys: []Key{
		{Name: "front", Label: "Front teeth", Kind: Whole, Min: 6, Max: 40, Unit: "teeth", Help: "engine sprocket", Example: "15"},
		{Name: "rear", Label: "Rear teeth", Kind: Whole, Min: 10, Max: 120, Unit: "teeth", Help: "wheel sprocket", Example: "47"},
		{Name: "pitch_mm", Label: "Pitch", Min: 4, Max: 40, Unit: "mm", Help: "12.7 for 428; 15.875 for 520, 525, 530", Example: "15.875"},
		{Name: "centre_mm", Label: "Sprocket centres", Min: 50, Max: 3000, Unit: "mm", Help: "gearbox shaft to rear axle as set now", Example: "639"},
	},
	run: chain,
}

func chain(in input) ([]Result, error) {
	pair := drive.Pair{Front: in.teeth("front"), Rear: in.teeth("rear")}
	pitch, centre := in.number("pitch_mm"), in.number("centre_mm")
	if least := drive.MinCentreMM(pair, pitch); centre <= least {
		return nil, ErrKey{"centre_mm", fmt.Errorf("%g mm is too near, the sprockets touch at %.1f mm", centre, least)}
	}
	exact := Result{"exact_links", "Pitches, exactly", "", drive.ExactLinks(pair, pitch, centre)}
	links := Result{"links", "Links", "", drive.EvenLinks(exact.Value.(float64))}
	now, err := drive.CentreMM(pair, pitch, float64(links.Value.(int)))
	if err != nil {
		return nil, err
	}
	put := Result{"centre_mm", "Centres that they give", "mm", now}
	shift := Result{"axle_shift_mm", "Axle further back by", "mm", now - centre}
	in.step(drive.ChainFormula, exact, []string{"front", "rear", "pitch_mm", "centre_mm"})
	in.step(drive.CentreFormula, put, []string{"front", "rear", "pitch_mm"}, links)
	return []Result{exact, links, put, shift}, nil
}

var airCalculator = Calculator{
	Name: "air", Title: "What altitude leaves of the power",
	Caution: "Carburettors need other jets high up, and may lose more than this.",
	Keys:    []Key{{Name: "altitude_m", Label: "Altitude", Min: -400, Max: 9000, Unit: "m", Help: "above sea level", Example: "2600"}},
	run: func(in input) ([]Result, error) {
		density := Result{"density_kg_m3", "Density of the air", "kg/m³", air.Density(in.number("altitude_m"))}
		power := Result{"power_percent", "Power left", "%", air.PowerPercent(density.Value.(float64))}
		in.step(air.DensityFormula, density, []string{"altitude_m"})
		in.step(air.PowerFormula, power, nil, density)
		return []Result{density, power}, nil
	},
}
