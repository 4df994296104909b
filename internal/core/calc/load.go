package calc

import (
	"errors"
	"fmt"
	"strings"

	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/sheet"
)

var rangeCalculator = Calculator{
	Name: "range", Title: "How far a tank goes",
	Caution: "A guess of the consumption makes a guess of the range. Own fills are the best evidence; carry fuel in approved containers only.",
	Keys: []Key{
		{Name: "usable_l", Label: "Usable fuel", Min: 0.1, Max: 200, Unit: "L", Help: "tank less what the pickup never reaches", Example: "13"},
		{Name: "l_per_100km", Label: "Consumption", Min: 0.5, Max: 50, Unit: "L/100 km", Help: "litres per 100 km", Example: "4.7"},
		{Name: "reserve_percent", Label: "Reserve", Min: 0, Max: 90, Unit: "%", Help: "kept back, your choice", Example: "15"},
	},
	run: func(in input) ([]Result, error) {
		per := in.number("l_per_100km")
		whole := Result{"range_km", "Range", "km", fuel.RangeKm(in.number("usable_l"), per)}
		before := Result{"safe_km", "Before reserve", "km", fuel.BeforeReserveKm(whole.Value.(float64), in.number("reserve_percent"))}
		us := Result{"mpg_us", "Economy, US", "mpg", fuel.MpgUS(per)}
		uk := Result{"mpg_uk", "Economy, imperial", "mpg", fuel.MpgUK(per)}
		perL := Result{"km_per_l", "Economy", "km/L", 100 / per}
		in.step(fuel.RangeFormula, whole, []string{"usable_l", "l_per_100km"})
		in.step(fuel.ReserveFormula, before, []string{"reserve_percent"}, whole)
		in.step(fuel.EconomyFormula, us, []string{"l_per_100km"})
		return []Result{whole, before, us, uk, perL}, nil
	},
}

var axlesCalculator = Calculator{
	Name: "axles", Title: "What stands on each axle",
	Caution: "Over an axle's or the plate's limit: do not ride it so.",
	Keys: []Key{
		{Name: "wheelbase_mm", Label: "Wheelbase", Min: 800, Max: 2500, Unit: "mm", Help: "axle to axle", Example: "1495"},
		{Name: "kerb_front_kg", Label: "Kerb mass in front", Min: 10, Max: 600, Unit: "kg", Help: "under the front wheel", Example: "83"},
		{Name: "kerb_rear_kg", Label: "Kerb mass behind", Min: 10, Max: 600, Unit: "kg", Help: "under the rear wheel", Example: "93"},
		{Name: "items", Label: "Items", Kind: Text, Help: "mass@x, comma between: kg (negative: removed) and mm forward of the rear axle, e.g. 104@570,22@-120", Example: "104@570,22@-120"},
	},
	run: axles,
}

// Limits of one item of the axles calculator.
const (
	maxItems   = 200
	maxItemKg  = 500
	maxPlaceMM = 3000
)

func axles(in input) ([]Result, error) {
	items, err := readItems(in.text("items"))
	if err != nil {
		return nil, ErrKey{"items", err}
	}
	sum := load.Add(load.Axles{FrontKg: in.number("kerb_front_kg"), RearKg: in.number("kerb_rear_kg")}, in.number("wheelbase_mm"), items)
	if sum.TotalKg() <= 0 {
		return nil, ErrKey{"items", errors.New("take away more than the bike weighs")}
	}
	front := Result{"front_kg", "Front axle", "kg", sum.FrontKg}
	rear := Result{"rear_kg", "Rear axle", "kg", sum.RearKg}
	total := Result{"total_kg", "Together", "kg", sum.TotalKg()}
	share := Result{"front_percent", "In front", "%", 100 * sum.FrontKg / sum.TotalKg()}
	if in.working != nil {
		given := []sheet.Value{in.value("wheelbase_mm"), in.value("kerb_front_kg"), in.value("kerb_rear_kg")}
		for _, it := range items {
			given = append(given, sheet.Value{Name: fmt.Sprintf("item at %g mm", it.XMM), Number: it.MassKg, Unit: "kg", Origin: sheet.Rider})
		}
		in.working.Step(load.AxleFormula, front.sheet(), given...)
	}
	in.step(load.AxleFormula, rear, nil, total, front)
	return []Result{front, rear, total, share}, nil
}

func readItems(text string) ([]load.Item, error) {
	words := strings.Split(text, ",")
	if len(words) > maxItems {
		return nil, fmt.Errorf("%d items, want at most %d", len(words), maxItems)
	}
	items := make([]load.Item, len(words))
	for i, word := range words {
		mass, place, found := strings.Cut(strings.TrimSpace(word), "@")
		kg, errMass := plain(mass)
		mm, errPlace := plain(place)
		if !found || errMass != nil || errPlace != nil {
			return nil, fmt.Errorf("%q: want mass@x, e.g. 22@-120", word)
		}
		if kg < -maxItemKg || kg > maxItemKg || mm < -maxPlaceMM || mm > maxPlaceMM {
			return nil, fmt.Errorf("%q is outside ±%d kg at ±%d mm", word, maxItemKg, maxPlaceMM)
		}
		items[i] = load.Item{MassKg: kg, XMM: mm}
	}
	return items, nil
}
