package guess

import (
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// lower is a field's label in the middle of a sentence.
func lower(label string) string {
	first, size := utf8.DecodeRuneInString(label)
	return string(unicode.ToLower(first)) + label[size:]
}

// Each row has the name of its field, and says what it enters.
func init() {
	names := map[string]string{}
	for key, label := range entry.Labels(new(plan.Bike).Fields()) {
		names["bike/"+key] = label
	}
	for _, p := range new(plan.Bike).Picks() {
		names["bike/"+p.Key] = p.Label
	}
	for key, label := range entry.Labels(new(plan.Brief).Fields()) {
		names["brief/"+key] = label
	}
	for _, slot := range []parts.Slot{parts.FrontTyre, parts.RearTyre, parts.FrontTube, parts.RearTube, parts.FrontSprocket, parts.RearSprocket} {
		kind, _ := parts.KindOf(slot)
		for _, row := range kind.Asks {
			names["came/"+string(slot)+"/"+row.Key] = kind.Name + ", " + strings.ToLower(row.Label)
		}
	}
	for _, c := range plan.Classes() {
		if _, ok := columnOf[plan.Class(c.Value)]; !ok {
			panic(fmt.Sprintf("guess: the class %q has no column", c.Value))
		}
	}
	names["page/packing"] = "What you carry"
	for _, r := range rows {
		r.Name = lower(names[r.At])
		if r.Name == "" {
			panic(fmt.Sprintf("guess: row %q is of no field", r.At))
		}
		reads, said := enters[r.At]
		if !said {
			panic(fmt.Sprintf("guess: row %q does not say what it enters", r.At))
		}
		r.Enters = reads
	}
}
