// Package pack says into which bag each thing goes: low, near the middle, the sides
// alike, daily things where a hand reaches, no bag over what it carries or holds.
//
// Masses are in kg, volumes in litres, places in mm forward of the rear axle and
// above ground. The cost of a packing is in kg·m: what it lifts, what it hangs
// behind, how far the sides are apart, and what is packed anew. The package knows
// nothing of plans.
package pack

import (
	"math"
	"slices"
)

// Item is a thing to be packed.
type Item struct {
	MassKg float64
	Litres float64
	Daily  bool // wanted every day
	In     int  // the bag that it lies in now, −1 for none
}

// Bag is a place to pack it.
type Bag struct {
	CarriesKg float64 // +Inf where nobody has said
	HoldsL    float64
	XMM, ZMM  float64
	Side      int  // −1 left, 1 right, 0 in the middle
	Handy     bool // opened without unloading: daily things belong there
	left      bool // not a bag at all: what goes nowhere
}

// How much each wish weighs, against lifting a kilogram by a metre [memory].
const (
	behindWeight  = 1.0  // a metre behind the rear axle
	unevenWeight  = 0.5  // a kilogram more on one side
	unhandyWeight = 0.15 // a daily kilogram in a bag that is opened seldom
	anewWeight    = 0.05 // a thing out of the bag that it lies in, where the rider looks for it
	leftWeight    = 1000 // a kilogram that goes nowhere: above all others
	leftEach      = 1    // a thing that goes nowhere
)

// of is what one item costs in one bag, its side left out.
func of(it Item, bags []Bag, into int) float64 {
	b := bags[into]
	if b.left {
		return leftWeight*it.MassKg + leftEach
	}
	cost := it.MassKg * (b.ZMM + behindWeight*max(0, -b.XMM)) / 1000
	if it.Daily && !b.Handy {
		cost += unhandyWeight * it.MassKg
	}
	if it.In >= 0 && it.In != into {
		cost += anewWeight
	}
	return cost
}

// Cost of a packing: the bag of each item, −1 for one that is left out, which costs
// nothing.
func Cost(items []Item, bags []Bag, into []int) float64 {
	cost, uneven := 0.0, 0.0
	for i, b := range into {
		if b < 0 {
			continue
		}
		cost += of(items[i], bags, b)
		uneven += float64(bags[b].Side) * items[i].MassKg
	}
	return cost + unevenWeight*math.Abs(uneven)
}

// Fits reports whether no bag carries or holds too much.
func Fits(items []Item, bags []Bag, into []int) bool {
	kg, l := make([]float64, len(bags)), make([]float64, len(bags))
	for i, b := range into {
		if b >= 0 {
			kg[b] += items[i].MassKg
			l[b] += items[i].Litres
		}
	}
	for b, bag := range bags {
		if kg[b] > bag.CarriesKg+slack || l[b] > bag.HoldsL+slack {
			return false
		}
	}
	return true
}

// slack is what sums of masses may be off by.
const slack = 1e-9

// Packing is the answer: the bag of each item.
type Packing struct {
	Into []int
	Cost float64
	Gap  float64 // how much of the cost could still be saved at most; 0 for an exact answer
	OK   bool    // everything found a place
}

// ExactTo is up to how many items the answer is exact, whatever they are; more are
// answered with the gap that is left, which is often none.
const ExactTo = 14

// mostSteps bounds the search beyond that.
const mostSteps = 400_000

// Pack searches by branch and bound: the heaviest first, each into its cheapest bag
// first, cut off where what is still to come cannot be cheap enough.
func Pack(items []Item, bags []Bag) Packing {
	s := &search{items: items, bags: bags, kg: make([]float64, len(bags)), l: make([]float64, len(bags)), into: make([]int, len(items)), best: math.Inf(1)}
	for i := range items {
		s.order = append(s.order, i)
		s.into[i] = -1
	}
	slices.SortStableFunc(s.order, func(a, b int) int {
		switch d := items[b].MassKg - items[a].MassKg; {
		case d > 0:
			return 1
		case d < 0:
			return -1
		}
		return 0
	})
	s.prepare()
	s.steps = mostSteps
	if len(items) <= ExactTo {
		s.steps = math.MaxInt
	}
	s.place(0, 0, 0)
	p := Packing{Into: s.found, Cost: s.best, OK: s.found != nil}
	if !p.OK {
		p.Into = slices.Repeat([]int{-1}, len(items))
		p.Cost = 0
		return p
	}
	if s.steps <= 0 {
		p.Gap = max(0, s.best-s.floor[0])
	}
	return p
}

// most packs as much as goes in, by mass: what does not is in no bag, −1.
func most(items []Item, bags []Bag) []int {
	nowhere := len(bags)
	p := Pack(items, append(slices.Clone(bags), Bag{CarriesKg: math.Inf(1), HoldsL: math.Inf(1), left: true}))
	for i := range p.Into {
		if p.Into[i] == nowhere {
			p.Into[i] = -1
		}
	}
	return p.Into
}

// InTurn packs as much as goes in where not everything does: of the first so many items, and
// then of the others into the room that is left; what goes in is then packed as well as it can
// be. It is always OK; its gap is not known.
func InTurn(items []Item, bags []Bag, first int) Packing {
	p := Packing{Into: most(items[:first], bags), OK: true}
	room := slices.Clone(bags)
	for i, b := range p.Into {
		if b >= 0 {
			room[b].CarriesKg -= items[i].MassKg
			room[b].HoldsL -= items[i].Litres
		}
	}
	p.Into = append(p.Into, most(items[first:], room)...)
	var inside []Item
	var at []int
	for i, b := range p.Into {
		if b >= 0 {
			inside, at = append(inside, items[i]), append(at, i)
		}
	}
	if best := Pack(inside, bags); best.OK {
		for k, i := range at {
			p.Into[i] = best.Into[k]
		}
	}
	p.Cost = Cost(items, bags, p.Into)
	return p
}

// Short is how much a bag lacks for one more thing beside what is packed, kg and litres, 0 for
// nothing.
func Short(it Item, bag int, items []Item, bags []Bag, into []int) (kg, litres float64) {
	kg, litres = it.MassKg-bags[bag].CarriesKg, it.Litres-bags[bag].HoldsL
	for i, b := range into {
		if b == bag {
			kg, litres = kg+items[i].MassKg, litres+items[i].Litres
		}
	}
	return max(0, kg), max(0, litres)
}

type search struct {
	items []Item
	bags  []Bag
	order []int     // of the items
	ways  [][]int   // bags of each item, the cheapest first
	floor []float64 // what the items from here on cost at least
	mass  []float64 // of the items from here on, which can still even the sides
	kg, l []float64
	into  []int
	best  float64
	found []int
	steps int
}

// prepare lists the bags of each item and what the rest costs at least.
func (s *search) prepare() {
	n := len(s.order)
	s.ways, s.floor, s.mass = make([][]int, n), make([]float64, n+1), make([]float64, n+1)
	for k := n - 1; k >= 0; k-- {
		it := s.items[s.order[k]]
		least := math.Inf(1)
		for b := range s.bags {
			s.ways[k] = append(s.ways[k], b)
			least = min(least, of(it, s.bags, b))
		}
		slices.SortStableFunc(s.ways[k], func(a, b int) int {
			switch d := of(it, s.bags, a) - of(it, s.bags, b); {
			case d < 0:
				return -1
			case d > 0:
				return 1
			}
			return 0
		})
		s.floor[k] = s.floor[k+1] + least
		s.mass[k] = s.mass[k+1] + it.MassKg
	}
}

// place tries the items from k on; cost and uneven are those of the ones before.
func (s *search) place(k int, cost, uneven float64) {
	if s.steps--; s.steps <= 0 && s.found != nil {
		return
	}
	// The rest can even the sides by its mass at most.
	if cost+s.floor[k]+unevenWeight*max(0, math.Abs(uneven)-s.mass[k]) >= s.best-slack {
		return
	}
	if k == len(s.order) {
		s.best, s.found = cost+unevenWeight*math.Abs(uneven), slices.Clone(s.into)
		return
	}
	i := s.order[k]
	it := s.items[i]
	for _, b := range s.ways[k] {
		if s.kg[b]+it.MassKg > s.bags[b].CarriesKg+slack || s.l[b]+it.Litres > s.bags[b].HoldsL+slack {
			continue
		}
		s.kg[b] += it.MassKg
		s.l[b] += it.Litres
		s.into[i] = b
		s.place(k+1, cost+of(it, s.bags, b), uneven+float64(s.bags[b].Side)*it.MassKg)
		s.into[i] = -1
		s.kg[b] -= it.MassKg
		s.l[b] -= it.Litres
	}
}
