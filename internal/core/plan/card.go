package plan

import (
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/limp"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Card is what the rider wants on the trail card, and what stands there by no computation.
type Card struct {
	Order []string `json:"order,omitempty"` // sections, those that are not named in their usual places
	Off   []string `json:"off,omitempty"`   // sections that are left out
	Kit   []string `json:"kit,omitempty"`   // things of the kit that are along, of [limp.Items]
	NoKit []string `json:"no_kit,omitempty"`
	Call  []Call   `json:"call,omitempty"`
	Blood string   `json:"blood,omitempty"`
	Told  bool     `json:"told,omitempty"` // whom to call and the blood group stand on it
}

// Call is somebody to call.
type Call struct {
	Name   string `json:"name" is:"name"`
	Number string `json:"number"`
}

// Button is what a bike does when something is pressed: a mode, a lamp's gesture, turns of an adjuster.
type Button struct {
	Does   string        `json:"does"`
	Press  string        `json:"press"`
	Hold   unit.Duration `json:"hold,omitzero"`
	When   string        `json:"when,omitempty"`
	KeyOff string        `json:"key_off,omitempty"` // what it falls back to when the key is off, "" where it stays
}

const (
	maxCalls   = 6
	maxButtons = 40
)

func (c *Card) validate(v *entry.Problems) {
	v.Few("card.call", len(c.Call), maxCalls)
	for i, call := range c.Call {
		v.Name("card.call"+entry.At(i)+".name", call.Name)
		v.Short("card.call"+entry.At(i)+".number", call.Number)
	}
	v.Short("card.blood", c.Blood)
	for key, list := range map[string][]string{"order": c.Order, "off": c.Off} {
		v.Few("card."+key, len(list), 40)
		for i, id := range list {
			v.ID("card."+key+entry.At(i), id, "a section")
		}
	}
	for key, list := range map[string][]string{"kit": c.Kit, "no_kit": c.NoKit} {
		v.Few("card."+key, len(list), len(limp.Items()))
		for i, id := range list {
			_, ok := limp.ItemOf(id)
			v.That(ok, "card."+key+entry.At(i), "%q is no thing of a kit", entry.Cut(id))
		}
	}
}

func validateButtons(v *entry.Problems, list []Button) {
	v.Few("buttons", len(list), maxButtons)
	for i, b := range list {
		at := "buttons" + entry.At(i)
		v.Name(at+".does", b.Does)
		v.Name(at+".press", b.Press)
		v.Short(at+".when", b.When)
		v.Short(at+".key_off", b.KeyOff)
		v.That(!b.Hold.Known() || b.Hold.Base() >= 0 && b.Hold.Base() <= 120, at+".hold", "%s is outside 0–120 s", b.Hold)
	}
}

// InKit reports whether a thing of the kit is along in a loadout: as the rider says, else as it is [Plan.Packed]; said is
// set where the rider has.
func (p *Plan) InKit(l *Loadout, item limp.Item) (is, said bool) {
	switch {
	case slices.Contains(p.Card.Kit, item.ID):
		return true, true
	case slices.Contains(p.Card.NoKit, item.ID):
		return false, true
	}
	return p.Packed(l, item), false
}

// Packed reports whether a thing of the kit is along in a loadout by the names of what is packed, and of what is in the ledger.
func (p *Plan) Packed(l *Loadout, item limp.Item) bool {
	var names []string
	for _, load := range l.Loads {
		names = append(names, load.Name)
	}
	for i := range p.Lines { // what is bolted on mends nothing
		line := &p.Lines[i]
		if line.Standing() == In && (line.Loadout == "" || line.Loadout == l.ID) && (line.Part == nil || line.Part.Slot == parts.TyreKit) {
			names = append(names, line.Title())
		}
	}
	return item.In(names)
}

// Stops is what of the bike decides how it may stop.
func (b *Built) Stops() limp.Bike {
	return limp.Bike{Chain: !b.Bike.Shaft(), Liquid: b.Bike.Cooling == LiquidCooled, Injected: b.Bike.Fuelling != Carburettor, Tubes: !b.WheelBuild(parts.RearTyre).Tubeless()}
}
