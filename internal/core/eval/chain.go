package eval

import (
	"math"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
)

// ChainRun is one chain that comes into question on the sprockets as built.
type ChainRun struct {
	drive.Run
	Current bool
	Choices []plan.Choice // that fit it; nil for the one that is on
}

// ChainRuns are the even numbers of links below and above the exact one, and the
// chain that is on where it is another. Nil without a chain drive whose numbers
// are known.
func ChainRuns(report *LoadoutReport) []ChainRun {
	f := report.Facts
	if f == nil || f.Pair.Front == 0 || f.Chain.Links == 0 {
		return nil
	}
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	was, err := f.StandardCentreMM()
	if !known || err != nil {
		return nil
	}
	var runs []ChainRun
	listed := false
	for _, r := range drive.Runs(f.Pair, pitch, was, f.Chain.Adjuster) {
		listed = listed || r.Links == f.Chain.Links
		runs = append(runs, ChainRun{Run: r})
	}
	if centre, err := drive.CentreMM(f.Pair, pitch, float64(f.Chain.Links)); err == nil && !listed {
		shift := centre - was
		runs = append(runs, ChainRun{Run: drive.Run{Links: f.Chain.Links, CentreMM: centre, ShiftMM: shift, Reaches: f.Chain.Adjuster.Reaches(shift)}})
	}
	for i := range runs {
		if runs[i].Current = runs[i].Links == f.Chain.Links; !runs[i].Current {
			runs[i].Choices = knock.ChainChoice(f, runs[i].Links)
		}
	}
	return runs
}

// Swap is another front sprocket on the same chain and rear sprocket: the other
// half of a kit for road and trail.
type Swap struct {
	Pair      drive.Pair
	ShiftMM   float64 // of the axle from where the pair that is on has it, + is back
	Reaches   bool
	SlackMM   float64 // that the lower run gains when the axle stays; 0 when it gets too tight
	PaceKmh   float64
	CruiseRPM float64
	Change    float64 // % against the pair that is on, + is shorter
	Choices   []plan.Choice
}

// Swaps are the front sprockets that can be had, on the chain and the rear
// sprocket that are on.
func Swaps(field SprocketField, report *LoadoutReport) []Swap {
	f := report.Facts
	if f == nil || f.Pair.Front == 0 || f.Chain.Links == 0 {
		return nil
	}
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	was, err := f.StandardCentreMM()
	now, errNow := drive.CentreMM(f.Pair, pitch, float64(f.Chain.Links))
	if !known || err != nil || errNow != nil {
		return nil
	}
	var swaps []Swap
	for _, p := range field.Pairs {
		if p.Pair.Rear != f.Pair.Rear || p.Pair.Front == f.Pair.Front {
			continue
		}
		centre, err := drive.CentreMM(p.Pair, pitch, float64(f.Chain.Links))
		if err != nil {
			continue
		}
		s := Swap{
			Pair: p.Pair, ShiftMM: centre - now, Reaches: f.Chain.Adjuster.Reaches(centre - was), PaceKmh: p.PaceKmh, CruiseRPM: p.CruiseRPM,
			Change: 100 * (p.Pair.Ratio()/f.Pair.Ratio() - 1), SlackMM: drive.SlackMM(p.Pair, pitch, now, centre-now), Choices: p.Choices,
		}
		if math.IsNaN(f.Chain.ShiftMM) {
			s.Reaches = true // nobody has measured the slots
		}
		swaps = append(swaps, s)
	}
	return swaps
}

// Reading is what a speedometer would show that counts at a place.
type Reading struct {
	Pickup drive.Pickup
	Factor float64 // display against the standard bike's; NaN when a size is missing
	Own    bool    // where this bike counts
}

// Readings are the three places at which speedometers count.
func Readings(report *LoadoutReport) []Reading {
	f := report.Facts
	if f == nil {
		return nil
	}
	final := 1.0
	if !f.Built.Bike.Shaft() {
		final = f.Pair.Ratio() / f.StandardPair.Ratio()
	}
	front, rear := f.CircumferenceMM.Front/f.StandardCircumferenceMM.Front, f.CircumferenceMM.Rear/f.StandardCircumferenceMM.Rear
	var list []Reading
	for _, p := range []drive.Pickup{drive.FrontWheel, drive.RearWheel, drive.Gearbox} {
		list = append(list, Reading{p, drive.SpeedometerFactor(p, front, rear, final), p == f.Built.Bike.Speedometer})
	}
	return list
}
