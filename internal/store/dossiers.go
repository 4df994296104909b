package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"unicode/utf8"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

// Kind is what a dossier is of. Both kinds are chains of revisions with a head, of which one
// rider has all the say.
type Kind string

// The kinds.
const (
	OfPlan Kind = "plan"
	OfBike Kind = "bike"
)

// encode is a document of the kind without its readings, which are kept beside it. A bike's
// is of the machine alone.
func (k Kind) encode(p *plan.Plan) ([]byte, error) {
	if k == OfBike {
		return format.EncodeBike(p)
	}
	bare := *p
	bare.Machine = p.Machine.Bare()
	return format.EncodePlan(&bare)
}

// decode reads what encode wrote. A bike by itself is a plan of nothing else.
func (k Kind) decode(document []byte) (*plan.Plan, []string, error) {
	if k == OfBike {
		return format.DecodeBike(document)
	}
	return format.DecodePlan(document)
}

// getter is the database, or a transaction in it.
type getter interface {
	GetContext(ctx context.Context, to any, query string, args ...any) error
	SelectContext(ctx context.Context, to any, query string, args ...any) error
}

// place is where a revision of a plan stands towards its bike.
type place struct {
	Bike  sql.NullString `db:"bike_id"`          // null: none
	From  sql.NullString `db:"bike_revision_id"` // of the bike, that the copy was taken over from; null: the copy itself
	Taken int            `db:"taken"`            // readings
	Wrote sql.NullString `db:"wrote_id"`         // of the bike, made with it
	As    sql.NullString `db:"as_id"`            // that it is equal to; null: itself
}

// revisionRow is one revision as it is stored.
type revisionRow struct {
	ID       string         `db:"id"`
	Dossier  string         `db:"dossier_id"`
	Kind     Kind           `db:"kind"`
	Parent   sql.NullString `db:"parent_id"`
	Next     sql.NullString `db:"next_id"`
	Summary  string         `db:"summary"`
	Document []byte         `db:"document"`
	place
}

// revisionAt reads a revision of a rider's dossier; ErrNotFound where there is none, or the
// dossier was thrown away. What it reads never changes, but for where redo leads.
func revisionAt(ctx context.Context, tx getter, rider, dossier, revision string) (row revisionRow, err error) {
	err = tx.GetContext(ctx, &row, `
		SELECT r.id, r.dossier_id, d.kind, r.parent_id, r.next_id, r.summary, r.document, r.bike_id, r.bike_revision_id, r.taken, r.wrote_id, r.as_id
		FROM dossiers d JOIN revisions r ON r.dossier_id = d.id
		WHERE d.id = ? AND d.rider_id = ? AND d.removed_at IS NULL AND r.id = ?`, dossier, rider, revision)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return row, err
}

// garage is which bike of the garage a revision is of, "" for none.
func (r *revisionRow) garage() string {
	if r.Kind == OfBike {
		return r.Dossier
	}
	return r.Bike.String
}

// log is where its readings are kept: with the bike, or with the plan that has none.
func (r *revisionRow) log() string {
	if r.Kind == OfPlan && r.Bike.Valid {
		return r.Bike.String
	}
	return r.Dossier
}

// has tells whether a dossier has a revision.
func has(ctx context.Context, from getter, dossier, revision string) (bool, error) {
	var there int
	err := from.GetContext(ctx, &there, `SELECT COUNT(*) FROM revisions WHERE id = ? AND dossier_id = ?`, revision, dossier)
	return there > 0, err
}

// machine in a revision.
func (r *revisionRow) machine() (plan.Machine, error) {
	if r.Kind == OfBike {
		p, _, err := format.DecodeBike(r.Document)
		if err != nil {
			return plan.Machine{}, err
		}
		return p.Machine, nil
	}
	return format.MachineOf(r.Document)
}

// lockHead locks the head of a rider's dossier and makes sure that it is base.
func lockHead(ctx context.Context, tx transaction, rider, dossier, base string) error {
	head, err := headForUpdate(ctx, tx, rider, dossier)
	if err == nil && head != base {
		return ErrStale
	}
	return err
}

// headForUpdate locks the head of a rider's dossier. Of a plan and its bike the bike's is
// locked first, everywhere, so that nobody waits in a circle.
func headForUpdate(ctx context.Context, tx transaction, rider, dossier string) (head string, err error) {
	err = tx.GetContext(ctx, &head, `
		SELECT h.revision_id FROM heads h JOIN dossiers d ON d.id = h.dossier_id
		WHERE d.id = ? AND d.rider_id = ? AND d.removed_at IS NULL FOR UPDATE`, dossier, rider)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return head, err
}

// moveHead is the compare-and-set.
func moveHead(ctx context.Context, tx transaction, dossier, from, to string) error {
	result, err := tx.ExecContext(ctx, `UPDATE heads SET revision_id = ? WHERE dossier_id = ? AND revision_id = ?`, to, dossier, from)
	if err != nil {
		return err
	}
	if n, err := result.RowsAffected(); err != nil || n != 1 {
		return errors.Join(ErrStale, err)
	}
	return nil
}

// insertDossier makes a dossier with its first revision and its head; via is the plan that a
// bike is made in, null for one by itself.
func (s *Store) insertDossier(ctx context.Context, tx transaction, rider string, kind Kind, family, via sql.NullString, r revisionRow) error {
	if err := s.room(ctx, tx, rider, kind); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO dossiers (id, rider_id, kind, created_at, family_id, via_id) VALUES (?, ?, ?, ?, ?, ?)`, r.Dossier, rider, kind, s.now(), family, via); err != nil {
		return err
	}
	if err := s.addRevision(ctx, tx, r); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO heads (dossier_id, revision_id, revisions) VALUES (?, ?, 1)`, r.Dossier, r.ID); err != nil {
		return err
	}
	return r.counts(ctx, tx)
}

// counts writes down what follows from a revision that is at the head now.
func (r *revisionRow) counts(ctx context.Context, tx transaction) error {
	if r.Kind != OfPlan {
		return nil
	}
	return countsOn(ctx, tx, r.Dossier, r.Document)
}

// append puts a revision on top of the head that is locked and has its parent.
func (s *Store) append(ctx context.Context, tx transaction, r revisionRow) error {
	if err := s.addRevision(ctx, tx, r); err != nil {
		return err
	}
	if err := moveHead(ctx, tx, r.Dossier, r.Parent.String, r.ID); err != nil {
		return err
	}
	return r.counts(ctx, tx)
}

// addRevision puts a revision on top of its parent, and makes it the one that a redo from
// there leads to, unless it is itself what an undo or a redo came to.
func (s *Store) addRevision(ctx context.Context, tx transaction, r revisionRow) error {
	_, err := tx.ExecContext(ctx, `
		INSERT INTO revisions (id, dossier_id, parent_id, summary, document, made_at, bike_id, bike_revision_id, taken, wrote_id, as_id)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		r.ID, r.Dossier, r.Parent, clip(r.Summary, 500), r.Document, s.now(), r.Bike, r.From, r.Taken, r.Wrote, r.As)
	if err == nil {
		err = s.weigh(ctx, tx, r.Dossier, len(r.Document))
	}
	if err != nil || !r.Parent.Valid {
		return err
	}
	if !r.As.Valid {
		if _, err = tx.ExecContext(ctx, `UPDATE revisions SET next_id = ? WHERE id = ?`, r.ID, r.Parent); err != nil {
			return err
		}
	}
	return s.count(ctx, tx, r.Dossier)
}

// count counts a revision more of a dossier.
func (s *Store) count(ctx context.Context, tx transaction, dossier string) error {
	if _, err := tx.ExecContext(ctx, `UPDATE heads SET revisions = revisions + 1 WHERE dossier_id = ?`, dossier); err != nil {
		return err
	}
	var is struct {
		Revisions int  `db:"revisions"`
		Kind      Kind `db:"kind"`
	}
	if err := tx.GetContext(ctx, &is, `SELECT h.revisions, d.kind FROM heads h JOIN dossiers d ON d.id = h.dossier_id WHERE h.dossier_id = ?`, dossier); err != nil {
		return err
	}
	if is.Revisions > s.quotas.Revisions {
		return &Quota{fmt.Sprintf("The %s has %d revisions, and no more.", is.Kind, s.quotas.Revisions), "Export it and import it as a new one, which starts without them."}
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

// some is an id that is there.
func some(id string) sql.NullString { return sql.NullString{String: id, Valid: id != ""} }
