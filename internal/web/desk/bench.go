package desk

import (
	"context"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// BenchView is what lies on the bench: an option, and what it would do.
type BenchView struct {
	Title   string
	Choices []choiceView // parts to fit; none where a form of the page saves
	Rates   []string     // currencies of prices that no rate brings home yet
	Home    string       // the plan's currency
	Today   string
	Scope   *LinkView // the same for this loadout only, or for all
	SaveAs  string    // what to press where a form saves
	Action  string    // where Choices are sent
	Bike    string    // id of a bike to take instead
	Pumps   []string  // ids of those that are shut, or opened again
	Problem string    // why there is nothing to compare
	Moves   []MoveView
	Others  []MoveView
	Appears findingsView
	Settles findingsView
	Unseen  findingsView // that nobody can judge any more
	Stays   findingsView
	Leave   string
}

// choiceView is one choice as a form sends it.
type choiceView struct {
	Try, Name, Price, Note string
	Replaces               string // what of the plan it takes the place of, with its price
}

// The form of a choice in an address: "rear-tyre:bracken-140-80-18", or
// "rear-tyre:" for back to standard; "rear-tyre@trail-day:…" for one loadout.
func tryOf(c plan.Choice) string {
	slot, id := string(c.Slot), ""
	if c.Loadout != "" {
		slot += "@" + c.Loadout
	}
	if c.Part != nil {
		id = c.Part.ID
	}
	return slot + ":" + id
}

// Tries are the query of choices on top of others; the later wins a slot.
func Tries(lists ...[]plan.Choice) []string {
	var query []string
	for _, c := range Merged(lists...) {
		query = append(query, "try", tryOf(c))
	}
	return query
}

// Merged joins lists of choices; of two for one place the later counts.
func Merged(lists ...[]plan.Choice) []plan.Choice {
	var all []plan.Choice
	for _, list := range lists {
		for _, c := range list {
			at := -1
			for i := range all {
				if all[i].Slot == c.Slot && all[i].Loadout == c.Loadout {
					at = i
				}
			}
			if at < 0 {
				all = append(all, c)
			} else {
				all[at] = c
			}
		}
	}
	return all
}

// Choices reads what an address or a form tries. A slot that the loadout on view
// has a part of its own in is changed there.
func (d *Desk) Choices(values []string) ([]plan.Choice, error) {
	var list []plan.Choice
	for _, v := range values {
		place, id, found := strings.Cut(v, ":")
		slot, loadout, _ := strings.Cut(place, "@")
		if _, known := parts.KindOf(parts.Slot(slot)); !found || !known {
			return nil, store.ErrNotFound
		}
		c := plan.Choice{Slot: parts.Slot(slot), Loadout: loadout}
		if loadout != "" {
			if _, err := d.Plan.Loadout(loadout); err != nil {
				return nil, store.ErrNotFound
			}
		}
		if id != "" {
			if c.Part = d.part(c.Slot, id); c.Part == nil {
				return nil, store.ErrNotFound
			}
		}
		list = append(list, c)
	}
	return d.Plan.Scoped(Merged(list), d.Loadout), nil
}

// part on the shelf, or the plan's own.
func (d *Desk) part(slot parts.Slot, id string) *parts.Part {
	for _, l := range d.Plan.Lines {
		if l.Part != nil && l.Part.Slot == slot && l.Part.ID == id {
			return l.Part
		}
	}
	return d.Shelf.Find(d.Plan.Bike, slot, id)
}

// Tried puts what the address tries on the bench; nil when it tries nothing.
func (d *Desk) Tried(r *http.Request, stage string) (*BenchView, []plan.Choice, error) {
	choices, err := d.Choices(r.URL.Query()["try"])
	if err != nil || len(choices) == 0 {
		return nil, nil, err
	}
	bench, err := d.Bench(eval.Alternative{Label: Title(choices), Plan: d.Plan.With(choices...)}, stage, d.OnTop(stage, choices))
	if err != nil {
		return nil, nil, err
	}
	bench.Action = "/plans/" + d.PlanID + "/choose"
	d.Lay(bench, choices)
	bench.Scope = d.scope(stage, choices)
	return bench, choices, nil
}

// scope leads to the same choices for the loadout on view only, or from there
// back to all loadouts; nil where the plan leaves no choice.
func (d *Desk) scope(stage string, choices []plan.Choice) *LinkView {
	if len(d.Plan.Loadouts) < 2 {
		return nil
	}
	loadout, _ := d.Plan.Loadout(d.Loadout)
	other, name := d.Loadout, "Fit it for “"+loadout.Name+"” only"
	if choices[0].Loadout != "" {
		other, name = "", "Fit it for every loadout"
	}
	turned := slices.Clone(choices)
	for i, c := range choices {
		turned[i].Loadout = other
		if d.Plan.Scoped([]plan.Choice{{Slot: c.Slot}}, d.Loadout)[0].Loadout != "" || (other != "" && c.Part == nil) {
			return nil // decided in this loadout already, or nothing to fit in it
		}
	}
	return &LinkView{Name: name, Href: d.Href(stage, Tries(turned)...)}
}

// Lay lists choices as the bench's form sends them, with what of the plan each takes the
// place of, and asks for the rates that their prices still want.
func (d *Desk) Lay(b *BenchView, choices []plan.Choice) {
	b.Home, b.Today = d.Plan.Currency, d.AsOf
	for _, c := range choices {
		v := choiceView{Try: tryOf(c), Name: choiceName(c)}
		if c.Part != nil {
			v.Note, v.Price = c.Part.Note, d.Price(c.Part.Price)
			if _, _, ok := d.Plan.Home(c.Part.Price); c.Part.Price.Known() && !ok && !slices.Contains(b.Rates, c.Part.Price.Code()) {
				b.Rates = append(b.Rates, c.Part.Price.Code())
			}
		}
		if was := d.Plan.Chosen(c.Slot, d.Loadout); was != nil && (c.Part == nil || c.Part.ID != was.ID) {
			v.Replaces = was.Name
			if price := d.Price(was.Price); price != "" {
				v.Replaces += ", " + price
			}
		}
		b.Choices = append(b.Choices, v)
	}
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

// rated is a plan with the rates that came with a choice; problem says what is wrong with
// one.
func (d *Desk) rated(p *plan.Plan, form url.Values) (changed *plan.Plan, problem string) {
	copied := *p
	copied.Rates = slices.Clone(p.Rates)
	for i, from := range form["rate_from"] {
		if i >= len(form["rate"]) || strings.TrimSpace(form["rate"][i]) == "" {
			continue
		}
		rate, err := d.Units.Rate(form["rate"][i])
		if err != nil {
			return p, "1 " + from + ": " + err.Error()
		}
		copied.Rates = append(copied.Rates, plan.Rate{From: from, Rate: rate, On: d.AsOf})
	}
	if problems := copied.Validate(); len(problems) > 0 {
		return p, problems[0].Error()
	}
	return &copied, ""
}

func choiceName(c plan.Choice) string {
	if c.Part != nil {
		return c.Part.Name
	}
	if c.Loadout != "" {
		return "What the other loadouts have"
	}
	info, _ := parts.KindOf(c.Slot)
	return "Standard " + strings.ToLower(info.Name)
}

// shortName tells a part from another in its slot: by its count, where it has
// one.
func shortName(p *parts.Part) string {
	if p == nil {
		return ""
	}
	if n, ok := p.Count(); ok {
		return strconv.Itoa(n)
	}
	return p.Name
}

// Title names what lies on the bench.
func Title(choices []plan.Choice) string {
	names := make([]string, len(choices))
	for i, c := range choices {
		names[i] = choiceName(c)
	}
	return strings.Join(names, " with ")
}

// Bench holds one alternative against the plan and shows the difference; from then on
// the desk's After is of it.
func (d *Desk) Bench(alternative eval.Alternative, stage string, to wayOut) (*BenchView, error) {
	differences, err := d.On.Preview(alternative)
	if err != nil {
		return nil, err
	}
	diff := differences[0]
	d.After = diff.After
	b := &BenchView{Title: alternative.Label, Leave: d.Href(stage), Appears: findingsOf(d.Units, diff.Appear, to), Settles: findingsOf(d.Units, diff.Vanish, nil), Unseen: findingsOf(d.Units, diff.Unseen, nil), Stays: findingsOf(d.Units, diff.Stay, to)}
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

// Choose puts what was tried into the plan.
func (s *House) Choose(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	choices, err := d.Choices(r.PostForm["try"])
	if err != nil {
		return err
	}
	turned, err := d.Looked(url.Values{"pump": r.PostForm["pump"]})
	if err != nil {
		return err
	}
	if (len(choices) == 0 && len(turned.Turned) == 0) || d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	need := plan.Need(r.PostFormValue("need"))
	if need != plan.Needed && need != plan.Wanted {
		need = ""
	}
	decision := plan.Decision(r.PostFormValue("decision"))
	if decision == plan.Chosen || !slices.ContainsFunc(plan.Decisions(), func(o entry.Option) bool { return o.Value == string(decision) }) {
		decision = ""
	}
	var summary []string
	for i := range choices {
		choices[i].Need = need
		if choices[i].Part != nil {
			choices[i].Decision = decision
		}
		if choices[i].Decision != "" {
			summary = append(summary, choiceName(choices[i])+": "+strings.ToLower(entry.NameOf(plan.Decisions(), string(decision))))
			continue
		}
		info, _ := parts.KindOf(choices[i].Slot)
		was := d.Plan.Bike.StandardIn(choices[i].Slot)
		now := choices[i].Part
		if now == nil {
			now = was
		}
		if chosen := d.Plan.Chosen(choices[i].Slot, d.Loadout); chosen != nil {
			was = chosen
		}
		name := info.Name
		if only := choices[i].Loadout; only != "" {
			loadout, _ := d.Plan.Loadout(only)
			name += " for " + loadout.Name
		}
		summary = append(summary, ChangedWords(name, shortName(was), shortName(now)))
	}
	for _, id := range turned.Turned {
		summary = append(summary, d.TurnedWords(id))
	}
	stage := s.PageOf(r.PostFormValue("stage"))
	changed, problem := d.rated(turned.Plan, r.PostForm)
	if problem != "" {
		return s.Show(w, r, http.StatusUnprocessableEntity, "stale", "That rate cannot be used", staleView{"Nothing was fitted. " + problem + ".", d.Href(stage, Tries(choices)...)})
	}
	err = s.Save(r, d, r.PostFormValue("base"), changed.With(choices...), strings.Join(summary, "; "))
	if errors.Is(err, store.ErrStale) {
		return s.Stale(w, r, d, stage, "Nothing was fitted. Here it is against the plan as it is now.", choices)
	}
	if err != nil {
		return err
	}
	return SeeOther(w, r, d.Href(stage))
}

// staleView says that the plan has moved on, and where the same thing can be
// tried again.
type staleView struct{ What, Href string }

// Stale says that the plan has changed since the page was made.
func (s *House) Stale(w http.ResponseWriter, r *http.Request, d *Desk, stage, what string, choices []plan.Choice) error {
	return s.Show(w, r, http.StatusConflict, "stale", "The plan has changed", staleView{what, d.Href(stage, Tries(choices)...)})
}

// Undo takes back the last change of a plan.
func (s *House) Undo(w http.ResponseWriter, r *http.Request) error {
	return s.step(w, r, s.Store.Undo)
}

// Redo brings back what was taken back.
func (s *House) Redo(w http.ResponseWriter, r *http.Request) error {
	return s.step(w, r, s.Store.Redo)
}

type stepper func(ctx context.Context, rider, planID, base string) error

// step moves the plan's head along its revisions.
func (s *House) step(w http.ResponseWriter, r *http.Request, move stepper) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if err := move(r.Context(), s.Rider(r), d.PlanID, r.PostFormValue("base")); err != nil {
		return err
	}
	return SeeOther(w, r, d.Href(s.PageOf(r.PostFormValue("stage"))))
}
