// Package schema makes the JSON Schema (2020-12) of the plan file and the bike file from the types
// that are the documents and the tables that say what they may hold: the quantities and their units,
// the table of kinds of part, the kinds of reading, the words of each closed list. Its prose
// is their comments and their rows.
//
// It reads the types by reflection and the comments from the source, and so is for making
// the file of docs/formats and for its test, never for serving.
package schema

import (
	"fmt"
	"io/fs"
	"reflect"
	"regexp"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/track"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/format"
)

// object is a piece of the schema.
type object = map[string]any

// Document is a kind of file that has a schema.
type Document struct {
	title, description string
	format             string
	version            int
	of                 reflect.Type
	wants              []string // members beyond those that are always there
}

// The files that leave the house.
var (
	Plan = Document{"Valiant Mule plan", "One conversion of one bike for one trip", plan.Format, plan.Version, reflect.TypeFor[format.PlanFile](), nil}
	Bike = Document{"Valiant Mule bike", "One bike by itself, with what was read off it", format.BikeFormat, format.BikeVersion, reflect.TypeFor[format.BikeFile](), []string{"bike"}}
)

// Make is the schema of a document; the root is of the module's source.
func Make(root fs.FS, of Document) ([]byte, error) {
	prose, err := readProse(root)
	if err != nil {
		return nil, err
	}
	m := &maker{prose: prose, defs: object{}, names: map[string]reflect.Type{}}
	whole := m.members(of.of)
	whole["$schema"] = "https://json-schema.org/draft/2020-12/schema"
	whole["required"] = append(whole["required"].([]string), of.wants...)
	whole["title"] = of.title
	whole["description"] = fmt.Sprintf("%s, version %d. Numbers are kept as the rider typed them.", of.description, of.version)
	members := whole["properties"].(object)
	members["format"], members["version"] = object{"const": of.format}, object{"const": of.version}
	whole["$defs"] = m.defs
	if m.err != nil {
		return nil, m.err
	}
	text, err := json.Marshal(whole, json.Deterministic(true), jsontext.WithIndent(" "))
	return append(text, '\n'), err
}

// maker gathers definitions as they are met.
type maker struct {
	prose prose
	defs  object
	names map[string]reflect.Type // that have a definition, by its name
	err   error
}

// ref is a reference to a type's definition, which is made when it is met first.
func (m *maker) ref(name string, t reflect.Type, define func() object) object {
	if other := m.names[name]; other != nil && other != t {
		m.fail("both %s and %s would be called %s", other, t, name)
	}
	if m.names[name] == nil { // it may be met within itself
		m.names[name] = t
		m.defs[name] = define()
	}
	return object{"$ref": "#/$defs/" + name}
}

var underscored = regexp.MustCompile(`([a-z])([A-Z])`)

// otherwise are the types whose own name is a quantity's.
var otherwise = map[reflect.Type]string{reflect.TypeFor[plan.Pressure](): "pressures"}

func defName(t reflect.Type) string {
	if name, ok := otherwise[t]; ok {
		return name
	}
	return strings.ToLower(underscored.ReplaceAllString(t.Name(), "${1}_$2"))
}

// quantity is what all of unit's are.
type quantity interface {
	Example() string
}

var ownTexts = map[reflect.Type]object{
	reflect.TypeFor[money.Amount]():     {"type": "string", "pattern": "^[+-]?[0-9]+([.,][0-9]+)? [A-Za-z]{3}$", "description": "An amount and its ISO 4217 code, no more decimals than the currency has.", "examples": []string{"129.50 EUR"}},
	reflect.TypeFor[money.Rate]():       {"type": "string", "pattern": "^[0-9]*[.,]?[0-9]+$", "examples": []string{"0.92"}},
	reflect.TypeFor[plan.Gears]():       {"type": "string", "examples": []string{"2.75 1.75 1.31"}},
	reflect.TypeFor[parts.Code]():       {"type": "string", "minLength": 1, "examples": []string{"140/80-18 M/C 70R TT"}},
	reflect.TypeFor[tyre.Size]():        {"type": "string", "minLength": 1, "examples": []string{"140/80-18 M/C 70R TT"}},
	reflect.TypeFor[track.Node]():       {"type": "array", "minItems": 5, "maxItems": 5, "items": object{"type": "number"}},
	reflect.TypeFor[plan.Channel]():     {"type": "string", "pattern": fmt.Sprintf("^(|%s|[1-9]|1[0-%d])$", plan.OwnFuse, parts.MaxChannels-10)},
	reflect.TypeFor[plan.End]():         {"type": "string", "pattern": `^(part|bike|at):[a-z0-9][a-z0-9-]{0,63}$`},
	reflect.TypeFor[parts.Properties](): {"type": "object"}, // by the kind of part
	reflect.TypeFor[logbook.Content]():  {"type": "object"}, // by the kind of reading
	reflect.TypeFor[entry.Said]():       {"type": "boolean"},
	reflect.TypeFor[entry.Count]():      {"type": "integer", "minimum": 1},
	reflect.TypeFor[entry.Line]():       {"type": "string", "maxLength": entry.MaxName},
}

// texts are strings that a field's tag says more of.
var texts = map[string]object{
	"date":     {"type": "string", "format": "date"},
	"id":       {"type": "string", "pattern": `^[a-z0-9][a-z0-9-]{0,63}$`},
	"made-id":  {"type": "string", "pattern": `^[A-Z2-7]{26}$`},
	"name":     {"type": "string", "minLength": 1, "maxLength": entry.MaxName},
	"currency": {"type": "string", "pattern": `^[A-Z]{3}$`},
	"address":  {"type": "string", "pattern": `^[0-9a-f]{64}$`},
}

// of is the schema of a type.
func (m *maker) of(t reflect.Type) object {
	if text, own := ownTexts[t]; own {
		return text
	}
	switch t {
	case reflect.TypeFor[parts.Part]():
		return m.ref("part", t, m.part)
	case reflect.TypeFor[logbook.Reading]():
		return m.ref("reading", t, m.reading)
	}
	if q, ok := reflect.New(t).Interface().(quantity); ok {
		return m.ref(dimension(t), t, func() object { return written(t, q) })
	}
	switch t.Kind() {
	case reflect.Pointer:
		return m.of(t.Elem())
	case reflect.Struct:
		return m.ref(defName(t), t, func() object { return m.members(t) })
	case reflect.Slice:
		return object{"type": "array", "items": m.of(t.Elem())}
	case reflect.Map:
		return object{"type": "object", "additionalProperties": m.of(t.Elem())}
	case reflect.String:
		if words, closed := closedLists[t]; closed {
			return object{"enum": words()}
		}
		if t.PkgPath() != "" {
			m.fail("no words for the type %s", t)
		}
		return object{"type": "string"}
	case reflect.Bool:
		return object{"type": "boolean"}
	case reflect.Int:
		return object{"type": "integer"}
	case reflect.Float64:
		return object{"type": "number"}
	}
	m.fail("no schema for the type %s", t)
	return object{}
}

func (m *maker) fail(format string, args ...any) {
	if m.err == nil {
		m.err = fmt.Errorf("schema: "+format, args...)
	}
}

// members is the schema of a struct: its fields by their tags, described by their rows or
// comments.
func (m *maker) members(t reflect.Type) object {
	members, required := object{}, []string{}
	for _, f := range reflect.VisibleFields(t) {
		key, how, _ := strings.Cut(f.Tag.Get("json"), ",")
		if f.Anonymous && key == "" { // its own fields are listed too
			continue
		}
		if key == "-" { // of the house, in no file
			continue
		}
		if key == "" {
			m.fail("%s.%s has no name in the document", t, f.Name)
			continue
		}
		home := homeOf(t, f)
		is := m.field(home, f, key)
		if says := m.prose.ofField(home, f.Name, key); says != "" {
			is = described(is, says)
		}
		members[key] = is
		if !strings.Contains(how, "omit") {
			required = append(required, key)
		}
	}
	o := object{"type": "object", "properties": members, "additionalProperties": false}
	if len(required) > 0 {
		o["required"] = required
	}
	if says := m.prose.ofType(t); says != "" {
		o["description"] = says
	}
	return o
}

// homeOf is the struct that a field is declared in: t, or one that is embedded in it.
func homeOf(t reflect.Type, f reflect.StructField) reflect.Type {
	for _, at := range f.Index[:len(f.Index)-1] {
		t = t.Field(at).Type
	}
	return t
}

// field is the schema of a struct's field: by a table of its words, by its tag, or by its
// type.
func (m *maker) field(t reflect.Type, f reflect.StructField, key string) object {
	if words, ok := picks[t][key]; ok {
		return object{"enum": words}
	}
	tag := f.Tag.Get("is")
	if tag == "" {
		return m.of(f.Type)
	}
	text, known := texts[tag]
	if !known {
		m.fail("%s.%s is a %q, which nobody knows", t, f.Name, tag)
	}
	return text
}

// described is a piece with a description of its own.
func described(is object, says string) object {
	copied := object{}
	for key, value := range is {
		copied[key] = value
	}
	copied["description"] = says
	return copied
}
