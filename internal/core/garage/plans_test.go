package garage_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// TestPlansAndThings: whatever three plans of three bikes decide and whatever is moved in the garage besides, a plan that
// has taken over what is so says what is so, and the ledgers of the plans are the money of the things.
func TestPlansAndThings(t *testing.T) {
	r := rand.New(rand.NewPCG(33, 1))
	slots := []parts.Slot{parts.RearSprocket, parts.Seat, parts.AuxLamps}
	g, err := garage.New(nil, nil, bikes())
	require.NoError(t, err)
	plans := map[string]*plan.Plan{}
	for id, b := range bikes() {
		p := plan.New("On "+b.Name, "EUR")
		p.Bike, p.Garage = &plan.Bike{ID: "bike-" + id, Name: b.Name}, id
		plans[id] = p
	}
	moved, refused := 0, 0
	for n := range 1500 {
		bike := []string{"a", "b", "c"}[r.IntN(3)]
		p, id := plans[bike], fmt.Sprint("step ", n)
		things := g.All()
		switch kind := r.IntN(10); {
		case kind < 2 && len(things) > 0: // in the garage
			h := things[r.IntN(len(things))]
			e := garage.Event{Thing: h.ID, To: garage.Home}
			switch r.IntN(4) {
			case 0:
				e.To, e.Bike = garage.On, bike
			case 1:
				e.To, e.Money = garage.Sold, money.New(r.Int64N(4000), "EUR")
			case 2:
				e.To = garage.Lent
			}
			if err := g.Do(act(id, e)); err != nil {
				require.ErrorIs(t, err, garage.ErrRefused)
				refused++
			}
			continue
		case kind == 2 || len(p.Lines) == 0: // another part
			slot := slots[r.IntN(len(slots))]
			part := &parts.Part{ID: fmt.Sprint("part-", r.IntN(40)), Slot: slot, Name: fmt.Sprint("Part ", n), Price: money.New(1000+r.Int64N(9000), "EUR")}
			p = p.With(plan.Choice{Slot: slot, Part: part, Decision: []plan.Decision{"", plan.Undecided, plan.Ordered, plan.OnTheBike}[r.IntN(4)]})
		case kind == 3: // one that lies at home
			offered := garage.Untaken(garage.Offered(things), p.Lines)
			if len(offered) == 0 {
				continue
			}
			part := offered[r.IntN(len(offered))]
			p = p.With(plan.Choice{Slot: part.Slot, Part: part, Decision: []plan.Decision{"", plan.OnTheBike}[r.IntN(2)]})
		case kind < 6: // a line is decided otherwise
			at := r.IntN(len(p.Lines))
			changed := *p
			changed.Lines = append([]plan.Line(nil), p.Lines...)
			l := &changed.Lines[at]
			l.Decision = []plan.Decision{plan.Owned, plan.OnTheBike, plan.AtHome, plan.Sold}[r.IntN(4)]
			if l.Decision == plan.Sold {
				l.Back = money.New(r.Int64N(4000), "EUR")
			}
			p = &changed
		default: // what is so is taken over
			p = garage.Taken(p, garage.Differs(things, p))
			require.Empty(t, garage.Differs(things, p), "step %d", n)
			require.Empty(t, p.Validate(), "step %d", n)
			plans[bike] = p
			continue
		}
		if len(p.Validate()) > 0 { // it would be refused
			refused++
			continue
		}
		s := g.Settle(plans[bike].Lines, p.Lines, garage.Moment{Act: id, Bike: bike, Day: "2026-11-20"})
		for _, thing := range s.Put {
			if _, there := g.Held(thing.ID); !there {
				g.Add(thing) // one whose act is refused was never had
			}
		}
		if err := g.Do(s.Act); err != nil {
			require.ErrorIs(t, err, garage.ErrRefused, "step %d", n)
			refused++
			continue
		}
		for _, thing := range s.Put {
			g.Add(thing)
		}
		changed := *p
		changed.Lines = s.Lines
		plans[bike] = &changed
		moved += len(s.Act)
	}
	assert.Greater(t, moved, 200)
	assert.NotZero(t, refused)
	var ledgers, things int64
	for bike, p := range plans {
		p = garage.Taken(p, garage.Differs(g.All(), p))
		require.Empty(t, p.Validate())
		for i := range p.Lines {
			l := &p.Lines[i]
			if l.Thing == "" || l.Source == plan.Had {
				continue
			}
			require.True(t, l.Costs(), "%s: %s", l.Title(), l.Decision)
			ledgers += p.CostOf(l).Minor()
			ledgers -= l.Back.Minor()
		}
		assert.Equal(t, bike, p.Garage)
	}
	for _, h := range g.All() {
		sum := g.Money(h.ID)
		for _, a := range sum.Spent {
			things += a.Minor()
		}
		for _, a := range sum.Back {
			things -= a.Minor()
		}
	}
	assert.Equal(t, things, ledgers)
}
