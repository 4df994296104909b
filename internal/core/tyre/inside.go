package tyre

// Filling is what goes into a tyre, or keeps it on its rim.
type Filling string

// The fillings.
const (
	Tube      Filling = "tube"
	HeavyTube Filling = "heavy-tube"
	UltraTube Filling = "ultra-heavy-tube"
	Foam      Filling = "foam"
	RimTape   Filling = "rim-tape" // seals a spoked rim, so that it needs no tube
	RimLock   Filling = "rim-lock"
	Sealant   Filling = "sealant"
)

// Content is what is known of a filling.
type Content struct {
	Filling Filling
	Name    string
	// PinchShare is how far below the standard tube's pressure it may be ridden
	// over rock before it is pinched on the rim, as a share of that pressure
	// [practice].
	PinchShare float64
	School     string // who swears by it, and why
}

var contents = []Content{
	{Tube, "Standard tube", 1, "Normal tube, higher pressure: light, cheap, fewer flats at road pressures, less grip when loose."},
	{HeavyTube, "Heavy-duty tube", 0.8, "Heavy tube, low pressure: about twice the mass against pinch flats and thorns, for grip where it is loose."},
	{UltraTube, "Ultra-heavy tube", 0.65, "For rock and bags far from help. Agility goes and springs work harder; some want the steady front in mud."},
	{Foam, "Foam insert", 0, "No flats at all and a plush feel that some loaded riders swear by. Makers limit speed and heat; not for the road."},
	{RimTape, "Tubeless tape", 0.85, "Plugs instead of tyre irons, and less heat. A bent rim or a lost seal ends it: carry a tube all the same."},
	{RimLock, "Rim lock", 1, "Holds a soft tyre on its rim under drive and brakes. It unbalances by its own mass."},
	{Sealant, "Sealant", 1, "Closes thorn holes as they come. No help against pinches; it ages and makes a mess of the repair."},
}

// tubelessPinchShare is a tubeless tyre's: there is no tube to pinch, but the
// rim dents before the tyre cuts [practice].
const tubelessPinchShare = 0.85

// PinchShare of what is in a tyre: the filling's, or a tubeless tyre's when there
// is none.
func PinchShare(f Filling) float64 {
	if c, ok := ContentOf(f); ok {
		return c.PinchShare
	}
	return tubelessPinchShare
}

// Contents lists the fillings.
func Contents() []Content { return contents }

// ContentOf finds a filling's content.
func ContentOf(f Filling) (Content, bool) {
	for _, c := range contents {
		if c.Filling == f {
			return c, true
		}
	}
	return Content{}, false
}

// HoldsAir reports whether a filling is what keeps the air in: one of the tubes.
func (f Filling) HoldsAir() bool { return f == Tube || f == HeavyTube || f == UltraTube }
