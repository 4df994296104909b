package eval

import (
	"valiantmule/internal/core/verdict"
)

// GaugeIDs are the gauges of the verdict strip, in its order.
var GaugeIDs = []string{
	"cost", "loaded-mass", "axle-front", "axle-rear", "tyre-load", "tyre-life", "cruise-rpm", "crawl-speed",
	"range", "charge-margin", "sag-front", "sag-rear", "seat-reach", "clearance", "night-speed", "ready-date", "needs",
}

// pendingGauges are gauges whose subject the plan does not hold yet, with what
// they would need.
var pendingGauges = map[string]Figure{
	"charge-margin": {Name: "Charging", Unit: "W", Missing: []string{"alternator output", "the bike's own draw", "accessories"}},
	"sag-front":     {Name: "Front sag", Unit: "%", Missing: []string{"fork travel", "spring rate, or two sag readings"}},
	"sag-rear":      {Name: "Rear sag", Unit: "%", Missing: []string{"wheel travel", "spring rate, or two sag readings"}},
	"night-speed":   {Name: "Night speed", Unit: "km/h", Missing: []string{"headlamp candela", "grip of the ground at night"}},
	"ready-date":    {Name: "Ready", Unit: "date", Missing: []string{"lead times", "hours to fit each part"}},
}

func (r *run) pending(id string) Figure {
	f := pendingGauges[id]
	f.ID, f.State = id, verdict.Unknown
	return f
}

// withoutBike is the strip before there is a bike: the money counts already.
func (r *run) withoutBike() []Figure {
	gauges := make([]Figure, 0, len(GaugeIDs))
	for _, id := range GaugeIDs {
		switch f, pending := pendingGauges[id]; {
		case id == "cost":
			gauges = append(gauges, r.cost())
		case pending:
			f.ID, f.State = id, verdict.Unknown
			gauges = append(gauges, f)
		default:
			name := gaugeNames[id]
			gauges = append(gauges, Figure{ID: id, Name: name[0], Unit: name[1], State: verdict.Unknown, Missing: []string{"a bike (Bike)"}})
		}
	}
	return gauges
}

// gaugeNames are name and unit of the gauges that a bike brings to life.
var gaugeNames = map[string][2]string{
	"loaded-mass": {"Loaded mass", "kg"},
	"axle-front":  {"Front axle", "kg"},
	"axle-rear":   {"Rear axle", "kg"},
	"range":       {"Range", "km"},
	"seat-reach":  {"Seat reach", "mm"},
	"clearance":   {"Clearance", "mm"},
	"tyre-load":   {"Tyre load", "%"},
	"tyre-life":   {"Tyre life", "km"},
	"cruise-rpm":  {"At the cruise", "rpm"},
	"crawl-speed": {"Walking pace", "km/h"},
	"needs":       {"Needs not met", ""},
}

func (r *run) gauge(id string) *calc { return r.figure(id, gaugeNames[id][0], gaugeNames[id][1]) }
