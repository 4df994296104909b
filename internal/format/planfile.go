// Package format reads and writes what leaves the house: plan files.
package format

import (
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
)

// MaxPlanBytes bounds a plan file; a large real one is a tenth of it.
const MaxPlanBytes = 4 << 20

// ReadPlan reads a plan file. It refuses what it does not know: other formats
// and versions, unknown and doubled fields, values out of range. The error names
// the place in the document.
func ReadPlan(r io.Reader) (*plan.Plan, error) {
	data, head, err := readFile(r)
	if err != nil {
		return nil, err
	}
	file, err := planIn(data, head)
	if err != nil {
		return nil, err
	}
	return &file.Plan, nil
}

// PlanFile is a plan as it leaves the house, with the things that its lines are.
type PlanFile struct {
	plan.Plan
	Things []garage.Packed `json:"things,omitempty"`
}

// ReadAny reads a plan file or a bike file, whichever it is; the other is nil.
func ReadAny(r io.Reader) (file *PlanFile, bike *BikeFile, err error) {
	data, head, err := readFile(r)
	if err == nil && head.Format == BikeFormat {
		bike, err := bikeIn(data, head)
		return nil, &bike, err
	}
	if err == nil {
		file, err = planIn(data, head)
	}
	return file, nil, err
}

// fileHead is how every file starts.
type fileHead struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
}

func readFile(r io.Reader) (data []byte, head fileHead, err error) {
	if data, err = io.ReadAll(io.LimitReader(r, MaxPlanBytes+1)); err != nil {
		return nil, head, err
	}
	if len(data) > MaxPlanBytes {
		return nil, head, fmt.Errorf("the file is larger than %d MB: not a plan", MaxPlanBytes>>20)
	}
	return data, head, placed(json.Unmarshal(data, &head))
}

func planIn(data []byte, head fileHead) (_ *PlanFile, err error) {
	if head.Format != plan.Format {
		return nil, entry.Problem{Path: "format", What: fmt.Sprintf("is %q, want %q", head.Format, plan.Format)}
	}
	if head.Version == 1 {
		if data, err = upgraded(data); err != nil {
			return nil, placed(err)
		}
	} else if head.Version != plan.Version {
		return nil, entry.Problem{Path: "version", What: fmt.Sprintf("is %d; this program reads version %d", head.Version, plan.Version)}
	}
	p := new(PlanFile)
	if err := DecodeStrict(data, p); err != nil {
		return nil, err
	}
	if problems := append(p.Plan.Validate(), garage.ValidatePacked(p.Things)...); len(problems) > 0 {
		return nil, problems[0]
	}
	return p, nil
}

// WritePlan writes a plan file, with the things that its lines are, that ReadPlan reads back to the digit.
func WritePlan(w io.Writer, p *plan.Plan, things ...garage.Packed) error {
	return write(w, PlanFile{*p, things})
}

// EncodePlan is the document as it is stored, compact.
func EncodePlan(p *plan.Plan) ([]byte, error) { return json.Marshal(p, json.Deterministic(true)) }

// DecodePlan reads what EncodePlan wrote, now or in an earlier version. What in it cannot
// be read, or is not believed any more, is set aside, place by place, and named; the rest is there.
func DecodePlan(data []byte) (p *plan.Plan, aside []string, err error) {
	p = new(plan.Plan)
	if first.Match(data) {
		if data, err = upgraded(data); err != nil {
			return p, nil, placed(err)
		}
	}
	aside, err = decodeKept(data, p, func() { *p = plan.Plan{} })
	for _, problem := range p.SetAside() {
		aside = append(aside, problem.Error()+", counts as not said")
	}
	return p, aside, err
}

// mostAside is how many places are set aside at most.
const mostAside = 200

// decodeKept reads a stored document and takes out of it what cannot be read, until the
// rest can. Fresh empties what it is read into.
func decodeKept(data []byte, into any, fresh func()) (aside []string, err error) {
	for range mostAside {
		err := json.Unmarshal(data, into)
		var semantic *json.SemanticError
		if err == nil || !errors.As(err, &semantic) || semantic.JSONPointer == "" {
			return aside, placed(err)
		}
		fresh()
		aside = append(aside, placed(err).Error()+", set aside")
		if data, err = without(data, semantic.JSONPointer); err != nil {
			return aside, err
		}
	}
	return aside, errors.New("nothing of the document can be read")
}

// without is a document less what a pointer leads to.
func without(data []byte, at jsontext.Pointer) ([]byte, error) {
	var document any
	if err := json.Unmarshal(data, &document); err != nil {
		return nil, err
	}
	tokens := slices.Collect(at.Tokens())
	return json.Marshal(less(document, tokens), json.Deterministic(true))
}

func less(v any, tokens []string) any {
	switch v := v.(type) {
	case map[string]any:
		if len(tokens) == 1 {
			delete(v, tokens[0])
		} else if below, ok := v[tokens[0]]; ok {
			v[tokens[0]] = less(below, tokens[1:])
		}
	case []any:
		i, err := strconv.Atoi(tokens[0])
		if err != nil || i < 0 || i >= len(v) {
			return v
		}
		if len(tokens) == 1 {
			return slices.Delete(v, i, i+1)
		}
		v[i] = less(v[i], tokens[1:])
	}
	return v
}

// DecodeStrict reads JSON, refusing unknown fields.
func DecodeStrict(data []byte, into any) error {
	if err := json.Unmarshal(data, into, json.RejectUnknownMembers(true)); err != nil {
		return placed(err)
	}
	return nil
}

// FileName keeps what every file system takes.
func FileName(name, ending string) string {
	name = strings.Map(func(r rune) rune {
		if r < 128 && (unicode.IsLetter(r) || unicode.IsDigit(r)) {
			return unicode.ToLower(r)
		}
		return '-'
	}, name)
	if name = strings.Trim(name, "-"); name == "" {
		name = "plan"
	}
	return name + ending
}

// placed turns a JSON error into one line that names the place in the document.
func placed(err error) error {
	if err == nil {
		return nil
	}
	var syntax *jsontext.SyntacticError
	if errors.As(err, &syntax) {
		return entry.Problem{Path: entry.Cut(path(syntax.JSONPointer)), What: entry.Cut(fmt.Sprintf("%v (byte %d)", syntax.Err, syntax.ByteOffset))}
	}
	var semantic *json.SemanticError
	if errors.As(err, &semantic) {
		what := "does not belong there"
		if semantic.Err != nil {
			what = semantic.Err.Error()
		} else if semantic.JSONKind != 0 && semantic.GoType != nil {
			what = fmt.Sprintf("a JSON %s does not belong there", semantic.JSONKind)
		}
		return entry.Problem{Path: entry.Cut(path(semantic.JSONPointer)), What: entry.Cut(what)}
	}
	return err
}

var index = regexp.MustCompile(`\.(\d+)`)

// path writes a JSON pointer the way Validate names places: lines[3].part.mass.
func path(pointer jsontext.Pointer) string {
	if pointer == "" {
		return "the document"
	}
	var names []string
	for token := range pointer.Tokens() {
		names = append(names, token)
	}
	return strings.TrimPrefix(index.ReplaceAllString("."+strings.Join(names, "."), "[$1]"), ".")
}
