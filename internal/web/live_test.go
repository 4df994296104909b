package web_test

import (
	"html"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

var (
	liveForm = regexp.MustCompile(`(?s)<form[^>]*data-live="([^"]*)".*?</form>`)
	errorAt  = regexp.MustCompile(`data-error="([^"]*)"`)
	textIn   = regexp.MustCompile(`<(?:input|select)[^>]*\sname="([^"]*)"[^>]*>`)
)

// TestErrorsFindTheirFields: whatever is typed into the fields of a live form, every error
// that comes back names a place which the form has.
func TestErrorsFindTheirFields(t *testing.T) {
	s := webtest.Of(t, web.Options{Stages: append(web.Stages(), throwaway())})
	v, plan := s.Demo(t)
	live := 0
	for _, st := range append(web.Stages(), throwaway()) {
		for _, p := range st.Pages {
			page := v.Page(plan + "/" + p.ID)
			form := liveForm.FindStringSubmatch(page)
			if form == nil {
				continue
			}
			live++
			typed := webtest.FormIn(form[0])
			for _, field := range textIn.FindAllStringSubmatch(form[0], -1) {
				if !strings.Contains(field[0], `type="hidden"`) && !strings.Contains(field[0], `type="checkbox"`) && !strings.Contains(field[0], `type="radio"`) {
					typed.Set(field[1], "#§")
				}
			}
			r := v.Request(http.MethodPost, html.UnescapeString(form[1]), strings.NewReader(typed.Encode()))
			r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			r.Header.Set(desk.PartsHeader, "bench,errors")
			status, answer, _ := v.Do(r)
			require.Equal(t, http.StatusOK, status, p.ID)
			assert.NotContains(t, answer, "<html", "%s is answered in parts", p.ID)
			said := errorAt.FindAllStringSubmatch(answer, -1)
			assert.NotEmpty(t, said, p.ID)
			for _, key := range said {
				if key[1] != "form" {
					assert.Contains(t, form[0], `data-error="`+key[1]+`"`, "an error of %s", p.ID)
				}
			}
		}
	}
	assert.Greater(t, live, 15)
}

// TestOnlyItsStageLoadsAScript: a stage's module is on its own pages, and there alone.
func TestOnlyItsStageLoadsAScript(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	for _, on := range web.Stages() {
		page := v.Page(plan + "/" + string(on.ID))
		for _, of := range web.Stages() {
			if of.Script != "" {
				assert.Equal(t, on.ID == of.ID, strings.Contains(page, "/"+of.Script+`"`), "%s on %s", of.Script, on.ID)
			}
		}
	}
}
