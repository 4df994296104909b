package knock

import (
	"strings"

	"valiantmule/internal/core/verdict"
)

// Rows that hold for every part and every load.

func overweight(f *Facts) (Finding, bool) {
	if !(f.LoadedKg > f.PermittedKg) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Stop,
		What:  say("Loaded, the bike weighs {%.0f kg}; {%.0f kg} are permitted.", f.LoadedKg, f.PermittedKg),
		Why:   "Frame, wheels, brakes and springs were not made for it, and insurance ends there.",
		Do:    "Do not ride it so. Leave load at home or take another bike; the maker's plate rules.",
	}, true
}

func tyreOverload(f *Facts) (Finding, bool) {
	end, share := "rear", f.TyreLoad.Rear
	if f.TyreLoad.Front > share {
		end, share = "front", f.TyreLoad.Front
	}
	if !(share > 1) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Stop,
		What:  say("The %s tyre carries %.0f %% of its rated load.", end, 100*share),
		Why:   "An overloaded tyre overheats and fails, at speed and without a warning.",
		Do:    "Do not ride it so. Take a tyre with a higher load index, or less load on that axle.",
	}, true
}

// tagWords are what tags mean; one that is not here is called by itself.
var tagWords = map[string]string{
	"bar-22": "a bar of 22.2 mm", "bar-28": "a bar of 28.6 mm", "clamp-22": "clamps for a 22.2 mm bar", "clamp-28": "clamps for a 28.6 mm bar",
	"nav-place": "a mount to sit on", "engine-bars": "engine bars to hang on", "wide-pegs": "toothed pegs", "radiator": "a radiator", "oil-cooler": "an oil cooler",
	"chain-drive": "a chain", "side-rack": "a side rack to hang on", "rear-rack": "a rear rack to stand on",
}

func doesNotFit(f *Facts) (Finding, bool) {
	for _, fitted := range f.Built.Fitted {
		var lacking []string
		var remedies []Remedy
		for _, tag := range fitted.Part.Needs {
			if f.Built.Provides(tag) {
				continue
			}
			word := tag
			if w, ok := tagWords[tag]; ok {
				word = w
			}
			lacking = append(lacking, word)
			if p := f.Shelf.Providing(f.Built, tag); p != nil {
				remedies = append(remedies, chooseOne(p, "%s")...)
			}
		}
		if len(lacking) > 0 {
			return Finding{
				State:    verdict.Stop,
				What:     say("%s needs %s, which this bike does not have.", fitted.Part.Name, strings.Join(lacking, " and ")),
				Why:      "It does not go on as it comes.",
				Do:       "Choose the version for this bike; check the model year before you pay.",
				Remedies: remedies,
			}, true
		}
	}
	return Finding{}, false
}

func effectsClash(f *Facts) (Finding, bool) {
	if len(f.Built.Clashes) == 0 {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Over,
		What:  say("Two parts both set %s.", f.Built.Clashes[0]),
		Why:   "Only one of them can be right, so the figures that rest on it are not.",
		Do:    "Take one of the two out, or correct its data.",
	}, true
}
