package guess

import (
	"slices"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

// kits are what riders' luggage weighs, kg, and half of the band as a share: a light soft-bag
// camping kit is some 15 to 30 kg, double that is not rare [practice]; the others [memory].
var kits = map[plan.Kit]struct{ kg, half float64 }{
	plan.DayKit: {6, 0.5}, plan.InnKit: {14, 0.35}, plan.CampKit: {22, 0.35}, plan.MonthsKit: {36, 0.3},
}

// kitName is what the guessed load is called.
const kitName = "Luggage, by its kind"

// loadRows is the table of what is carried: in every loadout of which nothing more is known than
// how much comes along.
var loadRows = []*Row{newKit(measured(15, "a bathroom scale, the packed bags"))}

func newKit(more ...func(*Row)) *Row {
	r := newRow("page/packing", more)
	r.Unit = "kg"
	r.known = func(s *Subject) bool { return !slices.ContainsFunc(s.Loadouts, unpacked) }
	r.guess = func(s *Subject) (Band, bool) {
		var b Band
		var of []int
		for i := range s.Loadouts {
			if !unpacked(s.Loadouts[i]) {
				continue
			}
			of = append(of, i)
			if kit := kits[s.Loadouts[i].Kit]; kit.kg > b.Value {
				b.Low, b.Value, b.High = kit.kg*(1-kit.half), kit.kg, kit.kg*(1+kit.half)
			}
		}
		b.put = func(s *Subject, at float64) {
			s.Loadouts = slices.Clone(s.Loadouts)
			for _, i := range of {
				kit := kits[s.Loadouts[i].Kit]
				s.Loadouts[i].Loads = packed(kit.kg * (1 + at*kit.half))
			}
		}
		return b, b.Value > 0
	}
	return r
}

func unpacked(l plan.Loadout) bool { return kits[l.Kit].kg > 0 && len(l.Loads) == 0 }

// packed is luggage of so much: two parts of three at the sides, one on the tail.
func packed(kg float64) []plan.Load {
	thing := func(side plan.Side, place load.Place) plan.Load {
		var third unit.Mass
		third.Set(kg/3, "kg")
		return plan.Load{Name: kitName, Mass: third, Place: place, Side: side}
	}
	return []plan.Load{thing(plan.Left, load.Panniers), thing(plan.Right, load.Panniers), thing("", load.Tail)}
}
