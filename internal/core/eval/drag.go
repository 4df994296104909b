package eval

import (
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
)

// bagAreas is what loads at a place add to the drag area, m² [memory]. What sits in
// the wind shadow of the rider adds nothing.
var bagAreas = map[load.Place]float64{load.Panniers: 0.06, load.TopBox: 0.05, load.Tail: 0.02, load.FrontRack: 0.02, load.Pillion: 0.03}

var dragFormula = sheet.Formula{Text: "CdA = the bike's own × (1 − 0.2 × shelter of a screen) + Σ what stands beside and behind it", Origin: sheet.Memory}

// dragArea is the bike's drag area with what the plan and the loadout put on it.
func (r *run) dragArea() Figure {
	c := r.figure("drag-area", "Drag area", "m²")
	own := c.bike("drag_area", "drag area", "m²", r.built.Bike.DragArea)
	shelter := r.built.Figure(plan.Shelter)
	area := own.Number * (1 - fuel.SheltersOfScreen*min(100, shelter)/100)
	in := []sheet.Value{own, computed("shelter of a screen", shelter, "%")}
	seen := map[load.Place]bool{}
	for _, it := range r.items {
		more, stands := bagAreas[it.place]
		if !stands || seen[it.place] || !(it.mass.Number > 0.5) {
			continue
		}
		seen[it.place] = true
		area += more
		if c.working != nil {
			in = append(in, sheet.Value{Name: "with " + it.mass.Name, Number: more, Unit: "m²", Origin: sheet.Memory})
		}
	}
	r.facts.DragAreaM2 = area
	c.is(area)
	if c.working != nil {
		c.working.Step(dragFormula, computed("drag area", area, "m²"), in...)
	}
	return c.plain()
}
