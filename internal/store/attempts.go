package store

import (
	"context"
	"crypto/sha256"
	"errors"
	"time"

	"github.com/jmoiron/sqlx"
)

// Limit is how often something may be tried.
type Limit struct {
	Name  string // what is limited, so that limits do not share a count
	Tries int
	In    time.Duration
}

// ErrTooMany says that a limit is reached.
var ErrTooMany = errors.New("too many tries")

// Try counts one try of who under a limit, over all servers of the database;
// ErrTooMany once there are more than allowed.
func (s *Store) Try(ctx context.Context, l Limit, who string) error {
	bucket, now := l.bucket(who), s.now()
	var tries int
	err := s.change(ctx, func(tx *sqlx.Tx) error {
		// Assignments run from left to right: tries looks at the old expiry.
		_, err := tx.ExecContext(ctx, `
			INSERT INTO attempts (bucket, tries, expires) VALUES (?, 1, ?)
			ON DUPLICATE KEY UPDATE tries = IF(expires <= ?, 1, tries + 1), expires = IF(expires <= ?, VALUES(expires), expires)`,
			bucket, now.Add(l.In), now, now)
		if err != nil {
			return err
		}
		if err := tx.GetContext(ctx, &tries, `SELECT tries FROM attempts WHERE bucket = ?`, bucket); err != nil {
			return err
		}
		if tries > 1 {
			return nil
		}
		// A new count: a moment to clear out old ones.
		_, err = tx.ExecContext(ctx, `DELETE FROM attempts WHERE expires <= ? LIMIT 100`, now)
		return err
	})
	if err == nil && tries > l.Tries {
		return ErrTooMany
	}
	return err
}

// Forget starts counting anew: a try that succeeded was no guess.
func (s *Store) Forget(ctx context.Context, l Limit, who string) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM attempts WHERE bucket = ?`, l.bucket(who))
	return err
}

func (l Limit) bucket(who string) []byte {
	sum := sha256.Sum256([]byte(l.Name + "\x00" + who))
	return sum[:]
}

// EndSessions signs a rider out everywhere; it returns the new epoch.
func (s *Store) EndSessions(ctx context.Context, riderID string) (int, error) {
	if _, err := s.db.ExecContext(ctx, `UPDATE riders SET epoch = epoch + 1 WHERE id = ?`, riderID); err != nil {
		return 0, err
	}
	rider, err := s.RiderByID(ctx, riderID)
	if err != nil {
		return 0, err
	}
	return rider.Epoch, nil
}
