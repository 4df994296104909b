package power

import "valiantmule/internal/core/sheet"

// What a circuit is reckoned with where nobody has said.
const (
	SystemV    = 13.5 // while the engine charges
	DropMost   = 3.0  // % of it that may be lost on the way [practice]
	relayFromA = 7.5  // from which a handlebar switch wants a relay [practice]
)

// Circuit is what an accessory wants between battery and itself.
type Circuit struct {
	Watts, Amps, LengthM float64

	FuseA float64
	Wire  Wire
	DropV float64
	Plug  string // "" for none that carries it
	Relay bool
}

// AmpsFormula is the current of an accessory.
var AmpsFormula = sheet.Formula{Text: "current = draw / 13.5 V", Origin: sheet.Computed}

// CircuitFor is fuse, wire, plug and relay of an accessory that draws so many watts, so
// many metres of wire from what feeds it. The wire carries the fuse that is asked for, and a
// larger one that is in it already; NaN for none. Its errors are [ErrNoFuse] and [ErrNoWire].
func CircuitFor(watts, lengthM, laidFuseA float64) (Circuit, error) {
	c := Circuit{Watts: watts, Amps: watts / SystemV, LengthM: lengthM}
	var err error
	if c.FuseA, err = FuseA(c.Amps); err != nil {
		return c, err
	}
	carries := c.FuseA
	if laidFuseA > carries {
		carries = laidFuseA
	}
	if c.Wire, err = WireFor(c.Amps, lengthM, SystemV, DropMost, carries); err != nil {
		return c, err
	}
	c.DropV = DropV(c.Amps, lengthM, c.Wire.AreaMM2)
	c.Plug, c.Relay = plugFor(c.FuseA), c.Amps >= relayFromA
	return c, nil
}

// DropPercent of the system's voltage.
func (c Circuit) DropPercent() float64 { return 100 * c.DropV / SystemV }

// plugs that are sealed, by the fuse that they go with [practice]. Beyond them wires are
// bolted.
var plugs = []struct {
	mostA float64
	name  string
}{{7.5, "sealed, 1.5 mm pins"}, {15, "sealed, 2.8 mm blades"}, {30, "sealed, 6.3 mm blades"}, {40, "ring terminals, bolted"}}

func plugFor(fuseA float64) string {
	for _, p := range plugs {
		if fuseA <= p.mostA {
			return p.name
		}
	}
	return ""
}
