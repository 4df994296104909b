package store

import (
	"context"
	"crypto/rand"
	"errors"

	"valiantmule/internal/account"
)

// SetSecond turns a rider's second factor on, by its secret and the step of the code that
// proved it.
func (s *Store) SetSecond(ctx context.Context, riderID, secret string, step int64) error {
	return one(s.db.ExecContext(ctx, `UPDATE riders SET second_secret = ?, second_step = ? WHERE id = ?`, secret, step, riderID))
}

// ClearSecond turns it off.
func (s *Store) ClearSecond(ctx context.Context, riderID string) error {
	return one(s.db.ExecContext(ctx, `UPDATE riders SET second_secret = NULL, second_step = 0 WHERE id = ?`, riderID))
}

// TakeSecond takes a code of a rider's second factor, once, or a recovery code in its place,
// which is gone then. ErrNotFound for any other.
func (s *Store) TakeSecond(ctx context.Context, riderID, code string) (byRecovery bool, err error) {
	err = s.change(ctx, func(tx transaction) error {
		byRecovery = false
		var is struct {
			Secret []byte `db:"second_secret"`
			Step   int64  `db:"second_step"`
		}
		if err := tx.GetContext(ctx, &is, `SELECT second_secret, second_step FROM riders WHERE id = ? FOR UPDATE`, riderID); err != nil {
			return err
		}
		if step, ok := account.SecondStep(string(is.Secret), code, s.now(), is.Step); ok && len(is.Secret) > 0 {
			_, err := tx.ExecContext(ctx, `UPDATE riders SET second_step = ? WHERE id = ?`, step, riderID)
			return err
		}
		byRecovery = true
		return takeCode(ctx, tx, riderID, code)
	})
	return byRecovery, err
}

// howManyCodes a rider gets at once.
const howManyCodes = 10

// MakeCodes gives a rider new recovery codes; those before are worth nothing.
func (s *Store) MakeCodes(ctx context.Context, riderID string) (codes []string, err error) {
	for range howManyCodes {
		codes = append(codes, account.RecoveryCode(rand.Text()))
	}
	return codes, s.change(ctx, func(tx transaction) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM recovery_codes WHERE rider_id = ?`, riderID); err != nil {
			return err
		}
		for _, code := range codes {
			if _, err := tx.ExecContext(ctx, `INSERT INTO recovery_codes (rider_id, code) VALUES (?, ?)`, riderID, hashed(account.PlainCode(code))); err != nil {
				return err
			}
		}
		return nil
	})
}

// Codes is how many recovery codes a rider has left.
func (s *Store) Codes(ctx context.Context, riderID string) (n int, err error) {
	return n, s.db.GetContext(ctx, &n, `SELECT COUNT(*) FROM recovery_codes WHERE rider_id = ?`, riderID)
}

// takeCode takes a recovery code, once.
func takeCode(ctx context.Context, tx transaction, riderID, code string) error {
	plain := account.PlainCode(code)
	if plain == "" {
		return ErrNotFound
	}
	return one(tx.ExecContext(ctx, `DELETE FROM recovery_codes WHERE rider_id = ? AND code = ?`, riderID, hashed(plain)))
}

// PasswordByCode replaces the password of the account of a name by one of its recovery codes,
// which is gone then, and ends every login. ErrNotFound for a wrong name and for a wrong code.
func (s *Store) PasswordByCode(ctx context.Context, name, code, password string) (*Rider, error) {
	list, err := s.ridersOf(ctx, name)
	if err != nil {
		return nil, err
	}
	for _, rider := range list {
		err := s.replacePassword(ctx, rider, password, func(tx transaction) error { return takeCode(ctx, tx, rider.ID, code) })
		if !errors.Is(err, ErrNotFound) {
			return rider, err
		}
	}
	return nil, ErrNotFound
}

// replacePassword sets a password where what allows it does, ends every login and every link
// to a new one.
func (s *Store) replacePassword(ctx context.Context, rider *Rider, password string, allowed func(tx transaction) error) error {
	// The hash takes long, and is made under no lock; a wrong code takes as long as a right one.
	hash, err := hashOf(password, rider.Name)
	if err != nil {
		return err
	}
	return s.change(ctx, func(tx transaction) error {
		if err := allowed(tx); err != nil {
			return err
		}
		return setPassword(ctx, tx, rider.ID, hash, "")
	})
}

// setPassword ends every login but one, "" for none, and every link to a new password.
func setPassword(ctx context.Context, tx transaction, riderID string, hash []byte, but string) error {
	if err := one(tx.ExecContext(ctx, `UPDATE riders SET password_hash = ? WHERE id = ?`, hash, riderID)); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM links WHERE rider_id = ? AND kind = ?`, riderID, ToPassword); err != nil {
		return err
	}
	return logOutOthers(ctx, tx, riderID, but)
}
