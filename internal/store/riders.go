package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"sync"
	"time"

	"golang.org/x/crypto/bcrypt"
)

// Rider is an account.
type Rider struct {
	ID        string    `db:"id"`
	Name      string    `db:"name"`
	Hash      []byte    `db:"password_hash"`
	Epoch     int       `db:"epoch"` // of the sessions that are good
	Units     string    `db:"units"` // as package words writes them
	CreatedAt time.Time `db:"created_at"`
}

// Password lengths: bcrypt reads no further than 72 bytes.
const (
	MinPassword = 10
	MaxPassword = 72
)

// passwordCost makes one guess cost about a quarter of a second.
const passwordCost = 12

// CreateRider opens an account; an empty password makes one that no password
// opens. ErrTaken when the name is in use.
func (s *Store) CreateRider(ctx context.Context, name, password string) (*Rider, error) {
	rider := &Rider{ID: rand.Text(), Name: name, CreatedAt: s.now()}
	if password != "" {
		var err error
		if rider.Hash, err = hashOf(password); err != nil {
			return nil, err
		}
	}
	_, err := s.db.NamedExecContext(ctx,
		`INSERT INTO riders (id, name, password_hash, created_at) VALUES (:id, :name, :password_hash, :created_at)`, rider)
	if duplicate(err) {
		return nil, ErrTaken
	}
	return rider, err
}

func hashOf(password string) ([]byte, error) {
	if len(password) < MinPassword || len(password) > MaxPassword {
		return nil, fmt.Errorf("a password has %d to %d bytes", MinPassword, MaxPassword)
	}
	return bcrypt.GenerateFromPassword([]byte(password), passwordCost)
}

// ChangePassword replaces a rider's password and ends every session; it returns
// the new epoch. ErrNotFound when the old password is not the rider's.
func (s *Store) ChangePassword(ctx context.Context, riderID, old, password string) (int, error) {
	rider, err := s.RiderByID(ctx, riderID)
	if err != nil {
		return 0, err
	}
	if rider.Hash == nil || bcrypt.CompareHashAndPassword(rider.Hash, []byte(old)) != nil {
		return 0, ErrNotFound
	}
	hash, err := hashOf(password)
	if err != nil {
		return 0, err
	}
	if _, err := s.db.ExecContext(ctx, `UPDATE riders SET password_hash = ? WHERE id = ?`, hash, riderID); err != nil {
		return 0, err
	}
	return s.EndSessions(ctx, riderID)
}

// SetUnits keeps a rider's units.
func (s *Store) SetUnits(ctx context.Context, riderID, units string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE riders SET units = ? WHERE id = ?`, units, riderID)
	return err
}

// RiderByName finds an account; ErrNotFound when there is none.
func (s *Store) RiderByName(ctx context.Context, name string) (*Rider, error) {
	return s.rider(ctx, `SELECT id, name, password_hash, epoch, units, created_at FROM riders WHERE name = ?`, name)
}

// RiderByID finds an account; ErrNotFound when there is none.
func (s *Store) RiderByID(ctx context.Context, id string) (*Rider, error) {
	return s.rider(ctx, `SELECT id, name, password_hash, epoch, units, created_at FROM riders WHERE id = ?`, id)
}

func (s *Store) rider(ctx context.Context, query string, args ...any) (*Rider, error) {
	rider := new(Rider)
	err := s.db.GetContext(ctx, rider, query, args...)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	return rider, err
}

// nobody is compared with when there is no such rider, so that a wrong name and
// a wrong password take the same time.
var nobody = sync.OnceValues(func() ([]byte, error) {
	return bcrypt.GenerateFromPassword([]byte(rand.Text()), passwordCost)
})

// SignIn finds the rider of a name and password. A wrong name and a wrong
// password are the same ErrNotFound.
func (s *Store) SignIn(ctx context.Context, name, password string) (*Rider, error) {
	rider, err := s.RiderByName(ctx, name)
	if err != nil && !errors.Is(err, ErrNotFound) {
		return nil, err
	}
	hash, hashErr := nobody()
	if hashErr != nil {
		return nil, hashErr
	}
	if err == nil && rider.Hash != nil {
		hash = rider.Hash
	}
	if bcrypt.CompareHashAndPassword(hash, []byte(password)) != nil || err != nil || rider.Hash == nil {
		return nil, ErrNotFound
	}
	return rider, nil
}
