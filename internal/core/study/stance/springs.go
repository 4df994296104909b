package stance

import (
	"cmp"
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
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
	moreTravel                     parts.Figure
}

// suspensionOf an end.
func suspensionOf(r *study.Run, rear bool) suspension {
	b, set := r.Built.Bike, &r.Loadout.Setting
	if rear {
		return suspension{
			true, "shock", "rear_travel", "rear_preload", "rear_spring", &b.RearTravel, &b.RearPre, &b.RearSpring, &b.RearSag, foundPreload(r, true, &set.RearPreload),
			figure.SagRear, figure.FreeRear, figure.PreloadRear, figure.SpringRear, figure.RearLoad, parts.RearTravel,
		}
	}
	return suspension{
		false, "fork", "front_travel", "front_preload", "front_spring", &b.FrontTravel, &b.FrontPre, &b.FrontSpring, &b.FrontSag, foundPreload(r, false, &set.FrontPreload),
		figure.SagFront, figure.FreeFront, figure.PreloadFront, figure.SpringFront, figure.FrontLoad, parts.ForkTravel,
	}
}

// foundPreload is the preload that an end was found at, where neither the loadout sets it nor the
// plan puts other springs in.
func foundPreload(r *study.Run, rear bool, set *unit.Length) *unit.Length {
	found := r.Plan.Baseline.Set.Preload(rear)
	if set.Known() || !found.Known() || r.Built.OtherSprings(rear) {
		return set
	}
	return found
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
	b, a := r.Built.Bike, &r.Axles
	front, rear, _ := b.UnsprungKg()
	sprung := func(on load.Axles, gained facts.Ends) float64 {
		if s.rear {
			return on.RearKg - rear - gained.Rear
		}
		return on.FrontKg - front - gained.Front
	}
	var nothing facts.Ends
	cameKg := sprung(a.Came, nothing)

	var e facts.SpringEnd
	e.Measured = s.measuredOf(r, cameKg)
	came := s.came(r)
	fix := s.corrected(r, came, &e)
	came = fix.applied(came)
	e.Came = facts.Sags{FreeMM: came.SagMM(sprung(a.Kerb, nothing)), RiderMM: came.SagMM(cameKg)}
	if math.IsNaN(e.Came.RiderMM) && !math.IsNaN(e.Measured.MM) {
		e.Came.RiderMM = e.Measured.MM
	}

	e.Band, e.FreeBand = stance.Band{Low: math.NaN(), High: math.NaN()}, stance.FreeBand(s.rear)
	if r.Springs.Use != "" {
		e.Band = stance.BandOf(r.Springs.Use, s.rear)
	}
	e.End, e.By = s.built(r)
	e.SetMM, e.SetNmm = e.End.PreloadMM, e.End.Spring.Nmm
	e.End = fix.applied(e.End)
	e.Adjuster = r.Built.Adjuster(s.rear)
	gained := r.Masses.UnsprungKg
	e.FreeKg, e.AloneKg, e.LoadedKg = sprung(a.Bare, gained), sprung(a.Alone, gained), sprung(a.Full, gained)
	middle := e.Band.Middle() * e.End.TravelMM
	e.WantPreloadMM, e.AlonePreloadMM = e.End.PreloadFor(e.LoadedKg, middle), e.End.PreloadFor(e.AloneKg, middle)
	e.WantNmm = e.End.RateFor(e.LoadedKg, middle, e.LowerHalfMM())
	if e.By != nil && !s.setPreload.Known() && !math.IsNaN(e.WantPreloadMM) {
		e.End.PreloadMM = e.Settable(e.WantPreloadMM) // springs that are new are set for the load when they go in
		e.SetMM, e.AsIf = e.End.PreloadMM, true
	}
	e.Tape = s.tape(r, e.Measured, sprung(a.Kerb, nothing), e.End.TravelMM)
	e.FreeMM, _ = e.SagAt(e.FreeKg)
	e.AloneMM, _ = e.SagAt(e.AloneKg)
	e.LoadedMM, _ = e.SagAt(e.LoadedKg)
	e.ParkedMM, _ = e.SagAt(sprung(a.Parked, gained))
	right := e.End.With(max(e.Adjuster.LeastMM(), e.AlonePreloadMM)) // without preload is the adjuster at its least
	e.RightFreeMM = right.SagMM(e.FreeKg)
	return e
}

// measuredOf is the sag that leads: the latest reading that stands, or else the sheet's,
// which is of the rider alone.
func (s *suspension) measuredOf(r *study.Run, cameKg float64) facts.Measured {
	for _, sat := range slices.Backward(r.Sat) {
		if end := sat.Sag().Of(s.rear); !math.IsNaN(end.RiderMM()) && end.Sprung.Known() {
			return facts.Measured{MM: end.RiderMM(), Kg: end.Sprung.In("kg"), Reading: sat.ID, On: sat.On}
		}
	}
	if s.measured.Known() {
		return facts.Measured{MM: s.measured.In("mm"), Kg: cameKg}
	}
	return facts.Measured{MM: math.NaN(), Kg: math.NaN()}
}

// fix is what a measured sag corrects: of the spring that was in it then its preload or its
// rate, of every spring the lever.
type fix struct {
	nmm                         float64 // that was in it
	preloadMM, ratio, rateTimes float64
}

// corrected finds what the sag that leads corrects.
func (s *suspension) corrected(r *study.Run, came stance.End, e *facts.SpringEnd) fix {
	f := fix{came.Spring.Nmm, 0, 1, 1}
	then, b := came, r.Built.Bike
	by := stance.Known{Preload: b.OriginOf(s.preloadKey), Rate: b.OriginOf(s.rateKey), Ratio: b.OriginOf("link_ratio")}
	for _, reading := range r.Sat {
		if reading.ID != e.Measured.Reading {
			continue
		}
		was := reading.Sag().Of(s.rear)
		if was.Preload.Known() {
			then.PreloadMM = was.Preload.In("mm")
		}
		if nmm := was.Spring.In("N/mm"); math.Abs(nmm-then.Spring.Nmm) > sameNmm || math.IsNaN(then.Spring.Nmm) {
			then.Spring, by.Rate = stance.Spring{Nmm: nmm}, sheet.Maker
			f.nmm = nmm
		}
	}
	if math.IsNaN(e.Measured.MM) || math.IsNaN(e.Measured.Kg) || !(then.Spring.Nmm > 0) {
		return f
	}
	var blamed bool
	if _, e.Corrected, blamed = then.Corrected(e.Measured.Kg, e.Measured.MM, by); !blamed {
		e.Doubtful = true
		return f
	}
	switch c := e.Corrected; c.Of {
	case stance.Preload:
		f.preloadMM = c.Now - c.Was
	case stance.Ratio:
		f.ratio = c.Now / c.Was
	case stance.Rate:
		f.rateTimes = c.Now / c.Was
	}
	return f
}

// sameNmm is within what one spring is stated differently, N/mm.
const sameNmm = 0.05

// applied is an end with what was corrected.
func (f fix) applied(e stance.End) stance.End {
	e.Ratio *= f.ratio
	if math.Abs(e.Spring.Nmm-f.nmm) <= sameNmm {
		e.PreloadMM += f.preloadMM
		e.Spring = e.Spring.Times(f.rateTimes)
	}
	return e
}

// built is the end with the plan's parts, set for the loadout.
func (s *suspension) built(r *study.Run) (stance.End, *parts.Part) {
	e := s.came(r)
	spring, by := r.Built.Sprung(s.rear)
	e.Spring = spring
	if s.setPreload.Known() {
		e.PreloadMM = s.setPreload.In("mm")
	}
	e.TravelMM += r.Built.Figure(s.moreTravel)
	if s.rear {
		e.Ratio *= r.Built.LinkScale()
	} else if air := &r.Loadout.Setting.ForkAir; air.Known() {
		e.Air.KPa = air.In("kPa")
	}
	return e, by
}

var (
	sprungFormula  = sheet.Formula{Text: "sprung = on the wheel − what hangs below its springs", Origin: sheet.Computed}
	shareFormula   = sheet.Formula{Text: "share = sag / travel", Origin: sheet.Computed}
	correctFormula = sheet.Formula{Text: "what is known least is set so that the computed sag under the same load is the measured one", Origin: sheet.Measured}
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
		if _, by := c.Run.Built.Sprung(s.rear); by != nil {
			c.LacksOf(by, parts.Rate.Key, "rate of "+by.Name)
		} else {
			c.LacksAt("rate of the "+s.name+" spring (Bike)", "bike/"+s.rateKey)
		}
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
		s.showTape(c, name, sprungKg, sagMM)
		return
	}
	if e.Corrected.Of != "" {
		unit := map[stance.Quantity]string{stance.Preload: "mm", stance.Rate: "N/mm"}[e.Corrected.Of]
		c.Sheet.Step(correctFormula, study.Computed(string(e.Corrected.Of), e.Corrected.Now, unit),
			sheet.Value{Name: "measured sag", Number: e.Measured.MM, Unit: "mm", Origin: sheet.Measured}, study.Computed("under", e.Measured.Kg, "kg"), study.Computed(string(e.Corrected.Of)+" before", e.Corrected.Was, unit))
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
		c.LacksGround()
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
	half := r.Axles.HalfKg.Front
	if s.rear {
		half = r.Axles.HalfKg.Rear
	}
	low, lowHalf := e.SagAt(e.LoadedKg - half)
	high, highHalf := e.SagAt(e.LoadedKg + half)
	if c.Known && (half > 0 || lowHalf > 0) {
		c.Usual = max(c.Usual, int32(r.Masses.Usual))
		if e.Tape.Usual && lowHalf > 0 {
			c.Usual++
		}
		c.Band(100*e.Share(low-lowHalf), 100*e.Share(high+highHalf))
	}
	c.Within(100*e.Band.Low, 100*e.Band.High)
	switch { // what is a turn of the adjuster is no fault, and what nobody has set is not yet so
	case c.State == verdict.Over && e.Reaches(), c.State == verdict.OK && e.AsIf:
		c.State = verdict.Watch
	}
	c.Settle(func() []study.Lack {
		list := study.ToWeigh(&r.Masses)
		if lowHalf > 0 {
			list = append([]study.Lack{{What: "sag of the " + s.name + " under a second load", At: "page/measure"}}, list...)
		}
		return list
	})
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
			c.LacksGround()
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
			c.LacksGround()
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
