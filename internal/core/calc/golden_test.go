package calc_test

import (
	"fmt"
	"strconv"
	"strings"
	"testing"

	"valiantmule/internal/core/calc"
	"valiantmule/internal/golden"
)

// TestGolden holds every calculator's results from its examples: as they stand, with each
// optional value left out, with each number a quarter more, at its limits and past them.
func TestGolden(t *testing.T) {
	var text strings.Builder
	for _, c := range calc.All() {
		fmt.Fprintf(&text, "# %s\n", c.Name)
		given := map[string]string{}
		for _, k := range c.Keys {
			given[k.Name] = k.Example
		}
		write := func(label string) {
			var words []string
			for _, k := range c.Keys {
				if v := given[k.Name]; v != "" {
					words = append(words, k.Name+"="+v)
				}
			}
			results, err := c.Run(words)
			fmt.Fprintf(&text, "%s:", label)
			if err != nil {
				text.WriteString(" refused")
			}
			for _, r := range results {
				fmt.Fprintf(&text, " %s=%s", r.Key, shown(r.Value))
			}
			text.WriteString("\n")
		}
		write("examples")
		for _, k := range c.Keys {
			was := given[k.Name]
			if was != "" {
				given[k.Name] = ""
				write("without " + k.Name)
			}
			if k.Kind == calc.Number || k.Kind == calc.Whole {
				for _, v := range []float64{1.25 * number(was), k.Min, k.Max, k.Min - 1e-3, k.Max + 1e-3} {
					given[k.Name] = strconv.FormatFloat(v, 'f', -1, 64)
					if k.Kind == calc.Whole {
						given[k.Name] = strconv.Itoa(int(v))
					}
					write(k.Name + " " + given[k.Name])
				}
			}
			given[k.Name] = was
		}
	}
	golden.Held(t, "golden", text.String())
}

func number(text string) float64 {
	v, _ := strconv.ParseFloat(text, 64)
	return v
}

func shown(v any) string {
	switch v := v.(type) {
	case float64:
		return golden.Number(v)
	case []float64:
		words := make([]string, len(v))
		for i := range v {
			words[i] = golden.Number(v[i])
		}
		return strings.Join(words, ",")
	}
	return fmt.Sprint(v)
}
