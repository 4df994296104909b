package facts

import (
	"math"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/stance"
)

// Sat are the sessions in which sag was measured that stand, the oldest first.
type Sat []logbook.Reading

// Springs are both ends' suspension, as built and set for the loadout.
type Springs struct {
	Use         stance.Use
	Front, Rear SpringEnd
}

// Of is one end.
func (s *Springs) Of(rear bool) *SpringEnd {
	if rear {
		return &s.Rear
	}
	return &s.Front
}

// SpringEnd is one end: its model, what stands on it, and how it sags. Front travel and
// sag are along the leg. What follows from a spring that nobody knows is NaN, but for a
// sag that was measured.
type SpringEnd struct {
	End       stance.End  // as built and set, corrected by what was measured
	By        *parts.Part // that brings the spring, nil for the bike's own
	Adjuster  parts.Adjuster
	Measured  Measured
	Tape      Tape // where nobody knows the spring
	Corrected stance.Correction
	Doubtful  bool // a sag was measured, and no number can be blamed for it

	// As it is set and bought, before what was measured corrects it.
	SetMM, SetNmm float64
	// AsIf is set where nobody has set the preload of springs that go in: what stands here is
	// what the load wants, as far as the adjuster goes.
	AsIf bool

	Came Sags // as it came, its rider alone

	// Sprung masses, kg, and the sag under them, mm: the bike with what is fitted to it,
	// its rider on it, everything on it, and everything but the rider.
	FreeKg, AloneKg, LoadedKg float64
	FreeMM, AloneMM, LoadedMM float64
	ParkedMM                  float64

	Band, FreeBand stance.Band // shares of the travel

	WantPreloadMM  float64 // with everything on it, for the middle of the band; below 0 where the spring is too stiff
	AlonePreloadMM float64 // the same with the rider alone
	WantNmm        float64 // a spring that this rider with this load wants
	RightFreeMM    float64 // free sag, at the preload that is right for the rider alone
}

// Sags are of the bike as it came, mm: by itself as its data sheet has it, and with the
// rider on it.
type Sags struct{ FreeMM, RiderMM float64 }

// Measured is a sag that was measured, and what stood on the springs then; NaN where none
// was. It leads over what is computed.
type Measured struct {
	MM, Kg  float64
	Reading string // its id, "" for the bike's own sheet
	On      string // the day
}

// Share of the travel that a sag is.
func (e *SpringEnd) Share(mm float64) float64 { return mm / e.End.TravelMM }

// MostMM is the preload with the adjuster all in, NaN where nobody has said.
func (e *SpringEnd) MostMM() float64 { return e.Adjuster.Most.In("mm") }

// Settable is a preload held to what the adjuster has.
func (e *SpringEnd) Settable(mm float64) float64 {
	mm = math.Max(mm, e.Adjuster.LeastMM())
	if most := e.MostMM(); !math.IsNaN(most) {
		mm = math.Min(mm, most)
	}
	return mm
}

// Reaches reports whether the adjuster is known to bring the end into its band with everything
// on it.
func (e *SpringEnd) Reaches() bool {
	return e.End.PreloadFor(e.LoadedKg, e.Band.High*e.End.TravelMM) <= e.MostMM()+0.5
}

// WantAloneNmm is a spring that the rider wants without the load.
func (e *SpringEnd) WantAloneNmm() float64 {
	return e.End.RateFor(e.AloneKg, e.Band.Middle()*e.End.TravelMM, e.LowerHalfMM())
}

// RunsOut reports whether the preload that everything on it wants is more than the
// adjuster has.
func (e *SpringEnd) RunsOut() bool { return e.WantPreloadMM > e.MostMM()+0.5 }

// LowerHalfMM is a preload in the lower half of the adjuster, a third of its way, where the
// right spring leaves it; of one whose ends nobody knows, the preload that is set.
func (e *SpringEnd) LowerHalfMM() float64 {
	if most := e.MostMM(); !math.IsNaN(most) {
		least := e.Adjuster.LeastMM()
		return least + (most-least)/3
	}
	return e.End.PreloadMM
}

// Poses are how the bike is turned about its wheels.
type Poses struct {
	Frame stance.Frame
	// As built: standing by itself, with everything on it but the rider, with everything on
	// it, and with all travel used. A pose that rests on a sag that nobody knows is unknown.
	Static, Parked, Loaded, Pressed stance.Pose
	Came                            stance.Pose // as it came, its rider alone
	TrailMM, StandardTrailMM        float64     // standing by itself, as built and as it came
	RakeDegrees                     float64     // steeper than standard, standing by itself
	FrontRiseMM, RearRiseMM         float64     // of each end, wheel hanging: tyres, fork, links, shock
}

// Stood is how the bike leans on its side stand, with everything on it but the rider.
type Stood struct {
	LeanDeg, ForceN, KPa float64
	ShortMM              float64 // by which the stand is too short; below zero too long
}

// Body is how the rider's body is held.
type Body struct {
	BackSeatedDeg, BackStandingDeg float64
	RiseMostMM                     float64 // of the bars, until the seated back is upright
}

// Tape is how an end sags by what was measured alone: a line through two sags under two
// loads. PerKg is NaN where there is one and nothing to hold beside it.
type Tape struct {
	Kg, MM           float64 // the sag that leads, and what stood on the springs then
	OtherKg, OtherMM float64
	PerKg, HalfPerKg float64 // mm a kg, and half of its band
	TravelMM         float64
	Usual            bool // the other one is the usual free sag
}

// near is within what a load is the same, a share of it.
const near = 0.03

// At is the sag under a load, mm, with half of its band; NaN where nobody knows.
func (t *Tape) At(kg float64) (mm, half float64) {
	by := kg - t.Kg
	switch {
	case !math.IsNaN(t.PerKg):
		return math.Min(math.Max(t.MM+by*t.PerKg, 0), t.TravelMM), math.Abs(by) * t.HalfPerKg
	case math.Abs(by) <= near*t.Kg:
		return t.MM, 0
	}
	return math.NaN(), 0
}

// SagAt is the sag under a load on the springs, kg, as built and set, mm; by tape where
// nobody knows the spring.
func (e *SpringEnd) SagAt(kg float64) (mm, half float64) {
	if mm = e.End.SagMM(kg); !math.IsNaN(mm) {
		return mm, 0
	}
	return e.Tape.At(kg)
}

// MorePreloadMM is how much more preload than is set brings an end to the middle of its
// band, by tape: each millimetre at the shock is 1/R at the wheel. NaN without its lever.
func (e *SpringEnd) MorePreloadMM() float64 {
	return (e.LoadedMM - e.Band.Middle()*e.End.TravelMM) * e.End.Ratio
}
