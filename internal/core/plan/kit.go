package plan

import "valiantmule/internal/core/entry"

// Kit is how much comes along, in a word: what a loadout is guessed to weigh while nothing is
// packed in it.
type Kit string

// The kits.
const (
	NoKit     Kit = "none"
	DayKit    Kit = "day"
	InnKit    Kit = "inn"
	CampKit   Kit = "camp"
	MonthsKit Kit = "months"
)

// Kits lists them, the lightest first.
func Kits() []entry.Option {
	return []entry.Option{
		entry.Opt(NoKit, "Nothing"),
		entry.Opt(DayKit, "A day: tools, tube, water"),
		entry.Opt(InnKit, "A bed each night: clothes, tools"),
		entry.Opt(CampKit, "Camping, soft bags"),
		entry.Opt(MonthsKit, "Camping and spares, weeks on end"),
	}
}
