package desk

import (
	"context"
	"net/http"
	"sync"

	"github.com/go-chi/chi/v5"
	"github.com/maypok86/otter/v2"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
	"valiantmule/internal/words"
)

// dossierOf is which plan a request is about, or which bike by itself.
func dossierOf(r *http.Request) (store.Kind, string) {
	if bike := chi.URLParam(r, "bike"); bike != "" {
		return store.OfBike, bike
	}
	return store.OfPlan, chi.URLParam(r, "plan")
}

// opened is a plan as it was read, with what was worked out for it. Many requests share
// one: nobody writes to what is in it, a change is a copy.
type opened struct {
	*store.Snapshot
	shelf  plan.Shelf // with the plan's own parts
	day    string
	news   *store.News   // of its bike, nil for none
	things *store.Things // all of the rider's

	lock    sync.Mutex
	benches map[string]*eval.Bench // by loadout
}

// openedKey is all that an opened plan follows from.
type openedKey struct{ rider, plan, version, shelf, day string }

// openedMax is how many plans are kept open. Pointing at one option after another looks
// at the same, and reads it once; one takes some 200 kB, the largest a megabyte or two.
const openedMax = 32

func newOpened() *otter.Cache[openedKey, *opened] {
	return otter.Must(&otter.Options[openedKey, *opened]{MaximumSize: openedMax})
}

// look opens the plan of a request. An answer that is to be kept follows from just that.
func (s *House) look(r *http.Request) (*opened, error) {
	rider := s.Rider(r)
	_, id := dossierOf(r)
	k, ok := r.Context().Value(keptKey{}).(*keptAnswer)
	if !ok {
		var err error
		if k, err = s.versions(r); err != nil {
			return nil, err
		}
	}
	key := openedKey{rider, id, k.plan, k.shelf, Today()}
	if o, ok := s.opened.GetIfPresent(key); ok {
		return o, nil
	}
	snapshot, err := s.Store.Plan(r.Context(), rider, id)
	if err != nil {
		return nil, err
	}
	news, err := s.Store.News(r.Context(), rider, snapshot)
	if err != nil {
		return nil, err
	}
	things, err := s.Things(r.Context(), rider, snapshot)
	if err != nil {
		return nil, err
	}
	shelf, version, err := s.Store.Shelf(r.Context())
	if err != nil {
		return nil, err
	}
	if k.plan != snapshot.Version || k.shelf != version { // changed since it was asked for
		k.key, key.version, key.shelf = sum{}, snapshot.Version, version
	}
	return s.keepOpen(key, snapshot, shelf, news, things), nil
}

// Snapshot is the plan of a request, or the bike by itself, as it was read: nothing is worked out.
func (s *House) Snapshot(r *http.Request) (*store.Snapshot, error) {
	o, err := s.look(r)
	if err != nil {
		return nil, err
	}
	return o.Snapshot, nil
}

// keepOpen keeps a plan that was read.
func (s *House) keepOpen(key openedKey, snapshot *store.Snapshot, shelf plan.Shelf, news *store.News, things *store.Things) *opened {
	o := newOpen(snapshot, shelf, news, things, key.day)
	s.opened.Set(key, o)
	return o
}

// newOpen is a plan with all that can go on its bike: the shelf, its own parts, and what lies at home.
func newOpen(snapshot *store.Snapshot, shelf plan.Shelf, news *store.News, things *store.Things, day string) *opened {
	snapshot = stood(snapshot, things)
	shelf = append(snapshot.Plan.WithOwn(shelf), garage.Untaken(things.Offered, snapshot.Plan.Lines)...)
	return &opened{Snapshot: snapshot, shelf: shelf, day: day, news: news, things: things, benches: map[string]*eval.Bench{}}
}

// DeskOf is a rider's plan that was read on a desk of its own, in a loadout; it stays open.
func (s *House) DeskOf(ctx context.Context, rider string, snapshot *store.Snapshot, shelf plan.Shelf, version, loadout string, units words.Units) (*Desk, error) {
	key := openedKey{rider, snapshot.ID, snapshot.Version, version, Today()}
	o, ok := s.opened.GetIfPresent(key)
	things, err := s.Things(ctx, rider, snapshot)
	if err != nil {
		return nil, err
	}
	if !ok && snapshot.Behind() { // of which nobody has looked what
		o = newOpen(snapshot, shelf, nil, things, key.day)
	} else if !ok {
		o = s.keepOpen(key, snapshot, shelf, nil, things)
	}
	b, err := o.bench(loadout)
	if err != nil {
		return nil, err
	}
	d := &Desk{Snapshot: o.Snapshot, Things: things, Shelf: shelf, Loadout: loadout, Units: units, AsOf: o.day, On: b, Report: b.Report(), house: s}
	d.After = d.Report
	return d, nil
}

// bench is the plan worked out in one of its loadouts.
func (o *opened) bench(loadout string) (*eval.Bench, error) {
	o.lock.Lock()
	defer o.lock.Unlock()
	if b, ok := o.benches[loadout]; ok {
		return b, nil
	}
	b, err := eval.NewBench(o.Plan, o.shelf, loadout, o.day)
	if err == nil {
		o.benches[loadout] = b
	}
	return b, err
}
