// Package store keeps riders, plans and the catalogue in MariaDB.
//
// A plan is a chain of revisions, each a whole immutable document with its
// parent. The plan's head is moved by compare-and-set: who saves on top of a
// revision that is no longer the head gets [ErrStale] and has changed nothing.
// Every query that touches a plan names its rider.
package store

import (
	"cmp"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/jmoiron/sqlx"
	"github.com/maypok86/otter/v2"
)

// Errors that a caller tells apart.
var (
	ErrNotFound = errors.New("not found")
	ErrStale    = errors.New("the plan has changed since this page was opened")
	// ErrMoved says that the bike says something else where a plan would write to it; see [Moved].
	ErrMoved   = errors.New("the bike says something else there by now")
	ErrNothing = errors.New("nothing to undo or redo")
	ErrTaken   = errors.New("that name is taken")
	ErrFull    = errors.New("the log is full")
	// ErrClash says that the log holds something else under the same id; see [Clash].
	ErrClash = errors.New("the log holds something else under this id")
	// ErrDoubt says that the answer to a commit was lost: what was to be kept may be there
	// or not.
	ErrDoubt = errors.New("the database went away before it said whether it kept this")
	// ErrLost says that what was to be kept is not there.
	ErrLost = errors.New("the database went away and did not keep this")
)

// errAgain has a transaction run once more: what it read without a lock is another by now.
var errAgain = errors.New("changed while it was read")

// Store is the database.
type Store struct {
	db     pool
	config *mysql.Config
	now    func() time.Time
	shelf  shelf
	logs   *otter.Cache[string, readingLog]
	quotas Quotas
	counts Counts
	idle   time.Duration // without a page, after which a login ends
}

// hangs is how long a server may usually be silent before it counts as gone.
const hangs = 3 * time.Second

// Open connects to the MariaDB of a DSN in the driver's form.
func Open(dsn string) (*Store, error) {
	config, err := mysql.ParseDSN(dsn)
	if err != nil {
		return nil, fmt.Errorf("database address: %w", err)
	}
	config.ParseTime = true
	// A server that hangs is as good as gone: say so rather than hang with it. An address
	// may give a server that is slow, and not gone, more time.
	config.Timeout = cmp.Or(config.Timeout, hangs)
	config.ReadTimeout = cmp.Or(config.ReadTimeout, hangs)
	config.WriteTimeout = cmp.Or(config.WriteTimeout, hangs)
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
	db, err := connect(config)
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(40)
	db.SetMaxIdleConns(20)
	db.SetConnMaxLifetime(5 * time.Minute)
	return &Store{db: pool{db}, config: config, logs: newLogs(), quotas: UsualQuotas, idle: UsualIdle, now: func() time.Time { return time.Now().UTC().Truncate(time.Microsecond) }}, nil
}

func connect(config *mysql.Config) (*sqlx.DB, error) {
	connector, err := mysql.NewConnector(config)
	if err != nil {
		return nil, fmt.Errorf("database address: %w", err)
	}
	return sqlx.NewDb(sql.OpenDB(connector), "mysql"), nil
}

// DB is the connection pool, for what keeps its own tables: the sessions.
func (s *Store) DB() *sqlx.DB { return s.db.DB }

// Close the connections.
func (s *Store) Close() error { return s.db.Close() }

// longest is how long a change may take, its repetitions and waits for others included.
const longest = 30 * time.Second

// tries is how often a transaction is run before its conflict is reported.
const tries = 8

// change runs a transaction, again from its start when the database, one server
// or a cluster, broke it off because of another.
func (s *Store) change(ctx context.Context, do func(tx transaction) error) error {
	// Who asked for it and went away does not take it back half done.
	ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), longest)
	defer cancel()
	err := s.once(ctx, do)
	for try := 1; try < tries && conflict(err); try++ {
		s.counts.Retries.Add(1)
		err = s.once(ctx, do)
	}
	s.counts.count(err)
	return err
}

func (s *Store) once(ctx context.Context, do func(tx transaction) error) error {
	// Each statement sees what is there by then: what a lock was waited for is read as it is
	// once it is had.
	begun, err := s.db.BeginTxx(ctx, &sql.TxOptions{Isolation: sql.LevelReadCommitted})
	if err != nil {
		return err
	}
	tx := transaction{begun}
	defer tx.Rollback() // after a commit it does nothing
	if err := do(tx); err != nil {
		return err
	}
	err = tx.commit(ctx)
	var told *mysql.MySQLError
	if err != nil && !errors.As(err, &told) {
		return fmt.Errorf("%w: %w", ErrDoubt, err)
	}
	return err
}
