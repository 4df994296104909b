package cause

// Setting is one thing on the bike that findings may pull at from two sides.
type Setting string

// The settings.
const (
	RideHeight Setting = "ride-height"
	BarHeight  Setting = "bar-height"
	Pressure   Setting = "tyre-pressure"
)

var settings = map[Setting]string{RideHeight: "How high it stands", BarHeight: "How high the bars are", Pressure: "How hard the tyres are"}

// Name is what the setting is called.
func (s Setting) Name() string { return settings[s] }

// Pull is a setting and the way in which a finding would have it.
type Pull struct {
	Setting Setting
	Up      bool
}

// More pulls a setting up.
func More(s Setting) Pull { return Pull{s, true} }

// Less pulls a setting down.
func Less(s Setting) Pull { return Pull{s, false} }
