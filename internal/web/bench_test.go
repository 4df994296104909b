package web_test

import (
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"slices"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/web"
)

// BenchmarkPage is each page behind the whole handler, compressed, made anew each time.
func BenchmarkPage(b *testing.B) { everyPage(b, newSite(b)) }

// BenchmarkKeptPage is the same from the memo.
func BenchmarkKeptPage(b *testing.B) { everyPage(b, siteOf(b, web.Options{Kept: 24 << 20})) }

func everyPage(b *testing.B, s *site) {
	v, path := s.demo(b)
	for _, page := range pageIDs() {
		b.Run(page, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				v.page(fmt.Sprintf("%s/%s?loadout=travel", path, page))
			}
		})
	}
}

// BenchmarkPreviewAllTyres is a stage that holds every tyre against the plan.
func BenchmarkPreviewAllTyres(b *testing.B) {
	s := newSite(b)
	v, path := s.demo(b)
	for b.Loop() {
		v.page(path + "/tyres?loadout=travel&all=1&try=" + string(plan.RearTyre) + ":wether-130-80-18")
	}
}

// BenchmarkFiftyRiders is fifty riders with a page a second each; it reports the
// middle and the slowest hundredth of the answers.
func BenchmarkFiftyRiders(b *testing.B) {
	s := siteOf(b, web.Options{Kept: 24 << 20})
	first, path := s.demo(b)
	pages := []string{"/brief", "/bike", "/tyres?try=rear-tyre:wether-130-80-18", "/inside", "/pressures", "/gearing?try=rear-sprocket:rear-h6-47", "/chain", "/pull", "/spend", "/working/cost"}
	for _, page := range pages {
		first.page(path + page)
	}
	const riders, seconds = 50, 10
	for b.Loop() {
		var lock sync.Mutex
		var took []time.Duration
		var all sync.WaitGroup
		for rider := range riders {
			all.Go(func() {
				time.Sleep(time.Second * time.Duration(rider) / riders) // they do not all come at once
				tick := time.NewTicker(time.Second)
				defer tick.Stop()
				for n := range seconds {
					start := time.Now()
					first.page(path + pages[(rider+n)%len(pages)])
					lock.Lock()
					took = append(took, time.Since(start))
					lock.Unlock()
					<-tick.C
				}
			})
		}
		all.Wait()
		slices.Sort(took)
		b.ReportMetric(float64(took[len(took)/2].Microseconds())/1000, "ms-median")
		b.ReportMetric(float64(took[len(took)*99/100].Microseconds())/1000, "ms-p99")
	}
}

// BenchmarkSaturation is as many pages as the machine gives, beside a bare
// handler that sends the same bytes.
func BenchmarkSaturation(b *testing.B) {
	s := newSite(b)
	v, path := s.demo(b)
	page := v.page(path + "/tyres")
	bare := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		_, _ = io.WriteString(w, page)
	}))
	defer bare.Close()
	for name, address := range map[string]string{"tyres": s.URL + path + "/tyres", "bare": bare.URL} {
		b.Run(name, func(b *testing.B) {
			b.RunParallel(func(pb *testing.PB) {
				for pb.Next() {
					answer, err := v.client.Get(address)
					require.NoError(b, err)
					_, err = io.Copy(io.Discard, answer.Body)
					require.NoError(b, err)
					require.NoError(b, answer.Body.Close())
				}
			})
		})
	}
}

// BenchmarkHover is pointing at a tyre: the parts that follow it. The target is a third
// of what the whole page takes, and 40 kB before compression.
func BenchmarkHover(b *testing.B) {
	s := newSite(b)
	v, path := s.demo(b)
	hover := path + "/tyres?loadout=travel&try=" + string(plan.RearTyre) + ":wether-130-80-18"
	b.Run("parts", func(b *testing.B) {
		bytes, since := 0, cpu(b)
		for b.Loop() {
			bytes = len(v.parts(hover, "bench", "tabs", "lineup"))
		}
		b.ReportMetric(float64(bytes), "bytes")
		b.ReportMetric(float64(cpu(b)-since)/float64(b.N), "cpu-ns/op")
	})
	b.Run("whole", func(b *testing.B) {
		since := cpu(b)
		for b.Loop() {
			v.page(hover)
		}
		b.ReportMetric(float64(cpu(b)-since)/float64(b.N), "cpu-ns/op")
	})
}

// cpu is what this process has used so far; waiting for the database does not count.
func cpu(b *testing.B) time.Duration {
	var used syscall.Rusage
	require.NoError(b, syscall.Getrusage(syscall.RUSAGE_SELF, &used))
	return time.Duration(used.Utime.Nano() + used.Stime.Nano())
}
