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
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/plan"
)

// All is what is known of a plan in one loadout.
type All struct {
	// What is put in.
	Plan            *plan.Plan
	Loadout         *plan.Loadout
	Built, Standard *plan.Built // nil without a bike
	Shelf           plan.Shelf
	AsOf            string // the day on which somebody looks, 2026-11-26

	// What is found of the plan, the same in all its loadouts.
	Ledger   Ledger
	Way      Way
	Learning Learning
	Weighed  plan.Correction
	Sat      Sat
	Metered  Metered

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

// Set is a set of groups of facts.
type Set uint64

// The groups. Bike is what is put in: a step that needs it waits for one.
const (
	Bike Set = 1 << iota
	LedgerGroup
	WayGroup
	LearningGroup
	WeighedGroup
	SatGroup
	MeteredGroup
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

// Every is all groups.
const Every = everyGroup - 1

// groups says which fields a group is. What stands here and in All is the same
// list; TestGroups holds one against the other.
var groups = []struct {
	set Set
	of  func(a *All) any
}{
	{LedgerGroup, func(a *All) any { return &a.Ledger }},
	{WayGroup, func(a *All) any { return &a.Way }},
	{LearningGroup, func(a *All) any { return &a.Learning }},
	{WeighedGroup, func(a *All) any { return &a.Weighed }},
	{SatGroup, func(a *All) any { return &a.Sat }},
	{MeteredGroup, func(a *All) any { return &a.Metered }},
	{WheelsGroup, func(a *All) any { return &a.Wheels }},
	{HeightsGroup, func(a *All) any { return &a.Heights }},
	{SpringsGroup, func(a *All) any { return &a.Springs }},
	{PosesGroup, func(a *All) any { return &a.Poses }},
	{StoodGroup, func(a *All) any { return &a.Stood }},
	{BodyGroup, func(a *All) any { return &a.Body }},
	{ReachGroup, func(a *All) any { return &a.Reach }},
	{RoomGroup, func(a *All) any { return &a.Room }},
	{DriveGroup, func(a *All) any { return &a.Drive }},
	{ChainGroup, func(a *All) any { return &a.Chain }},
	{SpeedoGroup, func(a *All) any { return &a.Speedo }},
	{MassesGroup, func(a *All) any { return &a.Masses }},
	{LoadedGroup, func(a *All) any { return &a.Loaded }},
	{AxlesGroup, func(a *All) any { return &a.Axles }},
	{CentreGroup, func(a *All) any { return &a.Centre }},
	{BagsGroup, func(a *All) any { return &a.Bags }},
	{CarryingGroup, func(a *All) any { return &a.Carrying }},
	{TyreLoadGroup, func(a *All) any { return &a.TyreLoad }},
	{PressuresGroup, func(a *All) any { return &a.Pressures }},
	{DragGroup, func(a *All) any { return &a.DragAreaM2 }},
	{MachineGroup, func(a *All) any { return &a.Machine }},
	{RangeGroup, func(a *All) any { return &a.Range }},
	{ClimbGroup, func(a *All) any { return &a.Climb }},
	{BalanceGroup, func(a *All) any { return &a.Balance }},
	{CruiseGroup, func(a *All) any { return &a.Cruise }},
	{ContactGroup, func(a *All) any { return &a.Contact }},
	{ChargingGroup, func(a *All) any { return &a.Charging }},
	{WiringGroup, func(a *All) any { return &a.Wiring }},
	{LightGroup, func(a *All) any { return &a.Light }},
	{RisksGroup, func(a *All) any { return &a.Risks }},
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
	if s.Has(Bike) {
		names = append(names, "Bike")
	}
	for _, g := range groups {
		if s.Has(g.set) {
			names = append(names, fieldOf(g.of))
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
	for _, g := range groups {
		if set.Has(g.set) {
			v := reflect.ValueOf(g.of(a)).Elem()
			v.SetZero()
			forget(v)
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
