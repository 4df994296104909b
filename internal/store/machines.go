package store

import (
	"context"
	"crypto/rand"
	"slices"

	"valiantmule/internal/core/logbook"
)

// Join makes two bikes of a rider's garage one machine, into: the trips of the other ride it from
// now on, and say what of their copies it has otherwise; what was read off the other is in its log.
// The other is thrown away and can be brought back, without its trips.
func (s *Store) Join(ctx context.Context, rider, other, into string) error {
	if other == into {
		return ErrNotFound
	}
	return s.change(ctx, func(tx transaction) error {
		bikes := map[string]lockedBike{}
		for _, id := range slices.Sorted(slices.Values([]string{other, into})) { // in one order, so that two that join do not wait in a circle
			var err error
			if bikes[id], err = lockBike(ctx, tx, rider, id); err != nil {
				return err
			}
		}
		readings, err := s.logIn(ctx, tx, other, "")
		if err != nil {
			return err
		}
		if err := sameMachine(ctx, tx, rider, other, into); err != nil {
			return err
		}
		added, err := s.insertReadings(ctx, tx, into, "", readings)
		if err != nil {
			return err
		}
		bike := bikes[into]
		trips, err := planIDs(ctx, tx, rider, onBike, other)
		if err != nil {
			return err
		}
		slices.Sort(trips) // they are locked in one order too
		for _, id := range trips {
			head, err := headForUpdate(ctx, tx, rider, id)
			if err != nil {
				return err
			}
			was, err := revisionAt(ctx, tx, rider, id, head)
			if err != nil {
				return err
			}
			next := revisionRow{ID: rand.Text(), Dossier: id, Kind: OfPlan, Parent: some(head), Summary: "The same machine as " + bike.machine.BikeName(), Document: was.Document}
			next.place = place{Bike: some(into), Taken: bike.Readings + added}
			if err := s.append(ctx, tx, next); err != nil {
				return err
			}
		}
		return one(tx.ExecContext(ctx, `UPDATE dossiers SET removed_at = ? WHERE id = ?`, s.now(), other))
	})
}

// sameMachine has all parts that are or were on one bike be so on another, which it is: refused where two are in one
// place then.
func sameMachine(ctx context.Context, tx transaction, rider, other, into string) error {
	if _, err := lockThings(ctx, tx, rider); err != nil {
		return err
	}
	for _, statement := range []string{
		`UPDATE moves SET bike_id = ? WHERE bike_id = ? AND rider_id = ?`,
		`UPDATE things SET bike_id = ? WHERE bike_id = ? AND rider_id = ?`,
	} {
		if _, err := tx.ExecContext(ctx, statement, into, other, rider); err != nil {
			return err
		}
	}
	if err := anew(ctx, tx, rider); err != nil {
		return err
	}
	things, err := lockThings(ctx, tx, rider)
	if err != nil {
		return err
	}
	return things.Crowded(into)
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
			return ErrNotFound
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
		// What was fitted in the plan was fitted on its own bike.
		for _, statement := range []string{
			`UPDATE moves m JOIN revisions r ON r.id = m.revision_id SET m.bike_id = ? WHERE r.dossier_id = ? AND m.bike_id = ?`,
			`UPDATE things t JOIN moves m ON m.thing_id = t.id JOIN revisions r ON r.id = m.revision_id SET t.bike_id = ? WHERE r.dossier_id = ? AND t.bike_id = ?`,
		} {
			if _, err := tx.ExecContext(ctx, statement, next.Bike, id, was.Bike); err != nil {
				return err
			}
		}
		if err := anew(ctx, tx, rider); err != nil {
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
