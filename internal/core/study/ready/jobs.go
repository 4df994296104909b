package ready

import (
	"errors"
	"math"
	"slices"
	"strconv"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// maker gathers the jobs of a plan.
type maker struct {
	p        *plan.Plan
	standard *plan.Built // nil where nobody has built it yet
	today    calendar.Day
	f        facts.Ready
	jobs     []calendar.Job
	names    []calendar.Name // of the jobs
	links    []calendar.Link // what each waits for, of what it is made of

	opens        []calendar.Open // of all jobs
	fits, orders bySlot          // jobs that put something into a slot, or bring it
	keys         []string
	shops        map[string]int // waits for workshops
	clocks       map[string]*calendar.Clock
}

// Jobs are those of a plan as of the facts' day, in their time.
func Jobs(of *facts.All) facts.Ready {
	today, ok := calendar.ParseDay(of.AsOf)
	m := maker{p: of.Plan, standard: of.Standard, today: today, fits: newBySlot(), orders: newBySlot(), keys: jobKeys(of.Plan), shops: map[string]int{}, clocks: map[string]*calendar.Clock{}}
	room := len(of.Plan.Ready.Jobs) + 16
	for _, key := range m.keys {
		if key != "" {
			room += 2
		}
	}
	m.f.Jobs, m.jobs, m.names = make([]facts.Job, 0, room), make([]calendar.Job, 0, room), make([]calendar.Name, 0, room)
	m.links, m.opens = make([]calendar.Link, 0, 2*room), make([]calendar.Open, 0, room)
	m.f.Today = today
	m.f.Leaves, m.f.Dated = calendar.ParseDay(of.Plan.Brief.Leaves())
	if !ok {
		return m.f
	}
	m.faults()
	m.shaken()
	m.lines()
	m.settings()
	m.rest()
	m.own()
	if len(m.jobs) == 0 {
		return m.f
	}
	m.shakedown()
	m.schedule()
	return m.f
}

// jobKeys name what is done for each line: a part by its place, so that another part there is the
// same work; of several in one the later ones by a number behind them.
func jobKeys(p *plan.Plan) []string {
	keys, seen := make([]string, len(p.Lines)), make(map[string]int, len(p.Lines))
	for i := range p.Lines {
		l := &p.Lines[i]
		if l.Standing() != plan.In { // of no other anything is done
			continue
		}
		key := "sum." + l.Name
		if l.Part != nil {
			key = string(l.Part.Slot) + "." + l.Loadout
		}
		if seen[key]++; seen[key] > 1 {
			key += "~" + strconv.Itoa(seen[key])
		}
		keys[i] = key
	}
	return keys
}

// add notes a job behind others, unless it is done: then it is −1, as such others are.
func (m *maker) add(job facts.Job, of calendar.Job, after ...int) int {
	if len(m.p.Ready.Done) > 0 && m.p.Ready.DoneOn(job.ID()) != "" {
		return -1
	}
	of.Name = calendar.Named(string(job.Kind), "/", job.Key)
	if of.Kind == calendar.Work && len(job.Places) > 0 {
		m.open(&of, job.Places)
	}
	if job.Usual {
		m.f.Usual++
	}
	at := len(m.jobs)
	m.f.Jobs, m.jobs, m.names = append(m.f.Jobs, job), append(m.jobs, of), append(m.names, of.Name)
	for _, first := range after {
		if first >= 0 {
			m.links = append(m.links, calendar.Link{First: first, Then: at})
		}
	}
	return at
}

// open is what of a job's hours its places take; where nothing is done without opening them, the job takes no less.
func (m *maker) open(of *calendar.Job, places []calendar.Place) {
	must, from := 0.0, len(m.opens)
	for _, place := range places {
		row, at := calendar.PlaceOf(place)
		takes := row.Hours.Likely
		if row.Must {
			must += takes
		} else {
			takes = min(takes, openMost*of.Takes.Likely)
		}
		m.opens = append(m.opens, calendar.Open{Place: at, Takes: takes})
	}
	of.Opens = slices.Clip(m.opens[from:])
	if short := must + insideHours - of.Takes.Likely; must > 0 && short > 0 {
		of.Takes = of.Takes.Plus(calendar.Just(short))
	}
}

// days is a moment of a date, NaN for none.
func (m *maker) days(date string) float64 {
	day, ok := calendar.ParseDay(date)
	if !ok {
		return math.NaN()
	}
	return float64(day - m.today)
}

// from is a date before which nothing begins; what is past is no bar.
func (m *maker) from(date string) float64 {
	if t := m.days(date); t > 0 {
		return t
	}
	return 0
}

// closed is the clock of whoever is away on some days, nil for who never is.
func (m *maker) closed(name string, spans []plan.Span) *calendar.Clock {
	if len(spans) == 0 {
		return nil
	}
	if c, ok := m.clocks[name]; ok {
		return c
	}
	c := calendar.NewClock(m.today, [7]float64{1, 1, 1, 1, 1, 1, 1}, plan.Spans(spans))
	m.clocks[name] = c
	return c
}

// undoPrefix stands before the name of a change that is undone.
const undoPrefix = "undo "

// faults are what the inspection says is to be put right.
func (m *maker) faults() {
	for _, a := range m.p.Baseline.Answers {
		c, ok := baseline.CheckOf(a.Check)
		if !ok || !a.Due() || m.p.Replaces(a.Check) {
			continue
		}
		job := facts.Job{Key: a.Check, Kind: facts.JobRight, Name: "Put right: " + c.Name, Line: -1, Places: atCheck[a.Check]}
		if c.Area == baseline.Papers {
			job.Usual = true
			m.add(job, calendar.Job{Kind: calendar.Wait, Takes: papersTake})
			continue
		}
		usual := m.usualFault()
		if c.Area == baseline.Free {
			usual = settingHours
		}
		m.right(job, a.Hours, usual)
	}
	for _, c := range m.p.Baseline.Changes {
		if c.Fate != baseline.Undo {
			continue
		}
		m.right(facts.Job{Key: undoPrefix + c.Name, Kind: facts.JobRight, Name: "Undo: " + c.Name, Line: -1}, c.Hours, m.usualFault())
	}
}

// right is something to be put right, in the hours that somebody has said or else the usual ones.
func (m *maker) right(job facts.Job, said unit.Duration, usual float64) {
	hours := usual
	if job.Usual = !said.Known(); !job.Usual {
		hours = said.In("h")
	}
	m.add(job, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(hours)})
}

// usualFault is how long this rider usually takes, h.
func (m *maker) usualFault() float64 { return faultHours * m.p.Brief.Practice.Factor() }

// lines are what is ordered, waited for, made and fitted.
func (m *maker) lines() {
	type ranked struct{ line, rank int }
	order := make([]ranked, 0, len(m.p.Lines))
	for i := range m.p.Lines {
		if l := &m.p.Lines[i]; m.keys[i] != "" && l.Decision != plan.OnTheBike {
			order = append(order, ranked{i, rank(l)})
		}
	}
	slices.SortStableFunc(order, func(a, b ranked) int { return a.rank - b.rank })
	for _, of := range order {
		i := of.line
		l := &m.p.Lines[i]
		switch {
		case l.Part != nil:
			m.part(i, l)
		case l.Kind == plan.Gear || l.Kind == plan.Consumable:
			m.gear(i, l)
		case l.Kind == plan.Workshop:
			m.visit(facts.Job{Key: m.keys[i], Kind: facts.JobShop, Name: l.Name, Line: i}, l, nil)
		case l.Kind == plan.Baseline && l.Hours.Known():
			m.add(facts.Job{Key: m.keys[i], Kind: facts.JobRight, Name: l.Name, Line: i}, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(l.Hours.In("h"))})
		}
	}
}

// gear is what has no slot here: it comes, or is made, and takes the hours that somebody has said.
func (m *maker) gear(i int, l *plan.Line) {
	at := m.order(i, l, nil)
	switch {
	case l.Source == plan.HomeMade && l.Decision == "":
		m.made(i, l, at)
	case l.Hours.Known():
		m.add(facts.Job{Key: m.keys[i], Kind: facts.JobFit, Name: "Fit " + l.Name, Line: i}, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(l.Hours.In("h"))}, at)
	}
}

// rank puts parts of one place beside one another, as one walks around the bike.
func rank(l *plan.Line) int {
	if l.Part == nil {
		return len(calendar.Places()) * 1000
	}
	place := len(calendar.Places())
	if opens := l.Part.Slot.Opens(); len(opens) > 0 {
		_, place = calendar.PlaceOf(opens[0])
	}
	return place*1000 + l.Part.Slot.Index()
}

// part is what one part takes until it is on.
func (m *maker) part(i int, l *plan.Line) {
	slot, s := l.Part.Slot, l.Supplied()
	var first []int
	if m.unmeasured(l) {
		first = append(first, m.measure())
	}
	came := m.order(i, l, first)
	job := facts.Job{Key: m.keys[i], Line: i, Slot: slot}
	after := []int{came}
	if l.Source == plan.HomeMade && l.Decision == "" {
		after = []int{m.made(i, l, came)}
	}
	if s.UseUp {
		after = append(after, m.useUp(i, slot, s))
	}
	hours, own := m.p.ToFit(l)
	if l.Hours.Known() && l.Source != plan.HomeMade {
		hours = l.Hours.In("h")
	}
	if hours <= 0 {
		m.fits.put(slot, came)
		return
	}
	job.Places = slot.Opens()
	var fit int
	if own {
		job.Kind, job.Name = facts.JobFit, "Fit "+l.Part.Name
		fit = m.add(job, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(hours)}, after...)
	} else {
		job.Kind, job.Name = facts.JobShop, "Workshop: "+l.Part.Name
		fit = m.visit(job, l, after)
	}
	for s := range l.Part.Fills() {
		m.fits.put(s, fit)
	}
	if what, days := slot.Sets(); what != "" && own && fit >= 0 {
		m.add(facts.Job{Key: m.keys[i], Kind: facts.JobSets, Name: l.Part.Name + ": " + what, Line: i, Slot: slot}, calendar.Job{Takes: days}, fit)
	}
	if l.Swap != nil && l.Swap.Minutes.Known() {
		m.add(facts.Job{Key: m.keys[i], Kind: facts.JobChange, Name: "Change over: " + l.Part.Name, Line: i, Slot: slot},
			calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(l.Swap.Minutes.In("h"))}, fit)
	}
}

// order is the wait until what a line buys is there; −1 where it is, or is in reach.
func (m *maker) order(i int, l *plan.Line, first []int) int {
	s := l.Supplied()
	if s.Came != "" || l.Decision == plan.Owned || l.Decision != "" && l.Decision != plan.Ordered && l.Decision != plan.Chosen {
		return -1
	}
	from, days, usual := m.p.Comes(l)
	if from == calendar.InReach && days.High <= 0 {
		return -1
	}
	seller := l.SellerOf()
	job := facts.Job{Key: m.keys[i], Kind: facts.JobOrder, Name: l.Title(), Line: i, Usual: usual}
	if l.Part != nil {
		job.Slot = l.Part.Slot
	}
	of := calendar.Job{Takes: days, From: m.from(s.NotBefore)}
	if seller != "" {
		of.Slips = calendar.Named("from ", seller)
		if known := m.p.Ready.SellerOf(seller); known != nil {
			of.Clock = m.closed("seller "+seller, known.Closed)
		}
	}
	if last := m.days(s.Last); from == calendar.Used && last > 0 { // then a new one is bought
		stock, _ := calendar.SupplyOf(calendar.Stock)
		of.Takes.High = max(of.Takes.Likely, min(of.Takes.High, last)+stock.Days.High)
	}
	if ordered := m.days(s.Ordered); l.Decision == plan.Ordered {
		first = nil
		if ordered <= 0 {
			of.From = ordered
		}
		if promised := m.days(s.Promised); !math.IsNaN(promised) {
			job.Usual = false
			late := 2.0
			if !math.IsNaN(ordered) {
				late = max(late, promisesSlip*(promised-ordered))
			}
			of.From, of.Takes = 0, calendar.Spread{Low: promised, Likely: promised, High: promised + late}
			if promised < 1 {
				of.Takes = calendar.Spread{Low: 1, Likely: 3, High: 3 + max(0, late)}
			}
		}
	}
	at := m.add(job, of, first...)
	if l.Part != nil && at >= 0 {
		m.orders.put(l.Part.Slot, at)
	}
	return at
}

// made is what one makes by hand: it is tried on before it is painted.
func (m *maker) made(i int, l *plan.Line, materials int) int {
	hours, usual := makeHours*m.p.Brief.Practice.Factor(), true
	if l.Hours.Known() {
		hours, usual = l.Hours.In("h"), false
	}
	job := facts.Job{Key: m.keys[i], Line: i}
	if l.Part != nil {
		job.Slot = l.Part.Slot
	}
	step := func(kind facts.JobKind, name string, usual bool, of calendar.Job, after ...int) int {
		job.Kind, job.Name, job.Usual = kind, name+l.Title(), usual
		return m.add(job, of, after...)
	}
	at := step(facts.JobMake, "Make ", usual, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(hours)}, materials)
	at = step(facts.JobTry, "Try on, full lock and full travel: ", false, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(tryHours)}, at)
	return step(facts.JobPaint, "Paint dries: ", false, calendar.Job{Takes: paintTakes}, at)
}

// useUp is the wait until the old tyre is used up.
func (m *maker) useUp(i int, slot parts.Slot, s plan.Supply) int {
	ride, usual := m.p.Ready.Ride.In("km"), false
	if !m.p.Ready.Ride.Known() {
		ride, usual = usualRideKm, true
	}
	left := s.Left.In("km")
	if !s.Left.Known() {
		left, usual = m.kmLeft(slot), true
	}
	if math.IsNaN(left) || ride <= 0 {
		return -1
	}
	days := 7 * left / ride
	return m.add(facts.Job{Key: m.keys[i], Kind: facts.JobUseUp, Name: "Use up the old " + slotName(slot), Line: -1, Slot: slot, Usual: usual},
		calendar.Job{Takes: calendar.Spread{Low: 0.7 * days, Likely: days, High: 1.3 * days}})
}

// kmLeft is what the tyre that the bike stands on still runs: the middle of its kind's life by
// what is left of its tread; NaN where nobody knows.
func (m *maker) kmLeft(slot parts.Slot) float64 {
	if m.p.Bike == nil {
		return math.NaN()
	}
	standard := m.standard
	if standard == nil {
		standard = m.p.BuildStandard()
	}
	t := standard.Tyre(slot)
	if t == nil {
		return math.NaN()
	}
	kind, ok := tyre.CharacterOf(t.Kind)
	if !ok {
		return math.NaN()
	}
	life := kind.Life().Mid
	tread := m.p.Bike.RearTread.In("")
	if slot == parts.FrontTyre {
		life, tread = life*tyre.FrontLife, m.p.Bike.FrontTread.In("")
	}
	if measured := m.p.Baseline.Tread(slot); !math.IsNaN(measured) {
		tread = measured
	}
	return life * tread
}

// visit is a job of a workshop, behind the wait for it.
func (m *maker) visit(job facts.Job, l *plan.Line, after []int) int {
	shop := m.shopFor(l)
	name := "a workshop"
	queue, takes, usual := usualQueue, usualVisit, true
	var clock *calendar.Clock
	kind := calendar.Visit
	if shop != nil {
		name = shop.Name
		if shop.Queue.Known() {
			queue = shop.Queue.Spread(calendar.Near)
		}
		if shop.Takes.Known() {
			takes, usual = shop.Takes.Spread(calendar.Near), false
		}
		clock = m.closed("shop "+name, shop.Closed)
		if shop.Parts {
			kind = calendar.Wait
		}
	}
	at, ok := m.shops[name]
	if !ok {
		at = -1
		if queue.High > 0 {
			at = m.add(facts.Job{Key: name, Kind: facts.JobQueue, Name: "A date at " + name, Line: -1, Shop: name, Usual: shop == nil || !shop.Queue.Known()},
				calendar.Job{Takes: queue, Slips: calendar.Named("at ", name)})
		}
		m.shops[name] = at
	}
	job.Shop, job.Usual, job.Places = name, usual, nil
	of := calendar.Job{Kind: kind, Takes: takes, Clock: clock}
	if kind == calendar.Visit { // the bike is brought once for jobs that follow one another
		of.Opens = m.bring(name)
	}
	return m.add(job, of, append(after, at)...)
}

// bring is the bike at a workshop: a place that stays open for the next job there.
func (m *maker) bring(shop string) []calendar.Open {
	at := slices.IndexFunc(m.p.Ready.Shops, func(s plan.Shop) bool { return s.Name == shop }) + 1 // 0 for one that nobody named
	return []calendar.Open{{Place: len(calendar.Places()) + at, Takes: bringDays}}
}

// shopFor is the workshop of a line: the one that it names, or the first that takes such work.
func (m *maker) shopFor(l *plan.Line) *plan.Shop {
	if named := m.p.Ready.ShopOf(l.Supplied().Shop); named != nil {
		return named
	}
	for i := range m.p.Ready.Shops {
		s := &m.p.Ready.Shops[i]
		if l.Part == nil && !s.Parts || l.Part != nil && !s.Parts && !slices.Contains(s.Not, l.Part.Slot) {
			return s
		}
	}
	return nil
}

// unmeasured reports whether a spring is to be bought before anybody has measured the sag.
func (m *maker) unmeasured(l *plan.Line) bool {
	switch l.Part.Slot {
	case parts.ForkSprings, parts.ShockSpring, parts.Shock, parts.Fork:
		return l.Decision == "" && m.p.Bike != nil && len(m.p.ReadingsOf(logbook.SagRead)) == 0 && !m.p.Bike.RearSag.Known() && !m.p.Bike.FrontSag.Known()
	}
	return false
}

// measure is the sag with rider and bags, once for all springs.
func (m *maker) measure() int {
	if at := slices.IndexFunc(m.f.Jobs, func(j facts.Job) bool { return j.Kind == facts.JobMeasure }); at >= 0 {
		return at
	}
	return m.add(facts.Job{Key: "sag", Kind: facts.JobMeasure, Name: "Measure sag, before springs are ordered", Line: -1},
		calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(measureHours)})
}

// settings are what is set and tried once parts are on.
func (m *maker) settings() {
	sprung := m.on(sprungSlots...)
	sag := -1
	if len(sprung) > 0 {
		sag = m.add(facts.Job{Key: "sag", Kind: facts.JobSet, Name: "Set sag and damping, loaded", Line: -1}, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(sagHours)}, sprung...)
	}
	if t := m.p.ForkThrough; t.Known() && t != m.p.Baseline.Set.ForkThrough {
		m.add(facts.Job{Key: "fork", Kind: facts.JobSet, Name: "Fork to its height in the clamps", Line: -1, Places: []calendar.Place{calendar.Bars}},
			calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(forkHours)}, m.on(parts.FrontTyre, parts.RearTyre)...)
	}
	if lamps := m.on(lampSlots...); len(lamps) > 0 || sag >= 0 {
		m.add(facts.Job{Key: "lamp", Kind: facts.JobSet, Name: "Aim the lamp, loaded", Line: -1}, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(lampHours)}, append(lamps, sag)...)
	}
	var fed []int
	for i, kind := range parts.Kinds() {
		if kind.Family == parts.Electrics || kind.Slot == parts.Socket || kind.Slot == parts.Monitor {
			fed = m.fits.at(i, fed)
		}
	}
	slices.Sort(fed)
	if fed = slices.DeleteFunc(fed, func(j int) bool { return j < 0 }); len(fed) > 0 {
		m.add(facts.Job{Key: "volts", Kind: facts.JobTest, Name: "Try every circuit, volts with all on", Line: -1}, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(testHours)}, fed...)
	}
}

// on are the jobs that put something into one of some slots.
func (m *maker) on(slots ...parts.Slot) []int { return m.fits.of(nil, slots...) }

// rest is packing, and papers of who takes the bike away.
func (m *maker) rest() {
	if m.p.Brief.Ships != "" {
		m.add(facts.Job{Key: "carrier", Kind: facts.JobPapers, Name: "Papers and straps for the carrier", Line: -1}, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(carrierHours)})
	}
	if len(m.jobs) == 0 {
		return
	}
	m.add(facts.Job{Key: "bags", Kind: facts.JobPack, Name: "Pack all of it, and weigh", Line: -1}, calendar.Job{Kind: calendar.Work, Takes: calendar.AroundHours(packHours)}, m.on(bagSlots...)...)
}

// own are the jobs that the rider has added.
func (m *maker) own() {
	for i := range m.p.Ready.Jobs {
		j := &m.p.Ready.Jobs[i]
		job := facts.Job{Key: j.ID, Kind: facts.JobOwn, Name: j.Name, Line: -1, Places: j.Opens, Usual: !j.Takes.Known()}
		of := calendar.Job{From: m.from(j.From)}
		unit, likely := "d", 1.0
		switch j.Kind {
		case plan.JobWait:
		case plan.JobVisit:
			of.Kind, job.Places = calendar.Visit, nil
			if s := m.p.Ready.ShopOf(j.Shop); s != nil {
				job.Shop, of.Clock = s.Name, m.closed("shop "+s.Name, s.Closed)
				of.Opens = m.bring(s.Name)
			}
		default:
			of.Kind, unit = calendar.Work, "h"
		}
		if j.Takes.Known() {
			likely = j.Takes.In(unit)
		}
		of.Takes = calendar.AroundHours(likely)
		if j.Low.Known() {
			of.Takes.Low = min(likely, j.Low.In(unit))
		}
		if j.High.Known() {
			of.Takes.High = max(likely, j.High.In(unit))
		}
		m.add(job, of)
	}
}

// shakedown is the last of all.
func (m *maker) shakedown() {
	days := m.p.Ready.MarginDays()
	if days > 0 {
		m.add(facts.Job{Key: "ride", Kind: facts.JobShake, Name: "Shakedown, and a week to correct", Line: -1}, calendar.Job{Takes: calendar.Just(days), Last: true})
	}
}

// schedule puts the jobs in their time.
func (m *maker) schedule() {
	week, usual := m.p.Ready.Hours()
	if usual {
		m.f.Usual++
	}
	own := calendar.NewClock(m.today, week, plan.Spans(m.p.Ready.Away))
	known := len(m.links)
	m.trade()
	trade := len(m.links)
	m.rider()
	net, err := calendar.NewNet(m.jobs, m.kept(), own)
	for _, only := range []int{trade, known} { // without what the rider says, then without the trade's: a job is never lost
		var circle *calendar.Circle
		if !errors.As(err, &circle) {
			break
		}
		if m.f.Circle == nil {
			for _, j := range circle.Jobs {
				m.f.Circle = append(m.f.Circle, m.f.Jobs[j].Name)
			}
		}
		m.links = m.links[:only]
		net, err = calendar.NewNet(m.jobs, m.kept(), own)
	}
	m.f.Net = net
	m.f.Table = net.Schedule(m.wished())
	m.f.Order = m.f.Table.Order
	if m.f.Dated {
		net.By(&m.f.Table, float64(m.f.Leaves-m.today))
	}
	m.f.Outlook = net.Outlook(m.f.Order)
}

// wished is the order of the work that the plan keeps.
func (m *maker) wished() []int {
	if len(m.p.Ready.Order) == 0 {
		return nil
	}
	var list []int
	for _, id := range m.p.Ready.Order {
		if j := m.at(id); j >= 0 && m.jobs[j].Serial() {
			list = append(list, j)
		}
	}
	return list
}
