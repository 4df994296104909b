package plan

import (
	"fmt"
	"slices"
	"strings"

	"github.com/go-json-experiment/json"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/merge"
	"valiantmule/internal/core/parts"
)

// machineRows are the lists of a machine that are put together row by row.
var machineRows = merge.Rows{
	"standard": "slot", "answers": "check", "changes": "name", "as_built": "name", "odometers": "on", "lamps_seen": "id", "provides": merge.Each,
}

// Merged puts together what a machine has become in two places, mine and theirs, both out of
// was: field by field and row by row. Where both have changed something, it is as theirs is
// unless keep says so. Readings are nobody's change: mine stay. The list is all in which the
// two differ.
func Merged(was, mine, theirs Machine, keep func(News) bool) (Machine, []News, error) {
	var sides [3]any
	for i, m := range []Machine{was, mine, theirs} {
		text, err := json.Marshal(m.Bare(), json.Deterministic(true))
		if err != nil {
			return mine, nil, err
		}
		if err := json.Unmarshal(text, &sides[i]); err != nil {
			return mine, nil, err
		}
	}
	var keeps func(merge.Difference) bool
	if keep != nil {
		keeps = func(d merge.Difference) bool { return keep(newsOf(d)) }
	}
	whole, differ := merge.Three(sides[0], sides[1], sides[2], machineRows, keeps)
	text, err := json.Marshal(whole, json.Deterministic(true))
	if err != nil {
		return mine, nil, err
	}
	var merged Machine
	if err := json.Unmarshal(text, &merged); err != nil {
		return mine, nil, err
	}
	merged.Garage, merged.Readings = mine.Garage, mine.Readings
	news := make([]News, len(differ))
	for i, d := range differ {
		news[i] = newsOf(d)
	}
	return merged, news, nil
}

// Same reports whether two machines say the same, what was read off them aside.
func (m Machine) Same(other Machine) bool {
	a, errA := json.Marshal(m.Bare(), json.Deterministic(true))
	b, errB := json.Marshal(other.Bare(), json.Deterministic(true))
	if errA == nil && errB == nil && string(a) == string(b) {
		return true
	}
	_, news, err := Merged(m, m, other, nil) // where order says nothing it is no difference
	return err == nil && len(news) == 0
}

// NewsTold are the news that a rider is told: where a number comes from goes without saying beside
// the number, and on which day the odometer showed it.
func NewsTold(list []News) []News {
	there := map[string]bool{}
	for _, n := range list {
		there[n.Key] = true
	}
	return slices.DeleteFunc(slices.Clone(list), func(n News) bool { return n.With() != n.Key && there[n.With()] })
}

// With is the key of the number that a place goes along with, told or kept: of where that comes from,
// or of the day that it was read on. Of anything else it is its own.
func (n News) With() string {
	if of, field, ok := strings.Cut(n.Key, "/origins/"); ok {
		return of + "/" + field
	}
	if strings.HasPrefix(n.Key, "odometers/") {
		return "bike/odometer"
	}
	return n.Key
}

// News is one thing in which a plan's copy of a machine and the machine itself differ.
type News struct {
	Key               string // of the place, for a form
	Label             string
	Was, Mine, Theirs string // as typed, with units; "" where nothing is said
	Clash             bool   // changed in both places, each to something else
}

func newsOf(d merge.Difference) News {
	return News{
		Key: strings.Join(d.Path, "/"), Label: labelOf(d.Path), Clash: d.Clash,
		Was: saidOf(d.Was), Mine: saidOf(d.Mine), Theirs: saidOf(d.Theirs),
	}
}

// labelOf a place of the machine is what a form calls it.
func labelOf(path []string) string {
	var blank Machine
	sheet := new(Bike)
	at := func(i int) string {
		if i < len(path) {
			return path[i]
		}
		return ""
	}
	member := func(i int) string {
		if i >= len(path) {
			return ""
		}
		return ", " + plainWords(strings.Join(path[i:], " "))
	}
	switch path[0] {
	case "bike", "like":
		of := ""
		if path[0] == "like" {
			of = "Taken from another: "
		}
		if at(1) == "standard" && len(path) > 2 {
			kind, ok := parts.KindOf(parts.Slot(path[2]))
			if ok {
				return of + "Came with: " + strings.ToLower(kind.Name) + member(3)
			}
		}
		if f, ok := entry.FieldIn(sheet.Fields(), at(1)); ok {
			return of + strings.TrimPrefix(f.Label, "… ")
		}
		for _, p := range sheet.Picks() {
			if p.Key == at(1) {
				return of + p.Label
			}
		}
		if at(1) == "origins" && len(path) > 2 {
			return "Where it comes from: " + labelOf([]string{path[0], path[2]})
		}
		if at(1) == "provides" && len(path) > 2 {
			return of + "It has: " + path[2]
		}
		return of + sentenceOf(path[1:])
	case "clicks":
		if f, ok := entry.FieldIn(blank.Clicks.Fields(""), at(1)); ok {
			return "Clicks: " + f.Label
		}
	case "odometers":
		return "Odometer on " + at(1)
	case "lamps_seen":
		return "Looked at: " + entry.NameOf(Looks(), at(1))
	case "baseline":
		switch at(1) {
		case "answers":
			if c, ok := baseline.CheckOf(at(2)); ok {
				return "Checked: " + c.Name + member(3)
			}
		case "changes":
			return "By a previous owner: " + at(2) + member(3)
		case "as_built":
			return "As built: " + at(2)
		}
	}
	return sentenceOf(path)
}

func sentenceOf(path []string) string {
	text := plainWords(strings.Join(path, ", "))
	if text == "" {
		return "The bike"
	}
	return strings.ToUpper(text[:1]) + text[1:]
}

func plainWords(text string) string { return strings.ReplaceAll(text, "_", " ") }

// saidOf is what stands in a place, in words.
func saidOf(v any) string {
	switch v := v.(type) {
	case nil:
		return ""
	case map[string]any:
		for _, name := range []string{"name", "value", "verdict", "at", "on"} {
			if text, ok := v[name].(string); ok {
				return text
			}
		}
		return "said"
	case []any:
		list := make([]string, len(v))
		for i := range v {
			list[i] = saidOf(v[i])
		}
		return strings.Join(list, ", ")
	case bool:
		if v {
			return "yes"
		}
		return "no"
	}
	return fmt.Sprint(v)
}
