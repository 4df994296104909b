// Package card is the stage of the trail card: one sheet that goes along, and the same on a phone.
package card

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Card, Group: desk.Go, Name: "Trail card", Key: "k", Files: files,
	Pages: []desk.Page{
		{ID: "card", Name: "The card", Away: true, Routes: []desk.Route{desk.Get("/card", cardPage)}},
		{ID: "on-card", Name: "What stands on it", Routes: desk.Form(chooseForm)},
		{ID: "buttons", Name: "Buttons and modes", Bike: true, Routes: desk.Form(buttonsForm)},
	},
}
