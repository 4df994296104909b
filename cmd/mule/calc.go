package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"valiantmule/internal/core/calc"
)

// calculate runs one calculator and prints one JSON object.
func calculate(args []string, out io.Writer) error {
	if len(args) == 0 {
		return errUse{"calc: no calculator named; mule calc -help lists them"}
	}
	if strings.TrimLeft(args[0], "-") == "help" || args[0] == "-h" {
		return calcHelp(out)
	}
	c, err := calc.Find(args[0])
	if err != nil {
		return errUse{"calc: " + err.Error()}
	}
	results, err := c.Run(args[1:])
	if err != nil {
		return errUse{fmt.Sprintf("calc %s: %v", c.Name, err)}
	}
	return writeObject(out, results)
}

// writeObject keeps the results in their order.
func writeObject(out io.Writer, results []calc.Result) error {
	enc := jsontext.NewEncoder(out)
	if err := enc.WriteToken(jsontext.BeginObject); err != nil {
		return err
	}
	for _, r := range results {
		if err := enc.WriteToken(jsontext.String(r.Key)); err != nil {
			return err
		}
		if err := json.MarshalEncode(enc, r.Value); err != nil {
			return err
		}
	}
	return enc.WriteToken(jsontext.EndObject)
}

func calcHelp(out io.Writer) error {
	var b strings.Builder
	b.WriteString("usage: mule calc NAME key=value …\n")
	for _, c := range calc.All() {
		fmt.Fprintf(&b, "\n%s: %s\n", c.Name, c.Title)
		for _, k := range c.Keys {
			limits := ""
			if k.Kind != calc.Text {
				limits = strings.TrimSpace(fmt.Sprintf("%g–%g %s", k.Min, k.Max, k.Unit))
			}
			if k.Optional {
				limits += " (optional)"
			}
			fmt.Fprintf(&b, "  %-24s %-24s %s\n", k.Name, limits, k.Help)
		}
	}
	_, err := io.WriteString(out, b.String())
	return err
}
