package web

import (
	"net/http"

	"valiantmule/internal/help"
	"valiantmule/internal/web/desk"
)

// helpView is what a page is for, its words, and the keys.
type helpView struct {
	Name   string
	Lines  []string
	Words  []help.Word
	Stages []desk.Stage
}

// help shows the help of the page that is asked for, or all words.
func (s *Server) help(w http.ResponseWriter, r *http.Request) error {
	v := helpView{Name: "Help", Words: s.Help.Words, Stages: s.Stages}
	if page, ok := s.Help.Page(r.URL.Query().Get("page")); ok {
		v.Name, v.Lines, v.Words = s.PageName(page.ID), page.Lines, s.Help.WordsOf(page)
	}
	return s.Show(w, r, http.StatusOK, "help", v.Name, v)
}
