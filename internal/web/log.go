package web

import (
	"context"
	"crypto/rand"
	"errors"
	"log/slog"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"valiantmule/internal/store"
)

// note is what the log says of a request beyond its line.
type note struct {
	code string // that a page of an error shows
	err  error
}

type noteKey struct{}

// noteOf is the note of a request.
func noteOf(r *http.Request) *note {
	if n, ok := r.Context().Value(noteKey{}).(*note); ok {
		return n
	}
	return &note{}
}

// logged writes a line for each request: errors of this server as errors, what was refused
// as warnings, assets and checks of health only where details are asked for. One that took
// longer than slow is a warning with its queries. No address, form, cookie or query string
// is written.
func logged(log *slog.Logger, slow time.Duration, meter Meter) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			n, queries := &note{code: rand.Text()[:10]}, &store.Queries{}
			ctx := store.Watched(context.WithValue(r.Context(), noteKey{}, n), queries)
			r = r.WithContext(ctx)
			answer := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
			began := time.Now()
			defer func() {
				took := time.Since(began)
				attributes := []slog.Attr{slog.String("method", r.Method), slog.String("path", pattern(r)), slog.Int("status", answer.Status()), slog.Int("bytes", answer.BytesWritten()), slog.Duration("took", took.Round(time.Microsecond))}
				if meter != nil {
					meter.Request(r.Method, routeOf(r), answer.Status(), took)
				}
				level := levelOf(r, answer.Status())
				if n.err != nil && !errors.Is(n.err, context.Canceled) {
					attributes = append(attributes, slog.String("code", n.code), slog.Any("error", n.err))
				}
				if slow > 0 && took >= slow {
					level = max(level, slog.LevelWarn)
					attributes = append(attributes, slog.Bool("slow", true), slog.Any("queries", queries.List()))
				}
				log.LogAttrs(ctx, level, "request", attributes...)
			}()
			next.ServeHTTP(answer, r)
		})
	}
}

// pattern is a request's path as its route is written, "/plans/{plan}/brief": it tells no
// plan's name. What no route takes is told as it came, cut short.
func pattern(r *http.Request) string {
	if route := routeOf(r); route != "" {
		return route
	}
	const most = 80
	return r.URL.Path[:min(most, len(r.URL.Path))]
}

// routeOf is a request's path as its route is written, "" where no route took it.
func routeOf(r *http.Request) string {
	if route := chi.RouteContext(r.Context()); route != nil {
		return route.RoutePattern()
	}
	return ""
}

func levelOf(r *http.Request, status int) slog.Level {
	switch {
	case status >= http.StatusInternalServerError:
		return slog.LevelError
	case status == http.StatusTooManyRequests, status == http.StatusForbidden, status == http.StatusRequestEntityTooLarge:
		return slog.LevelWarn
	case r.URL.Path == "/livez" || r.URL.Path == "/healthz" || len(r.URL.Path) > 8 && r.URL.Path[:8] == "/assets/":
		return slog.LevelDebug
	}
	return slog.LevelInfo
}
