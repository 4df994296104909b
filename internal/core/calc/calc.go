// Package calc is the calculators: each takes named values and gives named
// results, by the rules of the subject packages.
//
// Every key has limits beyond which a value is absurd; a calculator refuses it
// rather than compute with it. Results are unrounded; one that cannot be known
// is left out.
package calc

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/sheet"
)

// Kind of value that a key takes.
type Kind int

// The kinds.
const (
	Number Kind = iota
	Whole
	List // of numbers, comma between
	Text
)

// Key is one value that goes in.
type Key struct {
	Name     string
	Label    string // as a rider reads it
	Unit     string
	Kind     Kind
	Min, Max float64
	Optional bool
	Help     string
	Example  string
}

// Result is one value that comes out: float64, []float64, int or string.
type Result struct {
	Key   string
	Label string
	Unit  string
	Value any
}

// Calculator is one of them.
type Calculator struct {
	Name    string
	Title   string
	Caution string // shown with the results, "" for none
	Keys    []Key
	run     func(in input) ([]Result, error)
}

// All the calculators, in the order of the work.
func All() []Calculator {
	return []Calculator{
		tyreCalculator, gearingCalculator, chainCalculator, rangeCalculator, axlesCalculator,
		sagCalculator, springCalculator, wheelrateCalculator, geometryCalculator,
		wireCalculator, drainCalculator, stopCalculator, beamCalculator, outrunCalculator, airCalculator,
	}
}

// Find a calculator by its name.
func Find(name string) (Calculator, error) {
	var names []string
	for _, c := range All() {
		if c.Name == name {
			return c, nil
		}
		names = append(names, c.Name)
	}
	return Calculator{}, fmt.Errorf("no calculator %q, want one of %s", name, strings.Join(names, ", "))
}

// Run reads key=value arguments and computes.
func (c Calculator) Run(args []string) ([]Result, error) {
	in, err := c.read(args)
	if err != nil {
		return nil, err
	}
	return c.run(in)
}

// Explain is Run with the working.
func (c Calculator) Explain(args []string) ([]Result, *sheet.Sheet, error) {
	in, err := c.read(args)
	if err != nil {
		return nil, nil, err
	}
	in.working = &sheet.Sheet{}
	results, err := c.run(in)
	return results, in.working, err
}

// ErrKey is what is wrong with one key.
type ErrKey struct {
	Key string
	Err error
}

func (e ErrKey) Error() string { return e.Key + ": " + e.Err.Error() }

// Unwrap is what is wrong.
func (e ErrKey) Unwrap() error { return e.Err }

func (c Calculator) read(args []string) (input, error) {
	in := input{keys: c.Keys, values: map[string]any{}}
	for _, arg := range args {
		name, value, found := strings.Cut(arg, "=")
		if !found {
			return in, fmt.Errorf("%q: want key=value", arg)
		}
		at := slices.IndexFunc(c.Keys, func(k Key) bool { return k.Name == name })
		if at < 0 {
			return in, fmt.Errorf("%s: unknown key, want %s", name, c.keyNames())
		}
		if _, twice := in.values[name]; twice {
			return in, ErrKey{name, errors.New("given twice")}
		}
		read, err := c.Keys[at].read(value)
		if err != nil {
			return in, ErrKey{name, err}
		}
		in.values[name] = read
	}
	for _, k := range c.Keys {
		if !in.has(k.Name) && !k.Optional {
			return in, ErrKey{k.Name, fmt.Errorf("missing (%s)", k.Help)}
		}
	}
	return in, nil
}

func (c Calculator) keyNames() string {
	names := make([]string, len(c.Keys))
	for i, k := range c.Keys {
		names[i] = k.Name
	}
	return strings.Join(names, " ")
}

func (k Key) read(text string) (any, error) {
	switch k.Kind {
	case Text:
		return text, nil
	case List:
		var list []float64
		for _, word := range strings.Split(text, ",") {
			v, err := k.number(word)
			if err != nil {
				return nil, err
			}
			list = append(list, v)
		}
		if len(list) > 20 {
			return nil, fmt.Errorf("%d values, want at most 20", len(list))
		}
		return list, nil
	case Whole:
		v, err := k.number(text)
		if err == nil && v != math.Trunc(v) {
			err = fmt.Errorf("%q is not a whole number", text)
		}
		return v, err
	}
	return k.number(text)
}

func (k Key) number(text string) (float64, error) {
	v, err := plain(text)
	if err != nil {
		return 0, err
	}
	if v < k.Min || v > k.Max {
		return 0, fmt.Errorf("%s is outside %g–%g %s", text, k.Min, k.Max, k.Unit)
	}
	return v, nil
}

// plain reads a decimal number; no hexadecimal, no infinities.
func plain(text string) (float64, error) {
	if text == "" || strings.Trim(text, "0123456789.+-eE") != "" {
		return 0, fmt.Errorf("%q is not a number", text)
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil {
		return 0, fmt.Errorf("%q is not a number", text)
	}
	return v, nil
}

// input is the values read, by key, and the working that is kept of them.
type input struct {
	keys    []Key
	values  map[string]any
	working *sheet.Sheet // nil when nobody looks
}

func (in input) number(key string) float64 { v, _ := in.values[key].(float64); return v }
func (in input) list(key string) []float64 { v, _ := in.values[key].([]float64); return v }
func (in input) text(key string) string    { v, _ := in.values[key].(string); return v }
func (in input) teeth(key string) int      { return int(in.number(key)) }
func (in input) has(key string) bool       { _, ok := in.values[key]; return ok }

// value is a number that was put in, for the working.
func (in input) value(key string) sheet.Value {
	at := slices.IndexFunc(in.keys, func(k Key) bool { return k.Name == key })
	return sheet.Value{Name: in.keys[at].Label, Number: in.number(key), Unit: in.keys[at].Unit, Origin: sheet.Rider}
}

// step notes one formula with its keys; computed numbers follow them.
func (in input) step(f sheet.Formula, out Result, keys []string, computed ...Result) {
	if in.working == nil {
		return
	}
	values := make([]sheet.Value, 0, len(keys)+len(computed))
	for _, key := range keys {
		values = append(values, in.value(key))
	}
	for _, r := range computed {
		values = append(values, r.sheet())
	}
	in.working.Step(f, out.sheet(), values...)
}

func (r Result) sheet() sheet.Value {
	v, _ := r.Value.(float64)
	if n, whole := r.Value.(int); whole {
		v = float64(n)
	}
	return sheet.Value{Name: r.Label, Number: v, Unit: r.Unit, Origin: sheet.Computed}
}
