package web

import (
	"cmp"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/stage/bike"
)

// historyView is a plan's changes, the newest first.
type historyView struct {
	Revisions    []revisionView
	Older, Newer string // pages
}

type revisionView struct {
	ID, When, Summary string
	Figures           string // what it moved
	Current           bool
}

// perPage is how many changes a page lists.
const perPage = 25

func (s *Server) history(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	page, err := strconv.Atoi(r.URL.Query().Get("page"))
	if err != nil || page < 0 || page > 10_000 {
		page = 0
	}
	revisions, err := s.Store.History(r.Context(), s.Rider(r), d.ID, perPage+1, page*perPage)
	if err != nil {
		return err
	}
	view := historyView{}
	if page > 0 {
		view.Newer = d.Href("history", "page", strconv.Itoa(page-1))
	}
	if len(revisions) > perPage {
		revisions, view.Older = revisions[:perPage], d.Href("history", "page", strconv.Itoa(page+1))
	}
	for _, rev := range revisions {
		shown := revisionView{ID: rev.ID, When: rev.MadeAt.Format("2 January 2006, 15:04 UTC"), Summary: rev.Summary, Current: rev.ID == d.Revision}
		if rev.Before != nil {
			if shown.Figures, err = moved(d, rev.Before, rev.After); err != nil {
				return err
			}
		}
		view.Revisions = append(view.Revisions, shown)
	}
	return s.Render(w, r, http.StatusOK, "history", desk.Frame{Title: "History · " + d.Plan.Name, Plan: d.View("history", nil), Body: view})
}

// moved says in figures what a change did to the gauges, in the loadout on view
// or else the change's last one.
func moved(d *desk.Desk, before, after *plan.Plan) (string, error) {
	loadout := d.Loadout
	for _, p := range []*plan.Plan{before, after} {
		if _, err := p.Loadout(loadout); err != nil {
			return "", nil // a loadout that is gone has nothing to compare
		}
	}
	bench, err := eval.NewBench(before, d.Shelf, loadout, d.AsOf)
	if err != nil {
		return "", err
	}
	differences, err := bench.Preview(eval.Alternative{Plan: after})
	if err != nil {
		return "", err
	}
	var moves []string
	for _, m := range differences[0].Moves {
		v := desk.MoveOf(d.Units, m)
		switch {
		case !v.Gauge:
		case v.Delta != "":
			moves = append(moves, strings.ToLower(m.After.Name)+" "+v.Delta)
		case m.Before.Known != m.After.Known:
			moves = append(moves, strings.ToLower(m.After.Name)+" "+d.Units.Value(*m.After))
		}
	}
	for _, count := range []struct {
		n    int
		word string
	}{{len(differences[0].Appear), "new"}, {len(differences[0].Vanish), "settled"}} {
		if count.n > 0 {
			moves = append(moves, fmt.Sprintf("%d open %s %s", count.n, desk.Plural(count.n, "point"), count.word))
		}
	}
	return strings.Join(moves, ", "), nil
}

func (s *Server) restore(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if err := s.Store.Restore(r.Context(), s.Rider(r), d.ID, r.PostFormValue("base"), r.PostFormValue("revision")); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("history"))
}

// variantsView is a plan and its variants side by side.
type variantsView struct {
	Columns    []variantColumn
	Rows       []variantRow
	Differ     []differRow
	Name       string
	Fresh      bool
	Error      string
	OnlyItself bool
}

type variantColumn struct {
	Name, Bike, Href string
	Current          bool
}

// differRow is one thing in which the variants differ: a part in its place, a line of the
// brief.
type differRow struct {
	Name  string
	Cells []string
}

type variantRow struct {
	Name  string
	Cells []desk.GaugeView
}

func (s *Server) variants(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.showVariants(w, r, http.StatusOK, d, variantsView{Name: d.Plan.Name + ", another way"})
}

func (s *Server) showVariants(w http.ResponseWriter, r *http.Request, status int, d *desk.Desk, view variantsView) error {
	variants, err := s.Store.Variants(r.Context(), s.Rider(r), d.ID)
	if err != nil {
		return err
	}
	view.OnlyItself = len(variants) == 1
	points := variantRow{Name: "To decide"}
	for _, snapshot := range variants {
		loadout := d.Loadout
		if _, err := snapshot.Plan.Loadout(loadout); err != nil {
			loadout = snapshot.Plan.Loadouts[len(snapshot.Plan.Loadouts)-1].ID
		}
		report, err := eval.EvaluateLoadout(snapshot.Plan, d.Shelf, loadout, d.AsOf)
		if err != nil {
			return err
		}
		on := &desk.Desk{Snapshot: snapshot, Loadout: loadout, Units: d.Units}
		column := variantColumn{Name: snapshot.Plan.Name, Bike: "no bike yet", Href: on.Href("brief"), Current: snapshot.ID == d.ID}
		if snapshot.Plan.Bike != nil {
			column.Bike = snapshot.Plan.Bike.Name
		}
		view.Columns = append(view.Columns, column)
		at := 0
		for _, list := range [][]study.Figure{report.Gauges, sideBySide(report)} {
			for _, f := range list {
				if at == len(view.Rows) {
					view.Rows = append(view.Rows, variantRow{Name: f.Name})
				}
				view.Rows[at].Cells = append(view.Rows[at].Cells, desk.GaugeOf(d.Units, f, on.Href("working/"+string(f.ID))))
				at++
			}
		}
		points.Cells = append(points.Cells, toDecide(report))
	}
	view.Rows = append([]variantRow{points}, view.Rows...)
	view.Differ = differences(d, variants)
	return s.Render(w, r, status, "variants", desk.Frame{Title: "Variants · " + d.Plan.Name, Plan: d.View("variants", nil), Body: view})
}

// differences are the parts in which variants differ, and where their briefs have drifted
// apart.
func differences(d *desk.Desk, variants []*store.Snapshot) []differRow {
	var rows []differRow
	add := func(name string, cell func(p *plan.Plan) string) {
		row, same := differRow{Name: name}, true
		for i, v := range variants {
			row.Cells = append(row.Cells, cell(v.Plan))
			same = same && row.Cells[i] == row.Cells[0]
		}
		if !same {
			rows = append(rows, row)
		}
	}
	for _, info := range parts.Kinds() {
		add(info.Name, func(p *plan.Plan) string {
			if part := p.Chosen(info.Slot, d.Loadout); part != nil {
				return part.Name
			}
			return "as it came"
		})
	}
	for i, f := range d.Plan.Brief.Fields() {
		add("Brief: "+f.Label, func(p *plan.Plan) string { return cmp.Or(d.Units.ShownOf(p.Brief.Fields()[i].Entry), "not said") })
	}
	add("Brief: budget", func(p *plan.Plan) string { return cmp.Or(p.Brief.Budget.String(), "not said") })
	for _, g := range terrain.Grounds() {
		add("Brief: "+strings.ToLower(g.Name), func(p *plan.Plan) string { return cmp.Or(p.Brief.Share(g.Kind).String(), "none") })
	}
	return rows
}

// toDecide counts the decisions that a variant asks for, with the worst of them.
func toDecide(report *eval.LoadoutReport) desk.GaugeView {
	return desk.GaugeView{Value: strconv.Itoa(len(study.Cards(report.Findings))), State: desk.StateOf(study.Worst(report.Findings)), Limited: true}
}

// sideBySide are the figures behind the gauges that variants are compared by;
// a plan without a bike has them as unknown.
func sideBySide(report *eval.LoadoutReport) []study.Figure {
	var list []study.Figure
	for _, id := range []figure.ID{"cost-needed", "cost-wanted"} {
		if f, ok := report.Figure(id); ok && f.Known {
			list = append(list, f)
		}
	}
	return list
}

// beside makes a variant of the plan on another bike: the same brief and loads, and the parts
// that are on that bike; nothing of this one's.
func (s *Server) beside(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	m, err := bike.Of(s.House, r, r.PostFormValue("bike"))
	if err != nil {
		return err
	}
	changed := d.Plan.BareOn(m.Bare())
	changed.Name = entry.CutName(d.Plan.Name + ", on the " + m.Bike.Name)
	if m.Garage != "" {
		changed = garage.Standing(changed, d.Things.All())
	}
	variant, err := s.Store.Split(r.Context(), s.Rider(r), d.ID, changed, "Beside “"+d.Plan.Name+"”, on the "+m.Bike.Name)
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/plans/"+variant+"/variants?loadout="+d.Loadout)
}

// split makes a variant of the plan as it is.
func (s *Server) split(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	changed := *d.Plan
	if r.PostForm.Has("fresh") {
		changed = *d.Plan.WithoutBike()
	}
	changed.Name = strings.TrimSpace(r.PostFormValue("name"))
	if problems := changed.Validate(); len(problems) > 0 {
		return s.showVariants(w, r, http.StatusUnprocessableEntity, d, variantsView{Name: r.PostFormValue("name"), Fresh: r.PostForm.Has("fresh"), Error: "The name " + problems[0].What + "."})
	}
	variant, err := s.Store.Split(r.Context(), s.Rider(r), d.ID, &changed, "Split from "+d.Plan.Name)
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, "/plans/"+variant+"/variants?loadout="+d.Loadout)
}
