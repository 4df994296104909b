package outside

import (
	"errors"
	"io"
	"mime/quotedprintable"
	"net"
	"net/mail"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/emersion/go-smtp"
)

// Delivered is a letter as it came.
type Delivered struct{ To, Subject, Text string }

// mostKept is how many letters an outbox holds.
const mostKept = 50

// Outbox stands in for the world's mail: an SMTP server on loopback that keeps what it is
// given and carries nothing anywhere.
type Outbox struct {
	Address string // host:port

	server  *smtp.Server
	mutex   sync.Mutex
	letters []Delivered
}

// NewOutbox begins to take letters.
func NewOutbox() (*Outbox, error) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, err
	}
	o := &Outbox{Address: listener.Addr().String()}
	o.server = smtp.NewServer(smtp.BackendFunc(func(*smtp.Conn) (smtp.Session, error) { return &session{outbox: o}, nil }))
	o.server.Domain = "localhost"
	o.server.MaxMessageBytes, o.server.MaxRecipients = 1<<20, 1
	o.server.ReadTimeout, o.server.WriteTimeout = 10*time.Second, 10*time.Second
	go func() { _ = o.server.Serve(listener) }() // it ends with Close
	return o, nil
}

// Letters are those that came, the latest first.
func (o *Outbox) Letters() []Delivered {
	o.mutex.Lock()
	defer o.mutex.Unlock()
	list := slices.Clone(o.letters)
	slices.Reverse(list)
	return list
}

// Close takes no more.
func (o *Outbox) Close() error { return o.server.Close() }

// session is one letter after another from one client.
type session struct {
	outbox *Outbox
	to     string
}

func (s *session) Mail(string, *smtp.MailOptions) error      { return nil }
func (s *session) Rcpt(to string, _ *smtp.RcptOptions) error { s.to = to; return nil }
func (s *session) Reset()                                    { s.to = "" }
func (s *session) Logout() error                             { return nil }

func (s *session) Data(r io.Reader) error {
	message, err := mail.ReadMessage(r)
	if err != nil {
		return err
	}
	body := message.Body
	if strings.EqualFold(message.Header.Get("Content-Transfer-Encoding"), "quoted-printable") {
		body = quotedprintable.NewReader(body)
	}
	text, err := io.ReadAll(body)
	if err != nil {
		return errors.Join(errors.New("the letter cannot be read"), err)
	}
	s.outbox.mutex.Lock()
	defer s.outbox.mutex.Unlock()
	kept := append(s.outbox.letters, Delivered{s.to, message.Header.Get("Subject"), strings.ReplaceAll(string(text), "\r\n", "\n")})
	s.outbox.letters = kept[max(0, len(kept)-mostKept):]
	return nil
}
