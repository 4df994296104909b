// Package electrics is the study of what charges and what draws: the alternator against the
// bike itself and everything that hangs on it, riding and parked.
package electrics

import (
	"math"
	"slices"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
)

// Study of the electrics.
var Study = study.Study{
	Name: "electrics",
	Steps: []study.Step{
		{
			Name: "volts", Needs: facts.Bike | facts.InLog, Gives: facts.MeteredGroup,
			Run:    func(r *study.Run) { r.Metered = r.Plan.ReadingsOf(logbook.VoltsRead) },
			OfPlan: true,
		},
		{
			Name: "charging", Needs: facts.Bike | facts.InBrief | facts.InRest | facts.InParts | facts.InTags | facts.InFigures | facts.MeteredGroup | facts.DriveGroup | facts.MachineGroup, Gives: facts.ChargingGroup, Run: charging,
			Figures: []figure.ID{figure.ChargeMargin, figure.ChargeIdle, figure.IdleMinutes, figure.ParkedDays},
		},
		{
			Name: "wiring", Needs: facts.Bike | facts.InGuards | facts.InElectrics | facts.InTags | facts.ChargingGroup, Gives: facts.WiringGroup, Run: wiring,
			Figures: []figure.ID{figure.FlashRate},
		},
		{
			Name: "light", Needs: facts.Bike | facts.InBrief | facts.InParts | facts.PosesGroup, Gives: facts.LightGroup, Run: light,
			Figures: []figure.ID{figure.NightSpeed, figure.LitDistance, figure.DippedReach, figure.BeamTilt, figure.BendLit},
		},
	},
	Rules: rules,
	Needs: []study.NeedRule{{ID: "seen-by-day", Name: "To be seen by day", Stage: figure.Electrics, Reads: facts.Bike | facts.InBrief | facts.InTags | facts.InElectrics | facts.InRest, Ask: seenByDay}},
}

var rules = []study.Rule{
	{ID: "charge-short", Class: cause.Fails, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.ChargingGroup, Figures: []figure.ID{figure.ChargeMargin}, Judge: chargeShort},
	{ID: "charge-thin", Class: cause.Fails, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.ChargingGroup, Figures: []figure.ID{figure.ChargeMargin}, Judge: chargeThin},
	{ID: "idle-drains", Class: cause.Fails, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.ChargingGroup, Judge: idleDrains},
	{ID: "alternator-hot", Class: cause.Ends, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.InBrief | facts.ChargingGroup, Judge: alternatorHot},
	{ID: "parked-drain", Class: cause.Fails, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.ChargingGroup, Figures: []figure.ID{figure.ParkedDays}, Judge: parkedDrain},
	{ID: "battery-cranks", Class: cause.Fails, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.Bike | facts.InFigures, Judge: batteryCranks},
	{ID: "lithium-cold", Class: cause.Fails, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.Bike | facts.InBrief | facts.InTags, Judge: lithiumCold},
	{ID: "night-too-fast", Class: cause.Control, Cause: cause.Light, Stage: figure.Electrics, Reads: facts.LightGroup, Figures: []figure.ID{figure.NightSpeed}, Judge: nightTooFast},
	{ID: "dazzles", Class: cause.Control, Cause: cause.Light, Free: true, Stage: figure.Electrics, Reads: facts.LightGroup, Figures: []figure.ID{figure.BeamTilt}, Judge: dazzles},
	{ID: "bare-lumens", Class: cause.Control, Cause: cause.Light, Stage: figure.Electrics, Reads: facts.LightGroup, Judge: bareLumens},
	{ID: "lamps-and-law", Class: cause.Fails, Cause: cause.Light, Stage: figure.Electrics, Reads: facts.InParts, Judge: lampsAndLaw},
	{ID: "no-relay", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.ChargingGroup, Judge: noRelay},
	{ID: "volts-low", Class: cause.Fails, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.MeteredGroup | facts.ChargingGroup, Judge: voltsLow},
	{ID: "regulator-high", Class: cause.Ends, Cause: cause.Charging, Stage: figure.Electrics, Reads: facts.Bike | facts.InTags | facts.MeteredGroup, Judge: regulatorHigh},
	{ID: "fuse-over-wire", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Judge: fuseOverWire},
	{ID: "fuse-blows", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Judge: fuseBlows},
	{ID: "wire-drops", Class: cause.Rest, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Judge: wireDrops},
	{ID: "no-wire-does", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Judge: noWireDoes},
	{ID: "channel-over", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Judge: channelOver},
	{ID: "box-over", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Judge: boxOver},
	{ID: "box-full", Class: cause.Rest, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Judge: boxFull},
	{ID: "box-buried", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.InRest | facts.InCarrying | facts.WiringGroup, Judge: boxBuried},
	{ID: "double-pace", Class: cause.Fails, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.WiringGroup, Figures: []figure.ID{figure.FlashRate}, Judge: doublePace},
	{ID: "leads-that-part", Class: cause.Rest, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.ChargingGroup, Judge: leadsThatPart},
	{ID: "tower-cables", Class: cause.Ends, Cause: cause.Wiring, Stage: figure.Electrics, Reads: facts.Bike | facts.InTags | facts.WiringGroup, Judge: towerCables},
	{ID: "bends-dark", Class: cause.Control, Cause: cause.Light, Stage: figure.Electrics, Reads: facts.InBrief | facts.LightGroup, Judge: bendsDark},
}

// Shares of the time that accessories are used [memory]: what is for the cold, by weather;
// what is for stops draws while nothing is ridden.
var coldShare = map[plan.Weather]float64{plan.Warm: 0, plan.Wet: 0.15, plan.Cold: 0.5}

// charging finds supply and draw at three engine speeds, and what a parked bike loses.
func charging(r *study.Run) {
	b, c := r.Built.Bike, &r.Charging
	c.RatedW, c.OwnW = b.Alternator.In("W"), b.OwnDraw.In("W")
	if set := r.Built.Figure(parts.AlternatorW); set > 0 {
		c.RatedW = set
	}
	c.Sheet = power.CurveOf(c.RatedW, usually(&b.AlternatorRPM, "rpm", power.UsualRatedRPM), b.IdlesAt())
	c.Chemistry = chemistry(r.All)
	c.Curve, c.Read = metered(r.Metered, c.Sheet, c.Chemistry)
	c.BatteryAh = b.Battery.In("Ah")
	if set := r.Built.Figure(parts.BatteryAh); set > 0 {
		c.BatteryAh = set
	}
	drawsOf(r.All, c)
	riding(r.All, c)
	c.ParkedDays = math.Inf(1)
	if c.ParkedMA > 0 {
		c.ParkedDays = power.DrainDays(c.BatteryAh, c.ParkedMA, 100*c.Chemistry.Usable)
	}
	margin(r)
	idle(r)
	parked(r)
}

// usually is a number of the document, or what is usual where nobody has said.
func usually(q study.Quantity, unit string, usual float64) float64 {
	if q.Known() {
		return q.In(unit)
	}
	return usual
}

// metered is the curve by the latest volts that were read with the alternator that is in it.
func metered(list facts.Metered, c power.Curve, by power.Chemistry) (power.Curve, string) {
	for _, r := range slices.Backward(list) {
		v := r.Volts()
		const same = 0.5
		if rated := v.RatedW.In("W"); math.Abs(rated-c.RatedW) > same || math.IsNaN(rated) != math.IsNaN(c.RatedW) {
			continue
		}
		volts, drawn := v.AllOn.In("V"), v.AllOnW.In("W")
		if math.IsNaN(volts) {
			volts, drawn = v.Riding.In("V"), v.OwnW.In("W")
		}
		return c.Found(v.Idle.In("V"), v.OwnW.In("W"), logbook.VoltsRPM, volts, drawn, by), r.ID
	}
	return c, ""
}

// drawsOf lists the accessories with what they draw on average.
func drawsOf(f *facts.All, c *facts.Charging) {
	c.DrawnW, c.FullW, c.ParkedMA, c.HalfW, c.Usual = 0, 0, 0, 0, 0
	brief := &f.Plan.Brief
	night := usually(&brief.Night, "%", 0) / 100
	used := func(u parts.Use) float64 {
		switch u {
		case parts.InCold:
			return coldShare[brief.Weather]
		case parts.AtNight:
			return night
		case parts.AtStops:
			return 0
		}
		return 1
	}
	for i := range f.Built.Fitted {
		fitted := &f.Built.Fitted[i]
		kind := fitted.Kind()
		e := fitted.Electric()
		if e == nil || kind.InPlace && !fitted.Chosen { // that is in what the bike itself draws
			continue
		}
		wired := f.Plan.Wiring(fitted.Part, e)
		d := facts.Draw{InPlace: kind.InPlace, Wired: wired, Part: fitted.Part, FullW: e.Draw.In("W"), Used: used(wired.Use)}
		duty := dutyOf(f, fitted.Part, e)
		d.Used *= duty
		unread := !e.Draw.Known()
		switch usual := fitted.Part.Usually(parts.Draw); {
		case unread && usual.Known():
			d.FullW, d.HalfW, unread = usual.Value, usual.Half, false
		case unread && kind.InPlace: // as much as what it takes the place of
			d.FullW = 0
		}
		d.AtOnceW = atOnce(&d, duty)
		if d.MeanW = d.FullW * d.Used; d.Used == 0 {
			d.MeanW = 0
		}
		if kind.InPlace && !unread {
			was, half := instead(f, kind)
			d.MeanW, c.HalfW = d.MeanW-was*d.Used, c.HalfW+half*d.Used
			d.AtOnceW -= was * duty
		}
		if d.HalfW > 0 {
			c.HalfW, c.Usual = c.HalfW+d.HalfW*d.Used, c.Usual+1
		}
		if d.Feed == parts.FeedAlways && e.Parked.Known() {
			d.ParkedMA = e.Parked.In("mA")
		}
		c.Draws, c.DrawnW, c.FullW, c.ParkedMA = append(c.Draws, d), c.DrawnW+d.MeanW, c.FullW+d.FullW, c.ParkedMA+d.ParkedMA
	}
	for i := range f.Plan.Lines { // what is no part and draws, on all the time
		l := &f.Plan.Lines[i]
		if w := l.Draw.In("W"); l.Part == nil && l.Standing() == plan.In && w > 0 {
			part := &parts.Part{Slot: parts.OtherPart, Name: l.Name, Place: l.Place}
			c.Draws = append(c.Draws, facts.Draw{Wired: f.Plan.Wiring(part, &parts.Electric{}), Part: part, FullW: w, Used: 1, MeanW: w, AtOnceW: w})
			c.DrawnW, c.FullW = c.DrawnW+w, c.FullW+w
		}
	}
}

// dutyOf is the share of its use for which a part draws: as its sheet says, and where nobody
// has said when it is on, as is usual for its kind.
func dutyOf(f *facts.All, p *parts.Part, e *parts.Electric) float64 {
	if e.Duty.Known() {
		return e.Duty.Base()
	}
	if usual := p.Usually(parts.Duty); usual.Known() && e.Use == "" && f.Plan.WiredIn(p.Slot).Use == "" {
		return usual.Value / 100
	}
	return 1
}

// instead is what the standard part of a kind draws with it on, with half of its band: a swap
// takes that off. By the bike's sheet, or as is usual for a bike that itself draws so much.
func instead(f *facts.All, kind *parts.Kind) (w, half float64) {
	b := f.Built.Bike
	if p := b.StandardIn(kind.Slot); p != nil && parts.Draw.In(p).Known() {
		return parts.Draw.In(p).In("W"), 0
	}
	return kind.Drew(b.OwnDraw.In("W"), b.Fuelling == plan.Injection)
}

// trailRPM is the lowest engine speed that the loose grounds of the trip are ridden at; of
// all of them where the brief names no ground, of none where all of it is road.
func trailRPM(f *facts.All) float64 {
	mix, lowest := f.Plan.Brief.Mix(), math.Inf(1)
	if !f.Machine.Geared() || mix.Said() && !(mix.Loose() > 0) {
		return math.NaN()
	}
	for i, g := range terrain.Grounds() {
		if g.Kind == terrain.Motorway || g.Kind == terrain.Paved || mix.Loose() > 0 && mix.At(i) == 0 {
			continue
		}
		rpm, _ := f.Machine.RPM(g, g.SpeedKmh)
		lowest = math.Min(lowest, rpm)
	}
	return lowest
}

// lacks notes what a margin lacks.
func lacks(c study.Calc) {
	r := c.Run
	if math.IsNaN(r.Charging.Curve.RatedW) {
		c.LacksAt("alternator (Bike)", "bike/alternator")
	}
	c.Bike("own_draw", "what the bike itself draws", "W", &r.Built.Bike.OwnDraw)
	for _, d := range r.Charging.Draws {
		if math.IsNaN(d.MeanW) {
			c.LacksOf(d.Part, "draw", "what "+d.Part.Name+" draws")
		}
	}
}

// show writes how the margin at an engine speed comes about.
func show(c study.Calc, name string, at facts.Charge) {
	if c.Sheet == nil {
		return
	}
	r, b := c.Run, c.Run.Built.Bike
	by := &r.Charging.Sheet
	rated := sheet.Value{Name: "rating", Number: by.RatedW, Unit: "W", Origin: b.OriginOf("alternator")}
	speed, idle := study.Computed("engine speed", at.RPM, "rpm"), sheet.Value{Name: "idle", Number: by.IdleRPM, Unit: "rpm", Origin: sheet.Memory}
	c.Sheet.Step(power.SupplyFormula, study.Computed("supply by the sheet", by.W(at.RPM), "W"), rated, speed, sheet.Value{Name: "rated at", Number: by.RatedRPM, Unit: "rpm", Origin: sheet.Memory}, idle)
	if r.Charging.Read != "" {
		c.Sheet.Step(power.FoundFormula, study.Computed("supply as measured", at.SupplyW, "W"), speed,
			sheet.Value{Name: "rating, by the volts", Number: r.Charging.Curve.RatedW, Unit: "W", Origin: sheet.Measured}, sheet.Value{Name: "at idle, by the volts", Number: r.Charging.Curve.IdleW, Unit: "W", Origin: sheet.Measured})
	}
	in := []sheet.Value{study.Computed("supply", at.SupplyW, "W"), {Name: "the bike itself", Number: r.Charging.OwnW, Unit: "W", Origin: b.OriginOf("own_draw")}}
	for _, d := range r.Charging.Draws {
		in = append(in, sheet.Value{Name: d.Part.Name + ", on average", Number: d.MeanW, Unit: "W", Origin: d.Part.Origin})
	}
	c.Sheet.Step(power.MarginFormula, study.Computed("margin "+name, at.MarginW, "W"), in...)
}

// margin is the mean over the hours of riding; the worst hour keeps it on watch where the
// battery could not make up for it.
func margin(r *study.Run) {
	c, by := r.Figure(figure.ChargeMargin), &r.Charging
	lacks(c)
	mix := r.Plan.Brief.Mix()
	if math.IsNaN(by.Trail.RPM) && mix.Loose() > 0 {
		lacksGears(c)
	}
	if math.IsNaN(by.Cruise.RPM) && (mix.Road() > 0 || !mix.Said()) {
		c.On(figure.CruiseRPM, "")
	}
	mean := by.Mean.MarginW
	c.Is(mean)
	if !math.IsNaN(by.Trail.RPM) {
		show(c, "on the trail", by.Trail)
	}
	show(c, "at the cruise", by.Cruise)
	if c.Sheet != nil {
		c.Sheet.Step(meanFormula, study.Computed("margin over the riding hours", mean, "W"), study.Computed("supply, mean", by.Mean.SupplyW, "W"),
			sheet.Value{Name: "the bike itself", Number: by.OwnW, Unit: "W", Origin: r.Built.Bike.OriginOf("own_draw")}, study.Computed("accessories, mean", by.DrawnW, "W"))
		c.Sheet.Step(hourFormula, study.Computed("margin in the worst hour", by.Hour.MarginW, "W"), study.Computed("supply there", by.Hour.SupplyW, "W"), study.Computed("engine speed", by.Hour.RPM, "rpm"),
			study.Computed("accessories at once", by.Hour.DrawnW, "W"))
	}
	c.Usual = int32(by.Usual)
	c.Spread(by.HalfW)
	half := by.HalfW
	c.Against(0, c.Known && mean+half < 0, mean-half < 0 || mean < power.ThinShare*by.Curve.RatedW || by.Hour.Minutes <= worstMinutes)
	if half > 0 && mean-half < 0 && mean+half >= 0 {
		c.Unsure(toRead(by)...)
	}
}

// toRead names the draws that would narrow the band of the margin.
func toRead(c *facts.Charging) []study.Lack {
	var list []study.Lack
	for i := range c.Draws {
		if d := &c.Draws[i]; d.HalfW*d.Used > 0 {
			list = append(list, study.Lack{What: "what " + d.Part.Name + " draws", At: study.PartAt(d.Part, "draw")})
		}
	}
	return list
}

// lacksGears notes what the engine speed on the trail lacks.
func lacksGears(c study.Calc) {
	b, m := c.Run.Built.Bike, &c.Run.Machine
	c.Bike("clean_rpm", "lowest clean speed", "rpm", &b.CleanRPM)
	if len(m.Overalls) == 0 {
		c.LacksAt("gearbox (Bike)", "bike/gearbox")
	}
	c.Bike("primary", "primary ratio", "", &b.Primary)
	if math.IsNaN(c.Run.Built.FinalRatio()) {
		c.Lacks("sprockets (Gearing)")
	}
	if math.IsNaN(m.CircumferenceMM) {
		c.Lacks("size of the rear tyre (Tyres)")
	}
}

// idle is the margin there, and how long the battery makes up for it.
func idle(r *study.Run) {
	c := r.Figure(figure.ChargeIdle)
	lacks(c)
	c.Is(r.Charging.Idle.MarginW)
	show(c, "at idle", r.Charging.Idle)
	c.Plain()
	c = r.Figure(figure.IdleMinutes)
	lacks(c)
	if math.IsNaN(r.Charging.BatteryAh) {
		c.LacksAt("battery (Bike)", "bike/battery")
	}
	minutes := power.DownMinutes(r.Charging.BatteryAh, -r.Charging.Idle.MarginW)
	c.Is(min(minutes, idleMost))
	if c.Sheet != nil {
		c.Sheet.Step(power.DownFormula, study.Computed("minutes, no more than 999", c.Or(math.NaN()), "min"), study.Computed("capacity", r.Charging.BatteryAh, "Ah"), study.Computed("lacking at idle", max(0, -r.Charging.Idle.MarginW), "W"))
	}
	c.Plain()
}

// What lasts longer than that lasts.
const (
	idleMost = 999.0
	daysMost = 365.0
)

// parked is how long it stands until the battery cranks no more.
func parked(r *study.Run) {
	c := r.Figure(figure.ParkedDays)
	if math.IsNaN(r.Charging.BatteryAh) && r.Charging.ParkedMA > 0 {
		c.LacksAt("battery (Bike)", "bike/battery")
	}
	c.Is(min(r.Charging.ParkedDays, daysMost))
	if c.Sheet != nil {
		c.Sheet.Step(power.DrainFormula, study.Computed("days, no more than a year", c.Or(math.NaN()), "d"), study.Computed("capacity", r.Charging.BatteryAh, "Ah"),
			sheet.Value{Name: "usable", Number: 100 * r.Charging.Chemistry.Usable, Unit: "%", Origin: sheet.Memory}, study.Computed("drawn with the key out", r.Charging.ParkedMA, "mA"))
		c.Sheet.Note("Clock and immobiliser of the bike itself take a few mA more; the manual says how long it may stand.")
	}
	c.Judged(false, r.Charging.ParkedDays < daysLeast)
}
