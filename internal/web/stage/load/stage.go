// Package load is the stage of what is carried: where it sits, the packing list, the
// weighing.
package load

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml static/*.js
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Load, Group: desk.Fit, Name: "Load", Key: "l", Files: files, Script: "load.js",
	Pages: []desk.Page{
		{ID: "load", Name: "Where it sits", Routes: desk.Form(loadForm)},
		{ID: "packing", Name: "Packing", Away: true, Routes: []desk.Route{
			desk.Get("/packing", packingPage),
			desk.Post("/packing", packingForm.Keep),
			desk.Post("/packing/try", packingForm.Try),
			desk.Post("/packing/tick", tick),
			desk.Post("/packing/start", startPacking),
			desk.Post("/packing/propose", takeProposal),
			desk.Get("/packing.csv", packingFile),
			desk.Post("/packing/import", importPacking),
		}},
		{ID: "loadouts", Name: "Loadouts", Routes: desk.Form(loadoutsForm)},
		{ID: "weigh", Bike: true, Name: "Weighing", Routes: []desk.Route{
			desk.Live("/weigh", weighPage),
			desk.Post("/weigh", keepWeighing),
			desk.Post("/weigh/read", readBridge),
			desk.Post("/weigh/revoke", desk.RevokeOn("weigh")),
		}},
		{ID: "carrying", Name: "Both sides", Routes: []desk.Route{desk.Get("/carrying", desk.DisputesPage("carrying", loadDisputes))}},
	},
}
