package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
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

func rearTyre(t *testing.T, id, code string) *parts.Part {
	t.Helper()
	size, err := tyre.Parse(code)
	require.NoError(t, err)
	p := &parts.Part{ID: id, Slot: parts.RearTyre, Name: id, Price: money.New(9000, "EUR")}
	parts.TyreCode.Put(p, parts.Code{Size: size})
	parts.TyreKind.Put(p, tyre.AllRound)
	return p
}

// bike is a small one: a rear tyre, both sprockets, a chain.
func bike(t *testing.T) *plan.Bike {
	b := &plan.Bike{ID: "b", Name: "B", Origin: sheet.Maker}
	b.SetStandard(*rearTyre(t, "std", "120/80-18"))
	b.SetStandard(*parts.Counted(parts.FrontSprocket, 15))
	b.SetStandard(*parts.Counted(parts.RearSprocket, 43))
	b.SetStandard(*parts.Counted(parts.Chain, 110))
	return b
}

func TestChoicesLeaveTheOriginal(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = bike(t)
	wide, tall := rearTyre(t, "wide", "140/80-18"), rearTyre(t, "tall", "120/90-18")

	first := p.With(plan.Choice{Slot: parts.RearTyre, Part: wide, Need: plan.Wanted})
	second := first.With(plan.Choice{Slot: parts.RearTyre, Part: tall})
	back := second.With(plan.Choice{Slot: parts.RearTyre})

	assert.Nil(t, p.Chosen(parts.RearTyre, ""))
	assert.Equal(t, wide, first.Chosen(parts.RearTyre, ""))
	assert.Equal(t, tall, second.Chosen(parts.RearTyre, ""))
	assert.Equal(t, plan.Wanted, second.Lines[0].Need, "another part in the slot is as needed as the one before")
	assert.Empty(t, back.Lines)
	assert.Len(t, second.Lines, 1, "going back changed a copy")
}

func TestBuildFoldsEffects(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = bike(t)
	foot := &parts.Part{ID: "foot", Slot: parts.SideStand, Name: "Foot", Effects: []parts.Effect{{Figure: parts.StandLength, Op: parts.Add, Value: 10}}}
	p = p.With(plan.Choice{Slot: parts.RearSprocket, Part: parts.Counted(parts.RearSprocket, 47)}, plan.Choice{Slot: parts.SideStand, Part: foot})

	built := p.Build("")
	pair, ok := built.Sprockets()
	require.True(t, ok)
	assert.Equal(t, 47, pair.Rear)
	assert.Equal(t, 15, pair.Front, "the standard one stays")
	assert.Equal(t, 10.0, built.Figure(parts.StandLength))
	assert.True(t, built.Chosen(parts.RearSprocket))
	assert.False(t, built.Chosen(parts.FrontSprocket))
	assert.Empty(t, built.Clashes)

	foot.Effects = []parts.Effect{{Figure: parts.StandLength, Op: parts.Set, Value: 5}, {Figure: parts.StandLength, Op: parts.Set, Value: 50}}
	assert.Equal(t, []parts.Figure{parts.StandLength}, p.Build("").Clashes, "two sets on one figure are found")
}

func TestEffectsInAFixedOrder(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = &plan.Bike{ID: "b", Name: "B"}
	p = p.With(plan.Choice{Slot: parts.SideStand, Part: &parts.Part{Slot: parts.SideStand, Effects: []parts.Effect{
		{Figure: parts.StandLength, Op: parts.Scale, Value: 2}, {Figure: parts.StandLength, Op: parts.Add, Value: 3}, {Figure: parts.StandLength, Op: parts.Set, Value: 10},
	}}})
	assert.Equal(t, 26.0, p.Build("").Figure(parts.StandLength), "set, then add, then scale, however they are listed")
}

func TestShelfFind(t *testing.T) {
	b := bike(t)
	listed := &parts.Part{ID: "r47", Slot: parts.RearSprocket, Name: "Listed"}
	shelf := plan.Shelf{listed}
	assert.Equal(t, listed, shelf.Find(b, parts.RearSprocket, "r47"))
	assert.Nil(t, shelf.Find(b, parts.FrontSprocket, "r47"), "another slot")
	unlisted := shelf.Find(b, parts.RearSprocket, "any-rear-sprocket-51")
	require.NotNil(t, unlisted)
	assert.Equal(t, 51.0, unlisted.Sets(parts.RearTeeth))
	assert.False(t, unlisted.Price.Known(), "nobody has said what it costs")
	for _, id := range []string{"any-rear-sprocket-500", "any-rear-sprocket-", "any-rear-sprocket-4x", "any-rear-tyre-50", ""} {
		assert.Nil(t, shelf.Find(b, parts.RearSprocket, id), id)
	}
}

func TestCount(t *testing.T) {
	for slot, n := range map[parts.Slot]int{parts.FrontSprocket: 15, parts.RearSprocket: 47, parts.Chain: 110} {
		got, ok := parts.Counted(slot, n).Count()
		assert.True(t, ok)
		assert.Equal(t, n, got)
	}
	assert.Nil(t, parts.Counted(parts.RearTyre, 4))
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
		p.Brief.Terrain = []terrain.Stretch{{Ground: terrain.Paved, Share: share(t, "60")}, {Ground: terrain.Sand, Share: share(t, "40")}}
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
		"bike.standard[0].has.tyre_kind": func(p *plan.Plan) { parts.TyreKind.Put(&p.Bike.Standard[0], "square") },
		"bike.standard[1].effects[0].op": func(p *plan.Plan) {
			p.Bike.Standard[1].Effects = []parts.Effect{{Figure: parts.BarRise, Op: "less"}}
		},
		"bike.standard[1].effects[0].figure": func(p *plan.Plan) {
			p.Bike.Standard[1].Effects = []parts.Effect{{Figure: parts.BatteryAh, Op: parts.Set, Value: 9}}
		},
		"lines[0].part":                 func(p *plan.Plan) { p.Lines[0].Part = nil },
		"lines[0].part.id":              func(p *plan.Plan) { p.Lines[0].Part.ID = "No Spaces" },
		"lines[0].part.slot":            func(p *plan.Plan) { p.Lines[0].Part.Slot = "roof" },
		"lines[0].part.has.code":        func(p *plan.Plan) { p.Lines[0].Part.Slot = parts.Seat },
		"lines[0].part.has.tyre_kind":   func(p *plan.Plan) { parts.TyreKind.Put(p.Lines[0].Part, "square") },
		"lines[0].part.has.tread":       func(p *plan.Plan) { parts.Tread.Put(p.Lines[0].Part, share(t, "150")) },
		"lines[0].part.needs[0]":        func(p *plan.Plan) { p.Lines[0].Part.Needs = []string{""} },
		"lines[0].part.fitment.verdict": func(p *plan.Plan) { p.Lines[0].Part.Fitment = &parts.Fitment{Verdict: "maybe"} },
		"lines[0].part.made.to":         func(p *plan.Plan) { p.Lines[0].Part.Made = parts.Made{From: 2020, To: 2010} },
		"bike.year":                     func(p *plan.Plan) { p.Bike.Year = 3 },
		"lines[0].need":                 func(p *plan.Plan) { p.Lines[0].Need = "maybe" },
		"lines[1].kind":                 func(p *plan.Plan) { p.Lines[1].Kind = "gift" },
		"lines[1].name":                 func(p *plan.Plan) { p.Lines[1].Name = "" },
		"rates[0].from":                 func(p *plan.Plan) { p.Rates = []plan.Rate{{From: "EUR", On: "2026-11-20"}} },
		"rates[0].rate":                 func(p *plan.Plan) { p.Rates = []plan.Rate{{From: "USD", On: "2026-11-20"}} },
		"rates[0].on":                   func(p *plan.Plan) { p.Rates = []plan.Rate{{From: "USD", On: "today"}} },
		"calculations[0].calculator":    func(p *plan.Plan) { p.Calculations = []plan.Calculation{{Calculator: "No Name"}} },
		"calculations[0].note": func(p *plan.Plan) {
			p.Calculations = []plan.Calculation{{Calculator: "chain", Note: strings.Repeat("x", 300)}}
		},
		"lines[1].part":              func(p *plan.Plan) { p.Lines[1].Part = rearTyre(t, "y", "140/80-18") },
		"loadouts":                   func(p *plan.Plan) { p.Loadouts = nil },
		"loadouts[1].id":             func(p *plan.Plan) { p.Loadouts[1].ID = p.Loadouts[0].ID },
		"loadouts[0].pillion":        func(p *plan.Plan) { p.Loadouts[0].Pillion = mass(t, "-3") },
		"loadouts[0].loads[0].place": func(p *plan.Plan) { p.Loadouts[0].Loads[0].Place = "roof" },
		"loadouts[0].loads[0].mass":  func(p *plan.Plan) { p.Loadouts[0].Loads[0].Mass = mass(t, "999") },
		"bike.standard[1].has.teeth": func(p *plan.Plan) { p.Bike.Standard[1].Recount(3) },
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
	byCode := part.Tyre().DiameterMM()
	require.NoError(t, part.Say("roll_out", "2060"))
	require.NoError(t, part.Say("width", "136 mm"))
	assert.InDelta(t, 2060, part.Tyre().CircumferenceMM(), 1e-9)
	assert.InDelta(t, 136, part.Tyre().WidthMM(), 1e-9)
	assert.Greater(t, part.Tyre().DiameterMM(), byCode)
}
