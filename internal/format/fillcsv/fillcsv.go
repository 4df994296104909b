// Package fillcsv reads and writes the log of fills as CSV.
//
// Columns are told by the names in the first row, units stand in brackets behind
// them: date, litres [L], odometer [km], trip [km], by, full, missed, the eight
// kinds of ground in %, as, note. Comma, semicolon and tab separate; decimals have
// a point or a comma. A row that cannot be taken says why, and the others are read
// on.
package fillcsv

import (
	"bytes"
	"crypto/sha256"
	"encoding/base32"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
)

// Row is one row of a file, as a reading or with what is wrong with it.
type Row struct {
	Line    int
	Text    string // as it stands in the file
	Reading plan.Reading
	Err     error
}

// Limits of a file.
const (
	MaxBytes = 2 << 20
	maxRows  = 5000
)

// columns are the columns there are, in the order in which they are written, with
// other names that people give them.
var columns = []struct {
	name  string
	unit  string // "" for none
	also  []string
	units []string // that a header may declare instead
}{
	{"date", "", []string{"day", "on"}, nil},
	{"litres", "L", []string{"liters", "volume", "fuel", "amount", "quantity"}, []string{"L", "l", "US gal", "UK gal"}},
	{"odometer", "km", []string{"odo", "mileage"}, []string{"km", "mi"}},
	{"trip", "km", []string{"distance", "trip meter"}, []string{"km", "mi"}},
	{"by", "", []string{"source", "distance by"}, nil},
	{"full", "", []string{"full tank", "filled"}, nil},
	{"missed", "", []string{"missed one"}, nil},
	{"as", "", []string{"loadout", "loaded"}, nil},
	{"note", "", []string{"notes", "comment", "remark"}, nil},
}

// Write writes fills with the bike as it came, in metric units.
func Write(w io.Writer, fills []plan.Reading) error {
	out := csv.NewWriter(w)
	var head []string
	for _, c := range columns {
		head = append(head, header(c.name, c.unit))
	}
	for _, g := range terrain.Grounds() {
		head = append(head, header(string(g.Kind), "%"))
	}
	_ = out.Write(append(head, "id")) // Error reports what failed
	for _, r := range fills {
		f := r.Fill
		row := []string{r.On, number(f.Litres, "L"), number(f.Odometer, "km"), number(f.Trip, "km"), string(f.By), yes(!f.Partial), yes(f.Missed), f.As.Name, r.Note}
		for _, g := range terrain.Grounds() {
			share := ""
			for _, s := range f.Ground {
				if s.Ground == g.Kind {
					share = number(s.Share, "%")
				}
			}
			row = append(row, share)
		}
		_ = out.Write(append(row, r.ID))
	}
	out.Flush()
	return out.Error()
}

func header(name, unit string) string {
	if unit == "" {
		return name
	}
	return name + " [" + unit + "]"
}

func number(q interface {
	Known() bool
	In(unit string) float64
}, unit string) string {
	if !q.Known() {
		return ""
	}
	return strconv.FormatFloat(q.In(unit), 'f', -1, 64)
}

func yes(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}

// Read reads a file about a bike. The error is of the file as a whole; what is wrong
// with a row is in the row.
func Read(text []byte, bike string) ([]Row, error) {
	if len(text) > MaxBytes {
		return nil, fmt.Errorf("the file is larger than %d MB", MaxBytes>>20)
	}
	text = bytes.TrimPrefix(text, []byte("\ufeff"))
	if len(bytes.TrimSpace(text)) == 0 {
		return nil, errors.New("the file is empty: the first row names the columns, date and litres at least")
	}
	in := csv.NewReader(bytes.NewReader(text))
	in.Comma, in.FieldsPerRecord, in.LazyQuotes, in.TrimLeadingSpace = separator(text), -1, true, true
	head, err := in.Read()
	if err != nil {
		return nil, fmt.Errorf("the first row: %w", err)
	}
	fields, err := parseHead(head)
	if err != nil {
		return nil, err
	}
	var rows []Row
	for {
		cells, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if len(rows) >= maxRows {
			return nil, fmt.Errorf("more than %d rows", maxRows)
		}
		line, _ := in.FieldPos(0)
		var bad *csv.ParseError
		if errors.As(err, &bad) {
			rows = append(rows, Row{Line: bad.StartLine, Err: bad.Err})
			continue
		}
		if err != nil {
			return nil, err
		}
		row := Row{Line: line, Text: strings.Join(cells, string(in.Comma)+" ")}
		row.Reading, row.Err = parseRow(fields, cells, bike)
		rows = append(rows, row)
	}
	if len(rows) == 0 {
		return nil, errors.New("there is no row under the names of the columns")
	}
	return rows, nil
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

// field is what a column holds.
type field struct{ name, unit string }

func parseHead(head []string) ([]field, error) {
	fields := make([]field, len(head))
	seen := map[string]bool{}
	for i, h := range head {
		name, unit, _ := strings.Cut(strings.NewReplacer("(", "[", ")", "]").Replace(h), "[")
		name, unit = strings.ToLower(strings.TrimSpace(name)), strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(unit), "]"))
		f, err := known(name, unit)
		if err != nil {
			return nil, fmt.Errorf("column %q: %w", strings.TrimSpace(h), err)
		}
		if f.name != "" && seen[f.name] {
			return nil, fmt.Errorf("column %q is there twice", f.name)
		}
		seen[f.name] = true
		fields[i] = f
	}
	for _, must := range []string{"date", "litres"} {
		if !seen[must] {
			return nil, fmt.Errorf("there is no column %q: the first row names the columns", must)
		}
	}
	if !seen["odometer"] && !seen["trip"] {
		return nil, errors.New(`there is neither a column "odometer" nor one "trip"`)
	}
	return fields, nil
}

// known finds a column; one that is not used has no name.
func known(name, unit string) (field, error) {
	if _, ok := terrain.Of(terrain.Kind(name)); ok {
		if unit != "" && unit != "%" {
			return field{}, fmt.Errorf("unit %q, want %%", unit)
		}
		return field{name, "%"}, nil
	}
	if name == "id" {
		return field{name, ""}, nil
	}
	for _, c := range columns {
		if name != c.name && !slices.Contains(c.also, name) {
			continue
		}
		if unit == "" {
			return field{c.name, c.unit}, nil
		}
		at := slices.IndexFunc(c.units, func(u string) bool { return strings.EqualFold(u, unit) })
		if at < 0 {
			return field{}, fmt.Errorf("unit %q, want one of %s", unit, strings.Join(c.units, ", "))
		}
		if c.unit == "L" && at == 1 {
			at = 0
		}
		return field{c.name, c.units[at]}, nil
	}
	return field{}, nil
}

func parseRow(fields []field, cells []string, bike string) (plan.Reading, error) {
	r := plan.Reading{Kind: plan.FillReading, Bike: bike, Fill: &plan.Fill{By: plan.ByOdometer}}
	f := r.Fill
	gave := false // where the distance came from
	for i, cell := range cells {
		if i >= len(fields) {
			return r, fmt.Errorf("has %d cells, and %d columns have a name", len(cells), len(fields))
		}
		cell = strings.TrimSpace(cell)
		if cell == "" {
			continue
		}
		var err error
		switch c := fields[i]; c.name {
		case "":
		case "date":
			r.On, err = date(cell)
		case "litres":
			err = f.Litres.Enter(cell, c.unit)
		case "odometer":
			err = f.Odometer.Enter(cell, c.unit)
		case "trip":
			err = f.Trip.Enter(cell, c.unit)
		case "by":
			f.By, err = by(cell)
			gave = true
		case "full":
			var full bool
			full, err = truth(cell)
			f.Partial = !full
		case "missed":
			f.Missed, err = truth(cell)
		case "as":
			f.As.Name = cell
		case "note":
			r.Note = cell
		case "id":
			r.ID = cell
		default:
			s := plan.Stretch{Ground: terrain.Kind(c.name)}
			if err = s.Share.Enter(cell, c.unit); err == nil && s.Share.Base() > 0 {
				f.Ground = append(f.Ground, s)
			}
		}
		if err != nil {
			return r, fmt.Errorf("%s: %w", fields[i].name, err)
		}
	}
	if !gave && f.Trip.Known() {
		f.By = plan.ByTrip
	}
	if r.ID == "" {
		r.ID = idOf(r)
	}
	if problems := r.Validate(); len(problems) > 0 {
		return r, fmt.Errorf("%s: %s", strings.TrimPrefix(strings.TrimPrefix(problems[0].Path, "reading."), "fill."), problems[0].What)
	}
	return r, nil
}

// idOf makes an id from what a fill says: the same row read again is the same fill.
func idOf(r plan.Reading) string {
	sum := sha256.Sum256([]byte(strings.Join([]string{r.Bike, r.On, r.Fill.Litres.String(), r.Fill.Odometer.String(), r.Fill.Trip.String()}, "\x00")))
	return base32.StdEncoding.EncodeToString(sum[:])[:26]
}

// date reads a date in one of the ways that leave no doubt.
func date(text string) (string, error) {
	for _, layout := range []string{time.DateOnly, "2006/01/02", "2.1.2006", "20060102", time.RFC3339} {
		if t, err := time.Parse(layout, text); err == nil {
			return t.Format(time.DateOnly), nil
		}
	}
	return "", fmt.Errorf("%q is not a date, want e.g. 2026-09-12 or 12.9.2026", text)
}

func by(text string) (plan.DistanceBy, error) {
	var words []string
	for _, o := range plan.DistancesBy() {
		if strings.EqualFold(text, o.Value) || strings.EqualFold(text, o.Name) {
			return plan.DistanceBy(o.Value), nil
		}
		words = append(words, o.Value)
	}
	return "", fmt.Errorf("%q is none of %s", text, strings.Join(words, ", "))
}

func truth(text string) (bool, error) {
	switch strings.ToLower(text) {
	case "yes", "y", "true", "1", "x", "full":
		return true, nil
	case "no", "n", "false", "0", "-", "partial":
		return false, nil
	}
	return false, fmt.Errorf("%q is neither yes nor no", text)
}
