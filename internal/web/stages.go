package web

import (
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/stage/armour"
	"valiantmule/internal/web/stage/baseline"
	"valiantmule/internal/web/stage/bike"
	"valiantmule/internal/web/stage/brief"
	"valiantmule/internal/web/stage/card"
	"valiantmule/internal/web/stage/contact"
	"valiantmule/internal/web/stage/electrics"
	"valiantmule/internal/web/stage/gearing"
	"valiantmule/internal/web/stage/load"
	"valiantmule/internal/web/stage/log"
	"valiantmule/internal/web/stage/ranging"
	"valiantmule/internal/web/stage/ready"
	"valiantmule/internal/web/stage/spend"
	"valiantmule/internal/web/stage/stance"
	"valiantmule/internal/web/stage/tyres"
)

// Stages are all there are, in the order of the work. Router, navigation, keys,
// pictures and tests know of a stage by this list alone.
func Stages() []desk.Stage {
	return []desk.Stage{
		brief.Stage, bike.Stage, baseline.Stage, tyres.Stage, armour.Stage, contact.Stage, ranging.Stage, load.Stage, gearing.Stage, stance.Stage, electrics.Stage, spend.Stage, ready.Stage, card.Stage, log.Stage,
	}
}
