package web

import (
	"net/http"
)

// contentPolicy lets pages load from here only; data: is for the icons in
// Bootstrap's stylesheet.
const contentPolicy = "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// policy sets the headers that every answer has.
func policy(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", contentPolicy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		next.ServeHTTP(w, r)
	})
}

// compressed are the kinds of answer worth compressing.
var compressed = []string{"text/html", "text/css", "text/javascript", "application/json", "image/svg+xml"}
