package format

import (
	"slices"

	"github.com/go-json-experiment/json"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/plan"
)

// EncodeThing is a part of a rider's own as it is stored.
func EncodeThing(t garage.Thing) ([]byte, error) { return json.Marshal(t, json.Deterministic(true)) }

// DecodeThing reads what EncodeThing wrote, now or earlier. What in it is not believed any more counts as
// not said.
func DecodeThing(document []byte) (t garage.Thing, err error) {
	if _, err = decodeKept(document, &t, func() { t = garage.Thing{} }); err == nil && t.Part != nil {
		t.Part, _ = t.Part.Aside("part")
	}
	return t, err
}

// EncodeEvent is what happened to a thing as it is stored, without what stands beside it.
func EncodeEvent(e garage.Event) ([]byte, error) {
	e.ID, e.Act, e.Thing, e.Bike = "", "", "", ""
	return json.Marshal(e, json.Deterministic(true))
}

// CountedOn are the things on which a stored plan counts that are not on its bike yet; none where nobody
// can read it.
func CountedOn(document []byte) []string {
	var p struct {
		Lines []struct {
			Thing    string        `json:"thing"`
			Decision plan.Decision `json:"decision"`
		} `json:"lines"`
	}
	if err := json.Unmarshal(document, &p); err != nil {
		return nil
	}
	var list []string
	for _, l := range p.Lines {
		is := plan.Line{Decision: l.Decision}
		if l.Thing != "" && is.Standing() == plan.In && l.Decision != plan.OnTheBike && !slices.Contains(list, l.Thing) {
			list = append(list, l.Thing)
		}
	}
	return list
}
