package tyre

import "strings"

// loadIndexKg is kg per tyre for the load indices 20 to 99
// [pub: UN Regulation 75, annex "Load-capacity index"; same values in ISO 4000-1].
var loadIndexKg = [...]float64{
	80, 82.5, 85, 87.5, 90, 92.5, 95, 97.5, 100, 103, // 20
	106, 109, 112, 115, 118, 121, 125, 128, 132, 136, // 30
	140, 145, 150, 155, 160, 165, 170, 175, 180, 185, // 40
	190, 195, 200, 206, 212, 218, 224, 230, 236, 243, // 50
	250, 257, 265, 272, 280, 290, 300, 307, 315, 325, // 60
	335, 345, 355, 365, 375, 387, 400, 412, 425, 437, // 70
	450, 462, 475, 487, 500, 515, 530, 545, 560, 580, // 80
	600, 615, 630, 650, 670, 690, 710, 730, 750, 775, // 90
}

// RatingSource names where the load and speed tables come from.
const RatingSource = "UN Regulation 75, annex tables"

// MaxLoadKg is the load that one tyre carries by its load index, 20 to 99.
func MaxLoadKg(index int) (kg float64, ok bool) {
	if index < 20 || index > 99 {
		return 0, false
	}
	return loadIndexKg[index-20], true
}

// speedSymbol is a letter and the speed that it allows
// [pub: UN Regulation 75, annex "Speed category"].
var speedTable = []struct {
	symbol string
	kmh    float64
}{
	{"J", 100}, {"K", 110}, {"L", 120}, {"M", 130}, {"N", 140}, {"P", 150}, {"Q", 160}, {"R", 170},
	{"S", 180}, {"T", 190}, {"U", 200}, {"H", 210}, {"V", 240}, {"W", 270}, {"Y", 300},
}

// MaxSpeedKmh is the speed that a speed symbol allows.
func MaxSpeedKmh(symbol string) (kmh float64, ok bool) {
	for _, s := range speedTable {
		if s.symbol == symbol {
			return s.kmh, true
		}
	}
	return 0, false
}

func speedSymbols() string {
	letters := make([]string, len(speedTable))
	for i, s := range speedTable {
		letters[i] = s.symbol
	}
	return strings.Join(letters, " ")
}
