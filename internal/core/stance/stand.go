package stance

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// What a side stand is where nobody has measured it [memory].
const (
	StandLeanDeg   = 11.0  // of the bike on it, on level hard ground, as it came: 9 to 13
	StandOutMM     = 315.0 // from the line of the tyres to its foot: 280 to 350
	StandFootMM2   = 38.0 * 38.0
	crownMM        = 55.0 // radius of the tyres' crown, on which the bike rolls over
	StandLeanMost  = 15.0 // leans so far that a load pulls it over on a slope
	StandLeanLeast = 4.5  // so upright that a push tips it the other way
)

// LeanFormula is the formula of [LeanDeg].
var LeanFormula = sheet.Formula{Text: "tan lean = (315 mm × tan lean₀ + rise at the stand − length added to it) / 315 mm", Origin: sheet.Memory}

// LeanDeg is how far a bike leans on its stand that leant by leanDeg before it rose there,
// and its stand grew.
func LeanDeg(leanDeg, riseMM, longerMM float64) float64 {
	under := StandOutMM*math.Tan(leanDeg*math.Pi/180) + riseMM - longerMM
	return math.Atan(under/StandOutMM) * 180 / math.Pi
}

// StandForceFormula is the formula of [StandForceN].
var StandForceFormula = sheet.Formula{Text: "F = m·g × (h − 55 mm) × sin lean / 315 mm", Origin: sheet.Memory, Source: "moments about the tyres' line"}

// StandForceN is what the foot of the stand bears of a bike of so much mass whose centre
// is at a height, mm.
func StandForceN(massKg, centreMM, leanDeg float64) float64 {
	return max(0, massKg*unit.StandardGravity*(centreMM-crownMM)*math.Sin(leanDeg*math.Pi/180)/StandOutMM)
}

// FootFormula is the formula of [FootKPa].
var FootFormula = sheet.Formula{Text: "p = F / area of the foot", Origin: sheet.Computed}

// FootKPa is the pressure under a foot of so many mm².
func FootKPa(forceN, areaMM2 float64) float64 { return 1000 * forceN / areaMM2 }

// Bed is ground that a stand is put down on.
type Bed struct {
	ID, Name string
	BearsKPa float64 // before a foot sinks; +Inf for what it does not sink into
}

// Beds are the ones that riders meet, the hardest first. What they bear is after the
// presumed bearing values of BS 8004:1986, table 1 [memory]: loose gravel below 200 kPa,
// loose sand below 100, soft clay below 75.
func Beds() []Bed { return beds[:] }

var beds = [...]Bed{{"hard", "Rock, concrete", math.Inf(1)}, {"gravel", "Loose gravel", 200}, {"sand", "Loose sand", 100}, {"clay", "Soft clay", 75}}
