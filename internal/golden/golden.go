// Package golden holds numbers that are meant to stay against a file that a person reads
// as a diff when they move. The files are written anew by
//
//	go test ./internal/... -run Golden -update
package golden

import (
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write the golden files anew")

// Held compares a text with a file of testdata, line by line.
func Held(t *testing.T, name, text string) {
	t.Helper()
	HeldAt(t, filepath.Join("testdata", name), text)
}

// HeldAt is Held with a file anywhere.
func HeldAt(t *testing.T, path, text string) {
	t.Helper()
	if *update {
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
	}
	want, err := os.ReadFile(path)
	require.NoError(t, err)
	was, is := strings.Split(string(want), "\n"), strings.Split(text, "\n")
	heading := ""
	for i := range min(len(was), len(is)) {
		if strings.HasPrefix(is[i], "#") {
			heading = is[i]
		}
		require.Equal(t, was[i], is[i], "line %d of %s, under %q", i+1, path, heading)
	}
	assert.Len(t, is, len(was), path)
}

// Write writes a value as lines: its plain fields by name on one, and one for each
// element of the lists in it, the first six of them. What is zero is left out, and what
// lies behind a pointer is only named.
func Write(w *strings.Builder, name string, v any) { flat(w, name, reflect.ValueOf(v)) }

// most is how many elements of a list are written; a list says how long it is.
const most = 6

func flat(w *strings.Builder, path string, v reflect.Value) {
	if v.Kind() == reflect.Slice {
		fmt.Fprintf(w, "%s %d\n", path, v.Len())
		for i := range min(v.Len(), most) {
			flat(w, fmt.Sprintf("%s[%d]", path, i), v.Index(i))
		}
		return
	}
	w.WriteString(path)
	var lists []func()
	leaf(w, "", v, func(name string, list reflect.Value) {
		lists = append(lists, func() { flat(w, path+name, list) })
	})
	w.WriteString("\n")
	for _, write := range lists {
		write()
	}
}

// leaf writes the plain values of a value by their names and hands its lists on.
func leaf(w *strings.Builder, name string, v reflect.Value, list func(string, reflect.Value)) {
	if v.IsZero() || v.Kind() == reflect.Func {
		return
	}
	switch v.Kind() {
	case reflect.Float64:
		fmt.Fprintf(w, " %s=%s", strings.TrimPrefix(name, "."), Number(v.Float()))
	case reflect.Struct:
		if text, ok := v.Interface().(fmt.Stringer); ok {
			fmt.Fprintf(w, " %s=%s", strings.TrimPrefix(name, "."), text)
			return
		}
		for i := range v.NumField() {
			if field := v.Type().Field(i); field.IsExported() {
				leaf(w, name+"."+field.Name, v.Field(i), list)
			}
		}
	case reflect.Slice:
		list(name, v)
	case reflect.Pointer:
		if named := v.Elem().FieldByName("Name"); named.IsValid() {
			fmt.Fprintf(w, " %s=%s", strings.TrimPrefix(name, "."), named)
		}
	default:
		fmt.Fprintf(w, " %s=%v", strings.TrimPrefix(name, "."), v)
	}
}

// Number is a float to six digits: more than a rider sees, less than processors differ.
func Number(v float64) string { return strconv.FormatFloat(v, 'g', 6, 64) }
