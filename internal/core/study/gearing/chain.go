package gearing

import (
	"math"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

var evenFormula = sheet.Formula{
	Text:   "a chain closes on an even number of links: the one that the adjuster reaches with the smallest move of the axle",
	Origin: sheet.Practice,
}

// chain finds how the chain runs on the pair as built.
func chain(r *study.Run) {
	if r.Built.Bike.Shaft() {
		for _, id := range []figure.ID{figure.ChainLinks, figure.AxleShift} {
			c := r.Figure(id)
			c.Lacks("a chain: this bike drives by shaft")
			c.Plain()
		}
		return
	}
	chainLinks(r)
	axleShift(r)
}

// chainLinks is the chain that the pair asks for with the axle as set now.
func chainLinks(r *study.Run) {
	c := r.Figure(figure.ChainLinks)
	exact, pitch := exactLinks(c)
	r.Chain = runOf(r.All, pitch, exact)
	need := math.NaN()
	if !math.IsNaN(exact) {
		need = float64(drive.EvenLinks(exact))
		if best := r.Chain.Best; best > 0 {
			need = float64(best)
		}
	}
	c.Is(need)
	if c.Sheet != nil {
		c.Sheet.Step(evenFormula, study.Computed("links", need, ""), study.Computed("pitches", exact, ""))
	}
	c.Plain()
}

func exactLinks(c study.Calc) (exact, pitchMM float64) {
	b := c.Run.Built.Bike
	pitch, ok := drive.PitchMM(b.Chain)
	if !ok {
		c.Lacks("chain number (Bike)")
		pitch = math.NaN()
	}
	centre := c.Bike("centre", "sprocket centres", "mm", &b.Centre)
	pair := c.Run.Drive.Pair
	if pair.Front == 0 || pair.Rear == 0 {
		c.Lacks("sprocket teeth (Gearing)")
	}
	exact = drive.ExactLinks(pair, pitch, centre.Number)
	if c.Sheet != nil {
		c.Sheet.Step(drive.ChainFormula, study.Computed("pitches", exact, ""),
			sheet.Value{Name: "z₁ front", Number: float64(pair.Front), Unit: "teeth", Origin: sheet.Computed},
			sheet.Value{Name: "z₂ rear", Number: float64(pair.Rear), Unit: "teeth", Origin: sheet.Computed},
			sheet.Value{Name: "p pitch", Number: pitch, Unit: "mm", Origin: sheet.Published, Note: "chain " + b.Chain + ", ISO 10190"},
			centre)
	}
	return exact, pitch
}

// runOf works out where the chain as built puts the axle. Both ends of the shift
// are computed, so a tape measure's error in the centres cancels.
func runOf(f *facts.All, pitchMM, exact float64) facts.Chain {
	b, pair := f.Built.Bike, f.Drive.Pair
	chain := facts.Chain{
		Links:     int(f.Built.Figure(parts.ChainLinks)),
		Exact:     exact,
		ShiftMM:   math.NaN(),
		BestShift: math.NaN(),
		Adjuster:  drive.Adjuster{ForwardMM: b.AdjusterForward.In("mm"), BackMM: b.AdjusterBack.In("mm")},
	}
	was, err := f.StandardCentreMM()
	if err != nil || pair.Front == 0 || chain.Links == 0 {
		return chain
	}
	now, err := drive.CentreMM(pair, pitchMM, float64(chain.Links))
	if err != nil {
		now = math.Inf(1) // far too short: out of any reach
	}
	if b.AdjusterForward.Known() && b.AdjusterBack.Known() {
		chain.ShiftMM = now - was
		if links, shift, ok := drive.LinksInReach(pair, pitchMM, was, chain.Adjuster); ok {
			chain.Best, chain.BestShift = links, shift
		}
	}
	return chain
}

// axleShift is where the chain as built puts the axle against the standard one.
func axleShift(r *study.Run) {
	c := r.Figure(figure.AxleShift)
	b, pair := r.Built.Bike, r.Drive.Pair
	c.Bike("adjuster_forward", "axle travel forward", "mm", &b.AdjusterForward)
	c.Bike("adjuster_back", "axle travel back", "mm", &b.AdjusterBack)
	if _, ok := drive.PitchMM(b.Chain); !ok {
		c.Lacks("chain number (Bike)")
	}
	if r.Chain.Links == 0 {
		c.Lacks("links of the chain (Bike)")
	}
	if pair.Front == 0 {
		c.Lacks("sprocket teeth (Gearing)")
	}
	c.Is(r.Chain.ShiftMM)
	if c.Sheet != nil {
		c.Sheet.Step(drive.CentreFormula, study.Computed("shift, + is back", r.Chain.ShiftMM, "mm"),
			study.Computed("X links", float64(r.Chain.Links), ""),
			study.Computed("z₁ front", float64(pair.Front), "teeth"),
			study.Computed("z₂ rear", float64(pair.Rear), "teeth"))
		c.Sheet.Note("Set the slack at the tightest point of the travel, by the maker's manual.")
	}
	c.Plain()
}
