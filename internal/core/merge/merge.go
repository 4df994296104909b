// Package merge puts two changes of one document together: three ways, member by member, so
// that what was changed on one side only is taken from there and what was changed on both is
// asked.
//
// A document is what JSON makes of it: map[string]any, []any, strings, numbers. The package
// knows nothing of what it says.
package merge

import (
	"maps"
	"reflect"
	"slices"
)

// Difference is a place in which two sides differ. A side that has nothing there is nil.
type Difference struct {
	Path              []string // names of members; in a list, what tells the row apart
	Was, Mine, Theirs any
	// Clash is set where both have changed it, each to something else.
	Clash bool
}

// taken reports whether it comes from their side: mine has not changed it, or both have.
func (d Difference) taken() bool { return d.Clash || reflect.DeepEqual(d.Was, d.Mine) }

// Rows says by which member of its rows a list is told apart, by the list's name: such a list
// is put together row by row. One of plain texts, by [Each], is put together text by text and
// has no order. Any other is one value.
type Rows map[string]string

// Each tells the rows of a list apart that are texts.
const Each = ""

// Three puts together what mine and theirs have become, both out of was. Where only one has
// changed something, that is in the result; where both have, theirs is, unless keep says so of
// the difference. The list is all in which mine and theirs differ, in the order of the names.
// Nothing that is given is written to, and the result may share with it.
func Three(was, mine, theirs any, rows Rows, keep func(Difference) bool) (merged any, list []Difference) {
	m := merger{rows: rows, keep: keep}
	merged = m.value(nil, was, mine, theirs)
	return merged, m.list
}

type merger struct {
	rows Rows
	keep func(Difference) bool
	list []Difference
}

func (m *merger) value(path []string, was, mine, theirs any) any {
	if reflect.DeepEqual(mine, theirs) {
		return mine
	}
	own, isMembers := mine.(map[string]any)
	other, areMembers := theirs.(map[string]any)
	if isMembers && areMembers {
		before, _ := was.(map[string]any)
		return m.members(path, before, own, other)
	}
	if len(path) > 0 {
		if key, ok := m.rows[path[len(path)-1]]; ok {
			before, okBefore := rowsBy(key, was)
			own, okOwn := rowsBy(key, mine)
			other, okOther := rowsBy(key, theirs)
			if okBefore && okOwn && okOther {
				return m.table(path, key, was, mine, theirs, before, own, other)
			}
		}
	}
	return m.one(path, was, mine, theirs)
}

// one is a value that is taken as a whole.
func (m *merger) one(path []string, was, mine, theirs any) any {
	d := Difference{Path: slices.Clone(path), Was: was, Mine: mine, Theirs: theirs}
	d.Clash = !reflect.DeepEqual(was, mine) && !reflect.DeepEqual(was, theirs)
	m.list = append(m.list, d)
	if !d.taken() || d.Clash && m.keep != nil && m.keep(d) {
		return mine
	}
	return theirs
}

func (m *merger) members(path []string, was, mine, theirs map[string]any) any {
	names := map[string]bool{}
	for name := range mine {
		names[name] = true
	}
	for name := range theirs {
		names[name] = true
	}
	merged := map[string]any{}
	for _, name := range slices.Sorted(maps.Keys(names)) {
		if v := m.value(append(path, name), was[name], mine[name], theirs[name]); v != nil {
			merged[name] = v
		}
	}
	return merged
}

// table puts rows together: mine in their order, then those that only theirs has; the other
// way about where mine has changed nothing.
func (m *merger) table(path []string, key string, was, mine, theirs any, before, own, other map[string]any) any {
	first, then := mine, theirs
	if reflect.DeepEqual(was, mine) {
		first, then = theirs, mine
	}
	var merged []any
	done := map[string]bool{}
	for _, row := range slices.Concat(list(first), list(then)) {
		id, _ := nameOf(key, row)
		if done[id] {
			continue
		}
		done[id] = true
		if v := m.value(append(path, id), before[id], own[id], other[id]); v != nil {
			merged = append(merged, v)
		}
	}
	if merged == nil {
		return nil
	}
	return merged
}

func list(v any) []any {
	l, _ := v.([]any)
	return l
}

// nameOf is what tells a row apart.
func nameOf(key string, row any) (string, bool) {
	if key == Each {
		id, ok := row.(string)
		return id, ok
	}
	members, _ := row.(map[string]any)
	id, ok := members[key].(string)
	return id, ok
}

// rowsBy are the rows of a list by what tells them apart; ok is false where that does not.
func rowsBy(key string, v any) (rows map[string]any, ok bool) {
	if _, isList := v.([]any); !isList && v != nil {
		return nil, false
	}
	rows = map[string]any{}
	for _, row := range list(v) {
		id, named := nameOf(key, row)
		if _, twice := rows[id]; !named || twice {
			return nil, false
		}
		rows[id] = row
	}
	return rows, true
}
