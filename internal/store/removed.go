package store

import (
	"context"
	"database/sql"
	"time"
)

// KeptFor is how long a plan that was thrown away can be brought back.
const KeptFor = 30 * 24 * time.Hour

// Removed is a plan that was thrown away.
type Removed struct {
	PlanID string    `db:"id"`
	Name   string    `db:"name"`
	At     time.Time `db:"removed_at"`
}

// Until is when it is gone.
func (r Removed) Until() time.Time { return r.At.Add(KeptFor) }

// Remove throws a plan away, alone of its variants. It can be brought back for a while;
// what was thrown away before that is gone now.
func (s *Store) Remove(ctx context.Context, rider, planID string) error {
	return s.change(ctx, func(tx transaction) error {
		if err := s.purge(ctx, tx, rider); err != nil {
			return err
		}
		return one(tx.ExecContext(ctx, `UPDATE plans SET removed_at = ? WHERE id = ? AND rider_id = ? AND removed_at IS NULL`, s.now(), planID, rider))
	})
}

// Recover brings a plan back that was thrown away.
func (s *Store) Recover(ctx context.Context, rider, planID string) error {
	return s.change(ctx, func(tx transaction) error {
		return one(tx.ExecContext(ctx, `UPDATE plans SET removed_at = NULL WHERE id = ? AND rider_id = ? AND removed_at > ?`, planID, rider, s.now().Add(-KeptFor)))
	})
}

// one makes sure that a statement changed a row.
func one(result sql.Result, err error) error {
	if err != nil {
		return err
	}
	if n, err := result.RowsAffected(); err != nil || n != 1 {
		return ErrNotFound
	}
	return nil
}

// RemovedPlans lists what a rider can bring back, the newest first.
func (s *Store) RemovedPlans(ctx context.Context, rider string) ([]Removed, error) {
	var list []Removed
	err := s.db.SelectContext(ctx, &list, `
		SELECT p.id, JSON_VALUE(r.document, '$.name') AS name, p.removed_at
		FROM plans p JOIN heads h ON h.plan_id = p.id JOIN revisions r ON r.id = h.revision_id
		WHERE p.rider_id = ? AND p.removed_at > ? ORDER BY p.removed_at DESC, p.id`, rider, s.now().Add(-KeptFor))
	return list, err
}

// purge deletes what a rider threw away too long ago. The first plan of a family stays as
// an empty row while others of it live: their readings hang on it.
func (s *Store) purge(ctx context.Context, tx transaction, rider string) error {
	var old []string
	if err := tx.SelectContext(ctx, &old, `SELECT id FROM plans WHERE rider_id = ? AND removed_at <= ?`, rider, s.now().Add(-KeptFor)); err != nil {
		return err
	}
	for _, id := range old {
		if _, err := tx.ExecContext(ctx, `
			UPDATE riders SET bytes = bytes - COALESCE((SELECT SUM(LENGTH(document)) FROM revisions WHERE plan_id = ?), 0) WHERE id = ?`, id, rider); err != nil {
			return err
		}
		for _, statement := range []string{
			`DELETE FROM heads WHERE plan_id = ?`,
			`UPDATE revisions SET parent_id = NULL WHERE plan_id = ?`,
			`DELETE FROM revisions WHERE plan_id = ?`,
		} {
			if _, err := tx.ExecContext(ctx, statement, id); err != nil {
				return err
			}
		}
		var others int
		if err := tx.GetContext(ctx, &others, `SELECT COUNT(*) FROM plans WHERE family_id = ? AND id <> ?`, id, id); err != nil {
			return err
		}
		if others > 0 {
			continue
		}
		if _, err := tx.ExecContext(ctx, `
			UPDATE riders SET bytes = bytes - COALESCE((SELECT SUM(LENGTH(document)) FROM readings WHERE log_id = ?), 0) WHERE id = ?`, id, rider); err != nil {
			return err
		}
		for _, statement := range []string{
			`DELETE FROM readings WHERE log_id = ?`,
			`UPDATE plans SET family_id = NULL WHERE id = ?`,
			`DELETE FROM plans WHERE id = ?`,
		} {
			if _, err := tx.ExecContext(ctx, statement, id); err != nil {
				return err
			}
		}
	}
	return nil
}
