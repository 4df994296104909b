package unit

// A Dimension is what a quantity measures. The dimensions of the trade are
// declared here and nowhere else.
type Dimension interface {
	units() []Unit
	example() string
}

// The quantities of the trade. A length is not a mass, and the compiler knows.
type (
	Mass     = Quantity[mass]
	Length   = Quantity[length]
	Speed    = Quantity[speed]
	Volume   = Quantity[volume]
	Pressure = Quantity[pressure]
	Power    = Quantity[power]
	Torque   = Quantity[torque]
	Rotation = Quantity[rotation]
	Ratio    = Quantity[ratio]
)

// The conversion factors are exact by definition where the unit is
// (NIST SP 811, appendix B.8: inch, mile, pound, US gallon, knot; the imperial
// gallon is 4.54609 L by law) and otherwise follow from those and
// g = 9.80665 m/s².
const (
	inch        = 0.0254
	mile        = 1609.344
	pound       = 0.45359237
	poundForce  = pound * StandardGravity
	usGallon    = 231 * inch * inch * inch
	ukGallon    = 0.00454609
	metricHorse = 75 * StandardGravity
	horse       = 550 * 12 * inch * poundForce
)

// StandardGravity in m/s² [pub: ISO 80000-3; NIST SP 811].
const StandardGravity = 9.80665

// dimensions lists the unit tables, for conversions by symbol.
var dimensions = [][]Unit{massUnits, lengthUnits, speedUnits, volumeUnits, pressureUnits, powerUnits, torqueUnits}

// Convert turns a number of one unit into one of another of the same dimension;
// ok is false when they are not.
func Convert(v float64, from, to string) (converted float64, ok bool) {
	for _, units := range dimensions {
		a, b := named(units, from), named(units, to)
		if a != nil && b != nil {
			return v * a.Factor / b.Factor, true
		}
	}
	return 0, false
}

type mass struct{}

func (mass) example() string { return "96 kg" }
func (mass) units() []Unit   { return massUnits }

var massUnits = []Unit{
	{"kg", 1, nil},
	{"g", 0.001, nil},
	{"lb", pound, []string{"lbs"}},
	{"st", 14 * pound, []string{"stone"}},
}

type length struct{}

func (length) example() string { return "590 mm" }
func (length) units() []Unit   { return lengthUnits }

var lengthUnits = []Unit{
	{"m", 1, nil},
	{"mm", 0.001, nil},
	{"cm", 0.01, nil},
	{"km", 1000, nil},
	{"in", inch, []string{`"`, "inch"}},
	{"ft", 12 * inch, nil},
	{"mi", mile, []string{"mile", "miles"}},
}

type speed struct{}

func (speed) example() string { return "105 km/h" }
func (speed) units() []Unit   { return speedUnits }

var speedUnits = []Unit{
	{"km/h", 1 / 3.6, []string{"kmh", "kph"}},
	{"m/s", 1, nil},
	{"mph", mile / 3600, []string{"mi/h"}},
}

type volume struct{}

func (volume) example() string { return "14.5 L" }
func (volume) units() []Unit   { return volumeUnits }

var volumeUnits = []Unit{
	{"L", 0.001, []string{"litre", "litres"}},
	{"mL", 1e-6, []string{"cc", "cm3", "cm³"}},
	{"US gal", usGallon, []string{"gal"}},
	{"UK gal", ukGallon, []string{"imp gal"}},
}

type pressure struct{}

func (pressure) example() string { return "180 kPa" }
func (pressure) units() []Unit   { return pressureUnits }

var pressureUnits = []Unit{
	{"kPa", 1000, nil},
	{"bar", 1e5, nil},
	{"psi", poundForce / (inch * inch), nil},
}

type power struct{}

func (power) example() string { return "34 kW" }
func (power) units() []Unit   { return powerUnits }

var powerUnits = []Unit{
	{"kW", 1000, nil},
	{"W", 1, nil},
	{"PS", metricHorse, nil},
	{"hp", horse, nil},
}

type torque struct{}

func (torque) example() string { return "43 Nm" }
func (torque) units() []Unit   { return torqueUnits }

var torqueUnits = []Unit{
	{"Nm", 1, []string{"N·m", "N m"}},
	{"lbf ft", poundForce * 12 * inch, []string{"lb ft", "ft lb", "lb-ft"}},
}

type rotation struct{}

func (rotation) example() string { return "5200 rpm" }
func (rotation) units() []Unit   { return rotationUnits }

var rotationUnits = []Unit{{"rpm", 1, []string{"1/min", "/min"}}}

type ratio struct{}

func (ratio) example() string { return "2.533, or 90 %" }
func (ratio) units() []Unit   { return ratioUnits }

var ratioUnits = []Unit{
	{"", 1, nil},
	{"%", 0.01, []string{"percent"}},
}
