package web_test

import (
	"log/slog"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// TestMomentOfRecovery: an answer that the database broke off is its fault and no mystery, also
// where it is there again by the time that somebody looks.
func TestMomentOfRecovery(t *testing.T) {
	for _, fate := range []mariadbtest.Fate{mariadbtest.Dropped, mariadbtest.Unheard} {
		armed := ""
		s := webtest.At(t, mariadbtest.Wire(t, mariadbtest.DSN(t), func(statement string) mariadbtest.Fate {
			if armed != "" && strings.Contains(statement, armed) {
				armed = ""
				return fate
			}
			return mariadbtest.Passes
		}), web.Options{Log: slog.New(slog.DiscardHandler)})
		v, plan := s.Demo(t)
		for _, armed = range []string{"FROM riders", "FROM sessions", "FROM dossiers"} {
			status, page, _ := v.Get(plan + "/brief?loadout=travel")
			assert.Contains(t, []int{http.StatusServiceUnavailable, http.StatusOK}, status, "the driver may have asked again")
			assert.Equal(t, status == http.StatusServiceUnavailable, strings.Contains(page, "database does not answer"), status)
		}
		armed = "UPDATE riders SET units"
		status, page, _ := v.Post("/account/units", url.Values{"preset": {"US"}})
		if status != http.StatusSeeOther {
			assert.Equal(t, http.StatusServiceUnavailable, status)
			assert.Contains(t, page, "may be done or not", "nobody knows")
		}
	}
}

// TestHungPage: a page waits for a silent database once, as long as one query does, and asks it
// nothing more.
func TestHungPage(t *testing.T) {
	hang := false
	config, err := mysql.ParseDSN(mariadbtest.Wire(t, mariadbtest.DSN(t), func(string) mariadbtest.Fate {
		if hang {
			return mariadbtest.Silenced
		}
		return mariadbtest.Passes
	}))
	require.NoError(t, err)
	config.ReadTimeout = 1500 * time.Millisecond
	s := webtest.At(t, config.FormatDSN(), web.Options{Log: slog.New(slog.DiscardHandler)})
	v, plan := s.Demo(t)
	hang = true
	began := time.Now()
	_, err = s.Store.Twins(t.Context())
	require.Error(t, err)
	once := time.Since(began)
	began = time.Now()
	status, page, _ := v.Get(plan + "/brief")
	assert.Equal(t, http.StatusServiceUnavailable, status)
	assert.Contains(t, page, "database does not answer")
	assert.Less(t, time.Since(began).Seconds()/once.Seconds(), 1.5)
}

// TestNoRoom: what the database has no room for is told as that.
func TestNoRoom(t *testing.T) {
	s := webtest.Of(t, web.Options{Log: slog.New(slog.DiscardHandler)})
	v, plan := s.Demo(t)
	file := v.Page(plan + "/export")
	for _, table := range []string{"dossiers", "tracks"} {
		_, err := s.Store.DB().Exec(`CREATE TRIGGER full_` + table + ` BEFORE INSERT ON ` + table + ` FOR EACH ROW SIGNAL SQLSTATE 'HY000' SET MYSQL_ERRNO = 1114, MESSAGE_TEXT = 'The table is full'`)
		require.NoError(t, err)
	}
	way := `<gpx><trk><name>Way</name><trkseg><trkpt lat="1" lon="2"/><trkpt lat="1.1" lon="2.1"/></trkseg></trk></gpx>`
	for path, content := range map[string]string{"/garage/import": file, plan + "/route/import": way} {
		status, page, _ := v.Upload(path, "file", []byte(content), "onto", "new", "parts", "other")
		assert.Equal(t, http.StatusServiceUnavailable, status, path)
		assert.Contains(t, page, "Nothing was changed", path)
		assert.Contains(t, page, "no room", path)
	}
}

// TestBrokenForms: a file whose name is no text, and forms that break off, are refused as what
// they are.
func TestBrokenForms(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	file := v.Page(plan + "/export")
	const head = "--b\r\nContent-Disposition: form-data; name=\"file\"; filename=\"%\"\r\nContent-Type: text/plain\r\n\r\n"
	before := s.Revisions(t)
	for _, path := range []string{"/garage/import", plan + "/route/import", plan + "/fills/import", plan + "/packing/import"} {
		for what, body := range map[string]string{
			"name":       strings.Replace(head, "%", "ride\xff\xfe.json", 1) + file + "\r\n--b--\r\n",
			"broken off": strings.Replace(head, "%", "ride.json", 1)[:70],
			"no form":    "nothing of the kind",
		} {
			r := v.Request(http.MethodPost, path, strings.NewReader(body))
			r.Header.Set("Content-Type", "multipart/form-data; boundary=b")
			status, _, _ := v.Do(r)
			assert.GreaterOrEqual(t, status, 400, "%s of %s", what, path)
			assert.Less(t, status, 500, "%s of %s", what, path)
		}
	}
	assert.Equal(t, before, s.Revisions(t))
}

// TestPasswordsInTheBody: one that stands in an address is on its way into logs and histories,
// and opens nothing.
func TestPasswordsInTheBody(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	words := url.Values{"name": {"Ada"}, "password": {"correct horse"}}.Encode()
	for _, path := range []string{"/register", "/sign-in"} {
		status, _, _ := v.Post(path+"?"+words, nil)
		assert.Equal(t, http.StatusUnprocessableEntity, status, path)
	}
	_, err := s.Store.RiderByName(t.Context(), "Ada")
	require.ErrorIs(t, err, store.ErrNotFound)
}

// TestHealthz is no better than what the database takes.
func TestHealthz(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	assert.Contains(t, v.Page("/healthz"), `"up"`)
	_, err := s.Store.DB().Exec(`CREATE TRIGGER full_health BEFORE INSERT ON health FOR EACH ROW SIGNAL SQLSTATE 'HY000' SET MYSQL_ERRNO = 1114, MESSAGE_TEXT = 'The table is full'`)
	require.NoError(t, err)
	status, body, _ := v.Get("/healthz")
	assert.Equal(t, http.StatusServiceUnavailable, status)
	assert.Contains(t, body, "takes nothing")
	r := v.Request(http.MethodHead, "/healthz", nil)
	status, _, _ = v.Do(r)
	assert.Equal(t, http.StatusServiceUnavailable, status)
}
