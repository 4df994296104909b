package mariadb_test

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/mariadb"
)

func query(t *testing.T, dsn, statement string) string {
	t.Helper()
	db, err := sql.Open("mysql", dsn)
	require.NoError(t, err)
	defer db.Close()
	var out string
	require.NoError(t, db.QueryRow(statement).Scan(&out))
	return out
}

// TestSecondStartFindsTheData in a folder whose path is too long for a socket.
func TestSecondStartFindsTheData(t *testing.T) {
	ctx := context.Background()
	dir := filepath.Join(t.TempDir(), strings.Repeat("a-long-name-", 8))
	server, err := mariadb.Start(ctx, dir)
	require.NoError(t, err)
	dsn, err := server.DSN(ctx, "garage")
	require.NoError(t, err)
	db, err := sql.Open("mysql", dsn)
	require.NoError(t, err)
	_, err = db.Exec("CREATE TABLE bikes (name VARCHAR(20) PRIMARY KEY)")
	require.NoError(t, err)
	_, err = db.Exec("INSERT INTO bikes VALUES ('mule')")
	require.NoError(t, err)
	require.NoError(t, db.Close())
	server.Stop()
	select {
	case <-server.Ended():
	default:
		assert.Fail(t, "stopped, but not ended")
	}

	for _, file := range []string{"password", "server.log"} {
		info, err := os.Stat(filepath.Join(dir, file))
		require.NoError(t, err)
		assert.Zero(t, info.Mode().Perm()&0o077, "%s is the owner's", file)
	}

	server, err = mariadb.Start(ctx, dir)
	require.NoError(t, err)
	defer server.Stop()
	_, err = mariadb.Start(ctx, dir)
	require.ErrorContains(t, err, "another program")
	dsn, err = server.DSN(ctx, "garage")
	require.NoError(t, err)
	assert.Equal(t, "mule", query(t, dsn, "SELECT name FROM bikes"))
	assert.Contains(t, query(t, dsn, "SELECT @@GLOBAL.sql_mode"), "STRICT_ALL_TABLES")
	assert.Equal(t, "127.0.0.1", query(t, dsn, "SELECT @@bind_address"))
}

// TestTheLogSaysWhy a server did not come up.
func TestTheLogSaysWhy(t *testing.T) {
	dir := t.TempDir()
	broken := filepath.Join(dir, "data")
	require.NoError(t, os.MkdirAll(filepath.Join(broken, "mysql"), 0o700))
	require.NoError(t, os.WriteFile(filepath.Join(broken, "ibdata1"), []byte("not a tablespace"), 0o600))
	_, err := mariadb.Start(context.Background(), dir)
	require.Error(t, err)
	assert.Contains(t, err.Error(), "did not come up")
	assert.Contains(t, err.Error(), "ib_logfile0 was not found", "the end of the log is in the error")
}
