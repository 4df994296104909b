package store

import (
	"context"
	"database/sql/driver"
	"errors"
	"net"
	"os"
	"slices"
	"syscall"
	"time"

	"github.com/go-sql-driver/mysql"
)

// ErrReadOnly says that the database answers and keeps nothing: its disk is full, or
// somebody has set it so.
var ErrReadOnly = errors.New("the database takes nothing")

// soon is how long a database that is well takes to answer at most.
const soon = time.Second

// Health asks the database to keep something small, within a second: a node of a cluster
// that has lost the others refuses that, and so does a full disk. It is ErrReadOnly where
// the database answers and does not.
func (s *Store) Health(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, soon)
	defer cancel()
	_, err := s.db.ExecContext(ctx, `REPLACE INTO health (id, checked_at) VALUES (1, ?)`, s.now())
	if err == nil {
		return nil
	}
	var answer int
	if s.db.GetContext(ctx, &answer, `SELECT COUNT(*) FROM goose_db_version`) == nil {
		return errors.Join(ErrReadOnly, err)
	}
	return err
}

// Gone tells whether an error is of a database that is not there, or that is silent, or that
// went away in the middle of an answer.
func Gone(err error) bool {
	var network net.Error
	for _, is := range []error{mysql.ErrInvalidConn, driver.ErrBadConn, context.DeadlineExceeded, os.ErrDeadlineExceeded} {
		if errors.Is(err, is) {
			return true
		}
	}
	return errors.As(err, &network) || numbered(err, errUnknownNode, errShutdown)
}

// Full tells whether an error is of a database that keeps nothing now, or of a disk, its own
// or this machine's, that has no room.
func Full(err error) bool {
	return errors.Is(err, syscall.ENOSPC) || errors.Is(err, ErrReadOnly) ||
		numbered(err, errWrite, errDiskFull, errOnWrite, errEngine, errReadOnlyTable, errTableFull, errOption, errReadOnlyTransaction, errDenied)
}

// numbered tells whether an error is one of the server's with such a number.
func numbered(err error, numbers ...uint16) bool {
	var e *mysql.MySQLError
	return errors.As(err, &e) && slices.Contains(numbers, e.Number)
}

// The server's error numbers that matter here.
const (
	errWrite               = 3    // a file cannot be written
	errDiskFull            = 1021 // waits for somebody to free room
	errOnWrite             = 1026
	errEngine              = 1030 // of the engine, such as 28, no room
	errReadOnlyTable       = 1036
	errUnknownNode         = 1047 // a cluster node that is not ready
	errShutdown            = 1053
	errDuplicate           = 1062
	errTableFull           = 1114
	errDenied              = 1142 // a user that may only read
	errNoTable             = 1146
	errRowChanged          = 1020
	errLockWait            = 1205
	errDeadlock            = 1213
	errOption              = 1290 // read_only
	errReadOnlyTransaction = 1792
)

// conflict is of a transaction that the database broke off because of another.
func conflict(err error) bool {
	return errors.Is(err, errAgain) || numbered(err, errLockWait, errDeadlock, errRowChanged, errUnknownNode)
}

func duplicate(err error) bool { return numbered(err, errDuplicate) }
