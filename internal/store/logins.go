package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"time"

	"github.com/jmoiron/sqlx"
)

// Login is a rider signed in on one device.
type Login struct {
	ID      string    `db:"id"`
	BeganAt time.Time `db:"began_at"`
	SeenAt  time.Time `db:"seen_at"` // to [seenEvery]
	Address string    `db:"address"`
	Agent   string    `db:"agent"` // what the browser says that it is
}

// Origin is where a request comes from, as far as a rider is told of it.
type Origin struct{ Address, Agent string }

const (
	mostAddress = 60  // characters, an IPv6 address with its zone
	mostAgent   = 200 // characters that are kept
)

// clipped makes an origin fit its columns.
func (o Origin) clipped() Origin {
	return Origin{clip(o.Address, mostAddress), clip(o.Agent, mostAgent)}
}

// seenEvery is how exactly it is known when a device was last seen: a page need not write.
const seenEvery = 5 * time.Minute

// UsualIdle is after how long without a page a login ends, where nobody says otherwise.
const UsualIdle = 7 * 24 * time.Hour

func (s *Store) idleSince() time.Time { return s.now().Add(-s.idle) }

// IdleAfter sets after how long without a page a login ends.
func (s *Store) IdleAfter(d time.Duration) { s.idle = d }

// mostLogins is on how many devices a rider is signed in at once.
const mostLogins = 50

// LogIn signs a rider in on a device; what has long been idle goes, and of very many the
// longest unseen.
func (s *Store) LogIn(ctx context.Context, riderID string, from Origin) (id string, err error) {
	id, from = rand.Text(), from.clipped()
	return id, s.change(ctx, func(tx transaction) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM logins WHERE rider_id = ? AND seen_at < ?`, riderID, s.idleSince()); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `
			DELETE FROM logins WHERE rider_id = ? AND id NOT IN (SELECT id FROM (SELECT id FROM logins WHERE rider_id = ? ORDER BY seen_at DESC LIMIT ?) AS latest)`, riderID, riderID, mostLogins-1); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO logins (id, rider_id, began_at, seen_at, address, agent) VALUES (?, ?, ?, ?, ?, ?)`, id, riderID, s.now(), s.now(), from.Address, from.Agent)
		return err
	})
}

// Seen is the rider who is signed in by a login, which goes on; ErrNotFound where it has
// ended, by idling, by a word, or with the account.
func (s *Store) Seen(ctx context.Context, loginID string) (*Rider, error) {
	var found struct {
		Rider
		SeenAt time.Time `db:"seen_at"`
	}
	err := s.db.GetContext(ctx, &found, `
		SELECT r.id, r.name, r.password_hash, r.units, COALESCE(r.address, '') AS address, r.second_secret, r.created_at, l.seen_at
		FROM logins l JOIN riders r ON r.id = l.rider_id WHERE l.id = ? AND l.seen_at >= ?`, loginID, s.idleSince())
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	if s.now().Sub(found.SeenAt).Abs() > seenEvery {
		if _, err := s.db.ExecContext(ctx, `UPDATE logins SET seen_at = ? WHERE id = ?`, s.now(), loginID); err != nil {
			return nil, err
		}
	}
	return &found.Rider, nil
}

// Logins lists where a rider is signed in, the last seen first.
func (s *Store) Logins(ctx context.Context, riderID string) (list []Login, err error) {
	err = s.db.SelectContext(ctx, &list, `
		SELECT id, began_at, seen_at, address, agent FROM logins WHERE rider_id = ? AND seen_at >= ? ORDER BY seen_at DESC, id`, riderID, s.idleSince())
	return list, err
}

// LogOut ends one login of a rider; ErrNotFound when it is none of theirs.
func (s *Store) LogOut(ctx context.Context, riderID, loginID string) error {
	return one(s.db.ExecContext(ctx, `DELETE FROM logins WHERE id = ? AND rider_id = ?`, loginID, riderID))
}

// LogOutOthers ends every login of a rider but one, "" for none.
func (s *Store) LogOutOthers(ctx context.Context, riderID, but string) error {
	return logOutOthers(ctx, s.db, riderID, but)
}

func logOutOthers(ctx context.Context, db sqlx.ExecerContext, riderID, but string) error {
	_, err := db.ExecContext(ctx, `DELETE FROM logins WHERE rider_id = ? AND id <> ?`, riderID, but)
	return err
}
