package facts

import (
	"cmp"
	"slices"

	"valiantmule/internal/core/lamp"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/terrain"
)

// Metered are the readings of volts that stand, the oldest first.
type Metered []logbook.Reading

// Charging is what the alternator gives against what is drawn.
type Charging struct {
	RatedW, OwnW        float64
	Sheet, Curve        power.Curve     // by the sheet; as the latest volts corrected it
	Read                string          // id of the reading that did, "" for none
	Chemistry           power.Chemistry // of the battery as built
	Idle, Trail, Cruise Charge          // Trail is NaN for a trip without one
	Mean                Charge          // over the hours of riding
	Hour                WorstHour
	Draws               Draws
	DrawnW              float64 // by all accessories together, on average
	FullW               float64 // with every one of them on
	HalfW               float64 // half of the band that usual draws leave, on average
	Usual               int     // how many of the draws that is
	ParkedMA            float64
	ParkedDays          float64
	BatteryAh           float64
}

// Charge is the margin at one engine speed.
type Charge struct{ RPM, SupplyW, MarginW float64 }

// WorstHour is the slowest going of the trip with all on at once that its weather and nights
// want: the battery makes up for what is lacking.
type WorstHour struct {
	Charge
	DrawnW  float64 // by accessories
	Minutes float64 // until a fifth of the battery is gone, +Inf where nothing is lacking
}

// Draws are the accessories in the order of their slots.
type Draws []Draw

// Draw is one of them.
type Draw struct {
	plan.Wired // how it is wired and used
	Part       *parts.Part
	FullW      float64 // with it on
	HalfW      float64 // half of its band where that is the usual one of its kind; 0 for what somebody has read
	Used       float64 // share of the time, by duty, weather and night
	MeanW      float64
	AtOnceW    float64 // while it is on
	ParkedMA   float64
	InPlace    bool // it hangs on the bike's own wire
}

// Wiring is what lies between battery and accessories.
type Wiring struct {
	Circuits Circuits
	Box      *parts.Box // nil without one
	BoxName  string
	BoxAmps  float64       // all its channels together, everything on
	Main     power.Circuit // from the battery to it
	MainErr  error         // why none does
	Spare    int           // channels
	Left     []string      // what found no channel
	Flash    Flash
}

// Reel is how much wire of a size is still to be laid, there and back.
type Reel struct{ AreaMM2, LengthM float64 }

// ToBuy is the wire of circuits of which nobody has said what is laid, the thinnest first, and
// the fuses that are not in yet, the smallest first; channels of a box have none.
func (w *Wiring) ToBuy() (reels []Reel, fusesA []float64) {
	for _, c := range w.Circuits {
		if c.Err != nil {
			continue
		}
		if c.Channel == 0 && !(c.LaidFuse > 0) {
			fusesA = append(fusesA, c.FuseA)
		}
		if c.LaidMM2 > 0 {
			continue
		}
		at := slices.IndexFunc(reels, func(r Reel) bool { return r.AreaMM2 == c.Wire.AreaMM2 })
		if at < 0 {
			at, reels = len(reels), append(reels, Reel{AreaMM2: c.Wire.AreaMM2})
		}
		reels[at].LengthM += 2 * c.LengthM
	}
	slices.SortFunc(reels, func(a, b Reel) int { return cmp.Compare(a.AreaMM2, b.AreaMM2) })
	slices.Sort(fusesA)
	return reels, fusesA
}

// Circuits are those of the accessories that have a wire of their own.
type Circuits []Circuit

// Circuit is one of them: what it should be, and what is laid.
type Circuit struct {
	power.Circuit
	Draw     *Draw
	Err      error   // why none does
	Channel  int     // of the box, 0 for an own fuse
	LaidMM2  float64 // NaN where nobody has said
	LaidFuse float64
	LaidDrop float64 // %, over the wire that is laid
}

// InA is the fuse that is in it, or that should be.
func (c *Circuit) InA() float64 {
	if c.LaidFuse > 0 {
		return c.LaidFuse
	}
	return c.FuseA
}

// Relayed reports that it is switched by a relay of its own; a box is one itself.
func (c *Circuit) Relayed() bool {
	return c.Channel == 0 && (c.Relay || c.Draw.Feed == parts.FeedEngine)
}

// Wrong reports that no wire does, or that the fuse in it is more than its wire carries.
func (c *Circuit) Wrong() bool { return c.Err != nil || c.Overfused() }

// Overfused reports that the wire would burn before its fuse.
func (c *Circuit) Overfused() bool { return c.LaidMM2 > 0 && c.InA() > power.CarriesA(c.LaidMM2) }

// Flash is the pace of the indicators.
type Flash struct {
	Relay               power.Relay
	RatedW              float64 // of the relay, the lamps of one side
	FrontW, RearW       float64 // one lamp each
	PerMin              float64
	GuessedBike, ByTags bool // the bulbs are the usual ones; diodes of which only that is known
}

// Light is how far one sees at night, and how fast that is.
type Light struct {
	Beams        []LampBeam
	MainCd       float64
	HalfShare    float64 // half of the band of the main beam, a share of it; 0 for what somebody has measured
	AuxCd        float64 // straight ahead, of what shines beside it
	Lux, ReactS  float64
	Brakes       float64 // share of the grip that the rider says they brake with, NaN where they say none
	LitM         float64
	Kmh, WishKmh float64        // at which stopping meets the beam on the ground that allows least; the brief's
	Ground       terrain.Ground // that one
	Half         bool           // half of the sight is another's there
	BendM        float64        // of a tight bend that lies in the light
	BendKmh      float64        // at which stopping meets that
	AllowsKmh    float64        // what such a bend is ridden at by day
	TiltDeg      float64        // that the load tips the beam up, against the rider alone
	HeightMM     float64
	DownDeg      float64 // of the dipped beam as loaded
	DippedM      float64
	Unsaid       []string // lamps of which only lumens are known
}

// LampBeam is a lamp that is on at night.
type LampBeam struct {
	lamp.Beam
	Name string
}

// Shine are the beams alone.
func (l *Light) Shine() []lamp.Beam {
	beams := make([]lamp.Beam, len(l.Beams))
	for i, b := range l.Beams {
		beams[i] = b.Beam
	}
	return beams
}
