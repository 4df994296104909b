package plan

import (
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
)

// Carries is the look of the shakedown that proves a part that carries: ridden loaded, on rough ground.
const Carries = "hard/carries"

// LookAt is the name of a look at a part.
func LookAt(look string, part *parts.Part) string {
	return look + "/" + string(part.Slot) + "." + part.ID
}

// Looks are the last looks of the plan's shakedown by their names.
func (p *Plan) Looks() map[string]logbook.Reading {
	last := map[string]logbook.Reading{}
	for _, r := range p.ReadingsOf(logbook.Shaken) {
		if r.Shake().Trip == p.Trip {
			last[r.Shake().Of] = r
		}
	}
	return last
}

// RodeLoaded reports whether a part was looked at after a ride with everything on over rough ground, and held.
func (p *Plan) RodeLoaded(part *parts.Part) bool {
	name := LookAt(Carries, part)
	held := false
	for _, r := range p.ReadingsOf(logbook.Shaken) { // on any trip: it is the same bike
		if s := r.Shake(); s.Of == name {
			held = !s.Wrong && s.Loaded && s.Rough
		}
	}
	return held
}
