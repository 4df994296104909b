// Package baseline is the stage of the inspection, of wear, and of the bike as built.
package baseline

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Baseline, Group: desk.Know, Name: "Baseline", Key: "i", Files: files,
	State: func(d *desk.Desk) verdict.State {
		if len(d.Plan.Baseline.Answers) == 0 { // an inspection that nobody made tells nothing
			return verdict.Unknown
		}
		return d.Report.Stage(figure.Baseline)
	},
	Pages: []desk.Page{
		{ID: "baseline", Bike: true, Away: true, Name: "Walk around", Routes: []desk.Route{
			desk.Get("/baseline", baselinePage),
			desk.Post("/baseline/answer", answer),
		}},
		{ID: "record", Bike: true, Name: "Wear and record", Routes: desk.Form(recordForm)},
	},
}
