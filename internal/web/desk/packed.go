package desk

import (
	"bytes"
	"io"
	"net/http"
	"strings"
	"sync"

	"github.com/klauspost/compress/gzip"
)

// packers are kept: one is larger than most answers.
var packers = sync.Pool{New: func() any {
	w, _ := gzip.NewWriterLevel(nil, gzip.BestSpeed) // that level is one there is
	return w
}}

// pack compresses an answer as it is kept.
func pack(answer []byte) ([]byte, error) {
	var out bytes.Buffer
	w := packers.Get().(*gzip.Writer)
	defer packers.Put(w)
	w.Reset(&out)
	if _, err := w.Write(answer); err != nil {
		return nil, err
	}
	if err := w.Close(); err != nil {
		return nil, err
	}
	return bytes.Clone(out.Bytes()), nil
}

// send answers with what is packed, as it is to those who take it so.
func send(w http.ResponseWriter, r *http.Request, status int, packed []byte) error {
	if takesGzip(r) {
		w.Header().Set("Content-Encoding", "gzip")
		w.WriteHeader(status)
		_, err := w.Write(packed)
		return err
	}
	plain, err := gzip.NewReader(bytes.NewReader(packed))
	if err != nil {
		return err
	}
	w.WriteHeader(status)
	_, err = io.Copy(w, plain)
	return err
}

// takesGzip reports whether a request says that it takes it. One that weighs it is sent
// what is plain.
func takesGzip(r *http.Request) bool {
	for _, coding := range strings.Split(r.Header.Get("Accept-Encoding"), ",") {
		if strings.TrimSpace(coding) == "gzip" {
			return true
		}
	}
	return false
}
