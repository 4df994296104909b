package ranging_test

import (
	"bytes"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/track"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/format/gpx"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

// tour is the demo's island as a file.
func tour(t testing.TB) []byte {
	t.Helper()
	parts, marks := demo.Island(60)
	var b bytes.Buffer
	require.NoError(t, gpx.Write(&b, gpx.File{Tracks: parts, Waypoints: marks}))
	return b.Bytes()
}

// TestShuttingAPump is tried by its address, kept by the bench's form, and undone.
func TestShuttingAPump(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/range?loadout=travel")
	assert.Equal(t, 7, strings.Count(page, `class="leg-run `))
	assert.Contains(t, page, "Brackwater to Upper Thole decides")
	page = v.Page(path + "/range?loadout=travel&pump=pump-3")
	assert.Equal(t, 6, strings.Count(page, `class="leg-run `), "two legs become one")
	assert.Contains(t, page, "Tansy Cross shut")
	assert.NotContains(t, v.Page(path+"/range?loadout=travel"), "Tansy Cross shut", "looking changes nothing")

	status, _, _ := v.Post(path+"/choose", url.Values{"base": {webtest.Base(page)}, "pump": {"pump-3"}, "stage": {"range"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.True(t, v.Stored(path).Route.Stops[2].Closed)
	page = v.Page(path + "/range?loadout=travel")
	assert.Equal(t, 6, strings.Count(page, `class="leg-run `))
	v.Post(path+"/undo", url.Values{"base": {webtest.Base(page)}})
	assert.False(t, v.Stored(path).Route.Stops[2].Closed)
	status, _, _ = v.Post(path+"/choose", url.Values{"base": {webtest.Base(page)}, "pump": {"nowhere"}})
	assert.Equal(t, http.StatusNotFound, status)
}

// TestCruiseAndReserve are kept from the range page; a mistake stays in its field.
func TestCruiseAndReserve(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/range")
	status, body, _ := v.Post(path+"/range", url.Values{"base": {webtest.Base(page)}, "cruise": {"fast"}, "reserve": {"10 %"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="fast"`)
	status, _, _ = v.Post(path+"/range", url.Values{"base": {webtest.Base(page)}, "cruise": {"95"}, "reserve": {"10"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "95 km/h", v.Stored(path).Brief.Cruise.String())
	assert.Equal(t, "10 %", v.Stored(path).Brief.Reserve.String())
	_, body, _ = v.Post(path+"/range/try?pump=pump-3", url.Values{"cruise": {"80"}, "reserve": {"0"}})
	assert.Contains(t, body, "Harrow Ford to Merrow Gap", "the slider and the shut pump go together")
}

// TestRouteForm: a stretch laid over others, a pump in between, and what is wrong
// beside its row.
func TestRouteForm(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	values := webtest.Form(v.Page(path + "/route"))
	next := strings.Count(v.Page(path+"/route"), `name="from.`) - 1
	row := func(name string, i int) string { return name + "." + strconv.Itoa(i) }
	values.Set(row("from", next), "30")
	values.Set(row("to", next), "20")
	values.Set(row("ground", next), "sand")
	status, body, _ := v.Post(path+"/route", values)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "is no stretch of the route")
	assert.Contains(t, body, `value="20"`, "what was typed stays")

	values.Set(row("to", next), "50 km")
	pump := strings.Count(body, `name="stop.`) - 1
	values.Set(row("stop", pump), "Farm at the bridge")
	values.Set(row("at", pump), "120")
	values.Set(row("detour", pump), "4")
	values.Set(row("certainty", pump), "unsure")
	status, body, _ = v.Post(path+"/route", values)
	require.Equal(t, http.StatusSeeOther, status, regexp.MustCompile(`class="error">[^<]*`).FindString(body))
	route := v.Stored(path).Route
	assert.Equal(t, "30 km", route.Ground[1].From.String())
	assert.Equal(t, "50 km", route.Ground[1].To.String())
	assert.Equal(t, "50 km", route.Ground[2].From.String(), "what it lay over goes on behind it")
	require.Len(t, route.Stops, 9)
	assert.Equal(t, "Farm at the bridge", route.Stops[2].Name, "pumps stand in the order of the way")
	assert.Equal(t, "4 km", route.Stops[2].Detour.String())
}

// TestRouteFile: a file comes in as a route with its pumps, goes out leg by leg, and
// what is no route is refused with why.
func TestRouteFile(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	for name, c := range map[string]struct{ content, says string }{
		"a picture":        {"\x89PNG\r\n", "was not taken"},
		"a document type":  {`<!DOCTYPE gpx [<!ENTITY x "y">]><gpx version="1.1"/>`, "document type"},
		"no way in it":     {`<gpx version="1.1"><wpt lat="1" lon="1"/></gpx>`, "looks like a pump"},
		"nothing at all":   {`<gpx version="1.1"></gpx>`, "neither a track nor a route"},
		"all at one place": {`<gpx version="1.1"><trk><trkseg><trkpt lat="1" lon="1"/><trkpt lat="1" lon="1"/></trkseg></trk></gpx>`, "one place"},
	} {
		status, body, _ := v.Upload(path+"/route/import", "x.gpx", []byte(c.content))
		assert.Equal(t, http.StatusUnprocessableEntity, status, name)
		assert.Contains(t, body, c.says, name)
	}
	status, body, _ := v.Post(path+"/route/import", nil)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "Choose a GPX file first")

	status, body, _ = v.Upload(path+"/route/import?loadout=travel", "tour.gpx", tour(t))
	require.Equal(t, http.StatusSeeOther, status, regexp.MustCompile(`class="error">[^<]*`).FindString(body))
	route := v.Stored(path).Route
	assert.InDelta(t, 749, route.LengthKm(), 8)
	require.Len(t, route.Stops, 8, "the summit is no pump")
	assert.Equal(t, plan.Unsure, route.Stops[0].Certainty, "nobody has said so")
	assert.Equal(t, "Tansy Cross", route.Stops[2].Name)
	assert.Empty(t, route.Ground)

	file, err := gpx.Read(strings.NewReader(v.Page(path + "/route.gpx")))
	require.NoError(t, err)
	require.Len(t, file.Tracks, 7)
	require.Len(t, file.Waypoints, 8)
	sum := 0.0
	for _, leg := range file.Tracks {
		sum += track.Measure(leg.Segments[0]).LengthKm()
	}
	assert.InDelta(t, route.LengthKm(), sum, 0.5, "the legs are the whole way")
	assert.Equal(t, "Fuel", file.Waypoints[0].Kind)

	page := v.Page(path + "/route")
	v.Post(path+"/undo", url.Values{"base": {webtest.Base(page)}})
	assert.NotEmpty(t, v.Stored(path).Route.Ground, "undo brings the route of before back")
	status, _, _ = v.Post(path+"/route/drop", url.Values{})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Nil(t, v.Stored(path).Route)
	assert.Contains(t, v.Page(path+"/range"), "There is no route yet")
	status, _, _ = v.Get(path + "/route.gpx")
	assert.Equal(t, http.StatusNotFound, status)
}

// northward is a way of so many steps of 1.1 km, there and back, with what marks there are.
func northward(t *testing.T, steps int, marks ...track.Waypoint) []byte {
	t.Helper()
	var out []track.Point
	for i := range steps {
		out = append(out, track.Point{Point: geo.Point{Lat: 40 + float64(i)/100, Lon: 5}, EleM: 100})
	}
	back := slices.Clone(out)
	slices.Reverse(back)
	var b bytes.Buffer
	require.NoError(t, gpx.Write(&b, gpx.File{Tracks: []track.Part{{Name: "There and back", Segments: [][]track.Point{append(out, back...)}}}, Waypoints: marks}))
	return b.Bytes()
}

func mark(name string, lat, lon float64) track.Waypoint {
	return track.Waypoint{Name: name, Point: track.Point{Point: geo.Point{Lat: lat, Lon: lon}, EleM: math.NaN()}}
}

// TestFillsAgainstTheSheet: what the page says of the sheet is against what the sheet leads to
// on the road, not against an engine without one.
func TestFillsAgainstTheSheet(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/fills?loadout=travel")
	times := regexp.MustCompile(`burns (\d\.\d+) times`).FindStringSubmatch(page)
	require.Len(t, times, 2)
	road, err := strconv.ParseFloat(times[1], 64)
	require.NoError(t, err)
	middle := regexp.MustCompile(`class="level" d="M[\d.]+ ([\d.]+)`).FindStringSubmatch(page)
	paper := regexp.MustCompile(`class="limit"[^>]* y1="([\d.]+)"`).FindStringSubmatch(page)
	require.Len(t, middle, 2)
	require.Len(t, paper, 2)
	assert.Equal(t, middle[1], paper[1], "the first guess is the sheet's")
	assert.InDelta(t, 1.05, road, 0.05, "the demo's fills are a little over the sheet")
}

// TestPumpsOfAFile: an out and back counts a pump twice, the rider hears what was left out,
// and a file of places only adds its pumps to the way that is there, once.
func TestPumpsOfAFile(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	v.Post(path+"/route/drop", url.Values{})
	pumps := bytes.Replace(northward(t, 2, mark("Fuel at the ford", 40.3, 5)), []byte("<trk>"), []byte("<!--"), 1)
	pumps = bytes.Replace(pumps, []byte("</trk>"), []byte("-->"), 1)
	status, body, _ := v.Upload(path+"/route/import", "pumps.gpx", pumps)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "marked places only")

	file := northward(t, 100, mark("Fuel, mill", 40.5, 5.002), mark("Summit", 40.6, 5), mark("Fuel, far off", 40.5, 6))
	status, _, header := v.Upload(path+"/route/import", "tour.gpx", file)
	require.Equal(t, http.StatusSeeOther, status)
	route := v.Stored(path).Route
	require.Len(t, route.Stops, 2)
	assert.InDelta(t, route.LengthKm(), route.Stops[0].At.In("km")+route.Stops[1].At.In("km"), 0.5, "on the way out and on the way back")
	page := v.Page(header.Get("Location"))
	says := regexp.MustCompile(`Left out of the file: [^<]*`).FindString(page)
	assert.Contains(t, says, "marked places that do not look like pumps, 1")
	assert.Contains(t, says, "off the way, 1")

	status, _, _ = v.Upload(path+"/route/import", "pumps.gpx", pumps)
	require.Equal(t, http.StatusSeeOther, status)
	require.Len(t, v.Stored(path).Route.Stops, 4)
	status, body, _ = v.Upload(path+"/route/import", "pumps.gpx", pumps)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "not there already")
	assert.Len(t, v.Stored(path).Route.Stops, 4)
}

// TestSeveralTracks are joined; one of them can be the route by itself.
func TestSeveralTracks(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	parts, _ := demo.Island(500)
	segments := parts[0].Segments
	_, marks := demo.Island(500)
	var b bytes.Buffer
	require.NoError(t, gpx.Write(&b, gpx.File{Tracks: []track.Part{{Name: "Day 1", Segments: segments[:1]}, {Name: "Day 2", Segments: segments[1:]}}, Waypoints: marks}))
	v.Upload(path+"/route/import", "days.gpx", b.Bytes())
	whole := v.Stored(path).Route
	require.NotEmpty(t, whole.Stops)
	assert.Equal(t, "Day 1 and 1 more", whole.Name)
	page := v.Page(path + "/route")
	assert.Contains(t, page, "Day 2")
	status, _, _ := v.Post(path+"/route/part", url.Values{"part": {"1"}})
	require.Equal(t, http.StatusSeeOther, status)
	second := v.Stored(path).Route
	assert.Equal(t, "Day 2", second.Name)
	names := func(r *plan.Route) (names []string) {
		for _, s := range r.Stops {
			names = append(names, s.Name)
		}
		return names
	}
	require.NotEmpty(t, second.Stops, "a part keeps its pumps")
	assert.Subset(t, names(whole), names(second))
	assert.Less(t, len(second.Stops), len(whole.Stops))
	for _, s := range second.Stops {
		assert.LessOrEqual(t, s.At.In("km"), second.LengthKm()+0.1)
	}
	assert.Less(t, second.LengthKm(), 0.7*whole.LengthKm())
	v.Post(path+"/route/part", url.Values{"part": {"all"}})
	assert.InDelta(t, whole.LengthKm(), v.Stored(path).Route.LengthKm(), 1e-6)
}

// fill is one that can be written down.
func fill(odometer, litres string) url.Values {
	return url.Values{"on": {"2026-11-20"}, "litres": {litres}, "odometer": {odometer}, "by": {"gps"}, "on.paved": {"100"}}
}

// TestFillLog: fills are added once, revoked, refused with why; nothing of it is a
// revision.
func TestFillLog(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	before, history := len(v.Stored(path).ReadingsOf(logbook.FillReading)), v.Page(path+"/history")
	values := fill("23150", "9.6")
	values.Set("id", "AAAAAAAAAAAAAAAAAAAAAAAAAA")
	for range 2 {
		status, _, _ := v.Post(path+"/fills", values)
		require.Equal(t, http.StatusSeeOther, status)
	}
	readings := v.Stored(path).ReadingsOf(logbook.FillReading)
	require.Len(t, readings, before+1, "sent twice, kept once")
	assert.Equal(t, strings.Count(history, "history-what"), strings.Count(v.Page(path+"/history"), "history-what"), "a reading is no revision")

	for key, c := range map[string]struct{ value, says string }{
		"litres": {"lots", "lots"}, "on": {"tomorrow", "date like"}, "odometer": {"", "odometer, or the distance"}, "on.sand": {"50", "100 %"},
	} {
		wrong := fill("23350", "9")
		wrong.Set(key, c.value)
		wrong.Set("note", "kept as typed")
		status, body, _ := v.Post(path+"/fills", wrong)
		assert.Equal(t, http.StatusUnprocessableEntity, status, key)
		assert.Contains(t, body, c.says, key)
		assert.Contains(t, body, `value="kept as typed"`, key)
	}
	status, _, _ := v.Post(path+"/fills/revoke", url.Values{"of": {values.Get("id")}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Len(t, v.Stored(path).ReadingsOf(logbook.FillReading), before)
	assert.Contains(t, v.Page(path+"/fills"), "Revoked, and still in the log")
	status, _, _ = v.Post(path+"/fills/revoke", url.Values{"of": {"NOBODY"}})
	assert.Equal(t, http.StatusNotFound, status)
}

// TestFillsAsPlanned carry how the bike was loaded then.
func TestFillsAsPlanned(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	values := fill("23150", "12")
	values.Set("as", "travel")
	values.Set("cruise", "90")
	v.Post(path+"/fills", values)
	readings := v.Stored(path).Readings
	as := readings[len(readings)-1].Fill().As
	assert.Equal(t, "Travel", as.Name)
	assert.InDelta(t, 327.7-14*0.745/2, as.Mass.In("kg"), 0.1)
	assert.Equal(t, "90 km/h", as.Cruise.String())
}

// TestFillFile: nothing is taken before the rider has seen it, and only the good
// rows.
func TestFillFile(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	before := len(v.Stored(path).Readings)
	csv := "date;litres;odometer;paved\n12.11.2026;9,8;23150;100\n13.11.2026;-1;23200;100\n20.11.2026;10;23380;100\n"
	status, body, _ := v.Upload(path+"/fills/import", "log.csv", []byte(csv))
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, body, "Take the 2 good rows")
	assert.Contains(t, body, "outside 0–100 L")
	assert.Len(t, v.Stored(path).Readings, before, "a dry run")
	for _, want := range []string{"2 fills were taken", "in the log already"} {
		status, body, header := v.Post(path+"/fills/import", url.Values{"csv": {csv}, "take": {"good"}})
		if status == http.StatusSeeOther {
			body = v.Page(header.Get("Location"))
		}
		assert.Contains(t, body, want)
	}
	assert.Len(t, v.Stored(path).Readings, before+2)
	status, body, _ = v.Post(path+"/fills/import", url.Values{"csv": {"what,is,this\n"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `no column`)

	out := v.Page(path + "/fills.csv")
	status, body, _ = v.Post(path+"/fills/import", url.Values{"csv": {out}})
	assert.Equal(t, http.StatusOK, status)
	assert.NotContains(t, body, `name="take"`, "the log's own file brings nothing new")
}

// TestOthersStandBeside: a report moves no figure, a smaller range of the group
// does.
func TestOthersStandBeside(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	strip := func() string {
		return regexp.MustCompile(`(?s)data-gauge="range".*?</a>`).FindString(v.Page(path + "/others?loadout=travel"))
	}
	before := strip()
	values := webtest.Form(v.Page(path + "/others"))
	values.Set("uses.3", "9")
	status, body, _ := v.Post(path+"/others", values)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "without a source")
	values.Set("who.3", "A cousin")
	status, _, _ = v.Post(path+"/others", values)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, before, strip())
	values = webtest.Form(v.Page(path + "/others"))
	values.Set("range.0", "90 km")
	status, _, _ = v.Post(path+"/others", values)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, strip(), "90")
	assert.Contains(t, v.Page(path+"/range?loadout=travel"), "the group stops for the smaller tank")
}

// TestForeignFills: a file of another program is taken, and the plan can be saved and
// exported afterwards.
func TestForeignFills(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	file := "date,litres [L],odometer [km],id\n2027-05-01,11,31000,17\n2027-05-09,12,31200,18\n"
	status, page, _ := v.Upload(path+"/fills/import", "fills.csv", []byte(file))
	require.Equal(t, http.StatusOK, status)
	require.Contains(t, page, "good")
	status, _, _ = v.Post(path+"/fills/import", url.Values{"csv": {file}, "take": {"1"}})
	require.Equal(t, http.StatusSeeOther, status)
	_, log, _ := v.Get(path + "/fills.csv")
	_, page, _ = v.Upload(path+"/fills/import", "fills.csv", []byte(log))
	assert.NotContains(t, page, "another reading", "the log's own file is all there already")
	assert.Contains(t, page, "in the log already")
	first, rest, _ := strings.Cut(log, "\n")
	row, _, _ := strings.Cut(rest, "\n")
	cells := strings.Split(row, ",")
	cells[1] = "3.7"
	_, page, _ = v.Upload(path+"/fills/import", "fills.csv", []byte(first+"\n"+strings.Join(cells, ",")+"\n"))
	assert.Contains(t, page, "another reading under this id")
	form := webtest.Form(v.Page(path + "/brief"))
	form.Set("distance", "4321 km")
	status, _, _ = v.Post(path+"/brief", form)
	assert.Equal(t, http.StatusSeeOther, status)
	_, err := format.ReadPlan(strings.NewReader(v.Page(path + "/export")))
	assert.NoError(t, err, "the rider's own export is read back")
}

// TestManyFills are shown in pages, and a page that there is not is the last one.
func TestManyFills(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	var file strings.Builder
	file.WriteString("date,litres [L],odometer [km]\n")
	for i := range 120 {
		fmt.Fprintf(&file, "%s,%d,%d\n", time.Date(2027, 1, 1, 0, 0, 0, 0, time.UTC).AddDate(0, 0, i).Format(time.DateOnly), 10+i%3, 31000+220*i)
	}
	status, _, _ := v.Post(path+"/fills/import", url.Values{"csv": {file.String()}, "take": {"1"}})
	require.Equal(t, http.StatusSeeOther, status)
	rows := func(page string) int { return strings.Count(v.Page(path+"/fills?page="+page), "Revoke the fill of") }
	assert.Equal(t, 50, rows("1"))
	assert.Equal(t, 50, rows("2"))
	assert.Positive(t, rows("3"))
	assert.Equal(t, rows("3"), rows("99"))
	assert.Equal(t, 50, rows("none"))
	first := v.Page(path + "/fills")
	assert.Contains(t, first, "Older")
	assert.NotContains(t, first, ">Newer<")
	assert.LessOrEqual(t, strings.Count(first, `class="fill-dot"`), 21, "the drawing stays readable")
}

// TestTenMetres: a route of ten metres is a route, and comes back as a file.
func TestTenMetres(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	file := `<gpx version="1.1"><trk><name>Yard</name><trkseg><trkpt lat="41" lon="19"/><trkpt lat="41.00008" lon="19"/></trkseg></trk></gpx>`
	status, _, _ := v.Upload(path+"/route/import", "yard.gpx", []byte(file))
	require.Less(t, status, 500)
	if _, err := s.Store.DB().Exec(`DELETE FROM tracks`); err != nil { // as after a plan was imported
		require.NoError(t, err)
	}
	status, body, _ := v.Get(path + "/route.gpx")
	require.Less(t, status, 500)
	_, err := gpx.Read(strings.NewReader(body))
	assert.NoError(t, err)
}
