package web_test

import (
	"bytes"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/web/webtest"
)

// answers are those of a rider who knows what kind of bike it is.
func answers(with ...string) url.Values {
	form := url.Values{
		"bike": {"kind:dual-sport"}, "displacement": {"400"}, "name": {"Old faithful"}, "rider": {"92 kg"}, "stature": {"1.80 m"}, "distance": {"2400 km"}, "gap": {"260 km"},
		"start": {"2027-06-12"}, "road": {"5"}, "gravel": {"4"}, "rough": {"1"}, "kit": {"camp"}, "budget": {"1600"}, "currency": {"EUR"}, "bothers": {"stance"},
	}
	for i := 0; i+1 < len(with); i += 2 {
		form.Set(with[i], with[i+1])
	}
	return form
}

// TestMinutesStart: ten answers about a bike of any kind make a plan in which every gauge is a
// figure but the date that no step works out yet and the rating that nobody has read.
func TestMinutesStart(t *testing.T) {
	s := webtest.New(t)
	v, _ := s.Demo(t)
	kinds := []string{"fennick-250", "like:holt-650"}
	for _, c := range plan.Classes() {
		kinds = append(kinds, "kind:"+c.Value)
	}
	for _, kind := range kinds {
		status, _, header := v.Post("/start", answers("bike", kind, "displacement", ""))
		if !assert.Equal(t, http.StatusSeeOther, status, kind) {
			continue
		}
		to := header.Get("Location")
		p := v.Stored(strings.TrimSuffix(to, "/matters?loadout=travel"))
		assert.Equal(t, plan.GuessTable, p.Guesses, kind)
		report, err := eval.EvaluateLoadout(p, nil, "travel", "2026-12-01")
		assert.NoError(t, err)
		for _, g := range report.Gauges {
			rating := g.ID == figure.TyreLoad && kind != "fennick-250"
			if !rating {
				assert.True(t, g.Known, "%s: %s lacks %v", kind, g.ID, g.Missing)
			}
		}
		page := v.Page(to)
		assert.Contains(t, page, "Old faithful", kind)
		assert.Contains(t, page, `id="measure"`, kind)
	}
}

// TestMinutesStartRefuses: what cannot be used of the answers is said by its field, and all that was
// typed is still there.
func TestMinutesStartRefuses(t *testing.T) {
	s := webtest.New(t)
	v, _ := s.Demo(t)
	before := strings.Count(v.Page("/garage"), "plan-card")
	for field, bad := range map[string]string{
		"bike": "", "displacement": "many", "rider": "9000 kg", "stature": "tall", "pillion": "-3", "distance": "far", "gap": "x", "start": "soon", "budget": "a lot", "currency": "gold",
	} {
		status, page, _ := v.Post("/start", answers(field, bad))
		assert.Equal(t, http.StatusUnprocessableEntity, status, field)
		assert.Regexp(t, `has-error[^>]*>\s*<label for="f-`+field+`"`, strings.ReplaceAll(page, ` data-error="`+field+`"`, ""), field)
		assert.Contains(t, page, `value="Old faithful"`, field)
		assert.True(t, field == "stature" || strings.Contains(page, `value="1.80 m"`), "%s: what was typed stays", field)
	}
	status, page, _ := v.Post("/start", answers("budget", "1600 USD"))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "the plan counts in EUR")
	for _, bike := range []string{"kind:spaceship", "plan:nobodys", "like:kind:", "none-such", "like:plan:nobodys"} {
		status, page, _ := v.Post("/start", answers("bike", bike))
		assert.Equal(t, http.StatusUnprocessableEntity, status, bike)
		assert.Contains(t, page, "what kind of bike", bike)
	}
	status, _, _ = v.Post("/start", answers("kit", "a piano"))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Equal(t, before, strings.Count(v.Page("/garage"), "plan-card"), "nothing was begun")
}

// TestUnitsOfTheBrowser: a new rider's units are those of the country that the browser's language
// names, to be changed.
func TestUnitsOfTheBrowser(t *testing.T) {
	s := webtest.New(t)
	for language, want := range map[string]string{"en-US": "mi, lb, in", "en-GB": "mi, kg, mm", "de-DE": "km, kg, mm", "": "km, kg, mm"} {
		v := s.Visitor(t)
		r := v.Request(http.MethodPost, "/register", strings.NewReader(url.Values{"name": {"unit " + language}, "password": {"a long enough one"}}.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("Accept-Language", language)
		status, _, _ := v.Do(r)
		assert.Equal(t, http.StatusSeeOther, status, language)
		assert.Contains(t, v.Page("/start"), want, language)
	}
}

// TestGuessAnswered: a guess is answered on the spot in the rider's units; then it is one no more,
// and what it left open closes.
func TestGuessAnswered(t *testing.T) {
	s := webtest.New(t)
	v, _ := s.Demo(t)
	_, _, header := v.Post("/start", answers())
	path := strings.TrimSuffix(header.Get("Location"), "/matters?loadout=travel")
	answer := func(at, value string) (int, string) {
		page := v.Page(path + "/guesses?loadout=travel")
		status, body, _ := v.Post(path+"/guesses?loadout=travel", url.Values{"base": {webtest.Base(page)}, "loadout": {"travel"}, "stage": {"guesses"}, "at": {at}, "value": {value}})
		return status, body
	}
	page := v.Page(path + "/guesses?loadout=travel")
	assert.Contains(t, page, `data-guess="bike/seat_height"`)
	status, _ := answer("bike/seat_height", "905 mm")
	assert.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "905 mm", v.Stored(path).Bike.SeatHeight.String())
	page = v.Page(path + "/guesses?loadout=travel")
	assert.NotContains(t, page, `data-guess="bike/seat_height"`)

	for at, value := range map[string]string{"bike/front_wheel_build": "cast", "came/rear-tyre/tyre_kind": "knobbly", "came/front-sprocket/teeth": "15", "bike/gearbox": "2.6 1.8 1.4 1.1 0.9", "brief/sole": "35", "came/front-tyre/code": "90/90-21 54S"} {
		status, body := answer(at, value)
		assert.Equal(t, http.StatusSeeOther, status, "%s: %s", at, body)
		assert.NotContains(t, v.Page(path+"/guesses?loadout=travel"), `data-guess="`+at+`"`)
	}
	for at, value := range map[string]string{"bike/wheelbase": "long", "bike/tank": "900 L", "came/rear-sprocket/teeth": "many", "bike/rear_wheel_build": "wood", "came/rear-tyre/code": "140/80"} {
		status, body := answer(at, value)
		assert.Equal(t, http.StatusUnprocessableEntity, status, at)
		assert.Regexp(t, `(?s)has-error" data-guess="`+at+`".*class="error"`, body, at)
	}
	_, body := answer("bike/bar_width", " ")
	assert.Regexp(t, `(?s)has-error" data-guess="bike/bar_width".*class="error"`, body, "nothing is no answer")
	assert.Regexp(t, `(?s)<details class="block" open>.*data-guess="bike/bar_width"`, body, "what is wrong is in sight")
	for _, at := range []string{"bike/permitted_mass", "brief/distance", "nobody/knows", "", "page/packing"} {
		status, _ := answer(at, "1")
		assert.Equal(t, http.StatusUnprocessableEntity, status, "%q is asked for elsewhere", at)
	}
}

// TestGuessingBegins: a plan in which nothing is guessed offers it, asks what kind of bike it is,
// and changes nothing else.
func TestGuessingBegins(t *testing.T) {
	s := webtest.New(t)
	v, _ := s.Demo(t)
	_, _, header := v.Post("/start", answers())
	path := strings.TrimSuffix(header.Get("Location"), "/matters?loadout=travel")
	p := v.Stored(path)
	p.Guesses, p.Bike.Class = 0, ""
	_, _, header = v.Upload("/garage/import", "plan.json", document(t, p), "onto", "new")
	path = strings.TrimSuffix(header.Get("Location"), "/brief")
	page := v.Page(path + "/guesses")
	assert.Contains(t, page, `id="guess"`)
	assert.NotContains(t, page, "data-guess=")
	status, _, _ := v.Post(path+"/guesses", url.Values{"base": {webtest.Base(page)}, "guess": {"on"}, "class": {"rally-single"}})
	assert.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, plan.RallySingle, v.Stored(path).Bike.Class)
	assert.Contains(t, v.Page(path+"/guesses"), "data-guess=")
}

// document is a plan as a file.
func document(t *testing.T, p *plan.Plan) []byte {
	var b bytes.Buffer
	require.NoError(t, format.WritePlan(&b, p))
	return b.Bytes()
}
