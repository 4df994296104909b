package bike

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/web/desk"
)

// sheetForm is the data sheet of the bike.
var sheetForm = desk.StageForm{
	Stage: "sheet", Title: "The bike as typed", Save: "Save the sheet", Read: readBike,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return sheetOf(d, typed, errs), nil
	},
}

// sheetView is a bike's data sheet.
type sheetView struct {
	Has      bool
	Name     desk.FieldView
	Price    desk.FieldView
	Note     string // of the bike
	Sections []desk.SectionView
	Standard []standardView
	Else     []elseRow
	MassUnit string
	Origins  []desk.OptionView
	Picks    []pickView
	Kind     []desk.FieldView // what part lists tell such bikes apart by
	Hangs    []hangView       // what it has for parts to hang on
	Pulse    bool
	AntiLock bool
	Traction bool
	Turns    []desk.FieldView // numbers that would turn a verdict now, out of the sections
	Missing  int              // numbers that nobody has entered
	desk.FormState
}

// pickView is a word out of a closed list.
type pickView struct {
	Key, Label string
	Options    []desk.OptionView
}

// hangView is a kind of mounts, with the names that parts on the shelf call them by.
type hangView struct {
	desk.FieldView
	Names []string
}

// Fields lists the values of the sheet, for what changed in two places.
func (v sheetView) Fields() []desk.FieldView {
	fields := append([]desk.FieldView{v.Name, v.Price}, v.Turns...)
	for _, section := range v.Sections {
		fields = append(fields, section.Fields...)
	}
	for _, p := range v.Picks {
		fields = append(fields, desk.Selected(p.Key, p.Label, p.Options))
	}
	fields = append(fields, v.Kind...)
	for _, h := range v.Hangs {
		fields = append(fields, h.FieldView)
	}
	fields = append(fields, desk.Checked(pulseTag, "Speedometer counts pulses", v.Pulse),
		desk.Checked("anti_lock", "Anti-lock", v.AntiLock), desk.Checked("traction_control", "Traction control", v.Traction))
	for _, std := range v.Standard {
		key := "std." + string(std.Slot)
		name := "Standard " + strings.ToLower(std.Name)
		fields = append(fields, desk.FieldView{Key: key, Label: name, Value: std.Value}, desk.FieldView{Key: key + ".mass", Label: name + ", mass", Value: std.Mass})
		if isTyre(std.Slot) {
			fields = append(append(fields, desk.Selected(key+".kind", name+", kind", std.Kinds)), std.More...)
		}
	}
	for _, row := range v.Else {
		fields = append(fields, desk.Selected(desk.RowKey("else", row.Index), "It came with", row.Slots),
			desk.FieldView{Key: desk.RowKey("else_draw", row.Index), Label: "it draws", Value: row.Draw}, desk.FieldView{Key: desk.RowKey("else_mass", row.Index), Label: "it weighs", Value: row.Mass})
	}
	return fields
}

func (v sheetView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func sheetOf(d *desk.Desk, form url.Values, errs desk.FormErrors) sheetView {
	v := sheetView{Has: d.Plan.Bike != nil, FormState: desk.FormState{Error: errs["form"], Try: d.Href("sheet/try"), Save: d.Href("sheet")}}
	if !v.Has {
		return v
	}
	b := d.Plan.Bike
	v.Name = desk.FieldView{Key: "name", Label: "Bike", Value: desk.Typed(form, "name", b.Name), Error: errs["name"]}
	v.Price = desk.FieldView{Key: "price", Label: "Worth", Unit: d.Plan.Currency, Value: desk.Typed(form, "price", d.Units.Shown(b.Price.String())), Error: errs["price"],
		Help: "What one like it costs: past some sum another bike is cheaper than the parts."}
	v.Note = b.Note
	turns, guessed := turning(d)
	labels := entry.Labels(b.Fields())
	v.Turns = make([]desk.FieldView, 0, len(turns))
	for _, section := range b.Sections() {
		shown := desk.SectionView{Name: section.Name}
		for _, f := range section.Fields {
			if b.Shaft() && slices.Contains(chainOnly, f.Key) || !b.Shaft() && f.Key == "final_ratio" && !f.Entry.Known() {
				continue
			}
			field := desk.FieldOf(d.Units, f, form, errs)
			field.Guess = guessed[f.Key]
			if slices.Contains(turns, f.Key) {
				field.Label = labels[f.Key]
				v.Turns = append(v.Turns, field)
				continue
			}
			if f.Entry.Known() {
				field.Origin = string(b.OriginOf(f.Key))
			} else {
				shown.Missing++
			}
			shown.Bad = shown.Bad || field.Error != ""
			shown.Fields = append(shown.Fields, field)
		}
		v.Missing += shown.Missing
		v.Sections = append(v.Sections, shown)
	}
	slices.SortStableFunc(v.Turns, func(a, b desk.FieldView) int { return slices.Index(turns, a.Key) - slices.Index(turns, b.Key) })
	for _, slot := range standardSlots {
		v.Standard = append(v.Standard, standardOf(d.Units, b, slot, form, errs))
	}
	v.Else, v.MassUnit = elseOf(d, form, errs), d.Units.Of("kg")
	v.Origins = desk.OptionsOf([]entry.Option{
		{Value: string(sheet.Measured), Name: "Measured on this bike"},
		{Value: string(sheet.Maker), Name: "Maker's manual or plate"},
		{Value: string(sheet.Memory), Name: "Recalled, not looked up"},
	}, desk.Typed(form, "origin", string(sheet.Measured)), "")
	for _, p := range b.Picks() {
		v.Picks = append(v.Picks, pickView{p.Key, p.Label, desk.OptionsOf(p.Options, desk.Typed(form, p.Key, p.Get()), "Not known")})
	}
	v.Kind = []desk.FieldView{
		{Key: "year", Label: "Model year", Value: desk.Typed(form, "year", yearText(b.Year)), Error: errs["year"], Help: "Parts of another year are a finding."},
		{Key: "family", Label: "Family", Value: desk.Typed(form, "family", b.Family), Help: "What part lists call such bikes."},
		{Key: "variant", Label: "Variant", Value: desk.Typed(form, "variant", b.Variant)},
	}
	for _, kind := range parts.Families() {
		v.Hangs = append(v.Hangs, hangOf(d, b, kind, form))
	}
	v.Pulse = slices.Contains(b.Provides, pulseTag)
	v.AntiLock, v.Traction = b.AntiLock, b.TractionControl
	if form != nil {
		v.Pulse = form.Has(pulseTag)
		v.AntiLock, v.Traction = form.Has("anti_lock"), form.Has("traction_control")
	}
	return v
}

// turning are the bike's numbers that would turn a verdict now: those that a gauge waits for, then
// those whose guess could turn one, and in words what is guessed of all of them.
func turning(d *desk.Desk) (keys []string, guessed map[string]string) {
	for _, g := range d.Report.Gauges {
		for _, what := range g.Missing {
			if key, ok := strings.CutPrefix(d.Report.Where(what), "bike/"); ok && !g.Between && !slices.Contains(keys, key) {
				keys = append(keys, key)
			}
		}
	}
	guessed = d.Guessed("bike")
	if len(guessed) == 0 { // nothing is sorted where nothing is guessed
		return nil, nil
	}
	for _, g := range eval.ToMeasure(d.Report.Guesses) {
		if key, ok := strings.CutPrefix(g.At, "bike/"); ok && len(g.Turns) > 0 && !slices.Contains(keys, key) {
			keys = append(keys, key)
		}
	}
	return keys, guessed
}

const pulseTag = "speedometer-pulse"

func yearText(year int) string {
	if year == 0 {
		return ""
	}
	return strconv.Itoa(year)
}

// hangKey is the field of a kind of mounts.
func hangKey(kind string) string { return "hang." + strings.ReplaceAll(kind, " ", "-") }

// hangOf shows what of a kind the bike has, several apart by a semicolon, and what parts
// on the shelf ask for.
func hangOf(d *desk.Desk, b *plan.Bike, kind string, form url.Values) hangView {
	var have []string
	for _, tag := range b.Provides {
		if name, ok := strings.CutPrefix(tag, kind+": "); ok {
			have = append(have, name)
		}
	}
	v := hangView{FieldView: desk.FieldView{
		Key: hangKey(kind), Label: strings.ToUpper(kind[:1]) + kind[1:], Value: desk.Typed(form, hangKey(kind), strings.Join(have, "; ")),
		Help: "As parts for it are listed; several apart by a semicolon.",
	}}
	for _, p := range d.Shelf {
		for _, tag := range p.Needs {
			if name, ok := strings.CutPrefix(tag, kind+": "); ok && !slices.Contains(v.Names, name) {
				v.Names = append(v.Names, name)
			}
		}
	}
	slices.Sort(v.Names)
	return v
}

// readHangs is what the bike has for parts to hang on, as typed; tags that the sheet does
// not ask for stay.
func readHangs(b *plan.Bike, form url.Values) []string {
	var tags []string
	for _, tag := range b.Provides {
		kind, _, ok := strings.Cut(tag, ": ")
		if !(ok && slices.Contains(parts.Families(), kind)) && tag != pulseTag {
			tags = append(tags, tag)
		}
	}
	for _, kind := range parts.Families() {
		for name := range strings.SplitSeq(form.Get(hangKey(kind)), ";") {
			if name = strings.TrimSpace(name); name != "" {
				tags = append(tags, kind+": "+name)
			}
		}
	}
	if form.Has(pulseTag) {
		tags = append(tags, pulseTag)
	}
	return tags
}

// chainOnly are the numbers that a shaft drive does not have.
var chainOnly = []string{"centre", "adjuster_forward", "adjuster_back"}

// readBike is the plan with a bike as typed, and what changed in words.
func readBike(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	if d.Plan.Bike == nil {
		return d.Plan, nil, desk.FormErrors{"form": "Take a bike first."}
	}
	changed, b := *d.Plan, *d.Plan.Bike
	changed.Bike = &b
	var summary []string
	note := func(label, was, now string) {
		if was != now {
			summary = append(summary, desk.ChangedWords(label, was, now))
		}
	}
	b.Name = strings.TrimSpace(form.Get("name"))
	note("Bike", d.Plan.Bike.Name, b.Name)
	for _, p := range b.Picks() {
		was := p.Get()
		p.Set(form.Get(p.Key))
		note(p.Label, was, p.Get())
	}
	if price, err := d.Units.Amount(form.Get("price"), d.Plan.Currency); err != nil {
		errs["price"] = err.Error()
	} else {
		note("Worth", b.Price.String(), price.String())
		b.Price = price
	}
	b.Family, b.Variant, b.Year = strings.TrimSpace(form.Get("family")), strings.TrimSpace(form.Get("variant")), 0
	if text := strings.TrimSpace(form.Get("year")); text != "" {
		var err error
		if b.Year, err = d.Units.Count(text); err != nil {
			errs["year"] = fmt.Sprintf("%q is not a year, want e.g. 2021", text)
		}
	}
	note("Model year", yearText(d.Plan.Bike.Year), yearText(b.Year))
	note("Family", d.Plan.Bike.Family, b.Family)
	note("Variant", d.Plan.Bike.Variant, b.Variant)
	b.Provides = readHangs(&b, form)
	note("For parts to hang on", hangsText(d.Plan.Bike.Provides), hangsText(b.Provides))
	b.AntiLock, b.TractionControl = form.Has("anti_lock"), form.Has("traction_control")
	note("Anti-lock", yes(d.Plan.Bike.AntiLock), yes(b.AntiLock))
	note("Traction control", yes(d.Plan.Bike.TractionControl), yes(b.TractionControl))

	origin := sheet.Origin(form.Get("origin"))
	if !slices.Contains(sheet.Origins(), origin) {
		origin = sheet.Rider
	}
	before := map[string]string{}
	for _, f := range b.Fields() {
		before[f.Key] = f.Entry.String()
	}
	var asked []entry.Field // what the form has; a shaft drive's has no chain
	for _, f := range b.Fields() {
		if form.Has(f.Key) {
			asked = append(asked, f)
		}
	}
	summary = append(summary, desk.Enter(d.Units, asked, form, errs)...)
	for _, f := range b.Fields() {
		if f.Entry.String() != before[f.Key] {
			b.SetOrigin(f.Key, origin)
		}
	}
	for _, slot := range standardSlots {
		was := standardText(&b, slot)
		if err := readStandard(&b, slot, form, origin, d.Units); err != nil {
			errs["std."+string(slot)] = err.Error()
			continue
		}
		info, _ := parts.KindOf(slot)
		note("Standard "+strings.ToLower(info.Name), was, standardText(&b, slot))
	}
	was := elseText(d.Plan.Bike)
	readElse(d, &b, form, origin, errs)
	note("What else it came with", was, elseText(&b))
	if b.Odometer.Known() && b.Odometer != d.Plan.Bike.Odometer {
		changed.Machine = changed.Machine.Ran(d.AsOf, b.Odometer)
	}
	if len(errs) == 0 {
		desk.Problems(&changed, "bike.", errs)
	}
	return &changed, summary, errs
}

func hangsText(tags []string) string {
	tags = slices.Sorted(slices.Values(tags))
	for i, tag := range tags {
		tags[i] = parts.TagWords(tag)
	}
	return strings.Join(tags, ", ")
}

func yes(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}
