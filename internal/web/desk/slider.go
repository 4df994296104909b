package desk

import (
	"math"
	"net/url"
	"strconv"

	"valiantmule/internal/core/entry"
)

// Slider is a number that is typed, or moved by hand.
type Slider struct {
	FieldView
	Min, Max, Step string
	Placeholder    string // what holds while nothing is typed, in words
	Stands         string // and as a bare number
}

// SliderOf shows a plan's field between two of its own metric values.
func (d *Desk) SliderOf(f entry.Field, low, high, step float64, form url.Values, errs FormErrors) Slider {
	low, _ = d.Units.Convert(low, f.Unit)
	high, unit := d.Units.Convert(high, f.Unit)
	if unit != f.Unit {
		step, _ = d.Units.Convert(step, f.Unit)
		step = nearest(step)
	}
	digits := max(0, int(math.Ceil(-math.Log10(step))))
	short := func(v float64) string { return strconv.FormatFloat(v, 'f', digits, 64) }
	s := Slider{FieldView: FieldOf(d.Units, f, form, errs), Min: short(low), Max: short(high), Step: short(step)}
	s.Unit = unit
	return s
}

// nearest is the next of 1, 2, 5 times a power of ten that is no more than a number.
func nearest(v float64) float64 {
	power := math.Pow(10, math.Floor(math.Log10(v)))
	for _, f := range []float64{5, 2} {
		if f*power <= v*(1+1e-9) {
			return f * power
		}
	}
	return power
}

// Holding is the slider with what holds while nothing is typed, in the field's own metric
// unit.
func (s Slider) Holding(d *Desk, v float64, metric string) Slider {
	own, _ := d.Units.Convert(v, metric)
	s.Placeholder, s.Stands = d.Units.Quantity(v, metric), strconv.FormatFloat(own, 'f', 2, 64)
	return s
}

// SliderFields are sliders as a form sends them.
func SliderFields(sliders []Slider) []FieldView {
	fields := make([]FieldView, len(sliders))
	for i, s := range sliders {
		fields[i] = FieldView{Key: s.Key, Label: s.Label, Unit: s.Unit, Value: s.Value}
	}
	return fields
}
