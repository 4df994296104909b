package desk

import (
	"net/url"
	"slices"
	"strings"
)

// conflictView is a field that was changed elsewhere since a page was opened.
type conflictView struct {
	Label, Before, Now, Typed string
	Both                      bool // changed here too: what was typed stands in the form
}

// merge puts what was typed on top of the plan as it is now, field by field. One
// that was not touched here takes what it is now; one that was keeps what was
// typed. Lists are merged by rows: those typed stay, those added elsewhere join
// them, those removed elsewhere go unless they were changed here.
func merge(was, now []FieldView, typed url.Values) (merged url.Values, conflicts []conflictView) {
	before, current := valuesOf(was), valuesOf(now)
	merged = url.Values{}
	for key, list := range typed {
		merged[key] = list
	}
	lists := map[string]bool{}
	for _, f := range slices.Concat(now, was) {
		if f.List != nil {
			if !lists[f.List.Name] {
				lists[f.List.Name] = true
				conflicts = append(conflicts, f.List.merge(before, current, merged)...)
			}
			continue
		}
		if lists[f.Key] {
			continue // seen in now already
		}
		lists[f.Key] = true
		b, n, t := before.Get(f.Key), current.Get(f.Key), strings.TrimSpace(typed.Get(f.Key))
		if b == n || n == t {
			continue // nobody else changed it, or both to the same
		}
		conflicts = append(conflicts, conflictView{f.Label, b, n, t, t != b})
		if t == b {
			merged.Set(f.Key, n)
		}
		if t == b && n == "" {
			merged.Del(f.Key) // a box that is not ticked is not sent
		}
	}
	return merged, conflicts
}

func valuesOf(fields []FieldView) url.Values {
	values := url.Values{}
	for _, f := range fields {
		values.Set(f.Key, f.Value)
	}
	return values
}

// List is a list of rows in a form: field names are a column's name and the
// row's number.
type List struct {
	Name    string
	Columns []string // the first two are what a blank row leaves empty
	Out     string   // column of the box that takes a row out, "" without one
}

// Fields of one row.
func (l *List) Fields(row int, values ...string) []FieldView {
	fields := make([]FieldView, len(values))
	for i, v := range values {
		fields[i] = FieldView{Key: RowKey(l.Columns[i], row), Value: v, List: l}
	}
	return fields
}

// rows of a form that are not blank and not taken out.
func (l *List) rows(values url.Values) [][]string {
	var rows [][]string
	for i := 0; values.Has(RowKey(l.Columns[0], i)); i++ {
		row := make([]string, len(l.Columns))
		for c, column := range l.Columns {
			row[c] = strings.TrimSpace(values.Get(RowKey(column, i)))
		}
		if (row[0] != "" || row[1] != "") && (l.Out == "" || !values.Has(RowKey(l.Out, i))) {
			rows = append(rows, row)
		}
	}
	return rows
}

// merge rewrites the list's rows in a form.
func (l *List) merge(before, current, form url.Values) []conflictView {
	was, now, typed := l.rows(before), l.rows(current), l.rows(form)
	if sameRows(was, now) || sameRows(now, typed) {
		return nil
	}
	var rows [][]string
	for _, row := range typed {
		if !hasRow(was, row) || hasRow(now, row) {
			rows = append(rows, row)
		}
	}
	for _, row := range now {
		if !hasRow(was, row) && !hasRow(typed, row) {
			rows = append(rows, row)
		}
	}
	for i := 0; form.Has(RowKey(l.Columns[0], i)); i++ {
		for _, column := range append(slices.Clone(l.Columns), l.Out) {
			form.Del(RowKey(column, i))
		}
	}
	for i, row := range rows {
		for c, column := range l.Columns {
			form.Set(RowKey(column, i), row[c])
		}
	}
	return []conflictView{{l.Name, rowsText(was), rowsText(now), rowsText(typed), !sameRows(was, typed)}}
}

func sameRows(a, b [][]string) bool { return slices.EqualFunc(a, b, slices.Equal) }

func hasRow(rows [][]string, row []string) bool {
	return slices.ContainsFunc(rows, func(r []string) bool { return slices.Equal(r, row) })
}

func rowsText(rows [][]string) string {
	words := make([]string, len(rows))
	for i, row := range rows {
		words[i] = strings.TrimSpace(row[0] + " " + row[1])
	}
	return strings.Join(words, ", ")
}
