package main

import (
	"context"
	"io"
	"net"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestOperating runs the commands of docs/operating.md in their order.
func TestOperating(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database and many servers")
	}
	text, err := os.ReadFile("../../docs/operating.md")
	require.NoError(t, err)
	h := newHouse(t)
	dir := t.TempDir()
	cert, key := certificate(t)
	require.NoError(t, os.Rename(cert, filepath.Join(dir, "cert.pem")))
	require.NoError(t, os.Rename(key, filepath.Join(dir, "key.pem")))
	h.work = dir
	dsn := h.dsn
	ran := 0
	for _, block := range regexp.MustCompile("(?s)```sh\n(.*?)```").FindAllStringSubmatch(string(text), -1) {
		for line := range strings.Lines(block[1]) {
			args := strings.Fields(line)
			require.Equal(t, "mule", args[0], line)
			ran++
			if args[1] == "serve" {
				flags := strings.Split(strings.ReplaceAll(strings.Join(args[2:], " "), "127.0.0.1:9100", "127.0.0.1:0"), " ") // which may be taken here
				server := h.serve(slices.DeleteFunc(flags, func(f string) bool { return f == "" })...)
				if ran == 2 { // somebody whose plans can be exported
					r := newRider(t, server)
					_, _, err := r.post(server, r.plan+"/brief", url.Values{"name": {"Stream"}})
					require.NoError(t, err)
					status, _, err := r.get(server, "/livez")
					require.NoError(t, err)
					assert.Equal(t, http.StatusOK, status)
				}
				server.stop(t)
				continue
			}
			if args[1] == "restore" {
				dsn, err = h.database.DSN(context.Background(), "again")
				require.NoError(t, err)
			}
			command := exec.Command(h.program, args[1:]...)
			command.Dir, command.Env = dir, append(os.Environ(), "MULE_DSN="+dsn)
			out, err := command.CombinedOutput()
			assert.NoError(t, err, "%s: %s", line, out)
		}
	}
	assert.Greater(t, ran, 8)
}

// TestSecurityPage: every test that docs/security.md names is there.
func TestSecurityPage(t *testing.T) {
	page, err := os.ReadFile("../../docs/security.md")
	require.NoError(t, err)
	there := map[string]bool{}
	err = filepath.WalkDir("../..", func(path string, _ os.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, "_test.go") {
			return err
		}
		source, err := os.ReadFile(path)
		for _, m := range regexp.MustCompile(`(?m)^func (Test\w+)\(`).FindAllStringSubmatch(string(source), -1) {
			there[m[1]] = true
		}
		return err
	})
	require.NoError(t, err)
	named := regexp.MustCompile("`(Test\\w+)`").FindAllStringSubmatch(string(page), -1)
	assert.Greater(t, len(named), 20)
	for _, m := range named {
		assert.True(t, there[m[1]], m[1])
	}
}

// TestAlerts: every number that docs/operating.md would wake somebody by is shown, and to this
// machine alone.
func TestAlerts(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database")
	}
	page, err := os.ReadFile("../../docs/operating.md")
	require.NoError(t, err)
	h := newHouse(t)
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	address := listener.Addr().String()
	require.NoError(t, listener.Close())
	server := h.serve("-metrics", address, "-site", "http://127.0.0.1", "-smtp", "127.0.0.1:25", "-from", "mule@mule.example")
	defer server.stop(t)
	r := newRider(t, server)
	require.True(t, r.save(server, 100))
	answer, err := http.Get("http://" + address + "/metrics")
	require.NoError(t, err)
	defer answer.Body.Close()
	shown, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	named := regexp.MustCompile(`\b(mule|go|process)_[a-z_]+`).FindAllString(string(page), -1)
	assert.Greater(t, len(named), 10)
	for _, name := range named {
		assert.Regexp(t, `(?m)^`+name+`[ {]`, string(shown))
	}
	assert.Contains(t, string(shown), `route="/plans/{plan}/brief",status="303"`, "by pattern, not by plan")
	status, _, err := r.get(server, "/metrics")
	require.NoError(t, err)
	assert.Equal(t, http.StatusNotFound, status, "not where riders are")
}
