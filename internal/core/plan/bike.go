package plan

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// Bike is the bike before the plan, standard but for its wear. Every number is
// optional; the figure that lacks one says so.
type Bike struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Kind string `json:"kind,omitempty"` // in a rider's words, "650 single"
	Year int    `json:"year,omitempty"`
	Note string `json:"note,omitempty"`

	// Origin is where its numbers come from, Origins where single ones do, by
	// field key.
	Origin  sheet.Origin            `json:"origin,omitempty"`
	Origins map[string]sheet.Origin `json:"origins,omitempty"`

	KerbMass   unit.Mass   `json:"kerb_mass,omitzero"`
	KerbFuel   unit.Ratio  `json:"kerb_fuel,omitzero"`  // fuel share at which kerb mass was taken
	KerbFront  unit.Mass   `json:"kerb_front,omitzero"` // of the kerb mass, under the front wheel
	Permitted  unit.Mass   `json:"permitted_mass,omitzero"`
	Tank       unit.Volume `json:"tank,omitzero"`
	Wheelbase  unit.Length `json:"wheelbase,omitzero"`
	SeatHeight unit.Length `json:"seat_height,omitzero"`
	Odometer   unit.Length `json:"odometer,omitzero"`

	Displacement unit.Volume   `json:"displacement,omitzero"`
	Power        unit.Power    `json:"power,omitzero"`
	Torque       unit.Torque   `json:"torque,omitzero"`
	CleanRPM     unit.Rotation `json:"clean_rpm,omitzero"`   // the lowest at which it pulls clean
	ComfortRPM   unit.Rotation `json:"comfort_rpm,omitzero"` // held all day
	MaxRPM       unit.Rotation `json:"max_rpm,omitzero"`
	TopSpeed     unit.Speed    `json:"top_speed,omitzero"`

	Primary         unit.Ratio  `json:"primary,omitzero"`
	Gearbox         Gears       `json:"gearbox,omitzero"` // first gear first
	Chain           string      `json:"chain,omitempty"`  // number, "520"
	Centre          unit.Length `json:"centre,omitzero"`  // sprocket centres as set now, with the standard parts
	AdjusterForward unit.Length `json:"adjuster_forward,omitzero"`
	AdjusterBack    unit.Length `json:"adjuster_back,omitzero"`

	FrontRimDiameter unit.Length `json:"front_rim_diameter,omitzero"`
	FrontRimWidth    unit.Length `json:"front_rim_width,omitzero"`
	RearRimDiameter  unit.Length `json:"rear_rim_diameter,omitzero"`
	RearRimWidth     unit.Length `json:"rear_rim_width,omitzero"`
	RearMaxWidth     unit.Length `json:"rear_max_width,omitzero"`    // of a tyre that clears swingarm and chain
	RearMaxDiameter  unit.Length `json:"rear_max_diameter,omitzero"` // of a tyre that clears mudguard and pivot, axle as set now
	FrontTread       unit.Ratio  `json:"front_tread,omitzero"`       // left on the tyre that is on it
	RearTread        unit.Ratio  `json:"rear_tread,omitzero"`

	Speedometer     drive.Pickup `json:"speedometer,omitempty"`
	SpeedometerOver unit.Ratio   `json:"speedometer_over,omitzero"` // shown over true speed, less 1
	AntiLock        bool         `json:"anti_lock,omitempty"`
	TractionControl bool         `json:"traction_control,omitempty"`

	Provides []string `json:"provides,omitempty"` // tags that parts may need: mounts, splines
	Standard []Part   `json:"standard"`           // what is in each slot from the factory
}

// OriginOf a field's number.
func (b *Bike) OriginOf(key string) sheet.Origin {
	if o, ok := b.Origins[key]; ok {
		return o
	}
	return b.Origin
}

// SetOrigin records where a single number came from.
func (b *Bike) SetOrigin(key string, o sheet.Origin) {
	origins := make(map[string]sheet.Origin, len(b.Origins)+1)
	for k, v := range b.Origins {
		origins[k] = v
	}
	origins[key] = o
	b.Origins = origins
}

// StandardIn is the factory's part in a slot, nil when there is none.
func (b *Bike) StandardIn(s Slot) *Part {
	for i := range b.Standard {
		if b.Standard[i].Slot == s {
			return &b.Standard[i]
		}
	}
	return nil
}

// SetStandard puts a part into a slot as the factory's.
func (b *Bike) SetStandard(p Part) {
	b.ClearStandard(p.Slot)
	b.Standard = append(b.Standard, p)
}

// ClearStandard makes the factory's part in a slot unknown.
func (b *Bike) ClearStandard(s Slot) {
	b.Standard = slices.DeleteFunc(slices.Clone(b.Standard), func(p Part) bool { return p.Slot == s })
}

// FrontRim and RearRim in inches, zero where unknown.
func (b *Bike) FrontRim() tyre.Rim { return rim(b.FrontRimDiameter, b.FrontRimWidth) }

// RearRim is FrontRim for the rear wheel.
func (b *Bike) RearRim() tyre.Rim { return rim(b.RearRimDiameter, b.RearRimWidth) }

func rim(diameter, width unit.Length) tyre.Rim {
	var r tyre.Rim
	if diameter.Known() {
		r.DiameterIn = diameter.In("in")
	}
	if width.Known() {
		r.WidthIn = width.In("in")
	}
	return r
}

// Sections lists the bike's numbers for forms and validation, in the order in
// which one reads a data sheet and then takes a tape to the bike.
func (b *Bike) Sections() []Section {
	return []Section{
		{"Mass and size", []Field{
			{"kerb_mass", "Kerb mass", "kg", 60, 500, "Ready to ride. “Dry” in a brochure means different things: ask, or weigh it.", &b.KerbMass},
			{"kerb_fuel", "… with the tank at", "%", 0, 100, "How full the tank was for that mass. 90 % is usual on a data sheet.", &b.KerbFuel},
			{"kerb_front", "… under the front wheel", "kg", 25, 300, "One bathroom scale under the front wheel, bike upright, wheels level.", &b.KerbFront},
			{"permitted_mass", "Permitted mass", "kg", 100, 900, "The maximum on the bike's plate or papers.", &b.Permitted},
			{"tank", "Tank", "L", 2, 60, "Filled to the brim from dry.", &b.Tank},
			{"wheelbase", "Wheelbase", "mm", 900, 2000, "Axle to axle, straight ahead.", &b.Wheelbase},
			{"seat_height", "Seat height", "mm", 500, 1200, "Unloaded, at the lowest point of the seat.", &b.SeatHeight},
			{"odometer", "Odometer", "km", 0, 500000, "What it has run: chain and sprockets have run it too.", &b.Odometer},
		}},
		{"Engine", []Field{
			{"displacement", "Displacement", "cc", 40, 2500, "", &b.Displacement},
			{"power", "Power", "kW", 2, 200, "", &b.Power},
			{"torque", "Torque", "Nm", 2, 250, "", &b.Torque},
			{"clean_rpm", "Pulls clean from", "rpm", 800, 5000, "The lowest engine speed at which it pulls without snatching, clutch home. Singles 1800–2200, twins 1500–1800.", &b.CleanRPM},
			{"comfort_rpm", "Comfortable to", "rpm", 2000, 14000, "What you would let it turn all day.", &b.ComfortRPM},
			{"max_rpm", "Highest", "rpm", 3000, 18000, "Where the limiter cuts in.", &b.MaxRPM},
			{"top_speed", "Top speed", "km/h", 50, 300, "From the papers; the tyres' speed symbols are held against it.", &b.TopSpeed},
		}},
		{"Gearbox and chain", []Field{
			{"primary", "Primary ratio", "", 1, 5, "Crankshaft to clutch, from the manual.", &b.Primary},
			{"gearbox", "Gearbox", "", 0, 0, "First gear first, separated by blanks: 2.75 1.75 1.31 1.05 0.88", &b.Gearbox},
			{"centre", "Sprocket centres", "mm", 300, 1000, "Gearbox shaft to rear axle as it is set now, with the sprockets and chain that are on it.", &b.Centre},
			{"adjuster_forward", "Axle can go forward", "mm", 0, 100, "From where it is now to the end of the slot.", &b.AdjusterForward},
			{"adjuster_back", "Axle can go back", "mm", 0, 100, "From where it is now to the end of the slot.", &b.AdjusterBack},
		}},
		{"Wheels and tyres", []Field{
			{"front_rim_diameter", "Front rim", "in", 8, 25, "Diameter, from the tyre or the rim.", &b.FrontRimDiameter},
			{"front_rim_width", "Front rim width", "in", 1, 8, "Between the flanges.", &b.FrontRimWidth},
			{"rear_rim_diameter", "Rear rim", "in", 8, 25, "Diameter, from the tyre or the rim.", &b.RearRimDiameter},
			{"rear_rim_width", "Rear rim width", "in", 1, 8, "Between the flanges.", &b.RearRimWidth},
			{"rear_max_width", "Widest rear tyre", "mm", 50, 300, "The width with 5 mm left on each side to swingarm and chain.", &b.RearMaxWidth},
			{"rear_max_diameter", "Tallest rear tyre", "mm", 400, 900, "The diameter with 10 mm left to mudguard and swingarm, axle as set now.", &b.RearMaxDiameter},
			{"front_tread", "Front tread left", "%", 0, 100, "On the tyre that is on it now: depth left over depth when new, above the legal limit.", &b.FrontTread},
			{"rear_tread", "Rear tread left", "%", 0, 100, "On the tyre that is on it now.", &b.RearTread},
		}},
		{"Speedometer", []Field{
			{"speedometer_over", "Reads high by", "%", -10, 20, "Against a GPS, on the bike as it is now.", &b.SpeedometerOver},
		}},
	}
}

// Fields lists the numbers of all sections.
func (b *Bike) Fields() []Field {
	var all []Field
	for _, s := range b.Sections() {
		all = append(all, s.Fields...)
	}
	return all
}

// Pickups lists where speedometers count.
func Pickups() []Option {
	return []Option{
		{string(drive.FrontWheel), "Front wheel"},
		{string(drive.RearWheel), "Rear wheel"},
		{string(drive.Gearbox), "Gearbox output"},
	}
}

// Gears are the ratios of a gearbox, first gear first, and the text they were
// typed as.
type Gears struct {
	text   string
	ratios []float64
}

// Ratios of the gears, first gear first.
func (g Gears) Ratios() []float64 { return g.ratios }

// First and Top are the ends of the gearbox, which has a gear when it is known.
func (g Gears) First() float64 { return g.ratios[0] }

// Top is the ratio of the highest gear.
func (g Gears) Top() float64 { return g.ratios[len(g.ratios)-1] }

// Known reports whether there are ratios.
func (g Gears) Known() bool { return len(g.ratios) > 0 }

// IsZero lets encoders leave a missing gearbox out.
func (g Gears) IsZero() bool { return !g.Known() }

// String is the text as typed.
func (g Gears) String() string { return g.text }

// Enter sets the gears from a form; the unit is unused. On an error nothing
// changes.
func (g *Gears) Enter(text, _ string) error {
	words := strings.FieldsFunc(text, func(r rune) bool { return r == ' ' || r == ';' || r == '/' })
	if len(words) == 0 {
		*g = Gears{}
		return nil
	}
	if len(words) > 8 {
		return fmt.Errorf("%d gears, want at most 8", len(words))
	}
	ratios := make([]float64, len(words))
	for i, w := range words {
		r, err := unit.Number(strings.TrimSuffix(w, ","))
		if err != nil {
			return fmt.Errorf("gear %d, %q: %w, want e.g. 2.75 1.75 1.31", i+1, w, err)
		}
		if r < 0.3 || r > 6 {
			return fmt.Errorf("gear %d: ratio %g outside 0.3–6", i+1, r)
		}
		if i > 0 && r >= ratios[i-1] {
			return errors.New("gear ratios must fall from first gear to top")
		}
		ratios[i] = r
	}
	g.text, g.ratios = strings.TrimSpace(text), ratios
	return nil
}

// MarshalText writes the text as typed.
func (g Gears) MarshalText() ([]byte, error) { return []byte(g.text), nil }

// UnmarshalText reads what MarshalText wrote.
func (g *Gears) UnmarshalText(b []byte) error { return g.Enter(string(b), "") }
