package load_test

import (
	"fmt"
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

// TestMovingThings: to another place or bag, tried and kept; what is no place stays
// wrong beside its row.
func TestMovingThings(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	values := webtest.Form(v.Page(path + "/load?loadout=travel"))
	values.Set("where.14", "place:top-box") // the tools
	_, tried, _ := v.Post(path+"/load/try?loadout=travel", values)
	assert.Contains(t, tried, "With the things moved")
	assert.Contains(t, tried, `data-finding="rack-overload"`, "tools do not belong there")
	status, _, _ := v.Post(path+"/load", values)
	require.Equal(t, http.StatusSeeOther, status)
	moved := v.Stored(path).Loadouts[1].Loads[14]
	assert.Equal(t, load.TopBox, moved.Place)
	values = webtest.Form(v.Page(path + "/load?loadout=travel"))
	values.Set("where.14", "bag:side-bags")
	values.Set("side.14", "right")
	v.Post(path+"/load", values)
	moved = v.Stored(path).Loadouts[1].Loads[14]
	assert.Equal(t, parts.SideBags, moved.Bag)
	assert.Equal(t, plan.Right, moved.Side)
	values.Set("base", webtest.Base(v.Page(path+"/load")))
	values.Set("where.14", "bag:top-box")
	status, body, _ := v.Post(path+"/load", values)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "neither a bag that is on the bike nor a place")
}

// TestPackingList: rows are changed, added and taken out; two tabs keep both their
// rows.
func TestPackingList(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	old := webtest.Form(v.Page(path + "/packing?loadout=travel"))
	first := webtest.Form(v.Page(path + "/packing?loadout=travel"))
	first.Set("item.19", "Axe")
	first.Set("mass.19", "1 kg")
	first.Set("out_item.13", "on")
	status, _, _ := v.Post(path+"/packing", first)
	require.Equal(t, http.StatusSeeOther, status)
	loads := v.Stored(path).Loadouts[1].Loads
	assert.Len(t, loads, 19, "one more, one less")
	assert.Equal(t, "Axe", loads[18].Name)
	assert.True(t, loads[7].Packed, "what a row does not show stays")

	old.Set("item.19", "Lantern")
	old.Set("mass.19", "0.6")
	status, body, _ := v.Post(path+"/packing", old)
	require.Equal(t, http.StatusConflict, status)
	again := webtest.Form(body)
	assert.Contains(t, body, "Lantern")
	assert.Contains(t, body, "Axe", "both rows are there")
	again.Set("mass.0", "a lot")
	status, body, _ = v.Post(path+"/packing", again)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="a lot"`)
}

// TestTicks are kept at once, whatever else has changed; a thing that is gone is
// told.
func TestTicks(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	status, _, _ := v.Post(path+"/packing/tick?loadout=travel", url.Values{"at": {"11"}, "name": {"Tent"}, "packed": {"yes"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.True(t, v.Stored(path).Loadouts[1].Loads[11].Packed)
	status, body, _ := v.Post(path+"/packing/tick?loadout=travel", url.Values{"at": {"11"}, "name": {"Anvil"}, "packed": {"yes"}})
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, body, "has changed")
	assert.Contains(t, v.Page(path+"/packing?loadout=travel"), "<b>6 of 19</b>")
}

// TestProposal moves things for a reason, within the bags' limits, and can be undone.
func TestProposal(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/packing?loadout=travel&propose=on")
	assert.Contains(t, page, "evens the sides")
	assert.Contains(t, page, "Pack it so")
	status, _, _ := v.Post(path+"/packing/propose?loadout=travel", url.Values{"base": {webtest.Base(page)}})
	require.Equal(t, http.StatusSeeOther, status)
	left, right := 0.0, 0.0
	for _, l := range v.Stored(path).Loadouts[1].Loads {
		left += max(0, -l.Side.Sign()) * l.Mass.In("kg")
		right += max(0, l.Side.Sign()) * l.Mass.In("kg")
	}
	assert.InDelta(t, left, right, 0.35)
	assert.Contains(t, v.Page(path+"/packing?loadout=travel&propose=on"), "packed as well as it can be")
	assert.Contains(t, v.Page(path+"/packing?loadout=trail-day&propose=on"), "There is no bag on the bike")
}

// TestFirstList fills an empty list by the brief's trip, and adds nothing twice.
func TestFirstList(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	for _, want := range []bool{true, false} {
		before := len(v.Stored(path).Loadouts[1].Loads)
		status, _, _ := v.Post(path+"/packing/start?loadout=travel", url.Values{"base": {webtest.Base(v.Page(path + "/packing"))}})
		require.Equal(t, http.StatusSeeOther, status)
		loads := v.Stored(path).Loadouts[1].Loads
		assert.Equal(t, want, len(loads) > before)
	}
	var names []string
	for _, l := range v.Stored(path).Loadouts[1].Loads {
		names = append(names, l.Name)
	}
	assert.Subset(t, names, []string{"Winter gloves, neck", "Emergency beacon", "Sleeping bag"}, "cold, remote, more than a day")
}

// TestFirstListIntoTheBags: an empty list goes into what is on the bike and nowhere else;
// where no bag is on, the page asks which there are.
func TestFirstListIntoTheBags(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/packing?loadout=trail-day")
	assert.Contains(t, page, "Which bags are there?")
	assert.NotContains(t, v.Page(path+"/packing?loadout=travel"), "Which bags are there?")
	nothing := url.Values{"base": {webtest.Base(v.Page(path + "/packing"))}}
	for i := range v.Stored(path).Loadouts[1].Loads {
		nothing.Set(desk.RowKey("item", i), "")
		nothing.Set(desk.RowKey("out_item", i), "on")
	}
	v.Post(path+"/packing?loadout=travel", nothing)
	require.Empty(t, v.Stored(path).Loadouts[1].Loads)
	v.Post(path+"/packing/start?loadout=travel", url.Values{"base": {webtest.Base(v.Page(path + "/packing"))}})
	stored := v.Stored(path)
	built := stored.Build("travel")
	require.NotEmpty(t, stored.Loadouts[1].Loads)
	for _, l := range stored.Loadouts[1].Loads {
		if l.Bag != "" {
			assert.NotNil(t, built.Part(l.Bag), "%s lies in a bag that is on", l.Name)
		} else {
			assert.Equal(t, load.Tail, l.Place, l.Name)
		}
	}
}

// TestPackingFile: a dry run first, then only the good rows, in place of what has the
// same name.
func TestPackingFile(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	csv := "item,mass [kg],where,side\nTent,2.9,tail,\nBroken,heavy,tail,\nGuitar,1.8,Side bags,left\n"
	status, body, _ := v.Upload(path+"/packing/import?loadout=travel", "list.csv", []byte(csv))
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, body, "Take the 2 good rows")
	assert.Len(t, v.Stored(path).Loadouts[1].Loads, 19, "nothing is kept yet")
	status, _, _ = v.Post(path+"/packing/import?loadout=travel", url.Values{"csv": {csv}, "take": {"good"}})
	require.Equal(t, http.StatusSeeOther, status)
	loads := v.Stored(path).Loadouts[1].Loads
	require.Len(t, loads, 20)
	assert.Equal(t, "2.9 kg", loads[11].Mass.String())
	assert.Contains(t, v.Page(path+"/packing.csv?loadout=travel"), "Guitar,1.8,,Side bags,left")
	status, body, _ = v.Post(path+"/packing/import", url.Values{"csv": {"item,y\n1,2\n"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "no column")
}

// TestPastedList: lines as one writes them, looked through and then taken, into bags by their
// own names.
func TestPastedList(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	bag := html.UnescapeString(regexp.MustCompile(`<section class="bag">\s*<h2>([^<]+)</h2>`).FindStringSubmatch(v.Page(path + "/packing?loadout=travel"))[1])
	pasted := bag + ":\nWhistle 90 g\n12 kg\nRope, 1.2 kg, 2 L\n"
	status, body, _ := v.Post(path+"/packing/import?loadout=travel", url.Values{"csv": {pasted}})
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, body, "Take the 2 good rows")
	assert.Contains(t, body, "say what it is")
	before := len(v.Stored(path).Loadouts[1].Loads)
	status, _, _ = v.Post(path+"/packing/import?loadout=travel", url.Values{"csv": {pasted}, "take": {"good"}})
	require.Equal(t, http.StatusSeeOther, status)
	loads := v.Stored(path).Loadouts[1].Loads
	require.Len(t, loads, before+2)
	assert.Equal(t, "90 g", loads[before].Mass.String(), "as typed")
	assert.NotEmpty(t, loads[before].Bag)
}

// TestWeighbridge: what it reads is seen before it is kept, corrects the bike, and can
// be revoked; a wrong unit and a lost cable are told.
func TestWeighbridge(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	mass := func() string {
		return regexp.MustCompile(`(?s)data-gauge="loaded-mass".*?gauge-now">([^<]*)`).FindStringSubmatch(v.Page(path + "/weigh?loadout=travel"))[1]
	}
	before := mass()
	_, body, _ := v.Post(path+"/weigh/read?loadout=travel", url.Values{"fault": {""}})
	values := url.Values{}
	for _, key := range []string{"front", "rear", "left", "right", "id"} {
		values.Set(key, regexp.MustCompile(`name="` + key + `" value="([^"]*)"`).FindStringSubmatch(body)[1])
	}
	require.NotEmpty(t, values.Get("front"))
	assert.Equal(t, before, mass(), "reading keeps nothing")
	for range 2 {
		status, _, _ := v.Post(path+"/weigh?loadout=travel", values)
		require.Equal(t, http.StatusSeeOther, status)
	}
	list := v.Stored(path).ReadingsOf(logbook.Weighed)
	require.Len(t, list, 1, "sent twice, kept once")
	correction := v.Stored(path).Correction()
	assert.NotEqual(t, before, mass())
	assert.NotZero(t, correction.FrontKg+correction.RearKg)

	// A second weighing on the corrected bike is held against the same.
	v.Post(path+"/weigh?loadout=travel", url.Values{"front": {values.Get("front")}, "rear": {values.Get("rear")}})
	assert.InDelta(t, correction.FrontKg, v.Stored(path).Correction().FrontKg, 0.05)

	for name, c := range map[string]struct {
		values url.Values
		says   string
	}{
		"pounds": {url.Values{"front": {"288"}, "rear": {"434"}}, "pounds"},
		"lost":   {url.Values{"front": {"130"}, "rear": {""}}, "nothing was read"},
		"far":    {url.Values{"front": {"80"}, "rear": {"197"}}, "more than a quarter"},
		"words":  {url.Values{"front": {"heavy"}, "rear": {"197"}}, "heavy"},
	} {
		status, body, _ := v.Post(path+"/weigh?loadout=travel", c.values)
		assert.Equal(t, http.StatusUnprocessableEntity, status, name)
		assert.Contains(t, body, c.says, name)
		assert.Contains(t, body, `value="`+c.values.Get("front")+`"`, name)
	}
	// In another state: the bike alone as it stands today, tank half full, one number.
	state := url.Values{"state": {"bare"}, "parts": {"fitted"}, "tank": {"50"}, "loadout": {"travel"}}
	page := v.Page(path + "/weigh?" + state.Encode())
	assert.Contains(t, page, "the bike alone, tank at 50 %, with what is fitted by now")
	expected := regexp.MustCompile(`(?s)f-total".*?expected ([\d.]+)`).FindStringSubmatch(page)[1]
	kg, err := strconv.ParseFloat(expected, 64)
	require.NoError(t, err)
	loaded, err := strconv.ParseFloat(strings.Fields(before)[0], 64)
	require.NoError(t, err)
	assert.Less(t, kg, loaded-104, "neither its rider nor bags nor what is still to come")
	was := len(v.Stored(path).ReadingsOf(logbook.Weighed))
	state.Set("total", strconv.FormatFloat(kg+2, 'f', 1, 64))
	state.Set("front", "80")
	status, body, _ := v.Post(path+"/weigh?loadout=travel", state)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "both wheels or the total")
	assert.Contains(t, body, `name="state" value="bare"`, "what was chosen stays")
	state.Del("front")
	status, _, _ = v.Post(path+"/weigh?loadout=travel", state)
	require.Equal(t, http.StatusSeeOther, status)
	list = v.Stored(path).ReadingsOf(logbook.Weighed)
	require.Len(t, list, was+1)
	front, rear := list[was].Weighing().OffKg()
	assert.InDelta(t, 2, front+rear, 0.11)
	assert.Less(t, front, rear, "shared as the wheels carry")
	state.Set("tank", "most of it")
	status, body, _ = v.Post(path+"/weigh?loadout=travel", state)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="most of it"`)
	for _, r := range v.Stored(path).ReadingsOf(logbook.Weighed) {
		v.Post(path+"/weigh/revoke", url.Values{"of": {r.ID}})
	}
	assert.Equal(t, before, mass(), "revoked, it corrects nothing")
}

// TestTransport is noted in the brief and used.
func TestTransport(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	values := webtest.Form(v.Page(path + "/brief"))
	values.Set("ships", "2027-05-01")
	values.Set("ship_most", "170")
	status, _, _ := v.Post(path+"/brief", values)
	require.Equal(t, http.StatusSeeOther, status)
	page := v.Page(path + "/load")
	assert.Contains(t, page, `data-finding="nowhere-to-tie"`)
	assert.Contains(t, page, `data-finding="too-heavy-to-ship"`)
	values = webtest.Form(v.Page(path + "/brief"))
	values.Set("tie_down", "lower yoke, rack mounts")
	v.Post(path+"/brief", values)
	assert.NotContains(t, v.Page(path+"/load"), `data-finding="nowhere-to-tie"`)
}

// TestLoadoutsPage: added like another, renamed, dropped; what is wrong stands in its row;
// changing over says what it takes.
func TestLoadoutsPage(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	form := webtest.Form(v.Page(path + "/loadouts?loadout=travel"))
	form.Set("loadout.2", "Two up")
	form.Set("pillion.2", "70")
	form.Set("days.2", "a few")
	form.Set("like.2", "travel")
	status, body, _ := v.Post(path+"/loadouts?loadout=travel", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "not a whole number")
	assert.Contains(t, body, `value="a few"`)
	form.Set("days.2", "3")
	form.Set("loadout.0", "Sunday")
	status, body, _ = v.Post(path+"/loadouts?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status, body)
	stored := v.Stored(path)
	require.Len(t, stored.Loadouts, 3)
	assert.Equal(t, "Sunday", stored.Loadouts[0].Name)
	assert.Equal(t, "two-up", stored.Loadouts[2].ID)
	assert.Len(t, stored.Loadouts[2].Loads, len(stored.Loadouts[1].Loads))
	two := v.Page(path + "/load?loadout=two-up")
	assert.NotEqual(t, webtest.Gauge(v.Page(path+"/load?loadout=travel"), "loaded-mass"), webtest.Gauge(two, "loaded-mass"), "a pillion weighs")

	form = webtest.Form(v.Page(path + "/loadouts"))
	for i := range 3 {
		form.Set(fmt.Sprintf("out_loadout.%d", i), "on")
	}
	status, body, _ = v.Post(path+"/loadouts", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "one loadout at least")
	form.Del("out_loadout.1")
	v.Post(path+"/loadouts", form)
	assert.Len(t, v.Stored(path).Loadouts, 1)

	page := v.Page(path + "/loadouts")
	v.Post(path+"/undo", url.Values{"base": {webtest.Base(page)}, "stage": {"loadouts"}})
	tried := v.Page(path + "/contact?loadout=travel&try=windscreen@travel:screen-tall")
	v.Post(path+"/choose", url.Values{"base": {webtest.Base(tried)}, "loadout": {"travel"}, "stage": {"contact"}, "try": {"windscreen@travel:screen-tall"}})
	ledger := webtest.Form(v.Page(path + "/spend?loadout=travel"))
	ledger.Set("minutes.windscreen.travel.screen-tall", "12")
	ledger.Set("packed.windscreen.travel.screen-tall", "on")
	status, body, _ = v.Post(path+"/spend?loadout=travel", ledger)
	require.Equal(t, http.StatusSeeOther, status, body)
	over := v.Page(path + "/loadouts?loadout=travel")
	assert.Contains(t, over, "12 min")
	assert.Contains(t, over, "comes along, packed")
}
