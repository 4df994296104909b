package desk

import (
	"context"
	"errors"
	"net/url"
	"strings"

	"github.com/maypok86/otter/v2"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/store"
)

// thingsKey is what the parts of a rider follow from.
type thingsKey struct {
	rider   string
	version int
}

// thingsMax is how many riders' parts are kept; three hundred take some 300 kB.
const thingsMax = 64

func newThings() *otter.Cache[thingsKey, *store.Things] {
	return otter.Must(&otter.Options[thingsKey, *store.Things]{MaximumSize: thingsMax})
}

// Things are all parts of a rider's own as a snapshot of theirs saw them, or later.
func (s *House) Things(ctx context.Context, rider string, snapshot *store.Snapshot) (*store.Things, error) {
	if snapshot.Moves == 0 {
		return &store.Things{Garage: noThings}, nil
	}
	key := thingsKey{rider, snapshot.Moves}
	if t, ok := s.things.GetIfPresent(key); ok {
		return t, nil
	}
	t, err := s.Store.Things(ctx, rider)
	if err != nil {
		return nil, err
	}
	s.things.Set(thingsKey{rider, t.Version}, t)
	return t, nil
}

var noThings, _ = garage.New(nil, nil, nil)

// stood is a snapshot as it is with things: a bike by itself stands with what is on it.
func stood(snapshot *store.Snapshot, things *store.Things) *store.Snapshot {
	if snapshot.Kind != store.OfBike || snapshot.Moves == 0 {
		return snapshot
	}
	standing := *snapshot
	standing.Plan = garage.Standing(snapshot.Plan, things.All())
	return &standing
}

// Parted are the things of which the plan's lines say something else than is so.
func (d *Desk) parted() []garage.News {
	if d.Kind == store.OfBike {
		return nil
	}
	return garage.Differs(d.Things.All(), d.Plan)
}

// AlsoCounted are the names of the rider's other plans that count on things which this one counts on too, by thing.
func (d *Desk) AlsoCounted(ctx context.Context) (map[string][]string, error) {
	var things []string
	for _, l := range d.Plan.Lines {
		if l.Thing != "" && l.Standing() == plan.In && l.Decision != plan.OnTheBike {
			things = append(things, l.Thing)
		}
	}
	if len(things) == 0 || !d.Wants("main") {
		return nil, nil
	}
	list, err := d.house.Store.Counting(ctx, d.rider, things)
	names := map[string][]string{}
	for _, c := range list {
		if c.Plan != d.ID {
			names[c.Thing] = append(names[c.Thing], "“"+c.Name+"”")
		}
	}
	return names, err
}

// When parts move by a form: the day, and what the odometer shows then. What is not typed is today and what
// the plan knows.
type When struct {
	Day      string
	Odometer unit.Length
}

// WhenOf reads it; problems stand beside their fields.
func (d *Desk) WhenOf(form url.Values, errs FormErrors) (w When) {
	var err error
	if w.Day, err = d.Units.Date(strings.TrimSpace(form.Get("moved_on"))); err != nil {
		errs["moved_on"] = err.Error()
	}
	if err := d.Units.Enter(&w.Odometer, form.Get("moved_at"), "km"); err != nil {
		errs["moved_at"] = err.Error()
	} else if b := d.Plan.Bike; w.Odometer.Known() && !(w.Odometer.Base() >= 0 && w.Odometer.In("km") < 3e6) {
		errs["moved_at"] = "is no odometer's"
	} else if b != nil && w.Odometer.Known() && b.Odometer.Known() && w.Day == "" && w.Odometer.Base() < b.Odometer.Base() {
		errs["moved_at"] = "is less than the " + d.Units.Shown(b.Odometer.String()) + " that the odometer showed before: say on which day"
	}
	return w
}

// Ran is a plan whose bike's odometer shows what a form says of when parts moved, where that is further.
func (w When) Ran(p *plan.Plan, today string) *plan.Plan {
	if p.Bike == nil || !w.Odometer.Known() || p.Bike.Odometer.Known() && w.Odometer.Base() <= p.Bike.Odometer.Base() {
		return p
	}
	day := w.Day
	if day == "" {
		day = today
	}
	return p.Taking(p.Machine.Ran(day, w.Odometer))
}

// refusedBy is a refusal of the garage's in words, "" for another error.
func refusedBy(err error) string {
	var refusal *garage.Refusal
	if errors.As(err, &refusal) {
		return refusal.Error()
	}
	return ""
}
