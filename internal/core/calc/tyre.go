package calc

import (
	"fmt"

	"valiantmule/internal/core/tyre"
)

var tyreCalculator = Calculator{
	Name: "tyre", Title: "What a tyre code says",
	Keys: []Key{{Name: "code", Kind: Text, Help: "tyre code, e.g. 140/80-18 M/C 70R TT"}},
	run: func(in input) ([]Result, error) {
		size, err := tyre.Parse(in.text("code"))
		if err != nil {
			return nil, fmt.Errorf("code: %w", err)
		}
		out := []Result{
			{"section_mm", size.SectionMM},
			{"aspect_percent", size.Aspect},
			{"rim_in", size.RimIn},
			{"overall_diameter_mm", size.OverallDiameterMM()},
			{"rolling_circumference_mm", size.RollingCircumferenceMM()},
			{"construction", string(size.Construction)},
		}
		if kg, ok := tyre.MaxLoadKg(size.LoadIndex); ok {
			out = append(out, Result{"load_index", size.LoadIndex}, Result{"max_load_kg", kg})
		}
		if kmh, ok := tyre.MaxSpeedKmh(size.Speed); ok {
			out = append(out, Result{"speed_symbol", size.Speed}, Result{"max_speed_kmh", kmh})
		}
		return out, nil
	},
}
