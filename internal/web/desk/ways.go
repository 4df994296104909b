package desk

import (
	"slices"

	"valiantmule/internal/core/instead"
	"valiantmule/internal/core/study"
)

// WayView is a lesson, a skill or a setting among the options of a slot.
type WayView struct {
	ID, Kind, Name, Does, Price, Hours string
	Answers                            []string // points of this plan, in words
	Href                               string   // where it is taken
}

// Ways that answer points without a part, of a list of them.
func (d *Desk) Ways(ways []instead.Way) []WayView {
	var list []WayView
	loud := study.Loud(d.Report.Findings)
	for _, w := range ways {
		v := WayView{ID: w.ID, Kind: string(w.Kind), Name: w.Name, Does: w.Does, Price: "nothing", Href: d.Href("points", "instead", w.ID)}
		if w.Euros > 0 {
			v.Price = d.Repair(w.Euros)
		}
		if w.Hours > 0 {
			v.Hours = d.Units.Quantity(w.Hours, "h")
		}
		for _, f := range loud {
			if slices.Contains(w.Answers, f.ID) {
				v.Answers = append(v.Answers, d.Units.Text(f.Tell().What))
			}
		}
		list = append(list, v)
	}
	return list
}
