package web

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"time"

	"valiantmule/internal/account"
	"valiantmule/internal/letter"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// tell sends a notice to a rider who has an address.
func (s *Server) tell(to, subject, words string) {
	if s.letters == nil || to == "" {
		return
	}
	s.letters.Put(letter.Letter{To: to, Subject: subject, Text: words + "\n\nIf that was not you: ask for a new password at " + s.site + "/forgot, and look at what was done under Account, Signing in.\n"})
}

// sendLink sends what a link in a letter does, to be followed once.
func (s *Server) sendLink(r *http.Request, rider *store.Rider, kind store.LinkKind, to, path, subject, words string) error {
	token, err := s.Store.MakeLink(r.Context(), rider.ID, kind, to)
	if err != nil {
		return err
	}
	s.letters.Put(letter.Letter{To: to, Subject: subject, Text: fmt.Sprintf("%s\n\n%s%s?token=%s\n\nThe link works once, until %s. If you did not ask for it, do nothing.\n",
		words, s.site, path, url.QueryEscape(token), time.Now().UTC().Add(kind.Lasts()).Format("15:04 UTC on 2 January 2006"))})
	return nil
}

// setAddress sends a letter to an address; it is the rider's once the link in it was followed.
func (s *Server) setAddress(w http.ResponseWriter, r *http.Request) error {
	if s.letters == nil {
		return store.ErrNotFound
	}
	rider, errs, err := s.proved(r)
	if err != nil {
		return err
	}
	to, bad := account.CheckAddress(r.PostFormValue("address"))
	if bad != nil {
		if errs == nil {
			errs = desk.FormErrors{}
		}
		errs["address"] = desk.Sentence(bad)
	}
	if len(errs) > 0 {
		return s.showSafety(w, r, http.StatusUnprocessableEntity, safetyView{AddressErrors: errs, Typed: r.PostFormValue("address")})
	}
	if err := s.Store.Try(r.Context(), byLetter, rider.ID); err != nil {
		return err
	}
	// Nothing that a rider typed goes to an address that may be somebody else's.
	const words = "Somebody wants letters of their account at Valiant Mule to come here. If that is you, say so:"
	if err := s.sendLink(r, rider, store.ToAddress, to, "/confirm", "Is this your address?", words); err != nil {
		return err
	}
	return desk.SeeOther(w, r, safety+"?done=letter")
}

func (s *Server) dropAddress(w http.ResponseWriter, r *http.Request) error {
	rider, errs, err := s.proved(r)
	if err != nil {
		return err
	}
	if len(errs) > 0 {
		return s.showSafety(w, r, http.StatusUnprocessableEntity, safetyView{AddressErrors: errs})
	}
	if err := s.Store.DropAddress(r.Context(), rider.ID); err != nil {
		return err
	}
	if err := s.did(r, store.AddressGone); err != nil {
		return err
	}
	s.tell(rider.Address, "No more letters come here", "Your account has no address for letters any more.")
	return desk.SeeOther(w, r, safety+"?done=address-gone")
}

// linkView is a page that a letter leads to: it does nothing until its button is pressed, for
// programs follow links too.
type linkView struct {
	Token, Address string
	Name           string // of the rider
	MinPassword    int
	Gone           bool
	Errors         desk.FormErrors
}

func (s *Server) confirmPage(w http.ResponseWriter, r *http.Request) error {
	return s.showLink(w, r, http.StatusOK, store.ToAddress, "confirm", "Your address", r.URL.Query().Get("token"), nil)
}

func (s *Server) showLink(w http.ResponseWriter, r *http.Request, status int, kind store.LinkKind, page, title, token string, errs desk.FormErrors) error {
	view := linkView{Token: token, MinPassword: account.MinPassword, Errors: errs}
	link, err := s.Store.LookLink(r.Context(), kind, token)
	switch {
	case errors.Is(err, store.ErrNotFound):
		status, view.Gone = http.StatusNotFound, true
	case err != nil:
		return err
	default:
		rider, err := s.Store.RiderByID(r.Context(), link.RiderID)
		if err != nil {
			return err
		}
		view.Address, view.Name = link.Address, rider.Name
	}
	return s.Show(w, r, status, page, title, view)
}

func (s *Server) confirmAddress(w http.ResponseWriter, r *http.Request) error {
	token := r.PostFormValue("token")
	link, before, err := s.Store.ConfirmAddress(r.Context(), token)
	if errors.Is(err, store.ErrNotFound) {
		return s.showLink(w, r, http.StatusNotFound, store.ToAddress, "confirm", "Your address", token, nil)
	}
	if err != nil {
		return err
	}
	if before != link.Address {
		s.tell(before, "Letters go elsewhere from now on", "The address for letters of your account was changed.")
	}
	if err := s.Store.Note(r.Context(), link.RiderID, store.AddressSet, origin(r)); err != nil {
		return err
	}
	return desk.SeeOther(w, r, safety+"?done=confirmed")
}

type forgotView struct {
	Name        string
	Letters     bool
	Sent        bool
	Outbox      bool // letters can be read here
	MinPassword int
	Errors      desk.FormErrors
}

func (s *Server) forgotPage(w http.ResponseWriter, r *http.Request) error {
	return s.showForgot(w, r, http.StatusOK, forgotView{})
}

func (s *Server) showForgot(w http.ResponseWriter, r *http.Request, status int, view forgotView) error {
	view.Letters, view.Outbox, view.MinPassword = s.letters != nil, s.outbox != nil, account.MinPassword
	return s.Show(w, r, status, "forgot", "A new password", view)
}

// sendReset sends a link to the accounts of a name or an address that have a confirmed one.
// The answer is the same for all others.
func (s *Server) sendReset(w http.ResponseWriter, r *http.Request) error {
	if s.letters == nil {
		return store.ErrNotFound
	}
	name := strings.TrimSpace(r.PostFormValue("name"))
	if name == "" {
		return s.showForgot(w, r, http.StatusUnprocessableEntity, forgotView{Errors: desk.FormErrors{"name": "Say which account: by its name, or by its address."}})
	}
	if err := s.Store.Try(r.Context(), byAddress, address(r)); err != nil {
		return err
	}
	riders, err := s.Store.Reached(r.Context(), name)
	if err != nil {
		return err
	}
	for _, rider := range riders {
		// So often and no more, and nobody is told that there is such an account.
		err := s.Store.Try(r.Context(), byLetter, rider.ID)
		if errors.Is(err, store.ErrTooMany) {
			continue
		}
		if err == nil {
			words := fmt.Sprintf("A new password for %s was asked for. To choose one:", rider.Name)
			err = s.sendLink(r, rider, store.ToPassword, rider.Address, "/reset", "A new password", words)
		}
		if err == nil {
			err = s.Store.Note(r.Context(), rider.ID, store.LinkAsked, origin(r))
		}
		if err != nil {
			return err
		}
	}
	return s.showForgot(w, r, http.StatusOK, forgotView{Sent: true})
}

// resetByCode replaces a password by a recovery code.
func (s *Server) resetByCode(w http.ResponseWriter, r *http.Request) error {
	name := strings.TrimSpace(r.PostFormValue("name"))
	view := forgotView{Name: name, Errors: s.newPassword(r, name)}
	if len(view.Errors) > 0 {
		return s.showForgot(w, r, http.StatusUnprocessableEntity, view)
	}
	if _, _, err := s.guess(r, name); err != nil {
		return err
	}
	rider, err := s.Store.PasswordByCode(r.Context(), name, r.PostFormValue("code"), r.PostFormValue("new"))
	if errors.Is(err, store.ErrNotFound) {
		s.guessed(r, name, false)
		view.Errors["code"] = "No account has that name with that code. Each code works once."
		return s.showForgot(w, r, http.StatusUnprocessableEntity, view)
	}
	if err == nil {
		err = s.passwordChanged(r, rider.ID, store.PasswordByCode)
	}
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/sign-in?done=password")
}

func (s *Server) resetPage(w http.ResponseWriter, r *http.Request) error {
	return s.showLink(w, r, http.StatusOK, store.ToPassword, "reset", "A new password", r.URL.Query().Get("token"), nil)
}

func (s *Server) resetByLink(w http.ResponseWriter, r *http.Request) error {
	token := r.PostFormValue("token")
	link, err := s.Store.LookLink(r.Context(), store.ToPassword, token)
	var rider *store.Rider
	if err == nil {
		rider, err = s.Store.RiderByID(r.Context(), link.RiderID)
	}
	if err == nil {
		if errs := s.newPassword(r, rider.Name); len(errs) > 0 {
			return s.showLink(w, r, http.StatusUnprocessableEntity, store.ToPassword, "reset", "A new password", token, errs)
		}
		_, err = s.Store.PasswordByLink(r.Context(), token, r.PostFormValue("new"))
	}
	if errors.Is(err, store.ErrNotFound) {
		return s.showLink(w, r, http.StatusNotFound, store.ToPassword, "reset", "A new password", token, nil)
	}
	if err == nil {
		err = s.passwordChanged(r, rider.ID, store.PasswordByLink)
	}
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/sign-in?done=password")
}

// deliveredView is a letter with the link in it.
type deliveredView struct{ Subject, To, Before, Link, After string }

var linkInside = regexp.MustCompile(`https?://\S+`)

// deliveredLetters shows what the demonstration's letters came to: nobody carries them.
func (s *Server) deliveredLetters(w http.ResponseWriter, r *http.Request) error {
	var list []deliveredView
	for _, l := range s.outbox() {
		view := deliveredView{Subject: l.Subject, To: l.To, Before: l.Text}
		if at := linkInside.FindStringIndex(l.Text); at != nil && strings.HasPrefix(l.Text[at[0]:], s.site+"/") {
			view.Before, view.Link, view.After = l.Text[:at[0]], l.Text[at[0]:at[1]], l.Text[at[1]:]
		}
		list = append(list, view)
	}
	return s.Show(w, r, http.StatusOK, "letters", "Letters", list)
}
