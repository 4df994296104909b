package electrics_test

import (
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/web/webtest"
)

// TestSeveralLamps: a second lamp of a kind goes on beside the first, lights and draws beside it, and is wired as that; a
// box fills the slots of all that is in it, and a sum of the ledger that draws hangs on the alternator too.
func TestSeveralLamps(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	add := func(name string, more ...string) {
		page := v.Page(path + "/part?slot=wide-lamps")
		form := webtest.Form(page)
		form.Set("name", name)
		form.Set("price", "90 EUR")
		form.Set("draw", "20 W")
		form.Set("candela", "9000 cd")
		form.Set("decision", "fitted")
		for i := 0; i+1 < len(more); i += 2 {
			form.Set(more[i], more[i+1])
		}
		status, body, _ := v.Post(path+"/part", form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	before := webtest.Gauge(v.Page(path+"/electrics"), "night-speed")
	add("Left flood")
	one := webtest.Gauge(v.Page(path+"/electrics"), "night-speed")
	add("Right flood", "kit_slot.0", "lamp-control", "kit_name.0", "Its switch")
	page := v.Page(path + "/electrics")
	two := webtest.Gauge(page, "night-speed")
	assert.NotEqual(t, before, one)
	assert.NotEqual(t, one, two, "both light")
	assert.Contains(t, page, "Left flood")
	assert.Contains(t, page, "Right flood")
	assert.Equal(t, 1, strings.Count(page, `name="feed.wide-lamps"`))
	wiring := v.Page(path + "/wiring")
	assert.Equal(t, 1, strings.Count(wiring, `name="length.wide-lamps"`))
	p := v.Stored(path)
	assert.Len(t, p.Build("travel").Off, len(p.Build("trail-day").Off))
	built := p.Build("travel")
	lamps := 0
	for range built.Parts(parts.WideLamps) {
		lamps++
	}
	assert.Equal(t, 2, lamps)
	assert.Equal(t, "Its switch", built.Part(parts.LampControl).Name)
	assert.Empty(t, p.Validate())

	drawn := webtest.Gauge(page, "charge-margin")
	ledger := webtest.Form(v.Page(path + "/spend"))
	for key := range ledger {
		if strings.HasPrefix(key, "name.") && ledger.Get(key) == "" {
			row := strings.TrimPrefix(key, "name.")
			ledger.Set(key, "Heated visor")
			ledger.Set("amount."+row, "30 EUR")
			ledger.Set("draw."+row, "25 W")
			break
		}
	}
	status, body, _ := v.Post(path+"/spend", ledger)
	require.Equal(t, http.StatusSeeOther, status, body)
	after := v.Page(path + "/electrics")
	assert.NotEqual(t, drawn, webtest.Gauge(after, "charge-margin"))
	assert.Contains(t, after, "Heated visor")
}
