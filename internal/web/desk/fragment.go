package desk

import (
	"bytes"
	"html/template"
	"net/http"
	"slices"
	"strings"
)

// PartsHeader names the parts of a page that a request is after, by their ids and
// with commas between; without it the answer is the whole page.
const PartsHeader = "Mule-Parts"

// maxParts bounds what one request may name: more than any page has.
const maxParts = 12

// fragment are ids of the parts that a request is after, none for the whole page.
type fragment []string

func fragmentOf(r *http.Request) fragment {
	named := r.Header.Get(PartsHeader)
	if named == "" {
		return nil
	}
	ids := strings.SplitN(named, ",", maxParts+1)
	if len(ids) > maxParts {
		return nil
	}
	slices.Sort(ids)
	return slices.Compact(ids)
}

// wants reports whether a part is asked for, alone or with what it is in.
func (f fragment) wants(id string) bool {
	return len(f) == 0 || slices.Contains(f, id) || (!slices.Contains(around, id) && slices.Contains(f, "main"))
}

// around main stand these; all other parts are in it.
var around = []string{"strip", "rail", "bench"}

// partOf is the template of a part: that name with its id, given the whole frame.
func partOf(page *template.Template, id string) *template.Template { return page.Lookup("part-" + id) }

// execute writes a page, or only the parts of it that are asked for. One that this page
// has not is left out: nothing was computed for it.
func (f fragment) execute(out *bytes.Buffer, page *template.Template, frame Frame) error {
	if len(f) == 0 || frame.Plan == nil {
		return page.Execute(out, frame)
	}
	for _, id := range f {
		part := partOf(page, id)
		if part == nil {
			continue
		}
		if err := part.Execute(out, frame); err != nil {
			return err
		}
	}
	return nil
}
