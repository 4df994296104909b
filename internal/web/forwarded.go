package web

import (
	"context"
	"net"
	"net/http"
	"net/netip"
	"slices"
	"strings"
)

type encrypted struct{}

// https tells whether a rider's browser spoke https, to this server or to a proxy in front
// that is trusted.
func https(r *http.Request) bool { return r.Context().Value(encrypted{}) != nil }

// forwarded believes what proxies say of where a request came from, and nobody else: the
// rider's address becomes the request's. Of a chain of addresses the last one that is not
// a proxy's counts, since whoever sent the request wrote those before it.
func forwarded(proxies []netip.Prefix) func(http.Handler) http.Handler {
	trusted := func(address netip.Addr) bool {
		return slices.ContainsFunc(proxies, func(p netip.Prefix) bool { return p.Contains(address.Unmap()) })
	}
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			secure := r.TLS != nil
			if peer, err := netip.ParseAddrPort(r.RemoteAddr); err == nil && trusted(peer.Addr()) {
				chain := strings.Split(strings.Join(r.Header.Values("X-Forwarded-For"), ","), ",")
				for _, text := range slices.Backward(chain) {
					address, err := netip.ParseAddr(strings.TrimSpace(text))
					if err != nil {
						break
					}
					r.RemoteAddr = net.JoinHostPort(address.Unmap().String(), "0")
					if !trusted(address) {
						break
					}
				}
				secure = r.Header.Get("X-Forwarded-Proto") == "https"
			}
			if secure {
				r = r.WithContext(context.WithValue(r.Context(), encrypted{}, true))
			}
			next.ServeHTTP(w, r)
		})
	}
}
