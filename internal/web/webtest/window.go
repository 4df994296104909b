//go:build !markup

package webtest

import (
	"context"
	"regexp"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/browser/browsertest"
)

// Window is a browser's tab on a site; what its console says is a failure.
type Window struct {
	T    *testing.T
	tab  context.Context
	Site *Site
	// Asked is how often the page has asked before it was left.
	Asked *atomic.Int32
	// Expects are parts of what the console may say.
	Expects []string
}

// Patience bounds one step of a browser test, not a whole one: a slow machine takes
// longer over all of them, but over none so long. Nothing waits by the clock.
const Patience = 3 * time.Minute

func init() { atEnd = browsertest.Stop }

// Window opens a tab on the site.
func (s *Site) Window(t *testing.T) *Window {
	t.Helper()
	return s.on(t, browsertest.Tab(t))
}

// Forgetting is a window of a browser that keeps no page that one has left, for the way back,
// but its text.
func (s *Site) Forgetting(t *testing.T) *Window {
	t.Helper()
	return s.on(t, browsertest.Forgetting(t))
}

// Lasting is a browser by itself that keeps what it holds: each call shuts it, where it runs, and
// opens it again.
func (s *Site) Lasting(t *testing.T, more ...chromedp.ExecAllocatorOption) (restart func() *Window) {
	t.Helper()
	next := browsertest.Lasting(t, more...)
	return func() *Window { t.Helper(); return s.on(t, next()) }
}

// Another is a second tab of a window's browser.
func (w *Window) Another() *Window {
	w.T.Helper()
	tab, shut := chromedp.NewContext(w.tab)
	w.T.Cleanup(shut)
	require.NoError(w.T, chromedp.Do(tab))
	return w.Site.on(w.T, tab)
}

// Call is a command to the browser about the tab.
func Call[P, R any](w *Window, command cdp.Command[P, R], params P) R {
	w.T.Helper()
	ctx, cancel := w.Step()
	defer cancel()
	answer, err := chromedp.Call(ctx, command, params)
	require.NoError(w.T, err)
	return answer
}

// Waiting is how many entries the browser keeps for the server, of all riders.
func (w *Window) Waiting() int {
	w.T.Helper()
	return Ask[int](w, `new Promise((done) => {
		const asked = indexedDB.open('mule', 1);
		asked.onupgradeneeded = () => asked.result.createObjectStore('entries', { keyPath: 'n', autoIncrement: true });
		asked.onsuccess = () => {
			const count = asked.result.transaction('entries').objectStore('entries').count();
			count.onsuccess = () => { asked.result.close(); done(count.result); };
		};
	})`, chromedp.EvalAwaitPromise)
}

// UntilWaiting waits until just so many are kept.
func (w *Window) UntilWaiting(n int) {
	w.T.Helper()
	require.Eventually(w.T, func() bool { return w.Waiting() == n }, Patience, 20*time.Millisecond, "%d entries", n)
}

// UntilKept waits until the browser keeps the pages of these paths.
func (w *Window) UntilKept(paths ...string) {
	w.T.Helper()
	for _, path := range paths {
		require.Eventually(w.T, func() bool {
			return Ask[bool](w, `caches.keys().then((names) => Promise.all(names.filter((n) => n.startsWith('pages ')).map((n) => caches.open(n)
				.then((pages) => pages.keys())))).then((lists) => lists.flat().some((r) => new URL(r.url).pathname === `+Quote(path)+`))`, chromedp.EvalAwaitPromise)
		}, Patience, 20*time.Millisecond, path)
	}
}

func (s *Site) on(t *testing.T, tab context.Context) *Window {
	t.Helper()
	said := make(chan string, 100)
	messages := chromedp.Console(tab)
	go func() {
		defer close(said)
		for m, err := range messages {
			if err != nil {
				return
			}
			said <- m.String()
		}
	}()
	w := &Window{T: t, tab: tab, Site: s, Asked: new(atomic.Int32)}
	asked := chromedp.Events(tab, page.JavascriptDialogOpening)
	go func() {
		for _, err := range asked {
			if err != nil {
				return
			}
			w.Asked.Add(1) // whether to leave what is typed: yes
			go func() {
				_, _ = chromedp.Call(tab, page.HandleJavaScriptDialog, page.HandleJavaScriptDialogParams{Accept: true})
			}()
		}
	}()
	// A refused form or a page that is not there is an answer, not an error of the
	// page.
	w.Expects = []string{"status of 422", "status of 409", "status of 404"}
	t.Cleanup(func() {
		for {
			select {
			case m, open := <-said:
				if !open {
					return
				}
				if !slices.ContainsFunc(w.Expects, func(part string) bool { return strings.Contains(m, part) }) {
					assert.Fail(t, "the console speaks", m)
				}
			default:
				return
			}
		}
	})
	return w
}

// In is the window of a subtest, which is told what fails.
func (w *Window) In(t *testing.T) *Window {
	mine := *w
	mine.T = t
	return &mine
}

// Step bounds what is done next.
func (w *Window) Step() (context.Context, context.CancelFunc) {
	return context.WithTimeout(w.tab, Patience)
}

// Do takes steps, each bounded by Patience.
func (w *Window) Do(steps ...chromedp.Action[chromedp.Void]) {
	w.T.Helper()
	for _, s := range steps {
		ctx, cancel := w.Step()
		err := chromedp.Do(ctx, s)
		cancel()
		require.NoError(w.T, err)
	}
}

// Open goes to a path of the site.
func (w *Window) Open(path string) { w.T.Helper(); w.Do(chromedp.Navigate(w.Site.URL + path)) }

// Media shows the page as it is on a medium, "print" or "" for the screen.
func (w *Window) Media(medium string) {
	w.T.Helper()
	ctx, cancel := w.Step()
	defer cancel()
	_, err := chromedp.Call(ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: medium})
	require.NoError(w.T, err)
}

// sheet is a page of a PDF file.
var sheet = regexp.MustCompile(`/Type\s*/Page\b`)

// Paper is the page as it is printed, a PDF file, on paper of the size that the page asks for.
func (w *Window) Paper() []byte {
	w.T.Helper()
	ctx, cancel := w.Step()
	defer cancel()
	printed, err := chromedp.Call(ctx, page.PrintToPDF, page.PrintToPDFParams{PreferCSSPageSize: new(true)})
	require.NoError(w.T, err)
	return printed.Data
}

// Sheets is on how many sheets of paper the page is printed.
func (w *Window) Sheets() int {
	w.T.Helper()
	n := len(sheet.FindAll(w.Paper(), -1))
	require.Positive(w.T, n, "a file of no page")
	return n
}

// Leads does something that leads to another page and waits for it: the page that
// was marked is gone, and the one in its place has loaded.
func (w *Window) Leads(steps ...chromedp.Action[chromedp.Void]) {
	w.T.Helper()
	w.Eval(`(window.marked = true)`)
	w.Do(steps...)
	w.Until(`!window.marked`)
}

// Follow clicks something that leads to another page and waits for it.
func (w *Window) Follow(selector string) {
	w.T.Helper()
	w.Leads(chromedp.Click(chromedp.CSS(selector)))
}

// Fill types into a field and leaves it.
func (w *Window) Fill(selector, text string) {
	w.T.Helper()
	w.Do(chromedp.SetValue(chromedp.CSS(selector), text))
	w.Eval(`document.querySelector('` + selector + `').dispatchEvent(new Event('change', {bubbles: true})), true`)
}

// Eval does something in the page; the script says true when it could.
func (w *Window) Eval(script string) {
	w.T.Helper()
	require.True(w.T, Ask[bool](w, script), script)
}

// Text is what a script reads in the page.
func (w *Window) Text(script string) string {
	w.T.Helper()
	return strings.ReplaceAll(Ask[string](w, script), "\u00a0", " ")
}

// Ask is what a script comes to in the page.
func Ask[T any](w *Window, script string, options ...chromedp.EvaluateOption) T {
	w.T.Helper()
	ctx, cancel := w.Step()
	defer cancel()
	answer, err := chromedp.Run(ctx, chromedp.Evaluate[T](script, options...))
	require.NoError(w.T, err, script)
	return answer
}

// Until waits for a condition of the page, and for the page to have loaded: before
// that its script does not listen yet. A poll does not survive the page being
// replaced under it, so it is asked again.
func (w *Window) Until(condition string) {
	w.T.Helper()
	condition = "document.readyState === 'complete' && (" + condition + ")"
	ctx, cancel := w.Step()
	defer cancel()
	for {
		_, err := chromedp.Run(ctx, chromedp.Poll[bool](condition, chromedp.WithPollingTimeout(Patience)))
		replaced := err != nil && (strings.Contains(err.Error(), "context with specified id") || strings.Contains(err.Error(), "navigated or closed") || strings.Contains(err.Error(), "context was destroyed"))
		if !replaced || ctx.Err() != nil {
			require.NoError(w.T, err, condition)
			return
		}
	}
}

// Back goes a page back, and waits for a condition there. A poll does not come back from a page
// that the browser puts away, nor into one that it brings out again: it is asked each time.
func (w *Window) Back(condition string) {
	w.T.Helper()
	w.Eval(`(history.back(), true)`)
	require.Eventually(w.T, func() bool {
		ctx, cancel := w.Step()
		defer cancel()
		there, err := chromedp.Run(ctx, chromedp.Evaluate[bool]("document.readyState === 'complete' && ("+condition+")"))
		return err == nil && there // between two pages nobody answers
	}, Patience, 20*time.Millisecond, condition)
}

// Bench waits until something lies on the bench.
func (w *Window) Bench(title string) {
	w.T.Helper()
	w.Until(`document.querySelector('#bench h2').textContent.includes(` + Quote(title) + `)`)
}

// Quote makes a script's string of a text.
func Quote(s string) string { return `"` + strings.ReplaceAll(s, `"`, `\"`) + `"` }

// Gauge is what a gauge of the strip shows.
func (w *Window) Gauge(id string) string {
	w.T.Helper()
	return w.Text(`[...document.querySelectorAll('.strip [data-gauge="` + id + `"] .gauge-value > :not(.gauge-then)')].map((e) => e.textContent).join('')`)
}

// Desktop is a window on the demo plan, at a page of it.
func (s *Site) Desktop(t *testing.T, page string) (*Window, string) {
	t.Helper()
	_, path := s.Demo(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Open(path + "/" + page)
	return w, path
}

// Click on something that stays on the page, in a fold that is opened first.
func (w *Window) Click(selector string) {
	w.T.Helper()
	w.Eval(`(() => {
		const at = document.querySelector(` + Quote(selector) + `), fold = at && at.closest('.options-fold');
		if (fold) fold.querySelector('input').checked = true;
		return true;
	})()`)
	w.Do(chromedp.Click(chromedp.CSS(selector)))
}

// GaugeIn is what a gauge shows that stands under root.
func (w *Window) GaugeIn(root, id string) string {
	w.T.Helper()
	return w.Text(`document.querySelector('` + root + ` [data-gauge="` + id + `"] .gauge-value').textContent`)
}
