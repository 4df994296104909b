package desk

import (
	"crypto/rand"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/store"
	"valiantmule/internal/words"
)

// Desk is one request's plan, evaluated in the loadout that it looks at.
type Desk struct {
	*store.Snapshot
	Shelf   plan.Shelf
	Loadout string
	Units   words.Units
	AsOf    string // the day on which it is looked at
	On      *eval.Bench
	Report  *eval.LoadoutReport
	After   *eval.LoadoutReport // with what is tried, or else the same
	News    *store.News         // of the plan's bike, nil for none
	Things  *store.Things       // all parts of the rider's own

	Shown []string // needs whose findings the page tells itself
	Told  bool     // the page tells all points itself

	seen  string // the bike's revision that a form shows beside what was typed, "" for none
	house *House
	rider string
	asked fragment
	laid  *Laid // by the address, once somebody has asked
}

// Today is the day on which a request looks at a plan.
func Today() string { return time.Now().Format(time.DateOnly) }

// Open loads the plan of a request and evaluates it.
func (s *House) Open(r *http.Request) (*Desk, error) {
	o, err := s.look(r)
	if err != nil {
		return nil, err
	}
	d := &Desk{Snapshot: o.Snapshot, Things: o.things, Shelf: o.shelf, Loadout: r.FormValue("loadout"), Units: UnitsOf(r), AsOf: o.day, News: o.news, house: s, rider: s.Rider(r), asked: fragmentOf(r)}
	if _, err := d.Plan.Loadout(d.Loadout); err != nil {
		d.Loadout = d.Plan.Loadouts[len(d.Plan.Loadouts)-1].ID
	}
	if d.On, err = o.bench(d.Loadout); err != nil {
		return nil, err
	}
	d.Report = d.On.Plain()
	if !saves(r) {
		d.Report = d.On.Report()
	}
	d.After = d.Report
	return d, nil
}

// saves reports whether a request writes: then nobody looks at bands, and none are worked out.
func saves(r *http.Request) bool {
	return r.Method == http.MethodPost && !strings.HasSuffix(r.URL.Path, "/try")
}

// look has the bands of what is guessed worked out, once somebody looks.
func (d *Desk) look() {
	if d.After == d.On.Plain() {
		d.After = d.On.Report()
	}
	d.Report = d.On.Report()
}

// Wants reports whether the answer holds a part: what is in none of those that are
// asked for need not be computed. Whatever is in no part of its own is in "main".
func (d *Desk) Wants(part string) bool { return d.asked.wants(part) }

// Href of a stage of this plan, with more for its query.
func (d *Desk) Href(stage string, more ...string) string {
	query := url.Values{"loadout": {d.Loadout}}
	for i := 0; i+1 < len(more); i += 2 {
		query.Add(more[i], more[i+1])
	}
	if d.Kind == store.OfBike {
		page, _, _ := strings.Cut(stage, "/")
		if !d.house.ofBike(page) { // no plan, no page
			return d.At()
		}
	}
	return d.At() + "/" + stage + "?" + query.Encode()
}

// At is where the addresses of the plan, or of the bike by itself, begin.
func (d *Desk) At() string { return "/" + string(d.Kind) + "s/" + d.ID }

// BikeHref leads to a page of the plan's bike by itself, "" where it has none.
func (d *Desk) BikeHref() string {
	if d.Plan.Garage == "" {
		return ""
	}
	return "/bikes/" + d.Plan.Garage
}

// With is the desk with another plan on it, for what hangs on its bike.
func (d *Desk) With(p *plan.Plan) *Desk {
	changed, snapshot := *d, *d.Snapshot
	snapshot.Plan = p
	changed.Snapshot, changed.laid = &snapshot, nil
	return &changed
}

// OnTop leads to a remedy on top of what lies on the bench of a page.
func (d *Desk) OnTop(page string, l Laid) wayOut {
	return func(remedy []plan.Choice) string { return d.Href(page, l.Query(remedy...)...) }
}

// PlanView is what the frame around every stage shows of the plan.
type PlanView struct {
	ID, Name, Revision string
	At                 string // where its addresses begin
	Alone              bool   // a bike by itself, no plan
	BikeHref           string // of its bike, "" for none
	BikeName           string
	OfBike             bool       // the page is about the bike as it stands
	Moved              *MovedView // what of the bike is not taken over yet, nil for nothing
	BikeSeen           string     // the bike's revision that the page's form shows beside what was typed
	Page               string
	Loadout            string
	Undo, Redo         string
	Bike               bool      // there is one
	Next               *LinkView // stage, nil after the last
	Stages             []stageView
	Tabs               []LinkView // the stage's pages, where it has several
	Strip              StripView
	Bench              *BenchView
	Script             string     // module of the stage, "" for none
	Turns              []string   // keys of an address that lay something on the bench
	Points             PointsView // of an empty bench
	Told               bool       // the page tells them itself
	Aside              []string   // what of the stored plan could not be read

	href func(stage string, more ...string) string
}

// SaveID is the id of the save that a form of the page makes, a new one for each form: sent
// twice it is one save.
func (v *PlanView) SaveID() string { return rand.Text() }

// Href of a stage, in the loadout that is looked at.
func (v *PlanView) Href(stage string) string { return v.href(stage) }

// LinkView is an address in a list of which one may be the present one.
type LinkView struct {
	Name, Href string
	Current    bool
}

type stageView struct {
	Number   int
	Group    string // that begins with it, "" for one that goes on
	Decide   int    // points that ask for a decision
	ID, Name string
	Key      string
	State    StateView
	Current  bool
	Href     string
}

// View of the desk for a page. On the bench lies what is tried, or nothing.
func (d *Desk) View(page string, bench *BenchView) *PlanView {
	v := &PlanView{
		ID: d.ID, At: d.At(), Alone: d.Kind == store.OfBike, BikeHref: d.BikeHref(), BikeName: d.Plan.BikeName(), OfBike: d.house.ofBike(page), Moved: d.moved(), BikeSeen: d.seen, Name: d.Plan.Name, Revision: d.Revision, Aside: d.Aside, Page: page, Loadout: d.Loadout,
		Undo: d.Undo, Redo: d.Redo, Bike: d.Plan.Bike != nil, Bench: bench, Turns: d.house.TurnKeys(), href: d.Href,
	}
	if at, _ := d.house.pageOf(page); at >= 0 {
		v.Script = d.house.Stages[at].Script
	}
	if d.Wants("strip") && !v.Alone {
		v.Strip = d.strip(page)
	}
	if d.Wants("rail") || d.Wants("tabs") {
		var laid Laid
		if bench != nil {
			laid = bench.laid
		}
		v.setStages(d, laid.Query())
	}
	if d.Wants("bench") && bench == nil && !d.Told && !v.Alone {
		v.Points = d.points(page)
	}
	v.Told = d.Told
	return v
}

// setStages shows the way through the stages, the pages of the one that is looked at,
// and what comes next. What lies on the bench stays there within a stage.
func (v *PlanView) setStages(d *Desk, laid []string) {
	at, _ := d.house.pageOf(v.Page)
	passed := false // the page, on the way through all of them
	var cards []study.Card
	if d.Wants("rail") {
		cards = study.Cards(d.Report.Findings)
	}
	for i, st := range d.house.Stages {
		here := i == at
		if v.Alone {
			st.Pages = slices.DeleteFunc(slices.Clone(st.Pages), func(p Page) bool { return !p.Bike })
			if len(st.Pages) == 0 {
				continue
			}
		}
		if d.Wants("rail") {
			group := ""
			if i == 0 || d.house.Stages[i-1].Group != st.Group {
				group = string(st.Group)
			}
			v.Stages = append(v.Stages, stageView{
				Group: group, Decide: decisions(cards, st.ID), Number: i + 1, ID: string(st.ID), Name: st.Name, Key: st.Key, State: d.stageState(&st), Current: here, Href: d.Href(st.Pages[0].ID),
			})
		}
		for _, p := range st.Pages {
			if passed && v.Next == nil {
				v.Next = &LinkView{Name: p.Name, Href: d.Href(p.ID)}
				if !here {
					v.Next.Name = st.Name
				}
			}
			passed = passed || p.ID == v.Page
			if here && len(st.Pages) > 1 {
				v.Tabs = append(v.Tabs, LinkView{p.Name, d.Href(p.ID, laid...), p.ID == v.Page})
			}
		}
	}
}

// StageName is what a stage is called.
func (d *Desk) StageName(id figure.Stage) string {
	for _, st := range d.house.Stages {
		if st.ID == id {
			return st.Name
		}
	}
	return string(id)
}

// stageState is how a stage stands.
func (d *Desk) stageState(st *Stage) StateView {
	if st.State != nil {
		return StateOf(st.State(d))
	}
	return StateOf(d.Report.Stage(st.ID))
}

// Settles is the page on which a need is settled.
func (d *Desk) Settles(n study.Need) string { return d.house.Settles(n) }

// ShowPage answers with a page of a stage.
func (s *House) ShowPage(w http.ResponseWriter, r *http.Request, status int, d *Desk, page string, bench *BenchView, body any) error {
	_, p := s.pageOf(page)
	if p == nil {
		return store.ErrNotFound
	}
	d.look()
	title := fmt.Sprintf("%s · %s", p.Name, d.Plan.Name)
	return s.Render(w, r, status, page, Frame{Title: title, Plan: d.View(page, bench), Body: body})
}
