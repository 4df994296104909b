package packcsv

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/format/table"
)

// maxLines is more than anybody packs.
const maxLines = 2000

// measure is a number with a unit of mass or volume anywhere in a line.
var measure = regexp.MustCompile(`(?i)(?:^|[\s,;:(|–—-])(\d+(?:[.,]\d+)?)\s*(kg|g|lbs?|pounds?|oz|l|litres?|liters?|ml|cc)\b\)?`)

// bare is a number by itself.
var bare = regexp.MustCompile(`^\d+(?:[.,]\d+)?$`)

// Enter enters a number as its rider writes it, a bare one in the unit that they use for the
// metric one.
type Enter func(into entry.Entry, text, metric string) error

// IsTable reports whether a text is a table: its first row names a column for the things.
func IsTable(text []byte) bool {
	first, _, _ := strings.Cut(strings.TrimSpace(string(text)), "\n")
	for _, cell := range strings.FieldsFunc(first, func(r rune) bool { return strings.ContainsRune(",;\t", r) }) {
		name := strings.ToLower(strings.TrimSpace(cell))
		if name == columns[0].Name || slices.Contains(columns[0].Also, name) {
			return true
		}
	}
	return false
}

// Lines reads a list as one writes it: a thing a line, with its mass and volume behind it in
// any order. A line that ends with a colon is the bag or place of what follows. A line that
// names no measure is a thing that nobody has weighed.
func Lines(text string, bags Bags, enter Enter) ([]Row, error) {
	lines := strings.Split(text, "\n")
	if len(text) > table.MaxBytes || len(lines) > maxLines {
		return nil, fmt.Errorf("more than %d lines", maxLines)
	}
	var rows []Row
	into := plan.Load{Place: load.Tail}
	for i, line := range lines {
		line = strings.Trim(line, " \t\r-*•·")
		if line == "" {
			continue
		}
		if where, heading := strings.CutSuffix(line, ":"); heading {
			into = plan.Load{Place: load.Tail}
			if err := put(&into, strings.ToLower(strings.TrimSpace(where)), bags); err != nil {
				rows = append(rows, Row{Line: i + 1, Text: line, Err: err})
			}
			continue
		}
		row := Row{Line: i + 1, Text: line, Load: into}
		row.Err = read(&row.Load, line, enter)
		rows = append(rows, row)
	}
	if len(rows) == 0 {
		return nil, errors.New("there is nothing in it: a thing a line, “Tent 3.2 kg 9 L”")
	}
	return rows, nil
}

// read a line into a load: what it says of mass and volume, and the words that are left.
func read(l *plan.Load, line string, enter Enter) error {
	for _, found := range measure.FindAllStringSubmatch(line, -1) {
		number, symbol := found[1], strings.ToLower(found[2])
		switch symbol {
		case "l", "litre", "litres", "liter", "liters":
			symbol = "L"
		case "cc", "ml":
			symbol = "mL"
		case "kg", "g", "oz":
		default:
			symbol = "lb"
		}
		if err := measured(l, number+" "+symbol, symbol == "L" || symbol == "mL", enter); err != nil {
			return err
		}
	}
	var words []string
	for _, cell := range strings.FieldsFunc(measure.ReplaceAllString(line, ";"), func(r rune) bool { return strings.ContainsRune(";|\t", r) }) {
		for _, cell := range strings.Split(cell, ", ") {
			switch cell = strings.Trim(cell, " ,:()–—-"); {
			case cell == "":
			case bare.MatchString(cell) && words != nil: // without its unit: mass first, then volume
				if err := measured(l, cell, l.Mass.Known(), enter); err != nil {
					return err
				}
			default:
				words = append(words, cell)
			}
		}
	}
	if l.Name = strings.Join(words, ", "); l.Name == "" {
		return errors.New("say what it is")
	}
	return valid(*l)
}

// measured enters what is told of a load's mass or volume, two of a mass as one: 2 lb 3 oz.
func measured(l *plan.Load, text string, volume bool, enter Enter) error {
	if volume {
		return enter(&l.Volume, text, "L")
	}
	if !l.Mass.Known() {
		return enter(&l.Mass, text, "kg")
	}
	var more unit.Mass
	if err := enter(&more, text, "kg"); err != nil {
		return err
	}
	return l.Mass.Enter(fmt.Sprintf("%.6g", l.Mass.In("kg")+more.In("kg")), "kg")
}
