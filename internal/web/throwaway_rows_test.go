package web_test

import (
	"net/http"
	"net/url"
	"os"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/schema"
	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

// TestAnotherKindOfPart: one row in the table is all that a kind takes. Form, validation,
// document, schema, docs and what lists say of a part know it.
func TestAnotherKindOfPart(t *testing.T) {
	t.Cleanup(parts.With(parts.Kind{
		Slot: "pannier-stove", Family: parts.Carrying, Name: "Pannier stove", Place: load.Tail, Hours: 0.3, Weighs: parts.Usual{Value: 0.8, Half: 0.4, Origin: "memory"},
		Asks: []parts.Property{*parts.Holds.As("Its bottle holds", "").Within(0.1, 2), *parts.Carries.Within(1, 5), *parts.Seen.Property},
	}))
	s := webtest.New(t)
	v, path := s.Demo(t)
	assert.Contains(t, v.Page(path+"/drawer"), "pannier-stove", "among the slots")
	form := webtest.Form(v.Page(path + "/part?slot=pannier-stove"))
	for _, key := range []string{"holds", "carries", "seen"} {
		assert.True(t, form.Has(key), key)
	}
	form.Set("name", "Stove, brass")
	form.Set("holds", "9 L")
	status, page, _ := v.Post(path+"/part", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `(?s)has-error" data-error="holds".*?outside`, page, "its bounds are the row's")
	form.Set("holds", "0.5 L")
	form.Set("seen", "no")
	status, page, _ = v.Post(path+"/part", form)
	require.Equal(t, http.StatusSeeOther, status, page)
	p := s.Newest(t, demo.Rider)
	at := p.Lines[len(p.Lines)-1].Part
	require.Equal(t, parts.Slot("pannier-stove"), at.Slot)
	assert.InDelta(t, 0.5, parts.Holds.In(at).In("L"), 1e-9)
	assert.Equal(t, entry.No, parts.Seen.In(at), "which is not the same as not said")
	assert.Contains(t, v.Page(path+"/drawer?q=stove"), "its bottle holds 0.5", "what it is beyond its name")

	text := v.Page(path + "/export")
	_, err := format.ReadPlan(strings.NewReader(text))
	require.NoError(t, err)
	_, err = format.ReadPlan(strings.NewReader(strings.Replace(text, `"0.5 L"`, `"9000 L"`, 1)))
	assert.ErrorContains(t, err, "has.holds", "a number that the form refuses, the file's reader does too, by its path")
	made, err := schema.Make(os.DirFS("../.."), schema.Plan)
	require.NoError(t, err)
	assert.Contains(t, string(made), "Its bottle holds, 0.1 to 2 L.")
	assert.Contains(t, schema.Kinds(), "## Pannier stove (`pannier-stove`)")
}

// mood is a reading that nobody takes.
type mood struct {
	Grade unit.Ratio `json:"grade,omitzero"`
}

func (m *mood) fields() []entry.Field {
	return []entry.Field{{Key: "grade", Label: "Grade", Unit: "%", Min: 0, Max: 100, Entry: &m.Grade}}
}

func (m *mood) Check() error {
	if err := m.fields()[0].Check(); err != nil {
		return entry.Problem{Path: "grade", What: err.Error()}
	}
	return nil
}

func (m *mood) Validate(*entry.Problems, string) {}
func (m *mood) Words() string                    { return "mood" }

// TestAnotherReading: one row in the log's table, and a page of one form.
func TestAnotherReading(t *testing.T) {
	t.Cleanup(logbook.With(logbook.KindInfo{Kind: "mood", New: func() logbook.Content { return new(mood) }}))
	st := throwaway()
	add := desk.AddReading("throwaway", "mood", func(d *desk.Desk, form url.Values, into *logbook.Reading, errs desk.FormErrors) error {
		m := new(mood)
		desk.Enter(d.Units, m.fields(), form, errs)
		into.Read = m
		return nil
	}, func(_ *desk.Desk, _ url.Values, errs desk.FormErrors) any { return errs["grade"] })
	st.Pages[0].Routes = append(st.Pages[0].Routes, desk.Post("/throwaway", add))
	s := webtest.Of(t, web.Options{Stages: append(web.Stages(), st)})
	v, path := s.Demo(t)
	before := len(v.Stored(path).Readings)
	status, page, _ := v.Post(path+"/throwaway", url.Values{"on": {"2026-11-20"}, "grade": {"400"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, page, "outside")
	status, _, _ = v.Post(path+"/throwaway", url.Values{"on": {"2026-11-20"}, "grade": {"80"}})
	require.Equal(t, http.StatusSeeOther, status)
	readings := v.Stored(path).Readings
	require.Len(t, readings, before+1)
	last := readings[len(readings)-1]
	assert.Equal(t, "mood of 2026-11-20", last.Words())
	assert.InDelta(t, 0.8, last.Read.(*mood).Grade.Base(), 1e-9)
	text := v.Page(path + "/export")
	_, err := format.ReadPlan(strings.NewReader(strings.Replace(text, `"80 %"`, `"8000 %"`, 1)))
	assert.Error(t, err, "what the form refuses the file's reader does too")
	made, err := schema.Make(os.DirFS("../.."), schema.Plan)
	require.NoError(t, err)
	assert.Contains(t, string(made), `"mood"`)
}

// TestAnotherTurn: a stage offers one more, and every page, the bench's form, the history and
// the page of a conflict know it.
func TestAnotherTurn(t *testing.T) {
	st := throwaway()
	st.Turns = []desk.Turn{{Key: "renamed", Read: func(_ *desk.House, _ *http.Request, _ *desk.Desk, names []string) ([]desk.Turned, error) {
		return []desk.Turned{{Value: names[0], Name: "Called " + names[0], Said: "Named " + names[0], On: func(p *plan.Plan) *plan.Plan {
			changed := *p
			changed.Name = names[0]
			return &changed
		}}}, nil
	}}}
	s := webtest.Of(t, web.Options{Stages: append(web.Stages(), st)})
	v, path := s.Demo(t)
	page := v.Page(path + "/gearing?renamed=Ash&try=rear-sprocket:rear-h6-47&loadout=travel")
	assert.Contains(t, page, "Called Ash with Rear sprocket 47 T", "on the bench of any page, beside parts")
	assert.Contains(t, page, `<input type="hidden" name="renamed" value="Ash">`)
	assert.Regexp(t, `data-turns="[^"]*renamed`, page, "for the script")
	assert.Regexp(t, `href="[^"]*chain\?[^"]*renamed=Ash`, page, "on to the stage's next page")
	choice := url.Values{"base": {webtest.Base(page)}, "stage": {"gearing"}, "loadout": {"travel"}, "renamed": {"Ash"}, "try": {"rear-sprocket:rear-h6-47"}}
	status, _, _ := v.Post(path+"/choose", choice)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "Ash", v.Stored(path).Name)
	assert.Contains(t, v.Page(path+"/history"), "Named Ash; Rear sprocket")
	status, page, _ = v.Post(path+"/choose", choice)
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, page, "renamed=Ash", "the page of a conflict leads to the same again")
	st.Files = fstest.MapFS{"pages/throwaway.gohtml": {Data: []byte(`{{define "content"}}{{end}}`)}}
	for _, key := range []string{"", "try", "base", "pump"} {
		st.Turns[0].Key = key
		_, err := web.New(web.Options{Store: s.Store, Stages: append(web.Stages(), st)})
		assert.ErrorContains(t, err, "throwaway", "a key that is taken: %q", key)
	}
}
