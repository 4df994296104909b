package desk

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
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

// WhoOf is the mark by which a page, and what the browser holds for it, know that a rider is
// signed in; "" for nobody. It opens nothing.
func WhoOf(name string) string {
	if name == "" {
		return ""
	}
	sum := sha256.Sum256([]byte("who " + name))
	return hex.EncodeToString(sum[:8])
}

const ThemeCookie = "theme"

// themes are what a rider can choose; without a choice the machine's own holds.
var Themes = map[string]bool{"daylight": true, "garage": true}

func theme(r *http.Request) string {
	if chosen := CookieOf(r, ThemeCookie); Themes[chosen] {
		return chosen
	}
	return ""
}

// HostOnly begins the name of a cookie that a browser takes over https alone, from this host
// alone, for all of it (RFC 6265bis, section 4.1.3.2).
const HostOnly = "__Host-"

// CookieOf is what a browser holds under a name, over https or not; "" for nothing.
func CookieOf(r *http.Request, name string) string {
	for _, name := range []string{HostOnly + name, name} {
		if cookie, err := r.Cookie(name); err == nil {
			return cookie.Value
		}
	}
	return ""
}

// SeeOther leads on after something was done.
func SeeOther(w http.ResponseWriter, r *http.Request, to string) error {
	http.Redirect(w, r, to, http.StatusSeeOther)
	return nil
}
