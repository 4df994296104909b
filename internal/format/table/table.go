// Package table reads tables that people bring as CSV: the first row names the
// columns, units stand in brackets behind them, and a row that cannot be read says
// why while the others are read on.
package table

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
)

// Column is one that a table may have.
type Column struct {
	Name  string
	Unit  string   // that its numbers are in, "" for none
	Also  []string // what people call it too
	Units []string // that a header may declare instead, in brackets
}

// Header is the column's name as it is written.
func (c Column) Header() string {
	if c.Unit == "" {
		return c.Name
	}
	return c.Name + " [" + c.Unit + "]"
}

// Row is one row: its cells by the column's name, those that are empty left out.
type Row struct {
	Line  int
	Text  string // as it stands in the file
	Cells map[string]string
	Err   error // why it could not be taken apart
}

// Table is what was read, with the unit that each column's numbers are in.
type Table struct {
	Rows  []Row
	Units map[string]string
}

// Limits of a file.
const (
	MaxBytes = 2 << 20
	maxRows  = 5000
)

// Read reads a table. The error is of the file as a whole.
func Read(text []byte, columns []Column, must ...string) (Table, error) {
	if len(text) > MaxBytes {
		return Table{}, fmt.Errorf("the file is larger than %d MB", MaxBytes>>20)
	}
	text = bytes.TrimPrefix(text, []byte("\ufeff"))
	if len(bytes.TrimSpace(text)) == 0 {
		return Table{}, fmt.Errorf("the file is empty: the first row names the columns, %s at least", strings.Join(must, " and "))
	}
	in := csv.NewReader(bytes.NewReader(text))
	in.Comma, in.FieldsPerRecord, in.LazyQuotes, in.TrimLeadingSpace = separator(text), -1, true, true
	head, err := in.Read()
	if err != nil {
		return Table{}, fmt.Errorf("the first row: %w", err)
	}
	t := Table{Units: map[string]string{}}
	names, err := t.head(head, columns)
	if err != nil {
		return Table{}, err
	}
	for _, name := range must {
		if !slices.Contains(names, name) {
			return Table{}, fmt.Errorf("there is no column %q: the first row names the columns", name)
		}
	}
	for {
		cells, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if len(t.Rows) >= maxRows {
			return Table{}, fmt.Errorf("more than %d rows", maxRows)
		}
		var bad *csv.ParseError
		if errors.As(err, &bad) {
			t.Rows = append(t.Rows, Row{Line: bad.StartLine, Err: bad.Err})
			continue
		}
		if err != nil {
			return Table{}, err
		}
		line, _ := in.FieldPos(0)
		row := Row{Line: line, Text: strings.Join(cells, string(in.Comma)+" "), Cells: map[string]string{}}
		if len(cells) > len(names) {
			row.Err = fmt.Errorf("has %d cells, and %d columns have a name", len(cells), len(names))
		}
		for i, cell := range cells[:min(len(cells), len(names))] {
			if cell = strings.TrimSpace(cell); cell != "" && names[i] != "" {
				row.Cells[names[i]] = plain(cell)
			}
		}
		t.Rows = append(t.Rows, row)
	}
	if len(t.Rows) == 0 {
		return Table{}, errors.New("there is no row under the names of the columns")
	}
	return t, nil
}

// formula tells whether a spreadsheet would compute a cell instead of showing it, however
// many apostrophes already stand before what it would compute.
func formula(cell string) bool {
	bare := strings.TrimLeft(cell, "'")
	return bare != "" && strings.ContainsRune("=+-@\t\r", rune(bare[0]))
}

// Text is a cell of words as it is written: where a spreadsheet would take it for a
// formula, behind an apostrophe.
func Text(cell string) string {
	if formula(cell) {
		return "'" + cell
	}
	return cell
}

// plain takes that apostrophe away again.
func plain(cell string) string {
	if strings.HasPrefix(cell, "'") && formula(cell) {
		return cell[1:]
	}
	return cell
}

// separator is the one that the first row has most of.
func separator(text []byte) rune {
	first, _, _ := bytes.Cut(text, []byte("\n"))
	best, most := ',', 0
	for _, r := range ",;\t" {
		if n := bytes.Count(first, []byte(string(r))); n > most {
			best, most = r, n
		}
	}
	return best
}

// head finds the columns of the first row; one that is not used has no name.
func (t *Table) head(head []string, columns []Column) ([]string, error) {
	names := make([]string, len(head))
	for i, h := range head {
		name, unit, _ := strings.Cut(strings.NewReplacer("(", "[", ")", "]").Replace(h), "[")
		name, unit = strings.ToLower(strings.TrimSpace(name)), strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(unit), "]"))
		for _, c := range columns {
			if name != c.Name && !slices.Contains(c.Also, name) {
				continue
			}
			if slices.Contains(names[:i], c.Name) {
				return nil, fmt.Errorf("column %q is there twice", c.Name)
			}
			names[i], t.Units[c.Name] = c.Name, c.Unit
			if unit == "" {
				break
			}
			at := slices.IndexFunc(append([]string{c.Unit}, c.Units...), func(u string) bool { return strings.EqualFold(u, unit) })
			if at < 0 || c.Unit == "" {
				return nil, fmt.Errorf("column %q: unit %q, want one of %s", strings.TrimSpace(h), unit, strings.Join(append([]string{c.Unit}, c.Units...), ", "))
			}
			if at > 0 {
				t.Units[c.Name] = c.Units[at-1]
			}
			break
		}
	}
	return names, nil
}

// Truth reads yes and no as people write them.
func Truth(text string) (bool, error) {
	switch strings.ToLower(text) {
	case "yes", "y", "true", "1", "x", "full":
		return true, nil
	case "no", "n", "false", "0", "-", "partial":
		return false, nil
	}
	return false, fmt.Errorf("%q is neither yes nor no", text)
}

// Yes is yes or no as it is written.
func Yes(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}

// Write writes a table, its head first. Cells of words go through [Text] before.
func Write(w io.Writer, rows [][]string) error {
	out := csv.NewWriter(w)
	for _, row := range rows {
		_ = out.Write(row) // Error reports what failed
	}
	out.Flush()
	return out.Error()
}
