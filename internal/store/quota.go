package store

import (
	"context"
	"errors"
	"fmt"
)

// Quotas bound what one rider may keep.
type Quotas struct {
	Plans     int   // in the garage, with those that can still be brought back
	Bikes     int   // in the same way
	Revisions int   // of a plan or a bike
	Readings  int   // of a log; never more than plan.MaxReadings
	Tracks    int   // of routes
	Things    int   // parts of one's own, with those that are gone
	Bytes     int64 // of all of it
}

// UsualQuotas are far above what a rider needs.
var UsualQuotas = Quotas{Plans: 500, Bikes: 500, Revisions: 100_000, Readings: 5000, Tracks: 500, Things: 3000, Bytes: 1 << 30}

// ErrQuota says that a rider keeps as much as may be kept; see [Quota].
var ErrQuota = errors.New("no more can be kept")

// Quota is an ErrQuota: what there is too much of, and what helps.
type Quota struct{ What, Do string }

func (e *Quota) Error() string { return e.What + " " + e.Do }

// Is makes it an ErrQuota.
func (e *Quota) Is(target error) bool { return target == ErrQuota }

// Limit sets the quotas of a store.
func (s *Store) Limit(q Quotas) { s.quotas = q }

// room makes sure that a rider may keep one plan or bike more.
func (s *Store) room(ctx context.Context, tx transaction, rider string, kind Kind) error {
	if err := s.purge(ctx, tx, rider); err != nil {
		return err
	}
	var has int
	// The lock makes two that add at once queue, so that the bound holds.
	if err := tx.GetContext(ctx, &has, `SELECT (SELECT COUNT(*) FROM dossiers WHERE rider_id = riders.id AND kind = ?) FROM riders WHERE id = ? FOR UPDATE`, kind, rider); err != nil {
		return err
	}
	most := map[Kind]int{OfPlan: s.quotas.Plans, OfBike: s.quotas.Bikes}[kind]
	if has >= most && kind == OfBike {
		idle, err := s.dropIdle(ctx, tx, rider)
		if err != nil {
			return err
		}
		has -= idle
	}
	if has >= most {
		return &Quota{fmt.Sprintf("The garage holds %d %ss, and no more.", most, kind), "Export one and throw it away: it is gone for good, and its place free, after 30 days. Sooner only who runs this site can help."}
	}
	return nil
}

// dropIdle deletes the bikes that are none of the garage's: made in a plan that rides another by
// now, and never touched. A plan that an undo takes back to one has its copy, and makes it anew.
func (s *Store) dropIdle(ctx context.Context, tx transaction, rider string) (dropped int, err error) {
	var idle []string
	err = tx.SelectContext(ctx, &idle, `
		SELECT d.id FROM dossiers d JOIN heads h ON h.dossier_id = d.id
		WHERE d.rider_id = ? AND d.kind = 'bike' AND d.removed_at IS NULL AND d.via_id IS NOT NULL AND h.revisions = 1 AND h.readings = 0
			AND NOT EXISTS (SELECT 1 FROM heads ph JOIN revisions pr ON pr.id = ph.revision_id WHERE pr.bike_id = d.id)`, rider)
	if err != nil {
		return 0, err
	}
	for _, id := range idle {
		if err := s.gone(ctx, tx, rider, id); err != nil {
			return 0, err
		}
	}
	return len(idle), nil
}

// weigh counts bytes that a dossier's rider keeps more.
func (s *Store) weigh(ctx context.Context, tx transaction, dossier string, more int) error {
	if _, err := tx.ExecContext(ctx, `UPDATE riders r JOIN dossiers d ON d.rider_id = r.id SET r.bytes = r.bytes + ? WHERE d.id = ?`, more, dossier); err != nil {
		return err
	}
	var bytes int64
	if err := tx.GetContext(ctx, &bytes, `SELECT r.bytes FROM riders r JOIN dossiers d ON d.rider_id = r.id WHERE d.id = ?`, dossier); err != nil {
		return err
	}
	return s.heavy(bytes)
}

func (s *Store) heavy(bytes int64) error {
	if bytes > s.quotas.Bytes {
		return &Quota{fmt.Sprintf("This account keeps %d MB, and no more.", s.quotas.Bytes>>20), "Throw plans away that are no longer wanted: what they weigh is free after 30 days. Sooner only who runs this site can help."}
	}
	return nil
}
