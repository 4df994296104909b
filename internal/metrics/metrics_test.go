package metrics_test

import (
	"database/sql"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	_ "github.com/go-sql-driver/mysql"
	"github.com/prometheus/common/expfmt"
	"github.com/prometheus/common/model"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/metrics"
)

// TestMetrics reads what is shown by the parser of the format's own library.
func TestMetrics(t *testing.T) {
	db, err := sql.Open("mysql", "nobody@tcp(127.0.0.1:1)/none") // nobody connects
	require.NoError(t, err)
	defer db.Close()
	m := metrics.New(db)
	m.Request(http.MethodGet, "/plans/{plan}/brief", 200, 4*time.Millisecond)
	m.Request(http.MethodGet, "/plans/{plan}/brief", 200, 2*time.Second)
	for _, word := range []string{"BREW", "FETCH", strings.Repeat("X", 100)} {
		m.Request(word, "", 405, time.Millisecond)
	}
	m.Answer("kept")
	m.Count("mule_test_total", "For the test.", func() int64 { return 7 })
	w := httptest.NewRecorder()
	m.Handler().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "http://127.0.0.1:9100/metrics", nil))
	require.Equal(t, http.StatusOK, w.Code)
	parser := expfmt.NewTextParser(model.UTF8Validation)
	families, err := parser.TextToMetricFamilies(w.Body)
	require.NoError(t, err)
	requests := families["mule_request_seconds"].GetMetric()
	assert.Len(t, requests, 2, "words that somebody sends make no series")
	for _, r := range requests {
		if r.GetHistogram().GetSampleCount() == 2 {
			assert.InDelta(t, 2.004, r.GetHistogram().GetSampleSum(), 1e-9)
		}
	}
	assert.EqualValues(t, 7, families["mule_test_total"].GetMetric()[0].GetCounter().GetValue())
	for _, name := range []string{"mule_answers_total", "go_memstats_heap_inuse_bytes", "process_resident_memory_bytes", "go_sql_in_use_connections"} {
		assert.Contains(t, families, name)
	}
	w = httptest.NewRecorder()
	m.Handler().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "http://[::1]:9100/debug/pprof/goroutine?debug=1", nil))
	assert.Contains(t, w.Body.String(), "goroutine profile")
	w = httptest.NewRecorder()
	m.Handler().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "http://evil.example:9100/metrics", nil))
	assert.Equal(t, http.StatusMisdirectedRequest, w.Code, "by a name that leads here")
}
