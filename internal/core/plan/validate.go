package plan

import (
	"errors"
	"fmt"
	"maps"
	"math"
	"regexp"
	"slices"
	"strings"
	"time"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// Problem is one thing wrong with a plan, at a place in the document.
type Problem struct {
	Path string // "brief.distance"
	What string
}

func (p Problem) Error() string { return p.Path + ": " + p.What }

// Limits on the size of a document, far above any real plan.
const (
	maxLines    = 1000
	maxEffects  = 30
	maxGuarded  = 60 // places, hazards and accesses of a guard
	maxLoadouts = 12
	maxLoads    = 400
	maxFacts    = 200 // changes, and facts as built
	maxName     = 200
	maxTags     = 40  // of a part or bike
	maxTag      = 80  // bytes
	maxKept     = 100 // calculations
	maxInputs   = 20
	maxInput    = 4000 // bytes of one
)

var slug = regexp.MustCompile(`^[a-z0-9][a-z0-9-]{0,63}$`)

// Validate lists what is wrong with the document: not what is missing, which is
// allowed, but what cannot be. The list is in the order of the document.
func (p *Plan) Validate() []Problem {
	v := &validator{}
	v.that(p.Format == Format, "format", "is %q, want %q", p.Format, Format)
	v.that(p.Version == Version, "version", "is %d, want %d", p.Version, Version)
	v.name("name", p.Name)
	v.that(money.Valid(p.Currency), "currency", "%q is not an ISO 4217 code, want e.g. EUR", p.Currency)
	v.brief(&p.Brief)
	if p.Bike != nil {
		v.bike(p.Bike)
	}
	for _, f := range p.Turned() {
		v.check(f.Key, f.Check())
	}
	v.fields("clicks", p.Clicks.Fields(""))
	v.trials(p.Trials)
	v.few("wired", len(p.Wired), len(slots))
	for i, w := range p.Wired {
		path := fmt.Sprintf("wired[%d]", i)
		v.that(w.Slot.Draws(), path+".slot", "%q is no slot of what draws", w.Slot)
		v.wiring(path, w.Feed, w.Use)
		v.fields(path, w.Fields(""))
		v.that(w.Channel.valid(), path+".channel", "%q is no channel of 1–%d, nor %q", w.Channel, maxChannels, OwnFuse)
	}
	v.that(p.BoxSits == "" || hasOption(BoxPlaces(), string(p.BoxSits)), "box_sits", "%q is none of %s", p.BoxSits, values(BoxPlaces()))
	v.few("lamps_seen", len(p.Seen), len(Looks()))
	for i, l := range p.Seen {
		path := fmt.Sprintf("lamps_seen[%d]", i)
		v.that(hasOption(Looks(), l.ID), path+".id", "%q is none of %s", l.ID, values(Looks()))
		v.date(path+".on", l.On)
	}
	v.lines(p)
	v.loadouts(p.Loadouts)
	v.route(p.Route)
	v.others(p)
	v.readings(p.Readings)
	v.inspection(p.Baseline)
	v.risk(p.Risk)
	v.rates(p)
	v.calculations(p.Calculations)
	return v.problems
}

type validator struct{ problems []Problem }

func (v *validator) that(ok bool, path, format string, args ...any) {
	if !ok {
		v.problems = append(v.problems, Problem{path, fmt.Sprintf(format, args...)})
	}
}

func (v *validator) check(path string, err error) {
	var field Problem
	if errors.As(err, &field) {
		path, err = path+"."+field.Path, errors.New(field.What)
	}
	v.that(err == nil, path, "%v", err)
}

// few makes sure that a list is no longer than any real one.
func (v *validator) few(path string, n, most int) {
	v.that(n <= most, path, "are %d, want at most %d", n, most)
}

func (v *validator) name(path, name string) {
	v.that(name != "", path, "is missing")
	v.that(len(name) <= maxName, path, "is longer than %d bytes", maxName)
}

func (v *validator) fields(path string, fields []Field) {
	for _, f := range fields {
		v.check(path+"."+f.Key, f.Check())
	}
}

func (v *validator) brief(b *Brief) {
	v.date("brief.start", b.Start)
	v.date("brief.ships", b.Ships)
	v.that(len(b.TieDown) <= maxName, "brief.tie_down", "is longer than %d bytes", maxName)
	v.fields("brief", b.Fields())
	v.that(b.Style == "" || tyre.KnownStyle(b.Style), "brief.style", "%q is not gentle, steady or hard", b.Style)
	v.that(b.Weather == "" || hasOption(Weathers(), string(b.Weather)), "brief.weather", "%q is none of %s", b.Weather, values(Weathers()))
	v.that(b.Spanner == "" || hasOption(Spanners(), string(b.Spanner)), "brief.spanner", "%q is none of %s", b.Spanner, values(Spanners()))
	v.that(!b.HourRate.Known() || b.HourRate.Minor() >= 0, "brief.hour_rate", "is below zero")
	v.that(b.Skill == "" || hasOption(Skills(), string(b.Skill)), "brief.skill", "%q is none of %s", b.Skill, values(Skills()))
	v.that(!b.Budget.Known() || b.Budget.Minor() >= 0, "brief.budget", "is below zero")
	_, ground := terrain.Of(b.ClimbGround)
	v.that(b.ClimbGround == "" || ground, "brief.climb_ground", "%q is not a kind of ground", b.ClimbGround)
	v.that(b.SpringsFor == "" || hasOption(SpringUses(), string(b.SpringsFor)), "brief.springs_for", "%q is none of %s", b.SpringsFor, values(SpringUses()))
	v.stretches("brief.terrain", b.Terrain)
}

// stretches checks shares of ground.
func (v *validator) stretches(at string, list []Stretch) {
	seen := map[terrain.Kind]bool{}
	sum := 0.0
	v.few(at, len(list), terrain.Count)
	for i, s := range list {
		path := fmt.Sprintf("%s[%d]", at, i)
		_, known := terrain.Of(s.Ground)
		v.that(known, path+".ground", "%q is not a kind of ground", s.Ground)
		v.that(!seen[s.Ground], path+".ground", "%q is there twice", s.Ground)
		v.that(s.Share.Known() && s.Share.Base() >= 0 && s.Share.Base() <= 1, path+".share", "want 0–100 %%")
		seen[s.Ground] = true
		sum += s.Share.Base()
	}
	// Half a percent of slack: shares are typed as whole percents of a guess.
	v.that(len(list) == 0 || math.Abs(sum-1) <= 0.005, at, "shares sum to %.4g %%, want 100 %%", 100*sum)
}

func (v *validator) bike(b *Bike) {
	v.name("bike.name", b.Name)
	v.fields("bike", b.Fields())
	v.origin("bike.origin", b.Origin)
	for _, key := range slices.Sorted(maps.Keys(b.Origins)) {
		v.origin("bike.origins."+key, b.Origins[key])
	}
	for _, p := range b.Picks() {
		v.that(p.Get() == "" || hasOption(p.Options, p.Get()), "bike."+p.Key, "%q is none of %s", p.Get(), values(p.Options))
	}
	if b.KerbMass.Known() && b.KerbFront.Known() {
		share := b.KerbFront.Base() / b.KerbMass.Base()
		v.that(share > 0.3 && share < 0.7, "bike.kerb_front", "is %.0f %% of the kerb mass, want 30–70 %%: check both scales", 100*share)
	}
	v.preloads("bike.front_preload", b.FrontPreLeast, b.FrontPreMost)
	v.preloads("bike.rear_preload", b.RearPreLeast, b.RearPreMost)
	v.that(len(b.Family) <= maxName && len(b.Variant) <= maxName, "bike.family", "is longer than %d bytes", maxName)
	v.that(b.Year == 0 || b.Year >= 1900 && b.Year <= 2100, "bike.year", "%d is outside 1900–2100", b.Year)
	v.tags("bike.provides", b.Provides)
	v.few("bike.standard", len(b.Standard), len(slots))
	for i := range b.Standard {
		v.part(fmt.Sprintf("bike.standard[%d]", i), &b.Standard[i])
	}
}

func (v *validator) lines(p *Plan) {
	lines := p.Lines
	v.few("lines", len(lines), maxLines)
	type place struct {
		slot    Slot
		loadout string
	}
	taken := map[place]bool{}
	for i, l := range lines {
		path := fmt.Sprintf("lines[%d]", i)
		v.that(l.Need == Needed || l.Need == Wanted, path+".need", "%q is neither needed nor wanted", l.Need)
		v.that(l.Decision == "" || hasOption(Decisions(), string(l.Decision)), path+".decision", "%q is none of %s", l.Decision, values(Decisions()))
		v.that(l.Source == "" || hasOption(Sources(), string(l.Source)), path+".source", "%q is none of %s", l.Source, values(Sources()))
		v.that(len(l.Why) <= maxName, path+".why", "is longer than %d bytes", maxName)
		v.check(path+".hours", checkHours(l.Hours))
		v.that(!l.Mass.Known() || l.Part == nil && l.Mass.Base() >= 0 && l.Mass.Base() < 100, path+".mass", "%s: want 0–100 kg, of a line that is not a part", l.Mass)
		if l.Place != "" {
			v.place(path+".place", l.Place)
		}
		v.that(!l.Percent.Known() || l.Kind == Tax && l.Percent.Base() >= 0 && l.Percent.Base() <= 1, path+".percent", "%s: want 0–100 %%, of a tax", l.Percent)
		if s := l.Swap; s != nil {
			v.that(l.Part != nil, path+".swap", "belongs to lines of kind part only")
			v.that(!s.Minutes.Known() || s.Minutes.In("min") >= 0 && s.Minutes.In("min") <= 600, path+".swap.minutes", "%s is outside 0–600 min", s.Minutes)
			v.that(len(s.Tools) <= maxName, path+".swap.tools", "is longer than %d bytes", maxName)
		}
		if l.Kind == PartLine {
			if l.Part == nil {
				v.that(false, path+".part", "is missing")
				continue
			}
			v.part(path+".part", l.Part)
			_, err := p.Loadout(l.Loadout)
			v.that(l.Loadout == "" || err == nil, path+".loadout", "%q is not a loadout of this plan", l.Loadout)
			if at := (place{l.Part.Slot, l.Loadout}); l.Standing() == In {
				v.that(!taken[at], path+".part.slot", "%s is taken by an earlier line", l.Part.Slot)
				taken[at] = true
			}
			continue
		}
		v.that(hasOption(LineKinds(), string(l.Kind)), path+".kind", "%q is not a kind of line", l.Kind)
		v.that(l.Part == nil, path+".part", "belongs to lines of kind part only")
		v.that(l.Loadout == "", path+".loadout", "belongs to lines of kind part only")
		v.name(path+".name", l.Name)
	}
}

func (v *validator) part(path string, p *Part) {
	v.name(path+".name", p.Name)
	v.that(slug.MatchString(p.ID), path+".id", "%q is not a short id of a–z, 0–9 and -", p.ID)
	_, known := InfoOf(p.Slot)
	v.that(known, path+".slot", "%q is not a slot", p.Slot)
	v.origin(path+".origin", p.Origin)
	v.that(!p.Mass.Known() || (p.Mass.Base() >= 0 && p.Mass.Base() < 100), path+".mass", "%s is outside 0–100 kg", p.Mass)
	if p.Place != "" {
		v.place(path+".place", p.Place)
	}
	v.that(!p.Replaces.Known() || p.Replaces.Base() >= 0 && p.Replaces.Base() < 100, path+".replaces", "%s is outside 0–100 kg", p.Replaces)
	v.tagged(path, p)
	if f := p.Fitment; f != nil {
		v.that(f.Verdict == "" || hasOption(FitVerdicts(), string(f.Verdict)), path+".fitment.verdict", "%q is none of %s", f.Verdict, values(FitVerdicts()))
		v.check(path+".fitment.hours", checkHours(f.Hours))
		for _, text := range [...]struct{ key, words string }{{"work", f.Work}, {"tools", f.Tools}, {"ask", f.Ask}, {"reason", f.Reason}} {
			v.that(len(text.words) <= maxName, path+".fitment."+text.key, "is longer than %d bytes", maxName)
		}
	}
	v.that(p.Made.To == 0 || p.Made.From <= p.Made.To, path+".made.to", "is before the first year, %d", p.Made.From)
	if isTyre := isTyreSlot(p.Slot); isTyre || p.Tyre != nil {
		v.tyre(path+".tyre", isTyre, p.Tyre)
	}
	isWheel := isWheelSlot(p.Slot)
	v.that(p.Wheel == nil || isWheel, path+".wheel", "belongs to wheel slots only")
	if w := p.Wheel; w != nil && isWheel {
		v.that(w.Build == "" || hasOption(builds(), string(w.Build)), path+".wheel.build", "%q is none of %s", w.Build, values(builds()))
		v.that(!w.Diameter.Known() || w.Diameter.In("in") >= 8 && w.Diameter.In("in") <= 25, path+".wheel.diameter", "want 8–25 in")
		v.that(!w.Width.Known() || w.Width.In("in") >= 1 && w.Width.In("in") <= 8, path+".wheel.width", "want 1–8 in")
	}
	if f := p.Filling; f != nil {
		_, known := tyre.ContentOf(f.Kind)
		v.that(known || f.Kind == "", path+".filling.kind", "%q is nothing that goes into a tyre", f.Kind)
	}
	if p.Guard != nil {
		v.guard(path+".guard", p.Guard)
	}
	isFuel := slices.Contains(fuelSlots, p.Slot)
	v.that(p.Carrier == nil || isFuel, path+".carrier", "belongs to slots of fuel only")
	if p.Carrier != nil && isFuel {
		v.carrier(path+".carrier", p.Slot, p.Carrier)
	}
	v.that(p.Bag == nil || slices.Contains(bagSlots, p.Slot), path+".bag", "belongs to slots of bags only")
	v.that(p.Rack == nil || slices.Contains(RackSlots(), p.Slot), path+".rack", "belongs to slots of racks only")
	v.sprung(path, p)
	v.electric(path+".electric", p)
	if b := p.Bag; b != nil {
		v.that(b.Kind == "" || hasOption(BagKinds(), string(b.Kind)), path+".bag.kind", "%q is none of %s", b.Kind, values(BagKinds()))
		v.that(!b.Litres.Known() || b.Litres.In("L") > 0 && b.Litres.In("L") <= 200, path+".bag.litres", "want 0–200 L")
		v.that(!b.Carries.Known() || (b.Carries.Base() > 0 && b.Carries.Base() <= 80), path+".bag.carries", "%s is outside 0–80 kg", b.Carries)
		v.that(!b.MaxSpeed.Known() || (b.MaxSpeed.In("km/h") >= 40 && b.MaxSpeed.In("km/h") <= 250), path+".bag.max_speed", "%s is outside 40–250 km/h", b.MaxSpeed)
		v.that(!b.Width.Known() || (b.Width.In("mm") >= 200 && b.Width.In("mm") <= 1400), path+".bag.width", "%s is outside 200–1400 mm", b.Width)
	}
	if r := p.Rack; r != nil {
		v.that(!r.Carries.Known() || (r.Carries.Base() > 0 && r.Carries.Base() <= 80), path+".rack.carries", "%s is outside 0–80 kg", r.Carries)
	}
	v.few(path+".effects", len(p.Effects), maxEffects)
	for i, e := range p.Effects {
		path := fmt.Sprintf("%s.effects[%d]", path, i)
		v.that(slices.Contains(figures[:], e.Figure), path+".figure", "%q is not a figure of the bike", e.Figure)
		v.that(e.Op == Set || e.Op == Add || e.Op == Scale, path+".op", "%q is not set, add or scale", e.Op)
		switch {
		case slices.Contains(lengths[:], e.Figure):
			v.that(math.Abs(e.Value) <= 300, path+".value", "%g mm is outside ±300", e.Value)
		case e.Figure == SeatHours:
			v.that(e.Op == Set && e.Value > 0 && e.Value <= 24, path+".value", "%g h: it can only be set, to 24 at most", e.Value)
		case e.Figure == LinkPercent:
			v.that(e.Op == Add && math.Abs(e.Value) <= 40, path+".value", "%g %%: it can only be added, 40 at most", e.Value)
		case e.Figure == StandFoot || e.Figure == StandPlate:
			v.that(e.Op == Set && e.Value > 0 && e.Value <= 2000, path+".value", "%g cm²: it can only be set, to 2000 at most", e.Value)
		case e.Figure == AlternatorW || e.Figure == BatteryAh || e.Figure == CrankAmps:
			v.that(e.Op == Set && e.Value > 0 && e.Value <= 1500, path+".value", "%g: it can only be set, to 1500 at most", e.Value)
		case e.Figure == Shelter:
			v.that(e.Op == Add && math.Abs(e.Value) <= 100, path+".value", "%g %%: it can only be added, 100 at most", e.Value)
		case e.Op == Set:
			low, high := figureRange(e.Figure)
			v.that(e.Value == math.Trunc(e.Value) && e.Value >= low && e.Value <= high, path+".value", "%g is not a whole number of %g–%g", e.Value, low, high)
		default:
			v.that(false, path+".op", "%s can only be set", e.Figure)
		}
	}
}

// trials checks the steps that were taken of guides: their words, not where they lead.
func (v *validator) trials(list []Trial) {
	v.few("trials", len(list), maxTrials)
	for i, t := range list {
		path := fmt.Sprintf("trials[%d]", i)
		v.that(slug.MatchString(t.Guide), path+".guide", "%q is not the id of a guide", t.Guide)
		v.that(t.Step == "" || slug.MatchString(t.Step), path+".step", "%q is not the id of a step", t.Step)
		v.that(slug.MatchString(t.Answer), path+".answer", "%q is not an answer", t.Answer)
		v.date(path+".on", t.On)
		v.that(len(t.Loadout) <= maxName && len(t.Was) <= maxName, path+".was", "is longer than %d bytes", maxName)
	}
}

// electric checks what a part draws.
func (v *validator) electric(path string, p *Part) {
	v.that(p.Lamp == nil || p.Slot.Lights(), strings.TrimSuffix(path, "electric")+"lamp", "belongs to slots of lamps only")
	if l := p.Lamp; l != nil {
		path := strings.TrimSuffix(path, "electric") + "lamp"
		v.that(!l.Candela.Known() || l.Candela.In("cd") >= 0 && l.Candela.In("cd") <= 1e6, path+".candela", "%s is outside 0–1 000 000 cd", l.Candela)
		v.that(!l.Lumens.Known() || l.Lumens.In("lm") >= 0 && l.Lumens.In("lm") <= 1e5, path+".lumens", "%s is outside 0–100 000 lm", l.Lumens)
		v.that(!l.Beam.Known() || l.Beam.In("°") >= 1 && l.Beam.In("°") <= 360, path+".beam", "%s is outside 1–360°", l.Beam)
		v.that(!l.Outward.Known() || l.Outward.In("°") >= 0 && l.Outward.In("°") <= 80, path+".outward", "%s is outside 0–80°", l.Outward)
		v.that(l.Mount == "" || hasOption(LampMounts(), string(l.Mount)), path+".mount", "%q is none of %s", l.Mount, values(LampMounts()))
		v.that(!l.Lasts.Known() || l.Lasts.In("yr") > 0 && l.Lasts.In("yr") <= 50, path+".lasts", "%s is outside 0–50 years", l.Lasts)
	}
	v.boxed(strings.TrimSuffix(path, ".electric"), p)
	e := p.Electric
	if e == nil {
		return
	}
	v.that(p.Slot.Draws(), path, "belongs to slots of what draws only")
	v.that(!e.Draw.Known() || e.Draw.In("W") >= 0 && e.Draw.In("W") <= 1000, path+".draw", "%s is outside 0–1000 W", e.Draw)
	v.that(!e.Duty.Known() || e.Duty.Base() >= 0 && e.Duty.Base() <= 1, path+".duty", "%s is outside 0–100 %%", e.Duty)
	v.that(!e.Parked.Known() || e.Parked.In("mA") >= 0 && e.Parked.In("mA") <= 5000, path+".parked", "%s is outside 0–5000 mA", e.Parked)
	v.wiring(path, e.Feed, e.Use)
}

// boxed checks a distribution box, a flasher and indicators.
func (v *validator) boxed(path string, p *Part) {
	v.that(p.Box == nil || p.Slot == PowerBox, path+".box", "belongs to slot %s only", PowerBox)
	if b := p.Box; b != nil {
		n := b.Channels.Base()
		v.that(!b.Channels.Known() || n == math.Trunc(n) && n >= 1 && n <= maxChannels, path+".box.channels", "%s is not a whole number of 1–%d", b.Channels, maxChannels)
		for _, limit := range []struct {
			key string
			a   unit.Current
		}{{"limit", b.Limit}, {"total", b.Total}} {
			v.that(!limit.a.Known() || limit.a.In("A") > 0 && limit.a.In("A") <= 150, path+".box."+limit.key, "%s is outside 0–150 A", limit.a)
		}
		v.that(!b.Delay.Known() || b.Delay.In("s") >= 0 && b.Delay.In("s") <= 3600, path+".box.delay", "%s is outside 0–3600 s", b.Delay)
	}
	v.that(p.Flasher == nil || p.Slot == Flashing, path+".flasher", "belongs to slot %s only", Flashing)
	if f := p.Flasher; f != nil {
		v.that(f.Kind == "" || hasOption(FlasherKinds(), string(f.Kind)), path+".flasher.kind", "%q is none of %s", f.Kind, values(FlasherKinds()))
		v.that(!f.Rated.Known() || f.Rated.In("W") > 0 && f.Rated.In("W") <= 200, path+".flasher.rated", "%s is outside 0–200 W", f.Rated)
	}
	v.that(p.Blinkers == nil || p.Slot == Indicators, path+".blinkers", "belongs to slot %s only", Indicators)
	if b := p.Blinkers; b != nil {
		for _, end := range []struct {
			key string
			w   unit.Power
		}{{"front", b.Front}, {"rear", b.Rear}} {
			v.that(!end.w.Known() || end.w.In("W") > 0 && end.w.In("W") <= 30, path+".blinkers."+end.key, "%s is outside 0–30 W", end.w)
		}
	}
}

// wiring checks what something hangs on and when it is used.
func (v *validator) wiring(path string, f Feed, u Use) {
	v.that(f == "" || hasOption(Feeds(), string(f)), path+".feed", "%q is none of %s", f, values(Feeds()))
	v.that(u == "" || hasOption(Uses(), string(u)), path+".use", "%q is none of %s", u, values(Uses()))
}

// sprung checks the spring and the adjuster of a part.
func (v *validator) sprung(path string, p *Part) {
	v.that(p.Spring == nil || p.Slot.Springs(), path+".spring", "belongs to slots of springs, forks and shocks only")
	v.that(p.Adjuster == nil || p.Slot.Adjusts(), path+".adjuster", "belongs to slots of caps, adjusters, forks and shocks only")
	if s := p.Spring; s != nil {
		v.that(!s.Rate.Known() || s.Rate.In("N/mm") >= 2 && s.Rate.In("N/mm") <= 600, path+".spring.rate", "%s is outside 2–600 N/mm", s.Rate)
		v.that(!s.Second.Known() || s.Second.In("N/mm") >= 2 && s.Second.In("N/mm") <= 900, path+".spring.second", "%s is outside 2–900 N/mm", s.Second)
		v.that(s.Second.Known() == s.Knee.Known(), path+".spring.knee", "a second rate and where it begins go together")
		v.that(!s.Knee.Known() || s.Knee.In("mm") > 0 && s.Knee.In("mm") <= 300, path+".spring.knee", "%s is outside 0–300 mm", s.Knee)
	}
	if a := p.Adjuster; a != nil {
		v.that(a.By == "" || hasOption(adjustsBy(), string(a.By)), path+".adjuster.by", "%q is none of %s", a.By, values(adjustsBy()))
		v.that(!a.Per.Known() || a.Per.In("mm") > 0 && a.Per.In("mm") <= 20, path+".adjuster.per", "%s is outside 0–20 mm", a.Per)
		v.preloads(path+".adjuster", a.Least, a.Most)
	}
}

// preloads checks the ends of an adjuster.
func (v *validator) preloads(path string, least, most unit.Length) {
	for _, end := range []struct {
		key string
		mm  unit.Length
	}{{"least", least}, {"most", most}} {
		v.that(!end.mm.Known() || end.mm.In("mm") >= 0 && end.mm.In("mm") <= 80, path+"."+end.key, "%s is outside 0–80 mm", end.mm)
	}
	v.that(!(most.In("mm") < least.In("mm")), path+".most", "%s is less than the least, %s", most, least)
}

// tagged checks what a part provides, needs and excludes.
func (v *validator) tagged(path string, p *Part) {
	v.tags(path+".provides", p.Provides)
	v.tags(path+".needs", p.Needs)
	v.tags(path+".excludes", p.Excludes)
}

func (v *validator) tags(path string, list []string) {
	v.few(path, len(list), maxTags)
	for i, tag := range list {
		v.that(tag != "" && len(tag) <= maxTag, fmt.Sprintf("%s[%d]", path, i), "want 1–%d bytes", maxTag)
	}
}

func (v *validator) guard(path string, g *Guard) {
	v.that(g.Mount == "" || hasOption(Mounts(), string(g.Mount)), path+".mount", "%q is none of %s", g.Mount, values(Mounts()))
	v.that(!g.Width.Known() || (g.Width.In("mm") >= 0 && g.Width.In("mm") <= 500), path+".width", "%s is outside 0–500 mm", g.Width)
	v.few(path+".blocks", len(g.Blocks), maxGuarded)
	v.few(path+".covers", len(g.Covers), maxGuarded)
	for i, a := range g.Blocks {
		v.that(hasOption(Accesses(), string(a)), fmt.Sprintf("%s.blocks[%d]", path, i), "%q is none of %s", a, values(Accesses()))
	}
	for i, c := range g.Covers {
		path := fmt.Sprintf("%s.covers[%d]", path, i)
		_, known := guard.PlaceOf(c.Place)
		v.that(known, path+".place", "%q is not a place that breaks", c.Place)
		v.that(c.Stops.Known() && c.Stops.Base() >= 0 && c.Stops.Base() <= 1, path+".stops", "want 0–100 %%")
		v.few(path+".against", len(c.Against), maxGuarded)
		for j, h := range c.Against {
			_, known := guard.HazardOf(h)
			v.that(known, fmt.Sprintf("%s.against[%d]", path, j), "%q is not a hazard", h)
		}
	}
}

func (v *validator) risk(r Risk) {
	for _, key := range slices.Sorted(maps.Keys(r)) {
		k, known := guard.KeyOf(key)
		value := r[key]
		v.that(known, "risk."+key, "is not a rate")
		v.that(!known || (value.Known() && value.In("") >= k.Min && value.In("") <= k.Max), "risk."+key, "%s is outside %g–%g", value, k.Min, k.Max)
	}
}

// figureRange is what a count of teeth or links can be.
func figureRange(f Figure) (low, high float64) {
	switch f {
	case FrontTeeth:
		return 8, 30
	case RearTeeth:
		return 20, 80
	}
	return 60, 200
}

func (v *validator) tyre(path string, wanted bool, t *Tyre) {
	v.that(wanted || t == nil, path, "belongs to tyre slots only")
	if t == nil || !wanted {
		return
	}
	_, known := tyre.CharacterOf(t.Kind)
	v.that(known || t.Kind == "", path+".kind", "%q is not a kind of tyre", t.Kind)
	v.that(!t.Tread.Known() || t.Tread.Base() >= 0 && t.Tread.Base() <= 1, path+".tread", "want 0–100 %%")
	if t.Size.IsZero() {
		return
	}
	v.that(!t.Width.Known() || math.Abs(t.Width.In("mm")/t.Size.SectionMM-1) < 0.25, path+".width", "%s is more than a quarter off its code %s", t.Width, t.Size)
	v.that(!t.RollOut.Known() || math.Abs(t.RollOut.In("mm")/t.Size.RollingCircumferenceMM()-1) < 0.15, path+".roll_out", "%s is more than 15 %% off its code %s", t.RollOut, t.Size)
	v.pressure(path+".rated_at", t.RatedAt)
	v.pressure(path+".min_pressure", t.MinPressure)
	v.that(t.LifeLow.Known() == t.LifeHigh.Known(), path+".life_high", "life is a band: give both ends or neither")
	if t.LifeLow.Known() && t.LifeHigh.Known() {
		low, high := t.LifeLow.In("km"), t.LifeHigh.In("km")
		v.that(low >= 100 && high <= 100000 && low <= high, path+".life_low", "want 100–100 000 km, low before high")
	}
}

func (v *validator) pressure(path string, p unit.Pressure) {
	kPa := p.In("kPa")
	v.that(!p.Known() || (kPa >= 40 && kPa <= 450), path, "%s is outside 40–450 kPa", p)
}

func (v *validator) loadouts(loadouts []Loadout) {
	v.that(len(loadouts) > 0, "loadouts", "are missing, want at least one")
	v.few("loadouts", len(loadouts), maxLoadouts)
	seen := map[string]bool{}
	for i, l := range loadouts {
		path := fmt.Sprintf("loadouts[%d]", i)
		v.that(slug.MatchString(l.ID), path+".id", "%q is not a short id of a–z, 0–9 and -", l.ID)
		v.that(!seen[l.ID], path+".id", "%q is there twice", l.ID)
		seen[l.ID] = true
		v.name(path+".name", l.Name)
		v.check(path+".pillion", l.Check())
		given := map[string]bool{}
		for j, q := range l.Pressures {
			path := fmt.Sprintf("%s.pressures[%d]", path, j)
			_, known := terrain.SurfaceOf(q.Surface)
			v.that(known && !given[q.Surface], path+".surface", "%q is not a surface, or there twice", q.Surface)
			given[q.Surface] = true
			v.pressure(path+".front", q.Front)
			v.pressure(path+".rear", q.Rear)
		}
		v.fields(path+".setting", l.Setting.Fields())
		v.few(path+".clicks", len(l.Clicks), len(terrain.Surfaces()))
		for j := range l.Clicks {
			path := fmt.Sprintf("%s.clicks[%d]", path, j)
			_, known := terrain.SurfaceOf(l.Clicks[j].Surface)
			v.that(known, path+".surface", "%q is not a surface", l.Clicks[j].Surface)
			v.fields(path, l.Clicks[j].Fields(""))
		}
		v.that(hasOption(Sits(), string(l.Sits)), path+".sits", "%q is none of %s", l.Sits, values(Sits()))
		v.few(path+".loads", len(l.Loads), maxLoads)
		for j, item := range l.Loads {
			path := fmt.Sprintf("%s.loads[%d]", path, j)
			v.name(path+".name", item.Name)
			v.place(path+".place", item.Place)
			v.check(path+".mass", item.Check())
			v.that(item.Bag == "" || slices.Contains(bagSlots, item.Bag), path+".bag", "%q is not a slot of a bag", item.Bag)
			v.that(hasOption(Sides(), string(item.Side)), path+".side", "%q is neither left nor right", item.Side)
			v.that(hasOption(Whens(), string(item.When)), path+".when", "%q is none of %s", item.When, values(Whens()))
		}
	}
}

func (v *validator) inspection(in Inspection) {
	seen := map[string]bool{}
	v.few("baseline.answers", len(in.Answers), maxFacts)
	for i, a := range in.Answers {
		path := fmt.Sprintf("baseline.answers[%d]", i)
		_, known := baseline.CheckOf(a.Check)
		v.that(known && !seen[a.Check], path+".check", "%q is not a check, or answered twice", a.Check)
		seen[a.Check] = true
		v.check(path, a.Validate())
	}
	v.few("baseline.changes", len(in.Changes), maxFacts)
	for i, c := range in.Changes {
		path := fmt.Sprintf("baseline.changes[%d]", i)
		v.name(path+".name", c.Name)
		v.that(slices.ContainsFunc(baseline.Fates(), func(f baseline.FateInfo) bool { return f.Fate == c.Fate }), path+".fate", "%q is not keep, undo or watch", c.Fate)
		v.check(path, work(c.Cost, c.Hours, c.Note))
		if c.Part != nil {
			v.part(path+".part", c.Part)
		}
	}
	v.few("baseline.as_built", len(in.AsBuilt), maxFacts)
	for i, f := range in.AsBuilt {
		path := fmt.Sprintf("baseline.as_built[%d]", i)
		v.name(path+".name", f.Name)
		v.that(len(f.Value) <= maxName, path+".value", "is longer than %d bytes", maxName)
		v.date(path+".on", f.On)
	}
}

// date checks one that may be left out.
func (v *validator) date(path, on string) {
	_, err := time.Parse(time.DateOnly, on)
	v.that(on == "" || err == nil, path, "%q is not a date like 2027-06-12", on)
}

func (v *validator) rates(p *Plan) {
	seen := map[string]bool{p.Currency: true}
	v.few("rates", len(p.Rates), maxFacts)
	for i, r := range p.Rates {
		path := fmt.Sprintf("rates[%d]", i)
		v.that(money.Valid(r.From), path+".from", "%q is not an ISO 4217 code, want e.g. USD", r.From)
		v.that(!seen[r.From], path+".from", "%s has a rate already", r.From)
		v.that(r.Rate.Known(), path+".rate", "is missing")
		_, err := time.Parse(time.DateOnly, r.On)
		v.that(err == nil, path+".on", "%q is not a date like 2026-11-20", r.On)
		seen[r.From] = true
	}
}

func (v *validator) calculations(list []Calculation) {
	v.few("calculations", len(list), maxKept)
	for i, c := range list {
		path := fmt.Sprintf("calculations[%d]", i)
		v.that(slug.MatchString(c.Calculator), path+".calculator", "%q is not the name of a calculator", c.Calculator)
		v.few(path+".inputs", len(c.Inputs), maxInputs)
		for _, key := range slices.Sorted(maps.Keys(c.Inputs)) {
			v.that(len(key) <= maxName && len(c.Inputs[key]) <= maxInput, path+".inputs."+key, "is longer than %d bytes", maxInput)
		}
		v.that(len(c.Note) <= maxName, path+".note", "is longer than %d bytes", maxName)
	}
}

func (v *validator) place(path string, p load.Place) {
	known := slices.ContainsFunc(load.Spots(), func(s load.Spot) bool { return s.Place == p })
	v.that(known, path, "%q is not a place on the bike", p)
}

func (v *validator) origin(path string, o sheet.Origin) {
	v.that(o == "" || slices.Contains(sheet.Origins(), o), path, "%q is not an origin", o)
}

func hasOption(options []Option, value string) bool {
	return slices.ContainsFunc(options, func(o Option) bool { return o.Value == value })
}

// values of options, for what is said of another.
func values(options []Option) string {
	words := make([]string, len(options))
	for i, o := range options {
		words[i] = o.Value
	}
	return strings.Join(words, ", ")
}
