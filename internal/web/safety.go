package web

import (
	"errors"
	"fmt"
	"net/http"
	"strings"
	"time"

	"valiantmule/internal/account"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// safety is the page of how a rider signs in.
const safety = "/account/safety"

type safetyView struct {
	Demo        bool // the demonstration's own account, which anybody is
	Done        string
	MinPassword int
	Logins      []loginView
	Second      bool
	Codes       int
	Letters     bool // this site can send them
	Outbox      bool // and they can be read here, in the demonstration
	Address     string
	Typed       string // an address that was not taken
	Trail       []trailView

	PasswordErrors, SecondErrors, CodeErrors, AddressErrors desk.FormErrors
}

// loginView is a device that the rider is signed in on.
type loginView struct {
	ID, Device, Address, Seen, Began string
	Here                             bool
}

type trailView struct{ When, What, Address string }

// mostTrail is how much of the trail the page shows.
const mostTrail = 20

func (s *Server) safety(w http.ResponseWriter, r *http.Request) error {
	done := map[string]string{
		"password": "The password is changed, and every other device is signed out.", "sign-out": "Every other device is signed out.", "one-out": "That device is signed out.",
		"second-on": "The second factor is on: the next sign-in asks for a code.", "second-off": "The second factor is off.",
		"letter": "A letter is on its way. The address counts once you have followed the link in it, within a day.", "confirmed": "The address is confirmed.", "address-gone": "The address is forgotten.",
	}
	return s.showSafety(w, r, http.StatusOK, safetyView{Done: done[r.URL.Query().Get("done")]})
}

func (s *Server) showSafety(w http.ResponseWriter, r *http.Request, status int, view safetyView) error {
	rider, err := s.Store.RiderByID(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	if view.Demo = s.demonstrates(r); view.Demo { // where others came from is nobody's to see
		return s.Show(w, r, status, "safety", "Signing in", view)
	}
	view.MinPassword, view.Second, view.Address, view.Letters, view.Outbox = account.MinPassword, rider.Second != nil, rider.Address, s.letters != nil, s.outbox != nil
	if view.Codes, err = s.Store.Codes(r.Context(), rider.ID); err != nil {
		return err
	}
	logins, err := s.Store.Logins(r.Context(), rider.ID)
	if err != nil {
		return err
	}
	for _, l := range logins {
		view.Logins = append(view.Logins, loginView{
			ID: l.ID, Device: device(l.Agent), Address: l.Address, Seen: ago(time.Since(l.SeenAt)), Began: ago(time.Since(l.BeganAt)),
			Here: l.ID == s.sessions.GetString(r.Context(), login),
		})
	}
	trail, err := s.Store.Trail(r.Context(), rider.ID, mostTrail)
	if err != nil {
		return err
	}
	for _, step := range trail {
		view.Trail = append(view.Trail, trailView{step.At.Format("2 January 2006, 15:04 UTC"), string(step.What), step.Address})
	}
	return s.Show(w, r, status, "safety", "Signing in", view)
}

// device is what a browser says that it runs on, in a few words.
func device(agent string) string {
	kind := "A computer"
	if strings.Contains(agent, "Mobile") {
		kind = "A phone"
	}
	_, system, _ := strings.Cut(agent, "(")
	if system, _, found := strings.Cut(system, ")"); found && system != "" {
		return kind + ", " + system
	}
	return kind
}

// ago is how long ago something was, in the largest whole unit.
func ago(d time.Duration) string {
	for _, unit := range []struct {
		of   time.Duration
		word string
	}{{24 * time.Hour, "day"}, {time.Hour, "hour"}, {time.Minute, "minute"}} {
		if n := int(d / unit.of); n > 0 {
			return fmt.Sprintf("%d %s ago", n, desk.Plural(n, unit.word))
		}
	}
	return "just now"
}

// proved makes sure that who is signed in has the password too: a device that was left alone
// changes nothing of how one signs in.
func (s *Server) proved(r *http.Request) (*store.Rider, desk.FormErrors, error) {
	if err := s.Store.Try(r.Context(), byPassword, s.Rider(r)); err != nil {
		return nil, nil, err
	}
	rider, err := s.Store.RiderByID(r.Context(), s.Rider(r))
	if err != nil {
		return nil, nil, err
	}
	if !rider.Proves(r.PostFormValue("password")) {
		return rider, desk.FormErrors{"password": "That is not the password."}, nil
	}
	return rider, nil, s.Store.Forget(r.Context(), byPassword, s.Rider(r))
}

// did keeps what a rider did to the account.
func (s *Server) did(r *http.Request, what store.Deed) error {
	return s.Store.Note(r.Context(), s.Rider(r), what, origin(r))
}

func (s *Server) changePassword(w http.ResponseWriter, r *http.Request) error {
	password := r.PostFormValue("new")
	errs := s.newPassword(r, s.sessions.GetString(r.Context(), riderName))
	if len(errs) == 0 {
		if err := s.Store.Try(r.Context(), byPassword, s.Rider(r)); err != nil {
			return err
		}
		err := s.Store.ChangePassword(r.Context(), s.Rider(r), r.PostFormValue("old"), password, s.sessions.GetString(r.Context(), login))
		if err == nil {
			if err := s.passwordChanged(r, s.Rider(r), store.PasswordChanged); err != nil {
				return err
			}
			return s.stay(w, r, safety+"?done=password")
		}
		if !errors.Is(err, store.ErrNotFound) {
			return err
		}
		errs["old"] = "That is not the password now."
	}
	return s.showSafety(w, r, http.StatusUnprocessableEntity, safetyView{PasswordErrors: errs})
}

// newPassword looks at one that was typed twice.
func (s *Server) newPassword(r *http.Request, name string) desk.FormErrors {
	errs := desk.FormErrors{}
	weak := account.CheckPassword(r.PostFormValue("new"), name)
	switch {
	case weak != nil:
		errs["new"] = desk.Sentence(weak)
	case r.PostFormValue("new") != r.PostFormValue("again"):
		errs["again"] = "The two are not the same."
	}
	return errs
}

// passwordChanged keeps it, and tells the rider.
func (s *Server) passwordChanged(r *http.Request, riderID string, how store.Deed) error {
	rider, err := s.Store.RiderByID(r.Context(), riderID)
	if err != nil {
		return err
	}
	s.tell(rider.Address, "Your password was changed", "The password of your account was changed, and every other device signed out.")
	return s.Store.Note(r.Context(), riderID, how, origin(r))
}

func (s *Server) signOutOthers(w http.ResponseWriter, r *http.Request) error {
	if err := s.Store.LogOutOthers(r.Context(), s.Rider(r), s.sessions.GetString(r.Context(), login)); err != nil {
		return err
	}
	if err := s.did(r, store.OthersOut); err != nil {
		return err
	}
	return s.stay(w, r, safety+"?done=sign-out")
}

// signOutOne ends one of the rider's logins; one's own as the button above every page does.
func (s *Server) signOutOne(w http.ResponseWriter, r *http.Request) error {
	id := r.PostFormValue("login")
	if id == s.sessions.GetString(r.Context(), login) {
		return s.signOut(w, r)
	}
	err := s.Store.LogOut(r.Context(), s.Rider(r), id)
	if err == nil {
		err = s.did(r, store.OneOut)
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) { // ended already is as good
		return err
	}
	return desk.SeeOther(w, r, safety+"?done=one-out")
}

// stay goes on with this session, under a new token, when others have ended.
func (s *Server) stay(w http.ResponseWriter, r *http.Request, to string) error {
	if err := s.sessions.RenewToken(r.Context()); err != nil {
		return err
	}
	return desk.SeeOther(w, r, to)
}
