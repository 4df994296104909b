package logbook

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Volts is what a voltmeter across the battery showed, and what was drawn then, as the plan
// had it: that stays true when parts change.
type Volts struct {
	Idle   unit.Voltage `json:"idle_v,omitzero"`   // nothing on but the bike itself
	Riding unit.Voltage `json:"riding_v,omitzero"` // the same at 5000 rpm
	AllOn  unit.Voltage `json:"all_on_v,omitzero"` // everything on, at 5000 rpm
	OwnW   unit.Power   `json:"own,omitzero"`      // the bike itself then
	AllOnW unit.Power   `json:"drawn,omitzero"`    // with everything on
	RatedW unit.Power   `json:"rated,omitzero"`    // of the alternator that was in it, missing where nobody knew
}

// VoltsRPM is the engine speed that is asked for with it.
const VoltsRPM = 5000.0

// Fields lists what is read, in the order of the work.
func (v *Volts) Fields() []entry.Field {
	return []entry.Field{
		{Key: "idle_v", Label: "At idle", Unit: "V", Min: 6, Max: 18, Help: "Warm, nothing on but the bike itself, the meter across the battery.", Entry: &v.Idle},
		{Key: "riding_v", Label: "At 5000 rpm", Unit: "V", Min: 6, Max: 18, Help: "The same, turned faster: 13.5–14.5 V is usual.", Entry: &v.Riding},
		{Key: "all_on_v", Label: "… everything on", Unit: "V", Min: 6, Max: 18, Help: "At 5000 rpm: main beam, every lamp, grips and vest on full. It leads over the computed margin.", Entry: &v.AllOn},
	}
}

// Check tells whether the readings are such as one believes; its errors are a [Problem] by
// the field's name.
func (v *Volts) Check() error {
	any := false
	for _, f := range v.Fields() {
		if err := f.Check(); err != nil {
			return entry.Problem{Path: f.Key, What: err.Error()}
		}
		any = any || f.Entry.Known()
	}
	if !any {
		return entry.Problem{Path: "all_on_v", What: "what did the meter show? This one says most"}
	}
	const noise = 0.3
	if v.AllOn.In("V") > v.Riding.In("V")+noise {
		return entry.Problem{Path: "all_on_v", What: "more with everything on than without: read both again"}
	}
	return nil
}

// Validate notes what else is wrong with it: with what was drawn then.
func (v *Volts) Validate(p *entry.Problems, at string) {
	p.Fields(at, []entry.Field{
		{Key: "own", Unit: "W", Max: 5000, Entry: &v.OwnW}, {Key: "drawn", Unit: "W", Max: 5000, Entry: &v.AllOnW}, {Key: "rated", Unit: "W", Max: 5000, Entry: &v.RatedW},
	})
}

// Words say what it is.
func (v *Volts) Words() string { return "volts" }

// Volts is what the meter showed, nil for another kind of reading.
func (r Reading) Volts() *Volts { return content[Volts](r) }
