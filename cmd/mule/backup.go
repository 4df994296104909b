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

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/mariadb"
	"valiantmule/internal/store"
)

// pipe stands for the standard input or output where the name of a file is wanted.
const pipe = "-"

// backup writes the whole database to a file, as it stands at one moment. The file is
// there whole or not at all; what goes into a pipe ends with the line that restore wants.
func backup(args []string, out io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	path, st, err := fileAndStore(args, "backup")
	if err != nil {
		return err
	}
	defer st.Close()
	// One of an earlier version is what is backed up before an upgrade.
	if err := st.Current(ctx); err != nil && !errors.Is(err, store.ErrOlder) {
		return err
	}
	if path == pipe {
		return mariadb.Dump(ctx, os.Getenv("MULE_DSN"), out)
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

// restore reads a backup, all of which it has checked, into an empty database.
func restore(args []string, in io.Reader, out io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	path, st, err := fileAndStore(args, "restore")
	if err != nil {
		return err
	}
	defer st.Close()
	file, err := source(path, in)
	if err != nil {
		return errUse{"restore: " + err.Error()}
	}
	defer file.Close()
	if err := mariadb.Check(file); err != nil {
		return fmt.Errorf("restore: %w", err)
	}
	err = st.Refill(ctx, func() error {
		if _, err := file.Seek(0, io.SeekStart); err != nil {
			return err
		}
		return mariadb.Load(ctx, os.Getenv("MULE_DSN"), bufio.NewReader(file))
	})
	switch {
	case errors.Is(err, store.ErrNotEmpty):
		return errUse{"restore: " + err.Error()}
	case err != nil:
		return fmt.Errorf("restore failed, and what it had read by then counts for nothing: %w", err)
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

// source is a backup that can be read twice: of a pipe first a copy, which is gone when it
// is closed, however this ends.
func source(path string, in io.Reader) (*os.File, error) {
	if path != pipe {
		return os.Open(path)
	}
	file, err := os.CreateTemp("", "mule-restore-*")
	if err != nil {
		return nil, err
	}
	_, copied := io.Copy(file, in)
	_, sought := file.Seek(0, io.SeekStart)
	if err := errors.Join(os.Remove(file.Name()), copied, sought); err != nil {
		return nil, errors.Join(err, file.Close())
	}
	return file, nil
}

func fileAndStore(args []string, command string) (path string, st *store.Store, err error) {
	if len(args) != 1 || args[0] == "" || args[0][0] == '-' && args[0] != pipe {
		return "", nil, errUse{command + " wants the name of a file, or - for a pipe"}
	}
	st, err = openDSN(nil, command)
	return args[0], st, err
}

// export writes a rider's plans and bikes as files.
func export(args []string, out io.Writer) error {
	ctx, stop := untilSignal()
	defer stop()
	flags := flag.NewFlagSet("export", flag.ContinueOnError)
	flags.SetOutput(io.Discard)
	name := flags.String("rider", "", "")
	id := flags.String("id", "", "")
	dir := flags.String("dir", ".", "")
	if err := flags.Parse(args); err != nil {
		return errUse{"export: " + err.Error()}
	}
	if (*name == "") == (*id == "") {
		return errUse{"export wants -rider NAME or -id ID, and takes -dir DIRECTORY"}
	}
	st, err := openDSN(flags.Args(), "export")
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Current(ctx); err != nil {
		return err
	}
	find, who := st.RiderByName, *name
	if who == "" {
		find, who = st.RiderByID, *id
	}
	rider, err := find(ctx, who)
	var twins *store.Twins
	switch {
	case errors.Is(err, store.ErrNotFound):
		return errUse{fmt.Sprintf("export: there is no rider %q", who)}
	case errors.As(err, &twins):
		return errUse{fmt.Sprintf("export: %s: say which by -id", twins)}
	case err != nil:
		return err
	}
	return exportTo(ctx, st, rider, *dir, out)
}

func exportTo(ctx context.Context, st *store.Store, rider *store.Rider, dir string, out io.Writer) error {
	plans, err := st.Plans(ctx, rider.ID)
	if err != nil {
		return err
	}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return err
	}
	things, err := st.Things(ctx, rider.ID)
	if err != nil {
		return err
	}
	put := func(of *store.Snapshot, kind string, write func(io.Writer, *plan.Plan, ...garage.Packed) error, ids []string) error {
		path := filepath.Join(dir, format.FileName(of.Plan.Name, "-"+strings.ToLower(of.ID[:6])+kind))
		file, err := os.OpenFile(path, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
		if err != nil {
			return err
		}
		if err := errors.Join(write(file, of.Plan, things.Pack(ids, of.Plan.Garage)...), file.Close()); err != nil {
			return err
		}
		fmt.Fprintln(out, path)
		return nil
	}
	for _, p := range plans {
		if err := put(p, ".plan.json", format.WritePlan, things.OfPlan(p.Plan)); err != nil {
			return err
		}
	}
	bikes, err := st.GarageBikes(ctx, rider.ID)
	if err != nil {
		return err
	}
	for _, b := range bikes { // also those that plans hold: what was read off one may be in none of them
		bike, err := st.Plan(ctx, rider.ID, b.ID)
		if err != nil {
			return err
		}
		if err := put(bike, ".bike.json", format.WriteBike, things.OnBike(b.ID)); err != nil {
			return err
		}
	}
	return nil
}
