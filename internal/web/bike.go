package web

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/store"
)

// bikeView is the choice of a bike and its data sheet.
type bikeView struct {
	Bikes    []bikeCard
	Has      bool
	Name     fieldView
	Note     string // of the bike
	Sections []sectionView
	Standard []standardView
	Origins  []optionView
	Chains   []optionView
	Pickups  []optionView
	AntiLock bool
	Traction bool
	Missing  int // numbers that nobody has entered
	formState
}

// fields lists the values of the sheet, for what changed in two places.
func (v bikeView) fields() []fieldView {
	fields := []fieldView{v.Name}
	for _, section := range v.Sections {
		fields = append(fields, section.Fields...)
	}
	fields = append(fields, selected("chain", "Chain number", v.Chains), selected("speedometer", "Speedometer counts at", v.Pickups),
		checked("anti_lock", "Anti-lock", v.AntiLock), checked("traction_control", "Traction control", v.Traction))
	for _, std := range v.Standard {
		key := "std." + string(std.Slot)
		name := "Standard " + strings.ToLower(std.Name)
		fields = append(fields, fieldView{Key: key, Label: name, Value: std.Value}, fieldView{Key: key + ".mass", Label: name + ", mass", Value: std.Mass})
		if isTyre(std.Slot) {
			fields = append(fields, selected(key+".kind", name+", kind", std.Kinds))
		}
	}
	return fields
}

type sectionView struct {
	Name   string
	Fields []fieldView
}

// standardView is what the factory put into a slot.
type standardView struct {
	Slot        plan.Slot
	Name        string
	Value, Mass string // a tyre code, or a count
	Unit, Help  string
	Kinds       []optionView // of a tyre
	Error       string
}

type bikeCard struct {
	ID, Name, Kind, Note, Href string
	Facts                      []string
	Current, Tried             bool
}

func (v bikeView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

// bikeForm is the sheet of the bike.
func (s *Server) bikeForm() stageForm {
	return stageForm{
		stage: "bike", title: "The bike as typed", save: "Save the sheet", read: (*desk).readBike,
		view: func(r *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
			return s.bike(r, d, typed, errs)
		},
	}
}

// blankBike is what a rider starts from whose bike is not in the list.
const blankBike = "own-bike"

func (s *Server) bikeOf(r *http.Request, id string) (*plan.Bike, error) {
	if id == blankBike {
		return &plan.Bike{ID: blankBike, Name: "My bike", Origin: sheet.Rider}, nil
	}
	return s.store.Bike(r.Context(), id)
}

func (s *Server) bikePage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	bench, _, err := d.tried(r, "bike")
	if id := r.URL.Query().Get("bike"); id != "" {
		bench, err = s.triedBike(r, d, id)
	}
	if err != nil {
		return err
	}
	view, err := s.bike(r, d, nil, nil)
	if err != nil {
		return err
	}
	return s.showStage(w, r, http.StatusOK, d, "bike", bench, view)
}

// onBike is the desk with another bike, and the choices of the query resolved
// for it.
func (s *Server) onBike(r *http.Request, d *desk, id string, tries []string) (*desk, []plan.Choice, error) {
	bike, err := s.bikeOf(r, id)
	if err != nil {
		return nil, nil, err
	}
	changed := *d.Plan
	changed.Bike = bike
	on := d.with(&changed)
	choices, err := on.choices(tries)
	return on, choices, err
}

func (s *Server) triedBike(r *http.Request, d *desk, id string) (*benchView, error) {
	on, choices, err := s.onBike(r, d, id, r.URL.Query()["try"])
	if err != nil {
		return nil, err
	}
	label := on.Plan.Bike.Name
	if len(choices) > 0 {
		label += " with " + title(choices)
	}
	bench, err := d.bench(eval.Alternative{Label: label, Plan: on.Plan.With(choices...)}, "bike", d.onTop("bike", choices, "bike", id))
	if err != nil {
		return nil, err
	}
	bench.Bike = id
	bench.Action = "/plans/" + d.PlanID + "/bike/take"
	bench.lay(choices)
	return bench, nil
}

// takeBike puts the bike that was tried into the plan, with what lay beside it.
func (s *Server) takeBike(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	on, choices, err := s.onBike(r, d, r.PostFormValue("bike"), r.PostForm["try"])
	if err != nil {
		return err
	}
	summary := "Bike: " + on.Plan.Bike.Name
	if len(choices) > 0 {
		summary += " with " + title(choices)
	}
	err = s.store.Save(r.Context(), s.rider(r), d.PlanID, r.PostFormValue("base"), on.Plan.With(choices...), summary)
	if errors.Is(err, store.ErrStale) {
		return s.stale(w, r, d, "bike", "The bike was not taken. Choose it again on the plan as it is now.", nil)
	}
	if err != nil {
		return err
	}
	return seeOther(w, r, d.href("bike"))
}

func (s *Server) bike(r *http.Request, d *desk, form url.Values, errs formErrors) (bikeView, error) {
	bikes, err := s.store.Bikes(r.Context())
	if err != nil {
		return bikeView{}, err
	}
	v := bikeView{Has: d.Plan.Bike != nil, formState: formState{Error: errs["form"], Try: d.href("bike/try"), Save: d.href("bike")}}
	tried := r.URL.Query().Get("bike")
	for _, b := range bikes {
		v.Bikes = append(v.Bikes, bikeCard{
			ID: b.ID, Name: b.Name, Kind: b.Kind, Note: b.Note, Href: d.href("bike", "bike", b.ID), Tried: tried == b.ID,
			Current: v.Has && d.Plan.Bike.ID == b.ID,
			Facts: []string{
				d.units.Plain(b.KerbMass.In("kg"), "kg"), d.units.Plain(b.Power.In("kW"), "kW"), "seat " + d.units.Plain(b.SeatHeight.In("mm"), "mm"),
			},
		})
	}
	v.Bikes = append(v.Bikes, bikeCard{
		ID: blankBike, Name: "My own bike", Kind: "blank sheet", Href: d.href("bike", "bike", blankBike), Tried: tried == blankBike,
		Note:    "Every number is optional; a gauge that lacks one says so, and the sheet says how to measure it.",
		Current: v.Has && d.Plan.Bike.ID == blankBike,
	})
	if !v.Has {
		return v, nil
	}
	b := d.Plan.Bike
	v.Name = fieldView{Key: "name", Label: "Bike", Value: typed(form, "name", b.Name), Error: errs["name"]}
	v.Note = b.Note
	for _, section := range b.Sections() {
		shown := sectionView{Name: section.Name}
		for _, f := range section.Fields {
			field := fieldOf(d.units, f, form, errs)
			if f.Entry.Known() {
				field.Origin = string(b.OriginOf(f.Key))
			} else {
				v.Missing++
			}
			shown.Fields = append(shown.Fields, field)
		}
		v.Sections = append(v.Sections, shown)
	}
	for _, slot := range standardSlots {
		v.Standard = append(v.Standard, standardOf(b, slot, form, errs))
	}
	v.Origins = optionsOf([]plan.Option{
		{Value: string(sheet.Measured), Name: "Measured on this bike"},
		{Value: string(sheet.Maker), Name: "Maker's manual or plate"},
		{Value: string(sheet.Memory), Name: "Recalled, not looked up"},
	}, typed(form, "origin", string(sheet.Measured)), "")
	v.Chains = optionsOf([]plan.Option{{Value: "428", Name: "428"}, {Value: "520", Name: "520"}, {Value: "525", Name: "525"}, {Value: "530", Name: "530"}}, typed(form, "chain", b.Chain), "Not known")
	v.Pickups = optionsOf(plan.Pickups(), typed(form, "speedometer", string(b.Speedometer)), "Not known")
	v.AntiLock, v.Traction = b.AntiLock, b.TractionControl
	if form != nil {
		v.AntiLock, v.Traction = form.Has("anti_lock"), form.Has("traction_control")
	}
	return v, nil
}

// standardSlots are what the sheet asks of the factory's parts.
var standardSlots = []plan.Slot{plan.FrontTyre, plan.RearTyre, plan.FrontSprocket, plan.RearSprocket, plan.Chain}

func isTyre(s plan.Slot) bool { return s == plan.FrontTyre || s == plan.RearTyre }

func standardOf(b *plan.Bike, slot plan.Slot, form url.Values, errs formErrors) standardView {
	info, _ := plan.InfoOf(slot)
	key := "std." + string(slot)
	v := standardView{Slot: slot, Name: info.Name, Error: errs[key], Unit: "teeth"}
	part := b.StandardIn(slot)
	stored, mass, kind := "", "", ""
	if part != nil {
		mass = part.Mass.String()
		if part.Tyre != nil {
			stored, kind = part.Tyre.Size.String(), string(part.Tyre.Kind)
		} else if n, ok := part.Count(); ok {
			stored = strconv.Itoa(n)
		}
	}
	v.Value, v.Mass = typed(form, key, stored), typed(form, key+".mass", mass)
	switch {
	case isTyre(slot):
		v.Unit, v.Help = "", "The code on the sidewall, e.g. 120/80-18 M/C 62S"
		var kinds []plan.Option
		for _, c := range tyre.Characters() {
			kinds = append(kinds, plan.Option{Value: string(c.Kind), Name: c.Name})
		}
		v.Kinds = optionsOf(kinds, typed(form, key+".kind", kind), "")
	case slot == plan.Chain:
		v.Unit = "links"
	}
	return v
}

// readBike is the plan with a bike as typed, and what changed in words.
func (d *desk) readBike(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	if d.Plan.Bike == nil {
		return d.Plan, nil, formErrors{"form": "Take a bike first."}
	}
	changed, b := *d.Plan, *d.Plan.Bike
	changed.Bike = &b
	var summary []string
	note := func(label, was, now string) {
		if was != now {
			summary = append(summary, changedWords(label, was, now))
		}
	}
	b.Name = strings.TrimSpace(form.Get("name"))
	note("Bike", d.Plan.Bike.Name, b.Name)
	b.Chain = form.Get("chain")
	note("Chain", d.Plan.Bike.Chain, b.Chain)
	b.Speedometer = drive.Pickup(form.Get("speedometer"))
	note("Speedometer", string(d.Plan.Bike.Speedometer), string(b.Speedometer))
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
	summary = append(summary, enter(d.units, b.Fields(), form, errs)...)
	for _, f := range b.Fields() {
		if f.Entry.String() != before[f.Key] {
			b.SetOrigin(f.Key, origin)
		}
	}
	for _, slot := range standardSlots {
		was := standardText(&b, slot)
		if err := readStandard(&b, slot, form, origin, d.units.Of("kg")); err != nil {
			errs["std."+string(slot)] = err.Error()
			continue
		}
		info, _ := plan.InfoOf(slot)
		note("Standard "+strings.ToLower(info.Name), was, standardText(&b, slot))
	}
	if len(errs) == 0 {
		problems(&changed, "bike.", errs)
	}
	return &changed, summary, errs
}

func yes(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}

func standardText(b *plan.Bike, slot plan.Slot) string {
	part := b.StandardIn(slot)
	switch {
	case part == nil:
		return ""
	case part.Tyre != nil:
		return strings.TrimSpace(fmt.Sprintf("%s %s %s", part.Tyre.Size, part.Tyre.Kind, part.Mass))
	}
	n, _ := part.Count()
	return strings.TrimSpace(fmt.Sprintf("%d %s", n, part.Mass))
}

// readStandard sets what the factory put into a slot; empty makes it unknown.
// What the form does not ask of a part stays.
func readStandard(b *plan.Bike, slot plan.Slot, form url.Values, origin sheet.Origin, bareMass string) error {
	key := "std." + string(slot)
	text := strings.TrimSpace(form.Get(key))
	if text == "" {
		b.ClearStandard(slot)
		return nil
	}
	was := standardText(b, slot)
	part := plan.Part{ID: "standard-" + string(slot), Slot: slot, Origin: origin}
	if standing := b.StandardIn(slot); standing != nil {
		part = *standing
	}
	var mass unit.Mass
	if err := mass.Enter(form.Get(key+".mass"), bareMass); err != nil {
		return err
	}
	part.Mass = mass
	info, _ := plan.InfoOf(slot)
	part.Name = "Standard " + strings.ToLower(info.Name)
	if isTyre(slot) {
		size, err := tyre.Parse(text)
		if err != nil {
			return err
		}
		t := plan.Tyre{}
		if part.Tyre != nil && part.Tyre.Size == size {
			t = *part.Tyre // measured numbers belong to this size
		}
		t.Size, t.Kind = size, tyre.Kind(form.Get(key+".kind"))
		part.Tyre = &t
	} else {
		count, err := strconv.Atoi(text)
		if err != nil {
			return fmt.Errorf("%q is not a whole number", text)
		}
		part.Effects = plan.Counted(slot, count).Effects
	}
	b.SetStandard(part)
	if standardText(b, slot) != was {
		part.Origin = origin
		b.SetStandard(part)
	}
	return nil
}
