package web_test

import (
	"log/slog"
	"net/http"
	"slices"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

// throwaway is a stage of one page.
func throwaway() desk.Stage {
	page := func(s *desk.House, w http.ResponseWriter, r *http.Request) error {
		d, err := s.Open(r)
		if err != nil {
			return err
		}
		return s.ShowPage(w, r, http.StatusOK, d, "throwaway", nil, "left by the gate")
	}
	return desk.Stage{
		ID: "throwaway", Group: desk.Go, Name: "Throwaway", Key: "w",
		Files: fstest.MapFS{"pages/throwaway.gohtml": {Data: []byte(`{{define "content"}}<h1>{{.Body}}</h1>{{end}}`)}},
		Pages: []desk.Page{{ID: "throwaway", Name: "Throwaway", Routes: []desk.Route{desk.Get("/throwaway", page)}}},
	}
}

// TestStagesThatDoNotFit are refused at start, with their place.
func TestStagesThatDoNotFit(t *testing.T) {
	s := webtest.New(t)
	for _, c := range []struct {
		name  string
		spoil func(all []desk.Stage) []desk.Stage
		says  []string
	}{
		{"a key twice", func(all []desk.Stage) []desk.Stage { st := throwaway(); st.Key = "t"; return append(all, st) }, []string{"throwaway", "tyres"}},
		{"no key", func(all []desk.Stage) []desk.Stage { st := throwaway(); st.Key = ""; return append(all, st) }, []string{"throwaway"}},
		{"the stage twice", func(all []desk.Stage) []desk.Stage { st := all[3]; st.Key = "w"; return append(all, st) }, []string{"tyres"}},
		{"no page", func(all []desk.Stage) []desk.Stage { st := throwaway(); st.Pages = nil; return append(all, st) }, []string{"throwaway"}},
		{"a page without a template", func(all []desk.Stage) []desk.Stage {
			st := throwaway()
			st.Files = fstest.MapFS{}
			return append(all, st)
		}, []string{"throwaway", "pages/throwaway.gohtml"}},
		{"a template that does not parse", func(all []desk.Stage) []desk.Stage {
			st := throwaway()
			st.Files = fstest.MapFS{"pages/throwaway.gohtml": {Data: []byte(`{{define "content"}}{{end`)}}
			return append(all, st)
		}, []string{"throwaway.gohtml"}},
		{"an address twice", func(all []desk.Stage) []desk.Stage {
			st := throwaway()
			st.Pages[0].Routes = append(st.Pages[0].Routes, desk.Get("/chain", st.Pages[0].Routes[0].Handle))
			return append(all, st)
		}, []string{"/chain", "throwaway", "chain"}},
		{"a need that there is not", func(all []desk.Stage) []desk.Stage {
			st := throwaway()
			st.Pages[0].Needs = []string{"a-bell"}
			return append(all, st)
		}, []string{"throwaway", "a-bell"}},
		{"figures of nobody", func(all []desk.Stage) []desk.Stage {
			return slices.DeleteFunc(all, func(st desk.Stage) bool { return st.ID == figure.Gearing })
		}, []string{"gearing"}},
	} {
		_, err := web.New(web.Options{Store: s.Store, Log: slog.New(slog.DiscardHandler), Stages: c.spoil(web.Stages())})
		require.Error(t, err, c.name)
		for _, place := range c.says {
			assert.ErrorContains(t, err, place, c.name)
		}
	}
}
