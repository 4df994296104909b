package eval

import (
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
	"valiantmule/internal/core/verdict"
)

const (
	usualReserve = 15.0  // % [practice]
	anyLegKm     = 100.0 // what range is computed over where neither route nor gap is known
	poolKm       = 1.0   // a pump so near the start is where the trip starts from
)

var usableFormula = sheet.Formula{Text: "usable = Σ (what it holds − what never reaches the engine)", Origin: sheet.Computed}

// usable is the fuel that can be burnt, with every carrier full.
func (r *run) usable() Figure {
	c := r.figure("usable-fuel", "Fuel on board", "L")
	b := r.built.Bike
	tank := fuel.Tank{Reserve: usualReserve / 100}
	if r.plan.Brief.Reserve.Known() {
		tank.Reserve = r.plan.Brief.Reserve.In("")
	}
	var in []sheet.Value
	for _, f := range r.built.Fuels {
		holds, lost := sheet.Value{Name: "tank", Number: f.HoldsL, Unit: "L", Origin: b.OriginOf("tank")}, sheet.Value{Name: "of it never reached", Number: f.UnusedL, Unit: "L", Origin: b.OriginOf("unusable")}
		if f.Part != nil {
			holds.Name, holds.Origin, lost.Origin = f.Part.Name, f.Part.Origin, f.Part.Origin
		} else {
			holds, lost = c.bike("tank", "tank", "L", b.Tank), c.bike("unusable", "fuel never reached", "L", b.Unusable)
		}
		tank.UsableL += holds.Number - lost.Number
		tank.SpreadL = math.Hypot(tank.SpreadL, f.SpreadL)
		in = append(in, holds, lost)
	}
	r.facts.Range.Tank = tank
	c.is(tank.UsableL)
	if c.working != nil {
		c.working.Step(usableFormula, computed("usable", tank.UsableL, "L"), in...)
	}
	return c.plain()
}

// lie is what of a leg lies on one kind of ground: how far, how high, how steep.
// What it burns is linear in all three, so sums do.
type lie struct{ km, kmDensity, upM float64 }

// wayLeg is one leg as the route has it, before any bike.
type wayLeg struct {
	from, to     string
	fromKm, toKm float64
	ends         *plan.Stop
	detourKm     float64
	upM          float64
	on           [9]lie // by terrain.Grounds; the last where nobody has said
}

const unsaid = 8 // the index of ground that nobody has said

// legsOf cuts the route at the stops that are open.
func legsOf(route *plan.Route) []wayLeg {
	grounds := groundsOf(route)
	open := route.Open()
	legs := make([]wayLeg, 0, len(open)+1)
	leg := wayLeg{from: "the start"}
	if len(open) > 0 && open[0].At.In("km") <= poolKm {
		leg.from, leg.detourKm, leg.fromKm = open[0].Name, 0, open[0].At.In("km")
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
		leg.to, leg.toKm, leg.ends = s.Name, at, s
		leg.detourKm += detour
		legs = append(legs, walk.to(leg))
		leg = wayLeg{from: s.Name, fromKm: at, detourKm: detour}
	}
	if end-leg.fromKm > poolKm || len(legs) == 0 {
		leg.to, leg.toKm = "the end", end
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
		list[i] = stretch{s.From.In("km"), s.To.In("km"), slices.IndexFunc(terrain.Grounds(), func(g terrain.Ground) bool { return g.Kind == s.Ground })}
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
func (w *walker) to(leg wayLeg) wayLeg {
	at := leg.fromKm
	for at < leg.toKm-1e-9 && w.node+1 < len(w.nodes) {
		a, b := w.nodes[w.node], w.nodes[w.node+1]
		if b.Km() <= at+1e-9 {
			w.node++
			continue
		}
		for w.ground < len(w.grounds) && w.grounds[w.ground].to <= at+1e-9 {
			w.ground++
		}
		next, ground := min(leg.toKm, b.Km()), unsaid
		if w.ground < len(w.grounds) {
			if s := w.grounds[w.ground]; s.from > at+1e-9 {
				next = min(next, s.from)
			} else {
				next, ground = min(next, s.to), s.ground
			}
		}
		share := (next - at) / (b.Km() - a.Km())
		km, up := next-at, share*(b.UpM()-a.UpM())
		on := &leg.on[ground]
		on.km += km
		on.kmDensity += km * air.Density((a.EleM()+b.EleM())/2)
		on.upM += up
		leg.upM += up
		at = next
	}
	return leg
}

// gapLeg is the brief's gap, or any distance, where there is no route.
func gapLeg(p *plan.Plan) wayLeg {
	km := anyLegKm
	if p.Brief.Gap.Known() {
		km = p.Brief.Gap.In("km")
	}
	l := wayLeg{from: "one pump", to: "the next", toKm: km}
	l.on[unsaid] = lie{km: km, kmDensity: km * air.Density(0)}
	return l
}

// need is what a leg takes, before the multipliers, and on what ground it lies. Where
// nobody has said, and on the way to a pump beside the route, it is taken for granted.
func (l *wayLeg) need(b *burning, rest terrain.Mix) (a fuel.Amount, mix terrain.Mix, km float64) {
	mix = make(terrain.Mix, len(terrain.Grounds()))
	add := func(g int, on lie) {
		if on.km == 0 {
			return
		}
		kind := terrain.Grounds()[g].Kind
		mix[kind] += on.km
		km += on.km
		litres := on.km * b.at(g, on.kmDensity/on.km, on.upM/on.km)
		if isRoad(kind) {
			a.Road += litres
		} else {
			a.Loose += litres
		}
	}
	for g, ground := range terrain.Grounds() {
		on := l.on[g]
		if share := rest[ground.Kind]; share > 0 && l.on[unsaid].km > 0 {
			on.km, on.kmDensity, on.upM = on.km+share*l.on[unsaid].km, on.kmDensity+share*l.on[unsaid].kmDensity, on.upM+share*l.on[unsaid].upM
		}
		if ground.Kind == terrain.Paved {
			on.km, on.kmDensity = on.km+l.detourKm, on.kmDensity+l.detourKm*air.Density(0)
		}
		add(g, on)
	}
	for k := range mix {
		mix[k] /= km
	}
	return a, mix, km
}

// legs holds every leg against the fuel on board.
func (r *run) legs(learning Learning) {
	f := &r.facts.Range
	f.Model, f.Anchor, f.Deciding = learning.Taught, learning.Anchor, -1
	r.facts.Machine = r.machine()
	b := burningOf(r.facts.Machine, r.plan.Brief.Cruise.In("km/h"), learning.flat)
	rest := r.plan.Brief.Mix()
	if rest == nil {
		rest = terrain.Mix{terrain.Paved: 1}
	}
	for _, l := range r.all.legs {
		amount, mix, km := l.need(&b, rest)
		litres, spread := f.Model.Litres(amount)
		leg := knock.Leg{From: l.from, To: l.to, FromKm: l.fromKm, ToKm: l.toKm, Ends: l.ends, UpM: l.upM, Mix: mix, Leg: f.Tank.Cover(km, litres, spread)}
		if r.plan.Route != nil {
			leg.Shut = r.plan.Route.Shut(l.fromKm, l.toKm)
		}
		f.Legs = append(f.Legs, leg)
		if d := f.Deciding; d < 0 || spare(leg) < spare(f.Legs[d]) {
			f.Deciding = len(f.Legs) - 1
		}
	}
	for i, m := range r.plan.Group {
		if m.Range.Known() && (f.Leader == nil || m.Range.Base() < f.Leader.Range.Base()) {
			f.Leader = &r.plan.Group[i]
		}
	}
}

// spare is how much of a leg the thirsty end of the band covers, 1 for just all.
func spare(l knock.Leg) float64 {
	low, _, _ := l.RangeKm()
	return low / l.Km
}

var (
	rangeFormula  = sheet.Formula{Text: "range = usable × (1 − reserve) / need × km, on ground like the leg's", Origin: sheet.Computed}
	needFormula   = sheet.Formula{Text: "need = k_road × computed on road + k_loose × computed on loose ground", Origin: sheet.Computed}
	anchorFormula = sheet.Formula{Text: "k = known consumption / computed, the bike as it came, rider alone, on a paved road", Origin: sheet.Computed}
	usesFormula   = sheet.Formula{Text: "consumption = need / km × 100", Origin: sheet.Computed}
	shortFormula  = sheet.Formula{Text: "legs whose margin before the reserve is below zero in the middle of the band", Origin: sheet.Computed}
	leaderFormula = sheet.Formula{Text: "the smallest range of the group leads", Origin: sheet.Practice}
)

// rangeGauge is the distance before the reserve at the thirsty end of the band, on
// the leg that has the least to spare, against that leg.
func (r *run) rangeGauge() Figure {
	c := r.gauge("range")
	f := &r.facts.Range
	c.lacksFuel()
	leg := f.Legs[f.Deciding]
	low, mid, high := leg.RangeKm()
	own := low
	if f.Leader != nil && f.Leader.Range.In("km") < low {
		low = f.Leader.Range.In("km")
		mid, high = min(mid, low), min(high, low)
	}
	c.is(low)
	if c.figure.Known {
		c.figure.Banded, c.figure.Low, c.figure.High = true, low, high
	}
	r.facts.RangeKm, r.facts.RangeMidKm, r.facts.GapKm = low, mid, math.NaN()
	if r.plan.Route == nil {
		c.brief("longest gap between pumps", "km", r.plan.Brief.Gap)
	}
	if r.plan.Route != nil || r.plan.Brief.Gap.Known() {
		r.facts.GapKm = leg.Km
		c.figure.Limited, c.figure.Limit = true, leg.Km
	}
	if c.working != nil {
		c.explainLeg(leg)
		c.working.Step(rangeFormula, computed("middle of the band", mid, "km"), computed("usable", f.Tank.UsableL, "L"),
			computed("reserve", 100*f.Tank.Reserve, "%"), computed("need", leg.NeedL, "L"), computed("leg", leg.Km, "km"))
		c.working.Step(rangeFormula, computed("thirsty end, passed nine times in ten", own, "km"), computed("spread of the need", leg.SpreadL, "L"))
		if f.Leader != nil {
			c.working.Step(leaderFormula, computed("range that counts", low, "km"), computed("own", own, "km"),
				sheet.Value{Name: f.Leader.Name, Number: f.Leader.Range.In("km"), Unit: "km", Origin: sheet.Rider})
		}
	}
	switch {
	case !c.figure.Known || !c.figure.Limited:
		c.figure.State = verdict.Unknown
	case low >= leg.Km:
		c.figure.State = verdict.OK
	case mid >= leg.Km:
		c.figure.State = verdict.Watch
	default:
		c.figure.State = verdict.Over
	}
	return c.figure
}

// lacksFuel notes what the range cannot do without.
func (c *calc) lacksFuel() {
	b := c.run.built.Bike
	if main := c.run.built.Fuels[0]; main.Part == nil {
		c.bike("tank", "tank", "L", b.Tank)
		c.bike("unusable", "fuel never reached", "L", b.Unusable)
	}
	if leg := c.run.facts.Range.Legs[c.run.facts.Range.Deciding]; math.IsNaN(leg.NeedL) {
		c.bike("economy", "consumption", "L/100 km", b.Economy)
	}
}

// explainLeg writes down what a leg takes.
func (c *calc) explainLeg(leg knock.Leg) {
	f, m := &c.run.facts.Range, c.run.facts.Machine
	model := f.Model
	if !m.Known() {
		c.working.Note("A number that the model of consumption needs is missing (displacement, gearbox, drag area, tyres or mass), so the consumption is taken as the same on every ground.")
	} else {
		c.working.Step(anchorFormula, computed("k, before any fill", f.Anchor, ""), sheet.Value{Name: "known consumption", Number: c.run.built.Bike.Economy.In("L/100 km"), Unit: "L/100 km", Origin: c.run.built.Bike.OriginOf("economy")})
		cruise := c.run.plan.Brief.Cruise.In("km/h")
		for _, g := range terrain.Grounds() {
			if leg.Mix[g.Kind] > 0 {
				c.explainGround(g, m.On(g, travelling(g, cruise)))
			}
		}
		c.working.Note("Each ground in the highest gear that keeps the engine lively, in the air of the route's heights. Headwind is not in it: it drinks like that much more speed. Petrol with a tenth of alcohol takes about 4 % more litres.")
	}
	if n := len(model.Each); n > 0 {
		c.working.Step(fuel.LearnFormula, computed("k_road", model.Road, ""), computed("intervals from full to full", float64(n), ""))
		c.working.Step(fuel.LearnFormula, computed("k_loose", model.Loose, ""), computed("spread from ride to ride", 100*model.Ride, "%"))
	} else {
		c.working.Note("No fills yet: three from full to full correct the model and narrow the band.")
	}
	c.working.Step(needFormula, computed(fmt.Sprintf("need from %s to %s", leg.From, leg.To), leg.NeedL, "L"), computed("k_road", model.Road, ""), computed("k_loose", model.Loose, ""), computed("leg", leg.Km, "km"), computed("climb", leg.UpM, "m"))
}

// explainGround writes down the work of a km of one ground.
func (c *calc) explainGround(g terrain.Ground, w fuel.Work) {
	density := air.Density(0)
	out := func(name string, v float64) sheet.Value { return computed(name+", "+g.Name, v, "kJ/km") }
	m := c.run.facts.Machine
	c.working.Step(fuel.FrictionFormula, out("friction", w.Friction), computed("displacement", 1000*m.DisplacementL, "cc"),
		computed("turns per km", w.RPM*60/w.SpeedKmh, ""), computed("engine speed", w.RPM, "rpm"), computed("speed", w.SpeedKmh, "km/h"), computed("gear", float64(w.Gear), ""))
	c.working.Step(fuel.PaceFormula, out("braking", w.Pace), sheet.Value{Name: "times per km", Number: g.Brakings, Origin: sheet.Memory}, computed("mass, half the fuel", m.MassKg, "kg"))
	c.working.Step(fuel.WorkFormula, out("at the wheel, level, at sea level", w.Wheel(density, 0)),
		rolling(g), computed("drag area", m.DragAreaM2, "m²"), computed("ρ", density, "kg/m³"))
	c.working.Step(fuel.BurnFormula, computed("computed, "+g.Name, 100*w.Litres(density, 0), "L/100 km"), sheet.Value{Name: "slip", Number: 100 * w.Slip, Unit: "%", Origin: sheet.Memory})
}

// From what chance of running dry on a leg is looked at, and too much [memory].
const dryWatch, dryOver = 0.005, 0.05

// judged is a known figure over or under watch.
func judged(f Figure, over, watch bool) Figure {
	switch {
	case f.State == verdict.Unknown:
	case over:
		f.State = verdict.Over
	case watch:
		f.State = verdict.Watch
	}
	return f
}

// ranging is the figures behind the range.
func (r *run) ranging() []Figure {
	f := &r.facts.Range
	leg := f.Legs[f.Deciding]
	uses := r.figure("consumption", "Consumption there", "L/100 km")
	uses.lacksFuel()
	uses.is(leg.Per100Km())
	if uses.figure.Known {
		uses.figure.Banded = true
		uses.figure.Low, uses.figure.High = (leg.NeedL-fuel.BandSigma*leg.SpreadL)/leg.Km*100, (leg.NeedL+fuel.BandSigma*leg.SpreadL)/leg.Km*100
	}
	if uses.working != nil {
		uses.explainLeg(leg)
		uses.working.Step(usesFormula, computed("consumption", leg.Per100Km(), "L/100 km"), computed("need", leg.NeedL, "L"), computed("leg", leg.Km, "km"))
	}
	margin := r.figure("leg-margin", "Left before the reserve", "L")
	margin.lacksFuel()
	margin.is(leg.MarginL)
	if margin.working != nil {
		margin.explainLeg(leg)
		margin.working.Step(fuel.MarginFormula, computed("margin", leg.MarginL, "L"), computed("usable", leg.HaveL, "L"), computed("reserve", leg.ReserveL, "L"), computed("need", leg.NeedL, "L"))
	}
	dry := r.figure("dry-chance", "Dry before the pump", "%")
	dry.lacksFuel()
	worst := leg
	for _, l := range f.Legs {
		if l.Dry > worst.Dry {
			worst = l
		}
	}
	dry.is(100 * worst.Dry)
	if dry.working != nil {
		dry.explainLeg(worst)
		dry.working.Step(fuel.DryFormula, computed("chance", 100*worst.Dry, "%"), computed("usable", worst.HaveL, "L"), computed("need", worst.NeedL, "L"), computed("σ of both", worst.SpreadL, "L"))
	}
	short := r.figure("legs-short", "Legs that do not reach", "")
	short.lacksFuel()
	count, in := 0, []sheet.Value(nil)
	for _, l := range f.Legs {
		if l.Short() {
			count++
		}
		if short.working != nil {
			in = append(in, computed("margin, "+l.From+" to "+l.To, l.MarginL, "L"))
		}
	}
	short.is(float64(count))
	if short.working != nil {
		short.working.Step(shortFormula, computed("legs", float64(count), ""), in...)
	}
	off := r.figure("fuel-factor", "Burns against the model", "")
	if math.IsNaN(f.Model.Road) {
		off.lacks("consumption (Bike), or three fills (Range)")
	}
	off.is(f.Model.Road)
	if off.working != nil {
		off.explainLeg(leg)
	}
	return []Figure{
		uses.plain(), judged(margin.plain(), leg.MarginL < 0, leg.LowL < 0), judged(dry.plain(), worst.Dry > dryOver, worst.Dry > dryWatch),
		judged(short.plain(), count > 0, false), off.plain(),
	}
}
