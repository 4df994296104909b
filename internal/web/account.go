package web

import (
	"errors"
	"net/http"

	"valiantmule/internal/account"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

type accountView struct {
	Done    string
	Demo    bool // the demonstration's own account, which stays
	Units   []unitChoice
	Presets []words.Preset
	Numbers []desk.OptionView
}

// unitChoice is one quantity with the units that it can be shown in.
type unitChoice struct {
	Key, Name string
	Options   []desk.OptionView
}

func (s *Server) account(w http.ResponseWriter, r *http.Request) error {
	view := accountView{Demo: s.demonstrates(r), Presets: words.Presets()}
	if r.URL.Query().Get("done") == "units" {
		view.Done = "The units are kept."
	}
	view.Numbers = desk.OptionsOf(words.Conventions(), string(desk.UnitsOf(r).Numbers()), "")
	for _, c := range words.Choices() {
		choice := unitChoice{Key: "unit." + c.Units[0], Name: c.Name}
		for _, symbol := range c.Units {
			choice.Options = append(choice.Options, desk.OptionView{Value: symbol, Name: symbol, Selected: desk.UnitsOf(r).Of(c.Units[0]) == symbol})
		}
		view.Units = append(view.Units, choice)
	}
	return s.Show(w, r, http.StatusOK, "account", "Account", view)
}

// setUnits keeps a choice for each quantity, or a preset for all.
func (s *Server) setUnits(w http.ResponseWriter, r *http.Request) error {
	units := words.Units{}
	for _, c := range words.Choices() {
		units[c.Units[0]] = r.PostFormValue("unit." + c.Units[0])
	}
	units["number"] = r.PostFormValue("number")
	for _, preset := range words.Presets() {
		if preset.Name == r.PostFormValue("preset") {
			units = preset.Units
		}
	}
	// Through its text, which leaves out what is no choice.
	if err := s.Store.SetUnits(r.Context(), s.Rider(r), words.ParseUnits(units.String()).String()); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/account?done=units")
}

// deletion is asked twice: the page lists what goes, and wants the name typed.
type deletionView struct {
	Demo     bool // the demonstration's own account, which stays
	Name     string
	Plans    []string
	Bikes    []string
	Password bool // the account has one, which is asked for
	Typed    string
	Errors   desk.FormErrors
}

// demonstrates tells whether a request is the demonstration's rider's, who anybody is.
func (s *Server) demonstrates(r *http.Request) bool {
	return s.demoRider != "" && s.sessions.GetString(r.Context(), riderName) == s.demoRider
}

// own is something that riders do to an account of their own.
func (s *Server) own(h func(http.ResponseWriter, *http.Request) error) func(http.ResponseWriter, *http.Request) error {
	return func(w http.ResponseWriter, r *http.Request) error {
		if s.demonstrates(r) {
			return store.ErrNotFound
		}
		return h(w, r)
	}
}

func (s *Server) askDeletion(w http.ResponseWriter, r *http.Request) error {
	return s.showDeletion(w, r, http.StatusOK, "", nil)
}

func (s *Server) showDeletion(w http.ResponseWriter, r *http.Request, status int, typed string, errs desk.FormErrors) error {
	rider, err := s.Store.RiderByID(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	view := deletionView{Demo: s.demonstrates(r), Name: rider.Name, Password: rider.Hash != nil, Typed: typed, Errors: errs}
	plans, err := s.Store.Plans(r.Context(), rider.ID)
	if err != nil {
		return err
	}
	for _, p := range plans {
		view.Plans = append(view.Plans, p.Plan.Name)
	}
	garage, err := s.Store.GarageBikes(r.Context(), rider.ID)
	if err != nil {
		return err
	}
	for _, b := range garage {
		view.Bikes = append(view.Bikes, b.Name)
	}
	return s.Show(w, r, status, "deletion", "Delete the account", view)
}

func (s *Server) deleteAccount(w http.ResponseWriter, r *http.Request) error {
	typed := r.PostFormValue("name")
	if account.Fold(typed) != account.Fold(s.sessions.GetString(r.Context(), riderName)) {
		return s.showDeletion(w, r, http.StatusUnprocessableEntity, typed, desk.FormErrors{"name": "That is not the name of this account."})
	}
	if err := s.Store.Try(r.Context(), byPassword, s.Rider(r)); err != nil {
		return err
	}
	err := s.Store.DeleteRider(r.Context(), s.Rider(r), r.PostFormValue("password"))
	if errors.Is(err, store.ErrNotFound) {
		return s.showDeletion(w, r, http.StatusUnprocessableEntity, typed, desk.FormErrors{"password": "That is not the password."})
	}
	if err != nil {
		return err
	}
	if err := s.leave(w, r, everything); err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/sign-in?done=deleted")
}
