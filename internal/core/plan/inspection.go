package plan

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Inspection is what a second-hand bike was found to be like.
type Inspection struct {
	Answers []Answer `json:"answers,omitempty"` // one a check at most
	Changes []Change `json:"changes,omitempty"` // that previous owners made
	AsBuilt []Fact   `json:"as_built,omitempty"`
	Set     AsSet    `json:"set,omitzero"`
}

// AsSet is how a bike was found set, where that is not as its sheet has it. It stands until a
// plan sets it otherwise, or puts other springs in.
type AsSet struct {
	ForkThrough  unit.Length `json:"fork_through,omitzero"` // that the tubes stood further up through their clamps than standard
	FrontPreload unit.Length `json:"front_preload,omitzero"`
	RearPreload  unit.Length `json:"rear_preload,omitzero"`
}

// Fields lists its numbers.
func (s *AsSet) Fields() []entry.Field {
	return []entry.Field{
		entry.Ask("fork_through", "Fork stood through its clamps by", "mm", -40, 40, "Further up than standard; below zero further down. Empty: as standard.", &s.ForkThrough),
		entry.Ask("front_preload", "Fork preload stood at", "mm", 0, 80, "How much the springs are pressed together with the wheel hanging. Empty: as on the sheet.", &s.FrontPreload),
		entry.Ask("rear_preload", "Shock preload stood at", "mm", 0, 80, "Free length less length on the shock, wheel hanging. Empty: as on the sheet.", &s.RearPreload),
	}
}

// Preload of an end as it was found.
func (s *AsSet) Preload(rear bool) *unit.Length {
	if rear {
		return &s.RearPreload
	}
	return &s.FrontPreload
}

// Slide is how far the fork stands through its clamps beyond standard: as the plan has it, or as
// it was found.
func (p *Plan) Slide() unit.Length {
	if p.ForkThrough.Known() {
		return p.ForkThrough
	}
	return p.Baseline.Set.ForkThrough
}

// IsZero reports that nothing was looked at.
func (i Inspection) IsZero() bool {
	return len(i.Answers)+len(i.Changes)+len(i.AsBuilt) == 0 && i.Set == AsSet{}
}

// Answer is what one check came to. The measures are of what the check measures,
// the limit is the manual's, as the rider read it there.
type Answer struct {
	Check   string           `json:"check"`
	Verdict baseline.Verdict `json:"verdict"`
	New     unit.Length      `json:"new,omitzero"`
	Now     unit.Length      `json:"now,omitzero"`
	Limit   unit.Length      `json:"limit,omitzero"`
	Run     unit.Length      `json:"run,omitzero"` // distance since it was new
	Cost    money.Amount     `json:"cost,omitzero"`
	Hours   unit.Duration    `json:"hours,omitzero"`
	Note    string           `json:"note,omitempty"`
}

// Worn is the answer's measures; NaN where one is missing.
func (a Answer) Worn() baseline.Worn {
	return baseline.Worn{NewMM: a.New.In("mm"), NowMM: a.Now.In("mm"), LimitMM: a.Limit.In("mm"), RunKm: a.Run.In("km")}
}

// Fields are the answer's numbers for forms; the measures only for a check that
// has one.
func (a *Answer) Fields() []entry.Field {
	hours := entry.Ask("hours", "Hours", "h", 0, 1000, "Of your own work, or the workshop's.", &a.Hours)
	check, ok := baseline.CheckOf(a.Check)
	if ok && check.Wear == baseline.NoMeasure {
		return []entry.Field{hours}
	}
	return []entry.Field{
		entry.Ask("now", "Now", "mm", 0, 2000, "What you read.", &a.Now),
		entry.Ask("limit", "Limit", "mm", 0, 2000, "From the manual; nobody else knows it.", &a.Limit),
		entry.Ask("new", "As new", "mm", 0, 2000, "From the manual, or off a new one.", &a.New),
		entry.Ask("run", "Since it was new", "km", 0, 500_000, "What it has run; the bike's own distance if it is the first.", &a.Run),
		hours,
	}
}

// Due reports whether the answer is to be put right for this trip: its cost and
// hours count.
func (a Answer) Due() bool { return a.Verdict == baseline.Do || a.Verdict == baseline.Blocks }

// Validate tells what is wrong with the answer by itself.
func (a Answer) Validate() error {
	known := slices.ContainsFunc(baseline.Verdicts(), func(v baseline.VerdictInfo) bool { return v.Verdict == a.Verdict })
	if !known {
		return fmt.Errorf("%q is not good, watch, do or blocks", a.Verdict)
	}
	for _, f := range a.Fields() {
		if err := f.Check(); err != nil {
			return fmt.Errorf("%s: %w", f.Key, err)
		}
	}
	return work(a.Cost, a.Hours, a.Note)
}

// work checks what putting something right takes.
func work(cost money.Amount, hours unit.Duration, note string) error {
	if cost.Known() && cost.Minor() < 0 {
		return errors.New("cost is below zero")
	}
	if len(note) > entry.MaxNote {
		return fmt.Errorf("the note is longer than %d bytes", entry.MaxNote)
	}
	return checkHours(hours)
}

func checkHours(h unit.Duration) error {
	if h.Known() && !(h.In("h") >= 0 && h.In("h") <= 1000) {
		return fmt.Errorf("%s is outside 0–1000 h", h)
	}
	return nil
}

// Change is something that a previous owner did to the bike.
type Change struct {
	Name  string        `json:"name" is:"name"`
	Fate  baseline.Fate `json:"fate"`
	Cost  money.Amount  `json:"cost,omitzero"` // of undoing it
	Hours unit.Duration `json:"hours,omitzero"`
	Note  string        `json:"note,omitempty"`
	Part  *parts.Part   `json:"part,omitempty"` // that is on the bike through it, as the bike was found
}

// Found are the parts that are on the bike instead of the factory's: what a change of
// before put on and is not undone.
func (i Inspection) Found() []*parts.Part {
	var list []*parts.Part
	for _, c := range i.Changes {
		if c.Part != nil && c.Fate != baseline.Undo {
			list = append(list, c.Part)
		}
	}
	return list
}

// Tread is what is left of the tread of the tyre that was found in a slot, by what was
// measured there; missing is NaN.
func (i Inspection) Tread(s parts.Slot) float64 {
	a, ok := i.Answer(string(s))
	worn := a.Worn()
	if !ok || !(worn.NewMM > worn.LimitMM) {
		return math.NaN()
	}
	return math.Max(0, math.Min(1, (worn.NowMM-worn.LimitMM)/(worn.NewMM-worn.LimitMM)))
}

// Fact is something about the bike as it really is: which oil weight went into the
// fork, how many clicks it stands at.
type Fact struct {
	Name  string `json:"name" is:"name"`
	Value string `json:"value"`
	On    string `json:"on,omitempty" is:"date"` // date, 2026-11-20
}

// Answer to a check; ok is false when nobody has looked yet.
func (i Inspection) Answer(check string) (a Answer, ok bool) {
	for _, a := range i.Answers {
		if a.Check == check {
			return a, true
		}
	}
	return Answer{Check: check}, false
}

// ToPutRight is what of [Plan.Due] is not done yet.
func (p *Plan) ToPutRight() []Line {
	return slices.DeleteFunc(p.Due(), func(l Line) bool { return l.Decision == OnTheBike })
}

// Differs reports whether the bike was found otherwise than it came.
func (i Inspection) Differs() bool { return i.Set != AsSet{} || len(i.Found()) > 0 }

// Answered is the plan with an answer in place of the one before.
func (p *Plan) Answered(a Answer) *Plan {
	changed := *p
	changed.Baseline.Answers = nil
	was := false
	for _, old := range p.Baseline.Answers {
		if old.Check == a.Check {
			old, was = a, true
		}
		changed.Baseline.Answers = append(changed.Baseline.Answers, old)
	}
	if !was {
		changed.Baseline.Answers = append(changed.Baseline.Answers, a)
	}
	return &changed
}

// Has reports whether the bike has a feature that a check asks for. Where the
// sheet does not say, the check is made: looking costs nothing.
func (b *Bike) Has(f baseline.Feature) bool {
	unless := func(known, other string) bool { return known == "" || known != other }
	switch f {
	case baseline.Carburettor:
		return unless(string(b.Fuelling), string(Injection))
	case baseline.Injection:
		return unless(string(b.Fuelling), string(Carburettor))
	case baseline.LiquidCooled:
		return b.Cooling == "" || b.Cooling == LiquidCooled
	case baseline.Chain:
		return unless(string(b.Final), string(ShaftDrive))
	case baseline.Shaft:
		return b.Shaft()
	case baseline.Tubes:
		return b.FrontBuild == "" || b.FrontBuild == parts.Spoked || b.RearBuild == parts.Spoked
	case baseline.Tubeless:
		return b.FrontBuild.Tubeless() || b.RearBuild.Tubeless()
	case baseline.Spokes:
		return b.FrontBuild != parts.Cast || b.RearBuild != parts.Cast
	}
	return false
}

// usualDue is how much an inspection finds.
const usualDue = 8

// Due is what the inspection says is to be put right first, as lines. What costs
// nothing but hands (levers, clickers) is free unless the rider says otherwise; a
// part that the plan replaces anyway is not listed.
func (p *Plan) Due() []Line {
	var due []Line
	for _, a := range p.Baseline.Answers {
		done := a.Verdict == baseline.Done
		if !done && (!a.Due() || p.Replaces(a.Check)) {
			continue
		}
		if c, ok := baseline.CheckOf(a.Check); ok {
			line := Line{Kind: Baseline, Name: c.Name, Amount: a.Cost, Need: Needed, Hours: a.Hours}
			if done { // what it took stays, as spent
				line.Decision = OnTheBike
				if !a.Cost.Known() {
					line.Amount = money.New(0, p.Currency)
				}
			}
			if c.Area == baseline.Free && !a.Cost.Known() {
				line.Amount = money.New(0, p.Currency)
			}
			if due == nil {
				due = make([]Line, 0, usualDue)
			}
			due = append(due, line)
		}
	}
	for _, c := range p.Baseline.Changes {
		if c.Fate == baseline.Undo {
			due = append(due, Line{Kind: Baseline, Name: "Undo: " + c.Name, Amount: c.Cost, Need: Needed, Hours: c.Hours})
		}
	}
	return due
}

// Spending is all that costs money: the lines, what is due first, and what a
// workshop fits at a rate that is known.
func (p *Plan) Spending() []Line { return slices.Concat(p.Lines, p.Beside(p.Due())) }

// slotOf is where the part sits that a check looks at.
var slotOf = map[string]parts.Slot{
	"front-tyre": parts.FrontTyre, "rear-tyre": parts.RearTyre, "chain-wear": parts.Chain, "sprockets": parts.RearSprocket, "chain-slider": parts.ChainSlider,
}

// SlotOf is where the part sits that a check looks at, "" for no slot here.
func SlotOf(check string) parts.Slot { return slotOf[check] }

// Replaces reports whether the plan puts a new part in the place of the one that a
// check looks at.
func (p *Plan) Replaces(check string) bool {
	slot, ok := slotOf[check]
	return ok && p.lineIn(slot, "") >= 0
}

// WithoutBike is the plan for a bike that is still to be chosen: brief, rider and loads stay,
// what belongs to the bike does not.
func (p *Plan) WithoutBike() *Plan {
	changed := *p.Riding(nil)
	changed.Lines = nil
	for _, l := range p.Lines {
		if l.Part != nil && l.Part.Own() { // nobody else has its sheet
			l.Loadout, l.Decision = "", Undecided
			changed.Lines = append(changed.Lines, l)
		}
	}
	return &changed
}

func (in Inspection) validate(v *entry.Problems) {
	seen := map[string]bool{}
	v.Few("baseline.answers", len(in.Answers), maxFacts)
	for i, a := range in.Answers {
		path := fmt.Sprintf("baseline.answers[%d]", i)
		_, known := baseline.CheckOf(a.Check)
		v.That(known && !seen[a.Check], path+".check", "%q is not a check, or answered twice", a.Check)
		seen[a.Check] = true
		v.Check(path, a.Validate())
	}
	v.Few("baseline.changes", len(in.Changes), maxFacts)
	for i, c := range in.Changes {
		path := fmt.Sprintf("baseline.changes[%d]", i)
		v.Name(path+".name", c.Name)
		v.That(slices.ContainsFunc(baseline.Fates(), func(f baseline.FateInfo) bool { return f.Fate == c.Fate }), path+".fate", "%q is not keep, undo or watch", c.Fate)
		v.Check(path, work(c.Cost, c.Hours, c.Note))
		if c.Part != nil {
			c.Part.Validate(v, path+".part")
		}
	}
	v.Fields("baseline.set", in.Set.Fields())
	v.Few("baseline.as_built", len(in.AsBuilt), maxFacts)
	for i, f := range in.AsBuilt {
		path := fmt.Sprintf("baseline.as_built[%d]", i)
		v.Name(path+".name", f.Name)
		v.That(len(f.Value) <= entry.MaxName, path+".value", "is longer than %d bytes", entry.MaxName)
		v.Date(path+".on", f.On)
	}
}
