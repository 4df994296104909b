package ready

import (
	"crypto/sha256"
	"encoding/hex"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	study "valiantmule/internal/core/study/ready"
	"valiantmule/internal/format"
	"valiantmule/internal/format/ical"
	"valiantmule/internal/format/table"
	"valiantmule/internal/web/desk"
)

// calendarFile is spanner days, orders and departure for a calendar program. Its events keep their
// ids, so that it moves them when it reads the file again.
func calendarFile(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	f := readyOf(d, d.Report)
	desk.Attach(w, "text/calendar; charset=utf-8", format.FileName(d.Plan.Name, ".ics"))
	return ical.Write(w, d.Plan.Name, f.Ready.Today.Time(), events(f, d.ID))
}

// events of a plan.
func events(f *facts.All, plan string) []ical.Event {
	r := &f.Ready
	var list []ical.Event
	add := func(of string, from, to calendar.Day, name, says string, busy bool) {
		sum := sha256.Sum256([]byte(plan + "\x00" + of))
		list = append(list, ical.Event{ID: hex.EncodeToString(sum[:12]) + "@valiant-mule", From: from.Time(), To: max(from, to).Time(), Name: name, Says: says, Busy: busy})
	}
	if r.Net != nil {
		for _, j := range r.Order {
			row := &r.Table.Rows[j]
			says := takes(r, j)
			if a := apart(&r.Jobs[j]); a != "" {
				says += ", " + a
			}
			add(r.Jobs[j].ID(), r.Day(row.Start), r.Day(row.End-1e-6), r.Jobs[j].Name, says, true)
		}
		for j := range r.Jobs {
			switch job := &r.Jobs[j]; {
			case job.Kind == facts.JobOrder && job.Line >= 0 && study.ToOrder(&f.Plan.Lines[job.Line]):
				if by, ok := study.OrderBy(r, j); ok {
					add("by "+r.Jobs[j].ID(), by, by, "Order at the latest: "+job.Name, spreadWords(r.Net.Jobs[j].Takes, calendar.Wait), false)
				}
			case job.Kind == facts.JobOrder:
				day := r.Morning(r.Table.Rows[j].End)
				add(r.Jobs[j].ID(), day, day, "Comes, likely: "+job.Name, "", false)
			case r.Net.Jobs[j].Last:
				add(r.Jobs[j].ID(), r.Day(r.Table.Rows[j].Start), r.Day(r.Table.Rows[j].End-1e-6), job.Name, "", false)
			}
		}
	}
	if r.Dated {
		add("departure", r.Leaves, r.Leaves, "Departure: "+f.Plan.Name, "", true)
	}
	return list
}

// ordersFile is the orders as a table.
func ordersFile(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	f := readyOf(d, d.Report)
	desk.Attach(w, "text/csv; charset=utf-8", format.FileName(d.Plan.Name, ".orders.csv"))
	rows := [][]string{{"seller", "part", "kind", "state", "order by", "comes", "days", "at least", "at most", "days to spare", "costs"}}
	look := lookAt(d, f, desk.Laid{})
	for i := range f.Plan.Lines {
		row, seller, ok := look.row(i)
		if !ok || row.Job < 0 {
			continue
		}
		takes := f.Ready.Net.Jobs[row.Job].Takes
		by, spare := "", ""
		if f.Ready.Dated {
			by, spare = row.By, plain(f.Ready.Table.Rows[row.Job].Spare)
		}
		cost := f.Plan.CostOf(&f.Plan.Lines[i])
		rows = append(rows, []string{table.Text(seller), table.Text(row.Name), row.Slots, table.Text(row.State), by, row.Comes, plain(takes.Likely), plain(takes.Low), plain(takes.High), spare, cost.String()})
	}
	slices.SortStableFunc(rows[1:], func(a, b []string) int { return strings.Compare(a[4], b[4]) })
	return table.Write(w, rows)
}

// plain is a number as programs read it.
func plain(v float64) string {
	return strconv.FormatFloat(math.Round(10*v)/10, 'f', -1, 64)
}
