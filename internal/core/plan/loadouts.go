package plan

import (
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
)

// Relaid is the plan with other loadouts: those of the list, in its order. Of one that
// is new, like names the loadout that it starts from, "" for an empty one. What was
// fitted only in a loadout that is gone goes with it; a rider's own parts stay, undecided.
func (p *Plan) Relaid(list []Loadout, like map[string]string) *Plan {
	changed := *p
	changed.Loadouts, changed.Lines = nil, nil
	for _, l := range list {
		if was, err := p.Loadout(l.ID); err == nil {
			l.Loads, l.Pressures, l.Setting, l.Sits, l.Clicks, l.Kit = was.Loads, was.Pressures, was.Setting, was.Sits, was.Clicks, was.Kit
		} else if from, err := p.Loadout(like[l.ID]); err == nil {
			l.Loads, l.Pressures, l.Setting, l.Sits, l.Clicks, l.Kit = slices.Clone(from.Loads), slices.Clone(from.Pressures), from.Setting, from.Sits, slices.Clone(from.Clicks), from.Kit
		}
		changed.Loadouts = append(changed.Loadouts, l)
	}
	for _, line := range p.Lines {
		if _, err := changed.Loadout(line.Loadout); line.Loadout == "" || err == nil {
			changed.Lines = append(changed.Lines, line)
			continue
		}
		if line.Part.Own() {
			line.Loadout, line.Decision = "", Undecided
			changed.Lines = append(changed.Lines, line)
		}
	}
	for _, l := range list {
		for _, line := range p.Lines {
			if _, err := p.Loadout(l.ID); err != nil && line.Part != nil && line.Loadout != "" && line.Loadout == like[l.ID] {
				line.Loadout = l.ID
				if line.Thing != "" { // the same part once more: it is in one place, and paid for
					line.Thing, line.Decision, line.Source, line.Amount, line.Workshop, line.Back = "", "", Had, money.Amount{}, money.Amount{}, money.Amount{}
				}
				changed.Lines = append(changed.Lines, line)
			}
		}
	}
	return &changed
}

// LoadoutID makes an id of a loadout's name that no other of the plan has.
func LoadoutID(name string, taken func(id string) bool) string {
	id := strings.Trim(strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			return r
		}
		return '-'
	}, strings.ToLower(name)), "-")
	if id = id[:min(len(id), 40)]; id == "" {
		id = "loadout"
	}
	unique := id
	for n := 2; taken(unique); n++ {
		unique = fmt.Sprintf("%s-%d", id, n)
	}
	return unique
}

// Swap is what changing over to another loadout takes for a part that is fitted on the
// way: a screen, a seat cover, bags, a front sprocket.
type Swap struct {
	Minutes unit.Duration `json:"minutes,omitzero"`
	Tools   string        `json:"tools,omitempty"`
	Packed  bool          `json:"packed,omitempty"` // it comes along, behind the seat, where it is not on
}

// Change is what has to be done to the bike between two loadouts.
type Changeover struct {
	On, Off  []*Line // parts
	Minutes  float64
	Unsaid   int     // parts of which nobody has said how long they take
	Packed   []*Line // that come along
	StayHome []*Line
}

// Change from one loadout to another.
func (p *Plan) Changeover(from, to string) Changeover {
	var c Changeover
	for i := range p.Lines {
		l := &p.Lines[i]
		if l.Part == nil || l.Standing() != In || l.Loadout == "" || (l.Loadout != from && l.Loadout != to) || from == to {
			continue
		}
		if l.Loadout == to {
			c.On = append(c.On, l)
		} else {
			c.Off = append(c.Off, l)
			if l.Swap != nil && l.Swap.Packed {
				c.Packed = append(c.Packed, l)
			} else {
				c.StayHome = append(c.StayHome, l)
			}
		}
		if l.Swap == nil || !l.Swap.Minutes.Known() {
			c.Unsaid++
			continue
		}
		c.Minutes += l.Swap.Minutes.In("min")
	}
	return c
}

// PackedIn are the lines whose parts come along in a loadout that they are not on in.
func (p *Plan) PackedIn(loadout string) []*Line {
	var list []*Line
	for i := range p.Lines {
		l := &p.Lines[i]
		if l.Part != nil && l.Standing() == In && l.Loadout != "" && l.Loadout != loadout && l.Swap != nil && l.Swap.Packed {
			list = append(list, l)
		}
	}
	return list
}

func validateLoadouts(v *entry.Problems, loadouts []Loadout) {
	for i := range loadouts {
		v.Pick("loadouts"+entry.At(i)+".kit", string(loadouts[i].Kit), Kits())
	}
	v.That(len(loadouts) > 0, "loadouts", "are missing, want at least one")
	v.Few("loadouts", len(loadouts), maxLoadouts)
	seen := map[string]bool{}
	for i, l := range loadouts {
		path := fmt.Sprintf("loadouts[%d]", i)
		v.That(entry.IsSlug(l.ID), path+".id", "%q is not a short id of a–z, 0–9 and -", l.ID)
		v.That(!seen[l.ID], path+".id", "%q is there twice", l.ID)
		seen[l.ID] = true
		v.Name(path+".name", l.Name)
		v.Check(path+".pillion", l.Check())
		if l.By != nil {
			v.Fields(path+".rider", l.By.Fields())
		}
		given := map[string]bool{}
		for j, q := range l.Pressures {
			path := fmt.Sprintf("%s.pressures[%d]", path, j)
			_, known := terrain.SurfaceOf(q.Surface)
			v.That(known && !given[q.Surface], path+".surface", "%q is not a surface, or there twice", q.Surface)
			given[q.Surface] = true
			v.Fields(path, q.Fields())
		}
		v.Fields(path+".setting", l.Setting.Fields())
		v.Few(path+".clicks", len(l.Clicks), len(terrain.Surfaces()))
		for j := range l.Clicks {
			path := fmt.Sprintf("%s.clicks[%d]", path, j)
			_, known := terrain.SurfaceOf(l.Clicks[j].Surface)
			v.That(known, path+".surface", "%q is not a surface", l.Clicks[j].Surface)
			v.Fields(path, l.Clicks[j].Fields(""))
		}
		v.That(entry.Among(Sits(), string(l.Sits)), path+".sits", "%q is none of %s", l.Sits, entry.Values(Sits()))
		v.Few(path+".loads", len(l.Loads), maxLoads)
		for j, item := range l.Loads {
			path := fmt.Sprintf("%s.loads[%d]", path, j)
			v.Name(path+".name", item.Name)
			_, isPlace := load.SpotOf(item.Place)
			v.That(isPlace, path+".place", "%q is not a place on the bike", item.Place)
			v.Check(path+".mass", item.Check())
			v.That(item.Bag == "" || item.Bag.Has(parts.Litres), path+".bag", "%q is not a slot of a bag", item.Bag)
			v.That(entry.Among(Sides(), string(item.Side)), path+".side", "%q is neither left nor right", item.Side)
			v.That(entry.Among(Whens(), string(item.When)), path+".when", "%q is none of %s", item.When, entry.Values(Whens()))
		}
	}
}
