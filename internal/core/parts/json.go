package parts

import (
	"errors"
	"fmt"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// MarshalJSONTo writes an object of what is known, each under its property's key.
func (h Properties) MarshalJSONTo(enc *jsontext.Encoder) error {
	if err := enc.WriteToken(jsontext.BeginObject); err != nil {
		return err
	}
	for _, p := range h.held {
		if err := enc.WriteToken(jsontext.String(p.key)); err != nil {
			return err
		}
		if err := json.MarshalEncode(enc, p.value); err != nil {
			return err
		}
	}
	return enc.WriteToken(jsontext.EndObject)
}

// UnmarshalJSONFrom reads what MarshalJSONTo wrote. The key says what its value is; whether
// parts of the kind have it is for validation to say.
func (h *Properties) UnmarshalJSONFrom(dec *jsontext.Decoder) error {
	if dec.PeekKind() != jsontext.BeginObject.Kind() {
		return errors.New("want an object of properties")
	}
	if _, err := dec.ReadToken(); err != nil {
		return err
	}
	var list []held
	for dec.PeekKind() != jsontext.EndObject.Kind() {
		name, err := dec.ReadToken()
		if err != nil {
			return err
		}
		key := name.String()
		is, ok := properties[key]
		if !ok {
			return &json.SemanticError{JSONPointer: dec.StackPointer(), Err: fmt.Errorf("%q is no property of any kind of part", key)}
		}
		v := is.blank()
		if err := json.UnmarshalDecode(dec, v); err != nil {
			return err
		}
		if v.Known() {
			list = append(list, held{is.Key, v, moving[is.Key]})
		}
	}
	*h = holding(list)
	_, err := dec.ReadToken()
	return err
}
