// Package figure is the table of every number that a plan comes to: one row a
// figure, in the order in which they are shown, gauges first.
//
// Whatever lists figures reads this table: the verdict strip, the words, the
// command line, the schema, the docs, the tests. A row says what a figure is
// called and how it is written; a step of package study works it out.
package figure

import (
	"fmt"
	"math"
	"slices"
	"unicode/utf8"
)

// ID names a figure in files, addresses and code.
type ID string

// Stage is the part of the work in which a figure or a finding is settled.
type Stage string

// The stages, in the order of the work.
const (
	Brief     Stage = "brief"
	Bike      Stage = "bike"
	Baseline  Stage = "baseline"
	Tyres     Stage = "tyres"
	Armour    Stage = "armour"
	Contact   Stage = "contact"
	Range     Stage = "range"
	Load      Stage = "load"
	Gearing   Stage = "gearing"
	Stance    Stage = "stance"
	Electrics Stage = "electrics"
	Spend     Stage = "spend"
	Ready     Stage = "ready"
	Card      Stage = "card"
	Log       Stage = "log"
)

// Row is what there is to know of a figure beside its value.
type Row struct {
	ID        ID
	Name      string
	Short     string // of a gauge, where there is no room: at most eight letters
	Unit      string // metric; Money stands for the plan's currency
	Digits    int    // behind the point in that unit; −2 is to the nearest hundred
	Stage     Stage  // that settles it
	LimitName string // what its limit is called, "" for a figure without one
	Gauge     bool   // of the verdict strip
	Per       string // unit of distance, of a figure by 1000 of it
	// Half is how far the figure may be off for all that is known, in its unit: a wish that is
	// passed by less is not passed for sure. 0 for ratings, law and what is exact.
	Half float64
}

// Money is the unit of sums: minor units of the plan's currency.
const Money = "¤"

// Date is the unit of days, counted from 1970-01-01 as [calendar.Day] does.
const Date = "date"

// IsDate reports whether the figure is a day.
func (r *Row) IsDate() bool { return r.Unit == Date }

// IsSum reports whether the figure is a sum of money.
func (r *Row) IsSum() bool { return r.Unit == Money }

// leasts are the limits from which on a figure is good; up to the others it is.
var leasts = []string{"trip", "gap", "min", "wants"}

// AtLeast reports whether the figure is the better the more of it there is.
func (r *Row) AtLeast() bool { return slices.Contains(leasts, r.LimitName) }

// Past reports whether a value passes a limit as both are written, with so many digits
// behind the point: what reads the same is not past it.
func Past(v, limit float64, digits int) bool {
	scale := math.Pow10(digits)
	return math.Round(v*scale) > math.Round(limit*scale)
}

// Passes is Past with the row's digits.
func (r *Row) Passes(v, limit float64) bool {
	if r.IsSum() {
		return v > limit
	}
	return Past(v, limit, r.Digits)
}

// table is the rows in order; each is entered where its name is declared.
var table []*Row

func row(r Row) ID {
	table = append(table, &r)
	return r.ID
}

// gauge is a row of the verdict strip.
func gauge(id ID, name, short, unit string, digits int, stage Stage, limit string) ID {
	return row(Row{ID: id, Name: name, Short: short, Unit: unit, Digits: digits, Stage: stage, LimitName: limit, Gauge: true})
}

// wished is a gauge against a wish or a practice, known give or take half of a band.
func wished(half float64, id ID, name, short, unit string, digits int, stage Stage, limit string) ID {
	return row(Row{ID: id, Name: name, Short: short, Unit: unit, Digits: digits, Stage: stage, LimitName: limit, Gauge: true, Half: half})
}

// beside is a figure that is not on the strip.
func beside(id ID, name, unit string, digits int, stage Stage) ID {
	return row(Row{ID: id, Name: name, Unit: unit, Digits: digits, Stage: stage})
}

// by is a figure beside the gauges, by 1000 of a unit of distance.
func by(per string, id ID, name, unit string, digits int, stage Stage) ID {
	return row(Row{ID: id, Name: name, Unit: unit, Digits: digits, Stage: stage, Per: per})
}

// All lists the rows in the order in which they are shown.
func All() []*Row { return slices.Clone(table) }

// Gauges lists the rows of the verdict strip.
func Gauges() []*Row {
	return slices.DeleteFunc(All(), func(r *Row) bool { return !r.Gauge })
}

// Of finds a figure's row.
func Of(id ID) (*Row, bool) {
	at := slices.IndexFunc(table, func(r *Row) bool { return r.ID == id })
	if at < 0 {
		return nil, false
	}
	return table[at], true
}

// shortMost is how many letters the short name of a gauge has at most.
const shortMost = 8

// Check finds what is wrong with a table: a row twice, one without a name, a gauge
// among the others, or without a short name of its own.
func Check(rows []*Row) error {
	seen, shorts := map[ID]bool{}, map[string]bool{}
	others := false
	for _, r := range rows {
		switch {
		case r.ID == "" || r.Name == "" || r.Stage == "":
			return fmt.Errorf("figure %q wants an id, a name and a stage", r.ID)
		case seen[r.ID]:
			return fmt.Errorf("figure %q has two rows", r.ID)
		case r.Gauge && others:
			return fmt.Errorf("gauge %q stands behind figures that are none", r.ID)
		case r.Gauge && (r.Short == "" || utf8.RuneCountInString(r.Short) > shortMost || shorts[r.Short]):
			return fmt.Errorf("gauge %q wants a short name of its own, of at most %d letters", r.ID, shortMost)
		}
		seen[r.ID], shorts[r.Short], others = true, true, !r.Gauge
	}
	return nil
}
