// Command screenshots takes the pictures of docs/screenshots from the demo data.
package main

import (
	"cmp"
	"context"
	"errors"
	"flag"
	"fmt"
	"log/slog"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/chromedp/chromedp"

	"valiantmule/internal/browser"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/demo"
	"valiantmule/internal/mariadb"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
)

// view is one picture.
type view struct {
	name   string
	page   string // of the stage, "" for its first
	path   string // behind the plan's, or from the root with a slash
	garage bool   // the dark theme
	phone  bool
	then   []chromedp.Action[chromedp.Void] // done on it before the picture
}

// shown is what a stage's picture shows beyond the stage as it opens.
var shown = map[figure.Stage]view{
	figure.Bike:      {path: "&bike=fennick-300"},
	figure.Baseline:  {phone: true},
	figure.Tyres:     {path: "&beside=bracken-140-80-18&beside=wether-130-80-18&beside=fathom-140-80-18&beside=hackle-140-80-18"},
	figure.Armour:    {path: "&place=sump"},
	figure.Contact:   {path: "&try=risers:riser-20-22"},
	figure.Range:     {path: "&pump=pump-3"},
	figure.Load:      {path: "&try=tank-bag:tank-bag-9"},
	figure.Gearing:   {path: "&try=rear-sprocket:rear-h6-47"},
	figure.Ready:     {page: "days"},
	figure.Log:       {path: "/garage", then: []chromedp.Action[chromedp.Void]{inGarage("Autumn", "log", "#ridden")}},
	figure.Electrics: {path: "&try=day-lamps:aux-seen&try=camera:camera-bar"},
	figure.Stance:    {path: "&try=shock-spring:shock-spring-h-78"},
}

// views are a picture of each stage, after the garage, and more of some.
func views(stages []desk.Stage) []view {
	all := []view{{name: "garage", path: "/garage"}}
	for _, st := range stages {
		v := shown[st.ID]
		v.name = string(st.ID)
		if !strings.HasPrefix(v.path, "/") {
			v.path = cmp.Or(v.page, string(st.ID)) + "?loadout=travel" + v.path
		}
		all = append(all, v)
	}
	return append(all, more...)
}

var more = []view{
	{name: "matters", path: "/garage", then: []chromedp.Action[chromedp.Void]{inGarage("Wenna", "matters", "#measure .guess")}},
	{name: "parts", path: "/parts", garage: true, then: []chromedp.Action[chromedp.Void]{dark}},
	{name: "working", path: "gearing?loadout=travel", then: []chromedp.Action[chromedp.Void]{
		chromedp.Click(chromedp.CSS(`.strip [data-gauge="crawl-speed"]`)), chromedp.WaitVisible(chromedp.CSS("dialog[open] .step")),
	}},
}

// dark keeps the dark theme on a page that was gone to.
var dark = chromedp.SetAttributeValue(chromedp.CSS("html"), "data-theme", "garage")

// inGarage opens a page of the plan whose name holds a word, and waits for something there.
func inGarage(word, page, waits string) chromedp.Action[chromedp.Void] {
	visit := fmt.Sprintf(`location.href = [...document.querySelectorAll('.plan-card header a')].find((a) => a.textContent.includes(%q)).href.replace(/[^/]*$/, %q)`, word, page+"?loadout=travel")
	return chromedp.Steps(chromedp.Evaluate[chromedp.Void](visit), chromedp.WaitVisible(chromedp.CSS(waits)))
}

func main() {
	out := flag.String("out", "docs/screenshots", "where the pictures go")
	full := flag.Bool("full", false, "the whole page, not the first screen of it")
	flag.Parse()
	if err := run(*out, *full, flag.Args()); err != nil {
		fmt.Fprintln(os.Stderr, "screenshots:", err)
		os.Exit(1)
	}
}

func run(out string, full bool, names []string) error {
	ctx, cancel := context.WithTimeout(context.Background(), 5*time.Minute)
	defer cancel()
	data, err := os.MkdirTemp("", "mule-shots-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(data)
	server, err := mariadb.StartThrowaway(ctx, data)
	if err != nil {
		return err
	}
	defer server.Stop()
	dsn, err := server.DSN(ctx, "shots")
	if err != nil {
		return err
	}
	st, err := store.Open(dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	if err := errors.Join(st.Migrate(ctx), demo.Load(ctx, st)); err != nil {
		return err
	}
	handler, err := web.New(web.Options{Store: st, Log: slog.Default(), DemoRider: demo.Rider})
	if err != nil {
		return err
	}
	site := httptest.NewServer(handler)
	defer site.Close()
	tab, stop, err := browser.Start(ctx)
	if err != nil {
		return err
	}
	defer stop()
	if err := os.MkdirAll(out, 0o755); err != nil {
		return err
	}
	plan, err := signIn(ctx, tab, st, site.URL)
	if err != nil {
		return err
	}
	for _, v := range views(web.Stages()) {
		if len(names) > 0 && !slices.Contains(names, v.name) {
			continue
		}
		if err := v.shoot(tab, site.URL, plan, filepath.Join(out, v.name+".png"), full); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
	}
	return nil
}

// signIn becomes the demo rider and finds the path of the demo plan.
func signIn(ctx context.Context, tab context.Context, st *store.Store, site string) (string, error) {
	if err := chromedp.Do(tab, chromedp.Navigate(site+"/sign-in"), chromedp.Click(chromedp.ID("demo")), chromedp.WaitVisible(chromedp.CSS(".plan-card"))); err != nil {
		return "", err
	}
	rider, err := st.RiderByName(ctx, demo.Rider)
	if err != nil {
		return "", err
	}
	plans, err := st.Plans(ctx, rider.ID)
	if err != nil {
		return "", err
	}
	return "/plans/" + plans[0].ID + "/", nil
}

func (v view) shoot(tab context.Context, site, plan, file string, full bool) error {
	width, height := int64(1280), int64(800)
	var options []chromedp.EmulateViewportOption
	if v.phone {
		width, height = 390, 844
		options = append(options, chromedp.EmulateMobile, chromedp.EmulateScale(2))
	}
	theme := "daylight"
	if v.garage {
		theme = "garage"
	}
	path := v.path
	if path[0] != '/' {
		path = plan + path
	}
	steps := []chromedp.Action[chromedp.Void]{
		chromedp.EmulateViewport(width, height, options...),
		chromedp.Navigate(site + path),
	}
	steps = append(append(steps, chromedp.SetAttributeValue(chromedp.CSS("html"), "data-theme", theme)), v.then...)
	if err := chromedp.Do(tab, steps...); err != nil {
		return err
	}
	if _, err := chromedp.Run(tab, chromedp.Evaluate[bool](`document.fonts.ready.then(() => true)`, chromedp.EvalAwaitPromise)); err != nil {
		return err
	}
	shot := chromedp.CaptureScreenshot()
	if full {
		shot = chromedp.FullScreenshot(100)
	}
	png, err := chromedp.Run(tab, shot)
	if err != nil {
		return err
	}
	return os.WriteFile(file, png, 0o644)
}
