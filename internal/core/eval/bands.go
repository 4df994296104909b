package eval

import (
	"cmp"
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// move is guesses that are moved together, and the groups that they enter.
type move struct {
	guesses []guess.Guess
	enters  facts.Set
}

// movesOf are the moves of guesses.
func movesOf(guesses []guess.Guess) []move {
	var list []move
	for _, together := range guess.Moves(guesses) {
		m := move{guesses: together}
		for i := range together {
			m.enters |= together[i].Enters
		}
		list = append(list, m)
	}
	return list
}

// ended is what a loadout comes to with a move at one end.
type ended struct {
	figures []study.Figure
	says    []verdict.State // of each rule, "" while it is silent
	short   map[string]bool // the needs that are not met
}

// moved runs what is downstream of a move's groups again.
func (p *Program) moved(r *LoadoutReport, m *move, at float64) ended {
	f := *r.Facts
	f.Plan, f.Builds = guess.Moved(r.of.plan, m.guesses, at), nil
	loadout, err := f.Plan.Loadout(r.ID)
	if err != nil { // a plan that is guessed has the loadouts that it had
		panic(err)
	}
	f.Loadout = loadout
	byHand := facts.InBrief | facts.InLoadout // what rules read by themselves
	if f.Plan.Bike != r.Facts.Plan.Bike {
		byHand |= facts.Bike
		f.Built, f.Standard = f.Plan.Build(r.ID), f.Plan.BuildStandard()
	}
	run := &study.Run{All: &f, Figures: slices.Clone(r.center), Table: &p.table, Where: r.where}
	f.Figured = p.figured(run.Figures)
	changed := p.ofPlan(&f, 0, m.enters)
	changed = p.rerun(run, changed, m.enters) | byHand
	e := ended{run.Figures, make([]verdict.State, len(p.rules)), p.short(&f)}
	said := r.Findings
	for i := range p.rules {
		rule := &p.rules[i]
		if r.spoke[i] {
			e.says[i], said = said[0].State, said[1:]
		}
		if rule.Reads&changed == 0 {
			continue
		}
		e.says[i] = ""
		if finding, ok := rule.Judge(&f); ok {
			e.says[i] = finding.State
		}
	}
	return e
}

// widen counts the bands of all guesses into the figures of a report, judges them again, and
// takes what does not hold at all ends from the points.
func (p *Program) widen(r *LoadoutReport) {
	if len(r.of.guesses) == 0 || r.Facts.Built == nil {
		return
	}
	moves := movesOf(r.of.guesses)
	ends := make([]ended, 2*len(moves))
	each(len(ends), func(i int) { ends[i] = p.moved(r, &moves[i/2], float64(2*(i%2)-1)) })

	figures := slices.Clone(r.center)
	turns := make([][]Turn, len(moves))
	for i := range figures {
		p.widenFigure(r, &figures[i], i, moves, ends, turns)
	}
	r.figures = figures
	r.Gauges, r.Others = figures[:p.gauges:p.gauges], figures[p.gauges:]
	p.holdOn(r, ends, turns)
	r.weigh()
	r.unsure = p.unsure(r, moves, ends)
	for i := range moves {
		for _, g := range moves[i].guesses {
			of := Guess{Guess: g}
			if g.Stirs(moves[i].guesses) {
				of.Turns = turns[i]
			}
			r.Guesses = append(r.Guesses, of)
		}
	}
}

// decides is the share of a band from which on a guess could turn what the whole band turns
// [memory].
const decides = 0.2

// widenFigure adds what each move does to a figure to its own band, as the root of the sum of
// their squares, and judges it by all of that.
func (p *Program) widenFigure(r *LoadoutReport, f *study.Figure, at int, moves []move, ends []ended, turns [][]Turn) {
	if !f.Known {
		return
	}
	value := bandOf(f)
	margin := value // to the limit, which some guesses move as well
	parts := make([]float64, len(moves))
	worst, best := f.State, f.State
	turned := make([]bool, len(moves))
	rests := int32(0)
	for i := range moves {
		var of, to reach
		for _, e := range ends[2*i : 2*i+2] {
			then := &e.figures[at]
			if then.Known {
				of.take(then.Value - f.Value)
				to.take(then.Value - f.Value - (then.Limit - f.Limit))
			}
			worst = verdict.Worse(worst, then.State)
			if then.State.Rank() < best.Rank() {
				best = then.State
			}
			turned[i] = turned[i] || then.State != f.State
		}
		if math.Max(of.most(), to.most()) < 1e-9*math.Max(1, math.Abs(f.Value)) {
			continue
		}
		rests += int32(len(moves[i].guesses))
		value.add(of)
		margin.add(to)
		parts[i] = square(to.most())
	}
	if rests == 0 && worst == best {
		return
	}
	f.Usual += rests
	f.Banded, f.Low, f.High = true, f.Value-math.Sqrt(value.down), f.Value+math.Sqrt(value.up)
	open := f.Rejudge(f.Value-math.Sqrt(margin.down), f.Value+math.Sqrt(margin.up), worst, best)
	if !f.Gauge {
		return
	}
	var settle []int
	for i := range moves {
		if turned[i] || open && parts[i] > decides*math.Max(margin.down, margin.up) {
			turns[i] = append(turns[i], Turn{Figure: f.Row})
			settle = append(settle, i)
		}
	}
	if !open {
		return
	}
	f.Between = true
	slices.SortStableFunc(settle, func(a, b int) int { return cmp.Compare(parts[b], parts[a]) })
	for _, i := range settle[:min(len(settle), settlesMost)] {
		together := moves[i].guesses
		g := &together[slices.IndexFunc(together, func(g guess.Guess) bool { return g.Stirs(together) })]
		f.Missing = append(f.Missing, g.Name)
		r.where = r.where.With(g.Name, g.At)
	}
}

// settlesMost is how many guesses are named that would settle a figure.
const settlesMost = 2

// reach is how far a guess moves a figure down and up.
type reach struct{ less, more float64 }

func (r *reach) take(by float64) { r.less, r.more = math.Min(r.less, by), math.Max(r.more, by) }

func (r reach) most() float64 { return math.Max(-r.less, r.more) }

// squares are the halves of a band, squared.
type squares struct{ down, up float64 }

func bandOf(f *study.Figure) (s squares) {
	if f.Banded {
		s = squares{square(f.Value - f.Low), square(f.High - f.Value)}
	}
	return s
}

func (s *squares) add(r reach) { s.down, s.up = s.down+square(r.less), s.up+square(r.more) }

func square(x float64) float64 { return x * x }

// shift gives the figures of a change of a plan the bands of the plan, moved along with their
// values: what a change does to a band itself is worked out when it lies on the bench.
func (r *LoadoutReport) shift(was *LoadoutReport) {
	if len(was.of.guesses) == 0 || r.Facts.Built == nil {
		return
	}
	figures := slices.Clone(r.center)
	for i := range figures {
		f, before := &figures[i], &was.figures[i]
		if !f.Known || !before.Known || !before.Banded || before.Usual == was.center[i].Usual {
			continue
		}
		f.Usual = max(f.Usual, before.Usual)
		f.Banded, f.Low, f.High = true, f.Value-(before.Value-before.Low), f.Value+(before.High-before.Value)
		f.Rejudge(f.Low, f.High, f.State, f.State)
	}
	r.figures = figures
	gauges := len(r.Gauges)
	r.Gauges, r.Others = figures[:gauges:gauges], figures[gauges:]
}
