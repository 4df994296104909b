package web

import (
	"net/http"
	"net/url"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// What the scripts of a page and the worker that keeps pages on a device are told of an answer:
// whose it is, and of which version of the assets.
const (
	whoHeader     = "Mule-Who"
	versionHeader = "Mule-Version"
	nobody        = "nobody" // is signed in
)

// tellsApart are what of a query makes a page another one; the rest passes.
var tellsApart = []string{"loadout", "date", "trip"}

// away lets a device keep a page for where there is no network.
func away(h desk.Handler) desk.Handler {
	return func(s *desk.House, w http.ResponseWriter, r *http.Request) error {
		at, query := url.URL{Path: r.URL.Path}, url.Values{}
		for _, key := range tellsApart {
			if value := r.URL.Query().Get(key); value != "" {
				query.Set(key, value)
			}
		}
		at.RawQuery = query.Encode()
		w.Header().Set(desk.KeepHeader, at.RequestURI())
		return h(s, w, r)
	}
}

// deviceView is what may be kept on the device that asks, to be told there which of it is.
type deviceView struct {
	Trips []deviceTrip
	Older bool // plans that are not shown
}

// deviceTrip is a trip, or a bike that is looked at, with its pages for use on the way.
type deviceTrip struct {
	Name  string
	Pages []desk.LinkView
}

// device is the page about what is on this device.
func (s *Server) device(w http.ResponseWriter, r *http.Request) error {
	ids, err := s.Store.PlansAtHand(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	view := deviceView{Older: len(ids) > plansAPage}
	trips, err := s.Store.PlansOf(r.Context(), s.Rider(r), ids[:min(plansAPage, len(ids))])
	if err != nil {
		return err
	}
	for _, t := range trips {
		trip := deviceTrip{Name: t.Plan.Name}
		loadout := "?" + url.Values{"loadout": {t.Plan.Loadouts[len(t.Plan.Loadouts)-1].ID}}.Encode()
		for _, st := range s.Stages {
			for _, p := range st.Pages {
				if p.Away {
					trip.Pages = append(trip.Pages, desk.LinkView{Name: st.Name + ": " + p.Name, Href: "/plans/" + t.ID + "/" + p.ID + loadout})
				}
			}
		}
		view.Trips = append(view.Trips, trip)
	}
	bikes, err := s.Store.GarageBikes(r.Context(), s.Rider(r))
	if err != nil {
		return err
	}
	buying := deviceTrip{Name: "Before buying", Pages: []desk.LinkView{{Name: "A bike that you look at", Href: "/buying"}}}
	for _, b := range bikes {
		if b.Held == plan.Looked && !b.Archived {
			at := "/bikes/" + b.ID
			buying.Pages = append(buying.Pages, desk.LinkView{Name: b.Name, Href: at + "/buying"}, desk.LinkView{Name: "Walk around it", Href: at + "/baseline"})
		}
	}
	view.Trips = append(view.Trips, buying)
	return s.Show(w, r, http.StatusOK, "device", "On this device", view)
}
