package bike_test

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

func TestOwnBikeFromABlankSheet(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	v.Post("/register", url.Values{"name": {"Own"}, "password": {"a long enough one"}})
	_, _, header := v.Post("/garage", url.Values{"name": {"Mine"}, "currency": {"gbp"}})
	plan := strings.TrimSuffix(header.Get("Location"), "/brief")
	page := v.Page(plan + "/bike?bike=own-bike")
	status, _, _ := v.Post(plan+"/choose", url.Values{"base": {webtest.Base(page)}, "bike": {"own-bike"}})
	require.Equal(t, http.StatusSeeOther, status)
	sheet := webtest.Form(v.Page(plan + "/sheet"))
	for key, typed := range map[string]string{
		"name": "Red one", "primary": "2.1", "gearbox": "2,8 1.8 1.4 1.1 0.9", "clean_rpm": "1800", "comfort_rpm": "5000", "chain": "520", "origin": "maker",
		"std.rear-tyre": "120/80-18 M/C 62S", "std.front-sprocket": "15", "std.rear-sprocket": "43", "std.chain": "110",
	} {
		sheet.Set(key, typed)
	}
	bad := url.Values{}
	for key, list := range sheet {
		bad[key] = list
	}
	bad.Set("std.rear-tyre", "120/80")
	status, body, _ := v.Post(plan+"/sheet", bad)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="120/80"`)
	assert.Contains(t, body, "rim diameter missing")
	status, _, header = v.Post(plan+"/sheet", sheet)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.Page(header.Get("Location"))
	assert.Contains(t, saved, "Red one")
	assert.Regexp(t, `(?s)Primary ratio.*?origin">maker<`, saved, "what was typed says where it came from")
	brief := webtest.Form(v.Page(plan + "/brief"))
	brief.Set("cruise", "62 mph")
	brief.Set("walking_pace", "12")
	v.Post(plan+"/brief", brief)
	gearing := v.Page(plan + "/gearing")
	assert.Regexp(t, `^ok \d+ rpm`, webtest.Gauge(gearing, "cruise-rpm"))
	assert.Contains(t, gearing, "any-rear-sprocket-46", "sprockets that no shelf has can be tried")
	assert.Contains(t, webtest.Gauge(gearing, "loaded-mass"), "unknown")
}

// TestWhatElseItCameWith is typed in rows, each with a sheet of its own behind it, and what a
// place cannot have is refused beside it.
func TestWhatElseItCameWith(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	form := webtest.Form(v.Page(path + "/sheet"))
	for key, typed := range map[string]string{"else.0": "grips", "else_draw.0": "36", "else_mass.0": "", "else.1": "seat", "else_draw.1": "5", "else_mass.1": "4.1"} {
		form.Set(key, typed)
	}
	status, body, _ := v.Post(path+"/sheet", form)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "a seat draws nothing")
	form.Set("else_draw.1", "")
	status, _, header := v.Post(path+"/sheet", form)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.Page(header.Get("Location"))
	kept := webtest.Form(saved)
	assert.Equal(t, "36 W", kept.Get("else_draw.0"))
	assert.Equal(t, "4.1 kg", kept.Get("else_mass.1"))

	came := webtest.Form(v.Page(path + "/came?slot=seat"))
	assert.Equal(t, "4.1 kg", came.Get("mass"))
	came.Set("provides.own-seat", "yes")
	came.Set("mass", "heavy")
	status, body, _ = v.Post(path+"/came", came)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="heavy"`)
	came.Set("mass", "4.3")
	status, _, header = v.Post(path+"/came", came)
	require.Equal(t, http.StatusSeeOther, status)
	came = webtest.Form(v.Page(header.Get("Location")))
	assert.Equal(t, "yes", came.Get("provides.own-seat"))
	assert.Equal(t, "4.3 kg", webtest.Form(v.Page(path+"/sheet")).Get("else_mass.1"))
	came.Set("gone", "on")
	status, _, _ = v.Post(path+"/came", came)
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.Page(path+"/sheet"), `value="4.3 kg"`)
	status, _, _ = v.Get(path + "/came?slot=hull")
	assert.Equal(t, http.StatusNotFound, status)
}

func TestAnotherBikeKeepsItsRemedies(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	page := v.Page(plan + "/bike?bike=fennick-300")
	way := regexp.MustCompile(`href="([^"]*bike=fennick-300[^"]*try=[^"]*)" data-try`).FindStringSubmatch(page)
	require.NotNil(t, way, "a remedy is tried on the bike that lies on the bench")
	next := v.Page(strings.ReplaceAll(way[1], "&amp;", "&"))
	assert.Contains(t, next, "Fennick 300 Trail with ")
	take := url.Values{"base": {webtest.Base(next)}, "bike": {"fennick-300"}, "try": {"rear-tyre:bracken-120-90-18"}}
	status, _, header := v.Post(plan+"/choose", take)
	require.Equal(t, http.StatusSeeOther, status)
	after := v.Page(header.Get("Location"))
	assert.NotContains(t, after, `data-finding="rear-tyre-clearance"`)
	status, _, _ = v.Post(plan+"/choose", take)
	assert.Equal(t, http.StatusConflict, status)
}

// TestShaftBike: its pages speak of no chain, and offer no sprocket.
func TestShaftBike(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/bike")
	ids := regexp.MustCompile(`data-bike="([a-z0-9-]+)"`).FindAllStringSubmatch(page, -1)
	shafts := 0
	for _, id := range ids {
		if id[1] == "own-bike" || webtest.Bike(t, id[1]).Final != plan.ShaftDrive {
			continue
		}
		shafts++
		v.Post(path+"/choose", url.Values{"base": {webtest.Base(page)}, "bike": {id[1]}})
		page = v.Page(path + "/gearing")
		assert.NotContains(t, page, `class="pair`)
		assert.Equal(t, 6, strings.Count(page, `class="ray ray-current"`), "its gears are still drawn")
		chain := v.Page(path + "/chain")
		assert.NotContains(t, chain, `id="chain-run"`)
		assert.Contains(t, chain, "At the rear wheel", "the speedometer is asked of it too")
		assert.NotRegexp(t, `data-finding="(chain-slider|sprockets-as-set|rear-sprocket)`, chain)
		assert.Contains(t, v.Page(path+"/pull"), `id="thrust"`)
		sheet := v.Page(path + "/sheet")
		status, body, _ := v.Post(path+"/sheet", webtest.Form(sheet))
		assert.Equal(t, http.StatusSeeOther, status, "its sheet can be saved as it stands: %s", regexp.MustCompile(`class="error">[^<]*`).FindString(body))
	}
	assert.Equal(t, 1, shafts)
}

// TestEveryBikeCanBeTaken and its sheet saved as it stands.
func TestEveryBikeCanBeTaken(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/bike")
	for _, id := range regexp.MustCompile(`data-bike="([a-z0-9-]+)"`).FindAllStringSubmatch(page, -1) {
		status, _, _ := v.Post(path+"/choose", url.Values{"base": {webtest.Base(v.Page(path + "/bike"))}, "bike": {id[1]}})
		require.Equal(t, http.StatusSeeOther, status, id[1])
		for _, page := range webtest.PageIDs() {
			assert.NotRegexp(t, `NaN|\bInf\b|%!`, v.Page(path+"/"+page), "%s of %s", page, id[1])
		}
		sheet := webtest.Form(v.Page(path + "/sheet"))
		status, body, _ := v.Post(path+"/sheet", sheet)
		assert.Equal(t, http.StatusSeeOther, status, "%s: %s", id[1], regexp.MustCompile(`class="error">[^<]*`).FindString(body))
	}
}

// TestABikeOfTheGarage can be planned with, as it stands: what is written down of it then, in
// either plan, is the bike's.
func TestABikeOfTheGarage(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	sheet := webtest.Form(v.Page(path + "/sheet"))
	sheet.Set("name", "Mine with the long shock")
	sheet.Set("seat_height", "905")
	status, _, _ := v.Post(path+"/sheet", sheet)
	require.Equal(t, http.StatusSeeOther, status)
	_, _, header := v.Post("/garage", url.Values{"name": {"Second trip"}, "currency": {"EUR"}})
	other := strings.TrimSuffix(header.Get("Location"), "/brief")
	page := v.Page(other + "/bike")
	assert.Contains(t, page, "Mine with the long shock")
	id := regexp.MustCompile(`data-bike="(own:[A-Z0-9]+)"`).FindStringSubmatch(page)
	require.NotNil(t, id)
	status, _, _ = v.Post(other+"/choose", url.Values{"base": {webtest.Base(page)}, "bike": {id[1]}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "905 mm", webtest.Form(v.Page(other+"/sheet")).Get("seat_height"))
	assert.Equal(t, v.BikeOf(path), v.BikeOf(other))
	status, _, _ = v.Get(other + "/bike?bike=own:NOBODY")
	assert.Equal(t, http.StatusNotFound, status)
}

// TestWhatTouches: two things are told of with a measure, stand as an open point until they are
// mended, and a usual pair becomes a row by its tick.
func TestWhatTouches(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/touches")
	form := webtest.Form(page)
	form.Set("one.0", "bike:silencer")
	form.Set("how.0", "touches")
	form.Set("words.0", "toes in, standing")
	form.Set("room.0", "about a thumb")
	status, body, _ := v.Post(path+"/touches", form)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="about a thumb"`)
	form.Set("room.0", "3 mm")
	status, body, _ = v.Post(path+"/touches", form)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "say which two things")
	form.Set("other.0", "at:heels")
	usual := regexp.MustCompile(`name="(usual\.[^"]+)"`).FindStringSubmatch(page)
	require.NotNil(t, usual)
	form.Set(usual[1], "on")
	status, _, header := v.Post(path+"/touches", form)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.Page(header.Get("Location"))
	assert.Contains(t, saved, `data-finding="in-the-way"`)
	assert.NotContains(t, saved, usual[0], "it is a row now")
	form = webtest.Form(saved)
	assert.Equal(t, "3 mm", form.Get("room.0"))
	assert.NotEmpty(t, form.Get("one.1"))
	form.Set("mended.0", "on")
	form.Set("out.1", "on")
	status, _, header = v.Post(path+"/touches", form)
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.Page(header.Get("Location")), `data-finding="in-the-way"`)
}
