package web

import (
	"cmp"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"net"
	"net/http"
	"strings"
	"time"
	"unicode"

	"valiantmule/internal/account"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// Keys of what a session holds.
const (
	riderID   = "rider"
	riderName = "name"
	login     = "login" // id of the device's row, see [store.Login]
	halfID    = "half"  // of a rider who has given the password and not yet the second factor
	halfAt    = "half at"
	newSecond = "new second" // a secret that no code has proved yet
)

// lifetime is how long somebody stays signed in at most, however much they ride.
const lifetime = 30 * 24 * time.Hour

// What may be tried how often, counted over all servers. A name is guessed at by
// one who has it; an address by one who has many. Who has signed in from an address before
// is counted there alone: guesses from elsewhere do not slow the owner down.
var (
	byName     = store.Limit{Name: "sign-in by name", Tries: 5, In: 15 * time.Minute}
	byOwner    = store.Limit{Name: "sign-in by name and address", Tries: 10, In: 15 * time.Minute}
	byAddress  = store.Limit{Name: "sign-in by address", Tries: 60, In: 15 * time.Minute}
	byRegister = store.Limit{Name: "accounts by address", Tries: 20, In: time.Hour}
	byPassword = store.Limit{Name: "password changes", Tries: 10, In: 15 * time.Minute}
	byLetter   = store.Limit{Name: "letters by name", Tries: 3, In: time.Hour}
)

// address that a request comes from. A proxy in front is one address.
func address(r *http.Request) string {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	if err != nil {
		return r.RemoteAddr
	}
	return host
}

// origin is what a rider is told of where a request came from.
func origin(r *http.Request) store.Origin {
	return store.Origin{Address: address(r), Agent: strings.ToValidUTF8(r.UserAgent(), "")}
}

// signedIn lets only riders through; others are sent to sign in.
func (s *Server) signedIn(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if s.Rider(r) == "" {
			http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
			return
		}
		who := desk.WhoOf(s.sessions.GetString(r.Context(), riderName))
		if of := r.Header.Get(whoHeader); of != "" && of != who {
			http.Error(w, "Somebody else is signed in here by now.", http.StatusConflict)
			return
		}
		rider, err := s.Store.Seen(r.Context(), s.sessions.GetString(r.Context(), login))
		if err == nil && rider.ID != s.Rider(r) {
			err = store.ErrNotFound
		}
		if errors.Is(err, store.ErrNotFound) { // ended elsewhere, or by idling
			// What the device has not sent yet stays on it: nobody has asked the rider.
			err = s.leave(w, r, `"cache"`)
			if err == nil {
				http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
				return
			}
		}
		if err != nil {
			s.fail(w, r, err)
			return
		}
		if desk.CookieOf(r, whoCookie) != who {
			setCookie(w, r, whoCookie, who, lifetime, true)
		}
		w.Header().Set("Cache-Control", "no-store")
		next.ServeHTTP(w, r.WithContext(desk.Measured(r.Context(), words.ParseUnits(rider.Units))))
	})
}

// named puts the name of who is signed in where any page finds it, also one that
// is shown because the session could not be read.
func (s *Server) named(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := s.sessions.GetString(r.Context(), riderName)
		w.Header().Set(whoHeader, cmp.Or(desk.WhoOf(name), nobody))
		w.Header().Set(versionHeader, s.assets.hash)
		next.ServeHTTP(w, r.WithContext(desk.Named(r.Context(), name)))
	})
}

// rider is the id of the rider who is signed in, "" when nobody is.
func (s *Server) rider(r *http.Request) string { return s.sessions.GetString(r.Context(), riderID) }

func (s *Server) front(w http.ResponseWriter, r *http.Request) error {
	to := "/sign-in"
	if s.Rider(r) != "" {
		to = "/garage"
	}
	return desk.SeeOther(w, r, to)
}

type signInView struct {
	Name      string
	Error     string
	Done      string
	Forget    bool // what the device holds of a rider's
	DemoRider string
}

func (s *Server) signInPage(w http.ResponseWriter, r *http.Request) error {
	if s.Rider(r) != "" {
		return desk.SeeOther(w, r, "/garage")
	}
	done := r.URL.Query().Get("done")
	words := map[string]string{
		"password": "The password is replaced, and every device is signed out. Sign in with the new one.",
		"deleted":  "The account is deleted.",
	}
	return s.Show(w, r, http.StatusOK, "sign-in", "Sign in", signInView{DemoRider: s.demoRider, Done: words[done], Forget: done == "deleted"})
}

func (s *Server) signIn(w http.ResponseWriter, r *http.Request) error {
	name := strings.TrimSpace(r.PostFormValue("name"))
	limit, who, err := s.guess(r, name)
	if err != nil {
		return err
	}
	rider, err := s.Store.SignIn(r.Context(), name, r.PostFormValue("password"))
	if err == nil {
		err = s.Store.Forget(r.Context(), limit, who)
	}
	if errors.Is(err, store.ErrNotFound) {
		s.guessed(r, name, false)
		return s.Show(w, r, http.StatusUnprocessableEntity, "sign-in", "Sign in",
			signInView{Name: name, DemoRider: s.demoRider, Error: "No account has that name with that password. Check both and try again."})
	}
	if err != nil {
		return err
	}
	if rider.Second != nil {
		return s.askSecond(w, r, rider)
	}
	return s.enter(w, r, rider)
}

// guess counts a try at what opens the account of a name, by name and by address; the count
// is under limit and who. A TooMany, which is logged, when it comes too soon.
func (s *Server) guess(r *http.Request, name string) (limit store.Limit, who string, err error) {
	known, err := s.Store.Knows(r.Context(), name, address(r))
	limit, who = byName, account.Fold(name)
	if known {
		limit, who = byOwner, who+"\x00"+address(r)
	}
	if err == nil {
		err = s.Store.Try(r.Context(), byAddress, address(r))
	}
	if err == nil {
		err = s.Store.Try(r.Context(), limit, who)
	}
	if errors.Is(err, store.ErrTooMany) {
		s.guessed(r, name, true)
	}
	return limit, who, err
}

// guessed logs a wrong password. The name goes by a hash: it may be a password that was
// typed into the wrong field.
func (s *Server) guessed(r *http.Request, name string, refused bool) {
	sum := sha256.Sum256([]byte(account.Fold(name)))
	s.log.Warn("sign-in failed", "name", hex.EncodeToString(sum[:6]), "address", address(r), "refused", refused)
}

func (s *Server) signInDemo(w http.ResponseWriter, r *http.Request) error {
	if s.demoRider == "" {
		return store.ErrNotFound
	}
	rider, err := s.Store.RiderByName(r.Context(), s.demoRider)
	if err != nil {
		return err
	}
	return s.enter(w, r, rider)
}

// enter starts a rider's session, under a new token so that one which somebody
// planted is worth nothing.
func (s *Server) enter(w http.ResponseWriter, r *http.Request, rider *store.Rider) error {
	first, err := s.Store.Visited(r.Context(), rider.ID, address(r))
	if err != nil {
		return err
	}
	if first {
		if err := s.Store.Note(r.Context(), rider.ID, store.SignedInAnew, origin(r)); err != nil {
			return err
		}
	}
	device, err := s.Store.LogIn(r.Context(), rider.ID, origin(r))
	if err != nil {
		return err
	}
	if err := s.sessions.Clear(r.Context()); err != nil {
		return err
	}
	if err := s.sessions.RenewToken(r.Context()); err != nil {
		return err
	}
	s.sessions.Put(r.Context(), riderID, rider.ID)
	s.sessions.Put(r.Context(), riderName, rider.Name)
	s.sessions.Put(r.Context(), login, device)
	setCookie(w, r, whoCookie, desk.WhoOf(rider.Name), lifetime, true)
	return desk.SeeOther(w, r, "/garage")
}

// everything that a browser keeps of a site but its cookies.
const everything = `"cache", "storage"`

// leave ends this session, and what the browser keeps of it: over https by a header, which
// no browser believes otherwise, and over http by the page that asked.
func (s *Server) leave(w http.ResponseWriter, r *http.Request, clear string) error {
	if https(r) {
		w.Header().Set("Clear-Site-Data", clear)
	}
	setCookie(w, r, whoCookie, "", 0, true)
	return s.sessions.Destroy(r.Context())
}

func (s *Server) signOut(w http.ResponseWriter, r *http.Request) error {
	err := s.Store.LogOut(r.Context(), s.Rider(r), s.sessions.GetString(r.Context(), login))
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	clear := everything
	if r.PostFormValue("others") != "" { // what another rider wrote down here waits for them: the page has cleared this one's
		clear = `"cache"`
	}
	if err := s.leave(w, r, clear); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/sign-in")
}

type registerView struct {
	Name        string
	Errors      desk.FormErrors
	MinPassword int
}

func (s *Server) registerPage(w http.ResponseWriter, r *http.Request) error {
	return s.Show(w, r, http.StatusOK, "register", "Open an account", registerView{MinPassword: account.MinPassword})
}

func (s *Server) register(w http.ResponseWriter, r *http.Request) error {
	view := registerView{Name: r.PostFormValue("name"), MinPassword: account.MinPassword, Errors: desk.FormErrors{}}
	name, err := account.CleanName(view.Name)
	if err != nil {
		view.Errors["name"] = desk.Sentence(err)
	}
	password := r.PostFormValue("password")
	if err := account.CheckPassword(password, name); err != nil {
		view.Errors["password"] = desk.Sentence(err)
	}
	if len(view.Errors) > 0 {
		return s.Show(w, r, http.StatusUnprocessableEntity, "register", "Open an account", view)
	}
	if err := s.Store.Try(r.Context(), byRegister, address(r)); err != nil {
		return err
	}
	rider, err := s.Store.CreateRider(r.Context(), name, password)
	if errors.Is(err, store.ErrTaken) {
		view.Errors["name"] = "That name is taken: choose another."
		return s.Show(w, r, http.StatusUnprocessableEntity, "register", "Open an account", view)
	}
	if err != nil {
		return err
	}
	if err := s.Store.Note(r.Context(), rider.ID, store.Opened, origin(r)); err != nil {
		return err
	}
	if units := unitsOf(r); len(units) > 0 {
		if err := s.Store.SetUnits(r.Context(), rider.ID, units.String()); err != nil {
			return err
		}
	}
	return s.enter(w, r, rider)
}

func (s *Server) setTheme(w http.ResponseWriter, r *http.Request) error {
	if chosen := r.PostFormValue("theme"); desk.Themes[chosen] {
		setCookie(w, r, desk.ThemeCookie, chosen, forYear, false)
	}
	return desk.SeeOther(w, r, localPath(r.PostFormValue("back")))
}

// localPath keeps a way back inside this site. Browsers leave tabs and line ends out of an
// address, so "/<tab>/host" is another site's.
func localPath(path string) string {
	outside := func(r rune) bool { return r == '\\' || unicode.IsControl(r) }
	if !strings.HasPrefix(path, "/") || strings.HasPrefix(path, "//") || strings.ContainsFunc(path, outside) {
		return "/"
	}
	return path
}
