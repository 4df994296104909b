package store

import (
	"context"
	"database/sql"
	"errors"

	"github.com/pressly/goose/v3"

	"valiantmule/internal/core/garage"
)

// thingsOutOfPlans is the step of the schema that makes things out of the lines that plans hold of what is
// ordered, owned or fitted, a rider at a time, each in one transaction: done again it goes on where it was broken off.
//
// A bike has one thing for each part of a slot, however many plans hold it. The plan that was changed last says where
// it is; of two that it and an older one say are in one place, the older's lies at home. No plan is written to: its
// lines find their things by part, slot and bike, and its reports stay.
func (s *Store) thingsOutOfPlans() *goose.Migration {
	return goose.NewGoMigration(24, &goose.GoFunc{RunDB: func(ctx context.Context, _ *sql.DB) error {
		var riders []string
		if err := s.db.SelectContext(ctx, &riders, `SELECT id FROM riders WHERE moves = 0 ORDER BY id`); err != nil {
			return err
		}
		for _, rider := range riders {
			if err := s.once(ctx, func(tx transaction) error { return s.thingsOf(ctx, tx, rider) }); err != nil {
				return err
			}
		}
		return nil
	}}, nil)
}

func (s *Store) thingsOf(ctx context.Context, tx transaction, rider string) error {
	var heads []struct {
		Revision string         `db:"id"`
		Bike     sql.NullString `db:"bike_id"`
		Day      string         `db:"day"`
	}
	err := tx.SelectContext(ctx, &heads, `
		SELECT r.id, r.bike_id, DATE_FORMAT(r.made_at, '%Y-%m-%d') AS day FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
		WHERE d.rider_id = ? AND d.kind = 'plan' ORDER BY d.removed_at IS NOT NULL, r.made_at DESC, d.id`, rider)
	if err != nil || len(heads) == 0 {
		return err
	}
	things, err := lockThings(ctx, tx, rider)
	if err != nil {
		return err
	}
	var put []garage.Thing
	var act []garage.Event
	for _, head := range heads {
		var document []byte
		if err := tx.GetContext(ctx, &document, `SELECT document FROM revisions WHERE id = ?`, head.Revision); err != nil {
			return err
		}
		p, _, err := OfPlan.decode(document)
		if err != nil {
			continue // what nobody can read has nothing to say
		}
		moved := things.Settle(nil, p.Lines, garage.Moment{Act: head.Revision, Bike: head.Bike.String, Day: head.Day})
		made := map[string]bool{}
		for _, t := range moved.Put {
			made[t.ID] = true
			things.Add(t)
			put = append(put, t)
		}
		for _, e := range moved.Act {
			if !made[e.Thing] { // a plan that was changed later has said where it is
				continue
			}
			if err := things.Do([]garage.Event{e}); errors.Is(err, garage.ErrRefused) {
				e.To, e.Bike, e.Loadout = garage.Home, "", ""
				err = things.Do([]garage.Event{e})
				if err != nil {
					return err
				}
			} else if err != nil {
				return err
			}
			act = append(act, e)
		}
	}
	if things, err = lockThings(ctx, tx, rider); err != nil {
		return err
	}
	return s.keepThings(ctx, tx, rider, things, put, act, "")
}
