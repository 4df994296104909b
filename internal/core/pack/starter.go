package pack

// Trip is what a first list is made for.
type Trip struct {
	Days   int
	Cold   bool
	Wet    bool
	Remote bool // help is more than a day away
}

// Thing is one line of a first list.
type Thing struct {
	Name           string
	MassKg, Litres float64
	Daily          bool
	For            string // "", "cold", "wet", "remote"
}

// Starter is a first list for a trip: what most take, with masses and volumes to be
// corrected on one's own scales [memory].
func Starter(t Trip) []Thing {
	camping := t.Days > 1
	days := float64(min(t.Days, 3))
	var list []Thing
	add := func(when bool, things ...Thing) {
		if when {
			list = append(list, things...)
		}
	}
	add(true,
		Thing{Name: "Tools", MassKg: 3.2, Litres: 3}, Thing{Name: "Tubes or plugs, pump", MassKg: 1.8, Litres: 2.5},
		Thing{Name: "First aid", MassKg: 0.7, Litres: 1.2, Daily: true}, Thing{Name: "Papers, money, map", MassKg: 0.4, Litres: 0.8, Daily: true},
		Thing{Name: "Water", MassKg: 2, Litres: 2, Daily: true}, Thing{Name: "Food for the day", MassKg: 1, Litres: 2, Daily: true},
		Thing{Name: "Pull strap", MassKg: 0.6, Litres: 0.8}, Thing{Name: "Phone, charger, lamp", MassKg: 0.6, Litres: 1, Daily: true})
	add(camping,
		Thing{Name: "Tent", MassKg: 2.8, Litres: 8}, Thing{Name: "Sleeping bag", MassKg: 1.3, Litres: 9}, Thing{Name: "Mat", MassKg: 0.7, Litres: 4},
		Thing{Name: "Stove, pot, gas", MassKg: 1.5, Litres: 3.5}, Thing{Name: "Food", MassKg: 0.8 * days, Litres: 1.5 * days},
		Thing{Name: "Clothes", MassKg: 1 + 0.6*days, Litres: 3 + 2*days}, Thing{Name: "Washing things", MassKg: 0.6, Litres: 1.2}, Thing{Name: "Camp shoes", MassKg: 0.8, Litres: 3.5})
	add(t.Days > 5, Thing{Name: "Chain oil, engine oil", MassKg: 0.9, Litres: 1}, Thing{Name: "Spare levers, bulbs, fuses, links", MassKg: 0.9, Litres: 1})
	add(t.Wet, Thing{Name: "Rain suit", MassKg: 1.3, Litres: 3, Daily: true, For: "wet"}, Thing{Name: "Dry gloves", MassKg: 0.3, Litres: 0.8, Daily: true, For: "wet"})
	add(t.Cold, Thing{Name: "Warm layer", MassKg: 1.1, Litres: 4, Daily: true, For: "cold"}, Thing{Name: "Winter gloves, neck", MassKg: 0.5, Litres: 1.5, Daily: true, For: "cold"})
	add(t.Remote, Thing{Name: "Spare water", MassKg: 4, Litres: 4, For: "remote"}, Thing{Name: "Water filter", MassKg: 0.4, Litres: 0.8, For: "remote"}, Thing{Name: "Emergency beacon", MassKg: 0.2, Litres: 0.3, Daily: true, For: "remote"})
	return list
}
