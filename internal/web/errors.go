package web

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"runtime/debug"
	"strconv"
	"strings"
	"unicode/utf8"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

var errMethod = errors.New("that cannot be done to this page")

// handle turns a handler that returns an error into one that answers with a
// page that says what happened and what to do.
func (s *Server) handle(h func(w http.ResponseWriter, r *http.Request) error) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		err := text(r)
		if err == nil {
			err = h(w, r)
		}
		if err != nil {
			s.fail(w, r, err)
		}
	}
}

// text makes sure that what a request says in its address and its form is text.
func text(r *http.Request) error {
	if err := r.ParseForm(); err != nil {
		var tooLarge *http.MaxBytesError
		if errors.As(err, &tooLarge) {
			return err
		}
		return desk.ErrText
	}
	if !utf8.ValidString(r.URL.Path) {
		return desk.ErrText
	}
	return desk.TextOnly(r.Form)
}

type failure struct {
	What, Do string
	Code     string // that stands in the log, "" where nothing does
}

// fail answers with the page of an error.
func (s *Server) fail(w http.ResponseWriter, r *http.Request, err error) {
	var tooLarge *http.MaxBytesError
	var tooMany *store.TooMany
	var refused desk.Refused
	var quota *store.Quota
	var rests *garage.Refusal
	status, view := http.StatusInternalServerError, failure{What: "Something went wrong here.", Do: "Nothing was changed. Go back: what you typed is still in the form. If it happens again, the server's log says why."}
	switch {
	case errors.Is(err, context.Canceled): // who went away half may still read
		status, view = http.StatusServiceUnavailable, failure{What: "The request was broken off.", Do: "What it was to change may be there or not: look, or save again, which keeps it once."}
	case errors.Is(err, store.ErrNotFound):
		status, view = http.StatusNotFound, failure{What: "There is no such page in your garage.", Do: "It may have been another rider's, or the address is mistyped."}
	case errors.Is(err, errMethod):
		status, view = http.StatusMethodNotAllowed, failure{What: "That cannot be done to this page.", Do: "Go back and use the buttons of the page."}
	case errors.Is(err, store.ErrStale):
		status, view = http.StatusConflict, failure{What: "The plan has changed since this page was opened.", Do: "Nothing was overwritten and nothing was saved from here. Open the plan as it is now and do it again."}
	case errors.Is(err, store.ErrMoved):
		status, view = http.StatusConflict, failure{What: err.Error(), Do: "Nothing was overwritten and nothing was saved from here. Bring the plan up to date with its bike first and do it again, or change it by hand."}
	case errors.As(err, &rests):
		status, view = http.StatusConflict, failure{What: rests.What, Do: strings.TrimSpace(rests.Do + " Nothing was changed.")}
	case errors.Is(err, store.ErrFull):
		status, view = http.StatusUnprocessableEntity, failure{What: "The log holds no more readings.", Do: "Nothing was changed. Export the bike and begin a new one, which starts without them."}
	case errors.Is(err, store.ErrClash):
		status, view = http.StatusConflict, failure{What: "Nothing was changed.", Do: err.Error()}
	case errors.Is(err, store.ErrLost):
		status, view = http.StatusServiceUnavailable, failure{What: "The database went away, and this was not kept.", Do: "Nothing was changed. Go back and save again: what you typed is still in the form."}
	case errors.Is(err, store.ErrDoubt):
		status, view = http.StatusServiceUnavailable, failure{What: "The database went away before it said whether it kept this.", Do: "It may be done or not: look. A form that is sent again is kept once, however often."}
	case errors.Is(err, store.ErrNothing):
		status, view = http.StatusConflict, failure{What: "There is nothing to undo or redo.", Do: "The plan is at the end of its history."}
	case errors.As(err, &quota):
		status, view = http.StatusUnprocessableEntity, failure{What: quota.What, Do: quota.Do + " Nothing was changed."}
	case errors.As(err, &refused):
		status, view = http.StatusUnprocessableEntity, failure{What: "That cannot be saved.", Do: refused.Error() + ". Nothing was changed. Go back: what you typed is still in the form."}
	case errors.As(err, &tooMany):
		seconds := int(math.Ceil(tooMany.Wait.Seconds()))
		w.Header().Set("Retry-After", strconv.Itoa(seconds))
		status, view = http.StatusTooManyRequests, failure{What: "Too many tries.", Do: fmt.Sprintf("Wait %d s, then try again. Nothing was changed.", seconds)}
	case errors.Is(err, desk.ErrText):
		status, view = http.StatusBadRequest, failure{What: "That is not text.", Do: "What was sent is not UTF-8. Go back and type it again. Nothing was changed."}
	case errors.As(err, &tooLarge):
		status, view = http.StatusRequestEntityTooLarge, failure{What: "That is larger than what is taken here.", Do: "A plan file has at most 4 MB."}
	case store.Gone(err):
		status, view = http.StatusServiceUnavailable, failure{What: "The database does not answer.", Do: "Nothing was changed. Go back and try again in a moment: what you typed is still in the form."}
	case store.Full(err):
		status, view = http.StatusServiceUnavailable, failure{What: "Nothing can be kept here now.", Do: "Nothing was changed. There is no room left, or the database takes nothing for another reason: who runs this site has to help. Go back and try again later: what you typed is still in the form."}
	case errors.Is(err, desk.ErrForm):
		status, view = http.StatusBadRequest, failure{What: "What was sent is not whole.", Do: "It broke off, or is no form. Nothing was changed. Go back and send it again."}
	}
	if n := noteOf(r); status >= http.StatusInternalServerError {
		n.err, view.Code = err, n.code
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
				n := noteOf(r)
				n.err = fmt.Errorf("panic: %v", v)
				s.log.Error("panic", "code", n.code, "value", v, "stack", string(debug.Stack()))
				http.Error(w, "Something went wrong here, and the server's log says what, under "+n.code+".", http.StatusInternalServerError)
			}
		}()
		next.ServeHTTP(w, r)
	})
}
