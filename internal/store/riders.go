package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"database/sql"
	"errors"
	"sync"
	"time"

	"valiantmule/internal/account"

	"golang.org/x/crypto/bcrypt"
)

// Rider is an account.
type Rider struct {
	ID        string    `db:"id"`
	Name      string    `db:"name"`
	Key       string    `db:"name_key"` // that names are compared by
	Hash      []byte    `db:"password_hash"`
	Epoch     int       `db:"epoch"` // of the sessions that are good
	Units     string    `db:"units"` // as package words writes them
	CreatedAt time.Time `db:"created_at"`
}

// passwordCost makes one guess cost about a quarter of a second.
const passwordCost = 12

// CreateRider opens an account; an empty password makes one that no password
// opens. ErrTaken when the name is in use, whatever its case and marks.
func (s *Store) CreateRider(ctx context.Context, name, password string) (*Rider, error) {
	name, err := account.CleanName(name)
	if err != nil {
		return nil, err
	}
	rider := &Rider{ID: rand.Text(), Name: name, Key: account.Fold(name), CreatedAt: s.now()}
	if password != "" {
		if rider.Hash, err = hashOf(password, name); err != nil {
			return nil, err
		}
	}
	_, err = s.db.NamedExecContext(ctx,
		`INSERT INTO riders (id, name, name_key, password_hash, created_at) VALUES (:id, :name, :name_key, :password_hash, :created_at)`, rider)
	if duplicate(err) {
		return nil, ErrTaken
	}
	return rider, err
}

func hashOf(password, name string) ([]byte, error) {
	if err := account.CheckPassword(password, name); err != nil {
		return nil, err
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
	hash, err := hashOf(password, rider.Name)
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

const selectRider = `SELECT id, name, COALESCE(name_key, '') AS name_key, password_hash, epoch, units, created_at FROM riders`

// RiderByName finds an account; ErrNotFound when there is none.
func (s *Store) RiderByName(ctx context.Context, name string) (*Rider, error) {
	return s.rider(ctx, selectRider+` WHERE name_key = ?`, account.Fold(name))
}

// RiderByID finds an account; ErrNotFound when there is none.
func (s *Store) RiderByID(ctx context.Context, id string) (*Rider, error) {
	return s.rider(ctx, selectRider+` WHERE id = ?`, id)
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

// nameKeys makes the keys that are missing: they are made here and not by the database, so
// that names are compared in one way everywhere.
func (s *Store) nameKeys(ctx context.Context) error {
	var riders []Rider
	if err := s.db.SelectContext(ctx, &riders, selectRider+` WHERE name_key IS NULL ORDER BY created_at, id`); err != nil {
		return err
	}
	for _, r := range riders {
		key := account.Fold(r.Name)
		_, err := s.db.ExecContext(ctx, `UPDATE riders SET name_key = ? WHERE id = ?`, key, r.ID)
		if key == "" || duplicate(err) { // no longer to be told from an earlier one's
			_, err = s.db.ExecContext(ctx, `UPDATE riders SET name_key = ? WHERE id = ?`, key+" "+r.ID, r.ID)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// remembered is how long an address is known that a rider does not come from any more.
const remembered = 180 * 24 * time.Hour

// Visited notes that a rider has signed in from an address, of which only a hash is kept.
func (s *Store) Visited(ctx context.Context, riderID, address string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM visits WHERE rider_id = ? AND seen_at < ?`, riderID, s.now().Add(-remembered)); err != nil {
		return err
	}
	_, err := s.db.ExecContext(ctx, `INSERT INTO visits (rider_id, address, seen_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE seen_at = VALUES(seen_at)`, riderID, hashed(address), s.now())
	return err
}

// Knows tells whether the rider of a name has signed in from an address.
func (s *Store) Knows(ctx context.Context, name, address string) (bool, error) {
	var known int
	err := s.db.GetContext(ctx, &known, `SELECT COUNT(*) FROM visits v JOIN riders r ON r.id = v.rider_id WHERE r.name_key = ? AND v.address = ?`, account.Fold(name), hashed(address))
	return known > 0, err
}

func hashed(text string) []byte {
	sum := sha256.Sum256([]byte(text))
	return sum[:]
}

// DeleteRider deletes an account with everything that is the rider's. ErrNotFound when the
// password is not theirs; an account without one asks for none.
func (s *Store) DeleteRider(ctx context.Context, riderID, password string) error {
	rider, err := s.RiderByID(ctx, riderID)
	if err != nil {
		return err
	}
	if rider.Hash != nil && bcrypt.CompareHashAndPassword(rider.Hash, []byte(password)) != nil {
		return ErrNotFound
	}
	return s.change(ctx, func(tx transaction) error {
		const plans = `(SELECT id FROM plans WHERE rider_id = ?)`
		for _, statement := range []string{
			`DELETE FROM heads WHERE plan_id IN ` + plans,
			`DELETE FROM readings WHERE log_id IN ` + plans,
			`UPDATE revisions SET parent_id = NULL WHERE plan_id IN ` + plans,
			`DELETE FROM revisions WHERE plan_id IN ` + plans,
			`UPDATE plans SET family_id = NULL WHERE rider_id = ?`,
			`DELETE FROM plans WHERE rider_id = ?`,
			`DELETE FROM tracks WHERE rider_id = ?`,
			`DELETE FROM visits WHERE rider_id = ?`,
			`DELETE FROM riders WHERE id = ?`,
		} {
			if _, err := tx.ExecContext(ctx, statement, riderID); err != nil {
				return err
			}
		}
		return nil
	})
}
