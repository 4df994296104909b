// Package tyres is the stage of tyres, of what is in them and of the wheels under them.
package tyres

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
	ID: figure.Tyres, Group: desk.Fit, Name: "Tyres", Key: "t", Files: files,
	Pages: []desk.Page{
		{ID: "tyres", Name: "Tyres", Routes: []desk.Route{desk.Get("/tyres", tyresPage)}},
		{ID: "inside", Name: "What is in them", Causes: []cause.ID{cause.Inside, cause.Flats}, Routes: []desk.Route{desk.Get("/inside", insidePage)}, Needs: []string{"mend-a-flat"}},
		{ID: "pressures", Name: "Pressures", Causes: []cause.ID{cause.Pressuring}, Routes: desk.Form(pressuresForm)},
		{ID: "wheels", Name: "Wheels", Routes: []desk.Route{desk.Get("/wheels", wheelsPage)}},
	},
}
