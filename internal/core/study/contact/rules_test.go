package contact_test

import (
	"testing"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study/contact"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	trail := func(p *plan.Plan) {
		studytest.Ground(t, p, map[terrain.Kind]string{terrain.SingleTrack: "40", terrain.Track: "60"})
		studytest.Enter(t, &p.Brief.Day, "6", "h")
	}
	tall := func(p *plan.Plan) {
		trail(p)
		studytest.Enter(t, &p.Brief.Inseam, "940", "mm")
	}
	studytest.Rows(t, b, contact.Study, map[string]studytest.Row{
		"cables-short":       studytest.Speaks(verdict.Over, b.Changing("holt-650", func(p *plan.Plan) { p.Bike.SetOrigin("cable_slack", sheet.Measured) }, "riser-30-22"), b.As("holt-650", "riser-20-22"), parts.Risers),
		"knees-bent":         studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Inseam, "960", "mm") }), b.As("holt-650"), parts.Pegs),
		"seat-for-the-hours": studytest.Speaks(verdict.Watch, b.As("holt-650"), b.As("holt-650", "seat-wide"), parts.Seat),
		"bars-low-standing":  studytest.Speaks(verdict.Watch, b.Changing("holt-650", tall), b.Changing("holt-650", tall, "bar-22-high"), parts.Handlebar),
		"screen-in-sight":    studytest.Speaks(verdict.Watch, b.Changing("holt-650", trail, "screen-tall"), b.Changing("holt-650", trail, "screen-mid"), ""),
		"shaken-phone":       studytest.Speaks(verdict.Watch, b.As("holt-650", "mount-plain", "nav-phone"), b.As("holt-650", "mount-damped", "nav-phone"), parts.NavMount),
		"live-socket":        studytest.Speaks(verdict.Watch, b.As("holt-650", "socket-plain"), b.As("holt-650", "socket-sealed"), parts.Socket),
		"glued-grips":        studytest.Speaks(verdict.Watch, b.As("holt-650", "grips-fat"), b.As("holt-650", "grips-bolt"), ""),
		"pegs-drag":          studytest.Speaks(verdict.Watch, b.Changing("holt-650", studytest.Paved(t), "pegs-low"), b.Changing("holt-650", trail, "pegs-low"), ""),
		"boots-and-levers":   studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Boot, "325", "mm") }), b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Boot, "325", "mm") }, "shift-fold"), ""),
		"tower-and-bars":     studytest.Speaks(verdict.Watch, b.As("holt-650", "tower-light", "riser-20-22"), b.As("holt-650", "tower-light"), ""),
	})
}
