package store

import (
	"bytes"
	"context"
	"errors"
	"reflect"
	"slices"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
)

// newBike stands for a bike that a change puts into the garage, until it has its id.
const newBike = "new"

// shift is what a change of a plan does to things, before it is done.
type shift struct {
	garage.Settled
	things *Things
}

// settled works out what a change of a plan's lines does to things, and puts into the plan which they are;
// nil where it does nothing. Of what has no real part in it before and after, nothing is read.
func (s *Store) settled(ctx context.Context, tx transaction, rider string, before []plan.Line, c *Change) (*shift, error) {
	real := func(lines []plan.Line) bool {
		return slices.ContainsFunc(lines, func(l plan.Line) bool { return garage.IsReal(&l) })
	}
	if !real(c.Plan.Lines) || reflect.DeepEqual(before, c.Plan.Lines) {
		return nil, nil
	}
	things, err := lockThings(ctx, tx, rider)
	if err != nil {
		return nil, err
	}
	m := garage.Moment{Act: c.ID, Bike: c.Plan.Garage, Day: c.Day, Odometer: c.Odometer}
	if m.Bike == "" && c.Plan.Bike != nil {
		m.Bike = newBike
	}
	if m.Day == "" {
		m.Day = s.day()
	}
	if !m.Odometer.Known() && c.Plan.Bike != nil { // as the plan knows it
		m.Odometer = c.Plan.Bike.Odometer
	}
	changed := *c.Plan
	changed.Lines = slices.Clone(c.Plan.Lines)
	for i := range changed.Lines { // of another house: here it is one of its own
		if _, ok := things.Held(changed.Lines[i].Thing); !ok {
			changed.Lines[i].Thing = ""
		}
	}
	w := &shift{things.Settle(before, changed.Lines, m), things}
	changed.Lines = w.Lines
	c.Plan = &changed
	return w, nil
}

// enact does it, on the bike that the plan rides by now.
func (w *shift) enact(ctx context.Context, s *Store, tx transaction, rider, bike, name, revision string) error {
	if w == nil {
		return nil
	}
	if _, ok := w.things.Bikes[bike]; !ok && bike != "" {
		w.things.Bikes[bike] = garage.Bike{Name: name}
	}
	for i := range w.Put {
		if w.Put[i].For == newBike {
			w.Put[i].For = bike
		}
	}
	for i := range w.Act {
		if w.Act[i].Bike == newBike {
			w.Act[i].Bike = bike
		}
	}
	return s.enact(ctx, tx, rider, w.things, w.Put, w.Act, revision)
}

// sameDocument reports whether a document that was sent again is one that was stored, but for which things
// its parts became as it was.
func sameDocument(k Kind, stored, sent []byte) bool {
	if bytes.Equal(stored, sent) {
		return true
	}
	if k != OfPlan {
		return false
	}
	var bare [2][]byte
	for i, document := range [][]byte{stored, sent} {
		p, _, err := k.decode(document)
		if err != nil {
			return false
		}
		for j := range p.Lines {
			l := &p.Lines[j]
			l.Thing = ""
			if l.Decision == plan.ComesOff { // it went home as the other went on
				l.Decision = plan.AtHome
			}
		}
		if bare[i], err = k.encode(p); err != nil {
			return false
		}
	}
	return bytes.Equal(bare[0], bare[1])
}

// moved tells whether something happened to things in a revision.
func moved(ctx context.Context, from getter, revision string) (bool, error) {
	var n int
	err := from.GetContext(ctx, &n, `SELECT COUNT(*) FROM moves WHERE revision_id = ?`, revision)
	return n > 0, err
}

// takenBack works out how what happened in a revision is taken back, or done again, by another.
func (s *Store) takenBack(ctx context.Context, tx transaction, rider, revision, by string, back bool) (*shift, error) {
	things, err := lockThings(ctx, tx, rider)
	if err != nil {
		return nil, err
	}
	way := things.Redo
	if back {
		way = things.Undo
	}
	events, err := way(revision, by, s.day())
	return &shift{garage.Settled{Act: events}, things}, err
}

// arrive makes things of the real parts of a plan that is new to the house; a bike that is there keeps what
// is on it, and the plan says what differs.
func (s *Store) arrive(ctx context.Context, tx transaction, rider string, r *revisionRow, p *plan.Plan) error {
	c := Change{ID: r.ID, Plan: p}
	// What names its thing already moves nothing: a file, or another plan, may be of long ago.
	named := slices.DeleteFunc(slices.Clone(p.Lines), func(l plan.Line) bool { return l.Thing == "" })
	things, err := s.settled(ctx, tx, rider, named, &c)
	if things == nil || err != nil {
		return err
	}
	if p.Garage != "" {
		for _, t := range things.Put {
			things.things.Add(t)
		}
		if errors.Is(things.things.Can(things.Act), garage.ErrRefused) {
			return nil
		}
	}
	if r.Document, err = OfPlan.encode(c.Plan); err != nil {
		return err
	}
	return things.enact(ctx, s, tx, rider, r.Bike.String, p.BikeName(), r.ID)
}
