// Package browser starts a headless Chromium of its own for the tests and for
// the screenshots.
package browser

import (
	"context"
	"errors"
	"os"
	"os/exec"
	"time"

	"github.com/chromedp/chromedp"
)

// startLimit is how long Chromium may take to come up on a busy machine.
const startLimit = time.Minute

// Start brings up a browser with an empty profile and opens a tab in it. The
// returned function ends both and removes the profile.
func Start(parent context.Context, more ...chromedp.ExecAllocatorOption) (context.Context, func(), error) {
	profile, err := os.MkdirTemp("", "mule-browser-")
	if err != nil {
		return nil, nil, err
	}
	tab, end, err := On(parent, profile, more...)
	if err != nil {
		_ = os.RemoveAll(profile)
		return nil, nil, err
	}
	return tab, func() {
		end()
		// Children of the browser write for a moment after it ends.
		for range 50 {
			if os.RemoveAll(profile) == nil {
				return
			}
			time.Sleep(100 * time.Millisecond)
		}
	}, nil
}

// On brings up a browser on a profile that stays. The returned function has it write down what it
// holds and ends it.
func On(parent context.Context, profile string, more ...chromedp.ExecAllocatorOption) (context.Context, func(), error) {
	path, err := find()
	if err != nil {
		return nil, nil, err
	}
	options := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(path), chromedp.UserDataDir(profile), chromedp.DisableGPU,
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("hide-scrollbars", true))
	if os.Geteuid() == 0 {
		options = append(options, chromedp.NoSandbox) // Chromium's sandbox refuses root
	}
	allocator, endAllocator := chromedp.NewExecAllocator(parent, append(options, more...)...)
	tab, endTab := chromedp.NewContext(allocator)
	stop := func() {
		patient, impatient := context.WithTimeout(tab, startLimit)
		defer impatient()
		_ = chromedp.Cancel(patient) // what a browser has not written is gone with it
		endTab()
		endAllocator()
	}
	timer := time.AfterFunc(startLimit, endAllocator)
	defer timer.Stop()
	if err := chromedp.Do(tab); err != nil { // the browser must be up before anybody listens
		stop()
		return nil, nil, err
	}
	return tab, stop, nil
}

func find() (string, error) {
	for _, name := range []string{"chromium", "chromium-browser", "google-chrome"} {
		if path, err := exec.LookPath(name); err == nil {
			return path, nil
		}
	}
	return "", errors.New("no Chromium: Debian's package chromium has it")
}
