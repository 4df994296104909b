package plan_test

import (
	"fmt"
	"maps"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/go-json-experiment/json"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/golden"
)

// TestGoldenBounds holds what a plan's document may say: of every number in it the least and
// the most that are believed, of every word what is refused, of every list how many. The
// document is the demo rider's with a part of each slot. testdata/bounds is the file.
func TestGoldenBounds(t *testing.T) {
	found := map[string]string{}
	for _, doc := range documents(t) {
		require.Empty(t, problems(t, doc), "what is varied is right as it stands")
		bounds(t, doc, found)
	}
	var text strings.Builder
	for _, path := range slices.Sorted(maps.Keys(found)) {
		fmt.Fprintf(&text, "%s %s\n", path, found[path])
	}
	golden.Held(t, "bounds", text.String())
}

// bounds finds those of one document that are not found yet.
func bounds(t *testing.T, doc any, found map[string]string) {
	visit(doc, "", func(path string, is any, put func(any)) {
		if _, seen := found[path]; seen {
			return
		}
		defer func() { put(is) }()
		refused := func(v any) string { put(v); return strings.Join(problems(t, doc), " ") }
		switch is := is.(type) {
		case float64:
			found[path] = span(func(v float64) string { return refused(v) })
		case string:
			if unit, ok := quantity(is); ok {
				found[path] = span(func(v float64) string { return refused(strconv.FormatFloat(v, 'f', -1, 64) + unit) })
				return
			}
			require.NotEmpty(t, refused(strings.Repeat("x", 5000)), path)
			found[path] = fmt.Sprintf("empty: %s; nonsense: %s; 300 letters: %s", refused(""), refused("no such thing!"), refused(strings.Repeat("x", 300)))
		case []any:
			var at []string
			before := ""
			for _, n := range []int{0, 1, 2, 12, 13, 20, 21, 40, 41, 100, 101, 200, 201, 300, 301, 500, 501} {
				many := make([]any, n)
				for i := range many {
					many[i] = is[i%len(is)]
				}
				put(many)
				crowded := slices.Contains(problems(t, doc), path)
				if now := fmt.Sprint(crowded); now != before {
					at, before = append(at, fmt.Sprintf("%d refused %s", n, now)), now
				}
			}
			found[path] = strings.Join(at, ", ")
		case nil:
			found[path] = "none"
		}
	})
}

// documents are plans as JSON that say between them as much as can be said: the demo
// rider's, cut short, and one for each slot with a part in it.
func documents(t *testing.T) []any {
	whole, err := demo.Plan()
	require.NoError(t, err)
	shelf, err := demo.Parts()
	require.NoError(t, err)
	small := plan.New("Small", "EUR")
	route, bike := *whole.Route, *whole.Bike
	whole.Route, whole.Bike = &route, &bike
	whole.Readings, whole.Route.Stops, whole.Route.Ground = whole.Readings[:3], whole.Route.Stops[:2], whole.Route.Ground[:2]
	whole.Route.Nodes = slices.Concat(whole.Route.Nodes[:2], whole.Route.Nodes[len(whole.Route.Nodes)-1:])
	whole.Baseline.Answers = slices.DeleteFunc(whole.Baseline.Answers, func(a plan.Answer) bool { return !a.New.Known() })
	for i := range whole.Loadouts {
		whole.Loadouts[i].Loads = whole.Loadouts[i].Loads[:2]
	}
	whole.Bike.Standard = whole.Bike.Standard[:1]
	wired := plan.Wired{Slot: parts.Grips, Channel: "2"}
	for _, f := range wired.Fields("") {
		require.NoError(t, f.Entry.Enter("3", f.Unit))
	}
	whole.Wired, whole.BoxSits, whole.Seen = []plan.Wired{wired}, plan.BoxAtSide, []plan.Look{{ID: "horn", On: "2026-11-20"}}
	parts := whole.Lines
	whole.Lines = slices.DeleteFunc(slices.Clone(parts), func(l plan.Line) bool { return l.Part != nil })
	list := []*plan.Plan{whole}
	for _, part := range shelf {
		parts = append(parts, plan.Line{Kind: plan.PartLine, Need: plan.Wanted, Part: part})
	}
	taken := map[string]bool{}
	for _, l := range parts {
		if l.Part == nil || taken[fullness(l.Part)] {
			continue
		}
		taken[fullness(l.Part)] = true
		l.Loadout = ""
		one := *small
		one.Lines = []plan.Line{l}
		list = append(list, &one)
	}
	var docs []any
	for _, p := range list[1:] {
		docs = append(docs, asJSON(t, p))
	}
	// What the whole plan says, each thing by itself: a small document is soon read.
	for key, value := range asJSON(t, whole) {
		doc := asJSON(t, small)
		doc[key] = value
		docs = append(docs, doc)
	}
	return docs
}

func asJSON(t *testing.T, p *plan.Plan) (doc map[string]any) {
	data, err := json.Marshal(p)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(data, &doc))
	return doc
}

// fullness tells apart what parts say.
func fullness(p *parts.Part) string {
	has, _ := json.Marshal(p.Has)
	return fmt.Sprint(regexp.MustCompile(`:"[^"]*"|:[^,}]*`).ReplaceAllString(string(has), ""), len(p.Needs) > 0, len(p.Excludes) > 0, p.Slot)
}

var indexes = regexp.MustCompile(`\[\d+\]`)

// problems are the places, without their numbers in lists, of which a document is refused.
func problems(t *testing.T, doc any) []string {
	data, err := json.Marshal(doc)
	require.NoError(t, err)
	var p plan.Plan
	if err := json.Unmarshal(data, &p); err != nil {
		return []string{"unreadable"}
	}
	var at []string
	for _, problem := range p.Validate() {
		at = append(at, indexes.ReplaceAllString(problem.Path, ""))
	}
	slices.Sort(at)
	return slices.Compact(at)
}

// visit calls a function with every value in a document and a way to put another in its
// place.
func visit(v any, path string, call func(path string, is any, put func(any))) {
	switch v := v.(type) {
	case map[string]any:
		for _, key := range slices.Sorted(maps.Keys(v)) {
			below := strings.TrimPrefix(path+"."+key, ".")
			visit(v[key], below, call)
			call(below, v[key], func(x any) { v[key] = x })
		}
	case []any:
		for i := range v {
			visit(v[i], path, call)
			if _, list := v[i].(map[string]any); !list {
				call(path+"[]", v[i], func(x any) { v[i] = x })
			}
		}
	}
}

var measure = regexp.MustCompile(`^(-?[0-9.]+(?:e[+-]?[0-9]+)?)( ?[^0-9]*)$`)

// quantity is the unit of "185 kg".
func quantity(text string) (unit string, ok bool) {
	m := measure.FindStringSubmatch(text)
	if m == nil {
		return "", false
	}
	return m[2], true
}

// span is where a number begins and ceases to be refused as it grows, to three digits.
func span(refused func(v float64) string) string {
	steps := []float64{-1000, -1, -0.001, 0, 0.001, 0.1, 1, 10, 100, 1000, 1e6}
	before := refused(steps[0])
	turns := []string{"refused " + strconv.Quote(before)}
	for i := 1; i < len(steps); i++ {
		low, high := steps[i-1], steps[i]
		after := refused(high)
		if after == before {
			continue
		}
		for high-low > max(1e-6, 1e-3*math.Abs(high)) {
			if mid := low + (high-low)/2; refused(mid) == before {
				low = mid
			} else {
				high = mid
			}
		}
		turns = append(turns, fmt.Sprintf("after %s: %q", strconv.FormatFloat(low, 'g', 3, 64), after))
		before = after
	}
	return strings.Join(turns, ", ")
}
