package guess

import (
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
)

// column is a number for each class.
type column [classes]float64

// of takes the subject's.
func (c column) of(s *Subject) float64 { return c[s.class] }

// perCC is a number by displacement for each class: so much, and so much more for each cc.
type perCC [classes][2]float64

func (t perCC) of(s *Subject) float64 { return t[s.class][0] + t[s.class][1]*s.cc() }

// follows is how a value follows from a subject.
type follows = func(*Subject) float64

// vagueness widens the bands of a bike whose class nobody has said.
const vagueness = 1.5

// always is the same for every subject.
func always(v float64) follows { return func(*Subject) float64 { return v } }

// share is half of a band as a share of the value.
func share(half float64) follows { return always(half) }

// number is a quantity that can be set.
type number interface {
	Known() bool
	In(symbol string) float64
	Set(number float64, symbol string)
}

// bike is a row of one of the bike's numbers; half is a share of the value.
func bike(key, symbol string, at func(*plan.Bike) number, value, half follows, more ...func(*Row)) *Row {
	r := quantity("bike/"+key, symbol, func(s *Subject) number { return at(s.Bike) }, value, half, more...)
	ofBike(r)
	return r
}

// brief is a row of one of the brief's numbers.
func brief(key, symbol string, at func(*plan.Brief) number, value, half follows, more ...func(*Row)) *Row {
	r := quantity("brief/"+key, symbol, func(s *Subject) number { return at(s.Brief) }, value, half, more...)
	r.copy = nil
	return r
}

func quantity(at, symbol string, of func(*Subject) number, value, half follows, more ...func(*Row)) *Row {
	r := newRow(at, more)
	r.Unit = symbol
	r.known = func(s *Subject) bool { return of(s).Known() }
	within := func(v, h float64) Band {
		b := Band{Low: v - h, Value: v, High: v + h}
		b.put = func(s *Subject, at float64) { of(s).Set(v+at*h, symbol) }
		return b
	}
	r.guess = func(s *Subject) (Band, bool) {
		v := rounded(value(s))
		return within(v, math.Abs(v)*half(s)*s.wider()), !math.IsNaN(v)
	}
	r.copy = func(s, like *Subject) Band {
		v := of(like).In(symbol)
		return within(v, math.Abs(v)*half(s)*likeness)
	}
	return r
}

func newRow(at string, more []func(*Row)) *Row {
	r := &Row{At: at, Origin: sheet.Memory, Joint: 1, Loose: 1}
	for _, m := range more {
		m(r)
	}
	return r
}

// ofBike is a row that a plan without a bike has no use for.
func ofBike(r *Row) {
	known := r.known
	r.known = func(s *Subject) bool { return s.Bike == nil || known(s) }
}

// wider is by how much bands are wider than the table's.
func (s *Subject) wider() float64 {
	if s.vague {
		return vagueness
	}
	return 1
}

// rounded is a value as somebody would type it: three digits.
func rounded(v float64) float64 {
	if v == 0 || math.IsNaN(v) || math.IsInf(v, 0) {
		return v
	}
	scale := math.Pow10(2 - int(math.Floor(math.Log10(math.Abs(v)))))
	return math.Round(v*scale) / scale
}

// came is the factory's part in a slot, to be changed; one that nobody has said is guessed.
func came(b *plan.Bike, slot parts.Slot) parts.Part {
	p, told := b.Came(slot)
	if !told {
		p.Origin = sheet.Guessed
	}
	return p
}

// sized is a row of a standard tyre: its size by class, give or take a share of how far it
// rolls, which other sizes on the same rim make up.
func sized(slot parts.Slot, half float64, code func(*Subject) string, more ...func(*Row)) *Row {
	r := newRow("came/"+string(slot)+"/"+parts.TyreCode.Key, more)
	r.known = func(s *Subject) bool { return !sizeIn(s.Bike, slot).IsZero() }
	within := func(size tyre.Size, h float64) Band {
		b := words(size.String(), "")
		b.put = func(s *Subject, at float64) {
			p := came(s.Bike, slot)
			moved := size
			moved.Aspect += at * h * size.OverallDiameterMM() / (2 * size.SectionMM) * 100
			parts.TyreCode.Put(&p, parts.Code{Size: moved})
			s.Bike.SetStandard(p)
		}
		return b
	}
	r.guess = func(s *Subject) (Band, bool) {
		size, err := tyre.Parse(onRim(s, slot, code(s)))
		if err != nil {
			return Band{}, false
		}
		return within(size, half*s.wider()), true
	}
	r.copy = func(_, like *Subject) Band {
		size := sizeIn(like.Bike, slot)
		size.LoadIndex, size.Speed = 0, "" // which are ratings: nobody has read them on this one
		return within(size, half*likeness)
	}
	ofBike(r)
	return r
}

// onRim is a tyre's code on the rim that is known, where it is another than the class's.
func onRim(s *Subject, slot parts.Slot, code string) string {
	rim := s.Bike.FrontRimDiameter
	if slot == parts.RearTyre {
		rim = s.Bike.RearRimDiameter
	}
	at := strings.LastIndexAny(code, "-R")
	if !rim.Known() || at < 0 {
		return code
	}
	return code[:at+1] + strconv.Itoa(int(math.Round(rim.In("in"))))
}

// toothed is a row of a standard sprocket: its teeth by class, give or take some.
func toothed(slot parts.Slot, half float64, teeth follows, more ...func(*Row)) *Row {
	r := newRow("came/"+string(slot)+"/"+parts.Teeth.Key, more)
	r.known = func(s *Subject) bool { return s.teeth(slot) > 0 || s.Bike.Shaft() }
	within := func(v, h float64) Band {
		h = math.Max(1, math.Round(h))
		b := Band{Low: v - h, Value: v, High: v + h}
		b.put = func(s *Subject, at float64) {
			p := came(s.Bike, slot)
			p.Recount(int(math.Round(v + at*h)))
			s.Bike.SetStandard(p)
		}
		return b
	}
	r.guess = func(s *Subject) (Band, bool) { return within(math.Round(teeth(s)), half*s.wider()), true }
	r.copy = func(_, like *Subject) Band { return within(like.teeth(slot), half*likeness) }
	ofBike(r)
	return r
}

// teeth of a standard sprocket, 0 where nobody knows.
func (s *Subject) teeth(slot parts.Slot) float64 {
	if p := s.Bike.StandardIn(slot); p != nil {
		n, _ := p.Count()
		return float64(n)
	}
	return 0
}

// geared is the row of the gearbox: ratios by class, all of them give or take a share.
func geared(half float64, ratios func(*Subject) string, more ...func(*Row)) *Row {
	r := newRow("bike/gearbox", more)
	r.known = func(s *Subject) bool { return s.Bike.Gearbox.Known() }
	within := func(gears plan.Gears, h float64) Band {
		b := words(gears.String(), "")
		b.put = func(s *Subject, at float64) { s.Bike.Gearbox = scaled(gears, 1+at*h) }
		return b
	}
	r.guess = func(s *Subject) (Band, bool) {
		var gears plan.Gears
		err := gears.Enter(ratios(s), "")
		return within(gears, half*s.wider()), err == nil
	}
	r.copy = func(_, like *Subject) Band { return within(like.Bike.Gearbox, half*likeness) }
	ofBike(r)
	return r
}

// scaled are gears with every ratio so many times as much; the same where no gearbox has such.
func scaled(gears plan.Gears, by float64) plan.Gears {
	if by == 1 {
		return gears
	}
	words := make([]string, len(gears.Ratios()))
	for i, v := range gears.Ratios() {
		words[i] = strconv.FormatFloat(v*by, 'f', 4, 64)
	}
	then := gears
	if then.Enter(strings.Join(words, " "), "") != nil {
		return gears
	}
	return then
}

// said is a row of one of the bike's words: what is usual, and what else it may be, "" for
// nothing.
func said[S ~string](key string, at func(*plan.Bike) *S, usual, other func(*Subject) S, more ...func(*Row)) *Row {
	r := newRow("bike/"+key, more)
	r.known = func(s *Subject) bool { return *at(s.Bike) != "" }
	among := func(v, o S) Band {
		b := words(string(v), string(o))
		b.put = func(s *Subject, end float64) {
			if end < 0 && o != "" {
				*at(s.Bike) = o
			} else {
				*at(s.Bike) = v
			}
		}
		return b
	}
	r.guess = func(s *Subject) (Band, bool) {
		v := usual(s)
		return among(v, other(s)), v != ""
	}
	r.copy = func(_, like *Subject) Band { return among(*at(like.Bike), "") }
	ofBike(r)
	return r
}

// cameAs is a row of a word of a standard part: what is usual, and what else it may be.
func cameAs[S ~string](slot parts.Slot, of parts.Choice[S], usual, other func(*Subject) S, more ...func(*Row)) *Row {
	r := newRow("came/"+string(slot)+"/"+of.Key, more)
	r.known = func(s *Subject) bool {
		p := s.Bike.StandardIn(slot)
		return p != nil && of.In(p) != ""
	}
	among := func(v, o S) Band {
		b := words(string(v), string(o))
		b.put = func(s *Subject, at float64) {
			p := came(s.Bike, slot)
			if at < 0 {
				of.Put(&p, o)
			} else {
				of.Put(&p, v)
			}
			s.Bike.SetStandard(p)
		}
		return b
	}
	r.guess = func(s *Subject) (Band, bool) {
		v := usual(s)
		return among(v, other(s)), v != ""
	}
	r.copy = func(_, like *Subject) Band {
		v := of.In(like.Bike.StandardIn(slot))
		return among(v, v)
	}
	ofBike(r)
	return r
}

// words is a band of a word, and of what else it may be.
func words(v, other string) Band {
	b := Band{Low: math.NaN(), Value: math.NaN(), High: math.NaN(), Words: [3]string{v, v, v}}
	if other != "" {
		b.Words[0] = other
	}
	return b
}

// What more there is to say of a row.

func kind(k Kind, joint float64) func(*Row) {
	return func(r *Row) { r.Kind, r.Joint = k, joint }
}

func loose(share float64) func(*Row) { return func(r *Row) { r.Loose = share } }

func anchor(r *Row) { r.Anchor = true }

func from(o sheet.Origin) func(*Row) { return func(r *Row) { r.Origin = o } }

// read is how long it takes to find out in what the maker says.
func read(minutes float64, where string) func(*Row) {
	return func(r *Row) { r.Minutes, r.Tools, r.Read = minutes, where, true }
}

// measured is how long it takes to find out, and with what.
func measured(minutes float64, tools string) func(*Row) {
	return func(r *Row) { r.Minutes, r.Tools = minutes, tools }
}
