package armour

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// armourView is what may end the ride, place by place, and what guards do about it.
type armourView struct {
	Has     bool
	Missing string
	Says    string
	Drawing draw.Armour
	Hazards []hazardView
	Rows    []riskRow
	Place   *placeView // the one that is looked at
	Working []desk.GaugeView
}

// hazardView is a hazard with its shape in the drawing.
type hazardView struct{ Name, Shape, Events string }

// riskRow is one place of the table.
type riskRow struct {
	Number         int
	Name, Href     string
	Current        bool
	Hazard         string
	Stranded, Left string
	Days, Money    string
	Guards         string
	Shape          string
}

// placeView is a place with its threats and the guards that can be had for it.
type placeView struct {
	Name    string
	Threats []threatView
	Lists   []desk.OptionList
	None    bool // no guard on the shelf does anything for it
}

type threatView struct{ Hazard, Events, Breaks, Left string }

func armourPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return s.PartsPage(w, r, "armour", func(d *desk.Desk, tried desk.Laid) (any, error) {
		view := armourView{Has: d.Plan.Bike != nil}
		if !view.Has {
			return view, nil
		}
		err := armour(d, &view, guard.Place(r.URL.Query().Get("place")), tried)
		return view, err
	})
}

func armour(d *desk.Desk, v *armourView, at guard.Place, tried desk.Laid) error {
	after := d.After
	risks := slices.Clone(after.Facts.Risks)
	if risks == nil {
		v.Missing = "the trip's distance and ground"
		return nil
	}
	slices.SortStableFunc(risks, func(a, b guard.Risk) int {
		return cmp.Or(cmp.Compare(b.Bare.Stranded, a.Bare.Stranded), cmp.Compare(b.Bare.Days, a.Bare.Days), cmp.Compare(b.Bare.Broken, a.Bare.Broken))
	})
	if !slices.ContainsFunc(risks, func(r guard.Risk) bool { return r.Place.Place == at }) {
		at = worstLeft(risks)
	}
	events := guard.Events(after.Facts.Exposed(), d.Plan.Risk.Rates())
	for i, h := range guard.Hazards() {
		if !slices.ContainsFunc(risks, func(r guard.Risk) bool { return r.Threatened(h.Hazard) }) {
			continue // a shaft has no chain that could break
		}
		v.Hazards = append(v.Hazards, hazardView{h.Name, draw.HazardKey(h.Hazard), times(events[i])})
	}
	var marks []draw.Vulnerable
	for i, r := range risks {
		href := d.Href("armour", append(tried.Query(), "place", string(r.Place.Place))...)
		row := riskRow{
			Number: i + 1, Name: r.Place.Name, Href: href, Current: r.Place.Place == at,
			Stranded: desk.Chance(r.Bare.Stranded), Left: desk.Chance(r.Left.Stranded), Days: words.Number(r.Left.Days, 2) + " d", Money: d.Repair(r.Left.Repair),
			Guards: strings.Join(guardsOf(after.Facts.Built, r.Place.Place), ", "), Shape: draw.HazardKey(leading(r)),
		}
		if info, ok := guard.HazardOf(leading(r)); ok {
			row.Hazard = info.Name
		}
		v.Rows = append(v.Rows, row)
		marks = append(marks, draw.Vulnerable{
			Place: r.Place.Place, Hazard: leading(r), Bare: r.Bare.Stranded, Left: r.Left.Stranded, Number: i + 1, Current: row.Current, Href: href,
			Title: fmt.Sprintf("%d %s: strands %s bare, %s now", i+1, r.Place.Name, row.Stranded, row.Left),
		})
		if row.Current {
			place, err := guardsFor(d, r, tried)
			if err != nil {
				return err
			}
			v.Place = place
		}
	}
	v.Drawing = draw.ArmourViews(desk.Silhouette(d.Plan.Bike, after), marks)
	v.Working = d.Gauges(after, "armour", tried, "armour-stranded", "armour-days", "armour-repair", "armour-cover")
	bare, left := guard.Total(risks)
	v.Says = fmt.Sprintf("A broken part ends the ride in %.0f of 100 such trips; without any guard in %.0f.", 100*left.Stranded, 100*bare.Stranded)
	return nil
}

// worstLeft is the place that is most to be feared as the bike is now.
func worstLeft(risks []guard.Risk) guard.Place {
	return slices.MaxFunc(risks, func(a, b guard.Risk) int { return cmp.Compare(a.Left.Stranded, b.Left.Stranded) }).Place.Place
}

// leading is the hazard that threatens a place most, bare.
func leading(r guard.Risk) guard.Hazard {
	return slices.MaxFunc(r.Threats, func(a, b guard.Threat) int { return cmp.Compare(a.Events*a.Breaks, b.Events*b.Breaks) }).Hazard
}

func times(n float64) string {
	digits := 1
	if n < 0.1 {
		digits = 2
	}
	return words.Number(n, digits) + " times"
}

// guardsOf names what is fitted for a place.
func guardsOf(b *plan.Built, place guard.Place) []string {
	var names []string
	for _, f := range b.Fitted {
		if f.Part.Guards(place) {
			names = append(names, f.Part.Name)
		}
	}
	return names
}

// guardsFor lists what threatens a place, and every part of any kind that acts on what does so
// most and goes on, slot by slot.
func guardsFor(d *desk.Desk, r guard.Risk, tried desk.Laid) (*placeView, error) {
	v := &placeView{Name: r.Place.Name}
	for _, t := range r.Threats {
		info, _ := guard.HazardOf(t.Hazard)
		v.Threats = append(v.Threats, threatView{info.Name, times(t.Events), fmt.Sprintf("%.3g %%", 100*t.Breaks), fmt.Sprintf("%.0f %%", 100*t.Left)})
	}
	place, from := r.Place.Place, leading(r)
	columns := []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Mass", "loaded-mass"), {Title: "Strands then", Cell: func(_ words.Units, diff eval.Difference) string {
		for _, after := range diff.After.Facts.Risks {
			if after.Place.Place == place {
				return desk.Chance(after.Left.Stranded)
			}
		}
		return words.Unknown
	}}, desk.Becomes("All in all", "armour-stranded")}
	built := d.Plan.Build(d.Loadout)
	for _, info := range parts.Kinds() {
		fits := func(p *parts.Part) bool { return p.ActsOn(place, from) && built.Fits(p) }
		if !slices.ContainsFunc(d.Shelf, func(p *parts.Part) bool { return p.Slot == info.Slot && fits(p) }) {
			continue
		}
		list, err := d.OptionsFor(info.Slot, "armour", fits, columns, []string{"place", string(place)}, tried)
		if err != nil {
			return nil, err
		}
		v.Lists = append(v.Lists, list)
	}
	v.None = len(v.Lists) == 0
	return v, nil
}
