// Package fuel is how far a tank goes.
//
// Volumes are in litres, distances in km, consumption in L/100 km. Nothing here
// says that a distance can be ridden: it is arithmetic on two uncertain numbers.
package fuel

import "valiantmule/internal/core/sheet"

// RangeFormula is the formula of [RangeKm].
var RangeFormula = sheet.Formula{Text: "range = usable / consumption × 100", Origin: sheet.Computed}

// RangeKm is how far a volume goes = usable ÷ consumption × 100.
func RangeKm(usableL, per100Km float64) float64 { return usableL / per100Km * 100 }

// ReserveFormula is the formula of [BeforeReserveKm].
var ReserveFormula = sheet.Formula{Text: "before reserve = range × (1 − reserve / 100)", Origin: sheet.Computed}

// BeforeReserveKm is what of a range lies before the reserve, which is the
// rider's own choice: 10 to 20 % is usual [practice].
func BeforeReserveKm(rangeKm, reservePercent float64) float64 {
	return rangeKm * (1 - reservePercent/100)
}

// Litres in a mile-per-gallon economy of one, US and imperial: L/100 km = k ÷ mpg
// [pub: NIST SP 811, B.8, 235.215 for the US gallon; the imperial one follows
// from 4.54609 L].
const (
	usGallonL  = 231 * 2.54 * 2.54 * 2.54 / 1000
	ukGallonL  = 4.54609
	mileKm     = 1.609344
	perHundred = 100.0
)

// MpgUS is miles per US gallon.
func MpgUS(per100Km float64) float64 { return perHundred * usGallonL / mileKm / per100Km }

// MpgUK is miles per imperial gallon.
func MpgUK(per100Km float64) float64 { return perHundred * ukGallonL / mileKm / per100Km }

// EconomyFormula is the formula of [MpgUS], [MpgUK] and of km per litre.
var EconomyFormula = sheet.Formula{Text: "mpg = k / consumption, k = 235.215 US, 282.481 UK; km/L = 100 / consumption", Origin: sheet.Published, Source: "NIST SP 811, B.8"}
