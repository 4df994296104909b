package logbook

import (
	"cmp"
	"math"

	"valiantmule/internal/core/entry"
)

// Forecast is what was expected of a trip on the day of departure, by the program as it was then.
type Forecast struct {
	Trip    string     `json:"trip,omitempty" is:"made-id"`
	By      string     `json:"by"`      // the program's version
	Loadout string     `json:"loadout"` // its name
	Figures []Foretold `json:"figures"`
}

// Foretold is one figure of it, in the unit of its row; low and high are the same where it had no band.
type Foretold struct {
	ID    string  `json:"id"`
	Value float64 `json:"value"`
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
	State string  `json:"state"`
}

// mostForetold is more figures than there are.
const mostForetold = 200

// Check tells whether it is one that is believed.
func (f *Forecast) Check() error {
	for _, v := range f.Figures {
		if math.IsNaN(v.Value+v.Low+v.High) || math.IsInf(v.Value+v.Low+v.High, 0) || v.Low > v.High {
			return entry.Problem{Path: "figures", What: "holds what is no number"}
		}
	}
	if len(f.Figures) == 0 {
		return entry.Problem{Path: "figures", What: "says nothing"}
	}
	return nil
}

// Validate notes what else is wrong with it.
func (f *Forecast) Validate(v *entry.Problems, at string) {
	v.Short(at+".trip", f.Trip)
	v.Short(at+".by", f.By)
	v.Short(at+".loadout", f.Loadout)
	v.Few(at+".figures", len(f.Figures), mostForetold)
	for i, told := range f.Figures {
		v.Short(at+".figures"+entry.At(i)+".id", told.ID)
		v.Short(at+".figures"+entry.At(i)+".state", told.State)
	}
}

// Words say what it is.
func (f *Forecast) Words() string { return "what was expected at departure" }

// Of is a figure of it; ok is false for one that was not known then.
func (f *Forecast) Of(id string) (told Foretold, ok bool) {
	for _, t := range f.Figures {
		if t.ID == id {
			return t, true
		}
	}
	return Foretold{}, false
}

// Forecast is what was expected, nil for another kind of reading.
func (r Reading) Forecast() *Forecast { return content[Forecast](r) }

// FirstForecast is the earliest of a trip among readings that stand, nil for none.
func FirstForecast(forecasts []Reading, trip string) *Reading {
	var first *Reading
	for i := range forecasts {
		if r := &forecasts[i]; r.Forecast().Trip == trip && (first == nil || cmp.Less(r.On, first.On)) {
			first = r
		}
	}
	return first
}
