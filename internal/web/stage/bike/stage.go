// Package bike is the stage of which bike it is, and of its sheet.
package bike

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Bike, Group: desk.Know, Name: "Bike", Key: "m", Files: files, Turns: []desk.Turn{bikeTurn},
	Pages: []desk.Page{
		{ID: "bike", Name: "Which bike", Routes: []desk.Route{desk.Garage("/bike", bikePage)}},
		{ID: "sheet", Bike: true, Name: "Its sheet", Routes: desk.Form(sheetForm)},
		{ID: "came", Bike: true, Name: "What it came with", Routes: desk.Form(cameForm)},
		{ID: "touches", Name: "What touches", Routes: desk.Form(touchesForm)},
	},
}
