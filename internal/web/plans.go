package web

import (
	"net/http"

	"valiantmule/internal/web/desk"
)

func (s *Server) openPlan(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("brief"))
}
