package plan

import (
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// Brief is who rides, where, and for how much.
type Brief struct {
	Start       string        `json:"start,omitempty"` // date of departure, 2027-06-12
	Distance    unit.Length   `json:"distance,omitzero"`
	Terrain     []Stretch     `json:"terrain,omitempty"`
	Cruise      unit.Speed    `json:"cruise,omitzero"`       // to be held on the fast ground
	CruiseRPM   unit.Rotation `json:"cruise_rpm,omitzero"`   // the most the rider wants to hear there
	WalkingPace unit.Speed    `json:"walking_pace,omitzero"` // in first, clutch home
	Budget      money.Amount  `json:"budget,omitzero"`
	Rider       unit.Mass     `json:"rider,omitzero"` // dressed to ride, with water
	Style       tyre.Style    `json:"style,omitempty"`
}

// Stretch is the share of the distance on one kind of ground.
type Stretch struct {
	Ground terrain.Kind `json:"ground"`
	Share  unit.Ratio   `json:"share"`
}

// Mix is the terrain as shares; it is empty when no share is known.
func (b *Brief) Mix() terrain.Mix {
	if len(b.Terrain) == 0 {
		return nil
	}
	mix := make(terrain.Mix, len(b.Terrain))
	for _, s := range b.Terrain {
		mix[s.Ground] = s.Share.Base()
	}
	return mix
}

// Share of one kind of ground, missing when the brief does not name it.
func (b *Brief) Share(k terrain.Kind) unit.Ratio {
	for _, s := range b.Terrain {
		if s.Ground == k {
			return s.Share
		}
	}
	return unit.Ratio{}
}

// Styles lists how riders treat tyres.
func Styles() []Option {
	return []Option{
		{string(tyre.Gentle), "Gentle on tyres"},
		{string(tyre.Steady), "Steady"},
		{string(tyre.Hard), "Hard: late braking, wheelspin"},
	}
}

// Fields lists the brief's numbers for forms and validation.
func (b *Brief) Fields() []Field {
	return []Field{
		{"distance", "Trip distance", "km", 10, 100000, "Door to door, everything included.", &b.Distance},
		{"cruise", "Cruise to hold", "km/h", 30, 200, "The speed the fast stretches ask for, hour after hour.", &b.Cruise},
		{"cruise_rpm", "Cruise limit", "rpm", 1000, 15000, "The most you want the engine to turn there. Empty: the bike's own comfortable limit.", &b.CruiseRPM},
		{"walking_pace", "Walking pace", "km/h", 2, 20, "The slowest first gear should go with the clutch home: a rock step, a queue, a mate on foot.", &b.WalkingPace},
		{"rider", "Rider, dressed", "kg", 35, 250, "With boots, helmet, armour (8–12 kg) and the water you carry.", &b.Rider},
	}
}
