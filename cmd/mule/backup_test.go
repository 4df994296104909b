package main

import (
	"bytes"
	"context"
	"crypto/sha256"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/store"
)

// mule runs the program on a database and is what it printed.
func (h *house) mule(in io.Reader, dsn string, args ...string) (string, error) {
	command := exec.Command(h.program, args...)
	command.Env, command.Stdin = append(os.Environ(), "MULE_DSN="+dsn), in
	out, err := command.CombinedOutput()
	return string(out), err
}

// TestBackup is of one moment, taken while riders save, and comes back plan for plan.
func TestBackup(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database")
	}
	h := newHouse(t)
	server := h.serve()
	defer server.stop(t)
	r := newRider(t, server)
	require.True(t, r.save(server, 100))
	done, saved := make(chan struct{}), make(chan int)
	go func() {
		n := 0
		for km := 101; ; km++ {
			select {
			case <-done:
				saved <- n
				return
			default:
				if r.save(server, km) {
					n++
				}
			}
		}
	}()
	dir := t.TempDir()
	file := filepath.Join(dir, "mule.sql")
	out, err := h.mule(nil, h.dsn, "backup", file)
	require.NoError(t, err, out)
	close(done)
	assert.Positive(t, <-saved, "nobody had to wait for it")

	_, err = h.mule(nil, h.dsn, "restore", file)
	assert.Error(t, err, "a database that is not empty is left alone")
	empty, err := h.database.DSN(context.Background(), "again")
	require.NoError(t, err)
	out, err = h.mule(nil, empty, "restore", file)
	require.NoError(t, err, out)

	was, err := store.Open(h.dsn)
	require.NoError(t, err)
	defer was.Close()
	is, err := store.Open(empty)
	require.NoError(t, err)
	defer is.Close()
	ctx := context.Background()
	rook, err := is.RiderByName(ctx, "rook")
	require.NoError(t, err)
	plans, err := is.Plans(ctx, rook.ID)
	require.NoError(t, err)
	require.NotEmpty(t, plans)
	for _, p := range plans {
		same, err := was.PlanAt(ctx, rook.ID, p.ID, p.Revision)
		require.NoError(t, err, "a revision of the backup is one that was made")
		same.Readings = p.Plan.Readings
		assert.Equal(t, same, p.Plan)
	}
	out, err = h.mule(nil, empty, "export", "-rider", "ROOK", "-dir", filepath.Join(dir, "plans"))
	require.NoError(t, err, out)
	for path := range strings.Lines(out) {
		exported, err := os.Open(strings.TrimSpace(path))
		require.NoError(t, err)
		defer exported.Close()
		_, err = format.ReadPlan(exported)
		assert.NoError(t, err)
		info, err := exported.Stat()
		require.NoError(t, err)
		assert.Zero(t, info.Mode().Perm()&0o077, "a rider's plans are for who exported them")
	}
	_, err = h.mule(nil, empty, "export", "-rider", "Nobody")
	assert.Error(t, err)
}

// TestBackupSpoilt: one that is not whole is not read, one that fails half way leaves nothing
// that a server would take, and no error tells a rider's row.
func TestBackupSpoilt(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database")
	}
	h := newHouse(t)
	server := h.serve()
	r := newRider(t, server)
	require.True(t, r.save(server, 100))
	server.stop(t)
	command := exec.Command(h.program, "backup", "-")
	command.Env = append(os.Environ(), "MULE_DSN="+h.dsn)
	whole, err := command.Output()
	require.NoError(t, err)
	ctx := context.Background()
	dsn, err := h.database.DSN(ctx, "again")
	require.NoError(t, err)
	st, err := store.Open(dsn)
	require.NoError(t, err)
	defer st.Close()
	tables := func() (n int) {
		require.NoError(t, st.DB().GetContext(ctx, &n, `SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = DATABASE()`))
		return n
	}

	// Cut after each table, in a statement, in the last line, before it; a byte more, another one.
	var spoilt [][]byte
	for at := range whole {
		if bytes.HasPrefix(whole[at:], []byte("UNLOCK TABLES;\n")) {
			spoilt = append(spoilt, whole[:at+len("UNLOCK TABLES;\n")])
		}
	}
	require.Greater(t, len(spoilt), 6)
	end := bytes.LastIndex(whole, []byte("-- end of the backup"))
	spoilt = append(spoilt, nil, whole[:len(whole)/2], whole[:len(whole)-1], whole[:end], append(bytes.Clone(whole), '\n'), bytes.Replace(whole, []byte("Stream"), []byte("Screen"), 1))
	for _, backup := range spoilt {
		out, err := h.mule(bytes.NewReader(backup), dsn, "restore", "-")
		require.Error(t, err)
		assert.Contains(t, out, "not whole")
		assert.Zero(t, tables(), "nothing was written")
	}

	// Whole, and no SQL: as of a server that is another one, or has no room.
	body := strings.Replace(string(whole[:end]), "INSERT INTO `riders` VALUES", "INSERT INTO `riders` VALU ('secret of a rider'),", 1)
	require.NotEqual(t, string(whole[:end]), body)
	body += fmt.Sprintf("-- end of the backup: %d bytes, sha256 %x\n", len(body), sha256.Sum256([]byte(body)))
	out, err := h.mule(strings.NewReader(body), dsn, "restore", "-")
	require.Error(t, err)
	assert.Contains(t, out, "1064")
	assert.NotContains(t, out, "secret")
	assert.NotContains(t, out, "Rook")
	assert.Zero(t, tables())

	// Broken off by a kill: neither served nor migrated, and begun anew.
	_, err = st.DB().ExecContext(ctx, `CREATE TABLE restoring (begun_at DATETIME(6) NOT NULL)`)
	require.NoError(t, err)
	_, err = st.DB().ExecContext(ctx, `CREATE TABLE riders (half INT)`)
	require.NoError(t, err)
	for _, command := range []string{"serve", "migrate"} {
		out, err := h.mule(nil, dsn, command)
		require.Error(t, err)
		assert.Contains(t, out, "broken off", command)
	}
	out, err = h.mule(bytes.NewReader(whole), dsn, "restore", "-")
	require.NoError(t, err, out)
	rook, err := st.RiderByName(ctx, "Rook")
	require.NoError(t, err)
	plans, err := st.Plans(ctx, rook.ID)
	require.NoError(t, err)
	assert.Len(t, plans, 1)

	// One of an earlier version is what an upgrade begins with.
	_, err = st.DB().ExecContext(ctx, `DELETE FROM goose_db_version ORDER BY version_id DESC LIMIT 1`)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "older.sql")
	out, err = h.mule(nil, dsn, "backup", file)
	require.NoError(t, err, out)
	older, err := h.database.DSN(ctx, "older")
	require.NoError(t, err)
	out, err = h.mule(nil, older, "restore", file)
	require.NoError(t, err, out)
	assert.Contains(t, out, "mule migrate")
}

// TestTwinsTold: an upgrade tells of two accounts whose names are one by now, and no export
// writes the one's plans for the other's.
func TestTwinsTold(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database")
	}
	h := newHouse(t)
	st, err := store.Open(h.dsn)
	require.NoError(t, err)
	defer st.Close()
	ctx := context.Background()
	var ids []string
	for _, name := range []string{"Ada Rook", "Somebody"} {
		made, err := st.CreateRider(ctx, name, "")
		require.NoError(t, err)
		_, err = st.CreatePlan(ctx, made.ID, plan.New("Of "+name, "EUR"), "New")
		require.NoError(t, err)
		ids = append(ids, made.ID)
	}
	_, err = st.DB().ExecContext(ctx, `UPDATE riders SET name_key = NULL, name = IF(id = ?, 'ÁDA  ROOK', name)`, ids[1])
	require.NoError(t, err)
	out, err := h.mule(nil, h.dsn, "migrate")
	require.NoError(t, err, out)
	assert.Contains(t, out, ids[0])
	assert.Contains(t, out, ids[1])

	dir := t.TempDir()
	out, err = h.mule(nil, h.dsn, "export", "-rider", "ada rook", "-dir", dir)
	require.Error(t, err)
	assert.Contains(t, out, ids[1])
	for what, of := range map[string][]string{"Of Ada Rook": {"-rider", "Ada Rook"}, "Of Somebody": {"-id", ids[1]}} {
		out, err := h.mule(nil, h.dsn, append([]string{"export", "-dir", dir}, of...)...)
		require.NoError(t, err, out)
		exported, err := os.ReadFile(strings.TrimSpace(out))
		require.NoError(t, err)
		assert.Contains(t, string(exported), what)
	}
}
