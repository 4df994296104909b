package spend

import (
	"cmp"
	"crypto/rand"
	"errors"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// partForm is the sheet of a part of the rider's own, of any slot.
var partForm = desk.StageForm{
	Stage: "part", Title: "Your part as typed", Save: "Keep this part", Read: readPart, View: partPage, Show: showPart, Kept: keptPart,
}

// partView is the sheet of one part, or the choice of which.
type partView struct {
	Has    bool
	Own    []desk.LinkView // parts that there are already
	Slots  []desk.OptionView
	Find   string // where the choice leads
	Slot   string
	Named  string // the slot in words
	ID     string
	Edited bool

	Likes                      []desk.OptionView
	Name, Price, PartNote      desk.FieldView
	Decisions, Sources, Places []desk.OptionView
	Loadouts                   []desk.OptionView // that it is fitted in; none where there is one
	First                      *desk.FirstView   // what has its place, nil for nothing
	Kit                        []kitRow
	Boxed                      bool // there is more in the box
	desk.DraftView
	desk.FormState
}

// kitRow is one more part out of the same box.
type kitRow struct {
	Index            int
	Slots            []desk.OptionView
	Name, Mass, Draw string
	Error            string
}

var kit = &desk.List{Name: "Out of the same box", Columns: []string{"kit_slot", "kit_name", "kit_mass", "kit_draw"}}

func (v partView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// Fields lists the values of the sheet, for what changed in two places.
func (v partView) Fields() []desk.FieldView {
	fields := []desk.FieldView{v.Name, v.Price, v.PartNote, desk.Selected("decision", "How far decided", v.Decisions), desk.Selected("source", "Where it comes from", v.Sources), desk.Selected("place", "Sits", v.Places)}
	for _, row := range v.Kit {
		fields = append(fields, kit.Fields(row.Index, desk.Selected("", "", row.Slots).Value, row.Name, row.Mass, row.Draw)...)
	}
	return append(fields, v.DraftView.Fields()...)
}

var ownID = regexp.MustCompile(`^own-[a-z0-9]{8,20}$`)

// asked is what a form or an address asks for: the slot, the part that is edited, and
// the one that it is to be like.
func asked(d *desk.Desk, values url.Values) (slot parts.Slot, was, like *parts.Part, err error) {
	slot = parts.Slot(values.Get("slot"))
	for _, p := range d.Plan.Owned() {
		if p.ID == values.Get("id") || p.ID == values.Get("edit") {
			was, slot = p, p.Slot
		}
	}
	if _, ok := parts.KindOf(slot); slot != "" && !ok || values.Has("edit") && was == nil {
		return slot, nil, nil, store.ErrNotFound
	}
	if id := values.Get("like"); id != "" && was == nil {
		if like = d.Shelf.Find(d.Plan.Bike, slot, id); like == nil {
			like = d.Shelf.Find(d.Plan.Bike, parts.SpareOf(slot), id)
		}
		if like == nil {
			return slot, nil, nil, store.ErrNotFound
		}
	}
	return slot, was, like, nil
}

func partPage(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
	values := typed
	if typed == nil {
		values = r.URL.Query()
	}
	v := partView{Has: d.Plan.Bike != nil, Find: d.At() + "/part", FormState: desk.FormState{Error: errs["form"], Try: d.Href("part/try"), Save: d.Href("part")}}
	slot, was, like, err := asked(d, values)
	if err != nil || !v.Has {
		return v, err
	}
	for _, p := range d.Plan.Owned() {
		v.Own = append(v.Own, desk.LinkView{Name: p.Name, Href: d.Href("part", "edit", p.ID), Current: p == was})
	}
	v.Slots = desk.OptionsOf(parts.KindOptions(), string(slot), "Where it sits")
	if slot == "" {
		return v, nil
	}
	info, _ := parts.KindOf(slot)
	v.Slot, v.Named = string(slot), strings.ToLower(info.Name)
	from := was
	switch {
	case was != nil:
		v.ID, v.Edited = was.ID, true
	case ownID.MatchString(values.Get("id")):
		v.ID = values.Get("id")
	default:
		v.ID = parts.OwnPrefix + strings.ToLower(rand.Text()[:12])
	}
	if like != nil {
		copied := *like
		copied.Slot, copied.Name, copied.Note, copied.Origin = slot, "", "", ""
		from = &copied
	}
	if from == nil {
		from = &parts.Part{Slot: slot}
	}
	v.Likes = append(v.Likes, desk.OptionView{Name: "nothing on the shelf"})
	for _, p := range d.Shelf {
		if (p.Slot == slot || p.Slot == parts.SpareOf(slot)) && p != was {
			v.Likes = append(v.Likes, desk.OptionView{Value: p.ID, Name: p.Name, Selected: like == p})
		}
	}
	line := plan.Line{}
	for _, l := range d.Plan.Lines {
		if was != nil && l.Part == was {
			line = l
		}
	}
	v.fill(d, parts.DraftOf(from), line, typed, errs)
	only := desk.Typed(typed, "loadout_only", line.Loadout)
	if len(d.Plan.Loadouts) > 1 {
		v.Loadouts = desk.OptionsOf(loadoutOptions(d.Plan), only, "every loadout")
	}
	v.First = d.First(typed.Get("first"), plan.Choice{Slot: slot, Part: &parts.Part{ID: v.ID, Slot: slot}, Loadout: only, Decision: plan.Decision(desk.Typed(typed, "decision", string(line.Decision)))})
	return v, nil
}

// fill shows a part's sheet, as typed before as kept.
func (v *partView) fill(d *desk.Desk, draft *parts.Draft, line plan.Line, typed url.Values, errs desk.FormErrors) {
	decision, source := string(line.Decision), string(line.Source)
	if decision == "" {
		decision = string(plan.Chosen)
	}
	if source == "" {
		source = string(plan.BoughtNew)
	}
	v.Name = desk.FieldView{Key: "name", Label: "Name", Value: desk.Typed(typed, "name", draft.Name), Error: errs["name"], Help: "As you would say it in the garage."}
	v.Price = desk.FieldView{Key: "price", Label: "Price", Unit: d.Plan.Currency, Value: desk.Typed(typed, "price", d.Units.Shown(draft.Price.String())), Error: errs["price"], Help: "What you pay, or paid. 0 where it cost nothing."}
	v.PartNote = desk.FieldView{Key: "note", Label: "Note", Value: desk.Typed(typed, "note", draft.Note)}
	v.Decisions = desk.OptionsOf(plan.Decisions(), desk.Typed(typed, "decision", decision), "")
	v.Sources = desk.OptionsOf(plan.Sources(), desk.Typed(typed, "source", source), "")
	info, _ := parts.KindOf(draft.Slot)
	v.Places = desk.OptionsOf(spots(), desk.Typed(typed, "place", string(draft.Place)), "As usual: "+spotName(info.Place))
	v.DraftView = d.DraftOf(draft, typed, errs)
	v.kit(d, draft.Kit, typed, errs)
}

// kit shows what else is in the box, and room for more.
func (v *partView) kit(d *desk.Desk, pieces []parts.Part, typed url.Values, errs desk.FormErrors) {
	v.Boxed = len(pieces) > 0 || typed.Get(desk.RowKey("kit_slot", 0)) != ""
	for i := range desk.RowsOf(typed, "kit_slot", len(pieces)) {
		var p parts.Part
		if i < len(pieces) {
			p = pieces[i]
		}
		v.Kit = append(v.Kit, kitRow{
			Index: i, Error: errs[desk.RowKey("kit_name", i)], Slots: desk.OptionsOf(parts.KindOptions(), desk.Typed(typed, desk.RowKey("kit_slot", i), string(p.Slot)), "Nothing more"),
			Name: desk.Typed(typed, desk.RowKey("kit_name", i), p.Name), Mass: desk.Typed(typed, desk.RowKey("kit_mass", i), d.Units.Shown(p.Mass.String())),
			Draw: desk.Typed(typed, desk.RowKey("kit_draw", i), d.Units.Shown(parts.Draw.In(&p).String())),
		})
	}
}

// readKit reads what else is in the box; what the form does not ask of a piece stays.
func readKit(d *desk.Desk, box *parts.Part, form url.Values, errs desk.FormErrors) {
	if !form.Has(desk.RowKey("kit_slot", 0)) {
		return
	}
	was := box.Kit
	box.Kit = nil
	for i := 0; form.Has(desk.RowKey("kit_slot", i)); i++ {
		slot := parts.Slot(form.Get(desk.RowKey("kit_slot", i)))
		kind, known := parts.KindOf(slot)
		if slot == "" {
			continue
		}
		if !known {
			errs[desk.RowKey("kit_name", i)] = "is no kind of part"
			continue
		}
		p := parts.Part{ID: box.ID + "-" + strconv.Itoa(i+1), Slot: slot, Origin: sheet.Rider}
		if i < len(was) && was[i].Slot == slot {
			p = was[i]
		}
		if p.Name = strings.TrimSpace(form.Get(desk.RowKey("kit_name", i))); p.Name == "" {
			p.Name = kind.Name + " of " + box.Name
		}
		if err := d.Units.Enter(&p.Mass, form.Get(desk.RowKey("kit_mass", i)), "kg"); err != nil {
			errs[desk.RowKey("kit_name", i)] = err.Error()
		}
		var draw unit.Power
		if err := d.Units.Enter(&draw, form.Get(desk.RowKey("kit_draw", i)), "W"); err != nil {
			errs[desk.RowKey("kit_name", i)] = err.Error()
		} else if draw.Known() && !slot.Has(parts.Draw) {
			errs[desk.RowKey("kit_name", i)] = "a " + strings.ToLower(kind.Name) + " draws nothing"
		} else if slot.Has(parts.Draw) {
			parts.Draw.Put(&p, draw)
		}
		box.Kit = append(box.Kit, p)
	}
}

func spots() []entry.Option {
	var list []entry.Option
	for _, s := range load.Spots() {
		list = append(list, entry.Option{Value: string(s.Place), Name: s.Name})
	}
	return list
}

func spotName(p load.Place) string {
	s, _ := load.SpotOf(p)
	return strings.ToLower(s.Name)
}

// readPart is the plan with a part as typed.
func readPart(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	slot, was, _, err := asked(d, form)
	id := form.Get("id")
	if d.Plan.Bike == nil || err != nil || slot == "" || !ownID.MatchString(id) && was == nil {
		return d.Plan, nil, desk.FormErrors{"form": "Choose where the part sits first."}
	}
	from := &parts.Part{ID: id, Slot: slot, Origin: sheet.Rider}
	if was != nil {
		from = was
	}
	draft := parts.DraftOf(from)
	if draft.Name = strings.TrimSpace(form.Get("name")); draft.Name == "" {
		errs["name"] = "say what it is"
	}
	draft.Note, draft.Place = strings.TrimSpace(form.Get("note")), load.Place(form.Get("place"))
	if draft.Price, err = d.Units.Amount(form.Get("price"), d.Plan.Currency); err != nil {
		errs["price"] = err.Error()
	} else if draft.Price.Known() && draft.Price.Minor() < 0 {
		errs["price"] = "is below zero"
	}
	part := d.ReadDraft(draft, form, errs)
	readKit(d, part, form, errs)
	choice := choiceOf(part, form)
	if _, err := d.Plan.Loadout(choice.Loadout); choice.Loadout != "" && err != nil {
		return d.Plan, nil, desk.FormErrors{"loadout_only": "is no loadout of this plan"}
	}
	changed := d.Plan.Deciding(choice, plan.Source(form.Get("source")))
	if len(errs) == 0 {
		at := slices.IndexFunc(changed.Lines, func(l plan.Line) bool { return l.Part == part })
		desk.Problems(changed, "lines["+strconv.Itoa(at)+"].part.", errs)
	}
	what := part.Name + ": a part of one's own"
	if was != nil {
		what = part.Name + ": its sheet"
	}
	return changed, []string{what + d.Displaces(choice)}, errs
}

// choiceOf is how a part is decided by its form.
func choiceOf(part *parts.Part, form url.Values) plan.Choice {
	return plan.Choice{
		Slot: part.Slot, Part: part, Loadout: form.Get("loadout_only"), Decision: plan.Decision(form.Get("decision")), First: desk.FirstOf(form),
	}
}

// showPart lays a part on the bench as if it were on the bike, whatever is decided.
func showPart(d *desk.Desk, _ *plan.Plan, form url.Values) *plan.Plan {
	shown := url.Values{}
	for key, values := range form {
		shown[key] = values
	}
	if (&plan.Line{Decision: plan.Decision(form.Get("decision"))}).Standing() != plan.In {
		shown.Set("decision", string(plan.Chosen))
	}
	changed, _, _ := readPart(d, shown)
	return changed
}

// keptPart renews the part in the rider's other plans too, where they asked for it.
func keptPart(s *desk.House, r *http.Request, d *desk.Desk, changed *plan.Plan) (string, error) {
	id := cmp.Or(r.PostFormValue("id"), r.PostFormValue("edit"))
	at := slices.IndexFunc(changed.Lines, func(l plan.Line) bool { return l.Part != nil && l.Part.ID == id })
	if at < 0 { // sent again after it was thrown out
		return d.Href("drawer"), nil
	}
	part := changed.Lines[at].Part
	if r.PostForm.Has("everywhere") {
		plans, err := s.Store.Plans(r.Context(), s.Rider(r))
		if err != nil {
			return "", err
		}
		for _, other := range plans {
			renewed, held := other.Plan.Renewed(part)
			if !held || other.ID == d.ID {
				continue
			}
			err := s.Store.Save(r.Context(), s.Rider(r), other.ID, store.Change{Base: other.Revision, Plan: renewed, Summary: part.Name + ": its sheet"})
			if err != nil && !errors.Is(err, store.ErrStale) {
				return "", err
			}
		}
	}
	return d.Href("drawer", "q", part.Name), nil
}
