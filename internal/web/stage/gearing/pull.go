package gearing

import (
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

// pullView is what each gear pulls against slope, wind and height.
type pullView struct {
	Has       bool
	Missing   []desk.LinkView
	Says      string
	Grounds   []desk.LinkView
	Altitudes []desk.LinkView
	Drawing   draw.Thrust
	Speed     string // unit of road speeds
	Rows      []pullRow
	Working   []desk.GaugeView
}

type pullRow struct{ Gear, Slope, At, Cruise string }

func pullPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return s.PartsPage(w, r, "pull", func(d *desk.Desk, tried desk.Laid) (any, error) {
		view := pullView{Has: d.Plan.Bike != nil, Speed: d.Units.Of("km/h")}
		if !view.Has {
			return view, nil
		}
		err := pull(d, &view, terrain.Kind(r.URL.Query().Get("ground")), r.URL.Query().Get("altitude"), tried)
		return view, err
	})
}

func pull(d *desk.Desk, v *pullView, kind terrain.Kind, altitude string, tried desk.Laid) error {
	p, at := atAltitude(tried.Plan, altitude)
	report, err := d.Evaluate(p)
	if err != nil {
		return err
	}
	ground, ok := terrain.Of(kind)
	if !ok {
		ground = p.Brief.SteepGround()
	}
	query := func(more ...string) []string {
		list := tried.Query()
		for i := 0; i+1 < len(more); i += 2 {
			if more[i+1] != "" {
				list = append(list, more[i], more[i+1])
			}
		}
		return list
	}
	for _, g := range terrain.Grounds() {
		v.Grounds = append(v.Grounds, desk.LinkView{Name: g.Name, Href: d.Href("pull", query("ground", string(g.Kind), "altitude", at)...), Current: g.Kind == ground.Kind})
	}
	v.Altitudes = altitudes(d, "pull", at, query("ground", string(kind)))
	v.Working = d.Gauges(report, "pull", desk.Laid{}, "crawl-pull", "climb", "top-speed", "hold-gear", "centre-height")
	v.Missing = desk.MissingOf(v.Working)
	chart, ok := gearing.Thrust(report.Facts, ground)
	if !ok {
		return nil
	}
	speeds := func(kmh float64) float64 { own, _ := d.Units.Convert(kmh, "km/h"); return own }
	var before []gearing.GearThrust
	if tried.Any() {
		plain, _ := atAltitude(d.Plan, at)
		was, err := d.On.Evaluate(plain)
		if err != nil {
			return err
		}
		old, _ := gearing.Thrust(was.Facts, ground)
		before = old.Gears
	}
	v.Drawing = draw.ThrustDiagram(chart, before, speeds, v.Speed)
	v.Says = pullWords(d, chart)
	for _, g := range chart.Gears {
		row := pullRow{Gear: fmt.Sprint(g.Gear), Slope: "does not move it", At: "–", Cruise: "out of its range"}
		if g.Slope >= 0 {
			row.Slope, row.At = slopeWords(g.Slope), d.Units.Quantity(g.AtKmh, "km/h")
		}
		switch {
		case math.IsNaN(chart.CruiseAt):
			row.Cruise = "no cruise said"
		case g.Kept:
			row.Cruise = "holds"
		case g.InReach:
			row.Cruise = "falls off"
		}
		v.Rows = append(v.Rows, row)
	}
	return nil
}

func slopeWords(slope float64) string {
	if math.IsInf(slope, 1) || slope > 2 {
		return "steeper than it stands"
	}
	return fmt.Sprintf("%.0f %%", 100*slope)
}

// pullWords says what sets the steepest slope on the ground that is shown.
func pullWords(d *desk.Desk, c gearing.ThrustChart) string {
	first := c.Gears[0].Slope
	least, what := first, "the pull"
	if c.Traction.Slope < least {
		least, what = c.Traction.Slope, "the rear wheel's grip"
	}
	if c.Wheelie.Slope < least {
		least, what = c.Wheelie.Slope, "the lifting front wheel"
	}
	text := fmt.Sprintf("On “%s”, with %s, it climbs %s: %s sets the limit. First gear would pull %s.",
		c.Ground.Name, d.Units.Quantity(c.MassKg, "kg"), slopeWords(max(0, least)), what, slopeWords(max(0, first)))
	if c.AirLeft < 0.995 {
		text += fmt.Sprintf(" The air up there leaves %.0f %% of the engine.", 100*c.AirLeft)
	}
	return text
}

// heights are offered beside the brief's own, m.
var heights = []string{"0", "1000", "2000", "3000", "4000"}

// atAltitude is the plan with the highest ground at so many metres, and the
// number as an address has it; "" leaves the brief's.
func atAltitude(p *plan.Plan, metres string) (*plan.Plan, string) {
	if !slices.Contains(heights, metres) {
		return p, ""
	}
	var high unit.Length
	if err := high.Enter(metres, "m"); err != nil {
		return p, ""
	}
	changed := *p
	changed.Brief.Altitude = high
	return &changed, metres
}

// altitudes are the ways to other heights on a page.
func altitudes(d *desk.Desk, page, at string, query []string) []desk.LinkView {
	own := "sea level"
	if high := d.Plan.Brief.Altitude; high.Known() {
		own = d.Units.Quantity(high.In("m"), "m")
	}
	links := []desk.LinkView{{Name: "the brief's, " + own, Href: d.Href(page, query...), Current: at == ""}}
	for _, metres := range heights {
		n, _ := strconv.ParseFloat(metres, 64)
		links = append(links, desk.LinkView{Name: d.Units.Quantity(n, "m"), Href: d.Href(page, append(slices.Clone(query), "altitude", metres)...), Current: at == metres})
	}
	return links
}
