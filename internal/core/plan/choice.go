package plan

import "slices"

// Choice puts a part into a slot; a nil part goes back to standard.
type Choice struct {
	Slot Slot
	Part *Part
	Need Need // "" keeps what the slot's line says, or Needed for a new line
}

// With is a copy of the plan with choices made. The original stays as it is.
func (p *Plan) With(choices ...Choice) *Plan {
	changed := *p
	changed.Lines = slices.Clone(p.Lines)
	for _, c := range choices {
		changed.choose(c)
	}
	return &changed
}

func (p *Plan) choose(c Choice) {
	at := slices.IndexFunc(p.Lines, func(l Line) bool { return l.Part != nil && l.Part.Slot == c.Slot })
	if c.Part == nil {
		if at >= 0 {
			p.Lines = slices.Delete(p.Lines, at, at+1)
		}
		return
	}
	if at < 0 {
		if c.Need == "" {
			c.Need = Needed
		}
		p.Lines = append(p.Lines, Line{Kind: PartLine, Part: c.Part, Need: c.Need})
		return
	}
	p.Lines[at].Part = c.Part
	if c.Need != "" {
		p.Lines[at].Need = c.Need
	}
}

// Chosen is the part that the plan put into a slot, nil when the standard one
// stays.
func (p *Plan) Chosen(s Slot) *Part {
	for _, l := range p.Lines {
		if l.Part != nil && l.Part.Slot == s {
			return l.Part
		}
	}
	return nil
}
