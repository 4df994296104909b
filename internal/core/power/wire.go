// Package power is wires, fuses and the battery.
//
// Currents are in A, lengths in m, areas in mm², voltages in V. Wiring is work
// for somebody who has done it before: a wrong fuse burns a bike down.
package power

import (
	"errors"
	"math"
	"slices"

	"valiantmule/internal/core/sheet"
)

// copper's resistivity in Ω·mm²/m at 20 °C [pub: IEC 60028, 1/58 rounded].
const copper = 0.01724

// Wire is a cross-section and what it carries in a bundle [practice].
type Wire struct{ AreaMM2, CarriesA float64 }

var wires = []Wire{{0.5, 5}, {0.75, 7.5}, {1, 10}, {1.5, 15}, {2.5, 20}, {4, 30}, {6, 40}}

// fuses that blade fuses come in, A [pub: ISO 8820-3].
var fuses = []float64{1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 35, 40}

// DropFormula is the formula of [DropV].
var DropFormula = sheet.Formula{Text: "drop = 2 × length × current × ρ / area, ρ = 0.01724 Ω·mm²/m", Origin: sheet.Published, Source: "IEC 60028"}

// DropV is the voltage lost there and back: 2·L·I·ρ/A.
func DropV(amps, lengthM, areaMM2 float64) float64 { return 2 * lengthM * amps * copper / areaMM2 }

// FuseFormula is the formula of [FuseA].
var FuseFormula = sheet.Formula{Text: "fuse = smallest standard one ≥ 1.25 × current", Origin: sheet.Published, Source: "sizes: ISO 8820-3"}

// ErrNoFuse says that no blade fuse is large enough.
var ErrNoFuse = errors.New("more than a 40 A fuse: not for a bike's accessory wire")

// FuseA is the smallest standard fuse that is at least 1.25 × the current.
func FuseA(amps float64) (float64, error) {
	at := slices.IndexFunc(fuses, func(f float64) bool { return f >= 1.25*amps })
	if at < 0 {
		return 0, ErrNoFuse
	}
	return fuses[at], nil
}

// WireFormula is the rule of [WireFor].
var WireFormula = sheet.Formula{Text: "area = smallest of 0.5 0.75 1 1.5 2.5 4 6 mm² that meets the drop and carries the fuse", Origin: sheet.Practice}

// ErrNoWire says that no wire of the list does it.
var ErrNoWire = errors.New("no wire up to 6 mm² meets that drop: shorten it, or allow more")

// WireFor is the smallest wire that carries the fuse and loses no more than the
// share of the voltage.
func WireFor(amps, lengthM, volts, maxDropPercent, fuseA float64) (Wire, error) {
	for _, w := range wires {
		if w.CarriesA >= fuseA && 100*DropV(amps, lengthM, w.AreaMM2)/volts <= maxDropPercent {
			return w, nil
		}
	}
	return Wire{}, ErrNoWire
}

// DrainFormula is the formula of [DrainDays].
var DrainFormula = sheet.Formula{Text: "days = capacity × usable / 100 × 1000 / draw / 24", Origin: sheet.Computed}

// DrainDays is how long a parked bike's battery lasts: usable Ah × 1000/mA/24.
func DrainDays(batteryAh, drawMA, usablePercent float64) float64 {
	return batteryAh * usablePercent / 100 * 1000 / drawMA / 24
}

// CarriesA is what a wire of a cross-section carries in a bundle, A: as the next thinner one
// of the list; 0 below the thinnest.
func CarriesA(areaMM2 float64) float64 {
	carries := 0.0
	for _, w := range wires {
		if areaMM2 >= w.AreaMM2-1e-9 {
			carries = w.CarriesA
		}
	}
	return carries
}

// AWGFormula is the formula of [AWGAreaMM2].
var AWGFormula = sheet.Formula{Text: "area = 0.012668 mm² × 92^((36 − n) / 19.5)", Origin: sheet.Published, Source: "ASTM B258"}

// AWGAreaMM2 is the cross-section of a gauge number, mm².
func AWGAreaMM2(n int) float64 { return 0.012668 * math.Pow(92, float64(36-n)/19.5) }

// AWGFor is the thinnest gauge that is sold, an even number, with at least a cross-section.
func AWGFor(areaMM2 float64) int {
	for n := 20; n > 0; n -= 2 {
		if AWGAreaMM2(n) >= areaMM2 {
			return n
		}
	}
	return 0
}
