package plan

import (
	"errors"
	"fmt"
	"strings"

	"valiantmule/internal/core/unit"
)

// Gears are the ratios of a gearbox, first gear first, and the text they were
// typed as.
type Gears struct {
	text   string
	ratios []float64
}

// Ratios of the gears, first gear first.
func (g Gears) Ratios() []float64 { return g.ratios }

// First and Top are the ends of the gearbox, which has a gear when it is known.
func (g Gears) First() float64 { return g.ratios[0] }

// Top is the ratio of the highest gear.
func (g Gears) Top() float64 { return g.ratios[len(g.ratios)-1] }

// Known reports whether there are ratios.
func (g Gears) Known() bool { return len(g.ratios) > 0 }

// IsZero lets encoders leave a missing gearbox out.
func (g Gears) IsZero() bool { return !g.Known() }

// String is the text as typed.
func (g Gears) String() string { return g.text }

// Enter sets the gears from a form; the unit is unused. On an error nothing
// changes.
func (g *Gears) Enter(text, _ string) error {
	words := strings.FieldsFunc(text, func(r rune) bool { return r == ' ' || r == ';' || r == '/' })
	if len(words) == 0 {
		*g = Gears{}
		return nil
	}
	if len(words) > 8 {
		return fmt.Errorf("%d gears, want at most 8", len(words))
	}
	ratios := make([]float64, len(words))
	for i, w := range words {
		r, err := unit.Number(strings.TrimSuffix(w, ","))
		if err != nil {
			return fmt.Errorf("gear %d, %q: %w, want e.g. 2.75 1.75 1.31", i+1, w, err)
		}
		if r < 0.3 || r > 6 {
			return fmt.Errorf("gear %d: ratio %g outside 0.3–6", i+1, r)
		}
		if i > 0 && r >= ratios[i-1] {
			return errors.New("gear ratios must fall from first gear to top")
		}
		ratios[i] = r
	}
	g.text, g.ratios = strings.TrimSpace(text), ratios
	return nil
}

// MarshalText writes the text as typed.
func (g Gears) MarshalText() ([]byte, error) { return []byte(g.text), nil }

// UnmarshalText reads what MarshalText wrote.
func (g *Gears) UnmarshalText(b []byte) error { return g.Enter(string(b), "") }
