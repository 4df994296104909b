package format_test

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/go-json-experiment/json"
	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
)

const schemaFile = "../../docs/formats/valiant-mule-plan.schema.json"

func schema(t *testing.T) *jsonschema.Schema {
	t.Helper()
	c := jsonschema.NewCompiler()
	c.AssertFormat()
	s, err := c.Compile(schemaFile)
	require.NoError(t, err)
	return s
}

func document(t *testing.T, text string) any {
	t.Helper()
	doc, err := jsonschema.UnmarshalJSON(strings.NewReader(text))
	require.NoError(t, err)
	return doc
}

// TestSchema holds what the program writes and refuses against an independent
// validator of the published schema.
func TestSchema(t *testing.T) {
	s := schema(t)
	whole := file(t)
	require.NoError(t, s.Validate(document(t, whole)))
	for name, change := range map[string][2]string{
		"version":       {`"version": 2`, `"version": 3`},
		"no unit":       {`"distance": "4200 km"`, `"distance": "4200"`},
		"a number":      {`"distance": "4200 km"`, `"distance": 4200`},
		"another unit":  {`"rider": "104 kg"`, `"rider": "104 mm"`},
		"a date":        {`"start": "2027-05-14"`, `"start": "in May"`},
		"unknown field": {`"style": "steady"`, `"colour": "red"`},
		"a ground":      {`"ground": "sand"`, `"ground": "lava"`},
		"money":         {`"budget": "1650.00 EUR"`, `"budget": "plenty"`},
		"a need":        {`"need": "wanted"`, `"need": "perhaps"`},
		"a chain":       {`"chain": "520"`, `"chain": "999"`},
		"how sure":      {`"certainty": "seasonal"`, `"certainty": "perhaps"`},
		"a reading":     {`"kind": "fill"`, `"kind": "guess"`},
		"an address":    {`"track": "`, `"track": "../`},
	} {
		bad := strings.Replace(whole, change[0], change[1], 1)
		require.NotEqual(t, whole, bad, name)
		assert.Error(t, s.Validate(document(t, bad)), "%s: by the schema", name)
		_, err := format.ReadPlan(strings.NewReader(bad))
		assert.Error(t, err, "%s: by the program", name)
	}
}

// TestSchemaOfWires: what is laid, where the box sits and what was looked at, which the demo's
// rider has not said, is in the schema too; what the program refuses of it the schema does.
func TestSchemaOfWires(t *testing.T) {
	p, err := format.ReadPlan(strings.NewReader(file(t)))
	require.NoError(t, err)
	wired := plan.Wired{Slot: parts.Grips, Feed: parts.FeedEngine, Use: parts.InCold, Channel: "2"}
	for _, f := range wired.Fields("") {
		require.NoError(t, f.Entry.Enter("3", f.Unit))
	}
	p.Wired, p.BoxSits, p.Seen = []plan.Wired{wired}, plan.BoxAtSide, []plan.Look{{ID: "horn", On: "2026-11-20"}}
	var out bytes.Buffer
	require.NoError(t, format.WritePlan(&out, p))
	require.NoError(t, schema(t).Validate(document(t, out.String())))
	for _, change := range [][2]string{{`"channel": "2"`, `"channel": "17"`}, {`"box_sits": "side"`, `"box_sits": "attic"`}, {`"id": "horn"`, `"id": "rockets"`}, {`"area": "3 mm²"`, `"area": "3 mm"`}} {
		bad := strings.Replace(out.String(), change[0], change[1], 1)
		require.NotEqual(t, out.String(), bad, change[1])
		assert.Error(t, schema(t).Validate(document(t, bad)), change[1])
		_, err := format.ReadPlan(strings.NewReader(bad))
		assert.Error(t, err, change[1])
	}
}

// TestHandWrittenExample is the one of docs/formats, without its comments.
func TestHandWrittenExample(t *testing.T) {
	page, err := os.ReadFile("../../docs/formats/README.md")
	require.NoError(t, err)
	_, rest, found := strings.Cut(string(page), "```jsonc\n")
	require.True(t, found)
	example, _, _ := strings.Cut(rest, "```")
	example = regexp.MustCompile(`(?m)\s*//.*$`).ReplaceAllString(example, "")
	require.NoError(t, schema(t).Validate(document(t, example)))
	p, err := format.ReadPlan(strings.NewReader(example))
	require.NoError(t, err)
	var out bytes.Buffer
	require.NoError(t, format.WritePlan(&out, p))
	require.NoError(t, schema(t).Validate(document(t, out.String())))
}

// TestSchemaAndProgramAgree: what the program writes of every demo plan an independent
// validator takes by the schema, and a plan that is broken at one place both refuse: a
// number without its unit, in another dimension's, a word that is none of the list, a field
// that nobody knows, a property of another kind of part, a list where an object belongs.
func TestSchemaAndProgramAgree(t *testing.T) {
	s := schema(t)
	more, err := demo.Garages()
	require.NoError(t, err)
	first, err := demo.Plan()
	require.NoError(t, err)
	shelf, err := demo.Parts()
	require.NoError(t, err)
	every := plan.New("A part of every kind", "EUR")
	seen := map[parts.Slot]bool{}
	for _, part := range shelf {
		if seen[part.Slot] {
			continue
		}
		seen[part.Slot] = true
		every.Lines = append(every.Lines, plan.Line{Kind: plan.PartLine, Need: plan.Wanted, Decision: plan.Undecided, Part: part})
	}
	var places []breakage
	for _, p := range append(more, first, every) {
		var out bytes.Buffer
		require.NoError(t, format.WritePlan(&out, p))
		doc := document(t, out.String())
		require.NoError(t, s.Validate(doc), p.Name)
		for _, at := range walk(doc, "", nil) {
			at.plan = out.String()
			places = append(places, at)
		}
	}
	random := rand.New(rand.NewPCG(2027, 5))
	random.Shuffle(len(places), func(i, j int) { places[i], places[j] = places[j], places[i] })
	require.Greater(t, len(places), 2000)
	for _, at := range places[:200] {
		bad := at.broken(t)
		assert.Error(t, s.Validate(document(t, bad)), "%s at %s: by the schema", at.how, at.path)
		_, err := format.ReadPlan(strings.NewReader(bad))
		assert.Error(t, err, "%s at %s: by the program", at.how, at.path)
	}
}

// breakage is a place in a plan, and how it is broken there.
type breakage struct {
	plan, path, how string
	steps           []any
	to              func(is any) any
}

// broken is the plan with only that place changed.
func (b breakage) broken(t *testing.T) string {
	doc := document(t, b.plan)
	var into func(v any, steps []any) any
	into = func(v any, steps []any) any {
		if len(steps) == 0 {
			return b.to(v)
		}
		switch v := v.(type) {
		case map[string]any:
			v[steps[0].(string)] = into(v[steps[0].(string)], steps[1:])
		case []any:
			v[steps[0].(int)] = into(v[steps[0].(int)], steps[1:])
		}
		return v
	}
	text, err := json.Marshal(into(doc, b.steps), json.Deterministic(true))
	require.NoError(t, err)
	return string(text)
}

var withUnit = regexp.MustCompile(`^-?[0-9.]+ (kg|mm|km|L|W|kPa|N/mm|km/h|rpm|h)$`)

// free are members whose words are anybody's.
var free = map[string]bool{"risk": true, "inputs": true, "origins": true}

func walk(v any, path string, steps []any) []breakage {
	list := []breakage{}
	add := func(how string, to func(any) any) {
		list = append(list, breakage{path: path, how: how, steps: slices.Clone(steps), to: to})
	}
	switch v := v.(type) {
	case map[string]any:
		if path == "" || !free[path[strings.LastIndex(path, ".")+1:]] {
			add("a field that nobody knows", func(is any) any {
				is.(map[string]any)["colour"] = "red"
				return is
			})
		}
		for key, below := range v {
			list = append(list, walk(below, path+"."+key, append(slices.Clone(steps), key))...)
		}
		if v["slot"] != nil && v["name"] != nil && v["slot"] != "seat" {
			add("a property of another kind", func(is any) any {
				part := is.(map[string]any)
				if part["has"] == nil {
					part["has"] = map[string]any{}
				}
				part["has"].(map[string]any)["comfort"] = "3 h"
				return part
			})
			add("a figure that only a property moves", func(is any) any {
				is.(map[string]any)["effects"] = []any{map[string]any{"figure": "battery-ah", "op": "set", "value": 9}}
				return is
			})
		}
	case []any:
		add("an object for a list", func(any) any { return map[string]any{} })
		for i := range v {
			list = append(list, walk(v[i], fmt.Sprintf("%s[%d]", path, i), append(slices.Clone(steps), i))...)
		}
	case string:
		add("a list for a word", func(any) any { return []any{} })
		if withUnit.MatchString(v) {
			add("a number without its unit", func(is any) any { return strings.Fields(is.(string))[0] })
			add("another dimension", func(is any) any { return strings.Fields(is.(string))[0] + " lx·cd" })
		}
	case bool:
		add("a word for a yes", func(any) any { return "perhaps" })
	}
	return list
}
