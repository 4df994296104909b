package main

import (
	"cmp"
	"context"
	"crypto/ecdsa"
	"crypto/elliptic"
	crand "crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"encoding/pem"
	"fmt"
	"io"
	"math/big"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/mariadb"
)

// house is a database with server processes on it, all of which can be killed.
type house struct {
	t        *testing.T
	program  string
	data     string
	work     string // where servers run, data without it
	database *mariadb.Server
	dsn      string
}

func newHouse(t *testing.T) *house {
	t.Helper()
	h := &house{t: t, program: built(t), data: t.TempDir()}
	h.startDatabase()
	t.Cleanup(func() { h.database.Stop() })
	migrated := exec.Command(h.program, "migrate")
	migrated.Env = append(os.Environ(), "MULE_DSN="+h.dsn)
	out, err := migrated.CombinedOutput()
	require.NoError(t, err, string(out))
	return h
}

func (h *house) startDatabase() {
	h.t.Helper()
	var err error
	h.database, err = mariadb.Start(context.Background(), h.data)
	require.NoError(h.t, err)
	dsn, err := h.database.DSN(context.Background(), "mule")
	require.NoError(h.t, err)
	require.True(h.t, h.dsn == "" || h.dsn == dsn, "it comes back where it was")
	h.dsn = dsn
}

// killDatabase ends the server as a power cut would.
func (h *house) killDatabase() {
	h.t.Helper()
	processes, err := filepath.Glob("/proc/[0-9]*/cmdline")
	require.NoError(h.t, err)
	for _, path := range processes {
		line, err := os.ReadFile(path)
		if err != nil || !strings.Contains(string(line), "--datadir="+h.data+"/data") {
			continue
		}
		pid, err := strconv.Atoi(strings.Split(path, "/")[2])
		require.NoError(h.t, err)
		require.NoError(h.t, syscall.Kill(pid, syscall.SIGKILL))
	}
	<-h.database.Ended()
}

func (h *house) serve(flags ...string) *running {
	h.t.Helper()
	return start(h.t, h.program, cmp.Or(h.work, h.data), "MULE_DSN="+h.dsn, append([]string{"serve"}, flags...)...)
}

// rider is a browser without a screen, signed in, that writes one plan.
type rider struct {
	t      *testing.T
	client *http.Client
	plan   string
}

func newRider(t *testing.T, at *running) *rider {
	t.Helper()
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	r := &rider{t: t, client: &http.Client{Jar: jar, Timeout: 30 * time.Second, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
	status, _, _ := r.post(at, "/register", url.Values{"name": {"Rook"}, "password": {"a long enough one"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, to, _ := r.post(at, "/garage", url.Values{"name": {"Stream"}, "currency": {"EUR"}})
	require.Equal(t, http.StatusSeeOther, status)
	r.plan = strings.TrimSuffix(to, "/brief")
	return r
}

// cookies do not know ports: one host is one jar for every server of the test.
func (r *rider) post(at *running, path string, form url.Values) (status int, location string, err error) {
	answer, err := r.client.PostForm("http://"+at.address+path, form)
	if err != nil {
		return 0, "", err
	}
	defer answer.Body.Close()
	_, err = io.Copy(io.Discard, answer.Body)
	return answer.StatusCode, answer.Header.Get("Location"), err
}

func (r *rider) get(at *running, path string) (status int, body string, err error) {
	answer, err := r.client.Get("http://" + at.address + path)
	if err != nil {
		return 0, "", err
	}
	defer answer.Body.Close()
	all, err := io.ReadAll(answer.Body)
	return answer.StatusCode, string(all), err
}

var baseField = regexp.MustCompile(`name="base" value="([^"]*)"`)

// save puts a distance into the brief; true when it was acknowledged.
func (r *rider) save(at *running, km int) bool {
	status, page, err := r.get(at, r.plan+"/brief")
	base := baseField.FindStringSubmatch(page)
	if err != nil || status != http.StatusOK || base == nil {
		return false
	}
	return r.saveOn(at, base[1], km)
}

func (r *rider) saveOn(at *running, base string, km int) bool {
	status, _, err := r.post(at, r.plan+"/brief", url.Values{"base": {base}, "name": {"Stream"}, "distance": {fmt.Sprintf("%d km", km)}})
	return err == nil && status == http.StatusSeeOther
}

// TestTwoServers on one database behave as one.
func TestTwoServers(t *testing.T) {
	if testing.Short() {
		t.Skip("starts two servers")
	}
	h := newHouse(t)
	a, b := h.serve(), h.serve()
	defer a.stop(t)
	defer b.stop(t)
	r := newRider(t, a)
	require.True(t, r.save(a, 100))
	_, page, err := r.get(b, r.plan+"/brief")
	require.NoError(t, err)
	assert.Contains(t, page, `value="100 km"`, "signed in at one is signed in at the other, and sees what was saved")

	for round := range 5 {
		_, page, err := r.get(a, r.plan+"/brief")
		require.NoError(t, err)
		base := baseField.FindStringSubmatch(page)[1]
		var wins [2]bool
		var both sync.WaitGroup
		for i, server := range []*running{a, b} {
			both.Go(func() { wins[i] = r.saveOn(server, base, 1000+10*round+i) })
		}
		both.Wait()
		assert.NotEqual(t, wins[0], wins[1], "of two saves on one revision one wins, whatever the servers")
	}
	_, page, err = r.get(b, r.plan+"/brief")
	require.NoError(t, err)
	status, _, err := r.post(b, r.plan+"/undo", url.Values{"base": {baseField.FindStringSubmatch(page)[1]}})
	require.NoError(t, err)
	assert.Equal(t, http.StatusSeeOther, status)
	_, fromA, err := r.get(a, r.plan+"/brief")
	require.NoError(t, err)
	_, fromB, err := r.get(b, r.plan+"/brief")
	require.NoError(t, err)
	fresh := regexp.MustCompile(`name="save" value="[^"]*"`) // made for each page
	assert.Equal(t, fresh.ReplaceAllString(fromA, ""), fresh.ReplaceAllString(fromB, ""))
}

// TestDatabaseAway: pages say so, and recover by themselves.
func TestDatabaseAway(t *testing.T) {
	if testing.Short() {
		t.Skip("kills a database")
	}
	h := newHouse(t)
	server := h.serve()
	defer server.stop(t)
	r := newRider(t, server)
	_, page, err := r.get(server, r.plan+"/brief")
	require.NoError(t, err)
	h.killDatabase()
	for _, path := range []string{"/healthz", "/garage", r.plan + "/brief"} {
		status, body, err := r.get(server, path)
		require.NoError(t, err)
		assert.Equal(t, http.StatusServiceUnavailable, status, path)
		if path != "/healthz" {
			assert.Contains(t, body, "database does not answer", path)
		}
	}
	base := baseField.FindStringSubmatch(page)[1]
	assert.False(t, r.saveOn(server, base, 500))
	h.startDatabase()
	require.Eventually(t, func() bool { status, _, err := r.get(server, "/healthz"); return err == nil && status == http.StatusOK }, time.Minute, 50*time.Millisecond)
	assert.True(t, r.saveOn(server, base, 500), "what was typed can be sent again")
}

// TestServeWaits for a database that is not up yet.
func TestServeWaits(t *testing.T) {
	if testing.Short() {
		t.Skip("kills a database")
	}
	h := newHouse(t)
	h.killDatabase()
	serving := make(chan *running)
	go func() { serving <- h.serve() }()
	h.startDatabase()
	server := <-serving
	defer server.stop(t)
	assert.Contains(t, server.page(t, "/healthz"), "up")
}

// TestHTTPS is spoken with a certificate, and cookies go by it alone.
func TestHTTPS(t *testing.T) {
	if testing.Short() {
		t.Skip("starts a database")
	}
	h := newHouse(t)
	cert, key := certificate(t)
	server := h.serve("-tls-cert", cert, "-tls-key", key, "-hsts")
	defer server.stop(t)
	client := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{InsecureSkipVerify: true}}, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	answer, err := client.PostForm("https://"+server.address+"/register", url.Values{"name": {"Rook"}, "password": {"a long enough one"}})
	require.NoError(t, err)
	defer answer.Body.Close()
	assert.Equal(t, http.StatusSeeOther, answer.StatusCode)
	assert.Contains(t, answer.Header.Get("Set-Cookie"), "Secure")
	assert.NotEmpty(t, answer.Header.Get("Strict-Transport-Security"))
}

// certificate of this machine, signed by itself.
func certificate(t *testing.T) (cert, key string) {
	t.Helper()
	private, err := ecdsa.GenerateKey(elliptic.P256(), crand.Reader)
	require.NoError(t, err)
	template := &x509.Certificate{SerialNumber: big.NewInt(1), DNSNames: []string{"localhost"}, NotAfter: time.Now().Add(time.Hour)}
	der, err := x509.CreateCertificate(crand.Reader, template, template, private.Public(), private)
	require.NoError(t, err)
	secret, err := x509.MarshalPKCS8PrivateKey(private)
	require.NoError(t, err)
	cert, key = filepath.Join(t.TempDir(), "cert.pem"), filepath.Join(t.TempDir(), "key.pem")
	require.NoError(t, os.WriteFile(cert, pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: der}), 0o600))
	require.NoError(t, os.WriteFile(key, pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY", Bytes: secret}), 0o600))
	return cert, key
}

// TestFlags that cannot be are refused in a line.
func TestFlags(t *testing.T) {
	for _, args := range [][]string{{"-tls-cert", "x"}, {"-tls-cert", "x", "-tls-key", "y"}, {"-proxy", "everybody"}, {"-hsts"}, {"-gogc", "0"}, {"-metrics", "0.0.0.0:9100"}, {"-metrics", "9100"}, {"-idle", "0s"}, {"-site", "mule.example"}, {"-site", "https://mule.example/x"}, {"-contact", "me"}, {"-smtp", "127.0.0.1:25", "-from", "a@b.example"}, {"-smtp", "127.0.0.1", "-from", "a@b.example", "-site", "https://b.example"}, {"-megabytes", "9000000000000"}, {"-memo", "9000000000000"}, {"-nonsense"}} {
		_, _, err := readFlags(args)
		var use errUse
		require.ErrorAs(t, err, &use, args)
		assert.NotContains(t, use.text, "\n")
	}
	o, rest, err := readFlags([]string{"-proxy", "10.0.0.0/8,192.0.2.7/32", "-hsts", "-memo", "3", "more"})
	require.NoError(t, err)
	assert.Len(t, o.Proxies, 2)
	assert.EqualValues(t, 3<<20, o.Kept)
	assert.Equal(t, []string{"more"}, rest)
}
