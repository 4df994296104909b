// Package bike is the study of whether it is the right bike, said before parts are
// bought, and of what goes on it.
package bike

import (
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
)

// Study of the bike.
var Study = study.Study{Name: "bike", Rules: rules}

var rules = []study.Rule{
	{ID: "heavy-for-the-ground", Class: cause.Rest, Cause: cause.Character, Stage: figure.Bike, Reads: facts.Bike | facts.InBrief, Figures: []figure.ID{figure.LoadedMass, figure.RideHours}, Judge: heavyForGround},
	{ID: "light-for-the-road", Class: cause.Rest, Cause: cause.Character, Stage: figure.Bike, Reads: facts.Bike | facts.InBrief | facts.DriveGroup, Figures: []figure.ID{figure.LoadedMass, figure.RideHours}, Judge: lightForRoad},
	{ID: "part-does-not-fit", Class: cause.Fails, Cause: cause.Fitting, Stage: figure.Bike, Reads: facts.InParts | facts.InTags, Judge: doesNotFit},
	{ID: "cannot-be-together", Class: cause.Fails, Cause: cause.Fitting, Stage: figure.Bike, Reads: facts.Bike | facts.InParts | facts.InRest, Judge: cannotBeTogether},
	{ID: "in-the-way", Class: cause.Fails, Cause: cause.Fitting, Stage: figure.Bike, Reads: facts.Bike | facts.InParts | facts.InRest, Judge: inTheWay},
	{ID: "fitment-unknown", Class: cause.Rest, Cause: cause.Fitting, Stage: figure.Bike, Reads: facts.InParts | facts.InTags, Judge: fitmentUnknown},
	{ID: "another-year", Class: cause.Rest, Cause: cause.Fitting, Stage: figure.Bike, Reads: facts.Bike | facts.InParts, Judge: anotherYear},
	{ID: "fits-with-work", Class: cause.Rest, Cause: cause.Fitting, Stage: figure.Bike, Reads: facts.InParts, Judge: fitsWithWork},
	{ID: "effects-clash", Class: cause.Rest, Cause: cause.Fitting, Stage: figure.Bike, Reads: facts.InFigures, Judge: effectsClash},
}
