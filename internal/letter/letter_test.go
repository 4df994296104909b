package letter_test

import (
	"context"
	"errors"
	"log/slog"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/letter"
	"valiantmule/internal/outside"
)

// TestLettersArrive as they were written, lines that begin with a dot and letters beyond ASCII
// too, in their order.
func TestLettersArrive(t *testing.T) {
	outbox, err := outside.NewOutbox()
	require.NoError(t, err)
	defer outbox.Close()
	sender := letter.SMTP{Address: outbox.Address, From: "mule@example.org"}
	require.NoError(t, sender.Check())
	q := letter.NewQueue(sender, slog.New(slog.DiscardHandler))
	text := "Ada Röök,\n.a line with a dot\nhttps://mule.example/reset?token=" + strings.Repeat("A", 90) + "\n"
	q.Put(letter.Letter{To: "ada@example.org", Subject: "First", Text: text})
	q.Put(letter.Letter{To: "ida@example.org", Subject: "Second", Text: "Two\n"})
	q.Close(t.Context())
	assert.Zero(t, q.Waiting())
	q.Put(letter.Letter{To: "eve@example.org", Subject: "Third"}) // of a page that ends last
	list := outbox.Letters()
	require.Len(t, list, 2)
	assert.Equal(t, "Second", list[0].Subject)
	assert.Equal(t, outside.Delivered{To: "ada@example.org", Subject: "First", Text: text}, list[1])
}

type broken struct{}

func (broken) Send(context.Context, letter.Letter) error { return errors.New("nobody there") }

// TestLettersLost are counted and logged, without whom they were for.
func TestLettersLost(t *testing.T) {
	var log strings.Builder
	q := letter.NewQueue(broken{}, slog.New(slog.NewTextHandler(&log, nil)))
	q.Put(letter.Letter{To: "ada@example.org", Subject: "First", Text: "Secret"})
	q.Close(t.Context())
	assert.Equal(t, 1, q.Lost())
	assert.Contains(t, log.String(), "nobody there")
	assert.NotContains(t, log.String(), "ada@")
	assert.NotContains(t, log.String(), "Secret")
}

func TestAddresses(t *testing.T) {
	for _, bad := range []letter.SMTP{{}, {Address: "127.0.0.1", From: "a@b.example"}, {Address: "127.0.0.1:25", From: "nobody"}, {Address: "h:smtp", From: "a@b.example"}} {
		assert.Error(t, bad.Check(), bad)
	}
}
