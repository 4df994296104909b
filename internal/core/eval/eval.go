// Package eval turns a plan into its report: every figure of the table, and what
// rules and needs have to say, one report per loadout.
//
// It knows no subject. The studies say by their steps what they need and give; a
// [Program] puts them in order once. [Evaluate] is closed-form and has no clock: the
// same plan on the same day gives the same report. A [Bench] holds alternatives
// against a plan before anything is chosen. [Explain] keeps the working of one
// figure.
package eval

import (
	"fmt"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/study/tyres"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// standard is the program of everything that the product computes.
var standard = mustCompile(figure.All(), Studies())

// Report is what a plan comes to.
type Report struct {
	Loadouts []LoadoutReport
}

// Usuals are the numbers of the whole plan that stand in for what nobody has said, each once.
func (r *Report) Usuals() []study.Lack {
	var list []study.Lack
	for i := range r.Loadouts {
		for _, u := range r.Loadouts[i].Usuals() {
			if !slices.Contains(list, u) {
				list = append(list, u)
			}
		}
	}
	return list
}

// Usuals are the numbers that stand in a loadout for what nobody has said: what is guessed, and
// what steps take as usual.
func (r *LoadoutReport) Usuals() []study.Lack {
	list := study.Usuals(r.Facts)
	for i := range r.Guesses {
		g := &r.Guesses[i]
		if !slices.ContainsFunc(list, func(l study.Lack) bool { return l.At == g.At }) {
			list = append(list, study.Lack{What: g.Name, At: g.At})
		}
	}
	return list
}

// LoadoutReport is the report with the bike loaded one way.
type LoadoutReport struct {
	ID, Name string
	Plan     *plan.Plan     // as the rider has it
	Guesses  []Guess        // what stands in it for what nobody has said
	Gauges   []study.Figure // the verdict strip
	Others   []study.Figure // the figures behind it
	Findings []study.Finding
	Facts    *facts.All

	unsure map[string][]guess.Guess // what decides whether a need is met, by its id

	program *Program
	of      filled
	figures []study.Figure // both, in the order of the table
	center  []study.Figure // the same by the guesses as they are, before their bands are counted in
	spoke   []bool         // each rule
	where   study.Where
}

// Where is the place in which something that is missing is typed, as [study.Where] has it; ""
// for what is typed nowhere.
func (r *LoadoutReport) Where(what string) string { return r.where[what] }

// Figure finds a gauge or another figure.
func (r *LoadoutReport) Figure(id figure.ID) (study.Figure, bool) {
	at, ok := r.program.table.Place[id]
	if !ok {
		return study.Figure{}, false
	}
	return r.figures[at], true
}

// Needs is what the brief asks of the bike, in the order of the work; known is
// false when there is no bike, or the brief does not say how far and on what ground.
func (r *LoadoutReport) Needs() (needs []study.Need, known bool) { return r.program.ask(r.Facts) }

// Unsure are the guesses that decide whether a need is met: a measurement comes before a part.
func (r *LoadoutReport) Unsure(need string) []guess.Guess { return r.unsure[need] }

// Worst is the worst state of the gauges and findings.
func (r *LoadoutReport) Worst() verdict.State {
	worst := study.Worst(r.Findings)
	for i := range r.Gauges {
		worst = verdict.Worse(worst, r.Gauges[i].State)
	}
	return worst
}

// Stage is how the stage stands: the worst of its gauges and findings; unknown when
// none of its figures is known. A rule that is silent for want of a figure is no pass.
func (r *LoadoutReport) Stage(id figure.Stage) verdict.State {
	worst, figures, known := verdict.OK, 0, 0
	for i := range r.figures {
		f := &r.figures[i]
		if f.Stage != id {
			continue
		}
		figures++
		if f.Known {
			known++
		}
		if f.Gauge {
			worst = verdict.Worse(worst, f.State)
		}
	}
	if figures > 0 && known == 0 || r.Facts.Built == nil && figures == 0 {
		worst = verdict.Worse(worst, verdict.Unknown)
	}
	if worst == verdict.OK && r.blind(id) {
		worst = verdict.Watch
	}
	of := slices.DeleteFunc(slices.Clone(r.Findings), func(f study.Finding) bool { return f.Stage != id })
	return verdict.Worse(worst, study.Worst(of))
}

// blind reports whether a rule of a stage is silent for want of a figure that it judges by.
func (r *LoadoutReport) blind(id figure.Stage) bool {
	for i, spoke := range r.spoke {
		rule := &r.program.rules[i]
		if spoke || rule.Stage != id {
			continue
		}
		for _, read := range rule.Figures {
			if f := &r.figures[r.program.table.Place[read]]; !f.Known && f.State == verdict.Unknown {
				return true
			}
		}
	}
	return false
}

// Evaluate computes the report of a plan as of a day, 2026-11-26. The shelf may be
// nil; remedies that name parts come from it.
func Evaluate(p *plan.Plan, shelf plan.Shelf, asOf string) *Report {
	return standard.Evaluate(p, shelf, asOf)
}

// Evaluate is [Evaluate] by this program.
func (pr *Program) Evaluate(p *plan.Plan, shelf plan.Shelf, asOf string) *Report {
	report := &Report{Loadouts: make([]LoadoutReport, len(p.Loadouts))}
	of := fill(p, "")
	all := pr.sharedByAll(of, asOf, shelf)
	each(len(p.Loadouts), func(i int) {
		of, all := of, all
		if ridden := p.RiddenIn(p.Loadouts[i].ID); ridden != p { // by somebody else
			of = fill(p, p.Loadouts[i].ID)
			all = pr.sharedByAll(of, asOf, shelf)
		}
		report.Loadouts[i] = pr.report(of, all, &of.plan.Loadouts[i])
		pr.widen(&report.Loadouts[i])
	})
	return report
}

// sharedByAll is what the loadouts of a plan share, each one's bike as built with it.
func (pr *Program) sharedByAll(of filled, asOf string, shelf plan.Shelf) *facts.All {
	all := pr.shared(of, asOf, shelf)
	if of.plan.Bike != nil {
		all.Builds = make([]*plan.Built, len(of.plan.Loadouts))
		for i := range of.plan.Loadouts {
			all.Builds[i] = of.plan.Build(of.plan.Loadouts[i].ID)
		}
	}
	return all
}

// EvaluateLoadout is [Evaluate] for one loadout.
func EvaluateLoadout(p *plan.Plan, shelf plan.Shelf, loadout, asOf string) (*LoadoutReport, error) {
	b, err := NewBench(p, shelf, loadout, asOf)
	if err != nil {
		return nil, err
	}
	return b.Report(), nil
}

// report evaluates one loadout whole.
func (pr *Program) report(of filled, shared *facts.All, l *plan.Loadout) LoadoutReport {
	return pr.reported(of, pr.run(shared, l, pr.of, look{}), nil, facts.Every)
}

// reported is what a run comes to. Rules that were silent before and read nothing that has
// changed are silent again.
func (pr *Program) reported(of filled, run *study.Run, before []bool, changed facts.Set) LoadoutReport {
	r := LoadoutReport{
		ID: run.Loadout.ID, Name: run.Loadout.Name, Plan: of.raw, of: of, Facts: run.All, center: run.Figures,
		Gauges: run.Figures[:pr.gauges:pr.gauges], Others: run.Figures[pr.gauges:],
		program: pr, figures: run.Figures, where: run.Where,
	}
	if run.Built == nil { // without a bike there is nothing to judge
		return r
	}
	r.Findings, r.spoke = make([]study.Finding, 0, usualFindings), make([]bool, len(pr.rules))
	for i := range pr.rules {
		rule := &pr.rules[i]
		if before != nil && !before[i] && rule.Reads&changed == 0 {
			continue
		}
		if finding, ok := rule.Speak(run.All); ok {
			r.Findings, r.spoke[i] = append(r.Findings, finding), true
		}
	}
	r.weigh()
	return r
}

// weigh sets aside what its rider has set aside, where it is no worse than then.
func (r *LoadoutReport) weigh() {
	if len(r.Plan.Waivers) == 0 {
		return
	}
	for i := range r.Findings {
		r.Findings[i].Weigh(r.Plan, r.ID)
	}
}

// usualFindings is how many findings a plan has room for at first.
const usualFindings = 48

// Needs lists every need in the order in which needs are shown.
func Needs() []study.NeedRule { return slices.Clone(standard.needs) }

// Explain is the working of one figure in one loadout. It runs the steps that lead
// to it and no others.
func Explain(p *plan.Plan, loadout string, id figure.ID, asOf string) (study.Figure, *sheet.Sheet, error) {
	of := fill(p, loadout)
	l, err := of.plan.Loadout(loadout)
	if err != nil {
		return study.Figure{}, nil, err
	}
	at, ok := standard.table.Place[id]
	if !ok {
		return study.Figure{}, nil, fmt.Errorf("no figure %q", id)
	}
	working := &sheet.Sheet{}
	var steps []study.Step
	if by := standard.table.By[at]; by != nil {
		steps = standard.upTo(by)
	}
	run := standard.run(standard.shared(of, asOf, nil), l, steps, look{id, working})
	return run.Figures[at], working, nil
}

// PressureWorking is how one wheel's pressure on a surface comes about.
func PressureWorking(p *plan.Plan, loadout string, wheel *study.Wheel, surface string, asOf string) (facts.PressureEnd, *sheet.Sheet, error) {
	of := fill(p, loadout)
	l, err := of.plan.Loadout(loadout)
	if err != nil {
		return facts.PressureEnd{}, nil, err
	}
	s, ok := terrain.SurfaceOf(surface)
	if !ok || p.Bike == nil {
		return facts.PressureEnd{}, nil, fmt.Errorf("no pressure of the %s wheel on %q", wheel.Name, surface)
	}
	run := standard.run(standard.shared(of, asOf, nil), l, standard.upTo(&study.Step{Needs: tyres.PressureNeeds}), look{})
	working := &sheet.Sheet{}
	return tyres.Pressure(run.All, wheel, s, working), working, nil
}
