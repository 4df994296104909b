package stance_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/webtest"
)

// TestGuidesOfStrangers: a step that is not the one at hand, an answer that there is not, a
// guide of nobody and a stale page change nothing.
func TestGuidesOfStrangers(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/symptoms?guide=pogo")
	send := func(base, guide, step, answer string) int {
		status, _, _ := v.Post(path+"/symptoms", url.Values{"base": {base}, "guide": {guide}, "step": {step}, "answer": {answer}})
		return status
	}
	base := webtest.Base(page)
	assert.Equal(t, http.StatusNotFound, send(base, "nobody", "oil-age", "old"))
	assert.Equal(t, http.StatusNotFound, send(base, "pogo", "oil-age", "ancient"))
	assert.Equal(t, http.StatusConflict, send(base, "pogo", "rebound", "better"))
	assert.Equal(t, http.StatusConflict, send("elsewhere", "pogo", "oil-age", "old"))
	assert.Empty(t, v.Stored(path).Trials)
	require.Equal(t, http.StatusSeeOther, send(base, "pogo", "oil-age", "old"))
	page = v.Page(path + "/symptoms")
	assert.Contains(t, page, "Fork oil, the maker", "the last guide stays open, with what to look at")
	base = webtest.Base(page)
	require.Equal(t, http.StatusSeeOther, send(base, "pogo", "", "begin"))
	assert.Contains(t, v.Page(path+"/symptoms"), "How old is the oil")
}

// TestRelaidKeepsTheSetting: a loadout that is copied brings its setting and clicks along.
func TestRelaidKeepsTheSetting(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/clickers?loadout=travel")
	form := webtest.Form(page)
	form.Set("rock.fork_rebound", "11")
	status, body, _ := v.Post(path+"/clickers?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status, body)
	p := v.Stored(path)
	list := append([]plan.Loadout{}, p.Loadouts...)
	list = append(list, plan.Loadout{ID: "far", Name: "Far"})
	far, err := p.Relaid(list, map[string]string{"far": "travel"}).Loadout("far")
	require.NoError(t, err)
	assert.Equal(t, "11", far.ClicksOn("rock").ForkRebound.String())
}
