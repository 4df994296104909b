package desk

import (
	"cmp"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// BenchView is what lies on the bench: an option, and what it would do.
type BenchView struct {
	Title   string
	Choices []choiceView // parts to fit; none where a form of the page saves
	First   *FirstView   // parts that they take the place of and that are kept, nil for none
	Rates   []string     // currencies of prices that no rate brings home yet
	Home    string       // the plan's currency
	Scope   *LinkView    // the same for this loadout only, or for all
	SaveAs  string       // what to press where a form saves
	Action  string       // where what is laid on it is sent to be kept
	Hidden  []hidden     // what is laid on it, as that form sends it
	Act     string       // on its one button, where it is not for the rider to say more
	Problem string       // why there is nothing to compare
	Errors  FormErrors   // that stand against it
	Moves   []MoveView
	Hangs   []LinkView // guesses to be measured before, each with how long that takes
	Others  []MoveView
	Appears findingsView
	Settles findingsView
	Unseen  findingsView // that nobody can judge any more
	Stays   findingsView
	Leave   string
	Instead []LinkView // what the money of a part that comes off would settle
	laid    Laid
}

// spareMost is how many options are shown for the money of parts that come off.
const spareMost = 3

// spare shows what the money of parts would settle that come off.
func (b *BenchView) spare(d *Desk, l Laid, page string) error {
	ways, err := d.On.Spares(d.After, l.Tried)
	for _, way := range ways[:min(len(ways), spareMost)] {
		name := fmt.Sprintf("%s, settles %d", way.Alternative.Label, len(study.Cards(way.Vanish)))
		b.Instead = append(b.Instead, LinkView{Name: name, Href: d.Href(page, l.Query(way.Choices...)...)})
	}
	return err
}

// hidden is a field that a form sends as it is.
type hidden struct{ Name, Value string }

// choiceView is one part on the bench.
type choiceView struct {
	Name, Price, Note string
	Replaces          string // what of the plan it takes the place of, with its price
}

// FirstView asks what becomes of parts whose place is taken.
type FirstView struct {
	Names   string
	Options []OptionView
}

// Tried lays what the address turns on the bench of a page; nil when it turns nothing.
func (d *Desk) Tried(r *http.Request, page string) (*BenchView, Laid, error) {
	l, err := d.Laid(r)
	if err != nil || !l.Any() {
		return nil, l, err
	}
	bench, err := d.Bench(eval.Alternative{Label: l.Title(), Plan: l.Plan}, page, d.OnTop(page, l))
	if err != nil {
		return nil, l, err
	}
	bench.lay(d, l)
	if err := bench.spare(d, l, page); err != nil {
		return nil, l, err
	}
	bench.Scope = d.scope(page, l)
	return bench, l, nil
}

// scope leads to the same choices for the loadout on view only, or from there
// back to all loadouts; nil where the plan leaves no choice.
func (d *Desk) scope(page string, l Laid) *LinkView {
	if len(d.Plan.Loadouts) < 2 || len(l.Tried) == 0 {
		return nil
	}
	loadout, _ := d.Plan.Loadout(d.Loadout)
	other, name := d.Loadout, "Fit it for “"+loadout.Name+"” only"
	if l.Tried[0].Loadout != "" {
		other, name = "", "Fit it for every loadout"
	}
	scoped := slices.Clone(l.Tried)
	for i, c := range l.Tried {
		scoped[i].Loadout = other
		if d.Plan.Scoped([]plan.Choice{{Slot: c.Slot}}, d.Loadout)[0].Loadout != "" || (other != "" && c.Part == nil) {
			return nil // decided in this loadout already, or nothing to fit in it
		}
	}
	return &LinkView{Name: name, Href: d.Href(page, l.Instead(scoped...)...)}
}

// lay shows what is laid on the bench as its form sends it: parts with what of the plan each
// takes the place of, and the rates that their prices still want.
func (b *BenchView) lay(d *Desk, l Laid) {
	b.laid, b.Act, b.Action = l, l.act(), d.At()+"/choose"
	for query := l.Query(); len(query) > 0; query = query[2:] {
		b.Hidden = append(b.Hidden, hidden{query[0], query[1]})
	}
	if b.Act == "" && len(l.Tried) == 0 {
		b.Act = "Keep it so in the plan"
	}
	b.Home = d.Plan.Currency
	b.First = d.First("", l.Tried...)
	for _, c := range l.Tried {
		v := choiceView{Name: choiceName(c)}
		if c.Part != nil {
			v.Note, v.Price = c.Part.Note, d.Price(c.Part.Price)
			if _, _, ok := d.Plan.Home(c.Part.Price); c.Part.Price.Known() && !ok && !slices.Contains(b.Rates, c.Part.Price.Code()) {
				b.Rates = append(b.Rates, c.Part.Price.Code())
			}
		}
		if was := d.Plan.Chosen(c.Slot, d.Loadout); was != nil && (c.Part == nil || c.Part.ID != was.ID) && !d.Plan.Stays(c) {
			v.Replaces = was.Name
			if price := d.Price(was.Price); price != "" {
				v.Replaces += ", " + price
			}
		}
		b.Choices = append(b.Choices, v)
	}
}

// First asks what becomes of the parts whose place choices take, as it is typed or as it would
// be; nil where nothing is lost.
func (d *Desk) First(typed string, choices ...plan.Choice) *FirstView {
	var names []string
	beside, comesOff, none := true, false, ""
	selected := plan.StaysBeside
	for _, c := range choices {
		c.First = ""
		beside = beside && d.Plan.CanStay(c)
		for _, l := range d.Plan.Displaced(c) {
			names = append(names, l.Part.Name)
			switch then, _ := l.Becomes(c); {
			case d.Plan.Stays(c):
			case then == plan.ComesOff:
				comesOff, selected = true, plan.StaysHome
			case then == plan.AtHome:
				selected = plan.StaysHome
			default:
				selected, none = "", "it is undecided again"
			}
		}
	}
	if len(names) == 0 {
		return nil
	}
	options := slices.DeleteFunc(plan.Firsts(), func(o entry.Option) bool {
		return o.Value == string(plan.StaysBeside) && !beside || o.Value == string(plan.GoesOut) && comesOff
	})
	if comesOff {
		for i := range options {
			if options[i].Value == string(plan.StaysHome) {
				options[i].Name = "it comes off when the other goes on, and stays at home"
			}
		}
	}
	return &FirstView{strings.Join(names, ", "), OptionsOf(options, cmp.Or(typed, string(selected)), none)}
}

// FirstOf is what a form says becomes of a part whose place is taken, "" for nothing.
func FirstOf(form url.Values) plan.First {
	if first := form.Get("first"); entry.Among(plan.Firsts(), first) {
		return plan.First(first)
	}
	return ""
}

// Price is an amount as it stands on its label, and at the day's rate in the plan's
// currency where there is one; "" when it is missing.
func (d *Desk) Price(a money.Amount) string {
	if !a.Known() {
		return ""
	}
	if home, by, ok := d.Plan.Home(a); ok && by != nil {
		return a.Display() + ", " + home.Display() + " at the rate of " + by.On
	}
	return a.Display()
}

// Evaluate is the report of a change of the plan; that of what lies on the bench is there.
func (d *Desk) Evaluate(p *plan.Plan) (*eval.LoadoutReport, error) {
	if p == d.After.Plan {
		return d.After, nil
	}
	return d.On.Evaluate(p)
}

// Bench holds one alternative against the plan and shows the difference; from then on
// the desk's After is of it.
func (d *Desk) Bench(alternative eval.Alternative, stage string, to wayOut) (*BenchView, error) {
	diff, err := d.On.Lay(alternative)
	if err != nil {
		return nil, err
	}
	d.After = diff.After
	b := &BenchView{Title: alternative.Label, Leave: d.Href(stage), Appears: findingsOf(d.Units, diff.Appear, to), Settles: findingsOf(d.Units, diff.Vanish, nil), Unseen: findingsOf(d.Units, diff.Unseen, nil), Stays: findingsOf(d.Units, diff.Stay, to)}
	for _, g := range diff.Hangs() {
		first := g.Name
		if g.Minutes > 0 {
			first += fmt.Sprintf(", %.0f min", g.Minutes)
		}
		b.Hangs = append(b.Hangs, LinkView{Name: first, Href: d.Href("guesses")})
	}
	for _, m := range diff.Moves {
		switch v := MoveOf(d.Units, m); {
		case v.Before == v.After && v.State == v.WasState: // too small to be seen
		case v.Gauge:
			b.Moves = append(b.Moves, v)
		default:
			b.Others = append(b.Others, v)
		}
	}
	return b, nil
}
