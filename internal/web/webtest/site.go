// Package webtest is what the tests of the stages and of the pages share: the site on
// a database of its own, a visitor who reads markup, and a window of a real browser.
//
// Tests that open a window stand in files of their own that are not built with the tag
// markup: the others then need not compile the browser's protocol.
//
//	func TestMain(m *testing.M) { webtest.Main(m) }
//
//	s := webtest.New(t)
//	v, path := s.Demo(t)
//	assert.Equal(t, "over €1,675", webtest.Gauge(v.Page(path+"/spend"), "cost"))
package webtest

import (
	"log/slog"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
)

// Main runs a package's tests and ends the servers and the browser that they started.
func Main(m *testing.M) {
	code := mariadbtest.Main(m)
	atEnd()
	os.Exit(code)
}

// atEnd ends the browser, where tests may have started one.
var atEnd = func() {}

// Site is the pages on a database with the demo data.
type Site struct {
	*httptest.Server
	Store   *store.Store
	Handler http.Handler
}

// New is a site that is opened as the demo is.
func New(tb testing.TB) *Site { return Of(tb, web.Options{}) }

// Of is a site with more options than its store.
func Of(tb testing.TB, o web.Options) *Site {
	tb.Helper()
	return At(tb, mariadbtest.DSN(tb), o)
}

// At is a site on a database that is given.
func At(tb testing.TB, dsn string, o web.Options) *Site {
	tb.Helper()
	st, err := store.Open(dsn)
	require.NoError(tb, err)
	tb.Cleanup(func() { st.Close() })
	require.NoError(tb, st.Migrate(tb.Context()))
	require.NoError(tb, demo.Load(tb.Context(), st))
	o.Store, o.DemoRider = st, demo.Rider
	if o.Log == nil {
		o.Log = slog.New(slog.NewTextHandler(tb.Output(), &slog.HandlerOptions{Level: slog.LevelError}))
	}
	handler, err := web.New(o)
	require.NoError(tb, err)
	s := &Site{httptest.NewServer(handler), st, handler}
	tb.Cleanup(s.Close)
	return s
}

// Away takes the server off the network; back puts it to the same address again.
func (s *Site) Away(tb testing.TB) (back func()) {
	tb.Helper()
	address := s.Listener.Addr().String()
	s.Server.Close()
	return func() {
		tb.Helper()
		listener, err := net.Listen("tcp", address)
		require.NoError(tb, err)
		again := httptest.NewUnstartedServer(s.Handler)
		require.NoError(tb, again.Listener.Close())
		again.Listener = listener
		again.Start()
		tb.Cleanup(again.Close)
		s.Server = again
	}
}

// Visitor is somebody who has not signed in yet.
func (s *Site) Visitor(tb testing.TB) *Visitor {
	jar, err := cookiejar.New(nil)
	require.NoError(tb, err)
	return &Visitor{tb, s, &http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
}

// Demo is a visitor who looks at the demo plan; plan is its path.
func (s *Site) Demo(tb testing.TB) (v *Visitor, plan string) {
	v = s.Visitor(tb)
	v.Post("/sign-in/demo", nil)
	return v, v.FirstPlan()
}

// Newest is the plan that a rider changed last, as it is stored.
func (s *Site) Newest(t *testing.T, name string) *plan.Plan {
	t.Helper()
	rider, err := s.Store.RiderByName(t.Context(), name)
	require.NoError(t, err)
	plans, err := s.Store.Plans(t.Context(), rider.ID)
	require.NoError(t, err)
	return plans[0].Plan
}

// Revisions is how many the plans of the store have.
func (s *Site) Revisions(t *testing.T) (n int) {
	t.Helper()
	require.NoError(t, s.Store.DB().GetContext(t.Context(), &n, `SELECT COUNT(*) FROM revisions r JOIN dossiers d ON d.id = r.dossier_id WHERE d.kind = 'plan'`))
	return n
}

// Bike is a bike of the demo catalogue.
func Bike(t *testing.T, id string) *plan.Bike {
	t.Helper()
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	at := slices.IndexFunc(bikes, func(b *plan.Bike) bool { return b.ID == id })
	require.NotEqual(t, -1, at, id)
	return bikes[at]
}
