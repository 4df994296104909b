package plan

import "slices"

// Choice puts a part into a slot; a nil part goes back to standard.
type Choice struct {
	Slot     Slot
	Part     *Part
	Loadout  string   // that it is for; "" for all
	Need     Need     // "" keeps what the slot's line says, or Needed for a new line
	Decision Decision // "" is chosen; one that is not in leaves the bike as it is
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
	line := Line{Kind: PartLine, Part: c.Part, Loadout: c.Loadout, Need: c.Need, Decision: c.Decision}
	if c.Part != nil { // what is noted about this part already comes along
		if at := slices.IndexFunc(p.Lines, func(l Line) bool {
			return l.Part != nil && l.Part.Slot == c.Slot && l.Part.ID == c.Part.ID && l.Loadout == c.Loadout
		}); at >= 0 {
			line.Amount, line.Source, line.Why, line.Hours = p.Lines[at].Amount, p.Lines[at].Source, p.Lines[at].Why, p.Lines[at].Hours
			if line.Need == "" {
				line.Need = p.Lines[at].Need
			}
			if p.Lines[at].Standing() != In || line.Standing() != In {
				p.Lines = slices.Delete(p.Lines, at, at+1)
			}
		}
	}
	at := p.lineIn(c.Slot, c.Loadout)
	if c.Part == nil {
		if at >= 0 {
			p.Lines = slices.Delete(p.Lines, at, at+1)
		}
		return
	}
	if line.Need == "" {
		line.Need = Needed
		if at >= 0 {
			line.Need = p.Lines[at].Need
		}
	}
	if at < 0 || line.Standing() != In {
		p.Lines = append(p.Lines, line)
		return
	}
	p.Lines[at] = line
}

// lineIn is the line whose part is in a slot for exactly this loadout, -1 for
// none.
func (p *Plan) lineIn(s Slot, loadout string) int {
	return slices.IndexFunc(p.Lines, func(l Line) bool {
		return l.Part != nil && l.Part.Slot == s && l.Loadout == loadout && l.Standing() == In
	})
}

// Chosen is the part that the plan puts into a slot in a loadout, nil when the
// standard one stays.
func (p *Plan) Chosen(s Slot, loadout string) *Part {
	for _, scope := range [...]string{loadout, ""} {
		if at := p.lineIn(s, scope); at >= 0 {
			return p.Lines[at].Part
		}
	}
	return nil
}

// Scoped turns choices for the bike as it is in a loadout to the lines that
// decide there: a slot with a part of that loadout only is changed there only.
// The choices themselves stay as they are.
func (p *Plan) Scoped(choices []Choice, loadout string) []Choice {
	scoped := choices
	for i, c := range choices {
		if c.Loadout == "" && loadout != "" && p.lineIn(c.Slot, loadout) >= 0 {
			if &scoped[0] == &choices[0] {
				scoped = slices.Clone(choices)
			}
			scoped[i].Loadout = loadout
		}
	}
	return scoped
}
