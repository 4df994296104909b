package store

import (
	"context"
	"database/sql"
	"errors"

	"github.com/go-json-experiment/json"

	"valiantmule/internal/core/plan"
)

// Person is what a rider has said of their own body, nothing where they have not. A plan that is
// begun starts from it.
func (s *Store) Person(ctx context.Context, rider string) (p plan.Person, err error) {
	var text string
	err = s.db.GetContext(ctx, &text, `SELECT person FROM riders WHERE id = ?`, rider)
	if errors.Is(err, sql.ErrNoRows) {
		return p, ErrNotFound
	}
	if err != nil || text == "" {
		return p, err
	}
	// What an earlier version wrote and nobody can read now is not said.
	if json.Unmarshal([]byte(text), &p) != nil {
		return plan.Person{}, nil
	}
	return p, nil
}

// SetPerson keeps what a rider says of their own body.
func (s *Store) SetPerson(ctx context.Context, rider string, p plan.Person) error {
	text, err := json.Marshal(p, json.Deterministic(true))
	if err != nil {
		return err
	}
	return s.change(ctx, func(tx transaction) error {
		return one(tx.ExecContext(ctx, `UPDATE riders SET person = ? WHERE id = ?`, text, rider))
	})
}
