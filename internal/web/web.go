// Package web is the pages: chi routes, handlers, templates and assets.
//
// A request goes route → handler reads the form → store loads the plan → core
// evaluates → template shows. Every page works without JavaScript: an option is
// a link to the same page with the option on the bench (`?try=slot:part`), and a
// choice is a form. The script in static/mule.js only fetches those pages sooner
// and swaps the parts that changed.
package web

import (
	"log/slog"
	"net/http"
	"time"

	"github.com/alexedwards/scs/mysqlstore"
	"github.com/alexedwards/scs/v2"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"valiantmule/internal/format/gpx"
	"valiantmule/internal/store"
)

// Options of the pages.
type Options struct {
	Store *store.Store
	Log   *slog.Logger
	// DemoRider is the name of the rider whom anybody becomes by one click; ""
	// where no demonstration runs.
	DemoRider string
}

// Server answers requests.
type Server struct {
	store     *store.Store
	log       *slog.Logger
	demoRider string
	sessions  *scs.SessionManager
	assets    *bundle
	pages     map[string]*page
}

// New makes the handler of all pages.
func New(o Options) (http.Handler, error) {
	s := &Server{store: o.Store, log: o.Log, demoRider: o.DemoRider, sessions: newSessions(o.Store)}
	if err := checkStages(); err != nil {
		return nil, err
	}
	var err error
	if s.assets, err = newBundle(); err != nil {
		return nil, err
	}
	if s.pages, err = parsePages(s.assets); err != nil {
		return nil, err
	}
	return s.routes(), nil
}

// maxBody bounds what a request may bring: a plan file and some.
const maxBody = 5 << 20

func newSessions(st *store.Store) *scs.SessionManager {
	sessions := scs.New()
	sessions.Store = mysqlstore.New(st.DB().DB)
	sessions.Lifetime = 30 * 24 * time.Hour
	sessions.Cookie.Name = "mule"
	sessions.Cookie.SameSite = http.SameSiteLaxMode
	sessions.HashTokenInStore = true
	return sessions
}

func (s *Server) routes() http.Handler {
	s.sessions.ErrorFunc = s.fail
	r := chi.NewRouter()
	r.Use(s.recoverer, policy, http.NewCrossOriginProtection().Handler, middleware.GetHead, middleware.Compress(2, compressed...))
	r.Get("/healthz", s.health)
	r.Handle("/assets/{hash}/{name}", s.assets)
	r.Group(func(r chi.Router) {
		r.Use(s.sessions.LoadAndSave, s.named)
		r.NotFound(s.handle(func(http.ResponseWriter, *http.Request) error { return store.ErrNotFound }))
		r.MethodNotAllowed(s.handle(func(http.ResponseWriter, *http.Request) error { return errMethod }))
		// A file is read as it comes in; everything else is small.
		r.With(middleware.RequestSize(gpx.MaxBytes+maxBody), s.signedIn).Post("/plans/{plan}/route/import", s.handle(s.importRoute))
		s.smallRoutes(r)
	})
	return r
}

// smallRoutes are those whose requests bring a plan file at most.
func (s *Server) smallRoutes(r chi.Router) {
	r.Group(func(r chi.Router) {
		r.Use(middleware.RequestSize(maxBody))
		r.Get("/", s.handle(s.front))
		r.Get("/sign-in", s.handle(s.signInPage))
		r.Post("/sign-in", s.handle(s.signIn))
		r.Post("/sign-in/demo", s.handle(s.signInDemo))
		r.Get("/register", s.handle(s.registerPage))
		r.Post("/register", s.handle(s.register))
		r.Post("/theme", s.handle(s.setTheme))
		r.Group(func(r chi.Router) {
			r.Use(s.signedIn)
			r.Post("/sign-out", s.handle(s.signOut))
			r.Get("/account", s.handle(s.account))
			r.Get("/keys", s.handle(s.keys))
			r.Post("/account/password", s.handle(s.changePassword))
			r.Post("/account/units", s.handle(s.setUnits))
			r.Post("/account/sign-out", s.handle(s.signOutEverywhere))
			r.Get("/garage", s.handle(s.garage))
			r.Post("/garage", s.handle(s.newPlan))
			r.Post("/garage/import", s.handle(s.importPlan))
			r.Get("/calculators", s.handle(s.calculators))
			r.Get("/calculators/{name}", s.handle(s.calculator))
			s.planRoutes(r)
		})
	})
}

func (s *Server) planRoutes(r chi.Router) {
	const at = "/plans/{plan}"
	r.Get(at, s.handle(s.openPlan))
	r.Get(at+"/export", s.handle(s.exportPlan))
	r.Get(at+"/working/{figure}", s.handle(s.working))
	r.Post(at+"/calculations", s.handle(s.keepCalculation))
	r.Post(at+"/calculations/drop", s.handle(s.dropCalculation))
	r.Get(at+"/history", s.handle(s.history))
	r.Post(at+"/restore", s.handle(s.restore))
	r.Get(at+"/variants", s.handle(s.variants))
	r.Post(at+"/split", s.handle(s.split))
	r.Post(at+"/undo", s.handle(s.undo))
	r.Post(at+"/redo", s.handle(s.redo))
	r.Post(at+"/choose", s.handle(s.choose))
	r.Get(at+"/brief", briefForm.page(s))
	r.Post(at+"/brief", briefForm.keep(s))
	r.Post(at+"/brief/try", briefForm.try(s))
	r.Get(at+"/needs", s.handle(s.needsPage))
	r.Get(at+"/bike", s.handle(s.bikePage))
	r.Post(at+"/bike/take", s.handle(s.takeBike))
	r.Get(at+"/sheet", sheetForm.page(s))
	r.Post(at+"/sheet", sheetForm.keep(s))
	r.Post(at+"/sheet/try", sheetForm.try(s))
	r.Get(at+"/baseline", s.handle(s.baselinePage))
	r.Post(at+"/baseline/answer", s.handle(s.answer))
	r.Get(at+"/record", recordForm.page(s))
	r.Post(at+"/record", recordForm.keep(s))
	r.Post(at+"/record/try", recordForm.try(s))
	r.Get(at+"/tyres", s.handle(s.tyresPage))
	r.Get(at+"/inside", s.handle(s.insidePage))
	r.Get(at+"/pressures", pressuresForm.page(s))
	r.Post(at+"/pressures", pressuresForm.keep(s))
	r.Post(at+"/pressures/try", pressuresForm.try(s))
	r.Get(at+"/wheels", s.handle(s.wheelsPage))
	r.Get(at+"/armour", s.handle(s.armourPage))
	r.Get(at+"/disputes", s.disputesPage("disputes"))
	r.Get(at+"/rates", ratesForm.page(s))
	r.Post(at+"/rates", ratesForm.keep(s))
	r.Post(at+"/rates/try", ratesForm.try(s))
	r.Get(at+"/contact", s.contactPage("contact"))
	r.Get(at+"/cockpit", s.contactPage("cockpit"))
	r.Get(at+"/opinions", s.disputesPage("opinions"))
	r.Get(at+"/range", s.handle(s.rangePage))
	r.Post(at+"/range", rangeForm.keep(s))
	r.Post(at+"/range/try", s.handle(s.rangeTry))
	r.Get(at+"/route", routeForm.page(s))
	r.Post(at+"/route", routeForm.keep(s))
	r.Post(at+"/route/try", routeForm.try(s))
	r.Post(at+"/route/part", s.handle(s.routePart))
	r.Post(at+"/route/drop", s.handle(s.dropRoute))
	r.Get(at+"/route.gpx", s.handle(s.routeFile))
	r.Get(at+"/fills", s.handle(s.fillsPage))
	r.Post(at+"/fills", s.handle(s.addFill))
	r.Post(at+"/fills/revoke", s.handle(s.revoke))
	r.Post(at+"/fills/import", s.handle(s.importFills))
	r.Get(at+"/fills.csv", s.handle(s.fillsFile))
	r.Get(at+"/others", othersForm.page(s))
	r.Post(at+"/others", othersForm.keep(s))
	r.Post(at+"/others/try", othersForm.try(s))
	r.Get(at+"/load", loadForm.page(s))
	r.Post(at+"/load", loadForm.keep(s))
	r.Post(at+"/load/try", loadForm.try(s))
	r.Get(at+"/packing", s.handle(s.packingPage))
	r.Post(at+"/packing", packingForm.keep(s))
	r.Post(at+"/packing/try", packingForm.try(s))
	r.Post(at+"/packing/tick", s.handle(s.tick))
	r.Post(at+"/packing/start", s.handle(s.startPacking))
	r.Post(at+"/packing/propose", s.handle(s.takeProposal))
	r.Get(at+"/packing.csv", s.handle(s.packingFile))
	r.Post(at+"/packing/import", s.handle(s.importPacking))
	r.Get(at+"/weigh", s.handle(s.weighPage))
	r.Post(at+"/weigh", s.handle(s.keepWeighing))
	r.Post(at+"/weigh/read", s.handle(s.readBridge))
	r.Get(at+"/carrying", s.disputesPage("carrying"))
	r.Get(at+"/gearing", s.handle(s.gearingPage))
	r.Get(at+"/chain", s.handle(s.chainPage))
	r.Get(at+"/pull", s.handle(s.pullPage))
	r.Get(at+"/drawer", s.handle(s.drawerPage))
	r.Post(at+"/parts", s.handle(s.keepPart))
	r.Get(at+"/spend", spendForm.page(s))
	r.Post(at+"/spend", spendForm.keep(s))
	r.Post(at+"/spend/try", spendForm.try(s))
}

// health says whether the database answers.
func (s *Server) health(w http.ResponseWriter, r *http.Request) {
	w.Header().Set("Content-Type", "application/json")
	w.Header().Set("Cache-Control", "no-store")
	if err := s.store.Ping(r.Context()); err != nil {
		w.WriteHeader(http.StatusServiceUnavailable)
		_, _ = w.Write([]byte(`{"status":"down","database":"no answer"}` + "\n"))
		return
	}
	_, _ = w.Write([]byte(`{"status":"up","database":"up"}` + "\n"))
}
