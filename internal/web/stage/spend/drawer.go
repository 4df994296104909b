package spend

import (
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/web/desk"
)

// drawerView is the parts drawer: every part there is, searched and held against
// the plan.
type drawerView struct {
	Has                bool
	Query, Price, Mass string
	Slots              []desk.OptionView
	Fits               bool
	Problem            string
	List               desk.OptionList
	Found, Shown       int
	Keys               []decisionKey
	Find, Choose, Own  string
}

// decisionKey is the key that decides on the part in focus.
type decisionKey struct{ Key, Decision, Name string }

// decisionKeys are letters that no other key of the plan has.
var decisionKeys = map[plan.Decision]string{
	plan.Chosen: "c", plan.Ordered: "o", plan.Owned: "m", plan.OnTheBike: "f", plan.Undecided: "d", plan.WhenItBreaks: "k", plan.NotUntil: "n", plan.Rejected: "x", plan.TakenOff: "t", plan.AtHome: "h",
}

// drawerMost is how many parts are held against the plan at once.
const drawerMost = 40

func drawerPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return s.PartsPage(w, r, "drawer", func(d *desk.Desk, tried desk.Laid) (any, error) {
		return drawer(d, r.URL.Query(), tried)
	})
}

func drawer(d *desk.Desk, query url.Values, tried desk.Laid) (drawerView, error) {
	v := drawerView{
		Has: d.Plan.Bike != nil, Query: strings.TrimSpace(query.Get("q")), Price: query.Get("price"), Mass: query.Get("mass"), Fits: !query.Has("q") || query.Has("fits"),
		Find: d.At() + "/drawer", Choose: d.At() + "/choose", Own: d.Href("part"),
	}
	if !v.Has {
		return v, nil
	}
	v.Slots = append(v.Slots, desk.OptionView{Value: "", Name: "Every place", Selected: query.Get("slot") == ""})
	for _, info := range parts.Kinds() {
		v.Slots = append(v.Slots, desk.OptionView{Value: string(info.Slot), Name: info.Name, Selected: string(info.Slot) == query.Get("slot")})
	}
	for _, o := range plan.Decisions() {
		if key, ok := decisionKeys[plan.Decision(o.Value)]; ok { // the others are of what was had
			v.Keys = append(v.Keys, decisionKey{key, o.Value, o.Name})
		}
	}
	found, err := search(d, v, parts.Slot(query.Get("slot")))
	if err != nil {
		v.Problem = err.Error()
		return v, nil
	}
	v.Found, v.Shown = len(found), min(len(found), drawerMost)
	keep := []string{"q", v.Query, "slot", query.Get("slot"), "price", v.Price, "mass", v.Mass}
	if v.Fits {
		keep = append(keep, "fits", "on")
	}
	v.List, err = held(d, found[:v.Shown], keep, tried)
	return v, err
}

// search is the parts that the filters let through.
func search(d *desk.Desk, v drawerView, slot parts.Slot) ([]*parts.Part, error) {
	built := d.Plan.Build(d.Loadout)
	var mass unit.Mass
	if err := d.Units.Enter(&mass, v.Mass, "kg"); err != nil {
		return nil, errors.New("mass: " + err.Error())
	}
	price, err := d.Units.Amount(v.Price, d.Plan.Currency)
	if err != nil {
		return nil, errors.New("price: " + err.Error())
	}
	words := strings.Fields(strings.ToLower(v.Query))
	var found []*parts.Part
	for _, p := range d.Shelf {
		info, _ := parts.KindOf(p.Slot)
		text := strings.ToLower(p.Name + " " + p.Note + " " + info.Name)
		home, _, known := d.Plan.Home(p.Price)
		switch {
		case slot != "" && p.Slot != slot,
			slices.ContainsFunc(words, func(word string) bool { return !strings.Contains(text, word) }),
			v.Fits && !d.Shelf.CouldFit(built, p),
			price.Known() && !(known && home.Known() && home.Minor() <= price.Minor()),
			mass.Known() && !(p.Mass.Known() && p.Mass.In("kg") <= mass.In("kg")):
			continue
		}
		found = append(found, p)
	}
	return found, nil
}

// held holds parts of any slot against the plan.
func held(d *desk.Desk, found []*parts.Part, keep []string, tried desk.Laid) (desk.OptionList, error) {
	columns := []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Mass", "loaded-mass"), desk.Moves("Needs", "needs")}
	list := desk.OptionList{Slot: "drawer", Name: "Parts", Whole: true}
	for _, c := range columns {
		list.Columns = append(list.Columns, c.Title)
	}
	choices := make([]plan.Choice, len(found))
	for i, p := range found {
		choices[i] = plan.Choice{Slot: p.Slot, Part: p}
	}
	var err error
	if list.Options, err = d.Rows(choices, "drawer", columns, keep, tried); err != nil {
		return list, err
	}
	for i, p := range found {
		info, _ := parts.KindOf(p.Slot)
		list.Options[i].Sub = strings.TrimSuffix(info.Name+", "+list.Options[i].Sub, ", ")
	}
	return list, nil
}

// Count of what is found, in words.
func (v drawerView) Count() string {
	if v.Found > v.Shown {
		return strconv.Itoa(v.Found) + " parts; the first " + strconv.Itoa(v.Shown) + " are held against the plan. Narrow it down."
	}
	return strconv.Itoa(v.Found) + " parts"
}
