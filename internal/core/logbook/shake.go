package logbook

import (
	"regexp"

	"valiantmule/internal/core/entry"
)

// Shake is one look after a first ride: what was looked at, how it was, and how hard the ride had been.
type Shake struct {
	Trip   string `json:"trip,omitempty" is:"made-id"` // of the plan whose shakedown it was
	Of     string `json:"of"`                          // what was looked at, by the shakedown's own name for it
	Wrong  bool   `json:"wrong,omitempty"`
	Loaded bool   `json:"loaded,omitempty"` // as for the trip
	Rough  bool   `json:"rough,omitempty"`
	Hot    bool   `json:"hot,omitempty"`
}

// shakeID is how a look is named: when, what, and of which line.
var shakeID = regexp.MustCompile(`^[a-z0-9-]+/[a-z-]+(/.{1,180})?$`)

// Check tells whether it is one that is believed.
func (s *Shake) Check() error {
	if !shakeID.MatchString(s.Of) {
		return entry.Problem{Path: "of", What: "what was looked at?"}
	}
	return nil
}

// Validate notes what else is wrong with it.
func (s *Shake) Validate(v *entry.Problems, at string) {
	v.Short(at+".trip", s.Trip)
	v.Note(at+".of", s.Of)
}

// Words say what it is.
func (s *Shake) Words() string {
	if s.Wrong {
		return "a look that found something"
	}
	return "a look"
}

// Shake is what was looked at, nil for another kind of reading.
func (r Reading) Shake() *Shake { return content[Shake](r) }
