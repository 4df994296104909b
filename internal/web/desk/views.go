package desk

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/words"
)

// Chance in words: so many times in a hundred or a thousand trips like this.
func Chance(p float64) string {
	switch {
	case p == 0:
		return "never"
	case p < 0.0005:
		return "below 1 in 1000"
	case p < 0.01:
		return fmt.Sprintf("%.0f in 1000", 1000*p)
	}
	return fmt.Sprintf("%.0f in 100", 100*p)
}

// AnswerWords say what an inspection found at one check.
func AnswerWords(a plan.Answer) string {
	words := string(a.Verdict)
	for _, info := range baseline.Verdicts() {
		if info.Verdict == a.Verdict {
			words = strings.ToLower(info.Name)
		}
	}
	if a.Now.Known() {
		words += ", " + a.Now.String()
	}
	if a.Cost.Known() {
		words += ", " + a.Cost.Display()
	}
	return words
}

// Plural counts things.
func Plural(n int, word string) string {
	if n == 1 {
		return word
	}
	return word + "s"
}

// Kg is a mass on the bike in the rider's units.
func (d *Desk) Kg(v float64) string { return d.Units.As(figure.LoadedMass, v) }

// SignedWords of a quantity.
func SignedWords(words func(float64) string, v float64) string {
	if v < 0 {
		return "−" + words(-v)
	}
	return words(v)
}

// Grounds names the two largest shares of a mix.
func Grounds(mix terrain.Mix) string {
	type share struct {
		name string
		of   float64
	}
	var list []share
	for i, g := range terrain.Grounds() {
		if mix.At(i) >= 0.05 {
			list = append(list, share{g.Name, mix.At(i)})
		}
	}
	slices.SortStableFunc(list, func(a, b share) int { return int(1000 * (b.of - a.of)) })
	var words []string
	for i, s := range list {
		if i < 2 {
			words = append(words, fmt.Sprintf("%.0f %% %s", 100*s.of, strings.ToLower(s.name)))
		}
	}
	return strings.Join(words, ", ")
}

// StateView is a state as it is shown: by shape and word.
type StateView struct {
	ID   verdict.State
	Word string
}

// StateOf a figure or finding, as pages show it.
func StateOf(s verdict.State) StateView { return StateView{s, string(s)} }

// GaugeView is a figure of the verdict strip.
type GaugeView struct {
	ID, Name    string
	Short       string // on the strip, where there is no room
	Size        Size   // on the strip
	Limited     bool
	Value       string // with its unit, "?" when unknown
	About       int    // how many usual numbers it rests on
	Limit       string // "" when there is none
	LimitWord   string
	Band        string
	State       StateView
	Needs       string     // the first thing that is missing, "" for a known figure
	Measure     string     // the first thing to be measured, of one whose limit lies inside its band
	Missing     []LinkView // what would have to be known, each with the way to its field where it has one
	Href        string     // of its working
	Fill, Notch float64    // 0–100 along its rule; Notch is -1 without a limit
}

// LimitWord says on which side of its limit a figure should stay.
func LimitWord(f study.Figure) string { return cmp.Or(f.LimitName, "max") }

// Gauges of a page: figures of a report, each a link to its working with what is tried.
func (d *Desk) Gauges(of *eval.LoadoutReport, page string, tried Laid, ids ...figure.ID) []GaugeView {
	var list []GaugeView
	for _, id := range ids {
		if f, ok := of.Figure(id); ok {
			list = append(list, d.Linked(of, GaugeOf(d.Units, f, d.Href("working/"+string(id), append([]string{"stage", page}, tried.Query()...)...))))
		}
	}
	return list
}

// Linked is a gauge of a report whose missing numbers lead to where they are typed.
func (d *Desk) Linked(of *eval.LoadoutReport, g GaugeView) GaugeView {
	g.Missing = slices.Clone(g.Missing)
	for i := range g.Missing {
		g.Missing[i].Href = d.Typed(of.Where(g.Missing[i].Name))
	}
	return g
}

// Guessed are in words what is guessed of the numbers of a sheet, "bike" or "brief", by their keys.
func (d *Desk) Guessed(sheet string) map[string]string {
	guessed := map[string]string{}
	for i := range d.Report.Guesses {
		g := &d.Report.Guesses[i]
		if key, ok := strings.CutPrefix(g.At, sheet+"/"); ok && !math.IsNaN(g.Value) {
			guessed[key] = "≈ " + d.Units.Quantity(g.Value, g.Unit)
		}
	}
	return guessed
}

// Typed is the way to where a number is typed, as a report says it, "" for no such place.
func (d *Desk) Typed(at string) string {
	kind, rest, _ := strings.Cut(at, "/")
	switch kind {
	case "bike":
		return d.Href("sheet") + "#f-" + rest
	case "brief":
		return d.Href("brief") + "#f-" + rest
	case "page":
		return d.Href(rest)
	case "part":
		id, key, _ := strings.Cut(rest, "/")
		return d.Href("part", "edit", id) + "#f-" + key
	case "came":
		slot, key, _ := strings.Cut(rest, "/")
		return d.Href("came", "slot", slot) + "#f-" + key
	}
	return ""
}

// MissingOf is what gauges lack, each once; not what would only make them surer.
func MissingOf(gauges []GaugeView) []LinkView {
	var list []LinkView
	for _, g := range gauges {
		if g.Measure != "" {
			continue
		}
		for _, what := range g.Missing {
			if !slices.Contains(list, what) {
				list = append(list, what)
			}
		}
	}
	return list
}

// seasonDays is how many days before a day its bar begins.
const seasonDays = 180

// GaugeOf a figure: its words, and where its bar and notch stand.
func GaugeOf(u words.Units, f study.Figure, href string) GaugeView {
	g := GaugeView{ID: string(f.ID), Name: u.Name(f.Row), Short: f.Short, Value: u.Value(f), State: StateOf(f.State), Href: href, Notch: -1}
	span, from := f.Value, 0.0
	if f.Limited {
		g.Limited, g.Limit, g.LimitWord = true, u.Limit(f), LimitWord(f)
		if f.IsDate() { // days have no beginning: the bar is of the months before the limit
			from, g.Limit, g.LimitWord = f.Limit-seasonDays, u.DayBeside(f.Limit, f.Value), "by"
		}
		span = (max(f.Value, f.Limit) - from) * 1.15
		g.Notch = Share(f.Limit-from, span)
	}
	if f.Known {
		g.Fill = Share(f.Value-from, span)
	}
	if f.Known && f.Usual > 0 {
		g.About, g.Value = int(f.Usual), u.About(f)
	}
	for _, what := range f.Missing {
		g.Missing = append(g.Missing, LinkView{Name: what})
	}
	if len(g.Missing) > 0 && f.State != verdict.OK {
		first, _, _ := strings.Cut(g.Missing[0].Name, " (")
		if f.Between {
			g.Measure = first
		} else {
			g.Needs = first
		}
	}
	if f.Banded {
		g.Band = u.Band(f)
	}
	return g
}

// Share of a span in hundredths, 0 where that means nothing.
func Share(v, span float64) float64 {
	if !(span > 0) || math.IsInf(span, 0) || math.IsNaN(v) {
		return 0
	}
	return math.Round(1000*min(max(v/span, 0), 1)) / 10
}

// FindingView is what a rule says, with its ways out.
type FindingView struct {
	ID, What, Why, Do, Short string
	State                    StateView
	Remedies                 []LinkView
	Ranks                    string // by what it stands where it does
	Side                     string // of a setting that is pulled both ways
	Waived, Back             string // why its rider has set it aside, and why it has come back
	SetAside                 string // where that is done, "" where it is not offered
}

// FindingsFor are what rules say of a need that is short, with their ways out on a page.
func (d *Desk) FindingsFor(need, page string) (list []FindingView) {
	for _, f := range d.Report.Findings {
		if f.Need == need {
			to := d.OnTop(page, Laid{})
			if f.Open || len(d.Report.Unsure(need)) > 0 {
				to = nil // a measurement comes before a part
			}
			list = append(list, findingOf(d.Units, f, to))
		}
	}
	return list
}

// wayOut is where a remedy is tried, on top of what lies on the bench.
type wayOut func(remedy []plan.Choice) (href string)

// CardView is the worst finding of a cause, and what else comes of it.
type CardView struct {
	FindingView
	More []FindingView
}

// findingsView is what rules have to say: by causes, the small things in one line, and what is
// set on the day in another.
type findingsView struct {
	Cards      []CardView
	Small, Day []FindingView
	Open       []FindingView // of which a guess decides whether they are so
}

// All of them.
func (v findingsView) All() (list []FindingView) {
	for _, c := range v.Cards {
		list = append(append(list, c.FindingView), c.More...)
	}
	return slices.Concat(list, v.Small, v.Day)
}

// findingsOf shows findings, the worst first; their remedies are the next things
// to put on the bench. Without a way out they are left as words.
func findingsOf(u words.Units, findings []study.Finding, to wayOut) (view findingsView) {
	view.Cards = cardsOf(u, study.Cards(findings), to)
	for _, f := range study.OfTheDay(findings) {
		view.Day = append(view.Day, findingOf(u, f, to))
	}
	for _, f := range study.SmallThings(findings) {
		view.Small = append(view.Small, findingOf(u, f, to))
	}
	for _, f := range study.Guessed(findings) {
		view.Open = append(view.Open, findingOf(u, f, nil)) // what is not known to be so sells nothing
	}
	return view
}

func cardsOf(u words.Units, cards []study.Card, to wayOut) (list []CardView) {
	for _, card := range cards {
		list = append(list, cardOf(u, card, to))
	}
	return list
}

func cardOf(u words.Units, card study.Card, to wayOut) CardView {
	v := CardView{FindingView: findingOf(u, card.Lead, to)}
	for _, f := range card.More {
		v.More = append(v.More, findingOf(u, f, to))
	}
	if card.Pull == "" {
		return v
	}
	v.Side = side(card.Lead.Pulls)
	for i := range v.More {
		v.More[i].Side = side(card.More[i].Pulls)
	}
	return v
}

// Finding is one in words, without a way out.
func (d *Desk) Finding(f study.Finding) FindingView { return findingOf(d.Units, f, nil) }

func findingOf(u words.Units, f study.Finding, to wayOut) FindingView {
	told := f.Tell()
	v := FindingView{ID: f.ID, What: u.Text(told.What), Why: u.Text(told.Why), Do: u.Text(told.Do), Short: u.Text(told.Short), State: StateOf(f.State), Ranks: f.Why(), Back: f.Back}
	if f.Waived != nil {
		v.Waived = f.Waived.Why
	}
	if to != nil {
		for _, remedy := range f.Remedies() {
			v.Remedies = append(v.Remedies, LinkView{Name: remedy.Label, Href: to(remedy.Choices)})
		}
	}
	return v
}

// MoveView is a figure before and after.
type MoveView struct {
	ID                         string // of a gauge, "" for other figures
	Name, Before, After, Delta string
	State, WasState            StateView
	Gauge                      bool
}

// MoveOf a figure that changed.
func MoveOf(u words.Units, m eval.Move) MoveView {
	v := MoveView{
		Name: u.Name(m.After.Row), Before: u.Told(*m.Before), After: u.Told(*m.After),
		State: StateOf(m.After.State), WasState: StateOf(m.Before.State), Gauge: m.After.Gauge,
	}
	if v.Gauge {
		v.ID = string(m.After.ID)
	}
	if delta, ok := m.Delta(); ok {
		v.Delta = u.Delta(*m.After, delta)
	}
	return v
}
