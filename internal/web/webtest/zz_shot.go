//go:build !markup

package webtest

import (
	"os"

	"github.com/chromedp/chromedp"
)

// Shot writes a picture.
func Shot(w *Window, name string) {
	b, err := chromedp.Run(w.tab, chromedp.CaptureScreenshot())
	if err != nil {
		panic(err)
	}
	os.MkdirAll("/tmp/shots", 0o755)
	os.WriteFile("/tmp/shots/"+name+".png", b, 0o644)
}
