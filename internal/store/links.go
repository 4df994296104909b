package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"time"
)

// LinkKind is what a link in a letter does, once.
type LinkKind string

// The kinds of link.
const (
	ToAddress  LinkKind = "address"  // confirms that letters to an address reach the rider
	ToPassword LinkKind = "password" // replaces the password
)

// lasts is how long a link works.
var lasts = map[LinkKind]time.Duration{ToAddress: 24 * time.Hour, ToPassword: time.Hour}

// Lasts is how long a link of a kind works.
func (k LinkKind) Lasts() time.Duration { return lasts[k] }

// Link is what the token of a letter stands for.
type Link struct {
	RiderID string `db:"rider_id"`
	Address string `db:"address"` // that the letter went to
}

// MakeLink makes the token of a letter; those of its kind that the rider was sent before are
// worth nothing then.
func (s *Store) MakeLink(ctx context.Context, riderID string, kind LinkKind, address string) (token string, err error) {
	token = rand.Text()
	return token, s.change(ctx, func(tx transaction) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM links WHERE rider_id = ? AND kind = ? OR expires_at < ?`, riderID, kind, s.now()); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO links (token, rider_id, kind, address, expires_at) VALUES (?, ?, ?, ?, ?)`, hashed(token), riderID, kind, address, s.now().Add(lasts[kind]))
		return err
	})
}

// LookLink is what a token stands for, and leaves it as it is; ErrNotFound for one that is
// used, old or none.
func (s *Store) LookLink(ctx context.Context, kind LinkKind, token string) (Link, error) {
	var link Link
	err := s.db.GetContext(ctx, &link, `SELECT rider_id, address FROM links WHERE token = ? AND kind = ? AND expires_at > ?`, hashed(token), kind, s.now())
	if errors.Is(err, sql.ErrNoRows) {
		return link, ErrNotFound
	}
	return link, err
}

// takeLink uses a token up.
func (s *Store) takeLink(ctx context.Context, tx transaction, kind LinkKind, token string) error {
	return one(tx.ExecContext(ctx, `DELETE FROM links WHERE token = ? AND kind = ? AND expires_at > ?`, hashed(token), kind, s.now()))
}

// ConfirmAddress makes the address that a letter went to the rider's, by its token. It is the
// link, and the address that the rider had before.
func (s *Store) ConfirmAddress(ctx context.Context, token string) (link Link, before string, err error) {
	if link, err = s.LookLink(ctx, ToAddress, token); err != nil {
		return link, "", err
	}
	rider, err := s.RiderByID(ctx, link.RiderID)
	if err != nil {
		return link, "", err
	}
	return link, rider.Address, s.change(ctx, func(tx transaction) error {
		if err := s.takeLink(ctx, tx, ToAddress, token); err != nil {
			return err
		}
		return one(tx.ExecContext(ctx, `UPDATE riders SET address = ? WHERE id = ?`, link.Address, link.RiderID))
	})
}

// DropAddress leaves a rider without one, and without links that went to one.
func (s *Store) DropAddress(ctx context.Context, riderID string) error {
	return s.change(ctx, func(tx transaction) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM links WHERE rider_id = ?`, riderID); err != nil {
			return err
		}
		return one(tx.ExecContext(ctx, `UPDATE riders SET address = NULL WHERE id = ?`, riderID))
	})
}

// PasswordByLink replaces a password by the token of a letter; see [Store.PasswordByCode].
func (s *Store) PasswordByLink(ctx context.Context, token, password string) (*Rider, error) {
	link, err := s.LookLink(ctx, ToPassword, token)
	if err != nil {
		return nil, err
	}
	rider, err := s.RiderByID(ctx, link.RiderID)
	if err != nil {
		return nil, err
	}
	return rider, s.replacePassword(ctx, rider, password, func(tx transaction) error { return s.takeLink(ctx, tx, ToPassword, token) })
}

// Reached are the accounts that a letter for a name, or for an address, goes to: those with a
// confirmed address. mostReached bounds those of one address.
func (s *Store) Reached(ctx context.Context, nameOrAddress string) (list []*Rider, err error) {
	err = s.db.SelectContext(ctx, &list, selectRider+` WHERE address = ? ORDER BY created_at LIMIT ?`, nameOrAddress, mostReached)
	if err != nil || len(list) > 0 {
		return list, err
	}
	named, err := s.ridersOf(ctx, nameOrAddress)
	for _, rider := range named {
		if rider.Address != "" {
			list = append(list, rider)
		}
	}
	return list, err
}

const mostReached = 5
