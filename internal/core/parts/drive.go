package parts

import "valiantmule/internal/core/entry"

type count = entry.Count

// What sprockets and chains are told apart by.
var (
	Teeth        = prop[count]("teeth", "Teeth", "", 8, 80, "Count them. Without it every gear is unknown.")
	ChainPitches = prop[count]("links", "Links", "", 60, 200, "Count rivets: a link each. Without it the axle's place is unknown.")
)
