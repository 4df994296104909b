package store

import (
	"context"
	"time"

	"valiantmule/internal/core/plan"
)

// Revision is one change of a plan, or of a bike by itself.
type Revision struct {
	ID      string
	Summary string // what changed, in words
	MadeAt  time.Time
	Before  *plan.Plan // nil for the first
	After   *plan.Plan
}

// History lists the revisions of a plan or a bike, the newest first, also those that an undo
// left aside; at most so many after skipping some.
func (s *Store) History(ctx context.Context, rider, id string, most, skip int) ([]Revision, error) {
	var rows []struct {
		ID      string    `db:"id"`
		Summary string    `db:"summary"`
		MadeAt  time.Time `db:"made_at"`
		Kind    Kind      `db:"kind"`
		After   []byte    `db:"document"`
		Before  []byte    `db:"parent_document"`
	}
	err := s.db.SelectContext(ctx, &rows, `
		SELECT r.id, r.summary, r.made_at, page.kind, r.document, b.document AS parent_document
		FROM (
			SELECT r.id, d.kind FROM dossiers d JOIN revisions r ON r.dossier_id = d.id
			WHERE d.id = ? AND d.rider_id = ? AND d.removed_at IS NULL ORDER BY r.made_at DESC, r.id DESC LIMIT ? OFFSET ?
		) AS page JOIN revisions r ON r.id = page.id LEFT JOIN revisions b ON b.id = r.parent_id
		ORDER BY r.made_at DESC, r.id DESC`, id, rider, most, skip)
	if err != nil {
		return nil, err
	}
	if len(rows) == 0 && skip == 0 {
		return nil, ErrNotFound
	}
	list := make([]Revision, len(rows))
	for i, row := range rows {
		list[i] = Revision{ID: row.ID, Summary: row.Summary, MadeAt: row.MadeAt}
		if list[i].After, _, err = row.Kind.decode(row.After); err != nil {
			return nil, err
		}
		if row.Before != nil {
			if list[i].Before, _, err = row.Kind.decode(row.Before); err != nil {
				return nil, err
			}
		}
	}
	return list, nil
}

// PlanAt is a plan or a bike as it was at a revision; ErrNotFound when that is not one of
// the rider's. What was read off the bike is not in it.
func (s *Store) PlanAt(ctx context.Context, rider, id, revision string) (*plan.Plan, error) {
	row, err := revisionAt(ctx, s.db, rider, id, revision)
	if err != nil {
		return nil, err
	}
	p, _, err := row.Kind.decode(row.Document)
	if err == nil {
		p.Garage = row.garage()
	}
	return p, err
}

// Variants lists a plan and its variants, the oldest first.
func (s *Store) Variants(ctx context.Context, rider, planID string) ([]*Snapshot, error) {
	var rows []headRow
	err := s.db.SelectContext(ctx, &rows, selectHeads+`
		AND (d.id = ? OR d.family_id = (SELECT family_id FROM dossiers WHERE id = ? AND rider_id = ?))
		ORDER BY d.created_at, d.id`, rider, planID, planID, rider)
	if err != nil {
		return nil, err
	}
	if len(rows) == 0 {
		return nil, ErrNotFound
	}
	return s.snapshots(ctx, rows)
}
