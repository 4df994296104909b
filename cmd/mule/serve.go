package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"syscall"
	"time"

	"github.com/go-sql-driver/mysql"

	"valiantmule/internal/demo"
	"valiantmule/internal/letter"
	"valiantmule/internal/mariadb"
	"valiantmule/internal/metrics"
	"valiantmule/internal/outside"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
)

// serve answers on MULE_ADDR with the database of MULE_DSN, which it expects to be
// migrated and waits for when it is not up yet.
func serve(args []string, out, errOut io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	o, args, err := readFlags(args)
	if err != nil {
		return err
	}
	o.apply()
	st, err := openDSN(args, "serve")
	if err != nil {
		return err
	}
	defer st.Close()
	st.Limit(o.quotas)
	st.IdleAfter(o.idle)
	if err := ready(ctx, st, errOut); err != nil {
		return err
	}
	return answer(ctx, st, o, nil, out, errOut)
}

// ready waits for a database that does not answer yet, and fails for one that is not this
// program's.
func ready(ctx context.Context, st *store.Store, errOut io.Writer) error {
	for told := false; ; {
		err := st.Current(ctx)
		var refused *mysql.MySQLError
		if err == nil || errors.As(err, &refused) || errors.Is(err, store.ErrOlder) || errors.Is(err, store.ErrNewer) || errors.Is(err, store.ErrHalf) {
			return err
		}
		if !told {
			fmt.Fprintln(errOut, "mule: waiting for the database:", err)
			told = true
		}
		select {
		case <-ctx.Done():
			return err
		case <-time.After(time.Second):
		}
	}
}

// migrate brings the database of MULE_DSN to this version.
func migrate(args []string, out io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	st, err := openDSN(args, "migrate")
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Migrate(ctx); err != nil {
		return err
	}
	twins, err := st.Twins(ctx)
	for _, t := range twins {
		fmt.Fprintf(out, "%s: each signs in as before, by its own password. Tell them; mule export takes -id.\n", t)
	}
	return err
}

// runDemo brings up a private database unless MULE_DSN names one, loads the demo
// data once, and serves.
func runDemo(args []string, out, errOut io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	dsn := os.Getenv("MULE_DSN")
	var gone <-chan struct{}
	if dsn == "" {
		server, err := mariadb.Start(ctx, ".data/mariadb")
		if err != nil {
			return err
		}
		defer server.Stop()
		if dsn, err = server.DSN(ctx, "mule"); err != nil {
			return err
		}
		gone = server.Ended()
	}
	if len(args) > 0 {
		return errUse{"demo takes no arguments"}
	}
	o := usual
	o.apply()
	o.DemoRider = demo.Rider
	// Nobody carries the demonstration's letters: they can be read at /letters.
	outbox, err := outside.NewOutbox()
	if err != nil {
		return err
	}
	defer outbox.Close()
	o.smtp, o.Outbox = letter.SMTP{Address: outbox.Address, From: "mule@localhost"}, outbox.Letters
	st, err := store.Open(dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Migrate(ctx); err != nil {
		return err
	}
	if err := demo.Load(ctx, st); err != nil {
		return err
	}
	return answer(ctx, st, o, gone, out, errOut)
}

// watched counts what the server does, and shows it on an address of its own.
func watched(o *serving, st *store.Store, letters *letter.Queue) (end func(), err error) {
	listener, err := net.Listen("tcp", o.metrics)
	if err != nil {
		return nil, fmt.Errorf("cannot show metrics on %s: %w; -metrics names another address", o.metrics, errors.Unwrap(err))
	}
	m := metrics.New(st.DB().DB)
	o.Meter = m
	counts := st.Counts()
	m.Count("mule_changes_total", "Changes that were kept.", counts.Kept.Load)
	m.Count("mule_conflicts_total", "Changes that came on top of what was no longer the head, and were not kept.", counts.Conflicts.Load)
	m.Count("mule_retries_total", "Transactions that the database broke off and that were run again.", counts.Retries.Load)
	m.Count("mule_doubts_total", "Changes of which the database did not say whether it kept them.", counts.Doubts.Load)
	if letters != nil {
		m.Gauge("mule_letters_waiting", "Letters that have not been sent yet.", func() int64 { return int64(letters.Waiting()) })
		m.Count("mule_letters_lost_total", "Letters that could not be sent.", func() int64 { return int64(letters.Lost()) })
	}
	server := &http.Server{Handler: m.Handler(), ReadHeaderTimeout: 10 * time.Second}
	go func() { _ = server.Serve(listener) }() // it ends with Close
	return func() { server.Close() }, nil
}

func untilSignal() (context.Context, context.CancelFunc) {
	return signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
}

func openDSN(args []string, command string) (*store.Store, error) {
	if len(args) > 0 {
		return nil, errUse{command + " takes no arguments; MULE_DSN and MULE_ADDR tell it what to use"}
	}
	dsn := os.Getenv("MULE_DSN")
	if dsn == "" {
		return nil, errUse{command + ": MULE_DSN is not set, want user:password@tcp(host:port)/name"}
	}
	return store.Open(dsn)
}

const defaultAddr = "127.0.0.1:8080"

// patience is how long a stopping server waits for answers under way.
const patience = 10 * time.Second

// answer serves until the context ends or the database is gone for good.
func answer(ctx context.Context, st *store.Store, o serving, gone <-chan struct{}, out, errOut io.Writer) error {
	addr := os.Getenv("MULE_ADDR")
	if addr == "" {
		addr = defaultAddr
	}
	listener, err := net.Listen("tcp", addr)
	if err != nil {
		return fmt.Errorf("cannot serve on %s: %w; MULE_ADDR names another address", addr, errors.Unwrap(err))
	}
	o.Store, o.Log = st, slog.New(slog.NewTextHandler(errOut, nil))
	if o.Outbox != nil {
		o.Site = "http://" + listener.Addr().String()
	}
	var letters *letter.Queue
	if o.smtp.Address != "" {
		letters = letter.NewQueue(o.smtp, o.Log)
		defer func() {
			last, cancel := context.WithTimeout(context.Background(), patience)
			defer cancel()
			letters.Close(last)
		}()
		o.Letters = letters
	}
	if o.metrics != "" {
		end, err := watched(&o, st, letters)
		if err != nil {
			return err
		}
		defer end()
	}
	handler, err := web.New(o.Options)
	if err != nil {
		return err
	}
	server := &http.Server{
		Handler: handler, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: time.Minute, WriteTimeout: time.Minute, IdleTimeout: 2 * time.Minute,
	}
	failed := make(chan error, 1)
	scheme := "http"
	if o.cert != "" {
		scheme = "https"
		go func() { failed <- server.ServeTLS(listener, o.cert, o.key) }()
	} else {
		go func() { failed <- server.Serve(listener) }()
	}
	fmt.Fprintf(out, "Valiant Mule is at %s://%s\n", scheme, listener.Addr())
	select {
	case err := <-failed:
		return err
	case <-gone:
		return errors.New("the database server ended; its log is .data/mariadb/server.log")
	case <-ctx.Done():
	}
	last, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	return server.Shutdown(last)
}
