package electrics

import (
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// circuit is the first one of a kind.
func circuit(f *facts.All, is func(c *facts.Circuit) bool) *facts.Circuit {
	for i := range f.Wiring.Circuits {
		if c := &f.Wiring.Circuits[i]; is(c) {
			return c
		}
	}
	return nil
}

func fuseOverWire(f *facts.All) (study.Finding, bool) {
	c := circuit(f, (*facts.Circuit).Overfused)
	if c == nil {
		return study.Finding{}, false
	}
	return study.Found(verdict.Stop, func() study.Words {
		return study.Words{
			What: study.Say("%s: a fuse of %g A on a wire of %g mm², which carries %g A in a bundle.", c.Draw.Part.Name, c.InA(), c.LaidMM2, power.CarriesA(c.LaidMM2)),
			Why:  "The wire is the fuse then: it burns where it chafes, next to the tank.",
			Do:   "The smaller fuse if it holds; or else a thicker wire. By somebody who does it for a living, where in doubt.",
		}
	})
}

func fuseBlows(f *facts.All) (study.Finding, bool) {
	c := circuit(f, func(c *facts.Circuit) bool { return c.LaidFuse > 0 && c.LaidFuse < c.FuseA })
	if c == nil {
		return study.Finding{}, false
	}
	return study.FoundBy(c.LaidFuse, c.FuseA, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s takes %.1f A; its fuse is of %g A, %g A is asked for.", c.Draw.Part.Name, c.Amps, c.LaidFuse, c.FuseA),
			Why:  "Near its rating a fuse ages, and goes on a cold morning when everything starts at once.",
			Do:   "The next size, if the wire carries it; spares of each size under the seat.",
		}
	})
}

func wireDrops(f *facts.All) (study.Finding, bool) {
	c := circuit(f, func(c *facts.Circuit) bool { return c.LaidDrop > power.DropMost })
	if c == nil {
		return study.Finding{}, false
	}
	return study.FoundBy(c.LaidDrop, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s: %.1f %% of the voltage stays in its wire of %g mm², {%.1f m} long.", c.Draw.Part.Name, c.LaidDrop, c.LaidMM2, c.LengthM),
			Why:  "Bulbs lose light by more than that, grips heat; the wire warms instead.",
			Do:   study.Say("%g mm² (AWG %d), or a shorter way.", c.Wire.AreaMM2, power.AWGFor(c.Wire.AreaMM2)),
		}
	})
}

func noWireDoes(f *facts.All) (study.Finding, bool) {
	c := circuit(f, func(c *facts.Circuit) bool { return c.Err != nil })
	if c == nil {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("%s takes %.1f A over {%.1f m}: %v.", c.Draw.Part.Name, c.Amps, c.LengthM, c.Err),
			Why:  "What is drawn through too little copper heats it.",
			Do:   "Two circuits, a shorter way, or one that draws less.",
		}
	})
}

// channelAmps is what hangs on a channel with everything on.
func channelAmps(w *facts.Wiring, channel int) (amps float64, names []string) {
	for _, c := range w.Circuits {
		if c.Channel == channel {
			amps, names = amps+c.Amps, append(names, c.Draw.Part.Name)
		}
	}
	return amps, names
}

func channelOver(f *facts.All) (study.Finding, bool) {
	w := &f.Wiring
	if w.Box == nil {
		return study.Finding{}, false
	}
	for n := 1; n <= w.Box.Count(); n++ {
		amps, names := channelAmps(w, n)
		if limit := w.Box.Limit.In("A"); amps > limit {
			return study.FoundBy(amps, limit, verdict.Stop, func() study.Words {
				return study.Words{
					What: study.Say("Channel %d carries %.1f A (%s); the box allows %g A.", n, amps, study.Listed(names), limit),
					Why:  "It switches off when all of it is on, or its track burns.",
					Do:   "Move one to a spare channel, or give it a fuse of its own at the battery.",
				}
			})
		}
	}
	return study.Finding{}, false
}

func boxOver(f *facts.All) (study.Finding, bool) {
	w := &f.Wiring
	if w.Box == nil || !(w.BoxAmps > w.Box.Total.In("A")) {
		return study.Finding{}, false
	}
	return study.FoundBy(w.BoxAmps, w.Box.Total.In("A"), verdict.Stop, func() study.Words {
		return study.Words{
			What: study.Say("With everything on %.1f A go through %s, which carries %g A.", w.BoxAmps, w.BoxName, w.Box.Total.In("A")),
			Why:  "Its feed and its main fuse are made for that.",
			Do:   "What draws most by a relay and a fuse of its own.",
		}
	})
}

func boxFull(f *facts.All) (study.Finding, bool) {
	w := &f.Wiring
	if w.Box == nil || len(w.Left) == 0 && w.Spare > 0 {
		return study.Finding{}, false
	}
	if len(w.Left) > 0 {
		return study.Found(verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say("No channel of %s is left for, or carries: %s.", w.BoxName, study.Listed(w.Left)),
				Why:  "They hang on fuses of their own at the battery, as reckoned here.",
				Do:   "Two small ones on one channel, a larger box, or leave it so.",
			}
		})
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "box full", What: study.Say("Every channel of %s is taken.", w.BoxName), Why: "The next thing that you buy wants one.", Do: "Fine for this trip.",
		}
	})
}

// boxAt is a place where a box sits.
type boxAt struct {
	words        string // in a sentence
	off          string // what comes off to reach it
	buried, load bool   // always; where something is strapped on behind
}

var boxesAt = map[plan.BoxPlace]boxAt{
	plan.BoxUnderTank: {words: "under the tank", off: "seat and tank come off first", buried: true},
	plan.BoxUnderSeat: {words: "under the seat", off: "the roll across the seat comes off first", load: true},
	plan.BoxInTail:    {words: "in the tail", off: "what lies on the rack comes off first", load: true},
	plan.BoxAtSide:    {words: "behind a side panel", off: "the panel comes off, two screws"},
	plan.BoxAtLamp:    {words: "behind the headlamp", off: "the screen or the lamp comes off first; short wires to the bars"},
}

// ComesOff is what has to come off to reach a box where it sits, "" where nobody has said.
func ComesOff(at plan.BoxPlace) string { return boxesAt[at].off }

func boxBuried(f *facts.All) (study.Finding, bool) {
	at := boxesAt[f.Plan.BoxSits]
	strapped := f.Built.Part(parts.TailBag) != nil || f.Built.Part(parts.RearRack) != nil
	if f.Wiring.Box == nil || !(at.buried || at.load && strapped) {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "box buried",
			What:  study.Say("%s sits %s: %s.", f.Wiring.BoxName, at.words, at.off),
			Why:   "A fuse goes in the rain, loaded, at dusk.",
			Do:    "Behind a side panel it is reached in a minute; or keep a list of its channels in the tank bag.",
		}
	})
}

func doublePace(f *facts.All) (study.Finding, bool) {
	l := &f.Wiring.Flash
	if f.Figure(figure.FlashRate).State != verdict.Watch {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy {
			return study.Offer(f, parts.Flashing, func(p *parts.Part) bool { return parts.RelayKind.In(p) == power.Independent })
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("The indicators flash about %.0f times a minute: {%.0f W} a side on a relay for {%.0f W} that senses load.", l.PerMin, l.FrontW+l.RearW, l.RatedW),
				Why:  "60 to 120 flashes a minute are asked for (UN Regulations 53 and 6); the relay takes the small load for a dead bulb.",
				Do:   "A relay that does not mind the load, or resistors that stay away from plastic.",
			}
		},
	}, true
}

// leads go to what moves with its rider, or comes off with a bag.
var leads = []parts.Slot{parts.HelmetLamp, parts.VestLead, parts.BagLead}

func leadsThatPart(f *facts.All) (study.Finding, bool) {
	var names []string
	for _, d := range f.Charging.Draws {
		if slices.Contains(leads, d.Slot) && d.FullW > 0 {
			names = append(names, d.Part.Name)
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "leads that part",
			What:  study.Say("%s: a lead that has to come apart by itself.", study.Listed(names)),
			Why:   "In a fall it holds its rider to the bike; with a bag it tears.",
			Do:    "A plug that pulls out straight, in front of you; a cap for its end; the fuse at the battery, not in the lead.",
		}
	})
}

func towerCables(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("tower") {
		return study.Finding{}, false
	}
	var names []string
	for _, c := range f.Wiring.Circuits {
		if slices.Contains([]parts.Slot{parts.Navigator, parts.Socket, parts.AuxLamps, parts.WideLamps, parts.DayLamps, parts.Camera, parts.Monitor}, c.Draw.Slot) {
			names = append(names, c.Draw.Part.Name)
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "cables to the tower",
			What:  study.Say("Wires to the tower: %s.", study.Listed(names)),
			Why:   "The tower stands still, the bars turn: what goes from one to the other is bent at each corner, and cut at full lock.",
			Do:    "One harness along the steering head with a loop, a plug at the tower's foot; turn the bars to both stops and look.",
		}
	})
}
