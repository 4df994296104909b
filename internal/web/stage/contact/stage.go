// Package contact is the stage of what the rider touches, and of the cockpit.
package contact

import (
	"embed"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guide"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// hurts leads from what hurts its rider.
var hurts = desk.Guides{
	Page: "hurts", Title: "What hurts", List: guide.WhatHurts(),
	Intro: "Start from what hurts: one thing to find out, then what is free, then a part. Each step is written down and can be undone.",
}

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Contact, Group: desk.Fit, Name: "Contact", Key: "c", Files: files,
	Pages: []desk.Page{
		{ID: "contact", Name: "What you touch", Routes: []desk.Route{desk.Get("/contact", contactPage("contact"))}},
		{ID: "cockpit", Name: "Cockpit", Routes: []desk.Route{desk.Get("/cockpit", contactPage("cockpit"))}, Needs: []string{"warm-hands", "navigation", "charging"}},
		{ID: "hurts", Name: "What hurts", Routes: hurts.Routes()},
		{ID: "opinions", Name: "Both sides", Routes: []desk.Route{desk.Get("/opinions", desk.DisputesPage("opinions", contactDisputes))}},
	},
}
