//go:build !markup

package webtest

import (
	"os"

	"github.com/chromedp/chromedp"
)

func Shot(w *Window, name string) {
	var png []byte
	png, err := chromedp.Run(w.tab, chromedp.CaptureScreenshot())
	if err != nil {
		panic(err)
	}
	os.MkdirAll("/tmp/shots", 0o755)
	os.WriteFile("/tmp/shots/"+name+".png", png, 0o644)
}
