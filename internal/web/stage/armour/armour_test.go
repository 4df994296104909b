package armour_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

// TestRates: a rider's own rate moves the risks, is kept, and goes back when it is
// emptied.
func TestRates(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	stranded := func() string { return webtest.Gauge(v.Page(path+"/armour?loadout=travel"), "armour-stranded") }
	before := stranded()
	rates := webtest.Form(v.Page(path + "/rates"))
	for typed, want := range map[string]string{"often": "often", "4000": "outside", "-1": "outside"} {
		rates.Set("events.strike.rough-gravel", typed)
		status, body, _ := v.Post(path+"/rates", rates)
		assert.Equal(t, http.StatusUnprocessableEntity, status, typed)
		assert.Contains(t, body, want)
		assert.Contains(t, body, `value="`+typed+`"`)
	}
	rates.Set("events.strike.rough-gravel", "9")
	rates.Set("breaks.sump.strike", "12")
	status, _, header := v.Post(path+"/rates", rates)
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotEqual(t, before, stranded())
	rates = webtest.Form(v.Page(header.Get("Location")))
	assert.Equal(t, "12 %", rates.Get("breaks.sump.strike"))
	rates.Set("events.strike.rough-gravel", "")
	rates.Set("breaks.sump.strike", "")
	v.Post(path+"/rates", rates)
	assert.Equal(t, before, stranded())
	assert.Nil(t, s.Newest(t, demo.Rider).Risk)
}
