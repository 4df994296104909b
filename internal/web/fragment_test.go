package web_test

import (
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

var (
	drawn = regexp.MustCompile(`id="([a-z-]+)"[^<>]* data-drawn`)
	fresh = regexp.MustCompile(`name="(?:id|save)" value="[A-Z2-7]{26}"`) // made for each page
)

// TestPartsAreThoseOfThePage: each part of every page, alone, is what the whole page
// holds, with and without something on the bench.
func TestPartsAreThoseOfThePage(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	_, _, header := v.Post("/garage", map[string][]string{"name": {"Empty"}, "currency": {"EUR"}})
	empty := strings.TrimSuffix(header.Get("Location"), "/brief")
	pages := []string{
		plan + "/tyres?try=rear-tyre:wether-130-80-18", plan + "/tyres?all=1&beside=wether-130-80-18&try=front-tyre:lanner-90-90-21",
		plan + "/gearing?try=rear-sprocket:rear-h6-47", plan + "/chain?try=rear-sprocket:rear-h6-46", plan + "/armour?place=sump&try=skid-plate:skid-plastic-h",
		plan + "/contact?try=risers:riser-20-22", plan + "/load?try=side-bags:boxes-2x36", plan + "/range?pump=pump-3&try=fuel-cans:cans-2x3",
		plan + "/bike?bike=fennick-300", plan + "/drawer?q=guard&fits=on", plan + "/working/cost",
	}
	for _, id := range webtest.PageIDs() {
		pages = append(pages, plan+"/"+id, empty+"/"+id)
	}
	all := map[string]bool{}
	for _, page := range pages {
		whole := fresh.ReplaceAllString(v.Page(page), "")
		ids := []string{"strip", "bench", "main"}
		if strings.Contains(page, "/working/") {
			ids = append(ids, "working")
		}
		for _, m := range drawn.FindAllStringSubmatch(whole, -1) {
			ids = append(ids, m[1])
		}
		for _, id := range ids {
			all[id] = true
			part := fresh.ReplaceAllString(strings.TrimSpace(v.Parts(page, id)), "")
			assert.Contains(t, part, `id="`+id+`"`, page)
			assert.NotContains(t, part, "<html", page)
			assert.True(t, strings.Contains(whole, part), "%s of %s is not what the page holds: %.600s", id, page, part)
		}
	}
	for _, id := range []string{"lineup", "fan", "ladder", "balance", "armour", "rider", "chain-run", "drawer-list", "rightbike", "working", "tabs"} {
		assert.True(t, all[id], "%s was met", id)
	}
}

// TestAPartThatThereIsNot is left out of the answer; who names more parts than any page has
// is shown the page.
func TestAPartThatThereIsNot(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	for _, ids := range [][]string{{"ladder"}, {"no such"}, {"content"}, {"no such", "nor this"}} {
		assert.Empty(t, strings.TrimSpace(v.Parts(plan+"/tyres", ids...)), ids)
	}
	bench := v.Parts(plan+"/tyres", "bench")
	assert.Equal(t, fresh.ReplaceAllString(bench, ""), fresh.ReplaceAllString(v.Parts(plan+"/tyres", "bench", "no such"), ""))
	assert.Contains(t, v.Parts(plan+"/tyres", strings.Split(strings.Repeat("bench,", 400)+"bench", ",")...), "<html")
	assert.Equal(t, 1, strings.Count(v.Parts(plan+"/tyres", "bench", "bench"), `id="bench"`))
	assert.NotContains(t, v.Parts(plan+"/tyres?try=rear-tyre:wether-130-80-18", "bench", "lineup"), `class="rail"`)
}
