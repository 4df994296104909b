package studytest

import (
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/golden"
)

// Edges holds where the rules and needs of a study change their mind: of each number
// among the facts of a scene, with everything else as it is, the value at which each of
// them does, and on which side of it that value itself is. testdata/edges is the file: a
// limit that is moved, turned round or made to include its own value shows there.
func Edges(t *testing.T, s study.Study) {
	t.Helper()
	b := New(t)
	found := map[string]bool{}
	for _, scene := range Scenes(b) {
		loadouts := eval.Evaluate(scene.Plan, b.Shelf, Today).Loadouts
		edges(t, loadouts[len(loadouts)-1].Facts, opinions(s), found)
	}
	golden.Held(t, "edges", sorted(found))
}

func sorted(lines map[string]bool) string {
	return strings.Join(slices.Sorted(maps.Keys(lines)), "\n") + "\n"
}

// edges puts a line for each number at which an opinion changes into found.
func edges(t testing.TB, known *facts.All, opinions []opinion, found map[string]bool) {
	for _, minds := range opinions {
		all := deep(reflect.ValueOf(known).Elem())
		f := all.Addr().Interface().(*facts.All)
		try := func(path string, was float64, set func(v float64)) {
			for _, line := range turns(func(v float64) string { set(v); return minds.of(f) }, was) {
				found[minds.id+": "+path+" "+line] = true
			}
		}
		numbers(all, "", func(path string, at reflect.Value) {
			was := at.Float()
			try(path, was, at.SetFloat)
			at.SetFloat(was)
		})
		figured := f.Figured
		for _, id := range minds.figures {
			read := figured(id)
			f.Figured = func(other figure.ID) facts.Figured {
				if other == id {
					return read
				}
				return figured(other)
			}
			was := read
			for _, state := range []verdict.State{verdict.OK, verdict.Watch, verdict.Over, verdict.Stop, verdict.Unknown} {
				read.State = state
				found[fmt.Sprintf("%s: where %s is %s %s", minds.id, id, state, minds.of(f))] = true
			}
			read = was
			try(string(id), read.Value, func(v float64) { read.Value = v })
			read = was
			try(string(id)+" limit", read.Limit, func(v float64) { read.Limit = v })
		}
		f.Figured = figured
		for _, in := range inputs(f) {
			number, ok := in.Entry.(interface{ In(unit string) float64 })
			if !ok {
				continue
			}
			was := in.Entry.String()
			try(in.Key, number.In(in.Unit), func(v float64) { Enter(t, in.Entry, strconv.FormatFloat(v, 'f', -1, 64), in.Unit) })
			Enter(t, in.Entry, was, in.Unit)
		}
	}
}

// opinion is a rule or a need, and what it says of facts in a word.
type opinion struct {
	id      string
	of      func(f *facts.All) string
	figures []figure.ID // that it reads
}

func opinions(s study.Study) []opinion {
	var list []opinion
	for _, r := range s.Rules {
		list = append(list, opinion{r.ID, func(f *facts.All) string {
			finding, ok := r.Judge(f)
			switch {
			case !ok:
				return "silent"
			case finding.Day:
				return "of the day"
			case finding.Small:
				return "small"
			}
			return string(finding.State)
		}, r.Figures})
	}
	for _, n := range s.Needs {
		list = append(list, opinion{n.ID, func(f *facts.All) string {
			need, ok := n.Ask(f)
			switch {
			case !ok:
				return "not asked"
			case need.Met:
				return "met"
			}
			return "short"
		}, n.Figures})
	}
	return list
}

// ladder is where a number is looked at for a change: in multiples of what it is, and
// where numbers of the trade lie.
var (
	multiples = []float64{-1, 0.3, 0.8, 1, 1.25, 3}
	places    = []float64{0, 0.02, 0.2, 0.5, 1, 2, 4, 8, 20, 60, 110, 300}
)

// inputs are the numbers that the rider typed about bike and trip, in copies that facts
// then stand on.
func inputs(f *facts.All) []entry.Field {
	p := *f.Plan
	f.Plan = &p
	p.Brief.Terrain = slices.Clone(p.Brief.Terrain)
	fields := p.Brief.Fields()
	for i := range p.Brief.Terrain {
		s := &p.Brief.Terrain[i]
		fields = append(fields, entry.Field{Key: "share of " + string(s.Ground), Unit: "%", Entry: &s.Share})
	}
	if f.Built == nil {
		return fields
	}
	bike, built, standard := *p.Bike, *f.Built, *f.Standard
	built.Bike, standard.Bike, p.Bike = &bike, &bike, &bike
	f.Built, f.Standard = &built, &standard
	return append(fields, bike.Fields()...)
}

// turns are the values of a number at which a word about it changes.
func turns(word func(v float64) string, was float64) []string {
	var steps []float64
	if !math.IsNaN(was) {
		for _, m := range multiples {
			steps = append(steps, m*was)
		}
	}
	steps = append(steps, places...)
	slices.Sort(steps)
	var lines []string
	before := word(steps[0])
	for i := 1; i < len(steps); i++ {
		low, high := steps[i-1], steps[i]
		after := word(high)
		if before == after {
			continue
		}
		for {
			mid := low + (high-low)/2
			if mid <= low || mid >= high {
				break
			}
			if word(mid) == before {
				low = mid
			} else {
				high = mid
			}
		}
		lines = append(lines, edge(low, high, before, word(high)))
		before = after
	}
	return lines
}

// edge words a change between two neighbouring numbers. A limit that is a round number is
// on one of its sides; of one that is worked out, processors may differ in the last digit.
func edge(low, high float64, before, after string) string {
	const nothing = 1e-9
	switch {
	case math.Abs(low) < nothing && math.Abs(high) < nothing:
		return fmt.Sprintf("%s to 0, then %s", before, after)
	case round(low):
		return fmt.Sprintf("%s up to and with %v, then %s", before, low, after)
	case round(high):
		return fmt.Sprintf("%s below %v, from it on %s", before, high, after)
	}
	return fmt.Sprintf("%s to about %s, then %s", before, golden.Number(low), after)
}

func round(v float64) bool { return len(strconv.FormatFloat(math.Abs(v), 'f', -1, 64)) <= 7 }

// deep is a copy that can be set, lists and all; what lies behind pointers is shared.
func deep(v reflect.Value) reflect.Value {
	copied := reflect.New(v.Type()).Elem()
	copied.Set(v)
	var unshare func(v reflect.Value)
	unshare = func(v reflect.Value) {
		switch v.Kind() {
		case reflect.Struct:
			for i := range v.NumField() {
				if v.Type().Field(i).IsExported() {
					unshare(v.Field(i))
				}
			}
		case reflect.Slice:
			if v.IsNil() || v.Type().Elem().Kind() == reflect.Pointer {
				return
			}
			own := reflect.MakeSlice(v.Type(), v.Len(), v.Len())
			reflect.Copy(own, v)
			v.Set(own)
			for i := range v.Len() {
				unshare(v.Index(i))
			}
		}
	}
	unshare(copied)
	return copied
}

// numbers visits each float in a value, in lists the first three elements.
func numbers(v reflect.Value, path string, visit func(path string, at reflect.Value)) {
	const most = 3
	switch v.Kind() {
	case reflect.Float64:
		visit(strings.TrimPrefix(path, "."), v)
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				numbers(v.Field(i), path+"."+v.Type().Field(i).Name, visit)
			}
		}
	case reflect.Slice, reflect.Array:
		for i := range min(v.Len(), most) {
			numbers(v.Index(i), fmt.Sprintf("%s[%d]", path, i), visit)
		}
	}
}
