package ready

import (
	"net/http"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/web/desk"
)

// specialist is somebody who does one thing for a living, and what they ask.
type specialist struct {
	id, name string
	figures  []figure.ID
	slots    []parts.Slot
	back     []string // what is written down when it comes back
}

var specialists = []specialist{
	{"springs", "Spring shop", []figure.ID{figure.SagFront, figure.SagRear, figure.SpringFront, figure.SpringRear, figure.LoadedMass, figure.AxleFront, figure.AxleRear},
		[]parts.Slot{parts.ForkSprings, parts.Fork, parts.ForkOil, parts.ShockSpring, parts.Shock, parts.Links},
		[]string{"Spring rate, front", "Spring rate, rear", "Oil, weight and level", "Clicks from fully in, as set", "Preload, as set", "What was worn"}},
	{"wheels", "Wheel builder", []figure.ID{figure.LoadedMass, figure.AxleFront, figure.AxleRear},
		[]parts.Slot{parts.FrontWheel, parts.RearWheel, parts.FrontTyre, parts.RearTyre, parts.FrontTube, parts.RearTube},
		[]string{"Rim, size and maker's mark", "Spokes, gauge and count", "Offset, against the old one", "Run-out, side and radial", "Spares: spokes of each length"}},
	{"seat", "Upholsterer", []figure.ID{figure.SeatReach},
		[]parts.Slot{parts.Seat},
		[]string{"Foam, kind and height", "Lowest point, against the old one", "Width at the front", "Cover, and how it is fixed"}},
	{"map", "Map, jets", []figure.ID{figure.CruiseRPM},
		[]parts.Slot{parts.Silencer, parts.Header, parts.Airbox, parts.AirFilter, parts.Fuelling},
		[]string{"Map or jets, by number", "Module, by its own number", "Fuel that it asks for", "Limits: revolutions, heat, altitude", "How one goes back to standard"}},
}

// specialistView is a sheet that goes along with the part.
type specialistView struct {
	Kinds              []desk.LinkView
	Name               string
	Rider, Says, Terms []desk.FieldView
	On, Wanted         []desk.FieldView
	Back               []string
	Has                bool
	Loadout            string
}

// specialistPage is the sheet for whom the address names.
func specialistPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "specialist", nil, specialistOf(d, r.URL.Query().Get("for")))
}

func specialistOf(d *desk.Desk, id string) specialistView {
	of := specialists[0]
	v := specialistView{Has: d.Plan.Bike != nil}
	for _, sp := range specialists {
		if sp.id == id {
			of = sp
		}
	}
	for _, sp := range specialists {
		v.Kinds = append(v.Kinds, desk.LinkView{Name: sp.name, Href: d.Href("specialist", "for", sp.id), Current: sp.id == of.id})
	}
	if v.Name = of.name; !v.Has {
		return v
	}
	say := func(list *[]desk.FieldView, label, value string) {
		if value != "" {
			*list = append(*list, desk.FieldView{Label: label, Value: value})
		}
	}
	p := d.Plan
	b := p.Bike
	if loadout, err := p.Loadout(d.Loadout); err == nil {
		v.Loadout = loadout.Name
		say(&v.Rider, "Pillion", d.Units.Shown(loadout.Pillion.String()))
	}
	for _, f := range p.Brief.Person.Fields() {
		say(&v.Rider, f.Label, d.Units.ShownOf(f.Entry))
	}
	say(&v.Rider, "Bike", b.Name)
	for i, g := range terrain.Grounds() {
		if share := p.Brief.Mix().At(i); share > 0 {
			say(&v.Rider, "Of the way, "+g.Name, d.Units.Quantity(100*share, "%"))
		}
	}
	for _, id := range of.figures {
		f, ok := d.Report.Figure(id)
		if ok && f.Known {
			label := f.Name
			if id == figure.SpringFront || id == figure.SpringRear {
				label += ", as computed"
			}
			say(&v.Says, label, d.Units.Value(f))
		}
	}
	if of.id == "springs" {
		for _, f := range []struct {
			label, unit string
			is          study.Quantity
		}{
			{"Fork spring, standard", "N/mm", &b.FrontSpring}, {"Shock spring, standard", "N/mm", &b.RearSpring},
			{"Fork travel", "mm", &b.FrontTravel}, {"Rear travel", "mm", &b.RearTravel}, {"Sag with the rider, rear, measured", "mm", &b.RearSag},
		} {
			if f.is.Known() {
				say(&v.Says, f.label, d.Units.Quantity(f.is.In(f.unit), f.unit))
			}
		}
	}
	built := d.Report.Facts.Built
	for _, slot := range of.slots {
		kind, _ := parts.KindOf(slot)
		if part := d.Report.Facts.Standard.Part(slot); part != nil {
			say(&v.On, kind.Name, part.Name)
		}
		if built.Chosen(slot) {
			say(&v.Wanted, kind.Name, built.Part(slot).Name)
		}
	}
	for i := range p.Lines {
		if l := &p.Lines[i]; l.Part == nil && l.Kind == plan.Workshop && l.Standing() == plan.In {
			say(&v.Wanted, "Work", l.Name)
		}
	}
	v.terms(d)
	v.Back = of.back
	return v
}

// terms are the days and the money that were said.
func (v *specialistView) terms(d *desk.Desk) {
	r := &d.Report.Facts.Ready
	for j := range r.Jobs {
		if job := &r.Jobs[j]; job.Kind == facts.JobShop {
			row := &r.Table.Rows[j]
			v.Terms = append(v.Terms, desk.FieldView{Label: job.Name + ", at " + job.Shop, Value: r.Day(row.Start).String() + " to " + r.Morning(row.End).String()})
		}
	}
	for i := range d.Plan.Ready.Shops {
		if s := &d.Plan.Ready.Shops[i]; s.Costs.Known() {
			v.Terms = append(v.Terms, desk.FieldView{Label: s.Name + " asks", Value: s.Costs.Display()})
		}
	}
}
