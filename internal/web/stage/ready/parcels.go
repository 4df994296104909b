package ready

import (
	"net/http"
	"strconv"

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
	for _, p := range plans {
		v.Plans = append(v.Plans, p.Name)
	}
	list, all := study.Parcels(plans)
	for i := range list {
		of := &list[i]
		row := parcelRow{Seller: of.Seller, Freight: "not said", Sum: of.Sum.Display(), Common: of.Common()}
		if of.Freight.Known() {
			row.Freight = of.Freight.Display()
		}
		for _, n := range of.Counts {
			row.Counts = append(row.Counts, strconv.Itoa(n))
		}
		v.Rows = append(v.Rows, row)
	}
	v.Apart, v.Once, v.Sum = all.Apart.Display(), all.Once.Display(), all.Sum.Display()
	v.Saves = money.New(all.Apart.Minor()-all.Once.Minor(), d.Plan.Currency).Display()
	return v
}
