// Package limp is getting home: what stops a bike on the way, what mends it with what is carried,
// and how far it then gets.
//
// Rows are common practice [the handbook's shakedown and log; memory for how far].
package limp

import (
	"slices"
	"strings"
)

// Item is a thing of the kit.
type Item struct {
	ID, Name string
	words    []string // in the names of things that are one
}

// The things that mend, as they are packed.
var items = []Item{
	{"tube", "spare tube", []string{"tube"}},
	{"patches", "patches or plugs", []string{"patch", "plug", "puncture", "repair kit", "tyre kit", "tubes"}},
	{"irons", "tyre irons", []string{"iron", "lever set", "bead tool"}},
	{"pump", "pump", []string{"pump", "inflator", "compressor", "cartridge"}},
	{"link", "chain link", []string{"chain link", "clip link", "rivet link", "master link", "joint link"}},
	{"breaker", "chain tool", []string{"chain tool", "chain breaker", "riveter"}},
	{"cable", "clutch cable", []string{"cable"}},
	{"levers", "levers", []string{"levers", "brake lever", "clutch lever"}},
	{"tape", "tape that fuses", []string{"tape"}},
	{"clamps", "hose clamps", []string{"clamp", "jubilee"}},
	{"putty", "metal putty", []string{"putty", "epoxy", "metal weld", "cold weld"}},
	{"jump", "jump lead or booster", []string{"jump", "booster", "power bank"}},
	{"wire", "wire and fuses", []string{"wire", "fuse"}},
	{"key", "spare key, on the other rider", []string{"spare key", "second key"}},
	{"straps", "straps, cable ties", []string{"strap", "ties", "zip"}},
	{"tow", "tow strap", []string{"tow"}},
}

// Items lists what may be in a kit.
func Items() []Item { return items }

// ItemOf finds one.
func ItemOf(id string) (Item, bool) {
	for _, i := range items {
		if i.ID == id {
			return i, true
		}
	}
	return Item{}, false
}

// In reports whether a thing is in a list of names, by the words that it goes by.
func (i Item) In(names []string) bool {
	return slices.ContainsFunc(names, func(name string) bool {
		low := strings.ToLower(name)
		return slices.ContainsFunc(i.words, func(word string) bool { return strings.Contains(low, word) })
	})
}

// Bike is what of a bike decides which rows there are.
type Bike struct{ Chain, Liquid, Injected, Tubes bool }

// Row is something that stops a bike.
type Row struct {
	ID, Name string
	of       func(Bike) bool
	Needs    []string // things that mend it together
	With     string   // what to do with them
	Without  string   // and with empty hands
	Far      string   // how far it gets then, mended; with empty hands as Without says
}

func every(Bike) bool         { return true }
func chain(b Bike) bool       { return b.Chain }
func liquid(b Bike) bool      { return b.Liquid }
func injected(b Bike) bool    { return b.Injected }
func carburetted(b Bike) bool { return !b.Injected }
func tubes(b Bike) bool       { return b.Tubes }
func tubeless(b Bike) bool    { return !b.Tubes }

var rows = []Row{
	{"tube", "Flat, with a tube", tubes, []string{"irons", "pump", "tube"}, "Wheel out, the thorn out of the cover first, tube in, 30 km at the card's pressure, look again.", "Patches in the tube that is in it; else slowly on the rim lock, 20 km/h, to the next house.", "home"},
	{"plug", "Flat, tubeless", tubeless, []string{"patches", "pump"}, "Plug it on the bike, pump, soap on it.", "Slowly, 20 km/h: the bead comes off, and then the rim goes.", "home, looked at each morning"},
	{"chain", "Chain broken", chain, []string{"link", "breaker"}, "Look at cases and sprocket for what it tore; link in, clip against the way.", "No way on: towed, or pushed downhill.", "home, half the throttle"},
	{"clutch", "Clutch cable or line gone", every, []string{"cable"}, "New cable in, free play as before.", "Neutral, push, second gear; shift at even revs, plan the stops. An automatic clutch: turns of its adjuster as the card has them, and back.", "home"},
	{"lever", "Lever broken", every, []string{"levers"}, "New one on, its play as before.", "The stump with two fingers; locking pliers on the clutch. No front brake: walk down what is steep.", "home"},
	{"radiator", "Radiator holed", liquid, []string{"putty"}, "Drain, clean, dry, putty on both sides, an hour; fill with water, cap one notch loose.", "Pinch the tube shut with pliers, fill with water, cap loose, stop before the red.", "100 km at a time, eyes on the lamp"},
	{"hose", "Hose split", liquid, []string{"tape"}, "Dry it, tape stretched tight, three layers, a clamp at each end, water, cap loose.", "Cut it shorter where it split at its end; else towed.", "the next shop"},
	{"shock", "Shock gone", every, nil, "", "Slow, bags lighter and further forward, off the seat on bumps; look for rub, and for oil on the brake.", "as far as patience goes: 50–60 km/h, no rough ground"},
	{"battery", "Battery flat or dead", every, []string{"jump"}, "From the other bike with its engine off; let it charge for an hour.", "Push or roll, second gear. An injected bike wants some volts left for its pump.", "home, do not stop it"},
	{"fuel-pump", "Fuel pump silent", injected, []string{"wire"}, "Its fuse, its relay swapped with another of the same, its plug; then twelve volts straight to it.", "Plug off and on, a knock on the tank's plate; else towed.", "home, if it hums"},
	{"jet", "Runs dry or floods, carburettor", carburetted, nil, "", "Tap off, drain the bowl, main jet out and blown through, float moved by hand.", "home"},
	{"key", "Key lost", every, []string{"key"}, "The other rider has it.", "Without its chip an injected bike does not start: a truck. Without one: bridge the lock's plug.", "home"},
	{"stand", "Dies in gear, or no start: stand switch", every, []string{"wire"}, "Bridge its plug as its diagram says, tape it, stand up by hand.", "Plug off and on, stone and mud out of it.", "home; undo it there"},
	{"bend", "Bar, pegs or rack bent, a lug broken", every, []string{"straps"}, "Strap it where it carries, load off it.", "Off it comes, and on the other bike.", "slow, looked at each stop"},
}

// Rows are those of a bike, in the order in which they happen.
func Rows(b Bike) []Row {
	return slices.DeleteFunc(slices.Clone(rows), func(r Row) bool { return !r.of(b) })
}

// Missing are the things that a row needs and a kit has not, by name.
func (r Row) Missing(has func(item string) bool) []string {
	var list []string
	for _, id := range r.Needs {
		if item, _ := ItemOf(id); !has(id) {
			list = append(list, item.Name)
		}
	}
	return list
}
