package study

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
)

// Usuals are the numbers that stand in for what nobody has said, in one loadout, each once:
// what it is, and where whoever knows it types it.
func Usuals(f *facts.All) []Lack {
	if f.Built == nil {
		return nil
	}
	b, list := f.Built.Bike, ToWeigh(&f.Masses)
	add := func(usual bool, what, at string) {
		if usual {
			list = append(list, Lack{what, at})
		}
	}
	_, usual := b.KerbShare()
	add(usual, "how full the tank was for the kerb mass", "bike/kerb_fuel")
	for i := range f.Built.Fuels {
		switch fuel := &f.Built.Fuels[i]; {
		case fuel.Part == nil:
			add(fuel.Usual > 0, "what the tank never gives", "bike/unusable")
		default:
			add(fuel.Usual > 0, "what "+fuel.Part.Name+" holds", PartAt(fuel.Part, parts.Holds.Key))
		}
	}
	for i := range f.Charging.Draws {
		d := &f.Charging.Draws[i]
		add(d.HalfW > 0, "what "+d.Part.Name+" draws", PartAt(d.Part, parts.Draw.Key))
	}
	add(f.Light.HalfShare > 0, "how bright the main beam is", "bike/headlamp")
	add(f.Springs.Front.Tape.Usual, "front sag by itself", "page/measure")
	add(f.Springs.Rear.Tape.Usual, "rear sag by itself", "page/measure")
	add(!b.AlternatorRPM.Known() && b.Alternator.Known(), "where the alternator gives its rating", "bike/alternator_rpm")
	return list
}
