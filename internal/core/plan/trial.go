package plan

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guide"
	"valiantmule/internal/core/unit"
)

// Trial is one step of a guide that was taken: a question answered, a change set, and what
// came of it.
type Trial struct {
	Guide   string `json:"guide" is:"id"`
	Step    string `json:"step,omitempty"`
	Answer  string `json:"answer" is:"id"`
	On      string `json:"on,omitempty" is:"date"` // date
	Loadout string `json:"loadout,omitempty"`
	Was     string `json:"was,omitempty"` // what a change changed, as it stood before
}

// TrialsOf a guide, in the order in which they were taken.
func (p *Plan) TrialsOf(id string) []guide.Taken {
	var taken []guide.Taken
	for _, t := range p.Trials {
		if t.Guide == id {
			taken = append(taken, guide.Taken{Step: t.Step, Answer: t.Answer})
		}
	}
	return taken
}

// Tried is the plan one step further; the oldest go where there are too many.
func (p *Plan) Tried(t Trial) *Plan {
	changed := *p
	changed.Trials = append(slices.Clone(p.Trials), t)
	if over := len(changed.Trials) - maxTrials; over > 0 {
		changed.Trials = changed.Trials[over:]
	}
	return &changed
}

// first of two that is known.
func first(a, b unit.Length) *unit.Length {
	if a.Known() {
		return &a
	}
	return &b
}

// maxTrials is far above what anybody tries before a trip.
const maxTrials = 300

// set finds the quantity of a setting in a copy of the plan, its unit and what stands there
// while the plan says nothing.
func (p *Plan) set(loadout string, s guide.Setting) (changed *Plan, q entry.Entry, symbol string, stands float64) {
	copied := *p
	copied.Loadouts = slices.Clone(p.Loadouts)
	l, err := copied.Loadout(loadout)
	if err != nil || p.Bike == nil {
		return p, nil, "", math.NaN()
	}
	or := func(own, sheet unit.Ratio) float64 {
		if own.Known() {
			return own.In("")
		}
		return sheet.In("")
	}
	c, std := &copied.Clicks, &p.Bike.Clicks
	switch s {
	case guide.FrontPreload:
		return &copied, &l.Setting.FrontPreload, "mm", first(p.Baseline.Set.FrontPreload, p.Bike.FrontPre).In("mm")
	case guide.RearPreload:
		return &copied, &l.Setting.RearPreload, "mm", first(p.Baseline.Set.RearPreload, p.Bike.RearPre).In("mm")
	case guide.ForkThrough:
		found := 0.0
		if p.Baseline.Set.ForkThrough.Known() {
			found = p.Baseline.Set.ForkThrough.In("mm")
		}
		return &copied, &copied.ForkThrough, "mm", found
	case guide.ForkCompression:
		return &copied, &c.ForkCompression, "", or(c.ForkCompression, std.ForkCompression)
	case guide.ForkRebound:
		return &copied, &c.ForkRebound, "", or(c.ForkRebound, std.ForkRebound)
	case guide.ShockCompression:
		return &copied, &c.ShockCompression, "", or(c.ShockCompression, std.ShockCompression)
	case guide.ShockRebound:
		return &copied, &c.ShockRebound, "", or(c.ShockRebound, std.ShockRebound)
	}
	return p, nil, "", math.NaN()
}

// Changed is the plan with a setting moved by so much in a loadout, from where it stands;
// now, where it is a number, is what a spring that is not the sheet's is set to. was is what
// the plan said before, for taking it back. What is done by hand changes nothing.
func (p *Plan) Changed(loadout string, s guide.Setting, by, now float64) (changed *Plan, was string, err error) {
	if s == guide.Forward {
		copied := *p
		copied.Loadouts = slices.Clone(p.Loadouts)
		l, err := copied.Loadout(loadout)
		if err != nil {
			return p, "", err
		}
		was, l.Sits = string(l.Sits), SitsForward
		return &copied, was, nil
	}
	changed, q, symbol, stands := p.set(loadout, s)
	if q == nil {
		return changed, "", nil
	}
	was = q.String()
	if n, ok := q.(interface{ In(string) float64 }); ok && q.Known() {
		stands = n.In(symbol)
	} else if !math.IsNaN(now) {
		stands = now
	}
	if math.IsNaN(stands) {
		return p, "", fmt.Errorf("nobody has said where it stands now: count it from fully in, and write it down")
	}
	to := stands + by
	if s != guide.ForkThrough && to < 0 {
		return p, "", fmt.Errorf("it stands at %s, and goes no further", strconv.FormatFloat(stands, 'f', -1, 64))
	}
	return changed, was, q.Enter(strconv.FormatFloat(math.Round(to*10)/10, 'f', -1, 64), symbol)
}

// TakenBack is the plan with a setting as it stood before.
func (p *Plan) TakenBack(loadout string, s guide.Setting, was string) (*Plan, error) {
	if s == guide.Forward {
		copied := *p
		copied.Loadouts = slices.Clone(p.Loadouts)
		l, err := copied.Loadout(loadout)
		if err == nil {
			l.Sits = Sit(was)
		}
		return &copied, err
	}
	changed, q, symbol, _ := p.set(loadout, s)
	if q == nil {
		return changed, nil
	}
	return changed, q.Enter(was, symbol)
}

// validateTrials checks the steps that were taken of guides: their words, not where they lead.
func validateTrials(v *entry.Problems, list []Trial) {
	v.Few("trials", len(list), maxTrials)
	for i, t := range list {
		path := fmt.Sprintf("trials[%d]", i)
		v.That(entry.IsSlug(t.Guide), path+".guide", "%q is not the id of a guide", t.Guide)
		v.That(t.Step == "" || entry.IsSlug(t.Step), path+".step", "%q is not the id of a step", t.Step)
		v.That(entry.IsSlug(t.Answer), path+".answer", "%q is not an answer", t.Answer)
		v.Date(path+".on", t.On)
		v.That(len(t.Loadout) <= entry.MaxName && len(t.Was) <= entry.MaxName, path+".was", "is longer than %d bytes", entry.MaxName)
	}
}
