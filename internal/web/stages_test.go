package web_test

import (
	"net"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
)

// desktop is a window on the demo plan, at a page of it.
func (s *site) desktop(t *testing.T, page string) (*window, string) {
	t.Helper()
	_, path := s.demo(t)
	w := s.window(t)
	w.do(chromedp.EmulateViewport(1280, 800))
	w.open("/sign-in")
	w.follow("#demo")
	w.open(path + "/" + page)
	return w, path
}

func (w *window) click(selector string) {
	w.t.Helper()
	w.do(chromedp.Click(chromedp.CSS(selector)))
}

// TestWalkWithoutANetwork: answers by thumb; the server goes away in the middle,
// what is tapped meanwhile is kept, and is there once when it comes back.
func TestWalkWithoutANetwork(t *testing.T) {
	s := newSite(t)
	_, path := s.demo(t)
	w := s.window(t)
	w.expects = append(w.expects, "ERR_CONNECTION_REFUSED")
	w.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile, chromedp.EmulateTouch))
	w.open("/sign-in")
	w.follow("#demo")
	w.open(path + "/baseline?loadout=travel")
	verdict := func(check, verdict string) {
		w.do(chromedp.ScrollIntoView(chromedp.CSS("#check-"+check)), chromedp.Tap(chromedp.CSS("#check-"+check+" .verdict-"+verdict)))
	}
	answer := func(check string) (plan.Answer, bool) { return s.newest(t, demo.Rider).Baseline.Answer(check) }
	verdict("frame", "good")
	w.until(`document.querySelector('#check-frame.is-answered') !== null`)
	a, ok := answer("frame")
	require.True(t, ok)
	assert.Equal(t, baseline.Good, a.Verdict)

	address := s.Listener.Addr().String()
	s.Server.Close()
	verdict("bolts", "blocks")
	w.until(`!document.getElementById('unsent').hidden`)
	w.do(chromedp.Click(chromedp.CSS("#check-swingarm .check-more summary")))
	w.fill(`#check-swingarm [name="note"]`, "clicks")
	verdict("swingarm", "do")
	verdict("swingarm", "watch")
	w.until(`document.getElementById('unsent').textContent.startsWith('2 answers')`)
	revisions := s.revisions(t)

	listener, err := net.Listen("tcp", address)
	require.NoError(t, err)
	again := httptest.NewUnstartedServer(s.handler)
	again.Listener.Close()
	again.Listener = listener
	again.Start()
	t.Cleanup(again.Close)
	w.until(`document.getElementById('unsent').hidden && document.querySelector('#check-swingarm.is-answered') !== null`)
	a, ok = answer("swingarm")
	require.True(t, ok)
	assert.Equal(t, plan.Answer{Check: "swingarm", Verdict: baseline.Watch, Note: "clicks"}, a)
	assert.Equal(t, revisions+2, s.revisions(t), "each once, and the tap that was thought better of never")
	w.until(`document.querySelector('#bench [data-finding="blocks-the-trip"]') !== null`)
	w.do(chromedp.Reload())
	assert.Equal(t, "[]", w.text(`localStorage.getItem(Object.keys(localStorage).find((k) => k.startsWith('mule-answers')))`))
}

// revisions is how many the store has.
func (s *site) revisions(t *testing.T) (n int) {
	t.Helper()
	require.NoError(t, s.store.DB().GetContext(ctx, &n, `SELECT COUNT(*) FROM revisions`))
	return n
}

// TestAnswers without a script: a limit passed, what is wrong beside its field,
// and the cost in the plan.
func TestAnswers(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	post := func(fields url.Values) (int, string) {
		status, body, header := v.post(path+"/baseline/answer?loadout=travel", fields)
		if status == http.StatusSeeOther {
			body = v.page(header.Get("Location"))
		}
		return status, body
	}
	status, body := post(url.Values{"check": {"rear-pads"}, "verdict": {"do"}, "now": {"thin"}, "limit": {"1"}, "cost": {"32"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="thin"`)
	assert.Contains(t, body, `class="error"`)
	status, body = post(url.Values{"check": {"rear-pads"}, "verdict": {"do"}, "now": {"0.9"}, "limit": {"1"}, "cost": {"32"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, body, `data-finding="worn-past-limit"`)
	assert.Equal(t, "over €1,707", gauge(body, "cost"), "1675 and the pads")
	_, body = post(url.Values{"check": {"rear-bearings"}, "verdict": {"do"}})
	assert.Equal(t, "unknown ?", gauge(body, "cost"), "without a price nobody knows the sum")
	for _, check := range []string{"coolant", "shaft-drive", "sunroof", ""} {
		status, _ = post(url.Values{"check": {check}, "verdict": {"good"}})
		assert.Equal(t, http.StatusNotFound, status, "%q is no check of this bike", check)
	}
	status, _ = post(url.Values{"check": {"ride"}, "verdict": {"fine"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
}

// TestRecord: what is undone costs, and facts are kept; another bike has neither.
func TestRecord(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	record := form(v.page(path + "/record?loadout=travel"))
	record.Set("cost.0", "24")
	record.Set("fact.3", "Main fuse")
	record.Set("value.3", "20 A")
	record.Set("on.3", "yesterday")
	status, body, _ := v.post(path+"/record", record)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="yesterday"`)
	record.Set("on.3", "2026-11-21")
	status, _, header := v.post(path+"/record", record)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.page(header.Get("Location"))
	assert.Equal(t, "over €1,699", gauge(saved, "cost"))
	assert.Contains(t, saved, "Main fuse")
	v.post(path+"/bike/take", url.Values{"base": {base(saved)}, "bike": {"fennick-300"}})
	assert.True(t, s.newest(t, demo.Rider).Baseline.IsZero(), "what was found on one bike is not true of another")
}

// TestArmour: a place is picked in the drawing, a guard for it is previewed with
// what it leaves open, and chosen.
func TestArmour(t *testing.T) {
	s := newSite(t)
	w, _ := s.desktop(t, "armour?loadout=travel")
	w.do(chromedp.Focus(chromedp.CSS(`.risk[href*="place=cases"]`)))
	w.leads(chromedp.KeyEvent(kb.Enter))
	assert.Equal(t, "Engine cases", w.text(`document.getElementById('place-title').textContent`))
	strands := w.gaugeIn("#armour", "armour-stranded")
	w.click(`a.option[href*="bars-low-h"]`)
	w.bench("Engine bars, low")
	w.until(`document.querySelector('#armour [data-gauge="armour-stranded"] .gauge-value').textContent !== ` + quote(strands))
	w.until(`document.querySelector('#bench [data-finding="blocked-access"]') !== null`)
	w.follow("[data-fit]")
	p := s.newest(t, demo.Rider)
	assert.Equal(t, "bars-low-h", p.Chosen(plan.EngineBars, "travel").ID)
	w.follow(`.rail a[href*="/armour"]`)
	w.follow(`#tabs a[href*="/disputes"]`)
	w.until(`document.querySelectorAll('.side-card').length > 8`)
	w.click(`.side-card a[href*="skid-plastic-h"]`)
	w.bench("Skid plate, 10 mm plastic")
	w.until(`document.querySelector('#bench [data-finding="cannot-both"].is-stop') !== null`)
}

func (w *window) gaugeIn(root, id string) string {
	w.t.Helper()
	return w.text(`document.querySelector('` + root + ` [data-gauge="` + id + `"] .gauge-value').textContent`)
}

// TestRates: a rider's own rate moves the risks, is kept, and goes back when it is
// emptied.
func TestRates(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	stranded := func() string { return gauge(v.page(path+"/armour?loadout=travel"), "armour-stranded") }
	before := stranded()
	rates := form(v.page(path + "/rates"))
	for typed, want := range map[string]string{"often": "often", "4000": "outside", "-1": "outside"} {
		rates.Set("events.strike.rough-gravel", typed)
		status, body, _ := v.post(path+"/rates", rates)
		assert.Equal(t, http.StatusUnprocessableEntity, status, typed)
		assert.Contains(t, body, want)
		assert.Contains(t, body, `value="`+typed+`"`)
	}
	rates.Set("events.strike.rough-gravel", "9")
	rates.Set("breaks.sump.strike", "12")
	status, _, header := v.post(path+"/rates", rates)
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotEqual(t, before, stranded())
	rates = form(v.page(header.Get("Location")))
	assert.Equal(t, "12 %", rates.Get("breaks.sump.strike"))
	rates.Set("events.strike.rough-gravel", "")
	rates.Set("breaks.sump.strike", "")
	v.post(path+"/rates", rates)
	assert.Equal(t, before, stranded())
	assert.Nil(t, s.newest(t, demo.Rider).Risk)
}

// TestContact: a higher bar is drawn over the one that is on, and what it needs is
// said; too high for the cables is over.
func TestContact(t *testing.T) {
	s := newSite(t)
	w, _ := s.desktop(t, "contact?loadout=travel")
	require.Equal(t, "1", w.text(`String(document.querySelectorAll('#rider svg[role=img] .grip').length)`))
	low := w.gaugeIn("#rider", "bar-short")
	w.click(`a.option[href*="riser-30-22"]`)
	w.bench("Risers 30 mm")
	w.until(`document.querySelectorAll('#rider svg[role=img] .grip').length === 2`)
	assert.NotEqual(t, low, w.gaugeIn("#rider", "bar-short"))
	w.until(`document.querySelector('#bench [data-finding="cables-short"].is-over') !== null`)
	w.click(`a.option[href*="riser-20-22"]`)
	w.bench("Risers 20 mm")
	w.follow("[data-fit]")
	assert.Equal(t, "riser-20-22", s.newest(t, demo.Rider).Chosen(plan.Risers, "travel").ID)
	w.follow(`#tabs a[href*="/cockpit"]`)
	w.click(`a.option[href*="nav-phone"]`)
	w.bench("Your own phone")
	w.until(`document.querySelector('#bench [data-finding="part-does-not-fit"]') !== null`)
}

// TestDrawer: found by words as they are typed, decided by a key, and searched for
// again.
func TestDrawer(t *testing.T) {
	s := newSite(t)
	w, path := s.desktop(t, "drawer?loadout=travel")
	w.do(chromedp.KeyEvent("/"))
	require.Equal(t, "q", w.text(`document.activeElement.name`), "the key leads to the search")
	w.do(chromedp.SetValue(chromedp.CSS("input[type=search]"), "oil cooler"), chromedp.SendKeys(chromedp.CSS("input[type=search]"), " grille"))
	w.until(`document.querySelectorAll('#drawer-list .option').length === 1`)
	w.do(chromedp.Focus(chromedp.CSS(`#drawer-list .option`)))
	w.leads(chromedp.KeyEvent("o"))
	p := s.newest(t, demo.Rider)
	require.NotNil(t, p.Chosen(plan.CoolerGuard, "travel"))
	assert.Equal(t, plan.Ordered, p.Lines[len(p.Lines)-1].Decision)
	w.open(path + "/drawer?loadout=travel&q=oil+cooler+grille&fits=on")
	w.do(chromedp.Focus(chromedp.CSS(`#drawer-list .option`)))
	w.leads(chromedp.KeyEvent("x"))
	p = s.newest(t, demo.Rider)
	assert.Nil(t, p.Chosen(plan.CoolerGuard, "travel"))
	assert.Equal(t, plan.Rejected, p.Lines[len(p.Lines)-1].Decision, "kept for its reason")
}

// TestDrawerFilters, and what they say when they cannot be read.
func TestDrawerFilters(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	count := func(query string) int {
		return strings.Count(v.page(path+"/drawer?loadout=travel&"+query), `class="option"`)
	}
	all := count("q=plate")
	assert.Greater(t, all, count("q=plate&fits=on"), "plates of other bikes do not go on")
	assert.Equal(t, 2, count("q=skid&fits=on"))
	assert.Equal(t, 1, count("q=skid&fits=on&price=150"))
	assert.Equal(t, 1, count("q=skid&fits=on&mass=6+lb"))
	assert.Zero(t, count("q=unicorn"))
	assert.Equal(t, 40, count("q="), "no more at once than can be held against the plan")
	assert.Contains(t, v.page(path+"/drawer?q=&price=cheap"), `role="alert"`)
	assert.Equal(t, 4, count("q=&slot=socket")+1)
}

// TestOwnPart: entered with what is known of it, undecided until the rider says.
func TestOwnPart(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	page := v.page(path + "/drawer?loadout=travel")
	own := url.Values{"base": {base(page)}, "name": {""}, "slot": {"rear-tyre"}, "price": {"dear"}, "mass": {"light"}}
	status, body, _ := v.post(path+"/parts?loadout=travel", own)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Equal(t, 4, strings.Count(body, `class="error"`), "each by its field")
	assert.Contains(t, body, `value="dear"`)
	own = url.Values{"base": {base(page)}, "name": {"Bash plate from the smithy"}, "slot": {"skid-plate"}, "price": {"60"}, "mass": {"4 kg"}}
	status, _, header := v.post(path+"/parts?loadout=travel", own)
	require.Equal(t, http.StatusSeeOther, status)
	found := v.page(header.Get("Location"))
	assert.Contains(t, found, "Bash plate from the smithy")
	p := s.newest(t, demo.Rider)
	last := p.Lines[len(p.Lines)-1]
	assert.Equal(t, plan.Undecided, last.Decision)
	assert.Equal(t, "skid-alu-h", p.Chosen(plan.SkidPlate, "travel").ID, "it is only noted")
	status, _, _ = v.post(path+"/parts?loadout=travel", own)
	assert.Equal(t, http.StatusConflict, status, "sent again it is stale")
}

// TestSpanners: a rider who fits nothing pays a workshop for what is not fitted yet,
// at the rate of the brief; a rate that is no money is said by its field.
func TestSpanners(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	brief := form(v.page(path + "/brief?loadout=travel"))
	brief.Set("hour_rate", "a lot")
	status, body, _ := v.post(path+"/brief?loadout=travel", brief)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `id="h-hour_rate"><span class="error">`, body)
	brief.Set("hour_rate", "60")
	brief.Set("spanner", "none")
	status, _, header := v.post(path+"/brief?loadout=travel", brief)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.page(header.Get("Location"))
	// Tyres 1.8 h, tubes 0.6, sprocket 0.7, plate 0.6, hand guards 0.8: 4.5 h at 60.
	assert.Equal(t, "over €1,945", gauge(saved, "cost"))
	assert.Contains(t, saved, `data-finding="for-the-workshop"`)
	armour := v.page(path + "/armour?loadout=travel&place=cases")
	assert.Contains(t, armour, "before the oil filter", "what a guard is in the way of stands beside it")
}

// TestNeedsPage: each need with its sentence and a way to where it is settled.
func TestNeedsPage(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	page := v.page(path + "/needs?loadout=travel")
	assert.Contains(t, page, "6.5 hours a day")
	rows := regexp.MustCompile(`(?s)data-need="([a-z-]+)".*?href="([^"]*)"`).FindAllStringSubmatch(page, -1)
	require.Greater(t, len(rows), 8)
	for _, row := range rows {
		v.page(strings.ReplaceAll(row[2], "&amp;", "&"))
	}
	short := gauge(page, "needs")
	_, _, header := v.post(path+"/choose", url.Values{"base": {base(page)}, "stage": {"cockpit"}, "loadout": {"travel"}, "try": {"grips:grips-heated"}})
	assert.NotEqual(t, short, gauge(v.page(header.Get("Location")), "needs"), "warm hands are one need less")
	v.post("/account/units", url.Values{"preset": {"US"}})
	assert.Contains(t, strings.ReplaceAll(v.page(path+"/needs?loadout=travel"), "\u00a0", " "), "2610 mi", "said in the rider's units")
}

// TestTwoBikesSideBySide: another bike is laid over the plan's and the brief is
// asked of both.
func TestTwoBikesSideBySide(t *testing.T) {
	s := newSite(t)
	w, _ := s.desktop(t, "bike")
	require.Equal(t, "1", w.text(`String(document.querySelectorAll('.side').length)`))
	w.click(`[data-bike="averill-720"]`)
	w.bench("Averill 720")
	w.until(`document.querySelectorAll('.side').length === 2`)
	assert.Equal(t, "3", w.text(`String(document.querySelectorAll('.asked thead th').length)`), "the questions, and a column for each")
	assert.Contains(t, w.text(`document.querySelector('.asked').textContent`), "Reaches the next pump?")
	assert.Contains(t, w.text(`document.querySelector('.asked-money').textContent`), "€")
	w.click("[data-leave]")
	w.until(`document.querySelectorAll('.side').length === 1`)
}

// TestFourTyresSideBySide, and no fifth; what lies on the bench leaves them there.
func TestFourTyresSideBySide(t *testing.T) {
	s := newSite(t)
	w, _ := s.desktop(t, "tyres?loadout=travel")
	count := func(n string) { w.until(`document.querySelectorAll('.lineup-table thead th').length === ` + n) }
	for i, id := range []string{"wether-130-80-18", "fathom-140-80-18", "hackle-140-80-18", "lanner-120-80-18"} {
		w.click(`tr:has(a.option[href*="` + id + `"]) [data-beside]`)
		count(string(rune('1' + i)))
	}
	assert.Equal(t, "4", w.text(`String(document.querySelectorAll('[data-beside].is-on').length)`))
	assert.Equal(t, "0", w.text(`String(document.querySelectorAll('[data-beside]:not(.is-on)').length)`), "there is no room for a fifth")
	w.click(`a.option[href*="scree-120-100-18"]`)
	w.bench("Scree 120/100-18")
	count("4")
	assert.Contains(t, w.text(`location.search`), "beside=fathom-140-80-18", "the address leads back to all of it")
	w.click("[data-clear]")
	w.until(`document.querySelectorAll('[data-beside].is-on').length === 0`)
}

// TestTubeAndPressure: a tube on the bench changes the card, a pressure below it
// is answered, and both are kept.
func TestTubeAndPressure(t *testing.T) {
	s := newSite(t)
	w, _ := s.desktop(t, "inside?loadout=travel")
	w.click(`a.option[href*="tube-ultra-rear-18"]`)
	w.bench("Ultra-heavy tube")
	rock := `document.querySelector('[name="rear.rock"]').closest('.card-cell').querySelector('b').textContent`
	w.follow(`#tabs a[href*="/pressures"]`)
	w.bench("Ultra-heavy tube")
	with := w.text(rock)
	w.click("[data-leave]")
	w.until(`!document.querySelector('[data-fit]')`)
	w.do(chromedp.Reload())
	assert.NotEqual(t, with, w.text(rock), "the plan's own tube asks for another pressure")

	w.fill(`[name="rear.rock"]`, "0,9 bar")
	w.until(`document.querySelector('#bench [data-finding="pressure-pinch"]') !== null`)
	w.click(`.card-advice[href*="at=soft"][href*="wheel=front"]`)
	w.until(`document.querySelector('#contact .chip[aria-current][href*="wheel=front"]') !== null`)
	assert.Equal(t, "0,9 bar", w.text(`document.querySelector('[name="rear.rock"]').value`), "looking at a drawing takes nothing")
	w.fill(`[name="rear.rock"]`, "lots")
	w.until(`document.querySelector('.card-cell.has-error .error') !== null`)
	w.fill(`[name="rear.rock"]`, "1,6 bar")
	w.until(`document.querySelector('.card-cell.has-error') === null`)
	w.follow("#save")
	assert.Equal(t, "1,6 bar", w.text(`document.querySelector('[name="rear.rock"]').value`), "kept as typed")
	loadout, err := s.newest(t, demo.Rider).Loadout("travel")
	require.NoError(t, err)
	assert.InDelta(t, 160, loadout.Pressure("rock").Rear.In("kPa"), 1e-9)
}

// TestChainAndSwap: sprockets, then the chain that they ask for, then a second
// front sprocket for one loadout only.
func TestChainAndSwap(t *testing.T) {
	s := newSite(t)
	w, path := s.desktop(t, "gearing?loadout=travel")
	w.click(`.pair[data-front="15"][data-rear="46"]`)
	w.bench("Rear sprocket 46 T")
	w.follow(`#tabs a[href*="/chain"]`)
	w.bench("Rear sprocket 46 T")
	assert.Equal(t, "2", w.text(`String(document.querySelectorAll('#chain-run .axle').length)`), "both even counts in the slot")
	w.click(`#chain-run .option[href*="chain%3Achain-520-112"]`)
	w.bench("Sealed chain 520, 112 links")
	w.until(`document.querySelector('#chain-run tr.is-current').textContent.includes('112')`)
	w.follow("[data-fit]")
	p := s.newest(t, demo.Rider)
	assert.Equal(t, "rear-h6-46", p.Chosen(plan.RearSprocket, "travel").ID)
	assert.Equal(t, "chain-520-112", p.Chosen(plan.Chain, "travel").ID)

	before := w.gauge("crawl-speed")
	w.click(`section[aria-labelledby="swap"] .option[href*="front-h20-13"]`)
	w.bench("Front sprocket 13 T")
	w.follow("[data-fit]")
	assert.NotEqual(t, before, w.gauge("crawl-speed"))
	p = s.newest(t, demo.Rider)
	assert.Equal(t, "front-h20-13", p.Chosen(plan.FrontSprocket, "travel").ID)
	assert.Equal(t, "front-h20-14", p.Chosen(plan.FrontSprocket, "trail-day").ID, "the other loadout keeps its own")
	w.open(path + "/gearing?loadout=trail-day")
	assert.Equal(t, coreIn(t, p, "trail-day", "crawl-speed"), w.gauge("crawl-speed"))
}

// TestPull: another ground and another height change what it climbs.
func TestPull(t *testing.T) {
	s := newSite(t)
	w, _ := s.desktop(t, "pull?loadout=travel")
	says := func() string { return w.text(`document.querySelector('.page-head p').textContent`) }
	first := says()
	w.follow(`.chip[href*="ground=sand"]`)
	sand := says()
	assert.NotEqual(t, first, sand)
	assert.Contains(t, sand, "Deep sand")
	w.follow(`.chip[href*="altitude=4000"]`)
	assert.Contains(t, w.text(`document.querySelector('.chip[href*="ground=sand"]').getAttribute('aria-current') || ''`), "true", "the ground stays")
	assert.NotEqual(t, sand, says())
	assert.Equal(t, "5", w.text(`String(document.querySelectorAll('#thrust .ray').length)`), "a curve for each gear")
}

// TestLedgerDecisions: what is undecided is bought, what is chosen waits, and the
// totals follow before anything is saved.
func TestLedgerDecisions(t *testing.T) {
	s := newSite(t)
	w, _ := s.desktop(t, "spend?loadout=travel")
	lock := `[name="decision.rear-lock..lock-light-rear-250"]`
	w.fill(lock, "ordered")
	w.until(`document.querySelector('#bench .moves') !== null && document.querySelector('#bench .moves').textContent.includes('€34.00')`)
	w.fill(`[name="decision.0"]`, "not-until") // springs
	w.fill(`[name="why.0"]`, "the fork has been opened")
	w.follow("#save")
	assert.Equal(t, "€1,364", w.gauge("cost"), "1675 + 34 − 345")
	p := s.newest(t, demo.Rider)
	assert.Equal(t, "lock-light-rear-250", p.Chosen(plan.RearLock, "travel").ID, "what is ordered is on the bike")
	assert.Contains(t, w.text(`[...document.querySelectorAll('.line-more summary')].map((e) => e.textContent).join()`), "the fork has been opened")
}

// TestUndecidedFromTheBench: an option can be kept without choosing it, or for
// when the old one breaks.
func TestUndecidedFromTheBench(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	page := v.page(path + "/tyres?loadout=travel&try=rear-tyre:wether-140-80-18")
	cost := gauge(page, "cost")
	for _, decision := range []string{"undecided", "when-it-breaks"} {
		status, _, header := v.post(path+"/choose", url.Values{"base": {base(page)}, "stage": {"tyres"}, "loadout": {"travel"}, "try": {"rear-tyre:wether-140-80-18"}, "need": {"wanted"}, "decision": {decision}})
		require.Equal(t, http.StatusSeeOther, status)
		page = v.page(header.Get("Location"))
		assert.Equal(t, cost, gauge(page, "cost"), "it costs nothing yet")
		p := s.newest(t, demo.Rider)
		assert.Equal(t, "bracken-140-80-18", p.Chosen(plan.RearTyre, "travel").ID)
		last := p.Lines[len(p.Lines)-1]
		assert.Equal(t, plan.Decision(decision), last.Decision)
		assert.Len(t, p.Lines, 19, "one line, whatever is decided")
	}
}

// TestScope: an option for one loadout only, and back to all.
func TestScope(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	page := v.page(path + "/wheels?loadout=travel&try=rear-wheel:wheel-h-17r")
	scope := regexp.MustCompile(`class="scope" href="([^"]*)"`).FindStringSubmatch(page)
	require.NotNil(t, scope)
	only := v.page(strings.ReplaceAll(scope[1], "&amp;", "&"))
	assert.Contains(t, only, `value="rear-wheel@travel:wheel-h-17r"`)
	_, _, header := v.post(path+"/choose", url.Values{"base": {base(only)}, "stage": {"wheels"}, "loadout": {"travel"}, "try": {"rear-wheel@travel:wheel-h-17r"}})
	page = v.page(header.Get("Location"))
	p := s.newest(t, demo.Rider)
	assert.Nil(t, p.Chosen(plan.RearWheel, "trail-day"))
	assert.Equal(t, "wheel-h-17r", p.Chosen(plan.RearWheel, "travel").ID)
	assert.Contains(t, page, "17\u00a0in rim", "the second wheel is described")
	status, _, _ := v.get(path + "/wheels?try=rear-wheel@winter:wheel-h-17r")
	assert.Equal(t, http.StatusNotFound, status)
}

// TestShaftBike: its pages speak of no chain, and offer no sprocket.
func TestShaftBike(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	page := v.page(path + "/bike")
	ids := regexp.MustCompile(`data-bike="([a-z0-9-]+)"`).FindAllStringSubmatch(page, -1)
	shafts := 0
	for _, id := range ids {
		if id[1] == "own-bike" || bikeOf(t, id[1]).Final != plan.ShaftDrive {
			continue
		}
		shafts++
		v.post(path+"/bike/take", url.Values{"base": {base(page)}, "bike": {id[1]}})
		page = v.page(path + "/gearing")
		assert.NotContains(t, page, `class="pair`)
		assert.Equal(t, 6, strings.Count(page, `class="ray ray-current"`), "its gears are still drawn")
		chain := v.page(path + "/chain")
		assert.NotContains(t, chain, `id="chain-run"`)
		assert.Contains(t, chain, "At the rear wheel", "the speedometer is asked of it too")
		assert.NotRegexp(t, `data-finding="(chain-slider|sprockets-as-set|rear-sprocket)`, chain)
		assert.Contains(t, v.page(path+"/pull"), `id="thrust"`)
		sheet := v.page(path + "/sheet")
		status, body, _ := v.post(path+"/sheet", form(sheet))
		assert.Equal(t, http.StatusSeeOther, status, "its sheet can be saved as it stands: %s", regexp.MustCompile(`class="error">[^<]*`).FindString(body))
	}
	assert.Equal(t, 1, shafts)
}

// TestEveryBikeCanBeTaken and its sheet saved as it stands.
func TestEveryBikeCanBeTaken(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	page := v.page(path + "/bike")
	for _, id := range regexp.MustCompile(`data-bike="([a-z0-9-]+)"`).FindAllStringSubmatch(page, -1) {
		status, _, _ := v.post(path+"/bike/take", url.Values{"base": {base(v.page(path + "/bike"))}, "bike": {id[1]}})
		require.Equal(t, http.StatusSeeOther, status, id[1])
		for _, page := range pageIDs() {
			assert.NotRegexp(t, `NaN|\bInf\b|%!`, v.page(path+"/"+page), "%s of %s", page, id[1])
		}
		sheet := form(v.page(path + "/sheet"))
		status, body, _ := v.post(path+"/sheet", sheet)
		assert.Equal(t, http.StatusSeeOther, status, "%s: %s", id[1], regexp.MustCompile(`class="error">[^<]*`).FindString(body))
	}
}

// TestOwnBikeOfAnotherPlan can be taken over with what was measured on it.
func TestOwnBikeOfAnotherPlan(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	sheet := form(v.page(path + "/sheet"))
	sheet.Set("name", "Mine with the long shock")
	sheet.Set("seat_height", "905")
	status, _, _ := v.post(path+"/sheet", sheet)
	require.Equal(t, http.StatusSeeOther, status)
	_, _, header := v.post("/garage", url.Values{"name": {"Second trip"}, "currency": {"EUR"}})
	other := strings.TrimSuffix(header.Get("Location"), "/brief")
	page := v.page(other + "/bike")
	assert.Contains(t, page, "Mine with the long shock")
	id := regexp.MustCompile(`data-bike="(plan:[A-Z0-9]+)"`).FindStringSubmatch(page)
	require.NotNil(t, id)
	status, _, _ = v.post(other+"/bike/take", url.Values{"base": {base(page)}, "bike": {id[1]}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "905 mm", form(v.page(other+"/sheet")).Get("seat_height"))
	status, _, _ = v.get(other + "/bike?bike=plan:NOBODY")
	assert.Equal(t, http.StatusNotFound, status)
}

// TestWorkingsOfTheBench: a figure that is shown with something on the bench leads to
// the working of that.
func TestWorkingsOfTheBench(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	for page, tried := range map[string]struct{ try, figure string }{
		"armour": {"skid-plate:skid-plastic-h", "armour-stranded"}, "contact": {"risers:riser-20-22", "bar-short"}, "load": {"side-bags:boxes-2x36", "rack-load"},
		"range": {"fuel-cans:cans-2x3", "usable-fuel"},
	} {
		shown := v.page(path + "/" + page + "?loadout=travel&try=" + tried.try)
		_, main, _ := strings.Cut(shown, `<main`)
		link := regexp.MustCompile(`href="(/plans/[^"]*/working/` + tried.figure + `\?[^"]*)"`).FindStringSubmatch(main)
		if assert.NotNil(t, link, page) {
			_, part, _ := strings.Cut(tried.try, ":")
			assert.Contains(t, link[1], part, page)
			status, _, _ := v.get(strings.ReplaceAll(link[1], "&amp;", "&"))
			assert.Equal(t, http.StatusOK, status, page)
		}
	}
}
