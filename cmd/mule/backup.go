package main

import (
	"bufio"
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"valiantmule/internal/format"
	"valiantmule/internal/mariadb"
	"valiantmule/internal/store"
)

// backup writes the whole database to a file, as it stands at one moment. The file is
// there whole or not at all.
func backup(args []string, out io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	path, st, err := fileAndStore(args, "backup")
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Current(ctx); err != nil {
		return err
	}
	file, err := os.CreateTemp(filepath.Dir(path), ".mule-backup-*")
	if err != nil {
		return err
	}
	defer os.Remove(file.Name())
	if err := errors.Join(mariadb.Dump(ctx, os.Getenv("MULE_DSN"), file), file.Sync(), file.Close()); err != nil {
		return err
	}
	if err := os.Rename(file.Name(), path); err != nil {
		return err
	}
	fmt.Fprintln(out, "backed up to", path)
	return nil
}

// restore reads a backup into an empty database.
func restore(args []string, out io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	path, st, err := fileAndStore(args, "restore")
	if err != nil {
		return err
	}
	defer st.Close()
	empty, err := st.Empty(ctx)
	if err != nil {
		return err
	}
	if !empty {
		return errUse{"restore: the database is not empty; make a new one for it"}
	}
	file, err := os.Open(path)
	if err != nil {
		return errUse{"restore: " + err.Error()}
	}
	defer file.Close()
	if err := mariadb.Load(ctx, os.Getenv("MULE_DSN"), bufio.NewReader(file)); err != nil {
		return err
	}
	switch err := st.Current(ctx); {
	case errors.Is(err, store.ErrOlder):
		fmt.Fprintln(out, "restored; it is of an earlier version: run mule migrate")
	case err != nil:
		return err
	default:
		fmt.Fprintln(out, "restored")
	}
	return nil
}

func fileAndStore(args []string, command string) (path string, st *store.Store, err error) {
	if len(args) != 1 || args[0] == "" || args[0][0] == '-' {
		return "", nil, errUse{command + " wants the name of a file"}
	}
	st, err = openDSN(nil, command)
	return args[0], st, err
}

// export writes a rider's plans as plan files.
func export(args []string, out io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	flags := flag.NewFlagSet("export", flag.ContinueOnError)
	flags.SetOutput(io.Discard)
	name := flags.String("rider", "", "")
	dir := flags.String("dir", ".", "")
	if err := flags.Parse(args); err != nil {
		return errUse{"export: " + err.Error()}
	}
	if *name == "" {
		return errUse{"export wants -rider NAME, and takes -dir DIRECTORY"}
	}
	st, err := openDSN(flags.Args(), "export")
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Current(ctx); err != nil {
		return err
	}
	return exportTo(ctx, st, *name, *dir, out)
}

func exportTo(ctx context.Context, st *store.Store, name, dir string, out io.Writer) error {
	rider, err := st.RiderByName(ctx, name)
	if errors.Is(err, store.ErrNotFound) {
		return errUse{fmt.Sprintf("export: there is no rider %q", name)}
	}
	if err != nil {
		return err
	}
	plans, err := st.Plans(ctx, rider.ID)
	if err != nil {
		return err
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return err
	}
	for _, p := range plans {
		path := filepath.Join(dir, format.FileName(p.Plan.Name, "-"+strings.ToLower(p.PlanID[:6])+".plan.json"))
		file, err := os.OpenFile(path, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o644)
		if err != nil {
			return err
		}
		if err := errors.Join(format.WritePlan(file, p.Plan), file.Close()); err != nil {
			return err
		}
		fmt.Fprintln(out, path)
	}
	return nil
}
