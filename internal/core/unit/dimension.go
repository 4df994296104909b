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

	Area        = Quantity[area]
	Angle       = Quantity[angle]
	Stiffness   = Quantity[stiffness]
	Consumption = Quantity[consumption]
	Charge      = Quantity[charge]
	Current     = Quantity[current]
	Voltage     = Quantity[voltage]
	Intensity   = Quantity[intensity]
	Flux        = Quantity[flux]
	Illuminance = Quantity[illuminance]
	Duration    = Quantity[duration]
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
var dimensions = [][]Unit{massUnits, lengthUnits, speedUnits, volumeUnits, pressureUnits, powerUnits, torqueUnits, areaUnits, stiffnessUnits, consumptionUnits}

// Convert turns a number of one unit into one of another of the same dimension;
// ok is false when they are not.
func Convert(v float64, from, to string) (converted float64, ok bool) {
	for _, units := range dimensions {
		a, b := named(units, from), named(units, to)
		if a != nil && b != nil {
			return b.number(a.base(v)), true
		}
	}
	return 0, false
}

type mass struct{}

func (mass) example() string { return "96 kg" }
func (mass) units() []Unit   { return massUnits }

var massUnits = []Unit{
	{"kg", 1, nil, false},
	{"g", 0.001, nil, false},
	{"lb", pound, []string{"lbs", "pound", "pounds"}, false},
	{"oz", pound / 16, []string{"ounce", "ounces"}, false},
	{"st", 14 * pound, []string{"stone"}, false},
}

type length struct{}

func (length) example() string { return "590 mm" }
func (length) units() []Unit   { return lengthUnits }

var lengthUnits = []Unit{
	{"m", 1, nil, false},
	{"mm", 0.001, nil, false},
	{"cm", 0.01, nil, false},
	{"km", 1000, nil, false},
	{"in", inch, []string{`"`, "inch", "inches"}, false},
	{"ft", 12 * inch, []string{"foot", "feet"}, false},
	{"mi", mile, []string{"mile", "miles"}, false},
}

type speed struct{}

func (speed) example() string { return "105 km/h" }
func (speed) units() []Unit   { return speedUnits }

var speedUnits = []Unit{
	{"km/h", 1 / 3.6, []string{"kmh", "kph"}, false},
	{"m/s", 1, nil, false},
	{"mph", mile / 3600, []string{"mi/h"}, false},
}

type volume struct{}

func (volume) example() string { return "14.5 L" }
func (volume) units() []Unit   { return volumeUnits }

var volumeUnits = []Unit{
	{"L", 0.001, []string{"litre", "litres", "liter", "liters"}, false},
	{"mL", 1e-6, []string{"cc", "cm3", "cm³"}, false},
	{"US gal", usGallon, []string{"gal", "gallon", "gallons"}, false},
	{"UK gal", ukGallon, []string{"imp gal"}, false},
}

type pressure struct{}

func (pressure) example() string { return "180 kPa" }
func (pressure) units() []Unit   { return pressureUnits }

var pressureUnits = []Unit{
	{"kPa", 1000, nil, false},
	{"bar", 1e5, nil, false},
	{"psi", poundForce / (inch * inch), nil, false},
}

type power struct{}

func (power) example() string { return "34 kW" }
func (power) units() []Unit   { return powerUnits }

var powerUnits = []Unit{
	{"kW", 1000, nil, false},
	{"W", 1, nil, false},
	{"PS", metricHorse, nil, false},
	{"hp", horse, nil, false},
}

type torque struct{}

func (torque) example() string { return "43 Nm" }
func (torque) units() []Unit   { return torqueUnits }

var torqueUnits = []Unit{
	{"Nm", 1, []string{"N·m", "N m"}, false},
	{"lbf ft", poundForce * 12 * inch, []string{"lb ft", "ft lb", "lb-ft"}, false},
}

type rotation struct{}

func (rotation) example() string { return "5200 rpm" }
func (rotation) units() []Unit   { return rotationUnits }

var rotationUnits = []Unit{{"rpm", 1, []string{"1/min", "/min"}, false}}

type area struct{}

func (area) example() string { return "0.62 m²" }
func (area) units() []Unit   { return areaUnits }

var areaUnits = []Unit{
	{"m²", 1, []string{"m2"}, false},
	{"cm²", 1e-4, []string{"cm2"}, false},
	{"mm²", 1e-6, []string{"mm2"}, false},
	{"in²", inch * inch, []string{"in2"}, false},
	{"ft²", 144 * inch * inch, []string{"ft2"}, false},
}

type angle struct{}

func (angle) example() string { return "26.5 °" }
func (angle) units() []Unit   { return angleUnits }

var angleUnits = []Unit{{"°", 1, []string{"deg"}, false}}

type stiffness struct{}

func (stiffness) example() string { return "65 N/mm" }
func (stiffness) units() []Unit   { return stiffnessUnits }

var stiffnessUnits = []Unit{
	{"N/mm", 1000, nil, false},
	{"kgf/mm", 1000 * StandardGravity, []string{"kg/mm"}, false},
	{"lbf/in", poundForce / inch, []string{"lb/in"}, false},
}

type consumption struct{}

func (consumption) example() string { return "4.6 L/100 km" }
func (consumption) units() []Unit   { return consumptionUnits }

// Consumption is held in m³/m. The units of distance per volume are its inverse.
var consumptionUnits = []Unit{
	{"L/100 km", 1e-8, []string{"L/100km"}, false},
	{"km/L", 1e-6, nil, true},
	{"mpg US", usGallon / mile, []string{"mpg"}, true},
	{"mpg UK", ukGallon / mile, nil, true},
}

type charge struct{}

func (charge) example() string { return "11 Ah" }
func (charge) units() []Unit   { return chargeUnits }

var chargeUnits = []Unit{{"Ah", 1, nil, false}}

type current struct{}

func (current) example() string { return "20 mA" }
func (current) units() []Unit   { return currentUnits }

var currentUnits = []Unit{
	{"A", 1, nil, false},
	{"mA", 0.001, nil, false},
}

type voltage struct{}

func (voltage) example() string { return "13.8 V" }
func (voltage) units() []Unit   { return voltageUnits }

var voltageUnits = []Unit{{"V", 1, []string{"volt", "volts"}, false}}

type illuminance struct{}

func (illuminance) example() string { return "3 lx" }
func (illuminance) units() []Unit   { return illuminanceUnits }

var illuminanceUnits = []Unit{{"lx", 1, []string{"lux"}, false}}

type intensity struct{}

func (intensity) example() string { return "25000 cd" }
func (intensity) units() []Unit   { return intensityUnits }

var intensityUnits = []Unit{{"cd", 1, nil, false}}

type flux struct{}

func (flux) example() string { return "1200 lm" }
func (flux) units() []Unit   { return fluxUnits }

var fluxUnits = []Unit{{"lm", 1, nil, false}}

type duration struct{}

func (duration) example() string { return "2.5 h" }
func (duration) units() []Unit   { return durationUnits }

var durationUnits = []Unit{
	{"h", 3600, []string{"hours"}, false},
	{"min", 60, []string{"minutes"}, false},
	{"s", 1, []string{"seconds"}, false},
	{"d", 86400, []string{"day", "days"}, false},
	{"wk", 7 * 86400, []string{"week", "weeks"}, false},
	{"yr", 365.25 * 86400, []string{"year", "years"}, false},
}

type ratio struct{}

func (ratio) example() string { return "2.533, or 90 %" }
func (ratio) units() []Unit   { return ratioUnits }

var ratioUnits = []Unit{
	{"", 1, nil, false},
	{"%", 0.01, []string{"percent"}, false},
}
