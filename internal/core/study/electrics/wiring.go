package electrics

import (
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

// Wire from a battery under the seat to a place, along the frame, m [memory].
var wireTo = map[load.Place]float64{load.FrontRack: 2, load.Tank: 1.2, load.TankBag: 1.4, load.Rider: 1, load.Tail: 1, load.TopBox: 1.4, load.Panniers: 1.2, load.FrontWheel: 2.2}

const (
	wireElsewhere = 1.0  // m [memory]
	socketW       = 24.0 // that a socket is wired for, whatever is in it: two outlets of 2.4 A at 5 V [practice]
	wireToBox     = 0.6  // m, wherever it sits [memory]
	indicatorW    = 10.0 // a bulb of an indicator [memory]
	diodesW       = 2.0  // one of light-emitting diodes [memory]
)

// wiring finds a circuit for each accessory, what hangs on which channel, and the pace of
// the indicators.
func wiring(r *study.Run) {
	w := &r.Wiring
	w.Circuits = slices.Grow(w.Circuits, len(r.Charging.Draws))
	for i := range r.Charging.Draws {
		if c, ok := circuitOf(&r.Charging.Draws[i]); ok {
			w.Circuits = append(w.Circuits, c)
		}
	}
	if p := r.Built.Part(parts.PowerBox); p != nil && p.Box().Count() > 0 {
		w.Box, w.BoxName = p.Box(), p.Name
		onChannels(w)
	}
	flash(r)
}

// circuitOf is what an accessory wants and what is laid to it; ok is false for one that has
// no wire.
func circuitOf(d *facts.Draw) (facts.Circuit, bool) {
	if d.InPlace {
		return facts.Circuit{}, false
	}
	watts := d.FullW
	if d.Slot == parts.Socket {
		watts = math.Max(watts, socketW)
	}
	if watts == 0 || math.IsNaN(watts) {
		return facts.Circuit{}, false
	}
	c := facts.Circuit{Draw: d, LaidMM2: d.Area.In("mm²"), LaidFuse: d.Fuse.In("A"), LaidDrop: math.NaN()}
	length := d.Length.In("m")
	if !d.Length.Known() {
		length = wireElsewhere
		if usual, ok := wireTo[d.Part.Sits()]; ok {
			length = usual
		}
	}
	c.Circuit, c.Err = power.CircuitFor(watts, length, c.LaidFuse)
	if c.LaidMM2 > 0 {
		c.LaidDrop = 100 * power.DropV(c.Amps, length, c.LaidMM2) / power.SystemV
	}
	return c, true
}

// onChannels puts accessories on the channels of the box: first where the rider wants them,
// then each on the next free one that carries it.
func onChannels(w *facts.Wiring) {
	taken := make([]bool, w.Box.Count()+1)
	limit := w.Box.Limit.In("A")
	for i := range w.Circuits {
		c := &w.Circuits[i]
		if n := c.Draw.Channel.Number(); n > 0 && n <= w.Box.Count() {
			c.Channel, taken[n] = n, true
		}
	}
	next := 1
	for i := range w.Circuits {
		c := &w.Circuits[i]
		if c.Channel > 0 || c.Draw.Channel == plan.OwnFuse {
			continue
		}
		for next < len(taken) && taken[next] {
			next++
		}
		if next == len(taken) || c.Amps > limit { // one that fits nobody's limit is not put on by itself
			w.Left = append(w.Left, c.Draw.Part.Name)
			continue
		}
		c.Channel, taken[next] = next, true
	}
	w.BoxAmps = 0
	for _, c := range w.Circuits {
		if c.Channel > 0 {
			w.BoxAmps += c.Amps
		}
	}
	w.Main, w.MainErr = power.CircuitFor(w.BoxAmps*power.SystemV, wireToBox, math.NaN())
	for _, t := range taken[1:] {
		if !t {
			w.Spare++
		}
	}
}

// flash finds the pace of the indicators of one side.
func flash(r *study.Run) {
	b, f := r.Built.Bike, &r.Wiring.Flash
	bulb := usually(&b.Indicator, "W", indicatorW)
	f.FrontW, f.RearW, f.GuessedBike = bulb, bulb, !b.Indicator.Known()
	f.Relay, f.RatedW = b.Flasher, 2*bulb
	if f.Relay == "" {
		f.Relay = power.LoadSensing
	}
	if p := r.Built.Part(parts.Indicators); p != nil {
		switch l := p.Blinkers(); {
		case l != nil:
			f.FrontW, f.RearW = usually(&l.Front, "W", bulb), usually(&l.Rear, "W", bulb)
		case r.Built.Provides("led-indicators"):
			f.FrontW, f.RearW, f.ByTags = diodesW, diodesW, true
		case r.Built.Chosen(parts.Indicators): // of another's nobody has said what they draw
			f.FrontW, f.RearW = math.NaN(), math.NaN()
		}
	}
	if p := r.Built.Part(parts.Flashing); p != nil {
		f.Relay = ""
		if p.Flasher() != nil {
			f.Relay, f.RatedW = p.Flasher().Kind, usually(&p.Flasher().Rated, "W", f.RatedW)
		}
	} else if r.Built.Provides("flasher") {
		f.Relay = power.Independent
	}
	f.PerMin = power.FlashesPerMin(f.Relay, f.RatedW, f.FrontW+f.RearW)
	c := r.Figure(figure.FlashRate)
	if f.Relay == "" {
		c.Lacks("kind of the flasher relay")
	}
	if math.IsNaN(f.FrontW+f.RearW) && f.Relay != power.Independent {
		c.Lacks("what one indicator draws")
	}
	c.Is(f.PerMin)
	if c.Sheet != nil {
		bulbs := sheet.Rider
		if f.GuessedBike || f.ByTags {
			bulbs = sheet.Memory
		}
		c.Sheet.Step(power.FlashFormula, study.Computed("pace", f.PerMin, "/min"), sheet.Value{Name: "front, each", Number: f.FrontW, Unit: "W", Origin: bulbs},
			sheet.Value{Name: "rear, each", Number: f.RearW, Unit: "W", Origin: bulbs}, study.Computed("the relay was made for", f.RatedW, "W"))
	}
	c.Judged(false, f.PerMin > power.FlashMost || f.PerMin < power.FlashLeast)
}
