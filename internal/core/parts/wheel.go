package parts

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// WheelBuild is how a wheel is made.
type WheelBuild string

// The builds. Cast wheels are tubeless; spoked ones mostly need tubes.
const (
	Spoked         WheelBuild = "spoked"
	SpokedTubeless WheelBuild = "spoked-tubeless"
	Cast           WheelBuild = "cast"
)

// Tubeless reports whether the rim holds air by itself.
func (w WheelBuild) Tubeless() bool { return w == Cast || w == SpokedTubeless }

// Builds lists them.
func Builds() []entry.Option {
	return []entry.Option{entry.Opt(Spoked, "Spoked, with tube"), entry.Opt(SpokedTubeless, "Spoked, tubeless"), entry.Opt(Cast, "Cast")}
}

// What wheels have, and what goes into a tyre.
var (
	Build       = choice[WheelBuild]("build", "Built", Builds)
	RimDiameter = prop[unit.Length]("rim", "Rim diameter", "in", 8, 25, "Without it no tyre can be held against it.")
	RimWidth    = prop[unit.Length]("rim_width", "Rim width", "in", 1, 8, "Between the flanges. Without it the tyre's profile is unknown.")
	MaxSpeed    = prop[unit.Speed]("max_speed", "Its maker allows", "km/h", 20, 250, "Foam inserts and ultra-heavy tubes have a limit. Empty: none is known.")
	FillingKind = choice[tyre.Filling]("filling", "What it is", fillings)
)

func fillings() []entry.Option {
	var kinds []entry.Option
	for _, c := range tyre.Contents() {
		kinds = append(kinds, entry.Option{Value: string(c.Filling), Name: c.Name})
	}
	return kinds
}

// Wheel is a wheel that replaces the bike's.
type Wheel struct {
	Build    WheelBuild
	Diameter unit.Length // of the rim
	Width    unit.Length
}

// Wheel is what is known of a part as a wheel, nil where nothing is.
func (p *Part) Wheel() *Wheel {
	if !p.Has.any(Build, RimDiameter, RimWidth) || !p.Slot.Has(Build) {
		return nil
	}
	return &Wheel{Build.In(p), RimDiameter.In(p), RimWidth.In(p)}
}

// Rim of the wheel.
func (w *Wheel) Rim() tyre.Rim { return RimOf(w.Diameter, w.Width) }

// RimOf is a rim by its measures, either of which may be missing.
func RimOf(diameter, width unit.Length) tyre.Rim {
	var r tyre.Rim
	if diameter.Known() {
		r.DiameterIn = diameter.In("in")
	}
	if width.Known() {
		r.WidthIn = width.In("in")
	}
	return r
}

// Filling is what goes into a tyre, for one size of rim.
type Filling struct {
	Kind     tyre.Filling
	Rim      unit.Length // diameter it is made for; missing for any
	RimWidth unit.Length // of a rim lock
	MaxSpeed unit.Speed  // the maker's
}

// Filling is what is known of a part as something that goes into a tyre, nil where nothing
// is. It is the part's own: nobody writes to it.
func (p *Part) Filling() *Filling {
	if p.Has.filling == nil || !p.Slot.Has(FillingKind) {
		return nil
	}
	return p.Has.filling
}

func fillingSaid(h Properties) *Filling {
	if !h.any(FillingKind, RimDiameter, RimWidth, MaxSpeed) {
		return nil
	}
	return &Filling{FillingKind.of(h), RimDiameter.of(h), RimWidth.of(h), MaxSpeed.of(h)}
}
