package web

import (
	"net/http"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
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

// dispute is a question that riders answer both ways, about a place that breaks or
// by figures of the bike.
type dispute struct {
	name, about string
	place       guard.Place
	figures     []figure.ID
	sides       []side
}

// side is one answer; among the parts for its slot it takes the first that it
// likes. One that likes none leaves the slot as it came.
type side struct {
	school, says string
	slot         plan.Slot
	likes        func(p *plan.Part) bool
}

// disputes by the page that shows them.
var disputes = map[string][]dispute{"disputes": {
	{"Hand guards", "A lever that breaks is a lever that is carried; a wrist that is caught is not.", guard.Levers, nil, []side{
		{"Full bar", "Levers and bar ends stay whole in every fall. A rare trapped wrist is the price.", plan.HandGuards, provides("bar-ends")},
		{"Open", "Twigs, stones and cold are kept off and hands come out freely; falls take a lever.", plan.HandGuards, func(p *plan.Part) bool { return !provides("bar-ends")(p) }},
		{"When it breaks", "A spare lever under the seat weighs less than any guard.", plan.HandGuards, nil},
	}},
	{"Skid plate", "Each can cover well or badly; look at what is behind it.", guard.Sump, nil, []side{
		{"Aluminium", "Takes the blow and shows it; rings, and thin soft alloy dents.", plan.SkidPlate, onFrame(func(p *plan.Part) bool { return !provides("wraps-cases")(p) })},
		{"Plastic", "Slides over, is quiet and springs back; melts on a bare header, hides the drain.", plan.SkidPlate, provides("wraps-cases")},
		{"When it breaks", "Epoxy, a strap and luck: on smooth ground many never need more.", plan.SkidPlate, nil},
	}},
	{"Engine bars", "They must touch first; low ones save no fairing.", guard.Cases, nil, []side{
		{"Bars", "Cases, and some of tank and cooler, survive a fall on the road side.", plan.EngineBars, func(p *plan.Part) bool { return true }},
		{"None", "Mass, width and knees; a bonded cover on the case does half of it.", plan.EngineBars, nil},
	}},
	{"Headlamp guard", "Wanted more once the mudguard is raised.", guard.Lamp, nil, []side{
		{"Clear", "All the light, until dust has scratched it.", plan.LampGuard, func(p *plan.Part) bool { return p.ID == "lamp-clear" }},
		{"Mesh", "Takes the hard stone; a little light is lost.", plan.LampGuard, func(p *plan.Part) bool { return p.ID != "lamp-clear" }},
		{"When it breaks", "A lamp is replaced in town; ride by day until then.", plan.LampGuard, nil},
	}},
}, "opinions": {
	{"Higher grips", "Both add up; look at the cables before either.", "", []figure.ID{"bar-short", "needs"}, []side{
		{"Risers", "The bar that you know, higher; the cheapest way, as far as the cables go.", plan.Risers, func(p *plan.Part) bool { return p.Adds(plan.BarRise) >= 20 }},
		{"A new bar", "Shape as well as height: aluminium springs back, steel bends and is bent back.", plan.Handlebar, func(p *plan.Part) bool { return p.Adds(plan.BarRise) >= 25 }},
		{"Roll it", "A bar rolled a little ahead costs nothing and answers most of it.", plan.Risers, nil},
	}},
	{"The seat", "Try the standard one first, for a whole day.", "", []figure.ID{"seat-hours", "seat-reach", "knee", "needs"}, []side{
		{"As it came", "A day will tell; many need no more.", plan.Seat, nil},
		{"Foam or a cover", "Half a day with an upholsterer, or a cover that moves from bike to bike.", plan.Seat, func(p *plan.Part) bool { return p.Sets(plan.SeatHours) == 4 }},
		{"Another seat", "Made for hours; taller stands easier, lower reaches the ground.", plan.Seat, func(p *plan.Part) bool { return p.Sets(plan.SeatHours) >= 6 }},
	}},
	{"The way", "What finds it, and what it needs.", "", []figure.ID{"needs"}, []side{
		{"Paper", "No battery, no glare; somebody has to have drawn it.", plan.Navigator, provides("paper")},
		{"Your phone", "It is there already; its camera and socket suffer.", plan.Navigator, provides("shaken-camera")},
		{"A device of its own", "Sealed and dear, or cheap and replaceable.", plan.Navigator, provides("draws-power")},
	}},
}, "carrying": {
	{"Soft or hard", "What gives in a fall, and what locks.", "", []figure.ID{"loaded-mass", "axle-rear", "bag-fullest", "range", "cost"}, []side{
		{"Soft", "Lighter; gives when a leg is under it; abrades, wants a shield and straps pulled tight again.", plan.SideBags, bagOf(plan.SoftBag)},
		{"Hard", "Lockable, tidy, a table in the evening; heavy, wide, traps legs and bends in a crash.", plan.SideBags, bagOf(plan.HardBag)},
		{"None", "One night less, and everything in a roll: nothing rides lighter.", plan.SideBags, nil},
	}},
	{"Rack or rackless", "What moves between bikes, and what is quick to pack.", "", []figure.ID{"loaded-mass", "axle-rear", "left-right", "cost", "own-hours"}, []side{
		{"Rackless", "Light, cheap, moves to the next bike; slow to pack, and the seat comes off last.", plan.SideBags, bagOf(plan.Rackless)},
		{"On a rack", "Off in a minute, clear of wheel and pipe; the rack weighs and costs, and takes the pillion's pegs.", plan.SideRack, func(p *plan.Part) bool { return p.Rack != nil }},
	}},
	{"The tail", "The worst place for anything heavy, and the handiest.", "", []figure.ID{"rack-load", "front-share", "centre-height", "cost"}, []side{
		{"A roll", "For what is light and large: it lies low across the seat.", plan.TailBag, func(p *plan.Part) bool { return p.Bag != nil && !p.Bag.Handy }},
		{"A box", "Takes a helmet, locks; high and behind, on a subframe that was not asked.", plan.TopBox, func(p *plan.Part) bool { return p.Bag != nil }},
		{"Nothing", "What does not go into the sides stays at home.", plan.TailBag, nil},
	}},
}}

func bagOf(kind plan.BagKind) func(*plan.Part) bool {
	return func(p *plan.Part) bool { return p.Bag != nil && p.Bag.Kind == kind }
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

func (s *Server) disputesPage(page string) http.HandlerFunc {
	return s.handle(func(w http.ResponseWriter, r *http.Request) error {
		return s.partsPage(w, r, page, func(d *desk, _ []plan.Choice) (any, error) {
			view := disputesView{Has: d.Plan.Bike != nil}
			if !view.Has {
				return view, nil
			}
			for _, q := range disputes[page] {
				shown, err := d.dispute(page, q)
				if err != nil {
					return nil, err
				}
				view.Disputes = append(view.Disputes, shown)
			}
			return view, nil
		})
	})
}

// dispute holds each side of one against the plan.
func (d *desk) dispute(page string, q dispute) (disputeView, error) {
	v := disputeView{Name: q.name, About: q.about}
	built := d.Plan.Build(d.loadout)
	var choices []plan.Choice
	for _, side := range q.sides {
		c, own := plan.Choice{Slot: side.slot}, d.Plan.Chosen(side.slot, d.loadout)
		if side.likes != nil {
			for _, p := range d.shelf {
				if p.Slot == side.slot && d.shelf.CouldFit(built, p) && side.likes(p) && (c.Part == nil || (own != nil && own.ID == p.ID)) {
					c.Part = p
				}
			}
			if c.Part == nil {
				continue // nothing on the shelf goes on this bike
			}
		}
		shown := sideView{School: side.school, Says: side.says}
		switch {
		case c.Part != nil:
			shown.Part, shown.Current = c.Part.Name, own != nil && own.ID == c.Part.ID
		case own != nil:
			shown.Part = "Without " + own.Name
		default:
			shown.Part, shown.Current = "As it is", true
		}
		choices = append(choices, c)
		v.Sides = append(v.Sides, shown)
	}
	choices = d.Plan.Scoped(choices, d.loadout)
	alternatives := make([]eval.Alternative, len(choices))
	for i, c := range choices {
		alternatives[i] = eval.Alternative{Label: v.Sides[i].School, Plan: d.Plan.With(c)}
	}
	differences, err := d.on.Preview(alternatives...)
	if err != nil {
		return v, err
	}
	for i, diff := range differences {
		v.Sides[i].Href = d.href(page, tries(choices[i:i+1])...)
		v.Sides[i].Figures = d.sideFigures(q, choices[i].Part, diff.After)
	}
	return v, nil
}

func (d *desk) sideFigures(q dispute, part *plan.Part, after *eval.LoadoutReport) []lineupRow {
	price, mass := "–", "–"
	if part != nil && part.Price.Known() {
		price = part.Price.Display()
	}
	if part != nil && part.Mass.Known() {
		mass = d.units.Plain(part.Mass.In("kg"), "kg")
	}
	rows := []lineupRow{{"Price", []string{price}}, {"Mass", []string{mass}}}
	for _, r := range after.Facts.Risks {
		if r.Place.Place == q.place {
			rows = append(rows, lineupRow{"Breaks", []string{chance(r.Left.Broken)}}, lineupRow{"Strands", []string{chance(r.Left.Stranded)}},
				lineupRow{"Repair to expect", []string{d.repair(r.Left.Worth)}}, lineupRow{"Days to expect", []string{words.Number(r.Left.Days, 2) + " d"}})
		}
	}
	for _, id := range q.figures {
		if f, ok := after.Figure(id); ok {
			rows = append(rows, lineupRow{f.Name, []string{d.units.Value(f)}})
		}
	}
	return rows
}
