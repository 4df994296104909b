package stance

import (
	"net/http"

	"valiantmule/internal/core/study/stance"
	"valiantmule/internal/web/desk"
)

type dayView struct {
	Has     bool
	Loadout string
	Set     []dayLine // in the order in which it is set
	Stays   []string  // as it is
}

type dayLine struct{ ID, What, Why, Do string }

func dayPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	f, u := d.Report.Facts, d.Units
	v := dayView{Has: f.Built != nil, Loadout: f.Loadout.Name}
	if v.Has {
		set, stays := stance.Day(f, d.Report.Findings)
		for _, line := range set {
			v.Set = append(v.Set, dayLine{line.ID, u.Text(line.What), u.Text(line.Why), u.Text(line.Do)})
		}
		for _, text := range stays {
			v.Stays = append(v.Stays, u.Text(text))
		}
	}
	return s.ShowPage(w, r, http.StatusOK, d, "day", nil, v)
}
