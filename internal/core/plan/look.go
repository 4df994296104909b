package plan

import "valiantmule/internal/core/entry"

// Look is something about the lamps that a rider saw to. What inspections ask for differs by
// country: the list is to be ticked, and nothing follows from it.
type Look struct {
	ID string `json:"id"`
	On string `json:"on,omitempty" is:"date"` // date
}

// Looks lists what inspections look at.
func Looks() []entry.Option {
	return []entry.Option{
		entry.Opt("dipped", "Dipped beam works, and its edge falls where the law wants it, loaded as you ride"),
		entry.Opt("main", "Main beam works, its tell-tale lights"),
		entry.Opt("tail", "Tail lamp; brake lamp by each brake"),
		entry.Opt("plate-lamp", "Plate lamp, and the plate at its angle"),
		entry.Opt("reflector", "Rear reflector, not behind a bag"),
		entry.Opt("indicators", "Indicators at 60 to 120 flashes a minute, far enough apart, not behind a bag"),
		entry.Opt("marks", "An approval mark on each lamp that was changed"),
		entry.Opt("extra", "Lamps beyond the standard: allowed, and switched as the law asks"),
		entry.Opt("horn", "The horn is heard"),
	}
}

// SeenOf is when something was seen to; ok is false where nobody has.
func (m *Machine) SeenOf(id string) (on string, ok bool) {
	for _, l := range m.Seen {
		if l.ID == id {
			return l.On, true
		}
	}
	return "", false
}

func validateLooks(v *entry.Problems, list []Look) {
	v.Few("lamps_seen", len(list), len(Looks()))
	for i, l := range list {
		path := "lamps_seen" + entry.At(i)
		v.That(entry.Among(Looks(), l.ID), path+".id", "%q is none of %s", l.ID, entry.Values(Looks()))
		v.Date(path+".on", l.On)
	}
}
