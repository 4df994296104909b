// Package guess says what a number that nobody has said roughly is, by what kind of bike it
// is and by what else is known of it, with a band in which nine of ten are.
//
// Everything that is guessed is a [Row] of one table: how it follows, how wide its band is,
// where that comes from, which groups of facts it enters, and what it takes to measure it.
// [Fill] makes a copy of a plan in which nothing of the table is left unsaid. What a rider
// has typed or measured leads; ratings and legal limits, the budget, distances and dates are
// in no row: they are asked for.
//
// The package evaluates nothing. What a guess does to the figures, package eval finds by
// moving it to both ends of its band.
package guess

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
)

// Kind is what rows have in common that go wrong together: guessed side by side they are
// moved as one.
type Kind string

// The kinds. What is of none stands alone.
const (
	Gearing     Kind = "gearing"
	FrontTravel Kind = "front springs"
	RearTravel  Kind = "rear springs"
	Engine      Kind = "engine"
	Wheels      Kind = "wheels"
	Carcass     Kind = "tyres"
	Stature     Kind = "body"
)

// Row is one thing that can be guessed.
type Row struct {
	At   string // where it is typed, as [study.Where] has it: "bike/wheelbase"
	Name string
	Unit string // "" for a word, a code or a count

	Origin sheet.Origin // of the table's numbers
	Kind   Kind
	// Joint is the share of its half by which a row moves with the others of its kind while the
	// kind's anchor is guessed: together they are known better than each.
	Joint float64
	// Loose is the same once the anchor is known, each by itself: makers tune them to one another,
	// so that they are still less at odds than their bands alone would have it.
	Loose float64
	// Anchor follows from the others of its kind such that they come to what is known of them
	// together: the spring to the usual sag, the primary ratio to the usual gearing.
	Anchor bool

	// Enters are the groups of facts that read it by themselves.
	Enters facts.Set

	Minutes float64 // to find it out, 0 for what is wished
	Tools   string  // that it takes, "" for none
	Read    bool    // in what the maker says

	known func(*Subject) bool
	guess func(*Subject) (Band, bool)
	copy  func(s, like *Subject) Band // of what is known of another bike; nil of what is not of one
}

// likeness is the share of a row's half within which a bike is like another that it is said to
// be like [memory].
const likeness = 0.5

// Band is what a row comes to for one plan.
type Band struct {
	Low, Value, High float64   // in the row's unit; NaN of a word
	Words            [3]string // the same in words, of what is no number
	put              func(s *Subject, at float64)
}

// Guess is a row that stands in for what nobody has said.
type Guess struct {
	*Row
	Band
	Like string // the bike that it is taken from, "" for the table
}

// Half is half of the band as a share of the value.
func (g Guess) Half() float64 { return (g.High - g.Low) / 2 / math.Abs(g.Value) }

// Subject is what is guessed about: copies that may be changed, of a bike and a brief.
type Subject struct {
	Bike  *plan.Bike // nil without one
	Brief *plan.Brief

	Loadouts []plan.Loadout // of the plan; changed only as a whole

	class class
	vague bool // nobody has said the class
}

// cc is the displacement, which is guessed before whatever follows from it.
func (s *Subject) cc() float64 { return s.Bike.Displacement.In("cc") }

// kg is the kerb mass, likewise.
func (s *Subject) kg() float64 { return s.Bike.KerbMass.In("kg") }
