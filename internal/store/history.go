package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"time"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

// Revision is one change of a plan.
type Revision struct {
	ID      string
	Summary string // what changed, in words
	MadeAt  time.Time
	Before  *plan.Plan // nil for the first
	After   *plan.Plan
}

// History lists a plan's revisions, the newest first, also those that an undo
// left aside; at most so many after skipping some.
func (s *Store) History(ctx context.Context, rider, planID string, most, skip int) ([]Revision, error) {
	var rows []struct {
		ID      string    `db:"id"`
		Summary string    `db:"summary"`
		MadeAt  time.Time `db:"made_at"`
		After   []byte    `db:"document"`
		Before  []byte    `db:"parent_document"`
	}
	err := s.db.SelectContext(ctx, &rows, `
		SELECT r.id, r.summary, r.made_at, r.document, b.document AS parent_document
		FROM (
			SELECT r.id FROM plans p JOIN revisions r ON r.plan_id = p.id
			WHERE p.id = ? AND p.rider_id = ? AND p.removed_at IS NULL ORDER BY r.made_at DESC, r.id DESC LIMIT ? OFFSET ?
		) AS page JOIN revisions r ON r.id = page.id LEFT JOIN revisions b ON b.id = r.parent_id
		ORDER BY r.made_at DESC, r.id DESC`, planID, rider, most, skip)
	if err != nil {
		return nil, err
	}
	if len(rows) == 0 && skip == 0 {
		return nil, ErrNotFound
	}
	list := make([]Revision, len(rows))
	for i, row := range rows {
		list[i] = Revision{ID: row.ID, Summary: row.Summary, MadeAt: row.MadeAt}
		if list[i].After, _, err = format.DecodePlan(row.After); err != nil {
			return nil, err
		}
		if row.Before != nil {
			if list[i].Before, _, err = format.DecodePlan(row.Before); err != nil {
				return nil, err
			}
		}
	}
	return list, nil
}

// PlanAt is a plan as it was at a revision; ErrNotFound when that is not one of
// the rider's plan.
func (s *Store) PlanAt(ctx context.Context, rider, planID, revision string) (*plan.Plan, error) {
	var document []byte
	err := s.db.GetContext(ctx, &document, `
		SELECT r.document FROM plans p JOIN revisions r ON r.plan_id = p.id
		WHERE p.id = ? AND p.rider_id = ? AND p.removed_at IS NULL AND r.id = ?`, planID, rider, revision)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	p, _, err := format.DecodePlan(document)
	return p, err
}

// Restore puts the document of an earlier revision on top of base: a change like
// any other, which an undo takes back.
func (s *Store) Restore(ctx context.Context, rider, planID, base, revision string) error {
	return s.change(ctx, func(tx transaction) error {
		if err := lockHead(ctx, tx, rider, planID, base); err != nil {
			return err
		}
		var was struct {
			Summary  string `db:"summary"`
			Document []byte `db:"document"`
		}
		err := tx.GetContext(ctx, &was, `SELECT summary, document FROM revisions WHERE plan_id = ? AND id = ?`, planID, revision)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		fresh := rand.Text()
		if err := s.addRevision(ctx, tx, fresh, planID, base, "Back to: "+was.Summary, was.Document); err != nil {
			return err
		}
		return moveHead(ctx, tx, planID, base, fresh)
	})
}

// Split makes a variant of a plan, with a document of its own and the same
// family; it returns the variant's id.
func (s *Store) Split(ctx context.Context, rider, planID string, p *plan.Plan, summary string) (string, error) {
	document, err := encode(p)
	if err != nil {
		return "", err
	}
	variant := rand.Text()
	err = s.change(ctx, func(tx transaction) error {
		var family sql.NullString
		err := tx.GetContext(ctx, &family, `SELECT family_id FROM plans WHERE id = ? AND rider_id = ? AND removed_at IS NULL FOR UPDATE`, planID, rider)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		if !family.Valid {
			family = sql.NullString{String: planID, Valid: true}
			if _, err := tx.ExecContext(ctx, `UPDATE plans SET family_id = id WHERE id = ?`, planID); err != nil {
				return err
			}
		}
		return s.insertPlan(ctx, tx, rider, variant, family, summary, document)
	})
	return variant, s.settle(ctx, err, madePlan(ctx, rider, variant))
}

// Variants lists a plan and its variants, the oldest first.
func (s *Store) Variants(ctx context.Context, rider, planID string) ([]*Snapshot, error) {
	var rows []headRow
	err := s.db.SelectContext(ctx, &rows, selectHeads+`
		AND (p.id = ? OR p.family_id = (SELECT family_id FROM plans WHERE id = ? AND rider_id = ?))
		ORDER BY p.created_at, p.id`, rider, planID, planID, rider)
	if err != nil {
		return nil, err
	}
	if len(rows) == 0 {
		return nil, ErrNotFound
	}
	return s.snapshots(ctx, rows)
}
