package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"slices"

	"github.com/pressly/goose/v3"
)

// The steps of the schema. Each can be repeated, for the server ends a transaction at
// every change of a table: a step that was broken off is done again from its start.
//
//go:embed migrations/*.sql
var migrations embed.FS

// What keeps a program from a database; [Store.Current] tells them apart.
var (
	ErrOlder = errors.New("the database is older than this program: run mule migrate")
	ErrNewer = errors.New("the database is newer than this program: take the newer mule")
)

// Migrate brings the database to this program's version; it only goes forward. Of
// several at once the others wait for the first.
func (s *Store) Migrate(ctx context.Context) error {
	return s.Alone(ctx, func(patient *Store) error { return patient.up(ctx) })
}

// Alone does something that only one at a time may do to this database, of all programs that
// are on it, and that may take long.
func (s *Store) Alone(ctx context.Context, do func(patient *Store) error) error {
	patient, err := s.patient()
	if err != nil {
		return err
	}
	defer patient.Close()
	return patient.alone(ctx, func() error { return do(patient) })
}

// patient is the same database for steps that may take long on a table that is large.
func (s *Store) patient() (*Store, error) {
	config := s.config.Clone()
	config.ReadTimeout = 0
	db, err := connect(config)
	if err != nil {
		return nil, err
	}
	return &Store{db: pool{db}, now: s.now}, nil
}

// up makes the steps that are missing.
func (s *Store) up(ctx context.Context) error {
	if err := s.Current(ctx); errors.Is(err, ErrNewer) || errors.Is(err, ErrHalf) {
		return err
	}
	// Goose makes its table and the table's first row in two steps, and does not go on
	// from between them.
	if _, err := s.db.ExecContext(ctx, `
		CREATE TABLE IF NOT EXISTS goose_db_version (
			id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
			version_id BIGINT NOT NULL,
			is_applied BOOLEAN NOT NULL,
			tstamp     TIMESTAMP NULL DEFAULT CURRENT_TIMESTAMP
		)`); err != nil {
		return err
	}
	if _, err := s.db.ExecContext(ctx, `
		INSERT INTO goose_db_version (version_id, is_applied)
		SELECT 0, TRUE FROM (SELECT COUNT(*) AS n FROM goose_db_version) AS steps WHERE n = 0`); err != nil {
		return err
	}
	provider, err := s.provider()
	if err != nil {
		return err
	}
	if _, err := provider.Up(ctx); err != nil {
		return err
	}
	return s.nameKeys(ctx)
}

func (s *Store) alone(ctx context.Context, do func() error) error {
	conn, err := s.db.Connx(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	const lock = `CONCAT('valiant-mule migrate ', DATABASE())`
	var got sql.NullInt64
	if err := conn.GetContext(ctx, &got, `SELECT GET_LOCK(`+lock+`, 60)`); err != nil {
		return err
	}
	if got.Int64 != 1 {
		return errors.New("a migration, a restore or a first start is at work on this database: wait for it to end, then run this again")
	}
	// The lock goes with its connection, also where this program is killed.
	defer conn.ExecContext(context.WithoutCancel(ctx), `DO RELEASE_LOCK(`+lock+`)`)
	return do()
}

// Current fails when the database is not at this program's version. It changes nothing.
func (s *Store) Current(ctx context.Context) error {
	provider, err := s.provider()
	if err != nil {
		return err
	}
	tables, err := s.tables(ctx)
	if err != nil {
		return err
	}
	if slices.Contains(tables, restoring) {
		return ErrHalf
	}
	var is sql.NullInt64
	err = s.db.GetContext(ctx, &is, `SELECT MAX(version_id) FROM goose_db_version WHERE is_applied`)
	switch sources := provider.ListSources(); {
	case numbered(err, errNoTable):
		return ErrOlder
	case err != nil:
		return err
	case is.Int64 < sources[len(sources)-1].Version:
		return ErrOlder
	case is.Int64 > sources[len(sources)-1].Version:
		return fmt.Errorf("%w (it is at %d, this knows %d)", ErrNewer, is.Int64, sources[len(sources)-1].Version)
	}
	return nil
}

func (s *Store) provider() (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectMySQL, s.db.DB.DB, files, goose.WithGoMigrations(s.bikesOutOfPlans(), s.thingsOutOfPlans()))
}
