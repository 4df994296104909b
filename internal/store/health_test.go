package store_test

import (
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/mariadb"
	"valiantmule/internal/store"
)

// TestHealthReadsOnly: a database that answers and takes nothing is not well.
func TestHealthReadsOnly(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database")
	}
	dir := t.TempDir()
	opened := func(options ...string) (*store.Store, *mariadb.Server) {
		server, err := mariadb.StartThrowaway(ctx, dir, options...)
		require.NoError(t, err)
		dsn, err := server.DSN(ctx, "reads")
		require.NoError(t, err)
		st, err := store.Open(dsn)
		require.NoError(t, err)
		return st, server
	}
	st, server := opened()
	require.NoError(t, st.Migrate(ctx))
	require.NoError(t, st.Health(ctx))
	require.NoError(t, st.Health(ctx), "again")
	require.NoError(t, st.Close())
	server.Stop()

	st, server = opened("--innodb-read-only=1")
	defer server.Stop()
	defer st.Close()
	require.NoError(t, st.Current(ctx))
	err := st.Health(ctx)
	require.ErrorIs(t, err, store.ErrReadOnly)
	_, err = st.CreateRider(ctx, "Rook", "")
	assert.True(t, store.Full(err), "%v", err)
}

// TestFullDisk: what there is no room for is told as that, and nothing of it is kept.
func TestFullDisk(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database")
	}
	server, err := mariadb.StartThrowaway(ctx, t.TempDir(), "--innodb-file-per-table=0", "--innodb-data-file-path=ibdata1:12M;ibdata2:8M")
	require.NoError(t, err)
	defer server.Stop()
	dsn, err := server.DSN(ctx, "full")
	require.NoError(t, err)
	st := openAt(t, dsn)
	p, err := demo.Plan()
	require.NoError(t, err)
	me, kept := rider(t, st, "Me"), 0
	for ; err == nil && kept < 1000; kept++ {
		_, err = st.CreatePlan(ctx, me, p, "New")
	}
	require.Error(t, err)
	assert.True(t, store.Full(err), "%v", err)
	assert.False(t, store.Gone(err))
	ids, err := st.PlanIDs(ctx, me)
	require.NoError(t, err)
	assert.Len(t, ids, kept-1)
}

// TestSameReadingAtOnce: sent several times at one moment it is there once, and every answer
// says that it is there.
func TestSameReadingAtOnce(t *testing.T) {
	st := open(t)
	p, err := demo.Plan()
	require.NoError(t, err)
	me := rider(t, st, "Me")
	list := p.Readings
	id, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	for _, reading := range list {
		var added atomic.Int32
		var group sync.WaitGroup
		for range 4 {
			group.Go(func() {
				n, err := st.AddReadings(ctx, me, id, []logbook.Reading{reading})
				assert.NoError(t, err)
				added.Add(int32(n))
			})
		}
		group.Wait()
		assert.EqualValues(t, 1, added.Load())
	}
}
