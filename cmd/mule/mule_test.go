package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/figure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const demoFile = "../../internal/demo/plan.json"

// call runs the program as a shell would and returns its exit code.
func call(t *testing.T, in string, args ...string) (code int, out, errOut string) {
	t.Helper()
	var stdout, stderr bytes.Buffer
	err := run(args, strings.NewReader(in), &stdout, &stderr)
	return status(err, &stderr), stdout.String(), stderr.String()
}

func TestCheckText(t *testing.T) {
	code, out, _ := call(t, "", "check", demoFile)
	assert.Zero(t, code)
	for _, word := range []string{"Trail day", "Travel", "Walking pace", "[tyre-moves-gearing]", "of 2027-05-14"} {
		assert.Contains(t, out, word)
	}
}

func TestCheckJSON(t *testing.T) {
	file, err := os.ReadFile(demoFile)
	require.NoError(t, err)
	for _, args := range [][]string{{"check", "-format", "json", demoFile}, {"check", demoFile, "-format=json"}, {"check", "-format", "json", "-", "-as-of", "2027-05-01"}} {
		code, out, _ := call(t, string(file), args...)
		require.Zero(t, code, args)
		var doc struct {
			Version int
			Gauges  []struct {
				ID, Loadout, State, Unit string
				Value, Limit, Low, High  any
				Missing                  []string
			}
			Findings []struct{ ID, State, Loadout, What, Why, Do, Cause, Aside string }
		}
		require.NoError(t, json.Unmarshal([]byte(out), &doc))
		assert.Equal(t, 1, doc.Version)
		assert.Len(t, doc.Gauges, 2*len(figure.Gauges()), "each gauge of each loadout")
		for i, g := range doc.Gauges {
			assert.EqualValues(t, figure.Gauges()[i%len(figure.Gauges())].ID, g.ID, "in the order of the table")
			assert.Equal(t, g.State == "unknown", g.Value == nil || g.Limit == nil, g.ID)
			assert.NotNil(t, g.Missing)
			for _, v := range []any{g.Value, g.Limit, g.Low, g.High} {
				if figure.ID(g.ID) == figure.ReadyDate {
					assert.Regexp(t, `^2027-\d\d-\d\d$`, v, "a day is a date")
				} else if v != nil {
					assert.IsType(t, 0.0, v, g.ID)
				}
			}
		}
		for _, f := range doc.Findings {
			assert.GreaterOrEqual(t, cause.ID(f.Cause).Rank(), 0, f.ID)
			assert.Contains(t, []string{"", "small", "day"}, f.Aside, f.ID)
		}
		assert.NotEmpty(t, doc.Findings)
	}
}

func TestCheckStops(t *testing.T) {
	file, err := os.ReadFile(demoFile)
	require.NoError(t, err)
	heavy := strings.Replace(string(file), `"permitted_mass": "345 kg"`, `"permitted_mass": "300 kg"`, 1)
	code, out, _ := call(t, heavy, "check", "-")
	assert.Equal(t, 1, code, "over the plate in one loadout")
	assert.Contains(t, out, "[overweight]")
}

func TestBadUse(t *testing.T) {
	for name, c := range map[string]struct {
		in   string
		args []string
		says string
	}{
		"nothing":         {"", nil, "mule help"},
		"no command":      {"", []string{"ride"}, "ride"},
		"no file":         {"", []string{"check"}, "one plan file"},
		"two files":       {"", []string{"check", "a", "b"}, "one plan file"},
		"not there":       {"", []string{"check", "nowhere.json"}, "nowhere.json"},
		"a format":        {"", []string{"check", "-format", "xml", demoFile}, "xml"},
		"a day":           {"", []string{"check", "-as-of", "soon", demoFile}, "soon"},
		"a flag":          {"", []string{"check", "-loud", demoFile}, "loud"},
		"bad document":    {`{"format":"valiant-mule-plan","version":1,"name":"P","currency":"EUR","brief":{"rider":"lots"}}`, []string{"check", "-"}, "brief.rider"},
		"not a document":  {"hello", []string{"check", "-"}, "document"},
		"no calculator":   {"", []string{"calc"}, "calc"},
		"another":         {"", []string{"calc", "luck"}, "luck"},
		"bad value":       {"", []string{"calc", "tyre", "code=round"}, "code"},
		"no database":     {"", []string{"serve"}, "MULE_DSN"},
		"no memory":       {"", []string{"serve", "-gogc", "0"}, "-gogc"},
		"memory in words": {"", []string{"serve", "-memory-limit", "lots"}, "memory-limit"},
		"arguments":       {"", []string{"migrate", "now"}, "no arguments"},
	} {
		t.Setenv("MULE_DSN", "")
		code, out, errOut := call(t, c.in, c.args...)
		assert.Equal(t, 2, code, name)
		assert.Empty(t, out, name)
		assert.Contains(t, errOut, c.says, name)
		assert.Equal(t, 1, strings.Count(errOut, "\n"), "%s: one line", name)
	}
}

func TestCalc(t *testing.T) {
	code, out, _ := call(t, "", "calc", "chain", "front=13", "rear=48", "pitch_mm=15.875", "centre_mm=590")
	assert.Zero(t, code)
	var got map[string]float64
	require.NoError(t, json.Unmarshal([]byte(out), &got))
	assert.Equal(t, 106.0, got["links"])
	for _, help := range []string{"-help", "help", "-h"} {
		code, out, _ = call(t, "", "check", help)
		assert.Zero(t, code)
		assert.Contains(t, out, "-as-of")
		code, out, _ = call(t, "", "calc", help)
		assert.Zero(t, code)
		for _, name := range []string{"tyre", "gearing", "chain", "stock_circumference_mm"} {
			assert.Contains(t, out, name)
		}
	}
}

// TestDemo starts the program twice: it comes up, a signal ends it and its
// database, and the second start finds the data.
func TestDemo(t *testing.T) {
	if testing.Short() {
		t.Skip("builds the program and starts it twice")
	}
	dir, program := t.TempDir(), built(t)
	first := start(t, program, dir, "MULE_DSN=", "demo")
	assert.Contains(t, first.page(t, "/sign-in"), `id="demo"`)
	first.stop(t)
	log, err := os.ReadFile(filepath.Join(dir, ".data", "mariadb", "server.log"))
	require.NoError(t, err)
	assert.Contains(t, string(log), "Shutdown complete", "the database ended cleanly")
	second := start(t, program, dir, "MULE_DSN=", "demo")
	second.stop(t)
}

var programDir string

// program is built once for all tests that run it.
var program = sync.OnceValues(func() (string, error) {
	dir, err := os.MkdirTemp("", "mule-program-")
	if err != nil {
		return "", err
	}
	programDir = dir
	path := filepath.Join(dir, "mule")
	if out, err := exec.Command("go", "build", "-o", path, ".").CombinedOutput(); err != nil {
		return "", fmt.Errorf("%w: %s", err, out)
	}
	return path, nil
})

func TestMain(m *testing.M) {
	code := m.Run()
	if programDir != "" {
		os.RemoveAll(programDir)
	}
	os.Exit(code)
}

func built(t *testing.T) string {
	t.Helper()
	path, err := program()
	require.NoError(t, err)
	return path
}

type running struct {
	command *exec.Cmd
	address string
}

// start runs a serving command of the program and waits until it says where.
func start(t *testing.T, program, dir, env string, args ...string) *running {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 3*time.Minute)
	t.Cleanup(cancel)
	command := exec.CommandContext(ctx, program, args...)
	command.Dir = dir
	command.Env = append(os.Environ(), "MULE_ADDR=127.0.0.1:0", env)
	command.Stderr = os.Stderr
	out, err := command.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, command.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	scheme, address, found := strings.Cut(strings.TrimSpace(line), "://")
	require.True(t, found, line)
	r := &running{command, address}
	if strings.HasSuffix(scheme, "https") {
		return r
	}
	assert.Contains(t, r.page(t, "/healthz"), `"up"`)
	return r
}

func (r *running) page(t *testing.T, path string) string {
	t.Helper()
	answer, err := http.Get("http://" + r.address + path)
	require.NoError(t, err)
	defer answer.Body.Close()
	require.Equal(t, http.StatusOK, answer.StatusCode)
	var b bytes.Buffer
	_, err = b.ReadFrom(answer.Body)
	require.NoError(t, err)
	return b.String()
}

func (r *running) stop(t *testing.T) {
	t.Helper()
	require.NoError(t, r.command.Process.Signal(syscall.SIGTERM))
	assert.NoError(t, r.command.Wait(), "a signal is a clean end")
}

func TestPortTaken(t *testing.T) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer listener.Close()
	t.Setenv("MULE_ADDR", listener.Addr().String())
	err = answer(context.Background(), nil, serving{}, nil, &bytes.Buffer{}, &bytes.Buffer{})
	require.Error(t, err)
	assert.Contains(t, err.Error(), listener.Addr().String())
	assert.Contains(t, err.Error(), "MULE_ADDR")
	assert.True(t, errors.Is(err, syscall.EADDRINUSE))
}
