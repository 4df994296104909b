// Package eval turns a plan into its report: every gauge, the figures behind
// them, and what the rules of package knock have to say, one report per loadout.
//
// [Evaluate] is closed-form and has no clock: the same plan gives the same
// report. [Preview] holds alternatives against the plan before anything is
// chosen. [Explain] evaluates again and keeps the working of one figure.
package eval

import (
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/verdict"
)

// Figure is one computed number with its state.
type Figure struct {
	ID, Name, Unit string
	State          verdict.State
	Known          bool // whether Value holds
	Value          float64
	Limited        bool // whether Limit holds
	Limit          float64
	Banded         bool // whether Low and High hold
	Low, High      float64
	Missing        []string // what would have to be known
}

// Report is what a plan comes to.
type Report struct {
	Loadouts []LoadoutReport
}

// LoadoutReport is the report with the bike loaded one way.
type LoadoutReport struct {
	ID, Name string
	Gauges   []Figure // all, in the order of GaugeIDs
	Others   []Figure // the figures behind them
	Findings []knock.Finding
	Facts    *knock.Facts // nil without a bike
}

// Figure finds a gauge or another figure.
func (r *LoadoutReport) Figure(id string) (Figure, bool) {
	for _, list := range [][]Figure{r.Gauges, r.Others} {
		if at := slices.IndexFunc(list, func(f Figure) bool { return f.ID == id }); at >= 0 {
			return list[at], true
		}
	}
	return Figure{}, false
}

// Worst is the worst state of the gauges and findings.
func (r *LoadoutReport) Worst() verdict.State {
	worst := knock.Worst(r.Findings)
	for _, g := range r.Gauges {
		worst = verdict.Worse(worst, g.State)
	}
	return worst
}

// Evaluate computes the report of a plan. The shelf may be nil; remedies that
// name parts come from it.
func Evaluate(p *plan.Plan, shelf plan.Shelf) *Report {
	report := &Report{Loadouts: make([]LoadoutReport, len(p.Loadouts))}
	all := sharedOf(p)
	for i := range p.Loadouts {
		report.Loadouts[i] = newRun(p, all, shelf, &p.Loadouts[i], "", nil).report()
	}
	return report
}

// EvaluateLoadout is Evaluate for one loadout.
func EvaluateLoadout(p *plan.Plan, shelf plan.Shelf, loadout string) (*LoadoutReport, error) {
	l, err := p.Loadout(loadout)
	if err != nil {
		return nil, err
	}
	report := newRun(p, sharedOf(p), shelf, l, "", nil).report()
	return &report, nil
}

// Explain is the working of one figure in one loadout.
func Explain(p *plan.Plan, loadout, id string) (Figure, *sheet.Sheet, error) {
	l, err := p.Loadout(loadout)
	if err != nil {
		return Figure{}, nil, err
	}
	working := &sheet.Sheet{}
	report := newRun(p, sharedOf(p), nil, l, id, working).report()
	figure, ok := report.Figure(id)
	if !ok {
		return Figure{}, nil, fmt.Errorf("no figure %q", id)
	}
	return figure, working, nil
}

// run is one evaluation of one loadout.
type run struct {
	plan       *plan.Plan
	loadout    *plan.Loadout
	built, std *plan.Built // nil without a bike
	facts      *knock.Facts
	beside     []plan.Line // that cost money beside the plan's own
	all        shared
	items      []item // on the kerb mass, but for the fuel
	fuel       fuelMass
	laden      []item  // with it, everything filled
	centre     float64 // of mass above ground, mm
	full       load.Axles
	empty      load.Axles
	axlesDone  bool
	wanted     string
	working    *sheet.Sheet
}

// shared is what all loadouts of a plan have in common.
type shared struct {
	std         *plan.Built
	due, beside []plan.Line
	legs        []wayLeg
	learning    Learning
	weighed     plan.Correction
}

func sharedOf(p *plan.Plan) shared { return sharedFrom(p, nil, shared{}) }

// sharedFrom takes over what a change of the plan leaves as it was.
func sharedFrom(p, was *plan.Plan, old shared) shared {
	s := shared{due: p.Due()}
	s.beside = s.due
	if work := p.Priced(); len(work) > 0 {
		s.beside = slices.Concat(s.due, work)
	}
	switch {
	case was != nil && was.Route == p.Route && (p.Route != nil || was.Brief.Gap == p.Brief.Gap):
		s.legs = old.legs
	case p.Route != nil:
		s.legs = legsOf(p.Route)
	default:
		s.legs = []wayLeg{gapLeg(p)}
	}
	switch {
	case p.Bike == nil:
	case was != nil && was.Bike == p.Bike && len(was.Readings) == len(p.Readings) && was.Brief.Rider == p.Brief.Rider:
		s.std, s.learning, s.weighed = old.std, old.learning, old.weighed
	default:
		s.std, s.learning, s.weighed = p.BuildStandard(), Learn(p), p.Correction()
	}
	return s
}

func newRun(p *plan.Plan, all shared, shelf plan.Shelf, l *plan.Loadout, wanted string, working *sheet.Sheet) *run {
	r := &run{plan: p, loadout: l, all: all, beside: all.beside, wanted: wanted, working: working}
	r.facts = &knock.Facts{Plan: p, Shelf: shelf, Loadout: l.ID, Due: all.due}
	if p.Bike != nil {
		r.built, r.std = p.Build(l.ID), all.std
		r.facts.Built, r.facts.Standard = r.built, r.std
		r.facts.Pair, _ = r.built.Sprockets()
		r.facts.StandardPair, _ = r.std.Sprockets()
	}
	return r
}

// all computes every figure, in an order in which each finds what it rests on,
// and lists them in the order in which they are shown.
func (r *run) report() LoadoutReport {
	report := LoadoutReport{ID: r.loadout.ID, Name: r.loadout.Name}
	if r.built == nil {
		report.Gauges = r.withoutBike()
		report.Others = append([]Figure{}, r.money(report.Gauges[0])...)
		return report
	}
	r.items, r.fuel = r.masses(), r.fuelOf()
	r.laden = append(append(slices.Clip(r.items), item{r.fuel.topUp, load.Tank}), r.fuel.beside...)
	circumference := [2]Figure{r.frontCircumference(), r.rearCircumference()}
	gearChange := r.gearChange()
	mass, front, rear := r.loadedMass(), r.axle("front-load"), r.axle("rear-load")
	chain, axle := r.chainLinks(), r.axleShift()
	rise := r.seatRise()
	cost := r.cost()
	axleFront, axleRear, tyreLoad := r.axleGauge("axle-front"), r.axleGauge("axle-rear"), r.tyreLoad()
	cruise := r.cruiseRPM()
	r.bags()
	drag, usable := r.dragArea(), r.usable()
	r.legs(r.all.learning)
	report.Gauges = append(make([]Figure, 0, len(GaugeIDs)),
		cost, mass, axleFront, axleRear, tyreLoad, r.tyreLife(), cruise, r.crawlSpeed(), r.rangeGauge(),
		r.pending("charge-margin"), r.pending("sag-front"), r.pending("sag-rear"), r.seatReach(), r.clearance(),
		r.pending("night-speed"), r.pending("ready-date"))
	report.Others = append(make([]Figure, 0, 58),
		gearChange, circumference[0], circumference[1], chain, axle,
		rise, r.standShort(), r.rake(), r.mix(), r.speedometer(),
		front, rear, r.payloadLeft(), r.centreHeight(), r.unsprung("front-unsprung", plan.FrontTyre), r.unsprung("rear-unsprung", plan.RearTyre),
		r.rearLife(), r.frontLife(), r.tyreCost(), r.rideHours(),
		r.crawlPull(), r.topSpeed(), r.holdGear(), r.climb())
	report.Others = append(report.Others, r.carrying()...)
	report.Others = append(report.Others, drag, usable)
	report.Others = append(report.Others, r.ranging()...)
	report.Others = append(report.Others, r.seated(), r.seatHours(), r.knee(), r.standing())
	r.risks()
	report.Others = append(report.Others, r.armour()...)
	report.Others = append(report.Others, r.money(cost)...)
	r.facts.Pressures = r.pressures()
	report.Gauges = append(report.Gauges, r.needs())
	report.Facts = r.facts
	report.Findings = knock.Findings(r.facts)
	return report
}

// calc is one figure in the making.
type calc struct {
	run     *run
	figure  Figure
	working *sheet.Sheet // nil unless this is the figure that is looked at
}

func (r *run) figure(id, name, unit string) *calc {
	c := &calc{run: r, figure: Figure{ID: id, Name: name, Unit: unit}}
	if r.wanted == id {
		c.working = r.working
	}
	return c
}

// lacks notes something that would have to be known.
func (c *calc) lacks(what string) {
	if !slices.Contains(c.figure.Missing, what) {
		c.figure.Missing = append(c.figure.Missing, what)
	}
}

// is sets the value; a value that rests on something missing stays unknown.
func (c *calc) is(value float64) {
	if len(c.figure.Missing) > 0 || math.IsNaN(value) || math.IsInf(value, 0) {
		return
	}
	c.figure.Known, c.figure.Value = true, value
}

// atMost judges the value against a limit that it should not pass: past it the
// state is worst, above near × limit it is watch.
func (c *calc) atMost(limit sheet.Value, near float64, worst verdict.State) Figure {
	if !math.IsNaN(limit.Number) {
		c.figure.Limited, c.figure.Limit = true, limit.Number
	}
	switch {
	case !c.figure.Known || !c.figure.Limited:
		c.figure.State = verdict.Unknown
	case c.figure.Value > limit.Number:
		c.figure.State = worst
	case c.figure.Value > near*limit.Number:
		c.figure.State = verdict.Watch
	default:
		c.figure.State = verdict.OK
	}
	return c.figure
}

// plain ends a figure that has no limit.
func (c *calc) plain() Figure {
	c.figure.State = verdict.OK
	if !c.figure.Known {
		c.figure.State = verdict.Unknown
	}
	return c.figure
}

// measure is a quantity of the document.
type measure interface {
	Known() bool
	In(unit string) float64
}

// bike takes one of the bike's numbers.
func (c *calc) bike(key, name, unit string, q measure) sheet.Value {
	if !q.Known() {
		c.lacks(name + " (Bike)")
	}
	return sheet.Value{Name: name, Number: q.In(unit), Unit: unit, Origin: c.run.built.Bike.OriginOf(key)}
}

// brief takes one of the brief's numbers.
func (c *calc) brief(name, unit string, q measure) sheet.Value {
	if !q.Known() {
		c.lacks(name + " (Brief)")
	}
	return sheet.Value{Name: name, Number: q.In(unit), Unit: unit, Origin: sheet.Rider}
}

// computed wraps a number that another figure worked out.
func computed(name string, number float64, unit string) sheet.Value {
	return sheet.Value{Name: name, Number: number, Unit: unit, Origin: sheet.Computed}
}
