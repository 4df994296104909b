// Package packcsv reads and writes a packing list as CSV: item, mass [kg],
// volume [L], bag or place, side, when, daily, packed.
package packcsv

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format/table"
)

// Row is one row of a file, as a load or with what is wrong with it.
type Row struct {
	Line int
	Text string
	Load plan.Load
	Err  error
}

var columns = []table.Column{
	{Name: "item", Also: []string{"what", "name", "thing"}},
	{Name: "mass", Unit: "kg", Also: []string{"weight"}, Units: []string{"g", "lb"}},
	{Name: "volume", Unit: "L", Also: []string{"litres", "size"}},
	{Name: "where", Also: []string{"bag", "place"}},
	{Name: "side"},
	{Name: "when", Also: []string{"for"}},
	{Name: "daily"},
	{Name: "packed"},
}

// Write writes a list, in metric units.
func Write(w io.Writer, loads []plan.Load) error {
	out := csv.NewWriter(w)
	var head []string
	for _, c := range columns {
		head = append(head, c.Header())
	}
	_ = out.Write(head) // Error reports what failed
	for _, l := range loads {
		where := string(l.Place)
		if l.Bag != "" {
			info, _ := parts.KindOf(l.Bag)
			where = info.Name
		}
		_ = out.Write([]string{table.Text(l.Name), number(l.Mass.Known(), l.Mass.In("kg")), number(l.Volume.Known(), l.Volume.In("L")), where, string(l.Side), string(l.When), table.Yes(l.Daily), table.Yes(l.Packed)})
	}
	out.Flush()
	return out.Error()
}

func number(known bool, v float64) string {
	if !known {
		return ""
	}
	return strconv.FormatFloat(v, 'f', -1, 64)
}

// Bags are the slots of the bags that are on the bike, by the names that their rider calls
// them.
type Bags map[string]parts.Slot

// named finds the one bag whose name is text, or the only one whose name has it in it.
func (b Bags) named(text string) (slot parts.Slot, ok bool) {
	for name, s := range b {
		switch name = strings.ToLower(name); {
		case name == text:
			return s, true
		case strings.Contains(name, text) && ok:
			return "", false
		case strings.Contains(name, text):
			slot, ok = s, true
		}
	}
	return slot, ok
}

// Read reads a list. The error is of the file as a whole; what is wrong with a row is
// in the row. A place or bag that is not named is behind the seat.
func Read(text []byte, bags Bags) ([]Row, error) {
	t, err := table.Read(text, columns, "item", "mass")
	if err != nil {
		return nil, err
	}
	rows := make([]Row, len(t.Rows))
	for i, r := range t.Rows {
		rows[i] = Row{Line: r.Line, Text: r.Text, Err: r.Err}
		if r.Err == nil {
			rows[i].Load, rows[i].Err = parse(r.Cells, t.Units, bags)
		}
	}
	return rows, nil
}

func parse(cells, units map[string]string, bags Bags) (plan.Load, error) {
	l := plan.Load{Name: cells["item"], Place: load.Tail, Side: plan.Side(strings.ToLower(cells["side"])), When: plan.When(strings.ToLower(cells["when"]))}
	if l.When == "always" {
		l.When = plan.Always
	}
	if l.Side == "middle" {
		l.Side = plan.Middle
	}
	if l.Name == "" {
		return l, errors.New("item: is missing")
	}
	if err := l.Mass.Enter(cells["mass"], units["mass"]); err != nil {
		return l, fmt.Errorf("mass: %w", err)
	}
	if err := l.Volume.Enter(cells["volume"], units["volume"]); err != nil {
		return l, fmt.Errorf("volume: %w", err)
	}
	for name, into := range map[string]*bool{"daily": &l.Daily, "packed": &l.Packed} {
		if cell, given := cells[name]; given {
			yes, err := table.Truth(cell)
			if err != nil {
				return l, fmt.Errorf("%s: %w", name, err)
			}
			*into = yes
		}
	}
	if where := strings.ToLower(cells["where"]); where != "" {
		if err := put(&l, where, bags); err != nil {
			return l, err
		}
	}
	return l, valid(l)
}

// valid is what a plan would refuse of a load.
func valid(l plan.Load) error {
	p := plan.New("x", "EUR")
	p.Loadouts[0].Loads = []plan.Load{l}
	for _, problem := range p.Validate() {
		return fmt.Errorf("%s: %s", problem.Path[strings.LastIndex(problem.Path, ".")+1:], problem.What)
	}
	return nil
}

// put a load into a bag or at a place: a place by its short name, a bag by its kind's name or
// its own.
func put(l *plan.Load, where string, bags Bags) error {
	if _, known := load.SpotOf(load.Place(where)); known {
		l.Place = load.Place(where)
		return nil
	}
	for _, slot := range parts.BagSlots() {
		info, _ := parts.KindOf(slot)
		if where == string(slot) || where == strings.ToLower(info.Name) {
			l.Bag, l.Place = slot, info.Place
			return nil
		}
	}
	if slot, ok := bags.named(where); ok {
		info, _ := parts.KindOf(slot)
		l.Bag, l.Place = slot, info.Place
		return nil
	}
	for _, s := range load.Spots() {
		if where == strings.ToLower(s.Name) {
			l.Place = s.Place
			return nil
		}
	}
	return fmt.Errorf("where: %q is neither a bag nor a place", where)
}
