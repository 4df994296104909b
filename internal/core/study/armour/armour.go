// Package armour is the study of what breaks on the trip and what the guards take
// away of it.
package armour

import (
	"math"
	"slices"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

// Study of the armour.
var Study = study.Study{
	Name: "armour",
	Steps: []study.Step{
		{
			Name: "risks", Needs: facts.Bike | facts.InBrief | facts.InLines | facts.InParts | facts.RoomGroup | facts.JourneyGroup, Gives: facts.RisksGroup, Run: risks,
			Figures: []figure.ID{figure.ArmourStranded, figure.ArmourDays, figure.ArmourRepair, figure.ArmourCover},
		},
	},
	Rules: rules,
	Needs: []study.NeedRule{
		{ID: "sump", Name: "The sump kept whole", Stage: figure.Armour, Reads: facts.RisksGroup, Ask: guarded(guard.Sump)},
		{ID: "cases", Name: "The cases kept whole", Stage: figure.Armour, Reads: facts.RisksGroup, Ask: guarded(guard.Cases)},
		{ID: "cooler", Name: "The cooler kept whole", Stage: figure.Armour, Reads: facts.RisksGroup, Ask: cooler},
		{ID: "hands", Name: "Hands and levers kept whole", Stage: figure.Armour, Reads: facts.RisksGroup, Ask: hands},
		{ID: "mud", Name: "Room for mud", Stage: figure.Armour, Reads: facts.InBrief | facts.InGuards, Ask: mud},
	},
}

var rules = []study.Rule{
	{ID: "cannot-both", Class: cause.Fails, Cause: cause.Fitting, Stage: figure.Armour, Reads: facts.InParts, Judge: cannotBoth},
	{ID: "ends-the-ride", Class: cause.Ends, Cause: cause.Breakage, Stage: figure.Armour, Reads: facts.RisksGroup, Judge: endsTheRide},
	{ID: "bare-from-new", Class: cause.Undone, Cause: cause.Paint, Stage: figure.Armour, Reads: facts.Bike | facts.InGuards, Judge: bareFromNew},
	{ID: "lamp-behind-mudguard", Class: cause.Undone, Cause: cause.Breakage, Stage: figure.Armour, Reads: facts.Bike | facts.InParts | facts.InTags, Judge: lampBehindMudguard},
	{ID: "guards-at-the-bars", Class: cause.Rest, Cause: cause.Breakage, Stage: figure.Armour, Reads: facts.InGuards, Judge: guardsAtTheBars},
	{ID: "blocked-access", Class: cause.Rest, Cause: cause.Breakage, Stage: figure.Armour, Reads: facts.InParts, Judge: blockedAccess},
	{ID: "blow-into-cases", Class: cause.Ends, Cause: cause.Breakage, Stage: figure.Armour, Reads: facts.InGuards, Judge: blowIntoCases},
	{ID: "short-plate-holder", Class: cause.Fails, Cause: cause.Breakage, Stage: figure.Armour, Reads: facts.Bike | facts.InTags, Judge: shortPlateHolder},
}

// risks works out what may break over the trip, and what is to be feared of it.
func risks(r *study.Run) {
	if trip := r.Exposed(); trip.DistanceKm > 0 && trip.Mix.Said() {
		r.Risks = guard.Assess(trip, r.Plan.Risk.Rates(), r.Built.Bike.Vulnerable, r.Built.Covers())
	}
	bare, left := guard.Total(r.Risks)
	feared(r, figure.ArmourStranded, 100*left.Stranded, 100*bare.Stranded)
	feared(r, figure.ArmourDays, left.Days, bare.Days)
	repair(r, left)
	cover(r, bare, left)
}

// begin is a figure that rests on the risks.
func begin(r *study.Run, id figure.ID) study.Calc {
	c := r.Figure(id)
	if r.Risks == nil {
		c.LacksAt("trip distance and ground (Brief)", "brief/distance")
	}
	return c
}

// feared is a figure behind the guards, beside the same without any.
func feared(r *study.Run, id figure.ID, value, unguarded float64) {
	c := begin(r, id)
	c.Is(value)
	if c.Sheet != nil {
		explainRisks(c, study.Computed(c.Name, value, c.Unit), study.Computed("without a guard", unguarded, c.Unit))
	}
	c.Plain()
}

// repair is what repairs are to be expected to cost, minor units.
func repair(r *study.Run, left guard.Outcome) {
	c := begin(r, figure.ArmourRepair)
	switch {
	case !math.IsNaN(left.Repair):
	case !r.Standard.Bike.KerbMass.Known():
		c.Lacks("kerb mass (Bike)")
	default:
		c.Lacks("a rate for EUR, or your own prices (Armour, Rates)")
	}
	amount := math.Round(left.Repair * money.Minors(r.Plan.Currency))
	c.Is(amount)
	if c.Sheet != nil {
		explainRisks(c, study.Computed("repairs", amount, c.Unit))
	}
	c.Plain()
}

// cover is how much of being stranded the guards take away.
func cover(r *study.Run, bare, left guard.Outcome) {
	c := begin(r, figure.ArmourCover)
	share := 100 * guard.Coverage(bare.Stranded, left.Stranded)
	c.Is(share)
	if c.Sheet != nil {
		c.Sheet.Step(guard.CoverageFormula, study.Computed("guarded", share, "%"), study.Computed("residual, stranded", 100*left.Stranded, "%"), study.Computed("unprotected, stranded", 100*bare.Stranded, "%"))
	}
	c.Plain()
}

// explainRisks writes the risk of each place down.
func explainRisks(c study.Calc, out sheet.Value, more ...sheet.Value) {
	trip := c.Run.Exposed()
	events := guard.Events(trip, c.Run.Plan.Risk.Rates())
	for i, h := range guard.Hazards() {
		if !slices.ContainsFunc(c.Run.Risks, func(r guard.Risk) bool { return r.Threatened(h.Hazard) }) {
			continue
		}
		times := study.Computed(h.Name+", times", events[i], "")
		c.Sheet.Step(guard.EventsFormula, times)
		if h.Hazard == guard.Strike && !math.IsNaN(trip.RoomMM) {
			c.Sheet.Step(guard.StrikeFormula, times, study.Computed("room with the rider on", trip.RoomMM, "mm"))
		}
	}
	in := more
	for _, r := range c.Run.Risks {
		in = append(in, study.Computed(r.Place.Name+", stranded", 100*r.Left.Stranded, "%"))
	}
	c.Sheet.Step(guard.LossFormula, out, in...)
	c.Sheet.Note("Every rate is a guess from memory; change the ones that you know better under Armour, Rates.")
}
