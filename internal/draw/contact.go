package draw

import (
	"fmt"
	"math"

	"valiantmule/internal/core/tyre"
)

// Contact is a loaded tyre where it meets the ground: from the side on a stone,
// cut off above the rim's edge, and its patch on the flat from below.
type Contact struct {
	Shown         bool
	Width, Height N
	GroundY       N
	Tread         string // the tyre's outline, pressed in by the stone
	RimPath       string
	RimEdge       N      // y of the rim's edge above the stone
	Stone         string // as a path
	StoneTop      Dot    // where it meets the tread
	Sink          Dimension
	Left          Dimension // of the room to the rim
	Flat          bool      // tread and rim meet over the stone
	Pinched       bool      // … and what is inside does not take it
	Patches       []Patch
	PatchY        N
}

// Dimension is a length along a line, with its words beside it.
type Dimension struct {
	Shown  bool
	X      N
	Y1, Y2 N
	Text   string
}

// Dot is a place.
type Dot struct{ X, Y N }

// Patch is a contact on the flat, as an ellipse.
type Patch struct {
	X, RX, RY N
	Style     Style
	Text      string
}

// ContactState is one pressure of a tyre.
type ContactState struct {
	Style  Style
	KPa    float64
	LoadKg float64
	Text   string
}

const (
	contactWidth  = 560.0
	contactHeight = 244.0
	contactGround = 216.0
	contactX      = 150.0
	contactScale  = 0.62 // view-box units per mm
	stoneOver     = 22.0 // mm of stone below the tyre's lowest point
	patchX        = 415.0
)

// TyreContact draws a tyre that hits a stone with hit times its standing load,
// at the first state's pressure, and its patch at every state's. On the rim the
// stone goes no further. A filling that takes more than a standard tube is
// pinched later.
func TyreContact(t tyre.Shape, hit float64, filling tyre.Filling, states []ContactState, words func(mm float64) string) Contact {
	d := Contact{Width: contactWidth, Height: contactHeight, GroundY: contactGround, PatchY: contactGround - 92}
	if len(states) == 0 || !(t.DiameterMM > 0) || math.IsNaN(states[0].LoadKg) || !(states[0].KPa > 0) {
		return d
	}
	d.Shown = true
	at := states[0]
	room := t.RoomMM()
	sink := t.SinkMM(hit*at.LoadKg, at.KPa, tyre.Rock)
	d.Flat, d.Pinched = sink > room, at.KPa < t.PinchFloorKPa(at.LoadKg, hit, tyre.Rock, filling)
	shown := min(sink, room)
	// The stone is as high as the tyre reaches over it, so that it alone carries.
	stone := tyre.Rock * contactScale
	top := contactGround - max(tyre.Rock, shown+stoneOver)*contactScale
	shoulder := top + stone
	d.Stone = fmt.Sprintf("M %s %s V %s A %s %s 0 0 1 %s %s V %s Z", N(contactX-stone), N(contactGround), N(shoulder), N(stone), N(stone), N(contactX+stone), N(shoulder), N(contactGround))
	d.StoneTop = Dot{contactX, N(top)}
	r := t.DiameterMM / 2 * contactScale
	centre := top + shown*contactScale - r
	// The tread: an arc of the wheel on either side, and between them the stone.
	apart := shoulder - centre
	down := (r*r - stone*stone + apart*apart) / (2 * apart)
	half, edgeY := math.Sqrt(math.Max(0, r*r-down*down)), centre+down
	reach := math.Min(140, r*0.98)
	side := centre + math.Sqrt(r*r-reach*reach)
	if edgeY > shoulder { // it meets the stone's upright sides
		half, edgeY = stone, centre+math.Sqrt(r*r-stone*stone)
	} else {
		shoulder = edgeY
	}
	d.Tread = fmt.Sprintf("M %s %s A %s %s 0 0 0 %s %s V %s A %s %s 0 0 1 %s %s V %s A %s %s 0 0 0 %s %s",
		N(contactX-reach), N(side), N(r), N(r), N(contactX-half), N(edgeY), N(shoulder),
		N(stone), N(stone), N(contactX+half), N(shoulder), N(edgeY),
		N(r), N(r), N(contactX+reach), N(side))
	rim := (t.DiameterMM/2 - t.HeightMM) * contactScale
	rimReach := math.Min(reach, rim*0.98)
	rimY := centre + math.Sqrt(rim*rim-rimReach*rimReach)
	d.RimPath = fmt.Sprintf("M %s %s A %s %s 0 0 0 %s %s", N(contactX-rimReach), N(rimY), N(rim), N(rim), N(contactX+rimReach), N(rimY))
	stack := (t.HeightMM - room) * contactScale
	d.RimEdge = N(centre + rim + stack)
	d.Sink = Dimension{true, contactX + 92, N(top), N(top + shown*contactScale), words(shown)}
	if left := room - sink; left > 0 {
		d.Left = Dimension{true, contactX - 92, d.RimEdge, N(top), words(left)}
	}
	for _, s := range states {
		if !(s.KPa > 0) {
			continue
		}
		length, width := t.Patch(s.LoadKg, s.KPa)
		d.Patches = append(d.Patches, Patch{X: patchX, RX: N(length / 2 * contactScale), RY: N(width / 2 * contactScale), Style: s.Style, Text: s.Text})
	}
	return d
}
