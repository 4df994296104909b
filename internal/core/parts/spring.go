package parts

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/unit"
)

// What springs and adjusters of preload have.
var (
	Rate       = prop[unit.Stiffness]("rate", "Rate of both springs together", "N/mm", 2, 600, "Both legs together. Without it the sag is unknown.")
	SecondRate = prop[unit.Stiffness]("second", "… its second rate", "N/mm", 2, 900, "Of one with two rates. Empty: one rate.")
	Knee       = prop[unit.Length]("knee", "… from a compression of", "mm", 1, 300, "Where the close coils are shut.")
	AdjustsIn  = choice[AdjustBy]("by", "It counts in", AdjustsBy)
	PreloadPer = prop[unit.Length]("per", "Preload, each", "mm", 0.1, 20, "A turn or a step.")
	PreloadMin = prop[unit.Length]("least", "… all out", "mm", 0, 80, "Empty: none.")
	PreloadMax = prop[unit.Length]("most", "… all in", "mm", 0, 80, "Without it nobody knows when it runs out.")
	rearRate   = Rate.As("Rate of the spring", "As it stands on the spring. Without it the sag is unknown.")
)

// Spring is what a spring is beyond a part, or what a whole fork or shock comes with: of a
// fork both legs together.
type Spring struct {
	Rate   unit.Stiffness
	Second unit.Stiffness // of one with two rates
	Knee   unit.Length    // compression from which on the second holds
}

// Spring is what is known of a part as a spring, nil where nothing is.
func (p *Part) Spring() *Spring {
	if !p.Has.any(Rate, SecondRate, Knee) {
		return nil
	}
	return &Spring{Rate.In(p), SecondRate.In(p), Knee.In(p)}
}

// Is it as the formulas take it.
func (s *Spring) Is() stance.Spring {
	return stance.Spring{Nmm: s.Rate.In("N/mm"), SecondNmm: s.Second.In("N/mm"), KneeMM: s.Knee.In("mm")}
}

func (s *Spring) check(v *entry.Problems, at string) {
	v.That(s.Second.Known() == s.Knee.Known(), at+Knee.Key, "a second rate and where it begins go together")
}

// Adjuster is how preload is set: by how much a turn or a step, and between what.
type Adjuster struct {
	By    AdjustBy
	Per   unit.Length // of preload, one turn or step
	Least unit.Length
	Most  unit.Length
}

// Adjuster is what is known of a part as an adjuster of preload, nil where nothing is.
func (p *Part) Adjuster() *Adjuster {
	if !p.Has.any(AdjustsIn, PreloadPer, PreloadMin, PreloadMax) {
		return nil
	}
	return &Adjuster{AdjustsIn.In(p), PreloadPer.In(p), PreloadMin.In(p), PreloadMax.In(p)}
}

// AdjustBy is what an adjuster counts in.
type AdjustBy string

// What they count in.
const (
	Turns AdjustBy = "turns"
	Steps AdjustBy = "steps"
)

// AdjustsBy lists them.
func AdjustsBy() []entry.Option {
	return []entry.Option{entry.Opt(Turns, "turns"), entry.Opt(Steps, "steps")}
}

// Count is a preload in turns or steps from all out; ok is false where nobody has said what
// one of them is.
func (a Adjuster) Count(preloadMM float64) (n float64, ok bool) {
	per := a.Per.In("mm")
	return (preloadMM - a.LeastMM()) / per, per > 0 && a.By != ""
}

// LeastMM is the preload with the adjuster all out; 0 where nobody has said.
func (a Adjuster) LeastMM() float64 {
	if a.Least.Known() {
		return a.Least.In("mm")
	}
	return 0
}

// Check tells what of the adjuster's ends cannot be true together; the keys are the
// document's of its ends.
func (a Adjuster) Check(v *entry.Problems, most string) {
	v.That(!(a.Most.In("mm") < a.Least.In("mm")), most, "%s is less than the least, %s", a.Most, a.Least)
}
