package store_test

import (
	"context"
	"crypto/rand"
	"errors"
	"math"
	"os"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
)

func TestMain(m *testing.M) { os.Exit(mariadbtest.Main(m)) }

var ctx = context.Background()

func open(t *testing.T) *store.Store {
	t.Helper()
	return openAt(t, mariadbtest.DSN(t))
}

func openAt(t *testing.T, dsn string) *store.Store {
	t.Helper()
	st, err := store.Open(dsn)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, st.Close()) })
	require.NoError(t, st.Migrate(ctx))
	return st
}

func rider(t *testing.T, st *store.Store, name string) string {
	t.Helper()
	r, err := st.CreateRider(ctx, name, "")
	require.NoError(t, err)
	return r.ID
}

// save puts a renamed plan on top of the head and returns the new snapshot.
func save(t *testing.T, st *store.Store, rider, id, name string) *store.Snapshot {
	t.Helper()
	head, err := st.Plan(ctx, rider, id)
	require.NoError(t, err)
	p := *head.Plan
	p.Name = name
	require.NoError(t, st.Save(ctx, rider, id, store.Change{Base: head.Revision, Plan: &p, Summary: "Name " + name}))
	after, err := st.Plan(ctx, rider, id)
	require.NoError(t, err)
	return after
}

func TestMigrationsOnlyGoForward(t *testing.T) {
	st, err := store.Open(mariadbtest.DSN(t))
	require.NoError(t, err)
	defer st.Close()
	assert.Error(t, st.Current(ctx), "an empty database is older than the program")
	require.NoError(t, st.Migrate(ctx))
	require.NoError(t, st.Migrate(ctx), "a second time it does nothing")
	assert.NoError(t, st.Current(ctx))

	var tables []struct {
		Name, Engine, Collation string
		Keys                    int
	}
	require.NoError(t, st.DB().SelectContext(ctx, &tables, `
		SELECT t.table_name AS name, t.engine AS engine, t.table_collation AS collation,
			(SELECT COUNT(*) FROM information_schema.table_constraints c
			 WHERE c.table_schema = t.table_schema AND c.table_name = t.table_name AND c.constraint_type = 'PRIMARY KEY') AS `+"`keys`"+`
		FROM information_schema.tables t WHERE t.table_schema = DATABASE() AND t.table_name NOT LIKE 'goose%'`))
	require.NotEmpty(t, tables)
	for _, table := range tables {
		assert.Equal(t, "InnoDB", table.Engine, table.Name)
		assert.True(t, strings.HasPrefix(table.Collation, "utf8mb4"), table.Name)
		assert.Equal(t, 1, table.Keys, "%s has a primary key", table.Name)
	}
}

func TestStrictMode(t *testing.T) {
	st := open(t)
	_, err := st.DB().ExecContext(ctx, `INSERT INTO catalogue (kind, id, position, document) VALUES ('bike', 'x', 'first', '{}')`)
	assert.Error(t, err, "a word is not a number")
	_, err = st.DB().ExecContext(ctx, `INSERT INTO catalogue (kind, id, position, document) VALUES ('bike', 'x', 1, 'not json')`)
	assert.Error(t, err)
}

func TestSignIn(t *testing.T) {
	st := open(t)
	_, err := st.CreateRider(ctx, "Ada", "too short")
	assert.Error(t, err)
	made, err := st.CreateRider(ctx, "Ada", "correct horse")
	require.NoError(t, err)
	_, err = st.CreateRider(ctx, "Ada", "another horse")
	assert.ErrorIs(t, err, store.ErrTaken)
	assert.NotContains(t, string(made.Hash), "horse")

	found, err := st.SignIn(ctx, "Ada", "correct horse")
	require.NoError(t, err)
	assert.Equal(t, made.ID, found.ID)
	for name, password := range map[string]string{"Ada": "wrong horse", "Nobody": "correct horse", "": ""} {
		_, err := st.SignIn(ctx, name, password)
		assert.ErrorIs(t, err, store.ErrNotFound, "a wrong name and a wrong password look the same")
	}
	rider(t, st, "Demo")
	_, err = st.SignIn(ctx, "Demo", "")
	assert.ErrorIs(t, err, store.ErrNotFound, "an account without a password opens to none")
}

func TestRevisions(t *testing.T) {
	st := open(t)
	me := rider(t, st, "Me")
	p, err := demo.Plan()
	require.NoError(t, err)
	id, err := st.CreatePlan(ctx, me, p, "New")
	require.NoError(t, err)
	first, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	require.NotEmpty(t, first.Plan.Garage, "its bike is one of the garage")
	p.Garage = first.Plan.Garage
	for i := range first.Plan.Lines { // what is real is a thing now
		l := &first.Plan.Lines[i]
		assert.Equal(t, garage.IsReal(&p.Lines[i]), l.Thing != "", l.Title())
		l.Thing = ""
	}
	assert.Equal(t, p, first.Plan, "to the digit")
	assert.Empty(t, first.Undo)
	assert.ErrorIs(t, st.Undo(ctx, me, id, first.Revision), store.ErrNothing)

	second := save(t, st, me, id, "Second")
	third := save(t, st, me, id, "Third")
	assert.Equal(t, "Name Third", third.Undo)
	assert.Empty(t, third.Redo)

	require.NoError(t, st.Undo(ctx, me, id, third.Revision))
	require.NoError(t, st.Undo(ctx, me, id, second.Revision))
	back, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Equal(t, first.Revision, back.Revision)
	assert.Equal(t, "Name Second", back.Redo)
	require.NoError(t, st.Redo(ctx, me, id, back.Revision))
	require.NoError(t, st.Redo(ctx, me, id, second.Revision))
	assert.ErrorIs(t, st.Redo(ctx, me, id, third.Revision), store.ErrNothing)

	require.NoError(t, st.Undo(ctx, me, id, third.Revision))
	branch := save(t, st, me, id, "Branch")
	assert.Empty(t, branch.Redo, "a change after an undo ends the way forward")
	assert.Equal(t, "Name Branch", branch.Undo)
}

func TestStaleOverwritesNothing(t *testing.T) {
	st := open(t)
	me := rider(t, st, "Me")
	id, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	old, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	kept := save(t, st, me, id, "Kept")
	assert.ErrorIs(t, st.Save(ctx, me, id, store.Change{Base: old.Revision, Plan: plan.New("Lost", "EUR"), Summary: "Late"}), store.ErrStale)
	assert.ErrorIs(t, st.Undo(ctx, me, id, old.Revision), store.ErrStale)
	now, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Equal(t, kept.Revision, now.Revision)
	assert.Equal(t, "Kept", now.Plan.Name)
}

// TestOneOfManyWins: of savers on the same revision exactly one is acknowledged,
// and what it saved is the head.
func TestOneOfManyWins(t *testing.T) {
	st := open(t)
	me := rider(t, st, "Me")
	id, err := st.CreatePlan(ctx, me, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	head, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	errs := make([]error, 16)
	var all sync.WaitGroup
	for i := range errs {
		all.Go(func() {
			errs[i] = st.Save(ctx, me, id, store.Change{Base: head.Revision, Plan: plan.New(string(rune('A'+i)), "EUR"), Summary: "Race"})
		})
	}
	all.Wait()
	now, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	wins := 0
	for i, err := range errs {
		if err == nil {
			wins++
			assert.Equal(t, string(rune('A'+i)), now.Plan.Name)
		} else {
			assert.ErrorIs(t, err, store.ErrStale)
		}
	}
	assert.Equal(t, 1, wins)
}

// TestAmend: answers that come at once all land, each once for its id, and an undo
// does not bring a repeated one back.
func TestAmend(t *testing.T) {
	st := open(t)
	ada := rider(t, st, "Ada")
	id, err := st.CreatePlan(ctx, ada, plan.New("Loop", "EUR"), "New")
	require.NoError(t, err)
	line := func(name string) func(p *plan.Plan) (*plan.Plan, string) {
		return func(p *plan.Plan) (*plan.Plan, string) {
			changed := *p
			changed.Lines = append(slices.Clone(p.Lines), plan.Line{Kind: plan.Gear, Name: name, Need: plan.Needed})
			return &changed, name
		}
	}
	var all sync.WaitGroup
	const many = 12
	for i := range many {
		all.Go(func() {
			key := strings.Repeat("A", 25) + string(rune('A'+i))
			for range 2 { // sent again, as after a lost answer
				assert.NoError(t, st.Amend(ctx, ada, id, key, line(key)))
			}
		})
	}
	all.Wait()
	now, err := st.Plan(ctx, ada, id)
	require.NoError(t, err)
	require.Len(t, now.Plan.Lines, many)
	require.NoError(t, st.Undo(ctx, ada, id, now.Revision))
	require.NoError(t, st.Amend(ctx, ada, id, now.Revision, line("again")))
	now, err = st.Plan(ctx, ada, id)
	require.NoError(t, err)
	assert.Len(t, now.Plan.Lines, many-1, "what was taken back stays away")

	before := now.Revision
	require.NoError(t, st.Amend(ctx, ada, id, strings.Repeat("B", 26), func(p *plan.Plan) (*plan.Plan, string) { return p, "" }))
	now, err = st.Plan(ctx, ada, id)
	require.NoError(t, err)
	assert.Equal(t, before, now.Revision, "nothing changed, nothing is kept")
	assert.ErrorIs(t, st.Amend(ctx, rider(t, st, "Eve"), id, strings.Repeat("C", 26), line("mine")), store.ErrNotFound)
	for id, valid := range map[string]bool{strings.Repeat("B", 26): true, "": false, strings.Repeat("b", 26): false, strings.Repeat("B", 27): false, strings.Repeat("1", 26): false} {
		assert.Equal(t, valid, entry.ValidID(id), id)
	}
}

func TestRidersSeeTheirOwn(t *testing.T) {
	st := open(t)
	mine, other := rider(t, st, "Me"), rider(t, st, "Other")
	id, err := st.CreatePlan(ctx, mine, plan.New("P", "EUR"), "New")
	require.NoError(t, err)
	head, err := st.Plan(ctx, mine, id)
	require.NoError(t, err)
	_, err = st.Plan(ctx, other, id)
	assert.ErrorIs(t, err, store.ErrNotFound)
	list, err := st.Plans(ctx, other)
	require.NoError(t, err)
	assert.Empty(t, list)
	for _, err := range []error{
		st.Save(ctx, other, id, store.Change{Base: head.Revision, Plan: plan.New("Mine now", "EUR"), Summary: ""}),
		st.Undo(ctx, other, id, head.Revision), st.Redo(ctx, other, id, head.Revision),
	} {
		assert.ErrorIs(t, err, store.ErrNotFound)
	}
}

func TestCatalogue(t *testing.T) {
	st := open(t)
	require.NoError(t, errors.Join(demo.Load(ctx, st), demo.Load(ctx, st)), "loaded twice it is there once")
	bikes, err := st.Bikes(ctx)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(bikes), 3)
	one, err := st.Bike(ctx, bikes[0].ID)
	require.NoError(t, err)
	assert.Equal(t, bikes[0], one)
	_, err = st.Bike(ctx, "unicorn")
	assert.ErrorIs(t, err, store.ErrNotFound)

	shelf, version, err := st.Shelf(ctx)
	require.NoError(t, err)
	tyres := 0
	for _, p := range shelf {
		if p.Tyre() != nil {
			tyres++
		}
	}
	assert.GreaterOrEqual(t, tyres, 10)
	require.NoError(t, st.LoadCatalogue(ctx, nil, plan.Shelf{{ID: "new", Slot: parts.SideStand, Name: "New"}}))
	again, now, err := st.Shelf(ctx)
	require.NoError(t, err)
	assert.Len(t, again, len(shelf)+1, "a new catalogue is seen at once")
	assert.NotEqual(t, version, now)
}

// TestDemoValid: the embedded data passes what a rider's file must pass.
func TestDemoValid(t *testing.T) {
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	parts, err := demo.Parts()
	require.NoError(t, err)
	for _, b := range bikes {
		p := plan.New(b.Name, "EUR")
		p.Bike = b
		assert.Empty(t, p.Validate(), b.ID)
	}
	for _, part := range parts {
		p := plan.New(part.Name, "EUR").With(plan.Choice{Slot: part.Slot, Part: part})
		assert.Empty(t, p.Validate(), part.ID)
	}
}

func TestHistoryAndBack(t *testing.T) {
	st := open(t)
	me, other := rider(t, st, "Me"), rider(t, st, "Other")
	id, err := st.CreatePlan(ctx, me, plan.New("First", "EUR"), "New")
	require.NoError(t, err)
	second := save(t, st, me, id, "Second")
	require.NoError(t, st.Undo(ctx, me, id, second.Revision))
	third := save(t, st, me, id, "Third")

	list, err := st.History(ctx, me, id, 10, 0)
	require.NoError(t, err)
	require.Len(t, list, 3, "what an undo left aside is there too")
	assert.Equal(t, "Third", list[0].After.Name)
	assert.Equal(t, "First", list[0].Before.Name)
	assert.Nil(t, list[2].Before)
	page, err := st.History(ctx, me, id, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, list[1:2], page)

	require.NoError(t, st.Restore(ctx, me, id, third.Revision, second.Revision))
	now, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Equal(t, "Second", now.Plan.Name)
	assert.ErrorIs(t, st.Restore(ctx, me, id, third.Revision, second.Revision), store.ErrStale)
	require.NoError(t, st.Undo(ctx, me, id, now.Revision), "going back can be undone")
	was, err := st.PlanAt(ctx, me, id, second.Revision)
	require.NoError(t, err)
	assert.Equal(t, "Second", was.Name)

	elsewhere, err := st.CreatePlan(ctx, me, plan.New("Elsewhere", "EUR"), "New")
	require.NoError(t, err)
	head, err := st.Plan(ctx, me, elsewhere)
	require.NoError(t, err)
	assert.ErrorIs(t, st.Restore(ctx, me, elsewhere, head.Revision, second.Revision), store.ErrNotFound, "another plan's revision")
	_, err = st.History(ctx, other, id, 10, 0)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = st.PlanAt(ctx, other, id, second.Revision)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestVariants(t *testing.T) {
	st := open(t)
	me, other := rider(t, st, "Me"), rider(t, st, "Other")
	id, err := st.CreatePlan(ctx, me, plan.New("A", "EUR"), "New")
	require.NoError(t, err)
	_, err = st.CreatePlan(ctx, me, plan.New("Apart", "EUR"), "New")
	require.NoError(t, err)
	b, err := st.Split(ctx, me, id, plan.New("B", "EUR"), "Split")
	require.NoError(t, err)
	c, err := st.Split(ctx, me, b, plan.New("C", "EUR"), "Split")
	require.NoError(t, err)
	for _, of := range []string{id, b, c} {
		list, err := st.Variants(ctx, me, of)
		require.NoError(t, err)
		var names []string
		for _, v := range list {
			names = append(names, v.Plan.Name)
		}
		assert.Equal(t, []string{"A", "B", "C"}, names)
	}
	save(t, st, me, b, "B changed")
	a, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Equal(t, "A", a.Plan.Name, "a variant goes its own way")
	_, err = st.Split(ctx, other, id, plan.New("X", "EUR"), "Split")
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = st.Variants(ctx, other, id)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

// TestPausesGrow: each try beyond a limit waits twice as long as the one before it.
func TestPausesGrow(t *testing.T) {
	st := open(t)
	l := store.Limit{Name: "growing", Tries: 1, In: 3 * time.Second}
	waits := func() time.Duration {
		var e *store.TooMany
		require.ErrorAs(t, st.Try(ctx, l, "ada"), &e)
		return e.Wait
	}
	require.NoError(t, st.Try(ctx, l, "ada"))
	first := waits()
	assert.True(t, first > 0 && first <= time.Second, first)
	assert.LessOrEqual(t, waits(), first, "asking too early does not make it longer")
	_, err := st.DB().ExecContext(ctx, `UPDATE attempts SET ready = '2001-01-01'`)
	require.NoError(t, err)
	require.NoError(t, st.Try(ctx, l, "ada"))
	second := waits()
	assert.True(t, second > time.Second && second <= 2*time.Second, second)
}

func TestLimits(t *testing.T) {
	st := open(t)
	short := store.Limit{Name: "test", Tries: 3, In: time.Hour}
	for range 3 {
		require.NoError(t, st.Try(ctx, short, "ada"))
	}
	assert.ErrorIs(t, st.Try(ctx, short, "ada"), store.ErrTooMany)
	assert.NoError(t, st.Try(ctx, short, "eve"), "another's count")
	assert.NoError(t, st.Try(ctx, store.Limit{Name: "other", Tries: 3, In: time.Hour}, "ada"), "another limit's count")
	require.NoError(t, st.Forget(ctx, short, "ada"))
	assert.NoError(t, st.Try(ctx, short, "ada"))

	past := store.Limit{Name: "past", Tries: 1, In: -time.Second}
	require.NoError(t, st.Try(ctx, past, "ada"))
	assert.NoError(t, st.Try(ctx, past, "ada"), "once it has expired, counting starts anew")

	var refused atomic.Int32
	var all sync.WaitGroup
	race := store.Limit{Name: "race", Tries: 5, In: time.Hour}
	for range 12 {
		all.Go(func() {
			if errors.Is(st.Try(ctx, race, "ada"), store.ErrTooMany) {
				refused.Add(1)
			}
		})
	}
	all.Wait()
	assert.EqualValues(t, 7, refused.Load(), "none slips through at the same moment")
}

// TestReadings: a log is only added to, once for an id, left alone by an undo, and nobody
// else's.
func TestReadings(t *testing.T) {
	st := open(t)
	me := rider(t, st, "Reader")
	p, err := demo.Plan()
	require.NoError(t, err)
	id, err := st.CreatePlan(ctx, me, p, "New")
	require.NoError(t, err)
	head, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.False(t, head.Behind())
	assert.Equal(t, p.Readings, head.Plan.Readings, "a plan brings its readings along")
	at, err := st.PlanAt(ctx, me, id, head.Revision)
	require.NoError(t, err)
	assert.Empty(t, at.Readings, "and the document does not hold them")

	more := p.Readings[0]
	more.ID = "AAAAAAAAAAAAAAAAAAAAAAAAAA"
	variant, err := st.Split(ctx, me, id, head.Plan, "Split")
	require.NoError(t, err)
	for want := range []int{0, 1} {
		added, err := st.AddReadings(ctx, me, id, []logbook.Reading{more})
		require.NoError(t, err)
		assert.Equal(t, 1-want, added, "sent twice, kept once")
	}
	added, err := st.AddReadings(ctx, me, variant, []logbook.Reading{more})
	require.NoError(t, err)
	assert.Zero(t, added, "variants have one log, their bike's")
	saved := save(t, st, me, id, "Renamed")
	assert.Len(t, saved.Plan.Readings, len(p.Readings)+1)
	require.NoError(t, st.Undo(ctx, me, id, saved.Revision))
	undone, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Len(t, undone.Plan.Readings, len(p.Readings)+1)

	other := rider(t, st, "Other")
	_, err = st.AddReadings(ctx, other, id, []logbook.Reading{more})
	assert.ErrorIs(t, err, store.ErrNotFound)
	many := make([]logbook.Reading, logbook.MaxReadings)
	for i := range many {
		many[i] = more
		many[i].ID = rand.Text()
	}
	_, err = st.AddReadings(ctx, me, id, many)
	assert.ErrorIs(t, err, store.ErrFull)

	otherwise := more
	otherwise.Note = "another one"
	_, err = st.AddReadings(ctx, me, id, []logbook.Reading{otherwise})
	assert.ErrorIs(t, err, store.ErrClash, "never acknowledged, never put in the other's place")
	var clash *store.Clash
	require.ErrorAs(t, err, &clash)
	assert.Equal(t, more, clash.There)
	assert.Equal(t, otherwise, clash.New)
	for _, foreignID := range []string{"", "7", "aaaaaaaaaaaaaaaaaaaaaaaaaa"} {
		foreign := more
		foreign.ID = foreignID
		_, err = st.AddReadings(ctx, me, id, []logbook.Reading{foreign})
		assert.Error(t, err, "an id that could not be saved is refused: %q", foreignID)
	}
}

// TestTracks are kept once, whole, and are only their rider's.
func TestTracks(t *testing.T) {
	st := open(t)
	me, other := rider(t, st, "Tracker"), rider(t, st, "Stranger")
	parts, _ := demo.Island(500)
	parts[0].Segments[0][3].EleM = math.NaN()
	address, err := st.KeepTrack(ctx, me, parts)
	require.NoError(t, err)
	again, err := st.KeepTrack(ctx, me, parts)
	require.NoError(t, err)
	assert.Equal(t, address, again)
	back, err := st.Track(ctx, me, address)
	require.NoError(t, err)
	require.Equal(t, parts[0].Points(), back[0].Points())
	assert.Equal(t, parts[0].Name, back[0].Name)
	assert.True(t, math.IsNaN(back[0].Segments[0][3].EleM))
	assert.InDelta(t, parts[0].Segments[1][7].Lat, back[0].Segments[1][7].Lat, 1e-7)
	_, err = st.Track(ctx, other, address)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

// TestThrownAway: a plan that is removed is not there for anything, can be brought back for
// a while by its rider alone, and is gone for good after that; its variants live on.
func TestThrownAway(t *testing.T) {
	st := open(t)
	rook, other := rider(t, st, "Rook"), rider(t, st, "Other")
	id, err := st.CreatePlan(ctx, rook, plan.New("Trip", "EUR"), "New")
	require.NoError(t, err)
	variant, err := st.Split(ctx, rook, id, plan.New("Another way", "EUR"), "Split")
	require.NoError(t, err)
	assert.ErrorIs(t, st.Remove(ctx, other, id), store.ErrNotFound)
	before, err := st.Plan(ctx, rook, id)
	require.NoError(t, err)
	require.NoError(t, st.Remove(ctx, rook, id))
	assert.ErrorIs(t, st.Remove(ctx, rook, id), store.ErrNotFound)
	_, err = st.Plan(ctx, rook, id)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, st.Save(ctx, rook, id, store.Change{Base: before.Revision, Plan: before.Plan, Summary: "x"}), store.ErrNotFound)
	_, err = st.History(ctx, rook, id, 10, 0)
	assert.ErrorIs(t, err, store.ErrNotFound)
	variants, err := st.Variants(ctx, rook, variant)
	require.NoError(t, err)
	assert.Len(t, variants, 1)
	gone, err := st.Removed(ctx, rook)
	require.NoError(t, err)
	require.Len(t, gone, 1)
	assert.Equal(t, "Trip", gone[0].Name)
	assert.ErrorIs(t, st.Recover(ctx, other, id), store.ErrNotFound)
	require.NoError(t, st.Recover(ctx, rook, id))
	back, err := st.Plan(ctx, rook, id)
	require.NoError(t, err)
	assert.Equal(t, before.Revision, back.Revision)

	expire := func(id string) {
		require.NoError(t, st.Remove(ctx, rook, id))
		_, err := st.DB().ExecContext(ctx, `UPDATE dossiers SET removed_at = removed_at - INTERVAL 31 DAY WHERE id = ?`, id)
		require.NoError(t, err)
		assert.ErrorIs(t, st.Recover(ctx, rook, id), store.ErrNotFound)
	}
	count := func(query string) (n int) {
		require.NoError(t, st.DB().GetContext(ctx, &n, query))
		return n
	}
	expire(id)
	expire(variant) // the first is deleted for good on the way
	assert.Equal(t, 1, count(`SELECT COUNT(*) FROM revisions`), "the variant's")
	last, err := st.CreatePlan(ctx, rook, plan.New("Next", "EUR"), "New")
	require.NoError(t, err)
	expire(last)
	assert.Equal(t, 1, count(`SELECT COUNT(*) FROM revisions`), "the newest alone")
}
