// Package gearing is the stage of sprockets, chain and pull.
package gearing

import (
	"embed"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Gearing, Group: desk.Settle, Name: "Gearing", Key: "g", Files: files,
	Pages: []desk.Page{
		{ID: "gearing", Name: "Sprockets", Routes: []desk.Route{desk.Get("/gearing", gearingPage)}},
		{ID: "chain", Name: "Chain", Routes: []desk.Route{desk.Get("/chain", chainPage)}},
		{ID: "pull", Name: "Pull", Causes: []cause.ID{cause.Grip, cause.Altitude, cause.Character}, Routes: []desk.Route{desk.Get("/pull", pullPage)}},
	},
}
