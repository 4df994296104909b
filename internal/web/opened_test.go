package web_test

import (
	"html"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// TestNobodyWritesToAnOpenedPlan: requests share what is read and worked out for a plan. All
// pages and all live forms at once, with other numbers typed, leave it as it was: each page
// is the one that a program makes which has never seen any of it.
func TestNobodyWritesToAnOpenedPlan(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	pages := webtest.PageIDs()
	type post struct {
		to   string
		form url.Values
	}
	var posts []post
	for _, id := range pages {
		form := liveForm.FindStringSubmatch(v.Page(plan + "/" + id))
		if form == nil {
			continue
		}
		typed := webtest.FormIn(form[0])
		for key, values := range typed {
			if strings.ContainsAny(values[0], "23456789") && !strings.Contains(key, "id") && key != "base" && key != "save" {
				typed.Set(key, "1"+values[0])
			}
		}
		posts = append(posts, post{html.UnescapeString(form[1]), typed})
	}
	var all sync.WaitGroup
	for range 3 {
		all.Go(func() {
			for _, id := range pages {
				v.Get(plan + "/" + id + "?try=rear-tyre:wether-130-80-18&pump=pump-3&loadout=travel")
			}
		})
		all.Go(func() {
			for _, p := range posts {
				v.Post(p.to, p.form)
			}
		})
	}
	all.Wait()
	program, err := web.New(web.Options{Store: s.Store, Log: slog.New(slog.DiscardHandler)})
	require.NoError(t, err)
	for _, id := range pages {
		answer := httptest.NewRecorder()
		program.ServeHTTP(answer, with(v, plan+"/"+id))
		require.Equal(t, http.StatusOK, answer.Code)
		was, is := fresh.ReplaceAllString(answer.Body.String(), ""), fresh.ReplaceAllString(v.Page(plan+"/"+id), "")
		assert.True(t, was == is, id)
	}
}
