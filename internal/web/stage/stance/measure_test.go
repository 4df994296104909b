package stance_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/web/webtest"
)

// TestMeasureTwoLoads: two loads say what the spring is, and a revoked session no more.
func TestMeasureTwoLoads(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	sit := func(as, rider string) {
		form := url.Values{"id": {"BADDATA"}, "on": {"2026-11-20"}, "as": {as}, "rear_hanging": {"652"}, "rear_rider_down": {rider}, "rear_free_down": {"630"}}
		status, body, _ := v.Post(path+"/measure?loadout=travel", form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	sit("travel:alone", "566")
	sit("travel", "540")
	page := v.Page(path + "/measure?loadout=travel")
	assert.Contains(t, page, "Rate at the wheel")
	assert.Contains(t, page, "Rear")
	p := v.Stored(path)
	live := p.ReadingsOf(logbook.SagRead)
	require.Len(t, live, 2)
	assert.Greater(t, live[1].Sag().Rear.Sprung.In("kg"), live[0].Sag().Rear.Sprung.In("kg"))
	for _, r := range live {
		status, _, _ := v.Post(path+"/measure/revoke", url.Values{"of": {r.ID}})
		require.Equal(t, http.StatusSeeOther, status)
	}
	assert.Contains(t, v.Page(path+"/measure?loadout=travel"), "Nothing is measured yet")
	status, body, _ := v.Post(path+"/measure?loadout=travel", url.Values{"on": {"2026-11-20"}, "as": {"came"}, "rear_hanging": {"652"}, "rear_rider_down": {"660"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `(?s)has-error.*rear_rider_down`, body)
}
