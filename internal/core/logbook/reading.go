// Package logbook is what was read off a bike: fills, weighings, sag by tape, volts, and the days that it was ridden.
//
// A [Reading] is only ever added: one that was wrong is revoked by another. A kind of
// reading is one row of [Kinds]: what is read, what of it is believed and how it is called;
// documents, the store, the schema and whoever lists readings walk those rows.
package logbook

import (
	"cmp"
	"crypto/sha256"
	"encoding/base32"
	"slices"

	"valiantmule/internal/core/entry"
)

// MaxReadings is how many a log holds at most, far above any real one.
const MaxReadings = 5000

// Reading is one thing that was read off the bike. Readings belong to a bike and are kept
// beside the plan's revisions, so that an undo leaves them alone.
type Reading struct {
	ID   string `json:"id" is:"made-id"` // made by whoever took it: sent twice, it is kept once
	Kind Kind   `json:"kind"`
	On   string `json:"on" is:"date"` // date, 2026-09-12
	Bike string `json:"bike"`         // id of the bike that it was read off
	Note string `json:"note,omitempty"`

	Read Content `json:"read,omitzero"`             // what was read, by the kind
	Of   string  `json:"of,omitempty" is:"made-id"` // id of the reading that is revoked
}

// Kind is what was read.
type Kind string

// The kinds of readings.
const (
	FillReading Kind = "fill"
	Weighed     Kind = "weighing"
	SagRead     Kind = "sag"
	VoltsRead   Kind = "volts"
	DayRidden   Kind = "day"
	Shaken      Kind = "shakedown"
	Foretelling Kind = "forecast"
	Revocation  Kind = "revoked"
)

// Content is what a reading of a kind says.
type Content interface {
	Check() error                          // what of it is not believed, an [entry.Problem] by the field's name
	Validate(v *entry.Problems, at string) // what else cannot be
	Words() string                         // what it is, in a few words
}

// KindInfo is a row of the table of kinds.
type KindInfo struct {
	Kind Kind
	New  func() Content // an empty one
}

var kinds = []KindInfo{
	{FillReading, func() Content { return new(Fill) }},
	{Weighed, func() Content { return new(Weighing) }},
	{SagRead, func() Content { return new(Sag) }},
	{VoltsRead, func() Content { return new(Volts) }},
	{DayRidden, func() Content { return new(Day) }},
	{Shaken, func() Content { return new(Shake) }},
	{Foretelling, func() Content { return new(Forecast) }},
}

// Kinds lists what can be read; a revocation reads nothing.
func Kinds() []KindInfo { return kinds }

// With is the table with one more kind until restore is called, for tests that show that a
// row is all that it takes.
func With(more KindInfo) (restore func()) {
	was := kinds
	kinds = append(slices.Clone(was), more)
	return func() { kinds = was }
}

func infoOf(k Kind) *KindInfo {
	for i := range kinds {
		if kinds[i].Kind == k {
			return &kinds[i]
		}
	}
	return nil
}

// content of a reading as a T, nil where it is of another kind.
func content[T any](r Reading) *T {
	t, _ := any(r.Read).(*T)
	return t
}

// Whole reports whether the reading has what its kind is of; one of no kind has not.
func (r Reading) Whole() bool { return r.Kind == Revocation || infoOf(r.Kind) != nil && r.Read != nil }

// Words say what a reading is, and of which day.
func (r Reading) Words() string {
	if r.Read == nil {
		return string(r.Kind) + " of " + r.On
	}
	return r.Read.Words() + " of " + r.On
}

// Validate lists what is wrong with a reading by itself.
func (r Reading) Validate() []entry.Problem {
	var v entry.Problems
	r.validate(&v, "reading")
	return v.List
}

// Validate notes what is wrong with a list of readings.
func Validate(v *entry.Problems, at string, list []Reading) {
	v.Few(at, len(list), MaxReadings)
	seen := map[string]bool{}
	for i := range list {
		r, path := list[i], at+entry.At(i)
		v.That(entry.ValidID(r.ID) && !seen[r.ID], path+".id", "%q is not 26 letters and digits of A–Z, 2–7, or there twice", r.ID)
		seen[r.ID] = true
		r.validate(v, path)
	}
}

func (r Reading) validate(v *entry.Problems, path string) {
	v.That(r.On != "", path+".on", "is missing")
	v.Date(path+".on", r.On)
	v.Short(path+".note", r.Note)
	v.Short(path+".of", r.Of)
	v.Short(path+".bike", r.Bike)
	if r.Kind == Revocation {
		v.That(entry.ValidID(r.Of), path+".of", "%q is not the id of a reading", r.Of)
		return
	}
	if infoOf(r.Kind) == nil {
		v.That(false, path+".kind", "%q is not a kind of reading", r.Kind)
		return
	}
	v.ID(path+".bike", r.Bike, "the id of a bike")
	if r.Read == nil {
		v.That(false, path+".read", "is missing")
		return
	}
	v.Check(path+".read", r.Read.Check())
	r.Read.Validate(v, path+".read")
}

// Beside is the id of what is read off the bike with another reading and stands by itself: sent again it is the same one.
func Beside(id string) string {
	sum := sha256.Sum256([]byte("beside " + id))
	return base32.StdEncoding.EncodeToString(sum[:])[:26]
}

// Standing are the readings of a kind off a bike that nobody has revoked, the oldest first.
func Standing(all []Reading, kind Kind, bike string) []Reading {
	var revoked map[string]bool
	count := 0
	for i := range all {
		switch r := &all[i]; {
		case r.Kind == kind && r.Bike == bike:
			count++
		case r.Kind == Revocation:
			if revoked == nil {
				revoked = map[string]bool{}
			}
			revoked[r.Of] = true
		}
	}
	if count == 0 {
		return nil
	}
	order := make([]*Reading, 0, count)
	for i := range all {
		if r := &all[i]; r.Kind == kind && r.Bike == bike && !revoked[r.ID] {
			order = append(order, r)
		}
	}
	return inOrder(order)
}

// inOrder are readings as [earlier] orders them; they are large, so what is sorted is where they are.
func inOrder(order []*Reading) []Reading {
	if !slices.IsSortedFunc(order, earlier) { // most logs are written day by day
		slices.SortStableFunc(order, earlier)
	}
	list := make([]Reading, len(order))
	for i, r := range order {
		list[i] = *r
	}
	return list
}

// Stands reports whether there is a reading of a kind off a bike that nobody has revoked.
func Stands(all []Reading, kind Kind, bike string) bool {
	for i := range all {
		if r := &all[i]; r.Kind == kind && r.Bike == bike && !slices.ContainsFunc(all, func(x Reading) bool { return x.Kind == Revocation && x.Of == r.ID }) {
			return true
		}
	}
	return false
}

// earlier orders two readings by day, and two fills of one day by odometer where
// both have it.
func earlier(a, b *Reading) int {
	first, second := a.Fill(), b.Fill()
	if c := cmp.Compare(a.On, b.On); c != 0 || first == nil || second == nil || !first.Odometer.Known() || !second.Odometer.Known() {
		return c
	}
	return cmp.Compare(first.Odometer.Base(), second.Odometer.Base())
}
