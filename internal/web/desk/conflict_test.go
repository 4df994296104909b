package desk

import (
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
)

func field(key, value string) FieldView { return FieldView{Key: key, Label: key, Value: value} }

func TestMergeFields(t *testing.T) {
	for _, c := range []struct {
		name, was, now, typed string
		merged                string
		conflicts             []conflictView
	}{
		{"nobody changed it", "a", "a", "a", "a", nil},
		{"here only", "a", "a", "b", "b", nil},
		{"there only", "a", "b", "a", "b", []conflictView{{"x", "a", "b", "a", false}}},
		{"both to the same", "a", "b", "b", "b", nil},
		{"both apart", "a", "b", "c", "c", []conflictView{{"x", "a", "b", "c", true}}},
		{"emptied there", "a", "", "a", "", []conflictView{{"x", "a", "", "a", false}}},
		{"emptied here, changed there", "a", "b", "", "", []conflictView{{"x", "a", "b", "", true}}},
	} {
		merged, conflicts := merge([]FieldView{field("x", c.was)}, []FieldView{field("x", c.now)}, url.Values{"x": {c.typed}, "base": {"r1"}})
		assert.Equal(t, c.merged, merged.Get("x"), c.name)
		assert.Equal(t, c.conflicts, conflicts, c.name)
		assert.Equal(t, "r1", merged.Get("base"), "what is no field stays")
	}
}

func TestMergeUnticks(t *testing.T) {
	merged, _ := merge([]FieldView{Checked("x", "x", true)}, []FieldView{Checked("x", "x", false)}, url.Values{"x": {"on"}})
	assert.False(t, merged.Has("x"), "a box that was unticked elsewhere is not sent")
}

func TestMergeLists(t *testing.T) {
	rows := &List{Name: "Rows", Columns: []string{"name", "mass"}, Out: "out"}
	fields := func(names ...string) (all []FieldView) {
		for i, name := range names {
			all = append(all, rows.Fields(i, name, "1 kg")...)
		}
		return append(all, rows.Fields(len(names), "", "")...) // a blank row for another
	}
	for _, c := range []struct {
		name             string
		was, now, typed  []string
		merged           []string
		conflicts, touch bool
	}{
		{"here only", []string{"a", "b"}, []string{"a", "b"}, []string{"a", "b", "c"}, []string{"a", "b", "c"}, false, false},
		{"there only", []string{"a", "b"}, []string{"b", "d"}, []string{"a", "b"}, []string{"b", "d"}, true, false},
		{"added on both sides", []string{"a"}, []string{"a", "d"}, []string{"a", "c"}, []string{"a", "c", "d"}, true, true},
		{"changed here, removed there", []string{"a", "b"}, []string{"b"}, []string{"a2", "b"}, []string{"a2", "b"}, true, true},
		{"the same added on both sides", []string{"a"}, []string{"a", "c"}, []string{"a", "c"}, []string{"a", "c"}, false, false},
	} {
		merged, conflicts := merge(fields(c.was...), fields(c.now...), valuesOf(fields(c.typed...)))
		var names []string
		for _, row := range rows.rows(merged) {
			names = append(names, row[0])
		}
		assert.Equal(t, c.merged, names, c.name)
		assert.Equal(t, c.conflicts, len(conflicts) == 1, c.name)
		if c.conflicts {
			assert.Equal(t, c.touch, conflicts[0].Both, c.name)
		}
	}
}

func TestMergeTakesOutRows(t *testing.T) {
	rows := &List{Name: "Rows", Columns: []string{"name", "mass"}, Out: "out"}
	was := rows.Fields(0, "a", "1 kg")
	now := append(rows.Fields(0, "a", "1 kg"), rows.Fields(1, "d", "2 kg")...)
	typed := valuesOf(was)
	typed.Set("out.0", "on")
	merged, _ := merge(was, now, typed)
	assert.Equal(t, [][]string{{"d", "2 kg"}}, rows.rows(merged), "taken out here, another added there")
}
