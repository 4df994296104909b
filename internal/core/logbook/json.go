package logbook

import (
	"errors"
	"fmt"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// UnmarshalJSONFrom reads a reading; its kind says what lies under "read".
func (r *Reading) UnmarshalJSONFrom(dec *jsontext.Decoder) error {
	type plain Reading
	var head struct {
		plain
		Read jsontext.Value `json:"read"`
	}
	at := dec.StackPointer()
	if err := json.UnmarshalDecode(dec, &head); err != nil {
		return err
	}
	*r = Reading(head.plain)
	if head.Read == nil {
		return nil
	}
	info := infoOf(r.Kind)
	if info == nil {
		return &json.SemanticError{JSONPointer: at + "/kind", Err: fmt.Errorf("%q is not a kind of reading", r.Kind)}
	}
	r.Read = info.New()
	err := json.Unmarshal(head.Read, r.Read, dec.Options())
	var semantic *json.SemanticError
	if errors.As(err, &semantic) {
		semantic.JSONPointer = at + "/read" + semantic.JSONPointer
	}
	return err
}
