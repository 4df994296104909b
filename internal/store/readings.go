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

// AddReadings puts readings into the log of a rider's bike: of the one that a plan rides, where
// they are written down in a plan, which has them at once; other plans take them over. One that is
// there already is left as it is, and another under its id is a Clash; added counts the others.
// Readings are no revisions: an undo leaves them alone.
func (s *Store) AddReadings(ctx context.Context, rider, id string, list []logbook.Reading) (added int, err error) {
	for i, r := range list {
		if !entry.ValidID(r.ID) {
			return 0, entry.Problem{Path: fmt.Sprintf("readings[%d].id", i), What: "is not one of a reading"}
		}
		if problems := r.Validate(); len(problems) > 0 {
			return 0, problems[0]
		}
	}
	err = s.change(ctx, func(tx transaction) error {
		var head string
		err := tx.GetContext(ctx, &head, `SELECT revision_id FROM heads WHERE dossier_id = ?`, id)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		at, err := revisionAt(ctx, tx, rider, id, head)
		if err != nil {
			return err
		}
		via := ""
		if at.Kind == OfPlan {
			via = id
		}
		added, err = s.insertReadings(ctx, tx, at.log(), via, list)
		return err
	})
	return added, err
}

// insertReadings puts readings into a log, each with its number there. Two that add at once
// queue at the log's head, so that numbers and bound hold.
func (s *Store) insertReadings(ctx context.Context, tx transaction, log, via string, list []logbook.Reading) (added int, err error) {
	if len(list) == 0 {
		return 0, nil
	}
	var count int
	if err := tx.GetContext(ctx, &count, `SELECT readings FROM heads WHERE dossier_id = ? FOR UPDATE`, log); err != nil {
		return 0, err
	}
	if count+len(list) > min(logbook.MaxReadings, s.quotas.Readings) {
		return 0, ErrFull
	}
	size := 0
	for _, r := range list {
		document, err := json.Marshal(r, json.Deterministic(true))
		if err != nil {
			return 0, err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO readings (log_id, id, document, made_at, number, via_id) VALUES (?, ?, ?, ?, ?, ?)`, log, r.ID, document, s.now(), count+added+1, some(via))
		if duplicate(err) {
			if err := same(ctx, tx, log, r, document); err != nil {
				return 0, err
			}
			continue
		}
		if err != nil {
			return 0, err
		}
		added++
		size += len(document)
	}
	if _, err := tx.ExecContext(ctx, `UPDATE heads SET readings = readings + ? WHERE dossier_id = ?`, added, log); err != nil {
		return 0, err
	}
	return added, s.weigh(ctx, tx, log, size)
}

// same makes sure that a log holds just this reading under its id; it is a Clash where it does not.
func same(ctx context.Context, tx transaction, log string, r logbook.Reading, document []byte) error {
	var is []byte
	// As it is now: it may have been put there since this transaction first looked.
	if err := tx.GetContext(ctx, &is, `SELECT document FROM readings WHERE log_id = ? AND id = ? LOCK IN SHARE MODE`, log, r.ID); err != nil {
		return err
	}
	clash := &Clash{New: r}
	if err := format.DecodePiece(is, &clash.There); err != nil {
		return err
	}
	there, err := json.Marshal(clash.There, json.Deterministic(true)) // as it is written now
	if err != nil || bytes.Equal(there, document) {
		return err
	}
	return clash
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

// withReadings puts into plans what each has of its log.
func (s *Store) withReadings(ctx context.Context, list ...*Snapshot) error {
	counts := map[string]int{}
	for _, one := range list {
		counts[one.log()] = max(counts[one.log()], one.bike.Readings)
	}
	logs, err := s.readings(ctx, counts)
	for _, one := range list {
		log := logs[one.log()]
		one.Plan.Readings = log.of(one.ID, one.taken)
		one.Aside = append(one.Aside, log.aside...)
	}
	return err
}
