package plan

import (
	"fmt"
	"math"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// LineKind sorts the lines that cost money.
type LineKind string

// The kinds of line.
const (
	PartLine   LineKind = "part"
	BikeLine   LineKind = "bike"
	Baseline   LineKind = "baseline"
	Freight    LineKind = "freight"
	Tax        LineKind = "tax"
	Workshop   LineKind = "workshop"
	Consumable LineKind = "consumable"
	Gear       LineKind = "gear" // a part or a bag without a slot here
	Lesson     LineKind = "lesson"
	GivenBack  LineKind = "given-back" // what came back for a line; see [Plan.CameBack]
)

// LineKinds lists the kinds with their names; a part line is made by choosing a
// part, and what came back stands with what it came back for.
func LineKinds() []entry.Option {
	return []entry.Option{
		entry.Opt(Gear, "Other part, gear"),
		entry.Opt(Baseline, "Put right first"),
		entry.Opt(Workshop, "Workshop"),
		entry.Opt(Lesson, "Lesson"),
		entry.Opt(Freight, "Freight"),
		entry.Opt(Tax, "Tax, customs"),
		entry.Opt(Consumable, "Consumables"),
		entry.Opt(BikeLine, "The bike itself"),
	}
}

// Need tells what a job needs from what is wanted.
type Need string

// A line is one or the other.
const (
	Needed Need = "needed"
	Wanted Need = "wanted"
)

// Decision is how far a line is decided. A line is not only yes or no.
type Decision string

// The decisions. The first four are in: they are built into the bike and count
// in the cost.
const (
	Chosen       Decision = "chosen"
	Ordered      Decision = "ordered"
	Owned        Decision = "owned"
	OnTheBike    Decision = "fitted"
	Undecided    Decision = "undecided"
	WhenItBreaks Decision = "when-it-breaks"
	NotUntil     Decision = "not-until"
	Rejected     Decision = "rejected"
	TakenOff     Decision = "removed"
	AtHome       Decision = "at-home"   // owned, and something else is on
	ComesOff     Decision = "comes-off" // on until what takes its place is fitted
	OnAnother    Decision = "elsewhere" // on another bike of the garage
	LentOut      Decision = "lent-out"
	WornOut      Decision = "worn-out"
	Sold         Decision = "sold"
	SentBack     Decision = "sent-back"
)

// Standing is how a decision counts.
type Standing int

// The standings.
const (
	In    Standing = iota // on the bike, in the cost
	Aside                 // paid for, and not in the way the bike is planned
	Open                  // neither, until somebody says yes
	Later                 // not for this trip, as things are
	Out
)

var decisions = []struct {
	decision Decision
	name     string
	standing Standing
}{
	{Chosen, "Chosen", In},
	{Ordered, "Ordered", In},
	{Owned, "In the garage", In},
	{OnTheBike, "Fitted", In},
	{AtHome, "At home beside it", Aside},
	{ComesOff, "On, comes off", Aside},
	{OnAnother, "On another bike", Aside},
	{LentOut, "Lent out", Aside},
	{WornOut, "Worn out", Aside},
	{Sold, "Sold", Aside},
	{SentBack, "Sent back", Aside},
	{Undecided, "Undecided", Open},
	{WhenItBreaks, "When it breaks", Later},
	{NotUntil, "Not until …", Later},
	{Rejected, "Rejected because …", Out},
	{TakenOff, "Taken off again", Out},
}

// Decisions lists them in their order.
func Decisions() []entry.Option {
	options := make([]entry.Option, len(decisions))
	for i, d := range decisions {
		options[i] = entry.Opt(d.decision, d.name)
	}
	return options
}

// Source is where a thing comes from.
type Source string

// The sources.
const (
	BoughtNew  Source = "new"
	BoughtUsed Source = "used"
	MovedOver  Source = "moved-over" // from another bike: costs the fitting only
	HomeMade   Source = "home-made"  // costs material; cracks and lost fasteners are its risks
	Lent       Source = "lent"       // goes back, so keep what it took the place of
	Given      Source = "given"      // costs nothing, and is praised accordingly
	Had        Source = "had"        // it lay at home, or was on before: paid for already
)

// free reports whether what comes from there costs nothing but its fitting.
func (s Source) free() bool { return s == MovedOver || s == Lent || s == Given || s == Had }

// Sources lists them.
func Sources() []entry.Option {
	return []entry.Option{
		entry.Opt(BoughtNew, "New"),
		entry.Opt(BoughtUsed, "Used"),
		entry.Opt(MovedOver, "Moved over"),
		entry.Opt(HomeMade, "Home-made"),
		entry.Opt(Lent, "Lent"),
		entry.Opt(Given, "Given"),
		entry.Opt(Had, "Had already"),
	}
}

// Line is something that costs money: a part in its slot, or another sum.
type Line struct {
	Kind     LineKind      `json:"kind"`
	Name     string        `json:"name,omitempty"`    // of a line that is not a part
	Amount   money.Amount  `json:"amount,omitzero"`   // overrules a part's price
	Part     *parts.Part   `json:"part,omitempty"`    // embedded, so that an old plan stays what it was
	Loadout  string        `json:"loadout,omitempty"` // that a part is fitted in; "" for all
	Need     Need          `json:"need"`
	Decision Decision      `json:"decision,omitempty"` // "" is chosen
	Source   Source        `json:"source,omitempty"`   // "" is new
	Why      string        `json:"why,omitempty"`      // not until what, rejected because of what, with what meanwhile
	Hours    unit.Duration `json:"hours,omitzero"`     // of one's own work
	Mass     unit.Mass     `json:"mass,omitzero"`      // of a line that is not a part
	Draw     unit.Power    `json:"draw,omitzero"`      // of a line that is not a part, while riding
	Place    load.Place    `json:"place,omitempty"`    // where that sits, "" for behind the seat
	Percent  unit.Ratio    `json:"percent,omitzero"`   // of a tax: of all parts that are in
	Swap     *Swap         `json:"swap,omitempty"`     // of a part that is fitted on the way
	Supply   *Supply       `json:"supply,omitempty"`   // how it comes, and who fits it

	Thing    string       `json:"thing,omitempty"`   // which of the rider's own parts it is, "" for none yet
	Back     money.Amount `json:"back,omitzero"`     // what came back for it: sold, sent back
	Workshop money.Amount `json:"workshop,omitzero"` // what a workshop took to fit it, once it is
}

// Standing of the line's decision.
func (l *Line) Standing() Standing {
	if l.Decision == "" {
		return In
	}
	for _, d := range decisions {
		if d.decision == l.Decision {
			return d.standing
		}
	}
	return In
}

// Paid reports whether its money is spent or promised.
func (l *Line) Paid() bool {
	return l.Decision == Ordered || l.Decision == Owned || l.Decision == OnTheBike || l.Standing() == Aside || l.Thing != ""
}

// Costs reports whether it counts in the cost of the plan: what is spent on a thing that was had stays spent,
// whatever is decided later.
func (l *Line) Costs() bool { return l.Standing() == In || l.Standing() == Aside || l.Thing != "" }

// fitted reports whether the line's part is on the bike in a loadout.
func (l *Line) fitted(loadout string) bool {
	return l.Part != nil && l.Standing() == In && (l.Loadout == "" || l.Loadout == loadout)
}

// Title is what the line is called.
func (l *Line) Title() string {
	if l.Part != nil {
		return l.Part.Name
	}
	return l.Name
}

// CostOf is what a line of the plan costs: a tax by percent follows from all parts that
// are in, in the plan's currency; it is missing while one of their prices is.
func (p *Plan) CostOf(l *Line) money.Amount {
	if l.Part != nil && !l.Amount.Known() && l.Source.free() {
		return money.New(0, p.Currency)
	}
	if !l.Percent.Known() || l.Amount.Known() {
		return l.Cost()
	}
	sum := 0.0
	for i := range p.Lines {
		part := &p.Lines[i]
		if part.Part == nil || part.Standing() != In {
			continue
		}
		home, _, ok := p.Home(p.CostOf(part))
		if !ok || !home.Known() {
			return money.Amount{}
		}
		sum += float64(home.Minor())
	}
	return money.New(int64(math.Round(sum*l.Percent.Base())), p.Currency)
}

// Cost of the line: what the rider entered, or else the part's price. A part that is
// moved over, lent or given costs nothing. A shelf's price is a new one's; what a used
// or home-made one costs only the rider knows, and has said on the sheet of a part of
// their own.
func (l *Line) Cost() money.Amount {
	switch {
	case l.Amount.Known() || l.Part == nil:
		return l.Amount
	case l.Source.free() && l.Part.Price.Known():
		return money.New(0, l.Part.Price.Code())
	case (l.Source == BoughtUsed || l.Source == HomeMade) && !l.Part.Own():
		return money.Amount{}
	}
	return l.Part.Price
}

func (p *Plan) validateLines(v *entry.Problems) {
	lines := p.Lines
	v.Few("lines", len(lines), maxLines)
	taken := map[place][]string{}
	things := map[string]bool{}
	for i, l := range lines {
		path := fmt.Sprintf("lines[%d]", i)
		v.That(l.Need == Needed || l.Need == Wanted, path+".need", "%q is neither needed nor wanted", l.Need)
		v.Pick(path+".decision", string(l.Decision), Decisions())
		v.Pick(path+".source", string(l.Source), Sources())
		v.Short(path+".why", l.Why)
		v.Check(path+".hours", checkHours(l.Hours))
		v.That(!l.Mass.Known() || l.Part == nil && l.Mass.Base() >= 0 && l.Mass.Base() < 100, path+".mass", "%s: want 0–100 kg, of a line that is not a part", l.Mass)
		_, isPlace := load.SpotOf(l.Place)
		v.That(l.Place == "" || isPlace, path+".place", "%q is not a place on the bike", l.Place)
		v.That(!l.Back.Known() || l.Back.Minor() >= 0, path+".back", "is below zero")
		v.That(!l.Workshop.Known() || l.Workshop.Minor() >= 0, path+".workshop", "is below zero")
		v.That(l.Thing == "" || entry.ValidID(l.Thing), path+".thing", "%q is no id of a part", entry.Cut(l.Thing))
		v.That(!l.Percent.Known() || l.Kind == Tax && l.Percent.Base() >= 0 && l.Percent.Base() <= 1, path+".percent", "%s: want 0–100 %%, of a tax", l.Percent)
		l.Supply.validate(v, path+".supply")
		if s := l.Swap; s != nil {
			v.That(l.Part != nil, path+".swap", "belongs to lines of kind part only")
			v.That(!s.Minutes.Known() || s.Minutes.In("min") >= 0 && s.Minutes.In("min") <= 600, path+".swap.minutes", "%s is outside 0–600 min", s.Minutes)
			v.Short(path+".swap.tools", s.Tools)
		}
		v.Short(path+".name", l.Name)
		if l.Kind == PartLine {
			if l.Part == nil {
				v.That(false, path+".part", "is missing")
				continue
			}
			l.Part.Validate(v, path+".part")
			_, err := p.Loadout(l.Loadout)
			v.That(l.Loadout == "" || err == nil, path+".loadout", "%q is not a loadout of this plan", l.Loadout)
			v.That(l.Thing == "" || !things[l.Thing], path+".thing", "%q stands in another line already", entry.Cut(l.Thing))
			things[l.Thing] = true
			if l.Standing() != In {
				continue
			}
			for slot := range l.Part.Fills() {
				at := place{slot, l.Loadout}
				there := taken[at]
				kind, _ := parts.KindOf(slot)
				v.That(len(there) < slot.Room(), path+".part.slot", "%s and %s cannot both be the %s: one of them stays at home, or is for one loadout", strings.Join(there, ", "), l.Part.Name, strings.ToLower(kind.Name))
				taken[at] = append(there, l.Part.Name)
			}
			continue
		}
		v.That(l.Thing == "", path+".thing", "belongs to lines of kind part only")
		v.That(!l.Draw.Known() || l.Draw.Base() >= 0 && l.Draw.In("W") <= 1000, path+".draw", "%s is outside 0–1000 W", l.Draw)
		v.That(entry.Among(LineKinds(), string(l.Kind)), path+".kind", "%q is not a kind of line", l.Kind)
		v.That(l.Part == nil, path+".part", "belongs to lines of kind part only")
		v.That(l.Loadout == "", path+".loadout", "belongs to lines of kind part only")
		v.That(l.Name != "", path+".name", "is missing")
	}
}
