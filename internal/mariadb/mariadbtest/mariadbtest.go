// Package mariadbtest gives tests databases of their own on a real MariaDB: the
// server of `make test`, or one that a package starts for itself when its tests
// are run by hand.
package mariadbtest

import (
	"context"
	"crypto/rand"
	"database/sql"
	"os"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/mariadb"
)

// Variable names the server of `make test` in the environment.
const Variable = "MULE_TEST_DSN"

// patience is how long a test waits for an answer of the server.
const patience = time.Minute

var own struct {
	sync.Mutex
	server *mariadb.Server
	dir    string
}

// Main runs a package's tests and ends the server that they may have started.
func Main(m *testing.M) int {
	code := m.Run()
	own.Lock()
	defer own.Unlock()
	if own.server != nil {
		own.server.Stop()
		os.RemoveAll(own.dir)
	}
	return code
}

// DSN of a new, empty database that is gone after the test.
func DSN(tb testing.TB) string {
	tb.Helper()
	ctx := context.Background()
	config, err := mysql.ParseDSN(server(tb))
	require.NoError(tb, err)
	db, err := sql.Open("mysql", config.FormatDSN())
	require.NoError(tb, err)
	config.DBName = "t_" + strings.ToLower(rand.Text())
	// A machine under tests stops for seconds at times; its server is not gone.
	config.ReadTimeout, config.WriteTimeout = patience, patience
	_, err = db.ExecContext(ctx, "CREATE DATABASE "+config.DBName)
	require.NoError(tb, err)
	tb.Cleanup(func() {
		_, err := db.ExecContext(ctx, "DROP DATABASE "+config.DBName)
		require.NoError(tb, err)
		require.NoError(tb, db.Close())
	})
	return config.FormatDSN()
}

func server(tb testing.TB) string {
	if dsn := os.Getenv(Variable); dsn != "" {
		return dsn
	}
	own.Lock()
	defer own.Unlock()
	ctx := context.Background()
	if own.server == nil {
		dir, err := os.MkdirTemp("", "mule-test-")
		require.NoError(tb, err)
		own.dir = dir
		own.server, err = mariadb.StartThrowaway(ctx, dir)
		require.NoError(tb, err)
	}
	dsn, err := own.server.DSN(ctx, "mule")
	require.NoError(tb, err)
	return dsn
}
