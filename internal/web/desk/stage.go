package desk

import (
	"fmt"
	"io/fs"
	"net/http"
	"slices"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Stage is one part of the work: all that the router, the navigation, the keys, the
// pictures and the tests know of it. The figures that it settles are those of its id
// in the core's table.
type Stage struct {
	ID    figure.Stage
	Group Group // of the work
	Name  string
	Key   string // the letter behind g that leads to it
	Pages []Page // the first has the stage's own id
	Turns []Turn // of the plan, that its pages offer
	Files fs.FS  // pages/*.gohtml; those that start with an underscore are shared by them
	// Script, where it is set, is a module of static/ in Files that the stage's pages load.
	Script string
	// State, where it is set, is how the stage stands beside its figures and findings.
	State func(*Desk) verdict.State
}

// Group is a part of the work that stages belong to.
type Group string

// The groups, in the order of the work.
const (
	Know   Group = "Know"
	Fit    Group = "Fit"
	Settle Group = "Settle"
	Go     Group = "Go"
)

var groups = []Group{Know, Fit, Settle, Go}

// Page is one page of a stage: its template is the file of its id.
type Page struct {
	ID, Name string
	Routes   []Route
	// Bike is set where the page is about the bike as it stands: it is there for a bike by
	// itself too, and what it keeps is the bike's.
	Bike bool
	// Away is set where the page is for use on the way: once opened, a device keeps it for where
	// there is no network.
	Away   bool
	Needs  []string   // that are settled here and not on the stage's first page
	Causes []cause.ID // whose points are
}

// Route is one address of a page, beneath the plan's.
type Route struct {
	Method, Path string
	Handle       Handler
	Large        int64 // bytes that a request may bring beyond the usual
	// Live is set where the answer is another each time, or follows from more than
	// [House.Kept] knows of.
	Live bool
	// Garage is set where it follows from the rider's other plans as well.
	Garage bool
}

// Handler answers a request of a stage.
type Handler func(s *House, w http.ResponseWriter, r *http.Request) error

// Get is a page that is looked at and follows from the plan alone.
func Get(path string, h Handler) Route { return Route{Method: http.MethodGet, Path: path, Handle: h} }

// Live is a page that is looked at and made anew each time: it reads more than the
// plan, or hands out an id.
func Live(path string, h Handler) Route {
	return Route{Method: http.MethodGet, Path: path, Handle: h, Live: true}
}

// Garage is a page that is looked at and follows from the rider's plans.
func Garage(path string, h Handler) Route {
	return Route{Method: http.MethodGet, Path: path, Handle: h, Garage: true}
}

// Post is something that is done.
func Post(path string, h Handler) Route { return Route{Method: http.MethodPost, Path: path, Handle: h} }

// page finds one of the stage's, nil for none.
func (st *Stage) page(id string) *Page {
	for i := range st.Pages {
		if st.Pages[i].ID == id {
			return &st.Pages[i]
		}
	}
	return nil
}

// Check finds what does not fit together in a list of stages, and says where: a page
// without a template, an address or a key twice, a figure or a need of nobody.
func Check(stages []Stage) error {
	paths, keys, pages := map[string]string{}, map[string]figure.Stage{}, map[string]figure.Stage{}
	needs := map[string]bool{}
	for _, n := range eval.Needs() {
		needs[n.ID] = true
	}
	ids := map[figure.Stage]bool{}
	turns := map[string]figure.Stage{}
	for _, name := range []string{"try", "loadout", "base", "save", "stage", "need", "decision", "rate", "rate_from"} {
		turns[name] = "bench" // what its form sends beside them
	}
	group := 0
	for _, st := range stages {
		at := slices.Index(groups, st.Group)
		if at < group {
			return fmt.Errorf("stage %q is of the group %q, which is none or stood before", st.ID, st.Group)
		}
		group = at
		for _, t := range st.Turns {
			if other, twice := turns[t.Key]; twice || t.Key == "" {
				return fmt.Errorf("stage %q wants a key for its turn, %q is taken by %q", st.ID, t.Key, other)
			}
			turns[t.Key] = st.ID
		}
		ids[st.ID] = true
		if other, twice := keys[st.Key]; twice || st.Key == "" {
			return fmt.Errorf("stage %q wants a key of its own, %q is taken by %q", st.ID, st.Key, other)
		}
		keys[st.Key] = st.ID
		if st.Script != "" {
			if _, err := fs.Stat(st.Files, "static/"+st.Script); err != nil {
				return fmt.Errorf("stage %q: its script: %w", st.ID, err)
			}
		}
		if len(st.Pages) == 0 || st.Pages[0].ID != string(st.ID) {
			return fmt.Errorf("stage %q: its first page has its own id", st.ID)
		}
		for _, p := range st.Pages {
			if other, twice := pages[p.ID]; twice {
				return fmt.Errorf("page %q stands in the stages %q and %q", p.ID, other, st.ID)
			}
			pages[p.ID] = st.ID
			if _, err := fs.Stat(st.Files, templateOf(p.ID)); err != nil {
				return fmt.Errorf("page %q of stage %q: %w", p.ID, st.ID, err)
			}
			for _, r := range p.Routes {
				if other, twice := paths[r.Method+" "+r.Path]; twice {
					return fmt.Errorf("%s %s leads to the pages %q and %q", r.Method, r.Path, other, p.ID)
				}
				paths[r.Method+" "+r.Path] = p.ID
			}
			for _, id := range p.Causes {
				if id.Rank() < 0 {
					return fmt.Errorf("page %q settles the cause %q, which there is not", p.ID, id)
				}
			}
			for _, id := range p.Needs {
				if !needs[id] {
					return fmt.Errorf("page %q settles the need %q, which there is not", p.ID, id)
				}
			}
		}
	}
	for _, row := range figure.All() {
		if !ids[row.Stage] {
			return fmt.Errorf("figure %q is settled in %q, which is no stage", row.ID, row.Stage)
		}
	}
	for _, n := range eval.Needs() {
		if !ids[n.Stage] {
			return fmt.Errorf("need %q is settled in %q, which is no stage", n.ID, n.Stage)
		}
	}
	return nil
}

func templateOf(page string) string { return "pages/" + page + ".gohtml" }

// pageOf finds a page and the place of its stage.
func (s *House) pageOf(id string) (at int, page *Page) {
	for i := range s.Stages {
		if p := s.Stages[i].page(id); p != nil {
			return i, p
		}
	}
	return -1, nil
}

// ofBike reports whether a page is there for a bike by itself.
func (s *House) ofBike(id string) bool {
	_, p := s.pageOf(id)
	return p != nil && p.Bike || slices.Contains(bikesOwn, id)
}

// bikesOwn are the addresses of a bike that are of no stage.
var bikesOwn = []string{"history", "export", "working"}

// PageName is what a page is called.
func (s *House) PageName(id string) string {
	if _, p := s.pageOf(id); p != nil {
		return p.Name
	}
	return id
}

// PageOf keeps a page that a form names, or else the first.
func (s *House) PageOf(name string) string {
	if _, p := s.pageOf(name); p != nil {
		return name
	}
	return s.Stages[0].Pages[0].ID
}

// Settles is the page on which a need is settled.
func (s *House) Settles(n study.Need) string {
	return s.settledOn(n.Stage, func(p Page) bool { return slices.Contains(p.Needs, n.ID) })
}

// settledOn is the page of a stage that is so, or else its first.
func (s *House) settledOn(stage figure.Stage, is func(Page) bool) string {
	for _, st := range s.Stages {
		if at := slices.IndexFunc(st.Pages, is); at >= 0 && st.ID == stage {
			return st.Pages[at].ID
		}
	}
	return string(stage)
}
