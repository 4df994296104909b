package eval

import (
	"fmt"
	"math"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

var missingValue = sheet.Value{Number: math.NaN()}

var rollOutFormula = sheet.Formula{Text: "C = one wheel turn along the ground, rider on", Origin: sheet.Measured}

func (r *run) frontCircumference() Figure {
	f := r.circumference("front-circumference", "Front roll-out", plan.FrontTyre, &r.facts.CircumferenceMM.Front, &r.facts.DiameterMM.Front)
	r.standardTyre(plan.FrontTyre, &r.facts.StandardCircumferenceMM.Front, &r.facts.StandardDiameterMM.Front)
	return f
}

func (r *run) rearCircumference() Figure {
	f := r.circumference("rear-circumference", "Rear roll-out", plan.RearTyre, &r.facts.CircumferenceMM.Rear, &r.facts.DiameterMM.Rear)
	r.standardTyre(plan.RearTyre, &r.facts.StandardCircumferenceMM.Rear, &r.facts.StandardDiameterMM.Rear)
	return f
}

func (r *run) circumference(id, name string, slot plan.Slot, circumference, diameter *float64) Figure {
	c := r.figure(id, name, "mm")
	v := c.rollOut(slot)
	*circumference, *diameter = v.Number, math.NaN()
	if t := r.built.Tyre(slot); t != nil {
		*diameter = t.DiameterMM()
	}
	c.is(v.Number)
	return c.plain()
}

// rollOut is the rolling circumference of a tyre: measured, or by its code.
func (c *calc) rollOut(slot plan.Slot) sheet.Value {
	part := c.run.built.Part(slot)
	info, _ := plan.InfoOf(slot)
	if part == nil || part.Tyre == nil {
		c.lacks(info.Name + " (Tyres)")
		return missingValue
	}
	t := part.Tyre
	v := sheet.Value{Name: "roll-out", Number: t.CircumferenceMM(), Unit: "mm", Origin: sheet.Computed, Note: t.Size.String()}
	if t.RollOut.Known() {
		v.Origin = part.Origin
		if c.working != nil {
			c.working.Step(rollOutFormula, v, v)
		}
		return v
	}
	if c.working != nil {
		diameter := computed("D", t.Size.OverallDiameterMM(), "mm")
		c.working.Step(tyre.DiameterFormula, diameter,
			sheet.Value{Name: "width", Number: t.Size.SectionMM, Unit: "mm", Origin: sheet.Maker, Note: t.Size.String()},
			sheet.Value{Name: "aspect", Number: t.Size.Aspect, Unit: "%", Origin: sheet.Maker},
			sheet.Value{Name: "rim", Number: t.Size.RimIn, Unit: "in", Origin: sheet.Maker})
		c.working.Step(tyre.RollingFormula, v, sheet.Value{Name: "k", Number: t.Size.RollingFactor(), Origin: sheet.Memory}, diameter)
	}
	return v
}

func (r *run) standardTyre(slot plan.Slot, circumference, diameter *float64) {
	*circumference, *diameter = math.NaN(), math.NaN()
	if t := r.std.Tyre(slot); t != nil {
		*circumference, *diameter = t.CircumferenceMM(), t.DiameterMM()
	}
}

// final is the final ratio as built: of the sprockets, or of a shaft drive.
func (c *calc) final() sheet.Value {
	if b := c.run.built.Bike; b.Shaft() {
		return c.bike("final_ratio", "shaft's ratio", "", b.FinalRatio)
	}
	pair, ok := c.run.built.Sprockets()
	if !ok {
		c.lacks("sprocket teeth (Gearing)")
		return missingValue
	}
	v := computed("final ratio", pair.Ratio(), "")
	v.Note = fmt.Sprintf("%d/%d", pair.Front, pair.Rear)
	return v
}

// overall is the overall ratio in a gear: the first, or the highest.
func (c *calc) overall(first bool) sheet.Value {
	b := c.run.built.Bike
	primary := c.bike("primary", "primary ratio", "", b.Primary)
	final := c.final()
	if !b.Gearbox.Known() {
		c.lacks("gearbox (Bike)")
		return missingValue
	}
	gear := sheet.Value{Name: "top gear", Number: b.Gearbox.Top(), Origin: b.OriginOf("gearbox")}
	if first {
		gear.Name, gear.Number = "first gear", b.Gearbox.First()
	}
	out := computed("overall ratio", drive.Overall(primary.Number, gear.Number, final.Number), "")
	if c.working != nil {
		c.working.Step(drive.OverallFormula, out, primary, gear, final)
	}
	return out
}

// cruiseRPM is the engine speed in top gear at the brief's cruise.
func (r *run) cruiseRPM() Figure {
	c := r.gauge("cruise-rpm")
	v := c.brief("cruise", "km/h", r.plan.Brief.Cruise)
	r.facts.CruiseKmh = v.Number
	overall := c.overall(false)
	roll := c.rollOut(plan.RearTyre)
	rpm := drive.RPM(v.Number, overall.Number, roll.Number)
	c.is(rpm)
	if c.working != nil {
		c.working.Step(drive.RPMFormula, computed("engine speed", rpm, "rpm"), v, overall, roll)
		c.working.Note("Clutch home, no slip: a driven tyre slips 1–2 % on tarmac.")
	}
	return c.atMost(c.cruiseLimit(), 0.97, verdict.Over)
}

// cruiseLimit is the brief's limit, or else what the bike is comfortable with.
func (c *calc) cruiseLimit() sheet.Value {
	b := &c.run.plan.Brief
	if b.CruiseRPM.Known() {
		return c.brief("cruise limit", "rpm", b.CruiseRPM)
	}
	bike := c.run.built.Bike
	return c.bike("comfort_rpm", "comfortable engine speed", "rpm", bike.ComfortRPM)
}

// crawlSpeed is the slowest that first gear goes with the clutch home.
func (r *run) crawlSpeed() Figure {
	c := r.gauge("crawl-speed")
	clean := c.bike("clean_rpm", "lowest clean engine speed", "rpm", r.built.Bike.CleanRPM)
	overall := c.overall(true)
	roll := c.rollOut(plan.RearTyre)
	v := drive.SpeedKmh(clean.Number, overall.Number, roll.Number)
	c.is(v)
	if c.working != nil {
		c.working.Step(drive.SpeedFormula, computed("walking pace", v, "km/h"), clean, overall, roll)
	}
	return c.atMost(c.brief("walking pace", "km/h", r.plan.Brief.WalkingPace), 0.98, verdict.Over)
}

// gearChange is how much shorter the gearing is than standard, tyre included.
func (r *run) gearChange() Figure {
	c := r.figure("gear-change", "Gearing against standard", "%")
	final := c.final()
	roll := c.rollOut(plan.RearTyre)
	was := final // of a shaft, which nothing changes
	if !r.built.Bike.Shaft() {
		standard, ok := r.std.Sprockets()
		if !ok {
			c.lacks("standard sprockets (Bike)")
		}
		was = sheet.Value{Name: "standard final ratio", Number: standard.Ratio(), Origin: sheet.Maker, Note: fmt.Sprintf("%d/%d", standard.Front, standard.Rear)}
	}
	stock := r.facts.StandardCircumferenceMM.Rear
	if math.IsNaN(stock) {
		c.lacks("standard rear tyre (Bike)")
	}
	change := drive.ChangePercent(final.Number, was.Number, roll.Number, stock)
	r.facts.ChangePercent = change
	c.is(change)
	if c.working != nil {
		c.working.Step(drive.ChangeFormula, computed("change, + is shorter", change, "%"), final, was, roll, computed("standard roll-out", stock, "mm"))
	}
	return c.plain()
}

var evenFormula = sheet.Formula{
	Text:   "a chain closes on an even number of links: the one that the adjuster reaches with the smallest move of the axle",
	Origin: sheet.Practice,
}

// chainLinks is the chain that the pair asks for with the axle as set now.
func (r *run) chainLinks() Figure {
	c := r.figure("chain-links", "Chain", "links")
	if c.byShaft() {
		r.facts.Chain = knock.Chain{ShiftMM: math.NaN(), BestShift: math.NaN()}
		return c.plain()
	}
	exact, pitch := c.exactLinks()
	r.facts.Chain = r.chain(pitch, exact)
	need := math.NaN()
	if !math.IsNaN(exact) {
		need = float64(drive.EvenLinks(exact))
		if best := r.facts.Chain.Best; best > 0 {
			need = float64(best)
		}
	}
	c.is(need)
	if c.working != nil {
		c.working.Step(evenFormula, computed("links", need, ""), computed("pitches", exact, ""))
	}
	return c.plain()
}

// byShaft ends a figure of the chain on a bike that has none.
func (c *calc) byShaft() bool {
	shaft := c.run.built.Bike.Shaft()
	if shaft {
		c.lacks("a chain: this bike drives by shaft")
	}
	return shaft
}

func (c *calc) exactLinks() (exact, pitchMM float64) {
	b := c.run.built.Bike
	pitch, ok := drive.PitchMM(b.Chain)
	if !ok {
		c.lacks("chain number (Bike)")
		pitch = math.NaN()
	}
	centre := c.bike("centre", "sprocket centres", "mm", b.Centre)
	pair, known := c.run.built.Sprockets()
	if !known {
		c.lacks("sprocket teeth (Gearing)")
	}
	exact = drive.ExactLinks(pair, pitch, centre.Number)
	if c.working != nil {
		c.working.Step(drive.ChainFormula, computed("pitches", exact, ""),
			sheet.Value{Name: "z₁ front", Number: float64(pair.Front), Unit: "teeth", Origin: sheet.Computed},
			sheet.Value{Name: "z₂ rear", Number: float64(pair.Rear), Unit: "teeth", Origin: sheet.Computed},
			sheet.Value{Name: "p pitch", Number: pitch, Unit: "mm", Origin: sheet.Published, Note: "chain " + b.Chain + ", ISO 10190"},
			centre)
	}
	return exact, pitch
}

// chain works out where the chain as built puts the axle. Both ends of the shift
// are computed, so a tape measure's error in the centres cancels.
func (r *run) chain(pitchMM, exact float64) knock.Chain {
	b := r.built.Bike
	chain := knock.Chain{
		Links:     int(r.built.Figure(plan.ChainLinks)),
		Exact:     exact,
		ShiftMM:   math.NaN(),
		BestShift: math.NaN(),
		Adjuster:  drive.Adjuster{ForwardMM: b.AdjusterForward.In("mm"), BackMM: b.AdjusterBack.In("mm")},
	}
	was, err := r.facts.StandardCentreMM()
	pair := r.facts.Pair
	if err != nil || pair.Front == 0 || chain.Links == 0 {
		return chain
	}
	now, err := drive.CentreMM(pair, pitchMM, float64(chain.Links))
	if err != nil {
		now = math.Inf(1) // far too short: out of any reach
	}
	if b.AdjusterForward.Known() && b.AdjusterBack.Known() {
		chain.ShiftMM = now - was
		if links, shift, ok := drive.LinksInReach(pair, pitchMM, was, chain.Adjuster); ok {
			chain.Best, chain.BestShift = links, shift
		}
	}
	return chain
}

// axleShift is where the chain as built puts the axle against the standard one.
func (r *run) axleShift() Figure {
	c := r.figure("axle-shift", "Axle moves", "mm")
	if c.byShaft() {
		return c.plain()
	}
	b := r.built.Bike
	c.bike("adjuster_forward", "axle travel forward", "mm", b.AdjusterForward)
	c.bike("adjuster_back", "axle travel back", "mm", b.AdjusterBack)
	if _, ok := drive.PitchMM(b.Chain); !ok {
		c.lacks("chain number (Bike)")
	}
	if r.facts.Chain.Links == 0 {
		c.lacks("links of the chain (Bike)")
	}
	if r.facts.Pair.Front == 0 {
		c.lacks("sprocket teeth (Gearing)")
	}
	c.is(r.facts.Chain.ShiftMM)
	if c.working != nil {
		c.working.Step(drive.CentreFormula, computed("shift, + is back", r.facts.Chain.ShiftMM, "mm"),
			computed("X links", float64(r.facts.Chain.Links), ""),
			computed("z₁ front", float64(r.facts.Pair.Front), "teeth"),
			computed("z₂ rear", float64(r.facts.Pair.Rear), "teeth"))
		c.working.Note("Set the slack at the tightest point of the travel, by the maker's manual.")
	}
	return c.plain()
}
