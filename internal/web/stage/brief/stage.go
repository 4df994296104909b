// Package brief is the stage of who rides, where and for how much, and of what that
// asks of a bike.
package brief

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
	ID: figure.Brief, Group: desk.Know, Name: "Brief", Key: "b", Files: files,
	State: func(d *desk.Desk) verdict.State { return briefState(&d.Report.Facts.Plan.Brief) },
	Pages: []desk.Page{
		{ID: "brief", Name: "Brief", Routes: desk.Form(briefForm)},
		{ID: "matters", Name: "What matters", Routes: []desk.Route{desk.Get("/matters", mattersPage)}},
		{ID: "points", Name: "Points", Routes: desk.Form(pointsForm)},
		{ID: "guesses", Name: "Guesses", Routes: desk.Form(guessesForm)},
		{ID: "needs", Name: "What it asks for", Routes: []desk.Route{desk.Get("/needs", needsPage)}},
	},
}
