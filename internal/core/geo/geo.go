// Package geo is positions on the earth and the distances between them.
//
// Latitudes and longitudes are in degrees on the WGS-84 ellipsoid, distances in
// metres along its surface: heights do not enter, a steep road of 20 % is 2 %
// longer than what is said here.
package geo

import "math"

// Point is a position, north and east positive.
type Point struct{ Lat, Lon float64 }

// Valid reports whether the numbers are a position.
func (p Point) Valid() bool { return math.Abs(p.Lat) <= 90 && math.Abs(p.Lon) <= 180 }

// The ellipsoid [pub: NIMA TR8350.2, Department of Defense World Geodetic System
// 1984, table 3.1].
const (
	axisM      = 6378137.0
	flattening = 1 / 298.257223563
	minorM     = axisM * (1 - flattening)
	square     = flattening * (2 - flattening) // of the first eccentricity
)

// nearDeg bounds what [DistanceM] takes for near: about 5 km, where the formula of
// the middle latitude errs by less than a part in ten million.
const nearDeg = 0.05

// DistanceM is how far two points are apart.
func DistanceM(a, b Point) float64 {
	north, east := b.Lat-a.Lat, Turn(b.Lon-a.Lon)
	if math.Abs(north) < nearDeg && math.Abs(east) < nearDeg && math.Abs(a.Lat) < 89 {
		return near(radians(a.Lat+north/2), radians(north), radians(east))
	}
	return geodesic(radians(a.Lat), radians(b.Lat), radians(east))
}

// Turn is a difference of two longitudes taken the short way round, ±180.
func Turn(degrees float64) float64 {
	switch {
	case degrees > 180:
		return degrees - 360
	case degrees < -180:
		return degrees + 360
	}
	return degrees
}

func radians(degrees float64) float64 { return degrees * math.Pi / 180 }

// near is Gauss's formula of the middle latitude: both radii of curvature are
// taken halfway [pub: W. Torge, Geodesy, ch. 6].
func near(middle, north, east float64) float64 {
	sin, cos := math.Sincos(middle)
	w := 1 - square*sin*sin
	across := axisM / math.Sqrt(w) // the radius in the prime vertical
	along := across * (1 - square) / w
	return math.Hypot(along*north, across*cos*east)
}

// geodesic is the inverse problem [pub: T. Vincenty, Direct and inverse solutions
// of geodesics on the ellipsoid, Survey Review XXIII, 1975]. Near antipodes, where
// its iteration does not settle, it is the half circumference: no ride is that
// long.
func geodesic(lat1, lat2, east float64) float64 {
	sinU1, cosU1 := math.Sincos(math.Atan((1 - flattening) * math.Tan(lat1)))
	sinU2, cosU2 := math.Sincos(math.Atan((1 - flattening) * math.Tan(lat2)))
	lambda := east
	for range 100 {
		sinL, cosL := math.Sincos(lambda)
		sinS := math.Hypot(cosU2*sinL, cosU1*sinU2-sinU1*cosU2*cosL)
		if sinS == 0 {
			return 0
		}
		cosS := sinU1*sinU2 + cosU1*cosU2*cosL
		sigma := math.Atan2(sinS, cosS)
		sinA := cosU1 * cosU2 * sinL / sinS
		cos2A := 1 - sinA*sinA
		cos2M := 0.0 // on the equator
		if cos2A > 0 {
			cos2M = cosS - 2*sinU1*sinU2/cos2A
		}
		c := flattening / 16 * cos2A * (4 + flattening*(4-3*cos2A))
		last := lambda
		lambda = east + (1-c)*flattening*sinA*(sigma+c*sinS*(cos2M+c*cosS*(2*cos2M*cos2M-1)))
		if math.Abs(lambda-last) > 1e-12 {
			continue
		}
		u := cos2A * (axisM*axisM/(minorM*minorM) - 1)
		a := 1 + u/16384*(4096+u*(-768+u*(320-175*u)))
		b := u / 1024 * (256 + u*(-128+u*(74-47*u)))
		shift := b * sinS * (cos2M + b/4*(cosS*(2*cos2M*cos2M-1)-b/6*cos2M*(4*sinS*sinS-3)*(4*cos2M*cos2M-3)))
		return minorM * a * (sigma - shift)
	}
	return math.Pi * (axisM + minorM) / 2
}
