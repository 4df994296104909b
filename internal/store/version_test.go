package store_test

import (
	"crypto/rand"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/demo"
	"valiantmule/internal/store"
)

// TestVersion is that of the snapshot, read or not, and another after every change: of the
// plan, of where it stands in its history, of its bike and what was read off it, in a variant too.
func TestVersion(t *testing.T) {
	st := open(t)
	me, other := rider(t, st, "Me"), rider(t, st, "Other")
	p, err := demo.Plan()
	require.NoError(t, err)
	id, err := st.CreatePlan(ctx, me, p, "New")
	require.NoError(t, err)
	whole, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	variant, err := st.Split(ctx, me, id, whole.Plan, "Split")
	require.NoError(t, err)
	met := map[string]string{}
	fresh := func(what string) *store.Snapshot {
		t.Helper()
		head, err := st.Plan(ctx, me, id)
		require.NoError(t, err)
		version, err := st.Version(ctx, me, store.OfPlan, id)
		require.NoError(t, err)
		assert.Equal(t, head.Version, version, what)
		assert.Empty(t, met[version], what)
		met[version] = what
		return head
	}
	first := fresh("new")
	second := save(t, st, me, id, "Two")
	fresh("saved")
	require.NoError(t, st.Undo(ctx, me, id, second.Revision))
	undone := fresh("undone: what redo leads to is another")
	assert.Equal(t, first.Revision, undone.Revision)
	for _, on := range []string{id, variant} {
		more := p.Readings[0]
		more.ID = rand.Text()
		_, err = st.AddReadings(ctx, me, on, []logbook.Reading{more})
		require.NoError(t, err)
		fresh("a reading")
	}
	_, err = st.Version(ctx, other, store.OfPlan, id)
	require.ErrorIs(t, err, store.ErrNotFound)
	_, err = st.Version(ctx, me, store.OfPlan, "NOSUCH")
	require.ErrorIs(t, err, store.ErrNotFound)
}
