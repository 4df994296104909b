package store

import (
	"context"
	"database/sql"
	"errors"
	"time"
)

// KeptFor is how long what was thrown away can be brought back.
const KeptFor = 30 * 24 * time.Hour

// Removed is a plan or a bike that was thrown away.
type Removed struct {
	ID   string    `db:"id"`
	Kind Kind      `db:"kind"`
	Name string    `db:"name"`
	At   time.Time `db:"removed_at"`
}

// Until is when it is gone.
func (r Removed) Until() time.Time { return r.At.Add(KeptFor) }

// Remove throws a plan away, alone of its variants; or a bike, with the plans that ride it. It can
// be brought back for a while; what was thrown away before that is gone now.
func (s *Store) Remove(ctx context.Context, rider, id string) error {
	return s.change(ctx, func(tx transaction) error {
		if err := s.purge(ctx, tx, rider); err != nil {
			return err
		}
		now := s.now()
		if err := one(tx.ExecContext(ctx, `UPDATE dossiers SET removed_at = ? WHERE id = ? AND rider_id = ? AND removed_at IS NULL`, now, id, rider)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `
			UPDATE dossiers p JOIN heads h ON h.dossier_id = p.id JOIN revisions r ON r.id = h.revision_id
			SET p.removed_at = ? WHERE r.bike_id = ? AND p.rider_id = ? AND p.removed_at IS NULL`, now, id, rider)
		if err != nil {
			return err
		}
		return anew(ctx, tx, rider)
	})
}

// Recover brings back what was thrown away: of a bike the plans that went with it, of a plan the
// bike that it rides.
func (s *Store) Recover(ctx context.Context, rider, id string) error {
	return s.change(ctx, func(tx transaction) error {
		var at time.Time
		err := tx.GetContext(ctx, &at, `SELECT removed_at FROM dossiers WHERE id = ? AND rider_id = ? AND removed_at > ? FOR UPDATE`, id, rider, s.now().Add(-KeptFor))
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		for _, statement := range []struct {
			query string
			args  []any
		}{
			{`UPDATE dossiers p JOIN heads h ON h.dossier_id = p.id JOIN revisions r ON r.id = h.revision_id
				SET p.removed_at = NULL WHERE r.bike_id = ? AND p.rider_id = ? AND p.removed_at = ?`, []any{id, rider, at}},
			{`UPDATE dossiers b JOIN revisions r ON r.bike_id = b.id JOIN heads h ON h.revision_id = r.id
				SET b.removed_at = NULL WHERE h.dossier_id = ? AND b.rider_id = ?`, []any{id, rider}},
			{`UPDATE dossiers SET removed_at = NULL WHERE id = ? AND rider_id = ?`, []any{id, rider}},
		} {
			if _, err := tx.ExecContext(ctx, statement.query, statement.args...); err != nil {
				return err
			}
		}
		return anew(ctx, tx, rider)
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

// Removed lists what a rider can bring back, the newest first; what went with a bike comes back
// with it and is not listed.
func (s *Store) Removed(ctx context.Context, rider string) ([]Removed, error) {
	var list []Removed
	err := s.db.SelectContext(ctx, &list, `
		SELECT d.id, d.kind, COALESCE(JSON_VALUE(r.document, '$.name'), JSON_VALUE(r.document, '$.bike.name'), '') AS name, d.removed_at
		FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
		LEFT JOIN dossiers b ON b.id = r.bike_id
		WHERE d.rider_id = ? AND d.removed_at > ? AND (b.removed_at IS NULL OR b.removed_at <> d.removed_at) ORDER BY d.removed_at DESC, d.id`, rider, s.now().Add(-KeptFor))
	return list, err
}

// purge deletes what a rider threw away too long ago. A plan that rode a bike which is gone keeps
// its copy of it. The first plan of a family stays as an empty row while others of it live.
func (s *Store) purge(ctx context.Context, tx transaction, rider string) error {
	var old []string
	if err := tx.SelectContext(ctx, &old, `SELECT id FROM dossiers WHERE rider_id = ? AND removed_at <= ? ORDER BY kind DESC, id`, rider, s.now().Add(-KeptFor)); err != nil {
		return err
	}
	for _, id := range old {
		if err := s.gone(ctx, tx, rider, id); err != nil {
			return err
		}
	}
	return nil
}

// gone deletes a dossier for good, with its log.
func (s *Store) gone(ctx context.Context, tx transaction, rider, id string) error {
	if _, err := tx.ExecContext(ctx, `
			UPDATE riders SET bytes = bytes - COALESCE((SELECT SUM(LENGTH(document)) FROM revisions WHERE dossier_id = ?), 0)
				- COALESCE((SELECT SUM(LENGTH(document)) FROM readings WHERE log_id = ?), 0) WHERE id = ?`, id, id, rider); err != nil {
		return err
	}
	for _, statement := range []string{
		`DELETE FROM counts_on WHERE plan_id = ?`,
		`DELETE FROM heads WHERE dossier_id = ?`,
		`UPDATE revisions SET parent_id = NULL WHERE dossier_id = ?`,
		`DELETE FROM revisions WHERE dossier_id = ?`,
		`DELETE FROM readings WHERE log_id = ?`,
	} {
		if _, err := tx.ExecContext(ctx, statement, id); err != nil {
			return err
		}
	}
	var others int
	if err := tx.GetContext(ctx, &others, `SELECT COUNT(*) FROM dossiers WHERE family_id = ? AND id <> ?`, id, id); err != nil {
		return err
	}
	if others > 0 {
		return nil
	}
	for _, statement := range []string{
		`UPDATE dossiers SET family_id = NULL WHERE id = ?`,
		`DELETE FROM dossiers WHERE id = ?`,
	} {
		if _, err := tx.ExecContext(ctx, statement, id); err != nil {
			return err
		}
	}
	return nil
}
