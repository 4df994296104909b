package desk

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"net/http"
	"strings"

	"github.com/go-chi/chi/v5"
	"github.com/maypok86/otter/v2"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// memo keeps answers that follow from a plan alone, in bounded bytes. Nothing is ever
// thrown out of it for being old: what an answer depends on is in its key.
type memo struct {
	answers *otter.Cache[sum, []byte] // nil where nothing is kept
	start   string                    // of this program: another may render otherwise
}

type sum [sha256.Size]byte

func newMemo(bytes int64) (*memo, error) {
	m := &memo{start: rand.Text()}
	if bytes <= 0 {
		return m, nil
	}
	var err error
	m.answers, err = otter.New(&otter.Options[sum, []byte]{
		MaximumWeight: uint64(bytes),
		Weigher:       func(_ sum, answer []byte) uint32 { return uint32(len(sum{}) + cap(answer)) },
	})
	return m, err
}

// seen is what a request looks at, read once for its key and for its handler.
type seen struct {
	snapshot *store.Snapshot
	shelf    plan.Shelf
	version  string // of the shelf
	key      sum    // of the answer; the zero sum where it is not kept
}

type seenKey struct{}

// look reads what a request looks at, or takes what has been read for it.
func (s *House) look(r *http.Request) (*seen, error) {
	if l, ok := r.Context().Value(seenKey{}).(*seen); ok {
		return l, nil
	}
	snapshot, err := s.Store.Plan(r.Context(), s.Rider(r), chi.URLParam(r, "plan"))
	if err != nil {
		return nil, err
	}
	shelf, version, err := s.Store.Shelf(r.Context())
	return &seen{snapshot: snapshot, shelf: shelf, version: version}, err
}

// Kept answers with a handler whose answer follows from the plan, the shelf, the rider
// and the address alone: from the memo, or with nothing but its tag to one who has it.
func (s *House) Kept(h Handler) Handler {
	return func(_ *House, w http.ResponseWriter, r *http.Request) error {
		l, err := s.look(r)
		if err != nil {
			return err
		}
		l.key = s.memo.key(r, l)
		if known(r, l.key.tag()) {
			header(w.Header())
			l.key.keepable(w.Header())
			w.WriteHeader(http.StatusNotModified)
			return nil
		}
		if s.memo.answers != nil {
			if answer, ok := s.memo.answers.GetIfPresent(l.key); ok {
				header(w.Header())
				l.key.keepable(w.Header())
				_, err := w.Write(answer)
				return err
			}
		}
		return h(s, w, r.WithContext(context.WithValue(r.Context(), seenKey{}, l)))
	}
}

// key of an answer is all that it depends on.
func (m *memo) key(r *http.Request, l *seen) sum {
	h := sha256.New()
	for _, part := range []string{
		m.start, l.snapshot.PlanID, l.snapshot.Version, l.version, Today(),
		r.URL.RequestURI(), strings.Join(fragmentOf(r), ","), theme(r), nameOf(r), UnitsOf(r).String(),
	} {
		h.Write([]byte(part))
		h.Write([]byte{0})
	}
	return sum(h.Sum(nil))
}

// keep the answer to a request whose key is known.
func (m *memo) keep(r *http.Request, w http.ResponseWriter, status int, answer []byte) {
	l, ok := r.Context().Value(seenKey{}).(*seen)
	if !ok || status != http.StatusOK {
		return
	}
	l.key.keepable(w.Header())
	if m.answers != nil {
		m.answers.Set(l.key, append([]byte(nil), answer...))
	}
}

// tag is a weak one: compressed or not it is the same answer.
func (k sum) tag() string { return `W/"` + base64.RawURLEncoding.EncodeToString(k[:18]) + `"` }

// keepable lets the rider's own browser keep the answer, and ask each time.
func (k sum) keepable(h http.Header) {
	h.Set("Cache-Control", "private, no-cache")
	h.Set("ETag", k.tag())
}

// known reports whether the one who asks has the answer of a tag.
func known(r *http.Request, tag string) bool {
	for _, has := range strings.Split(r.Header.Get("If-None-Match"), ",") {
		if strings.TrimSpace(has) == tag {
			return true
		}
	}
	return false
}
