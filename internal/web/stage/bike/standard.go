package bike

import (
	"fmt"
	"net/url"
	"strconv"
	"strings"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// standardView is what the factory put into a slot.
type standardView struct {
	Slot        parts.Slot
	Name        string
	Value, Mass string // a tyre code, or a count
	MassUnit    string
	Unit, Help  string
	Kinds       []desk.OptionView // of a tyre
	More        []desk.FieldView  // of a tyre
	Choices     []desk.OptionView // what may be inside, instead of a value to type
	OnlyMass    bool              // of a wheel: its measures stand above
	Error       string
}

// standardSlots are what the sheet asks of the factory's parts.
var standardSlots = []parts.Slot{
	parts.FrontTyre, parts.RearTyre, parts.FrontTube, parts.RearTube, parts.FrontWheel, parts.RearWheel,
	parts.FrontSprocket, parts.RearSprocket, parts.Chain,
}

func isTyre(s parts.Slot) bool { return s == parts.FrontTyre || s == parts.RearTyre }

func isTube(s parts.Slot) bool { return s == parts.FrontTube || s == parts.RearTube }

func isWheel(s parts.Slot) bool { return s == parts.FrontWheel || s == parts.RearWheel }

func standardOf(u words.Units, b *plan.Bike, slot parts.Slot, form url.Values, errs desk.FormErrors) standardView {
	info, _ := parts.KindOf(slot)
	key := "std." + string(slot)
	v := standardView{Slot: slot, Name: info.Name, Error: errs[key], Unit: "teeth", MassUnit: u.Of("kg")}
	part := b.StandardIn(slot)
	stored, mass, kind, rated, least := "", "", "", "", ""
	if part != nil {
		mass = u.Shown(part.Mass.String())
		if t := part.Tyre(); t != nil {
			stored, kind, rated, least = t.Size.String(), string(t.Kind), u.Shown(t.RatedAt.String()), u.Shown(t.MinPressure.String())
		} else if n, ok := part.Count(); ok {
			stored = strconv.Itoa(n)
		} else if part.Filling() != nil {
			stored = string(part.Filling().Kind)
		}
	}
	v.Value, v.Mass = desk.Typed(form, key, stored), desk.Typed(form, key+".mass", mass)
	switch {
	case isTyre(slot):
		v.Unit, v.Help = "", "The code on the sidewall, e.g. 120/80-18 M/C 62S"
		var kinds []entry.Option
		for _, c := range tyre.Characters() {
			kinds = append(kinds, entry.Option{Value: string(c.Kind), Name: c.Name})
		}
		v.Kinds = desk.OptionsOf(kinds, desk.Typed(form, key+".kind", kind), "")
		v.More = []desk.FieldView{
			{Key: key + ".rated", Label: info.Name + ", pressure on the sidewall", Unit: u.Of("kPa"), Value: desk.Typed(form, key+".rated", rated)},
			{Key: key + ".least", Label: info.Name + ", maker's least pressure", Unit: u.Of("kPa"), Value: desk.Typed(form, key+".least", least)},
		}
	case isTube(slot):
		v.Unit = ""
		v.Choices = desk.OptionsOf([]entry.Option{{Value: string(tyre.Tube), Name: "Standard tube"}, {Value: string(tyre.HeavyTube), Name: "Heavy tube"}, {Value: string(tyre.Foam), Name: "Foam"}}, v.Value, "No tube, or not known")
	case isWheel(slot):
		v.Unit, v.OnlyMass = "", true
	case slot == parts.Chain:
		v.Unit = "links"
	}
	return v
}

func standardText(b *plan.Bike, slot parts.Slot) string {
	part := b.StandardIn(slot)
	if part == nil {
		return ""
	}
	what := ""
	switch n, counted := part.Count(); {
	case part.Tyre() != nil:
		what = fmt.Sprintf("%s %s %s %s", part.Tyre().Size, part.Tyre().Kind, part.Tyre().RatedAt, part.Tyre().MinPressure)
	case part.Filling() != nil:
		what = string(part.Filling().Kind)
	case counted:
		what = strconv.Itoa(n)
	}
	return strings.Join(strings.Fields(what+" "+part.Mass.String()), " ")
}

// readStandard sets what the factory put into a slot; empty makes it unknown.
// What the form does not ask of a part stays.
func readStandard(b *plan.Bike, slot parts.Slot, form url.Values, origin sheet.Origin, u words.Units) error {
	key := "std." + string(slot)
	text, mass := strings.TrimSpace(form.Get(key)), form.Get(key+".mass")
	if text == "" && (!isWheel(slot) || mass == "") {
		b.ClearStandard(slot)
		return nil
	}
	was := standardText(b, slot)
	info, _ := parts.KindOf(slot)
	name := "Standard " + strings.ToLower(info.Name)
	part := parts.Part{ID: "standard-" + string(slot), Slot: slot, Name: name, Origin: origin}
	if standing := b.StandardIn(slot); standing != nil {
		part = *standing
	}
	if err := u.Enter(&part.Mass, mass, "kg"); err != nil {
		return err
	}
	if err := readWhat(b, &part, text, form, u); err != nil {
		return err
	}
	b.SetStandard(part)
	if standardText(b, slot) != was { // what it was called may not be true any more
		part.Name, part.Origin = name, origin
		b.SetStandard(part)
	}
	return nil
}

// readWhat sets what a standard part is: a tyre's size, a tube, a count.
func readWhat(b *plan.Bike, part *parts.Part, text string, form url.Values, u words.Units) error {
	key := "std." + string(part.Slot)
	switch {
	case isTyre(part.Slot):
		size, err := tyre.Parse(text)
		if err != nil {
			return err
		}
		if parts.TyreCode.In(part).Size != size { // measured numbers belong to their size
			part.Has = parts.Properties{}
		}
		parts.TyreCode.Put(part, parts.Code{Size: size})
		parts.TyreKind.Put(part, tyre.Kind(form.Get(key+".kind")))
		rated, least := parts.RatedAt.In(part), parts.MinPressure.In(part)
		if err := u.Enter(&rated, form.Get(key+".rated"), "kPa"); err != nil {
			return err
		}
		parts.RatedAt.Put(part, rated)
		err = u.Enter(&least, form.Get(key+".least"), "kPa")
		parts.MinPressure.Put(part, least)
		return err
	case isTube(part.Slot):
		parts.FillingKind.Put(part, tyre.Filling(text))
		parts.RimDiameter.Put(part, b.FrontRimDiameter)
		if part.Slot == parts.RearTube {
			parts.RimDiameter.Put(part, b.RearRimDiameter)
		}
	case !isWheel(part.Slot):
		n, err := u.Count(text)
		if err != nil {
			return err
		}
		part.Recount(n)
	}
	return nil
}
