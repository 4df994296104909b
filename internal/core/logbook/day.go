package logbook

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
)

// Day is one day's riding: how far, what went in, what broke, and what else somebody looked at.
// What was not looked at is missing.
type Day struct {
	Trip     string      `json:"trip,omitempty" is:"made-id"` // of the plan that was ridden by
	Distance unit.Length `json:"distance,omitzero"`           // as it was shown
	By       DistanceBy  `json:"by,omitempty"`                // where it came from
	Shows    unit.Ratio  `json:"shows,omitzero"`              // what the bike's own meter showed over the true distance then
	Odometer unit.Length `json:"odometer,omitzero"`           // in the evening
	Litres   unit.Volume `json:"litres,omitzero"`             // that went in
	Full     bool        `json:"full,omitempty"`              // to the brim, in the evening
	Broke    string      `json:"broke,omitempty"`

	Ground    []terrain.Stretch `json:"ground,omitempty"` // shares; none is the brief's
	Hours     unit.Duration     `json:"hours,omitzero"`   // in the saddle
	SlowFalls unit.Ratio        `json:"slow_falls,omitzero"`
	FastFalls unit.Ratio        `json:"fast_falls,omitzero"`
	Fixed     string            `json:"fixed,omitempty"`
	Kit       string            `json:"kit,omitempty"` // that it was put right from

	TreadFront unit.Length   `json:"tread_front,omitzero"` // depth in the middle
	TreadRear  unit.Length   `json:"tread_rear,omitzero"`
	ColdFront  unit.Pressure `json:"cold_front,omitzero"`
	ColdRear   unit.Pressure `json:"cold_rear,omitzero"`
	HotFront   unit.Pressure `json:"hot_front,omitzero"`
	HotRear    unit.Pressure `json:"hot_rear,omitzero"`
	Oil        unit.Volume   `json:"oil,omitzero"`   // put in, up to its mark
	Chain      unit.Length   `json:"chain,omitzero"` // by which the axle was moved back for its slack
	Volts      unit.Voltage  `json:"volts,omitzero"` // everything on

	Hurt  string `json:"hurt,omitempty"`
	Place string `json:"place,omitempty"` // where the day ended
	As    Ridden `json:"as,omitzero"`
}

// ShownKm is the distance as it was shown, km.
func (d *Day) ShownKm() float64 { return d.Distance.In("km") }

// Km is the true distance: what the bike's own meter shows is taken back by what it counts on a
// tyre or sprocket of another size.
func (d *Day) Km() float64 {
	if d.Shows.Known() && d.By.OwnMeter() {
		return d.ShownKm() / d.Shows.In("")
	}
	return d.ShownKm()
}

// Ridden is the true distance, km, 0 of a day that says none.
func (d *Day) Ridden() float64 {
	if !d.Distance.Known() {
		return 0
	}
	return d.Km()
}

// Falls are how often it fell, slow and fast; said is false where nobody has said so, not even that it did not.
func (d *Day) Falls() (slow, fast float64, said bool) {
	if d.SlowFalls.Known() {
		slow = d.SlowFalls.In("")
	}
	if d.FastFalls.Known() {
		fast = d.FastFalls.In("")
	}
	return slow, fast, d.SlowFalls.Known() || d.FastFalls.Known()
}

// SinceLast is the distance of a day by its odometer, km: since the last evening among days, up to a date, on which it was read.
func (d *Day) SinceLast(days []Reading, on string) (float64, error) {
	was := math.NaN()
	for _, r := range days {
		if r.On <= on && r.Day().Odometer.Known() {
			was = r.Day().Odometer.In("km")
		}
	}
	now := d.Odometer.In("km")
	switch {
	case math.IsNaN(was):
		return 0, errors.New("no day before has one to count from: give the distance once")
	case now < was:
		return 0, fmt.Errorf("less than on the day before, %.0f km", was)
	}
	return now - was, nil
}

// Fields lists the numbers of a day, in the order in which they are asked.
func (d *Day) Fields() []entry.Field {
	return []entry.Field{
		{Key: "distance", Label: "Ridden", Unit: "km", Min: 0, Max: 3000, Entry: &d.Distance},
		{Key: "litres", Label: "Fuel put in", Unit: "L", Min: 0, Max: 200, Entry: &d.Litres},
		{Key: "odometer", Label: "Odometer", Unit: "km", Min: 0, Max: 1e6, Help: "In the evening: the distance follows from the day before.", Entry: &d.Odometer},
		{Key: "hours", Label: "In the saddle", Unit: "h", Min: 0, Max: 24, Entry: &d.Hours},
		{Key: "slow_falls", Label: "Falls, slow", Min: 0, Max: 100, Help: "0 where there was none: that counts as well.", Entry: &d.SlowFalls},
		{Key: "fast_falls", Label: "Falls, fast", Min: 0, Max: 100, Entry: &d.FastFalls},
		{Key: "tread_front", Label: "Front tread", Unit: "mm", Min: 0, Max: 30, Help: "Depth in the middle.", Entry: &d.TreadFront},
		{Key: "tread_rear", Label: "Rear tread", Unit: "mm", Min: 0, Max: 30, Help: "Two readings some days apart say how long it lasts.", Entry: &d.TreadRear},
		{Key: "cold_front", Label: "Front, cold", Unit: "bar", Min: 0.2, Max: 5, Entry: &d.ColdFront},
		{Key: "cold_rear", Label: "Rear, cold", Unit: "bar", Min: 0.2, Max: 5, Entry: &d.ColdRear},
		{Key: "hot_front", Label: "Front, hot", Unit: "bar", Min: 0.2, Max: 6, Entry: &d.HotFront},
		{Key: "hot_rear", Label: "Rear, hot", Unit: "bar", Min: 0.2, Max: 6, Entry: &d.HotRear},
		{Key: "oil", Label: "Oil put in", Unit: "L", Min: 0, Max: 10, Help: "Up to the mark where it stood before. 0 says that it took none.", Entry: &d.Oil},
		{Key: "chain", Label: "Chain: axle back by", Unit: "mm", Min: 0, Max: 40, Help: "For its slack. 0 says that it needed none.", Entry: &d.Chain},
		{Key: "volts", Label: "Volts, everything on", Unit: "V", Min: 6, Max: 18, Help: "At 5000 rpm, the meter across the battery.", Entry: &d.Volts},
	}
}

// Texts lists what is said of a day in words.
func (d *Day) Texts() []struct {
	Key, Label string
	Text       *string
} {
	return []struct {
		Key, Label string
		Text       *string
	}{
		{"broke", "What broke", &d.Broke}, {"fixed", "What was put right", &d.Fixed}, {"kit", "… from which kit", &d.Kit}, {"hurt", "What hurt", &d.Hurt}, {"place", "Where", &d.Place},
	}
}

// Check tells whether the day is one that is believed; its errors are a [Problem] by the field's name.
func (d *Day) Check() error {
	for _, f := range d.Fields() {
		if err := f.Check(); err != nil {
			return entry.Problem{Path: f.Key, What: err.Error()}
		}
	}
	slow, fast, _ := d.Falls()
	switch {
	case slow != math.Trunc(slow):
		return entry.Problem{Path: "slow_falls", What: "a whole number"}
	case fast != math.Trunc(fast):
		return entry.Problem{Path: "fast_falls", What: "a whole number"}
	case d.Said() == "" && !d.Distance.Known():
		return entry.Problem{Path: "distance", What: "how far was it? 0 for a day on which nothing was ridden"}
	case d.Distance.Known() && d.By == "":
		return entry.Problem{Path: "by", What: "where does the distance come from?"}
	case d.Shows.Known() && !(d.Shows.In("") > 0.5 && d.Shows.In("") < 2):
		return entry.Problem{Path: "shows", What: fmt.Sprintf("%s is outside 0.5–2", d.Shows)}
	}
	return nil
}

// Said is what a day says beside its distance, in words, "" for nothing.
func (d *Day) Said() string {
	var said []string
	for _, f := range d.Fields()[1:] {
		if f.Entry.Known() {
			said = append(said, strings.ToLower(f.Label))
		}
	}
	for _, t := range d.Texts() {
		if *t.Text != "" {
			said = append(said, strings.ToLower(t.Label))
		}
	}
	return strings.Join(said, ", ")
}

// Validate notes what else is wrong with it.
func (d *Day) Validate(v *entry.Problems, at string) {
	v.Short(at+".trip", d.Trip)
	v.That(d.By == "" || entry.Among(DistancesBy(), string(d.By)), at+".by", "%q is none of %s", d.By, entry.Values(DistancesBy()))
	terrain.Validate(v, at+".ground", d.Ground)
	for _, t := range d.Texts() {
		v.Note(at+"."+t.Key, *t.Text)
	}
	v.Short(at+".as.name", d.As.Name)
}

// Words say what it is.
func (d *Day) Words() string {
	if !d.Distance.Known() {
		return "a day"
	}
	return "a day of " + d.Distance.String()
}

// Day is the day that was ridden, nil for another kind of reading.
func (r Reading) Day() *Day { return content[Day](r) }

// Refuelled are fills with the days on which nobody wrote one down in their place: what such a day put in on the
// way, its distance where it put in none. A trip on whose days a fill was written down tells its fuel by fills alone.
func Refuelled(fills, days []Reading) []Reading {
	if len(days) == 0 {
		return fills
	}
	type span struct{ from, to string }
	trips := map[string]span{}
	for _, r := range days {
		s, ok := trips[r.Day().Trip]
		if !ok || r.On < s.from {
			s.from = r.On
		}
		s.to = max(s.to, r.On)
		trips[r.Day().Trip] = s
	}
	for _, f := range fills {
		for trip, s := range trips {
			if s.from <= f.On && f.On <= s.to {
				delete(trips, trip)
			}
		}
	}
	var list []*Reading
	for i := range fills {
		list = append(list, &fills[i])
	}
	for _, r := range days {
		if _, ok := trips[r.Day().Trip]; ok {
			r.Read = r.Day().fill()
			list = append(list, &r)
		}
	}
	return inOrder(list)
}

// fill is the day as a fill.
func (d *Day) fill() *Fill {
	f := &Fill{Litres: d.Litres, By: d.By, Partial: !d.Full || !d.Litres.Known(), Ground: d.Ground, As: d.As}
	if !f.Litres.Known() {
		_ = f.Litres.Enter("0", "L")
	}
	_ = f.Trip.Enter(strconv.FormatFloat(d.Km(), 'f', 3, 64), "km") // a number is one
	return f
}
