package web

import (
	"embed"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"net/netip"
	"time"

	"github.com/alexedwards/scs/mysqlstore"
	"github.com/alexedwards/scs/v2"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"valiantmule/internal/letter"
	"valiantmule/internal/outside"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// Options of the pages.
type Options struct {
	Store *store.Store
	Log   *slog.Logger
	// DemoRider is the name of the rider whom anybody becomes by one click; ""
	// where no demonstration runs.
	DemoRider string
	Stages    []desk.Stage // nil for [Stages]
	Kept      int64        // bytes of answers that are kept, none for 0

	Proxies []netip.Prefix // whose word on the rider's address and on https is taken
	HSTS    bool           // tell browsers to come by https only
	Slow    time.Duration  // requests that take so long are logged with their queries; 0 for none

	// Hosts are the names that this site answers by, any where there are none. Links in letters
	// begin with Site, "https://mule.example", and never with what a request says.
	Hosts   []string
	Site    string
	Letters Post                       // nil where none can be sent
	Outbox  func() []outside.Delivered // what the demonstration's letters came to; nil elsewhere
	Meter   Meter                      // counts requests and answers; nil for nobody
	Contact string                     // address for who finds a hole, "mailto:…" or "https://…"; "" for none
}

// Meter counts what the server does.
type Meter interface {
	Request(method, route string, status int, took time.Duration)
	Answer(how string)
}

// Post takes letters to send, and keeps nobody waiting.
type Post interface{ Put(letter.Letter) }

// Server answers requests.
type Server struct {
	*desk.House
	log       *slog.Logger
	demoRider string
	sessions  *scs.SessionManager
	assets    *bundle
	site      string
	letters   Post
	outbox    func() []outside.Delivered
}

//go:embed pages/*.gohtml
var pages embed.FS

// New makes the handler of all pages.
func New(o Options) (http.Handler, error) {
	s := &Server{log: o.Log, demoRider: o.DemoRider, sessions: newSessions(o.Store), site: o.Site, letters: o.Letters, outbox: o.Outbox}
	var err error
	stages := o.Stages
	if stages == nil {
		stages = Stages()
	}
	if s.assets, err = newBundle(stages); err != nil {
		return nil, err
	}
	if s.House, err = desk.NewHouse(o.Store, s.rider, s.assets.path, pages, o.Kept, stages); err != nil {
		return nil, err
	}
	if o.Meter != nil {
		s.Answered = o.Meter.Answer
	}
	return s.routes(o)
}

// maxBody bounds what a request may bring: a plan file and some.
const maxBody = 5 << 20

func newSessions(st *store.Store) *scs.SessionManager {
	sessions := scs.New()
	sessions.Store = mysqlstore.New(st.DB().DB)
	sessions.Lifetime = lifetime
	sessions.Cookie.Name = "mule"
	sessions.Cookie.SameSite = http.SameSiteLaxMode
	sessions.HashTokenInStore = true
	return sessions
}

// session loads a request's session and keeps it; its cookie goes over https only where it
// came so.
func (s *Server) session(next http.Handler) http.Handler {
	secure := *s.sessions
	secure.Cookie.Secure, secure.Cookie.Name = true, desk.HostOnly+s.sessions.Cookie.Name
	plain, encrypted := s.sessions.LoadAndSave(next), secure.LoadAndSave(next)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if https(r) {
			encrypted.ServeHTTP(w, r)
			return
		}
		plain.ServeHTTP(w, r)
	})
}

func (s *Server) routes(o Options) (http.Handler, error) {
	gzipped, err := compress()
	if err != nil {
		return nil, err
	}
	s.sessions.ErrorFunc = s.fail
	r := chi.NewRouter()
	r.Use(forwarded(o.Proxies), logged(s.log, o.Slow, o.Meter), s.recoverer, policy(o.HSTS), hosts(o.Hosts), http.NewCrossOriginProtection().Handler, middleware.GetHead, gzipped)
	r.Get("/livez", s.live)
	r.Get("/healthz", s.health)
	if o.Contact != "" {
		r.Get("/.well-known/security.txt", securityText(o.Contact, o.Site))
	}
	r.Handle("/assets/{hash}/{name}", s.assets)
	r.Get("/worker.js", s.assets.worker)
	r.Group(func(r chi.Router) {
		r.Use(s.session, s.named)
		r.NotFound(s.handle(func(http.ResponseWriter, *http.Request) error { return store.ErrNotFound }))
		r.MethodNotAllowed(s.handle(func(http.ResponseWriter, *http.Request) error { return errMethod }))
		s.smallRoutes(r)
		for _, st := range s.Stages {
			for _, p := range st.Pages {
				for _, route := range p.Routes {
					handle := route.Handle
					if route.Method == http.MethodGet && !route.Live {
						handle = s.Kept(handle, route.Garage)
					}
					if p.Away && route.Method == http.MethodGet && route.Path == "/"+p.ID {
						handle = away(handle)
					}
					bounded := r.With(middleware.RequestSize(maxBody+route.Large), s.signedIn)
					bounded.MethodFunc(route.Method, atPlan+route.Path, s.of(handle))
					if p.Bike {
						bounded.MethodFunc(route.Method, atBike+route.Path, s.of(handle))
					}
				}
			}
		}
	})
	return r, nil
}

// live says that this process answers, whatever the database does.
func (s *Server) live(w http.ResponseWriter, _ *http.Request) {
	w.Header().Set("Content-Type", "application/json")
	w.Header().Set("Cache-Control", "no-store")
	_, _ = w.Write([]byte(`{"status":"up"}` + "\n"))
}

// health says whether the database answers, keeps what it is given, and soon.
func (s *Server) health(w http.ResponseWriter, r *http.Request) {
	w.Header().Set("Content-Type", "application/json")
	w.Header().Set("Cache-Control", "no-store")
	status, database := "up", "up"
	if err := s.Store.Health(r.Context()); err != nil {
		status, database = "down", "no answer"
		if errors.Is(err, store.ErrReadOnly) {
			database = "takes nothing"
		}
		w.WriteHeader(http.StatusServiceUnavailable)
	}
	_, _ = fmt.Fprintf(w, `{"status":%q,"database":%q}`+"\n", status, database)
}

// atPlan is where a plan's addresses begin.
const atPlan = "/plans/{plan}"

// of answers with a stage's handler.
func (s *Server) of(h desk.Handler) http.HandlerFunc {
	return s.handle(func(w http.ResponseWriter, r *http.Request) error { return h(s.House, w, r) })
}

// smallRoutes are those whose requests bring a plan file at most.
func (s *Server) smallRoutes(r chi.Router) {
	r.Group(func(r chi.Router) {
		r.Use(middleware.RequestSize(maxBody))
		r.Get("/", s.handle(s.front))
		r.Get("/sign-in", s.handle(s.signInPage))
		r.Post("/sign-in", s.handle(s.signIn))
		r.Post("/sign-in/demo", s.handle(s.signInDemo))
		r.Get("/sign-in/second", s.handle(s.secondPage))
		r.Post("/sign-in/second", s.handle(s.signInSecond))
		r.Get("/forgot", s.handle(s.forgotPage))
		r.Post("/forgot", s.handle(s.sendReset))
		r.Post("/forgot/code", s.handle(s.resetByCode))
		r.Get("/reset", s.handle(s.resetPage))
		r.Post("/reset", s.handle(s.resetByLink))
		r.Get("/confirm", s.handle(s.confirmPage))
		r.Post("/confirm", s.handle(s.confirmAddress))
		if s.outbox != nil {
			r.Get("/letters", s.handle(s.deliveredLetters))
		}
		r.Get("/register", s.handle(s.registerPage))
		r.Post("/register", s.handle(s.register))
		r.Post("/theme", s.handle(s.setTheme))
		r.Group(func(r chi.Router) {
			r.Use(s.signedIn)
			r.Post("/sign-out", s.handle(s.signOut))
			r.Get("/account", s.handle(s.account))
			r.Get("/help", s.handle(s.help))
			r.Get("/device", s.of(away(func(_ *desk.House, w http.ResponseWriter, r *http.Request) error { return s.device(w, r) })))
			r.Post("/account/units", s.handle(s.setUnits))
			r.Get(safety, s.handle(s.safety))
			r.Post("/account/password", s.handle(s.own(s.changePassword)))
			r.Post("/account/sign-out", s.handle(s.own(s.signOutOthers)))
			r.Post("/account/sign-out/one", s.handle(s.own(s.signOutOne)))
			r.Post("/account/second", s.handle(s.own(s.beginSecond)))
			r.Post("/account/second/on", s.handle(s.own(s.setSecond)))
			r.Post("/account/second/off", s.handle(s.own(s.dropSecond)))
			r.Post("/account/codes", s.handle(s.own(s.makeCodes)))
			r.Post("/account/address", s.handle(s.own(s.setAddress)))
			r.Post("/account/address/drop", s.handle(s.own(s.dropAddress)))
			r.Get("/account/delete", s.handle(s.askDeletion))
			r.Post("/account/delete", s.handle(s.own(s.deleteAccount)))
			r.Get("/garage", s.handle(s.garage))
			r.Post("/garage", s.handle(s.newPlan))
			r.Get("/start", s.handle(s.startPage))
			r.Post("/start", s.handle(s.start))
			r.Post("/garage/import", s.handle(s.importPlan))
			r.Post("/garage/recover", s.handle(s.recoverPlan))
			s.bikeRoutes(r)
			s.partRoutes(r)
			r.Get("/calculators", s.handle(s.calculators))
			r.Get("/calculators/{name}", s.handle(s.calculator))
			s.planRoutes(r)
		})
	})
}

// planRoutes are those of a plan that are of no stage.
func (s *Server) planRoutes(r chi.Router) {
	r.Get(atPlan, s.handle(s.openPlan))
	r.Get(atPlan+"/export", s.handle(s.exportPlan))
	r.Get(atPlan+"/working/{figure}", s.of(s.Kept(func(_ *desk.House, w http.ResponseWriter, r *http.Request) error { return s.working(w, r) }, false)))
	r.Post(atPlan+"/calculations", s.handle(s.keepCalculation))
	r.Post(atPlan+"/calculations/drop", s.handle(s.dropCalculation))
	r.Get(atPlan+"/history", s.handle(s.history))
	r.Post(atPlan+"/restore", s.handle(s.restore))
	r.Get(atPlan+"/moved", s.handle(s.movedPage))
	r.Post(atPlan+"/moved", s.handle(s.takeOver))
	r.Post(atPlan+"/apart", s.handle(s.apart))
	r.Get(atPlan+"/variants", s.handle(s.variants))
	r.Post(atPlan+"/split", s.handle(s.split))
	r.Post(atPlan+"/beside", s.handle(s.beside))
	r.Post(atPlan+"/remove", s.handle(s.removePlan))
	r.Post(atPlan+"/undo", s.of((*desk.House).Undo))
	r.Post(atPlan+"/redo", s.of((*desk.House).Redo))
	r.Post(atPlan+"/choose", s.of((*desk.House).Choose))
}
