package fuel

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"valiantmule/internal/core/terrain"
	"valiantmule/internal/golden"
)

// TestGolden holds what a single and a twin burn on every ground, what a tank covers, and
// what fills teach.
func TestGolden(t *testing.T) {
	var text strings.Builder
	machines := []Machine{
		{DisplacementL: 0.65, Overalls: []float64{17.5, 11.3, 8.2, 6.4, 5.3}, CircumferenceMM: 2041, CleanRPM: 1850, MassKg: 300, DragAreaM2: 0.62, TyreRoad: 0.5},
		{DisplacementL: 0.85, Overalls: []float64{14.9, 10.1, 7.9, 6.5, 5.6, 5}, CircumferenceMM: 2100, CleanRPM: 1500, MassKg: 390, DragAreaM2: 0.7, TyreRoad: 0.9, Carburettor: true},
	}
	var burnt Amount
	for i, m := range machines {
		fmt.Fprintf(&text, "# machine %d, known %t, %t\n", i, m.Known(), Machine{}.Known())
		for _, g := range terrain.Grounds() {
			for _, kmh := range []float64{g.SpeedKmh / 2, g.SpeedKmh, 1.4 * g.SpeedKmh} {
				w := m.On(g, kmh)
				golden.Write(&text, fmt.Sprintf("%s %g km/h", g.Kind, kmh), w)
				into := w.Into(25)
				fmt.Fprintf(&text, "wheel %s, overrun %s, litres %s; into the wind %s, behind it %s\n", golden.Number(w.Wheel(1.1, 12)), golden.Number(w.Overrun(1.1)),
					golden.Number(w.Litres(1.1, 12)), golden.Number(into.Litres(1.1, 12)), golden.Number(w.Into(-5).Litres(1.1, 12)))
				burnt = burnt.Plus(Amount{Road: w.Litres(1, 0), Loose: 2 * w.Litres(1.2, 5)})
			}
		}
	}
	fmt.Fprintf(&text, "# amounts\ntotal %s\n", golden.Number(burnt.Total()))
	fills := []Tankful{
		{Litres: 11.2, Km: 240, By: Amount{Road: 8, Loose: 2}, KmSpread: 0.02}, {Litres: 9.4, Km: 180, By: Amount{Road: 2, Loose: 6}, KmSpread: 0.03},
		{Litres: 17, Km: 230, By: Amount{Road: 6, Loose: 3}, KmSpread: 0.02}, {Litres: 12.4, Km: 250, By: Amount{Road: 11, Loose: 0.2}, KmSpread: 0.01},
	}
	for _, blind := range []bool{false, true} {
		first := Anchored(1.15, blind)
		for n := 0; n <= len(fills); n++ {
			taught := Learn(first, fills[:n])
			litres, spread := taught.Litres(Amount{Road: 7, Loose: 4})
			fmt.Fprintf(&text, "blind %t, %d fills: %s ± %s\n", blind, n, golden.Number(litres), golden.Number(spread))
			golden.Write(&text, "taught", taught)
			for _, v := range taught.Each {
				fmt.Fprintf(&text, "flagged %t\n", v.Flagged())
			}
		}
	}
	text.WriteString("# legs\n")
	for _, tank := range []Tank{{UsableL: 13.4, SpreadL: 0.14, Reserve: 0.15}, {UsableL: 22, SpreadL: 0.7, Reserve: 0.1}, {UsableL: 8}} {
		for _, need := range []float64{5, 11.3, 13.4, 20} {
			for _, spread := range []float64{0, 0.9} {
				leg := tank.Cover(215, need, spread)
				golden.Write(&text, "leg", leg)
				low, mid, high := leg.RangeKm()
				left, half, most := leg.ArriveL()
				fmt.Fprintf(&text, "range %s %s %s, arrives with %s %s %s, %s L/100 km\n", golden.Number(low), golden.Number(mid), golden.Number(high),
					golden.Number(left), golden.Number(half), golden.Number(most), golden.Number(leg.Per100Km()))
			}
		}
	}
	for _, per := range []float64{3.1, 4.4, 6} {
		fmt.Fprintf(&text, "%g L/100 km: %s mpg, %s mpg imperial, %s km, %s before the reserve\n", per, golden.Number(MpgUS(per)), golden.Number(MpgUK(per)),
			golden.Number(RangeKm(14, per)), golden.Number(BeforeReserveKm(RangeKm(14, per), 12)))
	}
	for _, road := range []float64{0, 0.3, 0.9, 1, math.NaN()} {
		fmt.Fprintf(&text, "rolling of %g: %s\n", road, golden.Number(RollingFactor(road)))
	}
	golden.Held(t, "golden", text.String())
}
