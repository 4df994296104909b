package knock

import (
	"fmt"
	"math"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// Rows of what is in the tyres, and of the wheels under them.

const (
	lockWidthOffIn  = 0.3 // of a rim lock's width that still sits on the beads [practice]
	unsprungNotice  = 1.0 // kg on one wheel that a rider feels [practice]
	rockShareNotice = 0.10
	toolsFromKm     = 150.0
)

// end is one wheel with the slots that belong to it.
type end struct {
	name                    string
	tyre, tube, lock, wheel plan.Slot
	balanced                string // tag of what balances its lock
	of                      func(Ends) float64
	pressure                func(Pressure) PressureEnd
}

var ends = []end{
	{"front", plan.FrontTyre, plan.FrontTube, plan.FrontLock, plan.FrontWheel, "balanced-front",
		func(e Ends) float64 { return e.Front }, func(p Pressure) PressureEnd { return p.Front }},
	{"rear", plan.RearTyre, plan.RearTube, plan.RearLock, plan.RearWheel, "balanced-rear",
		func(e Ends) float64 { return e.Rear }, func(p Pressure) PressureEnd { return p.Rear }},
}

// first is what a rule says of the front wheel, or else of the rear one; the
// worse of the two when it speaks of both.
func first(f *Facts, speak func(e end) (Finding, bool)) (Finding, bool) {
	var worst Finding
	spoke := false
	for _, e := range ends {
		if finding, ok := speak(e); ok && (!spoke || finding.State.Rank() > worst.State.Rank()) {
			worst, spoke = finding, true
		}
	}
	return worst, spoke
}

// fillingFor offers a filling for a wheel from the shelf.
func fillingFor(f *Facts, e end, slot plan.Slot, kind tyre.Filling, label string) []Remedy {
	rim := f.Built.Rim(e.tyre)
	for _, p := range f.Shelf {
		if p.Slot != slot || p.Filling == nil || p.Filling.Kind != kind || (p.Filling.Rim.Known() && p.Filling.Rim.In("in") != rim.DiameterIn) {
			continue
		}
		if p.Filling.RimWidth.Known() && !(math.Abs(p.Filling.RimWidth.In("in")-rim.WidthIn) <= lockWidthOffIn) {
			continue
		}
		return chooseOne(p, label)
	}
	return nil
}

func holdsNoAir(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		build, t, filling := f.Built.WheelBuild(e.tyre), f.Built.Tyre(e.tyre), f.Built.Filling(e.tube)
		if build == "" || t == nil || filling != nil && (filling.Kind.HoldsAir() || filling.Kind == tyre.Foam) {
			return Finding{}, false
		}
		taped := filling != nil && filling.Kind == tyre.RimTape
		what := say("The %s wheel is spoked through and has no tube.", e.name)
		switch {
		case build.Tubeless() || taped:
			if !t.Size.TubeType {
				return Finding{}, false
			}
			what = say("%s is a tube-type tyre, and the %s wheel has no tube.", t.Size, e.name)
		}
		return Finding{
			State: verdict.Stop, What: what,
			Why:      "It does not hold air.",
			Do:       "Put in a tube for this rim, or take a wheel and a tyre that are both tubeless.",
			Remedies: fillingFor(f, e, e.tube, tyre.Tube, "Put in %s"),
		}, true
	})
}

func fillingSize(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		filling, rim := f.Built.Filling(e.tube), f.Built.Rim(e.tyre)
		if filling == nil || !filling.Rim.Known() || rim.DiameterIn == 0 || filling.Rim.In("in") == rim.DiameterIn {
			return Finding{}, false
		}
		return Finding{
			State:    verdict.Stop,
			What:     say("%s is made for %g in, the %s rim is %g in.", f.Built.Part(e.tube).Name, filling.Rim.In("in"), e.name, rim.DiameterIn),
			Why:      "Stretched or folded it fails within a day.",
			Do:       "Take the size of the tyre.",
			Remedies: fillingFor(f, e, e.tube, filling.Kind, "Take %s"),
		}, true
	})
}

func rimLockFit(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		lock, rim := f.Built.Filling(e.lock), f.Built.Rim(e.tyre)
		if lock == nil {
			return Finding{}, false
		}
		if f.Built.WheelBuild(e.tyre).Tubeless() {
			return Finding{
				State: verdict.Stop,
				What:  say("A rim lock needs a hole in the rim; the %s wheel is tubeless.", e.name),
				Why:   "Drilled, it holds no air, and a cast wheel may crack from the hole.",
				Do:    "Leave it out and stay above the pressure at which the bead lets go.",
			}, true
		}
		if off := math.Abs(lock.RimWidth.In("in") - rim.WidthIn); rim.WidthIn == 0 || !(off > lockWidthOffIn) {
			return Finding{}, false
		}
		return Finding{
			State:    verdict.Stop,
			What:     say("%s is made for a %.2f in rim, the %s rim is %.2f in.", f.Built.Part(e.lock).Name, lock.RimWidth.In("in"), e.name, rim.WidthIn),
			Why:      "Too narrow it does not reach the beads, too wide it bends the rim.",
			Do:       "Take the lock of the rim's width.",
			Remedies: fillingFor(f, e, e.lock, tyre.RimLock, "Take %s"),
		}, true
	})
}

func foamSpeed(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		filling := f.Built.Filling(e.tube)
		if filling == nil || filling.Kind != tyre.Foam {
			return Finding{}, false
		}
		road := f.Plan.Brief.Mix().Road()
		finding := Finding{
			Why: "Foam heats at speed, swells and goes soft or to crumbs; with it the tyre has no approval for the road.",
			Do:  "Keep it for days without tarmac, on a second set of wheels; else tubes. Local law decides.",
		}
		switch limit := filling.MaxSpeed.In("km/h"); {
		case f.CruiseKmh > limit && road > 0:
			finding.State = verdict.Stop
			finding.What = say("Foam in the %s tyre is limited to {%.0f km/h}; the brief's cruise is {%.0f km/h}.", e.name, limit, f.CruiseKmh)
		case road > 0:
			finding.State = verdict.Over
			finding.What = say("Foam in the %s tyre, and %.0f %% of the trip is road.", e.name, 100*road)
		default:
			return Finding{}, false
		}
		return finding, true
	})
}

func wheelBalance(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		lock := f.Built.Part(e.lock)
		if lock == nil || f.Built.Provides(e.balanced) {
			return Finding{}, false
		}
		return Finding{
			State: verdict.Watch,
			What:  say("The rim lock unbalances the %s wheel by its own {%.2f kg}.", e.name, lock.Mass.In("kg")),
			Why:   "At road speed the wheel hops; bars and screws shake loose.",
			Do:    "Set counterweights opposite it, or take a lock that brings its own.",
			Remedies: func() []Remedy {
				for _, p := range f.Shelf {
					if p.Slot == e.lock && provides(p, e.balanced) && math.Abs(p.Filling.RimWidth.In("in")-f.Built.Rim(e.tyre).WidthIn) <= lockWidthOffIn {
						return chooseOne(p, "Take %s")
					}
				}
				return nil
			}(),
		}, true
	})
}

func unsprungMass(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		more := e.of(f.UnsprungKg)
		if !(more > unsprungNotice) {
			return Finding{}, false
		}
		return Finding{
			State: verdict.Watch,
			What:  say("Tyre, filling and wheel add {%.1f kg} to the %s wheel.", more, e.name),
			Why:   "Springs and damping work harder to keep it on the ground, and the bike turns slower. Some want the steadiness in mud.",
			Do:    "Take it where the ground asks for it; else the lighter tyre or tube.",
		}, true
	})
}

func tyreTools(f *Facts) (Finding, bool) {
	tag, what, build := "mends-tubes", "tubes", f.Built.WheelBuild(plan.RearTyre)
	if build == "" || f.Built.Tyre(plan.RearTyre) == nil {
		return Finding{}, false
	}
	if filling := f.Built.Filling(plan.RearTube); filling != nil && filling.Kind == tyre.Foam {
		return Finding{}, false
	} else if build.Tubeless() && filling == nil {
		tag, what = "mends-tubeless", "tubeless tyres"
	}
	off := 1 - f.Plan.Brief.Mix().Road()
	if f.Built.Provides(tag) || !(off > 0) || !(f.Plan.Brief.Distance.In("km") > toolsFromKm) {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     say("Nothing in the plan mends %s on the way.", what),
		Why:      "A flat off the road ends the day, and the longest walk is the one with boots on.",
		Do:       "Irons and tubes, or plugs; a pump; a way to lift the wheel. Try them once in the garage with the tyre that you will ride.",
		Remedies: providing(f, plan.TyreKit, tag, "Carry %s"),
	}, true
}

func castOnRock(f *Facts) (Finding, bool) {
	rock, _ := terrain.SurfaceOf("rock")
	share := rock.Share(f.Plan.Brief.Mix())
	return first(f, func(e end) (Finding, bool) {
		if f.Built.WheelBuild(e.tyre) != plan.Cast || !(share > rockShareNotice) {
			return Finding{}, false
		}
		return Finding{
			State:    verdict.Watch,
			What:     say("The %s wheel is cast, and %.0f %% of the trip is rock and single track.", e.name, 100*share),
			Why:      "Cast wheels crack where spoked ones bend, and a cracked one ends the trip.",
			Do:       "More pressure and less speed over rock, or spoked wheels: money, approval, sensors.",
			Remedies: spokedWheel(f, e),
		}, true
	})
}

func spokedWheel(f *Facts, e end) []Remedy {
	for _, p := range f.Shelf {
		if p.Slot == e.wheel && p.Wheel != nil && p.Wheel.Build != plan.Cast && f.Built.Fits(p) && p.Wheel.Rim().DiameterIn == f.Built.Rim(e.tyre).DiameterIn {
			return chooseOne(p, "Fit %s")
		}
	}
	return nil
}

func otherWheels(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		part := f.Built.Part(e.wheel)
		if part == nil || part.Wheel == nil || !f.Built.Chosen(e.wheel) {
			return Finding{}, false
		}
		now, was := part.Wheel.Rim(), f.Standard.Rim(e.tyre)
		finding := Finding{
			State: verdict.Watch,
			What:  say("Another %s wheel: %s.", e.name, part.Name),
			Why:   "Disc, spacers, bearings and sprocket carrier belong to a wheel, and approval may hang on it.",
			Do:    "Check fitment before money; a second set pays when every piece on it stays on it.",
		}
		if was.DiameterIn > 0 && now.DiameterIn != was.DiameterIn {
			finding.What = say("The %s wheel becomes %g in instead of %g in.", e.name, now.DiameterIn, was.DiameterIn)
			if f.Built.Bike.AntiLock || f.Built.Bike.TractionControl {
				finding.State = verdict.Over
				finding.Why = "Anti-lock and traction control count both wheels' turns; sensor ring, disc and bracket must come along. Approval hangs on the size."
			}
		}
		return finding, true
	})
}

func provides(p *plan.Part, tag string) bool {
	for _, t := range p.Provides {
		if t == tag {
			return true
		}
	}
	return false
}

// pressureRow speaks of the surface of the trip on which a wheel is worst off.
func pressureRow(f *Facts, speak func(e end, p Pressure, at PressureEnd) (Finding, bool)) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		for _, p := range f.Pressures {
			if finding, ok := speak(e, p, e.pressure(p)); ok {
				return finding, true
			}
		}
		return Finding{}, false
	})
}

func onSurface(p Pressure) string { return fmt.Sprintf("on “%s”", p.Surface.Name) }

func pressureLoad(f *Facts) (Finding, bool) {
	return pressureRow(f, func(e end, p Pressure, at PressureEnd) (Finding, bool) {
		if !(at.Own < at.Load-0.5) {
			return Finding{}, false
		}
		return Finding{
			State: verdict.Stop,
			What:  say("{%.0f kPa} %s: the %s tyre carries its axle from {%.0f kPa} up.", at.Own, onSurface(p), e.name, at.Load),
			Why:   "Below it the carcass overheats and the tyre fails, at speed and without a warning.",
			Do:    "Pump it up, or take load off that axle.",
		}, true
	})
}

func pressureMaker(f *Facts) (Finding, bool) {
	return pressureRow(f, func(e end, p Pressure, at PressureEnd) (Finding, bool) {
		if !(at.Own < at.Maker-0.5) {
			return Finding{}, false
		}
		return Finding{
			State: verdict.Stop,
			What:  say("{%.0f kPa} %s is under the {%.0f kPa} that the %s tyre's maker allows.", at.Own, onSurface(p), at.Maker, e.name),
			Why:   "The maker knows the carcass; nobody else answers for it.",
			Do:    "Stay at the maker's minimum or above it.",
		}, true
	})
}

func pressurePinch(f *Facts) (Finding, bool) {
	return pressureRow(f, func(e end, p Pressure, at PressureEnd) (Finding, bool) {
		if p.Share == 0 || !(at.Taken() < at.Pinch-2.5) {
			return Finding{}, false
		}
		why := Text("The tube is cut twice between tread and rim: the snake bite. Tubeless, the rim dents and the air goes.")
		if f.CarriedKg > bagsKg {
			why = "With bags on it happens at half the speed. " + why
		}
		finding := Finding{
			State: verdict.Watch,
			What:  say("{%.0f kPa} %s: from {%.0f kPa} down a fist-sized stone reaches the %s rim.", at.Taken(), onSurface(p), at.Pinch, e.name),
			Why:   why,
			Do:    "More pressure, less speed on the stony bits, or a heavy tube.",
		}
		if filling := f.Built.Filling(e.tube); filling != nil && filling.Kind == tyre.Tube {
			finding.Remedies = fillingFor(f, e, e.tube, tyre.HeavyTube, "Put in %s")
		}
		return finding, true
	})
}

// bagsKg is from when a bike counts as loaded [practice].
const bagsKg = 30.0

func pressureSoft(f *Facts) (Finding, bool) {
	return pressureRow(f, func(e end, p Pressure, at PressureEnd) (Finding, bool) {
		if !(at.Own < at.Bead-0.5) {
			return Finding{}, false
		}
		finding := Finding{
			State:    verdict.Watch,
			What:     say("{%.0f kPa} %s, and nothing holds the %s tyre on its rim.", at.Own, onSurface(p), e.name),
			Why:      "Under drive or brakes the tyre turns on the rim and tears the valve out.",
			Do:       say("A rim lock, or {%.0f kPa} and more.", at.Bead),
			Remedies: fillingFor(f, e, e.lock, tyre.RimLock, "Fit %s"),
		}
		if f.Built.WheelBuild(e.tyre).Tubeless() {
			finding.Why, finding.Do, finding.Remedies = "A tubeless bead that leaves its seat lets all the air go at once.", say("{%.0f kPa} and more.", at.Bead), nil
		}
		return finding, true
	})
}

func pressureRoad(f *Facts) (Finding, bool) {
	return pressureRow(f, func(e end, p Pressure, at PressureEnd) (Finding, bool) {
		if p.Surface.ID != "road" || !(at.Own < at.Placard-2.5) {
			return Finding{}, false
		}
		return Finding{
			State: verdict.Over,
			What:  say("{%.0f kPa} for the road; the placard says {%.0f kPa} for the %s tyre as loaded.", at.Own, at.Placard, e.name),
			Why:   "A soft tyre folds in a bend and heats on the motorway.",
			Do:    "Back up to the placard before tarmac.",
		}, true
	})
}
