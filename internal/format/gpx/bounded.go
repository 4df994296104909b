package gpx

import (
	"bytes"
	"errors"
	"io"
)

// maxToken is the longest piece of markup that is read, or of text between two pieces: a
// decoder keeps each of them whole, and a file could be one.
const maxToken = 64 << 10

var errToken = errors.New("a tag, a comment or a text is longer than 64 KB: not a file of tracks")

// bounded reads on as long as no piece of a document is longer than maxToken. It follows
// just enough of the syntax to tell where one ends.
type bounded struct {
	r    io.Reader
	size int    // of the piece so far
	tail []byte // the last bytes of it, up to four
	ends string // what ends it: "<" of text, ">" of a tag, or more of a comment and the like
	err  error
}

func newBounded(r io.Reader) *bounded { return &bounded{r: r, ends: "<"} }

func (b *bounded) Read(p []byte) (int, error) {
	if b.err != nil {
		return 0, b.err
	}
	n, err := b.r.Read(p)
	for i := 0; i < n; {
		i += b.step(p[i:n])
		if b.size > maxToken {
			b.err = errToken
			return 0, b.err
		}
	}
	return n, err
}

// step takes bytes in up to what may end the piece, and tells how many.
func (b *bounded) step(p []byte) int {
	last := b.ends[len(b.ends)-1]
	at := bytes.IndexByte(p, last)
	taken := p
	if at >= 0 {
		taken = p[:at+1]
	}
	b.size += len(taken)
	before := b.tail
	b.tail = append(before, taken[max(0, len(taken)-4):]...)
	b.tail = b.tail[max(0, len(b.tail)-4):]
	if b.ends == ">" {
		b.opening(before, taken)
	}
	if at < 0 || !bytes.HasSuffix(b.tail, []byte(b.ends)) {
		return len(taken)
	}
	if b.ends == "<" {
		b.ends = ">"
	} else {
		b.ends = "<"
	}
	b.size, b.tail = 0, b.tail[:0]
	return len(taken)
}

// opening tells by the first bytes of a piece of markup that it is a comment, a section of
// characters or an instruction, which a bare ">" does not end.
func (b *bounded) opening(before, taken []byte) {
	head := append(append([]byte{}, before...), taken[:min(len(taken), 8)]...)
	if b.size-len(taken) > 8 {
		return
	}
	switch {
	case bytes.HasPrefix(head, []byte("!--")):
		b.ends = "-->"
	case bytes.HasPrefix(head, []byte("![CDATA[")):
		b.ends = "]]>"
	case bytes.HasPrefix(head, []byte("?")):
		b.ends = "?>"
	}
}
