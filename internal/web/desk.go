package web

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"time"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/store"
	"valiantmule/internal/words"
)

// desk is one request's plan, evaluated in the loadout that it looks at.
type desk struct {
	*store.Snapshot
	shelf   plan.Shelf
	loadout string
	units   words.Units
	asOf    string // the day on which it is looked at
	on      *eval.Bench
	report  *eval.LoadoutReport
}

// today is the day on which a request looks at a plan.
func today() string { return time.Now().Format(time.DateOnly) }

// open loads the plan of a request and evaluates it.
func (s *Server) open(r *http.Request) (*desk, error) {
	snapshot, err := s.store.Plan(r.Context(), s.rider(r), chi.URLParam(r, "plan"))
	if err != nil {
		return nil, err
	}
	shelf, err := s.store.Shelf(r.Context())
	if err != nil {
		return nil, err
	}
	d := &desk{Snapshot: snapshot, shelf: shelf, loadout: r.FormValue("loadout"), units: unitsOf(r), asOf: today()}
	if _, err := d.Plan.Loadout(d.loadout); err != nil {
		d.loadout = d.Plan.Loadouts[len(d.Plan.Loadouts)-1].ID
	}
	if d.on, err = eval.NewBench(d.Plan, d.shelf, d.loadout, d.asOf); err != nil {
		return nil, err
	}
	d.report = d.on.Report()
	return d, nil
}

// href of a stage of this plan, with more for its query.
func (d *desk) href(stage string, more ...string) string {
	query := url.Values{"loadout": {d.loadout}}
	for i := 0; i+1 < len(more); i += 2 {
		query.Add(more[i], more[i+1])
	}
	return "/plans/" + d.PlanID + "/" + stage + "?" + query.Encode()
}

// with is the desk with another plan on it, for what hangs on its bike.
func (d *desk) with(p *plan.Plan) *desk {
	changed, snapshot := *d, *d.Snapshot
	snapshot.Plan = p
	changed.Snapshot = &snapshot
	return &changed
}

// onTop leads to a remedy on top of what is tried on a stage; more is kept in
// the address beside it.
func (d *desk) onTop(stage string, tried []plan.Choice, more ...string) wayOut {
	return func(remedy []plan.Choice) string { return d.href(stage, append(tries(tried, remedy), more...)...) }
}

// planView is what the frame around every stage shows of the plan.
type planView struct {
	ID, Name, Revision string
	Page               string
	Loadout            string
	Loadouts           []linkView
	Undo, Redo         string
	Bike               bool      // there is one
	Next               *linkView // stage, nil after the last
	Stages             []stageView
	Tabs               []linkView  // the stage's pages, where it has several
	Gauges             []gaugeView // with a value or within reach of one
	Waiting            []gaugeView // whose subject the plan does not hold yet
	Bench              *benchView
	Findings           []findingView

	href func(stage string, more ...string) string
}

// Href of a stage, in the loadout that is looked at.
func (v *planView) Href(stage string) string { return v.href(stage) }

type linkView struct {
	Name, Href string
	Current    bool
}

type stageView struct {
	Number   int
	ID, Name string
	State    stateView
	Current  bool
	Href     string
}

// pageName is one page of a stage, with the needs that are settled there and not on
// the stage's first.
type pageName struct {
	id, name string
	needs    []string
}

// stage is one part of the work, with its pages. The first has the stage's own id.
type stage struct {
	id    figure.Stage
	name  string
	pages []pageName
}

// page finds one of the stage's, nil for none.
func (st stage) page(id string) *pageName {
	for i := range st.pages {
		if st.pages[i].id == id {
			return &st.pages[i]
		}
	}
	return nil
}

// stages in the order of the work.
var stages = []stage{
	{figure.Brief, "Brief", []pageName{{"brief", "Brief", nil}, {"needs", "What it asks for", nil}}},
	{figure.Bike, "Bike", []pageName{{"bike", "Which bike", nil}, {"sheet", "Its sheet", nil}}},
	{figure.Baseline, "Baseline", []pageName{{"baseline", "Walk around", nil}, {"record", "Wear and record", nil}}},
	{figure.Tyres, "Tyres", []pageName{
		{"tyres", "Tyres", nil}, {"inside", "What is in them", []string{"mend-a-flat"}}, {"pressures", "Pressures", nil}, {"wheels", "Wheels", nil},
	}},
	{figure.Armour, "Armour", []pageName{{"armour", "What ends the ride", nil}, {"disputes", "Both sides", nil}, {"rates", "Rates", nil}}},
	{figure.Contact, "Contact", []pageName{
		{"contact", "What you touch", nil}, {"cockpit", "Cockpit", []string{"warm-hands", "navigation", "charging"}}, {"opinions", "Both sides", nil},
	}},
	{figure.Range, "Range", []pageName{{"range", "Fuel ladder", nil}, {"route", "Route", nil}, {"fills", "Fills", nil}, {"others", "Others", nil}}},
	{figure.Load, "Load", []pageName{{"load", "Where it sits", nil}, {"packing", "Packing", nil}, {"weigh", "Weighing", nil}, {"carrying", "Both sides", nil}}},
	{figure.Gearing, "Gearing", []pageName{{"gearing", "Sprockets", nil}, {"chain", "Chain", nil}, {"pull", "Pull", nil}}},
	{figure.Spend, "Spend", []pageName{{"spend", "Spend", nil}, {"drawer", "Parts drawer", nil}}},
}

// checkStages holds the table of stages against the core's needs: each is settled on
// a page that there is, and no page names one that there is not.
func checkStages() error {
	named := map[string]bool{}
	for _, n := range eval.Needs() {
		named[n.ID] = true
		if page := settles(study.Need{ID: n.ID, Stage: n.Stage}); !slices.ContainsFunc(stages, func(st stage) bool { return st.page(page) != nil }) {
			return fmt.Errorf("need %q is settled on %q, which is no page", n.ID, page)
		}
	}
	for _, st := range stages {
		for _, p := range st.pages {
			for _, id := range p.needs {
				if !named[id] {
					return fmt.Errorf("page %q settles %q, which is no need", p.id, id)
				}
			}
		}
	}
	return nil
}

// settles is the page on which a need is settled.
func settles(n study.Need) string {
	for _, st := range stages {
		for _, p := range st.pages {
			if slices.Contains(p.needs, n.ID) {
				return p.id
			}
		}
	}
	return string(n.Stage)
}

// stageOf finds the stage of a page by its index, and the page's name.
func stageOf(page string) (at int, name string, ok bool) {
	for i, st := range stages {
		if p := st.page(page); p != nil {
			return i, p.name, true
		}
	}
	return 0, "", false
}

// view of the desk for a page. On the bench lies what is tried, or nothing.
func (d *desk) view(page string, bench *benchView) *planView {
	var tried []string // stays on the bench from page to page of the stage
	if bench != nil && bench.Bike == "" {
		for _, c := range bench.Choices {
			tried = append(tried, "try", c.Try)
		}
	}
	v := &planView{
		ID: d.PlanID, Name: d.Plan.Name, Revision: d.Revision, Page: page, Loadout: d.loadout,
		Undo: d.Undo, Redo: d.Redo, Bike: d.Plan.Bike != nil, Bench: bench, href: d.href,
	}
	for _, l := range d.Plan.Loadouts {
		v.Loadouts = append(v.Loadouts, linkView{l.Name, (&desk{Snapshot: d.Snapshot, loadout: l.ID}).href(page), l.ID == d.loadout})
	}
	at, _, staged := stageOf(page)
	passed := false // the page, on the way through all of them
	for i, st := range stages {
		here := staged && i == at
		v.Stages = append(v.Stages, stageView{
			Number: i + 1, ID: string(st.id), Name: st.name, State: d.stageState(st.id), Current: here, Href: d.href(string(st.id)),
		})
		for _, p := range st.pages {
			if passed && v.Next == nil {
				v.Next = &linkView{Name: p.name, Href: d.href(p.id)}
				if !here {
					v.Next.Name = st.name
				}
			}
			passed = passed || p.id == page
			if here && len(st.pages) > 1 {
				v.Tabs = append(v.Tabs, linkView{p.name, d.href(p.id, tried...), p.id == page})
			}
		}
	}
	for _, g := range d.report.Gauges {
		shown := gaugeOf(d.units, g, d.href("working/"+string(g.ID), "stage", page))
		if waits(g) {
			v.Waiting = append(v.Waiting, shown)
		} else {
			v.Gauges = append(v.Gauges, shown)
		}
	}
	v.Findings = findingsOf(d.units, d.report.Findings, d.onTop(page, nil))
	return v
}

// waits reports whether no step works a gauge out yet.
func waits(g study.Figure) bool { return len(g.Lacks) > 0 }

// stageState is how a stage stands. The brief is judged by what it leaves open, and
// an inspection that nobody made tells nothing.
func (d *desk) stageState(id figure.Stage) stateView {
	switch {
	case id == figure.Brief:
		return stateOf(briefState(&d.Plan.Brief))
	case id == figure.Baseline && len(d.Plan.Baseline.Answers) == 0:
		return stateOf(verdict.Unknown)
	}
	return stateOf(d.report.Stage(id))
}

// pageOf keeps a page that a form names, or else the brief.
func pageOf(name string) string {
	if _, _, ok := stageOf(name); ok {
		return name
	}
	return "brief"
}

func (s *Server) openPlan(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	return seeOther(w, r, d.href("brief"))
}

// showPage answers with a page of a stage.
func (s *Server) showPage(w http.ResponseWriter, r *http.Request, status int, d *desk, page string, bench *benchView, body any) error {
	_, name, ok := stageOf(page)
	if !ok {
		return store.ErrNotFound
	}
	title := fmt.Sprintf("%s · %s", name, d.Plan.Name)
	return s.render(w, r, status, page, frame{Title: title, Plan: d.view(page, bench), Body: body})
}
