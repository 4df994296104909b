package calc

import (
	"errors"
	"fmt"

	"valiantmule/internal/core/drive"
)

var gearingCalculator = Calculator{
	Name: "gearing", Title: "Road speed per gear, and the change against standard",
	Keys: []Key{
		{Name: "primary", Min: 0.5, Max: 10, Help: "primary ratio"},
		{Name: "gearbox", Kind: List, Min: 0.2, Max: 10, Help: "ratios, first gear first, comma between"},
		{Name: "front", Kind: Whole, Min: 6, Max: 40, Unit: "teeth", Help: "engine sprocket"},
		{Name: "rear", Kind: Whole, Min: 10, Max: 120, Unit: "teeth", Help: "wheel sprocket"},
		{Name: "circumference_mm", Min: 500, Max: 4000, Unit: "mm", Help: "rolling circumference of the rear tyre"},
		{Name: "rpm", Min: 1, Max: 25000, Unit: "rpm", Help: "engine speed"},
		{Name: "stock_front", Kind: Whole, Min: 6, Max: 40, Unit: "teeth", Optional: true, Help: "standard engine sprocket"},
		{Name: "stock_rear", Kind: Whole, Min: 10, Max: 120, Unit: "teeth", Optional: true, Help: "standard wheel sprocket"},
		{Name: "stock_circumference_mm", Min: 500, Max: 4000, Unit: "mm", Optional: true, Help: "standard rolling circumference"},
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
	for _, gear := range in.list("gearbox") {
		o := drive.Overall(in.number("primary"), gear, pair.Ratio())
		overall = append(overall, o)
		speed = append(speed, drive.SpeedKmh(in.number("rpm"), o, in.number("circumference_mm")))
	}
	out := []Result{{"overall", overall}, {"speed_kmh", speed}}
	if stock == 3 {
		was := drive.Pair{Front: in.teeth("stock_front"), Rear: in.teeth("stock_rear")}
		out = append(out, Result{"change_percent", drive.ChangePercent(pair.Ratio(), was.Ratio(), in.number("circumference_mm"), in.number("stock_circumference_mm"))})
	}
	return out, nil
}

var chainCalculator = Calculator{
	Name: "chain", Title: "Chain length and where it puts the axle",
	Keys: []Key{
		{Name: "front", Kind: Whole, Min: 6, Max: 40, Unit: "teeth", Help: "engine sprocket"},
		{Name: "rear", Kind: Whole, Min: 10, Max: 120, Unit: "teeth", Help: "wheel sprocket"},
		{Name: "pitch_mm", Min: 4, Max: 40, Unit: "mm", Help: "12.7 for 428; 15.875 for 520, 525, 530"},
		{Name: "centre_mm", Min: 50, Max: 3000, Unit: "mm", Help: "sprocket centres"},
	},
	run: chain,
}

func chain(in input) ([]Result, error) {
	pair := drive.Pair{Front: in.teeth("front"), Rear: in.teeth("rear")}
	pitch, centre := in.number("pitch_mm"), in.number("centre_mm")
	if least := drive.MinCentreMM(pair, pitch); centre <= least {
		return nil, fmt.Errorf("centre_mm: %g mm is too near, the sprockets touch at %.1f mm", centre, least)
	}
	exact := drive.ExactLinks(pair, pitch, centre)
	links := drive.EvenLinks(exact)
	now, err := drive.CentreMM(pair, pitch, float64(links))
	if err != nil {
		return nil, err
	}
	return []Result{
		{"exact_links", exact},
		{"links", links},
		{"centre_mm", now},
		{"axle_shift_mm", now - centre},
	}, nil
}
