package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Setting is a line of what is set when the bike is loaded.
type Setting struct {
	ID            string // of the rule that speaks of it
	What, Why, Do study.Text
}

// settings are the rules of an end that say that its preload is not as it should be.
var settings = []string{"sag-soft", "sag-stiff", "to-set", "bounces"}

// Day is what is set when the bike is loaded, in the order in which that is done, and what may
// stay as it is. A preload that a spring alone puts right is set as far as its adjuster goes.
func Day(f *facts.All, findings []study.Finding) (set []Setting, stays []study.Text) {
	said := make(map[string]study.Finding, len(findings))
	for _, finding := range findings {
		said[finding.ID] = finding
	}
	for _, rear := range []bool{false, true} {
		e, right := f.Springs.Of(rear), true
		for _, id := range settings {
			_, wrong := said[ofEnd(id, rear)]
			right = right && !wrong
		}
		if mm := e.End.PreloadMM; right && !math.IsNaN(mm) {
			stays = append(stays, study.Say("%s preload at {%.0f mm}", adjusters[rear], mm))
		}
		soft, ok := said[ofEnd("sag-soft", rear)]
		if !ok || soft.Day {
			continue
		}
		why := study.Text("As far as the adjuster goes; for good this load wants another spring.")
		if math.IsNaN(e.MostMM()) {
			why = "If the adjuster goes as far: nobody has said."
		}
		set = append(set, Setting{soft.ID, soft.Tell().Short, why, "Measure with everything on, and write it down."})
	}
	for _, finding := range study.OfTheDay(findings) {
		words := finding.Tell()
		set = append(set, Setting{finding.ID, words.Short, words.What, words.Do})
	}
	if deg := f.Light.DownDeg; !math.IsNaN(deg) && f.Figure(figure.BeamTilt).State != verdict.Watch {
		stays = append(stays, study.Say("Dipped beam {%.1f°} down", deg))
	}
	return set, stays
}
