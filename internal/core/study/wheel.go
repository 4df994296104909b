package study

import (
	"strings"
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
// worse of the two when it speaks of both, and one finding of both where they are as bad.
func EitherWheel(f *facts.All, speak func(f *facts.All, w *Wheel) (Finding, bool)) (Finding, bool) {
	front, ok := speak(f, &FrontWheel)
	rear, both := speak(f, &RearWheel)
	switch {
	case both && (!ok || rear.State.Rank() > front.State.Rank()):
		return rear, true
	case ok && both && rear.State == front.State && rear.Aside() == front.Aside():
		return ofBoth(front, rear), true
	}
	return front, ok
}

// ofBoth is one finding of both wheels: where the rear one's sentence says the same of another
// wheel, in a word.
func ofBoth(front, rear Finding) Finding {
	both := front
	both.Tell = func() Words {
		words, other := front.Tell(), rear.Tell()
		if strings.ReplaceAll(string(words.What), FrontWheel.Name, RearWheel.Name) == string(other.What) {
			words.What += Text(" The same holds for the " + RearWheel.Name + " one.")
		} else {
			words.What += " " + other.What
		}
		return words
	}
	if front.Offer != nil || rear.Offer != nil {
		both.Offer = func() []Remedy { return Distinct(append(front.offers(), rear.offers()...)) }
	}
	return both
}

// offers are the ways out, none where there are none.
func (f Finding) offers() []Remedy {
	if f.Offer == nil {
		return nil
	}
	return f.Offer()
}
