package study

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
)

// Wheel is one wheel with the slots that belong to it.
type Wheel struct {
	Name                    string
	Tyre, Tube, Lock, Wheel parts.Slot
	Balanced                string // tag of what balances its lock
	rear                    bool
}

// FrontWheel and RearWheel are the two.
var (
	FrontWheel = Wheel{"front", parts.FrontTyre, parts.FrontTube, parts.FrontLock, parts.FrontWheel, "balanced-front", false}
	RearWheel  = Wheel{"rear", parts.RearTyre, parts.RearTube, parts.RearLock, parts.RearWheel, "balanced-rear", true}
)

// Of is the wheel's one of two numbers.
func (w *Wheel) Of(e facts.Ends) float64 {
	if w.rear {
		return e.Rear
	}
	return e.Front
}

// Rear reports whether it is the rear one.
func (w *Wheel) Rear() bool { return w.rear }

// Pressure is the wheel's one on a surface.
func (w *Wheel) Pressure(p *facts.Pressure) facts.PressureEnd {
	if w.rear {
		return p.Rear
	}
	return p.Front
}

// EitherWheel is what a rule says of the front wheel, or else of the rear one; the
// worse of the two when it speaks of both.
func EitherWheel(f *facts.All, speak func(f *facts.All, w *Wheel) (Finding, bool)) (Finding, bool) {
	front, ok := speak(f, &FrontWheel)
	rear, both := speak(f, &RearWheel)
	if both && (!ok || rear.State.Rank() > front.State.Rank()) {
		return rear, true
	}
	return front, ok
}
