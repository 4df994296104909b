package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

func part(slot parts.Slot, id string) *parts.Part {
	return &parts.Part{ID: id, Slot: slot, Name: id, Price: money.New(5000, "EUR")}
}

// TestDecisionsDecideTheBike: what is undecided, for later or rejected is not on
// the bike that is computed.
func TestDecisionsDecideTheBike(t *testing.T) {
	for _, d := range plan.Decisions() {
		p := plan.New("P", "EUR")
		p.Bike = bike(t)
		p.Lines = []plan.Line{{Kind: plan.PartLine, Need: plan.Needed, Decision: plan.Decision(d.Value), Part: rearTyre(t, "other", "140/80-18")}}
		require.Empty(t, p.Validate(), d.Value)
		on := p.Build("travel").Part(parts.RearTyre).ID == "other"
		in := p.Lines[0].Standing() == plan.In
		assert.Equal(t, in, on, d.Value)
		assert.Equal(t, in, p.Chosen(parts.RearTyre, "travel") != nil, d.Value)
	}
}

// TestUndecidedIsPromoted with all that was noted about it, and stands beside
// what is on the bike until then.
func TestUndecidedIsPromoted(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = bike(t)
	wide, tall := rearTyre(t, "wide", "140/80-18"), rearTyre(t, "tall", "120/90-18")
	p = p.With(plan.Choice{Slot: parts.RearTyre, Part: wide}, plan.Choice{Slot: parts.RearTyre, Part: tall, Decision: plan.Undecided, Need: plan.Wanted})
	require.Empty(t, p.Validate())
	require.Len(t, p.Lines, 2)
	assert.Equal(t, wide, p.Chosen(parts.RearTyre, "travel"))
	p.Lines[1].Why, p.Lines[1].Source = "ask the tyre man", plan.BoughtUsed

	p = p.With(plan.Choice{Slot: parts.RearTyre, Part: tall})
	require.Len(t, p.Lines, 1, "it takes the place of the other")
	assert.Equal(t, plan.Line{Kind: plan.PartLine, Part: tall, Need: plan.Wanted, Why: "ask the tyre man", Source: plan.BoughtUsed}, p.Lines[0])

	p = p.With(plan.Choice{Slot: parts.RearTyre, Part: tall, Decision: plan.WhenItBreaks})
	require.Len(t, p.Lines, 1)
	assert.Nil(t, p.Chosen(parts.RearTyre, "travel"), "put off again, the standard one is back")
}

// TestForOneLoadoutOnly: a second front sprocket for the trail.
func TestForOneLoadoutOnly(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = bike(t)
	small, large := parts.Counted(parts.FrontSprocket, 14), parts.Counted(parts.FrontSprocket, 16)
	p = p.With(plan.Choice{Slot: parts.FrontSprocket, Part: small, Loadout: "trail-day"}, plan.Choice{Slot: parts.FrontSprocket, Part: large})
	require.Empty(t, p.Validate(), "one for all and one for a loadout share a slot")
	teeth := func(p *plan.Plan, loadout string) float64 { return p.Build(loadout).Figure(parts.FrontTeeth) }
	assert.Equal(t, []float64{14, 16}, []float64{teeth(p, "trail-day"), teeth(p, "travel")})

	back := p.With(plan.Choice{Slot: parts.FrontSprocket, Loadout: "trail-day"})
	assert.Equal(t, 16.0, teeth(back, "trail-day"), "without its own it has what the others have")
	scoped := p.Scoped([]plan.Choice{{Slot: parts.FrontSprocket, Part: parts.Counted(parts.FrontSprocket, 13)}, {Slot: parts.RearSprocket}}, "trail-day")
	assert.Equal(t, []string{"trail-day", ""}, []string{scoped[0].Loadout, scoped[1].Loadout}, "a change goes where the slot is decided")
}

func TestLineCost(t *testing.T) {
	for name, c := range map[string]struct {
		line plan.Line
		want money.Amount
	}{
		"new":                     {plan.Line{Part: part(parts.RearLock, "lock")}, money.New(5000, "EUR")},
		"haggled":                 {plan.Line{Part: part(parts.RearLock, "lock"), Amount: money.New(4000, "EUR")}, money.New(4000, "EUR")},
		"moved over":              {plan.Line{Part: part(parts.RearLock, "lock"), Source: plan.MovedOver}, money.New(0, "EUR")},
		"used, not said for what": {plan.Line{Part: part(parts.RearLock, "lock"), Source: plan.BoughtUsed}, money.Amount{}},
		"used":                    {plan.Line{Part: part(parts.RearLock, "lock"), Source: plan.BoughtUsed, Amount: money.New(2000, "EUR")}, money.New(2000, "EUR")},
		"home-made":               {plan.Line{Name: "Rack", Source: plan.HomeMade, Amount: money.New(3500, "EUR")}, money.New(3500, "EUR")},
	} {
		assert.Equal(t, c.want, c.line.Cost(), name)
	}
}

func TestValidateLines(t *testing.T) {
	pressure := func(text string) (p unit.Pressure) {
		require.NoError(t, p.Enter(text, "kPa"))
		return p
	}
	good := func() *plan.Plan {
		p := plan.New("P", "EUR")
		p.Bike = bike(t)
		wheel := part(parts.RearWheel, "wheel")
		parts.Build.Put(wheel, parts.Spoked)
		require.NoError(t, wheel.Say("rim", "18"))
		require.NoError(t, wheel.Say("rim_width", "2.5"))
		tube := part(parts.RearTube, "tube")
		parts.FillingKind.Put(tube, "heavy-tube")
		p.Lines = []plan.Line{{Kind: plan.PartLine, Need: plan.Needed, Part: wheel}, {Kind: plan.PartLine, Need: plan.Needed, Part: tube}, {Kind: plan.Gear, Need: plan.Wanted, Name: "Bags"}}
		p.Loadouts[0].Pressures = []plan.Pressure{{Surface: "rock", Front: pressure("150"), Rear: pressure("22 psi")}}
		return p
	}
	require.Empty(t, good().Validate())
	for path, spoil := range map[string]func(*plan.Plan){
		"lines[0].decision":                func(p *plan.Plan) { p.Lines[0].Decision = "perhaps" },
		"lines[0].source":                  func(p *plan.Plan) { p.Lines[0].Source = "found" },
		"lines[0].loadout":                 func(p *plan.Plan) { p.Lines[0].Loadout = "winter" },
		"lines[2].loadout":                 func(p *plan.Plan) { p.Lines[2].Loadout = "travel" },
		"lines[0].hours":                   func(p *plan.Plan) { require.NoError(t, p.Lines[0].Hours.Enter("-2", "h")) },
		"lines[0].part.has.build":          func(p *plan.Plan) { parts.Build.Put(p.Lines[0].Part, "wood") },
		"lines[0].part.has.rim":            func(p *plan.Plan) { require.NoError(t, p.Lines[0].Part.Say("rim", "40")) },
		"lines[0].part.has.rim_width":      func(p *plan.Plan) { require.NoError(t, p.Lines[0].Part.Say("rim_width", "40")) },
		"lines[1].part.has.build":          func(p *plan.Plan) { parts.Build.Put(p.Lines[1].Part, parts.Spoked) },
		"lines[1].part.has.filling":        func(p *plan.Plan) { parts.FillingKind.Put(p.Lines[1].Part, "water") },
		"loadouts[0].pressures[0].surface": func(p *plan.Plan) { p.Loadouts[0].Pressures[0].Surface = "ice" },
		"loadouts[0].pressures[0].rear":    func(p *plan.Plan) { p.Loadouts[0].Pressures[0].Rear = pressure("900") },
		"brief.climb_ground":               func(p *plan.Plan) { p.Brief.ClimbGround = "lava" },
	} {
		p := good()
		spoil(p)
		var paths []string
		for _, problem := range p.Validate() {
			paths = append(paths, problem.Path)
		}
		assert.Contains(t, paths, path)
	}
}

func TestValidateInspection(t *testing.T) {
	good := func() *plan.Plan {
		p := plan.New("P", "EUR")
		p.Baseline = plan.Inspection{
			Answers: []plan.Answer{{Check: "front-pads", Verdict: baseline.Watch}, {Check: "oil", Verdict: baseline.Do, Cost: money.New(4500, "EUR")}},
			Changes: []plan.Change{{Name: "Open airbox", Fate: baseline.Undo}}, AsBuilt: []plan.Fact{{Name: "Fork oil", Value: "7.5 W, 120 mm", On: "2026-11-20"}},
		}
		require.NoError(t, p.Baseline.Answers[0].Now.Enter("3", "mm"))
		return p
	}
	require.Empty(t, good().Validate())
	for path, spoil := range map[string]func(in *plan.Inspection){
		"baseline.answers[0].check": func(in *plan.Inspection) { in.Answers[0].Check = "sunroof" },
		"baseline.answers[1].check": func(in *plan.Inspection) { in.Answers[1].Check = "front-pads" },
		"baseline.answers[0]":       func(in *plan.Inspection) { in.Answers[0].Verdict = "fine" },
		"baseline.answers[1]":       func(in *plan.Inspection) { in.Answers[1].Cost = money.New(-1, "EUR") },
		"baseline.changes[0].name":  func(in *plan.Inspection) { in.Changes[0].Name = "" },
		"baseline.changes[0].fate":  func(in *plan.Inspection) { in.Changes[0].Fate = "sell" },
		"baseline.changes[0]":       func(in *plan.Inspection) { require.NoError(t, in.Changes[0].Hours.Enter("-1", "h")) },
		"baseline.as_built[0].name": func(in *plan.Inspection) { in.AsBuilt[0].Name = "" },
		"baseline.as_built[0].on":   func(in *plan.Inspection) { in.AsBuilt[0].On = "lately" },
	} {
		p := good()
		spoil(&p.Baseline)
		require.NotEmpty(t, p.Validate(), path)
		assert.Equal(t, path, p.Validate()[0].Path)
	}
	p := good()
	changed := p.Answered(plan.Answer{Check: "oil", Verdict: baseline.Good}).Answered(plan.Answer{Check: "leaks", Verdict: baseline.Good})
	assert.Len(t, p.Baseline.Answers, 2, "the plan itself stays")
	assert.Len(t, changed.Baseline.Answers, 3)
	oil, ok := changed.Baseline.Answer("oil")
	assert.True(t, ok && oil.Verdict == baseline.Good && !oil.Cost.Known())
}

func TestValidateGuards(t *testing.T) {
	ratio := func(text string) (r unit.Ratio) {
		require.NoError(t, r.Enter(text, "%"))
		return r
	}
	good := func() *plan.Plan {
		p := plan.New("P", "EUR")
		p.Brief.Skill = guard.Old
		p.Risk = plan.Risk{"breaks.sump.strike": ratio("4 %")}
		plate := part(parts.SkidPlate, "plate")
		parts.GuardMount.Put(plate, parts.ToFrame)
		parts.Blocks.Put(plate, entry.Words{string(parts.Drain)})
		parts.Covering.Put(plate, parts.Covers{{Place: guard.Sump, Against: []guard.Hazard{guard.Strike}, Stops: ratio("80 %")}})
		p.Lines = []plan.Line{{Kind: plan.PartLine, Need: plan.Needed, Part: plate}}
		return p
	}
	require.Empty(t, good().Validate())
	covers := func(p *plan.Plan) *parts.Cover { return &parts.Covering.In(p.Lines[0].Part)[0] }
	for path, spoil := range map[string]func(p *plan.Plan){
		"brief.skill":                            func(p *plan.Plan) { p.Brief.Skill = "wizard" },
		"risk.breaks.sump.strike":                func(p *plan.Plan) { p.Risk["breaks.sump.strike"] = ratio("120 %") },
		"risk.events.meteor":                     func(p *plan.Plan) { p.Risk["events.meteor"] = ratio("1 %") },
		"lines[0].part.has.mount":                func(p *plan.Plan) { parts.GuardMount.Put(p.Lines[0].Part, "luck") },
		"lines[0].part.has.guard_width":          func(p *plan.Plan) { require.NoError(t, p.Lines[0].Part.Say("guard_width", "2 m")) },
		"lines[0].part.has.blocks[0]":            func(p *plan.Plan) { parts.Blocks.In(p.Lines[0].Part)[0] = "view" },
		"lines[0].part.has.covers[0].place":      func(p *plan.Plan) { covers(p).Place = "roof" },
		"lines[0].part.has.covers[0].stops":      func(p *plan.Plan) { covers(p).Stops = unit.Ratio{} },
		"lines[0].part.has.covers[0].against[0]": func(p *plan.Plan) { covers(p).Against[0] = "hail" },
	} {
		p := good()
		spoil(p)
		require.NotEmpty(t, p.Validate(), path)
		assert.Equal(t, path, p.Validate()[0].Path)
	}
}

// TestVulnerable: what a bike has not cannot break; what nobody has said is there.
func TestVulnerable(t *testing.T) {
	b := &plan.Bike{Cooling: plan.OilCooled, Final: plan.ShaftDrive}
	for place, want := range map[guard.Place]bool{guard.Radiator: false, guard.OilCooler: true, guard.Drive: false, guard.Fairing: false, guard.Sump: true, guard.Levers: true} {
		assert.Equal(t, want, b.Vulnerable(place), place)
	}
}

// TestWorkshop: what is beyond the rider's tools costs hours of a workshop at its
// rate; the rest is the rider's own time, and what is fitted takes none.
func TestWorkshop(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = bike(t)
	p.Lines = []plan.Line{
		{Kind: plan.PartLine, Need: plan.Needed, Part: part(parts.Socket, "socket")}, {Kind: plan.PartLine, Need: plan.Needed, Part: part(parts.SkidPlate, "plate")},
		{Kind: plan.PartLine, Need: plan.Needed, Part: part(parts.Seat, "seat"), Decision: plan.Undecided},
	}
	assert.Empty(t, p.Workshop(), "who has not said what they can do is not judged")
	p.Brief.Spanner, p.Brief.HourRate = plan.HomeSpanner, money.New(6000, "EUR")
	work := p.Workshop()
	require.Len(t, work, 1, "wiring is beyond home tools, a plate is not")
	assert.Equal(t, money.New(4800, "EUR"), work[0].Amount, "0.8 h at 60")
	assert.Len(t, p.Spending(), 4)
	assert.InDelta(t, 0.6, p.OwnHours(&p.Lines[1]), 1e-9)
	assert.Zero(t, p.OwnHours(&p.Lines[0]), "the workshop's hours are not one's own")
	assert.Zero(t, p.OwnHours(&p.Lines[2]), "nothing is fitted before it is decided")
	p.Brief.HourRate = money.Amount{}
	assert.Len(t, p.Spending(), 3, "without a rate nothing is invented")
	p.Lines[0].Decision = plan.OnTheBike
	assert.Empty(t, p.Workshop(), "it is on already")
	p.Brief.Spanner = plan.NoSpanner
	assert.Len(t, p.Workshop(), 1)
	p.Brief.Spanner = "magic"
	require.NotEmpty(t, p.Validate())
	assert.Equal(t, "brief.spanner", p.Validate()[0].Path)
}
