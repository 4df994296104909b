package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"time"
	"unicode/utf8"

	"github.com/jmoiron/sqlx"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

// Snapshot is a plan at one revision.
type Snapshot struct {
	PlanID   string
	Revision string
	MadeAt   time.Time
	Plan     *plan.Plan
	Undo     string // what an undo would take back, "" when there is nothing
	Redo     string // what a redo would bring again, "" when there is nothing
	// Aside is what of the stored document and its log could not be read.
	Aside []string
	// Version tells whether anything of it has changed: the revision, the one that redo
	// leads to, the readings.
	Version string

	logID string // of its readings
}

type headRow struct {
	PlanID   string         `db:"plan_id"`
	LogID    string         `db:"log_id"`
	Revision string         `db:"id"`
	Parent   sql.NullString `db:"parent_id"`
	Next     sql.NullString `db:"next_id"`
	Redo     sql.NullString `db:"next_summary"`
	Summary  string         `db:"summary"`
	MadeAt   time.Time      `db:"made_at"`
	Document []byte         `db:"document"`
}

const selectHeads = `
	SELECT h.plan_id, COALESCE(p.family_id, p.id) AS log_id, r.id, r.parent_id, r.next_id, n.summary AS next_summary, r.summary, r.made_at, r.document
	FROM plans p JOIN heads h ON h.plan_id = p.id JOIN revisions r ON r.id = h.revision_id LEFT JOIN revisions n ON n.id = r.next_id
	WHERE p.rider_id = ? AND p.removed_at IS NULL`

// Plans lists a rider's plans, the newest first.
func (s *Store) Plans(ctx context.Context, rider string) ([]*Snapshot, error) {
	ids, err := s.PlanIDs(ctx, rider)
	if err != nil {
		return nil, err
	}
	return s.PlansOf(ctx, rider, ids)
}

// PlanIDs are those of a rider's plans, in the order of Plans.
func (s *Store) PlanIDs(ctx context.Context, rider string) (ids []string, err error) {
	err = s.db.SelectContext(ctx, &ids, `
		SELECT h.plan_id FROM plans p JOIN heads h ON h.plan_id = p.id JOIN revisions r ON r.id = h.revision_id
		WHERE p.rider_id = ? AND p.removed_at IS NULL ORDER BY r.made_at DESC, h.plan_id`, rider)
	return ids, err
}

// PlansOf are some of a rider's plans, the newest first.
func (s *Store) PlansOf(ctx context.Context, rider string, ids []string) ([]*Snapshot, error) {
	if len(ids) == 0 {
		return nil, nil
	}
	query, args, err := sqlx.In(selectHeads+` AND p.id IN (?) ORDER BY r.made_at DESC, h.plan_id`, rider, ids)
	if err != nil {
		return nil, err
	}
	var rows []headRow
	if err := s.db.SelectContext(ctx, &rows, query, args...); err != nil {
		return nil, err
	}
	return s.snapshots(ctx, rows)
}

func (s *Store) snapshots(ctx context.Context, rows []headRow) ([]*Snapshot, error) {
	list := make([]*Snapshot, len(rows))
	for i, row := range rows {
		p, aside, err := format.DecodePlan(row.Document)
		if err != nil {
			return nil, err
		}
		list[i] = &Snapshot{PlanID: row.PlanID, Revision: row.Revision, MadeAt: row.MadeAt, Plan: p, Aside: aside, logID: row.LogID}
	}
	return list, s.withReadings(ctx, list...)
}

// Plan loads a rider's plan at its head; ErrNotFound for another's or none.
func (s *Store) Plan(ctx context.Context, rider, planID string) (*Snapshot, error) {
	var row headRow
	err := s.db.GetContext(ctx, &row, selectHeads+` AND p.id = ?`, rider, planID)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	p, aside, err := format.DecodePlan(row.Document)
	if err != nil {
		return nil, err
	}
	snapshot := &Snapshot{PlanID: row.PlanID, Revision: row.Revision, MadeAt: row.MadeAt, Plan: p, Aside: aside, Redo: row.Redo.String, Version: versionOf(row.Revision, row.Next), logID: row.LogID}
	if err := s.withReadings(ctx, snapshot); err != nil {
		return nil, err
	}
	if row.Parent.Valid {
		snapshot.Undo = row.Summary
	}
	return snapshot, nil
}

// Version of a rider's plan, that of its snapshot, without reading it; ErrNotFound for
// another's or none.
func (s *Store) Version(ctx context.Context, rider, planID string) (string, error) {
	var row struct {
		Revision string         `db:"id"`
		Next     sql.NullString `db:"next_id"`
		logSum
	}
	err := s.db.GetContext(ctx, &row, `
		SELECT r.id, r.next_id, COUNT(g.id) AS n, COALESCE(BIT_XOR(CRC32(CONCAT(g.id, g.document))), 0) AS checks
		FROM plans p JOIN heads h ON h.plan_id = p.id JOIN revisions r ON r.id = h.revision_id LEFT JOIN readings g ON g.log_id = COALESCE(p.family_id, p.id)
		WHERE p.rider_id = ? AND p.removed_at IS NULL AND p.id = ? GROUP BY r.id, r.next_id`, rider, planID)
	if errors.Is(err, sql.ErrNoRows) {
		return "", ErrNotFound
	}
	return versionOf(row.Revision, row.Next) + row.logSum.version(), err
}

// GarageVersion is another after every change of a rider's plans but of their logs.
func (s *Store) GarageVersion(ctx context.Context, rider string) (version string, err error) {
	err = s.db.GetContext(ctx, &version, `
		SELECT CONCAT(COUNT(*), ' ', COALESCE(BIT_XOR(CRC32(CONCAT(h.plan_id, h.revision_id))), 0), ' ', COALESCE(SUM(CRC32(h.revision_id)), 0))
		FROM plans p JOIN heads h ON h.plan_id = p.id WHERE p.rider_id = ? AND p.removed_at IS NULL`, rider)
	return version, err
}

// versionOf a plan is that of its head; its log's comes behind it.
func versionOf(revision string, next sql.NullString) string { return revision + " " + next.String }

// encode is a plan's document without its readings, which are kept beside it.
func encode(p *plan.Plan) ([]byte, error) {
	bare := *p
	bare.Readings = nil
	return format.EncodePlan(&bare)
}

// CreatePlan stores a new plan with its readings; it returns the plan's id.
func (s *Store) CreatePlan(ctx context.Context, rider string, p *plan.Plan, summary string) (string, error) {
	document, err := encode(p)
	if err != nil {
		return "", err
	}
	planID := rand.Text()
	err = s.change(ctx, func(tx transaction) error {
		if err := s.insertPlan(ctx, tx, rider, planID, sql.NullString{}, summary, document); err != nil {
			return err
		}
		_, err := s.insertReadings(ctx, tx, planID, p.Readings)
		return err
	})
	return planID, s.settle(ctx, err, madePlan(ctx, rider, planID))
}

// madePlan looks whether a plan is there; the lock on its rider waits for who makes it.
func madePlan(ctx context.Context, rider, planID string) func(tx transaction) (bool, error) {
	return func(tx transaction) (bool, error) {
		var there int
		err := tx.GetContext(ctx, &there, `SELECT (SELECT COUNT(*) FROM plans WHERE id = ?) FROM riders WHERE id = ? FOR UPDATE`, planID, rider)
		return there > 0, err
	}
}

// insertPlan makes a plan with its first revision and its head.
func (s *Store) insertPlan(ctx context.Context, tx transaction, rider, planID string, family sql.NullString, summary string, document []byte) error {
	if err := s.room(ctx, tx, rider); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO plans (id, rider_id, created_at, family_id) VALUES (?, ?, ?, ?)`, planID, rider, s.now(), family); err != nil {
		return err
	}
	revision := rand.Text()
	if err := s.addRevision(ctx, tx, revision, planID, nil, summary, document); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO heads (plan_id, revision_id, revisions) VALUES (?, ?, 1)`, planID, revision)
	return err
}

// Save puts a changed document on top of the revision base. ErrStale when base is not
// the head any more. The id, which the page made or which is "" for a new one, becomes the
// revision's: sent again, it is the same save and no error. Where the answer of the
// database to its commit was lost, Save looks whether it is there: nil when it is, ErrLost
// when it is not, ErrDoubt when nobody can look.
func (s *Store) Save(ctx context.Context, rider, planID, base, id string, p *plan.Plan, summary string) error {
	document, err := encode(p)
	if err != nil {
		return err
	}
	if id == "" {
		id = rand.Text()
	}
	err = s.change(ctx, func(tx transaction) error {
		// The lock makes two savers queue here, not deadlock further down.
		stale := lockHead(ctx, tx, rider, planID, base)
		if stale != nil && !errors.Is(stale, ErrStale) {
			return stale
		}
		if done, err := saved(ctx, tx, planID, base, id, document); done || err != nil {
			return err
		}
		if stale != nil {
			return stale
		}
		if err := s.addRevision(ctx, tx, id, planID, base, summary, document); err != nil {
			return err
		}
		return moveHead(ctx, tx, planID, base, id)
	})
	if duplicate(err) { // of another plan: no page of this one made it
		return ErrStale
	}
	return s.settle(ctx, err, func(tx transaction) (bool, error) {
		// The lock on the head waits for a transaction that still has it.
		if _, err := headForUpdate(ctx, tx, rider, planID); err != nil {
			return false, err
		}
		return saved(ctx, tx, planID, base, id, document)
	})
}

// saved tells whether a save is there: its id, on top of base, with this document.
func saved(ctx context.Context, tx transaction, planID, base, id string, document []byte) (bool, error) {
	var there int
	err := tx.GetContext(ctx, &there, `SELECT COUNT(*) FROM revisions WHERE id = ? AND plan_id = ? AND parent_id = ? AND CAST(document AS BINARY) = ?`, id, planID, base, document)
	return there > 0, err
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

// Amend changes a plan at its head, whatever that is by then, once for an id that
// the client made: sent again, it does nothing. The id becomes the revision's.
// Change gets the plan as it is and gives it as it should be, with what changed in
// words; an empty text leaves it as it is.
func (s *Store) Amend(ctx context.Context, rider, planID, id string, change func(*plan.Plan) (changed *plan.Plan, summary string)) error {
	err := s.change(ctx, func(tx transaction) error {
		head, err := headForUpdate(ctx, tx, rider, planID)
		if err != nil {
			return err
		}
		var done int
		if err := tx.GetContext(ctx, &done, `SELECT COUNT(*) FROM revisions WHERE id = ? AND plan_id = ?`, id, planID); err != nil || done > 0 {
			return err
		}
		var document []byte
		if err := tx.GetContext(ctx, &document, `SELECT document FROM revisions WHERE id = ?`, head); err != nil {
			return err
		}
		p, _, err := format.DecodePlan(document)
		if err != nil {
			return err
		}
		changed, summary := change(p)
		if summary == "" {
			return nil
		}
		if document, err = encode(changed); err != nil {
			return err
		}
		if err := s.addRevision(ctx, tx, id, planID, head, summary, document); err != nil {
			return err
		}
		return moveHead(ctx, tx, planID, head, id)
	})
	if duplicate(err) { // of another plan
		return ErrStale
	}
	return err
}

// Undo moves the head from base to its parent.
func (s *Store) Undo(ctx context.Context, rider, planID, base string) error {
	return s.change(ctx, func(tx transaction) error {
		if err := lockHead(ctx, tx, rider, planID, base); err != nil {
			return err
		}
		var parent sql.NullString
		if err := tx.GetContext(ctx, &parent, `SELECT parent_id FROM revisions WHERE id = ?`, base); err != nil {
			return err
		}
		if !parent.Valid {
			return ErrNothing
		}
		return moveHead(ctx, tx, planID, base, parent.String)
	})
}

// Redo moves the head from base to the latest revision that was made on top of it.
func (s *Store) Redo(ctx context.Context, rider, planID, base string) error {
	return s.change(ctx, func(tx transaction) error {
		if err := lockHead(ctx, tx, rider, planID, base); err != nil {
			return err
		}
		var next sql.NullString
		if err := tx.GetContext(ctx, &next, `SELECT next_id FROM revisions WHERE id = ?`, base); err != nil {
			return err
		}
		if !next.Valid {
			return ErrNothing
		}
		return moveHead(ctx, tx, planID, base, next.String)
	})
}

// lockHead locks the head of a rider's plan and makes sure that it is base.
func lockHead(ctx context.Context, tx transaction, rider, planID, base string) error {
	head, err := headForUpdate(ctx, tx, rider, planID)
	if err == nil && head != base {
		return ErrStale
	}
	return err
}

// headForUpdate locks the head of a rider's plan.
func headForUpdate(ctx context.Context, tx transaction, rider, planID string) (head string, err error) {
	err = tx.GetContext(ctx, &head, `
		SELECT h.revision_id FROM heads h JOIN plans p ON p.id = h.plan_id
		WHERE p.id = ? AND p.rider_id = ? AND p.removed_at IS NULL FOR UPDATE`, planID, rider)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return head, err
}

// moveHead is the compare-and-set.
func moveHead(ctx context.Context, tx transaction, planID, from, to string) error {
	result, err := tx.ExecContext(ctx, `UPDATE heads SET revision_id = ? WHERE plan_id = ? AND revision_id = ?`, to, planID, from)
	if err != nil {
		return err
	}
	if n, err := result.RowsAffected(); err != nil || n != 1 {
		return errors.Join(ErrStale, err)
	}
	return nil
}

// addRevision puts a revision on top of its parent, nil for the first, and makes it the
// one that a redo from there leads to.
func (s *Store) addRevision(ctx context.Context, tx transaction, id, planID string, parent any, summary string, document []byte) error {
	_, err := tx.ExecContext(ctx, `
		INSERT INTO revisions (id, plan_id, parent_id, summary, document, made_at) VALUES (?, ?, ?, ?, ?, ?)`,
		id, planID, parent, clip(summary, 500), document, s.now())
	if err == nil {
		err = s.weigh(ctx, tx, planID, len(document))
	}
	if err != nil || parent == nil {
		return err
	}
	if _, err = tx.ExecContext(ctx, `UPDATE revisions SET next_id = ? WHERE id = ?`, id, parent); err != nil {
		return err
	}
	return s.count(ctx, tx, planID)
}

// count counts a revision more of a plan.
func (s *Store) count(ctx context.Context, tx transaction, planID string) error {
	if _, err := tx.ExecContext(ctx, `UPDATE heads SET revisions = revisions + 1 WHERE plan_id = ?`, planID); err != nil {
		return err
	}
	var revisions int
	if err := tx.GetContext(ctx, &revisions, `SELECT revisions FROM heads WHERE plan_id = ?`, planID); err != nil {
		return err
	}
	if revisions > s.quotas.Revisions {
		return &Quota{fmt.Sprintf("The plan has %d revisions, and no more.", s.quotas.Revisions), "Export it and import it as a new one, which starts without them."}
	}
	return nil
}

// clip shortens text to a column's characters.
func clip(text string, most int) string {
	if utf8.RuneCountInString(text) <= most {
		return text
	}
	return string([]rune(text)[:most-1]) + "…"
}
