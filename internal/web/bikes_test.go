package web_test

import (
	"crypto/rand"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/format"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// tripOn begins another plan for a plan's bike and gives its path.
func tripOn(t *testing.T, v *webtest.Visitor, path, name string) string {
	t.Helper()
	status, _, header := v.Post(v.BikeOf(path)+"/trip", url.Values{"name": {name}})
	require.Equal(t, http.StatusSeeOther, status)
	return strings.TrimSuffix(header.Get("Location"), "/brief")
}

// enter saves a form of a page with one field otherwise, and gives the answer.
func enter(t *testing.T, v *webtest.Visitor, page, field, text string) (status int, body string) {
	t.Helper()
	form := webtest.Form(v.Page(page))
	form.Set(field, text)
	status, body, _ = v.Post(page, form)
	return status, body
}

// formTo is the form of a page that is sent to an address.
func formTo(t *testing.T, page, action string) url.Values {
	t.Helper()
	form := regexp.MustCompile(`(?s)<form method="post" action="` + regexp.QuoteMeta(action) + `".*?</form>`).FindString(page)
	require.NotEmpty(t, form, action)
	return webtest.FormIn(form)
}

const movedOn = `class="moved"`

// TestABikeByItself: its pages open without a plan, in the same words, and what is kept there is
// the bike's; pages that are of a plan are not there.
func TestABikeByItself(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	bike := v.BikeOf(path)
	require.NotContains(t, v.Page(path+"/brief"), movedOn)
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			status, body, _ := v.Get(bike + "/" + p.ID)
			if !p.Bike {
				assert.Equal(t, http.StatusNotFound, status, p.ID)
				assert.Contains(t, v.Page(path+"/"+p.ID), "As planned", p.ID)
				continue
			}
			assert.Equal(t, http.StatusOK, status, p.ID)
			assert.Contains(t, body, "As it stands", p.ID)
			assert.Contains(t, v.Page(path+"/"+p.ID), "As it stands", p.ID)
			for _, m := range regexp.MustCompile(`href="(/bikes/[^"#?]*)`).FindAllStringSubmatch(body, -1) {
				status, _, _ := v.Get(m[1])
				assert.Equal(t, http.StatusOK, status, "%s of %s", m[1], p.ID)
			}
			assert.NotContains(t, body, "/plans/", p.ID)
		}
	}
	status, _, _ := v.Get("/plans/" + strings.TrimPrefix(bike, "/bikes/") + "/brief")
	assert.Equal(t, http.StatusNotFound, status, "a bike is no plan")
	status, _, _ = v.Get("/bikes/" + strings.TrimPrefix(path, "/plans/"))
	assert.Equal(t, http.StatusNotFound, status, "and a plan is no bike")

	status, _ = enter(t, v, bike+"/sheet", "odometer", "24640 km")
	require.Equal(t, http.StatusSeeOther, status)
	assert.Regexp(t, `24.640.km, 20\d\d-`, v.Page(bike), "with its date")
	page := v.Page(path + "/tyres")
	assert.Contains(t, page, movedOn)
	assert.Regexp(t, `1.?240.km more`, page)
	status, _, _ = v.Post(bike+"/undo", url.Values{"base": {webtest.Base(v.Page(bike))}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.Page(path+"/tyres"), movedOn, "there and back is no news")
	assert.Contains(t, v.Page(bike+"/history"), "Undone: ")
}

// TestAReadingOfOneTrip is seen in the other once that is brought up to date, and at once in the
// one that it was written down in.
func TestAReadingOfOneTrip(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	other := tripOn(t, v, path, "Over the moor")
	const shown = `scope="row">2026-11-29`
	status, _, _ := v.Post(other+"/fills", url.Values{"id": {rand.Text()}, "on": {"2026-11-29"}, "litres": {"9.3"}, "odometer": {"24700"}, "by": {"odometer"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Regexp(t, shown, v.Page(other+"/fills"))
	assert.NotRegexp(t, shown, v.Page(path+"/fills"), "an old report stays what it was")
	page := v.Page(path + "/moved")
	assert.Contains(t, page, "9.3 L of 2026-11-29")
	status, _, header := v.Post(path+"/moved", formTo(t, page, path+"/moved"))
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.Page(header.Get("Location")), movedOn)
	assert.Regexp(t, shown, v.Page(path+"/fills"))
	assert.Contains(t, v.Page(path+"/moved"), "has all that is known")
}

// TestAFormOverWhatMoved: typed in a plan that is behind, over what another trip has written, it
// is shown with both sides, and goes over that only when it is sent once more.
func TestAFormOverWhatMoved(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	other := tripOn(t, v, path, "Over the moor")
	status, _ := enter(t, v, other+"/sheet", "seat_height", "878 mm")
	require.Equal(t, http.StatusSeeOther, status)
	form := webtest.Form(v.Page(path + "/sheet"))
	form.Set("seat_height", "880 mm")
	form.Set("clearance", "241 mm")
	status, body, _ := v.Post(path+"/sheet", form)
	require.Equal(t, http.StatusConflict, status)
	assert.Regexp(t, `(?s)class="conflicts".*878 mm.*880 mm`, body)
	again := webtest.Form(body)
	assert.Equal(t, "880 mm", again.Get("seat_height"), "what was typed stands in the form")
	assert.Equal(t, "241 mm", again.Get("clearance"))
	assert.Equal(t, "878 mm", webtest.Form(v.Page(v.BikeOf(path)+"/sheet")).Get("seat_height"), "nothing was overwritten")
	status, _, _ = v.Post(path+"/sheet", again)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "880 mm", webtest.Form(v.Page(v.BikeOf(path)+"/sheet")).Get("seat_height"))

	// A choice of the bench does not touch the bike, so it is kept, however far that has moved on.
	before := v.Stored(path).Bike.SeatHeight
	status, _, _ = v.Post(path+"/choose", url.Values{"base": {webtest.Base(v.Page(path + "/tyres"))}, "try": {"mirrors:"}, "stage": {"tyres"}})
	assert.Less(t, status, 400)
	assert.Equal(t, before, v.Stored(path).Bike.SeatHeight)
}

// TestWhichIsIt: where plan and bike were both changed, bringing up to date asks, and what the rider
// says is so in both.
func TestWhichIsIt(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	other := tripOn(t, v, path, "Over the moor")
	for _, c := range [][4]string{{other, "kerb_mass", "177 kg", "measured"}, {path, "wheelbase", "1502 mm", "measured"}, {v.BikeOf(path), "wheelbase", "1510 mm", "maker"}} {
		form := webtest.Form(v.Page(c[0] + "/sheet"))
		form.Set(c[1], c[2])
		form.Set("origin", c[3])
		status, _, _ := v.Post(c[0]+"/sheet", form)
		require.Equal(t, http.StatusSeeOther, status, c)
	}
	form := formTo(t, v.Page(path+"/moved"), path+"/moved")
	require.Equal(t, "bike", form.Get("keep.bike/wheelbase"))
	assert.False(t, form.Has("keep.bike/kerb_mass"), "what nobody else has changed is not asked")
	form.Set("keep.bike/wheelbase", "plan")
	status, _, _ := v.Post(path+"/moved", form)
	require.Equal(t, http.StatusSeeOther, status)
	for _, at := range []string{path, v.BikeOf(path)} {
		sheet := webtest.Form(v.Page(at + "/sheet"))
		assert.Equal(t, "1502 mm", sheet.Get("wheelbase"), at)
		assert.Equal(t, "177 kg", sheet.Get("kerb_mass"), at)
	}
	assert.EqualValues(t, "measured", v.Stored(path).Bike.OriginOf("wheelbase"), "where it comes from goes along with it")
}

// TestOneMachineOrTwo: a plan gets a bike of its own, and two are made one again.
func TestOneMachineOrTwo(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	first := v.BikeOf(path)
	other := tripOn(t, v, path, "On its twin")
	status, _ := enter(t, v, path+"/sheet", "odometer", "30000 km")
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = v.Post(other+"/apart", formTo(t, v.Page(other+"/moved"), other+"/apart"))
	require.Equal(t, http.StatusSeeOther, status)
	second := v.BikeOf(other)
	require.NotEqual(t, first, second)
	assert.Equal(t, "23400 km", v.Stored(other).Bike.Odometer.String())
	assert.Contains(t, v.Page("/garage"), second)
	few := store.UsualQuotas
	few.Readings = 0
	s.Store.Limit(few)
	status, body, _ := v.Post(path+"/fills/revoke", url.Values{"of": {v.Stored(path).Readings[1].ID}})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "holds no more readings", "a full log says so, whoever writes to it")
	s.Store.Limit(store.UsualQuotas)
	status, _, _ = v.Post(second+"/join", url.Values{"into": {strings.TrimPrefix(second, "/bikes/")}})
	assert.Equal(t, http.StatusNotFound, status, "it is that one")
	status, _, _ = v.Post(second+"/join", url.Values{"into": {strings.TrimPrefix(first, "/bikes/")}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, first, v.BikeOf(other))
	assert.Contains(t, v.Page(other+"/brief"), movedOn)
}

// TestKeepingBikes: put aside and back; thrown away once that is said twice, with its trips; brought
// back.
func TestKeepingBikes(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	bike := v.BikeOf(path)
	v.Post(bike+"/held", url.Values{"base": {webtest.Base(v.Page(bike))}, "held": {"another"}})
	assert.Contains(t, v.Page("/garage"), "Somebody else")
	v.Post(bike+"/archive", nil)
	assert.Contains(t, v.Page(bike), "put aside")
	assert.NotContains(t, v.Page("/garage"), path+"/brief", "its trips are folded away with it")
	assert.Contains(t, v.Page("/garage"), bike)
	v.Post(bike+"/archive", url.Values{"back": {"1"}})
	status, body, _ := v.Post(bike+"/remove", nil)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `2 trips and \d+ readings off it`, body)
	status, _, _ = v.Get(path + "/brief")
	require.Equal(t, http.StatusOK, status)
	v.Post(bike+"/remove", url.Values{"sure": {"on"}})
	status, _, _ = v.Get(path + "/brief")
	require.Equal(t, http.StatusNotFound, status)
	assert.Contains(t, v.Page("/garage"), "The bike Holt 650 Drover")
	v.Post("/garage/recover", url.Values{"plan": {strings.TrimPrefix(bike, "/bikes/")}})
	assert.Equal(t, bike, v.BikeOf(path))
}

// TestBesideOneAnother: the same brief on another bike stands beside this one, and nothing of this
// one's parts, settings or findings goes onto it.
func TestBesideOneAnother(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/bike?bike=fennick-300")
	assert.Contains(t, page, `id="beside"`)
	status, _, header := v.Post(path+"/beside", url.Values{"bike": {"fennick-300"}})
	require.Equal(t, http.StatusSeeOther, status)
	side := header.Get("Location")
	assert.Regexp(t, `(?s)Holt 650 Drover.*Fennick 300 Trail`, v.Page(side))
	p := v.Stored(regexp.MustCompile(`/plans/[A-Z0-9]+`).FindString(side))
	assert.Empty(t, p.Lines)
	assert.True(t, p.Baseline.IsZero())
	assert.Equal(t, v.Stored(path).Brief, p.Brief)
	assert.Equal(t, len(v.Stored(path).Loadouts), len(p.Loadouts))
}

// TestBikeFile: a bike with all that was read off it leaves as a file and comes back the same; a
// broken one is refused by its place.
func TestBikeFile(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	status, file, header := v.Get(v.BikeOf(path) + "/export")
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, header.Get("Content-Disposition"), "holt-650-drover.bike.json")
	bike, err := format.ReadBike(strings.NewReader(file))
	require.NoError(t, err)
	assert.NotEmpty(t, bike.Readings)
	assert.Equal(t, v.Stored(path).Machine, bike.Machine)
	status, _, header = v.Upload("/garage/import", "holt.bike.json", []byte(file))
	require.Equal(t, http.StatusSeeOther, status)
	_, again, _ := v.Get(header.Get("Location") + "/export")
	assert.Equal(t, file, again)
	status, body, _ := v.Upload("/garage/import", "holt.bike.json", []byte(strings.Replace(file, `"kerb_mass": "176 kg"`, `"kerb_mass": "9 kg"`, 1)))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "bike.kerb_mass")
}

// TestBeforeBuying: ten answers and a walk around a bike make what to offer at most for it, for a
// trip; by one step it is the rider's own, or forgotten.
func TestBeforeBuying(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	status, body, _ := v.Post("/buying", url.Values{"year": {"old"}, "asking": {"much"}, "displacement": {"nearly 400"}})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="nearly 400"`)
	assert.GreaterOrEqual(t, strings.Count(body, `class="error"`), 4, "each by its field")
	status, _, header := v.Post("/buying", url.Values{
		"name": {"Marrow 400"}, "class": {"dual-sport"}, "displacement": {"398 cc"}, "odometer": {"31200"}, "final": {"chain"}, "asking": {"2950 EUR"},
	})
	require.Equal(t, http.StatusSeeOther, status)
	at, _, _ := strings.Cut(header.Get("Location"), "?")
	bike := strings.TrimSuffix(at, "/buying")
	offer := func() string {
		page := v.Page(at + "?trip=" + strings.TrimPrefix(path, "/plans/"))
		return regexp.MustCompile(`id="offer">([^<]*)<`).FindStringSubmatch(page)[1]
	}
	page := v.Page(at)
	assert.Regexp(t, `(?s)Marrow 400.*Holt 650 Drover`, page, "beside the bike that one has")
	first := offer()
	assert.Regexp(t, `^€[\d,]+$`, first)
	status, _, _ = v.Post(bike+"/baseline/answer", url.Values{"check": {"head-bearings"}, "verdict": {"do"}, "cost": {"300"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotEqual(t, first, offer(), "what is due comes off")
	form := formTo(t, v.Page(at), at)
	form.Set("worth", "400 EUR")
	_, _, header = v.Post(at, form)
	assert.Contains(t, header.Get("Location"), "trip="+form.Get("trip"), "the trip stays that was looked at")
	require.NotEmpty(t, form.Get("trip"))
	assert.Equal(t, "nothing", offer(), "worth less than making it ready")

	v.Post(bike+"/bought", url.Values{"base": {webtest.Base(v.Page(at))}})
	assert.NotContains(t, v.Page("/garage"), bike+"/buying", "it is one of the garage")
	assert.Contains(t, v.Page("/garage"), bike)
	status, _, _ = v.Post(bike+"/forget", nil)
	assert.Equal(t, http.StatusNotFound, status, "which is not thrown away unasked")
	looked := regexp.MustCompile(`/bikes/[A-Z0-9]+/buying`).FindString(v.Page("/garage"))
	require.NotEmpty(t, looked, "the demo's")
	v.Post(strings.TrimSuffix(looked, "/buying")+"/forget", url.Values{"base": {webtest.Base(v.Page(looked))}})
	assert.NotContains(t, v.Page("/garage"), looked)
}

// TestWhoRides: a new trip begins with the rider's own measures, as they said them last; a loadout
// that somebody else rides is judged by theirs, and changes the rider's nothing.
func TestWhoRides(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	status, _ := enter(t, v, path+"/brief", "inseam", "820 mm")
	require.Equal(t, http.StatusSeeOther, status)
	other := tripOn(t, v, path, "Over the moor")
	assert.Equal(t, "820 mm", webtest.Form(v.Page(other+"/brief")).Get("inseam"))

	reach := webtest.Gauge(v.Page(path+"/brief?loadout=travel"), "seat-reach")
	form := webtest.Form(v.Page(path + "/loadouts"))
	form.Set("by_inseam.0", "70 cm")
	form.Set("by_rider.0", "heavy")
	status, body, _ := v.Post(path+"/loadouts", form)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="heavy"`)
	form.Set("by_rider.0", "62 kg")
	form.Set("by_sole.0", "30 mm")
	status, _, _ = v.Post(path+"/loadouts", form)
	require.Equal(t, http.StatusSeeOther, status)
	p := v.Stored(path)
	require.NotNil(t, p.Loadouts[0].By)
	assert.InDelta(t, 700, p.Loadouts[0].By.Inseam.In("mm"), 1e-6)
	assert.Equal(t, "820 mm", p.Brief.Inseam.String())
	assert.Equal(t, reach, webtest.Gauge(v.Page(path+"/brief?loadout=travel"), "seat-reach"), "the other loadout is the rider's")
	assert.NotEqual(t, reach, webtest.Gauge(v.Page(path+"/brief?loadout=trail-day"), "seat-reach"))
}
