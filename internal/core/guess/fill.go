package guess

import (
	"maps"
	"slices"
	"strings"

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
