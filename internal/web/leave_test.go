package web_test

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/web/webtest"
)

// TestLeaveAlone: each slot tells in figures what leaving it as it came keeps; why it is left is
// kept, listed, and taken back.
func TestLeaveAlone(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/contact?loadout=travel")
	assert.Regexp(t, `As it came: €269\.00 kept, 0\.9.kg lighter; Touring seat, wide rear, narrow front settles one of your points\.`, page)
	assert.Regexp(t, `Back to what it came with: €112\.00 kept, \d\.\d.kg lighter at the rear wheel, settles .* of your points, and .* back\.`,
		v.Page(path+"/tyres?loadout=travel"))

	base := webtest.Base(page)
	status, page, _ := v.Post(path+"/left?loadout=travel", url.Values{"base": {base}, "why.seat": {" "}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "Say why")
	status, _, _ = v.Post(path+"/left?loadout=travel", url.Values{"base": {base}, "why.seat": {"Bearable for a day"}})
	require.Equal(t, http.StatusSeeOther, status)
	page = v.Page(path + "/left?loadout=travel")
	assert.Regexp(t, `(?s)<b>Seat</b>: Bearable for a day.*€269\.00 kept`, page)
	assert.Equal(t, "Bearable for a day", v.Stored(path).LeftAlone(parts.Seat).Why)
	assert.Contains(t, v.Page(path+"/history"), "Seat left alone")
	status, _, _ = v.Post(path+"/left?loadout=travel", url.Values{"base": {webtest.Base(page)}, "why.seat": {""}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Nil(t, v.Stored(path).LeftAlone(parts.Seat))
}

// TestInPlaceOfAPart: a lesson stands among the options with its price and hours; taken, what it
// answers is set aside and its money is a line.
func TestInPlaceOfAPart(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/contact?loadout=travel")
	assert.Contains(t, page, "A whole day on the standard seat first")
	ask := v.Page(path + "/points?loadout=travel&instead=one-day-on-the-seat")
	assert.Contains(t, ask, "4.2 hours a day on a seat that does 2.0.")
	status, _, _ := v.Post(path+"/points?loadout=travel", url.Values{"base": {webtest.Base(page)}, "instead": {"one-day-on-the-seat"}})
	require.Equal(t, http.StatusSeeOther, status)
	w := v.Stored(path).Waiver("seat-for-the-hours", "travel")
	require.NotNil(t, w)
	assert.Equal(t, "A whole day on the standard seat first", w.Why)
	page = v.Page(path + "/points?loadout=travel")
	assert.Contains(t, page, "1 that you set aside")
	status, page, _ = v.Post(path+"/points?loadout=travel", url.Values{"base": {webtest.Base(page)}, "instead": {"one-day-on-the-seat"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "answers none of the points")
	status, _, _ = v.Post(path+"/points?loadout=travel", url.Values{"base": {webtest.Base(page)}, "back": {"seat-for-the-hours"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Empty(t, v.Stored(path).Waivers)

	assert.Contains(t, v.Page(path+"/points?loadout=travel&instead=day-off-road"), "€180", "a lesson costs")
}

// TestYourOwnOrder stands beside ours; a place that is none is told at its field.
func TestYourOwnOrder(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	form := url.Values{"base": {webtest.Base(v.Page(path + "/points?loadout=travel"))}, "place.range-short": {"first"}, "place.seat-for-the-hours": {""}}
	status, page, _ := v.Post(path+"/points?loadout=travel", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `(?s)data-error="place.range-short".*?Want a place`, page)
	assert.Contains(t, page, `value="first"`, "what was typed is still there")
	form.Set("place.range-short", "2")
	form.Set("place.seat-for-the-hours", "1")
	status, _, _ = v.Post(path+"/points?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, []string{"seat-for-the-hours", "range-short"}, v.Stored(path).Order)
	assert.Regexp(t, `(?s)the next pump,\s*yours:\s*2`, v.Page(path+"/range?loadout=travel"))
}

// TestSetAsideInTwoPlaces: what is set aside are rows: two of them from one page join, and the same
// one twice is shown again with both reasons.
func TestSetAsideInTwoPlaces(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	base := webtest.Base(v.Page(path + "/points?loadout=travel"))
	aside := func(id, why string) (int, string) {
		status, page, _ := v.Post(path+"/points?loadout=travel", url.Values{"base": {base}, "why." + id: {why}, "for." + id: {""}})
		return status, page
	}
	for _, id := range []string{"range-short", "seat-for-the-hours"} {
		status, _ := aside(id, "I know")
		require.Equal(t, http.StatusSeeOther, status, id)
	}
	assert.Len(t, v.Stored(path).Waivers, 2)
	status, page := aside("range-short", "I carry a can")
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, page, "I know")
	assert.Contains(t, page, "I carry a can")
}

// TestForItsMoney: what comes off shows up to three ways that its money would pay for, each on the
// bench with it.
func TestForItsMoney(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/load?loadout=travel&try=side-bags:")
	at := strings.Index(page, "What its money would settle")
	require.Positive(t, at)
	ways := regexp.MustCompile(`class="remedy" href="([^"]*)"`).FindAllStringSubmatch(page[at:at+2500], -1)
	assert.True(t, len(ways) >= 1 && len(ways) <= 3, len(ways))
	assert.Contains(t, ways[0][1], "try=side-bags")
	assert.NotContains(t, v.Page(path+"/load?loadout=travel&try=top-box:box-42"), "What its money would settle", "of what goes on nobody asks that")
}

// TestAPassedRatingNeverFolds: it stands open on the bench of every page, noted or not.
func TestAPassedRatingNeverFolds(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	base := webtest.Base(v.Page(path + "/tyres?loadout=travel"))
	status, _, _ := v.Post(path+"/choose?loadout=travel", url.Values{"base": {base}, "try": {"rear-tyre:lanner-150-70r17"}})
	require.Equal(t, http.StatusSeeOther, status)
	open := regexp.MustCompile(`(?s)<section class="point".*?</section>`)
	stands := func(page, id string) bool {
		for _, point := range open.FindAllString(v.Page(path+"/"+page+"?loadout=travel"), -1) {
			if strings.Contains(point, `data-finding="`+id+`"`) {
				return true
			}
		}
		return false
	}
	for _, page := range []string{"tyres", "contact", "spend", "electrics"} {
		assert.True(t, stands(page, "rear-tyre-rim"), page)
	}
	base = webtest.Base(v.Page(path + "/contact?loadout=travel"))
	status, _, _ = v.Post(path+"/points?loadout=travel", url.Values{"base": {base}, "why.rear-tyre-rim": {"I have another rim"}, "for.rear-tyre-rim": {""}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.True(t, stands("contact", "rear-tyre-rim"))
	assert.Contains(t, v.Page(path+"/contact?loadout=travel"), "You noted: I have another rim")
}
