package desk

import (
	"cmp"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/parts"
)

// DraftView is what the form of a part asks of its kind.
type DraftView struct {
	Asks        []askView
	Guards      bool
	UsualGuards string // what such parts keep whole, in words
	Covers      []coverRow
}

// askView is a group of what the sheet asks.
type askView struct {
	Name     string
	Fields   []FieldView // numbers and words
	Picks    []partPick
	Severals []severalView
}

type partPick struct {
	Key, Label string
	Options    []OptionView
}

type checkView struct {
	Key, Label string
	On         bool
}

type severalView struct {
	Label, Help string
	Checks      []checkView
	Any         bool
}

// coverRow is a place that is guarded, against what and how well.
type coverRow struct {
	Index   int
	Places  []OptionView
	Against []checkView
	Stops   []OptionView
	Error   string
}

// Fields lists the values of the form, for what changed in two places.
func (v DraftView) Fields() []FieldView {
	var fields []FieldView
	for _, ask := range v.Asks {
		fields = append(fields, ask.Fields...)
		for _, p := range ask.Picks {
			fields = append(fields, Selected(p.Key, p.Label, p.Options))
		}
		for _, s := range ask.Severals {
			for _, c := range s.Checks {
				fields = append(fields, Checked(c.Key, s.Label+" "+c.Label, c.On))
			}
		}
	}
	for _, row := range v.Covers {
		place := Selected(RowKey("cover", row.Index), "Guards", row.Places)
		fields = append(fields, place, Selected(RowKey("stops", row.Index), "How well", row.Stops))
		for _, c := range row.Against {
			fields = append(fields, Checked(c.Key, c.Label, c.On))
		}
	}
	return fields
}

// DraftOf shows all that the form of a part asks of its kind, as typed before as kept.
func (d *Desk) DraftOf(draft *parts.Draft, typed url.Values, errs FormErrors) DraftView {
	var v DraftView
	on := func(key string, kept bool) bool {
		if typed != nil {
			return typed.Has(key)
		}
		return kept
	}
	for _, ask := range draft.Asks() {
		v.Asks = append(v.Asks, askOf(d, ask, on, typed, errs))
	}
	kept := draft.Covers()
	if v.Guards = kept != nil; !v.Guards {
		return v
	}
	covers := *kept
	v.UsualGuards = usualGuards(draft.Slot)
	for i := range RowsOf(typed, "cover", len(covers)) {
		var c parts.Cover
		if i < len(covers) {
			c = covers[i]
		}
		row := coverRow{
			Index: i, Error: errs[RowKey("stops", i)], Stops: strengths(Typed(typed, RowKey("stops", i), c.Stops.String())),
			Places: OptionsOf(parts.Vulnerable(), Typed(typed, RowKey("cover", i), string(c.Place)), "Nothing more"),
		}
		for _, h := range parts.Hazards() {
			key := RowKey("against."+h.Value, i)
			kept := slices.ContainsFunc(c.Against, func(a guard.Hazard) bool { return string(a) == h.Value })
			row.Against = append(row.Against, checkView{key, h.Name, on(key, kept)})
		}
		v.Covers = append(v.Covers, row)
	}
	return v
}

// strengths are how well a guard stops what it is against, in words; a share that is none of
// them stays as it was said.
func strengths(now string) []OptionView {
	var list []entry.Option
	for _, s := range parts.Strengths() {
		list = append(list, entry.Option{Value: strconv.Itoa(s.Percent) + " %", Name: s.Word})
	}
	if now != "" && !entry.Among(list, now) {
		list = append(list, entry.Option{Value: now, Name: now + " of it"})
	}
	return OptionsOf(list, now, "how well?")
}

// usualGuards names the places that a guard of one's own keeps whole while nobody says.
func usualGuards(slot parts.Slot) string {
	var names []string
	for _, c := range parts.UsualCovers(slot) {
		info, _ := guard.PlaceOf(c.Place)
		if name := strings.ToLower(info.Name); !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	return strings.Join(names, ", ")
}

// askOf shows one group.
func askOf(d *Desk, ask parts.Asked, on func(key string, kept bool) bool, typed url.Values, errs FormErrors) askView {
	v := askView{Name: ask.Name}
	for _, p := range ask.Picks {
		v.Picks = append(v.Picks, partPick{p.Key, p.Label, OptionsOf(p.Options, Typed(typed, p.Key, p.Get()), cmp.Or(p.Unsaid, "Not said"))})
	}
	for _, t := range ask.Texts {
		v.Fields = append(v.Fields, FieldView{Key: t.Key, Label: t.Label, Help: t.Help, Value: Typed(typed, t.Key, *t.Words)})
	}
	for _, f := range ask.Fields {
		v.Fields = append(v.Fields, FieldOf(d.Units, f, typed, errs))
	}
	for _, s := range ask.Severals {
		shown := severalView{Label: s.Label, Help: s.Help}
		have := s.Get()
		for _, o := range s.Options {
			key := s.Key + "." + o.Value
			c := checkView{key, o.Name, on(key, slices.Contains(have, o.Value))}
			shown.Checks, shown.Any = append(shown.Checks, c), shown.Any || c.On
		}
		v.Severals = append(v.Severals, shown)
	}
	return v
}

// ReadDraft is the part that a form of [Desk.DraftOf] describes; what cannot be of it stands by
// its field.
func (d *Desk) ReadDraft(draft *parts.Draft, form url.Values, errs FormErrors) *parts.Part {
	for _, ask := range draft.Asks() {
		readAsk(d, ask, form, errs)
	}
	if covers := draft.Covers(); covers != nil {
		*covers = readCovers(d, form, errs)
	}
	part := draft.Done()
	var wrong entry.Problems
	part.Validate(&wrong, "part")
	for _, problem := range wrong.List {
		if key := parts.KeyAt(strings.TrimPrefix(problem.Path, "part.")); errs[key] == "" {
			errs[key] = problem.What
		}
	}
	return part
}

// readAsk reads one group into the sheet.
func readAsk(d *Desk, ask parts.Asked, form url.Values, errs FormErrors) {
	Enter(d.Units, ask.Fields, form, errs)
	for _, p := range ask.Picks {
		p.Set(form.Get(p.Key))
	}
	for _, t := range ask.Texts {
		*t.Words = strings.TrimSpace(form.Get(t.Key))
	}
	for _, s := range ask.Severals {
		var have []string
		for _, o := range s.Options {
			if form.Has(s.Key + "." + o.Value) {
				have = append(have, o.Value)
			}
		}
		s.Set(have)
	}
}

// readCovers reads the rows of what a part guards.
func readCovers(d *Desk, form url.Values, errs FormErrors) []parts.Cover {
	var list []parts.Cover
	for i := range RowsOf(form, "cover", 0) {
		c := parts.Cover{Place: guard.Place(form.Get(RowKey("cover", i)))}
		if c.Place == "" {
			continue
		}
		for _, h := range parts.Hazards() {
			if form.Has(RowKey("against."+h.Value, i)) {
				c.Against = append(c.Against, guard.Hazard(h.Value))
			}
		}
		key := RowKey("stops", i)
		err := d.Units.Enter(&c.Stops, form.Get(key), "%")
		switch {
		case err != nil:
			errs[key] = err.Error()
		case !c.Stops.Known():
			errs[key] = "say how well it stops that"
		case len(c.Against) == 0:
			errs[key] = "say against what"
		case !(c.Stops.Base() >= 0 && c.Stops.Base() <= 1):
			errs[key] = c.Stops.String() + " is outside 0–100 %"
		}
		list = append(list, c)
	}
	return list
}
