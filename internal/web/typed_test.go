package web_test

import (
	"html"
	"math"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// TestAsTypedOnEveryPage: riders with nothing of the shelf, in US units and in metric ones, look
// at every page. Each number stands in its field as they typed it; what is said beside the
// fields is in their units, a number that they typed is nowhere a little another, and what nobody
// knows says so.
func TestAsTypedOnEveryPage(t *testing.T) {
	s := webtest.New(t)
	shelf, err := demo.Parts()
	require.NoError(t, err)
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	var shown []string // of the shelf's parts and bikes, with what their makers say of them: not the app's own words
	for _, p := range shelf {
		for _, said := range []string{p.Name, p.Note} {
			if said != "" {
				shown = append(shown, said, "")
			}
		}
	}
	for _, b := range bikes {
		for _, said := range []string{b.Name, b.Note} {
			if said != "" {
				shown = append(shown, said, "")
			}
		}
	}
	for _, rider := range []struct {
		name, units string
		foreign     *regexp.Regexp // units that are not theirs
	}{
		{"ada", "US", metric}, {"bo", "US", metric}, {"finn", "US", metric},
		{"cem", "Metric", imperial}, {"dara", "Metric", imperial}, {"eli", "Metric", imperial},
	} {
		t.Run(rider.name, func(t *testing.T) {
			document, err := os.ReadFile(filepath.Join("..", "core", "eval", "testdata", "riders", rider.name+".json"))
			require.NoError(t, err)
			v := s.Visitor(t)
			v.Post("/register", url.Values{"name": {rider.name}, "password": {"a long enough one"}})
			v.Post("/account/units", url.Values{"preset": {rider.units}})
			_, _, header := v.Upload("/garage/import", "plan.json", document)
			path := strings.TrimSuffix(header.Get("Location"), "/brief")
			typed := typedIn(string(document))
			own := shown
			for _, m := range named.FindAllStringSubmatch(string(document), -1) {
				own = append(own, m[1], "")
			}
			called := strings.NewReplacer(own...)
			wrong := map[string]string{}
			defer func() {
				for what, at := range wrong {
					t.Errorf("%s: %s", at, what)
				}
			}()
			for _, st := range web.Stages() {
				for _, p := range st.Pages {
					for _, r := range p.Routes {
						if r.Method != http.MethodGet || strings.ContainsAny(r.Path, "{.") {
							continue
						}
						status, page, _ := v.Get(path + r.Path)
						if status != http.StatusOK {
							continue
						}
						if at := lone.FindString(page); at != "" {
							wrong["a question mark alone: "+strings.Join(strings.Fields(at), " ")] = r.Path
						}
						asTyped(wrong, r.Path, called.Replace(html.UnescapeString(page)), typed, rider.foreign)
					}
				}
			}
		})
	}
}

// lone is a question mark that stands alone where no gauge says what it waits for.
var lone = regexp.MustCompile(`[^<>]*<(?:td|dd|b|p|span class="sub")[^>]*>\s*\?\s*<`)

var (
	metric   = regexp.MustCompile(`\d[\d.,]*\s?(mm|km|km/h|m|kg|L|kPa|bar|N/mm|Nm|kW|L/100 km)\b`)
	imperial = regexp.MustCompile(`\d[\d.,]*\s?(in|mi|mph|ft|lb|psi|gal|mpg|lbf ft|lbf/in|hp)\b`)
	chances  = regexp.MustCompile(`\d[\d.]* in 10+|[\d.]+ [cm]?m²|\d\d\.\d bar|[\d.]+ mm pins|[\d.]+ in spoked|[\d.]+ in (×|rim)`) // three in a hundred; areas, and wire that is cut in mm²; a handlebar; pins of a plug; rims, which the trade has in inches
	measured = regexp.MustCompile(`(\d[\d.,]*)\s?([a-zA-Z°/%][a-zA-Z°/²0-9]*(?: (?:gal|US|ft|km))?)`)
)

// typedIn are the quantities of a document, as typed: numbers by their units.
func typedIn(document string) map[string][]string {
	by := map[string][]string{}
	for _, m := range regexp.MustCompile(`"(\d[\d.]*) ([^"\d][^"]*)"`).FindAllStringSubmatch(document, -1) {
		by[m[2]] = append(by[m[2]], m[1])
	}
	return by
}

var (
	scripts  = regexp.MustCompile(`(?s)<(script|style|datalist|select|textarea|title)\b.*?</(script|style|datalist|select|textarea|title)>`)
	tags     = regexp.MustCompile(`<[^>]*>`)
	field    = regexp.MustCompile(`<input[^>]*>`)
	quantity = regexp.MustCompile(`^(\d[\d.,]*) ([^\d]+)$`)
	named    = regexp.MustCompile(`"(?:name|note)": "([^"]+)"`)
	value    = regexp.MustCompile(`\svalue="([^"]*)"`)
)

// asTyped notes what of a page is in a foreign unit, or a little other than it was typed.
func asTyped(wrong map[string]string, at, page string, typed map[string][]string, foreign *regexp.Regexp) {
	for _, tag := range field.FindAllString(page, -1) {
		m := value.FindStringSubmatch(tag)
		if m == nil || strings.Contains(tag, `type="hidden"`) {
			continue
		}
		q := quantity.FindStringSubmatch(m[1])
		if q != nil && !slices.Contains(typed[q[2]], strings.ReplaceAll(q[1], ",", "")) {
			wrong["not as typed: "+tag] = at
		}
	}
	text := strings.NewReplacer("\u00a0", " ", "\u202f", " ").Replace(tags.ReplaceAllString(scripts.ReplaceAllString(page, " "), "\n"))
	for line := range strings.SplitSeq(text, "\n") {
		line = chances.ReplaceAllString(strings.TrimSpace(line), "")
		if found := foreign.FindString(line); found != "" {
			wrong["a foreign unit, "+found+": "+line] = at
		}
		for _, m := range measured.FindAllStringSubmatch(line, -1) {
			said, err := strconv.ParseFloat(strings.ReplaceAll(strings.Trim(m[1], ".,"), ",", ""), 64)
			if err != nil {
				continue
			}
			for _, number := range typed[m[2]] {
				was, _ := strconv.ParseFloat(number, 64)
				const same = 0.0003                                                             // what is worked out may come near by chance
				if near := math.Abs(said/was - 1); near > 0 && near < same && at != "/height" { // where a wheelbase is worked out that is nearly the sheet's
					wrong["typed "+number+" "+m[2]+": "+line] = at
				}
			}
		}
	}
}
