package schema

import (
	"fmt"
	"reflect"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
)

// part is the schema of a part: by its slot it has the properties of its kind and no other.
func (m *maker) part() object {
	o := m.members(reflect.TypeFor[parts.Part]())
	o["properties"].(object)["has"] = object{"type": "object", "description": "The properties of its kind that are known."}
	var whole []any
	seen := map[string][]parts.Slot{}
	var lists []string
	byList := map[string]*parts.Kind{}
	for i := range parts.Kinds() {
		kind := &parts.Kinds()[i]
		var keys []string
		for _, p := range kind.Asks {
			keys = append(keys, fmt.Sprintf("%s %g %g %s", p.Key, p.Min, p.Max, p.Label))
		}
		list := strings.Join(keys, "|")
		if seen[list] == nil {
			lists, byList[list] = append(lists, list), kind
		}
		seen[list] = append(seen[list], kind.Slot)
	}
	for _, list := range lists {
		kind := byList[list]
		has := object{"type": "object", "additionalProperties": false}
		if len(kind.Asks) > 0 {
			has = m.ref("has_"+strings.ReplaceAll(string(kind.Slot), "-", "_"), reflect.TypeFor[parts.Properties](), func() object { return m.properties(kind, seen[list]) })
		}
		whole = append(whole, object{
			"if":   object{"properties": object{"slot": object{"enum": seen[list]}}},
			"then": object{"properties": object{"has": has}},
		})
	}
	o["allOf"] = whole
	return o
}

// properties are those that parts of a kind have.
func (m *maker) properties(kind *parts.Kind, slots []parts.Slot) object {
	members := object{}
	for _, p := range kind.Asks {
		var is object
		switch v := p.Blank().(type) {
		case *entry.Word:
			is = object{"enum": values(p.Options())}
		case *entry.Words:
			is = object{"type": "array", "items": object{"enum": values(p.Options())}}
		default:
			is = m.of(reflect.TypeOf(v).Elem())
		}
		if _, counted := p.Blank().(*entry.Count); counted {
			is = object{"type": "integer", "minimum": p.Min, "maximum": p.Max}
		}
		members[p.Key] = described(is, sentence(p.Label, p.Unit, p.Min, p.Max, p.Help))
	}
	names := make([]string, len(slots))
	for i, s := range slots {
		names[i] = string(s)
	}
	return object{"type": "object", "properties": members, "additionalProperties": false, "description": "What is known of a part in " + strings.Join(names, ", ") + "."}
}

// reading is the schema of a reading: what was read by its kind.
func (m *maker) reading() object {
	o := m.members(reflect.TypeFor[logbook.Reading]())
	var whole []any
	for _, kind := range logbook.Kinds() {
		whole = append(whole, object{
			"if":   object{"properties": object{"kind": object{"const": kind.Kind}}},
			"then": object{"properties": object{"read": m.of(reflect.TypeOf(kind.New()).Elem())}, "required": []string{"read"}},
		})
	}
	o["allOf"] = append(whole, object{
		"if":   object{"properties": object{"kind": object{"const": logbook.Revocation}}},
		"then": object{"required": []string{"of"}},
	})
	return o
}

// sentence describes a number as a form asks for it.
func sentence(label, unit string, least, most float64, help string) string {
	text := strings.TrimPrefix(label, "… ")
	if most > least {
		text += fmt.Sprintf(", %g to %g %s", least, most, unit)
	}
	text = strings.TrimSpace(text) + "."
	if help != "" {
		text += " " + help
	}
	return text
}
