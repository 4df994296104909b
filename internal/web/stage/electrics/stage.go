// Package electrics is the stage of what charges and what draws.
package electrics

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Electrics, Name: "Electrics", Key: "e", Files: files,
	Pages: []desk.Page{
		{ID: "electrics", Name: "Power", Routes: powerForm.Routes()},
	},
}
