package store

import (
	"context"
	"errors"
	"fmt"
)

// Quotas bound what one rider may keep.
type Quotas struct {
	Plans     int   // in the garage, with those that can still be brought back
	Revisions int   // of a plan
	Readings  int   // of a log; never more than plan.MaxReadings
	Tracks    int   // of routes
	Bytes     int64 // of all of it
}

// UsualQuotas are far above what a rider needs.
var UsualQuotas = Quotas{Plans: 500, Revisions: 100_000, Readings: 5000, Tracks: 500, Bytes: 1 << 30}

// ErrQuota says that a rider keeps as much as may be kept; see [Quota].
var ErrQuota = errors.New("no more can be kept")

// Quota is an ErrQuota: what there is too much of, and what helps.
type Quota struct{ What, Do string }

func (e *Quota) Error() string { return e.What + " " + e.Do }

// Is makes it an ErrQuota.
func (e *Quota) Is(target error) bool { return target == ErrQuota }

// Limit sets the quotas of a store.
func (s *Store) Limit(q Quotas) { s.quotas = q }

// room makes sure that a rider may keep one plan more.
func (s *Store) room(ctx context.Context, tx transaction, rider string) error {
	if err := s.purge(ctx, tx, rider); err != nil {
		return err
	}
	var plans int
	// The lock makes two that add at once queue, so that the bound holds.
	if err := tx.GetContext(ctx, &plans, `SELECT (SELECT COUNT(*) FROM plans WHERE rider_id = riders.id) FROM riders WHERE id = ? FOR UPDATE`, rider); err != nil {
		return err
	}
	if plans >= s.quotas.Plans {
		return &Quota{fmt.Sprintf("The garage holds %d plans, and no more.", s.quotas.Plans), "Export one and throw it away: it is gone for good, and its place free, after 30 days. Sooner only who runs this site can help."}
	}
	return nil
}

// weigh counts bytes that a plan's rider keeps more.
func (s *Store) weigh(ctx context.Context, tx transaction, planID string, more int) error {
	if _, err := tx.ExecContext(ctx, `UPDATE riders r JOIN plans p ON p.rider_id = r.id SET r.bytes = r.bytes + ? WHERE p.id = ?`, more, planID); err != nil {
		return err
	}
	var bytes int64
	if err := tx.GetContext(ctx, &bytes, `SELECT r.bytes FROM riders r JOIN plans p ON p.rider_id = r.id WHERE p.id = ?`, planID); err != nil {
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
