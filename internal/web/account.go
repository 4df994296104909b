package web

import (
	"errors"
	"net/http"

	"valiantmule/internal/store"
)

type accountView struct {
	Errors      formErrors
	Done        string
	MinPassword int
}

func (s *Server) account(w http.ResponseWriter, r *http.Request) error {
	done := map[string]string{"password": "The password is changed, and every other device is signed out.", "sign-out": "Every other device is signed out."}
	return s.showAccount(w, r, http.StatusOK, accountView{Done: done[r.URL.Query().Get("done")]})
}

func (s *Server) showAccount(w http.ResponseWriter, r *http.Request, status int, view accountView) error {
	view.MinPassword = store.MinPassword
	return s.show(w, r, status, "account", "Account", view)
}

func (s *Server) changePassword(w http.ResponseWriter, r *http.Request) error {
	password := r.PostFormValue("new")
	view := accountView{Errors: formErrors{}}
	switch {
	case len(password) < store.MinPassword || len(password) > store.MaxPassword:
		view.Errors["new"] = "A password has 10 to 72 characters; a few plain words make a good one."
	case password != r.PostFormValue("again"):
		view.Errors["again"] = "The two are not the same."
	}
	if len(view.Errors) == 0 {
		if err := s.store.Try(r.Context(), byPassword, s.rider(r)); err != nil {
			return err
		}
		fresh, err := s.store.ChangePassword(r.Context(), s.rider(r), r.PostFormValue("old"), password)
		if err == nil {
			return s.stay(w, r, fresh, "/account?done=password")
		}
		if !errors.Is(err, store.ErrNotFound) {
			return err
		}
		view.Errors["old"] = "That is not the password now."
	}
	return s.showAccount(w, r, http.StatusUnprocessableEntity, view)
}

func (s *Server) signOutEverywhere(w http.ResponseWriter, r *http.Request) error {
	fresh, err := s.store.EndSessions(r.Context(), s.rider(r))
	if err != nil {
		return err
	}
	return s.stay(w, r, fresh, "/account?done=sign-out")
}

// stay keeps this session, under a new token, when all others have ended.
func (s *Server) stay(w http.ResponseWriter, r *http.Request, fresh int, to string) error {
	if err := s.sessions.RenewToken(r.Context()); err != nil {
		return err
	}
	s.sessions.Put(r.Context(), epoch, fresh)
	return seeOther(w, r, to)
}
