package store_test

import (
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/account"
	"valiantmule/internal/store"
)

var phone = store.Origin{Address: "192.0.2.7", Agent: "Phone"}

func TestChangePassword(t *testing.T) {
	st := open(t)
	made, err := st.CreateRider(ctx, "Ada", "correct horse")
	require.NoError(t, err)
	here, err := st.LogIn(ctx, made.ID, phone)
	require.NoError(t, err)
	there, err := st.LogIn(ctx, made.ID, phone)
	require.NoError(t, err)
	assert.ErrorIs(t, st.ChangePassword(ctx, made.ID, "wrong horse", "battery staple", here), store.ErrNotFound)
	_, err = st.Seen(ctx, there)
	require.NoError(t, err)
	require.NoError(t, st.ChangePassword(ctx, made.ID, "correct horse", "battery staple", here))
	_, err = st.Seen(ctx, there)
	require.ErrorIs(t, err, store.ErrNotFound, "other devices are out")
	_, err = st.Seen(ctx, here)
	require.NoError(t, err)
	_, err = st.SignIn(ctx, "Ada", "correct horse")
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = st.SignIn(ctx, "Ada", "battery staple")
	assert.NoError(t, err)
}

// TestLogins are listed, end one by one, and by idling.
func TestLogins(t *testing.T) {
	st := open(t)
	me, other := rider(t, st, "Me"), rider(t, st, "Other")
	var ids []string
	for range 3 {
		id, err := st.LogIn(ctx, me, phone)
		require.NoError(t, err)
		ids = append(ids, id)
	}
	list, err := st.Logins(ctx, me)
	require.NoError(t, err)
	require.Len(t, list, 3)
	assert.Equal(t, phone, store.Origin{Address: list[0].Address, Agent: list[0].Agent})
	assert.ErrorIs(t, st.LogOut(ctx, other, ids[0]), store.ErrNotFound, "another's")
	require.NoError(t, st.LogOut(ctx, me, ids[0]))
	_, err = st.Seen(ctx, ids[0])
	assert.ErrorIs(t, err, store.ErrNotFound)
	is, err := st.Seen(ctx, ids[1])
	require.NoError(t, err)
	assert.Equal(t, me, is.ID)

	older := func(by string) {
		_, err := st.DB().ExecContext(ctx, `UPDATE logins SET seen_at = seen_at - INTERVAL `+by)
		require.NoError(t, err)
	}
	older("6 DAY")
	_, err = st.Seen(ctx, ids[1])
	require.NoError(t, err, "being seen, it goes on")
	older("6 DAY")
	_, err = st.Seen(ctx, ids[1])
	require.NoError(t, err)
	_, err = st.Seen(ctx, ids[2])
	require.ErrorIs(t, err, store.ErrNotFound, "idle for twelve days")
	list, err = st.Logins(ctx, me)
	require.NoError(t, err)
	assert.Len(t, list, 1)
	for range 55 {
		_, err := st.LogIn(ctx, other, phone)
		require.NoError(t, err)
	}
	list, err = st.Logins(ctx, other)
	require.NoError(t, err)
	assert.Len(t, list, 50)
	st.IdleAfter(time.Hour)
	older("2 HOUR")
	_, err = st.Seen(ctx, ids[1])
	require.ErrorIs(t, err, store.ErrNotFound)
}

// TestSecondFactor: a code is taken once, a recovery code in its place once too.
func TestSecondFactor(t *testing.T) {
	st := open(t)
	me, other := rider(t, st, "Me"), rider(t, st, "Other")
	_, err := st.TakeSecond(ctx, me, "")
	require.ErrorIs(t, err, store.ErrNotFound, "where there is none, none is right")
	secret, err := account.NewSecond("Me")
	require.NoError(t, err)
	require.NoError(t, st.SetSecond(ctx, me, secret, 0))
	code, err := totp.GenerateCode(secret, time.Now())
	require.NoError(t, err)
	byRecovery, err := st.TakeSecond(ctx, me, code)
	require.NoError(t, err)
	assert.False(t, byRecovery)
	_, err = st.TakeSecond(ctx, me, code)
	require.ErrorIs(t, err, store.ErrNotFound, "somebody looked over the shoulder")

	codes, err := st.MakeCodes(ctx, me)
	require.NoError(t, err)
	require.Len(t, codes, 10)
	_, err = st.TakeSecond(ctx, other, codes[0])
	require.ErrorIs(t, err, store.ErrNotFound)
	byRecovery, err = st.TakeSecond(ctx, me, codes[0])
	require.NoError(t, err)
	assert.True(t, byRecovery)
	_, err = st.TakeSecond(ctx, me, codes[0])
	require.ErrorIs(t, err, store.ErrNotFound)
	left, err := st.Codes(ctx, me)
	require.NoError(t, err)
	assert.Equal(t, 9, left)
	_, err = st.MakeCodes(ctx, me)
	require.NoError(t, err)
	_, err = st.TakeSecond(ctx, me, codes[1])
	require.ErrorIs(t, err, store.ErrNotFound, "new ones replace those before")

	// A clock that was ahead has taken a code of next year.
	_, err = st.DB().ExecContext(ctx, `UPDATE riders SET second_step = second_step + 1000000`)
	require.NoError(t, err)
	later, err := totp.GenerateCode(secret, time.Now().Add(30*time.Second))
	require.NoError(t, err)
	_, err = st.TakeSecond(ctx, me, later)
	assert.ErrorIs(t, err, store.ErrNotFound, "not at once")
	require.NoError(t, st.ClearSecond(ctx, me))
	is, err := st.RiderByID(ctx, me)
	require.NoError(t, err)
	assert.Nil(t, is.Second)
}

// TestWaysBack: a code or a link replaces a password once, and ends every login.
func TestWaysBack(t *testing.T) {
	st := open(t)
	made, err := st.CreateRider(ctx, "Ada", "correct horse")
	require.NoError(t, err)
	codes, err := st.MakeCodes(ctx, made.ID)
	require.NoError(t, err)
	login, err := st.LogIn(ctx, made.ID, phone)
	require.NoError(t, err)
	for _, wrong := range [][2]string{{"Ada", "AAAA-AAAA-AAAA-AAAA"}, {"Ida", codes[0]}, {"Ada", ""}} {
		_, err = st.PasswordByCode(ctx, wrong[0], wrong[1], "battery staple")
		require.ErrorIs(t, err, store.ErrNotFound)
	}
	_, err = st.PasswordByCode(ctx, "ada", codes[0], "battery staple")
	require.NoError(t, err)
	_, err = st.PasswordByCode(ctx, "ada", codes[0], "correct horse")
	require.ErrorIs(t, err, store.ErrNotFound)
	_, err = st.Seen(ctx, login)
	require.ErrorIs(t, err, store.ErrNotFound)
	_, err = st.SignIn(ctx, "Ada", "battery staple")
	require.NoError(t, err)

	reached, err := st.Reached(ctx, "Ada")
	require.NoError(t, err)
	assert.Empty(t, reached, "no address yet")
	confirm, err := st.MakeLink(ctx, made.ID, store.ToAddress, "ada@example.org")
	require.NoError(t, err)
	_, err = st.PasswordByLink(ctx, confirm, "another staple")
	require.ErrorIs(t, err, store.ErrNotFound, "a link does what it is for")
	_, _, err = st.ConfirmAddress(ctx, confirm)
	require.NoError(t, err)
	_, _, err = st.ConfirmAddress(ctx, confirm)
	require.ErrorIs(t, err, store.ErrNotFound)
	for _, by := range []string{"ADA", "ada@example.org"} {
		reached, err = st.Reached(ctx, by)
		require.NoError(t, err)
		require.Len(t, reached, 1, by)
	}
	first, err := st.MakeLink(ctx, made.ID, store.ToPassword, "ada@example.org")
	require.NoError(t, err)
	second, err := st.MakeLink(ctx, made.ID, store.ToPassword, "ada@example.org")
	require.NoError(t, err)
	_, err = st.PasswordByLink(ctx, first, "another staple")
	require.ErrorIs(t, err, store.ErrNotFound, "the latest counts")
	_, err = st.PasswordByLink(ctx, second, "another staple")
	require.NoError(t, err)
	_, err = st.SignIn(ctx, "Ada", "another staple")
	require.NoError(t, err)
	old, err := st.MakeLink(ctx, made.ID, store.ToPassword, "ada@example.org")
	require.NoError(t, err)
	_, err = st.DB().ExecContext(ctx, `UPDATE links SET expires_at = expires_at - INTERVAL 2 HOUR`)
	require.NoError(t, err)
	_, err = st.PasswordByLink(ctx, old, "battery staple")
	require.ErrorIs(t, err, store.ErrNotFound)
}

// TestTrail keeps the latest of what was done, in order, of one account.
func TestTrail(t *testing.T) {
	st := open(t)
	me, other := rider(t, st, "Me"), rider(t, st, "Other")
	require.NoError(t, st.Note(ctx, other, store.Opened, phone))
	for range 205 {
		require.NoError(t, st.Note(ctx, me, store.CodesMade, phone))
	}
	require.NoError(t, st.Note(ctx, me, store.SecondOn, phone))
	list, err := st.Trail(ctx, me, 1000)
	require.NoError(t, err)
	require.Len(t, list, 200)
	assert.Equal(t, store.SecondOn, list[0].What)
	assert.Equal(t, phone.Address, list[0].Address)
	list, err = st.Trail(ctx, other, 10)
	require.NoError(t, err)
	assert.Len(t, list, 1)
}
