package web_test

import (
	"crypto/rand"
	"fmt"
	"io"
	"math"
	"net/http"
	"net/http/httptest"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/studytest"
	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

// BenchmarkPage is each page behind the whole handler, compressed, made anew each time.
func BenchmarkPage(b *testing.B) { everyPage(b, webtest.New(b)) }

// BenchmarkKeptPage is the same from the memo.
func BenchmarkKeptPage(b *testing.B) { everyPage(b, webtest.Of(b, web.Options{Kept: 24 << 20})) }

func everyPage(b *testing.B, s *webtest.Site) {
	v, path := s.Demo(b)
	for _, page := range webtest.PageIDs() {
		b.Run(page, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				v.Page(fmt.Sprintf("%s/%s?loadout=travel", path, page))
			}
		})
	}
}

// BenchmarkPreviewAllTyres is a stage that holds every tyre against the plan.
func BenchmarkPreviewAllTyres(b *testing.B) {
	s := webtest.New(b)
	v, path := s.Demo(b)
	for b.Loop() {
		v.Page(path + "/tyres?loadout=travel&all=1&try=" + string(parts.RearTyre) + ":wether-130-80-18")
	}
}

// BenchmarkFiftyRiders is fifty riders with a page a second each, from a process of
// their own; it reports the middle and the slowest hundredth of the answers, and the latter
// in medians of what one rider alone waits for the same pages in the same run. The target is
// six of those.
func BenchmarkFiftyRiders(b *testing.B) {
	s := webtest.Of(b, web.Options{Kept: 24 << 20})
	v, path := s.Demo(b)
	var pages []string
	for _, page := range []string{"/brief", "/bike", "/tyres?try=rear-tyre:wether-130-80-18", "/inside", "/pressures", "/gearing?try=rear-sprocket:rear-h6-47", "/chain", "/pull", "/spend", "/working/cost"} {
		v.Page(path + page)
		pages = append(pages, s.URL+path+page)
	}
	for b.Loop() {
		alone := ridersOf(b, crowd{Riders: 1, Pages: pages, Answers: 100, Every: 50 * time.Millisecond, Cookies: cookies(v)})
		took := ridersOf(b, crowd{Riders: 50, Pages: pages, Answers: 10, Every: time.Second, Cookies: cookies(v)})
		b.ReportMetric(float64(took[len(took)*99/100])/float64(alone[len(alone)/2]), "p99/alone")
		b.ReportMetric(float64(alone[len(alone)/2].Microseconds())/1000, "ms-alone")
		b.ReportMetric(float64(took[len(took)/2].Microseconds())/1000, "ms-median")
		b.ReportMetric(float64(took[len(took)*99/100].Microseconds())/1000, "ms-p99")
	}
}

// BenchmarkSaturation is as many pages as the machine gives to a process that asks
// for them without a pause, beside a bare handler that compresses and sends the same
// bytes. The share is what is left of the bare handler's.
func BenchmarkSaturation(b *testing.B) {
	made, kept := webtest.New(b), webtest.Of(b, web.Options{Kept: 24 << 20})
	rate := func(address string, v *webtest.Visitor) float64 {
		start := time.Now()
		took := ridersOf(b, crowd{Riders: 8, Pages: []string{address}, Answers: 60, Cookies: cookies(v)})
		return float64(len(took)) / time.Since(start).Seconds()
	}
	v, path := made.Demo(b)
	page := v.Page(path + "/tyres")
	compress, err := web.Compress()
	require.NoError(b, err)
	bare := httptest.NewServer(compress(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		_, _ = io.WriteString(w, page)
	})))
	defer bare.Close()
	k, kpath := kept.Demo(b)
	k.Page(kpath + "/tyres")
	for b.Loop() {
		most := rate(bare.URL, v)
		b.ReportMetric(most, "bare/s")
		b.ReportMetric(100*rate(made.URL+path+"/tyres", v)/most, "%-made")
		b.ReportMetric(100*rate(kept.URL+kpath+"/tyres", k)/most, "%-kept")
	}
}

// BenchmarkHover is pointing at a tyre: the parts that follow it. The target is a third
// of what the whole page takes, and 40 kB before compression.
func BenchmarkHover(b *testing.B) {
	s := webtest.New(b)
	v, path := s.Demo(b)
	hover := path + "/tyres?loadout=travel&try=" + string(parts.RearTyre) + ":wether-130-80-18"
	b.Run("parts", func(b *testing.B) {
		bytes, since := 0, cpu(b)
		for b.Loop() {
			bytes = len(v.Parts(hover, "bench", "tabs", "lineup"))
		}
		b.ReportMetric(float64(bytes), "bytes")
		b.ReportMetric(float64(cpu(b)-since)/float64(b.N), "cpu-ns/op")
	})
	b.Run("whole", func(b *testing.B) {
		since := cpu(b)
		for b.Loop() {
			v.Page(hover)
		}
		b.ReportMetric(float64(cpu(b)-since)/float64(b.N), "cpu-ns/op")
	})
}

// BenchmarkHandler is what the handler itself uses, without a client: a page that is kept,
// and pointing at a tyre. It is compared with the commit before in one run.
func BenchmarkHandler(b *testing.B) {
	s := webtest.Of(b, web.Options{Kept: 24 << 20})
	v, path := s.Demo(b)
	run := func(name, page string, ids ...string) {
		b.Run(name, func(b *testing.B) {
			r := with(v, path+page)
			r.Header.Set("Accept-Encoding", "gzip")
			if len(ids) > 0 {
				r.Header.Set(desk.PartsHeader, strings.Join(ids, ","))
			}
			since := cpu(b)
			for b.Loop() {
				answer := httptest.NewRecorder()
				s.Handler.ServeHTTP(answer, r)
				require.Equal(b, http.StatusOK, answer.Code)
			}
			b.ReportMetric(float64(cpu(b)-since)/float64(b.N), "cpu-ns/op")
		})
	}
	run("kept-tyres", "/tyres?loadout=travel")
	run("kept-range", "/range?loadout=travel")
	made := webtest.New(b)
	s = made
	v, path = made.Demo(b)
	run("hover", "/tyres?loadout=travel&try="+string(parts.RearTyre)+":wether-130-80-18", "bench", "tabs", "lineup")
	run("made", "/tyres?loadout=travel")
}

// cpu is what this process has used so far; waiting for the database does not count.
func cpu(b *testing.B) time.Duration {
	var used syscall.Rusage
	require.NoError(b, syscall.Getrusage(syscall.RUSAGE_SELF, &used))
	return time.Duration(used.Utime.Nano() + used.Stime.Nano())
}

// BenchmarkManyFills is the page of a log of five thousand; the target is 60 ms.
func BenchmarkManyFills(b *testing.B) {
	s := webtest.New(b)
	v, path := s.Demo(b)
	manyFills(b, s, path)
	for b.Loop() {
		v.Page(path + "/fills")
	}
}

// manyFills fills the log of a plan.
func manyFills(tb testing.TB, s *webtest.Site, path string) {
	tb.Helper()
	rider, err := s.Store.RiderByName(tb.Context(), demo.Rider)
	require.NoError(tb, err)
	id := strings.TrimPrefix(path, "/plans/")
	head, err := s.Store.Plan(tb.Context(), rider.ID, id)
	require.NoError(tb, err)
	like := head.Plan.ReadingsOf(logbook.FillReading)[1]
	day := time.Date(2010, 1, 1, 0, 0, 0, 0, time.UTC)
	var list []logbook.Reading
	for i := range logbook.MaxReadings - len(head.Plan.Readings) {
		r, fill := like, *like.Fill()
		r.ID, r.On, r.Read = rand.Text(), day.AddDate(0, 0, i).Format(time.DateOnly), &fill
		require.NoError(tb, fill.Trip.Enter(strconv.Itoa(200+i%90), "km"))
		require.NoError(tb, fill.Odometer.Enter("", "km"))
		list = append(list, r)
	}
	_, err = s.Store.AddReadings(tb.Context(), rider.ID, id, list)
	require.NoError(tb, err)
}

// BenchmarkLongLog is each page with a log of 400 days of the trip and 3000 fills, in what it costs with the demo's own in the
// same run, the least of five of either. The target is 2.
func BenchmarkLongLog(b *testing.B) {
	demonstrated, long := webtest.New(b), webtest.New(b)
	v, path := demonstrated.Demo(b)
	w, at := long.Demo(b)
	rider, err := long.Store.RiderByName(b.Context(), demo.Rider)
	require.NoError(b, err)
	id := strings.TrimPrefix(at, "/plans/")
	head, err := long.Store.Plan(b.Context(), rider.ID, id)
	require.NoError(b, err)
	_, err = long.Store.AddReadings(b.Context(), rider.ID, id, studytest.LongLog(b, head.Plan, 400, 3000))
	require.NoError(b, err)
	least := func(v *webtest.Visitor, page string) float64 {
		best := math.Inf(1)
		for range 5 {
			start := cpu(b)
			for range 4 {
				v.Page(page)
			}
			best = min(best, float64(cpu(b)-start))
		}
		return best
	}
	for _, page := range webtest.PageIDs() {
		b.Run(page, func(b *testing.B) {
			for b.Loop() {
				of := least(v, path+"/"+page+"?loadout=travel")
				b.ReportMetric(least(w, at+"/"+page+"?loadout=travel")/of, "x-demo")
			}
		})
	}
}

// BenchmarkFullGarage is the garage of a rider with two hundred plans; the target is 20 ms.
func BenchmarkFullGarage(b *testing.B) {
	s := webtest.New(b)
	v, path := s.Demo(b)
	rider, err := s.Store.RiderByName(b.Context(), demo.Rider)
	require.NoError(b, err)
	head, err := s.Store.Plan(b.Context(), rider.ID, strings.TrimPrefix(path, "/plans/"))
	require.NoError(b, err)
	for range 200 {
		_, err := s.Store.CreatePlan(b.Context(), rider.ID, head.Plan, "Another")
		require.NoError(b, err)
	}
	for b.Loop() {
		v.Page("/garage")
	}
}
