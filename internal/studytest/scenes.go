package studytest

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/demo"
	"valiantmule/internal/golden"
)

// Scene is a plan with a name.
type Scene struct {
	Name string
	Plan *plan.Plan
	All  bool // all its loadouts are of interest, not the last alone
}

// Scenes are trips that between them fit most kinds of parts and ride all kinds of
// ground: every bike of the demo, and one of which little is known.
func Scenes(b *Garage) []Scene {
	shipped, _ := Demo(b.t)
	scenes := []Scene{{"the demo rider's own", shipped, true}}
	plans, err := demo.Garages()
	require.NoError(b.t, err)
	for _, p := range plans {
		scenes = append(scenes, Scene{"the demo rider's " + p.Bike.ID, p, true})
	}
	scene := func(name, bike string, change func(p *plan.Plan, enter func(q enterer, text, unit string)), parts ...string) {
		p := b.With(bike, parts...)
		p.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
		change(p, func(q enterer, text, unit string) { Enter(b.t, q, text, unit) })
		scenes = append(scenes, Scene{name, p, false})
	}
	ground := func(p *plan.Plan, mix map[terrain.Kind]string) { Ground(b.t, p, mix) }

	scene("motorways into the wind", "fennick-250", func(p *plan.Plan, enter func(enterer, string, string)) {
		ground(p, map[terrain.Kind]string{terrain.Motorway: "60", terrain.Paved: "40"})
		enter(&p.Brief.Cruise, "125", "km/h")
		enter(&p.Brief.Headwind, "35", "km/h")
		enter(&p.Brief.Inseam, "740", "mm")
		p.Brief.Style = tyre.Hard
	}, "front-f18-13", "rear-f6-48", "foam-front-21", "foam-rear-18", "tank-12-f", "screen-low", "skid-thin-f", "seat-low", "cooler-grille-f")
	scene("rock, loaded", "fennick-450", func(p *plan.Plan, enter func(enterer, string, string)) {
		ground(p, map[terrain.Kind]string{terrain.RoughGravel: "40", terrain.SingleTrack: "30", terrain.Sand: "30"})
		p.Brief.Skill, p.Brief.Style = guard.Learning, tyre.Steady
		enter(&p.Brief.Help, "20", "h")
		enter(&p.Brief.Climb, "35", "%")
		p.Brief.ClimbGround = terrain.SingleTrack
		p.Loadouts[1].Loads = append(p.Loadouts[1].Loads, Thing(b.t, "14", "20", parts.SideBags, plan.Left, load.Panniers), Thing(b.t, "9", "12", parts.SideBags, plan.Right, load.Panniers), Thing(b.t, "6", "9", parts.TailBag, "", load.Tail))
	}, "tube-ultra-front-21", "tube-ultra-rear-18", "lock-front-160", "lock-light-rear-215", "hackle-110-100-18", "bags-rackless-38", "roll-40", "rear-rack-f", "kit-tubes", "bladder-7", "pegs-wide")
	scene("two up in wet mud", "corrin-850", func(p *plan.Plan, enter func(enterer, string, string)) {
		ground(p, map[terrain.Kind]string{terrain.Mud: "15", terrain.Track: "25", terrain.Paved: "60"})
		p.Brief.Weather = plan.Wet
		enter(&p.Loadouts[1].Pillion, "68", "kg")
		p.Loadouts[1].Loads = append(p.Loadouts[1].Loads, Thing(b.t, "12", "25", parts.SideBags, plan.Left, load.Panniers), Thing(b.t, "7", "30", parts.SideBags, plan.Right, load.Panniers), Thing(b.t, "8", "40", parts.TopBox, "", load.TopBox))
	}, "boxes-2x36", "side-rack-c", "box-42", "rear-rack-c", "wheel-c-21", "bars-high-c", "skid-alu-c", "riser-30-28", "tank-27-c", "lanner-150-70r17", "screen-tall", "hands-bar-28")
	scene("far roads", "corrin-1180", func(p *plan.Plan, enter func(enterer, string, string)) {
		ground(p, map[terrain.Kind]string{terrain.Motorway: "30", terrain.Paved: "60", terrain.SmoothGravel: "10"})
		enter(&p.Brief.Distance, "9000", "km")
		enter(&p.Brief.Day, "9", "h")
		enter(&p.Brief.Inseam, "900", "mm")
		p.Brief.Style, p.Brief.Spanner = tyre.Gentle, plan.NoSpanner
		p.Brief.Ships, p.Brief.TieDown = "2027-05-20", "yokes"
		enter(&p.Brief.ShipMost, "250", "kg")
	}, "skid-plastic-t", "bars-low-t", "seat-gel", "tank-bag-15", "kit-plugs", "rear-rack-wrap-t")
	scene("carburettor, high", "morrow-400", func(p *plan.Plan, enter func(enterer, string, string)) {
		enter(&p.Brief.Altitude, "3900", "m")
		ground(p, map[terrain.Kind]string{terrain.SmoothGravel: "50", terrain.Track: "50"})
		p.Brief.Weather = plan.Cold
		p.Group = []plan.Mate{{Name: "Wren"}}
		enter(&p.Group[0].Range, "140", "km")
	}, "front-m20-13", "rear-m6-47", "tank-17-m", "skid-thin-m", "tape-rear-18", "mudguard-high", "bottles-2x1", "riser-20-22", "stand-foot-22")
	scene("roadster on rock", "averill-720", func(p *plan.Plan, enter func(enterer, string, string)) {
		ground(p, map[terrain.Kind]string{terrain.RoughGravel: "70", terrain.Paved: "30"})
		enter(&p.Brief.RoomWanted, "190", "mm")
		enter(&p.Brief.CruiseRPM, "4000", "rpm")
		enter(&p.Brief.WalkingPace, "5", "km/h")
	}, "front-a25-15", "rear-a5-46", "skid-thin-a", "bars-low-a", "wether-160-60r17", "cans-2x3", "rear-rack-a")
	scene("a second set, fitted on the way", "sorrel-320", func(p *plan.Plan, enter func(enterer, string, string)) {
		for i, id := range []string{"front-s16-13", "rear-s6-45"} {
			c := b.Part(id)
			c.Loadout = p.Loadouts[i].ID
			p.Lines = p.With(c).Lines
		}
		enter(&p.Brief.Rider, "58", "kg")
		p.Brief.Skill = guard.Old
		pads := plan.Answer{Check: "rear-pads"}
		enter(&pads.New, "5", "mm")
		enter(&pads.Now, "2.2", "mm")
		enter(&pads.Limit, "1", "mm")
		enter(&pads.Run, "9400", "km")
		p.Baseline.Answers = append(p.Baseline.Answers, pads)
	}, "skid-plastic-s", "tank-18-s", "nav-phone", "mount-plain", "socket-plain", "grips-heated", "levers-fold")
	scene("tall and heavy, mixed tyres", "fennick-300", func(p *plan.Plan, enter func(enterer, string, string)) {
		enter(&p.Brief.Rider, "120", "kg")
		enter(&p.Brief.Inseam, "960", "mm")
		ground(p, map[terrain.Kind]string{terrain.SingleTrack: "20", terrain.Sand: "20", terrain.Motorway: "20", terrain.Paved: "40"})
	}, "scree-120-100-18", "tube-heavy-rear-18", "bar-22-high", "riser-30-22", "seat-tall", "pegs-low", "stand-foot-10", "aux-3-5-f")
	scene("one of which little is known", "holt-650", func(p *plan.Plan, enter func(enterer, string, string)) {
		bike := &plan.Bike{ID: "own", Name: "Own", KerbMass: p.Bike.KerbMass, Tank: p.Bike.Tank, Economy: p.Bike.Economy, SeatHeight: p.Bike.SeatHeight}
		p.Bike, p.Route, p.Readings = bike, nil, nil
		p.Brief.Skill, p.Brief.Style = "", ""
	}, "wether-130-80-18", "bags-rackless-26")
	return scenes
}

// enterer is a quantity that can be typed.
type enterer interface{ Enter(text, unit string) error }

// Known visits what is known of each scene, in its last loadout.
func Known(t testing.TB, visit func(name string, f *facts.All)) {
	t.Helper()
	b := New(t)
	for _, scene := range Scenes(b) {
		loadouts := eval.Evaluate(scene.Plan, b.Shelf, Today).Loadouts
		visit(scene.Name, loadouts[len(loadouts)-1].Facts)
	}
}

// Drawn holds what the pages of a study draw of each scene that has a bike.
func Drawn(t *testing.T, write func(w *strings.Builder, f *facts.All)) {
	t.Helper()
	var text strings.Builder
	Known(t, func(name string, f *facts.All) {
		fmt.Fprintf(&text, "# %s\n", name)
		if f.Built != nil {
			write(&text, f)
		}
	})
	golden.Held(t, "drawn", text.String())
}
