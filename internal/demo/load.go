package demo

import (
	"context"
	"errors"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// Load puts the catalogue on the shelf, and the demo rider with the plan into
// the garage unless the rider is there already.
func Load(ctx context.Context, st *store.Store) error {
	bikes, err := Bikes()
	if err != nil {
		return err
	}
	parts, err := Parts()
	if err != nil {
		return err
	}
	if err := st.LoadCatalogue(ctx, bikes, parts); err != nil {
		return err
	}
	p, err := Plan()
	if err != nil {
		return err
	}
	return garage(ctx, st, p)
}

func garage(ctx context.Context, st *store.Store, p *plan.Plan) error {
	rider, err := st.CreateRider(ctx, Rider, "")
	if errors.Is(err, store.ErrTaken) {
		return nil // the garage is as the rider left it
	}
	if err != nil {
		return err
	}
	parts, _ := Island(stepM)
	if _, err := st.KeepTrack(ctx, rider.ID, parts); err != nil {
		return err
	}
	_, err = st.CreatePlan(ctx, rider.ID, p, "The demo plan")
	return err
}
