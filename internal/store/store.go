// Package store keeps riders, plans and the catalogue in MariaDB.
//
// A plan is a chain of revisions, each a whole immutable document with its
// parent. The plan's head is moved by compare-and-set: who saves on top of a
// revision that is no longer the head gets [ErrStale] and has changed nothing.
// Every query that touches a plan names its rider.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Errors that a caller tells apart.
var (
	ErrNotFound = errors.New("not found")
	ErrStale    = errors.New("the plan has changed since this page was opened")
	ErrNothing  = errors.New("nothing to undo or redo")
	ErrTaken    = errors.New("that name is taken")
	ErrFull     = errors.New("the log is full")
)

// Store is the database.
type Store struct {
	db    *sqlx.DB
	now   func() time.Time
	shelf shelf
}

// Open connects to the MariaDB of a DSN in the driver's form.
func Open(dsn string) (*Store, error) {
	config, err := mysql.ParseDSN(dsn)
	if err != nil {
		return nil, fmt.Errorf("database address: %w", err)
	}
	config.ParseTime = true
	// A server that hangs is as good as gone: say so rather than hang with it.
	config.Timeout, config.ReadTimeout, config.WriteTimeout = 5*time.Second, 15*time.Second, 15*time.Second
	config.Loc = time.UTC
	config.Collation = "utf8mb4_unicode_ci"
	// Parameters are bound by the driver, one way to the server instead of three;
	// it escapes by the connection's character set, which is utf8mb4.
	config.InterpolateParams = true
	config.ClientFoundRows = true // a compare-and-set counts the row it found
	if config.Params == nil {
		config.Params = map[string]string{}
	}
	config.Params["sql_mode"] = "'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,ERROR_FOR_DIVISION_BY_ZERO'"
	config.Params["time_zone"] = "'+00:00'"
	connector, err := mysql.NewConnector(config)
	if err != nil {
		return nil, fmt.Errorf("database address: %w", err)
	}
	db := sqlx.NewDb(sql.OpenDB(connector), "mysql")
	db.SetMaxOpenConns(40)
	db.SetMaxIdleConns(20)
	db.SetConnMaxLifetime(5 * time.Minute)
	return &Store{db: db, now: func() time.Time { return time.Now().UTC().Truncate(time.Microsecond) }}, nil
}

// DB is the connection pool, for what keeps its own tables: the sessions.
func (s *Store) DB() *sqlx.DB { return s.db }

// Close the connections.
func (s *Store) Close() error { return s.db.Close() }

// Ping asks whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.db.PingContext(ctx) }

// Migrate brings the database to this program's version; it only goes forward.
func (s *Store) Migrate(ctx context.Context) error {
	provider, err := s.provider()
	if err != nil {
		return err
	}
	_, err = provider.Up(ctx)
	return err
}

// Current fails when the database is not at this program's version.
func (s *Store) Current(ctx context.Context) error {
	provider, err := s.provider()
	if err != nil {
		return err
	}
	pending, err := provider.HasPending(ctx)
	if err != nil {
		return err
	}
	if pending {
		return errors.New("the database is older than this program: run mule migrate")
	}
	return nil
}

func (s *Store) provider() (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectMySQL, s.db.DB, files)
}

// tries is how often a transaction is run before its conflict is reported.
const tries = 8

// change runs a transaction, again from its start when the database, one server
// or a cluster, broke it off because of another.
func (s *Store) change(ctx context.Context, do func(tx *sqlx.Tx) error) error {
	var err error
	for range tries {
		if err = s.once(ctx, do); !conflict(err) {
			return err
		}
	}
	return err
}

func (s *Store) once(ctx context.Context, do func(tx *sqlx.Tx) error) error {
	tx, err := s.db.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback() // after a commit it does nothing
	if err := do(tx); err != nil {
		return err
	}
	return tx.Commit()
}

// The server's error numbers that matter here.
const (
	errDuplicate   = 1062
	errLockWait    = 1205
	errDeadlock    = 1213
	errRowChanged  = 1020
	errUnknownNode = 1047 // a cluster node that is not ready
)

func conflict(err error) bool {
	var e *mysql.MySQLError
	if !errors.As(err, &e) {
		return false
	}
	switch e.Number {
	case errLockWait, errDeadlock, errRowChanged, errUnknownNode:
		return true
	}
	return false
}

func duplicate(err error) bool {
	var e *mysql.MySQLError
	return errors.As(err, &e) && e.Number == errDuplicate
}
