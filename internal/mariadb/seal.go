package mariadb

import (
	"bytes"
	"crypto/sha256"
	"errors"
	"fmt"
	"hash"
	"io"
	"strings"
)

// ErrCut says that a backup is not whole: its end is missing, or its bytes are not those
// that were written.
var ErrCut = errors.New("the backup is not whole: nothing was restored; take another one")

// sealMark begins the last line of a backup, a comment of SQL. What stands before it is
// counted and hashed in it.
const sealMark = "-- end of the backup: "

// sealed writes through, and at its end the line by which [Check] knows the whole.
type sealed struct {
	to    io.Writer
	sum   hash.Hash
	bytes int64
}

func newSealed(w io.Writer) *sealed { return &sealed{to: w, sum: sha256.New()} }

func (s *sealed) Write(p []byte) (int, error) {
	n, err := s.to.Write(p)
	s.sum.Write(p[:n])
	s.bytes += int64(n)
	return n, err
}

// line is the last one.
func (s *sealed) line() string {
	return fmt.Sprintf("%s%d bytes, sha256 %x\n", sealMark, s.bytes, s.sum.Sum(nil))
}

func (s *sealed) close() error {
	_, err := io.WriteString(s.to, s.line())
	return err
}

// Check reads a backup to its end; ErrCut when it is not what Dump wrote, to the byte.
func Check(r io.Reader) error {
	const most = len(sealMark) + 120 // of the last line
	whole := newSealed(io.Discard)
	held := make([]byte, 0, 1<<16+most)
	buffer := make([]byte, 1<<16)
	for {
		n, err := r.Read(buffer)
		held = append(held, buffer[:n]...)
		if err != nil && !errors.Is(err, io.EOF) {
			return err
		}
		if err != nil {
			break
		}
		// All but what may be the last line.
		if over := len(held) - most; over > 0 {
			_, _ = whole.Write(held[:over]) // into nothing
			held = append(held[:0], held[over:]...)
		}
	}
	at := bytes.LastIndex(held, []byte(sealMark))
	if at < 0 {
		return ErrCut
	}
	_, _ = whole.Write(held[:at])
	if string(held[at:]) != whole.line() {
		return ErrCut
	}
	return nil
}

// saidBy is what a client program said, without what may be a row: of an error that the
// server found in a statement only its number and its line. A client's own errors, from 2000
// on, and refusals at the door tell of addresses and names of databases alone.
func saidBy(said string) string {
	var kept []string
	for line := range strings.Lines(said) {
		var number, at int
		switch n, _ := fmt.Sscanf(line, "ERROR %d (", &number); {
		case n == 1 && (number >= 2000 && number < 3000 || door[number]):
			kept = append(kept, strings.TrimSpace(line))
		case n == 1:
			text := fmt.Sprintf("error %d of the database", number)
			if _, after, found := strings.Cut(line, " at line "); found {
				if n, _ := fmt.Sscanf(after, "%d:", &at); n == 1 {
					text += fmt.Sprintf(" at line %d", at)
				}
			}
			kept = append(kept, text)
		}
	}
	return strings.Join(kept, "; ")
}

// door are the server's refusals before any statement: no access to a database, a wrong
// password, no such database.
var door = map[int]bool{1044: true, 1045: true, 1049: true}
