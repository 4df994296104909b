package contact_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

// TestSmallHands: the clutch out of reach leads to the hand, from the hand to what is free,
// and then to levers by preview; the brief's span makes it a need.
func TestSmallHands(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	take := func(step, answer string) string {
		page := v.Page(path + "/hurts?guide=clutch")
		status, _, _ := v.Post(path+"/hurts", url.Values{"base": {webtest.Base(page)}, "guide": {"clutch"}, "step": {step}, "answer": {answer}})
		require.Equal(t, http.StatusSeeOther, status)
		return v.Page(path + "/hurts?guide=clutch")
	}
	assert.Contains(t, take("span", "small"), "stop screw")
	assert.Contains(t, take("screw", "set"), "Better")
	assert.Contains(t, take("screw", "same"), "Adjustable levers")
	form := webtest.Form(v.Page(path + "/brief"))
	form.Set("hand_span", "17 cm")
	status, body, _ := v.Post(path+"/brief", form)
	require.Equal(t, http.StatusSeeOther, status, body)
	assert.Contains(t, v.Page(path+"/needs"), "Levers in reach")
}
