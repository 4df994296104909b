package guard

import "valiantmule/internal/core/terrain"

// EventKey names how often a hazard happens in 1000 km on a ground.
func EventKey(h Hazard, g terrain.Kind) string { return "events." + string(h) + "." + string(g) }

// BreakKey names the share of a hazard's events that breaks a place.
func BreakKey(p Place, h Hazard) string { return "breaks." + string(p) + "." + string(h) }

// LossKey names what a broken place costs: "repair" in the rider's money, "days" or "stranded".
func LossKey(p Place, what string) string { return "loss." + string(p) + "." + what }

// StrikeRoomKey names the room under the engine, mm, that is worth e times the strikes.
const StrikeRoomKey = "strikes.room"

// Key is one rate that a rider may change.
type Key struct {
	Key, Name string
	Unit      string  // "" for a plain number, "%" for a share, "mm"
	Value     float64 // to start with; of a repair a light bike's, in euros
	Min, Max  float64
}

// Keys lists every rate with its starting value.
func Keys() []Key {
	var list []Key
	for _, h := range hazards {
		for i, g := range grounds {
			list = append(list, Key{EventKey(h.Hazard, g.Kind), h.Name + ", " + g.Name, "", h.PerThousandKm[i], 0, 1000})
		}
	}
	list = append(list, Key{StrikeRoomKey, "Room that is worth 2.7 times the strikes", "mm", strikeRoomMM, 5, 500})
	for _, p := range places {
		for _, b := range p.Breaks {
			info, _ := HazardOf(b.Hazard)
			list = append(list, Key{BreakKey(p.Place, b.Hazard), p.Name + ", " + info.Name, "%", b.Share, 0, 1})
		}
		list = append(list,
			Key{LossKey(p.Place, "repair"), p.Name + ", repair", "", p.Loss.Repair[LightBike], 0, 100_000},
			Key{LossKey(p.Place, "days"), p.Name + ", days", "", p.Loss.Days, 0, 100},
			Key{LossKey(p.Place, "stranded"), p.Name + ", stranded", "%", p.Loss.Stranded, 0, 1})
	}
	return list
}

// KeyOf finds a rate.
func KeyOf(key string) (Key, bool) {
	k, ok := byKey[key]
	return k, ok
}

var byKey = func() map[string]Key {
	all := map[string]Key{}
	for _, k := range Keys() {
		all[k.Key] = k
	}
	return all
}()
