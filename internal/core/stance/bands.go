package stance

// Use is what a suspension is set for.
type Use string

// The uses.
const (
	Trail Use = "trail"
	Mixed Use = "mixed"
	Road  Use = "road"
)

// Band is a range of sag, shares of the travel.
type Band struct{ Low, High float64 }

// Middle of the band.
func (b Band) Middle() float64 { return (b.Low + b.High) / 2 }

// bands of sag with the rider on, front then rear [practice].
var bands = map[Use][2]Band{
	Trail: {{0.22, 0.28}, {0.30, 0.36}},
	Mixed: {{0.20, 0.27}, {0.28, 0.34}},
	Road:  {{0.18, 0.25}, {0.25, 0.31}},
}

// BandOf is what riders set the sag of an end to, themselves and their load on it.
func BandOf(u Use, rear bool) Band {
	if rear {
		return bands[u][1]
	}
	return bands[u][0]
}

// UseOf is what a share of loose ground makes of a suspension: from a half on it is set
// for the trail, from an eighth on for both [memory].
func UseOf(loose float64) Use {
	switch {
	case loose >= 0.5:
		return Trail
	case loose >= 0.125:
		return Mixed
	}
	return Road
}

// Free sag, the bike under its own weight, that goes with a right rider sag: rear 5–12 %
// of the travel [practice], front 6–15 % [memory]. Less says that the spring is too soft,
// more that it is too stiff.
var (
	FreeFront = Band{0.06, 0.15}
	FreeRear  = Band{0.05, 0.12}
)

// FreeBand is the one of an end.
func FreeBand(rear bool) Band {
	if rear {
		return FreeRear
	}
	return FreeFront
}

// Shares of the travel that are used where nobody knows a spring: with the rider on, and
// by the bike alone, front and rear [practice, the middle of what is usual].
const (
	UsualFront, UsualRear         = 0.23, 0.30
	UsualFrontFree, UsualRearFree = 0.10, 0.08

	// UsualSagHalf is half of the band of such a share with everything on [memory].
	UsualSagHalf = 0.22
)

// unsprung masses by the class of a bike [memory]: wheel, tyre, brake, and what of fork or
// swingarm goes with them, kg.
var unsprung = []struct{ upToKg, frontKg, rearKg float64 }{{150, 13, 16}, {200, 16, 20}, {1e9, 20, 26}}

// UnsprungKg is what hangs below the springs of a bike of so much kerb mass, where nobody
// has weighed it.
func UnsprungKg(kerbKg float64) (front, rear float64) {
	for _, class := range unsprung {
		if kerbKg <= class.upToKg {
			return class.frontKg, class.rearKg
		}
	}
	return kerbKg, kerbKg // not a number
}
