package ranging

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/study"
)

func fuelToThePump(f *facts.All) (n study.Need, ok bool) {
	leg, ok := f.Range.Decides()
	if !ok || math.IsNaN(f.Range.GapKm) || math.IsNaN(f.Range.Km) {
		return n, false
	}
	met := f.Range.Km >= f.Range.GapKm
	tell := func() study.Answer {
		bare := f.Standard.Fuels[0]
		a := study.Answer{
			Because: study.Say("{%.0f km} from %s to %s.", f.Range.GapKm, leg.From, leg.To),
			Bare:    study.Say("{%.1f L}", bare.HoldsL-bare.UnusedL),
			Fitted:  study.Say("{%.1f L}, {%.0f km} before the reserve", f.Range.Tank.UsableL, f.Range.Km),
		}
		if !met {
			a.Short = "a tank, cans or a bladder for that leg, or a pump in between"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}
