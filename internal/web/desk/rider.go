package desk

import (
	"context"
	"net/http"

	"valiantmule/internal/words"
)

func nameOf(r *http.Request) string {
	name, _ := r.Context().Value(nameKey{}).(string)
	return name
}

type (
	nameKey  struct{}
	unitsKey struct{}
)

// Named is a context in which pages call the rider by name.
func Named(ctx context.Context, name string) context.Context {
	return context.WithValue(ctx, nameKey{}, name)
}

// Measured is a context in which pages speak in the rider's units.
func Measured(ctx context.Context, u words.Units) context.Context {
	return context.WithValue(ctx, unitsKey{}, u)
}

// UnitsOf the rider who is signed in; metric for anybody else.
func UnitsOf(r *http.Request) words.Units {
	u, _ := r.Context().Value(unitsKey{}).(words.Units)
	return u
}

const ThemeCookie = "theme"

// themes are what a rider can choose; without a choice the machine's own holds.
var Themes = map[string]bool{"daylight": true, "garage": true}

func theme(r *http.Request) string {
	cookie, err := r.Cookie(ThemeCookie)
	if err != nil || !Themes[cookie.Value] {
		return ""
	}
	return cookie.Value
}

// SeeOther leads on after something was done.
func SeeOther(w http.ResponseWriter, r *http.Request, to string) error {
	http.Redirect(w, r, to, http.StatusSeeOther)
	return nil
}
