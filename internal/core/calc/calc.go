// Package calc is the calculators: each takes named values and gives named
// results, by the rules of the subject packages.
//
// Every key has limits beyond which a value is absurd; a calculator refuses it
// rather than compute with it. Results are unrounded; one that cannot be known
// is left out.
package calc

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
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
	Unit     string
	Kind     Kind
	Min, Max float64
	Optional bool
	Help     string
}

// Result is one value that comes out: float64, []float64, int or string.
type Result struct {
	Key   string
	Value any
}

// Calculator is one of them.
type Calculator struct {
	Name  string
	Title string
	Keys  []Key
	run   func(in input) ([]Result, error)
}

// All the calculators, in the order in which help lists them.
func All() []Calculator { return []Calculator{tyreCalculator, gearingCalculator, chainCalculator} }

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
	in := input{}
	for _, arg := range args {
		name, value, found := strings.Cut(arg, "=")
		if !found {
			return nil, fmt.Errorf("%q: want key=value", arg)
		}
		at := slices.IndexFunc(c.Keys, func(k Key) bool { return k.Name == name })
		if at < 0 {
			return nil, fmt.Errorf("%s: unknown key, want %s", name, c.keyNames())
		}
		if _, twice := in[name]; twice {
			return nil, fmt.Errorf("%s: given twice", name)
		}
		read, err := c.Keys[at].read(value)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
		in[name] = read
	}
	for _, k := range c.Keys {
		if _, given := in[k.Name]; !given && !k.Optional {
			return nil, fmt.Errorf("%s: missing (%s)", k.Name, k.Help)
		}
	}
	return c.run(in)
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
	if strings.Trim(text, "0123456789.+-eE") != "" {
		return 0, fmt.Errorf("%q is not a number", text)
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil {
		return 0, fmt.Errorf("%q is not a number", text)
	}
	if v < k.Min || v > k.Max {
		return 0, fmt.Errorf("%s is outside %g–%g %s", text, k.Min, k.Max, k.Unit)
	}
	return v, nil
}

// input is the values read, by key.
type input map[string]any

func (in input) number(key string) float64 { v, _ := in[key].(float64); return v }
func (in input) list(key string) []float64 { v, _ := in[key].([]float64); return v }
func (in input) text(key string) string    { v, _ := in[key].(string); return v }
func (in input) teeth(key string) int      { return int(in.number(key)) }
func (in input) has(key string) bool       { _, ok := in[key]; return ok }
