package loading

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// masses lists what stands on the kerb mass: parts against the ones they replace,
// rider, pillion, loads, and the fuel.
func masses(r *study.Run) {
	m := &r.Masses
	items := make([]facts.Item, 0, 5+len(r.Built.Fitted)+len(r.Loadout.Loads)+len(r.Built.Fuels))
	m.UnsprungKg, m.HalfKg, m.Usual = facts.Ends{}, 0, 0
	for _, f := range r.Built.Fitted {
		if !f.Chosen {
			continue
		}
		item := gained(r.All, f)
		switch item.Place {
		case load.FrontWheel:
			m.UnsprungKg.Front += item.Mass.Number
		case load.RearWheel:
			m.UnsprungKg.Rear += item.Mass.Number
		}
		items = append(items, item)
		if item.HalfKg > 0 {
			m.HalfKg, m.Usual = m.HalfKg+item.HalfKg, m.Usual+1
		}
	}
	m.Parts = len(items)
	items = append(items, facts.Item{Mass: sheet.Value{Name: "Rider, dressed", Number: r.Plan.Brief.Rider.In("kg"), Unit: "kg", Origin: sheet.Rider}, Place: r.Loadout.Sits.Place()})
	carried := len(items)
	if r.Loadout.Pillion.Known() {
		items = append(items, facts.Item{Mass: sheet.Value{Name: "Pillion", Number: r.Loadout.Pillion.In("kg"), Unit: "kg", Origin: sheet.Rider}, Place: load.Pillion})
	}
	for i := range r.Loadout.Loads {
		l := &r.Loadout.Loads[i]
		items = append(items, facts.Item{Mass: sheet.Value{Name: l.Name, Number: l.Mass.In("kg"), Unit: "kg", Origin: sheet.Rider}, Place: l.Sits(r.Built)})
	}
	for _, l := range r.Plan.PackedIn(r.Loadout.ID) {
		items = append(items, facts.Item{Mass: sheet.Value{Name: l.Part.Name + ", packed", Number: l.Part.Mass.In("kg"), Unit: "kg", Origin: l.Part.Origin}, Place: load.Tail})
	}
	for i := range r.Plan.Lines {
		if l := &r.Plan.Lines[i]; l.Part == nil && l.Mass.Known() && l.Standing() == plan.In {
			items = append(items, facts.Item{Mass: sheet.Value{Name: l.Name, Number: l.Mass.In("kg"), Unit: "kg", Origin: sheet.Rider}, Place: cmp.Or(l.Place, load.Tail)})
		}
	}
	m.CarriedKg = 0
	for i := range items[carried:] {
		m.CarriedKg += items[carried+i].Mass.Number
	}
	m.Items, m.Fuel = items[:len(items):len(items)], fuelOf(r.Built)
	for _, it := range m.Fuel.Beside {
		m.HalfKg += it.HalfKg
	}
	m.Laden = append(append(items, facts.Item{Mass: m.Fuel.TopUp, Place: load.Tank}), m.Fuel.Beside...)
	unsprung(r, figure.FrontUnsprung, load.FrontWheel, m.UnsprungKg.Front)
	unsprung(r, figure.RearUnsprung, load.RearWheel, m.UnsprungKg.Rear)
}

// gained is the mass of a part that the plan puts on, less that of the one it replaces.
// What nobody has weighed counts with the usual mass of its kind and half of that band; a
// part of which nothing is known replaces its like weight for weight.
func gained(f *facts.All, fitted plan.Fitted) facts.Item {
	kind, _ := parts.KindOf(fitted.Slot)
	part := fitted.Part
	it := facts.Item{Mass: sheet.Value{Name: part.Name, Unit: "kg", Origin: part.Origin}, Place: part.Sits(), Part: part}
	if slices.Contains(part.Provides, "waits-on-the-way") {
		it.Mass.Note = "not on board"
		return it
	}
	if it.Mass.Number = part.Mass.In("kg"); !part.Mass.Known() {
		it.Mass.Number, it.HalfKg, it.Mass.Origin, it.Mass.Note = kind.Weighs.Value, kind.Weighs.Half, kind.Weighs.Origin, "usual of its kind"
	}
	switch standard := f.Standard.Part(fitted.Slot); {
	case part.Replaces.Known(): // whoever has both in hand knows best
		it.Mass.Name += " less what it replaces"
		it.Mass.Number -= part.Replaces.In("kg")
	case standard != nil && standard.Mass.Known():
		it.Mass.Name += " less the standard one"
		it.Mass.Number -= standard.Mass.In("kg")
	case standard != nil || kind.Standing || kind.Comes: // which weighs something
		it.Mass.Name += " less the standard one"
		it.HalfKg = kind.Weighs.Half
		if part.Mass.Known() {
			it.Mass.Number, it.Mass.Note = it.Mass.Number-kind.Weighs.Value, "the standard one by the usual mass of its kind"
		} else {
			it.Mass.Number, it.Mass.Note = 0, "usual of its kind, both"
		}
	}
	return it
}

// fuelOf is the fuel of the bike as built, everything filled.
func fuelOf(built *plan.Built) facts.Fuel {
	var f facts.Fuel
	for i, holds := range built.Fuels {
		v := sheet.Value{Name: "fuel, full tank", Number: holds.HoldsL * fuel.Density, Unit: "kg", Origin: sheet.Computed}
		if i == 0 {
			f.Full = v
			continue
		}
		v.Name = "fuel in " + holds.Part.Name
		f.Beside = append(f.Beside, facts.Item{Mass: v, HalfKg: holds.HalfL * fuel.Density, Place: holds.Part.Sits(), Part: holds.Part})
	}
	share, _ := built.Bike.KerbShare()
	f.TopUp = study.Computed("fuel to the brim", f.Full.Number-built.Bike.Tank.In("L")*fuel.Density*share, "kg")
	return f
}

var (
	weighedFormula  = sheet.Formula{Text: "kerb mass + mean of (read − expected) of the weighings that stand", Origin: sheet.Measured}
	fuelFormula     = sheet.Formula{Text: "to the brim = (tank as built − the bike's own × share) × density", Origin: sheet.Computed}
	carrierFormula  = sheet.Formula{Text: "fuel = what it holds × density", Origin: sheet.Computed}
	massFormula     = sheet.Formula{Text: "loaded = kerb + fuel to the brim + Σ (new − removed) + rider + pillion + loads", Origin: sheet.Computed}
	payloadFormula  = sheet.Formula{Text: "left = permitted − loaded", Origin: sheet.Computed}
	unsprungFormula = sheet.Formula{Text: "Σ (new − standard) of what turns or hangs at the wheel", Origin: sheet.Computed}
)

// kerbMass is the bike's kerb mass, corrected by weighings.
func kerbMass(c study.Calc) sheet.Value {
	by := c.Run.Weighed
	mass := c.Bike("kerb_mass", "kerb mass", "kg", &c.Run.Built.Bike.KerbMass)
	if by.Weighings == 0 {
		return mass
	}
	mass.Number += by.FrontKg + by.RearKg
	mass.Origin = sheet.Measured
	if c.Sheet != nil {
		c.Sheet.Step(weighedFormula, mass, study.Computed("front wheel, read less expected", by.FrontKg, "kg"), study.Computed("rear wheel", by.RearKg, "kg"), study.Computed("weighings", float64(by.Weighings), ""))
	}
	return mass
}

// kerb is the kerb mass with what of it is under the front wheel.
func kerb(c study.Calc) (mass, front sheet.Value) {
	by := c.Run.Weighed
	mass, front = kerbMass(c), c.Bike("kerb_front", "kerb mass under the front wheel", "kg", &c.Run.Built.Bike.KerbFront)
	if by.Weighings > 0 {
		front.Number += by.FrontKg
		front.Origin = sheet.Measured
	}
	return mass, front
}

// onBoard notes what the masses on board lack, and how the fuel's come about.
func onBoard(c study.Calc) {
	m, b := &c.Run.Masses, c.Run.Built.Bike
	kerb, usual := b.KerbShare()
	share := sheet.Value{Name: "fuel in the kerb mass", Number: 100 * kerb, Unit: "%", Origin: b.OriginOf("kerb_fuel")}
	if usual {
		share.Origin, share.Note = sheet.Practice, "usual on a data sheet"
	}
	own := c.Bike("tank", "tank", "L", &b.Tank)
	for i := range m.Items {
		lacksMass(c, &m.Items[i])
	}
	c.Usual = max(c.Usual, int32(m.Usual))
	if c.Sheet == nil {
		return
	}
	density := sheet.Value{Name: "density", Number: fuel.Density, Unit: "kg/L", Origin: sheet.Published, Note: "EN 228: 0.720–0.775"}
	tank := sheet.Value{Name: "tank as built", Number: m.Fuel.Full.Number / fuel.Density, Unit: "L", Origin: own.Origin}
	c.Sheet.Step(fuelFormula, m.Fuel.TopUp, tank, own, share, density)
	for _, it := range m.Fuel.Beside {
		c.Sheet.Step(carrierFormula, it.Mass, density)
	}
}

func lacksMass(c study.Calc, it *facts.Item) {
	if math.IsNaN(it.Mass.Number) {
		c.LacksOf(it.Part, "mass", "mass of "+it.Mass.Name)
	}
}

// loadedMass is everything, with a full tank, against the plate; and what could
// still be put on.
func loadedMass(r *study.Run) {
	c := r.Figure(figure.LoadedMass)
	b := r.Built.Bike
	kerb := kerbMass(c)
	onBoard(c)
	total := kerb.Number
	for i := range r.Masses.Laden {
		total += r.Masses.Laden[i].Mass.Number
	}
	c.Is(total)
	if c.Sheet != nil {
		c.Sheet.Step(massFormula, study.Computed("loaded mass", total, "kg"), append([]sheet.Value{kerb}, valuesOf(r.Masses.Laden)...)...)
	}
	permitted := c.Bike("permitted_mass", "permitted mass", "kg", &b.Permitted)
	c.Spread(r.Masses.HalfKg)
	c.AtMost(permitted, 0.95, verdict.Stop)
	c.Settle(func() []study.Lack { return study.ToWeigh(&r.Masses) })
	r.Loaded = facts.Loaded{Kg: total, PermittedKg: permitted.Number}

	c = r.Figure(figure.PayloadLeft)
	permitted = c.Bike("permitted_mass", "permitted mass", "kg", &b.Permitted)
	loaded := c.Fact("loaded mass", total, "kg")
	left := permitted.Number - total
	c.Is(left)
	if c.Sheet != nil {
		c.Sheet.Step(payloadFormula, study.Computed("left", left, "kg"), permitted, loaded)
	}
	c.Plain()
}

func valuesOf(items []facts.Item) []sheet.Value {
	values := make([]sheet.Value, len(items))
	for i, it := range items {
		values[i] = it.Mass
	}
	return values
}

// placed are masses at their places, with how each is written in a working where
// somebody looks.
func placed(c study.Calc, wheelbaseMM, seatMM float64, write func(it load.Item) string) (items []load.Item, values []sheet.Value) {
	laden := c.Run.Masses.Laden
	items = make([]load.Item, len(laden))
	for i := range laden {
		it := &laden[i]
		items[i] = load.Item{MassKg: it.Mass.Number, XMM: it.Place.XMM(wheelbaseMM), ZMM: it.Place.ZMM(seatMM)}
		if c.Sheet != nil {
			v := it.Mass
			v.Name += write(items[i])
			values = append(values, v)
		}
	}
	return items, values
}

// axles finds the loads under the wheels with a full and with an empty tank.
func axles(r *study.Run) {
	wheelLoad(r, figure.FrontLoad, func(a load.Axles) float64 { return a.FrontKg })
	wheelLoad(r, figure.RearLoad, func(a load.Axles) float64 { return a.RearKg })
	b := r.Built.Bike
	axleGauge(r, figure.AxleFront, figure.FrontLoad, r.Axles.Kg.Front, "front_axle_limit", "front axle limit", &b.FrontLimit, r.Axles.HalfKg.Front, &r.Axles.LimitKg.Front)
	axleGauge(r, figure.AxleRear, figure.RearLoad, r.Axles.Kg.Rear, "rear_axle_limit", "rear axle limit", &b.RearLimit, r.Axles.HalfKg.Rear, &r.Axles.LimitKg.Rear)
}

// wheelLoad is the load under one wheel with a full tank. What both wheels carry is
// worked out once, unless somebody looks.
func wheelLoad(r *study.Run, id figure.ID, of func(load.Axles) float64) {
	c := r.Figure(id)
	kerb, front := kerb(c)
	base := c.Bike("wheelbase", "wheelbase", "mm", &r.Built.Bike.Wheelbase)
	onBoard(c)
	if id == figure.FrontLoad || c.Sheet != nil {
		r.Axles.Full, r.Axles.Empty = stand(c, kerb, front, base)
		without(r, kerb.Number, front.Number, base.Number)
		r.Axles.HalfKg = spread(&r.Masses, base.Number)
		r.Axles.Kg = facts.Ends{Front: max(r.Axles.Full.FrontKg, r.Axles.Empty.FrontKg), Rear: max(r.Axles.Full.RearKg, r.Axles.Empty.RearKg)}
	}
	c.Is(of(r.Axles.Full))
	c.Plain()
}

// spread is half of the band of each axle's load that usual masses leave, by their levers.
func spread(m *facts.Masses, baseMM float64) (half facts.Ends) {
	for i := range m.Items {
		if it := &m.Items[i]; it.HalfKg > 0 {
			front := it.Place.XMM(baseMM) / baseMM
			half.Front += it.HalfKg * math.Abs(front)
			half.Rear += it.HalfKg * math.Abs(1-front)
		}
	}
	return half
}

// stand puts everything on the bike, and takes the fuel out again.
func stand(c study.Calc, kerb, front, base sheet.Value) (full, empty load.Axles) {
	m := &c.Run.Masses
	items, values := placed(c, base.Number, math.NaN(), func(it load.Item) string { return fmt.Sprintf(", at %+.0f mm", it.XMM) })
	full = load.Add(load.Axles{FrontKg: front.Number, RearKg: kerb.Number - front.Number}, base.Number, items)
	burnt := append(make([]load.Item, 0, 4), load.Item{MassKg: -m.Fuel.Full.Number, XMM: load.Tank.XMM(base.Number)})
	for _, it := range m.Fuel.Beside {
		burnt = append(burnt, load.Item{MassKg: -it.Mass.Number, XMM: it.Place.XMM(base.Number)})
	}
	empty = load.Add(full, base.Number, burnt)
	if c.Sheet != nil {
		in := append([]sheet.Value{kerb, front, base}, values...)
		c.Sheet.Step(load.AxleFormula, study.Computed("front, full tank", full.FrontKg, "kg"), in...)
		c.Sheet.Step(load.AxleFormula, study.Computed("rear, full tank", full.RearKg, "kg"))
		c.Sheet.Step(load.AxleFormula, study.Computed("front, empty tank", empty.FrontKg, "kg"))
		c.Sheet.Step(load.AxleFormula, study.Computed("rear, empty tank", empty.RearKg, "kg"))
		c.Sheet.Note("Each load sits at the default spot of its place: good to about a tenth of the wheelbase. Scales under both wheels settle it.")
	}
	return full, empty
}

// without finds what stands under the wheels with less on the bike, for its springs.
func without(r *study.Run, kerbKg, frontKg, baseMM float64) {
	m, b := &r.Masses, r.Built.Bike
	total, moment := kerbKg, frontKg*baseMM
	put := func(kg, xMM float64) { total, moment = total+kg, moment+kg*xMM }
	take := func(it *facts.Item) { put(it.Mass.Number, it.Place.XMM(baseMM)) }
	stands := func() load.Axles {
		front := moment / baseMM
		return load.Axles{FrontKg: front, RearKg: total - front}
	}
	r.Axles.Kerb = stands()

	rider := &m.Items[m.Parts]
	share, _ := b.KerbShare()
	put(b.Tank.In("L")*fuel.Density*(1-share), load.Tank.XMM(baseMM))
	put(rider.Mass.Number, load.Rider.XMM(baseMM))
	r.Axles.Came = stands()

	total, moment = kerbKg, frontKg*baseMM
	put(m.Fuel.TopUp.Number, load.Tank.XMM(baseMM))
	for i := range m.Fuel.Beside {
		take(&m.Fuel.Beside[i])
	}
	for i := range m.Items[:m.Parts] {
		take(&m.Items[i])
	}
	r.Axles.Bare = stands()
	take(rider)
	r.Axles.Alone = stands()

	total, moment = r.Axles.Full.TotalKg(), r.Axles.Full.FrontKg*baseMM
	put(-rider.Mass.Number, rider.Place.XMM(baseMM))
	r.Axles.Parked = stands()
}

// axleGauge is the worse of full and empty tank under one wheel, against the plate.
func axleGauge(r *study.Run, id, on figure.ID, kg float64, key, name string, plate study.Quantity, halfKg float64, limit *float64) {
	c := r.Figure(id)
	c.On(on, "")
	c.Is(kg)
	v := c.Bike(key, name, "kg", plate)
	*limit = v.Number
	c.Spread(halfKg)
	c.AtMost(v, 0.95, verdict.Stop)
	c.Settle(func() []study.Lack { return study.ToWeigh(&r.Masses) })
}

// centre is how high the loaded bike's centre sits, tank full.
func centre(r *study.Run) {
	c := r.Figure(figure.CentreHeight)
	b := r.Built.Bike
	kerb := kerbMass(c)
	own := c.Bike("centre_height", "centre of the bike above ground", "mm", &b.CentreHeight)
	seat := c.Bike("seat_height", "seat height", "mm", &b.SeatHeight)
	onBoard(c)
	items, values := placed(c, math.NaN(), seat.Number, func(it load.Item) string { return fmt.Sprintf(", at %.0f mm", it.ZMM) })
	height := load.Height(kerb.Number, own.Number, items)
	r.Centre.HeightMM = height
	rider := &r.Masses.Items[r.Masses.Parts]
	total := kerb.Number
	for i := range items {
		total += items[i].MassKg
	}
	rest := total - rider.Mass.Number
	r.Centre.ParkedMM = (height*total - rider.Mass.Number*rider.Place.ZMM(seat.Number)) / rest
	c.Is(height)
	if c.Sheet != nil {
		c.Sheet.Step(load.HeightFormula, study.Computed("centre", height, "mm"), append([]sheet.Value{kerb, own, seat}, values...)...)
		c.Sheet.Note("Each load sits at the default height of its place, a share of the seat height: good to about a tenth.")
	}
	c.Plain()
}

// unsprung is what the plan adds to one wheel.
func unsprung(r *study.Run, id figure.ID, place load.Place, added float64) {
	c := r.Figure(id)
	var values []sheet.Value
	for i := range r.Masses.Items {
		it := &r.Masses.Items[i]
		if it.Place != place {
			continue
		}
		lacksMass(c, it)
		if c.Sheet != nil {
			values = append(values, it.Mass)
		}
	}
	c.Is(added)
	if c.Sheet != nil {
		c.Sheet.Step(unsprungFormula, study.Computed("gains", added, "kg"), values...)
	}
	c.Plain()
}
