package demo_test

import (
	"context"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
)

func TestMain(m *testing.M) { os.Exit(mariadbtest.Main(m)) }

// TestLoadBrokenOff: a first start that ends anywhere is begun again by the next, which finds
// the rider with all plans.
func TestLoadBrokenOff(t *testing.T) {
	ctx := context.Background()
	dsn := mariadbtest.DSN(t)
	st, err := store.Open(dsn)
	require.NoError(t, err)
	defer st.Close()
	require.NoError(t, st.Migrate(ctx))
	for _, left := range []int{3, 170, 200, 230} {
		wire := mariadbtest.Wire(t, dsn, func(string) mariadbtest.Fate {
			if left--; left < 0 {
				return mariadbtest.Dropped
			}
			return mariadbtest.Passes
		})
		cut, err := store.Open(wire)
		require.NoError(t, err)
		require.Error(t, demo.Load(ctx, cut))
		require.NoError(t, cut.Close())
	}
	require.NoError(t, demo.Load(ctx, st))
	rook, err := st.RiderByName(ctx, demo.Rider)
	require.NoError(t, err)
	others, err := demo.Garages()
	require.NoError(t, err)
	plans, err := st.Plans(ctx, rook.ID)
	require.NoError(t, err)
	require.Len(t, plans, 2+len(others))
	whole, err := demo.Plan()
	require.NoError(t, err)
	assert.Equal(t, len(whole.Lines), len(plans[0].Plan.Lines), "the plan that it is about is the latest, and whole")
	var riders int
	require.NoError(t, st.DB().GetContext(ctx, &riders, `SELECT COUNT(*) FROM riders`))
	assert.Equal(t, 1, riders)

	require.NoError(t, st.Remove(ctx, rook.ID, plans[0].ID))
	require.NoError(t, demo.Load(ctx, st))
	plans, err = st.Plans(ctx, rook.ID)
	require.NoError(t, err)
	assert.Len(t, plans, 1+len(others), "it is as the rider left it")
}
