// Package bike is the study of whether it is the right bike, said before parts are
// bought, and of what goes on it.
package bike

import (
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
)

// Study of the bike.
var Study = study.Study{Name: "bike", Rules: rules}

var rules = []study.Rule{
	{ID: "heavy-for-the-ground", Stage: figure.Bike, Judge: heavyForGround},
	{ID: "light-for-the-road", Stage: figure.Bike, Judge: lightForRoad},
	{ID: "part-does-not-fit", Stage: figure.Bike, Judge: doesNotFit},
	{ID: "fitment-unknown", Stage: figure.Bike, Judge: fitmentUnknown},
	{ID: "another-year", Stage: figure.Bike, Judge: anotherYear},
	{ID: "fits-with-work", Stage: figure.Bike, Judge: fitsWithWork},
	{ID: "effects-clash", Stage: figure.Bike, Judge: effectsClash},
}
