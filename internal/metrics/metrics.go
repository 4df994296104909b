// Package metrics counts what a server does, for programs that watch it. What it says is for
// the machine that it runs on.
package metrics

import (
	"database/sql"
	"net/http"
	"net/http/pprof"
	"strconv"
	"time"
	"valiantmule/internal/loopback"

	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// Metrics of one server. It is what [valiantmule/internal/web.Options] calls a meter.
type Metrics struct {
	registry *prometheus.Registry
	requests *prometheus.HistogramVec
	answers  *prometheus.CounterVec
}

// Bounds of the histogram, in seconds: a page takes some milliseconds, and the database is
// given up after three seconds.
var bounds = []float64{0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 3, 10}

// New counts nothing yet but what the runtime and the process take, and the pool of
// connections.
func New(db *sql.DB) *Metrics {
	m := &Metrics{
		registry: prometheus.NewRegistry(),
		requests: prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "mule_request_seconds", Help: "Requests by method, route and status, and how long each took.", Buckets: bounds}, []string{"method", "route", "status"}),
		answers:  prometheus.NewCounterVec(prometheus.CounterOpts{Name: "mule_answers_total", Help: "Pages of plans: made anew, kept here, or kept by the browser and unchanged."}, []string{"how"}),
	}
	m.registry.MustRegister(m.requests, m.answers, collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}), collectors.NewDBStatsCollector(db, "mule"))
	return m
}

// Request counts one that took so long. Routes are patterns, so there are few; a method may be
// any word that somebody sends.
func (m *Metrics) Request(method, route string, status int, took time.Duration) {
	switch method {
	case http.MethodGet, http.MethodHead, http.MethodPost:
	default:
		method = "other"
	}
	m.requests.WithLabelValues(method, route, strconv.Itoa(status)).Observe(took.Seconds())
}

// Answer counts a page by how it came: "made", "kept" or "unchanged".
func (m *Metrics) Answer(how string) { m.answers.WithLabelValues(how).Inc() }

// Count shows a number that only grows, and is counted elsewhere.
func (m *Metrics) Count(name, help string, read func() int64) {
	m.registry.MustRegister(prometheus.NewCounterFunc(prometheus.CounterOpts{Name: name, Help: help}, func() float64 { return float64(read()) }))
}

// Gauge shows a number that comes and goes.
func (m *Metrics) Gauge(name, help string, read func() int64) {
	m.registry.MustRegister(prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, func() float64 { return float64(read()) }))
}

// Handler answers /metrics and /debug/pprof.
func (m *Metrics) Handler() http.Handler {
	mux := http.NewServeMux()
	mux.Handle("GET /metrics", promhttp.HandlerFor(m.registry, promhttp.HandlerOpts{}))
	mux.HandleFunc("GET /debug/pprof/", pprof.Index)
	mux.HandleFunc("GET /debug/pprof/cmdline", pprof.Cmdline)
	mux.HandleFunc("GET /debug/pprof/profile", pprof.Profile)
	mux.HandleFunc("GET /debug/pprof/symbol", pprof.Symbol)
	mux.HandleFunc("GET /debug/pprof/trace", pprof.Trace)
	// A page elsewhere can have this machine's own browser ask by a name that leads here.
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !loopback.Is(r.Host) {
			http.Error(w, "Ask by an address of this machine.", http.StatusMisdirectedRequest)
			return
		}
		mux.ServeHTTP(w, r)
	})
}
