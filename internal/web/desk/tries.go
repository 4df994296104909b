package desk

import (
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

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

// tries are the query of choices.
func tries(choices ...plan.Choice) []string {
	var query []string
	for _, c := range choices {
		query = append(query, "try", tryOf(c))
	}
	return query
}

// merged joins lists of choices; of two for one place the later counts.
func merged(lists ...[]plan.Choice) []plan.Choice {
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

// choices reads the parts that an address or a form tries. A slot that the loadout on view
// has a part of its own in is changed there.
func (d *Desk) choices(values []string) ([]plan.Choice, error) {
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
	return d.Plan.Scoped(merged(list), d.Loadout), nil
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

// Title names parts that lie on the bench.
func Title(choices []plan.Choice) string {
	names := make([]string, len(choices))
	for i, c := range choices {
		names[i] = choiceName(c)
	}
	return strings.Join(names, " with ")
}

// choiceSaid tells in the history what a choice changes about the plan on the desk.
func (d *Desk) choiceSaid(c plan.Choice) string {
	if c.Decision != "" {
		return choiceName(c) + ": " + strings.ToLower(entry.NameOf(plan.Decisions(), string(c.Decision)))
	}
	info, _ := parts.KindOf(c.Slot)
	was := d.Plan.Bike.StandardIn(c.Slot)
	now := c.Part
	if now == nil {
		now = was
	}
	if chosen := d.Plan.Chosen(c.Slot, d.Loadout); chosen != nil {
		was = chosen
	}
	if d.Plan.Stays(c) && was != nil {
		return info.Name + ": " + choiceName(c) + " beside " + was.Name
	}
	name := info.Name
	if c.Loadout != "" {
		loadout, _ := d.Plan.Loadout(c.Loadout)
		name += " for " + loadout.Name
	}
	return ChangedWords(name, shortName(was), shortName(now)) + d.Displaces(c)
}

// Displaces says what becomes of the part whose place a choice takes, "" where nothing does.
func (d *Desk) Displaces(c plan.Choice) string {
	if d.Plan.Stays(c) {
		return ""
	}
	said := ""
	for _, l := range d.Plan.Displaced(c) {
		then, stays := l.Becomes(c)
		if said += "; " + l.Part.Name; !stays {
			said += " leaves the plan"
		} else {
			said += ": " + strings.ToLower(entry.NameOf(plan.Decisions(), string(then)))
		}
	}
	return said
}
