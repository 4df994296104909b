package tyres

import (
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// Rows of what is in the tyres, of their pressures, and of the wheels under them.

const (
	lockWidthOffIn  = 0.3 // of a rim lock's width that still sits on the beads [practice]
	unsprungNotice  = 1.0 // kg on one wheel that a rider feels [practice]
	unsprungSmall   = 2.5 // a heavier tyre and tube, as most who ride off the road take them [practice]
	rockShareNotice = 0.10
	toolsFromKm     = 150.0
	ultraTubeKmh    = 110.0 // above which an ultra-heavy tube runs hot [practice]
)

// fillingFor offers a filling for a wheel from the shelf.
func fillingFor(f *facts.All, w *study.Wheel, slot parts.Slot, kind tyre.Filling, label string) []study.Remedy {
	rim := f.Built.Rim(w.Tyre)
	for _, p := range f.Shelf {
		if p.Slot != slot || parts.FillingKind.In(p) != kind || (parts.RimDiameter.In(p).Known() && parts.RimDiameter.In(p).In("in") != rim.DiameterIn) {
			continue
		}
		if parts.RimWidth.In(p).Known() && !(math.Abs(parts.RimWidth.In(p).In("in")-rim.WidthIn) <= lockWidthOffIn) {
			continue
		}
		return study.Take(p, label)
	}
	return nil
}

func holdsNoAir(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		build, t, filling := f.Built.WheelBuild(w.Tyre), f.Built.Tyre(w.Tyre), f.Built.Filling(w.Tube)
		if build == "" || t == nil || filling != nil && (filling.Kind.HoldsAir() || filling.Kind == tyre.Foam || filling.Kind == tyre.RimTape) {
			return study.Finding{}, false
		}
		sealed := build.Tubeless()
		if sealed && !t.Size.TubeType {
			return study.Finding{}, false
		}
		var offer func() []study.Remedy
		if !sealed {
			offer = func() []study.Remedy { return fillingFor(f, w, w.Tube, tyre.Tube, "Put in %s") }
		}
		return study.Finding{
			State: verdict.Stop,
			Offer: offer,
			Tell: func() study.Words {
				words := study.Words{
					What: study.Say("The %s wheel is spoked through and has no tube.", w.Name),
					Why:  "It does not hold air.",
					Do:   "Put in a tube for this rim, or take a wheel and a tyre that are both tubeless.",
				}
				if sealed {
					words.What = study.Say("%s is a tube-type tyre, and the %s wheel has no tube.", t.Size, w.Name)
					words.Do = "Take a tyre that is made tubeless; whether a tube may go into this rim, its maker says."
				}
				return words
			},
		}, true
	})
}

// tapedRim is worse in front, where a bead that lets go throws the rider.
func tapedRim(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		filling, t := f.Built.Filling(w.Tube), f.Built.Tyre(w.Tyre)
		if filling == nil || filling.Kind != tyre.RimTape {
			return study.Finding{}, false
		}
		leaks := t != nil && t.Size.TubeType
		state := verdict.Watch
		if w.Tyre == parts.FrontTyre {
			state = verdict.Over
		}
		return study.Finding{
			State: state,
			Offer: func() []study.Remedy { return fillingFor(f, w, w.Tube, tyre.Tube, "Put in %s") },
			Tell: func() study.Words {
				words := study.Words{
					What: study.Say("The taped %s rim is not approved, and its bead may leave a rim without a hump.", w.Name),
					Why:  "Tape seals; it does not hold the bead. Run flat, the tyre can come into the middle of the rim at once.",
					Do:   "Carry a tube and the irons all the same; ask whether the rim has a hump. Look at the pressure every morning.",
				}
				if leaks {
					words.Why = study.Say("%s is a tube-type tyre, not made to be tight. ", t.Size) + words.Why
				}
				return words
			},
		}, true
	})
}

func fillingSize(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		filling, rim := f.Built.Filling(w.Tube), f.Built.Rim(w.Tyre)
		if filling == nil || !filling.Rim.Known() || rim.DiameterIn == 0 || filling.Rim.In("in") == rim.DiameterIn {
			return study.Finding{}, false
		}
		return study.Finding{
			State: verdict.Stop,
			Offer: func() []study.Remedy { return fillingFor(f, w, w.Tube, filling.Kind, "Take %s") },
			Tell: func() study.Words {
				return study.Words{
					What: study.Say("%s is made for %g in, the %s rim is %g in.", f.Built.Part(w.Tube).Name, filling.Rim.In("in"), w.Name, rim.DiameterIn),
					Why:  "Stretched or folded it fails within a day.",
					Do:   "Take the size of the tyre.",
				}
			},
		}, true
	})
}

func rimLockFit(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		lock, rim := f.Built.Filling(w.Lock), f.Built.Rim(w.Tyre)
		if lock == nil {
			return study.Finding{}, false
		}
		if f.Built.WheelBuild(w.Tyre).Tubeless() {
			return study.Found(verdict.Stop, func() study.Words {
				return study.Words{
					What: study.Say("A rim lock needs a hole in the rim; the %s wheel is tubeless.", w.Name),
					Why:  "Drilled, it holds no air, and a cast wheel may crack from the hole.",
					Do:   "Leave it out and stay above the pressure at which the bead lets go.",
				}
			})
		}
		if off := math.Abs(lock.RimWidth.In("in") - rim.WidthIn); rim.WidthIn == 0 || !(off > lockWidthOffIn) {
			return study.Finding{}, false
		}
		return study.Finding{
			State: verdict.Stop,
			Offer: func() []study.Remedy { return fillingFor(f, w, w.Lock, tyre.RimLock, "Take %s") },
			Tell: func() study.Words {
				return study.Words{
					What: study.Say("%s is made for a %.2f in rim, the %s rim is %.2f in.", f.Built.Part(w.Lock).Name, lock.RimWidth.In("in"), w.Name, rim.WidthIn),
					Why:  "Too narrow it does not reach the beads, too wide it bends the rim.",
					Do:   "Take the lock of the rim's width.",
				}
			},
		}, true
	})
}

func ultraTubeSpeed(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		filling := f.Built.Filling(w.Tube)
		if filling == nil || filling.Kind != tyre.UltraTube || !(f.Drive.CruiseKmh > ultraTubeKmh) {
			return study.Finding{}, false
		}
		return study.Finding{
			State: verdict.Watch,
			Value: f.Drive.CruiseKmh,
			Offer: func() []study.Remedy { return fillingFor(f, w, w.Tube, tyre.HeavyTube, "Put in %s") },
			Tell: func() study.Words {
				return study.Words{
					What: study.Say("An ultra-heavy tube in the %s tyre, and a cruise of {%.0f km/h}.", w.Name, f.Drive.CruiseKmh),
					Why:  study.Say("Its thick rubber works and heats with every turn; above {%.0f km/h} for long it softens, and the heavy wheel hops.", ultraTubeKmh),
					Do:   "Slower on the motorway, with the placard's pressure; or a heavy-duty tube.",
				}
			},
		}, true
	})
}

func foamSpeed(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		filling := f.Built.Filling(w.Tube)
		road := f.Plan.Brief.Mix().Road()
		if filling == nil || filling.Kind != tyre.Foam || !(road > 0) {
			return study.Finding{}, false
		}
		limit := filling.MaxSpeed.In("km/h")
		state := verdict.Over
		switch {
		case f.Drive.CruiseKmh > limit:
			state = verdict.Stop
		case f.Drive.CruiseKmh <= limit:
			state = verdict.Watch
		}
		return study.FoundBy(100*road, 0, state, func() study.Words {
			words := study.Words{
				What: study.Say("Foam in the %s tyre, and %.0f %% of the trip is road.", w.Name, 100*road),
				Why:  "Foam heats at speed, swells and goes soft or to crumbs; with it the tyre has no approval for the road.",
				Do:   "Keep it for days without tarmac, on a second set of wheels; else tubes. Local law decides.",
			}
			if f.Drive.CruiseKmh > limit {
				words.What = study.Say("Foam in the %s tyre is limited to {%.0f km/h}; the brief's cruise is {%.0f km/h}.", w.Name, limit, f.Drive.CruiseKmh)
			} else if f.Drive.CruiseKmh <= limit {
				words.What = study.Say("Foam in the %s tyre, good for {%.0f km/h}, and %.0f %% of the trip is road.", w.Name, limit, 100*road)
				words.Why = "Below its limit it is heat that counts, hour after hour. Approval is another question: with it the tyre has none for the road."
			}
			return words
		})
	})
}

func wheelBalance(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		lock := f.Built.Part(w.Lock)
		if lock == nil || f.Built.Provides(w.Balanced) {
			return study.Finding{}, false
		}
		return study.Finding{
			State: verdict.Watch,
			Offer: func() []study.Remedy { return balancedLock(f, w) },
			Tell: func() study.Words {
				mass := study.Text("mass, which nobody has said")
				if lock.Mass.Known() {
					mass = study.Say("{%.2f kg}", lock.Mass.In("kg"))
				}
				return study.Words{
					What: study.Say("The rim lock unbalances the %s wheel by its own %s.", w.Name, mass),
					Why:  "At road speed the wheel hops; bars and screws shake loose.",
					Do:   "Set counterweights opposite it, or take a lock that brings its own.",
				}
			},
		}, true
	})
}

func balancedLock(f *facts.All, w *study.Wheel) []study.Remedy {
	for _, p := range f.Shelf {
		if p.Slot == w.Lock && slices.Contains(p.Provides, w.Balanced) && math.Abs(parts.RimWidth.In(p).In("in")-f.Built.Rim(w.Tyre).WidthIn) <= lockWidthOffIn {
			return study.Take(p, "Take %s")
		}
	}
	return nil
}

func unsprungMass(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		more := w.Of(f.Masses.UnsprungKg)
		if !(more > unsprungNotice) {
			return study.Finding{}, false
		}
		return study.Finding{State: verdict.Watch, Value: more, Small: more <= unsprungSmall, Tell: func() study.Words {
			return study.Words{
				Short: study.Say("{%.1f kg} more at the %s wheel", more, w.Name),
				What:  study.Say("Tyre, filling and wheel add {%.1f kg} to the %s wheel.", more, w.Name),
				Why:   "Springs and damping work harder to keep it on the ground, and the bike turns slower. Some want the steadiness in mud.",
				Do:    "Take it where the ground asks for it; else the lighter tyre or tube.",
			}
		}}, true
	})
}

func tyreTools(f *facts.All) (study.Finding, bool) {
	tag, what, build := "mends-tubes", "tubes", f.Built.WheelBuild(parts.RearTyre)
	if build == "" || f.Built.Tyre(parts.RearTyre) == nil {
		return study.Finding{}, false
	}
	if filling := f.Built.Filling(parts.RearTube); filling != nil && filling.Kind == tyre.Foam {
		return study.Finding{}, false
	} else if build.Tubeless() && filling == nil {
		tag, what = "mends-tubeless", "tubeless tyres"
	}
	off := f.Plan.Brief.Mix().Loose()
	if f.Built.Provides(tag) || !(off > 0) || !(f.Plan.Brief.Distance.In("km") > toolsFromKm) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return study.Providing(f, parts.TyreKit, tag, "Carry %s") },
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("Nothing in the plan mends %s on the way.", what),
				Why:  "A flat off the road ends the day, and the longest walk is the one with boots on.",
				Do:   "Irons and tubes, or plugs; a pump; a way to lift the wheel. Try them once in the garage with the tyre that you will ride.",
			}
		},
	}, true
}

func castOnRock(f *facts.All) (study.Finding, bool) {
	rock, _ := terrain.SurfaceOf("rock")
	share := rock.Share(f.Plan.Brief.Mix())
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		if f.Built.WheelBuild(w.Tyre) != parts.Cast || !(share > rockShareNotice) {
			return study.Finding{}, false
		}
		return study.Finding{
			State: verdict.Watch,
			Value: 100 * share,
			Offer: func() []study.Remedy { return spokedWheels(f) },
			Tell: func() study.Words {
				return study.Words{
					What: study.Say("The %s wheel is cast, and %.0f %% of the trip is rock and single track.", w.Name, 100*share),
					Why:  "Cast wheels crack where spoked ones bend, and a cracked one ends the trip.",
					Do:   "More pressure and less speed over rock, or spoked wheels: money, approval, sensors.",
				}
			},
		}, true
	})
}

// spokedWheels are offered instead of all that are cast, or not at all.
func spokedWheels(f *facts.All) []study.Remedy {
	var way []*parts.Part
	for _, w := range []*study.Wheel{&study.FrontWheel, &study.RearWheel} {
		if f.Built.WheelBuild(w.Tyre) != parts.Cast {
			continue
		}
		at := slices.IndexFunc(f.Shelf, func(p *parts.Part) bool {
			return p.Slot == w.Wheel && p.Wheel() != nil && parts.Build.In(p) != parts.Cast && f.Built.Fits(p) && p.Wheel().Rim().DiameterIn == f.Built.Rim(w.Tyre).DiameterIn
		})
		if at < 0 {
			return nil
		}
		way = append(way, f.Shelf[at])
	}
	return study.Together(way, nil)
}

func otherWheels(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		part := f.Built.Part(w.Wheel)
		if part == nil || part.Wheel() == nil || !f.Built.Chosen(w.Wheel) {
			return study.Finding{}, false
		}
		now, was := part.Wheel().Rim(), f.Standard.Rim(w.Tyre)
		resized := was.DiameterIn > 0 && now.DiameterIn != was.DiameterIn
		counted := resized && (f.Built.Bike.AntiLock || f.Built.Bike.TractionControl)
		state := verdict.Watch
		if counted {
			state = verdict.Over
		}
		return study.Found(state, func() study.Words {
			words := study.Words{
				What: study.Say("Another %s wheel: %s.", w.Name, part.Name),
				Why:  "Disc, spacers, bearings and sprocket carrier belong to a wheel, and approval may hang on it.",
				Do:   "Check fitment before money; a second set pays when every piece on it stays on it.",
			}
			if resized {
				words.What = study.Say("The %s wheel becomes %g in instead of %g in.", w.Name, now.DiameterIn, was.DiameterIn)
			}
			if counted {
				words.Why = "Anti-lock and traction control count both wheels' turns; sensor ring, disc and bracket must come along. Approval hangs on the size."
			}
			return words
		})
	})
}

// pressureRow speaks of the surface of the trip on which a wheel is worst off.
func pressureRow(f *facts.All, speak func(w *study.Wheel, p *facts.Pressure, at facts.PressureEnd) (study.Finding, bool)) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		for i := range f.Pressures {
			p := &f.Pressures[i]
			if finding, ok := speak(w, p, w.Pressure(p)); ok {
				return finding, true
			}
		}
		return study.Finding{}, false
	})
}

func onSurface(p *facts.Pressure) string { return fmt.Sprintf("on “%s”", p.Surface.Name) }

func pressureLoad(f *facts.All) (study.Finding, bool) {
	return pressureRow(f, func(w *study.Wheel, p *facts.Pressure, at facts.PressureEnd) (study.Finding, bool) {
		if !facts.Under(at.Own, at.Load) {
			return study.Finding{}, false
		}
		if !facts.Under(at.Own, at.Slow) {
			return study.Found(verdict.Watch, func() study.Words {
				return study.Words{
					What: study.Say("{%.0f kPa} %s: the %s tyre carries its axle at {%.0f km/h} and less only; faster it wants {%.0f kPa}.", at.Own, onSurface(p), w.Name, tyre.SlowKmh, at.Load),
					Why:  "A tyre carries about 30 % more where it is slow. Faster, the same load overheats its carcass.",
					Do:   study.Say("Keep under {%.0f km/h} on it, and pump it up before the ground gets faster.", tyre.SlowKmh),
				}
			})
		}
		return study.Found(verdict.Stop, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kPa} %s: the %s tyre carries its axle from {%.0f kPa} up.", at.Own, onSurface(p), w.Name, at.Slow),
				Why:  "Below it the carcass overheats and the tyre fails, at speed and without a warning.",
				Do:   "Pump it up, or take load off that axle.",
			}
		})
	})
}

func pressureMaker(f *facts.All) (study.Finding, bool) {
	return pressureRow(f, func(w *study.Wheel, p *facts.Pressure, at facts.PressureEnd) (study.Finding, bool) {
		if !facts.Under(at.Own, at.Maker) {
			return study.Finding{}, false
		}
		return study.FoundBy(at.Own, at.Maker, verdict.Stop, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kPa} %s is under the {%.0f kPa} that the %s tyre's maker allows.", at.Own, onSurface(p), at.Maker, w.Name),
				Why:  "The maker knows the carcass; nobody else answers for it.",
				Do:   "Stay at the maker's minimum or above it.",
			}
		})
	})
}

func pressurePinch(f *facts.All) (study.Finding, bool) {
	return pressureRow(f, func(w *study.Wheel, p *facts.Pressure, at facts.PressureEnd) (study.Finding, bool) {
		if !(p.Share > 0) || !facts.Under(at.Taken(), at.Pinch) {
			return study.Finding{}, false
		}
		finding := study.Finding{
			State: verdict.Watch,
			Value: at.Taken(), Limit: at.Pinch,
			Tell: func() study.Words {
				words := study.Words{
					What: study.Say("{%.0f kPa} %s: from {%.0f kPa} down a fist-sized stone reaches the %s rim.", at.Taken(), onSurface(p), at.Pinch, w.Name),
					Why:  "The tube is cut twice between tread and rim: the snake bite. Tubeless, the rim dents and the air goes.",
					Do:   "More pressure, less speed on the stony bits, or a heavy tube.",
				}
				if f.Masses.CarriedKg > facts.WithLoadKg {
					words.Why = "With bags on it happens at half the speed. " + words.Why
				}
				return words
			},
		}
		if filling := f.Built.Filling(w.Tube); filling != nil && filling.Kind == tyre.Tube {
			finding.Offer = func() []study.Remedy { return fillingFor(f, w, w.Tube, tyre.HeavyTube, "Put in %s") }
		}
		return finding, true
	})
}

func pressureSoft(f *facts.All) (study.Finding, bool) {
	return pressureRow(f, func(w *study.Wheel, p *facts.Pressure, at facts.PressureEnd) (study.Finding, bool) {
		if !facts.Under(at.Own, at.Bead) {
			return study.Finding{}, false
		}
		tubeless := f.Built.WheelBuild(w.Tyre).Tubeless()
		finding := study.Finding{
			State: verdict.Watch,
			Tell: func() study.Words {
				what := study.Say("{%.0f kPa} %s, and nothing holds the %s tyre on its rim.", at.Own, onSurface(p), w.Name)
				if tubeless {
					return study.Words{What: what, Why: "A tubeless bead that leaves its seat lets all the air go at once.", Do: study.Say("{%.0f kPa} and more.", at.Bead)}
				}
				return study.Words{What: what, Why: "Under drive or brakes the tyre turns on the rim and tears the valve out.", Do: study.Say("A rim lock, or {%.0f kPa} and more.", at.Bead)}
			},
		}
		if !tubeless {
			finding.Offer = func() []study.Remedy { return fillingFor(f, w, w.Lock, tyre.RimLock, "Fit %s") }
		}
		return finding, true
	})
}

func pressureRoad(f *facts.All) (study.Finding, bool) {
	return pressureRow(f, func(w *study.Wheel, p *facts.Pressure, at facts.PressureEnd) (study.Finding, bool) {
		if p.Surface.ID != "road" || !facts.Under(at.Own, at.Placard) {
			return study.Finding{}, false
		}
		return study.FoundBy(at.Own, at.Placard, verdict.Over, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kPa} for the road; the placard says {%.0f kPa} for the %s tyre as loaded.", at.Own, at.Placard, w.Name),
				Why:  "A soft tyre folds in a bend and heats on the motorway.",
				Do:   "Back up to the placard before tarmac.",
			}
		})
	})
}

// hardOver is how far above the card's advice a tyre is hard for wet polished dirt
// [memory].
const hardOver = 1.25

func pressureHard(f *facts.All) (study.Finding, bool) {
	if f.Plan.Brief.Weather != plan.Wet {
		return study.Finding{}, false
	}
	return pressureRow(f, func(w *study.Wheel, p *facts.Pressure, at facts.PressureEnd) (study.Finding, bool) {
		if p.Surface.ID == "road" || !(at.Own > hardOver*at.Advice) || !facts.Under(at.Pinch, at.Own) {
			return study.Finding{}, false
		}
		return study.FoundBy(at.Own, at.Advice, verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kPa} %s in a wet brief; {%.0f kPa} would do for the %s tyre.", at.Own, onSurface(p), at.Advice, w.Name),
				Why:  "A tyre pumped hard against punctures loses its grip on wet polished dirt.",
				Do:   "Down towards the card's pressure while it is wet; heavy tubes where stones are the fear.",
			}
		})
	})
}
