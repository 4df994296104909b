package store_test

import (
	"crypto/rand"
	"errors"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/store"
)

// twoTrips are two plans of one rider on one bike.
func twoTrips(t *testing.T, st *store.Store) (me, one, two string) {
	t.Helper()
	me = rider(t, st, "Two trips "+rand.Text())
	p, err := demo.Plan()
	require.NoError(t, err)
	one, err = st.CreatePlan(ctx, me, p, "One")
	require.NoError(t, err)
	second := *at(t, st, me, one).Plan
	second.Name, second.Readings = "The other trip", nil
	two, err = st.CreatePlan(ctx, me, &second, "Two")
	require.NoError(t, err)
	require.Equal(t, at(t, st, me, one).Plan.Garage, at(t, st, me, two).Plan.Garage)
	return me, one, two
}

func at(t *testing.T, st *store.Store, rider, id string) *store.Snapshot {
	t.Helper()
	head, err := st.Plan(ctx, rider, id)
	require.NoError(t, err)
	return head
}

// typed saves a change of a bike's sheet from a plan, or from the bike by itself.
func typed(t *testing.T, st *store.Store, rider, id, key, text string) error {
	t.Helper()
	return typedOn(t, st, rider, at(t, st, rider, id), key, text, "")
}

func typedOn(t *testing.T, st *store.Store, rider string, head *store.Snapshot, key, text, seen string) error {
	t.Helper()
	changed := *head.Plan
	bike := *changed.Bike
	changed.Bike = &bike
	for _, f := range bike.Fields() {
		if f.Key == key {
			require.NoError(t, f.Entry.Enter(text, ""))
		}
	}
	return st.Save(ctx, rider, head.ID, store.Change{Base: head.Revision, Plan: &changed, Summary: key + " " + text, Seen: seen})
}

func news(t *testing.T, st *store.Store, rider, id string) *store.News {
	t.Helper()
	n, err := st.News(ctx, rider, at(t, st, rider, id))
	require.NoError(t, err)
	return n
}

func takeOver(t *testing.T, st *store.Store, rider, id string, keep func(plan.News) bool) {
	t.Helper()
	require.NoError(t, st.TakeOver(ctx, rider, id, at(t, st, rider, id).Revision, rand.Text(), keep))
}

// TestWhatIsWrittenInOneTrip of a bike is the bike's: the other trip says so, takes it over in one
// step, and nothing that was planned in it changes.
func TestWhatIsWrittenInOneTrip(t *testing.T) {
	st := open(t)
	me, one, two := twoTrips(t, st)
	bike := at(t, st, me, one).Plan.Garage
	assert.False(t, news(t, st, me, two).Any())

	require.NoError(t, typed(t, st, me, one, "odometer", "24640 km"))
	more := at(t, st, me, one).Plan.Readings[0]
	more.ID = rand.Text()
	_, err := st.AddReadings(ctx, me, one, []logbook.Reading{more})
	require.NoError(t, err)
	assert.False(t, news(t, st, me, one).Any(), "who wrote it down has it")
	assert.Equal(t, "24640 km", at(t, st, me, bike).Plan.Bike.Odometer.String(), "the bike has it")

	before := at(t, st, me, two)
	assert.Equal(t, "23400 km", before.Plan.Bike.Odometer.String(), "the other plan stays what it was")
	n := news(t, st, me, two)
	require.Len(t, n.Differ, 1)
	assert.Equal(t, "bike/odometer", n.Differ[0].Key)
	require.Len(t, n.Readings, 1)
	assert.Equal(t, more.ID, n.Readings[0].ID)

	takeOver(t, st, me, two, nil)
	after := at(t, st, me, two)
	assert.Equal(t, "24640 km", after.Plan.Bike.Odometer.String())
	assert.Len(t, after.Plan.Readings, len(before.Plan.Readings)+1)
	assert.False(t, after.Behind())
	planned, is := *before.Plan, *after.Plan
	planned.Machine, is.Machine = plan.Machine{}, plan.Machine{}
	assert.Equal(t, planned, is, "nothing that was planned is touched")

	takeOver(t, st, me, two, nil)
	assert.Equal(t, after.Revision, at(t, st, me, two).Revision, "done twice it is done once")
	require.NoError(t, st.Undo(ctx, me, two, after.Revision))
	assert.Equal(t, before.Revision, at(t, st, me, two).Revision, "it is a change of the plan like any other")
}

// TestBothChanged: where a plan that is behind would write over what another trip has written, it
// is asked; where both stand, bringing up to date asks which.
func TestBothChanged(t *testing.T) {
	st := open(t)
	me, one, two := twoTrips(t, st)
	bike := at(t, st, me, one).Plan.Garage
	require.NoError(t, typed(t, st, me, one, "odometer", "24640 km"))

	var moved *store.Moved
	require.ErrorAs(t, typed(t, st, me, two, "odometer", "25000 km"), &moved)
	require.ErrorIs(t, moved, store.ErrMoved)
	require.Len(t, moved.News, 1)
	assert.Equal(t, "24640 km", moved.News[0].Theirs)
	assert.Equal(t, "25000 km", moved.News[0].Mine)
	assert.Equal(t, "24640 km", at(t, st, me, bike).Plan.Bike.Odometer.String(), "nothing was written")
	require.NoError(t, typedOn(t, st, me, at(t, st, me, two), "odometer", "25000 km", moved.Head), "once both were seen it is written")
	assert.Equal(t, "25000 km", at(t, st, me, bike).Plan.Bike.Odometer.String())

	// Something else joins by itself; then the other trip says otherwise of that.
	require.NoError(t, typed(t, st, me, two, "seat_height", "880 mm"))
	takeOver(t, st, me, one, nil)
	require.NoError(t, typed(t, st, me, one, "kerb_mass", "171 kg"))
	require.NoError(t, typed(t, st, me, two, "wheelbase", "1500 mm"), "behind, and it still writes what nobody else has")
	require.NoError(t, typed(t, st, me, bike, "wheelbase", "1510 mm"))
	n := news(t, st, me, two)
	clash := map[string]bool{}
	for _, d := range n.Differ {
		clash[d.Key] = d.Clash
	}
	assert.Equal(t, map[string]bool{"bike/kerb_mass": false, "bike/wheelbase": true}, clash)
	takeOver(t, st, me, two, func(d plan.News) bool { return d.Key == "bike/wheelbase" })
	assert.Equal(t, "1500 mm", at(t, st, me, two).Plan.Bike.Wheelbase.String())
	assert.Equal(t, "1500 mm", at(t, st, me, bike).Plan.Bike.Wheelbase.String(), "what the rider keeps is the bike's too")
	assert.Equal(t, "171 kg", at(t, st, me, two).Plan.Bike.KerbMass.String())
	assert.False(t, news(t, st, me, two).Any())
	require.True(t, news(t, st, me, one).Any())
}

// TestUndoOfWhatIsTheBikes appends a revision to each and moves no head back; where the bike
// says something else by now it is refused.
func TestUndoOfWhatIsTheBikes(t *testing.T) {
	st := open(t)
	me, one, two := twoTrips(t, st)
	bike := at(t, st, me, one).Plan.Garage
	save(t, st, me, one, "Before")
	require.NoError(t, typed(t, st, me, one, "odometer", "24640 km"))
	require.NoError(t, typed(t, st, me, one, "seat_height", "880 mm"))
	odometer := func(id string) string { return at(t, st, me, id).Plan.Bike.Odometer.String() }

	wrote, wroteBike := at(t, st, me, one), at(t, st, me, bike)
	require.NoError(t, st.Undo(ctx, me, one, wrote.Revision))
	undone := at(t, st, me, one)
	assert.NotEqual(t, wroteBike.Revision, at(t, st, me, bike).Revision)
	assert.Equal(t, "885 mm", undone.Plan.Bike.SeatHeight.String())
	assert.Equal(t, "885 mm", at(t, st, me, bike).Plan.Bike.SeatHeight.String())
	assert.Equal(t, "odometer 24640 km", undone.Undo, "undo goes on to what was before")
	assert.Equal(t, "seat_height 880 mm", undone.Redo)
	assert.False(t, news(t, st, me, one).Any())

	require.NoError(t, st.Undo(ctx, me, one, undone.Revision))
	assert.Equal(t, "23400 km", odometer(one))
	assert.Equal(t, "23400 km", odometer(bike))
	twice := at(t, st, me, one)
	assert.Equal(t, "Name Before", twice.Undo)
	require.NoError(t, st.Redo(ctx, me, one, twice.Revision))
	require.NoError(t, st.Redo(ctx, me, one, at(t, st, me, one).Revision))
	again := at(t, st, me, one)
	assert.Equal(t, "24640 km", odometer(bike))
	assert.Equal(t, "880 mm", at(t, st, me, bike).Plan.Bike.SeatHeight.String())
	assert.Empty(t, again.Redo)

	takeOver(t, st, me, two, nil)
	require.NoError(t, typed(t, st, me, two, "seat_height", "875 mm"))
	assert.ErrorIs(t, st.Undo(ctx, me, one, again.Revision), store.ErrMoved, "somebody has changed it since")
	assert.Equal(t, "875 mm", at(t, st, me, bike).Plan.Bike.SeatHeight.String())

	// A bike by itself is undone and made again in the same way.
	require.NoError(t, st.Undo(ctx, me, bike, at(t, st, me, bike).Revision))
	assert.Equal(t, "880 mm", at(t, st, me, bike).Plan.Bike.SeatHeight.String())
	require.NoError(t, st.Redo(ctx, me, bike, at(t, st, me, bike).Revision))
	assert.Equal(t, "875 mm", at(t, st, me, bike).Plan.Bike.SeatHeight.String())
}

// TestRacesOfPlansAndTheirBike: two plans and the bike by itself write to fields of their own at
// once, some undo what they wrote, and all that was acknowledged and not undone is there.
func TestRacesOfPlansAndTheirBike(t *testing.T) {
	st := open(t)
	me, one, two := twoTrips(t, st)
	bike := at(t, st, me, one).Plan.Garage
	fields := map[string]string{one: "seat_height", two: "wheelbase", bike: "clearance"}
	last := map[string]string{}
	var lock sync.Mutex
	var all sync.WaitGroup
	for id, key := range fields {
		all.Go(func() {
			for i := range 12 {
				text := []string{"871 mm", "872 mm", "873 mm"}[i%3]
				if key == "wheelbase" {
					text = []string{"1481 mm", "1482 mm", "1483 mm"}[i%3]
				} else if key == "clearance" {
					text = []string{"241 mm", "242 mm", "243 mm"}[i%3]
				}
				for {
					err := typed(t, st, me, id, key, text)
					if errors.Is(err, store.ErrStale) { // the bike by itself: another was faster
						continue
					}
					if !assert.NoError(t, err) {
						return
					}
					break
				}
				lock.Lock()
				last[key] = text
				lock.Unlock()
				if id != bike && i%4 == 3 { // there and back
					head := at(t, st, me, id)
					assert.NoError(t, st.Undo(ctx, me, id, head.Revision))
					assert.NoError(t, st.Redo(ctx, me, id, at(t, st, me, id).Revision))
				}
			}
		})
	}
	all.Wait()
	is := at(t, st, me, bike).Plan.Bike
	assert.Equal(t, last["seat_height"], is.SeatHeight.String())
	assert.Equal(t, last["wheelbase"], is.Wheelbase.String())
	assert.Equal(t, last["clearance"], is.Clearance.String())
	for _, id := range []string{one, two} {
		takeOver(t, st, me, id, nil)
		assert.True(t, at(t, st, me, id).Plan.Machine.Same(at(t, st, me, bike).Plan.Machine))
	}
}

// TestBikesOfTheGarage: a bike that nobody touched is no bike of the garage any more once its plan
// rides another; one that is thrown away takes its trips along, and brings them back.
func TestBikesOfTheGarage(t *testing.T) {
	st := open(t)
	me, one, two := twoTrips(t, st)
	other := rider(t, st, "Somebody else")
	bike := at(t, st, me, one).Plan.Garage
	count := func() int {
		list, err := st.GarageBikes(ctx, me)
		require.NoError(t, err)
		return len(list)
	}
	assert.Equal(t, 1, count())
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	id, err := st.CreatePlan(ctx, me, plan.New("Which one?", "EUR"), "New")
	require.NoError(t, err)
	for _, b := range bikes[:3] {
		head := at(t, st, me, id)
		require.NoError(t, st.Save(ctx, me, id, store.Change{Base: head.Revision, Plan: head.Plan.Riding(b), Summary: "Bike: " + b.Name}))
	}
	assert.Equal(t, 2, count(), "of three that were tried one is the garage's")
	head := at(t, st, me, id)
	require.NoError(t, st.Undo(ctx, me, id, head.Revision))
	assert.Equal(t, bikes[1].ID, at(t, st, me, id).Plan.Bike.ID)
	assert.NotEqual(t, head.Plan.Garage, at(t, st, me, id).Plan.Garage)

	// However many are tried, those that are none of the garage's make room.
	few := store.UsualQuotas
	few.Bikes = 4
	st.Limit(few)
	for range 4 {
		for _, b := range bikes[:3] {
			head := at(t, st, me, id)
			require.NoError(t, st.Save(ctx, me, id, store.Change{Base: head.Revision, Plan: head.Plan.Riding(b), Summary: "Bike: " + b.Name}))
		}
	}
	for range 12 { // back to ones that are gone: the plan has its copy
		head := at(t, st, me, id)
		require.NoError(t, st.Undo(ctx, me, id, head.Revision))
		require.NotNil(t, at(t, st, me, id).Plan.Bike)
	}
	st.Limit(store.UsualQuotas)
	save(t, st, me, id, "It has a bike again")
	head = at(t, st, me, id)
	assert.NotEmpty(t, head.Plan.Garage)

	for _, foreign := range []error{
		st.Archive(ctx, other, bike, true), st.Remove(ctx, other, bike), st.Join(ctx, other, bike, head.Plan.Garage), st.Apart(ctx, other, one, at(t, st, me, one).Revision),
		st.TakeOver(ctx, other, one, at(t, st, me, one).Revision, rand.Text(), nil), typed404(st, other, at(t, st, me, bike)),
	} {
		assert.ErrorIs(t, foreign, store.ErrNotFound)
	}
	theirs := *at(t, st, me, one).Plan
	_, err = st.CreatePlan(ctx, other, &theirs, "On another rider's bike")
	assert.ErrorIs(t, err, store.ErrNotFound)

	require.NoError(t, st.Remove(ctx, me, bike))
	for _, gone := range []string{bike, one, two} {
		_, err := st.Plan(ctx, me, gone)
		assert.ErrorIs(t, err, store.ErrNotFound)
	}
	removed, err := st.Removed(ctx, me)
	require.NoError(t, err)
	require.Len(t, removed, 1, "its trips come back with it")
	require.NoError(t, st.Recover(ctx, me, bike))
	assert.Equal(t, bike, at(t, st, me, two).Plan.Garage)
}

func typed404(st *store.Store, rider string, head *store.Snapshot) error {
	return st.Save(ctx, rider, head.ID, store.Change{Base: head.Revision, Plan: head.Plan, Summary: "theirs"})
}

// TestOneMachineOrTwo: two bikes are made one machine, with the readings of both; a plan that
// rides another of the model gets a bike of its own, and takes what was written down in it along.
func TestOneMachineOrTwo(t *testing.T) {
	st := open(t)
	me, one, two := twoTrips(t, st)
	bike := at(t, st, me, one).Plan.Garage
	mine := at(t, st, me, two).Plan.Readings[0]
	mine.ID = rand.Text()
	_, err := st.AddReadings(ctx, me, two, []logbook.Reading{mine})
	require.NoError(t, err)
	before := len(at(t, st, me, bike).Plan.ReadingsOf(mine.Kind))

	require.NoError(t, st.Apart(ctx, me, two, at(t, st, me, two).Revision))
	own := at(t, st, me, two)
	require.NotEqual(t, bike, own.Plan.Garage)
	require.Len(t, own.Plan.Readings, 1)
	assert.Equal(t, mine.ID, own.Plan.Readings[0].ID)
	assert.Len(t, at(t, st, me, bike).Plan.ReadingsOf(mine.Kind), before-1, "it was never read off this one")

	require.NoError(t, typed(t, st, me, two, "odometer", "41000 km"))
	require.NoError(t, st.Join(ctx, me, own.Plan.Garage, bike))
	joined := at(t, st, me, two)
	assert.Equal(t, bike, joined.Plan.Garage)
	n := news(t, st, me, two)
	require.Len(t, n.Differ, 1)
	assert.Equal(t, "23400 km", n.Differ[0].Theirs)
	_, err = st.Plan(ctx, me, own.Plan.Garage)
	assert.ErrorIs(t, err, store.ErrNotFound)
}
