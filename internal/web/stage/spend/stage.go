// Package spend is the stage of the ledger and of the parts drawer.
package spend

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Spend, Group: desk.Go, Name: "Spend", Key: "s", Files: files,
	Pages: []desk.Page{
		{ID: "spend", Name: "Spend", Routes: desk.Form(spendForm)},
		{ID: "drawer", Name: "Parts drawer", Routes: []desk.Route{
			desk.Get("/drawer", drawerPage),
		}},
		{ID: "left", Name: "Left alone", Routes: desk.Form(leftForm)},
		{ID: "part", Name: "A part of your own", Routes: []desk.Route{
			desk.Live("/part", partForm.Page), // it hands out an id
			desk.Post("/part", partForm.Keep),
			desk.Post("/part/try", partForm.Try),
		}},
	},
}
