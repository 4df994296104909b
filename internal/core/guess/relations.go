package guess

import (
	"math"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// How rows of the table follow from one another.

// never is for words that may be nothing else.
func never[S ~string](*Subject) S { return "" }

// gears are usual ratios by class; smaller singles have six of them.
func gears(s *Subject) string {
	switch {
	case s.class == dualSport && s.cc() < 350:
		return "2.64 1.81 1.35 1.05 0.9 0.77"
	case s.class == dualSport:
		return "2.6 1.75 1.31 1.05 0.88"
	}
	return [classes]string{
		"3.0 2.2 1.6 1.15 0.85", "2.4 1.75 1.33 1.05 0.88 0.76", "", "2.5 1.75 1.33 1.07 0.91 0.8",
		"2.75 1.9 1.48 1.22 1.05 0.92", "2.75 1.9 1.48 1.22 1.05 0.92", "2.55 1.8 1.42 1.18 1.05 0.95", "2.44 1.71 1.32 1.08 0.95 0.85",
		"2.7 1.95 1.55 1.3 1.13 1.0", "2.6 2.0 1.65 1.43 1.28 1.16", "2.8 1.85 1.38 1.1 0.9", "2.6 1.8 1.4 1.14 0.95",
	}[s.class]
}

// What gears such bikes: teeth, the ratio of a shaft, and the primary ratio that goes with them and
// with the class's gears.
var (
	frontTeeth = column{11, 14, 15, 15, 16, 16, 17, 17, 16, 16, 14, 17}
	rearTeeth  = column{42, 48, 44, 45, 43, 43, 42, 42, 42, 43, 42, 42}
	primaries  = perCC{{3.1, 0}, {2.9, -0.0006}, {3.4, -0.002}, {2.9, -0.0013}, {1.95, 0}, {1.95, 0}, {1.75, 0}, {1.7, 0}, {2, 0}, {3.3, -0.0017}, {3.3, 0}, {1.8, 0}}
)

const shaftRatio = 2.85

// primary makes the top gear as long as it is in the class, whatever of gears and sprockets somebody
// has said.
func primary(s *Subject) float64 {
	var usual plan.Gears
	if err := usual.Enter(gears(s), ""); err != nil || !s.Bike.Gearbox.Known() {
		return math.NaN()
	}
	final, usualFinal := s.Bike.FinalRatio.In(""), shaftRatio
	if !s.Bike.Shaft() {
		front, rear := s.teeth(parts.FrontSprocket), s.teeth(parts.RearSprocket)
		final, usualFinal = rear/front, rearTeeth.of(s)/frontTeeth.of(s)
	}
	return primaries.of(s) * usual.Top() * usualFinal / (s.Bike.Gearbox.Top() * final)
}

// slot is how far an axle can go, of a chain drive.
func slot(mm float64) follows {
	return func(s *Subject) float64 {
		if s.Bike.Shaft() {
			return math.NaN()
		}
		return mm
	}
}

// rimShare is how wide a rim is against its tyre [memory].
func rimShare(s *Subject) float64 {
	return column{0.52, 0.47, 0.48, 0.48, 0.62, 0.66, 0.68, 0.7, 0.72, 0.75, 0.6, 0.62}.of(s)
}

func build(s *Subject) parts.WheelBuild {
	if s.class >= largeTwin && s.class <= smallRoad || s.class == roadTwin {
		return parts.Cast
	}
	return parts.Spoked
}

// tread is what kind of tyre such bikes come with.
func tread(s *Subject) tyre.Kind {
	switch s.class {
	case trailSingle:
		return tyre.Knobbly
	case lightTrial, rallySingle:
		return tyre.DirtBiased
	case dualSport:
		return tyre.AllRound
	case sportsBike, roadster, smallRoad, cruiser:
		return tyre.Road
	}
	return tyre.RoadBiased
}

// otherTread is what they come with as well.
func otherTread(s *Subject) tyre.Kind {
	switch {
	case s.class == trailSingle, s.class == lightTrial, s.class == dualSport && s.cc() < 500:
		return tyre.DirtBiased
	case s.class == rallySingle, s.class == trailTwin:
		return tyre.AllRound
	}
	return tyre.RoadBiased
}

// tube is what is in the tyre, "" for nothing.
func tube(s *Subject) tyre.Filling {
	if s.Bike.FrontBuild == parts.Spoked || s.Bike.RearBuild == parts.Spoked {
		return tyre.Tube
	}
	return ""
}

// otherBuild is what such bikes are sold with as well.
func otherBuild(s *Subject) parts.WheelBuild {
	switch {
	case s.class <= rallySingle, s.class == sportsBike:
		return ""
	case build(s) == parts.Cast:
		return parts.Spoked
	}
	return parts.Cast
}

// offset makes the trail that is usual with a rake: t = (R·sin ε − o)/cos ε, turned round.
func offset(s *Subject) float64 {
	rake := s.Bike.Rake.In("°") * math.Pi / 180
	radius := sizeIn(s.Bike, parts.FrontTyre).OverallDiameterMM() / 2
	trail := column{80, 112, 107, 112, 106, 104, 105, 102, 99, 96, 92, 130}.of(s)
	return radius*math.Sin(rake) - trail*math.Cos(rake)
}

// Bikes are sprung for a rider of about 80 kg, dressed, alone [practice]: standard springs
// bring such a one to the middle of the band.
const (
	sprungForKg   = 80.0
	frontSagShare = 0.25
	rearSagShare  = 0.30
	onTheRear     = 0.62 // of the rider, seated
	hangingFront  = 0.08 // of the kerb mass, below the springs
	hangingRear   = 0.11
)

// forkSpring is k = W·cos ε/(s + p), along the leg.
func forkSpring(s *Subject) float64 {
	b := s.Bike
	kg := b.KerbFront.In("kg") + (1-onTheRear)*sprungForKg - hangingFront*s.kg()
	sag := frontSagShare * b.FrontTravel.In("mm")
	return kg * unit.StandardGravity * math.Cos(b.Rake.In("°")*math.Pi/180) / (sag + b.FrontPre.In("mm"))
}

// shockSpring is k = W/(R·(s·R + p)).
func shockSpring(s *Subject) float64 {
	b := s.Bike
	kg := s.kg() - b.KerbFront.In("kg") + onTheRear*sprungForKg - hangingRear*s.kg()
	ratio := b.LinkRatio.In("")
	return kg * unit.StandardGravity / (ratio * (rearSagShare*b.RearTravel.In("mm")*ratio + b.RearPre.In("mm")))
}
