package cause

// Class is what a finding would cost the trip if nobody did anything about it, from 1, the worst:
// what matters first when all is on one list [practice].
type Class int

// The classes.
const (
	Fails      Class = iota + 1 // the inspection, or to start; or it does not go together
	Ends                        // the ride
	NextPump                    // is not reached
	StopsRider                  // knees, cold, hands
	Undone                      // cheap to prevent, and never undone
	Control                     // tyres, pegs, levers, sag
	Rest
)

// classes are their words, by their order.
var classes = [...]string{
	Fails: "fails or will not start", Ends: "ends the ride", NextPump: "the next pump", StopsRider: "stops the rider",
	Undone: "cheap, and never undone", Control: "control", Rest: "the rest",
}

// String is the class in words, "" for none.
func (c Class) String() string {
	if !c.Valid() {
		return ""
	}
	return classes[c]
}

// Valid reports whether it is one of the table.
func (c Class) Valid() bool { return c >= Fails && c <= Rest }
