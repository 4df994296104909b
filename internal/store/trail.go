package store

import (
	"context"
	"time"
)

// Deed is what was done to an account.
type Deed string

// The deeds, as they are kept.
const (
	Opened          Deed = "opened"
	SignedInAnew    Deed = "signed in anew" // from an address that was not known
	PasswordChanged Deed = "password changed"
	PasswordByCode  Deed = "password by code"
	PasswordByLink  Deed = "password by link"
	SecondOn        Deed = "second factor on"
	SecondOff       Deed = "second factor off"
	CodesMade       Deed = "codes made"
	CodeUsed        Deed = "code used"
	AddressSet      Deed = "address confirmed"
	AddressGone     Deed = "address removed"
	LinkAsked       Deed = "link asked"
	OthersOut       Deed = "others signed out"
)

// Deeds are all of them with what a rider is told.
func Deeds() map[Deed]string {
	return map[Deed]string{
		Opened:          "Account opened",
		SignedInAnew:    "Signed in from an address that was not known",
		PasswordChanged: "Password changed",
		PasswordByCode:  "Password replaced by a recovery code",
		PasswordByLink:  "Password replaced by a link in a letter",
		SecondOn:        "Second factor on",
		SecondOff:       "Second factor off",
		CodesMade:       "Recovery codes made; older ones are worth nothing",
		CodeUsed:        "Signed in with a recovery code in place of the second factor",
		AddressSet:      "Address for letters confirmed",
		AddressGone:     "Address for letters removed",
		LinkAsked:       "A link for a new password was asked for",
		OthersOut:       "Other devices signed out",
	}
}

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
	if _, err := s.db.ExecContext(ctx, `INSERT INTO trail (rider_id, made_at, what, address) VALUES (?, ?, ?, ?)`, riderID, s.now(), what, from.cut().Address); err != nil {
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
