package store_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/store"
)

// TestNamesAreOne however they are typed, and one that was there before its key was made.
func TestNamesAreOne(t *testing.T) {
	st := open(t)
	made, err := st.CreateRider(ctx, "Áda  Rook", "correct horse")
	require.NoError(t, err)
	assert.Equal(t, "Áda Rook", made.Name)
	for _, name := range []string{"ada rook", "ＡＤＡ ROOK", "A\u0301da rook"} {
		_, err := st.CreateRider(ctx, name, "")
		assert.ErrorIs(t, err, store.ErrTaken, name)
		found, err := st.RiderByName(ctx, name)
		require.NoError(t, err)
		assert.Equal(t, made.ID, found.ID)
	}
	_, err = st.DB().ExecContext(ctx, `UPDATE riders SET name_key = NULL`)
	require.NoError(t, err)
	require.NoError(t, st.Migrate(ctx))
	_, err = st.RiderByName(ctx, "ada rook")
	assert.NoError(t, err)
}

// TestTwins: two accounts from before, whose names are one by now, are both told, both sign in,
// and neither is taken for the other.
func TestTwins(t *testing.T) {
	st := open(t)
	first, err := st.CreateRider(ctx, "Ada Rook", "correct horse")
	require.NoError(t, err)
	second, err := st.CreateRider(ctx, "Somebody", "battery staple")
	require.NoError(t, err)
	for _, column := range []string{"name_key = NULL", "twin_key = NULL"} {
		_, err = st.DB().ExecContext(ctx, `UPDATE riders SET `+column)
		require.NoError(t, err)
	}
	_, err = st.DB().ExecContext(ctx, `UPDATE riders SET name = ? WHERE id = ?`, "ÁDA\u200b rook", second.ID)
	require.NoError(t, err)
	require.NoError(t, st.Migrate(ctx))

	twins, err := st.Twins(ctx)
	require.NoError(t, err)
	require.Len(t, twins, 1)
	for _, says := range []string{first.ID, second.ID, "Ada Rook", `\u200b`} {
		assert.Contains(t, twins[0].Error(), says)
	}
	for _, typed := range []string{"ada rook", "Ada Rook", "ÁDA\u200b rook", "ÁDA ROOK"} {
		is, err := st.SignIn(ctx, typed, "correct horse")
		require.NoError(t, err, typed)
		assert.Equal(t, first.ID, is.ID, typed)
		is, err = st.SignIn(ctx, typed, "battery staple")
		require.NoError(t, err, typed)
		assert.Equal(t, second.ID, is.ID, typed)
	}
	_, err = st.SignIn(ctx, "ada rook", "neither of them")
	require.ErrorIs(t, err, store.ErrNotFound)
	for written, id := range map[string]string{"Ada Rook": first.ID, "ÁDA\u200b rook": second.ID} {
		is, err := st.RiderByName(ctx, written)
		require.NoError(t, err)
		assert.Equal(t, id, is.ID)
	}
	var both *store.Twins
	_, err = st.RiderByName(ctx, "ada ROOK")
	require.ErrorAs(t, err, &both, "which of them cannot be told")
	_, err = st.CreateRider(ctx, "ada rook", "")
	require.ErrorIs(t, err, store.ErrTaken)

	// One name, one password: only as it is written.
	_, err = st.DB().ExecContext(ctx, `UPDATE riders a JOIN riders b ON b.id = ? SET a.password_hash = b.password_hash WHERE a.id = ?`, first.ID, second.ID)
	require.NoError(t, err)
	_, err = st.SignIn(ctx, "ada rook", "correct horse")
	require.ErrorIs(t, err, store.ErrNotFound)
	is, err := st.SignIn(ctx, "ÁDA\u200b rook", "correct horse")
	require.NoError(t, err)
	assert.Equal(t, second.ID, is.ID)
}

// TestClockWasAhead: what a clock that jumped ahead and back has written down keeps nobody out
// for longer than the rule does.
func TestClockWasAhead(t *testing.T) {
	st := open(t)
	limit := store.Limit{Name: "ahead", Tries: 2, In: time.Hour}
	for range 2 {
		require.NoError(t, st.Try(ctx, limit, "ada"))
	}
	ahead := func() {
		_, err := st.DB().ExecContext(ctx, `UPDATE attempts SET ready = ready + INTERVAL 1 DAY, expires = expires + INTERVAL 1 DAY`)
		require.NoError(t, err)
	}
	ahead()
	var wait *store.TooMany
	require.ErrorAs(t, st.Try(ctx, limit, "ada"), &wait)
	was := wait.Wait
	assert.LessOrEqual(t, was, time.Second, "as after the last try that is free")
	require.ErrorAs(t, st.Try(ctx, limit, "ada"), &wait)
	assert.Less(t, wait.Wait, was, "and it runs down")

	require.NoError(t, st.Forget(ctx, limit, "ada"))
	require.NoError(t, st.Try(ctx, limit, "ada"))
	ahead()
	assert.NoError(t, st.Try(ctx, limit, "ada"), "one try is none too many, whenever it was")
}
