package format

import (
	"fmt"
	"io"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
)

// BikeFormat and BikeVersion head every bike file.
const (
	BikeFormat  = "valiant-mule-bike"
	BikeVersion = 1
)

// BikeFile is a bike by itself: what is known of it whatever trip is planned, and what was
// read off it.
type BikeFile struct {
	Format   string `json:"format"`
	Version  int    `json:"version"`
	Currency string `json:"currency" is:"currency"` // ISO 4217; of amounts that are typed without one
	plan.Machine
	Things []garage.Packed `json:"things,omitempty"` // that are on it
}

// ReadBike reads a bike file; it refuses what [ReadPlan] would refuse of a plan's.
func ReadBike(r io.Reader) (BikeFile, error) {
	data, head, err := readFile(r)
	if err != nil {
		return BikeFile{}, err
	}
	return bikeIn(data, head)
}

func bikeIn(data []byte, head fileHead) (file BikeFile, err error) {
	switch {
	case head.Format != BikeFormat:
		return file, entry.Problem{Path: "format", What: fmt.Sprintf("is %q, want %q", head.Format, BikeFormat)}
	case head.Version != BikeVersion:
		return file, entry.Problem{Path: "version", What: fmt.Sprintf("is %d; this program reads version %d", head.Version, BikeVersion)}
	}
	if err := DecodeStrict(data, &file); err != nil {
		return file, err
	}
	switch {
	case file.Bike == nil:
		return file, entry.Problem{Path: "bike", What: "is missing"}
	case !money.Valid(file.Currency):
		return file, entry.Problem{Path: "currency", What: fmt.Sprintf("%q is not an ISO 4217 code, want e.g. EUR", entry.Cut(file.Currency))}
	}
	if problems := append(file.Machine.Validate(), garage.ValidatePacked(file.Things)...); len(problems) > 0 {
		return file, problems[0]
	}
	return file, nil
}

// WriteBike writes a bike file of a plan's machine, with the things that are on it, that ReadBike reads back to the
// digit.
func WriteBike(w io.Writer, p *plan.Plan, things ...garage.Packed) error {
	return write(w, BikeFile{BikeFormat, BikeVersion, p.Currency, p.Machine, things})
}

// EncodeBike is a plan's machine as it is stored, compact, without what was read off it.
func EncodeBike(p *plan.Plan) ([]byte, error) {
	return json.Marshal(BikeFile{BikeFormat, BikeVersion, p.Currency, p.Machine.Bare(), nil}, json.Deterministic(true))
}

// DecodeBike reads what EncodeBike wrote, now or earlier, as DecodePlan reads a plan: one of
// the machine alone.
func DecodeBike(data []byte) (p *plan.Plan, aside []string, err error) {
	var file BikeFile
	aside, err = decodeKept(data, &file, func() { file = BikeFile{} })
	for _, problem := range file.Machine.SetAside() {
		aside = append(aside, problem.Error()+", counts as not said")
	}
	return file.Machine.Alone(file.Currency), aside, err
}

// MachineOf is the machine in a stored plan; what cannot be read of it is left out.
func MachineOf(document []byte) (m plan.Machine, err error) {
	if first.Match(document) {
		p, _, err := DecodePlan(document)
		return p.Machine, err
	}
	_, err = decodeKept(document, &m, func() { m = plan.Machine{} })
	m.SetAside()
	return m, err
}

func write(w io.Writer, v any) error {
	if err := json.MarshalWrite(w, v, jsontext.WithIndent("  "), json.Deterministic(true)); err != nil {
		return err
	}
	_, err := io.WriteString(w, "\n")
	return err
}
