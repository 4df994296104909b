package studytest

import (
	"fmt"
	"maps"
	"slices"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
)

// Trips are plans as riders begin them, invented: each bike of the demo by three riders with
// three loads over four kinds of ground, with nothing inspected, weighed or logged.
func Trips(b *Garage) []Scene {
	riders := []struct{ name, kg, inseam, stature string }{
		{"short", "66", "730", "1600"}, {"middling", "88", "810", "1760"}, {"tall", "118", "900", "1930"},
	}
	loads := []struct {
		name   string
		things []plan.Load
		parts  func(bike *plan.Bike) []string
	}{
		{"a day's", []plan.Load{Thing(b.t, "5", "10", "", "", load.Rider)}, func(*plan.Bike) []string { return nil }},
		{"a week's", []plan.Load{
			Thing(b.t, "5", "11", parts.SideBags, plan.Left, load.Panniers), Thing(b.t, "5", "11", parts.SideBags, plan.Right, load.Panniers),
			Thing(b.t, "5", "18", parts.TailBag, "", load.Tail),
		}, func(*plan.Bike) []string { return []string{"bags-rackless-26", "tail-22"} }},
		{"a month's", []plan.Load{
			Thing(b.t, "9", "20", parts.SideBags, plan.Left, load.Panniers), Thing(b.t, "9", "20", parts.SideBags, plan.Right, load.Panniers),
			Thing(b.t, "7", "35", parts.TailBag, "", load.Tail),
		}, func(bike *plan.Bike) []string {
			side := bike.ID[:1] // the shelf names racks by the bike's first letter
			if bike.ID == "corrin-1180" {
				side = "t"
			}
			return []string{"side-rack-" + side, "bags-soft-2x22", "rear-rack-" + side, "roll-40"}
		}},
	}
	grounds := []struct {
		name, gap, climb string
		on               terrain.Kind
		mix              map[terrain.Kind]string
	}{
		{"roads", "180", "15", terrain.SmoothGravel, map[terrain.Kind]string{terrain.Motorway: "20", terrain.Paved: "60", terrain.SmoothGravel: "20"}},
		{"gravel", "230", "20", terrain.RoughGravel, map[terrain.Kind]string{terrain.Paved: "40", terrain.SmoothGravel: "35", terrain.RoughGravel: "25"}},
		{"tracks", "260", "30", terrain.Track, map[terrain.Kind]string{terrain.Paved: "20", terrain.RoughGravel: "35", terrain.Track: "30", terrain.SingleTrack: "15"}},
		{"mud and sand", "200", "20", terrain.Track, map[terrain.Kind]string{terrain.Paved: "30", terrain.Track: "30", terrain.Mud: "20", terrain.Sand: "20"}},
	}
	var trips []Scene
	for _, id := range slices.Sorted(maps.Keys(b.Bikes)) {
		for _, r := range riders {
			for _, l := range loads {
				for _, g := range grounds {
					p := b.With(id, l.parts(b.Bikes[id])...)
					p.Route, p.Readings, p.Group, p.Baseline = nil, nil, nil, plan.Inspection{}
					Enter(b.t, &p.Brief.Rider, r.kg, "kg")
					Enter(b.t, &p.Brief.Inseam, r.inseam, "mm")
					Enter(b.t, &p.Brief.Stature, r.stature, "mm")
					Enter(b.t, &p.Brief.Gap, g.gap, "km")
					Enter(b.t, &p.Brief.Climb, g.climb, "%")
					p.Brief.ClimbGround = g.on
					Ground(b.t, p, g.mix)
					Packed(l.things...)(p)
					trips = append(trips, Scene{fmt.Sprintf("%s, %s rider, %s load, %s", id, r.name, l.name, g.name), p, false})
				}
			}
		}
	}
	return trips
}
