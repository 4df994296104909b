package ready

import (
	"slices"
	"strings"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
)

// Parcel is what plans order of one seller.
type Parcel struct {
	Seller  string
	Counts  []int        // of parts, by plan
	Freight money.Amount // once; missing where nobody has said
	Sum     money.Amount // of the parts, in the first plan's currency
}

// Common reports whether more than one plan orders there.
func (p *Parcel) Common() bool {
	with := 0
	for _, n := range p.Counts {
		if n > 0 {
			with++
		}
	}
	return with > 1
}

// Freights are what parcels cost to be sent, in one currency.
type Freights struct {
	Apart money.Amount // each plan by itself
	Once  money.Amount // in common parcels
	Sum   money.Amount // of the parts
}

// Parcels are what plans have still to order, by seller: freight is paid once a parcel. Sums are in the
// currency of the first; what has no rate there counts nothing.
func Parcels(plans []*plan.Plan) ([]Parcel, Freights) {
	home := plans[0]
	zero := money.New(0, home.Currency)
	all := Freights{zero, zero, zero}
	add := func(to *money.Amount, a money.Amount) {
		if at, _, ok := home.Home(a); ok && at.Known() {
			if more, err := to.Plus(at); err == nil {
				*to = more
			}
		}
	}
	var list []Parcel
	for at, p := range plans {
		for i := range p.Lines {
			l := &p.Lines[i]
			name := l.SellerOf()
			if name == "" || !ToOrder(l) {
				continue
			}
			k := slices.IndexFunc(list, func(of Parcel) bool { return of.Seller == name })
			if k < 0 {
				k = len(list)
				list = append(list, Parcel{Seller: name, Counts: make([]int, len(plans)), Sum: zero})
			}
			of := &list[k]
			if s := p.Ready.SellerOf(name); s != nil && s.Freight.Known() {
				if of.Counts[at] == 0 {
					add(&all.Apart, s.Freight)
				}
				of.Freight = s.Freight
			}
			of.Counts[at]++
			add(&of.Sum, p.CostOf(l))
		}
	}
	for i := range list {
		add(&all.Once, list[i].Freight)
		add(&all.Sum, list[i].Sum)
	}
	slices.SortFunc(list, func(a, b Parcel) int { return strings.Compare(a.Seller, b.Seller) })
	return list, all
}
