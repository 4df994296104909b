package bike

import (
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/web/desk"
)

// elseRow is something else that the bike came with: where, what it draws and weighs; all
// the rest has a sheet of its own.
type elseRow struct {
	Index             int
	New, Out          bool
	Slots             []desk.OptionView
	Named, Draw, Mass string
	Href              string // of its own sheet
	Error             string
}

// elseIn is what the bike came with in places that have no row of their own.
func elseIn(b *plan.Bike) []parts.Part {
	return slices.DeleteFunc(slices.Clone(b.Standard), func(p parts.Part) bool { return slices.Contains(standardSlots, p.Slot) })
}

func elseText(b *plan.Bike) string {
	var list []string
	for _, p := range elseIn(b) {
		list = append(list, strings.Join(strings.Fields(p.Name+" "+parts.Draw.In(&p).String()+" "+p.Mass.String()), " "))
	}
	return strings.Join(list, ", ")
}

func elseOf(d *desk.Desk, form url.Values, errs desk.FormErrors) []elseRow {
	var rows []elseRow
	stored := elseIn(d.Plan.Bike)
	free := slices.DeleteFunc(parts.KindOptions(), func(o entry.Option) bool { return slices.Contains(standardSlots, parts.Slot(o.Value)) })
	for i := range desk.RowsOf(form, "else", len(stored)) {
		row := elseRow{Index: i, New: i >= len(stored), Out: form.Has(desk.RowKey("out_else", i)), Error: errs[desk.RowKey("else", i)]}
		var p parts.Part
		if !row.New {
			p = stored[i]
			row.Named, row.Href = p.Name, d.Href("came", "slot", string(p.Slot))
		}
		row.Slots = desk.OptionsOf(free, desk.Typed(form, desk.RowKey("else", i), string(p.Slot)), "Something else")
		row.Draw = desk.Typed(form, desk.RowKey("else_draw", i), d.Units.Shown(parts.Draw.In(&p).String()))
		row.Mass = desk.Typed(form, desk.RowKey("else_mass", i), d.Units.Shown(p.Mass.String()))
		rows = append(rows, row)
	}
	return rows
}

// readElse sets what else the bike came with; a row that is taken out makes it unknown.
func readElse(d *desk.Desk, b *plan.Bike, form url.Values, origin sheet.Origin, errs desk.FormErrors) {
	stored := elseIn(d.Plan.Bike)
	for i := 0; form.Has(desk.RowKey("else", i)); i++ {
		slot := parts.Slot(form.Get(desk.RowKey("else", i)))
		kind, known := parts.KindOf(slot)
		draw, mass := strings.TrimSpace(form.Get(desk.RowKey("else_draw", i))), strings.TrimSpace(form.Get(desk.RowKey("else_mass", i)))
		if i < len(stored) && (stored[i].Slot != slot || form.Has(desk.RowKey("out_else", i))) {
			b.ClearStandard(stored[i].Slot)
		}
		if form.Has(desk.RowKey("out_else", i)) || slot == "" && draw == "" && mass == "" {
			continue
		}
		key := desk.RowKey("else", i)
		if !known || slices.Contains(standardSlots, slot) {
			errs[key] = "say where it sits"
			continue
		}
		part, _ := b.Came(slot)
		was, watts := part, parts.Draw.In(&part)
		if err := d.Units.Enter(&part.Mass, mass, "kg"); err != nil {
			errs[key] = err.Error()
			continue
		}
		if err := d.Units.Enter(&watts, draw, "W"); err != nil {
			errs[key] = err.Error()
			continue
		}
		if watts != (unit.Power{}) && !slot.Draws() {
			errs[key] = "a " + strings.ToLower(kind.Name) + " draws nothing: leave it empty"
			continue
		}
		if slot.Draws() {
			parts.Draw.Put(&part, watts)
		}
		if part.Mass != was.Mass || watts != parts.Draw.In(&was) {
			part.Origin = origin
		}
		b.SetStandard(part)
	}
}
