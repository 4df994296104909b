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
	if string(want) == text {
		return
	}
	assert.Fail(t, "the golden file "+path+" says otherwise", "%s\nRead it as a diff; -run Golden -update writes the file anew.", Diff(string(want), text))
}

// Diff is all lines that two texts differ in, those of the first after a minus, those of the
// second after a plus, under the number of the line in the first and the heading above it.
func Diff(first, second string) string {
	a, b := strings.Split(first, "\n"), strings.Split(second, "\n")
	head := 0
	for head < min(len(a), len(b)) && a[head] == b[head] {
		head++
	}
	tail := 0
	for tail < min(len(a), len(b))-head && a[len(a)-1-tail] == b[len(b)-1-tail] {
		tail++
	}
	heading := ""
	for _, line := range a[:head] {
		if strings.HasPrefix(line, "#") {
			heading = line
		}
	}
	var text strings.Builder
	apart := true // from the change before
	say := func(sign string, at int, line string) {
		if apart {
			fmt.Fprintf(&text, "line %d, under %q\n", at+1, heading)
		}
		apart = false
		fmt.Fprintln(&text, sign+line)
	}
	x, y := a[head:len(a)-tail], b[head:len(b)-tail]
	same := common(x, y)
	i, j := 0, 0
	for i < len(x) || j < len(y) {
		switch {
		case i < len(x) && j < len(y) && x[i] == y[j]:
			if strings.HasPrefix(x[i], "#") {
				heading = x[i]
			}
			i, j, apart = i+1, j+1, true
		case j == len(y) || i < len(x) && same[i+1][j] >= same[i][j+1]:
			say("-", head+i, x[i])
			i++
		default:
			say("+", head+i, y[j])
			j++
		}
	}
	return text.String()
}

// common is how many lines two texts have in common from each pair of places on, in order.
func common(a, b []string) [][]int32 {
	lengths := make([][]int32, len(a)+1)
	for i := range lengths {
		lengths[i] = make([]int32, len(b)+1)
	}
	for i := len(a) - 1; i >= 0; i-- {
		for j := len(b) - 1; j >= 0; j-- {
			if lengths[i][j] = max(lengths[i+1][j], lengths[i][j+1]); a[i] == b[j] {
				lengths[i][j] = lengths[i+1][j+1] + 1
			}
		}
	}
	return lengths
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
	case reflect.Interface: // told apart by a kind beside it
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
