package garage_test

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

func km(n float64) unit.Length {
	var l unit.Length
	if err := l.Enter(fmt.Sprint(n), "km"); err != nil {
		panic(err)
	}
	return l
}

func thing(id string, slot parts.Slot, cost int64) garage.Thing {
	return garage.Thing{ID: garage.DerivedID(id, 0), Part: &parts.Part{ID: "part-" + id, Slot: slot, Name: "The " + id}, Cost: money.New(cost, "EUR")}
}

func bikes() map[string]garage.Bike {
	return map[string]garage.Bike{"a": {Name: "Holt", Odometer: km(20000)}, "b": {Name: "Averill", Odometer: km(20000)}, "c": {Name: "Corrin", Odometer: km(20000)}}
}

// act makes events of one act.
func act(id string, events ...garage.Event) []garage.Event {
	for i := range events {
		events[i].Act, events[i].ID, events[i].Day = id, garage.DerivedID(id, i), "2026-11-20"
	}
	return events
}

// TestSecondSprocket: two sprockets for one place take turns on one bike, each with its own kilometres; a
// refusal names both, and an undo is refused by what has come since.
func TestSecondSprocket(t *testing.T) {
	first, second := thing("first", parts.RearSprocket, 4500), thing("second", parts.RearSprocket, 5200)
	g, err := garage.New([]garage.Thing{first, second}, nil, bikes())
	require.NoError(t, err)
	require.NoError(t, g.Do(act("one", garage.Event{Thing: first.ID, To: garage.On, Bike: "a", At: km(1000)})))
	require.NoError(t, g.Do(act("two", garage.Event{Thing: second.ID, To: garage.Home})))

	err = g.Do(act("both", garage.Event{Thing: second.ID, To: garage.On, Bike: "a", At: km(4000)}))
	require.ErrorIs(t, err, garage.ErrRefused)
	assert.Contains(t, err.Error(), "The first and The second")
	held, _ := g.Held(second.ID)
	assert.Equal(t, garage.Home, held.State, "nothing of a refused act is done")

	require.NoError(t, g.Do(act("swap", garage.Event{Thing: first.ID, To: garage.Home, Off: km(4000)}, garage.Event{Thing: second.ID, To: garage.On, Bike: "a", At: km(4000)})))
	ridden, whole := g.Ridden(first.ID)
	assert.True(t, whole)
	assert.InDelta(t, 3000, ridden, 1e-6)
	ridden, _ = g.Ridden(second.ID)
	assert.InDelta(t, 16000, ridden, 1e-6, "up to where the odometer stands")

	_, err = g.Undo("one", "no", "2026-11-21")
	require.ErrorIs(t, err, garage.ErrRefused)
	assert.Contains(t, err.Error(), "Since then")

	require.NoError(t, g.Do(act("sold", garage.Event{Thing: second.ID, To: garage.Sold, Off: km(6000), Money: money.New(3000, "EUR"), Whom: "a friend"})))
	require.NoError(t, g.Do(act("on", garage.Event{Thing: first.ID, To: garage.On, Bike: "a", At: km(6000)})))
	_, err = g.Undo("sold", "no", "2026-11-22")
	require.ErrorIs(t, err, garage.ErrRefused, "its place is taken since then")
	assert.Contains(t, err.Error(), "The first")
	err = g.Do(act("elsewhere", garage.Event{Thing: second.ID, To: garage.On, Bike: "b"}))
	assert.ErrorIs(t, err, garage.ErrRefused, "what is sold does not go on a bike")

	require.NoError(t, g.Do(act("again", garage.Event{Thing: second.ID, To: garage.Home, Money: money.New(3500, "EUR")})))
	sum := g.Money(second.ID)
	assert.Equal(t, []money.Amount{money.New(8700, "EUR")}, sum.Spent, "bought and bought again")
	assert.Equal(t, []money.Amount{money.New(3000, "EUR")}, sum.Back, "and sold in between")
}

// TestRoom: as many as the kind says, for each loadout.
func TestRoom(t *testing.T) {
	var things []garage.Thing
	for i := range 5 {
		things = append(things, thing(fmt.Sprint("lamp ", i), parts.AuxLamps, 100))
	}
	kit := thing("box", parts.WideLamps, 100)
	kit.Part.Kit = []parts.Part{{ID: "own-switch0000", Slot: parts.LampControl, Name: "Its switch"}}
	control := thing("control", parts.LampControl, 100)
	g, err := garage.New(append(things, kit, control), nil, bikes())
	require.NoError(t, err)
	for i, lamp := range things {
		err := g.Do(act(fmt.Sprint("on ", i), garage.Event{Thing: lamp.ID, To: garage.On, Bike: "a"}))
		assert.Equal(t, i >= parts.AuxLamps.Room(), errors.Is(err, garage.ErrRefused), "lamp %d", i)
	}
	require.NoError(t, g.Do(act("trail", garage.Event{Thing: things[4].ID, To: garage.On, Bike: "a", Loadout: "trail-day"})))
	require.NoError(t, g.Do(act("kit", garage.Event{Thing: kit.ID, To: garage.On, Bike: "a"})))
	err = g.Do(act("switch", garage.Event{Thing: control.ID, To: garage.On, Bike: "a"}))
	require.ErrorIs(t, err, garage.ErrRefused, "the box holds a switch for that place")
	assert.Contains(t, err.Error(), "The box")
}

// TestLaws: whatever is done to things, each is in one place with room for it, money of all ledgers is the money of all
// things, kilometres are those of the bikes, and what is undone and done again is as it was.
func TestLaws(t *testing.T) {
	for seed := range uint64(4) {
		t.Run(fmt.Sprint(seed), func(t *testing.T) { laws(t, seed, 2500) })
	}
}

func laws(t *testing.T, seed uint64, moves int) {
	r := rand.New(rand.NewPCG(seed, 33))
	slots := []parts.Slot{parts.RearSprocket, parts.RearTyre, parts.AuxLamps, parts.TailBag}
	at := bikes()
	odometer := map[string]float64{"a": 0, "b": 0, "c": 0}
	var things []garage.Thing
	for i := range 24 {
		one := thing(fmt.Sprint(seed, " ", i), slots[i%len(slots)], r.Int64N(50000))
		one.For = []string{"", "a", "b", "c"}[r.IntN(4)]
		if r.IntN(3) == 0 {
			one.Workshop = money.New(r.Int64N(9000), "EUR")
		}
		things = append(things, one)
	}
	g, err := garage.New(things, nil, at)
	require.NoError(t, err)
	var log []garage.Event
	var acts []string
	refused := 0
	for n := range moves {
		id := fmt.Sprintf("%d %d", seed, n)
		for bike := range odometer {
			odometer[bike] += float64(r.IntN(300))
			at[bike] = garage.Bike{Name: at[bike].Name, Odometer: km(odometer[bike])}
		}
		var done []garage.Event
		switch kind := r.IntN(10); {
		case kind == 0 && len(acts) > 0: // taken back, and mostly done again
			of := acts[r.IntN(len(acts))]
			before := g.All()
			done, err = g.Undo(of, id, "2026-11-20")
			if err == nil && len(done) > 0 {
				require.NoError(t, g.Do(done))
				log = append(log, done...)
				if r.IntN(3) > 0 {
					again, err := g.Redo(of, id+" again", "2026-11-20")
					require.NoError(t, err)
					require.Len(t, again, len(done))
					require.NoError(t, g.Do(again))
					log = append(log, again...)
					require.Equal(t, before, g.All(), "undone and done again is as it was")
				}
			}
			done = nil
		default:
			one := things[r.IntN(len(things))]
			is, _ := g.Held(one.ID)
			e := garage.Event{Thing: one.ID}
			if is.State == garage.On {
				e.Off = km(odometer[is.Bike])
			}
			switch r.IntN(8) {
			case 0:
				e.To, e.Money = garage.Sold, money.New(r.Int64N(20000), "EUR")
			case 1:
				e.To = garage.Lent
			case 2, 3:
				e.To = garage.Home
				if is.State == garage.Sold {
					e.Money = money.New(r.Int64N(20000), "EUR")
				}
			case 4:
				e.Note = "filed"
			default:
				e.To, e.Bike = garage.On, []string{"a", "b", "c"}[r.IntN(3)]
				e.At = km(odometer[e.Bike])
			}
			done = []garage.Event{e}
			if is.State != garage.On && e.To == garage.On { // what is there goes home, sometimes
				for _, other := range g.All() {
					if other.State == garage.On && other.Bike == e.Bike && other.Part.Slot == one.Part.Slot && r.IntN(4) > 0 {
						done = append([]garage.Event{{Thing: other.ID, To: garage.Home, Off: km(odometer[e.Bike])}}, done...)
					}
				}
			}
			done = act(id, done...)
			if err := g.Do(done); err != nil {
				require.ErrorIs(t, err, garage.ErrRefused)
				refused++
				continue
			}
			acts = append(acts, id)
			log = append(log, done...)
		}
		if n%50 == 0 || n == moves-1 {
			holds(t, g, things, log, at)
		}
	}
	assert.Greater(t, len(log), moves/2)
	assert.NotZero(t, refused)
}

// holds checks the laws on a garage and on one that is folded anew from its log.
func holds(t *testing.T, g *garage.Garage, things []garage.Thing, log []garage.Event, at map[string]garage.Bike) {
	t.Helper()
	folded, err := garage.New(things, log, at)
	require.NoError(t, err)
	require.Equal(t, g.All(), folded.All(), "the log says the same")

	type spot struct {
		bike string
		slot parts.Slot
	}
	there := map[spot]int{}
	var ofThings, ofLedgers [2]int64
	for _, h := range g.All() {
		if h.State == garage.On {
			there[spot{h.Bike, h.Part.Slot}]++
		}
		sum := g.Money(h.ID)
		add(&ofThings, sum)
		ridden, whole := g.Ridden(h.ID)
		require.True(t, whole)
		require.InDelta(t, naive(g.Steps(h.ID), at), ridden, 1e-3)
	}
	for at, n := range there {
		require.LessOrEqual(t, n, at.slot.Room(), "%v", at)
	}
	for _, l := range g.Ledgers() {
		add(&ofLedgers, *l)
	}
	require.Equal(t, ofThings, ofLedgers, "money of all ledgers is the money of all things")
	for bike := range at { // of a place with room for one, no more than the bike has run
		ran := map[parts.Slot]float64{}
		for _, h := range g.All() {
			ran[h.Part.Slot] += onBike(g.Steps(h.ID), bike, at)
		}
		require.LessOrEqual(t, ran[parts.RearSprocket], at[bike].Odometer.In("km")+1e-6)
	}
}

func add(to *[2]int64, l garage.Ledger) {
	for _, a := range l.Spent {
		to[0] += a.Minor()
	}
	for _, a := range l.Back {
		to[1] += a.Minor()
	}
}

// naive is what a thing has run by its steps, bike by bike.
func naive(steps []garage.Step, at map[string]garage.Bike) (sum float64) {
	for bike := range at {
		sum += onBike(steps, bike, at)
	}
	return sum
}

func onBike(steps []garage.Step, bike string, at map[string]garage.Bike) (sum float64) {
	from, on := 0.0, false
	for _, s := range steps {
		if s.Back || s.To == "" {
			continue
		}
		if on {
			sum, on = sum+s.Off.In("km")-from, false
		}
		if s.To == garage.On && s.Bike == bike {
			from, on = s.At.In("km"), true
		}
	}
	if on {
		sum += at[bike].Odometer.In("km") - from
	}
	return sum
}

// TestSettle: a line that is fitted makes it so on the bike, what came off for it goes home with it, and a line that
// nobody has changed moves nothing.
func TestSettle(t *testing.T) {
	g, err := garage.New(nil, nil, bikes())
	require.NoError(t, err)
	old := plan.Line{Kind: plan.PartLine, Need: plan.Needed, Decision: plan.OnTheBike, Part: &parts.Part{ID: "tyre-old", Slot: parts.RearTyre, Name: "Old", Price: money.New(9000, "EUR")}}
	wish := plan.Line{Kind: plan.PartLine, Need: plan.Wanted, Part: &parts.Part{ID: "bag", Slot: parts.TailBag, Name: "Bag"}}
	s := settle(t, g, nil, []plan.Line{old, wish}, "first")
	require.Len(t, s.Put, 1, "a wish is no thing")
	assert.Equal(t, money.New(9000, "EUR"), s.Put[0].Cost)
	assert.Empty(t, s.Lines[1].Thing)
	again := g.Settle(s.Lines, s.Lines, garage.Moment{Act: "again", Bike: "a", Day: "2026-11-20"})
	assert.Empty(t, again.Act)
	assert.Empty(t, again.Put)

	p := plan.New("P", "EUR")
	p.Bike, p.Garage, p.Lines = &plan.Bike{ID: "holt", Name: "Holt"}, "a", s.Lines
	next := &parts.Part{ID: "tyre-new", Slot: parts.RearTyre, Name: "New"}
	chosen := p.With(plan.Choice{Slot: parts.RearTyre, Part: next})
	require.Empty(t, g.Settle(p.Lines, chosen.Lines, garage.Moment{Act: "chosen", Bike: "a", Day: "2026-11-20"}).Act, "it is on until the other is")
	assert.Equal(t, plan.ComesOff, chosen.Lines[0].Decision)
	fitted := chosen.With(plan.Choice{Slot: parts.RearTyre, Part: next, Decision: plan.OnTheBike})
	s = settle(t, g, chosen.Lines, fitted.Lines, "fitted")
	require.Len(t, s.Act, 2)
	held, _ := g.Held(s.Act[0].Thing)
	assert.Equal(t, garage.Home, held.State)
	assert.Equal(t, plan.AtHome, s.Lines[0].Decision)
	p.Lines = s.Lines
	assert.Empty(t, garage.Differs(g.All(), p), "the plan says what is so")

	// It goes to another bike: a gap here, and back in one step.
	moved := s.Act[1].Thing
	require.NoError(t, g.Do(act("away", garage.Event{Thing: moved, To: garage.On, Bike: "b"})))
	news := garage.Differs(g.All(), p)
	require.Len(t, news, 1)
	assert.Contains(t, news[0].Says(g.Bikes), "gap")
	p = garage.Taken(p, news)
	assert.Nil(t, p.Chosen(parts.RearTyre, "travel"))
	assert.True(t, p.Lines[len(p.Lines)-1].Costs(), "what was spent stays spent")
	back, err := g.Undo("away", "back", "2026-11-21")
	require.NoError(t, err)
	require.NoError(t, g.Do(back))
	p = garage.Taken(p, garage.Differs(g.All(), p))
	assert.Equal(t, "New", p.Chosen(parts.RearTyre, "travel").Name)

	// Another plan of the bike finds it on, paid for already.
	other := plan.New("Q", "EUR")
	other.Bike, other.Garage = p.Bike, "a"
	other = garage.Standing(other, g.All())
	require.Len(t, other.Lines, 1)
	assert.Equal(t, plan.OnTheBike, other.Lines[0].Decision)
	assert.Equal(t, int64(0), other.CostOf(&other.Lines[0]).Minor())
	assert.Empty(t, garage.Differs(g.All(), other))
}

func settle(t *testing.T, g *garage.Garage, before, after []plan.Line, id string) garage.Settled {
	t.Helper()
	s := g.Settle(before, after, garage.Moment{Act: id, Bike: "a", Day: "2026-11-20", Odometer: km(5000)})
	for _, thing := range s.Put {
		g.Add(thing)
	}
	require.NoError(t, g.Do(s.Act))
	return s
}

// TestBoxWithTwoForOnePlace: a box that holds more for a place than there is room is refused before it goes anywhere.
func TestBoxWithTwoForOnePlace(t *testing.T) {
	box := thing("box", parts.RearSprocket, 100)
	box.Part.Kit = []parts.Part{{ID: "own-another00", Slot: parts.RearSprocket, Name: "Another"}}
	problems := box.Validate()
	require.NotEmpty(t, problems)
	assert.Equal(t, "part.kit[0].slot", problems[0].Path)
	assert.NotEmpty(t, garage.ValidatePacked([]garage.Packed{{Thing: box}}))
}
