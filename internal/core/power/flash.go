package power

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Relay is what makes indicators flash.
type Relay string

// The relays; "" is not said.
const (
	LoadSensing Relay = "load"        // by the current of its lamps: a dead one doubles its pace
	Independent Relay = "independent" // by a clock
)

// Flashes a minute: what is asked for is 90 ± 30 [pub: UN Regulations 53 and 6].
const (
	FlashUsual = 90.0
	FlashLeast = 60.0
	FlashMost  = 120.0

	flashHalf = 0.5 // of its rated load, below which a load-sensing relay takes a lamp for dead [practice]
)

// FlashFormula is the formula of [FlashesPerMin].
var FlashFormula = sheet.Formula{Text: "90 a minute; a load-sensing relay doubles below half of its rated load", Origin: sheet.Practice, Source: "60–120 asked for: UN Regulations 53 and 6"}

// FlashesPerMin is the pace at which a relay flashes lamps of one side that draw so many
// watts together, where it was made for so many; NaN where nobody knows. A lamp of a few
// watts in place of a bulb is a dead bulb to a relay that senses load.
func FlashesPerMin(r Relay, ratedW, loadW float64) float64 {
	switch {
	case r == Independent:
		return FlashUsual
	case r == "" || math.IsNaN(ratedW+loadW):
		return math.NaN()
	case loadW < flashHalf*ratedW:
		return 2 * FlashUsual
	}
	return FlashUsual
}
