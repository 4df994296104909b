package loading

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Rows of what is carried, of what carries it, and of every load.

func overweight(f *facts.All) (study.Finding, bool) {
	mass := f.Figure(figure.LoadedMass)
	if mass.State != verdict.Stop {
		return study.Finding{}, false
	}
	return study.Found(verdict.Stop, func() study.Words {
		return study.Words{
			What: study.Say("Loaded, the bike weighs {%.1f kg}; {%.1f kg} are permitted.", mass.Value, mass.Limit),
			Why:  "Frame, wheels, brakes and springs were not made for it, and insurance ends there.",
			Do:   "Do not ride it so. Leave load at home or take another bike; the maker's plate rules.",
		}
	})
}

// axleOf are the gauges of the axles, rear or not.
var axleOf = map[bool]figure.ID{false: figure.AxleFront, true: figure.AxleRear}

func axleOverload(f *facts.All) (study.Finding, bool) {
	return study.EitherWheel(f, func(f *facts.All, w *study.Wheel) (study.Finding, bool) {
		axle := f.Figure(axleOf[w.Rear()])
		if axle.State != verdict.Stop {
			return study.Finding{}, false
		}
		return study.Found(verdict.Stop, func() study.Words {
			return study.Words{
				What: study.Say("The %s axle carries {%.0f kg}; {%.0f kg} are permitted.", w.Name, axle.Value, axle.Limit),
				Why:  "Wheel, bearings and brake of that end were not made for it.",
				Do:   "Do not ride it so. Move load to the other end or leave it at home; the maker's plate rules.",
			}
		})
	})
}

// Limits of what is carried that figures are held against, too.
const (
	unevenKg        = 2.0  // between the sides [practice]
	pullsKg         = 5.0  // from which they pull for sure [memory]
	frontLeast      = 0.38 // of the loaded mass under the front wheel, from which steering goes light [memory]
	frontLeastTwoUp = 0.33 // the same with a pillion [memory]
)

const (
	highKg       = 8.0  // behind and high, from which it is felt [memory]
	takesShare   = 0.15 // of the kerb mass, from which springs, tyres and brakes are set for it [memory]
	hardOnLoose  = 0.3  // loose share, from which hard boxes and trapped legs are spoken of [memory]
	narrowShare  = 0.1  // single track share
	narrowMostMM = 950.0
)

func rackOverload(f *facts.All) (study.Finding, bool) {
	rack := f.Figure(figure.RackLoad)
	if rack.State != verdict.Stop {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Stop,
		Offer: func() []study.Remedy {
			return study.Offer(f, parts.RearRack, func(p *parts.Part) bool { return parts.Carries.In(p).In("kg") >= rack.Value })
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("{%.1f kg} behind the seat; the rack carries {%.1f kg}.", rack.Value, rack.Limit),
				Why:  "Racks and subframes crack at their bolts, far out, on the corrugations.",
				Do:   "Move it down into side bags and forward, or fit a rack that is made for it; the subframe keeps its limit either way.",
			}
		},
	}, true
}

func bagOverload(f *facts.All) (study.Finding, bool) {
	for _, b := range f.Bags.On {
		if figure.Past(b.Kg, b.LimitKg, 1) {
			return study.FoundBy(b.Kg, b.LimitKg, verdict.Stop, func() study.Words {
				return study.Words{
					What: study.Say("{%.1f kg} in %s; it carries {%.1f kg}.", b.Kg, b.Part.Name, b.LimitKg),
					Why:  "Straps, hooks and hinges let go first, and what falls off at speed meets a wheel.",
					Do:   "Spread it over the bags; the packing page proposes how.",
				}
			})
		}
	}
	return study.Finding{}, false
}

func bagOverfull(f *facts.All) (study.Finding, bool) {
	for _, b := range f.Bags.On {
		if figure.Past(b.Litres, b.LimitL, 0) {
			return study.FoundBy(b.Litres, b.LimitL, verdict.Over, func() study.Words {
				return study.Words{
					What: study.Say("{%.0f L} for %s; it holds {%.0f L}.", b.Litres, b.Part.Name, b.LimitL),
					Why:  "What does not go in is strapped on outside, high and loose.",
					Do:   "Leave something at home, share it in the group, or move it to another bag.",
				}
			})
		}
	}
	return study.Finding{}, false
}

func bagSpeed(f *facts.All) (study.Finding, bool) {
	for _, b := range f.Bags.On {
		if most := parts.MaxSpeed.In(b.Part).In("km/h"); figure.Past(f.Drive.CruiseKmh, most, 0) {
			return study.FoundBy(f.Drive.CruiseKmh, most, verdict.Watch, func() study.Words {
				return study.Words{
					What: study.Say("%s is made for {%.0f km/h}; the cruise is {%.0f km/h}.", b.Part.Name, most, f.Drive.CruiseKmh),
					Why:  "Bags beside and behind stir the air: faster, a loaded bike can start to weave.",
					Do:   "Ride to the bags' limit, or take some with a higher one.",
				}
			})
		}
	}
	return study.Finding{}, false
}

func sidesUneven(f *facts.All) (study.Finding, bool) {
	apart := f.Figure(figure.LeftRight)
	if apart.State != verdict.Watch {
		return study.Finding{}, false
	}
	heavy := "left"
	if f.Bags.Sides.LeftKg < f.Bags.Sides.RightKg {
		heavy = "right"
	}
	return study.Finding{State: verdict.Watch, Small: apart.Value < pullsKg, Tell: func() study.Words {
		return study.Words{
			Short: study.Say("%s side {%.1f kg} heavier", heavy, apart.Value),
			What:  study.Say("The %s side is {%.1f kg} heavier.", heavy, apart.Value),
			Why:   "The bike pulls to one side and leans on its stand, and in sand it steers itself.",
			Do:    "Within {2 kg} is good. The side with the exhaust often takes less.",
		}
	}}, true
}

// frontLeastOf a loadout: a pillion sits behind the middle.
func frontLeastOf(l *plan.Loadout) float64 {
	if l.Pillion.Base() > 0 {
		return frontLeastTwoUp
	}
	return frontLeast
}

func frontLight(f *facts.All) (study.Finding, bool) {
	front := f.Figure(figure.FrontShare)
	if front.State != verdict.Watch {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%.0f %% of the loaded mass is on the front wheel.", front.Value),
			Why:  "With little weight in front it wanders, washes out in gravel and lifts on climbs.",
			Do:   "Heavy things low and forward: tools before the engine, water on the tank, nothing heavy behind the axle.",
		}
	})
}

func highBehind(f *facts.All) (study.Finding, bool) {
	rack := f.Figure(figure.RackLoad)
	if !(rack.Value > highKg) || rack.State == verdict.Stop {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("{%.1f kg} high behind the seat.", rack.Value),
			Why:  "A tall heavy end is the worst place: it lifts the front, swings, and works on the subframe.",
			Do:   "The tent may lie there; tools, water and food go down into the sides or forward.",
		}
	})
}

func bagNotThere(f *facts.All) (study.Finding, bool) {
	if len(f.Bags.Loose) == 0 {
		return study.Finding{}, false
	}
	names := make([]string, len(f.Bags.Loose))
	for i, l := range f.Bags.Loose {
		names[i] = l.Name
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("Packed into a bag that is not on the bike: %s.", study.Listed(names)),
			Why:  "It is counted at the place that it had before.",
			Do:   "Put it into another bag on the packing page, or fit the one that is missing.",
		}
	})
}

// racks are those that the plan puts on.
func racks(f *facts.All) []*parts.Part {
	var list []*parts.Part
	for _, slot := range parts.RackSlots() {
		if p := f.Built.Part(slot); p != nil {
			list = append(list, p)
		}
	}
	return list
}

func bagsByThePipe(f *facts.All) (study.Finding, bool) {
	p := f.Built.Part(parts.SideBags)
	if bag := f.Built.Bag(parts.SideBags); bag == nil || bag.Kind == parts.HardBag || f.Built.Provides("heat-shield") {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return study.Providing(f, parts.SideRack, "heat-shield", "%s") },
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("%s hangs beside the silencer, without a shield.", p.Name),
				Why:  "Fabric melts at a hand's width from a hot pipe, and what is in it burns.",
				Do:   "A shield with air behind it, straps pulled tight again after the first hour, and a look at full compression.",
			}
		},
	}, true
}

func hardBoxesTrap(f *facts.All) (study.Finding, bool) {
	bag, mix := f.Built.Bag(parts.SideBags), f.Plan.Brief.Mix()
	if bag == nil {
		return study.Finding{}, false
	}
	switch width := bag.Width.In("mm"); {
	case bag.Kind == parts.HardBag && mix.Loose() >= hardOnLoose:
		return study.Found(verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("Hard boxes, and %.0f %% of the trip is off the road.", 100*mix.Loose()),
				Why:  "A foot that is put down slides back under a box that does not give; in a fall it traps the leg and bends its mounts.",
				Do:   "Soft bags there; or ride seated with the feet up, and empty them for the trail days.",
			}
		})
	case mix.Of(terrain.SingleTrack) >= narrowShare && width > narrowMostMM:
		return study.Found(verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("{%.0f mm} over the bags, and %.0f %% of the trip is single track.", width, 100*mix.Of(terrain.SingleTrack)),
				Why:  "What is wider than the bars catches where the bars went through.",
				Do:   "Narrow bags, or a loadout without them for those days.",
			}
		})
	}
	return study.Finding{}, false
}

func rackKeepsTheSeat(f *facts.All) (study.Finding, bool) {
	for _, p := range racks(f) {
		if parts.SeatStays.Yes(p) {
			return study.Found(verdict.Watch, func() study.Words {
				return study.Words{
					What: study.Say("%s wraps round the seat: it does not come off any more.", p.Name),
					Why:  "Battery, air filter and tools lie under it.",
					Do:   "A rack on the subframe alone leaves the seat free; else keep its keys and spanners outside.",
				}
			})
		}
	}
	return study.Finding{}, false
}

func rackTakesThePegs(f *facts.All) (study.Finding, bool) {
	if !f.Loadout.Pillion.Known() {
		return study.Finding{}, false
	}
	for _, p := range racks(f) {
		if parts.NoPegs.Yes(p) {
			return study.Found(verdict.Over, func() study.Words {
				return study.Words{
					What: study.Say("%s takes the place of the pillion's pegs, and there is a pillion.", p.Name),
					Why:  "Feet without pegs end at the chain or the pipe.",
					Do:   "Relocated pegs, with the boots clear of a hot pipe, or another rack.",
				}
			})
		}
	}
	return study.Finding{}, false
}

func homeMadeCarrier(f *facts.All) (study.Finding, bool) {
	for i := range f.Plan.Lines {
		l := &f.Plan.Lines[i]
		if l.Source != plan.HomeMade || l.Part == nil || l.Standing() != plan.In || !l.Part.Slot.Has(parts.Carries) && !l.Part.Slot.Has(parts.SeatStays) {
			continue
		}
		return study.Found(verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("%s is home-made.", l.Part.Name),
				Why:  "It cracks at the first sharp bend of a bracket, loses its fasteners, and nobody answers for it.",
				Do:   "Fix it to the frame, not to pipes or cases; round the corners, lock the threads, look at every weld after the first rough day.",
			}
		})
	}
	return study.Finding{}, false
}

// notRiddenLoaded speaks of what carries, had another life before, and was not ridden with its
// full load on this bike: such a part is proved on rough ground, not in the garage.
func notRiddenLoaded(f *facts.All) (study.Finding, bool) {
	var names []string
	for i := range f.Plan.Lines {
		l := &f.Plan.Lines[i]
		if l.Part == nil || l.Standing() != plan.In || !l.Part.Slot.Has(parts.Proved) || parts.Proved.Yes(l.Part) {
			continue
		}
		switch l.Source {
		case plan.BoughtUsed, plan.MovedOver, plan.HomeMade, plan.Lent:
			if !f.Plan.RodeLoaded(l.Part) {
				names = append(names, l.Part.Name)
			}
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("Not yet ridden on this bike with a full load: %s.", study.Listed(names)),
			Why:  "What carries is proved by full load, rough ground and heat; a used shock shows what it is on the first such day.",
			Do:   "A short hard ride with everything on, before the trip, and keep the old one until then. Then say so at the shakedown, or on its sheet.",
		}
	})
}

func tailLampHidden(f *facts.All) (study.Finding, bool) {
	var names []string
	for _, slot := range []parts.Slot{parts.TailBag, parts.TopBox} {
		if p := f.Built.Part(slot); p != nil && f.Built.Chosen(slot) {
			names = append(names, p.Name)
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "lamp and plate behind the bags",
			What:  study.Say("Behind the lamp and the plate: %s.", study.Listed(names)),
			Why:   "What hangs down or hides lamp, plate or indicators is not seen, and not legal.",
			Do:    "Walk round it at dusk with the lights on, packed as on the day.",
		}
	})
}

func loadTakes(f *facts.All) (study.Finding, bool) {
	kerb := f.Built.Bike.KerbMass.In("kg")
	if !(f.Masses.CarriedKg > takesShare*kerb) || math.IsNaN(f.Loaded.Kg) {
		return study.Finding{}, false
	}
	more := f.Loaded.Kg / (f.Loaded.Kg - f.Masses.CarriedKg)
	return study.Noted(func() study.Words {
		return study.Words{
			Short: study.Say("{%.0f kg} carried", f.Masses.CarriedKg),
			What:  study.Say("{%.0f kg} carried: %.0f %% more to stop, and as much more on the brakes.", f.Masses.CarriedKg, 100*(more-1)),
			Why:   "Rear preload, tyre pressure and lamp aim are set for a rider alone; hot brakes fade, and each climb takes a tooth more.",
			Do:    "Preload to the same sag, pressure by the card, the lamp down again. Then ride it loaded where nothing comes, and brake.",
		}
	})
}

func tooHeavyToShip(f *facts.All) (study.Finding, bool) {
	most := f.Plan.Brief.ShipMost.In("kg")
	if !(f.Carrying.ShipKg > most) {
		return study.Finding{}, false
	}
	return study.FoundBy(f.Carrying.ShipKg, most, verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("Shipped it weighs {%.0f kg}; {%.0f kg} are allowed.", f.Carrying.ShipKg, most),
			Why:  "A trailer's plate and a carrier's tariff are kept at the gate.",
			Do:   "Ship what comes off apart: racks, boxes, the second set of wheels. Less fuel, if the carrier wants it so.",
		}
	})
}

func shipsTooLate(f *facts.All) (study.Finding, bool) {
	b := &f.Plan.Brief
	if b.Ships == "" || b.Start == "" || b.Ships <= b.Start {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("It ships on %s, after the start on %s.", b.Ships, b.Start),
			Why:  "Everything counts back from the day it leaves the garage.",
			Do:   "Correct one of the two dates in the brief.",
		}
	})
}

func nowhereToTie(f *facts.All) (study.Finding, bool) {
	b := &f.Plan.Brief
	if b.Ships == "" || b.TieDown != "" {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("It ships on %s, and nobody has said where its straps go.", b.Ships),
			Why:  "Straps over bars, hoses and plastic break them; a fork pressed down for days weeps.",
			Do:   "Find four points on frame and yokes, try them with the bags off, and note them in the brief.",
		}
	})
}
