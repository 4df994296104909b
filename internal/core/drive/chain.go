package drive

import (
	"fmt"
	"math"

	"valiantmule/internal/core/sheet"
)

// Pitches of motorcycle chains by their number, mm [pub: ISO 10190, ANSI B29.1].
var pitches = map[string]float64{"428": 12.7, "520": 15.875, "525": 15.875, "530": 15.875}

// PitchMM is the pitch of a chain number such as "520".
func PitchMM(chain string) (mm float64, ok bool) {
	mm, ok = pitches[chain]
	return mm, ok
}

// sold is between which teeth the trade sells sprockets for a chain, front and rear [memory].
var sold = map[string][2]Teeth{
	"428": {{12, 17}, {38, 58}},
	"520": {{11, 17}, {36, 54}},
	"525": {{14, 18}, {36, 48}},
	"530": {{14, 19}, {36, 50}},
}

// Teeth is a range of tooth counts, both ends in it.
type Teeth struct{ Least, Most int }

// Has reports whether a count lies in the range.
func (t Teeth) Has(n int) bool { return n >= t.Least && n <= t.Most }

// Sold is between which teeth sprockets for a chain are sold; ok is false for a chain that
// nobody has named.
func Sold(chain string) (front, rear Teeth, ok bool) {
	r, ok := sold[chain]
	return r[0], r[1], ok
}

// ChainFormula is the formula of [ExactLinks].
var ChainFormula = sheet.Formula{
	Text:   "X = 2a/p + (z₁+z₂)/2 + ((z₂−z₁)/2π)² × p/a",
	Origin: sheet.Published,
	Source: "ISO 606, informative annex; roller-chain handbooks",
}

// ExactLinks is the chain length in pitches for two sprockets at a centre
// distance: X = 2a/p + (z₁+z₂)/2 + ((z₂−z₁)/2π)²·p/a.
func ExactLinks(p Pair, pitchMM, centreMM float64) float64 {
	a := centreMM / pitchMM
	return 2*a + float64(p.Front+p.Rear)/2 + spread(p)/a
}

// CentreFormula is the formula of [CentreMM].
var CentreFormula = sheet.Formula{
	Text:   "a = p/4 × (s + √(s² − 8((z₂−z₁)/2π)²)), s = X − (z₁+z₂)/2; shift = a − a₀",
	Origin: sheet.Published,
	Source: "ISO 606, informative annex, solved for a",
}

// CentreMM is ExactLinks turned round: the centre distance that a chain of so
// many links gives when it is tight. It fails when the chain is too short to go
// round both sprockets.
func CentreMM(p Pair, pitchMM, links float64) (float64, error) {
	straight := links - float64(p.Front+p.Rear)/2
	root := straight*straight - 8*spread(p)
	if straight <= 0 || root < 0 {
		return 0, fmt.Errorf("a chain of %g links is too short for %d/%d teeth", links, p.Front, p.Rear)
	}
	return pitchMM * (straight + math.Sqrt(root)) / 4, nil
}

// EvenLinks is the smallest even number of links that is not below exact: a
// chain closes on an even count. A hair above an even number, from rounding in
// the sum, is that number.
func EvenLinks(exact float64) int {
	return 2 * int(math.Ceil(exact/2-1e-9))
}

// MinCentreMM is where the teeth of the two sprockets would touch: the sum of
// the pitch radii p/(2 sin(π/z)).
func MinCentreMM(p Pair, pitchMM float64) float64 {
	return PitchRadiusMM(p.Front, pitchMM) + PitchRadiusMM(p.Rear, pitchMM)
}

// PitchRadiusMM is the radius of a sprocket's pitch circle.
func PitchRadiusMM(teeth int, pitchMM float64) float64 {
	return pitchMM / (2 * math.Sin(math.Pi/float64(teeth)))
}

func spread(p Pair) float64 {
	d := float64(p.Rear-p.Front) / (2 * math.Pi)
	return d * d
}

// Adjuster is the room that the axle has in its slots around where it is set
// now, mm.
type Adjuster struct{ ForwardMM, BackMM float64 }

// Reaches reports whether the axle can be moved back by shiftMM (negative:
// forward).
func (a Adjuster) Reaches(shiftMM float64) bool {
	return shiftMM >= -a.ForwardMM && shiftMM <= a.BackMM
}

// A Run is one chain on a pair of sprockets.
type Run struct {
	Links    int
	CentreMM float64 // that it gives when it is tight
	ShiftMM  float64 // of the axle from where it was, + is back
	Reaches  bool    // the adjuster does
}

// Runs are the two chains that come into question: the even number of links
// below the exact one, and the one above. A chain too short for the sprockets is
// left out.
func Runs(p Pair, pitchMM, centreMM float64, a Adjuster) []Run {
	runs := make([]Run, 0, 2)
	up := EvenLinks(ExactLinks(p, pitchMM, centreMM))
	for _, n := range [...]int{up - 2, up} {
		centre, err := CentreMM(p, pitchMM, float64(n))
		if err != nil {
			continue
		}
		shift := centre - centreMM
		runs = append(runs, Run{n, centre, shift, a.Reaches(shift)})
	}
	return runs
}

// LinksInReach is the even number of links for which the axle needs the smallest
// shift from centreMM and stays in the adjuster, with that shift. ok is false
// when no even number does.
func LinksInReach(p Pair, pitchMM, centreMM float64, a Adjuster) (links int, shiftMM float64, ok bool) {
	best := math.Inf(1)
	for _, r := range Runs(p, pitchMM, centreMM, a) {
		if r.Reaches && math.Abs(r.ShiftMM) < best {
			links, shiftMM, ok, best = r.Links, r.ShiftMM, true, math.Abs(r.ShiftMM)
		}
	}
	return links, shiftMM, ok
}

// SlackMM is how far the middle of the lower run moves up and down when the axle
// stays excessMM of axle travel short of tight: the run of length span + 2 ×
// excess, pulled up and down into two straight halves: 2 × √((run/2)² − (span/2)²).
func SlackMM(p Pair, pitchMM, centreMM, excessMM float64) float64 {
	if excessMM <= 0 {
		return 0
	}
	lean := (PitchRadiusMM(p.Rear, pitchMM) - PitchRadiusMM(p.Front, pitchMM)) / centreMM
	span := centreMM * math.Sqrt(1-lean*lean)
	// Both runs gain the excess, and all of it hangs in the lower one.
	run := span + 2*excessMM
	return math.Sqrt(run*run - span*span)
}
