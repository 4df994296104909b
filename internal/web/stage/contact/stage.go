// Package contact is the stage of what the rider touches, and of the cockpit.
package contact

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Contact, Name: "Contact", Key: "c", Files: files,
	Pages: []desk.Page{
		{ID: "contact", Name: "What you touch", Routes: []desk.Route{desk.Get("/contact", contactPage("contact"))}},
		{ID: "cockpit", Name: "Cockpit", Routes: []desk.Route{desk.Get("/cockpit", contactPage("cockpit"))}, Needs: []string{"warm-hands", "navigation", "charging"}},
		{ID: "opinions", Name: "Both sides", Routes: []desk.Route{desk.Get("/opinions", desk.DisputesPage("opinions", contactDisputes))}},
	},
}
