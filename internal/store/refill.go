package store

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"
)

// What keeps a backup from being read into a database, or the pages from what was read.
var (
	ErrNotEmpty = errors.New("the database is not empty; make a new one for it")
	ErrHalf     = errors.New("a restore into this database was broken off: run mule restore again, which begins anew")
)

// restoring is a table that is there from before the first row of a backup until after its
// last, and longer where the restore, the server or the machine ended in between.
const restoring = "restoring"

// Refill fills an empty database, or one in which that was broken off, with what load
// reads into it. Where it fails, the database is empty again, or it is one that no server
// takes; see [ErrHalf].
func (s *Store) Refill(ctx context.Context, load func() error) error {
	return s.Alone(ctx, func(patient *Store) error { return patient.refill(ctx, load) })
}

func (s *Store) refill(ctx context.Context, load func() error) error {
	tables, err := s.tables(ctx)
	if err != nil {
		return err
	}
	if len(tables) > 0 && !slices.Contains(tables, restoring) {
		return ErrNotEmpty
	}
	if _, err := s.db.ExecContext(ctx, `CREATE TABLE IF NOT EXISTS `+restoring+` (begun_at DATETIME(6) NOT NULL)`); err != nil {
		return err
	}
	if err := s.clear(ctx, tables); err != nil {
		return err
	}
	failed := load()
	last := context.WithoutCancel(ctx) // who broke it off wants it gone
	if failed != nil {
		// The database may be what failed: then the table says so to who comes next.
		tables, err := s.tables(last)
		if err := cmp.Or(err, s.clear(last, tables)); err != nil {
			return errors.Join(failed, err)
		}
	}
	_, err = s.db.ExecContext(last, `DROP TABLE `+restoring)
	return errors.Join(failed, err)
}

// clear drops tables, but the one that says that a restore is under way.
func (s *Store) clear(ctx context.Context, tables []string) error {
	conn, err := s.db.Connx(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	// Tables point at each other.
	if _, err := conn.ExecContext(ctx, `SET SESSION foreign_key_checks = 0`); err != nil {
		return err
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), `SET SESSION foreign_key_checks = 1`)
	for _, name := range tables {
		if name == restoring {
			continue
		}
		if _, err := conn.ExecContext(ctx, "DROP TABLE IF EXISTS `"+strings.ReplaceAll(name, "`", "``")+"`"); err != nil {
			return err
		}
	}
	return nil
}

// tables of the database.
func (s *Store) tables(ctx context.Context) (names []string, err error) {
	err = s.db.SelectContext(ctx, &names, `SELECT table_name FROM information_schema.tables WHERE table_schema = DATABASE()`)
	return names, err
}
