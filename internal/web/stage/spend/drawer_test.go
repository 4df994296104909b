package spend_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestDrawerFilters, and what they say when they cannot be read.
func TestDrawerFilters(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	count := func(query string) int {
		return strings.Count(v.Page(path+"/drawer?loadout=travel&"+query), `class="option"`)
	}
	all := count("q=plate")
	assert.Greater(t, all, count("q=plate&fits=on"), "plates of other bikes do not go on")
	assert.Equal(t, 2, count("q=skid&fits=on"))
	assert.Equal(t, 1, count("q=skid&fits=on&price=150"))
	assert.Equal(t, 1, count("q=skid&fits=on&mass=6+lb"))
	assert.Zero(t, count("q=unicorn"))
	assert.Equal(t, 40, count("q="), "no more at once than can be held against the plan")
	assert.Contains(t, v.Page(path+"/drawer?q=&price=cheap"), `role="alert"`)
	assert.Equal(t, 5, count("q=&slot=socket"))
}

// TestOwnPart: entered with what is known of it, tried as if it were on, kept as it is
// decided, edited later; what is wrong stands beside its field.
func TestOwnPart(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	own := webtest.Form(v.Page(path + "/part?loadout=travel&slot=skid-plate"))
	own.Set("name", "")
	own.Set("price", "dear")
	own.Set("mass", "light")
	own.Set("cover.0", "sump")
	own.Set("stops.0", "most")
	status, body, _ := v.Post(path+"/part?loadout=travel", own)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Equal(t, 4, strings.Count(body, `class="error"`), "each by its field")
	assert.Contains(t, body, `value="dear"`)

	own.Set("name", "Bash plate from the smithy")
	own.Set("price", "60")
	own.Set("mass", "4 kg")
	own.Set("stops.0", "80 %")
	own.Set("against.strike.0", "on")
	own.Set("mount", "frame")
	own.Set("decision", "undecided")
	own.Set("source", "home-made")
	_, tried, _ := v.Post(path+"/part/try?loadout=travel", own)
	assert.Contains(t, tried, `<th scope="row">Loaded mass</th>`, "on the bench it is on, whatever is decided")
	stranded := webtest.Gauge(v.Page(path+"/armour?loadout=travel"), "armour-stranded")
	status, _, header := v.Post(path+"/part?loadout=travel", own)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, v.Page(header.Get("Location")), "Bash plate from the smithy")
	p := s.Newest(t, demo.Rider)
	last := p.Lines[len(p.Lines)-1]
	assert.Equal(t, plan.Undecided, last.Decision)
	assert.Equal(t, "60.00 EUR", last.Cost().String(), "a price that is known stays known when it is home-made")
	assert.Equal(t, "skid-alu-h", p.Chosen(parts.SkidPlate, "travel").ID, "it is only noted")
	assert.Contains(t, v.Page(path+"/armour?loadout=travel&place=sump"), "Bash plate from the smithy", "where such parts are chosen")
	status, _, _ = v.Post(path+"/part?loadout=travel", own)
	assert.Equal(t, http.StatusSeeOther, status, "sent again it is the same save")
	assert.Len(t, s.Newest(t, demo.Rider).Lines, len(p.Lines), "and no second part")

	edited := webtest.Form(v.Page(path + "/part?loadout=travel&edit=" + last.Part.ID))
	assert.Equal(t, "4 kg", edited.Get("mass"))
	assert.Equal(t, "80 %", edited.Get("stops.0"))
	edited.Set("decision", "owned")
	edited.Set("stops.0", "30 %")
	status, body, _ = v.Post(path+"/part?loadout=travel", edited)
	require.Equal(t, http.StatusSeeOther, status, body)
	p = s.Newest(t, demo.Rider)
	assert.Equal(t, last.Part.ID, p.Chosen(parts.SkidPlate, "travel").ID)
	assert.NotEqual(t, stranded, webtest.Gauge(v.Page(path+"/armour?loadout=travel"), "armour-stranded"), "it guards by what its sheet says")
	sneaky := webtest.Form(v.Page(path + "/part?loadout=travel&edit=" + last.Part.ID))
	sneaky.Del("id")
	sneaky.Set("edit", last.Part.ID)
	sneaky.Set("everywhere", "on")
	status, _, _ = v.Post(path+"/part?loadout=travel", sneaky)
	assert.Less(t, status, 500)
	status, _, _ = v.Get(path + "/part?edit=own-nobodyspart")
	assert.Equal(t, http.StatusNotFound, status)
}

// TestLikeThisOne starts from a part of the shelf, and of every slot there is a sheet.
func TestLikeThisOne(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	for _, info := range parts.Kinds() {
		form := webtest.Form(v.Page(path + "/part?slot=" + string(info.Slot)))
		form.Set("name", "Mine")
		status, body, _ := v.Post(path+"/part", form)
		require.Equal(t, http.StatusSeeOther, status, "%s: nothing known but its name: %s", info.Slot, body)
		for _, page := range []string{"needs", "tyres", "inside", "wheels", "pressures", "armour", "contact", "range", "load", "gearing", "chain", "pull", "spend"} {
			assert.NotRegexp(t, `NaN|\bInf\b|%!`, v.Page(path+"/"+page), "%s with a %s of one's own", page, info.Slot)
		}
		v.Post(path+"/undo", url.Values{"base": {webtest.Base(v.Page(path + "/spend"))}, "stage": {"spend"}})
	}
	form := webtest.Form(v.Page(path + "/part?loadout=travel&slot=rear-tyre&like=bracken-140-80-18"))
	form.Set("name", "Worn Bracken of a friend")
	form.Set("tread", "40")
	form.Set("source", "given")
	status, body, _ := v.Post(path+"/part?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status, body)
	p := s.Newest(t, demo.Rider)
	own := p.Chosen(parts.RearTyre, "travel")
	assert.Equal(t, "Worn Bracken of a friend", own.Name)
	assert.Equal(t, "140/80-18 M/C 70R TT M+S", own.Tyre().Size.String())
	assert.InDelta(t, 0.4, own.Tyre().Tread.Base(), 1e-9)
	spare := webtest.Form(v.Page(path + "/part?loadout=travel&slot=spare-rear-tyre&like=bracken-140-80-18"))
	spare.Set("name", "The same again")
	spare.Set("provides.waits-on-the-way", "yes")
	v.Post(path+"/part?loadout=travel", spare)
	assert.Contains(t, v.Page(path+"/wheels?loadout=travel"), "The same again", "any tyre can be carried")
}

// TestEditedEverywhere: a sheet is changed in this plan alone, or in every plan of its rider
// that holds the part, each as a revision of its own.
func TestEditedEverywhere(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	own := webtest.Form(v.Page(path + "/part?loadout=travel&slot=seat"))
	own.Set("name", "Saddler's seat")
	own.Set("mass", "4")
	v.Post(path+"/part?loadout=travel", own)
	_, _, header := v.Post(path+"/split", url.Values{"base": {webtest.Base(v.Page(path + "/variants"))}, "name": {"Another way"}})
	other, _, _ := strings.Cut(header.Get("Location"), "/variants")
	id := v.Stored(path).Owned()[0].ID
	change := func(mass string, everywhere bool) {
		form := webtest.Form(v.Page(path + "/part?loadout=travel&edit=" + id))
		form.Set("mass", mass)
		if everywhere {
			form.Set("everywhere", "on")
		}
		status, body, _ := v.Post(path+"/part?loadout=travel", form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	change("5", false)
	assert.Equal(t, "4 kg", v.Stored(other).Owned()[0].Mass.String())
	change("6", true)
	assert.Equal(t, "6 kg", v.Stored(path).Owned()[0].Mass.String())
	assert.Equal(t, "6 kg", v.Stored(other).Owned()[0].Mass.String())
	assert.Contains(t, v.Page(other+"/history"), "its sheet")
}
