package guess

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
)

// Rows lists the table: the bike's, then the brief's, in an order in which each stands behind
// those that it follows from.
func Rows() []*Row { return slices.Clone(rows) }

var rows = slices.Concat(bikeRows, briefRows, loadRows)

// Fill is a copy of a plan in which what nobody has said is guessed, and what was; the plan
// itself where it asks for no guesses or nothing is missing.
func Fill(p *plan.Plan) (*plan.Plan, []Guess) {
	if p.Guesses == 0 {
		return p, nil
	}
	s := &Subject{Brief: &p.Brief, Loadouts: p.Loadouts}
	var like *Subject
	if p.Bike != nil {
		class, vague, ok := classOf(p.Bike)
		if p.Like != nil {
			like = &Subject{Bike: p.Like}
			if vague {
				class, vague, ok = classOf(p.Like)
			}
		}
		if ok {
			s.Bike, s.class, s.vague = p.Bike, class, vague
		}
	}
	var list []Guess
	own := false
	for _, r := range rows {
		if r.known(s) {
			continue
		}
		if !own {
			s, own = s.copied(), true
		}
		if s.Bike != nil && like != nil && r.copy != nil && r.known(like) {
			b := r.copy(s, like)
			b.put(s, 0)
			list = append(list, Guess{r, b, p.Like.Name})
		} else if b, ok := r.guess(s); ok {
			b.put(s, 0)
			list = append(list, Guess{r, b, ""})
		}
	}
	if len(list) == 0 {
		return p, nil
	}
	s.mark(list)
	return s.in(p), list
}

// tied are the kinds that have an anchor.
var tied = func() map[Kind]bool {
	kinds := map[Kind]bool{}
	for _, r := range rows {
		kinds[r.Kind] = kinds[r.Kind] || r.Anchor
	}
	return kinds
}()

// Moves are guesses as they go wrong: each by itself, and those of a kind together, unless it
// has an anchor which is known: then nothing ties the others.
func Moves(guesses []Guess) [][]Guess {
	anchored := map[Kind]bool{}
	for i := range guesses {
		g := &guesses[i]
		anchored[g.Kind] = anchored[g.Kind] || g.Anchor
	}
	var list [][]Guess
	at := map[Kind]int{}
	for _, g := range guesses {
		if g.Kind == "" || tied[g.Kind] && !anchored[g.Kind] {
			list = append(list, []Guess{g})
			continue
		}
		if _, together := at[g.Kind]; !together {
			at[g.Kind] = len(list)
			list = append(list, nil)
		}
		list[at[g.Kind]] = append(list[at[g.Kind]], g)
	}
	return list
}

// Stirs reports whether a guess is itself moved where some are moved together.
func (g *Guess) Stirs(together []Guess) bool { return g.end(together, 1) != 0 }

// end is how far a guess is moved where some are moved together.
func (g *Guess) end(together []Guess, at float64) float64 {
	if g.Kind != "" && tied[g.Kind] && !slices.ContainsFunc(together, func(o Guess) bool { return o.Anchor }) {
		return at * g.Loose
	}
	return at * g.Joint
}

// Moved is a plan that [Fill] has made with some of its guesses at an end of their bands: −1
// is the low one, 1 the high one.
func Moved(filled *plan.Plan, guesses []Guess, at float64) *plan.Plan {
	s := &Subject{Brief: &filled.Brief, Loadouts: filled.Loadouts}
	if slices.ContainsFunc(guesses, func(g Guess) bool { return !strings.HasPrefix(g.At, "brief/") }) {
		s.Bike = filled.Bike
	}
	s = s.copied()
	for i := range guesses {
		if end := guesses[i].end(guesses, at); end != 0 {
			guesses[i].put(s, end)
		}
	}
	return s.in(filled)
}

// Typed is a plan in which somebody has typed a guess as it is.
func (g *Guess) Typed(p *plan.Plan) *plan.Plan {
	s := (&Subject{Bike: p.Bike, Brief: &p.Brief, Loadouts: p.Loadouts}).copied()
	g.put(s, 0)
	return s.in(p)
}

// copied is a subject with copies of its own.
func (s *Subject) copied() *Subject {
	own := *s
	if s.Bike != nil {
		b := *s.Bike
		own.Bike = &b
	}
	b := *s.Brief
	own.Brief = &b
	return &own
}

// in is a plan with the subject's bike and brief.
func (s *Subject) in(p *plan.Plan) *plan.Plan {
	q := *p
	q.Brief, q.Loadouts = *s.Brief, s.Loadouts
	if s.Bike != nil {
		q.Bike = s.Bike
	}
	return &q
}

// mark says of the bike's numbers that they are guessed.
func (s *Subject) mark(list []Guess) {
	if s.Bike == nil {
		return
	}
	origins := make(map[string]sheet.Origin, len(s.Bike.Origins)+len(list))
	maps.Copy(origins, s.Bike.Origins)
	for _, g := range list {
		if key, ok := strings.CutPrefix(g.At, "bike/"); ok {
			origins[key] = sheet.Guessed
		}
	}
	s.Bike.Origins = origins
}

// lower is a field's label in the middle of a sentence.
func lower(label string) string {
	first, size := utf8.DecodeRuneInString(label)
	return string(unicode.ToLower(first)) + label[size:]
}

// Each row has the name of its field, and says what it enters.
func init() {
	names := map[string]string{}
	for key, label := range entry.Labels(new(plan.Bike).Fields()) {
		names["bike/"+key] = label
	}
	for _, p := range new(plan.Bike).Picks() {
		names["bike/"+p.Key] = p.Label
	}
	for key, label := range entry.Labels(new(plan.Brief).Fields()) {
		names["brief/"+key] = label
	}
	for _, slot := range []parts.Slot{parts.FrontTyre, parts.RearTyre, parts.FrontTube, parts.RearTube, parts.FrontSprocket, parts.RearSprocket} {
		kind, _ := parts.KindOf(slot)
		for _, row := range kind.Asks {
			names["came/"+string(slot)+"/"+row.Key] = kind.Name + ", " + strings.ToLower(row.Label)
		}
	}
	names["page/packing"] = "What you carry"
	for _, r := range rows {
		r.Name = lower(names[r.At])
		if r.Name == "" {
			panic(fmt.Sprintf("guess: row %q is of no field", r.At))
		}
		reads, said := enters[r.At]
		if !said {
			panic(fmt.Sprintf("guess: row %q does not say what it enters", r.At))
		}
		r.Enters = reads
	}
}
