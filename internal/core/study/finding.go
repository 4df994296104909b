package study

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
)

// Rule is one row of the trade's knowledge of how one change upsets another. It
// looks at a bike as built beside the same bike as it came, and at the facts; it
// speaks when its row applies and is silent when it does not. A number that is
// missing is NaN and keeps a rule that compares silent, for the gauge that lacks it
// already says so.
type Rule struct {
	ID      string
	Stage   figure.Stage // that settles it
	Class   cause.Class  // what it would cost the trip
	Cause   cause.ID
	Free    bool        // a look, a ride or a setting settles it: nothing is bought
	Pulls   cause.Pull  // the setting that it would have another way, none for most
	Need    string      // that its finding leaves short, "" for none: the two are one line
	Reads   facts.Set   // what it judges by: groups of facts, and what is put in
	Figures []figure.ID // that it judges by
	Judge   func(*facts.All) (Finding, bool)
}

// Speak asks the rule.
func (r *Rule) Speak(f *facts.All) (finding Finding, ok bool) {
	if finding, ok = r.Judge(f); ok {
		finding.Rule, finding.facts = r, f
	}
	return finding, ok
}

// Finding is what a rule has to say. It is judged at once; its sentences are made
// and the shelf is searched when somebody wants to read it.
type Finding struct {
	*Rule // that says so; nil while a rule judges
	State verdict.State
	Small bool // to be read once, in a line with others; no page stands worse for it
	Day   bool // to be set when the bike is loaded: a line of a list of its own, likewise
	Early bool // it helps before the first kilometre or not at all
	Open  bool // a guess decides whether it is so: a line of what is to be measured first, likewise
	Tell  func() Words
	Offer func() []Remedy // ways out, nil where there are none

	// What it goes by, where that is not the worst of the rule's figures: so much, against so much,
	// 0 for none.
	Value, Limit float64

	Waived *plan.Waiver // by which its rider has set it aside, nil for none
	Back   string       // why it is here though it was set aside, "" where it was not

	facts *facts.All
}

// Found is what a rule answers whose row applies and that has nothing to offer; one
// that has says so by a [Finding] of its own.
func Found(state verdict.State, tell func() Words) (Finding, bool) {
	return Finding{State: state, Tell: tell}, true
}

// FoundBy is [Found] of a number against its limit, 0 for none.
func FoundBy(value, limit float64, state verdict.State, tell func() Words) (Finding, bool) {
	return Finding{State: state, Value: value, Limit: limit, Tell: tell}, true
}

// Noted is what a rule answers that has a small thing to say.
func Noted(tell func() Words) (Finding, bool) {
	return Finding{State: verdict.Watch, Small: true, Tell: tell}, true
}

// OnTheDay is what a rule answers that has something to be set when the bike is loaded.
func OnTheDay(tell func() Words) (Finding, bool) {
	return Finding{State: verdict.Watch, Day: true, Tell: tell}, true
}

// Aside is where the finding stands beside the open points, "set" for one that its rider has set
// aside, "guess", "day" or "small"; "" for one of them. A rating that is passed stays one of them
// whatever its rider knows.
func (f Finding) Aside() string {
	switch {
	case f.Waived != nil && f.State != verdict.Stop:
		return "set"
	case f.Open:
		return "guess"
	case f.Day:
		return "day"
	case f.Small:
		return "small"
	}
	return ""
}

// Remedies are the ways out for the bike as it is in the loadout.
func (f Finding) Remedies() []Remedy {
	if f.Offer == nil {
		return nil
	}
	list := f.Offer()
	for i := range list {
		list[i].Choices = f.facts.Plan.Scoped(list[i].Choices, f.facts.Loadout.ID)
	}
	return list
}

// Words are a finding's sentences.
type Words struct {
	What Text // what is the case, in figures
	Why  Text // what comes of it
	Do   Text // what a rider does about it

	Short Text // of what stands aside, as a line: "seat {+9 mm}"
}

// Remedy is a way out that can be previewed: parts that are on the shelf.
type Remedy struct {
	Label   string
	Choices []plan.Choice
}

// Loud are the findings that do not stand aside.
func Loud(findings []Finding) []Finding { return standing(findings, "") }

// Asides are those that stand aside.
func Asides(findings []Finding) []Finding {
	return slices.DeleteFunc(slices.Clone(findings), func(f Finding) bool { return f.Aside() == "" })
}

// SmallThings are those that are read once.
func SmallThings(findings []Finding) []Finding { return standing(findings, "small") }

// Guessed are those of which a guess decides whether they are so.
func Guessed(findings []Finding) []Finding { return standing(findings, "guess") }

func standing(findings []Finding, at string) []Finding {
	return slices.DeleteFunc(slices.Clone(findings), func(f Finding) bool { return f.Aside() != at })
}

// SetAside are those that their rider has set aside.
func SetAside(findings []Finding) []Finding { return standing(findings, "set") }

// Worst is the worst state of loud findings, OK when there are none.
func Worst(findings []Finding) verdict.State {
	worst := verdict.OK
	for _, f := range Loud(findings) {
		worst = verdict.Worse(worst, f.State)
	}
	return worst
}

// Text is what a rule or a need says. Its quantities stand in braces, "{17 mm}", so
// that a page can show them in the rider's own units.
type Text string

// String is the text as it stands, in metric units.
func (t Text) String() string { return braces.Replace(string(t)) }

var braces = strings.NewReplacer("{", "", "}", "")

// Say is a formatted text. A text in it keeps its braces.
func Say(format string, args ...any) Text {
	for i, arg := range args {
		if text, ok := arg.(Text); ok {
			args[i] = string(text)
		}
	}
	return Text(fmt.Sprintf(format, args...))
}

// Signed writes a number with its sign, minus as a true one.
func Signed(v float64, digits int) string {
	text := strconv.FormatFloat(math.Abs(v), 'f', digits, 64)
	if v < 0 {
		return "−" + text
	}
	return "+" + text
}

// Listed names up to three things and how many more there are.
func Listed(names []string) string {
	const most = 3
	if len(names) > most {
		return strings.Join(names[:most], ", ") + fmt.Sprintf(" and %d more", len(names)-most)
	}
	return strings.Join(names, ", ")
}

// ToWeigh is what would narrow the band of everything that rests on masses, the widest first.
func ToWeigh(m *facts.Masses) []Lack {
	var list []Lack
	for _, it := range m.Unweighed() {
		list = append(list, Lack{"mass of " + it.Part.Name, PartAt(it.Part, "mass")})
	}
	return list
}

// Names are what lacks are called.
func Names(list []Lack) []string {
	names := make([]string, len(list))
	for i, l := range list {
		names[i] = l.What
	}
	return names
}
