// Package stance is the stage of springs, sag, height and steering.
package stance

import (
	"embed"
	"net/url"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guide"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// symptoms leads from what the bike does.
var symptoms = desk.Guides{
	Page: "symptoms", Title: "What it does", List: guide.WhatItDoes(),
	Intro: "Riders do not know their sag, they know what it does. Each symptom leads to one thing to find out, then to one change at a time.",
}

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Stance, Group: desk.Settle, Name: "Stance", Key: "n", Files: files,
	Pages: []desk.Page{
		{ID: "stance", Name: "Sag", Routes: append(sagForm.Routes(), desk.Post("/stance/measured", unmeasure))},
		{ID: "height", Name: "Height", Causes: []cause.ID{cause.Height, cause.Level, cause.Stand, cause.Posture}, Routes: heightForm.Routes()},
		{ID: "measure", Bike: true, Away: true, Name: "Measure", Routes: []desk.Route{
			desk.Live("/measure", measurePage),
			desk.Post("/measure", desk.AddReading("measure", logbook.SagRead, fillSag, func(d *desk.Desk, form url.Values, errs desk.FormErrors) any { return measure(d, "", form, errs) })),
			desk.Post("/measure/revoke", desk.RevokeOn("measure")),
		}},
		{ID: "day", Name: "On the day", Routes: []desk.Route{desk.Live("/day", dayPage)}},
		{ID: "symptoms", Name: "What it does", Routes: symptoms.Routes()},
		{ID: "clickers", Name: "Clickers", Routes: append(desk.Form(clickersForm), desk.Post("/clickers/record", keepRecord))},
		{ID: "springing", Name: "Four schools", Routes: []desk.Route{desk.Get("/springing", desk.DisputesPage("springing", disputes))}},
	},
}
