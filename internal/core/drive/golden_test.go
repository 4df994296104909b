package drive

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/golden"
)

// TestGolden holds the gearing's and the road's numbers over a grid.
func TestGolden(t *testing.T) {
	var text strings.Builder
	line := func(name string, values ...float64) {
		text.WriteString(name)
		for _, v := range values {
			text.WriteString(" " + golden.Number(v))
		}
		text.WriteString("\n")
	}
	text.WriteString("# chain\n")
	for _, number := range []string{"428", "520", "525", "530", "415"} {
		mm, ok := PitchMM(number)
		fmt.Fprintf(&text, "%s %t ", number, ok)
		line("mm", mm)
	}
	for _, p := range []Pair{{15, 43}, {13, 48}, {16, 39}, {17, 17}, {12, 60}} {
		for _, a := range []Adjuster{{10, 20}, {0, 0}, {25, 30}, {2, 40}, {40, 2}} {
			const pitch, centre = 15.875, 592.0
			exact := ExactLinks(p, pitch, centre)
			links, shift, ok := LinksInReach(p, pitch, centre, a)
			fmt.Fprintf(&text, "%v in %v: even %d, in reach %d %t ", p, a, EvenLinks(exact), links, ok)
			line("exact, shift, least, slack, change", exact, shift, MinCentreMM(p, pitch), SlackMM(p, pitch, centre, 3), SlackMM(p, pitch, centre, -1), SlackMM(p, pitch, centre, 0.01),
				RearForFront(p), RearTeethFor(4, 14, p, 2041, 1941))
			golden.Write(&text, "runs", Runs(p, pitch, centre, a))
		}
	}
	for _, links := range []float64{104, 105.3, 60, 37, 36, 35} {
		centre, err := CentreMM(Pair{12, 60}, 15.875, links)
		fmt.Fprintf(&text, "%t ", err == nil)
		line("centre", links, centre)
	}
	for _, n := range []float64{106, 106 + 1e-10, 106.1, 105, 107.9} {
		fmt.Fprintf(&text, "even of %v: %d\n", n, EvenLinks(n))
	}
	for _, shift := range []float64{-10, -10.1, 0, 20, 20.1} {
		fmt.Fprintf(&text, "reaches %g: %t\n", shift, Adjuster{10, 20}.Reaches(shift))
	}
	text.WriteString("# gearing\n")
	line("overall, speed, rpm, change, ratio", Overall(2.1, 0.9, 2.9), SpeedKmh(4500, 5.3, 2041), RPM(105, 5.3, 2041), ChangePercent(3, 2.9, 2000, 2040), Pair{15, 43}.Ratio())
	for _, p := range []Pickup{FrontWheel, RearWheel, Gearbox} {
		line("speedometer "+string(p), SpeedometerFactor(p, 1.02, 1.05, 1.1))
	}
	line("shows at most", SpeedometerHighest(80))
	text.WriteString("# engine\n")
	e := Engine{TorqueNm: 54, TorqueRPM: 4800, PowerKW: 31, PowerRPM: 6200, CleanRPM: 1850, MaxRPM: 7500}
	flat := Engine{TorqueNm: 40, TorqueRPM: 4800, PowerKW: 31, PowerRPM: 6200, CleanRPM: 1850, MaxRPM: 9500}
	for _, rpm := range []float64{500, 1850, 3000, 4800, 4801, 6200, 7500, 7501, 9500} {
		line(fmt.Sprintf("torque at %g", rpm), e.Torque(rpm), flat.Torque(rpm), Thrust(e.Torque(rpm), 17.5, Efficiency, 2041))
	}
	text.WriteString("# road\n")
	r := Road{MassKg: 310, Rolling: 0.018, DragAreaM2: 0.62, Density: 1.1, HeadwindKmh: 20}
	for _, kmh := range []float64{0, 10, 90, 140} {
		for _, slope := range []float64{-0.1, 0, 0.25} {
			behind := r
			behind.HeadwindKmh = -40
			line(fmt.Sprintf("%g km/h on %g", kmh, slope), r.Resistance(kmh, slope), behind.Resistance(kmh, slope))
		}
	}
	line("top speed", r.TopSpeed(28_000), r.TopSpeed(15_000))
	b := Balance{BehindFrontMM: 830, AheadRearMM: 670, HeightMM: 740}
	for _, mu := range []float64{0.3, 0.8, 1.9, 2.1} {
		for _, rolling := range []float64{0, 0.15} {
			line(fmt.Sprintf("grip of %g, rolling %g", mu, rolling), b.SteepestByTraction(mu, rolling), b.SteepestByWheelie(), SteepestByPull(mu*2000, 310, rolling))
		}
	}
	whole := 310 * 9.80665
	line("pull of the whole weight", SteepestByPull(whole, 310, 0), SteepestByPull(0.999*whole, 310, 0))
	for _, road := range []float64{0, 0.3, 0.31, 0.9, 1} {
		line(fmt.Sprintf("loose grip of %g", road), LooseGrip(road))
	}
	golden.Held(t, "golden", text.String())
}
