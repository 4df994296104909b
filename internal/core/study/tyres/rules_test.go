package tyres_test

import (
	"testing"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/tyres"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	noTube := func(p *plan.Plan) {
		p.Bike.ClearStandard(parts.RearTube)
	}
	rainy := func(mud string) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			p.Brief.Weather = plan.Wet
			studytest.Ground(t, p, map[terrain.Kind]string{terrain.Mud: mud, terrain.SmoothGravel: "97", terrain.Paved: "0"})
		}
	}
	sandy := func(p *plan.Plan) {
		studytest.Ground(t, p, map[terrain.Kind]string{terrain.Sand: "40", terrain.Track: "60"})
	}
	cruising := func(kmh string) func(p *plan.Plan) {
		return func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Cruise, kmh, "km/h") }
	}
	rock := func(p *plan.Plan) {
		studytest.Ground(t, p, map[terrain.Kind]string{terrain.RoughGravel: "40", terrain.Paved: "60"})
	}
	wetAnd := func(change func(p *plan.Plan)) func(p *plan.Plan) {
		return func(p *plan.Plan) { p.Brief.Weather = plan.Wet; change(p) }
	}
	studytest.Rows(t, b, tyres.Study, map[string]studytest.Row{
		"tyre-overload":             studytest.Speaks(verdict.Stop, func() *plan.Plan { p := b.With("corrin-850", "hackle-140-80-18"); heavy(t, p); return p }, b.As("corrin-850"), ""),
		"front-tyre-rim":            studytest.Speaks(verdict.Stop, b.As("corrin-850", "bracken-90-90-21"), b.As("corrin-850", "bracken-110-80-19"), ""),
		"rear-tyre-rim":             studytest.Speaks(verdict.Stop, b.As("holt-650", "lanner-150-70r17"), b.As("holt-650", "bracken-140-80-18"), ""),
		"rear-tyre-clearance":       studytest.Speaks(verdict.Stop, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Bike.RearMaxWidth, "130", "mm") }, "bracken-140-80-18"), b.As("holt-650", "wether-130-80-18"), parts.RearTyre),
		"front-tyre-speed":          studytest.Speaks(verdict.Watch, b.As("corrin-850", "bracken-110-80-19"), b.As("corrin-850", "lanner-110-80r19"), ""),
		"rear-tyre-speed":           studytest.Speaks(verdict.Watch, b.As("corrin-850", "bracken-150-70-17"), b.As("corrin-850", "lanner-150-70r17"), ""),
		"rear-tyre-in-front":        studytest.Speaks(verdict.Over, b.Changing("holt-650", func(p *plan.Plan) { rearOnly(t, b, p) }), b.As("holt-650"), ""),
		"front-rim-width":           studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Bike.FrontRimWidth, "3.5", "in") }, "scree-80-100-21"), b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Bike.FrontRimWidth, "3.5", "in") }, "bracken-90-90-21"), ""),
		"rear-rim-width":            studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Bike.RearRimWidth, "5", "in") }, "bracken-140-80-18"), b.As("holt-650", "bracken-140-80-18"), ""),
		"front-rear-mix":            studytest.Speaks(verdict.Over, b.As("fennick-300", "hackle-110-100-18"), b.As("fennick-300", "lanner-120-80-18"), ""),
		"tyre-against-ground":       studytest.Speaks(verdict.Watch, b.Changing("holt-650", studytest.Paved(t), "hackle-140-80-18"), b.As("holt-650", "wether-140-80-18"), parts.RearTyre),
		"front-tyre-against-ground": studytest.Speaks(verdict.Watch, b.Changing("holt-650", sandy), b.Changing("holt-650", sandy, "bracken-90-90-21"), parts.FrontTyre),
		"front-wet-grip":            studytest.Speaks(verdict.Watch, b.Changing("holt-650", rainy("10")), b.Changing("holt-650", rainy("10"), "bracken-90-90-21"), parts.FrontTyre),
		"rear-wet-grip":             studytest.Speaks(verdict.Watch, b.Changing("holt-650", rainy("10"), "lanner-460-18"), b.Changing("holt-650", rainy("3"), "lanner-460-18"), parts.RearTyre),
		"ends-unlike":               studytest.Speaks(verdict.Watch, b.As("fennick-450", "lanner-120-80-18"), b.As("fennick-450", "bracken-140-80-18"), parts.FrontTyre),
		"front-tyre-clearance":      studytest.Speaks(verdict.Stop, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Bike.FrontMaxWidth, "88", "mm") }, "bracken-90-90-21"), b.As("holt-650", "bracken-90-90-21"), ""),
		"holds-no-air":              studytest.Speaks(verdict.Stop, b.Changing("holt-650", noTube), b.Changing("holt-650", noTube, "tube-heavy-rear-18"), parts.RearTube),
		"taped-rim":                 studytest.Speaks(verdict.Watch, b.As("holt-650", "tape-rear-18"), b.As("holt-650", "tube-heavy-rear-18"), parts.RearTube),
		"filling-size":              studytest.Speaks(verdict.Stop, b.As("holt-650", "tube-heavy-rear-17"), b.As("holt-650", "tube-heavy-rear-18"), parts.RearTube),
		"rim-lock-fit":              studytest.Speaks(verdict.Stop, b.As("corrin-850", "lock-rear-250"), b.As("holt-650", "lock-rear-250"), ""),
		"foam-speed":                studytest.Speaks(verdict.Stop, b.As("holt-650", "foam-rear-18"), b.As("holt-650", "tube-ultra-rear-18"), ""),
		"ultra-tube-speed": studytest.Speaks(verdict.Watch, b.Changing("holt-650", cruising("115"), "tube-ultra-rear-18"),
			b.Changing("holt-650", cruising("110"), "tube-ultra-rear-18"), parts.RearTube),
		"wheel-balance":  studytest.Speaks(verdict.Watch, b.As("holt-650", "lock-rear-250"), b.As("holt-650", "lock-light-rear-250"), parts.RearLock),
		"unsprung-mass":  studytest.Speaks(verdict.Watch, b.As("holt-650", "tube-ultra-rear-18"), b.As("holt-650", "tube-heavy-rear-18"), ""),
		"pressure-load":  studytest.Speaks(verdict.Stop, b.Changing("holt-650", own(t, "gravel", "150", "110")), b.Changing("holt-650", own(t, "gravel", "150", "190")), ""),
		"pressure-maker": studytest.Speaks(verdict.Stop, b.Changing("holt-650", own(t, "soft", "110", "190")), b.Changing("holt-650", own(t, "soft", "125", "190")), ""),
		"pressure-pinch": studytest.Speaks(verdict.Watch, b.Changing("holt-650", own(t, "rock", "130", "180")), b.Changing("holt-650", own(t, "rock", "220", "240")), parts.FrontTube),
		"pressure-soft": studytest.Speaks(verdict.Watch, b.Changing("fennick-450", own(t, "soft", "100", "150")),
			b.Changing("fennick-450", own(t, "soft", "100", "150"), "lock-front-160"), parts.FrontLock),
		"pressure-road": studytest.Speaks(verdict.Over, b.Changing("holt-650", own(t, "road", "150", "200")), b.Changing("holt-650", own(t, "road", "175", "200")), ""),
		"pressure-hard": studytest.Speaks(verdict.Watch, b.Changing("holt-650", wetAnd(own(t, "gravel", "220", "220"))),
			b.Changing("holt-650", wetAnd(own(t, "gravel", "140", "190"))), ""),
		"tyre-tools":   studytest.Speaks(verdict.Watch, b.As("holt-650"), b.As("holt-650", "kit-tubes"), parts.TyreKit),
		"cast-on-rock": studytest.Speaks(verdict.Watch, b.Changing("corrin-850", rock), b.Changing("corrin-850", rock, "wheel-c-19", "wheel-c-17"), parts.FrontWheel),
		"other-wheels": studytest.Speaks(verdict.Over, b.As("corrin-850", "wheel-c-21"), b.As("corrin-850"), ""),
	})
}

func heavy(t *testing.T, p *plan.Plan) {
	p.Brief.Rider = unit.Mass{}
	studytest.Enter(t, &p.Brief.Rider, "250", "kg")
	studytest.Enter(t, &p.Loadouts[1].Loads[0].Mass, "150", "kg")
}

func rearOnly(t *testing.T, b *studytest.Garage, p *plan.Plan) {
	part := *b.Part("hackle-300-21").Part
	studytest.Say(t, &part, "code", "90/90-21 M/C 54R R")
	p.Lines = append(p.Lines, plan.Line{Kind: plan.PartLine, Need: plan.Needed, Part: &part})
}
