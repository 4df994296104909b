// Package electrics is the stage of what charges and what draws.
package electrics

import (
	"embed"
	"net/url"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml static/*.js
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Electrics, Group: desk.Settle, Name: "Electrics", Key: "e", Files: files, Script: "electrics.js",
	Pages: []desk.Page{
		{ID: "electrics", Name: "Power", Routes: powerForm.Routes()},
		{ID: "wiring", Name: "Wiring", Causes: []cause.ID{cause.Wiring}, Routes: wiringForm.Routes()},
		{ID: "light", Name: "Light", Causes: []cause.ID{cause.Light}, Needs: []string{"seen-by-day"}, Routes: lightForm.Routes()},
		{ID: "volts", Bike: true, Away: true, Name: "Volts", Routes: []desk.Route{
			desk.Live("/volts", voltsPage),
			desk.Post("/volts", desk.AddReading("volts", logbook.VoltsRead, fillVolts, func(d *desk.Desk, form url.Values, errs desk.FormErrors) any { return voltsOf(d, "", form, errs) })),
			desk.Post("/volts/revoke", desk.RevokeOn("volts")),
		}},
		{ID: "electric-sides", Name: "Both sides", Routes: []desk.Route{desk.Get("/electric-sides", desk.DisputesPage("electric-sides", disputes))}},
	},
}
