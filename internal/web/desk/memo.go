package desk

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"net/http"
	"strings"

	"github.com/maypok86/otter/v2"
)

// memo keeps answers that follow from a plan alone, in bounded bytes. Nothing is ever
// thrown out of it for being old: what an answer depends on is in its key.
type memo struct {
	answers *otter.Cache[sum, []byte] // compressed; nil where nothing is kept
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

// keptAnswer is one that may be kept: the versions of what it follows from, and its key.
type keptAnswer struct {
	plan, shelf string
	garage      string // of all plans of the rider, "" where the answer does not follow from them
	key         sum    // the zero sum where it is not kept
}

type keptKey struct{}

// versions of what a request looks at.
func (s *House) versions(r *http.Request) (k *keptAnswer, err error) {
	k = &keptAnswer{}
	kind, id := dossierOf(r)
	if k.plan, err = s.Store.Version(r.Context(), s.Rider(r), kind, id); err != nil {
		return nil, err
	}
	_, k.shelf, err = s.Store.Shelf(r.Context())
	return k, err
}

// Kept answers with a handler whose answer follows from the plan, the shelf, the rider
// and the address alone, where it says so from the rider's other plans too: from the memo, or with nothing but its tag to one who has it. Its
// key is of ids and versions: nothing is read for one that is kept.
func (s *House) Kept(h Handler, garage bool) Handler {
	return func(_ *House, w http.ResponseWriter, r *http.Request) error {
		k, err := s.versions(r)
		if err == nil && garage {
			k.garage, err = s.Store.GarageVersion(r.Context(), s.Rider(r))
		}
		if err != nil {
			return err
		}
		k.key = s.memo.key(r, k)
		if known(r, k.key.tag()) {
			header(w.Header())
			k.key.keepable(w.Header())
			s.Answered("unchanged")
			w.WriteHeader(http.StatusNotModified)
			return nil
		}
		if s.memo.answers != nil {
			if answer, ok := s.memo.answers.GetIfPresent(k.key); ok {
				header(w.Header())
				k.key.keepable(w.Header())
				s.Answered("kept")
				return send(w, r, http.StatusOK, answer)
			}
		}
		s.Answered("made")
		return h(s, w, r.WithContext(context.WithValue(r.Context(), keptKey{}, k)))
	}
}

// key of an answer is all that it depends on.
func (m *memo) key(r *http.Request, k *keptAnswer) sum {
	h := sha256.New()
	for _, part := range []string{
		m.start, k.plan, k.shelf, k.garage, Today(),
		r.URL.RequestURI(), strings.Join(fragmentOf(r), ","), theme(r), nameOf(r), UnitsOf(r).String(),
	} {
		h.Write([]byte(part))
		h.Write([]byte{0})
	}
	return sum(h.Sum(nil))
}

// answer sends an answer that is made, and keeps it where its key is known.
func (m *memo) answer(w http.ResponseWriter, r *http.Request, status int, made []byte) error {
	k, ok := r.Context().Value(keptKey{}).(*keptAnswer)
	if ok && status == http.StatusOK && k.key != (sum{}) {
		k.key.keepable(w.Header())
		if m.answers != nil {
			packed, err := pack(made)
			if err != nil {
				return err
			}
			m.answers.Set(k.key, packed)
			return send(w, r, status, packed)
		}
	}
	w.WriteHeader(status)
	_, err := w.Write(made)
	return err
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
