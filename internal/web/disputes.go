package web

import (
	"net/http"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/words"
)

// disputesView is where riders disagree, each side with this plan's figures.
type disputesView struct {
	Has      bool
	Disputes []disputeView
}

type disputeView struct {
	Name, About string
	Sides       []sideView
}

type sideView struct {
	School, Says string
	Part         string
	Figures      []lineupRow
	Href         string
	Current      bool
}

// dispute is a question that riders answer both ways.
type dispute struct {
	name, about string
	slot        plan.Slot
	place       guard.Place
	sides       []side
}

// side is one answer; among the parts for the slot it takes the first that it
// likes. One that likes none leaves the place bare.
type side struct {
	school, says string
	likes        func(p *plan.Part) bool
}

var disputes = []dispute{
	{"Hand guards", "A lever that breaks is a lever that is carried; a wrist that is caught is not.", plan.HandGuards, guard.Levers, []side{
		{"Full bar", "Levers and bar ends stay whole in every fall. A rare trapped wrist is the price.", provides("bar-ends")},
		{"Open", "Twigs, stones and cold are kept off and hands come out freely; falls take a lever.", func(p *plan.Part) bool { return !provides("bar-ends")(p) }},
		{"When it breaks", "A spare lever under the seat weighs less than any guard.", nil},
	}},
	{"Skid plate", "Each can cover well or badly; look at what is behind it.", plan.SkidPlate, guard.Sump, []side{
		{"Aluminium", "Takes the blow and shows it; rings, and thin soft alloy dents.", onFrame(func(p *plan.Part) bool { return !provides("wraps-cases")(p) })},
		{"Plastic", "Slides over, is quiet and springs back; melts on a bare header, hides the drain.", provides("wraps-cases")},
		{"When it breaks", "Epoxy, a strap and luck: on smooth ground many never need more.", nil},
	}},
	{"Engine bars", "They must touch first; low ones save no fairing.", plan.EngineBars, guard.Cases, []side{
		{"Bars", "Cases, and some of tank and cooler, survive a fall on the road side.", func(p *plan.Part) bool { return true }},
		{"None", "Mass, width and knees; a bonded cover on the case does half of it.", nil},
	}},
	{"Headlamp guard", "Wanted more once the mudguard is raised.", plan.LampGuard, guard.Lamp, []side{
		{"Clear", "All the light, until dust has scratched it.", func(p *plan.Part) bool { return p.ID == "lamp-clear" }},
		{"Mesh", "Takes the hard stone; a little light is lost.", func(p *plan.Part) bool { return p.ID != "lamp-clear" }},
		{"When it breaks", "A lamp is replaced in town; ride by day until then.", nil},
	}},
}

func provides(tag string) func(*plan.Part) bool {
	return func(p *plan.Part) bool {
		for _, t := range p.Provides {
			if t == tag {
				return true
			}
		}
		return false
	}
}

func onFrame(likes func(*plan.Part) bool) func(*plan.Part) bool {
	return func(p *plan.Part) bool { return p.Guard != nil && p.Guard.Mount == plan.ToFrame && likes(p) }
}

func (s *Server) disputesPage(w http.ResponseWriter, r *http.Request) error {
	return s.partsPage(w, r, "disputes", func(d *desk, _ []plan.Choice) (any, error) {
		view := disputesView{Has: d.Plan.Bike != nil}
		if !view.Has {
			return view, nil
		}
		for _, q := range disputes {
			shown, err := d.dispute(q)
			if err != nil {
				return nil, err
			}
			view.Disputes = append(view.Disputes, shown)
		}
		return view, nil
	})
}

// dispute holds each side of one against the plan.
func (d *desk) dispute(q dispute) (disputeView, error) {
	v := disputeView{Name: q.name, About: q.about}
	built, own := d.Plan.Build(d.loadout), d.Plan.Chosen(q.slot, d.loadout)
	var choices []plan.Choice
	for _, side := range q.sides {
		c := plan.Choice{Slot: q.slot}
		if side.likes != nil {
			for _, p := range d.shelf {
				if p.Slot == q.slot && built.Fits(p) && side.likes(p) && (c.Part == nil || (own != nil && own.ID == p.ID)) {
					c.Part = p
				}
			}
			if c.Part == nil {
				continue // nothing on the shelf goes on this bike
			}
		}
		shown := sideView{School: side.school, Says: side.says, Part: "nothing", Current: own == nil && c.Part == nil}
		if c.Part != nil {
			shown.Part, shown.Current = c.Part.Name, own != nil && own.ID == c.Part.ID
		}
		choices = append(choices, c)
		v.Sides = append(v.Sides, shown)
	}
	choices = d.Plan.Scoped(choices, d.loadout)
	alternatives := make([]eval.Alternative, len(choices))
	for i, c := range choices {
		alternatives[i] = eval.Alternative{Label: v.Sides[i].School, Plan: d.Plan.With(c)}
	}
	differences, err := d.compare(alternatives...)
	if err != nil {
		return v, err
	}
	for i, diff := range differences {
		v.Sides[i].Href = d.href("disputes", tries(choices[i:i+1])...)
		v.Sides[i].Figures = d.sideFigures(q.place, choices[i].Part, diff.After)
	}
	return v, nil
}

func (d *desk) sideFigures(place guard.Place, part *plan.Part, after *eval.LoadoutReport) []lineupRow {
	price, mass := "–", "–"
	if part != nil && part.Price.Known() {
		price = part.Price.Display()
	}
	if part != nil && part.Mass.Known() {
		mass = d.units.Plain(part.Mass.In("kg"), "kg")
	}
	rows := []lineupRow{{"Price", []string{price}}, {"Mass", []string{mass}}}
	for _, r := range after.Facts.Risks {
		if r.Place.Place == place {
			rows = append(rows, lineupRow{"Breaks", []string{chance(r.Left.Broken)}}, lineupRow{"Strands", []string{chance(r.Left.Stranded)}},
				lineupRow{"Repair to expect", []string{d.repair(r.Left.Worth)}}, lineupRow{"Days to expect", []string{words.Number(r.Left.Days, 2) + " d"}})
		}
	}
	return rows
}
