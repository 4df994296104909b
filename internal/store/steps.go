package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"

	"valiantmule/internal/core/plan"
)

// Undo takes back the latest change. One of the plan alone moves its head from base to the
// parent. One that was written to the bike as well, and any of a bike, is taken back by
// a revision more, of each: others may have seen it. So is one that moved parts, which go back: a
// [garage.Refusal] where something else has happened to them since. [Moved] where the bike says something else
// there by now.
func (s *Store) Undo(ctx context.Context, rider, id, base string) error {
	return s.step(ctx, rider, id, base, true)
}

// Redo makes the latest change again that was undone, in the same way.
func (s *Store) Redo(ctx context.Context, rider, id, base string) error {
	return s.step(ctx, rider, id, base, false)
}

// step goes from base back over the change that made what it is equal to, or on over the one that
// was made there last.
func (s *Store) step(ctx context.Context, rider, id, base string, back bool) error {
	return s.change(ctx, func(tx transaction) error {
		now, err := revisionAt(ctx, tx, rider, id, base)
		if errors.Is(err, ErrNotFound) {
			return stale(ctx, tx, rider, id)
		}
		if err != nil {
			return err
		}
		is := now
		if now.As.Valid {
			if is, err = revisionAt(ctx, tx, rider, id, now.As.String); err != nil {
				return err
			}
		}
		leads := is.Next
		if back {
			leads = is.Parent
		}
		if !leads.Valid {
			if err := lockHead(ctx, tx, rider, id, base); err != nil {
				return err
			}
			return ErrNothing
		}
		to, err := revisionAt(ctx, tx, rider, id, leads.String)
		if err != nil {
			return err
		}
		changed, said := to, "Again: "+to.Summary
		if back {
			changed, said = is, "Undone: "+is.Summary
		}
		things, err := moved(ctx, tx, changed.ID)
		if err != nil {
			return err
		}
		if now.Kind == OfPlan && !changed.Wrote.Valid && !things {
			if err := lockHead(ctx, tx, rider, id, base); err != nil {
				return err
			}
			if err := moveHead(ctx, tx, id, base, to.ID); err != nil {
				return err
			}
			return to.counts(ctx, tx)
		}
		next := revisionRow{ID: rand.Text(), Dossier: id, Kind: now.Kind, Parent: some(base), Summary: said, Document: to.Document}
		write := func() (place, error) { return place{}, nil }
		if now.Kind == OfPlan {
			if write, err = s.carryBack(ctx, tx, rider, is, to, now.place, said); err != nil {
				return err
			}
		}
		if err := lockHead(ctx, tx, rider, id, base); err != nil {
			return err
		}
		if next.place, err = write(); err != nil {
			return err
		}
		next.As = some(to.ID)
		if to.As.Valid {
			next.As = to.As
		}
		if err := s.append(ctx, tx, next); err != nil || !things {
			return err
		}
		way, err := s.takenBack(ctx, tx, rider, changed.ID, next.ID, back)
		if err != nil {
			return err
		}
		return way.enact(ctx, s, tx, rider, next.Bike.String, "", next.ID)
	})
}

// stale is what a change on top of an unknown revision comes to.
func stale(ctx context.Context, tx transaction, rider, id string) error {
	if _, err := headForUpdate(ctx, tx, rider, id); err != nil {
		return err
	}
	return ErrStale
}

// carryBack works out what the bike becomes when a plan goes from one of its revisions to
// another, and locks it.
func (s *Store) carryBack(ctx context.Context, tx transaction, rider string, from, to revisionRow, now place, said string) (write func() (place, error), err error) {
	before, err := from.machine()
	if err != nil {
		return nil, err
	}
	after, err := to.machine()
	if err != nil {
		return nil, err
	}
	if from.Bike != to.Bike { // the change was of another bike
		return func() (place, error) { return to.stays(), nil }, nil
	}
	bike, err := lockBike(ctx, tx, rider, to.Bike.String)
	if errors.Is(err, ErrNotFound) {
		return func() (place, error) { return to.stays(), nil }, nil
	}
	if err != nil {
		return nil, err
	}
	at := to.stays()
	at.Taken = max(at.Taken, now.Taken)
	return s.carry(ctx, tx, at, before, after, bike, Change{Summary: said})
}

// Restore puts the document of an earlier revision on top of base: a change like
// any other, which an undo takes back. The bike stays as it is: the plan's copy of it is as it
// was then, and is brought up to date like any that is behind.
func (s *Store) Restore(ctx context.Context, rider, id, base, revision string) error {
	return s.change(ctx, func(tx transaction) error {
		if err := lockHead(ctx, tx, rider, id, base); err != nil {
			return err
		}
		now, err := revisionAt(ctx, tx, rider, id, base)
		if err != nil {
			return err
		}
		was, err := revisionAt(ctx, tx, rider, id, revision)
		if err != nil {
			return err
		}
		next := revisionRow{ID: rand.Text(), Dossier: id, Kind: was.Kind, Parent: some(base), Summary: "Back to: " + was.Summary, Document: was.Document, place: was.stays()}
		if now.Bike == was.Bike {
			next.Taken = max(now.Taken, was.Taken)
		}
		return s.append(ctx, tx, next)
	})
}

// joins makes sure of the family of a plan that another is split from, and tells how that stands
// towards its bike.
func (s *Store) joins(ctx context.Context, tx transaction, rider, of string) (sql.NullString, place, error) {
	var is struct {
		Family sql.NullString `db:"family_id"`
		place
	}
	err := tx.GetContext(ctx, &is, `
		SELECT d.family_id, r.bike_id, r.bike_revision_id, r.taken FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
		WHERE d.id = ? AND d.rider_id = ? AND d.kind = 'plan' AND d.removed_at IS NULL FOR UPDATE`, of, rider)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	if err == nil && !is.Family.Valid {
		is.Family = some(of)
		_, err = tx.ExecContext(ctx, `UPDATE dossiers SET family_id = id WHERE id = ?`, of)
	}
	return is.Family, is.place, err
}

// Split makes a variant of a plan, with a document of its own and the same family; on the same
// bike it stands as the plan does. It returns the variant's id.
func (s *Store) Split(ctx context.Context, rider, planID string, p *plan.Plan, summary string) (string, error) {
	return s.create(ctx, rider, p, summary, planID, packed{})
}
