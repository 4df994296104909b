// Package ranging is the stage of how far the fuel goes: the ladder from pump to pump,
// the route, the log of fills, what others say.
package ranging

import (
	"embed"
	"net/http"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/format/gpx"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml static/*.js
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Range, Group: desk.Fit, Name: "Range", Key: "r", Files: files, Script: "ranging.js", Turns: []desk.Turn{pumpTurn, cruiseTurn},
	Pages: []desk.Page{
		{ID: "range", Name: "Fuel ladder", Routes: rangeForm.Routes()},
		{ID: "route", Name: "Route", Routes: append(desk.Form(routeForm),
			desk.Route{Method: http.MethodPost, Path: "/route/import", Handle: importRoute, Large: gpx.MaxBytes},
			desk.Post("/route/part", routePart),
			desk.Post("/route/drop", dropRoute),
			desk.Get("/route.gpx", routeFile),
		)},
		{ID: "fills", Bike: true, Away: true, Name: "Fills", Routes: []desk.Route{
			desk.Live("/fills", fillsPage),
			desk.Post("/fills", addFill),
			desk.Post("/fills/revoke", desk.RevokeOn("fills")),
			desk.Post("/fills/import", importFills),
			desk.Get("/fills.csv", fillsFile),
		}},
		{ID: "others", Name: "Others", Routes: desk.Form(othersForm)},
	},
}
