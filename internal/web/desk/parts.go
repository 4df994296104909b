package desk

import (
	"net/http"
)

// LineupRow is one property of what stands side by side.
type LineupRow struct {
	Name  string
	Cells []string
}

// PartsPage is a page of options: what is tried lies on the bench.
func (s *House) PartsPage(w http.ResponseWriter, r *http.Request, page string, view func(d *Desk, tried Laid) (any, error)) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	bench, tried, err := d.Tried(r, page)
	if err != nil {
		return err
	}
	body, err := view(d, tried)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, page, bench, body)
}
