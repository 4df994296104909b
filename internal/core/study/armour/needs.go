package armour

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
)

// From how much on a brief asks for a guard [practice where the handbook of the trade
// says so, else memory].
const (
	mudShare    = 0.05 // for a mudguard
	strandsFrom = 0.01 // chance over the trip
	breaksFrom  = 0.14 // of levers
	halved      = 0.5  // of the bare risk left: a guard has answered it
)

// riskOf a place.
func riskOf(f *facts.All, p guard.Place) (guard.Risk, bool) {
	for i := range f.Risks {
		if f.Risks[i].Place.Place == p {
			return f.Risks[i], true
		}
	}
	return guard.Risk{}, false
}

// guarded asks for a guard where a broken place ends the ride often enough.
func guarded(place guard.Place) func(f *facts.All) (study.Need, bool) {
	return func(f *facts.All) (n study.Need, ok bool) {
		r, ok := riskOf(f, place)
		if !ok || !(r.Bare.Stranded >= strandsFrom) {
			return n, false
		}
		met := r.Left.Stranded <= halved*r.Bare.Stranded
		tell := func() study.Answer {
			a := study.Answer{
				Because: study.Say("On this ground and over this distance, bare, it ends the ride %.0f times in 100.", 100*r.Bare.Stranded),
				Bare:    study.Say("%.0f in 100", 100*r.Bare.Stranded), Fitted: study.Say("%.1f in 100", 100*r.Left.Stranded),
			}
			if !met {
				a.Short = "a guard that takes at least half of it away"
			}
			return a
		}
		return study.Need{Met: met, Tell: tell}, true
	}
}

// cooler is whichever the bike has.
func cooler(f *facts.All) (study.Need, bool) {
	if n, ok := guarded(guard.Radiator)(f); ok {
		return n, true
	}
	return guarded(guard.OilCooler)(f)
}

func hands(f *facts.All) (n study.Need, ok bool) {
	r, ok := riskOf(f, guard.Levers)
	if !ok || !(r.Bare.Broken >= breaksFrom) {
		return n, false
	}
	met := r.Left.Broken <= halved*r.Bare.Broken
	tell := func() study.Answer {
		a := study.Answer{
			Because: study.Say("Falls and branches break a lever on %.0f of 100 such trips.", 100*r.Bare.Broken),
			Bare:    study.Say("%.0f in 100", 100*r.Bare.Broken), Fitted: study.Say("%.0f in 100", 100*r.Left.Broken),
		}
		if !met {
			a.Short = "hand guards, or a spare lever"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}

func mud(f *facts.All) (n study.Need, ok bool) {
	share := f.Plan.Brief.Mix().Of(terrain.Mud)
	if !(share >= mudShare) {
		return n, false
	}
	p := f.Built.Part(parts.FrontMudguard)
	met := p != nil
	tell := func() study.Answer {
		a := study.Answer{Because: study.Say("%.0f %% of the trip is mud.", 100*share), Bare: "the standard mudguard, close to the tyre", Fitted: "the standard mudguard, close to the tyre"}
		if met {
			a.Fitted = study.Text(p.Name)
		} else {
			a.Short = "a raised or shortened mudguard: packed mud brakes the wheel"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}
