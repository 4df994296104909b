package tyre

// Rim is the rim of one wheel, in inches as rims are sold.
type Rim struct {
	DiameterIn float64
	WidthIn    float64
}

// Rim widths over section widths that are in use [practice, advisory: the tyre maker's
// table decides]: 4.25 in under a 150, 3.00 under a 110, 2.15 under a 120, 2.50 to 4.25
// under a 140.
const (
	roadRimLow, roadRimHigh = 0.44, 0.80
	dirtRimLow, dirtRimHigh = 0.38, 0.78
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
