package ready_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/web/webtest"
)

var pages = []string{"ready", "days", "spanner-day", "specialist", "parcels", "time", "days.ics", "orders.csv"}

// TestEdges: a plan without a bike, one whose jobs never end, dates far away, and five hundred jobs are answered.
func TestEdges(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	v.Post("/sign-in/demo", nil)
	enter := func(d *unit.Duration, text string) { require.NoError(t, d.Enter(text, "h")) }
	keep := func(p *plan.Plan) string {
		status, page, header := v.Post("/garage", url.Values{"name": {p.Name}, "currency": {"EUR"}})
		require.Equal(t, http.StatusSeeOther, status, page)
		path := strings.Split(header.Get("Location"), "?")[0]
		path = path[:strings.LastIndex(path, "/")]
		rider, err := s.Store.RiderByName(t.Context(), "Demo rider")
		require.NoError(t, err)
		id := path[strings.LastIndex(path, "/")+1:]
		require.NoError(t, s.Store.Amend(t.Context(), rider.ID, id, "made-"+p.Name, func(*plan.Plan) (*plan.Plan, string) { return p, "made" }))
		return path
	}
	bare := plan.New("bare", "EUR")
	never := plan.New("never", "EUR")
	enter(&never.Ready.Week.Mon, "0 h")
	never.Ready.Jobs = []plan.OwnJob{{ID: "one", Name: "One\nBEGIN:VALARM"}}
	never.Brief.Start = "2027-05-01"
	far := plan.New("far", "EUR")
	far.Brief.Start = "9999-12-31"
	far.Ready.Jobs = []plan.OwnJob{{ID: "one", Name: "One", From: "9990-01-01"}, {ID: "two", Name: "=HYPERLINK(1)", From: "2999-01-01", Kind: plan.JobWait}}
	far.Lines = []plan.Line{{Kind: plan.Gear, Name: "=cmd", Need: plan.Needed, Supply: &plan.Supply{Seller: "@me", NotBefore: "9980-01-01"}}}
	many := plan.New("many", "EUR")
	many.Brief.Start = "2027-05-01"
	for i := range 200 {
		id := "job-" + string(rune('a'+i/26)) + string(rune('a'+i%26))
		many.Ready.Jobs = append(many.Ready.Jobs, plan.OwnJob{ID: id, Name: id})
		if i > 0 {
			many.Ready.Firsts = append(many.Ready.Firsts, plan.Before{Job: "own/" + many.Ready.Jobs[i-1].ID, Then: "own/" + id})
		}
	}
	for _, p := range []*plan.Plan{bare, never, far, many} {
		path := keep(p)
		for _, page := range pages {
			status, body, _ := v.Get(path + "/" + page)
			assert.Equal(t, http.StatusOK, status, "%s of %s", page, p.Name)
			assert.NotContains(t, body, "NaN")
			assert.Less(t, len(body), 1_500_000, "%s of %s", page, p.Name)
			switch page {
			case "days.ics":
				assert.NotContains(t, body, "\nBEGIN:VALARM", "a name is words")
			case "orders.csv":
				assert.NotContains(t, body, "\n@me,", "no formula")
			}
		}
		for _, query := range []string{"ready?way=" + url.QueryEscape("start|2027-09-01"), "days?job=better", "days?job=" + url.QueryEscape("own/one|"), "ready?way=together|x"} {
			status, _, _ := v.Get(path + "/" + query)
			assert.Contains(t, []int{http.StatusOK, http.StatusNotFound}, status, "%s of %s", query, p.Name)
		}
	}
}
