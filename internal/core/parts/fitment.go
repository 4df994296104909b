package parts

import (
	"fmt"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Fitment is what is known of whether a part goes on this bike. It comes before
// money, and what somebody found out overrules what its tags say.
type Fitment struct {
	Verdict FitVerdict    `json:"verdict,omitempty"`
	Work    string        `json:"work,omitempty"`   // what has to be done: trim, drill, a longer hose
	Hours   unit.Duration `json:"hours,omitzero"`   // that it takes beyond the usual
	Tools   string        `json:"tools,omitempty"`  // that it takes
	Ask     string        `json:"ask,omitempty"`    // whom, and what, while nobody knows
	Blind   entry.Said    `json:"blind,omitzero"`   // a torque wrench cannot get at its fasteners
	Reason  string        `json:"reason,omitempty"` // that it does not go on
}

// FitVerdict is whether a part goes on.
type FitVerdict string

// The verdicts. Of a part without one its tags tell.
const (
	Fits         FitVerdict = "fits"
	FitsWithWork FitVerdict = "work"
	FitsNot      FitVerdict = "no"
	FitUnknown   FitVerdict = "unknown"
)

// FitVerdicts lists them.
func FitVerdicts() []entry.Option {
	return []entry.Option{entry.Opt(Fits, "It fits"), entry.Opt(FitsWithWork, "It fits with work"), entry.Opt(FitsNot, "It does not fit"), entry.Opt(FitUnknown, "Nobody knows yet")}
}

// Made is the kind of bike that a part was made for. The zero Made is any.
type Made struct {
	Family  string      `json:"family,omitempty"`
	From    entry.Count `json:"from,omitempty"` // model year, 0 for no first
	To      entry.Count `json:"to,omitempty"`   // model year, 0 for no last
	Variant string      `json:"variant,omitempty"`
}

// Years of it in words, "" for all.
func (m Made) Years() string {
	switch {
	case m.From == 0 && m.To == 0:
		return ""
	case m.From == m.To:
		return fmt.Sprint(int(m.From))
	case m.To == 0:
		return fmt.Sprintf("%d and later", m.From)
	case m.From == 0:
		return fmt.Sprintf("up to %d", m.To)
	}
	return fmt.Sprintf("%d–%d", m.From, m.To)
}

// WorkHours is what fitting a part takes beyond what such parts usually take, h.
func (p *Part) WorkHours() float64 {
	if p.Fitment == nil || p.Fitment.Verdict != FitsWithWork || !p.Fitment.Hours.Known() {
		return 0
	}
	return p.Fitment.Hours.In("h")
}
