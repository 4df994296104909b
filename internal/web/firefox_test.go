//go:build firefox

package web_test

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"valiantmule/internal/web/webtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fox is a headless Firefox, spoken to in Marionette: a length, a colon and a JSON list
// of kind, number, command and parameters.
type fox struct {
	t    *testing.T
	conn net.Conn
	in   *bufio.Reader
	sent int
}

func newFox(t *testing.T) *fox {
	profile := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(profile, "user.js"), []byte(`user_pref("marionette.port", 0);`), 0o600))
	browser := exec.Command("firefox-esr", "--headless", "--marionette", "--no-remote", "--profile", profile)
	browser.Env = append(os.Environ(), "HOME="+profile)
	require.NoError(t, browser.Start())
	t.Cleanup(func() {
		_ = browser.Process.Kill()
		_ = browser.Wait()
	})
	f := &fox{t: t}
	require.Eventually(t, func() bool {
		port, err := os.ReadFile(filepath.Join(profile, "MarionetteActivePort"))
		if err != nil || len(port) == 0 {
			return false
		}
		f.conn, err = net.Dial("tcp", "127.0.0.1:"+strings.TrimSpace(string(port)))
		return err == nil
	}, 2*time.Minute, 100*time.Millisecond)
	t.Cleanup(func() { f.conn.Close() })
	f.in = bufio.NewReader(f.conn)
	f.read() // what it is
	f.call("WebDriver:NewSession", map[string]any{"capabilities": map[string]any{}})
	return f
}

func (f *fox) read() json.RawMessage {
	f.t.Helper()
	length, err := f.in.ReadString(':')
	require.NoError(f.t, err)
	n, err := strconv.Atoi(strings.TrimSuffix(length, ":"))
	require.NoError(f.t, err)
	message := make([]byte, n)
	_, err = io.ReadFull(f.in, message)
	require.NoError(f.t, err)
	return message
}

func (f *fox) call(command string, parameters map[string]any) (value any) {
	f.t.Helper()
	f.sent++
	message, err := json.Marshal([]any{0, f.sent, command, parameters})
	require.NoError(f.t, err)
	_, err = fmt.Fprintf(f.conn, "%d:%s", len(message), message)
	require.NoError(f.t, err)
	var answer [4]any // kind, number, error, result
	require.NoError(f.t, json.Unmarshal(f.read(), &answer))
	require.Nil(f.t, answer[2], command)
	if result, ok := answer[3].(map[string]any); ok {
		return result["value"]
	}
	return nil
}

func (f *fox) open(url string) {
	f.t.Helper()
	f.call("WebDriver:Navigate", map[string]any{"url": url})
}

func (f *fox) eval(script string) any {
	f.t.Helper()
	return f.call("WebDriver:ExecuteScript", map[string]any{"script": "return " + script, "args": []any{}})
}

func (f *fox) until(script string) {
	f.t.Helper()
	require.Eventually(f.t, func() bool { return f.eval(script) == true }, time.Minute, 50*time.Millisecond, script)
}

// TestFirefox looks at five pages: each is whole and no wider than its window, options
// are laid on the bench, and sliders look like ours.
func TestFirefox(t *testing.T) {
	s := webtest.New(t)
	f := newFox(t)
	f.open(s.URL + "/sign-in")
	f.eval(`document.querySelector('#demo').click()`)
	f.until(`document.querySelector('.plan-card') !== null`)
	plan := strings.TrimSuffix(f.eval(`document.querySelector('.plan-card header a').href`).(string), "/brief")
	for _, page := range []struct{ path, drawing string }{
		{"tyres", "#lineup svg"}, {"gearing", "#field svg"}, {"range", "#ladder svg"}, {"load", "#balance svg"}, {"packing", ".thing"},
	} {
		f.open(strings.Split(plan, "?")[0] + "/" + page.path)
		f.until(`document.readyState === 'complete' && document.querySelector('h1').getBoundingClientRect().height > 0`)
		assert.Equal(t, true, f.eval(`document.querySelector('`+page.drawing+`').getBoundingClientRect().height > 20`), page.path)
		assert.Equal(t, true, f.eval(`document.documentElement.scrollWidth <= window.innerWidth`), page.path)
		switch page.path {
		case "range":
			f.until(`!document.querySelector('input[type=range]').hidden`) // shown by the script
			assert.Equal(t, true, f.eval(`getComputedStyle(document.querySelector('input[type=range]'), '::-moz-range-thumb').backgroundColor ===
				getComputedStyle(document.querySelector('.waiting summary')).color`), "a slider is leather too")
		case "gearing":
			f.eval(`document.querySelector('.pair[data-front="15"][data-rear="47"]').dispatchEvent(new MouseEvent('click', {bubbles: true, cancelable: true}))`)
			f.until(`document.querySelector('#bench h2').textContent.includes('47')`)
		}
	}
}
