package store

import (
	"context"
	"crypto/rand"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
)

// Join makes two bikes of a rider's garage one machine, into: the trips of the other ride it from
// now on, and say what of their copies it has otherwise; what was read off the other is in its log.
// The other is thrown away and can be brought back, without its trips.
func (s *Store) Join(ctx context.Context, rider, other, into string) error {
	if other == into {
		return ErrNothing
	}
	return s.change(ctx, func(tx transaction) error {
		first, then := into, other // always in one order, so that two that join do not wait in a circle
		if other < into {
			first, then = other, into
		}
		for _, id := range []string{first, then} {
			if _, err := lockBike(ctx, tx, rider, id); err != nil {
				return err
			}
		}
		readings, err := s.logIn(ctx, tx, other, "")
		if err != nil {
			return err
		}
		if _, err := s.insertReadings(ctx, tx, into, "", readings); err != nil {
			return err
		}
		bike, err := lockBike(ctx, tx, rider, into)
		if err != nil {
			return err
		}
		var trips []string
		if err := tx.SelectContext(ctx, &trips, `
			SELECT d.id FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
			WHERE d.rider_id = ? AND d.kind = 'plan' AND d.removed_at IS NULL AND r.bike_id = ? ORDER BY d.id`, rider, other); err != nil {
			return err
		}
		for _, id := range trips {
			head, err := headForUpdate(ctx, tx, rider, id)
			if err != nil {
				return err
			}
			was, err := revisionAt(ctx, tx, rider, id, head)
			if err != nil {
				return err
			}
			next := revisionRow{ID: rand.Text(), Dossier: id, Kind: OfPlan, Parent: some(head), Summary: "The same machine as " + name(bike.machine), Document: was.Document}
			next.place = place{Bike: some(into), Taken: bike.Readings}
			if err := s.append(ctx, tx, next); err != nil {
				return err
			}
		}
		return one(tx.ExecContext(ctx, `UPDATE dossiers SET removed_at = ? WHERE id = ?`, s.now(), other))
	})
}

func name(m plan.Machine) string {
	if m.Bike == nil {
		return ""
	}
	return m.Bike.Name
}

// Apart gives a plan a bike of its own, as its copy has it, with what was written down in the plan:
// it was another machine of the model. On the bike that it was taken for, those readings
// do not count any more.
func (s *Store) Apart(ctx context.Context, rider, id, base string) error {
	return s.change(ctx, func(tx transaction) error {
		was, err := s.lockBoth(ctx, tx, rider, id)
		if err != nil {
			return err
		}
		if was.ID != base {
			return ErrStale
		}
		p, _, err := OfPlan.decode(was.Document)
		if err != nil {
			return err
		}
		if p.Bike == nil {
			return ErrNothing
		}
		own, err := s.logIn(ctx, tx, was.log(), id)
		if err != nil {
			return err
		}
		next := revisionRow{ID: rand.Text(), Dossier: id, Kind: OfPlan, Parent: some(base), Summary: "A bike of its own: " + p.Bike.Name, Document: was.Document}
		if next.place, err = s.ride(ctx, tx, rider, id, p); err != nil {
			return err
		}
		if next.Taken, err = s.insertReadings(ctx, tx, next.Bike.String, id, own); err != nil {
			return err
		}
		var revoked []logbook.Reading
		for _, r := range own {
			if r.Kind != logbook.Revocation {
				revoked = append(revoked, logbook.Reading{ID: rand.Text(), Kind: logbook.Revocation, On: s.now().Format("2006-01-02"), Of: r.ID})
			}
		}
		if _, err := s.insertReadings(ctx, tx, was.log(), "", revoked); err != nil {
			return err
		}
		return s.append(ctx, tx, next)
	})
}

// logIn reads a log, or what was written down in a plan of it.
func (s *Store) logIn(ctx context.Context, tx transaction, log, via string) ([]logbook.Reading, error) {
	var rows []logRow
	err := tx.SelectContext(ctx, &rows, `SELECT log_id, id, document, number, via_id FROM readings WHERE log_id = ? AND (? = '' OR via_id = ?) ORDER BY number, id`, log, via, via)
	if err != nil {
		return nil, err
	}
	read := readLog(rows)
	return read.readings, nil
}
