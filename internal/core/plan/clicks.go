package plan

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Clicks are how the damping is set, counted from fully in: more clicks are softer. Whole
// numbers; a quarter turn of a screw without clicks counts as one.
type Clicks struct {
	ForkCompression  unit.Ratio `json:"fork_compression,omitzero"`
	ForkRebound      unit.Ratio `json:"fork_rebound,omitzero"`
	ShockCompression unit.Ratio `json:"shock_compression,omitzero"`
	ShockRebound     unit.Ratio `json:"shock_rebound,omitzero"`
}

// Fields lists them, their keys after a prefix.
func (c *Clicks) Fields(prefix string) []entry.Field {
	const help = "From fully in, clockwise, counted out."
	return []entry.Field{
		entry.Ask(prefix+"fork_compression", "Fork, compression", "", 0, 60, help, &c.ForkCompression),
		entry.Ask(prefix+"fork_rebound", "Fork, rebound", "", 0, 60, help, &c.ForkRebound),
		entry.Ask(prefix+"shock_compression", "Shock, compression", "", 0, 60, help, &c.ShockCompression),
		entry.Ask(prefix+"shock_rebound", "Shock, rebound", "", 0, 60, help, &c.ShockRebound),
	}
}

// SurfaceClicks are the rider's clicks for a surface.
type SurfaceClicks struct {
	Surface string `json:"surface"`
	Clicks
}

// ClicksOn are the loadout's for a surface; unknown where the rider has none of their own.
func (l *Loadout) ClicksOn(surface string) Clicks {
	for _, c := range l.Clicks {
		if c.Surface == surface {
			return c.Clicks
		}
	}
	return Clicks{}
}
