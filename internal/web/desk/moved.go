package desk

import (
	"fmt"
	"strings"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
)

// MovedView is what a plan has not taken over of its bike yet.
type MovedView struct {
	Says string // in a line
	Href string // to all of it
}

// movedMost is how many things the line names.
const movedMost = 3

// moved says what of the bike is not in the plan yet, nil for nothing.
func (d *Desk) moved() *MovedView {
	var list []string
	for _, n := range d.parted() {
		list = append(list, n.Says(d.Things.Bikes))
	}
	if d.News.Any() {
		for _, n := range plan.NewsTold(d.News.Differ) {
			if further := d.further(); n.Key == "bike/odometer" && further != "" {
				list = append(list, further)
				continue
			}
			list = append(list, within(n.Label))
		}
		for _, r := range d.News.Readings {
			list = append(list, ReadWords(r))
		}
	}
	if len(list) == 0 {
		return nil
	}
	if over := len(list) - movedMost; over > 0 {
		list = append(list[:movedMost], fmt.Sprintf("%d more", over))
	}
	return &MovedView{Says: strings.Join(list, ", "), Href: d.At() + "/moved?loadout=" + d.Loadout}
}

// further says how far the bike has run since the plan took it over, "" where nobody can tell.
func (d *Desk) further() string {
	was, is := d.Plan.Bike, d.News.Machine.Bike
	if was == nil || is == nil {
		return ""
	}
	km := is.Odometer.In("km") - was.Odometer.In("km")
	if !(km > 0) { // unknown too
		return ""
	}
	return d.Units.Quantity(km, "km") + " more"
}

// ReadWords say what was read, and when.
func ReadWords(r logbook.Reading) string {
	if r.Kind == logbook.Revocation {
		return "a reading taken out on " + r.On
	}
	return r.Words()
}

// PartedWords say in a line each which parts are elsewhere than the plan has them.
func (d *Desk) PartedWords() (list []string) {
	for _, n := range d.parted() {
		list = append(list, n.Says(d.Things.Bikes))
	}
	return list
}

// Sides are both sides of a difference as the rider reads numbers.
func (d *Desk) Sides(n plan.News) (mine, theirs string) {
	say := func(text string) string {
		if text == "" {
			return "not said"
		}
		return d.Units.Shown(text)
	}
	return say(n.Mine), say(n.Theirs)
}
