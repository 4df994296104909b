package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"runtime/debug"
	"syscall"
	"time"

	"valiantmule/internal/demo"
	"valiantmule/internal/mariadb"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
)

// serve answers on MULE_ADDR with the database of MULE_DSN, which it expects to
// be migrated.
func serve(args []string, out, errOut io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	m, args, err := readMemory(args)
	if err != nil {
		return err
	}
	m.apply()
	st, err := openDSN(args, "serve")
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Current(ctx); err != nil {
		return err
	}
	return answer(ctx, st, web.Options{Kept: m.memo << 20}, nil, out, errOut)
}

// migrate brings the database of MULE_DSN to this version.
func migrate(args []string) error {
	ctx, stop := untilSignal()
	defer stop()
	st, err := openDSN(args, "migrate")
	if err != nil {
		return err
	}
	defer st.Close()
	return st.Migrate(ctx)
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
	usual.apply()
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
	return answer(ctx, st, web.Options{DemoRider: demo.Rider, Kept: usual.memo << 20}, gone, out, errOut)
}

// memory is how the collector trades memory for time.
type memory struct {
	gogc  int   // percent, as of the variable GOGC
	limit int64 // MiB, soft, as of GOMEMLIMIT
	memo  int64 // MiB of answers that are kept, none for 0
}

// usual: a page makes much garbage and keeps little, so the heap may grow to five
// times of what lives, and near the limit to less.
var usual = memory{gogc: 400, limit: 120, memo: 24}

// readMemory takes the flags of memory off the arguments.
func readMemory(args []string) (memory, []string, error) {
	m := usual
	flags := flag.NewFlagSet("serve", flag.ContinueOnError)
	flags.SetOutput(io.Discard)
	flags.IntVar(&m.gogc, "gogc", m.gogc, "")
	flags.Int64Var(&m.limit, "memory-limit", m.limit, "")
	flags.Int64Var(&m.memo, "memo", m.memo, "")
	if err := flags.Parse(args); err != nil {
		return m, nil, errUse{"serve: " + err.Error()}
	}
	if m.gogc < 1 || m.limit < 1 || m.memo < 0 {
		return m, nil, errUse{"serve: -gogc in percent and -memory-limit in MiB are at least 1, -memo in MiB at least 0"}
	}
	return m, flags.Args(), nil
}

func (m memory) apply() {
	debug.SetGCPercent(m.gogc)
	debug.SetMemoryLimit(m.limit << 20)
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
func answer(ctx context.Context, st *store.Store, o web.Options, gone <-chan struct{}, out, errOut io.Writer) error {
	addr := os.Getenv("MULE_ADDR")
	if addr == "" {
		addr = defaultAddr
	}
	listener, err := net.Listen("tcp", addr)
	if err != nil {
		return fmt.Errorf("cannot serve on %s: %w; MULE_ADDR names another address", addr, errors.Unwrap(err))
	}
	o.Store, o.Log = st, slog.New(slog.NewTextHandler(errOut, nil))
	handler, err := web.New(o)
	if err != nil {
		return err
	}
	server := &http.Server{
		Handler: handler, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: time.Minute, WriteTimeout: time.Minute, IdleTimeout: 2 * time.Minute,
	}
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(listener) }()
	fmt.Fprintf(out, "Valiant Mule is at http://%s\n", listener.Addr())
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
