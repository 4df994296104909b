package store_test

import (
	"crypto/rand"
	"encoding/json"
	"fmt"
	mrand "math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
)

// older is a database as version 19 of the schema had it: plans that hold their bikes, and logs
// that hang on the first plan of a family.
type older struct {
	t         *testing.T
	st        *store.Store
	rider     string
	made      time.Time
	documents map[string]string // of revisions, by their ids
}

func (o *older) exec(query string, args ...any) {
	o.t.Helper()
	_, err := o.st.DB().ExecContext(ctx, query, args...)
	require.NoError(o.t, err)
}

// plan puts a plan there whose revisions are these, the last one its head.
func (o *older) plan(family string, removed bool, revisions ...*plan.Plan) string {
	o.t.Helper()
	id, parent := rand.Text(), ""
	var gone any
	if removed {
		gone = time.Now().UTC()
	}
	var of any
	if family != "" {
		of = family
		o.exec(`UPDATE plans SET family_id = id WHERE id = ?`, family)
	}
	o.exec(`INSERT INTO plans (id, rider_id, created_at, family_id, removed_at) VALUES (?, ?, ?, ?, ?)`, id, o.rider, o.made, of, gone)
	for i, p := range revisions {
		bare := *p
		bare.Machine = p.Machine.Bare()
		document, err := format.EncodePlan(&bare)
		require.NoError(o.t, err)
		revision := rand.Text()
		var on any
		if parent != "" {
			on = parent
		}
		o.made = o.made.Add(time.Second)
		o.exec(`INSERT INTO revisions (id, plan_id, parent_id, summary, document, made_at) VALUES (?, ?, ?, ?, ?, ?)`, revision, id, on, fmt.Sprint("Change ", i), document, o.made)
		if parent != "" {
			o.exec(`UPDATE revisions SET next_id = ? WHERE id = ?`, revision, parent)
		}
		o.documents[revision] = string(document)
		parent = revision
	}
	o.exec(`INSERT INTO heads (plan_id, revision_id, revisions) VALUES (?, ?, ?)`, id, parent, len(revisions))
	return id
}

func (o *older) readings(log string, list []logbook.Reading) {
	for _, r := range list {
		text, err := json.Marshal(r)
		require.NoError(o.t, err)
		o.made = o.made.Add(time.Second)
		o.exec(`INSERT INTO readings (log_id, id, document, made_at) VALUES (?, ?, ?, ?)`, log, r.ID, text, o.made)
	}
}

// TestBikesOutOfPlans: of plans that hold their bikes, however often the way is cut off, one
// bike comes for each family and sheet; every revision, reading and report is there after.
func TestBikesOutOfPlans(t *testing.T) {
	for seed := range uint64(3) {
		dsn := mariadbtest.DSN(t)
		st, err := store.Open(dsn)
		require.NoError(t, err)
		defer st.Close()
		require.NoError(t, st.MigrateTo(ctx, 19))
		o := &older{t: t, st: st, rider: rand.Text(), made: time.Date(2026, 11, 1, 8, 0, 0, 0, time.UTC), documents: map[string]string{}}
		o.exec(`INSERT INTO riders (id, name, name_key, created_at) VALUES (?, 'Older', 'older', ?)`, o.rider, o.made)
		p, err := demo.Plan()
		require.NoError(t, err)
		bikes, err := demo.Bikes()
		require.NoError(t, err)
		named := func(name string, from *plan.Plan, change func(*plan.Plan)) *plan.Plan {
			made := *from
			made.Name = name
			if made.Bike != nil {
				bike := *made.Bike
				made.Bike = &bike
			}
			if change != nil {
				change(&made)
			}
			return &made
		}
		odometer := func(text string) func(*plan.Plan) {
			return func(p *plan.Plan) { require.NoError(t, p.Bike.Odometer.Enter(text, "km")) }
		}
		other := bikes[1]
		if other.ID == p.Bike.ID {
			other = bikes[2]
		}
		empty := named("Before a bike", plan.New("", "EUR"), nil)
		first := o.plan("", false, empty, named("The loop", p, nil), named("The loop, later", p, odometer("23500 km")))
		older := o.plan(first, false, named("Another way", p, odometer("20000 km")))
		elsewhere := o.plan(first, false, named("On another bike", p, nil), named("On another bike", p.Riding(other), nil))
		none := o.plan(first, false, named("Without one", p.WithoutBike(), nil))
		apart := o.plan("", false, named("A family of its own", p, nil))
		gone := o.plan("", true, named("Thrown away", p, nil))
		foreign := p.Readings[0]
		foreign.ID, foreign.Bike = rand.Text(), other.ID
		revoked := logbook.Reading{ID: rand.Text(), Kind: logbook.Revocation, On: "2026-11-02", Of: foreign.ID}
		o.readings(first, append(append([]logbook.Reading{}, p.Readings...), foreign, revoked))
		o.readings(apart, p.Readings[:2])

		random, cuts := mrand.New(mrand.NewPCG(seed, 21)), 0
		for done := false; !done; {
			left, broken := random.IntN(60+cuts), false // ever further
			wire := mariadbtest.Wire(t, dsn, func(statement string) mariadbtest.Fate {
				switch {
				case strings.Contains(statement, "_LOCK("):
					return mariadbtest.Passes
				case broken:
					return mariadbtest.Dropped
				}
				if left--; left < 0 {
					broken = true
					return []mariadbtest.Fate{mariadbtest.Dropped, mariadbtest.Unheard}[random.IntN(2)]
				}
				return mariadbtest.Passes
			})
			half, err := store.Open(wire)
			require.NoError(t, err)
			err = half.Migrate(ctx)
			require.NoError(t, half.Close())
			if done = err == nil && !broken; !done {
				cuts++
			}
			require.Less(t, cuts, 300, "%v", err)
		}
		assert.Greater(t, cuts, 3)
		require.NoError(t, st.Migrate(ctx))
		thingsOf(t, st, o.rider, p)

		var rows []struct {
			ID       string `db:"id"`
			Document string `db:"document"`
		}
		require.NoError(t, st.DB().SelectContext(ctx, &rows, `SELECT r.id, r.document FROM revisions r JOIN dossiers d ON d.id = r.dossier_id WHERE d.kind = 'plan'`))
		require.Len(t, rows, len(o.documents))
		for _, row := range rows {
			require.Equal(t, o.documents[row.ID], row.Document, "every revision is what it was, and so is its report")
		}
		var count struct{ Bikes, Readings, Unnumbered int }
		require.NoError(t, st.DB().GetContext(ctx, &count, `SELECT (SELECT COUNT(*) FROM dossiers WHERE kind = 'bike') AS bikes, COUNT(*) AS readings, COALESCE(SUM(number = 0), 0) AS unnumbered FROM readings`))
		assert.Equal(t, 4, count.Bikes, "two of the first family, one of each other")
		assert.Equal(t, len(p.Readings)+4, count.Readings)
		assert.Zero(t, count.Unnumbered)

		one, two := at(t, st, o.rider, first), at(t, st, o.rider, older)
		assert.Equal(t, one.Plan.Garage, two.Plan.Garage)
		assert.NotEqual(t, one.Plan.Garage, at(t, st, o.rider, apart).Plan.Garage, "families are never put together unasked")
		assert.NotEqual(t, one.Plan.Garage, at(t, st, o.rider, elsewhere).Plan.Garage)
		assert.Empty(t, at(t, st, o.rider, none).Plan.Garage)
		assert.Equal(t, p.Readings, one.Plan.Readings)
		assert.Equal(t, p.Readings, two.Plan.Readings)
		assert.Equal(t, []logbook.Reading{foreign, revoked}, at(t, st, o.rider, elsewhere).Plan.Readings, "what was read off a bike is that bike's")
		bike := at(t, st, o.rider, one.Plan.Garage)
		assert.Equal(t, "20000 km", bike.Plan.Bike.Odometer.String(), "what was changed last leads")
		history, err := st.History(ctx, o.rider, bike.ID, 10, 0)
		require.NoError(t, err)
		assert.Len(t, history, 2, "and what others say is an earlier revision")
		n := news(t, st, o.rider, first)
		require.Len(t, n.Differ, 1, "of which its plan says that it differs")
		assert.Equal(t, "20000 km", n.Differ[0].Theirs)
		assert.False(t, news(t, st, o.rider, older).Any())

		// Reports with what was read off the bike are what they were: of the sheet's readings.
		want := eval.Evaluate(named("The loop, later", p, odometer("23500 km")), nil, "2026-12-01")
		is := eval.Evaluate(one.Plan, nil, "2026-12-01")
		for i := range want.Loadouts {
			for j, g := range want.Loadouts[i].Gauges {
				assert.Equal(t, fmt.Sprint(g.Value, g.State), fmt.Sprint(is.Loadouts[i].Gauges[j].Value, is.Loadouts[i].Gauges[j].State), g.ID)
			}
		}
		var bytes, counted int64
		require.NoError(t, st.DB().GetContext(ctx, &bytes, `SELECT bytes FROM riders`))
		require.NoError(t, st.DB().GetContext(ctx, &counted, `SELECT COALESCE(SUM(LENGTH(r.document)), 0) + (SELECT SUM(LENGTH(document)) FROM things) + (SELECT SUM(LENGTH(document)) FROM moves) FROM revisions r JOIN dossiers d ON d.id = r.dossier_id WHERE d.kind = 'bike'`))
		assert.Equal(t, counted, bytes, "what is new is counted")

		require.NoError(t, st.Recover(ctx, o.rider, gone))
		assert.NotEmpty(t, at(t, st, o.rider, gone).Plan.Garage, "with its bike")
		require.NoError(t, typed(t, st, o.rider, first, "clearance", "244 mm"))
		require.NoError(t, st.Undo(ctx, o.rider, first, at(t, st, o.rider, first).Revision))
		require.NoError(t, st.Undo(ctx, o.rider, first, at(t, st, o.rider, first).Revision), "and back into the time before")
		assert.Equal(t, "The loop", at(t, st, o.rider, first).Plan.Name)
		require.NoError(t, st.DeleteRider(ctx, o.rider, ""))
	}
}
