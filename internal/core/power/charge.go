package power

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// What charging systems are like where nobody has said [memory].
const (
	IdleShare      = 0.40   // of its rating that an alternator gives at idle: 0.3–0.5
	UsualRatedRPM  = 5000.0 // engine speed at which it gives its rating
	UsualIdleRPM   = 1400.0
	BatteryVolts   = 12.5
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

// What the standard headlamp draws, dipped, and the standard brake lamp, braking, give or take
// [memory]: bulbs, or diodes.
const (
	halogenW, halogenHalfW = 55.0, 8.0
	diodeW, diodeHalfW     = 20.0, 10.0

	brakeBulbW, brakeBulbHalfW   = 21.0, 3.0
	brakeDiodeW, brakeDiodeHalfW = 4.0, 2.0
)

// Own draws from which on a bike has a halogen lamp [memory]: HANDBOOK 12 has carburettor
// bikes at 40–80 W with diodes and 90–120 W without, injected ones at 100–150 and 150–200 W.
const (
	halogenFromW         = 85.0
	halogenInjectedFromW = 150.0
)

// StandardLampW is what the standard headlamp of a bike draws, W, with half of its band, by
// what the bike itself draws; where nobody knows that, by a band that holds both.
func StandardLampW(ownW float64, injected bool) (w, half float64) {
	return bulbOr(ownW, injected, halogenW, halogenHalfW, diodeW, diodeHalfW)
}

// StandardBrakeLampW is what the standard brake lamp draws while one brakes, likewise.
func StandardBrakeLampW(ownW float64, injected bool) (w, half float64) {
	return bulbOr(ownW, injected, brakeBulbW, brakeBulbHalfW, brakeDiodeW, brakeDiodeHalfW)
}

// bulbOr chooses between a bulb and diodes by what the bike itself draws.
func bulbOr(ownW float64, injected bool, bulb, bulbHalf, diode, diodeHalf float64) (w, half float64) {
	from := halogenFromW
	if injected {
		from = halogenInjectedFromW
	}
	switch {
	case math.IsNaN(ownW):
		return (bulb + diode) / 2, (bulb-diode)/2 + max(bulbHalf, diodeHalf)
	case ownW >= from:
		return bulb, bulbHalf
	}
	return diode, diodeHalf
}
