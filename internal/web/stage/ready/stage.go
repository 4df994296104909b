// Package ready is the stage of time: orders, what is done while what is apart, sheets for a day
// at the bike and for a specialist.
package ready

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml static/*.js
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Ready, Group: desk.Go, Name: "Ready", Key: "d", Files: files, Script: "ready.js", Turns: []desk.Turn{wayTurn, orderTurn},
	Pages: []desk.Page{
		{ID: "ready", Name: "Orders", Routes: append(ordersForm.Routes(),
			desk.Post("/ready/act", act),
			desk.Post("/ready/leave", leave),
			desk.Get("/orders.csv", ordersFile),
		)},
		{ID: "days", Name: "Spanner days", Routes: []desk.Route{
			desk.Get("/days", daysPage),
			desk.Post("/days/done", done),
			desk.Post("/days/again", again),
			desk.Post("/days/lost", lost),
			desk.Get("/days.ics", calendarFile),
		}},
		{ID: "spanner-day", Name: "A day’s sheet", Away: true, Routes: []desk.Route{desk.Get("/spanner-day", dayPage)}},
		{ID: "shakedown", Name: "Shakedown", Away: true, Routes: []desk.Route{desk.Live("/shakedown", shakedownPage), desk.Post("/shakedown", looked)}},
		{ID: "specialist", Name: "For a specialist", Routes: []desk.Route{desk.Get("/specialist", specialistPage)}},
		{ID: "parcels", Name: "Parcels together", Routes: []desk.Route{desk.Garage("/parcels", parcelsPage)}},
		{ID: "time", Name: "Hours and sellers", Routes: desk.Form(timeForm)},
	},
}
