package load

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// loadoutsForm is the ways of loading the bike: they are the rider's to name.
var loadoutsForm = desk.StageForm{
	Stage: "loadouts", Title: "The loadouts as typed", Save: "Save the loadouts", Read: readLoadouts,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return loadouts(d, typed, errs), nil
	},
}

type loadoutsView struct {
	Rows  []loadoutRow
	Unit  string
	Overs []changeView
	desk.FormState
}

// loadoutRow is one loadout of the form.
type loadoutRow struct {
	Index                   int
	ID, Name, Pillion, Days string
	Things                  int
	Likes                   []desk.OptionView // of a new one: what it starts from
	By                      []desk.FieldView  // who rides then, where it is somebody else
	ByAnother               bool
	Out, New                bool
	Error                   string
}

// changeView is what changing from the loadout on view to another takes.
type changeView struct {
	To, Takes      string
	On, Off        []string
	Packed, Behind []string
}

var loadoutList = &desk.List{Name: "Loadouts", Columns: append([]string{"loadout", "pillion", "days", "id", "like"}, byKeys()...), Out: "out_loadout"}

// byKeys are the columns of who rides.
func byKeys() (keys []string) {
	for _, f := range new(plan.Person).Fields() {
		keys = append(keys, byKey(f))
	}
	return keys
}

func byKey(f entry.Field) string { return "by_" + f.Key }

func (v loadoutsView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, r := range v.Rows {
		values := []string{r.Name, r.Pillion, r.Days, r.ID, desk.Selected("", "", r.Likes).Value}
		for _, f := range r.By {
			values = append(values, f.Value)
		}
		fields = append(fields, loadoutList.Fields(r.Index, values...)...)
	}
	return fields
}

func (v loadoutsView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func loadouts(d *desk.Desk, form url.Values, errs desk.FormErrors) loadoutsView {
	v := loadoutsView{Unit: d.Units.Of("kg"), FormState: desk.FormState{Error: errs["form"], Try: d.Href("loadouts/try"), Save: d.Href("loadouts")}}
	var likes []entry.Option
	for _, l := range d.Plan.Loadouts {
		likes = append(likes, entry.Option{Value: l.ID, Name: "like " + l.Name})
	}
	for i := range desk.RowsOf(form, "loadout", len(d.Plan.Loadouts)) {
		var stored plan.Loadout
		if i < len(d.Plan.Loadouts) {
			stored = d.Plan.Loadouts[i]
		}
		key := func(name string) string { return desk.RowKey(name, i) }
		row := loadoutRow{
			Index: i, New: stored.ID == "", Things: len(stored.Loads), Out: form.Has(key("out_loadout")), Error: errs[key("loadout")],
			ID: desk.Typed(form, key("id"), stored.ID), Name: desk.Typed(form, key("loadout"), stored.Name), Pillion: desk.Typed(form, key("pillion"), d.Units.Shown(stored.Pillion.String())),
			Days: desk.Typed(form, key("days"), count(stored.Days)),
		}
		by := plan.Person{}
		if stored.By != nil {
			by, row.ByAnother = *stored.By, true
		}
		for _, f := range by.Fields() {
			f.Key, f.Label = key(byKey(f)), strings.Replace(f.Label, "You stand", "Stands", 1)
			field := desk.FieldOf(d.Units, f, form, errs)
			field.Help = ""
			row.ByAnother = row.ByAnother || field.Value != ""
			row.By = append(row.By, field)
		}
		if row.New {
			row.Likes = desk.OptionsOf(likes, desk.Typed(form, key("like"), ""), "starts empty")
		}
		v.Rows = append(v.Rows, row)
	}
	for _, to := range d.Plan.Loadouts {
		if to.ID != d.Loadout {
			v.Overs = append(v.Overs, changeTo(d, to))
		}
	}
	return v
}

// count is a whole number in a form, "" for none.
func count(n int) string {
	if n == 0 {
		return ""
	}
	return strconv.Itoa(n)
}

// changeTo is what changing to a loadout takes, in words.
func changeTo(d *desk.Desk, to plan.Loadout) changeView {
	c := d.Plan.Changeover(d.Loadout, to.ID)
	v := changeView{To: to.Name, Takes: "nothing is fitted or taken off"}
	names := func(lines []*plan.Line) (list []string) {
		for _, l := range lines {
			name := l.Part.Name
			if l.Swap != nil && l.Swap.Tools != "" {
				name += " (" + l.Swap.Tools + ")"
			}
			list = append(list, name)
		}
		return list
	}
	v.On, v.Off, v.Packed, v.Behind = names(c.On), names(c.Off), names(c.Packed), names(c.StayHome)
	switch n := len(c.On) + len(c.Off); {
	case n > 0 && c.Unsaid == n:
		v.Takes = "nobody has said how long it takes: say so beside the part under Spend"
	case c.Unsaid > 0:
		v.Takes = fmt.Sprintf("%.0f min and what nobody has said of %d %s", c.Minutes, c.Unsaid, desk.Plural(c.Unsaid, "part"))
	case n > 0:
		v.Takes = fmt.Sprintf("%.0f min", c.Minutes)
	}
	return v
}

func readLoadouts(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs, like := desk.FormErrors{}, map[string]string{}
	var list []plan.Loadout
	taken := func(id string) bool {
		_, err := d.Plan.Loadout(id)
		return err == nil || slices.ContainsFunc(list, func(l plan.Loadout) bool { return l.ID == id })
	}
	for i := 0; form.Has(desk.RowKey("loadout", i)); i++ {
		field := func(name string) string { return strings.TrimSpace(form.Get(desk.RowKey(name, i))) }
		l := plan.Loadout{ID: field("id"), Name: field("loadout")}
		if form.Has(desk.RowKey("out_loadout", i)) || l.ID == "" && l.Name == "" {
			continue
		}
		key := desk.RowKey("loadout", i)
		if was, err := d.Plan.Loadout(l.ID); err != nil {
			l.ID = plan.LoadoutID(l.Name, taken)
			like[l.ID] = field("like")
		} else {
			l.Loads, l.Pressures = was.Loads, was.Pressures
		}
		var err error
		if l.Days, err = d.Units.Count(field("days")); err != nil {
			errs[key] = "days: " + err.Error()
		}
		if l.Name == "" {
			errs[key] = "say what it is for"
		}
		if err := d.Units.Enter(&l.Pillion, field("pillion"), "kg"); err != nil {
			errs[key] = err.Error()
		} else if err := l.Check(); err != nil {
			errs[key] = err.Error()
		}
		by := plan.Person{}
		for _, f := range by.Fields() {
			if err := d.Units.EnterField(f, field(byKey(f))); err != nil {
				errs[desk.RowKey(byKey(f), i)] = err.Error()
			}
		}
		if by.Known() {
			l.By = &by
		}
		list = append(list, l)
	}
	if len(list) == 0 {
		errs["form"] = "A plan has one loadout at least."
	}
	if len(errs) > 0 {
		return d.Plan, nil, errs
	}
	changed := d.Plan.Relaid(list, like)
	desk.Problems(changed, "loadouts", errs)
	if was, now := loadoutsText(d.Plan.Loadouts), loadoutsText(list); was != now {
		return changed, []string{"Loadouts: " + now}, errs
	}
	return changed, nil, errs
}

func loadoutsText(list []plan.Loadout) string {
	words := make([]string, len(list))
	for i, l := range list {
		words[i] = l.Name
		if l.Days > 0 {
			words[i] += fmt.Sprintf(", %d %s", l.Days, desk.Plural(l.Days, "day"))
		}
		if l.By != nil {
			words[i] += ", ridden by somebody else"
			for _, f := range l.By.Fields() {
				if f.Entry.Known() {
					words[i] += " " + f.Entry.String()
				}
			}
		}
		if l.Pillion.Known() {
			words[i] += ", pillion " + l.Pillion.String()
		}
	}
	return strings.Join(words, "; ")
}
