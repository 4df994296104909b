package format_test

import (
	"bytes"
	"os"
	"reflect"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
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
		"version":       {`"version": 1`, `"version": 2`},
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

// TestSchemaNamesEveryField that the document has, and no other.
func TestSchemaNamesEveryField(t *testing.T) {
	data, err := os.ReadFile(schemaFile)
	require.NoError(t, err)
	root := document(t, string(data)).(map[string]any)
	defs := root["$defs"].(map[string]any)
	for name, typ := range map[string]reflect.Type{
		"": reflect.TypeFor[plan.Plan](), "brief": reflect.TypeFor[plan.Brief](), "bike": reflect.TypeFor[plan.Bike](), "part": reflect.TypeFor[parts.Part](),
		"tyre": reflect.TypeFor[parts.Tyre](), "effect": reflect.TypeFor[parts.Effect](), "line": reflect.TypeFor[plan.Line](),
		"load": reflect.TypeFor[plan.Load](), "wheel": reflect.TypeFor[parts.Wheel](), "filling": reflect.TypeFor[parts.Filling](), "pressures": reflect.TypeFor[plan.Pressure](),
		"loadout": reflect.TypeFor[plan.Loadout](), "calculation": reflect.TypeFor[plan.Calculation](), "rate": reflect.TypeFor[plan.Rate](),
		"carrier": reflect.TypeFor[parts.Carrier](), "bag": reflect.TypeFor[parts.Bag](), "rack": reflect.TypeFor[parts.Rack](), "route": reflect.TypeFor[plan.Route](), "ground_stretch": reflect.TypeFor[plan.GroundStretch](), "stop": reflect.TypeFor[plan.Stop](),
		"mate": reflect.TypeFor[plan.Mate](), "report": reflect.TypeFor[plan.Report](), "reading": reflect.TypeFor[logbook.Reading](), "fill": reflect.TypeFor[logbook.Fill](), "ridden": reflect.TypeFor[logbook.Ridden](), "weighing": reflect.TypeFor[logbook.Weighing](),
		"clicks": reflect.TypeFor[plan.Clicks](), "trial": reflect.TypeFor[plan.Trial](), "electric": reflect.TypeFor[parts.Electric](), "lamp": reflect.TypeFor[parts.Lamp](), "wired": reflect.TypeFor[plan.Wired](), "sag": reflect.TypeFor[logbook.Sag](), "sag_end": reflect.TypeFor[logbook.SagEnd](), "setting": reflect.TypeFor[plan.Setting](), "spring": reflect.TypeFor[parts.Spring](), "adjuster": reflect.TypeFor[parts.Adjuster](),
	} {
		def := root
		if name != "" {
			def = defs[name].(map[string]any)
		}
		var inSchema, inCode []string
		for key := range def["properties"].(map[string]any) {
			inSchema = append(inSchema, key)
		}
		for i := range typ.NumField() {
			key, _, _ := strings.Cut(typ.Field(i).Tag.Get("json"), ",")
			inCode = append(inCode, key)
		}
		slices.Sort(inSchema)
		slices.Sort(inCode)
		assert.Equal(t, inCode, inSchema, "%q", name)
	}
}
