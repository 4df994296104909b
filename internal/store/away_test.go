package store_test

import (
	"context"
	crand "crypto/rand"
	"errors"
	"fmt"
	"math/rand/v2"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/track"
	"valiantmule/internal/demo"
	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
)

// TestMigrationBrokenOff: cut off at one statement after another, before or after the
// server did it, a migration ends at the newest schema all the same.
func TestMigrationBrokenOff(t *testing.T) {
	dsn := mariadbtest.DSN(t)
	random := rand.New(rand.NewPCG(16, 3))
	cut := 0
	for range 200 {
		left, fate := random.IntN(12), mariadbtest.Dropped
		if random.IntN(2) == 0 {
			fate = mariadbtest.Unheard
		}
		broken := false
		wire := mariadbtest.Wire(t, dsn, func(statement string) mariadbtest.Fate {
			switch {
			case strings.Contains(statement, "_LOCK("):
				return mariadbtest.Passes
			case broken: // a try again goes no further
				return mariadbtest.Dropped
			}
			if left--; left < 0 {
				broken = true
				return fate
			}
			return mariadbtest.Passes
		})
		st, err := store.Open(wire)
		require.NoError(t, err)
		err = st.Migrate(ctx)
		require.NoError(t, st.Close())
		if err == nil && !broken {
			break
		}
		cut++
	}
	assert.Greater(t, cut, 5)
	st, err := store.Open(dsn)
	require.NoError(t, err)
	defer st.Close()
	require.NoError(t, st.Migrate(ctx))
	require.NoError(t, st.Current(ctx))
	me := rider(t, st, "Me")
	id, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	save(t, st, me, id, "Second")
	var again int
	require.NoError(t, st.DB().GetContext(ctx, &again, `SELECT COUNT(*) - COUNT(DISTINCT version_id) FROM goose_db_version`))
	assert.Zero(t, again, "each step is recorded once")
}

// TestMigrationsAtOnce: two queue, and both are right.
func TestMigrationsAtOnce(t *testing.T) {
	dsn := mariadbtest.DSN(t)
	var group sync.WaitGroup
	errs := make([]error, 4)
	for i := range errs {
		group.Go(func() {
			st, err := store.Open(dsn)
			if err == nil {
				defer st.Close()
				err = st.Migrate(ctx)
			}
			errs[i] = err
		})
	}
	group.Wait()
	for _, err := range errs {
		assert.NoError(t, err)
	}
}

// TestNewerIsRefused: a program leaves a database alone that is newer than it.
func TestNewerIsRefused(t *testing.T) {
	st := open(t)
	_, err := st.DB().ExecContext(ctx, `INSERT INTO goose_db_version (version_id, is_applied) VALUES (99999, TRUE)`)
	require.NoError(t, err)
	for _, err := range []error{st.Current(ctx), st.Migrate(ctx)} {
		assert.ErrorIs(t, err, store.ErrNewer)
		assert.NotContains(t, err.Error(), "\n")
	}
}

// TestPatienceOfAnAddress: an address says how long its server may be silent.
func TestPatienceOfAnAddress(t *testing.T) {
	config, err := mysql.ParseDSN(mariadbtest.DSN(t))
	require.NoError(t, err)
	config.ReadTimeout = 50 * time.Millisecond
	st, err := store.Open(config.FormatDSN())
	require.NoError(t, err)
	defer st.Close()
	_, err = st.DB().ExecContext(ctx, `DO SLEEP(1)`)
	assert.Error(t, err)
}

// TestCurrentCreatesNothing in an empty database.
func TestCurrentCreatesNothing(t *testing.T) {
	st, err := store.Open(mariadbtest.DSN(t))
	require.NoError(t, err)
	defer st.Close()
	assert.ErrorIs(t, st.Current(ctx), store.ErrOlder)
	var tables int
	require.NoError(t, st.DB().GetContext(ctx, &tables, `SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = DATABASE()`))
	assert.Zero(t, tables)
}

// TestManyUndone: a plan that was undone twenty thousand times is as near as any other, and
// is redone to its end.
func TestManyUndone(t *testing.T) {
	st := open(t)
	me := rider(t, st, "Me")
	id, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	first, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	const many = 20_000
	ids := deepen(t, st, id, first.Revision, many)
	head, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	for range 3 {
		require.Equal(t, "Change", head.Redo)
		require.NoError(t, st.Redo(ctx, me, id, head.Revision))
		head, err = st.Plan(ctx, me, id)
		require.NoError(t, err)
	}
	assert.Equal(t, ids[2], head.Revision)
	list, err := st.History(ctx, me, id, 20, many-10)
	require.NoError(t, err)
	assert.Len(t, list, 11)
}

// deepen puts so many revisions on top of one that is the head and stays it: they are
// undone.
func deepen(t testing.TB, st *store.Store, planID, base string, many int) []string {
	t.Helper()
	var document string
	require.NoError(t, st.DB().GetContext(ctx, &document, `SELECT document FROM revisions WHERE id = ?`, base))
	ids := make([]string, many+1)
	for i := range ids {
		ids[i] = fmt.Sprintf("%026d", i+1)
	}
	parent := base
	var rows []string
	for i := range many {
		next := "NULL"
		if i < many-1 {
			next = "'" + ids[i+1] + "'"
		}
		rows = append(rows, fmt.Sprintf("('%s', '%s', '%s', %s, 'Change', '%s', NOW(6) + INTERVAL %d SECOND)", ids[i], planID, parent, next, document, i+1))
		parent = ids[i]
	}
	for len(rows) > 0 {
		n := min(len(rows), 1000)
		_, err := st.DB().ExecContext(ctx, `INSERT INTO revisions (id, dossier_id, parent_id, next_id, summary, document, made_at) VALUES `+strings.Join(rows[:n], ","))
		require.NoError(t, err)
		rows = rows[n:]
	}
	_, err := st.DB().ExecContext(ctx, `UPDATE revisions SET next_id = ? WHERE id = ?`, ids[0], base)
	require.NoError(t, err)
	return ids[:many]
}

const savedID = "AAAAAAAAAAAAAAAAAAAAAAAAAA"

// TestSameSaveTwice is one save; another under its id is stale.
func TestSameSaveTwice(t *testing.T) {
	st := open(t)
	me := rider(t, st, "Me")
	id, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	first, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	for range 2 {
		require.NoError(t, st.Save(ctx, me, id, store.Change{Base: first.Revision, ID: savedID, Plan: plan.New("Q", "EUR"), Summary: "Q"}))
	}
	assert.ErrorIs(t, st.Save(ctx, me, id, store.Change{Base: first.Revision, ID: savedID, Plan: plan.New("q", "EUR"), Summary: "q"}), store.ErrStale)
	other := rider(t, st, "Other")
	theirs, err := st.CreatePlan(ctx, other, plan.New("T", "EUR"), "New")
	require.NoError(t, err)
	their, err := st.Plan(ctx, other, theirs)
	require.NoError(t, err)
	assert.ErrorIs(t, st.Save(ctx, other, theirs, store.Change{Base: their.Revision, ID: savedID, Plan: plan.New("Q", "EUR"), Summary: "Q"}), store.ErrStale, "and tells nothing of the other plan")
	list, err := st.History(ctx, me, id, 10, 0)
	require.NoError(t, err)
	assert.Len(t, list, 2)
}

// TestLostCommit: where the answer to a commit is lost, what is said is what is there.
func TestLostCommit(t *testing.T) {
	for fate, name := range map[mariadbtest.Fate]string{mariadbtest.Unheard: "kept", mariadbtest.Dropped: "not kept"} {
		t.Run(name, func(t *testing.T) {
			dsn := mariadbtest.DSN(t)
			st := openAt(t, dsn)
			me := rider(t, st, "Me")
			id, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
			require.NoError(t, err)
			first, err := st.Plan(ctx, me, id)
			require.NoError(t, err)
			armed := true
			shaky, err := store.Open(mariadbtest.Wire(t, dsn, func(statement string) mariadbtest.Fate {
				if armed && statement == "COMMIT" {
					armed = false
					return fate
				}
				return mariadbtest.Passes
			}))
			require.NoError(t, err)
			defer shaky.Close()
			err = shaky.Save(ctx, me, id, store.Change{Base: first.Revision, ID: savedID, Plan: plan.New("Q", "EUR"), Summary: "Q"})
			head, read := st.Plan(ctx, me, id)
			require.NoError(t, read)
			if fate == mariadbtest.Unheard {
				assert.NoError(t, err)
				assert.Equal(t, savedID, head.Revision)
			} else {
				assert.ErrorIs(t, err, store.ErrLost)
				assert.Equal(t, first.Revision, head.Revision)
			}
			require.NoError(t, shaky.Save(ctx, me, id, store.Change{Base: first.Revision, ID: savedID, Plan: plan.New("Q", "EUR"), Summary: "Q"}), "sent again it is the same save")
		})
	}
}

// TestLostPlan: a plan whose answer was lost is made once.
func TestLostPlan(t *testing.T) {
	dsn := mariadbtest.DSN(t)
	st := openAt(t, dsn)
	me := rider(t, st, "Me")
	armed := true
	shaky, err := store.Open(mariadbtest.Wire(t, dsn, func(statement string) mariadbtest.Fate {
		if armed && statement == "COMMIT" {
			armed = false
			return mariadbtest.Unheard
		}
		return mariadbtest.Passes
	}))
	require.NoError(t, err)
	defer shaky.Close()
	id, err := shaky.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	plans, err := st.Plans(ctx, me)
	require.NoError(t, err)
	require.Len(t, plans, 1)
	assert.Equal(t, id, plans[0].ID)
	other := rider(t, st, "Other")
	theirs, err := st.CreatePlan(ctx, other, plan.New("T", "EUR"), "New")
	require.NoError(t, err)
	err = st.Amend(ctx, other, theirs, plans[0].Revision, func(p *plan.Plan) (*plan.Plan, string) { return plan.New("U", "EUR"), "U" })
	assert.ErrorIs(t, err, store.ErrStale, "the id of another's revision acknowledges nothing")
}

// TestHungDatabase is given up soon.
func TestHungDatabase(t *testing.T) {
	dsn := mariadbtest.DSN(t)
	st := openAt(t, dsn)
	me := rider(t, st, "Me")
	hang := false
	hung, err := store.Open(mariadbtest.Wire(t, dsn, func(string) mariadbtest.Fate {
		if hang {
			return mariadbtest.Silenced
		}
		return mariadbtest.Passes
	}))
	require.NoError(t, err)
	defer hung.Close()
	require.NoError(t, hung.Health(ctx))
	hang = true
	bounded, cancel := context.WithTimeout(ctx, 20*time.Second)
	defer cancel()
	assert.Error(t, hung.Health(bounded))
	_, err = hung.Plans(bounded, me)
	assert.Error(t, err)
	assert.NoError(t, bounded.Err(), "before anybody has lost patience")
}

// TestQuotas: each is told by itself, and what was refused has left nothing behind.
func TestQuotas(t *testing.T) {
	st := open(t)
	me := rider(t, st, "Me")
	p, err := demo.Plan()
	require.NoError(t, err)
	id, err := st.CreatePlan(ctx, me, p, "New")
	require.NoError(t, err)
	points := func(lat float64) []track.Part {
		return []track.Part{{Name: "T", Segments: [][]track.Point{{{Point: geo.Point{Lat: lat, Lon: 1}}, {Point: geo.Point{Lat: lat + 1, Lon: 2}}}}}}
	}
	_, err = st.KeepTrack(ctx, me, points(1))
	require.NoError(t, err)
	head, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	reading := p.Readings[0]
	reading.ID = savedID
	try := map[string]func() error{
		"plans": func() error { _, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New"); return err },
		"bikes": func() error {
			_, err := st.CreateBike(ctx, me, p.Machine.Bare(), "EUR", "New")
			return err
		},
		"variants": func() error { _, err := st.Split(ctx, me, id, plan.New("P", "EUR"), "Split"); return err },
		"revisions": func() error {
			return st.Save(ctx, me, id, store.Change{Base: head.Revision, Plan: plan.New("P", "EUR"), Summary: "P"})
		},
		"tracks":   func() error { _, err := st.KeepTrack(ctx, me, points(40)); return err },
		"readings": func() error { _, err := st.AddReadings(ctx, me, id, []logbook.Reading{reading}); return err },
	}
	for what, q := range map[string]store.Quotas{
		"plans variants": {Plans: 1, Bikes: 9, Revisions: 9, Readings: 99, Tracks: 9, Bytes: 1 << 30}, "revisions": {Plans: 9, Bikes: 9, Revisions: 1, Readings: 99, Tracks: 9, Bytes: 1 << 30},
		"tracks": {Plans: 9, Bikes: 9, Revisions: 9, Readings: 99, Tracks: 1, Bytes: 1 << 30}, "readings": {Plans: 9, Bikes: 9, Revisions: 9, Readings: 1, Tracks: 9, Bytes: 1 << 30},
		"bikes": {Plans: 9, Bikes: 1, Revisions: 9, Readings: 99, Tracks: 9, Bytes: 1 << 30}, "plans variants bikes revisions tracks readings": {Plans: 9, Bikes: 9, Revisions: 9, Readings: 99, Tracks: 9, Bytes: 1},
	} {
		st.Limit(q)
		for name, do := range try {
			if !strings.Contains(what, name) {
				continue
			}
			err := do()
			assert.True(t, errors.Is(err, store.ErrQuota) || errors.Is(err, store.ErrFull), "%s under %+v: %v", name, q, err)
		}
	}
	st.Limit(store.UsualQuotas)
	after, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Equal(t, head.Version, after.Version)
	for name, do := range try {
		assert.NoError(t, do(), name)
	}
	var counted, is int64
	require.NoError(t, st.DB().GetContext(ctx, &counted, `SELECT bytes FROM riders WHERE id = ?`, me))
	require.NoError(t, st.DB().GetContext(ctx, &is, `SELECT (SELECT SUM(LENGTH(document)) FROM revisions) + (SELECT SUM(LENGTH(document)) FROM readings) + (SELECT SUM(LENGTH(points)) FROM tracks) + (SELECT SUM(LENGTH(document)) FROM things) + (SELECT SUM(LENGTH(document)) FROM moves)`))
	assert.Equal(t, is, counted, "what is counted is what is there")
}

// TestLongLogs: a log that is kept is the database's, also after another server has added
// to it, changed it or taken from it.
func TestLongLogs(t *testing.T) {
	dsn := mariadbtest.DSN(t)
	here, there := openAt(t, dsn), openAt(t, dsn)
	me := rider(t, here, "Me")
	p, err := demo.Plan()
	require.NoError(t, err)
	id, err := here.CreatePlan(ctx, me, p, "New")
	require.NoError(t, err)
	more := func(n int) (list []logbook.Reading) {
		for range n {
			r := p.Readings[0]
			r.ID = crand.Text()
			list = append(list, r)
		}
		return list
	}
	same := func(what string) {
		t.Helper()
		a, err := here.Plan(ctx, me, id)
		require.NoError(t, err)
		fresh := openAt(t, dsn)
		b, err := fresh.Plan(ctx, me, id)
		require.NoError(t, err)
		assert.Equal(t, b.Plan.Readings, a.Plan.Readings, what)
		assert.Equal(t, b.Version, a.Version, what)
	}
	_, err = here.AddReadings(ctx, me, id, more(400))
	require.NoError(t, err)
	same("first")
	same("kept")
	_, err = there.AddReadings(ctx, me, id, more(1))
	require.NoError(t, err)
	same("added elsewhere")
	_, err = there.DB().ExecContext(ctx, `UPDATE readings SET document = JSON_SET(document, '$.note', 'changed') WHERE log_id = ? LIMIT 1`, id)
	require.NoError(t, err)
	same("changed elsewhere")
	_, err = there.DB().ExecContext(ctx, `DELETE FROM readings WHERE log_id = ? LIMIT 7`, id)
	require.NoError(t, err)
	same("taken away elsewhere")
}
