package logbook

import (
	"fmt"
	"math"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Sag is a sitting in the garage: what a tape read between axle and mark at each end, and
// what stood on the springs then, as the plan had it. That stays true when parts change.
type Sag struct {
	Name  string `json:"name"` // as what it stood there: a loadout's name
	Front SagEnd `json:"front,omitzero"`
	Rear  SagEnd `json:"rear,omitzero"`
}

// SagEnd is one end of it: distances along the leg in front, from the axle straight up
// behind.
type SagEnd struct {
	Hanging   unit.Length `json:"hanging,omitzero"`   // wheel off the ground
	FreeDown  unit.Length `json:"free_down,omitzero"` // by itself, pushed down and let come up
	FreeUp    unit.Length `json:"free_up,omitzero"`   // lifted and let down
	RiderDown unit.Length `json:"rider_down,omitzero"`
	RiderUp   unit.Length `json:"rider_up,omitzero"`

	FreeSprung unit.Mass      `json:"free_sprung,omitzero"` // on the springs of that end then
	Sprung     unit.Mass      `json:"sprung,omitzero"`      // with the rider on
	Preload    unit.Length    `json:"preload,omitzero"`     // as set then
	Spring     unit.Stiffness `json:"spring,omitzero"`      // that was in it
}

// Of is one of the ends.
func (s *Sag) Of(rear bool) *SagEnd {
	if rear {
		return &s.Rear
	}
	return &s.Front
}

// FreeMM is the sag by itself, the middle of both readings; NaN where it was not measured.
func (e *SagEnd) FreeMM() float64 { return e.Hanging.In("mm") - middle(e.FreeDown, e.FreeUp) }

// RiderMM is the sag with the rider on.
func (e *SagEnd) RiderMM() float64 { return e.Hanging.In("mm") - middle(e.RiderDown, e.RiderUp) }

// StictionMM is how far pushing down and lifting up are apart, the most of both; NaN where
// only one was read.
func (e *SagEnd) StictionMM() float64 {
	free, rider := math.Abs(e.FreeUp.In("mm")-e.FreeDown.In("mm")), math.Abs(e.RiderUp.In("mm")-e.RiderDown.In("mm"))
	switch {
	case math.IsNaN(free):
		return rider
	case math.IsNaN(rider):
		return free
	}
	return math.Max(free, rider)
}

// middle of two readings, or the one that there is.
func middle(a, b unit.Length) float64 {
	switch {
	case !a.Known():
		return b.In("mm")
	case !b.Known():
		return a.In("mm")
	}
	return (a.In("mm") + b.In("mm")) / 2
}

// Fields lists what is measured at an end, in the order of the work.
func (e *SagEnd) Fields(rear bool) []entry.Field {
	end, mark := "front", "Along the leg, from the axle or the dust seal up to a mark."
	if rear {
		end, mark = "rear", "From the axle straight up to a mark on the tail or the rack."
	}
	return []entry.Field{
		{Key: end + "_hanging", Label: "Wheel hanging", Unit: "mm", Min: 50, Max: 1200, Help: mark, Entry: &e.Hanging},
		{Key: end + "_free_down", Label: "By itself, pushed down", Unit: "mm", Min: 20, Max: 1200, Help: "On its wheels, nobody on it: push down once, let it come up, read.", Entry: &e.FreeDown},
		{Key: end + "_free_up", Label: "… lifted", Unit: "mm", Min: 20, Max: 1200, Help: "Lift, let it down, read.", Entry: &e.FreeUp},
		{Key: end + "_rider_down", Label: "You on it, pushed down", Unit: "mm", Min: 20, Max: 1200, Help: "Dressed to ride, where you ride, feet on the pegs: push down once, let it come up, read.", Entry: &e.RiderDown},
		{Key: end + "_rider_up", Label: "… lifted", Unit: "mm", Min: 20, Max: 1200, Help: "Lift, let it down, read.", Entry: &e.RiderUp},
	}
}

// Check tells whether the readings are such as one believes; its errors are a [Problem] by
// the field's name.
func (s *Sag) Check() error {
	any := false
	for _, rear := range []bool{false, true} {
		e := s.Of(rear)
		fields := e.Fields(rear)
		for _, f := range fields {
			if err := f.Check(); err != nil {
				return entry.Problem{Path: f.Key, What: err.Error()}
			}
		}
		if err := e.check(fields); err != nil {
			return err
		}
		any = any || !math.IsNaN(e.RiderMM()) || !math.IsNaN(e.FreeMM())
	}
	if !any {
		return entry.Problem{Path: "rear_hanging", What: "nothing is measured yet: the rear with you on it says most"}
	}
	return nil
}

// nothingMM is within what a tape and two people read.
const nothingMM = 2.0

func (e *SagEnd) check(fields []entry.Field) error {
	for _, f := range fields[1:] {
		if f.Entry.Known() && !e.Hanging.Known() {
			return entry.Problem{Path: fields[0].Key, What: "how far is it with the wheel hanging? The others count from there"}
		}
		if q, ok := f.Entry.(interface{ In(string) float64 }); ok && q.In("mm") > e.Hanging.In("mm")+nothingMM {
			return entry.Problem{Path: f.Key, What: fmt.Sprintf("%s is more than with the wheel hanging, %s: measure both again", f.Entry, e.Hanging)}
		}
	}
	if free, rider := e.FreeMM(), e.RiderMM(); rider < free-nothingMM {
		return entry.Problem{Path: fields[3].Key, What: fmt.Sprintf("with you on it the wheel is pushed in %.0f mm and by itself %.0f mm: measure again, nobody is lighter than nothing", rider, free)}
	}
	return nil
}

// Validate notes what else is wrong with it: with what stood on the springs then.
func (s *Sag) Validate(v *entry.Problems, at string) {
	v.Short(at+".name", s.Name)
	for _, rear := range []bool{false, true} {
		e, end := s.Of(rear), at+".front"
		if rear {
			end = at + ".rear"
		}
		v.Fields(end, []entry.Field{
			{Key: "free_sprung", Unit: "kg", Min: 0.001, Max: 1000, Entry: &e.FreeSprung}, {Key: "sprung", Unit: "kg", Min: 0.001, Max: 1000, Entry: &e.Sprung},
			{Key: "preload", Unit: "mm", Min: 0, Max: 80, Entry: &e.Preload}, {Key: "spring", Unit: "N/mm", Min: 2, Max: 600, Entry: &e.Spring},
		})
	}
}

// Words say what it is.
func (s *Sag) Words() string { return "a measured sag" }

// Sag is the sag that was measured, nil for another kind of reading.
func (r Reading) Sag() *Sag { return content[Sag](r) }
