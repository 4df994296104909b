package web

import (
	"fmt"
	"net"
	"net/http"
	"slices"
	"strings"
	"time"
)

// hosts answers by the names of this site alone; by any where there are none. Checks of this
// process's health come by its address.
func hosts(names []string) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		if len(names) == 0 {
			return next
		}
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			host := r.Host
			if name, _, err := net.SplitHostPort(host); err == nil {
				host = name
			}
			if !slices.Contains(names, strings.ToLower(host)) && r.URL.Path != "/livez" && r.URL.Path != "/healthz" {
				http.Error(w, "This server does not answer by that name.", http.StatusMisdirectedRequest)
				return
			}
			next.ServeHTTP(w, r)
		})
	}
}

// securityLasts is how long what security.txt says holds.
const securityLasts = 90 * 24 * time.Hour

// securityText tells who finds a hole whom to tell (RFC 9116).
func securityText(contact, site string) http.HandlerFunc {
	return func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "text/plain; charset=utf-8")
		fmt.Fprintf(w, "Contact: %s\nExpires: %s\nPreferred-Languages: en\n", contact, time.Now().UTC().Add(securityLasts).Format(time.RFC3339))
		if site != "" {
			fmt.Fprintf(w, "Canonical: %s/.well-known/security.txt\n", site)
		}
	}
}
