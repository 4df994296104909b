package desk

import (
	"net/http"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// Blank is a desk without a plan, for forms of what is in none: amounts without a currency are in the one given.
func (s *House) Blank(r *http.Request, currency string) *Desk {
	return &Desk{Snapshot: &store.Snapshot{Plan: plan.New("", currency)}, Units: UnitsOf(r), AsOf: Today(), house: s, rider: s.Rider(r)}
}
