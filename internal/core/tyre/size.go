package tyre

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/sheet"
)

// Construction of the carcass.
type Construction string

// The constructions, as the code's letter or dash tells them.
const (
	Radial     Construction = "radial"      // R, ZR
	Diagonal   Construction = "diagonal"    // -
	BiasBelted Construction = "bias-belted" // B
)

// Size is a tyre code taken apart. The zero Size is no tyre.
type Size struct {
	code         string
	SectionMM    float64
	Aspect       float64 // section height as % of section width
	RimIn        float64
	Construction Construction
	LoadIndex    int    // 20–99, 0 when the code does not say
	Speed        string // speed symbol, "" when the code does not say
	MudAndSnow   bool   // M+S mark
	Tubeless     bool   // TL mark
	TubeType     bool   // TT mark: it needs a tube on any rim
	RearOnly     bool   // R position mark
}

// String is the code as it was written.
func (s Size) String() string { return s.code }

// IsZero reports that there is no size.
func (s Size) IsZero() bool { return s.code == "" }

// Parse reads a code of the forms `140/80-18 M/C 70R TT`, `150/70 R 18`,
// `120/70 ZR 17 (58W)`, `3.00-21 51P` and `120/100-18`
// [pub: form by ISO 5751-1 (metric) and ISO 4249-1 (code-designated)].
// A letter beside the rim is the construction; a letter after the load index is
// the speed symbol.
func Parse(code string) (Size, error) {
	s := Size{code: strings.TrimSpace(code)}
	fail := func(what string) (Size, error) {
		return Size{}, fmt.Errorf("tyre %q: %s", code, what)
	}
	if s.code == "" {
		return fail("code missing, want e.g. 140/80-18 M/C 70R")
	}
	if len(s.code) > 60 {
		return Size{}, fmt.Errorf("tyre code of %d characters: want e.g. 140/80-18 M/C 70R", len(s.code))
	}
	rest := strings.ToUpper(s.code)
	width, rest := leadingNumber(rest)
	if width == "" {
		return fail("section width missing, want e.g. 140/80-18 or 3.00-21")
	}
	inch := !strings.HasPrefix(strings.TrimSpace(rest), "/")
	if inch {
		aspect, ok := inchAspects[fraction(width)]
		if !ok {
			return fail("an inch width ends in .00 .25 .50 .75 .10 or .60, a metric one is followed by its aspect: 140/80-18")
		}
		s.Aspect = aspect
		s.SectionMM = 25.4 * atof(width)
	} else {
		var aspect string
		aspect, rest = leadingNumber(strings.TrimSpace(rest)[1:])
		if aspect == "" {
			return fail("aspect missing after the slash, want e.g. 140/80-18")
		}
		s.SectionMM, s.Aspect = atof(width), atof(aspect)
	}

	rest = strings.TrimSpace(rest)
	switch {
	case strings.HasPrefix(rest, "ZR"):
		s.Construction, rest = Radial, rest[2:]
	case strings.HasPrefix(rest, "R"):
		s.Construction, rest = Radial, rest[1:]
	case strings.HasPrefix(rest, "B"):
		s.Construction, rest = BiasBelted, rest[1:]
	case strings.HasPrefix(rest, "-"):
		s.Construction, rest = Diagonal, rest[1:]
	case rest == "":
		return fail("rim diameter missing, want e.g. 140/80-18")
	default:
		return fail("construction missing before the rim: - diagonal, B bias-belted, R or ZR radial")
	}
	rim, rest := leadingNumber(strings.TrimSpace(rest))
	if rim == "" {
		return fail("rim diameter missing, want e.g. 140/80-18")
	}
	s.RimIn = atof(rim)
	if what := s.outOfRange(inch); what != "" {
		return fail(what)
	}
	if rest != "" && rest[0] != ' ' && rest[0] != '(' {
		return fail("a space belongs after the rim diameter, e.g. 140/80-18 70R")
	}
	for _, word := range strings.Fields(rest) {
		if what := s.mark(word); what != "" {
			return fail(what)
		}
	}
	return s, nil
}

// mark reads one word behind the size; it returns what is wrong with it, or "".
func (s *Size) mark(word string) string {
	switch word {
	case "M/C", "F", "FRONT", "RF", "REINF", "REINFORCED", "NHS":
		return ""
	case "M+S", "M&S":
		s.MudAndSnow = true
		return ""
	case "TL":
		s.Tubeless = true
		return ""
	case "TT":
		s.TubeType = true
		return ""
	case "R", "REAR":
		s.RearOnly = true
		return ""
	}
	if plies, found := strings.CutSuffix(word, "PR"); found && plies != "" && digits(plies) {
		return "" // ply rating, superseded by the load index
	}
	bare := word
	if strings.HasPrefix(word, "(") && strings.HasSuffix(word, ")") {
		bare = word[1 : len(word)-1]
	}
	index, symbol := leadingNumber(bare)
	if index == "" || len(symbol) != 1 || !digits(index) {
		return fmt.Sprintf("%q not understood, want load index and speed symbol like 70R, or M/C TT TL M+S F R", word)
	}
	if s.LoadIndex != 0 {
		return fmt.Sprintf("%q: a second load index", word)
	}
	n := int(atof(index))
	if _, ok := MaxLoadKg(n); !ok {
		return fmt.Sprintf("load index %s outside the table, want 20 to 99", index)
	}
	if _, ok := MaxSpeedKmh(symbol); !ok {
		return fmt.Sprintf("speed symbol %q unknown, want one of %s", symbol, speedSymbols())
	}
	s.LoadIndex, s.Speed = n, symbol
	return ""
}

// outOfRange says what about the size no motorcycle has.
func (s Size) outOfRange(inch bool) string {
	switch {
	case s.SectionMM < 40 || s.SectionMM > 400:
		if inch {
			return "section width outside 1.6–15.7 in"
		}
		return "section width outside 40–400 mm"
	case s.Aspect < 25 || s.Aspect > 120:
		return "aspect outside 25–120 %"
	case s.RimIn < 4 || s.RimIn > 30:
		return "rim diameter outside 4–30 in"
	}
	return ""
}

// inchAspects are the section heights of inch codes, in % of the width, by the
// hundredths of the width [memory, ±2.5 %: the full-section series near 100 %,
// the low-section series near 90 %].
var inchAspects = map[string]float64{
	"00": 100, "25": 100, "50": 100, "75": 100,
	"10": 90, "60": 90,
}

// SectionHeightMM = width × aspect/100.
func (s Size) SectionHeightMM() float64 { return s.SectionMM * s.Aspect / 100 }

// DiameterFormula is the formula of [Size.OverallDiameterMM].
var DiameterFormula = sheet.Formula{Text: "D = 25.4 × rim + 2 × width × aspect / 100", Origin: sheet.Published, Source: "ISO 5751-1"}

// RollingFormula is the formula of [Size.RollingCircumferenceMM].
var RollingFormula = sheet.Formula{Text: "C = k × D, k = 3.05 radial, 2.99 bias", Origin: sheet.Memory}

// OverallDiameterMM = 25.4 × rim + 2 × section height
// [pub: ISO 5751-1 / ETRTO designation; ±1 mm for rounded rim diameters].
func (s Size) OverallDiameterMM() float64 { return 25.4*s.RimIn + 2*s.SectionHeightMM() }

// RollingHalf is half of the band of either factor, a share of it [memory].
const RollingHalf = 0.011

// RollingCircumferenceMM is the distance of one wheel turn under load: 3.05 ×
// overall diameter for radials, 2.99 × for bias and bias-belted tyres
// [memory]. A measured roll-out overrules it.
func (s Size) RollingCircumferenceMM() float64 {
	return s.RollingFactor() * s.OverallDiameterMM()
}

// RollingFactor is the rolling circumference over the overall diameter.
func (s Size) RollingFactor() float64 {
	if s.Construction == Radial {
		return 3.05
	}
	return 2.99
}

// MarshalText writes the code as it was written.
func (s Size) MarshalText() ([]byte, error) { return []byte(s.code), nil }

// UnmarshalText reads what MarshalText wrote.
func (s *Size) UnmarshalText(b []byte) error {
	read, err := Parse(string(b))
	if err != nil {
		return err
	}
	*s = read
	return nil
}

// leadingNumber cuts the decimal number off the front of text.
func leadingNumber(text string) (number, rest string) {
	text = strings.TrimSpace(text)
	end := 0
	for end < len(text) && (text[end] >= '0' && text[end] <= '9' || text[end] == '.') {
		end++
	}
	if _, err := strconv.ParseFloat(text[:end], 64); err != nil {
		return "", text
	}
	return text[:end], text[end:]
}

// fraction is the part behind the point, two digits: "00" of "3.00".
func fraction(number string) string {
	_, after, found := strings.Cut(number, ".")
	if !found || len(after) != 2 {
		return ""
	}
	return after
}

func digits(text string) bool { return strings.Trim(text, "0123456789") == "" }

// atof reads what leadingNumber found to be a number.
func atof(number string) float64 {
	v, err := strconv.ParseFloat(number, 64)
	if err != nil {
		return math.NaN()
	}
	return v
}
