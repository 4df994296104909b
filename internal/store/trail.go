package store

import (
	"context"
	"time"
)

// Deed is what was done to an account, as it is kept and as a rider reads it.
type Deed string

// The deeds. One that is worded anew later leaves those before as they were.
const (
	Opened          Deed = "Account opened"
	SignedInAnew    Deed = "Signed in from an address that was not known"
	PasswordChanged Deed = "Password changed"
	PasswordByCode  Deed = "Password replaced by a recovery code"
	PasswordByLink  Deed = "Password replaced by a link in a letter"
	SecondOn        Deed = "Second factor on"
	SecondOff       Deed = "Second factor off"
	CodesMade       Deed = "Recovery codes made; older ones are worth nothing"
	CodeUsed        Deed = "Signed in with a recovery code in place of the second factor"
	AddressSet      Deed = "Address for letters confirmed"
	AddressGone     Deed = "Address for letters removed"
	LinkAsked       Deed = "A link for a new password was asked for"
	OthersOut       Deed = "Other devices signed out"
	OneOut          Deed = "A device signed out"
)

// Step is one line of the trail.
type Step struct {
	At      time.Time `db:"made_at"`
	What    Deed      `db:"what"`
	Address string    `db:"address"`
}

// mostSteps is how many an account keeps.
const mostSteps = 200

// Note keeps what was done to an account, and from where.
func (s *Store) Note(ctx context.Context, riderID string, what Deed, from Origin) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO trail (rider_id, made_at, what, address) VALUES (?, ?, ?, ?)`, riderID, s.now(), what, from.clipped().Address); err != nil {
		return err
	}
	_, err := s.db.ExecContext(ctx, `
		DELETE FROM trail WHERE rider_id = ? AND id <= COALESCE((SELECT id FROM (SELECT id FROM trail WHERE rider_id = ? ORDER BY id DESC LIMIT 1 OFFSET ?) AS older), 0)`, riderID, riderID, mostSteps)
	return err
}

// Trail lists what was done to an account, the latest first.
func (s *Store) Trail(ctx context.Context, riderID string, limit int) (list []Step, err error) {
	err = s.db.SelectContext(ctx, &list, `SELECT made_at, what, address FROM trail WHERE rider_id = ? ORDER BY id DESC LIMIT ?`, riderID, limit)
	return list, err
}
