package desk

import (
	"cmp"
	"slices"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Of the points that ask for a decision so many stand open on the empty bench: the page's own
// first, and of all others those that matter most. A rating that is passed is never folded.
const (
	openMost   = 7
	othersMost = 3
)

// PointView is one decision in its place.
type PointView struct {
	CardView
	Number, Yours int    // in our order, and in the rider's own; 0 without one
	Pull          string // the setting that its findings pull from both sides
	Stage         string
	Settled       string // where it is
}

// restView are the points of a stage that stand folded.
type restView struct {
	Name   string
	State  StateView // the worst of them
	Points []PointView
}

// PointsView is the empty bench: what is to be decided, what is set on the day, what is to be known.
type PointsView struct {
	Here, Most []PointView
	More       []PointView // of the page, folded
	Rest       []restView
	Day, Small []FindingView
	Open       []FindingView // of which a guess decides whether they are so
	Aside      []FindingView // that the rider has set aside
	Decide     int
	All        string // where they all are, in order
	Measure    string // where what is guessed is answered
	Set        string // where what is set on the day is ticked off
}

// Any reports whether a rule has anything to say.
func (v *PointsView) Any() bool {
	return v.Decide+len(v.Day)+len(v.Small)+len(v.Open)+len(v.Aside) > 0
}

// points are what the empty bench of a page shows.
func (d *Desk) points(page string) PointsView {
	findings := slices.DeleteFunc(slices.Clone(d.Report.Findings), func(f study.Finding) bool { return slices.Contains(d.Shown, f.Need) })
	v := PointsView{All: d.Href("points"), Measure: d.Href("guesses"), Set: d.Href("day")}
	to := d.OnTop(page, Laid{})
	cards := study.Cards(findings)
	v.Decide = len(cards)
	here := func(c study.Card) bool { return d.house.isHere(page, c.Lead) }
	others := 0 // that stand open: those that are never folded, then what matters most
	for _, c := range cards {
		if c.Lead.State == verdict.Stop && !here(c) {
			others++
		}
	}
	room := openMost - max(others, othersMost) // for the page's own
	rest := map[figure.Stage][]PointView{}
	for i, c := range cards {
		stop := c.Lead.State == verdict.Stop
		switch {
		case here(c) && (stop || len(v.Here) < room):
			v.Here = append(v.Here, d.Point(c, i+1, page, to))
		case here(c):
			v.More = append(v.More, d.Point(c, i+1, page, nil))
		case stop || others < othersMost:
			v.Most = append(v.Most, d.Point(c, i+1, page, to))
			if !stop {
				others++
			}
		default:
			rest[c.Lead.Stage] = append(rest[c.Lead.Stage], d.Point(c, i+1, page, nil))
		}
	}
	for _, st := range d.house.Stages {
		if list := rest[st.ID]; len(list) > 0 {
			v.Rest = append(v.Rest, restView{st.Name, worstOf(list), list})
		}
	}
	all := findingsOf(d.Units, study.Asides(findings), nil) // in lines, without their ways out
	v.Day, v.Small, v.Open = all.Day, all.Small, all.Open
	for _, f := range study.SetAside(findings) {
		v.Aside = append(v.Aside, findingOf(d.Units, f, nil))
	}
	return v
}

// worstOf points is the worst state of them.
func worstOf(points []PointView) StateView {
	worst := verdict.OK
	for i := range points {
		worst = verdict.Worse(worst, points[i].State.ID)
	}
	return StateOf(worst)
}

// Point is a decision at its place in our order.
func (d *Desk) Point(c study.Card, number int, page string, to wayOut) PointView {
	v := PointView{CardView: cardOf(d.Units, c, to), Number: number, Pull: c.Pull.Name(), Stage: d.StageName(c.Lead.Stage), Settled: d.Href(d.house.Home(c.Lead))}
	for _, f := range c.All() {
		if at := slices.Index(d.Plan.Order, f.ID); at >= 0 && (v.Yours == 0 || at < v.Yours) {
			v.Yours = at + 1
		}
	}
	v.SetAside = d.Href("points", "finding", v.ID, "from", page)
	for i := range v.More {
		v.More[i].SetAside = d.Href("points", "finding", v.More[i].ID, "from", page)
	}
	return v
}

// leadsMost is how many points lead.
const leadsMost = 3

// Leads are the decisions that lead, each with its way out on a page, or with none on the page
// where it is settled; where there are no decisions, what comes next in the work.
func (d *Desk) Leads(on string) (list []PointView, next *LinkView) {
	for i, c := range study.Cards(d.Report.Findings) {
		if i == leadsMost {
			break
		}
		page := cmp.Or(on, d.house.Home(c.Lead))
		list = append(list, d.Point(c, i+1, page, d.OnTop(page, Laid{})))
	}
	if list != nil {
		return list, nil
	}
	for i := range d.house.Stages {
		if st := &d.house.Stages[i]; d.stageState(st).ID != verdict.OK {
			return nil, &LinkView{Name: st.Name, Href: d.Href(string(st.ID))}
		}
	}
	return nil, &LinkView{Name: "what is set on the day", Href: d.Href("day")}
}

// Home is the page on which a finding is settled: the one that settles its need or names its
// cause, or else its stage's first.
func (s *House) Home(f study.Finding) string {
	return s.settledOn(f.Stage, func(p Page) bool {
		return f.Need != "" && slices.Contains(p.Needs, f.Need) || slices.Contains(p.Causes, f.Cause)
	})
}

// isHere reports whether a finding is a page's: it is settled there, or somewhere else in a stage
// of which the page settles nothing by itself.
func (s *House) isHere(page string, f study.Finding) bool {
	at, p := s.pageOf(page)
	if p == nil || s.Stages[at].ID != f.Stage {
		return false
	}
	settlesNothing := p.ID != string(f.Stage) && len(p.Causes) == 0 && len(p.Needs) == 0
	return s.Home(f) == p.ID || settlesNothing
}

// decisions are how many points of a stage ask for one.
func decisions(cards []study.Card, stage figure.Stage) int {
	n := 0
	for _, c := range cards {
		if c.Lead.Stage == stage {
			n++
		}
	}
	return n
}

// sides are how a finding that pulls a setting would have it.
var sides = map[bool]string{true: "more of it", false: "less of it"}

// side of a finding, "" for one that pulls nothing.
func side(p cause.Pull) string {
	if p.Setting == "" {
		return ""
	}
	return sides[p.Up]
}
