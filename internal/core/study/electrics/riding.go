package electrics

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
)

// worstMinutes is within how many minutes a fifth of the battery must not go in the worst hour.
const worstMinutes = 60.0

var (
	meanFormula = sheet.Formula{Text: "margin = Σ hours on the ground × margin at its engine speed / Σ hours", Origin: sheet.Computed}
	hourFormula = sheet.Formula{Text: "margin in the worst hour = supply at the slowest going − the bike itself − Σ accessory W while it is on", Origin: sheet.Computed}
)

// chemistry of the battery as built.
func chemistry(f *facts.All) power.Chemistry {
	if f.Built.Provides("lithium") {
		return power.Lithium
	}
	return power.Lead
}

// riding finds the margins at three engine speeds, over the hours of the trip, and in its
// worst hour. A bike that nobody has read the volts of feeds at least itself while it is
// ridden: its makers saw to that.
func riding(f *facts.All, c *facts.Charging) {
	drawn := c.OwnW + c.DrawnW
	at := func(rpm float64) facts.Charge {
		supply := c.Curve.W(rpm)
		if c.Read == "" && supply < c.OwnW && rpm > c.Curve.IdleRPM {
			supply = c.OwnW
		}
		return facts.Charge{RPM: rpm, SupplyW: supply, MarginW: supply - drawn}
	}
	idle := c.Curve.W(c.Curve.IdleRPM)
	c.Idle = facts.Charge{RPM: c.Curve.IdleRPM, SupplyW: idle, MarginW: idle - drawn}
	c.Trail, c.Cruise = at(trailRPM(f)), at(f.Drive.CruiseRPM)

	mix := f.Plan.Brief.Mix()
	slowest, hours, sum, rpms := math.Inf(1), 0.0, 0.0, 0.0
	for i, g := range terrain.Grounds() {
		share := mix.At(i)
		if share == 0 {
			continue
		}
		rpm := c.Cruise.RPM
		switch {
		case g.Kind.IsRoad():
		case f.Machine.Geared():
			rpm, _ = f.Machine.RPM(g, g.SpeedKmh)
		default:
			rpm = math.NaN()
		}
		h := share / g.SpeedKmh
		hours, sum, rpms = hours+h, sum+h*at(rpm).SupplyW, rpms+h*rpm
		slowest = min(slowest, rpm)
	}
	c.Mean = facts.Charge{RPM: rpms / hours, SupplyW: sum / hours, MarginW: sum/hours - drawn}
	if !mix.Said() { // the worse of both, since nobody has said what it will be
		c.Mean, slowest = c.Cruise, c.Cruise.RPM
		if c.Trail.MarginW < c.Cruise.MarginW {
			c.Mean, slowest = c.Trail, c.Trail.RPM
		}
	}
	c.Hour = facts.WorstHour{Charge: at(slowest)}
	for i := range c.Draws {
		c.Hour.DrawnW += c.Draws[i].AtOnceW
	}
	c.Hour.MarginW = c.Hour.SupplyW - c.OwnW - c.Hour.DrawnW
	c.Hour.Minutes = power.DownMinutes(c.BatteryAh, -c.Hour.MarginW)
}

// atOnce is what an accessory takes while it is on, W, where the trip's weather and nights want
// it at all; what is for stops is off while anything rides.
func atOnce(d *facts.Draw, duty float64) float64 {
	if d.Used == 0 || d.Use == parts.AtStops {
		return 0
	}
	return d.FullW * duty
}
