package parts

import (
	"math"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/unit"
)

// What lamps have.
var (
	Candela = prop[unit.Intensity]("candela", "Intensity", "cd", 0, 1e6, "Of a pair both together; from its approval, or lux × metres². Without it, or lumens with the angle, the lit distance is unknown.")
	Lumens  = prop[unit.Flux]("lumens", "… or lumens", "lm", 0, 1e5, "Of a pair both together. Bare lumens say nothing of a distance: ask for the angle.")
	Beam    = prop[unit.Angle]("beam", "… in a beam of", "°", 1, 360, "The full angle, over which it gives at least half.")
	Outward = prop[unit.Angle]("outward", "Each points outward by", "°", 0, 80, "Of a pair, to its own side. Empty: straight ahead.")
	Lasts   = prop[unit.Duration]("lasts", "It lasts", "yr", 0.1, 50, "Until it is faded, drowned or shaken to pieces: what it costs a year follows.")
	SitsOn  = choice[LampMount]("lamp_mount", "It sits on", LampMounts)
)

// Lamp is what a lamp is beyond a part: of a pair both together.
type Lamp struct {
	Candela unit.Intensity // of the main beam, or of auxiliary lamps
	Lumens  unit.Flux
	Beam    unit.Angle // full angle
	Outward unit.Angle // that each points to its own side
	Mount   LampMount
	Lasts   unit.Duration // until it is faded, drowned or shaken to pieces
}

// Lamp is what is known of a part as a lamp, nil where nothing is.
func (p *Part) Lamp() *Lamp {
	if !p.Has.any(Candela, Lumens, Beam, Outward, SitsOn, Lasts) {
		return nil
	}
	return &Lamp{Candela.In(p), Lumens.In(p), Beam.In(p), Outward.In(p), SitsOn.In(p), Lasts.In(p)}
}

// LampMount is what a lamp sits on.
type LampMount string

// The mounts of lamps; "" is not said, and taken as fixed.
const (
	OnFrame LampMount = "frame"
	OnBars  LampMount = "bars" // or the fork: it turns with them
	OnHead  LampMount = "head" // it shines where its rider looks
)

// LampMounts lists them.
func LampMounts() []entry.Option {
	return []entry.Option{entry.Opt(OnFrame, "the frame: it stays straight ahead"), entry.Opt(OnBars, "bars or fork: it turns with them"), entry.Opt(OnHead, "the helmet: it looks where you do")}
}

// ToSeeBy lists the slots of lamps that add to the main beam.
func ToSeeBy() []Slot { return slotsThat(Outward) }

// AYear is what a lamp costs a year, where its price and how long it lasts are known.
func (p *Part) AYear() (money.Amount, bool) {
	lasts := Lasts.In(p)
	if !lasts.Known() || !p.Price.Known() {
		return money.Amount{}, false
	}
	return money.New(int64(math.Round(float64(p.Price.Minor())/lasts.In("yr"))), p.Price.Code()), true
}
