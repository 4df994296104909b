package mariadbtest

import (
	"io"
	"net"
	"sync"
	"testing"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/require"
)

// Fate is what becomes of a statement on its way to the server.
type Fate int

// The fates.
const (
	Passes   Fate = iota
	Dropped       // the connection goes before the server hears of it
	Unheard       // the server does it, and the connection goes before it answers
	Silenced      // nothing more comes through on any connection, as from a server that hangs
)

// Wire is a DSN that leads to the same database over a wire on which each statement meets
// the fate that a function gives it. The function is called by one connection at a time.
func Wire(tb testing.TB, dsn string, fate func(statement string) Fate) string {
	tb.Helper()
	config, err := mysql.ParseDSN(dsn)
	require.NoError(tb, err)
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(tb, err)
	w := &wire{network: config.Net, address: config.Addr, fate: fate, silence: make(chan struct{}), over: make(chan struct{})}
	tb.Cleanup(func() { close(w.over); listener.Close(); w.group.Wait() })
	go func() {
		for {
			client, err := listener.Accept()
			if err != nil {
				return
			}
			w.group.Add(1)
			go func() { defer w.group.Done(); w.carry(client) }()
		}
	}()
	config.Net, config.Addr = "tcp", listener.Addr().String()
	config.ReadTimeout, config.WriteTimeout = 0, 0 // as is usual, for what hangs
	return config.FormatDSN()
}

type wire struct {
	network, address string
	fate             func(statement string) Fate
	deciding         sync.Mutex
	silence, over    chan struct{}
	once             sync.Once
	group            sync.WaitGroup
}

// comQuery is the command byte of a statement in a packet, after its four of length and
// number.
const comQuery = 3

func (w *wire) carry(client net.Conn) {
	defer client.Close()
	server, err := net.Dial(w.network, w.address)
	if err != nil {
		return
	}
	defer server.Close()
	unheard := make(chan struct{})
	w.group.Add(1)
	go func() {
		defer w.group.Done()
		buffer := make([]byte, 64<<10)
		for {
			n, err := server.Read(buffer)
			select {
			case <-unheard:
				client.Close()
				return
			case <-w.silence:
				<-w.over
				return
			default:
			}
			if _, sent := client.Write(buffer[:n]); err != nil || sent != nil {
				client.Close()
				return
			}
		}
	}()
	buffer := make([]byte, 64<<10)
	for {
		n, err := client.Read(buffer)
		if err != nil {
			return
		}
		fate := Passes
		if n > 5 && buffer[4] == comQuery {
			w.deciding.Lock()
			fate = w.fate(string(buffer[5:n]))
			w.deciding.Unlock()
		}
		switch fate {
		case Dropped:
			return
		case Unheard:
			close(unheard)
		case Silenced:
			w.once.Do(func() { close(w.silence) })
		}
		select {
		case <-w.silence:
			<-w.over
			return
		default:
		}
		if _, err := server.Write(buffer[:n]); err != nil {
			return
		}
		if fate == Unheard {
			_, _ = io.Copy(io.Discard, client) // until the other way has closed it
			return
		}
	}
}
