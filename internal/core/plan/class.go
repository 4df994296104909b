package plan

import "valiantmule/internal/core/entry"

// Class is a kind of bike, as riders tell them apart across a yard.
type Class string

// The classes.
const (
	LightTrial    Class = "light-trial"
	TrailSingle   Class = "trail-single"
	DualSport     Class = "dual-sport"
	RallySingle   Class = "rally-single"
	TrailTwin     Class = "trail-twin"
	RoadTwin      Class = "road-twin"
	LargeTwin     Class = "large-twin"
	ShaftTourer   Class = "shaft-tourer"
	Roadster      Class = "roadster"
	SportsBike    Class = "sports"
	SmallRoadBike Class = "small-road"
	Cruiser       Class = "cruiser"
)

// Classes lists them, from the lightest on trails to those that never meant to go there.
func Classes() []entry.Option {
	return []entry.Option{
		entry.Opt(LightTrial, "Light, trials-like"),
		entry.Opt(TrailSingle, "Trail single, bred for competition"),
		entry.Opt(DualSport, "Dual-sport single"),
		entry.Opt(RallySingle, "Rally single, with tower and large tank"),
		entry.Opt(TrailTwin, "Middle twin, 21-inch front"),
		entry.Opt(RoadTwin, "Middle twin, 19-inch front"),
		entry.Opt(LargeTwin, "Large twin"),
		entry.Opt(ShaftTourer, "Tourer with a shaft"),
		entry.Opt(Roadster, "Roadster or scrambler"),
		entry.Opt(SportsBike, "Sports bike"),
		entry.Opt(SmallRoadBike, "Small road bike, to 200 cc"),
		entry.Opt(Cruiser, "Cruiser"),
	}
}
