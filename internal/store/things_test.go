package store_test

import (
	"crypto/rand"
	"errors"
	"slices"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/demo"
	"valiantmule/internal/store"
)

// thingsOf: what plans of before held of what is ordered, owned or fitted are things, one for each part, slot and bike.
func thingsOf(t *testing.T, st *store.Store, rider string, p *plan.Plan) {
	t.Helper()
	things, err := st.Things(ctx, rider)
	require.NoError(t, err)
	type one struct {
		bike, part string
		slot       parts.Slot
	}
	seen, real := map[one]int{}, 0
	for _, h := range things.All() {
		seen[one{h.For, h.Part.ID, h.Part.Slot}]++
	}
	for of, n := range seen {
		assert.Equal(t, 1, n, "%v", of)
	}
	for i := range p.Lines {
		if garage.IsReal(&p.Lines[i]) {
			real++
		}
	}
	require.Positive(t, real)
	assert.NotEmpty(t, things.All())
	ids, err := st.PlanIDs(ctx, rider)
	require.NoError(t, err)
	plans, err := st.PlansOf(ctx, rider, ids)
	require.NoError(t, err)
	for _, of := range plans {
		if of.Plan.Bike == nil {
			continue
		}
		for _, n := range garage.Differs(things.All(), of.Plan) { // they find them by themselves
			assert.NotEqual(t, -1, n.Line, "%s: %s", of.Plan.Name, n.Says(things.Bikes))
		}
	}
}

// sprocket is one of the shelf.
func sprocket(id string) *parts.Part {
	return &parts.Part{ID: id, Slot: parts.RearSprocket, Name: "Sprocket " + id, Price: money.New(4000, "EUR")}
}

// garageOf is a rider with a plan on a bike.
func garageOf(t *testing.T) (st *store.Store, me, planID, bike string) {
	t.Helper()
	st = open(t)
	me = rider(t, st, "Me")
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	p := plan.New("The loop", "EUR")
	p.Bike = bikes[0]
	planID, err = st.CreatePlan(ctx, me, p, "New")
	require.NoError(t, err)
	at, err := st.Plan(ctx, me, planID)
	require.NoError(t, err)
	return st, me, planID, at.Plan.Garage
}

// change saves a plan with choices made.
func change(t *testing.T, st *store.Store, me, id string, choices ...plan.Choice) error {
	t.Helper()
	at, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	return st.Save(ctx, me, id, store.Change{Base: at.Revision, Plan: at.Plan.With(choices...), Summary: "Changed"})
}

// TestFittedOnTheBike: a line that is fitted makes it so on the bike, its undo takes it off, and is refused by what has
// come since; the plan's document is as it was stored when it is sent again.
func TestFittedOnTheBike(t *testing.T) {
	st, me, id, bike := garageOf(t)
	at, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	save := store.Change{Base: at.Revision, ID: rand.Text(), Plan: at.Plan.With(plan.Choice{Slot: parts.RearSprocket, Part: sprocket("one"), Decision: plan.OnTheBike}), Summary: "Fitted"}
	require.NoError(t, st.Save(ctx, me, id, save))
	require.NoError(t, st.Save(ctx, me, id, save), "sent again it is the same save")
	things, err := st.Things(ctx, me)
	require.NoError(t, err)
	require.Len(t, things.All(), 1)
	one := things.All()[0]
	assert.Equal(t, garage.On, one.State)
	assert.Equal(t, bike, one.Bike)

	at, err = st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Equal(t, one.ID, at.Plan.Lines[0].Thing)
	require.NoError(t, st.Undo(ctx, me, id, at.Revision))
	things, err = st.Things(ctx, me)
	require.NoError(t, err)
	assert.Equal(t, garage.Nowhere, things.All()[0].State, "it was never had")
	at, err = st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Empty(t, at.Plan.Lines)
	require.NoError(t, st.Redo(ctx, me, id, at.Revision))
	things, err = st.Things(ctx, me)
	require.NoError(t, err)
	assert.Equal(t, garage.On, things.All()[0].State)

	// In the garage it goes home, and another takes its place: the plan's change cannot be taken back.
	require.NoError(t, st.Do(ctx, me, store.Act{ID: rand.Text(), Day: "2026-11-20", Events: []garage.Event{{Thing: one.ID, To: garage.Home, Day: "2026-11-20"}}}))
	at, err = st.Plan(ctx, me, id)
	require.NoError(t, err)
	err = st.Undo(ctx, me, id, at.Revision)
	require.ErrorIs(t, err, garage.ErrRefused)
	assert.Contains(t, err.Error(), "Since then")
	now, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	assert.Equal(t, at.Revision, now.Revision, "nothing of what is refused is done")
}

// TestTwoInOnePlace: of two that fit two things into one place at once one wins, and the other is refused in words.
func TestTwoInOnePlace(t *testing.T) {
	st, me, _, bike := garageOf(t)
	var ids []string
	for _, name := range []string{"one", "two"} {
		act := rand.Text()
		require.NoError(t, st.Do(ctx, me, store.Act{
			ID: act, Day: "2026-11-20", Put: []garage.Thing{{ID: store.MadeBy(act), Part: sprocket(name)}}, Events: []garage.Event{{Thing: store.MadeBy(act), To: garage.Home, Day: "2026-11-20"}},
		}))
		ids = append(ids, store.MadeBy(act))
	}
	errs := make([]error, 2)
	var both sync.WaitGroup
	for i := range errs {
		both.Go(func() {
			odometer := unit.Length{}
			if err := odometer.Enter("31000", "km"); err != nil {
				errs[i] = err
				return
			}
			errs[i] = st.Do(ctx, me, store.Act{
				ID: rand.Text(), Day: "2026-11-20", Odometers: map[string]unit.Length{bike: odometer},
				Events: []garage.Event{{Thing: ids[i], To: garage.On, Bike: bike, At: odometer, Day: "2026-11-20"}},
			})
		})
	}
	both.Wait()
	slices.SortFunc(errs, func(a, b error) int {
		if a == nil {
			return -1
		}
		return 1
	})
	assert.NoError(t, errs[0])
	require.ErrorIs(t, errs[1], garage.ErrRefused)
	var refusal *garage.Refusal
	require.True(t, errors.As(errs[1], &refusal))
	assert.Contains(t, refusal.What, "Sprocket one")
	assert.Contains(t, refusal.What, "Sprocket two")
	at, err := st.Plan(ctx, me, bike)
	require.NoError(t, err)
	assert.InDelta(t, 31000, at.Plan.Bike.Odometer.In("km"), 1e-6, "the odometer is written down with it")
}

// TestThingsOfOthers: another rider's things, bikes and acts are none of one's own.
func TestThingsOfOthers(t *testing.T) {
	st, me, id, bike := garageOf(t)
	require.NoError(t, change(t, st, me, id, plan.Choice{Slot: parts.RearSprocket, Part: sprocket("one"), Decision: plan.OnTheBike}))
	mine, err := st.Things(ctx, me)
	require.NoError(t, err)
	other := rider(t, st, "Other")
	theirs, err := st.Things(ctx, other)
	require.NoError(t, err)
	assert.Empty(t, theirs.All())
	thing := mine.All()[0].ID
	events := func(e garage.Event) []garage.Event { e.Day = "2026-11-20"; return []garage.Event{e} }
	assert.Error(t, st.Do(ctx, other, store.Act{ID: rand.Text(), Day: "2026-11-20", Events: events(garage.Event{Thing: thing, To: garage.Home})}))
	act := rand.Text()
	put := []garage.Thing{{ID: store.MadeBy(act), Part: sprocket("two")}}
	assert.Error(t, st.Do(ctx, other, store.Act{ID: act, Day: "2026-11-20", Put: put, Events: events(garage.Event{Thing: put[0].ID, To: garage.On, Bike: bike})}), "a bike of another's")
	put[0].ID = thing
	assert.Error(t, st.Do(ctx, other, store.Act{ID: rand.Text(), Day: "2026-11-20", Put: put}), "a thing of another's")
	steps := mine.Steps(thing)
	assert.ErrorIs(t, st.UndoAct(ctx, other, steps[0].Act, rand.Text()), store.ErrNotFound)
	assert.ErrorIs(t, st.UndoAct(ctx, me, steps[0].Act, rand.Text()), garage.ErrRefused, "done in a plan, it is taken back there")
	after, err := st.Things(ctx, me)
	require.NoError(t, err)
	assert.Equal(t, mine.All(), after.All())
	counting, err := st.Counting(ctx, other, []string{thing})
	require.NoError(t, err)
	assert.Empty(t, counting)
}

// TestSameMachine: made one machine, two bikes have the parts of both, unless two would be in one place; a plan that gets
// a bike of its own takes along what was fitted in it.
func TestSameMachine(t *testing.T) {
	st, me, id, bike := garageOf(t)
	require.NoError(t, change(t, st, me, id, plan.Choice{Slot: parts.RearSprocket, Part: sprocket("one"), Decision: plan.OnTheBike}))
	at, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	other, err := st.CreateBike(ctx, me, at.Plan.Machine.Bare(), "EUR", "The same again")
	require.NoError(t, err)
	act := rand.Text()
	bag := &parts.Part{ID: "bag", Slot: parts.TailBag, Name: "Bag"}
	require.NoError(t, st.Do(ctx, me, store.Act{ID: act, Day: "2026-11-20", Put: []garage.Thing{{ID: store.MadeBy(act), Part: bag}}, Events: []garage.Event{{Thing: store.MadeBy(act), To: garage.On, Bike: other, Day: "2026-11-20"}}}))
	next := rand.Text()
	require.NoError(t, st.Do(ctx, me, store.Act{ID: next, Day: "2026-11-20", Put: []garage.Thing{{ID: store.MadeBy(next), Part: sprocket("two")}}, Events: []garage.Event{{Thing: store.MadeBy(next), To: garage.On, Bike: other, Day: "2026-11-20"}}}))
	require.ErrorIs(t, st.Join(ctx, me, other, bike), garage.ErrRefused, "two rear sprockets")
	things, err := st.Things(ctx, me)
	require.NoError(t, err)
	assert.Len(t, things.OnBike(other), 2, "nothing of what is refused is done")
	require.NoError(t, st.UndoAct(ctx, me, next, rand.Text()))
	require.NoError(t, st.Join(ctx, me, other, bike))
	things, err = st.Things(ctx, me)
	require.NoError(t, err)
	assert.Len(t, things.OnBike(bike), 2)

	at, err = st.Plan(ctx, me, id)
	require.NoError(t, err)
	require.NoError(t, st.Apart(ctx, me, id, at.Revision))
	at, err = st.Plan(ctx, me, id)
	require.NoError(t, err)
	things, err = st.Things(ctx, me)
	require.NoError(t, err)
	require.Len(t, things.OnBike(at.Plan.Garage), 1)
	assert.Equal(t, at.Plan.Lines[0].Thing, things.OnBike(at.Plan.Garage)[0])
	assert.Empty(t, garage.Differs(things.All(), at.Plan))
	assert.Equal(t, []string{store.MadeBy(act)}, things.OnBike(bike))
}

// TestOldFileMovesNothing: a plan that comes in again and says that a part is fitted, which lies at home by now, moves it
// nowhere; it says what differs.
func TestOldFileMovesNothing(t *testing.T) {
	st, me, id, bike := garageOf(t)
	require.NoError(t, change(t, st, me, id, plan.Choice{Slot: parts.RearSprocket, Part: sprocket("one"), Decision: plan.OnTheBike}))
	old, err := st.Plan(ctx, me, id)
	require.NoError(t, err)
	thing := old.Plan.Lines[0].Thing
	require.NoError(t, st.Do(ctx, me, store.Act{ID: rand.Text(), Day: "2026-11-20", Events: []garage.Event{{Thing: thing, To: garage.Home, Day: "2026-11-20"}}}))
	again := *old.Plan
	again.Garage, again.Readings = bike, nil
	copied, err := st.ImportPlan(ctx, me, &again, nil, "Imported")
	require.NoError(t, err)
	things, err := st.Things(ctx, me)
	require.NoError(t, err)
	require.Len(t, things.All(), 1)
	assert.Equal(t, garage.Home, things.All()[0].State)
	at, err := st.Plan(ctx, me, copied)
	require.NoError(t, err)
	news := garage.Differs(things.All(), at.Plan)
	require.Len(t, news, 1)
	assert.Equal(t, plan.AtHome, news[0].Then.Decision)
	require.NoError(t, st.TakeOver(ctx, me, copied, at.Revision, rand.Text(), nil))
	at, err = st.Plan(ctx, me, copied)
	require.NoError(t, err)
	assert.Equal(t, plan.AtHome, at.Plan.Lines[0].Decision)
	assert.Empty(t, garage.Differs(things.All(), at.Plan))

	// Of another house all of it is new here.
	other := rider(t, st, "Other")
	again.Garage = ""
	packed := things.Pack([]string{thing}, bike)
	theirs, err := st.ImportPlan(ctx, other, &again, packed, "Imported")
	require.NoError(t, err)
	at, err = st.Plan(ctx, other, theirs)
	require.NoError(t, err)
	assert.NotEqual(t, thing, at.Plan.Lines[0].Thing)
	there, err := st.Things(ctx, other)
	require.NoError(t, err)
	require.Len(t, there.All(), 1)
	assert.Equal(t, at.Plan.Lines[0].Thing, there.All()[0].ID)
	assert.Len(t, there.Steps(there.All()[0].ID), 2, "what it has seen comes along")
}
