package plan_test

import (
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// TestEveryTextIsBounded: whatever a plan says in words, a text of some megabytes is refused
// where it stands, in a few words.
func TestEveryTextIsBounded(t *testing.T) {
	p, huge, texts := new(plan.Plan), strings.Repeat("long ", 500_000), 0
	// tried makes a text huge; a problem that was not there before says so.
	tried := func(path string, put, back func()) {
		before := map[entry.Problem]bool{}
		for _, problem := range p.Validate() {
			before[problem] = true
		}
		put()
		defer back()
		fresh := 0
		for _, problem := range p.Validate() {
			if !before[problem] {
				fresh++
			}
			assert.Less(t, len(problem.Error()), 700, path)
		}
		assert.Positive(t, fresh, path)
		texts++
	}
	var visit func(v reflect.Value, path string)
	visit = func(v reflect.Value, path string) {
		switch v.Kind() {
		case reflect.String:
			was := v.String()
			v.SetString("x")
			tried(path, func() { v.SetString(huge) }, func() { v.SetString(was) })
		case reflect.Pointer:
			was := reflect.ValueOf(v.Interface())
			v.Set(reflect.New(v.Type().Elem()))
			visit(v.Elem(), path)
			v.Set(was)
		case reflect.Slice:
			v.Set(reflect.MakeSlice(v.Type(), 1, 1))
			switch of := v.Index(0).Addr().Interface().(type) { // without which nothing else of it is looked at
			case *plan.Line:
				of.Kind, of.Part = plan.PartLine, new(parts.Part)
			case *plan.Answer:
				of.Verdict = baseline.Good
			}
			visit(v.Index(0), path+"[]")
			v.SetZero()
		case reflect.Struct:
			for i := range v.NumField() {
				field := v.Type().Field(i)
				if name, _, _ := strings.Cut(field.Tag.Get("json"), ","); field.IsExported() && name != "-" && !(name == "kit" && strings.Contains(path, "kit")) { // a box in a box is refused whole
					visit(v.Field(i), path+"."+name)
				}
			}
		case reflect.Map:
			if v.Type().Elem().Kind() != reflect.String {
				return
			}
			for _, pair := range [][2]string{{"word", huge}, {huge, "word"}} {
				tried(path+"[]", func() {
					v.Set(reflect.MakeMap(v.Type()))
					v.SetMapIndex(reflect.ValueOf(pair[0]).Convert(v.Type().Key()), reflect.ValueOf(pair[1]).Convert(v.Type().Elem()))
				}, v.SetZero)
			}
		}
	}
	visit(reflect.ValueOf(p).Elem(), "")
	assert.Greater(t, texts, 150)
}
