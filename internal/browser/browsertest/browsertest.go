// Package browsertest gives tests tabs in one headless Chromium that they share. Each
// tab has cookies and storage of its own, as if it were another rider's machine.
package browsertest

import (
	"context"
	"sync"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/browser"
)

var shared struct {
	sync.Mutex
	first context.Context
	stop  func()
}

// Stop ends the browser that tests may have started; call it when they have run.
func Stop() {
	shared.Lock()
	defer shared.Unlock()
	if shared.stop != nil {
		shared.stop()
	}
}

// Tab opens a tab that is gone after the test.
func Tab(tb testing.TB) context.Context {
	tb.Helper()
	tab, shut := chromedp.NewContext(first(tb), chromedp.WithNewBrowserContext())
	tb.Cleanup(shut)
	require.NoError(tb, chromedp.Do(tab))
	return tab
}

// Forgetting is a tab of a browser by itself that keeps no page that one has left, as one does
// that is short of memory.
func Forgetting(tb testing.TB) context.Context {
	tb.Helper()
	tab, stop, err := browser.Start(context.Background(), chromedp.Flag("disable-back-forward-cache", true))
	require.NoError(tb, err)
	tb.Cleanup(stop)
	return tab
}

// Lasting is a browser by itself whose profile outlasts it: each call ends the one that runs, as
// somebody who shuts it does, and is the first tab of the next.
func Lasting(tb testing.TB, more ...chromedp.ExecAllocatorOption) (restart func() context.Context) {
	profile, end := tb.TempDir(), func() {}
	tb.Cleanup(func() { end() })
	return func() context.Context {
		tb.Helper()
		end()
		tab, stop, err := browser.On(context.Background(), profile, more...)
		require.NoError(tb, err)
		end = stop
		return tab
	}
}

// first is the browser's own tab, which nobody uses.
func first(tb testing.TB) context.Context {
	shared.Lock()
	defer shared.Unlock()
	if shared.stop == nil {
		var err error
		shared.first, shared.stop, err = browser.Start(context.Background())
		require.NoError(tb, err)
	}
	return shared.first
}
