package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

func mass(t *testing.T, text string) unit.Mass {
	t.Helper()
	var m unit.Mass
	require.NoError(t, m.Enter(text, "kg"))
	return m
}

func share(t *testing.T, text string) unit.Ratio {
	t.Helper()
	var r unit.Ratio
	require.NoError(t, r.Enter(text, "%"))
	return r
}

func rearTyre(t *testing.T, id, code string) *plan.Part {
	t.Helper()
	size, err := tyre.Parse(code)
	require.NoError(t, err)
	return &plan.Part{ID: id, Slot: plan.RearTyre, Name: id, Price: money.New(9000, "EUR"), Tyre: &plan.Tyre{Size: size, Kind: tyre.AllRound}}
}

// bike is a small one: a rear tyre, both sprockets, a chain.
func bike(t *testing.T) *plan.Bike {
	b := &plan.Bike{ID: "b", Name: "B", Origin: sheet.Maker}
	b.SetStandard(*rearTyre(t, "std", "120/80-18"))
	b.SetStandard(*plan.Counted(plan.FrontSprocket, 15))
	b.SetStandard(*plan.Counted(plan.RearSprocket, 43))
	b.SetStandard(*plan.Counted(plan.Chain, 110))
	return b
}

func TestChoicesLeaveTheOriginal(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = bike(t)
	wide, tall := rearTyre(t, "wide", "140/80-18"), rearTyre(t, "tall", "120/90-18")

	first := p.With(plan.Choice{Slot: plan.RearTyre, Part: wide, Need: plan.Wanted})
	second := first.With(plan.Choice{Slot: plan.RearTyre, Part: tall})
	back := second.With(plan.Choice{Slot: plan.RearTyre})

	assert.Nil(t, p.Chosen(plan.RearTyre, ""))
	assert.Equal(t, wide, first.Chosen(plan.RearTyre, ""))
	assert.Equal(t, tall, second.Chosen(plan.RearTyre, ""))
	assert.Equal(t, plan.Wanted, second.Lines[0].Need, "another part in the slot is as needed as the one before")
	assert.Empty(t, back.Lines)
	assert.Len(t, second.Lines, 1, "going back changed a copy")
}

func TestBuildFoldsEffects(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = bike(t)
	foot := &plan.Part{ID: "foot", Slot: plan.SideStand, Name: "Foot", Effects: []plan.Effect{{Figure: plan.StandLength, Op: plan.Add, Value: 10}}}
	p = p.With(plan.Choice{Slot: plan.RearSprocket, Part: plan.Counted(plan.RearSprocket, 47)}, plan.Choice{Slot: plan.SideStand, Part: foot})

	built := p.Build("")
	pair, ok := built.Sprockets()
	require.True(t, ok)
	assert.Equal(t, 47, pair.Rear)
	assert.Equal(t, 15, pair.Front, "the standard one stays")
	assert.Equal(t, 10.0, built.Figure(plan.StandLength))
	assert.True(t, built.Chosen(plan.RearSprocket))
	assert.False(t, built.Chosen(plan.FrontSprocket))
	assert.Empty(t, built.Clashes)

	foot.Effects = append(foot.Effects, plan.Effect{Figure: plan.RearTeeth, Op: plan.Set, Value: 50})
	assert.Equal(t, []plan.Figure{plan.RearTeeth}, p.Build("").Clashes, "two sets on one figure are found")
}

func TestEffectsInAFixedOrder(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = &plan.Bike{ID: "b", Name: "B"}
	p = p.With(plan.Choice{Slot: plan.SideStand, Part: &plan.Part{Slot: plan.SideStand, Effects: []plan.Effect{
		{Figure: plan.StandLength, Op: plan.Scale, Value: 2}, {Figure: plan.StandLength, Op: plan.Add, Value: 3}, {Figure: plan.StandLength, Op: plan.Set, Value: 10},
	}}})
	assert.Equal(t, 26.0, p.Build("").Figure(plan.StandLength), "set, then add, then scale, however they are listed")
}

func TestShelfFind(t *testing.T) {
	b := bike(t)
	listed := &plan.Part{ID: "r47", Slot: plan.RearSprocket, Name: "Listed"}
	shelf := plan.Shelf{listed}
	assert.Equal(t, listed, shelf.Find(b, plan.RearSprocket, "r47"))
	assert.Nil(t, shelf.Find(b, plan.FrontSprocket, "r47"), "another slot")
	unlisted := shelf.Find(b, plan.RearSprocket, "any-rear-sprocket-51")
	require.NotNil(t, unlisted)
	assert.Equal(t, 51.0, unlisted.Sets(plan.RearTeeth))
	assert.False(t, unlisted.Price.Known(), "nobody has said what it costs")
	for _, id := range []string{"any-rear-sprocket-500", "any-rear-sprocket-", "any-rear-sprocket-4x", "any-rear-tyre-50", ""} {
		assert.Nil(t, shelf.Find(b, plan.RearSprocket, id), id)
	}
}

func TestCount(t *testing.T) {
	for slot, n := range map[plan.Slot]int{plan.FrontSprocket: 15, plan.RearSprocket: 47, plan.Chain: 110} {
		got, ok := plan.Counted(slot, n).Count()
		assert.True(t, ok)
		assert.Equal(t, n, got)
	}
	assert.Nil(t, plan.Counted(plan.RearTyre, 4))
	_, ok := rearTyre(t, "x", "140/80-18").Count()
	assert.False(t, ok, "a tyre is not counted")
}

func TestGears(t *testing.T) {
	var g plan.Gears
	require.NoError(t, g.Enter("2,75 1.75 1.31", ""))
	assert.Equal(t, []float64{2.75, 1.75, 1.31}, g.Ratios())
	assert.Equal(t, "2,75 1.75 1.31", g.String(), "as typed")
	for _, text := range []string{"1.3 2.7", "2.7 x", "9 8", "2.7 2.7", "3 2.9 2.8 2.7 2.6 2.5 2.4 2.3 2.2"} {
		assert.Error(t, g.Enter(text, ""), text)
		assert.Equal(t, 2.75, g.First(), "a bad entry changes nothing")
	}
	require.NoError(t, g.Enter("", ""))
	assert.False(t, g.Known())
}

// TestValidate breaks a good plan in one place at a time and looks for that
// place in what is said.
func TestValidate(t *testing.T) {
	good := func() *plan.Plan {
		p := plan.New("P", "EUR")
		p.Bike = bike(t)
		p.Brief.Terrain = []plan.Stretch{{Ground: terrain.Paved, Share: share(t, "60")}, {Ground: terrain.Sand, Share: share(t, "40")}}
		p.Lines = []plan.Line{{Kind: plan.PartLine, Need: plan.Needed, Part: rearTyre(t, "x", "140/80-18")}, {Kind: plan.Freight, Need: plan.Wanted, Name: "Parcels"}}
		p.Loadouts[0].Loads = []plan.Load{{Name: "Tools", Mass: mass(t, "5"), Place: load.Tail}}
		return p
	}
	require.Empty(t, good().Validate())
	for path, spoil := range map[string]func(*plan.Plan){
		"format":                         func(p *plan.Plan) { p.Format = "x" },
		"version":                        func(p *plan.Plan) { p.Version = 9 },
		"name":                           func(p *plan.Plan) { p.Name = "" },
		"currency":                       func(p *plan.Plan) { p.Currency = "XQ" },
		"brief.start":                    func(p *plan.Plan) { p.Brief.Start = "soon" },
		"brief.style":                    func(p *plan.Plan) { p.Brief.Style = "wild" },
		"brief.budget":                   func(p *plan.Plan) { p.Brief.Budget = money.New(-1, "EUR") },
		"brief.rider":                    func(p *plan.Plan) { p.Brief.Rider = mass(t, "900") },
		"brief.terrain":                  func(p *plan.Plan) { p.Brief.Terrain[0].Share = share(t, "50") },
		"brief.terrain[1].ground":        func(p *plan.Plan) { p.Brief.Terrain[1].Ground = "lava" },
		"brief.terrain[1].share":         func(p *plan.Plan) { p.Brief.Terrain[1].Share = unit.Ratio{} },
		"bike.name":                      func(p *plan.Plan) { p.Bike.Name = "" },
		"bike.kerb_mass":                 func(p *plan.Plan) { p.Bike.KerbMass = mass(t, "5") },
		"bike.kerb_front":                func(p *plan.Plan) { p.Bike.KerbMass, p.Bike.KerbFront = mass(t, "180"), mass(t, "30") },
		"bike.chain":                     func(p *plan.Plan) { p.Bike.Chain = "999" },
		"bike.speedometer":               func(p *plan.Plan) { p.Bike.Speedometer = "moon" },
		"bike.origin":                    func(p *plan.Plan) { p.Bike.Origin = "gossip" },
		"bike.origins.tank":              func(p *plan.Plan) { p.Bike.SetOrigin("tank", "gossip") },
		"bike.standard[0].tyre.kind":     func(p *plan.Plan) { p.Bike.Standard[0].Tyre.Kind = "square" },
		"bike.standard[1].effects[0].op": func(p *plan.Plan) { p.Bike.Standard[1].Effects[0].Op = plan.Scale },
		"lines[0].part":                  func(p *plan.Plan) { p.Lines[0].Part = nil },
		"lines[0].part.id":               func(p *plan.Plan) { p.Lines[0].Part.ID = "No Spaces" },
		"lines[0].part.slot":             func(p *plan.Plan) { p.Lines[0].Part.Slot = "roof" },
		"lines[0].part.tyre":             func(p *plan.Plan) { p.Lines[0].Part.Slot = plan.Seat },
		"lines[0].part.tyre.kind":        func(p *plan.Plan) { p.Lines[0].Part.Tyre.Kind = "square" },
		"lines[0].part.tyre.tread":       func(p *plan.Plan) { p.Lines[0].Part.Tyre.Tread = share(t, "150") },
		"lines[0].part.needs[0]":         func(p *plan.Plan) { p.Lines[0].Part.Needs = []string{""} },
		"lines[0].part.fitment.verdict":  func(p *plan.Plan) { p.Lines[0].Part.Fitment = &plan.Fitment{Verdict: "maybe"} },
		"lines[0].part.made.to":          func(p *plan.Plan) { p.Lines[0].Part.Made = plan.Made{From: 2020, To: 2010} },
		"bike.year":                      func(p *plan.Plan) { p.Bike.Year = 3 },
		"lines[0].need":                  func(p *plan.Plan) { p.Lines[0].Need = "maybe" },
		"lines[1].kind":                  func(p *plan.Plan) { p.Lines[1].Kind = "gift" },
		"lines[1].name":                  func(p *plan.Plan) { p.Lines[1].Name = "" },
		"rates[0].from":                  func(p *plan.Plan) { p.Rates = []plan.Rate{{From: "EUR", On: "2026-11-20"}} },
		"rates[0].rate":                  func(p *plan.Plan) { p.Rates = []plan.Rate{{From: "USD", On: "2026-11-20"}} },
		"rates[0].on":                    func(p *plan.Plan) { p.Rates = []plan.Rate{{From: "USD", On: "today"}} },
		"calculations[0].calculator":     func(p *plan.Plan) { p.Calculations = []plan.Calculation{{Calculator: "No Name"}} },
		"calculations[0].note": func(p *plan.Plan) {
			p.Calculations = []plan.Calculation{{Calculator: "chain", Note: strings.Repeat("x", 300)}}
		},
		"lines[1].part":                     func(p *plan.Plan) { p.Lines[1].Part = rearTyre(t, "y", "140/80-18") },
		"loadouts":                          func(p *plan.Plan) { p.Loadouts = nil },
		"loadouts[1].id":                    func(p *plan.Plan) { p.Loadouts[1].ID = p.Loadouts[0].ID },
		"loadouts[0].pillion":               func(p *plan.Plan) { p.Loadouts[0].Pillion = mass(t, "-3") },
		"loadouts[0].loads[0].place":        func(p *plan.Plan) { p.Loadouts[0].Loads[0].Place = "roof" },
		"loadouts[0].loads[0].mass":         func(p *plan.Plan) { p.Loadouts[0].Loads[0].Mass = mass(t, "999") },
		"bike.standard[1].effects[0].value": func(p *plan.Plan) { p.Bike.Standard[1].Effects[0].Value = 3 },
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

func TestTwoPartsInOneSlot(t *testing.T) {
	p := plan.New("P", "EUR")
	line := plan.Line{Kind: plan.PartLine, Need: plan.Needed, Part: rearTyre(t, "x", "140/80-18")}
	p.Lines = []plan.Line{line, line}
	require.Len(t, p.Validate(), 1)
	assert.Equal(t, "lines[1].part.slot", p.Validate()[0].Path)
}

// TestMeasuredOverrulesTheCode: the same nominal size differs between makes.
func TestMeasuredOverrulesTheCode(t *testing.T) {
	part := rearTyre(t, "x", "140/80-18")
	byCode := part.Tyre.DiameterMM()
	require.NoError(t, part.Tyre.RollOut.Enter("2060 mm", ""))
	require.NoError(t, part.Tyre.Width.Enter("136 mm", ""))
	assert.InDelta(t, 2060, part.Tyre.CircumferenceMM(), 1e-9)
	assert.InDelta(t, 136, part.Tyre.WidthMM(), 1e-9)
	assert.Greater(t, part.Tyre.DiameterMM(), byCode)
}
