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
		if len(password) < MinPassword || len(password) > MaxPassword {
			return nil, fmt.Errorf("a password has %d to %d bytes", MinPassword, MaxPassword)
		}
		hash, err := bcrypt.GenerateFromPassword([]byte(password), passwordCost)
		if err != nil {
			return nil, err
		}
		rider.Hash = hash
	}
	_, err := s.db.NamedExecContext(ctx,
		`INSERT INTO riders (id, name, password_hash, created_at) VALUES (:id, :name, :password_hash, :created_at)`, rider)
	if duplicate(err) {
		return nil, ErrTaken
	}
	return rider, err
}

// RiderByName finds an account; ErrNotFound when there is none.
func (s *Store) RiderByName(ctx context.Context, name string) (*Rider, error) {
	return s.rider(ctx, `SELECT id, name, password_hash, created_at FROM riders WHERE name = ?`, name)
}

// RiderByID finds an account; ErrNotFound when there is none.
func (s *Store) RiderByID(ctx context.Context, id string) (*Rider, error) {
	return s.rider(ctx, `SELECT id, name, password_hash, created_at FROM riders WHERE id = ?`, id)
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
