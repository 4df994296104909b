package ranging

import (
	"valiantmule/internal/core/air"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
)

const (
	anyLegKm = 100.0 // what range is computed over where neither route nor gap is known
	poolKm   = 1.0   // a pump so near the start is where the trip starts from
)

// wayOf is the legs of the plan's way, one for the brief's gap where there is no
// route.
func wayOf(p *plan.Plan) facts.Way {
	if p.Route != nil {
		return legsOf(p.Route)
	}
	return facts.Way{gapLeg(p)}
}

// legsOf cuts the route at the stops that are open.
func legsOf(route *plan.Route) facts.Way {
	grounds := groundsOf(route)
	open := route.Open()
	legs := make(facts.Way, 0, len(open)+1)
	leg := facts.WayLeg{From: "the start"}
	if len(open) > 0 && open[0].At.In("km") <= poolKm {
		leg.From, leg.DetourKm, leg.FromKm = open[0].Name, 0, open[0].At.In("km")
		open = open[1:]
	}
	end := route.LengthKm()
	walk := &walker{nodes: route.Nodes, grounds: grounds}
	for i := range open {
		s := &open[i]
		at, detour := min(end, s.At.In("km")), 0.0
		if s.Detour.Known() {
			detour = s.Detour.In("km")
		}
		leg.To, leg.ToKm, leg.Ends = s.Name, at, s
		leg.DetourKm += detour
		legs = append(legs, walk.to(leg))
		leg = facts.WayLeg{From: s.Name, FromKm: at, DetourKm: detour}
	}
	if end-leg.FromKm > poolKm || len(legs) == 0 {
		leg.To, leg.ToKm = "the end", end
		legs = append(legs, walk.to(leg))
	}
	return legs
}

// stretch is a ground of the route by its index.
type stretch struct {
	from, to float64
	ground   int
}

func groundsOf(route *plan.Route) []stretch {
	list := make([]stretch, len(route.Ground))
	for i, s := range route.Ground {
		list[i] = stretch{s.From.In("km"), s.To.In("km"), terrain.Index(s.Ground)}
		if list[i].ground < 0 {
			list[i].ground = facts.Unsaid
		}
	}
	return list
}

// walker goes along a route once, from leg to leg.
type walker struct {
	nodes   []track.Node
	grounds []stretch
	node    int // the one before where it stands
	ground  int // the stretch that it stands on or comes to next
}

// to walks a leg to its end and puts its pieces together.
func (w *walker) to(leg facts.WayLeg) facts.WayLeg {
	at := leg.FromKm
	for at < leg.ToKm-1e-9 && w.node+1 < len(w.nodes) {
		a, b := w.nodes[w.node], w.nodes[w.node+1]
		if b.Km() <= at+1e-9 {
			w.node++
			continue
		}
		for w.ground < len(w.grounds) && w.grounds[w.ground].to <= at+1e-9 {
			w.ground++
		}
		next, ground := min(leg.ToKm, b.Km()), facts.Unsaid
		if w.ground < len(w.grounds) {
			if s := w.grounds[w.ground]; s.from > at+1e-9 {
				next = min(next, s.from)
			} else {
				next, ground = min(next, s.to), s.ground
			}
		}
		share := (next - at) / (b.Km() - a.Km())
		km, up := next-at, share*(b.UpM()-a.UpM())
		on := &leg.On[ground]
		on.Km += km
		on.KmDensity += km * air.Density((a.EleM()+b.EleM())/2)
		on.UpM += up
		leg.UpM += up
		at = next
	}
	return leg
}

// gapLeg is the brief's gap, or any distance, where there is no route.
func gapLeg(p *plan.Plan) facts.WayLeg {
	km := anyLegKm
	if p.Brief.Gap.Known() {
		km = p.Brief.Gap.In("km")
	}
	l := facts.WayLeg{From: "one pump", To: "the next", ToKm: km}
	l.On[facts.Unsaid] = facts.Lie{Km: km, KmDensity: km * air.SeaLevel}
	return l
}

// need is what a leg takes, before the multipliers, and on what ground it lies. Where
// nobody has said, and on the way to a pump beside the route, it is taken for granted.
func need(l *facts.WayLeg, b *burning, rest terrain.Mix) (a fuel.Amount, mix terrain.Mix, km float64) {
	add := func(g int, on facts.Lie) {
		if on.Km == 0 {
			return
		}
		kind := terrain.Grounds()[g].Kind
		mix.Add(kind, on.Km)
		km += on.Km
		litres := on.Km * b.at(g, on.KmDensity/on.Km, on.UpM/on.Km)
		if kind.IsRoad() {
			a.Road += litres
		} else {
			a.Loose += litres
		}
	}
	for g, ground := range terrain.Grounds() {
		on := l.On[g]
		if share := rest.At(g); share > 0 && l.On[facts.Unsaid].Km > 0 {
			on.Km, on.KmDensity, on.UpM = on.Km+share*l.On[facts.Unsaid].Km, on.KmDensity+share*l.On[facts.Unsaid].KmDensity, on.UpM+share*l.On[facts.Unsaid].UpM
		}
		if ground.Kind == terrain.Paved {
			on.Km, on.KmDensity = on.Km+l.DetourKm, on.KmDensity+l.DetourKm*air.SeaLevel
		}
		add(g, on)
	}
	return a, mix.Within(km), km
}
