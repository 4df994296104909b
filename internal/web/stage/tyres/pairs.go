package tyres

import (
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// pairColumns are of both tyres together: the pair lasts as long as the one that is through first.
var pairColumns = []desk.Column{
	desk.Moves("Cost", "cost"), desk.Moves("Gearing", "gear-change"), desk.Becomes("The pair lasts", "tyre-life"),
}

// pairsOf are the patterns of which a front and a rear tyre go on, each pair one option.
func pairsOf(d *desk.Desk, built *plan.Built, keep []string, tried desk.Laid) (desk.OptionList, error) {
	list := desk.OptionList{Slot: "tyre-pairs", Name: "Both of one pattern"}
	for _, c := range pairColumns {
		list.Columns = append(list.Columns, c.Title)
	}
	goes := func(p *parts.Part, slot parts.Slot) bool { return p.Slot == slot && onRim(p, built.Rim(slot)) }
	var sets [][]plan.Choice
	for _, rear := range d.Shelf {
		if !goes(rear, parts.RearTyre) {
			continue
		}
		for _, front := range d.Shelf {
			if goes(front, parts.FrontTyre) && front.Pattern() == rear.Pattern() {
				sets = append(sets, []plan.Choice{{Slot: parts.RearTyre, Part: rear}, {Slot: parts.FrontTyre, Part: front}})
			}
		}
	}
	if len(sets) == 0 || !d.Wants("main") {
		return list, nil
	}
	rows, err := d.Sets(sets, "tyres", pairColumns, keep, tried)
	if err != nil {
		return list, err
	}
	for i := range rows {
		rear, front := sets[i][0].Part, sets[i][1].Part
		rows[i].Name = rear.Pattern()
		rows[i].Sub = front.Tyre().Size.String() + " and " + rear.Tyre().Size.String()
		if price, err := front.Price.Plus(rear.Price); err == nil { // of two currencies there is no sum
			rows[i].Price = d.Price(price)
		}
		chosen := d.Plan.Chosen(parts.FrontTyre, d.Loadout)
		rows[i].Current = rows[i].Current && chosen != nil && chosen.ID == front.ID
		rows[i].Own = ""
	}
	list.Options = rows
	return list, nil
}
