package ready

import (
	"net/http"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	study "valiantmule/internal/core/study/ready"
	"valiantmule/internal/web/desk"
)

// parcelsView is what plans that leave on one day order from the same sellers: freight once, one sum.
type parcelsView struct {
	Leaves string
	Plans  []string
	Rows   []parcelRow
	Apart  string // freight of each plan's parcels by themselves
	Once   string // … in common ones
	Saves  string
	Sum    string // of the parts
	Brief  string
}

// parcelRow is one seller.
type parcelRow struct {
	Seller, Freight, Sum string
	Counts               []string // parts of each plan
	Common               bool
}

// parcelsPage reads the rider's plans that leave on the day of this one.
func parcelsPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	plans := []*plan.Plan{d.Plan}
	if d.Plan.Brief.Leaves() != "" {
		others, err := s.Store.Plans(r.Context(), s.Rider(r))
		if err != nil {
			return err
		}
		for _, o := range others {
			if o.ID != d.ID && o.Plan.Brief.Leaves() == d.Plan.Brief.Leaves() {
				plans = append(plans, o.Plan)
			}
		}
	}
	return s.ShowPage(w, r, http.StatusOK, d, "parcels", nil, parcelsOf(d, plans))
}

func parcelsOf(d *desk.Desk, plans []*plan.Plan) parcelsView {
	v := parcelsView{Leaves: d.Plan.Brief.Leaves(), Brief: d.Href("brief")}
	home := d.Plan.Currency
	apart, once, sum := money.New(0, home), money.New(0, home), money.New(0, home)
	add := func(to *money.Amount, a money.Amount) {
		if at, _, ok := d.Plan.Home(a); ok && at.Known() {
			if more, err := to.Plus(at); err == nil {
				*to = more
			}
		}
	}
	var sellers []string
	type parcel struct {
		parts   []int
		freight money.Amount
		sum     money.Amount
	}
	parcels := map[string]*parcel{}
	for at, p := range plans {
		v.Plans = append(v.Plans, p.Name)
		for i := range p.Lines {
			l := &p.Lines[i]
			name := l.SellerOf()
			if name == "" || !study.ToOrder(l) {
				continue
			}
			of := parcels[name]
			if of == nil {
				of = &parcel{parts: make([]int, len(plans)), sum: money.New(0, home)}
				parcels[name] = of
				sellers = append(sellers, name)
			}
			if s := p.Ready.SellerOf(name); s != nil && s.Freight.Known() {
				if of.parts[at] == 0 {
					add(&apart, s.Freight)
				}
				of.freight = s.Freight
			}
			of.parts[at]++
			add(&of.sum, p.CostOf(l))
			add(&sum, p.CostOf(l))
		}
	}
	slices.SortFunc(sellers, strings.Compare)
	for _, name := range sellers {
		of := parcels[name]
		add(&once, of.freight)
		row := parcelRow{Seller: name, Freight: "not said", Sum: of.sum.Display()}
		if of.freight.Known() {
			row.Freight = of.freight.Display()
		}
		in := 0
		for _, n := range of.parts {
			row.Counts = append(row.Counts, strconv.Itoa(n))
			if n > 0 {
				in++
			}
		}
		row.Common = in > 1
		v.Rows = append(v.Rows, row)
	}
	v.Apart, v.Once, v.Sum = apart.Display(), once.Display(), sum.Display()
	v.Saves = money.New(apart.Minor()-once.Minor(), home).Display()
	return v
}
