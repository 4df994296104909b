package log_test

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"os/exec"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/referee"
	"valiantmule/internal/web/webtest"
)

// fields are all that the form sends, empty but for some.
func fields(some ...string) url.Values {
	form := url.Values{}
	day := &logbook.Day{}
	for _, f := range day.Fields() {
		form.Set(f.Key, "")
	}
	for _, t := range day.Texts() {
		form.Set(t.Key, "")
	}
	form.Set("by", "trip-meter")
	for i := 0; i < len(some); i += 2 {
		form.Set(some[i], some[i+1])
	}
	return form
}

// TestThreeFields: a day is distance, fuel, what broke; sent twice it is one; revoked it is gone from the way.
func TestThreeFields(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := path + "/log?loadout=travel"
	form := fields("id", "DAYAAAAAAAAAAAAAAAAAAAAAAA", "on", "2027-05-15", "distance", "212", "litres", "9,4", "broke", "a mirror")
	for range 2 {
		status, body, _ := v.Post(page, form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	days := v.Stored(path).ReadingsOf(logbook.DayRidden)
	require.Len(t, days, 1)
	day := days[0].Day()
	assert.InDelta(t, 212, day.ShownKm(), 1e-9)
	assert.Equal(t, v.Stored(path).Trip, day.Trip)
	assert.False(t, day.SlowFalls.Known(), "what nobody said is not none")
	body := v.Page(page)
	assert.Contains(t, body, "a mirror")
	assert.Contains(t, body, "9.4\u00a0L")
	status, _, _ := v.Post(path+"/log/revoke?loadout=travel", url.Values{"of": {days[0].ID}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.Page(page), "a mirror")
}

// TestByOdometer: the evening's odometer alone is a distance, once there is one to count from.
func TestByOdometer(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := path + "/log?loadout=travel"
	status, body, _ := v.Post(page, fields("on", "2027-05-15", "odometer", "24000"))
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "give the distance once")
	assert.Contains(t, body, `value="24000"`, "what was typed stays")
	for _, form := range []url.Values{fields("on", "2027-05-15", "odometer", "24000", "distance", "180"), fields("on", "2027-05-16", "odometer", "24231.5")} {
		status, body, _ = v.Post(page, form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	twice := fields("on", "2027-05-16", "odometer", "24231.5")
	twice.Set("id", v.Stored(path).ReadingsOf(logbook.DayRidden)[1].ID)
	status, _, _ = v.Post(page, twice)
	require.Equal(t, http.StatusSeeOther, status, "the answer was lost, and it is sent again")
	days := v.Stored(path).ReadingsOf(logbook.DayRidden)
	require.Len(t, days, 2)
	assert.InDelta(t, 231.5, days[1].Day().ShownKm(), 1e-9)
	assert.Equal(t, logbook.ByOdometer, days[1].Day().By)
	status, body, _ = v.Post(page, fields("on", "2027-05-17", "odometer", "100"))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "less than on the day before")
}

// TestWrongDays: each fault by its field, and nothing in the log.
func TestWrongDays(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	for name, form := range map[string]url.Values{
		"nothing": fields("on", "2027-05-15"), "no distance": fields("on", "2027-05-15", "distance", "far"), "beyond a day": fields("on", "2027-05-15", "distance", "9999"),
		"half a fall": fields("on", "2027-05-15", "distance", "100", "slow_falls", "1.5"), "no day": fields("on", "2027-02-31", "distance", "100"),
		"too long a word": fields("on", "2027-05-15", "distance", "100", "broke", strings.Repeat("x", 10_000)),
	} {
		status, body, _ := v.Post(path+"/log?loadout=travel", form)
		assert.Equal(t, http.StatusUnprocessableEntity, status, name)
		assert.True(t, strings.Contains(body, `class="error"`) || strings.Contains(body, `role="alert"`), name)
	}
	assert.Empty(t, v.Stored(path).ReadingsOf(logbook.DayRidden))
}

// TestTrackOfTheDay: a track's length goes into the form; a file that is none is refused with its name.
func TestTrackOfTheDay(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	// One minute of arc along a meridian is a nautical mile, 1852 m, to within the Earth's flattening.
	const gpx = `<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="t"><trk><trkseg><trkpt lat="45" lon="7"/><trkpt lat="45.5" lon="7"/><trkpt lat="46" lon="7"/></trkseg></trk></gpx>`
	status, body, _ := v.Upload(path+"/log/track?loadout=travel", "day.gpx", []byte(gpx))
	require.Equal(t, http.StatusOK, status)
	assert.Regexp(t, `name="distance" value="111.\d"`, body)
	assert.Contains(t, body, `<option value="gps" selected>`)
	status, body, _ = v.Upload(path+"/log/track?loadout=travel", "day.gpx", []byte("not a track"))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "day.gpx")
	assert.Empty(t, v.Stored(path).ReadingsOf(logbook.DayRidden), "nothing is kept by it")
}

// TestVoltsOfADay are the alternator's too, once, before and after stand beside each other, and go with the day.
func TestVoltsOfADay(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := path + "/log?loadout=travel"
	margin := func() string { return webtest.Gauge(v.Page(page), "charge-margin") }
	was, had := margin(), len(v.Stored(path).ReadingsOf(logbook.VoltsRead))
	form := fields("on", "2027-05-15", "distance", "140", "volts", "12.4")
	form.Set("id", strings.Repeat("V", 26))
	for range 2 {
		status, body, _ := v.Post(page, form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	read := v.Stored(path).ReadingsOf(logbook.VoltsRead)
	require.Len(t, read, had+1)
	assert.InDelta(t, 12.4, read[had].Volts().AllOn.In("V"), 1e-9)
	assert.Positive(t, read[had].Volts().AllOnW.In("W"), "by what was drawn then")
	assert.NotEqual(t, was, margin())
	assert.Regexp(t, `(?s)What the days taught.*<th scope="row">Charging`, v.Page(page))
	status, _, _ := v.Post(path+"/log/revoke?loadout=travel", url.Values{"of": {strings.Repeat("V", 26)}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, was, margin())
	assert.Len(t, v.Stored(path).ReadingsOf(logbook.VoltsRead), had)
}

// TestDaysOfATrack: a recording of several days gives one after the other, of the sun's days; gpsbabel's rewriting of it in
// either version reads the same, and gpxpy finds the same lengths within what a sphere differs from the ellipsoid.
func TestDaysOfATrack(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	// Three mornings at 150 degrees east: of each the first hours are still the day before in UTC.
	var text strings.Builder
	text.WriteString(`<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="t"><trk><name>Three days</name>`)
	for day := range 3 {
		text.WriteString("<trkseg>")
		start := time.Date(2027, 5, 14+day, 21, 30, 0, 0, time.UTC)
		for i := range 200 {
			lat, lon := -30+0.005*float64(i)+0.3*float64(day), 150+0.02*math.Sin(float64(i)/9)*float64(day+1)
			fmt.Fprintf(&text, `<trkpt lat="%.6f" lon="%.6f"><ele>300</ele><time>%s</time></trkpt>`, lat, lon, start.Add(time.Duration(i)*time.Minute).Format(time.RFC3339))
		}
		text.WriteString("</trkseg>")
	}
	text.WriteString("</trk></gpx>")
	python := exec.Command(referee.Module(t, "gpxpy", "python3-gpxpy"), "-c", "import sys, gpxpy\nfor s in gpxpy.parse(sys.stdin).tracks[0].segments: print(s.length_2d() / 1000)")
	python.Stdin = strings.NewReader(text.String())
	out, err := python.Output()
	require.NoError(t, err)
	lengths := strings.Fields(string(out))
	require.Len(t, lengths, 3)

	day := regexp.MustCompile(`name="on" value="([^"]*)"`)
	distance := regexp.MustCompile(`name="distance" value="([^"]*)"`)
	for i, version := range []string{"1.0", "1.1", ""} {
		file := []byte(text.String())
		if version != "" {
			babel := exec.Command(referee.Program(t, "gpsbabel", "gpsbabel"), "-i", "gpx", "-f", "-", "-o", "gpx,gpxver="+version, "-F", "-")
			babel.Stdin = strings.NewReader(text.String())
			file, err = babel.Output()
			require.NoError(t, err)
		}
		status, body, _ := v.Upload(path+"/log/track?loadout=travel", "tour.gpx", file)
		require.Equal(t, http.StatusOK, status)
		assert.Contains(t, body, "3 days in it")
		assert.Equal(t, fmt.Sprintf("2027-05-%d", 15+i), day.FindStringSubmatch(body)[1], "the first that is not written down yet")
		km, err := strconv.ParseFloat(distance.FindStringSubmatch(body)[1], 64)
		require.NoError(t, err)
		theirs, err := strconv.ParseFloat(lengths[i], 64)
		require.NoError(t, err)
		assert.InEpsilon(t, theirs, km, 0.005)
		status, body, _ = v.Post(path+"/log?loadout=travel", fields("on", day.FindStringSubmatch(body)[1], "distance", distance.FindStringSubmatch(body)[1], "by", "gps"))
		require.Equal(t, http.StatusSeeOther, status, body)
	}
}

// TestForetold: with the first day of a trip what is expected is kept, once, with the program that said so; the days stand
// beside it.
func TestForetold(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := path + "/log?loadout=travel"
	days := []url.Values{
		fields("on", "2027-05-15", "distance", "200", "tread_rear", "9"),
		fields("on", "2027-05-16", "distance", "250", "litres", "9.8", "full", "on"),
		fields("on", "2027-05-17", "distance", "300", "litres", "12", "full", "on", "tread_rear", "7.5"),
	}
	for _, day := range days {
		status, body, _ := v.Post(page, day)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	kept := v.Stored(path).ReadingsOf(logbook.Foretelling)
	require.Len(t, kept, 1)
	f := kept[0].Forecast()
	assert.NotEmpty(t, f.By)
	life, ok := f.Of("rear-life")
	require.True(t, ok)
	assert.Less(t, life.Low, life.High)
	body := v.Page(page)
	assert.Contains(t, body, "At departure, and as it came")
	assert.Contains(t, body, "from brim to brim")
	// 12 L over the 300 km from the second brim to the third.
	assert.Regexp(t, `4\.0.L/100 km`, body)
	// 1.5 mm in 550 km, 5.9 mm above the least left at 750 km: 750 + 5.9 / (1.5/550).
	assert.Regexp(t, `2900.km`, body)
}
