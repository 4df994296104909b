package stance_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/stance"
	"valiantmule/internal/golden"
)

// TestGolden holds sag, springs and steering over a grid.
func TestGolden(t *testing.T) {
	var text strings.Builder
	for _, kg := range []float64{40, 110, 190} {
		for _, preload := range []float64{0, 8, 20} {
			for _, ratio := range []float64{0.35, 0.5, 1} {
				spring, err := stance.SpringNmm(kg, ratio, preload, 60)
				fmt.Fprintf(&text, "%g kg, preload %g, ratio %g: sag %s, spring %s %t\n", kg, preload, ratio, golden.Number(stance.SagMM(kg, 75, ratio, preload, 220)), golden.Number(spring), err == nil)
			}
		}
	}
	for _, sag := range []float64{-30, -16, 0, 10} {
		spring, err := stance.SpringNmm(90, 0.5, 8, sag)
		fmt.Fprintf(&text, "sag %g: %s %t\n", sag, golden.Number(spring), err == nil)
	}
	for _, second := range []float64{30, 50, 20} {
		rate, err := stance.WheelRateNmm(60, 30, 90, second)
		fmt.Fprintf(&text, "rate %s %t, spring %s\n", golden.Number(rate), err == nil, golden.Number(stance.SpringOfRate(rate, 0.45)))
	}
	for _, rake := range []float64{22, 27.5} {
		for _, offset := range []float64{0, 28, 45} {
			fmt.Fprintf(&text, "rake %g, offset %g: trail %s\n", rake, offset, golden.Number(stance.TrailMM(rake, offset, 690)))
		}
		for _, front := range []float64{-10, 0, 15} {
			fmt.Fprintf(&text, "rake %g, front %+g: %s\n", rake, front, golden.Number(stance.RakeDeg(rake, 1480, front, 6)))
		}
	}
	golden.Held(t, "golden", text.String())
}
