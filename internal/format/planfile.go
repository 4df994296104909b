// Package format reads and writes what leaves the house: plan files.
package format

import (
	"errors"
	"fmt"
	"io"
	"regexp"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"valiantmule/internal/core/plan"
)

// MaxPlanBytes bounds a plan file; a large real one is a tenth of it.
const MaxPlanBytes = 4 << 20

// ReadPlan reads a plan file. It refuses what it does not know: other formats
// and versions, unknown and doubled fields, values out of range. The error names
// the place in the document.
func ReadPlan(r io.Reader) (*plan.Plan, error) {
	data, err := io.ReadAll(io.LimitReader(r, MaxPlanBytes+1))
	if err != nil {
		return nil, err
	}
	if len(data) > MaxPlanBytes {
		return nil, fmt.Errorf("the file is larger than %d MB: not a plan", MaxPlanBytes>>20)
	}
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := json.Unmarshal(data, &head); err != nil {
		return nil, placed(err)
	}
	if head.Format != plan.Format {
		return nil, plan.Problem{Path: "format", What: fmt.Sprintf("is %q, want %q", head.Format, plan.Format)}
	}
	if head.Version != plan.Version {
		return nil, plan.Problem{Path: "version", What: fmt.Sprintf("is %d; this program reads version %d", head.Version, plan.Version)}
	}
	p := new(plan.Plan)
	if err := json.Unmarshal(data, p, json.RejectUnknownMembers(true)); err != nil {
		return nil, placed(err)
	}
	if problems := p.Validate(); len(problems) > 0 {
		return nil, problems[0]
	}
	return p, nil
}

// WritePlan writes a plan file that ReadPlan reads back to the digit.
func WritePlan(w io.Writer, p *plan.Plan) error {
	if err := json.MarshalWrite(w, p, jsontext.WithIndent("  "), json.Deterministic(true)); err != nil {
		return err
	}
	_, err := io.WriteString(w, "\n")
	return err
}

// EncodePlan is the document as it is stored, compact.
func EncodePlan(p *plan.Plan) ([]byte, error) { return json.Marshal(p, json.Deterministic(true)) }

// DecodePlan reads what EncodePlan wrote.
func DecodePlan(data []byte) (*plan.Plan, error) {
	p := new(plan.Plan)
	if err := json.Unmarshal(data, p); err != nil {
		return nil, placed(err)
	}
	return p, nil
}

// DecodeStrict reads a catalogue's piece of JSON, refusing unknown fields.
func DecodeStrict(data []byte, into any) error {
	if err := json.Unmarshal(data, into, json.RejectUnknownMembers(true)); err != nil {
		return placed(err)
	}
	return nil
}

// placed turns a JSON error into one line that names the place in the document.
func placed(err error) error {
	var syntax *jsontext.SyntacticError
	if errors.As(err, &syntax) {
		return plan.Problem{Path: path(syntax.JSONPointer), What: fmt.Sprintf("%v (byte %d)", syntax.Err, syntax.ByteOffset)}
	}
	var semantic *json.SemanticError
	if errors.As(err, &semantic) {
		what := "does not belong there"
		if semantic.Err != nil {
			what = semantic.Err.Error()
		} else if semantic.JSONKind != 0 && semantic.GoType != nil {
			what = fmt.Sprintf("a JSON %s does not belong there", semantic.JSONKind)
		}
		return plan.Problem{Path: path(semantic.JSONPointer), What: what}
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
