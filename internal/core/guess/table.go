package guess

import (
	"math"

	"valiantmule/internal/core/lamp"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
)

// The table of the bike. Its numbers are [memory] unless a row says otherwise: what makers'
// sheets of each class mostly say, and for what no sheet says what people measure. Columns are
// light trial, trail single, dual-sport, rally single | trail twin, road twin, large twin,
// shaft tourer | roadster, sports, small road, cruiser.
//
// A row may follow from those before it: from what a rider has said of them, or else from
// their guess.
var bikeRows = []*Row{
	bike("displacement", "cc", func(b *plan.Bike) number { return &b.Displacement },
		column{260, 350, 400, 500, 750, 750, 1150, 1200, 600, 700, 150, 750}.of, share(0.3), kind(Engine, 1), read(1, "papers")),
	said("cylinders", func(b *plan.Bike) *plan.Cylinders { return &b.Cylinders }, func(s *Subject) plan.Cylinders {
		if s.class.single() {
			return plan.OneCylinder
		}
		return plan.MoreCylinders
	}, never[plan.Cylinders]),
	said("cooling", func(b *plan.Bike) *plan.Cooling { return &b.Cooling }, func(s *Subject) plan.Cooling {
		if s.class == cruiser || s.class == smallRoad || s.class == lightTrial {
			return plan.AirCooled
		}
		return plan.LiquidCooled
	}, func(s *Subject) plan.Cooling {
		switch s.class {
		case dualSport:
			return plan.AirCooled
		case roadster, roadTwin, shaftTourer, cruiser, smallRoad:
			return plan.LiquidCooled
		}
		return ""
	}),
	// Injection came with the emission rules of the later 2000s [practice].
	said("fuelling", func(b *plan.Bike) *plan.Fuelling { return &b.Fuelling }, func(s *Subject) plan.Fuelling {
		if s.Bike.Year != 0 && s.Bike.Year < 2006 || s.Bike.Year == 0 && s.class == lightTrial {
			return plan.Carburettor
		}
		return plan.Injection
	}, func(s *Subject) plan.Fuelling {
		switch year := s.Bike.Year; {
		case year == 0 && s.class != lightTrial || year >= 2006 && year < 2012:
			return plan.Carburettor
		case year < 2006 && (year == 0 || year >= 1998):
			return plan.Injection
		}
		return ""
	}, from(sheet.Practice), measured(1, "")),
	said("final", func(b *plan.Bike) *plan.Final { return &b.Final }, func(s *Subject) plan.Final {
		if s.class == shaftTourer {
			return plan.ShaftDrive
		}
		return plan.ChainDrive
	}, never[plan.Final]),

	bike("kerb_mass", "kg", func(b *plan.Bike) number { return &b.KerbMass },
		perCC{{70, 0.1}, {105, 0.03}, {125, 0.08}, {130, 0.08}, {150, 0.075}, {150, 0.078}, {180, 0.06}, {190, 0.055}, {130, 0.085}, {155, 0.048}, {95, 0.2}, {140, 0.11}}.of,
		column{0.16, 0.08, 0.12, 0.1, 0.09, 0.09, 0.08, 0.08, 0.11, 0.11, 0.11, 0.13}.of, measured(20, "two bathroom scales, a plank")),
	bike("kerb_front", "kg", func(b *plan.Bike) number { return &b.KerbFront },
		func(s *Subject) float64 {
			return s.kg() * column{0.48, 0.48, 0.47, 0.48, 0.48, 0.485, 0.49, 0.49, 0.49, 0.51, 0.46, 0.46}.of(s)
		}, share(0.06), measured(10, "a bathroom scale, a plank")),
	bike("kerb_fuel", "%", func(b *plan.Bike) number { return &b.KerbFuel }, always(100*plan.UsualKerbFuel), share(0.08), from(sheet.Practice), read(1, "data sheet")),
	bike("front_unsprung", "kg", func(b *plan.Bike) number { return &b.FrontUnsprung }, func(s *Subject) float64 {
		front, _ := stance.UnsprungKg(s.kg())
		return front
	}, share(0.2)),
	bike("rear_unsprung", "kg", func(b *plan.Bike) number { return &b.RearUnsprung }, func(s *Subject) float64 {
		_, rear := stance.UnsprungKg(s.kg())
		return rear
	}, share(0.2)),
	bike("seat_height", "mm", func(b *plan.Bike) number { return &b.SeatHeight },
		column{790, 950, 880, 910, 860, 835, 850, 850, 800, 822, 785, 710}.of, column{0.12, 0.04, 0.06, 0.05, 0.05, 0.05, 0.05, 0.05, 0.055, 0.05, 0.055, 0.07}.of, measured(3, "tape")),
	// A fair first guess is 0.6 of the seat's height [practice].
	bike("centre_height", "mm", func(b *plan.Bike) number { return &b.CentreHeight },
		func(s *Subject) float64 { return 0.6 * s.Bike.SeatHeight.In("mm") }, share(0.1), from(sheet.Practice)),
	bike("seat_width", "mm", func(b *plan.Bike) number { return &b.SeatWidth },
		column{190, 200, 220, 235, 265, 275, 290, 300, 255, 250, 245, 290}.of, share(0.18), measured(2, "tape, a straightedge")),
	bike("clearance", "mm", func(b *plan.Bike) number { return &b.Clearance },
		column{320, 335, 270, 275, 215, 190, 200, 190, 150, 130, 165, 135}.of, share(0.18), measured(3, "tape")),
	bike("wheelbase", "mm", func(b *plan.Bike) number { return &b.Wheelbase },
		column{1320, 1480, 1455, 1495, 1555, 1535, 1555, 1525, 1435, 1410, 1310, 1570}.of, share(0.035), measured(4, "tape")),

	bike("power", "kW", func(b *plan.Bike) number { return &b.Power },
		func(s *Subject) float64 {
			return s.cc() * column{0.055, 0.085, 0.068, 0.075, 0.082, 0.083, 0.083, 0.078, 0.085, 0.125, 0.072, 0.058}.of(s)
		}, column{0.35, 0.4, 0.3, 0.3, 0.2, 0.2, 0.22, 0.2, 0.25, 0.3, 0.2, 0.28}.of, kind(Engine, 1), read(1, "papers")),
	bike("power_rpm", "rpm", func(b *plan.Bike) number { return &b.PowerRPM },
		column{7000, 8500, 7200, 7600, 7900, 7900, 8200, 7600, 8500, 11000, 8500, 6500}.of, share(0.17), read(1, "papers")),
	bike("torque", "Nm", func(b *plan.Bike) number { return &b.Torque },
		func(s *Subject) float64 {
			return s.cc() * column{0.078, 0.092, 0.088, 0.092, 0.096, 0.097, 0.1, 0.1, 0.098, 0.103, 0.084, 0.1}.of(s)
		}, share(0.13), kind(Engine, 1), read(1, "data sheet")),
	bike("torque_rpm", "rpm", func(b *plan.Bike) number { return &b.TorqueRPM },
		func(s *Subject) float64 {
			return s.Bike.PowerRPM.In("rpm") * column{0.75, 0.8, 0.8, 0.8, 0.8, 0.8, 0.8, 0.78, 0.8, 0.83, 0.8, 0.65}.of(s)
		}, share(0.16), read(1, "data sheet")),
	// Singles 1800–2200, twins 1500–1800 [practice].
	bike("clean_rpm", "rpm", func(b *plan.Bike) number { return &b.CleanRPM },
		column{1700, 2100, 2000, 2000, 1700, 1700, 1650, 1550, 1700, 2000, 2000, 1500}.of, share(0.1), from(sheet.Practice), measured(5, "an empty yard")),
	bike("comfort_rpm", "rpm", func(b *plan.Bike) number { return &b.ComfortRPM },
		// Small singles turn nearer to their peak all day than large engines do.
		func(s *Subject) float64 {
			near := 0.73
			if s.class.single() {
				near = 0.84 - 0.0001*math.Max(0, s.cc()-250)
			}
			return near * s.Bike.PowerRPM.In("rpm")
		}, share(0.14), measured(20, "a fast road")),
	bike("max_rpm", "rpm", func(b *plan.Bike) number { return &b.MaxRPM },
		func(s *Subject) float64 { return 1.15 * s.Bike.PowerRPM.In("rpm") }, share(0.14), read(1, "manual")),
	bike("top_speed", "km/h", func(b *plan.Bike) number { return &b.TopSpeed },
		perCC{{85, 0.05}, {95, 0.11}, {95, 0.11}, {110, 0.09}, {130, 0.085}, {130, 0.085}, {170, 0.042}, {160, 0.04}, {120, 0.1}, {165, 0.11}, {70, 0.27}, {115, 0.062}}.of, share(0.13), read(1, "papers")),

	bike("tank", "L", func(b *plan.Bike) number { return &b.Tank },
		perCC{{6, 0}, {8.5, 0}, {6.5, 0.0075}, {14, 0.008}, {17.5, 0}, {17.5, 0}, {21, 0}, {22, 0}, {15, 0}, {13, 0.005}, {12, 0}, {14.5, 0}}.of, column{0.5, 0.15, 0.27, 0.35, 0.22, 0.22, 0.2, 0.2, 0.25, 0.2, 0.2, 0.22}.of, read(1, "manual")),
	bike("unusable", "L", func(b *plan.Bike) number { return &b.Unusable },
		func(s *Subject) float64 { return plan.UnusedShare * s.Bike.Tank.In("L") }, share(0.5), measured(20, "run it dry, a can")),
	// 250–450 singles 3.0–4.9, 600–700 singles 4.2–5.6, twins 4.2–6.0 L/100 km [practice]; a
	// rider alone on ordinary roads is in the lower half.
	bike("economy", "L/100 km", func(b *plan.Bike) number { return &b.Economy },
		perCC{{2.6, 0.0025}, {3, 0.0028}, {2.7, 0.0028}, {2.9, 0.0028}, {2.6, 0.0027}, {2.6, 0.0027}, {3, 0.0021}, {2.6, 0.0021}, {2.9, 0.0026}, {2.3, 0.0042}, {1.5, 0.006}, {2.9, 0.0025}}.of,
		share(0.14), from(sheet.Practice), measured(10, "two fills to the brim, the trip meter")),

	geared(0.1, gears, kind(Gearing, 0.4), loose(0.5), read(5, "manual")),
	toothed(parts.FrontSprocket, 1, frontTeeth.of, kind(Gearing, 0), loose(0.5), measured(2, "a lamp")),
	toothed(parts.RearSprocket, 4, rearTeeth.of, kind(Gearing, 0), loose(0.5), measured(2, "")),
	bike("final_ratio", "", func(b *plan.Bike) number { return &b.FinalRatio },
		func(s *Subject) float64 {
			if !s.Bike.Shaft() {
				return math.NaN()
			}
			return shaftRatio
		}, share(0.1), kind(Gearing, 0), loose(0.5), read(5, "manual")),
	bike("primary", "", func(b *plan.Bike) number { return &b.Primary }, primary, share(0.16), kind(Gearing, 0.5), anchor, read(5, "manual")),
	said("chain", func(b *plan.Bike) *string { return &b.Chain }, func(s *Subject) string {
		switch {
		case s.Bike.Shaft():
			return ""
		case s.class == smallRoad || s.class <= dualSport && s.cc() <= 200:
			return "428"
		case s.class >= trailTwin && s.class != roadster:
			return "525"
		}
		return "520"
	}, never[string]),
	bike("centre", "mm", func(b *plan.Bike) number { return &b.Centre },
		func(s *Subject) float64 {
			if s.Bike.Shaft() {
				return math.NaN()
			}
			return 0.435 * s.Bike.Wheelbase.In("mm")
		}, share(0.07), measured(3, "tape")),

	bike("adjuster_forward", "mm", func(b *plan.Bike) number { return &b.AdjusterForward }, slot(15), share(0.5), measured(3, "tape")),
	bike("adjuster_back", "mm", func(b *plan.Bike) number { return &b.AdjusterBack }, slot(25), share(0.4), measured(3, "tape")),

	bike("front_rim_diameter", "in", func(b *plan.Bike) number { return &b.FrontRimDiameter },
		func(s *Subject) float64 {
			if size := sizeIn(s.Bike, parts.FrontTyre); !size.IsZero() {
				return size.RimIn
			}
			return column{21, 21, 21, 21, 21, 19, 19, 19, 17, 17, 18, 19}.of(s)
		}, share(0)),
	bike("rear_rim_diameter", "in", func(b *plan.Bike) number { return &b.RearRimDiameter },
		func(s *Subject) float64 {
			if size := sizeIn(s.Bike, parts.RearTyre); !size.IsZero() {
				return size.RimIn
			}
			return column{18, 18, 18, 18, 18, 17, 17, 17, 17, 17, 18, 16}.of(s)
		}, share(0)),
	sized(parts.FrontTyre, 0.02, func(s *Subject) string {
		if s.class == sportsBike && s.cc() < 450 {
			return "110/70R17"
		}
		if s.class == dualSport && s.cc() < 350 {
			return "80/100-21"
		}
		return [classes]string{"2.75-21", "90/90-21", "90/90-21", "90/90-21", "90/90-21", "110/80R19", "110/80R19", "120/70R19", "120/70R17", "120/70R17", "2.75-18", "100/90-19"}[s.class]
	}, measured(2, "")),
	sized(parts.RearTyre, 0.02, func(s *Subject) string {
		if s.class == sportsBike && s.cc() < 450 {
			return "150/60R17"
		}
		if s.class == dualSport && s.cc() < 350 {
			return "120/80-18"
		}
		return [classes]string{"4.00-18", "140/80-18", "130/80-18", "140/80-18", "150/70R18", "150/70R17", "150/70R17", "170/60R17", "160/60R17", "180/55R17", "90/90-18", "150/80-16"}[s.class]
	}, measured(2, "")),
	// Between half and four fifths of the section on road fitments, less on dirt ones [memory].
	bike("front_rim_width", "in", func(b *plan.Bike) number { return &b.FrontRimWidth },
		func(s *Subject) float64 { return rimShare(s) * sizeIn(s.Bike, parts.FrontTyre).SectionMM / 25.4 }, share(0.15), measured(2, "tape")),
	bike("rear_rim_width", "in", func(b *plan.Bike) number { return &b.RearRimWidth },
		func(s *Subject) float64 { return rimShare(s) * sizeIn(s.Bike, parts.RearTyre).SectionMM / 25.4 }, share(0.15), measured(2, "tape")),
	// Tyres of bikes that are ridden are somewhere between new and due.
	bike("front_tread", "%", func(b *plan.Bike) number { return &b.FrontTread }, always(65), share(0.4), measured(2, "a depth gauge")),
	bike("rear_tread", "%", func(b *plan.Bike) number { return &b.RearTread }, always(60), share(0.45), measured(2, "a depth gauge")),
	// Standard tyres are road-biased nearly always [practice]; those of the lightest are not.
	cameAs(parts.FrontTyre, parts.TyreKind, tread, otherTread, kind(Carcass, 1), from(sheet.Practice), measured(1, "")),
	cameAs(parts.RearTyre, parts.TyreKind, tread, otherTread, kind(Carcass, 1), from(sheet.Practice), measured(1, "")),
	said("front_wheel_build", func(b *plan.Bike) *parts.WheelBuild { return &b.FrontBuild }, build, otherBuild, kind(Wheels, 1), measured(1, "")),
	said("rear_wheel_build", func(b *plan.Bike) *parts.WheelBuild { return &b.RearBuild }, build, otherBuild, kind(Wheels, 1), measured(1, "")),
	// Spokes through the rim want a tube, and such bikes come with one.
	cameAs(parts.FrontTube, parts.FillingKind, tube, tube, kind(Wheels, 1), measured(1, "")),
	cameAs(parts.RearTube, parts.FillingKind, tube, tube, kind(Wheels, 1), measured(1, "")),

	bike("rake", "°", func(b *plan.Bike) number { return &b.Rake },
		column{24, 26.8, 27, 26.8, 26.3, 25.7, 25.5, 25.6, 25, 24, 26, 30}.of, share(0.055), read(1, "data sheet")),
	bike("offset", "mm", func(b *plan.Bike) number { return &b.Offset }, offset, share(0.2), read(1, "data sheet: from the trail")),
	bike("front_travel", "mm", func(b *plan.Bike) number { return &b.FrontTravel },
		column{190, 300, 245, 270, 210, 170, 190, 190, 130, 120, 120, 130}.of, column{0.25, 0.08, 0.2, 0.14, 0.15, 0.16, 0.15, 0.14, 0.18, 0.12, 0.18, 0.2}.of, kind(FrontTravel, 0), loose(0.4), read(1, "data sheet")),
	bike("rear_travel", "mm", func(b *plan.Bike) number { return &b.RearTravel },
		column{190, 310, 240, 265, 205, 170, 195, 195, 130, 125, 100, 95}.of, column{0.25, 0.08, 0.22, 0.14, 0.15, 0.16, 0.15, 0.14, 0.18, 0.14, 0.25, 0.25}.of, kind(RearTravel, 0), loose(0.4), read(1, "data sheet")),
	bike("front_preload", "mm", func(b *plan.Bike) number { return &b.FrontPre },
		column{10, 8, 15, 12, 17, 17, 17, 15, 18, 15, 20, 20}.of, share(0.45), kind(FrontTravel, 0.1), loose(0.4), measured(30, "spanner, tape")),
	bike("rear_preload", "mm", func(b *plan.Bike) number { return &b.RearPre },
		column{10, 12, 16, 15, 18, 18, 20, 22, 14, 13, 15, 15}.of, share(0.5), kind(RearTravel, 0.1), loose(0.3), measured(30, "tape")),
	bike("link_ratio", "", func(b *plan.Bike) number { return &b.LinkRatio },
		column{0.36, 0.38, 0.4, 0.39, 0.4, 0.42, 0.42, 0.52, 0.45, 0.5, 0.85, 0.8}.of, share(0.18), kind(RearTravel, 0), loose(0.3), measured(20, "tape, a strap")),
	bike("front_spring", "N/mm", func(b *plan.Bike) number { return &b.FrontSpring }, forkSpring, share(0.22), kind(FrontTravel, 0.45), anchor, measured(15, "tape, a helper")),
	bike("rear_spring", "N/mm", func(b *plan.Bike) number { return &b.RearSpring }, shockSpring, share(0.25), kind(RearTravel, 0.45), anchor, measured(15, "tape, a helper")),
	bike("rear_preload_least", "mm", func(b *plan.Bike) number { return &b.RearPreLeast },
		func(s *Subject) float64 { return 0.6 * s.Bike.RearPre.In("mm") }, share(0.55), measured(20, "spanner, tape")),
	bike("rear_preload_most", "mm", func(b *plan.Bike) number { return &b.RearPreMost },
		func(s *Subject) float64 { return 15 + s.Bike.RearPre.In("mm") }, share(0.3), measured(20, "spanner, tape")),

	// Upright with bags 0.55–0.75 m² [memory]; without them less.
	bike("drag_area", "m²", func(b *plan.Bike) number { return &b.DragArea },
		column{0.5, 0.54, 0.56, 0.6, 0.62, 0.62, 0.66, 0.69, 0.55, 0.46, 0.5, 0.63}.of, share(0.13)),
	bike("bar_height", "mm", func(b *plan.Bike) number { return &b.BarHeight },
		func(s *Subject) float64 {
			return s.Bike.SeatHeight.In("mm") + column{300, 250, 255, 265, 295, 275, 300, 300, 235, 90, 245, 320}.of(s)
		}, column{0.06, 0.05, 0.055, 0.05, 0.05, 0.05, 0.05, 0.05, 0.05, 0.09, 0.05, 0.07}.of, measured(2, "tape")),
	bike("bar_width", "mm", func(b *plan.Bike) number { return &b.BarWidth },
		column{815, 805, 805, 815, 850, 850, 880, 885, 780, 690, 740, 820}.of, share(0.06), measured(2, "tape")),
	// Risers of 20 to 30 mm mostly go on without longer cables [practice].
	bike("cable_slack", "mm", func(b *plan.Bike) number { return &b.CableSlack },
		column{25, 25, 25, 25, 25, 25, 25, 25, 17, 6, 18, 15}.of, column{0.4, 0.4, 0.4, 0.4, 0.4, 0.4, 0.4, 0.4, 0.6, 1, 0.6, 0.6}.of, from(sheet.Practice), measured(10, "blocks of wood")),
	bike("peg_height", "mm", func(b *plan.Bike) number { return &b.PegHeight },
		column{370, 415, 385, 395, 345, 330, 335, 325, 310, 350, 300, 275}.of, share(0.1), measured(2, "tape")),
	bike("peg_ahead", "mm", func(b *plan.Bike) number { return &b.PegAhead },
		column{130, 140, 165, 165, 175, 180, 185, 190, 90, -60, 170, 330}.of, column{0.4, 0.4, 0.35, 0.35, 0.35, 0.35, 0.35, 0.35, 0.7, 1.5, 0.35, 0.25}.of, measured(5, "tape, a helper")),

	bike("stand_lean", "°", func(b *plan.Bike) number { return &b.StandLean }, always(stance.StandLeanDeg), share(0.18), measured(2, "a phone's level")),
	bike("stand_foot", "cm²", func(b *plan.Bike) number { return &b.StandFoot }, always(stance.StandFootMM2/100), share(0.4), measured(2, "tape")),

	// Small singles 190–260 W, middle ones 300–420, large bikes 450–650 [memory].
	bike("alternator", "W", func(b *plan.Bike) number { return &b.Alternator },
		perCC{{110, 0}, {150, 0.08}, {165, 0.22}, {185, 0.22}, {220, 0.25}, {220, 0.25}, {300, 0.17}, {300, 0.22}, {220, 0.22}, {250, 0.18}, {60, 0.6}, {250, 0.17}}.of, share(0.2), read(2, "manual")),
	// Carburettor and halogen 90–120 W, injection and LED 100–150, injection and halogen
	// 150–200, larger twins to 280 [memory].
	bike("own_draw", "W", func(b *plan.Bike) number { return &b.OwnDraw },
		func(s *Subject) float64 {
			if s.Bike.Fuelling == plan.Carburettor {
				return column{60, 85, 95, 105, 120, 120, 135, 140, 115, 125, 70, 120}.of(s)
			}
			return column{70, 105, 130, 140, 180, 185, 205, 225, 165, 185, 85, 170}.of(s)
		}, share(0.23), measured(10, "a clamp meter")),
	bike("alternator_rpm", "rpm", func(b *plan.Bike) number { return &b.AlternatorRPM }, always(power.UsualRatedRPM), share(0.12), read(2, "manual")),
	bike("idle_rpm", "rpm", func(b *plan.Bike) number { return &b.IdleRPM }, always(power.UsualIdleRPM), share(0.12), measured(2, "the counter, warm")),
	bike("headlamp_beam", "°", func(b *plan.Bike) number { return &b.HeadlampBeam }, always(lamp.UsualBeamDeg), share(0.4), measured(10, "a wall by night")),
	bike("lamp_height", "mm", func(b *plan.Bike) number { return &b.LampHeight },
		func(s *Subject) float64 { return lamp.HeightOfSeat * s.Bike.SeatHeight.In("mm") }, share(0.06), measured(1, "tape")),
	bike("lamp_aim", "°", func(b *plan.Bike) number { return &b.LampAim }, always(lamp.AimDownDeg), share(0.25), measured(10, "a wall at ten metres")),
	bike("battery", "Ah", func(b *plan.Bike) number { return &b.Battery },
		perCC{{4, 0}, {3.5, 0.006}, {5, 0.008}, {5.5, 0.006}, {11, 0}, {11, 0}, {12, 0}, {14, 0}, {9.5, 0}, {9, 0}, {5, 0}, {13, 0}}.of, share(0.28), read(1, "its label")),
	// Of main beams; halogen lamps mostly reach 20 to 40 thousand candela, the better LED ones more.
	bike("headlamp", "cd", func(b *plan.Bike) number { return &b.Headlamp },
		column{12000, 18000, 26000, 32000, 36000, 36000, 42000, 44000, 32000, 36000, 16000, 30000}.of, share(0.4), measured(10, "a lux meter")),
	bike("cold_crank", "A", func(b *plan.Bike) number { return &b.Cranks },
		func(s *Subject) float64 { return 17 * s.Bike.Battery.In("Ah") }, share(0.3), read(1, "its label")),
}
