package card

import (
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/limp"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// chooseForm is what stands on the card, and what is in the kit.
var chooseForm = desk.StageForm{
	Stage: "on-card", Title: "The card as typed", Save: "Keep it so", Read: readChoice,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return choiceOf(d, typed, errs), nil
	},
}

// choiceView is the form of the card.
type choiceView struct {
	Card     string
	Sections []sectionRow
	Kit      []tick
	Calls    []callRow
	Blood    desk.FieldView
	Told     tick
	desk.FormState
}

type sectionRow struct {
	ID, Name string
	On       bool
	Place    desk.FieldView
}

type tick struct {
	Key, Name, Sub string
	On             bool
}

type callRow struct {
	Index        int
	Name, Number desk.FieldView
	Error        string
}

var callList = &desk.List{Name: "To call", Columns: []string{"who", "number"}}

func (v choiceView) Fields() []desk.FieldView {
	fields := []desk.FieldView{v.Blood, desk.Checked(v.Told.Key, v.Told.Name, v.Told.On)}
	for _, s := range v.Sections {
		fields = append(fields, desk.Checked("on."+s.ID, s.Name, s.On), s.Place)
	}
	for _, k := range v.Kit {
		fields = append(fields, desk.Checked(k.Key, k.Name, k.On))
	}
	for _, c := range v.Calls {
		fields = append(fields, callList.Fields(c.Index, c.Name.Value, c.Number.Value)...)
	}
	return fields
}

func (v choiceView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func choiceOf(d *desk.Desk, form url.Values, errs desk.FormErrors) choiceView {
	c := &d.Plan.Card
	v := choiceView{Card: d.Href("card"), FormState: desk.FormState{Error: errs["form"], Try: d.Href("on-card/try"), Save: d.Href("on-card")}}
	ticked := func(key string, stored bool) bool {
		if form != nil {
			return form.Has(key)
		}
		return stored
	}
	all := *c
	all.Off = nil
	for i, s := range chosen(&all) {
		v.Sections = append(v.Sections, sectionRow{ID: s.id, Name: s.name, On: ticked("on."+s.id, !slices.Contains(c.Off, s.id)),
			Place: desk.FieldView{Key: "place." + s.id, Label: "Place of: " + s.name, Value: desk.Typed(form, "place."+s.id, strconv.Itoa(i+1)), Error: errs["place."+s.id]}})
	}
	l, _ := d.Plan.Loadout(d.Loadout)
	for _, item := range limp.Items() {
		is, said := d.Plan.InKit(l, item)
		t := tick{Key: "kit." + item.ID, Name: item.Name, On: ticked("kit."+item.ID, is)}
		if is && !said {
			t.Sub = "by what is packed"
		}
		v.Kit = append(v.Kit, t)
	}
	for i := range desk.RowsOf(form, "who", len(c.Call)) {
		var stored plan.Call
		if i < len(c.Call) {
			stored = c.Call[i]
		}
		who, number := desk.RowKey("who", i), desk.RowKey("number", i)
		v.Calls = append(v.Calls, callRow{Index: i, Error: errs[who],
			Name: desk.FieldView{Key: who, Label: "Who", Value: desk.Typed(form, who, stored.Name)}, Number: desk.FieldView{Key: number, Label: "Number", Value: desk.Typed(form, number, stored.Number)}})
	}
	v.Blood = desk.FieldView{Key: "blood", Label: "Blood group", Value: desk.Typed(form, "blood", c.Blood), Error: errs["blood"]}
	v.Told = tick{Key: "told", Name: "These stand on the card, for whoever finds it", On: ticked("told", c.Told)}
	return v
}

// readChoice is the plan with the card as typed.
func readChoice(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	was := &d.Plan.Card
	c := plan.Card{Blood: strings.TrimSpace(form.Get("blood")), Told: form.Has("told")}
	places := map[string]int{}
	for _, s := range sections {
		if !form.Has("on." + s.id) {
			c.Off = append(c.Off, s.id)
		}
		n, err := strconv.Atoi(strings.TrimSpace(form.Get("place." + s.id)))
		if err != nil || n < 1 || n > 99 {
			errs["place."+s.id] = "a number from 1 on"
		}
		places[s.id] = n
		c.Order = append(c.Order, s.id)
	}
	slices.SortStableFunc(c.Order, func(a, b string) int { return places[a] - places[b] })
	if usual := slices.EqualFunc(c.Order, sections, func(id string, s section) bool { return id == s.id }); usual {
		c.Order = nil
	}
	l, _ := d.Plan.Loadout(d.Loadout)
	for _, item := range limp.Items() {
		guess := d.Plan.Packed(l, item)
		_, said := d.Plan.InKit(l, item)
		switch on := form.Has("kit." + item.ID); {
		case on && (said || !guess):
			c.Kit = append(c.Kit, item.ID)
		case !on && (said || guess):
			c.NoKit = append(c.NoKit, item.ID)
		}
	}
	for i := 0; form.Has(desk.RowKey("who", i)); i++ {
		call := plan.Call{Name: strings.TrimSpace(form.Get(desk.RowKey("who", i))), Number: strings.TrimSpace(form.Get(desk.RowKey("number", i)))}
		switch {
		case call == plan.Call{}:
		case call.Name == "" || call.Number == "":
			errs[desk.RowKey("who", i)] = "a name and a number"
			fallthrough
		default:
			c.Call = append(c.Call, call)
		}
	}
	changed.Card = c
	if same(was, &c) {
		return &changed, nil, errs
	}
	return &changed, []string{"Trail card: what stands on it"}, errs
}

// same reports whether two cards say the same.
func same(a, b *plan.Card) bool {
	return a.Blood == b.Blood && a.Told == b.Told && slices.Equal(a.Order, b.Order) && slices.Equal(a.Off, b.Off) && slices.Equal(a.Kit, b.Kit) && slices.Equal(a.NoKit, b.NoKit) && slices.Equal(a.Call, b.Call)
}
