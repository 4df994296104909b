package store

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"

	"github.com/go-json-experiment/json"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/format"
)

// Clash is an ErrClash: two readings that differ have the same id.
type Clash struct{ There, New logbook.Reading }

func (e *Clash) Error() string {
	return fmt.Sprintf("The log has another reading under this id: there it is %s, here %s. Throw one away, or write it down anew.", e.There.Words(), e.New.Words())
}

// Is makes it an ErrClash.
func (e *Clash) Is(target error) bool { return target == ErrClash }

// AddReadings puts readings into the log of a rider's plan, which its variants
// share. One that is there already is left as it is, and another under its id is a
// Clash; added counts the others. Readings are no revisions: an undo leaves them alone.
func (s *Store) AddReadings(ctx context.Context, rider, planID string, list []logbook.Reading) (added int, err error) {
	for i, r := range list {
		if !entry.ValidID(r.ID) {
			return 0, entry.Problem{Path: fmt.Sprintf("readings[%d].id", i), What: "is not one of a reading"}
		}
		if problems := r.Validate(); len(problems) > 0 {
			return 0, problems[0]
		}
	}
	err = s.change(ctx, func(tx transaction) error {
		var log string
		err := tx.GetContext(ctx, &log, `SELECT COALESCE(family_id, id) FROM plans WHERE id = ? AND rider_id = ? AND removed_at IS NULL`, planID, rider)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		// Two that add at once queue at the log's plan, so the bound holds.
		var count int
		if err := tx.GetContext(ctx, &log, `SELECT id FROM plans WHERE id = ? FOR UPDATE`, log); err != nil {
			return err
		}
		if err := tx.GetContext(ctx, &count, `SELECT COUNT(*) FROM readings WHERE log_id = ?`, log); err != nil {
			return err
		}
		if count+len(list) > min(logbook.MaxReadings, s.quotas.Readings) {
			return ErrFull
		}
		added, err = s.insertReadings(ctx, tx, log, list)
		return err
	})
	return added, err
}

func (s *Store) insertReadings(ctx context.Context, tx transaction, log string, list []logbook.Reading) (added int, err error) {
	size := 0
	for _, r := range list {
		document, err := json.Marshal(r, json.Deterministic(true))
		if err != nil {
			return 0, err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO readings (log_id, id, document, made_at) VALUES (?, ?, ?, ?)`, log, r.ID, document, s.now())
		if duplicate(err) {
			var is []byte
			// As it is now: it may have been put there since this transaction first looked.
			if err := tx.GetContext(ctx, &is, `SELECT document FROM readings WHERE log_id = ? AND id = ? LOCK IN SHARE MODE`, log, r.ID); err != nil {
				return 0, err
			}
			clash := &Clash{New: r}
			if err := format.DecodePiece(is, &clash.There); err != nil {
				return 0, err
			}
			there, err := json.Marshal(clash.There, json.Deterministic(true)) // as it is written now
			if err != nil {
				return 0, err
			}
			if bytes.Equal(there, document) {
				continue
			}
			return 0, clash
		}
		if err != nil {
			return 0, err
		}
		added++
		size += len(document)
	}
	return added, s.weigh(ctx, tx, log, size)
}

// sound tells whether a reading is one at all. What it says was looked at when it was kept.
func sound(r logbook.Reading) error {
	switch {
	case !entry.ValidID(r.ID):
		return errors.New("its id is none of ours")
	case !r.Whole():
		return fmt.Errorf("%q is no kind of reading, or its content is missing", r.Kind)
	}
	return nil
}

// withReadings puts the readings of their logs into plans, and into their versions.
func (s *Store) withReadings(ctx context.Context, list ...*Snapshot) error {
	var logs []string
	for _, snapshot := range list {
		logs = append(logs, snapshot.logID)
	}
	lists, err := s.readings(ctx, logs)
	for _, snapshot := range list {
		log := lists[snapshot.logID]
		snapshot.Plan.Readings = log.readings
		snapshot.Aside = append(snapshot.Aside, log.aside...)
		if snapshot.Version != "" { // it is of one plan that is looked at
			snapshot.Version += log.seen.version()
		}
	}
	return err
}
