package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"maps"
	"slices"

	"github.com/go-json-experiment/json"
	"github.com/jmoiron/sqlx"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/format"
)

// Things are all parts of a rider's own with what happened to them, at one version.
type Things struct {
	*garage.Garage
	Version int           // another after every change
	Offered []*parts.Part // what lies at home, to be tried; see [garage.Untaken]

	stored map[string]bool // by id
}

// Things of a rider.
func (s *Store) Things(ctx context.Context, rider string) (*Things, error) {
	t := &Things{}
	// The version first: what comes meanwhile is read, and read again under the next.
	if err := s.db.GetContext(ctx, &t.Version, `SELECT moves FROM riders WHERE id = ?`, rider); err != nil {
		return nil, err
	}
	if err := t.read(ctx, s.db, rider); err != nil {
		return nil, err
	}
	t.Offered = garage.Offered(t.All())
	return t, nil
}

// lockThings locks the things of a rider and reads them. Whatever else is locked, bikes and plans, is
// so before.
func lockThings(ctx context.Context, tx transaction, rider string) (*Things, error) {
	t := &Things{}
	if err := tx.GetContext(ctx, &t.Version, `SELECT moves FROM riders WHERE id = ? FOR UPDATE`, rider); err != nil {
		return nil, err
	}
	return t, t.read(ctx, tx, rider)
}

// read reads what happened before what it happened to, so that no event is without its thing.
func (t *Things) read(ctx context.Context, from getter, rider string) error {
	var moves []struct {
		Act      string         `db:"act_id"`
		ID       string         `db:"id"`
		Thing    string         `db:"thing_id"`
		Bike     sql.NullString `db:"bike_id"`
		Document []byte         `db:"document"`
	}
	err := from.SelectContext(ctx, &moves, `SELECT act_id, id, thing_id, bike_id, document FROM moves WHERE rider_id = ? ORDER BY number`, rider)
	if err != nil {
		return err
	}
	var rows []struct {
		Bike     sql.NullString `db:"bike_id"`
		Document []byte         `db:"document"`
	}
	if err := from.SelectContext(ctx, &rows, `SELECT bike_id, document FROM things WHERE rider_id = ? ORDER BY made_at, id`, rider); err != nil {
		return err
	}
	things := make([]garage.Thing, len(rows))
	t.stored = make(map[string]bool, len(rows))
	for i, row := range rows {
		if things[i], err = format.DecodeThing(row.Document); err != nil {
			return err
		}
		things[i].For, t.stored[things[i].ID] = row.Bike.String, true
	}
	events := make([]garage.Event, len(moves))
	for i, m := range moves {
		if err := json.Unmarshal(m.Document, &events[i]); err != nil {
			return err
		}
		events[i].ID, events[i].Act, events[i].Thing, events[i].Bike = m.ID, m.Act, m.Thing, m.Bike.String
	}
	bikes, err := bikesOfThings(ctx, from, rider)
	if err == nil {
		t.Garage, err = garage.New(things, events, bikes)
	}
	return err
}

// bikesOfThings are a rider's bikes by their ids, those too that were thrown away and can be brought back.
func bikesOfThings(ctx context.Context, from getter, rider string) (map[string]garage.Bike, error) {
	var rows []struct {
		ID       string         `db:"id"`
		Name     string         `db:"name"`
		Odometer sql.NullString `db:"odometer"`
	}
	err := from.SelectContext(ctx, &rows, `
		SELECT d.id, COALESCE(JSON_VALUE(r.document, '$.bike.name'), '') AS name, JSON_VALUE(r.document, '$.bike.odometer') AS odometer
		FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id WHERE d.rider_id = ? AND d.kind = 'bike'`, rider)
	bikes := make(map[string]garage.Bike, len(rows))
	for _, row := range rows {
		b := garage.Bike{Name: row.Name}
		if row.Odometer.Valid {
			if err := b.Odometer.UnmarshalText([]byte(row.Odometer.String)); err != nil {
				b.Odometer = unit.Length{} // then nobody knows it
			}
		}
		bikes[row.ID] = b
	}
	return bikes, err
}

// Act is what is done to things in one go, in the garage.
type Act struct {
	ID  string         // made by the client: sent twice, it is done once
	Put []garage.Thing // new ones, or with another sheet or sum
	// Events are done in their order. Those without an id get one, and all the act's.
	Events    []garage.Event
	Day       string
	Odometers map[string]unit.Length // what bikes show then, by their ids; written down with it
	HandOver  *HandOver              // of a bike that goes with it, nil for none
}

// HandOver is a bike that leaves the garage: it is put aside as it is then, with its history.
type HandOver struct {
	Bike string
	As   func(plan.Machine) plan.Machine
}

// Do does an act of a rider's, all of it or none; an [garage.Refusal] says what stands against it. Done
// again with its id it does nothing.
func (s *Store) Do(ctx context.Context, rider string, act Act) error {
	if !entry.ValidID(act.ID) {
		return entry.Problem{Path: "save", What: "is not one of an act"}
	}
	err := s.change(ctx, func(tx transaction) error {
		bikes := map[string]lockedBike{}
		for _, id := range slices.Sorted(maps.Keys(act.Odometers)) {
			var err error
			if bikes[id], err = lockBike(ctx, tx, rider, id); err != nil {
				return err
			}
		}
		var handed lockedBike
		if act.HandOver != nil {
			var err error
			if handed, err = lockBike(ctx, tx, rider, act.HandOver.Bike); err != nil {
				return err
			}
			if handed.machine.Held == plan.Gone { // sent again
				return nil
			}
		}
		things, err := lockThings(ctx, tx, rider)
		if err != nil {
			return err
		}
		if done, err := acted(ctx, tx, rider, act.ID); done || err != nil {
			return err
		}
		for id, at := range act.Odometers {
			bike := bikes[id]
			if now := bike.machine.Bike.Odometer; !at.Known() || now.Known() && now.Base() >= at.Base() { // a day of long ago
				continue
			}
			if _, err := s.writeBike(ctx, tx, bike, bike.machine.Ran(act.Day, at), "Odometer, as parts moved"); err != nil {
				return err
			}
		}
		if over := act.HandOver; over != nil {
			if _, err := s.writeBike(ctx, tx, handed, over.As(handed.machine), "Handed over"); err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `UPDATE dossiers SET archived_at = ? WHERE id = ?`, s.now(), over.Bike); err != nil {
				return err
			}
		}
		events := slices.Clone(act.Events)
		for i := range events {
			events[i].Act, events[i].ID = act.ID, garage.DerivedID(act.ID, i)
		}
		return s.enact(ctx, tx, rider, things, act.Put, events, "")
	})
	return s.settle(ctx, err, func(tx transaction) (bool, error) {
		if _, err := lockThings(ctx, tx, rider); err != nil {
			return false, err
		}
		return acted(ctx, tx, rider, act.ID)
	})
}

// acted tells whether an act was done.
func acted(ctx context.Context, from getter, rider, act string) (bool, error) {
	var there int
	err := from.GetContext(ctx, &there, `
		SELECT (SELECT COUNT(*) FROM moves WHERE act_id = ? AND rider_id = ?) + (SELECT COUNT(*) FROM things WHERE id = ? AND rider_id = ?)`, act, rider, MadeBy(act), rider)
	return there > 0, err
}

// madeBy is the number of the id of the one thing that an act makes; see [garage.DerivedID].
const madeBy = 1000

// MadeBy is the id of the thing that an act makes.
func MadeBy(act string) string { return garage.DerivedID(act, madeBy) }

// UndoAct takes an act back, and RedoAct does it again, each as an act of its own; a refusal says
// what rests on it. What a plan did is undone in the plan.
func (s *Store) UndoAct(ctx context.Context, rider, of, act string) error {
	return s.counter(ctx, rider, of, act, (*garage.Garage).Undo)
}

// RedoAct does an act again that was taken back; see UndoAct.
func (s *Store) RedoAct(ctx context.Context, rider, of, act string) error {
	return s.counter(ctx, rider, of, act, (*garage.Garage).Redo)
}

func (s *Store) counter(ctx context.Context, rider, of, act string, by func(g *garage.Garage, of, act, day string) ([]garage.Event, error)) error {
	return s.change(ctx, func(tx transaction) error {
		things, err := lockThings(ctx, tx, rider)
		if err != nil {
			return err
		}
		if done, err := acted(ctx, tx, rider, act); done || err != nil {
			return err
		}
		var plan sql.NullString
		err = tx.GetContext(ctx, &plan, `SELECT revision_id FROM moves WHERE act_id = ? AND rider_id = ? LIMIT 1`, of, rider)
		switch {
		case errors.Is(err, sql.ErrNoRows):
			return ErrNotFound
		case err != nil:
			return err
		case plan.Valid:
			return &garage.Refusal{What: "That was done in a plan.", Do: "Take it back there."}
		}
		events, err := by(things.Garage, of, act, s.day())
		if err != nil || len(events) == 0 {
			return err
		}
		return s.enact(ctx, tx, rider, things, nil, events, "")
	})
}

func (s *Store) day() string { return s.now().Format("2006-01-02") }

// enact does events to locked things and writes both down; revision is the plan's that they were done in, "" for
// none.
func (s *Store) enact(ctx context.Context, tx transaction, rider string, things *Things, put []garage.Thing, events []garage.Event, revision string) error {
	if err := s.keepThings(ctx, tx, rider, things, put, events, revision); err != nil {
		return err
	}
	if n := len(things.All()); n > s.quotas.Things {
		return &Quota{fmt.Sprintf("The garage keeps %d parts, and no more.", s.quotas.Things), "Only who runs this site can help."}
	}
	if things.Version > mostMoves {
		return &Quota{fmt.Sprintf("More than %d moves of parts are not kept.", mostMoves), "Only who runs this site can help."}
	}
	var bytes int64
	if err := tx.GetContext(ctx, &bytes, `SELECT bytes FROM riders WHERE id = ?`, rider); err != nil {
		return err
	}
	return s.heavy(bytes)
}

// mostMoves is far above what a rider does in a life, and folds within a tenth of a second.
const mostMoves = 50_000

// keepThings is enact, however much there is.
func (s *Store) keepThings(ctx context.Context, tx transaction, rider string, things *Things, put []garage.Thing, events []garage.Event, revision string) error {
	if len(put)+len(events) == 0 {
		return nil
	}
	size := 0
	for _, t := range put {
		if problems := t.Validate(); len(problems) > 0 {
			return problems[0]
		}
		document, err := format.EncodeThing(t)
		if err != nil {
			return err
		}
		if was, _ := things.Held(t.ID); things.stored[t.ID] {
			before, err := format.EncodeThing(was.Thing)
			if err != nil {
				return err
			}
			size -= len(before)
			_, err = tx.ExecContext(ctx, `UPDATE things SET document = ?, bike_id = ? WHERE id = ? AND rider_id = ?`, document, some(t.For), t.ID, rider)
			if err != nil {
				return err
			}
		} else if _, err := tx.ExecContext(ctx, `INSERT INTO things (id, rider_id, bike_id, document, made_at) VALUES (?, ?, ?, ?, ?)`, t.ID, rider, some(t.For), document, s.now()); err != nil {
			return err
		}
		size += len(document)
		things.Add(t)
		things.stored[t.ID] = true
	}
	if err := things.Do(events); err != nil {
		return err
	}
	for i, e := range events {
		document, err := format.EncodeEvent(e)
		if err != nil {
			return err
		}
		size += len(document)
		if _, err := tx.ExecContext(ctx, `
			INSERT INTO moves (id, act_id, rider_id, thing_id, number, bike_id, revision_id, document, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			e.ID, e.Act, rider, e.Thing, things.Version+1+i, some(e.Bike), some(revision), document, s.now()); err != nil {
			return err
		}
	}
	things.Version += max(1, len(events))
	_, err := tx.ExecContext(ctx, `UPDATE riders SET moves = ?, bytes = bytes + ? WHERE id = ?`, things.Version, size, rider)
	return err
}

// Counting is a plan that counts on a thing which is not on its bike yet.
type Counting struct {
	Thing string `db:"thing_id"`
	Plan  string `db:"plan_id"`
	Name  string `db:"name"`
}

// Counting lists the plans of a rider that count on some things, two dozen at most: who reads them wants to know
// that there are others.
func (s *Store) Counting(ctx context.Context, rider string, things []string) (list []Counting, err error) {
	if len(things) == 0 {
		return nil, nil
	}
	query, args, err := sqlx.In(`
		SELECT c.thing_id, c.plan_id, COALESCE(JSON_VALUE(r.document, '$.name'), '') AS name
		FROM counts_on c JOIN dossiers d ON d.id = c.plan_id JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
		WHERE d.rider_id = ? AND d.removed_at IS NULL AND c.thing_id IN (?) ORDER BY c.plan_id LIMIT 24`, rider, things)
	if err != nil {
		return nil, err
	}
	err = s.db.SelectContext(ctx, &list, query, args...)
	return list, err
}

// anew makes a version more of a rider's parts, where there are any: what is said of them is otherwise now.
func anew(ctx context.Context, tx transaction, rider string) error {
	_, err := tx.ExecContext(ctx, `UPDATE riders SET moves = moves + 1 WHERE id = ? AND moves > 0`, rider)
	return err
}

// countsOn writes down on which things a plan counts by the document that it has at its head. Where that is another
// than before, other plans that count on them say so: it is a version more of the rider's parts.
func countsOn(ctx context.Context, tx transaction, id string, document []byte) error {
	var was []string
	if err := tx.SelectContext(ctx, &was, `SELECT thing_id FROM counts_on WHERE plan_id = ?`, id); err != nil {
		return err
	}
	now := format.CountedOn(document)
	slices.Sort(now)
	if slices.Sort(was); slices.Equal(was, now) {
		return nil
	}
	var rider string
	if err := tx.GetContext(ctx, &rider, `SELECT rider_id FROM dossiers WHERE id = ?`, id); err != nil {
		return err
	}
	if err := anew(ctx, tx, rider); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM counts_on WHERE plan_id = ?`, id); err != nil {
		return err
	}
	for _, thing := range now {
		if _, err := tx.ExecContext(ctx, `INSERT INTO counts_on (plan_id, thing_id) VALUES (?, ?)`, id, thing); err != nil {
			return err
		}
	}
	return nil
}
