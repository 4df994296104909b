package geo_test

import (
	"fmt"
	"math/rand/v2"
	"os/exec"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/referee"
)

// TestTheEllipsoid: arcs that the ellipsoid's own numbers give. A degree on the
// equator is 2πa/360; the quarter of a meridian is 10 001 965.729 m [pub: NIMA
// TR8350.2 gives the axes; the arc follows by the series for it].
func TestTheEllipsoid(t *testing.T) {
	assert.InDelta(t, 111319.49079, geo.DistanceM(geo.Point{}, geo.Point{Lon: 1}), 1e-4)
	assert.InDelta(t, 10001965.729, geo.DistanceM(geo.Point{}, geo.Point{Lat: 90}), 1e-2)
	assert.Zero(t, geo.DistanceM(geo.Point{Lat: 46, Lon: 7}, geo.Point{Lat: 46, Lon: 7}))
	assert.InDelta(t, 2*111319.49079, geo.DistanceM(geo.Point{Lon: 179}, geo.Point{Lon: -179}), 1e-3, "across the date line")
}

// TestKnownLine is a published test line: Flinders Peak to Buninyong, 54 972.271 m
// [pub: ICSM, Geocentric Datum of Australia Technical Manual, ch. 4, on GRS 80,
// whose axes differ from WGS-84's by a tenth of a millimetre].
func TestKnownLine(t *testing.T) {
	dms := func(d, m, s float64) float64 { return d + m/60 + s/3600 }
	flinders := geo.Point{Lat: -dms(37, 57, 3.72030), Lon: dms(144, 25, 29.52440)}
	buninyong := geo.Point{Lat: -dms(37, 39, 10.15610), Lon: dms(143, 55, 35.38390)}
	assert.InDelta(t, 54972.271, geo.DistanceM(flinders, buninyong), 1e-3)
}

// TestAgainstGeod holds random pairs, near and far, against PROJ's geod, whose
// inverse is C. F. F. Karney's algorithm.
func TestAgainstGeod(t *testing.T) {
	random := rand.New(rand.NewPCG(6, 1))
	var asked strings.Builder
	var pairs [][2]geo.Point
	for i := range 600 {
		a := geo.Point{Lat: random.Float64()*170 - 85, Lon: random.Float64()*360 - 180}
		reach := []float64{0.0005, 0.04, 2, 60}[i%4]
		b := geo.Point{Lat: max(-89.9, min(89.9, a.Lat+reach*(random.Float64()-0.5))), Lon: a.Lon + reach*(random.Float64()-0.5)}
		pairs = append(pairs, [2]geo.Point{a, b})
		fmt.Fprintf(&asked, "%.12f %.12f %.12f %.12f\n", a.Lat, a.Lon, b.Lat, b.Lon)
	}
	geod := exec.Command(referee.Program(t, "geod", "proj-bin"), "+ellps=WGS84", "-I", "-f", "%.9f", "-F", "%.7f", "+units=m")
	geod.Stdin = strings.NewReader(asked.String())
	answer, err := geod.Output()
	require.NoError(t, err, "geod of Debian's proj-bin")
	lines := strings.Split(strings.TrimSpace(string(answer)), "\n")
	require.Len(t, lines, len(pairs))
	for i, line := range lines {
		columns := strings.Fields(line)
		want, err := strconv.ParseFloat(columns[len(columns)-1], 64)
		require.NoError(t, err)
		assert.InDelta(t, want, geo.DistanceM(pairs[i][0], pairs[i][1]), 1e-4+want*2e-7, "%v", pairs[i])
	}
}

func BenchmarkDistance(b *testing.B) {
	from := geo.Point{Lat: -32.1, Lon: -14.2}
	to := geo.Point{Lat: -32.1003, Lon: -14.2004}
	for b.Loop() {
		geo.DistanceM(from, to)
	}
}
