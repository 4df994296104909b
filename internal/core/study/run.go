package study

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Figure is one computed number with its state.
type Figure struct {
	*figure.Row
	Unit    string        // the row's, or the plan's currency
	State   verdict.State // "" until a step has worked it out
	Missing []string      // what would have to be known; of a known value, for it to be surer

	Usual                  int32 // how many numbers under it are the usual ones of a kind
	Known, Limited, Banded bool  // whether Value, Limit, and Low and High hold
	Between                bool  // a limit lies inside the band that guesses make: Missing is what to measure
	Value, Limit           float64
	Low, High              float64

	floored bool // whether floor is a limit too, below the value
	floor   float64
	worst   verdict.State // that all of it past its limit is, "" where more than the limit judges
}

// Begin is a figure before its step has run.
func Begin(row *figure.Row, currency string) Figure {
	f := Figure{Row: row, Unit: row.Unit}
	if row.IsSum() {
		f.Unit = currency
	}
	return f
}

// Waits leaves the figure unknown for something that has to be there first.
func (f *Figure) Waits(what string) { f.State, f.Missing = verdict.Unknown, []string{what} }

// Or is the value, or another number where it is not known.
func (f *Figure) Or(other float64) float64 {
	if f.Known {
		return f.Value
	}
	return other
}

// Run is one evaluation of one loadout: the facts so far, and the figures.
type Run struct {
	*facts.All
	Figures []Figure // in the order of the table

	Table   *Table
	Step    *Step        // that is running
	Wanted  figure.ID    // whose working is kept
	Working *sheet.Sheet // nil when nobody looks
	Where   Where
}

// Lack is something that would have to be known, and where it is typed.
type Lack struct{ What, At string }

// Where says of what is missing where it is typed: "bike/kerb_mass", "brief/distance",
// "part/own-plate/mass". It is never written to, only replaced, so that reports share it.
type Where map[string]string

// With is the same with one more.
func (w Where) With(what, at string) Where {
	if at == "" || w[what] == at {
		return w
	}
	more := make(Where, len(w)+1)
	maps.Copy(more, w)
	more[what] = at
	return more
}

// Table says where a figure stands in [Run.Figures], and which step works it out.
type Table struct {
	Place map[figure.ID]int
	By    []*Step // by place; nil for a figure that no step works out
}

// figure is the one of an id, which must be in the table.
func (r *Run) figure(id figure.ID) *Figure {
	at, ok := r.Table.Place[id]
	if !ok {
		panic(fmt.Sprintf("step %q: figure %q has no row", r.Step.Name, id))
	}
	return &r.Figures[at]
}

// explain is the working of a figure that a step before has worked out: it runs
// that step once more, on a copy of what is known.
func (r *Run) explain(id figure.ID) *sheet.Sheet {
	known, again := *r.All, *r
	again.All, again.Figures = &known, slices.Clone(r.Figures)
	again.Wanted, again.Working = id, &sheet.Sheet{}
	again.Step = r.Table.By[r.Table.Place[id]]
	again.Forget(again.Step.Gives)
	again.Step.Run(&again)
	return again.Working
}

// Calc is one figure in the making.
type Calc struct {
	*Figure
	Sheet *sheet.Sheet // nil unless this is the figure that is looked at

	Run *Run
}

// Figure begins a figure that the step declares.
func (r *Run) Figure(id figure.ID) Calc {
	if !slices.Contains(r.Step.Figures, id) {
		panic(fmt.Sprintf("step %q does not say that it works %q out", r.Step.Name, id))
	}
	c := Calc{Figure: r.figure(id), Run: r}
	*c.Figure = Figure{Row: c.Row, Unit: c.Unit}
	if r.Wanted == id {
		c.Sheet = r.Working
	}
	return c
}

// Lacks notes something that would have to be known.
func (c Calc) Lacks(what string) {
	if !slices.Contains(c.Missing, what) {
		c.Missing = append(c.Missing, what)
	}
}

// LacksAt is Lacks of something that is typed somewhere.
func (c Calc) LacksAt(what, at string) {
	c.Lacks(what)
	c.Run.Where = c.Run.Where.With(what, at)
}

// Ground is what lacks where the brief does not say on what ground it goes.
var Ground = Lack{What: "terrain shares (Brief)", At: "brief/share.paved"}

// LacksGround is Lacks of that.
func (c Calc) LacksGround() { c.LacksAt(Ground.What, Ground.At) }

// LacksOf is Lacks of a number of a part.
func (c Calc) LacksOf(p *parts.Part, key, what string) { c.LacksAt(what, PartAt(p, key)) }

// PartAt is where a number of a part is typed, "" for one that has no sheet of its own.
func PartAt(p *parts.Part, key string) string {
	switch {
	case p == nil:
		return ""
	case p.Own():
		return "part/" + p.ID + "/" + key
	case strings.HasPrefix(p.ID, parts.StandardPrefix):
		return "came/" + string(p.Slot) + "/" + key
	}
	return ""
}

// Is sets the value; a value that rests on something missing stays unknown.
func (c Calc) Is(value float64) {
	if len(c.Missing) > 0 || math.IsNaN(value) || math.IsInf(value, 0) {
		return
	}
	c.Known, c.Value = true, value
}

// Band sets the ends of a known value's band.
func (c Calc) Band(low, high float64) {
	if c.Known {
		c.Banded, c.Low, c.High = true, low, high
	}
}

// Spread is the band of a known value that rests on usual numbers, half to each side.
func (c Calc) Spread(half float64) {
	if half > 0 {
		c.Band(c.Value-half, c.Value+half)
	}
}

// Open reports whether the limit of a known value lies inside its band.
func (f *Figure) Open() bool {
	return f.Known && f.Limited && f.Banded && f.Passes(f.High, f.Limit) && !f.Passes(f.Low, f.Limit)
}

// Rejudge judges a known figure again whose band has grown to low and high, by the worst and the
// best state in which it stands at the ends of what is guessed: all of the band good is ok, some
// of it bad is watch, and all of it bad is as bad as it was. A value past a rating is never below
// over. It reports whether a limit lies inside the band.
func (f *Figure) Rejudge(low, high float64, worst, best verdict.State) (open bool) {
	bad := func(s verdict.State) bool { return s == verdict.Over || s == verdict.Stop }
	open = f.Known && (f.Limited && f.Passes(high, f.Limit) && !f.Passes(low, f.Limit) ||
		f.floored && f.Passes(f.floor, low) && !f.Passes(f.floor, high))
	switch {
	case !f.Known:
	case bad(f.State) && !open && bad(best):
		if best == verdict.Over { // not for sure
			f.State = verdict.Over
		}
	case f.worst == verdict.Stop && f.Limited && f.Passes(f.Value, f.Limit):
		f.State = verdict.Over
	case bad(f.State), open, bad(worst):
		f.State = verdict.Watch
	case f.State == verdict.OK && worst != verdict.OK && f.worst == "":
		f.State = verdict.Watch
	}
	return open
}

// Settle says what would have to be measured where the limit lies inside the band.
func (c Calc) Settle(by func() []Lack) {
	if c.Usual > 0 && c.Open() {
		c.Between = true
		c.Unsure(by()...)
	}
}

// Unsure says what would make a known figure surer.
func (c Calc) Unsure(list ...Lack) {
	for _, l := range list {
		c.Lacks(l.What)
		c.Run.Where = c.Run.Where.With(l.What, l.At)
	}
}

// limit sets a limit, which is none when it is NaN; ok says that value and limit
// are both there to be compared.
func (c Calc) limit(limit float64) (ok bool) {
	if !math.IsNaN(limit) {
		c.Limited, c.Limit = true, limit
	}
	return c.Known && c.Limited
}

// AtMost ends a figure that should not pass a limit: with all of its band past it, as it is
// written, the state is worst; a value past a rating is never below over. Where the limit
// lies inside the band, or the value above near × limit, it is watch; so it is where a wish is
// passed by less than the figure is known.
func (c Calc) AtMost(limit sheet.Value, near float64, worst verdict.State) {
	low, high := c.Value, c.Value
	if c.Banded {
		low, high = c.Low, c.High
	}
	c.worst = worst
	if worst != verdict.Stop {
		low = math.Min(low, c.Value-c.Row.Half)
	}
	switch {
	case !c.limit(limit.Number):
		c.unlimited()
	case c.Passes(low, limit.Number):
		c.State = worst
	case c.Passes(c.Value, limit.Number) && worst == verdict.Stop:
		c.State = verdict.Over
	case c.Passes(high, limit.Number), c.Value > near*limit.Number:
		c.State = verdict.Watch
	default:
		c.State = verdict.OK
	}
}

// Within ends a figure that should lie between two numbers: with all of its band above them
// it is over; with some of the band outside, or all of it below, it is watch.
func (c Calc) Within(least, most float64) {
	low, high := c.Value, c.Value
	if c.Banded {
		low, high = c.Low, c.High
	}
	c.floored, c.floor = true, least
	c.Against(most, c.Passes(low, most), c.Passes(high, most) || c.Passes(least, low))
}

// Against ends a figure that has a limit and is judged by more than its value.
func (c Calc) Against(limit float64, over, watch bool) {
	if !c.limit(limit) {
		c.unlimited()
		return
	}
	if over && math.Abs(c.Value-limit) < c.Row.Half { // not passed for sure
		over, watch = false, true
	}
	c.Judged(over, watch)
}

// unlimited ends a figure whose limit nobody knows: one that is known itself is a figure,
// but not a good one.
func (c Calc) unlimited() {
	c.State = verdict.Unknown
	if c.Known {
		c.State = verdict.Watch
	}
}

// Plain ends a figure that nothing judges.
func (c Calc) Plain() { c.Judged(false, false) }

// Judged ends a figure whose state follows from other numbers than its own; one
// that is not known is not judged.
func (c Calc) Judged(over, watch bool) {
	switch {
	case !c.Known:
		c.State = verdict.Unknown
	case over:
		c.State = verdict.Over
	case watch:
		c.State = verdict.Watch
	default:
		c.State = verdict.OK
	}
}

// Quantity is a number of the document; a pointer, so that taking one costs nothing.
type Quantity interface {
	Known() bool
	In(unit string) float64
}

// Bike takes one of the bike's numbers.
func (c Calc) Bike(key, name, unit string, q Quantity) sheet.Value {
	if !q.Known() {
		c.LacksAt(name+" (Bike)", "bike/"+key)
	}
	v := sheet.Value{Name: name, Number: q.In(unit), Unit: unit}
	if c.Sheet != nil {
		v.Origin = c.Run.Built.Bike.OriginOf(key)
	}
	return v
}

// Brief takes one of the brief's numbers.
func (c Calc) Brief(name, unit string, q Quantity) sheet.Value {
	if !q.Known() {
		c.LacksAt(name+" (Brief)", "brief/"+c.Run.Plan.Brief.KeyOf(q))
	}
	v := sheet.Value{Name: name, Number: q.In(unit), Unit: unit, Origin: sheet.Rider}
	if c.Sheet != nil && c.Run.Guessed["brief/"+c.Run.Plan.Brief.KeyOf(q)] {
		v.Origin = sheet.Guessed
	}
	return v
}

// Fact takes a number that another step found.
func (c Calc) Fact(name string, number float64, unit string) sheet.Value {
	if math.IsNaN(number) {
		c.Lacks(name)
	}
	return Computed(name, number, unit)
}

// On takes another figure as an input, under a name of its own here: what that lacks
// this lacks too, and its working comes before this one's. The step must need a
// group that the other's step gives.
func (c Calc) On(id figure.ID, name string) sheet.Value {
	other := c.Run.figure(id)
	if !other.Known {
		for _, what := range other.Missing {
			c.Lacks(what)
		}
	}
	c.Usual = max(c.Usual, other.Usual)
	if c.Sheet != nil {
		before := c.Run.explain(id)
		c.Sheet.Steps = append(c.Sheet.Steps, before.Steps...)
		for _, note := range before.Notes {
			if !slices.Contains(c.Sheet.Notes, note) {
				c.Sheet.Note(note)
			}
		}
	}
	return Computed(name, other.Or(math.NaN()), other.Unit)
}

// Rolling is the resistance of a kind of ground.
func Rolling(g terrain.Ground) sheet.Value {
	return sheet.Value{Name: "Crr on " + g.Name, Number: g.Rolling, Origin: sheet.Memory}
}

// Computed wraps a number that another step worked out.
func Computed(name string, number float64, unit string) sheet.Value {
	return sheet.Value{Name: name, Number: number, Unit: unit, Origin: sheet.Computed}
}
