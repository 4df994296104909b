// Package tyre reads tyre codes and says what follows from them: dimensions,
// rated load and speed, whether a tyre goes on a rim, how long a set lasts.
//
// Lengths are in mm, rims in inches (as they are sold), masses in kg, speeds in
// km/h, distances in km. The same nominal size differs in real width between
// makes; a measured width or roll-out overrules what the code says. The package
// knows nothing of bikes or plans.
package tyre
