package stance

import (
	"cmp"
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
)

// suspension is what the bike's sheet and the plan say of one end.
type suspension struct {
	rear                           bool
	name                           string // "fork", "shock"
	travelKey, preloadKey, rateKey string
	travel, preload, rate          study.Quantity
	measured, setPreload           study.Quantity
	sag, free, wantsMM, wantsNmm   figure.ID
	carries                        figure.ID
	moreTravel                     plan.Figure
}

// suspensionOf an end.
func suspensionOf(r *study.Run, rear bool) suspension {
	b, set := r.Built.Bike, &r.Loadout.Setting
	if rear {
		return suspension{
			true, "shock", "rear_travel", "rear_preload", "rear_spring", &b.RearTravel, &b.RearPre, &b.RearSpring, &b.RearSag, &set.RearPreload,
			figure.SagRear, figure.FreeRear, figure.PreloadRear, figure.SpringRear, figure.RearLoad, plan.RearTravel,
		}
	}
	return suspension{
		false, "fork", "front_travel", "front_preload", "front_spring", &b.FrontTravel, &b.FrontPre, &b.FrontSpring, &b.FrontSag, &set.FrontPreload,
		figure.SagFront, figure.FreeFront, figure.PreloadFront, figure.SpringFront, figure.FrontLoad, plan.ForkTravel,
	}
}

// springs finds what both ends do under the load.
func springs(r *study.Run) {
	r.Springs.Use = r.Plan.Brief.SpringUse()
	for _, rear := range [...]bool{false, true} {
		s := suspensionOf(r, rear)
		*r.Springs.Of(rear) = s.find(r)
		s.gauge(r)
		s.freeSag(r)
		s.wants(r)
	}
}

// came is the end as it came.
func (s *suspension) came(r *study.Run) stance.End {
	b := r.Built.Bike
	e := stance.End{PreloadMM: s.preload.In("mm"), TravelMM: s.travel.In("mm"), Ratio: 1, Along: 1}
	e.Spring, _ = r.Standard.Sprung(s.rear)
	if s.rear {
		e.Ratio = b.LinkRatio.In("")
		return e
	}
	e.Along = math.Cos(b.Rake.In("°") * math.Pi / 180)
	e.Air = stance.Air{BoreMM: b.ForkBore.In("mm"), GapMM: b.ForkGap.In("mm"), KPa: b.ForkAir.In("kPa")}
	return e
}

// find is what is known of the end: as it came, what a measured sag corrects, and as it is
// built and set.
func (s *suspension) find(r *study.Run) facts.SpringEnd {
	b, at := r.Built.Bike, 0
	if s.rear {
		at = 1
	}
	front, rear, _ := b.UnsprungKg()
	below := [2]float64{front, rear}[at]
	on := func(axles [2]float64) float64 { return axles[at] - below }
	a := &r.Axles
	cameKg := on([2]float64{a.Came.FrontKg, a.Came.RearKg})

	var e facts.SpringEnd
	came := s.came(r)
	if s.measured.Known() && !math.IsNaN(cameKg) && came.Spring.Nmm > 0 {
		by := stance.Known{Preload: b.OriginOf(s.preloadKey), Rate: b.OriginOf(s.rateKey), Ratio: b.OriginOf("link_ratio")}
		var blamed bool
		came, e.Corrected, blamed = came.Corrected(cameKg, s.measured.In("mm"), by)
		e.Doubtful = !blamed
	}
	e.Came = facts.Sags{FreeMM: came.SagMM(on([2]float64{a.Kerb.FrontKg, a.Kerb.RearKg})), RiderMM: came.SagMM(cameKg)}
	if math.IsNaN(e.Came.RiderMM) && s.measured.Known() {
		e.Came.RiderMM = s.measured.In("mm")
	}

	if r.Springs.Use == "" {
		e.Band = stance.Band{Low: math.NaN(), High: math.NaN()}
	} else {
		e.Band = stance.BandOf(r.Springs.Use, s.rear)
	}
	e.FreeBand = stance.FreeBand(s.rear)
	e.End, e.By, e.Adjuster = s.built(r, came, e.Corrected)
	gained := [2]float64{r.Masses.UnsprungKg.Front, r.Masses.UnsprungKg.Rear}[at]
	e.FreeKg, e.AloneKg = on([2]float64{a.Bare.FrontKg, a.Bare.RearKg})-gained, on([2]float64{a.Alone.FrontKg, a.Alone.RearKg})-gained
	e.LoadedKg = on([2]float64{a.Full.FrontKg, a.Full.RearKg}) - gained
	middle := e.Band.Middle() * e.End.TravelMM
	e.WantPreloadMM, e.AlonePreloadMM = e.End.PreloadFor(e.LoadedKg, middle), e.End.PreloadFor(e.AloneKg, middle)
	e.WantNmm = e.End.RateFor(e.LoadedKg, middle, e.LowerHalfMM())
	if e.By != nil && !s.setPreload.Known() && !math.IsNaN(e.WantPreloadMM) {
		e.End.PreloadMM = e.Settable(e.WantPreloadMM) // springs that are new are set for the load when they go in
	}
	e.FreeMM, e.AloneMM, e.LoadedMM = e.End.SagMM(e.FreeKg), e.End.SagMM(e.AloneKg), e.End.SagMM(e.LoadedKg)
	e.ParkedMM = e.End.SagMM(on([2]float64{a.Parked.FrontKg, a.Parked.RearKg}) - gained)
	if math.IsNaN(e.LoadedMM) && s.measured.Known() {
		e.AloneMM, e.LoadedMM = asMeasured(s.measured.In("mm"), cameKg, e.AloneKg), asMeasured(s.measured.In("mm"), cameKg, e.LoadedKg)
	}

	right := e.End.With(max(0, e.AlonePreloadMM))
	e.RightFreeMM = right.SagMM(e.FreeKg)
	return e
}

// asMeasured is a measured sag for a load that is the one under which it was taken, within
// three in a hundred; without a spring nobody knows it for another one.
func asMeasured(sagMM, underKg, kg float64) float64 {
	if math.Abs(kg-underKg) <= 0.03*underKg {
		return sagMM
	}
	return math.NaN()
}

// built is the end with the plan's parts, set for the loadout. What a measured sag says of
// the preload or the spring holds for the bike's own ones, what it says of the lever for
// all.
func (s *suspension) built(r *study.Run, came stance.End, c stance.Correction) (stance.End, *plan.Part, plan.Adjuster) {
	e := came
	spring, by := r.Built.Sprung(s.rear)
	if by != nil {
		e.Spring = spring
		if c.Of == stance.Preload {
			e.PreloadMM = s.preload.In("mm")
		}
	}
	if s.setPreload.Known() {
		e.PreloadMM = s.setPreload.In("mm")
	}
	e.TravelMM += r.Built.Figure(s.moreTravel)
	if s.rear {
		e.Ratio *= 1 + r.Built.Figure(plan.LinkPercent)/100
	} else if air := &r.Loadout.Setting.ForkAir; air.Known() {
		e.Air.KPa = air.In("kPa")
	}
	return e, by, r.Built.Adjuster(s.rear)
}

var (
	sprungFormula  = sheet.Formula{Text: "sprung = on the wheel − what hangs below its springs", Origin: sheet.Computed}
	shareFormula   = sheet.Formula{Text: "share = sag / travel", Origin: sheet.Computed}
	correctFormula = sheet.Formula{Text: "what is known least is set so that the computed sag, rider alone, is the measured one", Origin: sheet.Measured}
	measureFormula = sheet.Formula{Text: "as measured: this load is the one under which it was", Origin: sheet.Measured}
	bandFormula    = sheet.Formula{Text: "band of sag with rider and load on", Origin: sheet.Practice}
	wantFormula    = sheet.Formula{Text: "k = W / (R × (s × R + p)), s the middle of the band, p a third of the adjuster's way", Origin: sheet.Computed}
)

// lacks notes what an end lacks for a computed sag.
func (s *suspension) lacks(c study.Calc) {
	c.On(s.carries, "")
	e := c.Run.Springs.Of(s.rear)
	c.Bike(s.travelKey, s.name+" travel", "mm", s.travel)
	if !(e.End.Spring.Nmm > 0) {
		c.Lacks("rate of the " + s.name + " spring (Bike)")
	}
	if math.IsNaN(e.End.PreloadMM) {
		c.Lacks(s.name + " preload (Bike)")
	}
	if s.rear {
		c.Bike("link_ratio", "shock over wheel travel", "", &c.Run.Built.Bike.LinkRatio)
	} else {
		c.Bike("rake", "rake", "°", &c.Run.Built.Bike.Rake)
	}
	if math.IsNaN(e.LoadedKg) {
		c.Lacks("masses of all that is fitted")
	}
}

// show writes how a sag comes about under a mass.
func (s *suspension) show(c study.Calc, name string, sprungKg, sagMM float64) {
	if c.Sheet == nil {
		return
	}
	e, b := c.Run.Springs.Of(s.rear), c.Run.Built.Bike
	if !(e.End.Spring.Nmm > 0) || math.IsNaN(e.End.SagMM(sprungKg)) {
		c.Sheet.Step(measureFormula, study.Computed(name, sagMM, "mm"), sheet.Value{Name: "measured sag, rider alone", Number: s.measured.In("mm"), Unit: "mm", Origin: sheet.Measured})
		return
	}
	if e.Corrected.Of != "" {
		unit := map[stance.Quantity]string{stance.Preload: "mm", stance.Rate: "N/mm"}[e.Corrected.Of]
		c.Sheet.Step(correctFormula, study.Computed(string(e.Corrected.Of), e.Corrected.Now, unit),
			sheet.Value{Name: "measured sag", Number: s.measured.In("mm"), Unit: "mm", Origin: sheet.Measured}, study.Computed(string(e.Corrected.Of)+" before", e.Corrected.Was, unit))
	}
	front, rear, weighed := b.UnsprungKg()
	below, key, at := front, "front_unsprung", 0
	gained := c.Run.Masses.UnsprungKg.Front
	if s.rear {
		below, key, at, gained = rear, "rear_unsprung", 1, c.Run.Masses.UnsprungKg.Rear
	}
	hangs := sheet.Value{Name: "below its springs", Number: below, Unit: "kg", Origin: sheet.Memory, Note: "usual for a bike of its mass"}
	if weighed[at] {
		hangs.Origin, hangs.Note = b.OriginOf(key), ""
	}
	sprung := study.Computed("sprung", sprungKg, "kg")
	c.Sheet.Step(sprungFormula, sprung, study.Computed("on the wheel", sprungKg+below+gained, "kg"), hangs, study.Computed("the plan's wheels and tyres more", gained, "kg"))
	rate := sheet.Value{Name: "k", Number: e.End.Spring.Nmm, Unit: "N/mm", Origin: b.OriginOf(s.rateKey)}
	if e.By != nil {
		rate.Name, rate.Origin = "k of "+e.By.Name, e.By.Origin
	}
	preload := sheet.Value{Name: "p", Number: e.End.PreloadMM, Unit: "mm", Origin: b.OriginOf(s.preloadKey)}
	switch {
	case s.setPreload.Known():
		preload.Name, preload.Origin = "p as set for this loadout", sheet.Rider
	case e.By != nil:
		preload.Name, preload.Origin, preload.Note = "p as set when it goes in", sheet.Computed, "for this load, as far as the adjuster goes"
	}
	in := []sheet.Value{sprung, rate, preload}
	formula := stance.SagFormula
	if s.rear {
		in = append(in, sheet.Value{Name: "R", Number: e.End.Ratio, Origin: b.OriginOf("link_ratio")})
	} else {
		formula = stance.ForkSagFormula
		in = append(in, sheet.Value{Name: "rake ε", Number: b.Rake.In("°"), Unit: "°", Origin: b.OriginOf("rake")})
		if air := e.End.Air; air.BoreMM > 0 {
			c.Sheet.Step(stance.AirFormula, study.Computed("air bears", air.ForceN(e.End.TravelMM, sagMM, stance.Slow), "N"),
				sheet.Value{Name: "d", Number: air.BoreMM, Unit: "mm", Origin: b.OriginOf("fork_bore")}, sheet.Value{Name: "gap", Number: air.GapMM, Unit: "mm", Origin: b.OriginOf("fork_air_gap")},
				study.Computed("p₀ over the atmosphere", air.KPa, "kPa"))
		}
	}
	if e.End.Spring.SecondNmm > 0 {
		in = append(in, study.Computed("second rate", e.End.Spring.SecondNmm, "N/mm"), study.Computed("from a compression of", e.End.Spring.KneeMM, "mm"))
	}
	c.Sheet.Step(formula, study.Computed(name, sagMM, "mm"), in...)
}

// gauge is the sag with everything on, against the band.
func (s *suspension) gauge(r *study.Run) {
	c := r.Figure(s.sag)
	e := r.Springs.Of(s.rear)
	share := 100 * e.Share(e.LoadedMM)
	if math.IsNaN(share) {
		s.lacks(c)
	} else if c.Sheet != nil {
		c.On(s.carries, "")
	}
	if r.Springs.Use == "" {
		c.Lacks("terrain shares (Brief)")
	}
	c.Is(share)
	if c.Sheet != nil {
		s.show(c, "sag, loaded", e.LoadedKg, e.LoadedMM)
		travel := c.Bike(s.travelKey, s.name+" travel", "mm", s.travel)
		travel.Number = e.End.TravelMM
		c.Sheet.Step(shareFormula, study.Computed("share", share, "%"), study.Computed("sag, loaded", e.LoadedMM, "mm"), travel)
		c.Sheet.Step(bandFormula, study.Computed("from "+string(cmp.Or(r.Springs.Use, "?"))+" low", 100*e.Band.Low, "%"))
		c.Sheet.Step(bandFormula, study.Computed("to", 100*e.Band.High, "%"))
		c.Sheet.Note("Stiction hides some millimetres each way: push down and lift up, and take the middle. Set it, ride, feel, and write it down.")
	}
	high := 100 * e.Band.High
	c.Against(high, c.Passes(share, high), c.Passes(100*e.Band.Low, share))
}

// freeSag is that of the bike by itself, with what is fitted to it and a full tank.
func (s *suspension) freeSag(r *study.Run) {
	c := r.Figure(s.free)
	e := r.Springs.Of(s.rear)
	if math.IsNaN(e.FreeMM) {
		s.lacks(c)
	}
	c.Is(e.FreeMM)
	s.show(c, "free sag", e.FreeKg, e.FreeMM)
	c.Plain()
}

// wants are the preload and the spring that the load wants.
func (s *suspension) wants(r *study.Run) {
	e := r.Springs.Of(s.rear)
	middle := sheet.Value{Name: "s, the middle of the band", Number: e.Band.Middle() * e.End.TravelMM, Unit: "mm", Origin: sheet.Practice}
	sprung, ratio := study.Computed("sprung", e.LoadedKg, "kg"), study.Computed("R", e.End.Ratio, "")

	c := r.Figure(s.wantsMM)
	if math.IsNaN(e.WantPreloadMM) {
		s.lacks(c)
		if r.Springs.Use == "" {
			c.Lacks("terrain shares (Brief)")
		}
	}
	c.Is(e.WantPreloadMM)
	if c.Sheet != nil {
		c.Sheet.Step(stance.PreloadFormula, study.Computed("p", e.WantPreloadMM, "mm"), sprung, study.Computed("k", e.End.Spring.Nmm, "N/mm"), ratio, middle)
		c.Sheet.Note("Below zero the spring is too stiff for this load even without preload.")
	}
	c.Judged(false, e.RunsOut())

	c = r.Figure(s.wantsNmm)
	if math.IsNaN(e.WantNmm) {
		c.On(s.carries, "")
		c.Bike(s.travelKey, s.name+" travel", "mm", s.travel)
		if math.IsNaN(e.LowerHalfMM()) {
			c.Lacks("between what the " + s.name + "'s preload can be set (Bike)")
		}
		if math.IsNaN(e.End.Ratio) {
			c.Lacks("shock over wheel travel (Bike)")
		}
		if math.IsNaN(e.End.Along) {
			c.Lacks("rake (Bike)")
		}
		if r.Springs.Use == "" {
			c.Lacks("terrain shares (Brief)")
		}
		if math.IsNaN(e.LoadedKg) {
			c.Lacks("masses of all that is fitted")
		}
	}
	c.Is(e.WantNmm)
	if c.Sheet != nil {
		c.Sheet.Step(wantFormula, study.Computed("k", e.WantNmm, "N/mm"), sprung, ratio, middle, study.Computed("p", e.LowerHalfMM(), "mm"))
	}
	c.Plain()
}
