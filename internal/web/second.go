package web

import (
	"errors"
	"net/http"
	"time"

	"html/template"

	"valiantmule/internal/account"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// bySecond is how often codes may be guessed at by one who has the password.
var bySecond = store.Limit{Name: "second factor", Tries: 5, In: 15 * time.Minute}

// halfLasts is how long a password waits for its second factor.
const halfLasts = 10 * time.Minute

// askSecond keeps that the password was right, and asks for the second factor.
func (s *Server) askSecond(w http.ResponseWriter, r *http.Request, rider *store.Rider) error {
	if err := s.sessions.RenewToken(r.Context()); err != nil {
		return err
	}
	s.sessions.Put(r.Context(), halfID, rider.ID)
	s.sessions.Put(r.Context(), halfAt, time.Now().Unix())
	return desk.SeeOther(w, r, "/sign-in/second")
}

// half is the rider whose password was given lately, nil for nobody.
func (s *Server) half(r *http.Request) (*store.Rider, error) {
	since := time.Since(time.Unix(s.sessions.GetInt64(r.Context(), halfAt), 0))
	id := s.sessions.GetString(r.Context(), halfID)
	if id == "" || since > halfLasts {
		return nil, nil
	}
	rider, err := s.Store.RiderByID(r.Context(), id)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	return rider, err
}

type secondView struct{ Error string }

func (s *Server) secondPage(w http.ResponseWriter, r *http.Request) error {
	rider, err := s.half(r)
	if err != nil {
		return err
	}
	if rider == nil {
		return desk.SeeOther(w, r, "/sign-in")
	}
	return s.Show(w, r, http.StatusOK, "second", "The second factor", secondView{})
}

func (s *Server) signInSecond(w http.ResponseWriter, r *http.Request) error {
	rider, err := s.half(r)
	if err != nil {
		return err
	}
	if rider == nil {
		return desk.SeeOther(w, r, "/sign-in")
	}
	who := rider.ID
	known, err := s.Store.Knows(r.Context(), rider.Name, address(r))
	if err != nil {
		return err
	}
	if known { // guesses from elsewhere do not slow the owner down
		who += "\x00" + address(r)
	}
	if err := s.Store.Try(r.Context(), bySecond, who); err != nil {
		return err
	}
	byRecovery, err := s.Store.TakeSecond(r.Context(), rider.ID, r.PostFormValue("code"))
	if errors.Is(err, store.ErrNotFound) {
		s.guessed(r, rider.Name, false)
		return s.Show(w, r, http.StatusUnprocessableEntity, "second", "The second factor", secondView{Error: "That is not a code of now, nor a recovery code that is left. One code is taken once: wait for the next."})
	}
	if err == nil {
		err = s.Store.Forget(r.Context(), bySecond, who)
	}
	if err == nil && byRecovery {
		err = s.Store.Note(r.Context(), rider.ID, store.CodeUsed, origin(r))
	}
	if err != nil {
		return err
	}
	return s.enter(w, r, rider)
}

// newSecondView is a secret that waits for its first code.
type newSecondView struct {
	Picture template.URL
	Letters string
	Error   string
}

// beginSecond makes a secret, which counts once a code has proved that the rider's program
// has it.
func (s *Server) beginSecond(w http.ResponseWriter, r *http.Request) error {
	_, errs, err := s.proved(r)
	if err != nil {
		return err
	}
	if len(errs) > 0 {
		return s.showSafety(w, r, http.StatusUnprocessableEntity, safetyView{SecondErrors: errs})
	}
	secret, err := account.NewSecond(s.sessions.GetString(r.Context(), riderName))
	if err != nil {
		return err
	}
	s.sessions.Put(r.Context(), newSecond, secret)
	return s.showNewSecond(w, r, http.StatusOK, "")
}

func (s *Server) showNewSecond(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	secret := s.sessions.GetString(r.Context(), newSecond)
	picture, letters, err := account.SecondPicture(s.sessions.GetString(r.Context(), riderName), secret)
	if err != nil {
		return err
	}
	// The address is of data that was made here.
	return s.Show(w, r, status, "new-second", "A second factor", newSecondView{Picture: template.URL(picture), Letters: letters, Error: problem})
}

func (s *Server) setSecond(w http.ResponseWriter, r *http.Request) error {
	secret := s.sessions.GetString(r.Context(), newSecond)
	if secret == "" {
		return desk.SeeOther(w, r, safety)
	}
	if err := s.Store.Try(r.Context(), bySecond, s.Rider(r)); err != nil {
		return err
	}
	step, ok := account.SecondStep(secret, r.PostFormValue("code"), time.Now(), 0)
	if !ok {
		return s.showNewSecond(w, r, http.StatusUnprocessableEntity, "That is not its code of now. Is the clock of the device right? Take the next one.")
	}
	if err := s.Store.SetSecond(r.Context(), s.Rider(r), secret, step); err != nil {
		return err
	}
	s.sessions.Remove(r.Context(), newSecond)
	if err := s.did(r, store.SecondOn); err != nil {
		return err
	}
	left, err := s.Store.Codes(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	if left == 0 { // a device that is lost must not lock its rider out
		return s.giveCodes(w, r)
	}
	return desk.SeeOther(w, r, safety+"?done=second-on")
}

func (s *Server) dropSecond(w http.ResponseWriter, r *http.Request) error {
	rider, errs, err := s.proved(r)
	if err != nil {
		return err
	}
	if len(errs) > 0 {
		return s.showSafety(w, r, http.StatusUnprocessableEntity, safetyView{SecondErrors: errs})
	}
	if err := s.Store.ClearSecond(r.Context(), rider.ID); err != nil {
		return err
	}
	if err := s.did(r, store.SecondOff); err != nil {
		return err
	}
	s.tell(rider.Address, "The second factor is off", "The second factor of your account was turned off.")
	return desk.SeeOther(w, r, safety+"?done=second-off")
}

// makeCodes gives a rider recovery codes, which are shown once.
func (s *Server) makeCodes(w http.ResponseWriter, r *http.Request) error {
	_, errs, err := s.proved(r)
	if err != nil {
		return err
	}
	if len(errs) > 0 {
		return s.showSafety(w, r, http.StatusUnprocessableEntity, safetyView{CodeErrors: errs})
	}
	return s.giveCodes(w, r)
}

func (s *Server) giveCodes(w http.ResponseWriter, r *http.Request) error {
	codes, err := s.Store.MakeCodes(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	if err := s.did(r, store.CodesMade); err != nil {
		return err
	}
	return s.Show(w, r, http.StatusOK, "codes", "Recovery codes", codes)
}
