package web_test

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/web/webtest"
)

// atHome writes a part down that lies at home; it returns its path.
func atHome(t *testing.T, v *webtest.Visitor, kind, name string, more ...string) string {
	t.Helper()
	form := url.Values{"kind": {kind}, "name": {name}, "source": {"new"}}
	for i := 0; i+1 < len(more); i += 2 {
		form.Set(more[i], more[i+1])
	}
	status, body, header := v.Post("/parts", form)
	require.Equal(t, http.StatusSeeOther, status, body)
	return header.Get("Location")
}

// move moves a part as its form would.
func move(v *webtest.Visitor, path string, fields ...string) (status int, body string) {
	form := url.Values{}
	for i := 0; i+1 < len(fields); i += 2 {
		form.Set(fields[i], fields[i+1])
	}
	status, body, _ = v.Post(path+"/move", form)
	return status, body
}

// whereIs is where the page of a part says that it is.
func whereIs(t *testing.T, v *webtest.Visitor, path string) string {
	t.Helper()
	m := regexp.MustCompile(`<p class="quiet">[^,]+, ([^<]+)\. <a href="/parts">`).FindStringSubmatch(v.Page(path))
	require.NotNil(t, m)
	return m[1]
}

// bikesOf are the ids of the demo rider's bikes by their names.
func bikesOf(v *webtest.Visitor) map[string]string {
	bikes := map[string]string{}
	for _, m := range regexp.MustCompile(`<a href="/bikes/([A-Z0-9]+)(?:/buying)?"><?b?>?([^<]+)<`).FindAllStringSubmatch(v.Page("/garage"), -1) {
		bikes[m[2]] = m[1]
	}
	return bikes
}

// TestASecondSprocket: two parts of one kind take turns on a bike, go to another and back, are sold, and what has
// happened since keeps an undo from going behind it.
func TestASecondSprocket(t *testing.T) {
	s := webtest.New(t)
	v, planPath := s.Demo(t)
	holt := strings.TrimPrefix(v.BikeOf(planPath), "/bikes/")
	averill := bikesOf(v)["Averill 720 Parade"]
	require.NotEmpty(t, averill)
	first, second := atHome(t, v, "rear-sprocket", "Trail sprocket", "cost", "40 EUR"), atHome(t, v, "rear-sprocket", "Long sprocket", "cost", "45 EUR")

	status, body := move(v, first, "to", "on:"+holt, "at", "23500 km")
	require.Equal(t, http.StatusSeeOther, status, body)
	status, body = move(v, second, "to", "on:"+holt, "at", "24000 km")
	require.Equal(t, http.StatusConflict, status)
	assert.Contains(t, body, "Trail sprocket and Long sprocket cannot both be the rear sprocket")
	assert.Contains(t, body, `value="24000 km"`, "what was typed is still there")
	status, body = move(v, second, "to", "on:"+holt, "at", "24000 km", "room", "on", "text", "teeth filed")
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, whereIs(t, v, first), "at home")
	assert.Regexp(t, `Has run</dt><dd>500[^0-9]{1,3}km`, v.Page(first))
	assert.Contains(t, v.Page("/bikes/"+holt), "Long sprocket")
	assert.Regexp(t, `Odometer</dt><dd>24\D{0,3}000`, v.Page("/bikes/"+holt), "the odometer is the bike's too")

	// To the other bike, and back in one step: the gap is told where it is.
	status, body = move(v, second, "to", "on:"+averill, "off", "24200 km", "at", "9000 km")
	require.Equal(t, http.StatusSeeOther, status, body)
	page := v.Page(second)
	assert.Contains(t, page, "teeth filed", "what was noted comes along")
	assert.Contains(t, page, "Back to the Holt 650 Drover")
	assert.Regexp(t, `(?s)Gone from it for now.*Long sprocket`, v.Page("/bikes/"+holt))
	status, body = move(v, second, "to", "on:"+holt, "off", "9100 km", "at", "24300 km")
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Regexp(t, `Has run</dt><dd>300[^0-9]{1,3}km`, v.Page(second), "200 here, 100 there")

	// Sold, and the other on: the sale cannot be taken back into a place that is taken.
	status, body = move(v, second, "to", "sold", "off", "24500 km", "money", "20 EUR", "whom", "a friend")
	require.Equal(t, http.StatusSeeOther, status, body)
	status, body = move(v, first, "to", "on:"+holt, "at", "24500 km")
	require.Equal(t, http.StatusSeeOther, status, body)
	undo := regexp.MustCompile(`name="act" value="([A-Z2-7]+)"`).FindStringSubmatch(v.Page(second))
	require.NotNil(t, undo)
	status, body, _ = v.Post(second+"/undo", url.Values{"act": {undo[1]}})
	require.Equal(t, http.StatusConflict, status)
	assert.Contains(t, body, "Since then")
	assert.Contains(t, body, "Trail sprocket")
	status, body = move(v, first, "to", "home", "off", "24600 km")
	require.Equal(t, http.StatusSeeOther, status, body)
	status, body, _ = v.Post(second+"/undo", url.Values{"act": {undo[1]}})
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, whereIs(t, v, second), "on the Holt")
	status, _, _ = v.Post(second+"/undo", url.Values{"act": {undo[1]}, "again": {"1"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, whereIs(t, v, second), "sold to a friend")

	found := v.Page("/parts?q=sprocket&where=all")
	assert.Regexp(t, `(?s)Long sprocket.*sold to a friend.*€45\.00.*€20\.00`, found)
	assert.NotContains(t, v.Page("/parts?q=sprocket"), "Long sprocket", "what is gone is not in the list")
	assert.Contains(t, v.Page("/parts?q=sprocket&fits="+holt), "Trail sprocket")
}

// TestPartsInPlans: what is on a bike is in its next plan and costs nothing there; what lies at home can be tried for
// its fitting; where two plans count on one, both say so; and a plan whose part has gone elsewhere says so.
func TestPartsInPlans(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	bike := v.BikeOf(path)
	before := webtest.Gauge(v.Page(path+"/brief"), "cost")
	bag := atHome(t, v, "tail-bag", "Tarp bag", "cost", "80 EUR", "mass", "1.5 kg")
	id := strings.ToLower(strings.TrimPrefix(bag, "/parts/"))
	try := path + "/load?try=tail-bag:own-thing-" + id
	page := v.Page(try)
	assert.Contains(t, page, "Tarp bag")
	chosen := func(page string) url.Values {
		return url.Values{"base": {webtest.Base(page)}, "stage": {"load"}, "try": {"tail-bag:own-thing-" + id}}
	}
	status, body, _ := v.Post(path+"/choose", chosen(page))
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Equal(t, before, webtest.Gauge(v.Page(path+"/brief"), "cost"), "it is paid for")

	ridge := regexp.MustCompile(`href="(/plans/[A-Z0-9]+)/brief">Two days on the ridge`).FindStringSubmatch(v.Page("/garage"))
	require.NotNil(t, ridge)
	page = v.Page(ridge[1] + "/load?try=tail-bag:own-thing-" + id)
	status, body, _ = v.Post(ridge[1]+"/choose", chosen(page))
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, v.Page(path+"/spend"), "bought for “Two days on the ridge” too")
	assert.Contains(t, v.Page(ridge[1]+"/spend"), "bought for “The salt-pan loop” too")
	assert.Regexp(t, `(?s)Counted on in</b>.*salt-pan.*ridge|(?s)Counted on in</b>.*ridge.*salt-pan`, v.Page(bag))

	status, body = move(v, bag, "to", "on:"+strings.TrimPrefix(bike, "/bikes/"), "at", "23600 km")
	require.Equal(t, http.StatusSeeOther, status, body)
	moved := v.Page(path + "/moved")
	assert.Contains(t, moved, "Tarp bag is on the Holt 650 Drover")
	status, body, header := v.Post(path+"/moved", url.Values{"base": {webtest.Base(moved)}, "stage": {"load"}})
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, header.Get("Location"), path)
	p := v.Stored(path)
	assert.Equal(t, "Tarp bag", p.Chosen(parts.TailBag, "travel").Name)
	fitted := 0
	for _, l := range p.Lines {
		if l.Thing == strings.ToUpper(id) {
			assert.Equal(t, plan.OnTheBike, l.Decision)
			fitted++
		}
	}
	assert.Equal(t, 1, fitted)

	status, _, header = v.Post(bike+"/trip", url.Values{"name": {"Later"}})
	require.Equal(t, http.StatusSeeOther, status)
	later := v.Stored(strings.TrimSuffix(header.Get("Location"), "/brief"))
	require.Equal(t, "Tarp bag", later.Chosen(parts.TailBag, "travel").Name)
	assert.Equal(t, int64(0), later.CostOf(&later.Lines[0]).Minor())

	status, body = move(v, bag, "to", "lent", "whom", "Ines", "until", "2027-01-10")
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, v.Page(path+"/brief"), "lent out to Ines")
	assert.Contains(t, v.Page(header.Get("Location")), "lent out to Ines")
}

// TestHandingOver: the next owner gets the bike with its parts and without what is private; here it is put aside with its
// history.
func TestHandingOver(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	bike := v.BikeOf(path)
	seat := atHome(t, v, "seat", "Low seat", "cost", "210 EUR")
	bars := atHome(t, v, "mirrors", "Folding mirrors", "cost", "60 EUR")
	for _, part := range []string{seat, bars} {
		status, body := move(v, part, "to", "on:"+strings.TrimPrefix(bike, "/bikes/"), "money", "30 EUR")
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	page := v.Page(bike + "/hand-over")
	assert.Contains(t, page, "Low seat")
	keep := "keep." + strings.TrimPrefix(bars, "/parts/")
	_, file, header := v.Get(bike + "/hand-over/file?" + keep + "=on")
	assert.Contains(t, header.Get("Content-Disposition"), ".bike.json")
	given, err := format.ReadBike(strings.NewReader(file))
	require.NoError(t, err)
	assert.Empty(t, given.Readings, "the log stays here")
	assert.False(t, given.Bike.Price.Known())
	require.Len(t, given.Things, 1, "what is kept does not go along")
	assert.Equal(t, "Low seat", given.Things[0].Name())
	assert.NotContains(t, file, "210")
	assert.NotContains(t, file, "30.00")
	_, whole, _ := v.Get(bike + "/hand-over/file?money=on&log=on&places=on&codes=on")
	all, err := format.ReadBike(strings.NewReader(whole))
	require.NoError(t, err)
	assert.NotEmpty(t, all.Readings)
	assert.Len(t, all.Things, 2)
	assert.Contains(t, whole, "210")

	form := webtest.Form(page)
	form.Set(keep, "on")
	form.Set("whom", "the next one")
	form.Set("price", "lots")
	status, body, _ := v.Post(bike+"/hand-over", form)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="lots"`)
	form.Set("price", "3900 EUR")
	status, body, _ = v.Post(bike+"/hand-over", form)
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, whereIs(t, v, seat), "sold to the next one")
	assert.Contains(t, whereIs(t, v, bars), "at home")
	after := v.Page(bike)
	assert.Contains(t, after, "to the next one for €3,900.00")
	assert.Contains(t, after, "It is put aside")

	// The next owner's garage is empty, and has it all.
	next := s.Visitor(t)
	status, _, _ = next.Post("/register", url.Values{"name": {"Next"}, "password": {"a long enough one"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, body, header = next.Upload("/garage/import", "holt.bike.json", []byte(file))
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, next.Page(header.Get("Location")), "Low seat")
	assert.Contains(t, next.Page("/parts"), "on the Holt 650 Drover")
}

// TestFittedChangesNoCost: what a workshop took and one's own hours stay as parts are fitted, whatever is on the bike
// later; what is sold gives back, and what it cost stays spent.
func TestFittedChangesNoCost(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/brief")
	brief := webtest.Form(page)
	brief.Set("spanner", "none")
	brief.Set("hour_rate", "90 EUR")
	status, body, _ := v.Post(path+"/brief", brief)
	require.Equal(t, http.StatusSeeOther, status, body)
	page = v.Page(path + "/spend")
	cost, hours := webtest.Gauge(page, "cost"), webtest.Gauge(page, "own-hours")
	ledger := webtest.Form(page)
	fitted := 0
	for key := range ledger {
		if strings.HasPrefix(key, "decision.") && strings.Count(key, ".") > 1 && (ledger.Get(key) == "chosen" || ledger.Get(key) == "owned" || ledger.Get(key) == "ordered") {
			ledger.Set(key, "fitted")
			fitted++
		}
	}
	require.Greater(t, fitted, 5)
	ledger.Set("moved_on", "2026-11-28")
	ledger.Set("moved_at", "23450 km")
	status, body, _ = v.Post(path+"/spend", ledger)
	require.Equal(t, http.StatusSeeOther, status, body)
	page = v.Page(path + "/spend")
	assert.Equal(t, cost, webtest.Gauge(page, "cost"))
	assert.Equal(t, hours, webtest.Gauge(page, "own-hours"))
	p := v.Stored(path)
	for _, l := range p.Lines {
		if l.Decision == plan.OnTheBike {
			assert.NotEmpty(t, l.Thing, l.Title())
		}
	}
	assert.InDelta(t, 23450, p.Bike.Odometer.In("km"), 1e-6, "the odometer is asked once")
	assert.Contains(t, v.Page("/parts?where=on"), "on the Holt 650 Drover since 2026-11-28")

	ledger = webtest.Form(page)
	for key := range ledger {
		if strings.HasPrefix(key, "decision.skid-plate") {
			ledger.Set(key, "sold")
			ledger.Set(strings.Replace(key, "decision.", "back.", 1), "100 EUR")
		}
	}
	status, body, _ = v.Post(path+"/spend", ledger)
	require.Equal(t, http.StatusSeeOther, status, body)
	p = v.Stored(path)
	assert.Regexp(t, `(?s)Back for [^<]+<.{0,120}came back.{0,60}-€100\.00`, v.Page(path+"/spend"), "what came back stands there")
	assert.Contains(t, v.Page("/parts?where=sold"), "sold since")
	assert.True(t, garage.IsReal(&p.Lines[0]))
}

// TestPartsInMiles: a rider who reads miles is asked for miles, and what is typed without a unit is in them.
func TestPartsInMiles(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	status, _, _ := v.Post("/account/units", url.Values{"preset": {"US"}})
	require.Equal(t, http.StatusSeeOther, status)
	bike := strings.TrimPrefix(v.BikeOf(path), "/bikes/")
	part := atHome(t, v, "rear-sprocket", "Trail sprocket", "mass", "2")
	status, body := move(v, part, "to", "on:"+bike, "at", "14000")
	require.Equal(t, http.StatusSeeOther, status, body)
	status, body = move(v, part, "to", "home", "off", "15000")
	require.Equal(t, http.StatusSeeOther, status, body)
	page := v.Page(part)
	assert.Regexp(t, `Has run</dt><dd>1[^0-9]{0,3}000[^0-9]{1,3}mi`, page)
	assert.Regexp(t, `Weighs</dt><dd>2[^0-9]{1,3}lb`, page)
	assert.Regexp(t, `Odometer where it goes on[^<]*<span class="unit">mi</span>`, page)
}
