package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"

	"valiantmule/internal/core/plan"
)

// bikesOutOfPlans is the step of the schema that makes bikes out of the plans that hold them, a
// family of plans at a time, each in one transaction: done again it goes on where it was broken off.
//
// A family has one bike for each sheet that its plans hold. The head that was changed last leads;
// what other heads say of the same sheet become earlier revisions, so that their plans say what
// differs. What was read off a sheet is its bike's. Families are never put together: two
// of them may hold the same machine or two of one model, and only the rider knows.
func (s *Store) bikesOutOfPlans() *goose.Migration {
	return goose.NewGoMigration(21, &goose.GoFunc{RunDB: func(ctx context.Context, _ *sql.DB) error {
		var families []string
		err := s.db.SelectContext(ctx, &families, `
			SELECT DISTINCT COALESCE(d.family_id, d.id) AS family FROM dossiers d JOIN revisions r ON r.dossier_id = d.id
			WHERE d.kind = 'plan' AND r.bike_id IS NULL AND JSON_EXISTS(r.document, '$.bike')
			UNION SELECT log_id FROM readings WHERE number = 0 ORDER BY family`)
		if err != nil {
			return err
		}
		for _, family := range families {
			if err := s.once(ctx, func(tx transaction) error { return s.bikesOf(ctx, tx, family) }); err != nil {
				return err
			}
		}
		return nil
	}}, nil)
}

// held is a revision of a plan that holds a bike.
type held struct {
	ID      string       `db:"id"`
	Plan    string       `db:"dossier_id"`
	Rider   string       `db:"rider_id"`
	Sheet   string       `db:"sheet"`
	MadeAt  time.Time    `db:"made_at"`
	Head    bool         `db:"is_head"`
	Removed sql.NullTime `db:"removed_at"`
}

func (s *Store) bikesOf(ctx context.Context, tx transaction, family string) error {
	var rows []held
	err := tx.SelectContext(ctx, &rows, `
		SELECT r.id, r.dossier_id, d.rider_id, COALESCE(JSON_VALUE(r.document, '$.bike.id'), '') AS sheet, r.made_at, h.revision_id IS NOT NULL AS is_head, d.removed_at
		FROM dossiers d JOIN revisions r ON r.dossier_id = d.id LEFT JOIN heads h ON h.revision_id = r.id
		WHERE (d.family_id = ? OR d.id = ?) AND d.kind = 'plan' AND r.bike_id IS NULL AND JSON_EXISTS(r.document, '$.bike') ORDER BY r.made_at, r.id`, family, family)
	if err != nil {
		return err
	}
	var sheets []string
	of := map[string][]held{}
	for _, row := range rows {
		if of[row.Sheet] == nil {
			sheets = append(sheets, row.Sheet)
		}
		of[row.Sheet] = append(of[row.Sheet], row)
	}
	bikes := map[string]string{}
	for _, sheet := range sheets {
		bikes[sheet] = rand.Text()
	}
	first := family
	if len(sheets) > 0 {
		first = bikes[sheets[0]]
	}
	for _, sheet := range sheets {
		if err := s.bikeOf(ctx, tx, bikes[sheet], of[sheet]); err != nil {
			return err
		}
	}
	counts, err := sortReadings(ctx, tx, family, func(sheet string) string {
		if bike, ok := bikes[sheet]; ok {
			return bike
		}
		return first
	})
	if err != nil {
		return err
	}
	for log, count := range counts {
		if _, err := tx.ExecContext(ctx, `UPDATE heads SET readings = ? WHERE dossier_id = ?`, count, log); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE revisions SET taken = ? WHERE bike_id = ?`, count, log); err != nil {
			return err
		}
	}
	return nil
}

// bikeOf makes a bike out of the revisions that hold its sheet, the oldest first.
func (s *Store) bikeOf(ctx context.Context, tx transaction, bike string, rows []held) error {
	var heads, all []held
	ids := make([]string, len(rows))
	removed := rows[len(rows)-1].Removed
	for i, row := range rows {
		ids[i] = row.ID
		if row.Head {
			heads = append(heads, row)
			if !row.Removed.Valid {
				removed = sql.NullTime{}
			}
		}
	}
	if all = heads; heads == nil {
		all = rows[len(rows)-1:]
	}
	last := all[len(all)-1]
	if _, err := tx.ExecContext(ctx, `INSERT INTO dossiers (id, rider_id, kind, created_at, via_id, removed_at) VALUES (?, ?, 'bike', ?, ?, ?)`,
		bike, last.Rider, rows[0].MadeAt, last.Plan, removed); err != nil {
		return err
	}
	query, args, err := sqlx.In(`UPDATE revisions SET bike_id = ? WHERE id IN (?)`, bike, ids)
	if err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, query, args...); err != nil {
		return err
	}
	var parent string
	var before *plan.Plan
	revisions := 0
	for _, row := range all {
		var document []byte
		if err := tx.GetContext(ctx, &document, `SELECT document FROM revisions WHERE id = ?`, row.ID); err != nil {
			return err
		}
		p, _, err := OfPlan.decode(document)
		if err != nil {
			return err
		}
		if before == nil || !before.Machine.Same(p.Machine) {
			if document, err = OfBike.encode(p); err != nil {
				return err
			}
			id := rand.Text()
			if _, err := tx.ExecContext(ctx, `INSERT INTO revisions (id, dossier_id, parent_id, summary, document, made_at) VALUES (?, ?, ?, ?, ?, ?)`,
				id, bike, some(parent), clip("As in “"+p.Name+"”", 500), document, row.MadeAt); err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `UPDATE revisions SET next_id = ? WHERE id = ?`, id, parent); err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `UPDATE riders SET bytes = bytes + ? WHERE id = ?`, len(document), last.Rider); err != nil {
				return err
			}
			parent, before = id, p
			revisions++
		}
		if _, err := tx.ExecContext(ctx, `UPDATE revisions SET bike_revision_id = ? WHERE id = ?`, parent, row.ID); err != nil {
			return err
		}
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO heads (dossier_id, revision_id, revisions) VALUES (?, ?, ?)`, bike, parent, revisions)
	return err
}

// sortReadings gives the readings of a family each to the log that its sheet has, in the order in
// which they came, with their numbers there; what revokes goes where the revoked one does. Counts
// are how many each log has.
func sortReadings(ctx context.Context, tx transaction, family string, logOf func(sheet string) string) (counts map[string]int, err error) {
	var rows []struct {
		ID    string         `db:"id"`
		Sheet string         `db:"sheet"`
		Of    sql.NullString `db:"of_id"`
	}
	err = tx.SelectContext(ctx, &rows, `
		SELECT id, COALESCE(JSON_VALUE(document, '$.bike'), '') AS sheet, JSON_VALUE(document, '$.of') AS of_id
		FROM readings WHERE log_id = ? AND number = 0 ORDER BY made_at, id`, family)
	if err != nil {
		return nil, err
	}
	counts = map[string]int{}
	in := map[string]string{}
	for _, row := range rows {
		in[row.ID] = logOf(row.Sheet)
	}
	for _, row := range rows {
		log := in[row.ID]
		if revoked, ok := in[row.Of.String]; ok {
			log = revoked
		}
		counts[log]++
		if _, err := tx.ExecContext(ctx, `UPDATE readings SET log_id = ?, number = ? WHERE log_id = ? AND id = ?`, log, counts[log], family, row.ID); err != nil {
			return nil, err
		}
	}
	return counts, nil
}
