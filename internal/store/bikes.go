package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"strings"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
)

// Moved is an ErrMoved: what a plan would write to its bike, beside what that says by now.
type Moved struct {
	Head    string       // the bike's revision, for [Change.Seen]
	Machine plan.Machine // as it is there
	News    []plan.News  // where both have changed
}

func (e *Moved) Error() string {
	labels := make([]string, len(e.News))
	for i, n := range e.News {
		labels[i] = n.Label
	}
	return "The bike says something else there by now: " + strings.Join(labels, ", ") + "."
}

// Is makes it an ErrMoved.
func (e *Moved) Is(target error) bool { return target == ErrMoved }

// over is a [Change.Seen] that goes over whatever the bike says.
const over = "*"

// towardsBike works out what of a change is the bike's, and locks that where it is to be
// written to. Write does so, once the plan's head is locked too, and says where the plan's new
// revision stands.
func (s *Store) towardsBike(ctx context.Context, tx transaction, rider string, was revisionRow, c Change) (write func() (place, error), err error) {
	stays := func(p place) func() (place, error) { return func() (place, error) { return p, nil } }
	after := c.Plan.Machine
	switch {
	case was.Kind == OfBike || after.Bike == nil:
		return stays(place{}), nil
	case after.Garage == "" || after.Garage != was.Bike.String:
		return func() (place, error) { return s.ride(ctx, tx, rider, was.Dossier, c.Plan) }, nil
	}
	before, err := was.machine()
	if err != nil || before.Same(after) {
		return stays(was.stays()), err
	}
	bike, err := lockBike(ctx, tx, rider, was.Bike.String)
	if errors.Is(err, ErrNotFound) { // thrown away: the plan's copy is all there is
		return stays(was.stays()), nil
	}
	if err != nil {
		return nil, err
	}
	return s.carry(ctx, tx, was.place, before, after, bike, c)
}

// stays is the place of a revision that has nothing to do with the bike.
func (p place) stays() place { return place{Bike: p.Bike, From: p.From, Taken: p.Taken} }

// carry works out what the bike becomes by a change of a plan's copy from before to after.
func (s *Store) carry(ctx context.Context, tx transaction, was place, before, after plan.Machine, bike lockedBike, c Change) (write func() (place, error), err error) {
	merged := after
	if !before.Same(bike.machine) {
		var news []plan.News
		// What is typed is mine, and goes over what the rider has seen there.
		merged, news, err = plan.Merged(before, after, bike.machine, func(plan.News) bool { return true })
		if err != nil {
			return nil, err
		}
		moved := &Moved{Head: bike.ID, Machine: bike.machine}
		for _, n := range news {
			if n.Clash {
				moved.News = append(moved.News, n)
			}
		}
		if len(moved.News) > 0 && c.Seen != bike.ID && c.Seen != over {
			return nil, moved
		}
	}
	return func() (place, error) {
		next := was.stays()
		wrote := bike.ID
		if !merged.Same(bike.machine) {
			if wrote, err = s.writeBike(ctx, tx, bike, merged, c.Summary); err != nil {
				return next, err
			}
			next.Wrote = some(wrote)
		}
		if merged.Same(after) { // then the copy is the bike
			next.From = some(wrote)
		}
		return next, nil
	}, nil
}

// lockedBike is a bike whose head is locked.
type lockedBike struct {
	revisionRow
	Readings int
	machine  plan.Machine
	currency string
}

// lockBike locks the head of a rider's bike and reads it.
func lockBike(ctx context.Context, tx transaction, rider, id string) (b lockedBike, err error) {
	head, err := headForUpdate(ctx, tx, rider, id)
	if err != nil {
		return b, err
	}
	if b.revisionRow, err = revisionAt(ctx, tx, rider, id, head); err != nil {
		return b, err
	}
	if b.Kind != OfBike {
		return b, ErrNotFound
	}
	if err := tx.GetContext(ctx, &b.Readings, `SELECT readings FROM heads WHERE dossier_id = ?`, id); err != nil {
		return b, err
	}
	p, _, err := OfBike.decode(b.Document)
	if err == nil {
		b.machine, b.currency = p.Machine, p.Currency
	}
	return b, err
}

// writeBike puts a revision on a bike whose head is locked.
func (s *Store) writeBike(ctx context.Context, tx transaction, bike lockedBike, m plan.Machine, summary string) (id string, err error) {
	document, err := OfBike.encode(m.Alone(bike.currency))
	if err != nil {
		return "", err
	}
	id = rand.Text()
	return id, s.append(ctx, tx, revisionRow{ID: id, Dossier: bike.Dossier, Kind: OfBike, Parent: some(bike.ID), Summary: summary, Document: document})
}

// ride puts a plan on the bike of the garage that it names, or makes it one there; it says where
// the plan stands then. What was read before there was a bike is the bike's.
func (s *Store) ride(ctx context.Context, tx transaction, rider, planID string, p *plan.Plan) (at place, err error) {
	if p.Bike == nil {
		return at, nil
	}
	if p.Garage == "" {
		at.Bike, at.From = some(rand.Text()), some(rand.Text())
		if err := s.insertBike(ctx, tx, rider, at.Bike.String, at.From.String, some(planID), p, "New in the garage: "+p.Bike.Name); err != nil {
			return at, err
		}
		moved, err := tx.ExecContext(ctx, `UPDATE readings SET log_id = ? WHERE log_id = ?`, at.Bike, planID)
		if err != nil {
			return at, err
		}
		n, err := moved.RowsAffected()
		if err != nil || n == 0 {
			return at, err
		}
		at.Taken = int(n)
		_, err = tx.ExecContext(ctx, `UPDATE heads SET readings = CASE dossier_id WHEN ? THEN ? ELSE 0 END WHERE dossier_id IN (?, ?)`, at.Bike, n, at.Bike, planID)
		return at, err
	}
	var is struct {
		Head     string `db:"revision_id"`
		Readings int    `db:"readings"`
		Document []byte `db:"document"`
	}
	err = tx.GetContext(ctx, &is, `
		SELECT h.revision_id, h.readings, r.document FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
		WHERE d.id = ? AND d.rider_id = ? AND d.kind = 'bike' AND d.removed_at IS NULL`, p.Garage, rider)
	if errors.Is(err, sql.ErrNoRows) {
		return at, ErrNotFound
	}
	if err != nil {
		return at, err
	}
	at.Bike, at.Taken = some(p.Garage), is.Readings
	now, _, err := OfBike.decode(is.Document)
	if err == nil && now.Machine.Same(p.Machine) {
		at.From = some(is.Head)
	}
	return at, err
}

func (s *Store) insertBike(ctx context.Context, tx transaction, rider, id, revision string, via sql.NullString, p *plan.Plan, summary string) error {
	document, err := OfBike.encode(p)
	if err != nil {
		return err
	}
	return s.insertDossier(ctx, tx, rider, OfBike, sql.NullString{}, via, revisionRow{ID: revision, Dossier: id, Kind: OfBike, Summary: summary, Document: document})
}

// CreateBike puts a bike into the garage that no plan rides yet, with what was read off it; it
// returns the bike's id. Things out of its file are on it.
func (s *Store) CreateBike(ctx context.Context, rider string, m plan.Machine, currency, summary string, things ...garage.Packed) (string, error) {
	id := rand.Text()
	return id, s.CreateBikeAs(ctx, rider, id, m, currency, summary, things...)
}

// CreateBikeAs makes a bike under an id that a device gave it: made twice, it is one.
func (s *Store) CreateBikeAs(ctx context.Context, rider, id string, m plan.Machine, currency, summary string, things ...garage.Packed) error {
	act := rand.Text()
	put, events, _ := garage.Unpack(things, act)
	err := s.change(ctx, func(tx transaction) error {
		if err := s.insertBike(ctx, tx, rider, id, rand.Text(), sql.NullString{}, m.Alone(currency), summary); err != nil {
			return err
		}
		if _, err := s.insertReadings(ctx, tx, id, "", m.Readings); err != nil {
			return err
		}
		return s.unpack(ctx, tx, rider, id, m.BikeName(), packed{put, events, act})
	})
	if duplicate(err) {
		_, err := s.Version(ctx, rider, OfBike, id) // of another rider, it is not there
		return err
	}
	return s.settle(ctx, err, made(ctx, rider, id))
}

// News is what a plan has not taken over of its bike yet.
type News struct {
	Machine  plan.Machine // as the bike is now
	Differ   []plan.News
	Readings []logbook.Reading
}

// Any reports whether there is anything.
func (n *News) Any() bool { return n != nil && len(n.Differ)+len(n.Readings) > 0 }

// News of a plan's bike; nil where there is none, or it was thrown away.
func (s *Store) News(ctx context.Context, rider string, of *Snapshot) (*News, error) {
	if !of.Behind() {
		return nil, nil
	}
	n := &News{Machine: of.Plan.Machine}
	logs, err := s.readings(ctx, map[string]int{of.Plan.Garage: of.bike.Readings})
	if err != nil {
		return nil, err
	}
	log := logs[of.Plan.Garage]
	n.Readings = log.besides(of.ID, of.taken)
	if of.from == of.bike.Head {
		return n, nil
	}
	now, err := revisionAt(ctx, s.db, rider, of.Plan.Garage, of.bike.Head)
	if err != nil {
		return nil, err
	}
	if n.Machine, err = now.machine(); err != nil {
		return nil, err
	}
	was, err := takenFrom(ctx, s.db, rider, of.Plan.Garage, of.from, of.Plan.Machine)
	if err != nil {
		return nil, err
	}
	_, n.Differ, err = plan.Merged(was, of.Plan.Machine, n.Machine, nil)
	return n, err
}

// takenFrom is the machine that a plan's copy was taken over from: a revision of the bike, or
// the copy itself.
func takenFrom(ctx context.Context, from getter, rider, bike, revision string, copied plan.Machine) (plan.Machine, error) {
	if revision == "" {
		return copied, nil
	}
	row, err := revisionAt(ctx, from, rider, bike, revision)
	if errors.Is(err, ErrNotFound) {
		return copied, nil
	}
	if err != nil {
		return copied, err
	}
	return row.machine()
}

// TakeOver brings a plan's copy of its bike up to date, as a change of the plan on top of base:
// what has changed on the bike since, and what was read off it. Where the plan's copy has
// changed too the bike's is taken, unless keep says that the plan's stays; then the bike has it
// as well. Done again, or with the same id, it does nothing.
func (s *Store) TakeOver(ctx context.Context, rider, id, base, save string, keep func(plan.News) bool) error {
	err := s.change(ctx, func(tx transaction) error {
		was, err := revisionAt(ctx, tx, rider, id, base)
		if errors.Is(err, ErrNotFound) {
			return stale(ctx, tx, rider, id)
		}
		if err != nil {
			return err
		}
		bike, err := lockBike(ctx, tx, rider, was.Bike.String)
		if err != nil {
			return err
		}
		stale := lockHead(ctx, tx, rider, id, base)
		if errors.Is(stale, ErrStale) {
			if done, err := has(ctx, tx, id, save); done || err != nil {
				return err
			}
		}
		if stale != nil {
			return stale
		}
		p, _, err := OfPlan.decode(was.Document)
		if err != nil {
			return err
		}
		from, err := takenFrom(ctx, tx, rider, was.Bike.String, was.From.String, p.Machine)
		if err != nil {
			return err
		}
		merged, news, err := plan.Merged(from, p.Machine, bike.machine, keep)
		if err != nil {
			return err
		}
		things, err := lockThings(ctx, tx, rider)
		if err != nil {
			return err
		}
		p.Garage = was.Bike.String
		moved := garage.Differs(things.All(), p)
		if merged.Same(p.Machine) && merged.Same(bike.machine) && was.Taken == bike.Readings && len(moved) == 0 {
			return nil
		}
		p = garage.Taken(p, moved)
		next := revisionRow{ID: save, Dossier: id, Kind: OfPlan, Parent: some(base), Summary: takenWords(news, bike.Readings-was.Taken, moved)}
		next.place = place{Bike: was.Bike, From: some(bike.ID), Taken: bike.Readings}
		if !merged.Same(bike.machine) {
			wrote, err := s.writeBike(ctx, tx, bike, merged, next.Summary)
			if err != nil {
				return err
			}
			next.From, next.Wrote = some(wrote), some(wrote)
		}
		p.Machine = merged
		if next.Document, err = OfPlan.encode(p); err != nil {
			return err
		}
		return s.append(ctx, tx, next)
	})
	if duplicate(err) { // of another plan: no page of this one made it
		return ErrStale
	}
	return err
}

// takenWords say what was taken over.
func takenWords(news []plan.News, readings int, moved []garage.News) string {
	var list []string
	for _, n := range plan.NewsTold(news) {
		list = append(list, n.Label)
	}
	if readings > 0 {
		list = append(list, fmt.Sprintf("%d read", readings))
	}
	for _, m := range moved {
		list = append(list, m.Name())
	}
	return "Bike brought up to date: " + strings.Join(list, ", ")
}

// GarageBike is a bike as the garage lists it.
type GarageBike struct {
	ID       string    `db:"id"`
	Name     string    `db:"name"`
	Held     plan.Held `db:"held"`
	Archived bool      `db:"archived"`
	Trips    int       `db:"trips"`
}

// GarageBikes lists a rider's bikes, the newest change first. One that was made in a plan that
// rides another by now, and that nobody has touched, is not of the garage.
func (s *Store) GarageBikes(ctx context.Context, rider string) (list []GarageBike, err error) {
	err = s.db.SelectContext(ctx, &list, `
		SELECT d.id, COALESCE(JSON_VALUE(r.document, '$.bike.name'), '') AS name, COALESCE(JSON_VALUE(r.document, '$.held'), '') AS held,
			d.archived_at IS NOT NULL AS archived, COALESCE(t.trips, 0) AS trips
		FROM dossiers d JOIN heads h ON h.dossier_id = d.id JOIN revisions r ON r.id = h.revision_id
		LEFT JOIN (
			SELECT pr.bike_id, COUNT(*) AS trips FROM dossiers p JOIN heads ph ON ph.dossier_id = p.id JOIN revisions pr ON pr.id = ph.revision_id
			WHERE p.rider_id = ? AND p.kind = 'plan' AND p.removed_at IS NULL GROUP BY pr.bike_id
		) AS t ON t.bike_id = d.id
		WHERE d.rider_id = ? AND d.kind = 'bike' AND d.removed_at IS NULL AND (d.via_id IS NULL OR h.revisions > 1 OR h.readings > 0 OR t.trips > 0)
		ORDER BY r.made_at DESC, d.id`, rider, rider)
	return list, err
}

// Archive puts a bike aside, or back into the garage; its trips stay as they are.
func (s *Store) Archive(ctx context.Context, rider, bike string, aside bool) error {
	return s.change(ctx, func(tx transaction) error {
		at := sql.NullTime{Time: s.now(), Valid: aside}
		return one(tx.ExecContext(ctx, `UPDATE dossiers SET archived_at = ? WHERE id = ? AND rider_id = ? AND kind = 'bike' AND removed_at IS NULL`, at, bike, rider))
	})
}
