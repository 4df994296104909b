package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
)

// Snapshot is a plan, or a bike by itself, at one revision.
type Snapshot struct {
	ID       string
	Kind     Kind
	Revision string
	MadeAt   time.Time
	Plan     *plan.Plan // of a bike by itself: one of nothing else
	Undo     string     // what an undo would take back, "" when there is nothing
	Redo     string     // what a redo would bring again, "" when there is nothing
	// Aside is what of the stored document and its log could not be read.
	Aside []string
	// Version tells whether anything of it has changed: the revision, the one that redo
	// leads to, the bike, what was read off it.
	Version string
	Moves   int // what ever happened to the rider's parts

	from  string // revision of the bike that its copy was taken over from, "" for the copy itself
	taken int    // readings
	bike  bikeNow
}

// bikeNow is how the bike of a plan stands, whatever the plan has taken over of it.
type bikeNow struct {
	Head     string
	Readings int
}

// Behind reports whether the bike has been written to since the plan has taken it over. What
// has changed may still be nothing that the plan does not have: see [Store.News].
func (s *Snapshot) Behind() bool {
	return s.Kind == OfPlan && s.bike.Head != "" && (s.from != s.bike.Head || s.taken != s.bike.Readings)
}

// log is that of its readings: the bike's, or its own while it has none.
func (s *Snapshot) log() string {
	if s.Kind == OfPlan && s.Plan.Garage != "" {
		return s.Plan.Garage
	}
	return s.ID
}

// headRow is a dossier at its head. What an undo or redo came to stands for what it is equal to.
type headRow struct {
	ID       string         `db:"dossier_id"`
	Kind     Kind           `db:"kind"`
	Revision string         `db:"revision"`
	Parent   sql.NullString `db:"parent_id"`
	Next     sql.NullString `db:"next_id"`
	Redo     sql.NullString `db:"next_summary"`
	Summary  string         `db:"summary"`
	MadeAt   time.Time      `db:"made_at"`
	Document []byte         `db:"document"`
	Own      int            `db:"own_readings"`
	BikeHead sql.NullString `db:"bike_head"`
	BikeRead sql.NullInt64  `db:"bike_readings"`
	Moves    int            `db:"moves"`
	place
}

const fromHeads = `
	FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id JOIN revisions s ON s.id = COALESCE(r.as_id, r.id)
	JOIN riders w ON w.id = d.rider_id LEFT JOIN dossiers b ON b.id = r.bike_id AND b.removed_at IS NULL LEFT JOIN heads bh ON bh.dossier_id = b.id`

const selectHeads = `
	SELECT d.id AS dossier_id, d.kind, w.moves, r.id AS revision, s.parent_id, s.next_id, n.summary AS next_summary, s.summary, r.made_at, r.document, h.readings AS own_readings,
		r.bike_id, r.bike_revision_id, r.taken, bh.revision_id AS bike_head, bh.readings AS bike_readings` + fromHeads + `
	LEFT JOIN revisions n ON n.id = s.next_id
	WHERE d.rider_id = ? AND d.removed_at IS NULL`

// Plans lists a rider's plans, the newest first.
func (s *Store) Plans(ctx context.Context, rider string) ([]*Snapshot, error) {
	ids, err := s.PlanIDs(ctx, rider)
	if err != nil {
		return nil, err
	}
	return s.PlansOf(ctx, rider, ids)
}

// PlanIDs are those of a rider's plans, in the order of Plans.
func (s *Store) PlanIDs(ctx context.Context, rider string) ([]string, error) {
	return planIDs(ctx, s.db, rider, ``)
}

// PlansAtHand are the ids of a rider's plans whose bikes are not put aside, in the order of Plans.
func (s *Store) PlansAtHand(ctx context.Context, rider string) ([]string, error) {
	return planIDs(ctx, s.db, rider, ` AND NOT EXISTS (SELECT 1 FROM dossiers b WHERE b.id = r.bike_id AND b.archived_at IS NOT NULL)`)
}

// TripsOf are the ids of the plans that ride a bike, in the order of Plans.
func (s *Store) TripsOf(ctx context.Context, rider, bike string) ([]string, error) {
	return planIDs(ctx, s.db, rider, onBike, bike)
}

const onBike = ` AND r.bike_id = ?`

// planIDs are those of a rider's plans of which something is so, the newest first.
func planIDs(ctx context.Context, from getter, rider, so string, args ...any) (ids []string, err error) {
	err = from.SelectContext(ctx, &ids, `
		SELECT h.dossier_id FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
		WHERE d.rider_id = ? AND d.kind = 'plan' AND d.removed_at IS NULL`+so+` ORDER BY r.made_at DESC, h.dossier_id`, append([]any{rider}, args...)...)
	return ids, err
}

// PlansOf are some of a rider's plans or bikes, the newest first.
func (s *Store) PlansOf(ctx context.Context, rider string, ids []string) ([]*Snapshot, error) {
	if len(ids) == 0 {
		return nil, nil
	}
	query, args, err := sqlx.In(selectHeads+` AND d.id IN (?) ORDER BY r.made_at DESC, d.id`, rider, ids)
	if err != nil {
		return nil, err
	}
	var rows []headRow
	if err := s.db.SelectContext(ctx, &rows, query, args...); err != nil {
		return nil, err
	}
	return s.snapshots(ctx, rows)
}

// Plan loads a rider's plan, or bike by itself, at its head; ErrNotFound for another's or none.
func (s *Store) Plan(ctx context.Context, rider, id string) (*Snapshot, error) {
	var row headRow
	err := s.db.GetContext(ctx, &row, selectHeads+` AND d.id = ?`, rider, id)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	list, err := s.snapshots(ctx, []headRow{row})
	if err != nil {
		return nil, err
	}
	return list[0], nil
}

func (s *Store) snapshots(ctx context.Context, rows []headRow) ([]*Snapshot, error) {
	list := make([]*Snapshot, len(rows))
	for i, row := range rows {
		p, aside, err := row.Kind.decode(row.Document)
		if err != nil {
			return nil, err
		}
		p.Garage = row.Bike.String
		one := &Snapshot{
			ID: row.ID, Kind: row.Kind, Revision: row.Revision, MadeAt: row.MadeAt, Plan: p, Aside: aside, Redo: row.Redo.String,
			Moves: row.Moves, from: row.From.String, taken: row.Taken, bike: bikeNow{row.BikeHead.String, int(row.BikeRead.Int64)},
		}
		if row.Kind == OfBike {
			p.Garage = row.ID
		}
		if one.log() == row.ID { // its own log, all of it
			one.taken, one.bike.Readings = row.Own, row.Own
		}
		if row.Parent.Valid {
			one.Undo = row.Summary
		}
		one.Version = versionOf(row.Revision, row.Next, one.bike, row.Moves)
		list[i] = one
	}
	return list, s.withReadings(ctx, list...)
}

// Version of a rider's plan or bike, that of its snapshot, without reading it; ErrNotFound for
// another's or none.
func (s *Store) Version(ctx context.Context, rider string, kind Kind, id string) (string, error) {
	var row headRow
	err := s.db.GetContext(ctx, &row, `
		SELECT w.moves, r.id AS revision, s.next_id, r.bike_id, h.readings AS own_readings, bh.revision_id AS bike_head, bh.readings AS bike_readings`+fromHeads+`
		WHERE d.rider_id = ? AND d.kind = ? AND d.removed_at IS NULL AND d.id = ?`, rider, kind, id)
	if errors.Is(err, sql.ErrNoRows) {
		return "", ErrNotFound
	}
	now := bikeNow{row.BikeHead.String, int(row.BikeRead.Int64)}
	if !row.Bike.Valid {
		now.Readings = row.Own
	}
	return versionOf(row.Revision, row.Next, now, row.Moves), err
}

// versionOf a plan is that of its head, of its bike's, how much was read off that, and what happened to the
// rider's parts: nothing of those two is ever changed.
func versionOf(revision string, next sql.NullString, bike bikeNow, moves int) string {
	return fmt.Sprintf("%s %s %s %d %d", revision, next.String, bike.Head, bike.Readings, moves)
}

// GarageVersion is another after every change of a rider's plans and bikes but of what was read.
func (s *Store) GarageVersion(ctx context.Context, rider string) (version string, err error) {
	err = s.db.GetContext(ctx, &version, `
		SELECT CONCAT(COUNT(*), ' ', COALESCE(BIT_XOR(CRC32(CONCAT(h.dossier_id, h.revision_id))), 0), ' ', COALESCE(SUM(CRC32(h.revision_id)), 0), ' ', COUNT(d.archived_at))
		FROM dossiers d JOIN heads h ON h.dossier_id = d.id WHERE d.rider_id = ? AND d.removed_at IS NULL`, rider)
	return version, err
}

// CreatePlan stores a new plan with its readings; it returns the plan's id. Its bike is the one
// of the garage that it names, or becomes a new one there.
func (s *Store) CreatePlan(ctx context.Context, rider string, p *plan.Plan, summary string) (string, error) {
	return s.create(ctx, rider, p, summary, "", packed{})
}

// ImportPlan stores a plan out of a file, as CreatePlan does, with the things that its lines are. Those that the
// rider has already are taken for the same where their ids are left.
func (s *Store) ImportPlan(ctx context.Context, rider string, p *plan.Plan, things []garage.Packed, summary string) (string, error) {
	act := rand.Text()
	put, events, ids := garage.Unpack(things, act)
	changed := *p
	changed.Lines = slices.Clone(p.Lines)
	for i := range changed.Lines {
		if id, ok := ids[changed.Lines[i].Thing]; ok {
			changed.Lines[i].Thing = id
		}
	}
	return s.create(ctx, rider, &changed, summary, "", packed{put, events, act})
}

// packed are things out of a file.
type packed struct {
	put    []garage.Thing
	events []garage.Event
	act    string
}

// unpack puts things out of a file into the garage, on the bike that they came with; they lie at home where their
// places are taken.
func (s *Store) unpack(ctx context.Context, tx transaction, rider, bike, name string, p packed) error {
	if len(p.put) == 0 {
		return nil
	}
	things, err := lockThings(ctx, tx, rider)
	if err != nil {
		return err
	}
	if _, ok := things.Bikes[bike]; !ok && bike != "" {
		things.Bikes[bike] = garage.Bike{Name: name}
	}
	put, events := slices.Clone(p.put), slices.Clone(p.events)
	for i := range put {
		put[i].For = bike
		things.Add(put[i])
	}
	for i := range events {
		if events[i].Bike == garage.ThisBike {
			events[i].Bike = bike
		}
	}
	if errors.Is(things.Can(events), garage.ErrRefused) {
		events = garage.AtHome(put, p.act, s.day())
	}
	return s.enact(ctx, tx, rider, things, put, events, "")
}

// create stores a new plan. Of is another plan whose family it joins, and whose place towards its
// bike it has where it names the same, "" for none.
func (s *Store) create(ctx context.Context, rider string, p *plan.Plan, summary, of string, things packed) (string, error) {
	document, err := OfPlan.encode(p)
	if err != nil {
		return "", err
	}
	planID := rand.Text()
	err = s.change(ctx, func(tx transaction) error {
		r := revisionRow{ID: rand.Text(), Dossier: planID, Kind: OfPlan, Summary: summary, Document: document}
		var family sql.NullString
		var there place
		var err error
		if of != "" {
			if family, there, err = s.joins(ctx, tx, rider, of); err != nil {
				return err
			}
		}
		if p.Garage != "" && p.Garage == there.Bike.String {
			r.place = there
		} else if r.place, err = s.ride(ctx, tx, rider, planID, p); err != nil {
			return err
		}
		readings := p.Readings
		if of != "" { // they are there
			readings = nil
		}
		if of == "" {
			if err := s.unpack(ctx, tx, rider, r.Bike.String, p.BikeName(), things); err != nil {
				return err
			}
			if err := s.arrive(ctx, tx, rider, &r, p); err != nil {
				return err
			}
		}
		if r.Bike.Valid && len(readings) > 0 {
			added, err := s.insertReadings(ctx, tx, r.Bike.String, planID, readings)
			if err != nil {
				return err
			}
			r.Taken, readings = r.Taken+added, nil
		}
		if err := s.insertDossier(ctx, tx, rider, OfPlan, family, sql.NullString{}, r); err != nil {
			return err
		}
		if _, err := s.insertReadings(ctx, tx, planID, planID, readings); err != nil {
			return err
		}
		return nil
	})
	return planID, s.settle(ctx, err, made(ctx, rider, planID))
}

// made looks whether a dossier is there; the lock on its rider waits for who makes it.
func made(ctx context.Context, rider, id string) func(tx transaction) (bool, error) {
	return func(tx transaction) (bool, error) {
		var there int
		err := tx.GetContext(ctx, &there, `SELECT (SELECT COUNT(*) FROM dossiers WHERE id = ?) FROM riders WHERE id = ? FOR UPDATE`, id, rider)
		return there > 0, err
	}
}
