package gearing

import (
	"math"

	"valiantmule/internal/core/chains"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
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
func ChainRuns(f *facts.All) []ChainRun {
	if f.Built == nil || f.Drive.Pair.Front == 0 || f.Chain.Links == 0 {
		return nil
	}
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	was, err := f.StandardCentreMM()
	if !known || err != nil {
		return nil
	}
	var runs []ChainRun
	listed := false
	for _, r := range drive.Runs(f.Drive.Pair, pitch, was, f.Chain.Adjuster) {
		listed = listed || r.Links == f.Chain.Links
		runs = append(runs, ChainRun{Run: r})
	}
	if centre, err := drive.CentreMM(f.Drive.Pair, pitch, float64(f.Chain.Links)); err == nil && !listed {
		shift := centre - was
		runs = append(runs, ChainRun{Run: drive.Run{Links: f.Chain.Links, CentreMM: centre, ShiftMM: shift, Reaches: f.Chain.Adjuster.Reaches(shift)}})
	}
	for i := range runs {
		if runs[i].Current = runs[i].Links == f.Chain.Links; !runs[i].Current {
			runs[i].Choices = chains.Choice(f, runs[i].Links)
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
func Swaps(field SprocketField, f *facts.All) []Swap {
	if f.Built == nil || f.Drive.Pair.Front == 0 || f.Chain.Links == 0 {
		return nil
	}
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	was, err := f.StandardCentreMM()
	now, errNow := drive.CentreMM(f.Drive.Pair, pitch, float64(f.Chain.Links))
	if !known || err != nil || errNow != nil {
		return nil
	}
	var swaps []Swap
	for _, p := range field.Pairs {
		if p.Pair.Rear != f.Drive.Pair.Rear || p.Pair.Front == f.Drive.Pair.Front {
			continue
		}
		centre, err := drive.CentreMM(p.Pair, pitch, float64(f.Chain.Links))
		if err != nil {
			continue
		}
		s := Swap{
			Pair: p.Pair, ShiftMM: centre - now, Reaches: f.Chain.Adjuster.Reaches(centre - was), PaceKmh: p.PaceKmh, CruiseRPM: p.CruiseRPM,
			Change: 100 * (p.Pair.Ratio()/f.Drive.Pair.Ratio() - 1), SlackMM: drive.SlackMM(p.Pair, pitch, now, centre-now), Choices: p.Choices,
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
func Readings(f *facts.All) []Reading {
	if f.Built == nil {
		return nil
	}
	final := 1.0
	if !f.Built.Bike.Shaft() {
		final = f.Drive.Pair.Ratio() / f.Drive.StandardPair.Ratio()
	}
	front, rear := f.Wheels.CircumferenceMM.Front/f.Wheels.StandardCircumferenceMM.Front, f.Wheels.CircumferenceMM.Rear/f.Wheels.StandardCircumferenceMM.Rear
	var list []Reading
	for _, p := range []drive.Pickup{drive.FrontWheel, drive.RearWheel, drive.Gearbox} {
		list = append(list, Reading{p, drive.SpeedometerFactor(p, front, rear, final), p == f.Built.Bike.Speedometer})
	}
	return list
}
