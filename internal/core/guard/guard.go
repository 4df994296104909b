// Package guard is what breaks on a trip and what a guard does about it: places
// on the bike, hazards of the ground, how likely they meet over so many
// kilometres, and what that costs.
//
// Every rate is a starting value from memory of the trade; riders know their
// ground better and may change each. The package knows nothing of plans.
package guard

import "valiantmule/internal/core/terrain"

// Hazard is something that happens to a bike.
type Hazard string

// The hazards.
const (
	SlowFall   Hazard = "slow-fall" // parked, or at walking pace
	FastFall   Hazard = "fast-fall"
	Stone      Hazard = "stone" // from the own front wheel
	Strike     Hazard = "strike"
	Branch     Hazard = "branch"
	Rub        Hazard = "rub" // boots, straps
	PackedMud  Hazard = "mud"
	BrokeChain Hazard = "chain"
)

// HazardInfo is a hazard with its name.
type HazardInfo struct {
	Hazard Hazard
	Name   string
	// PerThousandKm is how often it happens in 1000 km on each of the grounds, in
	// their order, to a rider of some practice [memory]. Ground strikes are those of a bike
	// that has the room under it that the ground asks for.
	PerThousandKm [terrain.Count]float64
}

// Motorway, paved, smooth gravel, rough gravel, track, mud, sand, single track.
var hazards = []HazardInfo{
	{SlowFall, "Slow fall", [terrain.Count]float64{0.014, 0.035, 0.2, 0.55, 1, 3.5, 2.8, 3.5}},
	{FastFall, "Fast fall", [terrain.Count]float64{0.005, 0.01, 0.05, 0.1, 0.075, 0.05, 0.1, 0.1}},
	{Stone, "Stone", [terrain.Count]float64{0.2, 0.3, 2, 6, 2, 0.5, 0.2, 3}},
	{Strike, "Ground strike", [terrain.Count]float64{0, 0, 0.1, 1.5, 0.5, 0.3, 0.1, 5}},
	{Branch, "Branch", [terrain.Count]float64{0, 0.02, 0.1, 0.1, 1, 0.5, 0.1, 4}},
	{Rub, "Rubbing boots", [terrain.Count]float64{1, 1, 1, 1, 1, 1, 1, 1}},
	{PackedMud, "Packed mud", [terrain.Count]float64{0, 0, 0.1, 0.1, 1, 8, 0.1, 1}},
	{BrokeChain, "Chain failure", [terrain.Count]float64{0.003, 0.003, 0.006, 0.01, 0.01, 0.015, 0.015, 0.012}},
}

// Hazards lists them.
func Hazards() []HazardInfo { return hazards }

// Place is a vulnerable place on the bike.
type Place string

// The places, from front to rear.
const (
	Mudguard   Place = "mudguard"
	Fork       Place = "fork"
	Lamp       Place = "lamp"
	Dash       Place = "dash"
	Levers     Place = "levers"
	Bars       Place = "bars"
	Indicators Place = "indicators"
	Radiator   Place = "radiator"
	OilCooler  Place = "oil-cooler"
	Fairing    Place = "fairing"
	Tank       Place = "tank"
	Cases      Place = "cases"
	Sump       Place = "sump"
	Frame      Place = "frame"
	Drive      Place = "drive"
	Stand      Place = "stand"
	Swingarm   Place = "swingarm"
	RearBrake  Place = "rear-brake"
	Plate      Place = "plate"
)

// Break is the share of a hazard's events that breaks a place.
type Break struct {
	Hazard Hazard
	Share  float64
}

// Prices are in euros, one for each class of bike [memory].
type Prices [Classes]float64

// Class sorts bikes by what their parts cost.
type Class int

// The classes, by kerb mass.
const (
	LightBike  Class = iota // to 160 kg
	MiddleBike              // to 210 kg
	HeavyBike
	Classes
)

// ClassOf a bike by its kerb mass, kg.
func ClassOf(kerbKg float64) Class {
	switch {
	case kerbKg <= 160:
		return LightBike
	case kerbKg <= 210:
		return MiddleBike
	}
	return HeavyBike
}

// Loss is what a broken place costs.
type Loss struct {
	Repair   Prices  // of the parts that break, used or new as they are to be had
	Days     float64 // until it runs again, with help at hand
	Stranded float64 // how often it ends the ride where it happens
}

// PlaceInfo is a place with its name, what breaks it, and what that costs.
type PlaceInfo struct {
	Place  Place
	Name   string
	Breaks []Break // [memory]
	Loss   Loss    // [memory]
}

var places = []PlaceInfo{
	{Mudguard, "Front mudguard", []Break{{PackedMud, 0.02}, {Branch, 0.01}}, Loss{Prices{40, 60, 110}, 0.3, 0.15}},
	{Fork, "Fork sliders and seals", []Break{{Stone, 0.01}, {PackedMud, 0.01}, {Branch, 0.005}}, Loss{Prices{60, 90, 160}, 1, 0.05}},
	{Lamp, "Headlamp", []Break{{Stone, 0.012}, {FastFall, 0.3}, {Branch, 0.02}}, Loss{Prices{90, 160, 420}, 0.5, 0.05}},
	{Dash, "Dash", []Break{{FastFall, 0.2}, {Branch, 0.02}}, Loss{Prices{150, 280, 600}, 0.3, 0.05}},
	{Levers, "Levers and hands", []Break{{SlowFall, 0.25}, {FastFall, 0.5}, {Branch, 0.1}}, Loss{Prices{25, 35, 60}, 0.2, 0.04}},
	{Bars, "Bars", []Break{{SlowFall, 0.02}, {FastFall, 0.25}}, Loss{Prices{70, 90, 140}, 0.5, 0.2}},
	{Indicators, "Indicators", []Break{{SlowFall, 0.3}, {FastFall, 0.6}, {Branch, 0.05}}, Loss{Prices{25, 35, 70}, 0, 0}},
	{Radiator, "Radiator and hoses", []Break{{SlowFall, 0.01}, {FastFall, 0.15}, {Stone, 0.002}, {Branch, 0.005}}, Loss{Prices{160, 260, 450}, 3, 0.6}},
	{OilCooler, "Oil cooler", []Break{{Stone, 0.002}, {FastFall, 0.06}}, Loss{Prices{120, 180, 340}, 3, 0.5}},
	{Fairing, "Fairing", []Break{{SlowFall, 0.5}, {FastFall, 0.9}, {Branch, 0.02}}, Loss{Prices{140, 260, 520}, 0, 0}},
	{Tank, "Tank", []Break{{SlowFall, 0.05}, {FastFall, 0.2}}, Loss{Prices{180, 300, 650}, 0.5, 0.1}},
	{Cases, "Engine cases", []Break{{SlowFall, 0.006}, {FastFall, 0.06}, {Strike, 0.02}}, Loss{Prices{180, 320, 700}, 4, 0.45}},
	{Sump, "Sump and header", []Break{{Strike, 0.04}, {Stone, 0.003}}, Loss{Prices{120, 190, 420}, 3, 0.5}},
	{Frame, "Frame paint", []Break{{Rub, 0.4}}, Loss{Prices{30, 40, 60}, 0, 0}},
	{Drive, "Case at the front sprocket", []Break{{BrokeChain, 0.5}}, Loss{Prices{150, 240, 380}, 2.5, 0.8}},
	{Stand, "Side stand and its switch", []Break{{Strike, 0.03}, {Branch, 0.03}, {PackedMud, 0.01}}, Loss{Prices{40, 60, 110}, 0.3, 0.2}},
	{Swingarm, "Swingarm and chain guide", []Break{{Strike, 0.02}, {BrokeChain, 0.2}, {Branch, 0.01}}, Loss{Prices{60, 90, 160}, 0.5, 0.15}},
	{RearBrake, "Rear disc, caliper, reservoir", []Break{{Strike, 0.02}, {Stone, 0.004}, {SlowFall, 0.015}}, Loss{Prices{90, 140, 260}, 1.5, 0.2}},
	{Plate, "Plate and tail lamp", []Break{{SlowFall, 0.03}, {Branch, 0.03}, {PackedMud, 0.01}}, Loss{Prices{25, 35, 60}, 0.1, 0}},
}

// Places lists them from front to rear.
func Places() []PlaceInfo { return places }

// PlaceOf finds a place.
func PlaceOf(p Place) (PlaceInfo, bool) {
	for _, info := range places {
		if info.Place == p {
			return info, true
		}
	}
	return PlaceInfo{}, false
}

// HazardOf finds a hazard.
func HazardOf(h Hazard) (HazardInfo, bool) {
	for _, info := range hazards {
		if info.Hazard == h {
			return info, true
		}
	}
	return HazardInfo{}, false
}

// Skill is how practised the rider is where it is loose.
type Skill string

// The skills.
const (
	Learning  Skill = "learning"
	Practised Skill = "practised"
	Old       Skill = "old-hand"
)

// SkillInfo is a skill with its name, and how often such a rider falls and strikes
// against a practised one [memory].
type SkillInfo struct {
	Skill  Skill
	Name   string
	Factor float64
}

var skills = []SkillInfo{
	{Learning, "Learning", 1.7},
	{Practised, "Practised", 1},
	{Old, "Old hand", 0.6},
}

// Skills lists them.
func Skills() []SkillInfo { return skills }

// factorOf a skill; one that nobody named is practised.
func factorOf(s Skill) float64 {
	for _, info := range skills {
		if info.Skill == s {
			return info.Factor
		}
	}
	return 1
}

// grounds are the kinds that the rates are for.
var grounds = terrain.Grounds()
