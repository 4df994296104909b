package schema

import (
	"reflect"
	"regexp"
	"strings"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
)

// closedLists are the words of each type that has no others.
var closedLists = map[reflect.Type]func() []string{
	reflect.TypeFor[sheet.Origin](): func() []string { return orNone(names(sheet.Origins())) },
	reflect.TypeFor[load.Place](): func() []string {
		return orNone(each(load.Spots(), func(s load.Spot) string { return string(s.Place) }))
	},
	reflect.TypeFor[terrain.Kind](): func() []string {
		return each(terrain.Grounds(), func(g terrain.Ground) string { return string(g.Kind) })
	},
	reflect.TypeFor[tyre.Style]():      func() []string { return values(parts.Styles()) },
	reflect.TypeFor[verdict.State]():   func() []string { return orNone(names(verdict.Points())) },
	reflect.TypeFor[plan.Bother]():     func() []string { return orNone(values(plan.Bothers())) },
	reflect.TypeFor[plan.Kit]():        func() []string { return orNone(values(plan.Kits())) },
	reflect.TypeFor[garage.State]():    func() []string { return orNone(values(garage.States())) },
	reflect.TypeFor[plan.Held]():       func() []string { return orNone(values(plan.Helds())) },
	reflect.TypeFor[plan.Weather]():    func() []string { return orNone(values(plan.Weathers())) },
	reflect.TypeFor[plan.Spanner]():    func() []string { return orNone(values(plan.Spanners())) },
	reflect.TypeFor[guard.Skill]():     func() []string { return orNone(values(plan.Skills())) },
	reflect.TypeFor[stance.Use]():      func() []string { return orNone(values(plan.SpringUses())) },
	reflect.TypeFor[plan.LineKind]():   func() []string { return append(values(plan.LineKinds()), string(plan.PartLine)) },
	reflect.TypeFor[plan.Need]():       func() []string { return names([]plan.Need{plan.Needed, plan.Wanted}) },
	reflect.TypeFor[plan.Decision]():   func() []string { return orNone(values(plan.Decisions())) },
	reflect.TypeFor[plan.Source]():     func() []string { return orNone(values(plan.Sources())) },
	reflect.TypeFor[plan.Sit]():        func() []string { return values(plan.Sits()) },
	reflect.TypeFor[plan.Side]():       func() []string { return values(plan.Sides()) },
	reflect.TypeFor[plan.When]():       func() []string { return values(plan.Whens()) },
	reflect.TypeFor[plan.BoxPlace]():   func() []string { return orNone(values(plan.BoxPlaces())) },
	reflect.TypeFor[plan.Meeting]():    func() []string { return values(plan.Meetings()) },
	reflect.TypeFor[plan.Certainty]():  func() []string { return values(plan.Certainties()) },
	reflect.TypeFor[calendar.Supply](): func() []string { return orNone(values(parts.Supplies())) },
	reflect.TypeFor[calendar.Place](): func() []string {
		return each(calendar.Places(), func(r calendar.PlaceRow) string { return string(r.Place) })
	},
	reflect.TypeFor[plan.FitBy]():         func() []string { return orNone(values(plan.FitBys()[1:])) },
	reflect.TypeFor[parts.Slot]():         func() []string { return each(parts.Kinds(), func(k parts.Kind) string { return string(k.Slot) }) },
	reflect.TypeFor[parts.Feed]():         func() []string { return orNone(values(parts.Feeds())) },
	reflect.TypeFor[parts.Use]():          func() []string { return orNone(values(parts.Uses())) },
	reflect.TypeFor[parts.FitVerdict]():   func() []string { return orNone(values(parts.FitVerdicts())) },
	reflect.TypeFor[parts.Figure]():       freeFigures,
	reflect.TypeFor[parts.Op]():           func() []string { return names([]parts.Op{parts.Set, parts.Add, parts.Scale}) },
	reflect.TypeFor[guard.Place]():        func() []string { return values(parts.Vulnerable()) },
	reflect.TypeFor[guard.Hazard]():       func() []string { return values(parts.Hazards()) },
	reflect.TypeFor[logbook.Kind]():       readingKinds,
	reflect.TypeFor[logbook.DistanceBy](): func() []string { return values(logbook.DistancesBy()) },
	reflect.TypeFor[baseline.Verdict](): func() []string {
		return each(baseline.Verdicts(), func(v baseline.VerdictInfo) string { return string(v.Verdict) })
	},
	reflect.TypeFor[baseline.Fate](): func() []string {
		return each(baseline.Fates(), func(f baseline.FateInfo) string { return string(f.Fate) })
	},
}

// readingKinds are what can be read, and its revocation.
func readingKinds() []string {
	return append(each(logbook.Kinds(), func(k logbook.KindInfo) string { return string(k.Kind) }), string(logbook.Revocation))
}

// freeFigures are those that an effect may move; the others follow from properties.
func freeFigures() []string {
	var list []string
	for _, f := range parts.Figures() {
		if f.Free {
			list = append(list, string(f.Figure))
		}
	}
	return list
}

// picks are words of a struct that a table has by their keys.
var picks = map[reflect.Type]map[string][]string{
	reflect.TypeFor[plan.Bike](): ofPicks(new(plan.Bike).Picks()),
	reflect.TypeFor[plan.Look](): {"id": values(plan.Looks())},
}

func ofPicks(list []entry.Pick) map[string][]string {
	words := map[string][]string{}
	for _, p := range list {
		words[p.Key] = orNone(values(p.Options))
	}
	return words
}

func values(options []entry.Option) []string {
	return each(options, func(o entry.Option) string { return o.Value })
}

func names[S ~string](list []S) []string {
	return each(list, func(s S) string { return string(s) })
}

func each[T any](list []T, name func(T) string) []string {
	words := make([]string, len(list))
	for i, t := range list {
		words[i] = name(t)
	}
	return words
}

// orNone is a list of words, or nothing said.
func orNone(words []string) []string { return append([]string{""}, words...) }

var inBrackets = regexp.MustCompile(`\[.*\.(\w+)\]$`)

// dimension is the name of a quantity's, "mass" of unit.Mass.
func dimension(t reflect.Type) string {
	if m := inBrackets.FindStringSubmatch(t.String()); m != nil {
		return m[1]
	}
	return defName(t)
}

// written is how a quantity is: a number and one of its units, in any case where two units
// are not told apart by it.
func written(t reflect.Type, q quantity) object {
	var symbols []string
	for _, u := range q.(interface{ Units() []unit.Unit }).Units() {
		for _, s := range append([]string{u.Symbol}, u.Names...) {
			symbols = append(symbols, anyCase(s))
		}
	}
	name := strings.ReplaceAll(dimension(t), "_", " ")
	return object{
		"type": "string", "pattern": `^\s*[+-]?([0-9]+[.,]?[0-9]*|[.,][0-9]+)\s*(` + strings.Join(symbols, "|") + `)\s*$`,
		"description": strings.ToUpper(name[:1]) + name[1:] + ". A number as typed, decimal point or comma, and its unit.", "examples": []string{q.Example()},
	}
}

// anyCase matches a symbol whichever way its letters are written.
func anyCase(symbol string) string {
	var b strings.Builder
	for _, r := range symbol {
		switch low, up := strings.ToLower(string(r)), strings.ToUpper(string(r)); {
		case low != up && len(low) == len(up):
			b.WriteString("[" + low + up + "]")
		default:
			b.WriteString(regexp.QuoteMeta(string(r)))
		}
	}
	return b.String()
}
