package plan

import "valiantmule/internal/core/unit"

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
func (v *Volts) Fields() []Field {
	return []Field{
		{"idle_v", "At idle", "V", 6, 18, "Warm, nothing on but the bike itself, the meter across the battery.", &v.Idle},
		{"riding_v", "At 5000 rpm", "V", 6, 18, "The same, turned faster: 13.5–14.5 V is usual.", &v.Riding},
		{"all_on_v", "… everything on", "V", 6, 18, "At 5000 rpm: main beam, every lamp, grips and vest on full. It leads over the computed margin.", &v.AllOn},
	}
}

// Check tells whether the readings are such as one believes; its errors are a [Problem] by
// the field's name.
func (v *Volts) Check() error {
	any := false
	for _, f := range v.Fields() {
		if err := f.Check(); err != nil {
			return Problem{f.Key, err.Error()}
		}
		any = any || f.Entry.Known()
	}
	if !any {
		return Problem{"all_on_v", "what did the meter show? This one says most"}
	}
	const noise = 0.3
	if v.AllOn.In("V") > v.Riding.In("V")+noise {
		return Problem{"all_on_v", "more with everything on than without: read both again"}
	}
	return nil
}
