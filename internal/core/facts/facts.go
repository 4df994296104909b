// Package facts is what the steps of a study find of a plan in one loadout, one
// struct a subject: plain numbers for other steps, for rules and for needs.
//
// Floats are NaN until somebody knows them, so what compares stays silent on a
// missing number and what adds up is spoilt by it. A step says by a [Set] which
// groups it gives and which it reads.
package facts

import (
	"math"
	"reflect"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
)

// All is what is known of a plan in one loadout.
type All struct {
	// What is put in.
	Plan            *plan.Plan
	Loadout         *plan.Loadout
	Built, Standard *plan.Built     // nil without a bike
	Builds          []*plan.Built   // of all loadouts, where all are looked at; else nil
	Guessed         map[string]bool // what of bike and brief is guessed, by where it is typed; nil for nothing
	Shelf           plan.Shelf
	AsOf            string // the day on which somebody looks, 2026-11-26

	// What of the figures rules and needs read; nil while steps run.
	Figured func(id figure.ID) Figured

	// What is found of the plan, the same in all its loadouts.
	Ledger   Ledger
	Way      Way
	Learning Learning
	Weighed  plan.Correction
	Sat      Sat
	Metered  Metered
	Ready    Ready
	Journey  Journey

	// What is found of the bike in the loadout.
	Wheels     Wheels
	Heights    Heights
	Springs    Springs
	Poses      Poses
	Stood      Stood
	Body       Body
	Reach      Reach
	Room       Room
	Drive      Drive
	Chain      Chain
	Speedo     Speedo
	Masses     Masses
	Loaded     Loaded
	Axles      Axles
	Centre     Centre
	Bags       Bags
	Carrying   Carrying
	TyreLoad   Ends // of the rated load, 1 = all of it
	Lives      Ends // km, the middle of what is left of each tyre
	Pressures  Card
	DragAreaM2 float64 // with screen, bags and pillion
	Machine    fuel.Machine
	Range      Range
	Climb      Climb
	Balance    drive.Balance
	Cruise     Cruise
	Contact    Contact
	Charging   Charging
	Wiring     Wiring
	Light      Light
	Risks      []guard.Risk // of each place, over the trip; nil when distance or ground are unknown
}

// Figured is a figure as rules and needs read it.
type Figured struct {
	Known bool
	Value float64 // NaN while it is not known
	Limit float64 // NaN where there is none
	State verdict.State
	Less  bool // the less, the worse

	Low, High float64  // of its band, NaN without one
	Measure   []string // what would settle its state, where the limit lies inside the band
}

// Figure is one that a step has worked out, by its id.
func (a *All) Figure(id figure.ID) Figured { return a.Figured(id) }

// Set is a set of groups of facts, and of what is put in.
type Set uint64

// What is put in. A step that needs the Bike waits for one. The parts on it are told apart
// by the families of the table of kinds, whatever they provide or move by themselves.
const (
	Bike      Set = 1 << iota // its sheet, what was found on it, and that there is one
	InBrief                   // and how risky the rider takes the trip to be
	InLines                   // what is decided, paid and priced
	InLoadout                 // what is carried, and how the bike is set
	InLooked                  // the inspection
	InWay                     // route, group, other riders' reports
	InLog                     // readings
	InRest                    // whatever else the document says
	InTime                    // hours, sellers, jobs and their order; of the brief when it leaves, and who fits
	InWheels
	InGuards
	InContact
	InElectrics
	InCarrying
	InSprings
	InEngine
	InTags    // what parts provide
	InFigures // what they move
	firstGroup

	// InParts are all families.
	InParts = InWheels | InGuards | InContact | InElectrics | InCarrying | InSprings | InEngine
	// Inputs are all that is put in.
	Inputs = firstGroup - 1
)

// The groups of facts.
const (
	LedgerGroup Set = firstGroup << iota
	WayGroup
	LearningGroup
	WeighedGroup
	SatGroup
	MeteredGroup
	ReadyGroup
	JourneyGroup
	WheelsGroup
	HeightsGroup
	SpringsGroup
	PosesGroup
	StoodGroup
	BodyGroup
	ReachGroup
	RoomGroup
	DriveGroup
	ChainGroup
	SpeedoGroup
	MassesGroup
	LoadedGroup
	AxlesGroup
	CentreGroup
	BagsGroup
	CarryingGroup
	TyreLoadGroup
	LivesGroup
	PressuresGroup
	DragGroup
	MachineGroup
	RangeGroup
	ClimbGroup
	BalanceGroup
	CruiseGroup
	ContactGroup
	ChargingGroup
	WiringGroup
	LightGroup
	RisksGroup
	everyGroup
)

// Every is all groups, and all that is put in.
const Every = everyGroup - 1

// groups says which fields a group is. What stands here and in All is the same
// list; TestGroups holds one against the other.
var groups = []row{
	of(LedgerGroup, func(a *All) *Ledger { return &a.Ledger }),
	of(WayGroup, func(a *All) *Way { return &a.Way }),
	of(LearningGroup, func(a *All) *Learning { return &a.Learning }),
	of(WeighedGroup, func(a *All) *plan.Correction { return &a.Weighed }),
	of(SatGroup, func(a *All) *Sat { return &a.Sat }),
	of(MeteredGroup, func(a *All) *Metered { return &a.Metered }),
	of(ReadyGroup, func(a *All) *Ready { return &a.Ready }),
	of(JourneyGroup, func(a *All) *Journey { return &a.Journey }),
	of(WheelsGroup, func(a *All) *Wheels { return &a.Wheels }),
	of(HeightsGroup, func(a *All) *Heights { return &a.Heights }),
	of(SpringsGroup, func(a *All) *Springs { return &a.Springs }),
	of(PosesGroup, func(a *All) *Poses { return &a.Poses }),
	of(StoodGroup, func(a *All) *Stood { return &a.Stood }),
	of(BodyGroup, func(a *All) *Body { return &a.Body }),
	of(ReachGroup, func(a *All) *Reach { return &a.Reach }),
	of(RoomGroup, func(a *All) *Room { return &a.Room }),
	of(DriveGroup, func(a *All) *Drive { return &a.Drive }),
	of(ChainGroup, func(a *All) *Chain { return &a.Chain }),
	of(SpeedoGroup, func(a *All) *Speedo { return &a.Speedo }),
	of(MassesGroup, func(a *All) *Masses { return &a.Masses }),
	of(LoadedGroup, func(a *All) *Loaded { return &a.Loaded }),
	of(AxlesGroup, func(a *All) *Axles { return &a.Axles }),
	of(CentreGroup, func(a *All) *Centre { return &a.Centre }),
	of(BagsGroup, func(a *All) *Bags { return &a.Bags }),
	of(CarryingGroup, func(a *All) *Carrying { return &a.Carrying }),
	of(TyreLoadGroup, func(a *All) *Ends { return &a.TyreLoad }),
	of(LivesGroup, func(a *All) *Ends { return &a.Lives }),
	of(PressuresGroup, func(a *All) *Card { return &a.Pressures }),
	of(DragGroup, func(a *All) *float64 { return &a.DragAreaM2 }),
	of(MachineGroup, func(a *All) *fuel.Machine { return &a.Machine }),
	of(RangeGroup, func(a *All) *Range { return &a.Range }),
	of(ClimbGroup, func(a *All) *Climb { return &a.Climb }),
	of(BalanceGroup, func(a *All) *drive.Balance { return &a.Balance }),
	of(CruiseGroup, func(a *All) *Cruise { return &a.Cruise }),
	of(ContactGroup, func(a *All) *Contact { return &a.Contact }),
	of(ChargingGroup, func(a *All) *Charging { return &a.Charging }),
	of(WiringGroup, func(a *All) *Wiring { return &a.Wiring }),
	of(LightGroup, func(a *All) *Light { return &a.Light }),
	of(RisksGroup, func(a *All) *[]guard.Risk { return &a.Risks }),
}

// row is one group.
type row struct {
	set    Set
	field  func(a *All) any
	forget func(a *All)
}

func of[T any](set Set, field func(a *All) *T) row {
	return row{set, func(a *All) any { return field(a) }, func(a *All) { *field(a) = *field(&unknown) }}
}

// inputs names what is put in, in the order of the bits.
var inputs = []string{
	"Bike", "InBrief", "InLines", "InLoadout", "InLooked", "InWay", "InLog", "InRest", "InTime", "InWheels", "InGuards", "InContact", "InElectrics", "InCarrying", "InSprings", "InEngine", "InTags", "InFigures",
}

// Has reports whether all groups of another set are in it.
func (s Set) Has(other Set) bool { return s&other == other }

// Groups are the groups of the set, one by one.
func (s Set) Groups() []Set {
	var list []Set
	for g := Bike; g < everyGroup; g <<= 1 {
		if s.Has(g) {
			list = append(list, g)
		}
	}
	return list
}

// String names the groups of the set.
func (s Set) String() string {
	var names []string
	for i, name := range inputs {
		if s.Has(Bike << i) {
			names = append(names, name)
		}
	}
	for _, g := range groups {
		if s.Has(g.set) {
			names = append(names, fieldOf(g.field))
		}
	}
	return strings.Join(names, "+")
}

// unknown is All before anybody knows anything; each run starts from a copy.
var unknown = func() All {
	var a All
	forget(reflect.ValueOf(&a).Elem())
	return a
}()

// Unknown is facts of which nothing is known yet.
func Unknown() All { return unknown }

// Forget makes groups unknown again.
func (a *All) Forget(set Set) {
	for i := range groups {
		if set.Has(groups[i].set) {
			groups[i].forget(a)
		}
	}
}

// forget sets every float of a value to NaN, but not behind pointers and in lists.
func forget(v reflect.Value) {
	switch v.Kind() {
	case reflect.Float64:
		if v.CanSet() {
			v.SetFloat(math.NaN())
		}
	case reflect.Struct:
		for i := range v.NumField() {
			forget(v.Field(i))
		}
	case reflect.Array:
		for i := range v.Len() {
			forget(v.Index(i))
		}
	}
}

// fieldOf is the name of the field that a group is.
func fieldOf(of func(a *All) any) string {
	var a All
	at := reflect.ValueOf(of(&a)).Pointer()
	v := reflect.ValueOf(&a).Elem()
	for i := range v.NumField() {
		if v.Field(i).Addr().Pointer() == at {
			return v.Type().Field(i).Name
		}
	}
	return ""
}

// BuiltFor is the bike as built for a loadout of the plan.
func (f *All) BuiltFor(loadout string) *plan.Built {
	for i, b := range f.Builds {
		if f.Plan.Loadouts[i].ID == loadout {
			return b
		}
	}
	return f.Plan.Build(loadout)
}
