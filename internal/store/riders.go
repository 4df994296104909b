package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"valiantmule/internal/account"

	"golang.org/x/crypto/bcrypt"
	"golang.org/x/text/unicode/norm"
)

// Rider is an account.
type Rider struct {
	ID        string    `db:"id"`
	Name      string    `db:"name"`
	Key       string    `db:"name_key"` // that names are compared by
	Hash      []byte    `db:"password_hash"`
	Units     string    `db:"units"`         // as package words writes them
	Address   string    `db:"address"`       // for letters, confirmed; "" for none
	Second    []byte    `db:"second_secret"` // of the second factor; nil for none
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

// Rename gives an account another name; ErrTaken when that is in use.
func (s *Store) Rename(ctx context.Context, riderID, name string) error {
	name, err := account.CleanName(name)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `UPDATE riders SET name = ?, name_key = ?, twin_key = NULL WHERE id = ?`, name, account.Fold(name), riderID)
	if duplicate(err) {
		return ErrTaken
	}
	return err
}

func hashOf(password, name string) ([]byte, error) {
	if err := account.CheckPassword(password, name); err != nil {
		return nil, err
	}
	return bcrypt.GenerateFromPassword([]byte(password), passwordCost)
}

// ChangePassword replaces a rider's password and ends every login but one. ErrNotFound when
// the old password is not the rider's.
func (s *Store) ChangePassword(ctx context.Context, riderID, old, password, but string) error {
	rider, err := s.RiderByID(ctx, riderID)
	if err != nil {
		return err
	}
	if !rider.Proves(old) {
		return ErrNotFound
	}
	hash, err := hashOf(password, rider.Name)
	if err != nil {
		return err
	}
	return s.change(ctx, func(tx transaction) error { return setPassword(ctx, tx, riderID, hash, but) })
}

// Proves tells whether a password is the rider's; none is that of an account without one.
func (r *Rider) Proves(password string) bool {
	return r.Hash != nil && bcrypt.CompareHashAndPassword(r.Hash, []byte(password)) == nil
}

// SetUnits keeps a rider's units.
func (s *Store) SetUnits(ctx context.Context, riderID, units string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE riders SET units = ? WHERE id = ?`, units, riderID)
	return err
}

const selectRider = `SELECT id, name, COALESCE(name_key, '') AS name_key, password_hash, units, COALESCE(address, '') AS address, second_secret, created_at FROM riders`

// RiderByName finds an account; ErrNotFound when there is none, a [Twins] when there are
// several whose names are one, and none is written as this is.
func (s *Store) RiderByName(ctx context.Context, name string) (*Rider, error) {
	list, err := s.ridersOf(ctx, name)
	switch {
	case err != nil:
		return nil, err
	case len(list) == 0:
		return nil, ErrNotFound
	case len(list) > 1 && !list[0].written(name):
		return nil, &Twins{list}
	}
	return list[0], nil
}

// ridersOf are the accounts of a name, however it is typed, first one that is written just
// so. There are several only of accounts from before names were compared as they are now.
func (s *Store) ridersOf(ctx context.Context, name string) ([]*Rider, error) {
	key := account.Fold(name)
	var list []*Rider
	if err := s.db.SelectContext(ctx, &list, selectRider+` WHERE name_key = ? OR twin_key = ? ORDER BY twin_key IS NOT NULL, created_at, id`, key, key); err != nil {
		return nil, err
	}
	slices.SortStableFunc(list, func(a, b *Rider) int {
		switch {
		case a.written(name) == b.written(name):
			return 0
		case a.written(name):
			return -1
		}
		return 1
	})
	return list, nil
}

// written tells whether the account's name is written just so.
func (r *Rider) written(name string) bool { return norm.NFC.String(r.Name) == norm.NFC.String(name) }

// Twins is an error: several accounts have a name that is one.
type Twins struct{ Riders []*Rider }

func (e *Twins) Error() string {
	var names []string
	for _, r := range e.Riders {
		names = append(names, fmt.Sprintf("%q (%s)", r.Name, r.ID))
	}
	return strings.Join(names, " and ") + " are one name"
}

// Twins lists the accounts whose names are one by now: each signs in as before, by its
// password and the name as it was typed; nobody else can take it.
func (s *Store) Twins(ctx context.Context) (all []*Twins, err error) {
	var keys []string
	if err := s.db.SelectContext(ctx, &keys, `SELECT DISTINCT twin_key FROM riders WHERE twin_key IS NOT NULL ORDER BY twin_key`); err != nil {
		return nil, err
	}
	for _, key := range keys {
		list, err := s.ridersOf(ctx, key)
		if err != nil {
			return nil, err
		}
		if len(list) > 1 {
			all = append(all, &Twins{list})
		}
	}
	return all, nil
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
	list, err := s.ridersOf(ctx, name)
	if err != nil {
		return nil, err
	}
	if len(list) == 0 {
		list = []*Rider{{}}
	}
	var found []*Rider
	for _, rider := range list {
		hash := rider.Hash
		if hash == nil {
			if hash, err = nobody(); err != nil {
				return nil, err
			}
		}
		if bcrypt.CompareHashAndPassword(hash, []byte(password)) == nil && rider.Hash != nil {
			found = append(found, rider)
		}
	}
	// Of two with one name and one password only the name as it is written tells.
	if len(found) == 0 || len(found) > 1 && !found[0].written(name) {
		return nil, ErrNotFound
	}
	return found[0], nil
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
			_, err = s.db.ExecContext(ctx, `UPDATE riders SET name_key = ?, twin_key = ? WHERE id = ?`, key+" "+r.ID, key, r.ID)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// remembered is how long an address is known that a rider does not come from any more.
const remembered = 180 * 24 * time.Hour

// Visited notes that a rider has signed in from an address, of which only a hash is kept, and
// tells whether that is the first time.
func (s *Store) Visited(ctx context.Context, riderID, address string) (first bool, err error) {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM visits WHERE rider_id = ? AND seen_at < ?`, riderID, s.now().Add(-remembered)); err != nil {
		return false, err
	}
	result, err := s.db.ExecContext(ctx, `INSERT IGNORE INTO visits (rider_id, address, seen_at) VALUES (?, ?, ?)`, riderID, hashed(address), s.now())
	if err != nil {
		return false, err
	}
	if n, err := result.RowsAffected(); err != nil || n > 0 {
		return true, err
	}
	_, err = s.db.ExecContext(ctx, `UPDATE visits SET seen_at = ? WHERE rider_id = ? AND address = ?`, s.now(), riderID, hashed(address))
	return false, err
}

// Knows tells whether the rider of a name has signed in from an address.
func (s *Store) Knows(ctx context.Context, name, address string) (bool, error) {
	var known int
	err := s.db.GetContext(ctx, &known, `SELECT COUNT(*) FROM visits v JOIN riders r ON r.id = v.rider_id WHERE (r.name_key = ? OR r.twin_key = ?) AND v.address = ?`, account.Fold(name), account.Fold(name), hashed(address))
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
	if rider.Hash != nil && !rider.Proves(password) {
		return ErrNotFound
	}
	return s.change(ctx, func(tx transaction) error {
		const all = `(SELECT id FROM dossiers WHERE rider_id = ?)`
		for _, statement := range []string{
			`DELETE FROM counts_on WHERE plan_id IN ` + all,
			`DELETE FROM moves WHERE rider_id = ?`,
			`DELETE FROM things WHERE rider_id = ?`,
			`DELETE FROM heads WHERE dossier_id IN ` + all,
			`DELETE FROM readings WHERE log_id IN ` + all,
			`UPDATE revisions SET parent_id = NULL WHERE dossier_id IN ` + all,
			`DELETE FROM revisions WHERE dossier_id IN ` + all,
			`UPDATE dossiers SET family_id = NULL WHERE rider_id = ?`,
			`DELETE FROM dossiers WHERE rider_id = ?`,
			`DELETE FROM tracks WHERE rider_id = ?`,
			`DELETE FROM visits WHERE rider_id = ?`,
			`DELETE FROM logins WHERE rider_id = ?`,
			`DELETE FROM recovery_codes WHERE rider_id = ?`,
			`DELETE FROM links WHERE rider_id = ?`,
			`DELETE FROM trail WHERE rider_id = ?`,
			`DELETE FROM riders WHERE id = ?`,
		} {
			if _, err := tx.ExecContext(ctx, statement, riderID); err != nil {
				return err
			}
		}
		return nil
	})
}
