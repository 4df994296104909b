package stance

import (
	"math"
	"net/http"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/study"
	"valiantmule/internal/web/desk"
)

type dayView struct {
	Has     bool
	Loadout string
	Set     []dayLine // in the order in which it is set
	Stands  []dayLine // and may stay as it is
}

type dayLine struct{ ID, What, Why, Do string }

func dayPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "day", nil, dayOf(d))
}

func dayOf(d *desk.Desk) dayView {
	f, u := d.Report.Facts, d.Units
	v := dayView{Has: f.Built != nil, Loadout: f.Loadout.Name}
	if !v.Has {
		return v
	}
	said := map[string]study.Finding{}
	for _, finding := range d.Report.Findings {
		said[finding.ID] = finding
	}
	for _, end := range []struct {
		what, rule string
		e          *facts.SpringEnd
	}{{"Fork preload", "sag-soft-front", &f.Springs.Front}, {"Shock preload", "sag-soft-rear", &f.Springs.Rear}} {
		if soft, ok := said[end.rule]; ok && !soft.Day && !math.IsNaN(end.e.WantPreloadMM) { // a setting alone does not put it right
			why := "As far as the adjuster goes; for good this load wants another spring."
			if math.IsNaN(end.e.MostMM()) {
				why = "If the adjuster goes as far: nobody has said."
			}
			v.Set = append(v.Set, dayLine{end.rule, end.what + " to " + setWords(d, end.e, end.e.Settable(end.e.WantPreloadMM)), why, "Measure with everything on, and write it down."})
		}
	}
	for _, finding := range study.OfTheDay(d.Report.Findings) {
		words := finding.Tell()
		v.Set = append(v.Set, dayLine{finding.ID, u.Text(words.Short), u.Text(words.What), u.Text(words.Do)})
	}
	stands := func(name string, e *facts.SpringEnd, ids ...string) {
		for _, id := range ids {
			if _, ok := said[id]; ok {
				return
			}
		}
		if mm := e.End.PreloadMM; !math.IsNaN(mm) {
			v.Stands = append(v.Stands, dayLine{What: name + " at " + u.Quantity(mm, "mm")})
		}
	}
	stands("Fork preload", &f.Springs.Front, "sag-soft-front", "sag-stiff-front", "to-set-front", "bounces-front")
	stands("Shock preload", &f.Springs.Rear, "sag-soft-rear", "sag-stiff-rear", "to-set-rear", "bounces-rear")
	if _, dazzles := said["dazzles"]; !dazzles && !math.IsNaN(f.Light.DownDeg) {
		v.Stands = append(v.Stands, dayLine{What: "Dipped beam " + u.Quantity(f.Light.DownDeg, "°") + " down"})
	}
	return v
}
