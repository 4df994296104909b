package guess

import (
	"math"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
)

// The table of the brief.
var briefRows = []*Row{
	// Crotch height is 0.47 of stature [pub: Drillis and Contini 1966], give or take 3 %.
	brief("inseam", "mm", func(b *plan.Brief) number { return &b.Inseam },
		func(s *Subject) float64 {
			if s.Brief.Stature.Known() {
				return 0.47 * s.Brief.Stature.In("mm")
			}
			return 820
		}, func(s *Subject) float64 {
			if s.Brief.Stature.Known() {
				return 0.035
			}
			return 0.09
		}, kind(Stature, 1), from(sheet.Published), measured(3, "a book, tape")),
	brief("rider", "kg", func(b *plan.Brief) number { return &b.Rider },
		func(s *Subject) float64 {
			const gear = 10 // boots, helmet, armour 8–12 kg [practice]
			if s.Brief.Stature.Known() {
				m := s.Brief.Stature.In("m")
				return 24.5*m*m + gear
			}
			return 78 + gear
		}, share(0.17), kind(Stature, 1), measured(3, "a bathroom scale")),
	brief("sole", "mm", func(b *plan.Brief) number { return &b.Sole }, always(30), share(0.3), measured(1, "tape")),
	brief("cruise", "km/h", func(b *plan.Brief) number { return &b.Cruise },
		func(s *Subject) float64 {
			if s.Bike == nil {
				return math.NaN()
			}
			return column{60, 85, 95, 105, 112, 115, 122, 122, 110, 120, 75, 105}.of(s)
		}, share(0.08)),
	brief("walking_pace", "km/h", func(b *plan.Brief) number { return &b.WalkingPace }, always(11), share(0.2)),
	brief("day", "h", func(b *plan.Brief) number { return &b.Day }, always(6), share(0.25)),
}
