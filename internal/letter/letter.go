// Package letter sends riders letters, by SMTP, in the order in which they were written and
// without keeping the page waiting that wrote them.
package letter

import (
	"context"
	"fmt"
	"log/slog"
	"net"
	"net/mail"
	"strconv"
	"sync/atomic"
	"time"
	"valiantmule/internal/loopback"

	gomail "github.com/wneessen/go-mail"
)

// Letter is plain text to one address.
type Letter struct{ To, Subject, Text string }

// Sender sends a letter or says why not.
type Sender interface {
	Send(ctx context.Context, l Letter) error
}

// SMTP is a server that takes letters. To one on this machine they go as they are, to any
// other over TLS.
type SMTP struct {
	Address        string // host:port
	From           string
	User, Password string // none for a server that asks for none
}

// sendLimit is how long a server may take over one letter.
const sendLimit = 20 * time.Second

// Check tells what is wrong with the addresses.
func (s SMTP) Check() error {
	if _, _, err := s.place(); err != nil {
		return fmt.Errorf("want the address of an SMTP server, host:port, not %q", s.Address)
	}
	if _, err := mail.ParseAddress(s.From); err != nil {
		return fmt.Errorf("want the address that letters come from, such as mule@example.org, not %q", s.From)
	}
	return nil
}

func (s SMTP) place() (host string, port int, err error) {
	host, text, err := net.SplitHostPort(s.Address)
	if err != nil {
		return "", 0, err
	}
	port, err = strconv.Atoi(text)
	return host, port, err
}

// Send one letter.
func (s SMTP) Send(ctx context.Context, l Letter) error {
	host, port, err := s.place()
	if err != nil {
		return err
	}
	policy := gomail.TLSMandatory
	if loopback.Is(s.Address) {
		policy = gomail.NoTLS
	}
	options := []gomail.Option{gomail.WithPort(port), gomail.WithTLSPolicy(policy), gomail.WithTimeout(sendLimit)}
	if s.User != "" {
		options = append(options, gomail.WithSMTPAuth(gomail.SMTPAuthAutoDiscover), gomail.WithUsername(s.User), gomail.WithPassword(s.Password))
	}
	client, err := gomail.NewClient(host, options...)
	if err != nil {
		return err
	}
	message := gomail.NewMsg()
	if err := message.From(s.From); err != nil {
		return err
	}
	if err := message.To(l.To); err != nil {
		return err
	}
	message.Subject(l.Subject)
	message.SetBodyString(gomail.TypeTextPlain, l.Text)
	return client.DialAndSendWithContext(ctx, message)
}

// Queue sends letters one after the other, each once: the server that it gives them to is
// what tries again. What waits is gone with the program: a rider who gets none asks again.
type Queue struct {
	sender  Sender
	log     *slog.Logger
	letters chan Letter
	waiting atomic.Int64
	lost    atomic.Int64
	stop    chan struct{} // what waits is sent, and nothing that comes then
	ended   chan struct{}
}

const mostWaiting = 200

// NewQueue begins one; [Queue.Close] ends it.
func NewQueue(sender Sender, log *slog.Logger) *Queue {
	q := &Queue{sender: sender, log: log, letters: make(chan Letter, mostWaiting), stop: make(chan struct{}), ended: make(chan struct{})}
	go q.run()
	return q
}

// Put has a letter sent; one that there is no room for is logged as lost.
func (q *Queue) Put(l Letter) {
	q.waiting.Add(1)
	select {
	case q.letters <- l:
	default:
		q.gone(fmt.Errorf("%d wait already", mostWaiting))
	}
}

// Waiting is how many have not been sent yet.
func (q *Queue) Waiting() int { return int(q.waiting.Load()) }

// Lost is how many could not be sent.
func (q *Queue) Lost() int { return int(q.lost.Load()) }

// Close sends what waits, as long as the context lasts, and takes no more.
func (q *Queue) Close(ctx context.Context) {
	close(q.stop)
	select {
	case <-q.ended:
	case <-ctx.Done():
	}
}

func (q *Queue) run() {
	defer close(q.ended)
	for {
		select {
		case l := <-q.letters:
			q.send(l)
		case <-q.stop:
			for range len(q.letters) {
				q.send(<-q.letters)
			}
			return
		}
	}
}

func (q *Queue) send(l Letter) {
	ctx, cancel := context.WithTimeout(context.Background(), sendLimit)
	defer cancel()
	if err := q.sender.Send(ctx, l); err != nil {
		q.gone(err)
		return
	}
	q.waiting.Add(-1)
}

// gone logs a letter that was not sent, without its address and its words.
func (q *Queue) gone(err error) {
	q.waiting.Add(-1)
	q.lost.Add(1)
	q.log.Error("a letter was not sent", "error", err)
}
