package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
)

// What heights are computed with where nobody has said [memory]; rake and trail themselves
// stay unknown then.
const (
	usualRakeDeg     = 27.0
	usualWheelbaseMM = 1450.0
)

// poses finds how the bike is turned about its wheels.
func poses(r *study.Run) {
	b, p, w := r.Built.Bike, &r.Poses, &r.Wheels
	or := func(v, usual float64) float64 {
		if math.IsNaN(v) {
			return usual
		}
		return v
	}
	p.Frame = stance.Frame{
		WheelbaseMM: or(b.Wheelbase.In("mm"), usualWheelbaseMM), RakeDeg: or(b.Rake.In("°"), usualRakeDeg), OffsetMM: b.Offset.In("mm"),
		FrontRadiusMM: w.StandardDiameterMM.Front / 2, RearRadiusMM: w.StandardDiameterMM.Rear / 2,
	}
	front, rear := settled(&r.Springs.Front, stance.UsualFront, stance.UsualFrontFree), settled(&r.Springs.Rear, stance.UsualRear, stance.UsualRearFree)
	// Wheel hanging, axles are nearer to the frame by what the fork stands through its clamps,
	// further by what it or the rear is longer.
	slide := r.Plan.Slide()
	through := or(slide.In("mm"), 0) - r.Built.Figure(parts.ForkLength)
	lower := -r.Built.RaisesRearMM()
	at := func(frontMM, rearMM float64) stance.Pose {
		return p.Frame.Stand(stance.Change{
			FrontRadiusMM: w.DiameterMM.Front / 2, RearRadiusMM: w.DiameterMM.Rear / 2, FrontUpMM: through + frontMM - front.cameFree, RearUpMM: lower + rearMM - rear.cameFree,
		})
	}
	p.Static, p.Parked, p.Loaded, p.Pressed = at(front.free, rear.free), at(front.parked, rear.parked), at(front.loaded, rear.loaded), at(front.travel, rear.travel)
	p.Came = p.Frame.Stand(stance.Change{
		FrontRadiusMM: p.Frame.FrontRadiusMM, RearRadiusMM: p.Frame.RearRadiusMM, FrontUpMM: front.cameRider - front.cameFree, RearUpMM: rear.cameRider - rear.cameFree,
	})
	p.FrontRiseMM = r.Heights.Growth.Front - through*math.Cos(p.Frame.RakeDeg*math.Pi/180)
	p.RearRiseMM = r.Heights.Growth.Rear - lower
	p.RakeDegrees = -p.Static.PitchDeg
	p.TrailMM, p.StandardTrailMM = math.NaN(), math.NaN()
	if b.Rake.Known() {
		p.TrailMM, p.StandardTrailMM = p.Static.TrailMM, stance.TrailMM(p.Frame.RakeDeg, p.Frame.OffsetMM, 2*p.Frame.FrontRadiusMM)
	}
	turned(r)
}

// settling is how much of its travel an end uses, standing and ridden, mm.
type settling struct{ cameFree, cameRider, free, parked, loaded, travel float64 }

// settled is by the springs where they are known; where they are not, or what stands on
// them, by the rider alone on the bike as it came, a sag that was measured, or what is
// usual. What the parked bike does then nobody knows.
func settled(e *facts.SpringEnd, usual, usualFree float64) settling {
	s := settling{e.Came.FreeMM, e.Came.RiderMM, e.FreeMM, e.ParkedMM, e.LoadedMM, e.End.TravelMM}
	if math.IsNaN(s.cameFree) {
		s.cameFree = usualFree * s.travel
	}
	if math.IsNaN(s.free) {
		s.free = s.cameFree
	}
	if math.IsNaN(s.cameRider) {
		s.cameRider = usual * s.travel
	}
	if math.IsNaN(s.loaded) {
		s.loaded = s.cameRider
		if more := e.LoadedKg / e.AloneKg; more > 1 { // a spring that nobody knows gives by what is put on it
			s.loaded = math.Min(s.cameRider*more, s.travel)
		}
	}
	return s
}

// turned are the figures of the steering head.
func turned(r *study.Run) {
	b, p := r.Built.Bike, &r.Poses
	begin := func(id figure.ID) (study.Calc, sheet.Value) {
		c := r.Figure(id)
		base := c.Bike("wheelbase", "wheelbase", "mm", &b.Wheelbase)
		if math.IsNaN(r.Heights.Growth.Front) || math.IsNaN(r.Heights.Growth.Rear) {
			c.Lacks("both tyres and both standard tyres")
		}
		if math.IsNaN(p.Static.PitchDeg) {
			c.Lacks("travel of both ends (Bike)")
		}
		return c, base
	}
	show := func(c study.Calc, base, out sheet.Value, more ...sheet.Value) {
		if c.Sheet == nil {
			return
		}
		in := append([]sheet.Value{base, study.Computed("front end rises, wheel hanging", p.FrontRiseMM, "mm"), study.Computed("rear end rises", p.RearRiseMM, "mm"),
			study.Computed("front sag, by itself", r.Springs.Front.FreeMM, "mm"), study.Computed("rear sag, by itself", r.Springs.Rear.FreeMM, "mm")}, more...)
		c.Sheet.Step(stance.PoseFormula, out, in...)
	}

	c, base := begin(figure.RakeChange)
	c.Is(p.RakeDegrees)
	show(c, base, study.Computed("steeper by", p.RakeDegrees, "°"))
	c.Plain()

	c, base = begin(figure.Rake)
	rake := c.Bike("rake", "rake₀", "°", &b.Rake)
	c.Is(p.Static.RakeDeg)
	show(c, base, study.Computed("rake", p.Static.RakeDeg, "°"), rake)
	c.Plain()

	c, base = begin(figure.Trail)
	rake = c.Bike("rake", "rake₀", "°", &b.Rake)
	offset := c.Bike("offset", "offset", "mm", &b.Offset)
	c.Is(p.TrailMM)
	if c.Sheet != nil {
		now := study.Computed("rake ε", p.Static.RakeDeg, "°")
		show(c, base, now, rake)
		c.Sheet.Step(stance.TrailFormula, study.Computed("trail", p.TrailMM, "mm"), now, offset, study.Computed("R", p.Static.FrontRadiusMM, "mm"))
	}
	c.Plain()

	c, base = begin(figure.Wheelbase)
	c.Is(p.Static.WheelbaseMM)
	show(c, base, study.Computed("wheelbase", p.Static.WheelbaseMM, "mm"))
	c.Plain()
}
