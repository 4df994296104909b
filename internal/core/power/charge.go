package power

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// What charging systems are like where nobody has said [memory].
const (
	IdleShare      = 0.35   // of its rating that an alternator gives at idle: 0.3–0.5
	UsualRatedRPM  = 5000.0 // engine speed at which it gives its rating
	UsualIdleRPM   = 1400.0
	BatteryVolts   = 12.5
	StartsWith     = 0.5  // of a battery's capacity that may go before it cranks no more
	ThinShare      = 0.15 // of the rating: less than that to spare is thin
	HotShare       = 0.85 // of its output, held for hours in the heat: some stators die of it
	crankPerCC     = 0.25 // A
	crankMostCC    = 700.0
	fifth          = 0.2
	minutesPerHour = 60
)

// MarginFormula says what is left.
var MarginFormula = sheet.Formula{Text: "margin = supply − the bike itself − Σ accessory W × duty × how much of the time it is used", Origin: sheet.Computed}

// DownFormula is the formula of [DownMinutes].
var DownFormula = sheet.Formula{Text: "minutes = 0.2 × capacity × 12.5 V / what is lacking × 60", Origin: sheet.Computed}

// DownMinutes is how long a battery makes up for what is lacking until a fifth of it is gone;
// +Inf where nothing is.
func DownMinutes(batteryAh, lackingW float64) float64 {
	if lackingW <= 0 {
		return math.Inf(1)
	}
	return fifth * batteryAh * BatteryVolts / lackingW * minutesPerHour
}

// CrankFormula is the formula of [CrankA].
var CrankFormula = sheet.Formula{Text: "cold crank = 0.25 A × cc, up to 700 cc", Origin: sheet.Memory}

// CrankA is the cold-crank current that an engine asks of its battery, A.
func CrankA(displacementCC float64) float64 {
	return crankPerCC * math.Min(displacementCC, crankMostCC)
}
