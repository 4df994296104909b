package web

import (
	"context"
	"errors"
	"net/http"
	"runtime/debug"

	"valiantmule/internal/store"
)

var errMethod = errors.New("that cannot be done to this page")

// handle turns a handler that returns an error into one that answers with a
// page that says what happened and what to do.
func (s *Server) handle(h func(w http.ResponseWriter, r *http.Request) error) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		if err := h(w, r); err != nil {
			s.fail(w, r, err)
		}
	}
}

type failure struct{ What, Do string }

// fail answers with the page of an error.
func (s *Server) fail(w http.ResponseWriter, r *http.Request, err error) {
	var tooLarge *http.MaxBytesError
	status, view := http.StatusInternalServerError, failure{
		"Something went wrong here.", "Nothing was changed. Go back: what you typed is still in the form. If it happens again, the server's log says why."}
	switch {
	case errors.Is(err, context.Canceled):
		return // nobody waits for the answer
	case errors.Is(err, store.ErrNotFound):
		status, view = http.StatusNotFound, failure{"There is no such page in your garage.", "It may have been another rider's, or the address is mistyped."}
	case errors.Is(err, errMethod):
		status, view = http.StatusMethodNotAllowed, failure{"That cannot be done to this page.", "Go back and use the buttons of the page."}
	case errors.Is(err, store.ErrStale):
		status, view = http.StatusConflict, failure{"The plan has changed since this page was opened.",
			"Nothing was overwritten and nothing was saved from here. Open the plan as it is now and do it again."}
	case errors.Is(err, store.ErrLost):
		status, view = http.StatusServiceUnavailable, failure{"The database went away, and this was not kept.",
			"Nothing was changed. Go back and save again: what you typed is still in the form."}
	case errors.Is(err, store.ErrDoubt):
		status, view = http.StatusServiceUnavailable, failure{"The database went away before it said whether it kept this.",
			"It may be there or not. Go back and save again: it is kept once, however often it is sent."}
	case errors.Is(err, store.ErrNothing):
		status, view = http.StatusConflict, failure{"There is nothing to undo or redo.", "The plan is at the end of its history."}
	case errors.Is(err, store.ErrTooMany):
		status, view = http.StatusTooManyRequests, failure{"Too many tries.", "Wait a quarter of an hour, then try again. Nothing was changed."}
	case errors.As(err, &tooLarge):
		status, view = http.StatusRequestEntityTooLarge, failure{"That is larger than what is taken here.", "A plan file has at most 4 MB."}
	case !s.Store.Answers(r.Context()):
		status, view = http.StatusServiceUnavailable, failure{"The database does not answer.",
			"Nothing was changed. Go back and try again in a moment: what you typed is still in the form."}
	}
	if status >= http.StatusInternalServerError {
		s.log.Error("request failed", "method", r.Method, "path", r.URL.Path, "error", err)
	}
	if err := s.Show(w, r, status, "failure", view.What, view); err != nil {
		s.log.Error("the page of an error failed", "error", err)
		http.Error(w, view.What+" "+view.Do, status)
	}
}

// recoverer keeps the server up when a handler panics.
func (s *Server) recoverer(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		defer func() {
			if v := recover(); v != nil && v != http.ErrAbortHandler {
				s.log.Error("panic", "path", r.URL.Path, "value", v, "stack", string(debug.Stack()))
				http.Error(w, "Something went wrong here. Nothing was changed.", http.StatusInternalServerError)
			}
		}()
		next.ServeHTTP(w, r)
	})
}
