package ready_test

import (
	"encoding/csv"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/referee"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

// line is the plan's line of a slot, and its key.
func line(p *plan.Plan, slot parts.Slot) (*plan.Line, string) {
	for i, key := range p.LineKeys() {
		if l := &p.Lines[i]; l.Part != nil && l.Part.Slot == slot {
			return l, key
		}
	}
	return nil, ""
}

// TestWhatHappensToAnOrder: ordered, a week later, the wrong one, and here; each is one form, and what is here is a
// thing of the rider's.
func TestWhatHappensToAnOrder(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	act := func(does string, slot parts.Slot) *plan.Line {
		p := s.Newest(t, demo.Rider)
		_, key := line(p, slot)
		status, page, _ := v.Post(path+"/ready/act?loadout=travel", url.Values{"act": {does}, "line": {key}, "base": {base(t, v.Page(path+"/ready?loadout=travel"))}})
		require.Equal(t, http.StatusSeeOther, status, page)
		l, _ := line(s.Newest(t, demo.Rider), slot)
		return l
	}
	today := desk.Today()
	l := act("ordered", parts.SkidPlate)
	assert.Equal(t, plan.Ordered, l.Decision)
	assert.Equal(t, today, l.Supply.Ordered)
	l = act("slip", parts.SkidPlate)
	day, _ := calendar.ParseDay(today)
	assert.Equal(t, (day + 28 + 7).String(), l.Supply.Promised, "a week after the day on which it was to come")
	l = act("wrong", parts.SkidPlate)
	assert.Equal(t, today, l.Supply.Wrong)
	assert.Empty(t, l.Supply.Promised)
	assert.Contains(t, v.Page(path+"/ready?loadout=travel"), "the wrong one came on "+today)
	l = act("came", parts.SkidPlate)
	assert.Equal(t, plan.Owned, l.Decision)
	assert.NotEmpty(t, l.Thing, "it is a thing from now on")

	status, _, _ := v.Post(path+"/ready/act?loadout=travel", url.Values{"act": {"came"}, "line": {"nothing of the plan"}, "base": {base(t, v.Page(path+"/ready?loadout=travel"))}})
	assert.Equal(t, http.StatusConflict, status)
}

var baseOf = regexp.MustCompile(`name="base" value="([^"]+)"`)

// base is the revision that a page's forms send along.
func base(t *testing.T, page string) string {
	m := baseOf.FindStringSubmatch(page)
	require.NotNil(t, m)
	return m[1]
}

// TestHowItComes: what is typed of one line is kept, what cannot be is said by its field and what was typed stays.
func TestHowItComes(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	_, key := line(s.Newest(t, demo.Rider), parts.RearTyre)
	open := path + "/ready?loadout=travel&line=" + url.QueryEscape(key)
	page := v.Page(open)
	assert.Contains(t, page, "Axle nut as the manual says")
	form := url.Values{"line": {key}, "base": {base(t, page)}, "seller": {"The shed down the lane"}, "from": {"near"}, "likely": {"9"}, "low": {"5"}, "high": {"20"}, "by": {""}, "left": {"600 km"}, "ordered": {"soon"}}
	status, page, _ := v.Post(path+"/ready?loadout=travel", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "soon")
	assert.Contains(t, page, "The shed down the lane")
	form.Set("ordered", "")
	form.Set("low", "30")
	status, page, _ = v.Post(path+"/ready?loadout=travel", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "not in order")
	form.Set("low", "5")
	status, _, _ = v.Post(path+"/ready?loadout=travel", form)
	assert.Equal(t, http.StatusSeeOther, status)
	l, _ := line(s.Newest(t, demo.Rider), parts.RearTyre)
	assert.Equal(t, "The shed down the lane", l.Supply.Seller)
	assert.InDelta(t, 20, l.Supply.Lead.High.In("d"), 1e-9)
	assert.False(t, l.Supply.UseUp, "its box was not ticked")
	assert.Contains(t, v.Page(path+"/ready?loadout=travel"), "The shed down the lane")
}

// TestThreeWeeks: a rider who says one number is served.
func TestThreeWeeks(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	b := base(t, v.Page(path+"/ready?loadout=travel"))
	status, page, _ := v.Post(path+"/ready/leave?loadout=travel", url.Values{"leave": {"when the snow melts"}, "base": {b}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "three weeks")
	status, _, _ = v.Post(path+"/ready/leave?loadout=travel", url.Values{"leave": {"three weeks"}, "base": {b}})
	assert.Equal(t, http.StatusSeeOther, status)
	today, _ := calendar.ParseDay(desk.Today())
	assert.Equal(t, (today + 21).String(), s.Newest(t, demo.Rider).Brief.Start)
	page = v.Page(path + "/ready?loadout=travel")
	assert.Contains(t, page, "holds it up")
	assert.Contains(t, page, "Meanwhile: ", "what cannot come has something meanwhile")
	assert.Contains(t, page, "Leave on ")
}

// TestWays: each way out lies on the bench with all gauges, and is taken by the bench's form.
func TestWays(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	b := base(t, v.Page(path+"/ready?loadout=travel"))
	v.Post(path+"/ready/leave?loadout=travel", url.Values{"leave": {"2 weeks"}, "base": {b}})
	page := v.Page(path + "/ready?loadout=travel")
	_, key := line(s.Newest(t, demo.Rider), parts.SkidPlate)
	for _, way := range []string{"express|", "stock|", "interim|", "after|", "leave|", "workshop|"} {
		assert.Contains(t, page, url.QueryEscape(way+key), way)
	}
	value := "interim|" + key
	page = v.Page(path + "/ready?loadout=travel&way=" + url.QueryEscape(value))
	assert.Contains(t, page, `data-gauge="ready-date"`)
	assert.Contains(t, page, "Do it so")
	status, _, _ := v.Post(path+"/choose?loadout=travel", url.Values{"way": {value}, "base": {base(t, page)}, "stage": {"ready"}})
	assert.Equal(t, http.StatusSeeOther, status)
	l, _ := line(s.Newest(t, demo.Rider), parts.SkidPlate)
	assert.Equal(t, plan.NotUntil, l.Decision)
	assert.Contains(t, l.Why, "meanwhile")
	for _, none := range []string{"interim|nothing", "leave", "start|soon", "together|nobody", "seller|" + key + "|nobody"} {
		status, _, _ := v.Get(path + "/ready?loadout=travel&way=" + url.QueryEscape(none))
		assert.Equal(t, http.StatusOK, status, none)
	}
}

// TestOrderOfTheWork: a job put before another lies on the bench and is kept in the plan; done, it is off the list.
func TestOrderOfTheWork(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	value := "own/spare-keys|right/oil"
	page := v.Page(path + "/days?loadout=travel&job=" + url.QueryEscape(value))
	assert.Contains(t, page, "Keep this order")
	status, _, _ := v.Post(path+"/choose?loadout=travel", url.Values{"job": {value}, "base": {base(t, page)}, "stage": {"days"}})
	require.Equal(t, http.StatusSeeOther, status)
	order := s.Newest(t, demo.Rider).Ready.Order
	assert.Less(t, slices.Index(order, "own/spare-keys"), slices.Index(order, "right/oil"))

	page = v.Page(path + "/days?loadout=travel")
	status, _, _ = v.Post(path+"/days/done?loadout=travel", url.Values{"job": {"own/spare-keys"}, "base": {base(t, page)}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotEmpty(t, s.Newest(t, demo.Rider).Ready.DoneOn("own/spare-keys"))
	page = v.Page(path + "/days?loadout=travel")
	status, _, _ = v.Post(path+"/days/again?loadout=travel", url.Values{"job": {"own/spare-keys"}, "base": {base(t, page)}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Empty(t, s.Newest(t, demo.Rider).Ready.Done)

	page = v.Page(path + "/days?loadout=travel")
	status, _, _ = v.Post(path+"/days/done?loadout=travel", url.Values{"job": {"fit/hand-guards."}, "base": {base(t, page)}})
	require.Equal(t, http.StatusSeeOther, status)
	l, _ := line(s.Newest(t, demo.Rider), parts.HandGuards)
	assert.Equal(t, plan.OnTheBike, l.Decision, "what was fitted is on the bike")
	page = v.Page(path + "/days?loadout=travel")
	status, _, _ = v.Post(path+"/days/lost?loadout=travel", url.Values{"day": {"2026-12-06"}, "base": {base(t, page)}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, s.Newest(t, demo.Rider).Ready.Away, plan.Span{From: "2026-12-06", Why: "lost"})
}

// TestHours: rows are kept, taken out, and refused by their own row.
func TestHours(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/time?loadout=travel")
	form := webtest.Form(page)
	form.Set("hours_a_week", "10")
	form.Set("away_from.2", "2027-04-10")
	form.Set("away_to.2", "2027-04-02")
	form.Set("own_job.1", "Fetch the visa")
	form.Set("own_takes.1", "6")
	form.Set("own_kind.1", "wait")
	status, page, _ := v.Post(path+"/time?loadout=travel", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "no days one after the other")
	assert.Contains(t, page, "Fetch the visa")
	form.Set("away_to.2", "2027-04-12")
	form.Set("out_away.0", "on")
	status, _, _ = v.Post(path+"/time?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status)
	r := s.Newest(t, demo.Rider).Ready
	assert.Equal(t, []plan.Span{{From: "2027-03-06", To: "2027-03-14", Why: "the other job"}, {From: "2027-04-10", To: "2027-04-12"}}, r.Away)
	require.Len(t, r.Jobs, 2)
	assert.InDelta(t, 6, r.Jobs[1].Takes.In("d"), 1e-9, "a wait is typed in days")
	assert.Equal(t, "10 h", r.Weekly.String())
	assert.Len(t, r.Sellers, 4)
	assert.Equal(t, "works holiday", r.Sellers[0].Closed[0].Why, "what was noted stays")
}

// TestFiles: the calendar is read by python3-icalendar with the same ids twice, and the orders by Python's csv and by LibreOffice.
func TestFiles(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	status, text, header := v.Get(path + "/days.ics?loadout=travel")
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, header.Get("Content-Type"), "text/calendar")
	_, twice, _ := v.Get(path + "/days.ics?loadout=travel")
	assert.Equal(t, text, twice)
	dir := t.TempDir()
	file := filepath.Join(dir, "days.ics")
	require.NoError(t, os.WriteFile(file, []byte(text), 0o600))
	python := referee.Module(t, "icalendar", "python3-icalendar")
	out, err := exec.Command(python, "-c", `
import icalendar, sys
cal = icalendar.Calendar.from_ical(open(sys.argv[1], 'rb').read())
ids = set()
for e in cal.walk('VEVENT'):
    ids.add(str(e['UID']))
    print(e['DTSTART'].dt.isoformat(), e['DTEND'].dt.isoformat(), e['SUMMARY'], sep='\t')
assert len(ids) == len(cal.walk('VEVENT')), 'ids are doubled'
`, file).CombinedOutput()
	require.NoError(t, err, "%s", out)
	assert.Contains(t, string(out), "2027-05-14\t2027-05-15\tDeparture: The salt-pan loop")
	assert.Contains(t, string(out), "Order at the latest: Skid plate, 4 mm aluminium, Holt 650")

	_, table, _ := v.Get(path + "/orders.csv?loadout=travel")
	rows, err := csv.NewReader(strings.NewReader(table)).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, "seller", rows[0][0])
	require.Greater(t, len(rows), 8)
	file = filepath.Join(dir, "orders.csv")
	require.NoError(t, os.WriteFile(file, []byte(table), 0o600))
	out, err = exec.Command(python, "-c", `
import csv, sys, datetime
rows = list(csv.DictReader(open(sys.argv[1], newline='', encoding='utf-8')))
for r in rows:
    datetime.date.fromisoformat(r['order by']); float(r['days']); float(r['days to spare'])
print(len(rows))
`, file).CombinedOutput()
	require.NoError(t, err, "%s", out)
	assert.Equal(t, strconv.Itoa(len(rows)-1), strings.TrimSpace(string(out)))

	office := referee.Program(t, "soffice", "libreoffice-calc-nogui")
	again := filepath.Join(dir, "again")
	out, err = exec.Command(office, "-env:UserInstallation=file://"+dir+"/home", "--headless", "--convert-to", "csv", "--outdir", again, file).CombinedOutput()
	require.NoError(t, err, "%s", out)
	read, err := os.ReadFile(filepath.Join(again, "orders.csv"))
	require.NoError(t, err)
	back, err := csv.NewReader(strings.NewReader(string(read))).ReadAll()
	require.NoError(t, err)
	require.Len(t, back, len(rows))
	for i := range rows {
		assert.Equal(t, rows[i][1], back[i][1], "the part as LibreOffice has it")
		assert.Equal(t, rows[i][6], back[i][6], "its days")
	}
}

// TestTypedDays: a day typed beside a line says how far it is.
func TestTypedDays(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	_, key := line(s.Newest(t, demo.Rider), parts.SkidPlate)
	form := url.Values{"line": {key}, "base": {base(t, v.Page(path+"/ready?loadout=travel"))}, "ordered": {"2026-11-20"}, "promised": {"2026-12-20"}}
	status, page, _ := v.Post(path+"/ready?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status, page)
	l, _ := line(s.Newest(t, demo.Rider), parts.SkidPlate)
	assert.Equal(t, plan.Ordered, l.Decision)
	assert.Contains(t, v.Page(path+"/ready?loadout=travel"), "promised for 2026-12-20")
}
