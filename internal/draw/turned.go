package draw

import (
	"math"

	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/stance"
)

// TurnedView is a bike turned about its wheels over the same bike in its standard stance,
// with its rider on it or standing astride.
type TurnedView struct {
	Shown         bool
	Width, Height N
	GroundY       N
	Ghost, Side   SideView
	Axis          string // the steering axis down to the ground
	Trail         Dimension2D
	Room          Dimension
	Seat          Dimension
	SeatX         N // where the line from its height ends
	Rider         Figure2D
}

// Dimension2D is a length along the ground.
type Dimension2D struct {
	Shown     bool
	X1, X2, Y N
	Text      string
}

// Figure2D is a rider in segments.
type Figure2D struct {
	Shown        bool
	Body, Leg    string
	HeadX, HeadY N
	HeadR        N
	Feet         string // how the feet are on the ground, "" on the pegs
	FeetX, FeetY N
}

// RiderPose is what a rider does.
type RiderPose string

// The poses.
const (
	LegsDown RiderPose = "down"
	Seated   RiderPose = "seated"
	OnPegs   RiderPose = "standing"
)

// Turned is what a turned bike is drawn from, mm; NaN where nobody knows.
type Turned struct {
	Bike          Silhouette
	Frame         stance.Frame
	Pose          stance.Pose
	Rider         RiderPose
	Body          fit.Body
	InseamMM      float64
	SeatMM, PegMM float64 // as built, in the frame's standard stance
	Grip          fit.Place
	Back          float64 // degrees, seated or standing
	AheadMM       float64 // pegs, of the usual hip
	SitsMM        float64 // forward of the usual spot
	ReachMM       float64 // heel above ground
	Feet          string
	Words         func(mm float64) string
}

// TurnedBike draws it.
func TurnedBike(t Turned) TurnedView {
	now := t.Bike
	now.Turned, now.CentreXMM = &t.Pose, math.NaN()
	now.SeatMM = t.SeatMM
	ghost := t.Bike
	ghost.CentreXMM = math.NaN()
	ghost.FrontTyreMM, ghost.RearTyreMM = 2*t.Frame.FrontRadiusMM, 2*t.Frame.RearRadiusMM
	now.FrontTyreMM, now.RearTyreMM = ghost.FrontTyreMM, ghost.RearTyreMM // its frame's own; the pose has the wheels
	sheet := turnedSheet(ghost, t.PegMM+standingMM(t.Body))
	d := TurnedView{Width: sheet.Width, Height: sheet.Height, GroundY: sheet.GroundY}
	if !ghost.whole() || math.IsNaN(t.Pose.PitchDeg) {
		return d
	}
	d.Ghost, _ = sheet.Side(ghost, Standard)
	d.Side, d.Shown = sheet.Side(now, Current)

	k := now.skeleton()
	at := func(x, z float64) (N, N) {
		x, z = t.Pose.At(x, z)
		return sheet.X(x), sheet.Y(z)
	}
	d.axis(t, k, sheet)
	if t.Bike.ClearanceMM > 0 {
		x, y := at(0.58*k.base, t.Bike.ClearanceMM)
		_, z := t.Pose.At(0.58*k.base, t.Bike.ClearanceMM)
		d.Room = Dimension{true, x, y, sheet.GroundY, t.Words(z)}
	}
	x, y := at(0.36*k.base, t.SeatMM)
	_, z := t.Pose.At(0.36*k.base, t.SeatMM)
	d.Seat = Dimension{true, sheet.X(-k.rr - 90), y, sheet.GroundY, t.Words(z)}
	d.SeatX = x
	d.rider(t, k, sheet)
	return d
}

const (
	turnedGround = 466.0
	turnedTop    = 14.0
)

// turnedSheet is a sheet with room for a rider who stands, whatever they do, so that the
// bike stays where it is when they sit down.
func turnedSheet(b Silhouette, tallMM float64) Sheet {
	tallMM = math.Max(or(tallMM, 0), or(b.BarMM, b.SeatMM+270)+200)
	long := b.WheelbaseMM + b.FrontTyreMM/2 + b.RearTyreMM/2
	scale := min((turnedGround-turnedTop)/tallMM, (sideWidth-200)/long)
	return Sheet{Width: sideWidth, Height: turnedGround + 34, GroundY: turnedGround, scale: scale, originX: (sideWidth-long*scale)/2 + b.RearTyreMM/2*scale}
}

// standingMM is how high a rider on the pegs reaches above them, with a helmet on.
func standingMM(b fit.Body) float64 { return b.Thigh + b.Shank + b.Torso + 1.7*b.Head }

// axis draws the steering axis and the trail from it to where the wheel stands.
func (d *TurnedView) axis(t Turned, k skeleton, sheet Sheet) {
	if math.IsNaN(t.Pose.TrailMM) {
		return
	}
	trail := t.Pose.TrailMM
	hit := t.Pose.WheelbaseMM + trail
	sin, cos := math.Sincos(t.Pose.RakeDeg * math.Pi / 180)
	const up = 620.0
	d.Axis = (&pen{sheet: sheet}).move(hit, 0).line(hit-up*sin/cos, up).path()
	d.Trail = Dimension2D{true, sheet.X(t.Pose.WheelbaseMM), sheet.X(hit), sheet.GroundY + 9, t.Words(trail)}
}

// rider draws the body: on the bike in its frame, or with the legs down beside it.
func (d *TurnedView) rider(t Turned, k skeleton, sheet Sheet) {
	if math.IsNaN(t.InseamMM + t.SeatMM + t.PegMM) {
		return
	}
	f := &d.Rider
	peg := fit.Place{X: fit.HipXMM(k.base) + t.AheadMM, Z: t.PegMM}
	frame := func() *pen { return &pen{sheet: sheet, turned: &t.Pose} }
	hip := fit.Place{X: fit.HipXMM(k.base) + t.SitsMM, Z: t.SeatMM}
	switch t.Rider {
	case OnPegs:
		hip = t.Body.StandingHip(peg)
	case LegsDown:
		spot, _ := load.SpotOf(load.Rider)
		hip = fit.Place{X: spot.Share * k.base, Z: t.SeatMM}
	}
	back, shoulder := t.Back, fit.Place{}
	if math.IsNaN(back) || t.Rider == LegsDown {
		back = 4
	}
	shoulder = t.Body.Shoulder(hip, back)
	head := fit.Place{X: shoulder.X + 0.35*t.Body.Head, Z: shoulder.Z + t.Body.Head}
	p := frame().move(hip.X, hip.Z).line(shoulder.X, shoulder.Z)
	if !math.IsNaN(t.Grip.X + t.Grip.Z) {
		elbow := joint(shoulder, t.Grip, 0.49*reachOf(t.Body), 0.51*reachOf(t.Body), -1)
		p.line(elbow.X, elbow.Z).line(t.Grip.X, t.Grip.Z)
	}
	f.Shown, f.Body = true, p.path()
	hx, hz := t.Pose.At(head.X, head.Z)
	f.HeadX, f.HeadY, f.HeadR = sheet.X(hx), sheet.Y(hz), N(0.075*or(t.InseamMM, 850)*2*sheet.scale)
	if t.Rider == LegsDown {
		// Beside the bike the legs follow the ground and not the frame.
		x, z := t.Pose.At(hip.X, hip.Z)
		heel := math.Max(0, t.ReachMM)
		toe := fit.Place{X: x + 60, Z: 0}
		ankle := fit.Place{X: x - 20, Z: math.Max(heel, 20)}
		knee := joint(fit.Place{X: x, Z: z}, ankle, t.Body.Thigh, t.Body.Shank, 1)
		f.Leg = (&pen{sheet: sheet}).move(x, z).line(knee.X, knee.Z).line(ankle.X, ankle.Z).line(toe.X+90, toe.Z+4).path()
		f.Feet, f.FeetX, f.FeetY = t.Feet, sheet.X(x+20), sheet.GroundY
		return
	}
	knee := joint(hip, peg, t.Body.Thigh, t.Body.Shank, 1)
	f.Leg = frame().move(hip.X, hip.Z).line(knee.X, knee.Z).line(peg.X, peg.Z).line(peg.X+90, peg.Z-10).path()
}

// reachOf is the length of an arm that is nearly straight.
func reachOf(b fit.Body) float64 { return 1.16 * b.Arm }

// joint is where two segments meet between their ends, on the front side (1) or behind and
// below (−1); in the middle where they are too short.
func joint(from, to fit.Place, first, second, side float64) fit.Place {
	dx, dz := to.X-from.X, to.Z-from.Z
	away := math.Hypot(dx, dz)
	reach := math.Min(away, first+second)
	along := (first*first - second*second + reach*reach) / (2 * reach)
	out := side * math.Sqrt(math.Max(0, first*first-along*along))
	return fit.Place{X: from.X + dx/away*along - dz/away*out, Z: from.Z + dz/away*along + dx/away*out}
}
