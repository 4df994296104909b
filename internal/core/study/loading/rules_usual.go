package loading

import (
	"fmt"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what counts with the usual mass of its kind.

// byMass are the gauges that a mass can turn.
var byMass = []figure.ID{figure.LoadedMass, figure.AxleFront, figure.AxleRear, figure.TyreLoad, figure.SagFront, figure.SagRear}

// bandWords is the band of such a gauge, in words.
var bandWords = map[figure.ID]string{
	figure.LoadedMass: "Loaded, the bike weighs {%.1f kg} to {%.1f kg}",
	figure.AxleFront:  "The front axle carries {%.0f kg} to {%.0f kg}",
	figure.AxleRear:   "The rear axle carries {%.0f kg} to {%.0f kg}",
	figure.TyreLoad:   "The tyres carry %.0f to %.0f %% of what they are rated for",
	figure.SagFront:   "Front sag is %.0f to %.0f %% of the travel",
	figure.SagRear:    "Rear sag is %.0f to %.0f %% of the travel",
}

// weighFirst speaks where the limit of a gauge lies inside the band that usual masses leave.
func weighFirst(f *facts.All) (study.Finding, bool) {
	for _, id := range byMass {
		gauge := f.Figure(id)
		if len(gauge.Measure) == 0 {
			continue
		}
		return study.Found(verdict.Watch, func() study.Words {
			return study.Words{
				What: study.Say(bandWords[id]+", and its limit lies between.", gauge.Low, gauge.High),
				Why:  study.Say("%s counted with what such a thing usually is.", counted(len(gauge.Measure), "number")),
				Do:   study.Say("Find out, the widest first: %s.", study.Listed(gauge.Measure)),
			}
		})
	}
	return study.Finding{}, false
}

// usualMasses is the quiet line of those that turn nothing.
func usualMasses(f *facts.All) (study.Finding, bool) {
	m := &f.Masses
	if m.Usual == 0 {
		return study.Finding{}, false
	}
	for _, id := range byMass {
		if len(f.Figure(id).Measure) > 0 {
			return study.Finding{}, false
		}
	}
	return study.Noted(func() study.Words {
		short := study.Say("%s by usual mass: ± {%.1f kg}", counted(m.Usual, "part"), m.HalfKg)
		return study.Words{
			Short: short,
			What:  short + ".",
			Why:   "All of it together turns no gauge.",
			Do:    study.Say("Weigh them when they lie on the bench anyway: %s.", study.Listed(study.Names(study.ToWeigh(m)))),
		}
	})
}

// counted is so many of a thing, small numbers as words.
func counted(n int, thing string) string {
	small := []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}
	if n != 1 {
		thing += "s"
	}
	if n < len(small) {
		return small[n] + " " + thing
	}
	return fmt.Sprintf("%d %s", n, thing)
}
