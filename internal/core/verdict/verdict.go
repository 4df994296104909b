// Package verdict names the states that a figure or a finding can be in.
package verdict

// State is how a figure stands against its limit.
type State string

// The states, from good to worst; Unknown stands apart.
const (
	OK      State = "ok"
	Watch   State = "watch"   // close to a limit, or worth a look
	Over    State = "over"    // a wish, a budget or a band is passed
	Stop    State = "stop"    // a rating is passed, or it does not fit
	Unknown State = "unknown" // a number is missing
)

// Points are the states of a finding.
func Points() []State { return []State{Watch, Over, Stop} }

// Worse is the one of two states that asks for more attention.
func Worse(a, b State) State {
	if b.Rank() > a.Rank() {
		return b
	}
	return a
}

// Rank orders the states by how much they ask for attention.
func (s State) Rank() int {
	switch s {
	case Stop:
		return 4
	case Over:
		return 3
	case Watch:
		return 2
	case Unknown:
		return 1
	}
	return 0
}
