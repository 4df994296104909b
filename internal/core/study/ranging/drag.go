package ranging

import (
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

// bagAreas is what loads at a place add to the drag area, m² [memory]. What sits in
// the wind shadow of the rider adds nothing.
var bagAreas = []struct {
	place load.Place
	m2    float64
}{{load.Panniers, 0.06}, {load.TopBox, 0.05}, {load.Tail, 0.02}, {load.FrontRack, 0.02}, {load.Pillion, 0.03}}

// standsFromKg is from how much on a thing is big enough to stand in the wind.
const standsFromKg = 0.5

var dragFormula = sheet.Formula{Text: "CdA = the bike's own × (1 − 0.2 × shelter of a screen) + Σ what stands beside and behind it", Origin: sheet.Memory}

// dragArea is the bike's drag area with what the plan and the loadout put on it.
func dragArea(r *study.Run) {
	c := r.Figure(figure.DragArea)
	own := c.Bike("drag_area", "drag area", "m²", &r.Built.Bike.DragArea)
	shelter := r.Built.Figure(parts.Shelter)
	area := own.Number * (1 - fuel.SheltersOfScreen*min(100, shelter)/100)
	in := []sheet.Value{own, study.Computed("shelter of a screen", shelter, "%")}
	items := r.Masses.Items
	for _, b := range bagAreas {
		at := slices.IndexFunc(items, func(it facts.Item) bool { return it.Place == b.place && it.Mass.Number > standsFromKg })
		if at < 0 {
			continue
		}
		area += b.m2
		if c.Sheet != nil {
			in = append(in, sheet.Value{Name: "with " + items[at].Mass.Name, Number: b.m2, Unit: "m²", Origin: sheet.Memory})
		}
	}
	r.DragAreaM2 = area
	c.Is(area)
	if c.Sheet != nil {
		c.Sheet.Step(dragFormula, study.Computed("drag area", area, "m²"), in...)
	}
	c.Plain()
}
