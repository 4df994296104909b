// Package armour is the stage of what breaks on the trip and what guards it.
package armour

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Armour, Group: desk.Fit, Name: "Armour", Key: "a", Files: files,
	Pages: []desk.Page{
		{ID: "armour", Name: "What ends the ride", Routes: []desk.Route{desk.Get("/armour", armourPage)}},
		{ID: "disputes", Name: "Both sides", Routes: []desk.Route{desk.Get("/disputes", desk.DisputesPage("disputes", armourDisputes))}},
		{ID: "rates", Name: "Rates", Routes: desk.Form(ratesForm)},
	},
}
