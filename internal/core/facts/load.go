package facts

import (
	"cmp"
	"math"
	"slices"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
)

// Item is a mass on the bike beyond its kerb mass, at a place's default spot.
type Item struct {
	Mass   sheet.Value // NaN when unknown
	HalfKg float64     // half of its band where it is the usual one of its kind; 0 for what somebody has weighed
	Place  load.Place
	Part   *parts.Part // nil for what is none
}

// Masses is what stands on the kerb mass: parts against the ones they replace, the
// plan's first, then rider, pillion and loads; and the fuel.
type Masses struct {
	Items      []Item
	Parts      int    // how many of them are the plan's parts
	Laden      []Item // all of them with everything filled
	Fuel       Fuel
	CarriedKg  float64 // pillion and loads
	UnsprungKg Ends    // that the plan's wheels, tyres and fillings weigh over the standard ones
	HalfKg     float64 // half of the band of all that nobody has weighed; half-widths add up
	Usual      int     // how many of the items that is
}

// Unweighed are the items whose mass is the usual one, the widest band first.
func (m *Masses) Unweighed() []*Item {
	list := make([]*Item, 0, m.Usual)
	for i := range m.Items {
		if m.Items[i].HalfKg > 0 {
			list = append(list, &m.Items[i])
		}
	}
	slices.SortStableFunc(list, func(a, b *Item) int { return cmp.Compare(b.HalfKg, a.HalfKg) })
	return list
}

// Fuel is the mass from the kerb state to full, and of all the fuel there is room
// for: of the tank that feeds the engine, and of what is carried beside it.
type Fuel struct {
	TopUp, Full sheet.Value
	Beside      []Item
}

// Loaded is what everything weighs with a full tank, and what is permitted.
type Loaded struct{ Kg, PermittedKg float64 }

// Axles are the loads under the wheels.
type Axles struct {
	Full, Empty load.Axles // by what is in the tank
	// With a full tank: the bike with what is fitted to it, and its rider on it.
	Bare, Alone load.Axles
	Parked      load.Axles // everything but the rider
	// As it came: by its data sheet, and with a full tank and its rider alone.
	Kerb, Came load.Axles
	Kg         Ends // the worse of both
	HalfKg     Ends // half of the band that usual masses leave
	LimitKg    Ends
}

// Centre is how high the loaded bike's centre of mass sits, tank full.
type Centre struct {
	HeightMM float64
	ParkedMM float64 // without the rider
}

// Bags is what is packed, and what carries it.
type Bags struct {
	On          []Bag       // that are on the bike
	Loose       []plan.Load // in a bag that is not
	Sides       Sides
	RackKg      float64 // behind the seat
	RackLimitKg float64
}

// Sides is what hangs on either.
type Sides struct{ LeftKg, RightKg float64 }

// Bag is a bag with what is in it.
type Bag struct {
	Slot            parts.Slot
	Part            *parts.Part
	Kg, Litres      float64
	LimitKg, LimitL float64 // NaN when nobody has said
}

// Share of its limits that is used, the greater of both.
func (b Bag) Share() float64 {
	share := b.Litres / b.LimitL
	if kg := b.Kg / b.LimitKg; !math.IsNaN(kg) {
		share = max(share, kg)
	}
	return share
}

// Carrying is how the load sits.
type Carrying struct {
	ShipKg     float64 // without rider and bags' contents, a quarter tank
	FrontShare float64 // of the loaded mass on the front wheel
}
