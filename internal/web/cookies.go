package web

import (
	"net/http"
	"time"

	"valiantmule/internal/web/desk"
)

// whoCookie tells pages who is signed in, by a mark that opens nothing: a page that the browser
// has kept is not shown to anybody else. Scripts may read it.
const whoCookie = "who"

// forYear is how long a browser keeps what a rider chose.
const forYear = 365 * 24 * time.Hour

// setCookie keeps a value in the browser, over https by a name that no other host and no plain
// page can set; one without a value goes.
func setCookie(w http.ResponseWriter, r *http.Request, name, value string, lasts time.Duration, scripts bool) {
	c := &http.Cookie{Name: cookieName(r, name), Value: value, Path: "/", MaxAge: int(lasts.Seconds()), HttpOnly: !scripts, Secure: https(r), SameSite: http.SameSiteLaxMode}
	if value == "" {
		c.MaxAge = -1
	}
	http.SetCookie(w, c)
}

func cookieName(r *http.Request, name string) string {
	if https(r) {
		return desk.HostOnly + name
	}
	return name
}
