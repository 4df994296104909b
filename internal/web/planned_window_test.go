//go:build !markup

package web_test

import (
	"encoding/json"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/web/webtest"
)

// TestRidersPlanThroughTheScreens: what two riders with nothing of the shelf have in their
// documents they type into the screens, one on a phone, one by keyboard alone from field to
// field, and every gauge stands as the document's does. How many inputs it took is told.
func TestRidersPlanThroughTheScreens(t *testing.T) {
	s := webtest.New(t)
	for _, rider := range []struct {
		name, units string
		phone       bool
	}{{"finn", "US", true}, {"eli", "Metric", false}} {
		t.Run(rider.name, func(t *testing.T) {
			t.Parallel()
			document, err := os.ReadFile(filepath.Join("..", "core", "eval", "testdata", "riders", rider.name+".json"))
			require.NoError(t, err)
			told := s.Visitor(t) // has the document
			told.Post("/register", url.Values{"name": {rider.name + " told"}, "password": {"a long enough one"}})
			told.Post("/account/units", url.Values{"preset": {rider.units}})
			_, _, header := told.Upload("/garage/import", "plan.json", document)
			from := strings.TrimSuffix(header.Get("Location"), "/brief")
			want := told.Stored(from)

			w := s.Window(t)
			h := hand{Window: w.In(t)}
			w.Do(chromedp.EmulateViewport(1280, 800))
			h.fill = h.byKeys
			if rider.phone {
				w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
				h.fill = h.byTouch
			}
			w.Open("/register")
			w.Fill("#f-name", rider.name)
			w.Fill("#f-password", "a long enough one")
			w.Follow("#register")
			w.Open("/account")
			w.Follow(`button[name="preset"][value="` + rider.units + `"]`)
			w.Open("/garage")
			w.Fill("#f-name", want.Name)
			w.Fill("#f-currency", want.Currency)
			w.Follow("#new-plan")
			path := w.Text(`location.pathname.replace('/brief', '')`)
			w.Open(path + "/bike?bike=own-bike")
			w.Follow("[data-fit]")

			h.as(told.Page(from+"/brief"), path+"/brief")
			h.as(told.Page(from+"/sheet"), path+"/sheet")
			for _, l := range want.Lines {
				h.as(told.Page(from+"/part?edit="+l.Part.ID), path+"/part?slot="+string(l.Part.Slot))
			}
			h.as(told.Page(from+"/loadouts"), path+"/loadouts")
			every := []string{"trail-day", "travel"} // that a new plan has
			for i, l := range want.Loadouts {
				h.as(told.Page(from+"/packing?loadout="+l.ID), path+"/packing?loadout="+every[i])
			}
			t.Logf("%s: %d inputs", rider.name, h.inputs)

			got := s.Newest(t, rider.name)
			want.Guesses = got.Guesses // which a plan that is begun here has
			for i, l := range eval.Evaluate(want, nil, "2026-11-30").Loadouts {
				after, err := eval.EvaluateLoadout(got, got.WithOwn(nil), got.Loadouts[i].ID, "2026-11-30")
				require.NoError(t, err)
				for k, g := range l.Gauges {
					assert.Equal(t, g.State, after.Gauges[k].State, "%s: %s", l.ID, g.ID)
					assert.InDelta(t, g.Value, after.Gauges[k].Value, 1e-6, "%s: %s", l.ID, g.ID)
				}
			}
		})
	}
}

// hand fills forms in.
type hand struct {
	*webtest.Window
	fill   func(values [][2]string)
	inputs int
}

// notTyped are fields that a page brings along.
var notTyped = regexp.MustCompile(`^(base|save|id|slot|loadout|out_.*|first|.*\.new)$`)

// as fills the form of a page so that it says what another's does, and saves it.
func (h *hand) as(said, page string) {
	h.T.Helper()
	h.Open(page)
	want := webtest.Form(said)
	is := webtest.Form(h.Text(`document.documentElement.outerHTML`))
	var values [][2]string
	for _, name := range h.order() {
		if text := want.Get(name); !notTyped.MatchString(name) && want.Has(name) && text != is.Get(name) {
			values = append(values, [2]string{name, text})
		}
	}
	if len(values) == 0 {
		return
	}
	h.inputs += len(values)
	h.fill(values)
}

// order is the names of the form's fields as they stand.
func (h *hand) order() []string {
	return webtest.Ask[[]string](h.Window, `[...document.querySelector('form.stage-form').elements].filter((e) => e.name && e.type !== 'hidden').map((e) => e.name)`)
}

// byTouch fills in what one would by touch, and taps to save.
func (h *hand) byTouch(values [][2]string) {
	told := map[string]string{}
	for _, v := range values {
		told[v[0]] = v[1]
	}
	sheet(h.Window, told)
	h.Until(`document.documentElement.scrollWidth <= 390`)
	h.Follow("#save")
}

// byKeys goes from field to field with the tab key, types, and saves with enter in the last.
func (h *hand) byKeys(values [][2]string) {
	h.Eval(`(document.querySelectorAll('details').forEach((d) => d.open = true), document.querySelector('form.stage-form').querySelector('input:not([type=hidden]), select').focus(), true)`)
	for i, v := range values {
		name, err := json.Marshal(v[0])
		require.NoError(h.T, err)
		steps := webtest.Ask[int](h.Window, `(() => {
			const stops = [...document.querySelectorAll('a[href], button, input:not([type=hidden]), select, textarea, summary, [tabindex="0"]')].filter((e) => e.checkVisibility() && !e.disabled && e.tabIndex >= 0);
			return stops.indexOf([...document.getElementsByName(`+string(name)+`)].find((e) => e.type !== 'hidden')) - stops.indexOf(document.activeElement);
		})()`)
		h.Do(chromedp.KeyEvent(strings.Repeat(kb.Tab, max(0, steps))))
		at, kind, _ := strings.Cut(h.Text(`((f) => { if (f.select) f.select(); return (f.name || '') + ' ' + f.type; })(document.activeElement)`), " ")
		require.Equal(h.T, v[0], at, "the tab key leads there")
		switch kind {
		case "checkbox":
			h.Do(chromedp.KeyEvent(" "))
		case "select-one":
			value, err := json.Marshal(v[1])
			require.NoError(h.T, err)
			h.Eval(`((f) => { f.value = ` + string(value) + `; f.dispatchEvent(new Event('change', {bubbles: true})); return f.value === ` + string(value) + `; })(document.activeElement)`) // its keys are the browser's own
		default:
			h.Do(chromedp.KeyEvent(v[1]))
		}
		if i == len(values)-1 {
			h.Eval(`((f) => { const text = f.type === 'text' || f.type === '' ? f : [...f.form.elements].find((e) => e.type === 'text'); text.focus(); return true; })(document.getElementsByName(` + string(name) + `)[0])`)
			h.Leads(chromedp.KeyEvent(kb.Enter))
		}
	}
}
