package brief

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/web/desk"
)

// errNowhere is an answer to what is in no row of the table.
var errNowhere = errors.New("nobody asks that")

// errUnsaid is an answer that says nothing.
var errUnsaid = errors.New("say what it is: while nobody does, it is guessed")

// answered is the plan with the answer to one guess, as it is typed.
func answered(d *desk.Desk, r *guess.Row, text string) (*plan.Plan, string, error) {
	if text = strings.TrimSpace(text); text == "" {
		return nil, "", errUnsaid
	}
	changed := *d.Plan
	kind, key, _ := strings.Cut(r.At, "/")
	if kind != "brief" {
		if d.Plan.Bike == nil {
			return nil, "", errNowhere
		}
		bike := *d.Plan.Bike
		changed.Bike = &bike
	}
	was, now, err := "", "", errNowhere
	switch kind {
	case "bike":
		if f, ok := entry.FieldIn(changed.Bike.Fields(), key); ok {
			was, now, err = entered(d, f, text)
			changed.Bike.SetOrigin(key, origin(r))
		} else if at := slices.IndexFunc(changed.Bike.Picks(), func(p entry.Pick) bool { return p.Key == key }); at >= 0 {
			pick := changed.Bike.Picks()[at]
			was, now, err = pick.Get(), text, nil
			pick.Set(text)
		}
	case "brief":
		if f, ok := entry.FieldIn(changed.Brief.Fields(), key); ok {
			was, now, err = entered(d, f, text)
		}
	case "came":
		slot, of, _ := strings.Cut(key, "/")
		part, _ := changed.Bike.Came(parts.Slot(slot))
		now, err = text, part.Say(of, text)
		changed.Bike.SetStandard(part)
	}
	if err != nil {
		return nil, "", err
	}
	before := d.Plan.Validate()
	for _, problem := range changed.Validate() {
		if !slices.Contains(before, problem) {
			return nil, "", errors.New(problem.What)
		}
	}
	return &changed, desk.ChangedWords(r.Name, was, now), nil
}

func entered(d *desk.Desk, f entry.Field, text string) (was, now string, err error) {
	was = f.Entry.String()
	err = d.Units.EnterField(f, text)
	return was, f.Entry.String(), err
}

// origin of an answer: the maker's where it is read off papers, else it is measured.
func origin(r *guess.Row) sheet.Origin {
	if r.Read {
		return sheet.Maker
	}
	return sheet.Measured
}

// rowAt finds a row of the table.
func rowAt(at string) (*guess.Row, error) {
	rows := guess.Rows()
	i := slices.IndexFunc(rows, func(r *guess.Row) bool { return r.At == at })
	if i < 0 {
		return nil, fmt.Errorf("%w: %q", errNowhere, at)
	}
	return rows[i], nil
}
