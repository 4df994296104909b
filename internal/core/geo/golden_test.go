package geo_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/golden"
)

// TestGolden holds distances to a tenth of a millimetre, near and far, and turns.
func TestGolden(t *testing.T) {
	var text strings.Builder
	at := []geo.Point{{Lat: 0, Lon: 0}, {Lat: 41.2, Lon: 19.8}, {Lat: 41.2004, Lon: 19.8007}, {Lat: -33.9, Lon: 179.99}, {Lat: -33.9, Lon: -179.99}, {Lat: 89.5, Lon: 10}, {Lat: 89.5004, Lon: 10.2}, {Lat: 64.1, Lon: -21.9}, {Lat: -0.3, Lon: 179.4}}
	for _, a := range at {
		for _, b := range at {
			fmt.Fprintf(&text, "%v to %v: %.4f m\n", a, b, geo.DistanceM(a, b))
		}
	}
	for _, degrees := range []float64{-540, -181, -180, -179, 0, 180, 180.5, 359} {
		fmt.Fprintf(&text, "turn of %g is %g\n", degrees, geo.Turn(degrees))
	}
	for _, p := range []geo.Point{{Lat: 90, Lon: 180}, {Lat: 90.1, Lon: 0}, {Lat: -90, Lon: -180}, {Lat: 0, Lon: -180.1}, {Lat: -90.5, Lon: 200}} {
		fmt.Fprintf(&text, "%v valid %t\n", p, p.Valid())
	}
	golden.Held(t, "golden", text.String())
}
