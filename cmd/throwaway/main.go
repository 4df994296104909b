// Command throwaway runs another command beside a MariaDB server that is gone
// when it ends: `throwaway go test ./...`. The command finds the server's
// address in MULE_TEST_DSN.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/signal"
	"syscall"

	"valiantmule/internal/mariadb"
	"valiantmule/internal/mariadb/mariadbtest"
)

func main() {
	err := run(os.Args[1:])
	var failed *exec.ExitError
	switch {
	case errors.As(err, &failed):
		os.Exit(failed.ExitCode())
	case err != nil:
		fmt.Fprintln(os.Stderr, "throwaway:", err)
		os.Exit(1)
	}
}

func run(command []string) error {
	if len(command) == 0 {
		return errors.New("no command to run")
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	dir, err := os.MkdirTemp("", "mule-throwaway-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	server, err := mariadb.StartThrowaway(ctx, dir)
	if err != nil {
		return err
	}
	defer server.Stop()
	dsn, err := server.DSN(ctx, "mule")
	if err != nil {
		return err
	}
	child := exec.CommandContext(ctx, command[0], command[1:]...)
	child.Cancel = func() error { return child.Process.Signal(syscall.SIGTERM) }
	child.Stdin, child.Stdout, child.Stderr = os.Stdin, os.Stdout, os.Stderr
	child.Env = append(os.Environ(), mariadbtest.Variable+"="+dsn)
	return child.Run()
}
