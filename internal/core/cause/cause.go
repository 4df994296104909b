// Package cause is the table of what findings come of. What ends one finding of a cause mostly
// ends its others: they are shown as one card.
package cause

import (
	"slices"
)

// ID names a cause in code and files.
type ID string

// The causes.
const (
	Unproved   ID = "unproved"
	Found      ID = "found"
	Fitting    ID = "fitting"
	Overload   ID = "overload"
	Luggage    ID = "luggage"
	Breakage   ID = "breakage"
	Flats      ID = "flats"
	Pump       ID = "pump"
	Tank       ID = "tank"
	Charging   ID = "charging"
	Wiring     ID = "wiring"
	Light      ID = "light"
	Comfort    ID = "comfort"
	Paint      ID = "paint"
	Posture    ID = "posture"
	Grip       ID = "grip"
	TyreFit    ID = "tyre-fit"
	Inside     ID = "inside"
	Springs    ID = "springs"
	Height     ID = "height"
	Level      ID = "level"
	Stand      ID = "stand"
	Gearing    ID = "gearing"
	Altitude   ID = "altitude"
	Character  ID = "character"
	Shipping   ID = "shipping"
	Workshop   ID = "workshop"
	Speedo     ID = "speedo"
	Pressuring ID = "pressure"
	Time       ID = "time"
	Worn       ID = "worn"
)

// order is in the order in which they are looked at where findings cost the trip as much and are
// as bad: what nobody has tried and what was found first, reach before springs (who cannot hold it
// at a stop drops it), looks last [practice].
var order = []ID{
	Unproved, Found, Fitting, Overload, Luggage, Wiring, Charging, Breakage, Flats, Worn, Pump, Tank,
	Posture, Comfort, Paint, TyreFit, Grip, Inside, Pressuring, Height, Springs, Level, Stand, Light,
	Gearing, Speedo, Altitude, Character, Shipping, Time, Workshop,
}

// Rank is the cause's place in the order, from 0; −1 for none.
func (id ID) Rank() int { return slices.Index(order, id) }
