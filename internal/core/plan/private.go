package plan

import (
	"regexp"
	"slices"

	"valiantmule/internal/core/money"
)

// Private is what of a machine's record goes to its next owner only where its rider says so.
type Private struct {
	Key, Says string
	strip     func(m *Machine)
}

var privates = []Private{
	{"money", "what it and its parts cost", func(m *Machine) {
		m.Offer = nil
		if m.Bike != nil {
			bike := *m.Bike
			bike.Price = money.Amount{}
			m.Bike = &bike
		}
		m.Baseline.Answers, m.Baseline.Changes = slices.Clone(m.Baseline.Answers), slices.Clone(m.Baseline.Changes)
		for i := range m.Baseline.Answers {
			m.Baseline.Answers[i].Cost = money.Amount{}
		}
		for i := range m.Baseline.Changes {
			m.Baseline.Changes[i].Cost = money.Amount{}
		}
	}},
	{"codes", "codes and keys that are written down as built", func(m *Machine) {
		m.Baseline.AsBuilt = slices.DeleteFunc(slices.Clone(m.Baseline.AsBuilt), func(f Fact) bool { return secret.MatchString(f.Name) || secret.MatchString(f.Value) })
	}},
	{"places", "notes of the log, that may say where you were", func(m *Machine) {
		m.Readings = slices.Clone(m.Readings)
		for i := range m.Readings {
			m.Readings[i].Note = ""
		}
	}},
	{"log", "the log: fills with their days, weighings, volts", func(m *Machine) { m.Readings = nil }},
}

// secret is what a fact is called by that opens or starts a bike, or says whose it is.
var secret = regexp.MustCompile(`(?i)\b(codes?|pins?|keys?|alarm|immobili[sz]er|password|vin|frame number|plate|insur\w*|owner|address|phone)\b`)

// Privates lists what is private.
func Privates() []Private { return privates }

// Given is the machine for its next owner: nobody's yet, and of what is private only what is told.
func (m Machine) Given(told func(key string) bool) Machine {
	m.Held, m.Handed = "", nil
	for _, p := range privates {
		if !told(p.Key) {
			p.strip(&m)
		}
	}
	return m
}
