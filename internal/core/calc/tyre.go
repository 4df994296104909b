package calc

import (
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
)

var tyreCalculator = Calculator{
	Name: "tyre", Title: "What a tyre code says",
	Caution: "Rated load and speed hold at the sidewall's pressure. The same size differs in real width between makes.",
	Keys:    []Key{{Name: "code", Label: "Tyre code", Kind: Text, Help: "from the sidewall, e.g. 140/80-18 M/C 70R TT", Example: "140/80-18 M/C 70R TT"}},
	run: func(in input) ([]Result, error) {
		size, err := tyre.Parse(in.text("code"))
		if err != nil {
			return nil, ErrKey{"code", err}
		}
		section := Result{"section_mm", "Section width", "mm", size.SectionMM}
		aspect := Result{"aspect_percent", "Aspect", "%", size.Aspect}
		rim := Result{"rim_in", "Rim", "in", size.RimIn}
		diameter := Result{"overall_diameter_mm", "Overall diameter", "mm", size.OverallDiameterMM()}
		rolling := Result{"rolling_circumference_mm", "Rolling circumference", "mm", size.RollingCircumferenceMM()}
		in.step(tyre.DiameterFormula, diameter, nil, section, aspect, rim)
		if in.working != nil {
			in.working.Step(tyre.RollingFormula, rolling.sheet(), sheet.Value{Name: "k", Number: size.RollingFactor(), Origin: sheet.Memory}, diameter.sheet())
		}
		out := []Result{section, aspect, rim, diameter, rolling, {"construction", "Construction", "", string(size.Construction)}}
		if kg, ok := tyre.MaxLoadKg(size.LoadIndex); ok {
			out = append(out, Result{"load_index", "Load index", "", size.LoadIndex}, Result{"max_load_kg", "Rated load", "kg", kg})
		}
		if kmh, ok := tyre.MaxSpeedKmh(size.Speed); ok {
			out = append(out, Result{"speed_symbol", "Speed symbol", "", size.Speed}, Result{"max_speed_kmh", "Rated speed", "km/h", kmh})
		}
		return out, nil
	},
}
