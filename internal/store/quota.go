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
	Bytes     int64 // of all of it
}

// UsualQuotas are far above what a rider needs.
var UsualQuotas = Quotas{Plans: 500, Bikes: 500, Revisions: 100_000, Readings: 5000, Tracks: 500, Bytes: 1 << 30}

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
	if has >= most {
		return &Quota{fmt.Sprintf("The garage holds %d %ss, and no more.", most, kind.word()), "Export one and throw it away: it is gone for good, and its place free, after 30 days. Sooner only who runs this site can help."}
	}
	return nil
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
