package tyre

// Rim is the rim of one wheel, in inches as rims are sold.
type Rim struct {
	DiameterIn float64
	WidthIn    float64
}

// Rim widths over section widths that tyres are made for [memory, advisory:
// the tyre maker's table decides].
const (
	roadRimLow, roadRimHigh = 0.50, 0.80
	dirtRimLow, dirtRimHigh = 0.38, 0.62
)

// RimShare is rim width over section width.
func RimShare(s Size, r Rim) float64 { return 25.4 * r.WidthIn / s.SectionMM }

// RimShareRange is the share of the section width that rims for this kind of
// tyre usually have. Tyres made for both kinds of ground live with either.
func RimShareRange(k Kind) (low, high float64) {
	switch k {
	case Road, RoadBiased:
		return roadRimLow, roadRimHigh
	case DirtBiased, Knobbly:
		return dirtRimLow, dirtRimHigh
	}
	return dirtRimLow, roadRimHigh
}
