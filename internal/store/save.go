package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

// Change is a save: a changed plan, or a bike by itself, on top of a revision.
type Change struct {
	Base    string // the revision that it was made from
	ID      string // which the page made, or "" for a new one; it becomes the revision's
	Plan    *plan.Plan
	Summary string // what changed, in words
	// Seen is the bike's revision that the rider has seen beside what was typed: what is typed
	// goes over it. "" where nobody has asked.
	Seen string
	// Day on which parts move by it, and what the odometer shows then; today and what the plan knows where
	// nobody has said.
	Day      string
	Odometer unit.Length
}

// Save puts a changed document on top of its base. ErrStale when that is not the head any
// more; sent again with the same id it is the same save and no error. What of it is the bike's
// is written to the bike too, in the same transaction: [Moved] where the bike says something
// else there by now. Where the answer of the database to its commit was lost, Save looks whether
// it is there: nil when it is, ErrLost when it is not, ErrDoubt when nobody can look.
func (s *Store) Save(ctx context.Context, rider, id string, c Change) error {
	if c.ID == "" {
		c.ID = rand.Text()
	}
	var document []byte
	err := s.change(ctx, func(tx transaction) error {
		was, err := revisionAt(ctx, tx, rider, id, c.Base)
		if errors.Is(err, ErrNotFound) { // a page of no known revision
			return stale(ctx, tx, rider, id)
		}
		if err != nil {
			return err
		}
		c := c // another try starts from what was sent
		write, err := s.towardsBike(ctx, tx, rider, was, c)
		if err != nil {
			return err
		}
		if document, err = was.Kind.encode(c.Plan); err != nil {
			return err
		}
		// The lock makes two savers queue here, not deadlock further down.
		moved := lockHead(ctx, tx, rider, id, c.Base)
		if moved != nil && !errors.Is(moved, ErrStale) {
			return moved
		}
		if done, err := saved(ctx, tx, id, c.Base, c.ID, document); done || err != nil {
			return err
		}
		if moved != nil {
			return moved
		}
		return s.put(ctx, tx, rider, was, c, write, &document)
	})
	if duplicate(err) { // of another plan: no page of this one made it
		return ErrStale
	}
	return s.settle(ctx, err, func(tx transaction) (bool, error) {
		// The lock on the head waits for a transaction that still has it.
		if _, err := headForUpdate(ctx, tx, rider, id); err != nil {
			return false, err
		}
		return saved(ctx, tx, id, c.Base, c.ID, document)
	})
}

// put appends a change to what it is made from, with what it does to bike and things. Document becomes what
// is stored.
func (s *Store) put(ctx context.Context, tx transaction, rider string, was revisionRow, c Change, write func() (place, error), document *[]byte) error {
	var things *shift
	if was.Kind == OfPlan {
		before, _, err := was.Kind.decode(was.Document)
		if err == nil {
			things, err = s.settled(ctx, tx, rider, before.Lines, &c)
		}
		if err != nil {
			return err
		}
		if things != nil {
			if *document, err = was.Kind.encode(c.Plan); err != nil {
				return err
			}
		}
	}
	next := revisionRow{ID: c.ID, Dossier: was.Dossier, Kind: was.Kind, Parent: some(was.ID), Summary: c.Summary, Document: *document}
	var err error
	if next.place, err = write(); err != nil {
		return err
	}
	if err := s.append(ctx, tx, next); err != nil {
		return err
	}
	return things.enact(ctx, s, tx, rider, next.Bike.String, c.Plan.BikeName(), c.ID)
}

// saved tells whether a save is there: its id, on top of base, with this document.
func saved(ctx context.Context, tx transaction, id, base, save string, document []byte) (bool, error) {
	var there struct {
		Kind     Kind   `db:"kind"`
		Document []byte `db:"document"`
	}
	err := tx.GetContext(ctx, &there, `
		SELECT d.kind, r.document FROM revisions r JOIN dossiers d ON d.id = r.dossier_id WHERE r.id = ? AND r.dossier_id = ? AND r.parent_id = ?`, save, id, base)
	if errors.Is(err, sql.ErrNoRows) {
		return false, nil
	}
	return err == nil && sameDocument(there.Kind, there.Document, document), err
}

// settling is how long something whose answer was lost is looked for.
const settling = 5 * time.Second

// settle turns an ErrDoubt into what is the case: nil where the change is there, ErrLost
// where it is not. Other errors, and a doubt that nobody can look into, stay as they are.
func (s *Store) settle(ctx context.Context, err error, there func(tx transaction) (bool, error)) error {
	if !errors.Is(err, ErrDoubt) {
		return err
	}
	doubt := err
	ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), settling)
	defer cancel()
	for {
		var is bool
		err := s.once(ctx, func(tx transaction) (err error) {
			is, err = there(tx)
			return err
		})
		switch {
		case err == nil && is:
			return nil
		case err == nil:
			return fmt.Errorf("%w: %w", ErrLost, doubt)
		}
		select {
		case <-ctx.Done():
			return doubt
		case <-time.After(200 * time.Millisecond):
		}
	}
}

// Amend changes a plan or a bike at its head, whatever that is by then, once for an id that
// the client made: sent again, it does nothing. The id becomes the revision's.
// Change gets the plan as it is and gives it as it should be, with what changed in
// words; an empty text leaves it as it is. What of it is the bike's goes to the bike too, over
// whatever that says there.
func (s *Store) Amend(ctx context.Context, rider, id, save string, change func(*plan.Plan) (changed *plan.Plan, summary string)) error {
	err := s.change(ctx, func(tx transaction) error {
		if done, err := has(ctx, tx, id, save); done || err != nil {
			return err
		}
		was, err := s.lockBoth(ctx, tx, rider, id)
		if err != nil {
			return err
		}
		p, _, err := was.Kind.decode(was.Document)
		if err != nil {
			return err
		}
		p.Garage = was.garage()
		changed, summary := change(p)
		if summary == "" {
			return nil
		}
		document, err := was.Kind.encode(changed)
		if err != nil {
			return err
		}
		c := Change{ID: save, Plan: changed, Summary: summary, Seen: over}
		write, err := s.towardsBike(ctx, tx, rider, was, c)
		if err != nil {
			return err
		}
		return s.put(ctx, tx, rider, was, c, write, &document)
	})
	if duplicate(err) { // of another plan, or the same at the same moment
		if done, err := has(ctx, s.db, id, save); done || err != nil {
			return err
		}
		return ErrStale
	}
	return err
}

// lockBoth locks the head of a dossier, and before it that of the bike that it rides, and reads it.
func (s *Store) lockBoth(ctx context.Context, tx transaction, rider, id string) (head revisionRow, err error) {
	var bike sql.NullString
	err = tx.GetContext(ctx, &bike, `SELECT r.bike_id FROM heads h JOIN revisions r ON r.id = h.revision_id WHERE h.dossier_id = ?`, id)
	if errors.Is(err, sql.ErrNoRows) {
		return head, ErrNotFound
	}
	if err != nil {
		return head, err
	}
	if bike.Valid {
		if _, err := headForUpdate(ctx, tx, rider, bike.String); err != nil && !errors.Is(err, ErrNotFound) {
			return head, err
		}
	}
	revision, err := headForUpdate(ctx, tx, rider, id)
	if err != nil {
		return head, err
	}
	if head, err = revisionAt(ctx, tx, rider, id, revision); err == nil && head.Bike != bike {
		return head, errAgain
	}
	return head, err
}
