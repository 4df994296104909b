package main

import (
	"context"
	crand "crypto/rand"
	"flag"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/demo"
	"valiantmule/internal/store"
)

// make kill sets both.
var (
	kills = flag.Int("kills", 7, "how often TestKilled kills something")
	seed  = flag.Uint64("seed", 7, "of the moments at which it does")
)

// written is what the server has acknowledged of a stream of changes.
type written struct {
	saves   map[string]bool // distances
	moves   map[string]bool // acts by which a part changes places
	reads   map[string]bool // ids of fills and of days
	answers map[string]bool // ids of their revisions
	bike    string          // the path of the bike by itself
	parts   [2]string       // those of two parts for one place
}

func (w written) count() int { return len(w.saves) + len(w.moves) + len(w.reads) + len(w.answers) }

// change makes one of the changes of the stream, the n-th; true when it was acknowledged.
func (w written) change(r *rider, at *running, n int) bool {
	answered := func(of, check string) bool {
		id := crand.Text()
		_, to, err := r.post(at, of+"/baseline/answer", url.Values{"id": {id}, "check": {check}, "verdict": {"good"}, "note": {fmt.Sprint("look ", n)}})
		if err != nil || !strings.Contains(to, "kept="+id) {
			return false
		}
		w.answers[id] = true
		return true
	}
	read := func(page string, form url.Values) bool {
		id := crand.Text()
		form.Set("id", id)
		form.Set("note", fmt.Sprint("read ", n))
		_, to, err := r.post(at, r.plan+page, form)
		if err != nil || !strings.Contains(to, "kept="+id) {
			return false
		}
		w.reads[id] = true
		return true
	}
	switch n % 6 {
	case 4: // one of two lamps goes on the bike or comes off, and of two for one place the other makes room
		id := crand.Text()
		to := "on:" + strings.TrimPrefix(w.bike, "/bikes/")
		if n%12 == 4 {
			to = "home"
		}
		_, at, err := r.post(at, w.parts[n/12%2]+"/move", url.Values{"save": {id}, "to": {to}, "room": {"on"}, "text": {fmt.Sprint("move ", n)}})
		if err != nil || !strings.HasPrefix(at, "/parts/") {
			return false
		}
		w.moves[id] = true
	case 0:
		return read("/fills", url.Values{"on": {"2027-05-01"}, "litres": {"11"}, "odometer": {fmt.Sprint(30_000 + n)}, "by": {"odometer"}})
	case 5: // with the first of them, what is foretold of the trip
		return read("/log", url.Values{"on": {"2027-05-01"}, "distance": {"140 km"}, "by": {"trip-meter"}, "litres": {"7"}})
	case 1: // of the plan, and of its bike
		return answered(r.plan, "frame")
	case 2: // of the bike by itself
		return answered(w.bike, "leaks")
	default:
		if !r.save(at, n) {
			return false
		}
		w.saves[fmt.Sprintf("%d km", n)] = true
	}
	return true
}

// TestKilled kills server, database and migrations at seeded moments under a stream of
// saves, fills, days and answers: whatever was acknowledged is there, once, and whole. Its last line
// is what make kill reports.
func TestKilled(t *testing.T) {
	if testing.Short() {
		t.Skip("kills a database")
	}
	h := newHouse(t)
	st, err := store.Open(h.dsn)
	require.NoError(t, err)
	defer st.Close()
	st.Limit(store.Quotas{Plans: 99, Bikes: 99, Revisions: 1 << 30, Readings: 1 << 30, Tracks: 9, Things: 1 << 20, Bytes: 1 << 40})
	require.NoError(t, demo.Load(context.Background(), st))
	server := h.serve("-revisions", "100000000", "-megabytes", "1000000")
	r := newRider(t, server)
	_, page, err := r.get(server, r.plan+"/bike")
	require.NoError(t, err)
	status, _, err := r.post(server, r.plan+"/choose", url.Values{"base": {baseField.FindStringSubmatch(page)[1]}, "bike": {"holt-650"}})
	require.NoError(t, err)
	require.Equal(t, http.StatusSeeOther, status)

	random := rand.New(rand.NewPCG(*seed, 11))
	_, page, err = r.get(server, r.plan+"/sheet")
	require.NoError(t, err)
	done := written{map[string]bool{}, map[string]bool{}, map[string]bool{}, map[string]bool{}, regexp.MustCompile(`/bikes/[A-Z0-9]+`).FindString(page), [2]string{}}
	require.NotEmpty(t, done.bike)
	for i := range done.parts {
		_, done.parts[i], err = r.post(server, "/parts", url.Values{"kind": {"rear-sprocket"}, "name": {fmt.Sprint("Sprocket ", i)}})
		require.NoError(t, err)
		require.Contains(t, done.parts[i], "/parts/")
	}
	n := 100
	for round := range *kills {
		deadline := time.After(time.Duration(50+random.IntN(350)) * time.Millisecond)
		killed := make(chan struct{})
		go func() {
			defer close(killed)
			<-deadline
			switch round % 3 {
			case 0:
				_ = server.command.Process.Kill()
			case 1:
				h.killDatabase()
			default:
				migration := exec.Command(h.program, "migrate")
				migration.Env = append(os.Environ(), "MULE_DSN="+h.dsn)
				if migration.Start() == nil {
					time.Sleep(time.Duration(random.IntN(60)) * time.Millisecond) // the moment is what is tried
					_ = migration.Process.Kill()
					_ = migration.Wait()
				}
			}
		}()
		for alive := true; alive; {
			n++
			done.change(r, server, n)
			select {
			case <-killed:
				alive = false
			default:
			}
		}
		switch round % 3 {
		case 0:
			_ = server.command.Wait() // killed
			server = h.serve("-revisions", "100000000", "-megabytes", "1000000")
		case 1:
			h.startDatabase()
		}
		require.Eventually(t, func() bool { n++; return done.change(r, server, n) }, time.Minute, 20*time.Millisecond, "it goes on, signed in as before")
		if (round+1)%100 == 0 {
			t.Logf("%d kills, %d acknowledged", round+1, done.count())
		}
	}
	server.stop(t)

	planID := strings.TrimPrefix(r.plan, "/plans/")
	bikeID := strings.TrimPrefix(done.bike, "/bikes/")
	lost := done.missing(t, st, planID, bikeID)
	assert.Greater(t, done.count(), *kills)
	assert.Empty(t, lost)
	// What was kept twice is a revision that says what the one before it said, or something read
	// that is there under two ids.
	var doubled int
	require.NoError(t, st.DB().Get(&doubled, `
		SELECT (SELECT COUNT(*) FROM revisions r JOIN revisions p ON p.id = r.parent_id WHERE r.dossier_id IN (?, ?) AND CAST(p.document AS BINARY) = CAST(r.document AS BINARY))
			+ (SELECT COUNT(JSON_VALUE(document, '$.note')) - COUNT(DISTINCT JSON_VALUE(document, '$.note')) FROM readings WHERE log_id = ?)`, planID, bikeID, bikeID))
	assert.Zero(t, doubled)
	var foretold int
	require.NoError(t, st.DB().Get(&foretold, `SELECT COUNT(*) FROM readings WHERE log_id = ? AND JSON_VALUE(document, '$.kind') = ?`, bikeID, logbook.Foretelling))
	assert.Equal(t, 1, foretold, "with the first day of the trip, and once")
	// What a plan wrote to its bike is there whole or not at all: the bike's head says what the
	// latest of either said, and each of the plan's has its revision of the bike.
	var torn int
	require.NoError(t, st.DB().Get(&torn, `SELECT COUNT(*) FROM revisions p LEFT JOIN revisions b ON b.id = p.wrote_id AND b.dossier_id = p.bike_id WHERE p.dossier_id = ? AND p.wrote_id IS NOT NULL AND b.id IS NULL`, planID))
	assert.Zero(t, torn)
	// A part is in one place, and of two for one place one is on the bike: all that happened can be folded anew.
	who, err := st.RiderByName(context.Background(), "Rook")
	require.NoError(t, err)
	things, err := st.Things(context.Background(), who.ID)
	require.NoError(t, err)
	assert.LessOrEqual(t, len(things.OnBike(bikeID)), 1)
	fmt.Printf("%d kills, %d acknowledged, %d lost, %d doubled\n", *kills, done.count(), len(lost), doubled)
}

// missing is what was acknowledged and is not there.
func (w written) missing(t *testing.T, st *store.Store, planID, bikeID string) (lost []string) {
	t.Helper()
	ctx := context.Background()
	there := map[string]bool{}
	var revisions []struct{ ID, Distance string }
	require.NoError(t, st.DB().SelectContext(ctx, &revisions, `SELECT id, COALESCE(JSON_VALUE(document, '$.brief.distance'), '') AS distance FROM revisions WHERE dossier_id IN (?, ?)`, planID, bikeID))
	for _, r := range revisions {
		there[r.ID], there[r.Distance] = true, true
	}
	var acts []string
	require.NoError(t, st.DB().SelectContext(ctx, &acts, `SELECT act_id FROM moves`))
	for _, id := range acts {
		there[id] = true
	}
	var readings []string
	require.NoError(t, st.DB().SelectContext(ctx, &readings, `SELECT id FROM readings WHERE log_id = ?`, bikeID))
	for _, id := range readings {
		there[id] = true
	}
	for _, kind := range []map[string]bool{w.saves, w.moves, w.reads, w.answers} {
		for what := range kind {
			if !there[what] {
				lost = append(lost, what)
			}
		}
	}
	who, err := st.RiderByName(ctx, "Rook")
	require.NoError(t, err)
	for _, id := range []string{planID, bikeID} {
		list, err := st.History(ctx, who.ID, id, 500, 0)
		require.NoError(t, err)
		for _, revision := range list {
			assert.Empty(t, revision.After.Validate(), "whole")
		}
	}
	return lost
}
