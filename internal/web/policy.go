package web

import (
	"net/http"

	"github.com/klauspost/compress/gzhttp"
	"github.com/klauspost/compress/gzip"
)

// contentPolicy lets pages load from here only; data: is for the icons in
// Bootstrap's stylesheet.
const contentPolicy = "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// policy sets the headers that every answer has.
func policy(hsts bool) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			h.Set("Content-Security-Policy", contentPolicy)
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("Referrer-Policy", "same-origin")
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Cross-Origin-Resource-Policy", "same-origin")
			h.Set("Permissions-Policy", "camera=(), geolocation=(), microphone=()")
			if hsts && https(r) {
				h.Set("Strict-Transport-Security", "max-age=31536000")
			}
			next.ServeHTTP(w, r)
		})
	}
}

// compressed are the kinds of answer worth compressing.
var compressed = []string{"text/html", "text/css", "text/javascript", "application/json", "image/svg+xml"}

// compress answers in gzip those who take it: pages are made for one rider at one
// moment, so what it costs counts, and the level is a quick one.
func compress() (func(http.Handler) http.Handler, error) {
	wrap, err := gzhttp.NewWrapper(gzhttp.ContentTypes(compressed), gzhttp.CompressionLevel(gzip.BestSpeed), gzhttp.EnableZstd(false))
	if err != nil {
		return nil, err
	}
	return func(next http.Handler) http.Handler { return wrap(next) }, nil
}
