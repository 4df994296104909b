package brief_test

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

// TestBadBriefKeepsWhatWasTyped, and says by the field what is wrong.
func TestBadBriefKeepsWhatWasTyped(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	page := v.Page(plan + "/brief")
	bad := webtest.Form(page)
	for key, typed := range map[string]string{
		"distance": "four thousand", "budget": "12.345 EUR", "start": "2027-02-30", "share.sand": "50", "ships": "soon", "pillion": "999 kg", "rider": "<script>",
	} {
		bad.Set(key, typed)
		status, body, _ := v.Post(plan+"/brief", bad)
		assert.Equal(t, http.StatusUnprocessableEntity, status, key)
		assert.Contains(t, body, `value="`+strings.NewReplacer("<", "&lt;", ">", "&gt;").Replace(typed)+`"`, key)
		assert.Contains(t, body, `class="error"`, key)
		bad = webtest.Form(page)
	}
	assert.Equal(t, webtest.Saved(page), webtest.Saved(v.Page(plan+"/brief")), "nothing was saved")
}

func TestBriefTriedThenSaved(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	page := v.Page(plan + "/brief")
	typed := webtest.Form(page)
	typed.Set("rider", "250 lb")
	typed.Set("pillion", "1,2 kg")
	_, tried, _ := v.Post(plan+"/brief/try", typed)
	assert.Contains(t, tried, "The brief as typed")
	assert.Equal(t, webtest.Gauge(page, "loaded-mass"), webtest.Gauge(tried, "loaded-mass"), "tried is not saved")
	status, _, header := v.Post(plan+"/brief", typed)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.Page(header.Get("Location"))
	assert.Equal(t, "watch 338.3 kg", webtest.Gauge(saved, "loaded-mass"), "104 kg gave 327.7; 250 lb are 113.4, and a very small passenger")
	assert.Contains(t, saved, `value="250 lb"`, "kept as typed")
	assert.Contains(t, saved, `value="1.2 kg"`)
	assert.Regexp(t, `title="Undo: [^"]*Rider, dressed 104 kg → 250 lb`, saved)
}

// TestSpanners: a rider who fits nothing pays a workshop for what is not fitted yet,
// at the rate of the brief; a rate that is no money is said by its field.
func TestSpanners(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	brief := webtest.Form(v.Page(path + "/brief?loadout=travel"))
	brief.Set("hour_rate", "a lot")
	status, body, _ := v.Post(path+"/brief?loadout=travel", brief)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `id="h-hour_rate"><span class="error">`, body)
	brief.Set("hour_rate", "60")
	brief.Set("spanner", "none")
	status, _, header := v.Post(path+"/brief?loadout=travel", brief)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.Page(header.Get("Location"))
	// Tyres 1.8 h, tubes 0.6, sprocket 0.7, plate 0.6, hand guards 0.8: 4.5 h at 60.
	assert.Equal(t, "over €1,945", webtest.Gauge(saved, "cost"))
	assert.Contains(t, saved, `data-finding="for-the-workshop"`)
	armour := v.Page(path + "/armour?loadout=travel&place=cases")
	assert.Contains(t, armour, "before the oil filter", "what a guard is in the way of stands beside it")
}

// TestNeedsPage: each need with its sentence and a way to where it is settled.
func TestNeedsPage(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/needs?loadout=travel")
	assert.Contains(t, page, "6.5 hours a day")
	rows := regexp.MustCompile(`(?s)data-need="([a-z-]+)".*?href="([^"]*)"`).FindAllStringSubmatch(page, -1)
	require.Greater(t, len(rows), 8)
	for _, row := range rows {
		v.Page(strings.ReplaceAll(row[2], "&amp;", "&"))
	}
	short := webtest.Gauge(page, "needs")
	_, _, header := v.Post(path+"/choose", url.Values{"base": {webtest.Base(page)}, "stage": {"light"}, "loadout": {"travel"}, "try": {"day-lamps:aux-seen"}})
	assert.NotEqual(t, short, webtest.Gauge(v.Page(header.Get("Location")), "needs"), "to be seen by day is one need less")
	v.Post("/account/units", url.Values{"preset": {"US"}})
	assert.Contains(t, strings.ReplaceAll(v.Page(path+"/needs?loadout=travel"), "\u00a0", " "), "2610 mi", "said in the rider's units")
}
