package store

import (
	"cmp"
	"context"
	"errors"
	"time"
)

// Limit is how often something may be tried in a row. Each try beyond that has to wait,
// twice as long as the one before it: guessing becomes slow, and nobody is shut out for
// good.
type Limit struct {
	Name  string // what is limited, so that limits do not share a count
	Tries int
	In    time.Duration // without a try after which counting starts anew, and the longest wait
}

// ErrTooMany says that a limit is reached; a [TooMany] says for how long.
var ErrTooMany = errors.New("too many tries")

// TooMany is an ErrTooMany.
type TooMany struct{ Wait time.Duration }

func (e *TooMany) Error() string { return ErrTooMany.Error() }

// Is makes it an ErrTooMany.
func (e *TooMany) Is(target error) bool { return target == ErrTooMany }

// Try counts one try of who under a limit, over all servers of the database; a TooMany
// when it comes before its time, and then it does not count.
func (s *Store) Try(ctx context.Context, l Limit, who string) error {
	bucket, now := l.bucket(who), s.now()
	var refused error
	err := s.change(ctx, func(tx transaction) error {
		refused = nil
		// The row is there before it is looked at, so that it can be locked.
		if _, err := tx.ExecContext(ctx, `INSERT INTO attempts (bucket, tries, expires, ready) VALUES (?, 0, ?, ?) ON DUPLICATE KEY UPDATE tries = tries`, bucket, now, now); err != nil {
			return err
		}
		var was struct {
			Tries   int       `db:"tries"`
			Expires time.Time `db:"expires"`
			Ready   time.Time `db:"ready"`
		}
		if err := tx.GetContext(ctx, &was, `SELECT tries, expires, ready FROM attempts WHERE bucket = ? FOR UPDATE`, bucket); err != nil {
			return err
		}
		if !was.Expires.After(now) {
			was.Tries, was.Ready = 0, now
		}
		// No wait is longer than the rule makes it: what says so was written by a clock that
		// was ahead. It is counted from now on instead.
		if most := now.Add(l.pause(was.Tries)); was.Ready.After(most) {
			was.Ready = most
			if _, err := tx.ExecContext(ctx, `UPDATE attempts SET ready = ? WHERE bucket = ?`, was.Ready, bucket); err != nil {
				return err
			}
		}
		if wait := was.Ready.Sub(now); wait > 0 {
			refused = &TooMany{Wait: wait}
			return nil
		}
		_, err := tx.ExecContext(ctx, `UPDATE attempts SET tries = ?, expires = ?, ready = ? WHERE bucket = ?`, was.Tries+1, now.Add(l.In), now.Add(l.pause(was.Tries+1)), bucket)
		if err != nil || was.Tries > 0 {
			return err
		}
		// A new count: a moment to clear out old ones.
		_, err = tx.ExecContext(ctx, `DELETE FROM attempts WHERE expires <= ? AND bucket <> ? LIMIT 100`, now, bucket)
		return err
	})
	return cmp.Or(err, refused)
}

// pause after so many tries. None lies in the past, for whoever tries at the same moment.
func (l Limit) pause(tries int) time.Duration {
	over := tries - l.Tries
	if over < 0 {
		return -time.Hour
	}
	return min(time.Second<<min(over, 20), l.In)
}

// Forget starts counting anew: a try that succeeded was no guess.
func (s *Store) Forget(ctx context.Context, l Limit, who string) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM attempts WHERE bucket = ?`, l.bucket(who))
	return err
}

func (l Limit) bucket(who string) []byte {
	return hashed(l.Name + "\x00" + who)
}
