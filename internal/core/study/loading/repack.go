package loading

import (
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/pack"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// Repacking is a proposal to pack what is in bags anew.
type Repacking struct {
	Plan    *plan.Plan // packed so
	Moves   []Repacked
	Packing pack.Packing
	Out     []LeftOut // what does not go in
}

// What stands in for a wheelbase and a seat that nobody has measured, mm [memory]: places are
// only held against each other.
const usualBaseMM, usualSeatMM = 1450.0, 860.0

// or is a number, or what stands in for one that nobody has said.
func or(v, usual float64) float64 {
	if math.IsNaN(v) {
		return usual
	}
	return v
}

// LeftOut is a thing that no bag takes, with the bag that comes nearest and what that lacks,
// kg and litres.
type LeftOut struct {
	Load       plan.Load
	Bag        *parts.Part
	Kg, Litres float64
	FromBag    bool // it lies in one now, which is too full
}

// Repacked is a thing that moves, and why.
type Repacked struct {
	From, To plan.Load
	Why      string
}

// pocket is a bag, or one side of a pair.
type pocket struct {
	slot parts.Slot
	part *parts.Part
	side plan.Side
}

// Repack packs the things of a loadout into the bags that are on, those too that lie where
// bags sit and in none. What has no mass, or another place of its own, stays where it is; a
// pair of bags carries and holds half of its limit a side. Where not all goes in, what is in
// bags comes first and the rest fills the room that is left: as much as goes in, by mass. What
// does not is named, with what it lacks.
func Repack(f *facts.All) Repacking {
	changed, loadout := f.Plan.OwnLoads(f.Loadout.ID)
	built := f.Built
	base, seat := or(built.Bike.Wheelbase.In("mm"), usualBaseMM), or(built.Bike.SeatHeight.In("mm"), usualSeatMM)
	var bags []pack.Bag
	var pockets []pocket
	for _, b := range f.Bags.On {
		at := b.Part.Sits()
		bag := pack.Bag{CarriesKg: b.LimitKg, HoldsL: b.LimitL, XMM: at.XMM(base), ZMM: at.ZMM(seat), Handy: b.Part.Bag().Handy}
		bag.CarriesKg, bag.HoldsL = or(bag.CarriesKg, math.Inf(1)), or(bag.HoldsL, math.Inf(1)) // where nobody has said
		sides := []plan.Side{plan.Middle}
		if b.Part.Bag().Pair {
			bag.CarriesKg, bag.HoldsL = bag.CarriesKg/2, bag.HoldsL/2
			sides = []plan.Side{plan.Left, plan.Right}
		}
		for _, side := range sides {
			bag.Side = int(side.Sign())
			bags, pockets = append(bags, bag), append(pockets, pocket{b.Slot, b.Part, side})
		}
	}
	var items []pack.Item
	var of []int // the load of each item
	bagged := 0  // of them, at the start
	order := slices.Concat(indices(loadout.Loads, func(l plan.Load) bool { return l.Bag != "" }), indices(loadout.Loads, bagless))
	for _, i := range order {
		l := loadout.Loads[i]
		if !l.Mass.Known() {
			continue
		}
		if l.Bag != "" {
			bagged++
		}
		lies := func(in pocket) bool { return in.slot == l.Bag && in.side == l.Side }
		item := pack.Item{MassKg: l.Mass.In("kg"), Daily: l.Daily, In: slices.IndexFunc(pockets, lies)}
		if l.Volume.Known() {
			item.Litres = l.Volume.In("L")
		}
		items, of = append(items, item), append(of, i)
	}
	r := Repacking{Plan: changed, Packing: pack.Pack(items, bags)}
	if len(bags) == 0 {
		return r
	}
	if !r.Packing.OK {
		r.Packing = pack.InTurn(items, bags, bagged)
	}
	for k, i := range of {
		l, to := &loadout.Loads[i], r.Packing.Into[k]
		if to < 0 {
			out := LeftOut{Load: *l, FromBag: l.InBag(built) != nil}
			out.nearest(items, bags, r.Packing.Into, k, pockets)
			r.Out = append(r.Out, out)
			if out.FromBag {
				l.Bag, l.Place, l.Side = "", load.Tail, plan.Middle
				r.Moves = append(r.Moves, Repacked{out.Load, *l, "no bag takes it"})
			}
			continue
		}
		if to == items[k].In {
			continue
		}
		move := Repacked{From: *l, Why: gain(*l, built, pockets[to], base, seat)}
		l.Bag, l.Place, l.Side = pockets[to].slot, pockets[to].part.Sits(), pockets[to].side
		move.To = *l
		r.Moves = append(r.Moves, move)
	}
	return r
}

// nearest finds the bag that lacks least for the thing at k, by the share of it that is left
// out.
func (o *LeftOut) nearest(items []pack.Item, bags []pack.Bag, into []int, k int, pockets []pocket) {
	least, it := math.Inf(1), items[k]
	for b := range bags {
		kg, litres := pack.Short(it, b, items, bags, into)
		if lacks := max(kg/max(it.MassKg, 0.1), litres/max(it.Litres, 0.1)); lacks < least {
			least, o.Bag, o.Kg, o.Litres = lacks, pockets[b].part, kg, litres
		}
	}
}

// bagless reports whether a thing lies where a bag would be, in none.
func bagless(l plan.Load) bool {
	return l.Bag == "" && (l.Place == load.Tail || l.Place == load.TopBox || l.Place == load.Panniers || l.Place == load.TankBag)
}

func indices(loads []plan.Load, is func(plan.Load) bool) (at []int) {
	for i, l := range loads {
		if is(l) {
			at = append(at, i)
		}
	}
	return at
}

// felt is how far a place is lower or farther forward to be named for it, mm.
const felt = 50.0

// gain is why a thing moves, the first of the wishes that it serves.
func gain(l plan.Load, built *plan.Built, to pocket, base, seat float64) string {
	if l.Bag == "" {
		return "in no bag yet"
	}
	was := l.Sits(built)
	switch now := to.part.Sits(); {
	case l.Daily && to.part.Bag().Handy:
		return "wanted every day: within reach"
	case now.ZMM(seat) < was.ZMM(seat)-felt:
		return "lower"
	case now.XMM(base) > was.XMM(base)+felt:
		return "farther forward"
	case to.side != l.Side && to.side != plan.Middle:
		return "evens the sides"
	}
	return "makes room for what gains more"
}
