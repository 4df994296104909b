// Package fillcsv reads and writes the log of fills as CSV.
//
// Columns are told by the names in the first row, units stand in brackets behind
// them: date, litres [L], odometer [km], trip [km], by, full, missed, the eight
// kinds of ground in %, as, note. Comma, semicolon and tab separate; decimals have
// a point or a comma. A row that cannot be taken says why, and the others are read
// on.
package fillcsv

import (
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

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/format/table"
)

// Row is one row of a file, as a reading or with what is wrong with it.
type Row struct {
	Line    int
	Text    string // as it stands in the file
	Reading logbook.Reading
	Err     error
}

// columns are the columns there are, in the order in which they are written.
var columns = append([]table.Column{
	{Name: "date", Also: []string{"day", "on"}},
	{Name: "litres", Unit: "L", Also: []string{"liters", "volume", "fuel", "amount", "quantity"}, Units: []string{"US gal", "UK gal"}},
	{Name: "odometer", Unit: "km", Also: []string{"odo", "mileage"}, Units: []string{"mi"}},
	{Name: "trip", Unit: "km", Also: []string{"distance", "trip meter"}, Units: []string{"mi"}},
	{Name: "by", Also: []string{"source", "distance by"}},
	{Name: "full", Also: []string{"full tank", "filled"}},
	{Name: "missed", Also: []string{"missed one"}},
	{Name: "as", Also: []string{"loadout", "loaded"}},
	{Name: "note", Also: []string{"notes", "comment", "remark"}},
	{Name: "id"},
}, groundColumns()...)

func groundColumns() []table.Column {
	var list []table.Column
	for _, g := range terrain.Grounds() {
		list = append(list, table.Column{Name: string(g.Kind), Unit: "%"})
	}
	return list
}

// Write writes fills, in metric units.
func Write(w io.Writer, fills []logbook.Reading) error {
	out := csv.NewWriter(w)
	var head []string
	for _, c := range columns {
		head = append(head, c.Header())
	}
	_ = out.Write(head) // Error reports what failed
	for _, r := range fills {
		_ = out.Write(record(r))
	}
	out.Flush()
	return out.Error()
}

// Same tells whether two readings are the same fill, as far as a file says: how the bike
// was is filled in when a row is taken.
func Same(a, b logbook.Reading) bool {
	if a.Fill() == nil || b.Fill() == nil {
		return false
	}
	f, g := *a.Fill(), *b.Fill()
	f.As, g.As = logbook.Ridden{}, logbook.Ridden{}
	a.Read, b.Read = &f, &g
	return slices.Equal(record(a), record(b))
}

// record is a fill as a row.
func record(r logbook.Reading) []string {
	f := r.Fill()
	row := []string{r.On, number(f.Litres, "L"), number(f.Odometer, "km"), number(f.Trip, "km"), string(f.By), table.Yes(!f.Partial), table.Yes(f.Missed), table.Text(f.As.Name), table.Text(r.Note), r.ID}
	for _, g := range terrain.Grounds() {
		share := ""
		for _, s := range f.Ground {
			if s.Ground == g.Kind {
				share = number(s.Share, "%")
			}
		}
		row = append(row, share)
	}
	return row
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

// Read reads a file about a bike. The error is of the file as a whole; what is wrong
// with a row is in the row.
func Read(text []byte, bike string) ([]Row, error) {
	t, err := table.Read(text, columns, "date", "litres")
	if err != nil {
		return nil, err
	}
	_, odometer := t.Units["odometer"]
	if _, trip := t.Units["trip"]; !odometer && !trip {
		return nil, errors.New(`there is neither a column "odometer" nor one "trip"`)
	}
	rows := make([]Row, len(t.Rows))
	for i, r := range t.Rows {
		rows[i] = Row{Line: r.Line, Text: r.Text, Err: r.Err}
		if r.Err == nil {
			rows[i].Reading, rows[i].Err = parseRow(r.Cells, t.Units, bike)
		}
		if f := rows[i].Reading.Fill(); i > 0 && rows[i].Err == nil && !f.Odometer.Known() && !f.Trip.Known() { // the first starts counting
			rows[i].Err = errors.New("odometer: give it, or the distance since the fill before")
		}
	}
	return rows, nil
}

func parseRow(cells, units map[string]string, bike string) (logbook.Reading, error) {
	r := logbook.Reading{Kind: logbook.FillReading, Bike: bike, Read: &logbook.Fill{By: logbook.ByOdometer}}
	f := r.Fill()
	for _, c := range columns {
		cell, given := cells[c.Name]
		if !given {
			continue
		}
		var err error
		switch c.Name {
		case "date":
			r.On, err = date(cell)
		case "litres":
			err = f.Litres.Enter(cell, units[c.Name])
		case "odometer":
			err = f.Odometer.Enter(cell, units[c.Name])
		case "trip":
			err = f.Trip.Enter(cell, units[c.Name])
		case "by":
			f.By, err = by(cell)
		case "full":
			var full bool
			full, err = table.Truth(cell)
			f.Partial = !full
		case "missed":
			f.Missed, err = table.Truth(cell)
		case "as":
			f.As.Name = cell
		case "note":
			r.Note = cell
		case "id":
			r.ID = cell
		default:
			s := terrain.Stretch{Ground: terrain.Kind(c.Name)}
			if err = s.Share.Enter(cell, "%"); err == nil && s.Share.Base() > 0 {
				f.Ground = append(f.Ground, s)
			}
		}
		if err != nil {
			return r, fmt.Errorf("%s: %w", c.Name, err)
		}
	}
	if cells["by"] == "" && f.Trip.Known() {
		f.By = logbook.ByTrip
	}
	if !entry.ValidID(r.ID) { // none, or one that another program gave it
		r.ID = idOf(r)
	}
	if problems := r.Validate(); len(problems) > 0 {
		return r, fmt.Errorf("%s: %s", strings.TrimPrefix(strings.TrimPrefix(problems[0].Path, "reading."), "fill."), problems[0].What)
	}
	return r, nil
}

// idOf makes an id from what a fill says: the same row read again is the same fill.
func idOf(r logbook.Reading) string {
	sum := sha256.Sum256([]byte(strings.Join([]string{r.ID, r.Bike, r.On, r.Fill().Litres.String(), r.Fill().Odometer.String(), r.Fill().Trip.String()}, "\x00")))
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

func by(text string) (logbook.DistanceBy, error) {
	var words []string
	for _, o := range logbook.DistancesBy() {
		if strings.EqualFold(text, o.Value) || strings.EqualFold(text, o.Name) {
			return logbook.DistanceBy(o.Value), nil
		}
		words = append(words, o.Value)
	}
	return "", fmt.Errorf("%q is none of %s", text, strings.Join(words, ", "))
}
