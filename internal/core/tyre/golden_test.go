package tyre_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/tyre"
	"valiantmule/internal/golden"
)

// TestGolden holds the tables of tyres, and what sizes, loads and stones make of them.
func TestGolden(t *testing.T) {
	var text strings.Builder
	line := func(name string, values ...float64) {
		text.WriteString(name)
		for _, v := range values {
			text.WriteString(" " + golden.Number(v))
		}
		text.WriteString("\n")
	}
	text.WriteString("# tables\n")
	for i := -1; i <= 121; i++ {
		if kg, ok := tyre.MaxLoadKg(i); ok {
			line(fmt.Sprintf("load index %d", i), kg)
		}
	}
	for _, symbol := range []string{"", "B", "E", "J", "K", "L", "M", "N", "P", "Q", "R", "S", "T", "U", "H", "V", "W", "Y", "Z", "X", "(W)"} {
		if kmh, ok := tyre.MaxSpeedKmh(symbol); ok {
			line("speed "+symbol, kmh)
		}
	}
	golden.Write(&text, "characters", tyre.Characters())
	for _, c := range tyre.Characters() {
		golden.Write(&text, string(c.Kind), c)
		low, high := tyre.RimShareRange(c.Kind)
		line("rim share", low, high)
	}
	for _, c := range tyre.Contents() {
		line("pinch share "+string(c.Filling), tyre.PinchShare(c.Filling))
		fmt.Fprintf(&text, "holds air %t\n", c.Filling.HoldsAir())
	}
	line("pinch share of none", tyre.PinchShare(""))
	text.WriteString("# sizes\n")
	for _, code := range []string{"140/80-18 M/C 70R TT", "120/70 ZR 17 M/C (58W)", "4.60-18 63P", "90/90-21 54T M+S", "110/80 R 19 59V TL", "3.00-21 51P", "2.75-21 45M", "130/70B18 63H", "5.10-17 67S F"} {
		size, err := tyre.Parse(code)
		fmt.Fprintf(&text, "%s %t\n", code, err == nil)
		if err != nil {
			continue
		}
		golden.Write(&text, "is", size)
		fmt.Fprintf(&text, "%+v\n", size)
		line("height, diameter, rolling", size.SectionHeightMM(), size.OverallDiameterMM(), size.RollingCircumferenceMM(), size.RollingFactor(), tyre.RimShare(size, tyre.Rim{WidthIn: 2.5, DiameterIn: size.RimIn}))
	}
	text.WriteString("# pressures\n")
	shape := tyre.Shape{DiameterMM: 682, WidthMM: 140, HeightMM: 112}
	for _, kg := range []float64{60, 170, 320} {
		line(fmt.Sprintf("%g kg", kg), tyre.LoadFloorKPa(225, kg, 335), tyre.CarriesKg(225, 150, 335), tyre.CarriesKg(225, kg, 335))
		for _, kPa := range []float64{100, 200} {
			length, width := shape.Patch(kg, kPa)
			line(fmt.Sprintf("at %g kPa", kPa), length, width, shape.SinkMM(kg, kPa, tyre.Rock), shape.SinkMM(kg, kPa, math.Inf(1)), shape.RoomMM())
		}
		for _, f := range []tyre.Filling{tyre.Tube, tyre.UltraTube, tyre.Foam, ""} {
			line("pinch floor "+string(f), shape.PinchFloorKPa(kg, tyre.HitFactor(3), tyre.Rock, f), tyre.Shape{DiameterMM: 682, WidthMM: 140, HeightMM: 25}.PinchFloorKPa(kg, 1.6, tyre.Rock, f),
				tyre.Shape{DiameterMM: 682, WidthMM: 140, HeightMM: 26}.PinchFloorKPa(kg, 1.6, tyre.Rock, f))
		}
	}
	text.WriteString("# life\n")
	for _, style := range []tyre.Style{tyre.Gentle, tyre.Steady, tyre.Hard} {
		require.True(t, tyre.KnownStyle(style))
		for _, w := range []tyre.Wear{{4000, 8000, tyre.Ordinary(), tyre.Conditions{LoadedKg: 340, PowerKW: 50, Abrasion: 1.4, Style: style}}, {4000, 8000, tyre.Ordinary(), tyre.Conditions{LoadedKg: 210, PowerKW: 16, Abrasion: 0.9, Style: style}}, {9000, 14000, tyre.Ordinary(), tyre.Conditions{LoadedKg: 460, PowerKW: 110, Abrasion: 3, Style: style}}, {2000, 2400, tyre.Ordinary(), tyre.Conditions{LoadedKg: 150, PowerKW: 8, Abrasion: 0.5, Style: style}}, {2000, 2400, tyre.Ordinary(), tyre.Conditions{LoadedKg: 650, PowerKW: 150, Abrasion: 9, Style: style}}} {
			golden.Write(&text, string(style), tyre.Life(w))
			line("factor", w.Factor(), tyre.StyleFactor(style))
		}
	}
	golden.Held(t, "golden", text.String())
}
