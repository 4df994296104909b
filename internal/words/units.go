package words

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/unit"
)

// Units are a rider's own: which unit is shown for a metric one, and how they write
// numbers. Nil is metric throughout.
type Units map[string]string

// Choice is a quantity whose unit a rider chooses, and the units there are, the
// metric one first.
type Choice struct {
	Name  string
	Units []string
}

// Choices lists the quantities.
func Choices() []Choice { return choices }

var choices = []Choice{
	{"Distance", []string{"km", "mi"}},
	{"Speed", []string{"km/h", "mph"}},
	{"Mass", []string{"kg", "lb", "st"}},
	{"Length", []string{"mm", "in"}},
	{"Volume", []string{"L", "US gal", "UK gal"}},
	{"Power", []string{"kW", "PS", "hp"}},
	{"Torque", []string{"Nm", "lbf ft"}},
	{"Pressure", []string{"kPa", "bar", "psi"}},
	{"Spring rate", []string{"N/mm", "kgf/mm", "lbf/in"}},
	{"Consumption", []string{"L/100 km", "km/L", "mpg US", "mpg UK"}},
	{"Height", []string{"m", "ft"}},
}

// Preset is a set of choices under a country's name.
type Preset struct {
	Name  string
	Units Units
}

// Presets lists them; each quantity can still be chosen apart.
func Presets() []Preset {
	return []Preset{
		{"Metric", Units{}},
		{"US", Units{"km": "mi", "km/h": "mph", "kg": "lb", "mm": "in", "L": "US gal", "kW": "hp", "Nm": "lbf ft", "kPa": "psi", "N/mm": "lbf/in", "L/100 km": "mpg US", "m": "ft", numbers: string(unit.Point)}},
		{"UK", Units{"km": "mi", "km/h": "mph", "kW": "hp", "kPa": "psi", "L/100 km": "mpg UK", numbers: string(unit.Point)}},
	}
}

// ParseUnits reads what String wrote; what is no choice is left out.
func ParseUnits(text string) Units {
	u := Units{}
	for _, pair := range strings.Split(text, ",") {
		metric, own, _ := strings.Cut(pair, "=")
		for _, c := range choices {
			if c.Units[0] == metric && own != metric && slices.Contains(c.Units, own) {
				u[metric] = own
			}
		}
		if c := unit.Convention(own); metric == numbers && (c == unit.Point || c == unit.Comma) {
			u[numbers] = own
		}
	}
	return u
}

// String is the choices that differ from metric, "kg=lb,km=mi".
func (u Units) String() string {
	var pairs []string
	for _, c := range choices {
		if own := u.Of(c.Units[0]); own != c.Units[0] {
			pairs = append(pairs, c.Units[0]+"="+own)
		}
	}
	if u[numbers] != "" {
		pairs = append(pairs, numbers+"="+u[numbers])
	}
	return strings.Join(pairs, ",")
}

// Of is the unit that is shown for a metric one.
func (u Units) Of(metric string) string {
	if own, ok := u[metric]; ok {
		return own
	}
	return metric
}

// Convert turns a metric number into the rider's unit.
func (u Units) Convert(v float64, metric string) (own float64, symbol string) {
	symbol = u.Of(metric)
	if symbol == metric {
		return v, metric
	}
	own, ok := unit.Convert(v, metric, symbol)
	if !ok {
		return v, metric
	}
	return own, symbol
}

// per is how much of a row's distance the rider's unit of it is.
func (u Units) per(row *figure.Row) float64 {
	if row.Per == "" {
		return 1
	}
	v, ok := unit.Convert(1, u.Of(row.Per), row.Per)
	if !ok {
		return 1
	}
	return v
}

// Name of a figure, with the rider's unit where it is by distance.
func (u Units) Name(row *figure.Row) string {
	if row.Per == "" {
		return row.Name
	}
	return strings.TrimSuffix(row.Name, row.Per) + u.Of(row.Per)
}

var braces = regexp.MustCompile(`\{([^{} ]+) ([^{}]+)\}`)

// Text is what a rule says, in the rider's units.
func (u Units) Text(t study.Text) string {
	if len(u) == 0 {
		return t.String()
	}
	told := braces.ReplaceAllStringFunc(string(t), func(quantity string) string {
		part := braces.FindStringSubmatch(quantity)
		v, err := strconv.ParseFloat(part[1], 64)
		if err != nil {
			return part[1] + " " + part[2]
		}
		own, symbol := u.Convert(v, part[2])
		if symbol == part[2] {
			return part[1] + " " + part[2]
		}
		return asRough(v, part[1], own, decimals[symbol]) + " " + symbol
	})
	return study.Text(told).String() // what is no number with a unit of its own stands as it is
}

// asRough writes a number that was converted, with about as many digits as the written one bore:
// 6000 ft are 1829 m, which are 6001 ft only to who forgets that.
func asRough(v float64, written string, own float64, most int) string {
	_, fraction, _ := strings.Cut(written, ".")
	step := math.Pow10(-len(fraction))
	if v == 0 || own == 0 {
		return Number(own, 0)
	}
	digits := -int(math.Round(math.Log10(step * math.Abs(own/v))))
	if digits < 0 {
		if coarse := math.Pow10(-digits); math.Abs(own) >= 100*coarse {
			own = coarse * math.Round(own/coarse)
		}
		digits = 0
	}
	return trimmed(own, min(digits, most))
}
