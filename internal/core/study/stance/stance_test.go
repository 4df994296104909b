package stance_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestClearanceAndItsRule speak with one voice: below what the brief wants it is over, below
// what is usual for the ground at most watch.
func TestClearanceAndItsRule(t *testing.T) {
	b := studytest.New(t)
	for _, c := range []struct {
		over  float64 // of the wish, mm
		said  bool
		state verdict.State
	}{{-8, true, verdict.Over}, {-2, true, verdict.Watch}, {-8, false, verdict.Watch}, {4, true, verdict.Watch}, {20, true, verdict.OK}} {
		p := b.With("holt-650")
		if c.said {
			studytest.Enter(t, &p.Brief.RoomWanted, "170", "mm")
		}
		studytest.Enter(t, &p.Bike.Clearance, "100", "mm")
		room := b.Facts(p).Room
		studytest.Enter(t, &p.Bike.Clearance, fmt.Sprintf("%.1f", 100+room.WishMM-room.MM+c.over), "mm")
		gauge, ok := studytest.Report(t, p).Figure(figure.Clearance)
		require.True(t, ok)
		assert.Equal(t, c.state, gauge.State, "%g mm over", c.over)
		finding, said := b.Findings(p)["room-short"]
		assert.Equal(t, c.state != verdict.OK, said)
		if said {
			assert.Equal(t, c.state, finding.State)
		}
	}
}

// TestFootOfTheStand: a 650 with bags bears 400 to 800 N on its stand, 280 to 550 kPa under a foot
// of 38 × 38 mm (HANDBOOK 9).
func TestFootOfTheStand(t *testing.T) {
	b := studytest.New(t)
	for _, kg := range []string{"5", "20", "35"} {
		p := b.With("holt-650")
		studytest.Packed(studytest.Thing(t, kg, "10", "", "", load.Panniers))(p)
		stood := b.Facts(p).Stood
		assert.Greater(t, stood.ForceN, 400.0, kg)
		assert.Less(t, stood.ForceN, 800.0, kg)
		assert.InDelta(t, stood.ForceN/14.44e-4/1000, stood.KPa, 1, "38 × 38 mm, where nobody has measured")
	}
}

// TestUsualReach: a seat that is higher than is usual to reach is at most watch, higher than
// its rider wants over.
func TestUsualReach(t *testing.T) {
	b := studytest.New(t)
	p := b.With("fennick-450")
	studytest.Enter(t, &p.Brief.Inseam, "700", "mm")
	f := b.Findings(p)["out-of-reach"]
	assert.Equal(t, verdict.Watch, f.State)
	assert.Contains(t, f.Tell().What, "usual is {60 mm}")
	studytest.Enter(t, &p.Brief.ReachWish, "50", "mm")
	f = b.Findings(p)["out-of-reach"]
	assert.Equal(t, verdict.Over, f.State)
	assert.Contains(t, f.Tell().What, "the brief wants {50 mm}")
}

// light is a plan with a rider of so many kg and nothing but things packed.
func light(t *testing.T, b *studytest.Garage, bike, kg string, things ...plan.Load) *plan.Plan {
	p := b.With(bike)
	studytest.Packed(things...)(p)
	studytest.Enter(t, &p.Brief.Rider, kg, "kg")
	return p
}

// TestTallRiderOnThe300 [practice]: 1.98 m and 120 kg want firmer springs at both ends.
func TestTallRiderOnThe300(t *testing.T) {
	b := studytest.New(t)
	p := light(t, b, "fennick-300", "120")
	studytest.Enter(t, &p.Brief.Stature, "1980", "mm")
	s := b.Facts(p).Springs
	for _, rear := range []bool{false, true} {
		e := s.Of(rear)
		assert.Greater(t, e.WantNmm, 1.08*e.End.Spring.Nmm, "rear %t", rear)
		assert.Greater(t, e.Share(e.LoadedMM), e.Band.High, "rear %t", rear)
	}
	found := b.Findings(p)
	assert.Contains(t, found, "sag-soft-front")
	assert.Contains(t, found, "sag-soft-rear")
}

// TestTiptoe [practice]: a rider of 1.69 m, leg 795 mm, on a seat 250 mm wide, soles 30, is
// at least one state worse off with 20 mm more.
func TestTiptoe(t *testing.T) {
	b := studytest.New(t)
	p := light(t, b, "fennick-300", "68")
	studytest.Enter(t, &p.Brief.Inseam, "795", "mm")
	studytest.Enter(t, &p.Brief.Stature, "1690", "mm")
	studytest.Enter(t, &p.Brief.Sole, "30", "mm")
	studytest.Enter(t, &p.Bike.SeatWidth, "250", "mm")
	taller := &parts.Part{ID: "own-taller", Slot: parts.Seat, Name: "Taller", Effects: []parts.Effect{{Figure: parts.SeatRise, Op: parts.Add, Value: 20}}}
	before, after := b.Facts(p).Reach.MM, b.Facts(p.With(plan.Choice{Slot: parts.Seat, Part: taller})).Reach.MM
	assert.InDelta(t, 20, after-before, 0.1)
	assert.NotEqual(t, fit.FeetAt(before), fit.FeetAt(after), "%.0f and %.0f mm", before, after)
}

// TestBagsOnTheMidTwin [practice]: 58 kg of bags take its preload to the stop; with the
// right spring it sits in the lower half of the adjuster.
func TestBagsOnTheMidTwin(t *testing.T) {
	b := studytest.New(t)
	thing := func(kg string, at load.Place) plan.Load { return studytest.Thing(t, kg, "20", "", "", at) }
	p := light(t, b, "corrin-850", "92", thing("34", load.Panniers), thing("14", load.Tail), thing("10", load.TankBag))
	e := b.Facts(p).Springs.Rear
	require.True(t, e.RunsOut(), "wants %.0f mm of %.0f", e.WantPreloadMM, e.MostMM())
	finding := b.Findings(p)
	require.Contains(t, finding, "sag-soft-rear")
	remedies := finding["sag-soft-rear"].Remedies()
	require.NotEmpty(t, remedies)
	after := b.Facts(p.With(remedies[0].Choices...)).Springs.Rear
	assert.Less(t, after.WantPreloadMM, (after.Adjuster.LeastMM()+after.MostMM())/2)
	assert.GreaterOrEqual(t, after.WantPreloadMM, after.Adjuster.LeastMM())
	assert.InDelta(t, after.Band.Middle(), after.Share(after.LoadedMM), 1e-9, "it is set for the load when it goes in")
}

// TestMeasuredSagLeads: what was measured with the rider alone is what is computed then, and
// what corrects it is shown and can be taken back.
func TestMeasuredSagLeads(t *testing.T) {
	b := studytest.New(t)
	p := light(t, b, "fennick-300", "80")
	before := b.Facts(p).Springs
	studytest.Enter(t, &p.Bike.RearSag, "90", "mm")
	studytest.Enter(t, &p.Bike.FrontSag, "70", "mm")
	s := b.Facts(p).Springs
	assert.InDelta(t, 90, s.Rear.Came.RiderMM, 1e-9)
	assert.InDelta(t, 70, s.Front.Came.RiderMM, 1e-9)
	assert.NotEmpty(t, s.Rear.Corrected.Of)
	p.Bike.RearSag, p.Bike.FrontSag = unit.Length{}, unit.Length{}
	assert.Equal(t, before.Rear.LoadedMM, b.Facts(p).Springs.Rear.LoadedMM)
}

// TestReadingsLead over the sheet, the latest first, each under the load that it was taken
// with; one that is revoked leads no more.
func TestReadingsLead(t *testing.T) {
	b := studytest.New(t)
	p := light(t, b, "fennick-300", "80", studytest.Thing(t, "12", "20", "", "", load.Tail))
	studytest.Enter(t, &p.Bike.RearSag, "90", "mm")
	computed := b.Facts(p).Springs.Rear
	sat := func(id, on, down, up string) logbook.Reading {
		s := &logbook.Sag{Name: "Travel"}
		studytest.Enter(t, &s.Rear.Hanging, "640", "mm")
		studytest.Enter(t, &s.Rear.RiderDown, down, "mm")
		studytest.Enter(t, &s.Rear.RiderUp, up, "mm")
		studytest.Enter(t, &s.Rear.Sprung, fmt.Sprintf("%.3f", computed.LoadedKg), "kg")
		studytest.Enter(t, &s.Rear.Preload, "19", "mm")
		studytest.Enter(t, &s.Rear.Spring, "54", "N/mm")
		require.NoError(t, s.Check())
		return logbook.Reading{ID: id, Kind: logbook.SagRead, On: on, Bike: p.Bike.ID, Read: s}
	}
	first, second := "AAAAAAAAAAAAAAAAAAAAAAAAAA", "BBBBBBBBBBBBBBBBBBBBBBBBBB"
	p.Readings = []logbook.Reading{sat(first, "2026-10-01", "540", "546"), sat(second, "2026-11-01", "532", "538")}
	e := b.Facts(p).Springs.Rear
	assert.Equal(t, second, e.Measured.Reading)
	assert.InDelta(t, 105, e.LoadedMM, 1e-3, "the middle of both")
	p.Readings = append(p.Readings, logbook.Reading{ID: "CCCCCCCCCCCCCCCCCCCCCCCCCC", Kind: logbook.Revocation, On: "2026-11-02", Bike: p.Bike.ID, Of: second})
	assert.InDelta(t, 97, b.Facts(p).Springs.Rear.LoadedMM, 1e-3)
	stiffer := b.Facts(p.With(b.Part("shock-spring-f-66"))).Springs.Rear
	assert.InDelta(t, 66, stiffer.End.Spring.Nmm, 1e-9, "what the old spring was off by is not the new one's")
}

// TestWithoutASpring only the measured load is known.
func TestWithoutASpring(t *testing.T) {
	b := studytest.New(t)
	p := light(t, b, "fennick-300", "80")
	p.Bike.RearSpring = unit.Stiffness{}
	gauge, _ := studytest.Report(t, p).Figure(figure.SagRear)
	assert.False(t, gauge.Known)
	assert.NotEmpty(t, gauge.Missing)
	studytest.Enter(t, &p.Bike.RearSag, "75", "mm")
	gauge, _ = studytest.Report(t, p).Figure(figure.SagRear)
	require.True(t, gauge.Known)
	assert.InDelta(t, 100*75.0/235, gauge.Value, 1e-9)
	p.Loadouts[1].Loads = []plan.Load{studytest.Thing(t, "25", "20", "", "", load.Tail)}
	gauge, _ = studytest.Report(t, p).Figure(figure.SagRear)
	require.True(t, gauge.Known, "with bags by the usual free sag")
	assert.Greater(t, gauge.High-gauge.Low, 0.5)
	e := b.Facts(p).Springs.Rear
	free := 0.085 * 235 // the middle of 5 to 12 % of the travel, HANDBOOK 9
	assert.InDelta(t, 75+(e.LoadedKg-e.Tape.Kg)*(75-free)/(e.Tape.Kg-e.Tape.OtherKg), e.LoadedMM, 1e-9)
	assert.InDelta(t, (e.LoadedMM-e.Band.Middle()*235)*p.Bike.LinkRatio.In(""), e.MorePreloadMM(), 1e-9)
}

// TestTwoSagsByTape under two loads give the sag under a third, of another rider too: by
// hand, 40 mm under 50 kg and 80 mm under 100 kg are 0.8 mm a kg.
func TestTwoSagsByTape(t *testing.T) {
	b := studytest.New(t)
	p := light(t, b, "fennick-300", "80", studytest.Thing(t, "25", "20", "", "", load.Tail))
	p.Bike.RearSpring, p.Bike.LinkRatio = unit.Stiffness{}, unit.Ratio{}
	s := &logbook.Sag{Name: "Bare"}
	studytest.Enter(t, &s.Rear.Hanging, "540", "mm")
	studytest.Enter(t, &s.Rear.FreeDown, "500", "mm")
	studytest.Enter(t, &s.Rear.RiderDown, "460", "mm")
	studytest.Enter(t, &s.Rear.FreeSprung, "50", "kg")
	studytest.Enter(t, &s.Rear.Sprung, "100", "kg")
	p.Readings = []logbook.Reading{{ID: "AAAAAAAAAAAAAAAAAAAAAAAAAA", Kind: logbook.SagRead, On: "2026-10-01", Bike: p.Bike.ID, Read: s}}
	e := b.Facts(p).Springs.Rear
	assert.False(t, e.Tape.Usual)
	assert.InDelta(t, 40+(e.LoadedKg-50)*0.8, e.LoadedMM, 1e-9)
	assert.True(t, math.IsNaN(e.MorePreloadMM()), "nobody knows the lever")
}

// TestLaws of springs and heights on whole plans.
func TestLaws(t *testing.T) {
	b := studytest.New(t)
	springs := func(p *plan.Plan) *facts.Springs { s := b.Facts(p).Springs; return &s }
	thing := func(at load.Place) plan.Load { return studytest.Thing(t, "12", "20", "", "", at) }
	for bike := range b.Bikes {
		p := light(t, b, bike, "85")
		now := springs(p)
		heavier := springs(light(t, b, bike, "85", thing(load.RearWheel)))
		assert.GreaterOrEqual(t, heavier.Rear.LoadedMM, now.Rear.LoadedMM, "%s: more on that wheel never sags less", bike)
		forward := light(t, b, bike, "85")
		forward.Loadouts = append([]plan.Loadout{}, forward.Loadouts...)
		forward.Loadouts[1].Sits = plan.SitsForward
		assert.Less(t, springs(forward).Rear.LoadedMM, now.Rear.LoadedMM, "%s: forward takes weight off the rear", bike)
		assert.Greater(t, springs(forward).Front.LoadedMM, now.Front.LoadedMM, bike)
		room := b.Facts(p).Room.StaticMM
		for _, part := range []string{"links-high-20", "links-low-25"} {
			risen := b.Facts(p.With(b.Part(part))).Room.StaticMM - room
			assert.Equal(t, part == "links-high-20", risen > 0, "%s, %s: raised when it hangs is raised at rest", bike, part)
		}
		through := light(t, b, bike, "85")
		studytest.Enter(t, &through.ForkThrough, "10", "mm")
		assert.Less(t, b.Facts(through).Poses.TrailMM, b.Facts(p).Poses.TrailMM, "%s: a lower front steers quicker", bike)
	}
}

// TestEveryBikeKnowsItsSag under the demo's brief, in every loadout.
func TestEveryBikeKnowsItsSag(t *testing.T) {
	b := studytest.New(t)
	for bike := range b.Bikes {
		for _, id := range []figure.ID{figure.SagFront, figure.SagRear} {
			gauge, ok := b.Report(b.Standard(bike)).Figure(id)
			require.True(t, ok)
			assert.True(t, gauge.Known && gauge.Limited, "%s: %s lacks %v", bike, id, gauge.Missing)
		}
	}
}

// TestLinksByInches: links of one's own are known by what they lower; what the shock then moves
// less follows as is usual, and a percentage leads over it.
func TestLinksByInches(t *testing.T) {
	b := studytest.New(t)
	links := func(said ...string) *plan.Built {
		part := studytest.Say(t, &parts.Part{ID: parts.OwnPrefix + "links", Slot: parts.Links, Name: "Links"}, said...)
		return b.Standard("holt-650").With(plan.Choice{Slot: parts.Links, Part: part}).Build("travel")
	}
	bare := b.Standard("holt-650").Build("travel").LinkRatio()
	assert.InDelta(t, 0.97*bare, links("link_rise", "-1 in").LinkRatio(), 0.001*bare)
	assert.InDelta(t, -25.4, links("link_rise", "-1 in").RaisesRearMM(), 1e-9)
	assert.InDelta(t, 0.94*bare, links("link_rise", "-1 in", "leverage", "-6").LinkRatio(), 1e-9)
}

// TestStandardPlateCameOff: the bike's clearance was taken with its own plate on, so that plate
// takes nothing, and another takes what it hangs lower.
func TestStandardPlateCameOff(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	bare := b.Facts(p).Room.StaticMM
	plate := func(id, mm string) *parts.Part {
		part := &parts.Part{ID: id, Slot: parts.SkidPlate, Name: "Plate"}
		studytest.Say(t, part, "hangs", mm)
		return part
	}
	p.Bike.SetStandard(*plate(parts.StandardPrefix+"skid-plate", "5"))
	assert.InDelta(t, bare, b.Facts(p).Room.StaticMM, 1e-9)
	assert.InDelta(t, bare-7, b.Facts(p.With(plan.Choice{Slot: parts.SkidPlate, Part: plate(parts.OwnPrefix+"plate", "12")})).Room.StaticMM, 0.1)
	covers, usual := p.BuildStandard().Part(parts.SkidPlate).Covers()
	assert.NotEmpty(t, covers, "it keeps the sump whole as an own one does")
	assert.True(t, usual)
}

// TestWhatHangsBelow an own plate takes from the room under the engine; one of which nobody
// says takes the usual 8 mm, give or take 6, and never makes the room surer.
func TestWhatHangsBelow(t *testing.T) {
	b := studytest.New(t)
	bare := studytest.Value(t, light(t, b, "fennick-300", "80"), "clearance")
	with := func(depth string) study.Figure {
		p := light(t, b, "fennick-300", "80")
		own := &parts.Part{ID: "own-plate", Slot: parts.SkidPlate, Name: "Bent sheet"}
		studytest.Enter(t, &own.Mass, "0", "kg")
		if depth != "" {
			studytest.Say(t, own, "hangs", depth)
		}
		f, _ := b.Report(p.With(plan.Choice{Slot: own.Slot, Part: own})).Figure(figure.Clearance)
		return f
	}
	typed := with("20")
	assert.InDelta(t, bare-20, typed.Value, 0.2)
	assert.Zero(t, typed.Usual)
	usual := with("")
	assert.InDelta(t, bare-8, usual.Value, 0.2)
	assert.InDelta(t, 12, usual.High-usual.Low, 1e-9)
	assert.EqualValues(t, 1, usual.Usual)
}
