// Package log is the stage of the trip as it is ridden: its days, and what they teach.
package log

import (
	"embed"
	"net/http"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/web/desk"
)

//go:embed pages/*.gohtml
var files embed.FS

// Stage is this one.
var Stage = desk.Stage{
	ID: figure.Log, Group: desk.Go, Name: "Log", Key: "o", Files: files,
	Pages: []desk.Page{
		{ID: "log", Name: "Days", Away: true, Causes: []cause.ID{cause.Worn}, Routes: []desk.Route{
			desk.Live("/log", logPage),
			desk.Post("/log", addDay),
			desk.Post("/log/revoke", desk.RevokeOn("log")),
			{Method: http.MethodPost, Path: "/log/track", Handle: trackDay, Large: maxTrack},
		}},
	},
}
