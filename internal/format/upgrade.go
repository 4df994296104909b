package format

import (
	"bytes"
	"regexp"
	"strconv"

	"github.com/go-json-experiment/json"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// Version 1 of the document kept what a part has in an object for each subject ("tyre",
// "lamp"), and what it moves as effects; version 2 keeps all of it under "has", by the
// table of kinds. What a reading read lay under its kind's name and lies under "read" now.

// oldMembers are the objects of a version 1 part, and what became of their members that are
// called otherwise now.
var oldMembers = map[string]map[string]string{
	"tyre":     {"size": parts.TyreCode.Key, "kind": parts.TyreKind.Key},
	"wheel":    {"diameter": parts.RimDiameter.Key, "width": parts.RimWidth.Key},
	"filling":  {"kind": parts.FillingKind.Key},
	"guard":    {"width": parts.GuardWidth.Key},
	"carrier":  {"kind": parts.FuelKind.Key},
	"bag":      {"kind": parts.BagKindOf.Key, "width": parts.WidthOver.Key},
	"rack":     {},
	"spring":   {},
	"adjuster": {},
	"electric": {},
	"lamp":     {"mount": parts.SitsOn.Key},
	"box":      {},
	"flasher":  {"kind": parts.RelayKind.Key, "rated": parts.MadeForW.Key},
	"blinkers": {"front": parts.FrontBlink.Key, "rear": parts.RearBlink.Key},
}

// first is how a document of version 1 starts as it is stored.
var first = regexp.MustCompile(`^\s*\{\s*"format"\s*:\s*"` + plan.Format + `"\s*,\s*"version"\s*:\s*1\s*,`)

// upgraded is a document of version 1 as version 2 has it.
func upgraded(data []byte) ([]byte, error) {
	var document map[string]any
	if err := json.Unmarshal(data, &document); err != nil {
		return data, err
	}
	document["version"] = plan.Version
	return json.Marshal(anew(document), json.Deterministic(true))
}

// anew is what lies in a document with its parts and readings as version 2 has them.
func anew(v any) any {
	switch v := v.(type) {
	case map[string]any:
		for key, below := range v {
			v[key] = anew(below)
		}
		if _, isPart := v["slot"].(string); isPart && v["name"] != nil {
			renewPart(v)
		}
		if kind, ok := v["kind"].(string); ok && v["bike"] != nil && v[kind] != nil {
			renewReading(v, kind)
		}
	case []any:
		for i := range v {
			v[i] = anew(v[i])
		}
	}
	return v
}

func renewReading(reading map[string]any, kind string) {
	for _, is := range logbook.Kinds() {
		if string(is.Kind) == kind {
			reading["read"] = reading[kind]
			delete(reading, kind)
		}
	}
}

func renewPart(part map[string]any) {
	has := map[string]any{}
	slot := parts.Slot(part["slot"].(string))
	for member, names := range oldMembers {
		old, ok := part[member].(map[string]any)
		if !ok {
			continue
		}
		delete(part, member)
		for key, value := range old {
			if name, renamed := names[key]; renamed {
				key = name
			}
			if n, err := strconv.Atoi(stringOf(value)); err == nil && key == parts.Channels.Key {
				value = n
			}
			if key == parts.FuelKind.Key && slot == parts.FuelTank {
				continue // its slot says so
			}
			has[key] = value
		}
	}
	var left []any
	effects, _ := part["effects"].([]any)
	for _, e := range effects {
		effect, _ := e.(map[string]any)
		value, _ := effect["value"].(float64)
		key, is := parts.Moving(slot, parts.Figure(stringOf(effect["figure"])), parts.Op(stringOf(effect["op"])), value)
		if key == "" {
			left = append(left, e)
			continue
		}
		has[key] = is
	}
	delete(part, "effects")
	if len(left) > 0 {
		part["effects"] = left
	}
	if len(has) > 0 {
		part["has"] = has
	}
}

func stringOf(v any) string {
	s, _ := v.(string)
	return s
}

// older reports whether a piece of JSON, a part or a reading, is as version 1 had it.
func older(piece []byte) bool {
	if bytes.Contains(piece, []byte(`"has":`)) || bytes.Contains(piece, []byte(`"read":`)) {
		return false
	}
	if bytes.Contains(piece, []byte(`"effects":`)) {
		return true
	}
	for member := range oldMembers {
		if bytes.Contains(piece, []byte(`"`+member+`":`)) {
			return true
		}
	}
	for _, kind := range logbook.Kinds() {
		if bytes.Contains(piece, []byte(`"`+string(kind.Kind)+`":`)) {
			return true
		}
	}
	return false
}

// DecodePiece reads a stored piece of a document, a part, a bike or a reading, as this or
// an earlier version wrote it; what it does not know is refused.
func DecodePiece(data []byte, into any) error {
	if older(data) {
		var piece any
		if err := json.Unmarshal(data, &piece); err != nil {
			return placed(err)
		}
		var err error
		if data, err = json.Marshal(anew(piece), json.Deterministic(true)); err != nil {
			return err
		}
	}
	return DecodeStrict(data, into)
}
