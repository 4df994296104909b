// Package baseline is the inspection of a second-hand bike: what is looked at, in
// the order in which one walks around it, and how far worn parts still go.
//
// It knows no limits. What a part may wear to stands in the maker's manual, and
// the rider enters it.
package baseline

// Feature is what a bike has or has not, by which a check applies to it.
type Feature string

// The features that checks ask for.
const (
	Always       Feature = ""
	Carburettor  Feature = "carburettor"
	Injection    Feature = "injection"
	LiquidCooled Feature = "liquid"
	Chain        Feature = "chain"
	Shaft        Feature = "shaft"
	Tubes        Feature = "tubes"
	Tubeless     Feature = "tubeless"
	Spokes       Feature = "spokes"
)

// Area is a stop on the walk around the bike.
type Area string

// The areas, in their order.
const (
	Papers   Area = "papers"
	Cold     Area = "cold"
	Front    Area = "front"
	Controls Area = "controls"
	Left     Area = "left"
	Rear     Area = "rear"
	Right    Area = "right"
	Running  Area = "running"
	Free     Area = "free"
)

// AreaInfo is an area with its name.
type AreaInfo struct {
	Area Area
	Name string
}

// Areas lists the areas as one walks.
func Areas() []AreaInfo {
	return []AreaInfo{
		{Papers, "Papers, before you kneel down"},
		{Cold, "Cold, from where you stand"},
		{Front, "Front wheel, fork, steering"},
		{Controls, "At the bars"},
		{Left, "Left side, engine and drive"},
		{Rear, "Rear wheel and swingarm"},
		{Right, "Right side, brakes and exhaust"},
		{Running, "Running"},
		{Free, "What costs nothing"},
	}
}

// Wear tells how a measure goes while a part wears.
type Wear int

// The ways of wearing.
const (
	NoMeasure Wear = iota
	Shrinks        // a pad, a tread, a disc
	Grows          // a chain
)

// Check is one thing to look at.
type Check struct {
	ID, Name string
	How      string // to check it
	Area     Area
	Only     Feature
	Wear     Wear
	Measure  string // what is measured, mm; "" without a measure
}

// Verdict is what a check comes to.
type Verdict string

// The verdicts of a check.
const (
	Good   Verdict = "good"
	Done   Verdict = "done" // put right: what it took is spent
	Watch  Verdict = "watch"
	Do     Verdict = "do"     // before the trip
	Blocks Verdict = "blocks" // no trip while it is so
)

// VerdictInfo is a verdict with its name.
type VerdictInfo struct {
	Verdict Verdict
	Name    string
}

// Verdicts lists them from best to worst.
func Verdicts() []VerdictInfo {
	return []VerdictInfo{{Good, "Good"}, {Done, "Put right"}, {Watch, "Watch"}, {Do, "Do before the trip"}, {Blocks, "Blocks the trip"}}
}

// Fate is what becomes of a change that a previous owner made.
type Fate string

// The fates of a change.
const (
	Keep       Fate = "keep"
	Undo       Fate = "undo"
	WatchOwner Fate = "watch"
)

// FateInfo is a fate with its name.
type FateInfo struct {
	Fate Fate
	Name string
}

// Fates lists them.
func Fates() []FateInfo {
	return []FateInfo{{Keep, "Keep"}, {Undo, "Undo"}, {WatchOwner, "Watch"}}
}

// For is the checks of a bike: those that ask for nothing, and those that ask for
// what it has.
func For(has func(Feature) bool) []Check {
	var list []Check
	for _, c := range checks {
		if c.Only == Always || has(c.Only) {
			list = append(list, c)
		}
	}
	return list
}

// CheckOf finds a check.
func CheckOf(id string) (Check, bool) {
	at, ok := byID[id]
	if !ok {
		return Check{}, false
	}
	return checks[at], true
}

var byID = func() map[string]int {
	all := make(map[string]int, len(checks))
	for i := range checks {
		all[checks[i].ID] = i
	}
	return all
}()
