package ranging

import (
	"fmt"
	"math"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
)

const (
	usualReserve = 15.0 // % [practice]

	// From what chance of running dry on a leg is looked at, and too much [memory].
	dryWatch, dryOver = 0.005, 0.05
)

var (
	usableFormula = sheet.Formula{Text: "usable = Σ (what it holds − what never reaches the engine)", Origin: sheet.Computed}
	rangeFormula  = sheet.Formula{Text: "range = usable × (1 − reserve) / need × km, on ground like the leg's", Origin: sheet.Computed}
	needFormula   = sheet.Formula{Text: "need = k_road × computed on road + k_loose × computed on loose ground", Origin: sheet.Computed}
	anchorFormula = sheet.Formula{Text: "k = known consumption / computed, the bike as it came, rider alone: half paved road, a quarter motorway at 105 km/h, a quarter town", Origin: sheet.Computed}
	usesFormula   = sheet.Formula{Text: "consumption = need / km × 100", Origin: sheet.Computed}
	shortFormula  = sheet.Formula{Text: "legs whose margin before the reserve is below zero in the middle of the band", Origin: sheet.Computed}
	leaderFormula = sheet.Formula{Text: "the smallest range of the group leads", Origin: sheet.Practice}
)

// ranging holds every leg of the way against the fuel on board.
func ranging(r *study.Run) {
	usable(r)
	legs(r.All)
	distance(r)
	leg, _ := r.Range.Decides()
	consumption(r, leg)
	margin(r, leg)
	dryChance(r, leg)
	legsShort(r)
	factor(r, leg)
}

// usable is the fuel that can be burnt, with every carrier full.
func usable(r *study.Run) {
	c := r.Figure(figure.UsableFuel)
	b := r.Built.Bike
	tank := fuel.Tank{Reserve: usualReserve / 100}
	if r.Plan.Brief.Reserve.Known() {
		tank.Reserve = r.Plan.Brief.Reserve.In("")
	}
	var in []sheet.Value
	for i := range r.Built.Fuels {
		f := &r.Built.Fuels[i]
		tank.UsableL += f.HoldsL - f.UnusedL
		tank.SpreadL = math.Hypot(tank.SpreadL, f.SpreadL)
		if f.Part == nil {
			holds, lost := c.Bike("tank", "tank", "L", &b.Tank), sheet.Value{Name: "fuel never reached", Number: f.UnusedL, Unit: "L", Origin: b.OriginOf("unusable")}
			if f.Usual > 0 {
				lost.Origin, lost.Note = sheet.Memory, "usual"
			}
			if c.Sheet != nil {
				in = append(in, holds, lost)
			}
		} else if c.Sheet != nil {
			in = append(in, sheet.Value{Name: f.Part.Name, Number: f.HoldsL, Unit: "L", Origin: f.Part.Origin},
				sheet.Value{Name: "of it never reached", Number: f.UnusedL, Unit: "L", Origin: f.Part.Origin})
		}
	}
	r.Range.Tank = tank
	c.Is(tank.UsableL)
	if c.Sheet != nil {
		c.Sheet.Step(usableFormula, study.Computed("usable", tank.UsableL, "L"), in...)
	}
	c.Plain()
}

// legs holds every leg against the fuel on board.
func legs(f *facts.All) {
	p, out := f.Plan, &f.Range
	wind := p.Brief.Headwind.In("km/h")
	b := burningOf(f.Machine, p.Brief.Cruise.In("km/h"), wind, f.Learning.FlatPer100Km)
	still := burningOf(f.Machine, p.Brief.Cruise.In("km/h"), 0, f.Learning.FlatPer100Km)
	rest := p.Brief.Mix().Or(terrain.Only(terrain.Paved))
	out.Legs = make([]facts.Leg, len(f.Way))
	out.Deciding = 0
	for i := range f.Way {
		l := &f.Way[i]
		amount, mix, km := need(l, &b, rest)
		litres, spread := f.Learning.Taught.Litres(amount)
		calm := litres
		if wind > 0 {
			amount, _, _ := need(l, &still, rest)
			calm, _ = f.Learning.Taught.Litres(amount)
		}
		out.Legs[i] = facts.Leg{StillL: calm, From: l.From, To: l.To, FromKm: l.FromKm, ToKm: l.ToKm, Ends: l.Ends, UpM: l.UpM, Mix: mix, Leg: out.Tank.Cover(km, litres, spread)}
		if p.Route != nil {
			out.Legs[i].Shut = p.Route.Shut(l.FromKm, l.ToKm)
		}
		if spare(&out.Legs[i]) < spare(&out.Legs[out.Deciding]) {
			out.Deciding = i
		}
	}
	for i, m := range p.Group {
		if m.Range.Known() && (out.Leader == nil || m.Range.Base() < out.Leader.Range.Base()) {
			out.Leader = &p.Group[i]
		}
	}
}

// spare is how much of a leg the thirsty end of the band covers, 1 for just all.
func spare(l *facts.Leg) float64 {
	low, _, _ := l.RangeKm()
	return low / l.Km
}

// distance is how far it goes before the reserve at the thirsty end of the band, on
// the leg that has the least to spare, against that leg.
func distance(r *study.Run) {
	c := r.Figure(figure.Distance)
	f := &r.Range
	lacksFuel(c)
	leg, _ := f.Decides()
	low, mid, high := leg.RangeKm()
	own := low
	if f.Leader != nil && f.Leader.Range.In("km") < low {
		low = f.Leader.Range.In("km")
		mid, high = min(mid, low), min(high, low)
	}
	for i := range r.Built.Fuels {
		c.Usual += int32(r.Built.Fuels[i].Usual)
	}
	c.Is(low)
	c.Band(low, high)
	f.Km, f.MidKm = low, mid
	if r.Plan.Route == nil {
		c.Brief("longest gap between pumps", "km", &r.Plan.Brief.Gap)
	}
	if r.Plan.Route != nil || r.Plan.Brief.Gap.Known() {
		f.GapKm = leg.Km
	}
	if c.Sheet != nil {
		explainLeg(c, leg)
		c.Sheet.Step(rangeFormula, study.Computed("middle of the band", mid, "km"), study.Computed("usable", f.Tank.UsableL, "L"),
			study.Computed("reserve", 100*f.Tank.Reserve, "%"), study.Computed("need", leg.NeedL, "L"), study.Computed("leg", leg.Km, "km"))
		c.Sheet.Step(rangeFormula, study.Computed("thirsty end, passed nine times in ten", own, "km"), study.Computed("spread of the need", leg.SpreadL, "L"))
		if f.Leader != nil {
			c.Sheet.Step(leaderFormula, study.Computed("range that counts", low, "km"), study.Computed("own", own, "km"),
				sheet.Value{Name: f.Leader.Name, Number: f.Leader.Range.In("km"), Unit: "km", Origin: sheet.Rider})
		}
	}
	unsaid := !r.Plan.Brief.Mix().Said() && r.Plan.Route == nil // then it is of paved roads
	c.Against(f.GapKm, mid < leg.Km, low < leg.Km || flat(c, leg) || low*(1-unapproved(r)) < leg.Km || unsaid)
	if unsaid {
		c.Unsure(study.Ground)
	}
}

// unapproved is the share of the usable fuel that is in what nobody has called approved for
// it: a verdict does not lean on that.
func unapproved(r *study.Run) float64 {
	litres := 0.0
	for i := range r.Built.Fuels {
		if fuel := &r.Built.Fuels[i]; fuel.Part != nil && fuel.Slot != parts.FuelTank && !parts.Approved.Yes(fuel.Part) {
			litres += fuel.HoldsL - fuel.UnusedL
		}
	}
	if litres == 0 {
		return 0
	}
	return litres / r.Range.Tank.UsableL
}

// flat reports whether a leg's need is the bare known consumption on ground that takes
// more.
func flat(c study.Calc, leg facts.Leg) bool {
	return !c.Run.Machine.Known() && leg.Mix.Road() < roadOnly
}

// roadOnly is the share of road from which one consumption holds for all of a leg.
const roadOnly = 0.98

// lacksFuel notes what the range cannot do without.
func lacksFuel(c study.Calc) {
	b := c.Run.Built.Bike
	if main := &c.Run.Built.Fuels[0]; main.Part == nil {
		c.Bike("tank", "tank", "L", &b.Tank)
	}
	leg, _ := c.Run.Range.Decides()
	if math.IsNaN(leg.NeedL) {
		c.Bike("economy", "consumption", "L/100 km", &b.Economy)
	}
	if !math.IsNaN(c.Run.Learning.Anchor) {
		lacksModel(c)
	}
}

// lacksModel notes what the model of consumption cannot do without, on a bike whose
// sheet is whole: the bare known consumption in its place would be too little.
func lacksModel(c study.Calc) {
	m := &c.Run.Machine
	if m.Known() {
		return
	}
	if math.IsNaN(c.Run.Built.FinalRatio()) {
		c.Lacks("sprockets (Gearing)")
	}
	if math.IsNaN(m.CircumferenceMM) || math.IsNaN(m.TyreRoad) {
		c.Lacks("both tyres, size and kind (Tyres)")
	}
	if math.IsNaN(m.MassKg) {
		c.Lacks("loaded mass")
	}
}

// explainLeg writes down what a leg takes.
func explainLeg(c study.Calc, leg facts.Leg) {
	m, learning := c.Run.Machine, &c.Run.Learning
	model := &learning.Taught
	if !m.Known() {
		c.Sheet.Note("A number that the model of consumption needs is missing (displacement, gearbox, drag area, tyres or mass), so the consumption is taken as the same on every ground: too little where it is loose, so this is never better than watch.")
	} else {
		b := c.Run.Built.Bike
		c.Sheet.Step(anchorFormula, study.Computed("k, before any fill", learning.Anchor, ""), sheet.Value{Name: "known consumption", Number: b.Economy.In("L/100 km"), Unit: "L/100 km", Origin: b.OriginOf("economy")})
		if k := learning.Anchor; k < factorLow || k > factorHigh {
			c.Sheet.Note(fmt.Sprintf("The known consumption is %.2f times what the engine's data come to, outside %.1f–%.1f of it: a unit, a displacement, the gearbox, a fill that was not full, or a rider unlike others. Three fills from full to full settle it.", k, factorLow, factorHigh))
		}
		cruise := c.Run.Plan.Brief.Cruise.In("km/h")
		for i, g := range terrain.Grounds() {
			if leg.Mix.At(i) > 0 {
				explainGround(c, g, m.On(g, travelling(g, cruise)))
			}
		}
		if wind := c.Run.Plan.Brief.Headwind; wind.Known() {
			c.Sheet.Step(fuel.WindFormula, study.Computed("need in still air", leg.StillL, "L"), sheet.Value{Name: "headwind, on motorway and paved roads", Number: wind.In("km/h"), Unit: "km/h", Origin: sheet.Rider})
		}
		c.Sheet.Note("Each ground in the highest gear that keeps the engine lively, in the air of the route's heights. Petrol with a tenth of alcohol takes about 4 % more litres.")
	}
	if n := len(model.Each); n > 0 {
		c.Sheet.Step(fuel.LearnFormula, study.Computed("k_road", model.Road, ""), study.Computed("intervals from full to full", float64(n), ""))
		c.Sheet.Step(fuel.LearnFormula, study.Computed("k_loose", model.Loose, ""), study.Computed("spread from ride to ride", 100*model.Ride, "%"))
	} else {
		c.Sheet.Note("No fills yet: three from full to full correct the model and narrow the band.")
	}
	c.Sheet.Step(needFormula, study.Computed(fmt.Sprintf("need from %s to %s", leg.From, leg.To), leg.NeedL, "L"), study.Computed("k_road", model.Road, ""), study.Computed("k_loose", model.Loose, ""), study.Computed("leg", leg.Km, "km"), study.Computed("climb", leg.UpM, "m"))
}

// explainGround writes down the work of a km of one ground.
func explainGround(c study.Calc, g terrain.Ground, w fuel.Work) {
	density := air.SeaLevel
	out := func(name string, v float64) sheet.Value { return study.Computed(name+", "+g.Name, v, "kJ/km") }
	m := c.Run.Machine
	c.Sheet.Step(fuel.FrictionFormula, out("friction", w.Friction), study.Computed("displacement", 1000*m.DisplacementL, "cc"), sheet.Value{Name: "fmep", Number: fuel.FrictionKPa(m.DisplacementL), Unit: "kPa", Origin: sheet.Memory},
		study.Computed("turns per km", w.RPM*60/w.SpeedKmh, ""), study.Computed("engine speed", w.RPM, "rpm"), study.Computed("speed", w.SpeedKmh, "km/h"), study.Computed("gear", float64(w.Gear), ""))
	c.Sheet.Step(fuel.PaceFormula, out("braking", w.Pace), sheet.Value{Name: "times per km", Number: g.Brakings, Origin: sheet.Memory}, study.Computed("mass, half the fuel", m.MassKg, "kg"))
	c.Sheet.Step(fuel.OverrunFormula, study.Computed("on the overrun, "+g.Name, 100*w.Overrun(density), "%"))
	c.Sheet.Step(fuel.WorkFormula, out("at the wheel, level, at sea level", w.Wheel(density, 0)),
		study.Rolling(g), study.Computed("drag area", m.DragAreaM2, "m²"), study.Computed("ρ", density, "kg/m³"))
	c.Sheet.Step(fuel.BurnFormula, study.Computed("computed, "+g.Name, 100*w.Litres(density, 0), "L/100 km"), sheet.Value{Name: "slip", Number: 100 * w.Slip, Unit: "%", Origin: sheet.Memory},
		sheet.Value{Name: "η_indicated", Number: w.Efficiency, Origin: sheet.Memory})
}

// consumption on the leg that decides.
func consumption(r *study.Run, leg facts.Leg) {
	c := r.Figure(figure.Consumption)
	lacksFuel(c)
	c.Is(leg.Per100Km())
	c.Band((leg.NeedL-fuel.BandSigma*leg.SpreadL)/leg.Km*100, (leg.NeedL+fuel.BandSigma*leg.SpreadL)/leg.Km*100)
	if c.Sheet != nil {
		explainLeg(c, leg)
		c.Sheet.Step(usesFormula, study.Computed("consumption", leg.Per100Km(), "L/100 km"), study.Computed("need", leg.NeedL, "L"), study.Computed("leg", leg.Km, "km"))
	}
	c.Plain()
}

// margin is what that leg leaves before the reserve.
func margin(r *study.Run, leg facts.Leg) {
	c := r.Figure(figure.LegMargin)
	lacksFuel(c)
	c.Is(leg.MarginL)
	if c.Sheet != nil {
		explainLeg(c, leg)
		c.Sheet.Step(fuel.MarginFormula, study.Computed("margin", leg.MarginL, "L"), study.Computed("usable", leg.HaveL, "L"), study.Computed("reserve", leg.ReserveL, "L"), study.Computed("need", leg.NeedL, "L"))
	}
	c.Judged(leg.Short(), leg.Thirsty() || flat(c, leg))
}

// dryChance is the greatest chance of running dry on a leg.
func dryChance(r *study.Run, worst facts.Leg) {
	c := r.Figure(figure.DryChance)
	lacksFuel(c)
	for i := range r.Range.Legs {
		if l := &r.Range.Legs[i]; l.Dry > worst.Dry {
			worst = *l
		}
	}
	c.Is(100 * worst.Dry)
	if c.Sheet != nil {
		explainLeg(c, worst)
		c.Sheet.Step(fuel.DryFormula, study.Computed("chance", 100*worst.Dry, "%"), study.Computed("usable", worst.HaveL, "L"), study.Computed("need", worst.NeedL, "L"), study.Computed("σ of both", worst.SpreadL, "L"))
	}
	c.Judged(worst.Dry > dryOver, worst.Dry > dryWatch)
}

// legsShort counts the legs that do not reach.
func legsShort(r *study.Run) {
	c := r.Figure(figure.LegsShort)
	lacksFuel(c)
	count, in := 0, []sheet.Value(nil)
	for i := range r.Range.Legs {
		l := &r.Range.Legs[i]
		if l.Short() {
			count++
		}
		if c.Sheet != nil {
			in = append(in, study.Computed("margin, "+l.From+" to "+l.To, l.MarginL, "L"))
		}
	}
	c.Is(float64(count))
	if c.Sheet != nil {
		c.Sheet.Step(shortFormula, study.Computed("legs", float64(count), ""), in...)
	}
	c.Judged(count > 0, false)
}

// factor is what this bike burns against the model.
func factor(r *study.Run, leg facts.Leg) {
	c := r.Figure(figure.FuelFactor)
	k := r.Learning.Taught.Road
	if math.IsNaN(k) {
		c.Lacks("consumption (Bike), or three fills (Range)")
	}
	c.Is(k)
	if c.Sheet != nil {
		explainLeg(c, leg)
	}
	c.Plain()
}
