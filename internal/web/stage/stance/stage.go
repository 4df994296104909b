// Package stance is the stage of springs, sag, height and steering.
package stance

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Stance, Name: "Stance", Key: "n", Files: files,
	Pages: []desk.Page{
		{ID: "stance", Name: "Sag", Routes: append(sagForm.routes(), desk.Post("/stance/measured", unmeasure))},
		{ID: "height", Name: "Height", Routes: heightForm.routes()},
		{ID: "measure", Name: "Measure", Routes: []desk.Route{
			desk.Live("/measure", measurePage),
			desk.Post("/measure", addSag),
			desk.Post("/measure/revoke", desk.RevokeOn("measure")),
		}},
		{ID: "springing", Name: "Four schools", Routes: []desk.Route{desk.Get("/springing", desk.DisputesPage("springing", disputes))}},
	},
}
