package knock

import (
	"fmt"
	"math"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// Rows of a taller or wider rear tyre, and of a front/rear mix.

const (
	gearingNotice  = 1.5 // % of gearing that a rider feels [practice]
	mixNotice      = 3.0 // % that upsets anti-lock and traction control [memory]
	seatNoticeMM   = 5.0
	standNoticeMM  = 6.0 // [practice]: the stand still holds, the bike stands steeper
	rakeNotice     = 0.4 // degrees
	clearanceTight = 5.0 // mm beyond which a tape measure is not asked for
	roadShareOff   = 0.35
	mudShareOff    = 0.10
)

func wheelName(s plan.Slot) string {
	if s == plan.FrontTyre {
		return "front"
	}
	return "rear"
}

func rimMismatch(f *Facts, s plan.Slot) (Finding, bool) {
	t, r := f.Built.Tyre(s), f.Built.Rim(s)
	if t == nil || r.DiameterIn == 0 || t.Size.RimIn == r.DiameterIn {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Stop,
		What:  say("%s is made for a %g in rim, the %s rim is %g in.", t.Size, t.Size.RimIn, wheelName(s), r.DiameterIn),
		Why:   "It does not go on.",
		Do:    say("Choose a %g in tyre; another rim or a second wheel set is a bigger job with approval and sensors.", r.DiameterIn),
	}, true
}

func rimWidth(f *Facts, s plan.Slot) (Finding, bool) {
	t, r := f.Built.Tyre(s), f.Built.Rim(s)
	if t == nil || r.WidthIn == 0 || !f.Built.Chosen(s) {
		return Finding{}, false
	}
	share := tyre.RimShare(t.Size, r)
	low, high := tyre.RimShareRange(t.Kind)
	if share >= low && share <= high {
		return Finding{}, false
	}
	why := Text("A wide rim squares the profile: it turns in late and wears its edges.")
	if share < low {
		why = "A narrow rim makes the profile more pointed: it digs in and its middle wears first."
	}
	return Finding{
		State: verdict.Watch,
		What:  say("The %.2f in %s rim is %.0f %% of the tyre's width; %.0f–%.0f %% is usual for its kind.", r.WidthIn, wheelName(s), 100*share, 100*low, 100*high),
		Why:   why,
		Do:    "Look the rim width up in the tyre maker's table: it decides.",
	}, true
}

func rearClearance(f *Facts) (Finding, bool) {
	t, b := f.Built.Tyre(plan.RearTyre), f.Built.Bike
	if t == nil || !f.Built.Chosen(plan.RearTyre) {
		return Finding{}, false
	}
	wide := t.WidthMM() - b.RearMaxWidth.In("mm")
	// An axle further forward brings the tread nearer to the swingarm's pivot.
	forward := max(0, -f.Chain.ShiftMM)
	if math.IsNaN(forward) {
		forward = 0
	}
	tall := f.DiameterMM.Rear + 2*forward - b.RearMaxDiameter.In("mm")
	finding := Finding{
		Why:      "A tyre that touches swingarm, chain or mudguard wears through it or locks the wheel; mud needs more room still.",
		Remedies: clearingTyres(f, t, forward),
	}
	if forward > 0 {
		finding.Remedies = append(closerChain(f), finding.Remedies...)
	}
	switch {
	case wide > 0 || tall > 0:
		finding.State = verdict.Stop
		finding.What = say("The rear tyre is %s.", excess(wide, tall, forward, "swingarm, chain and mudguard"))
		finding.Do = "Choose a narrower or lower tyre, or move the axle back; then turn the wheel by hand through the whole travel."
		return finding, true
	case wide > -clearanceTight || tall > -clearanceTight:
		finding.State = verdict.Watch
		finding.What = "The rear tyre comes within {5 mm} of what clears."
		finding.Do = "Measure the mounted tyre: the same size differs between makes."
		return finding, true
	case (!b.RearMaxWidth.Known() && grows(t.WidthMM(), widthOf(f.Standard.Tyre(plan.RearTyre)))) ||
		(!b.RearMaxDiameter.Known() && grows(f.DiameterMM.Rear, f.StandardDiameterMM.Rear)):
		finding.State = verdict.Watch
		finding.What = "The rear tyre is bigger than standard and nobody has measured the room for it."
		finding.Do = "Measure the gap to swingarm, chain and mudguard and enter it under Bike."
		finding.Remedies = nil
		return finding, true
	}
	return Finding{}, false
}

func frontClearance(f *Facts) (Finding, bool) {
	t, b := f.Built.Tyre(plan.FrontTyre), f.Built.Bike
	if t == nil || !f.Built.Chosen(plan.FrontTyre) {
		return Finding{}, false
	}
	wide, tall := t.WidthMM()-b.FrontMaxWidth.In("mm"), f.DiameterMM.Front-b.FrontMaxDiameter.In("mm")
	if !(wide > 0) && !(tall > 0) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Stop,
		What:  say("The front tyre is %s.", excess(wide, tall, 0, "fork and mudguard")),
		Why:   "Mud packs between tyre and mudguard and acts as a brake, at the front.",
		Do:    "Choose a narrower or lower tyre, or raise the mudguard; then turn the wheel by hand.",
	}, true
}

func excess(wide, tall, forward float64, what string) string {
	text := ""
	if wide > 0 {
		text = fmt.Sprintf("{%.0f mm} wider than what clears %s", wide, what)
	}
	if tall > 0 {
		if text != "" {
			text += ", and "
		}
		text += fmt.Sprintf("{%.0f mm} taller than what clears %s", tall, what)
		if forward >= 1 {
			text += fmt.Sprintf(" with the axle {%.0f mm} further forward", forward)
		}
	}
	return text
}

func widthOf(t *plan.Tyre) float64 {
	if t == nil {
		return math.NaN()
	}
	return t.WidthMM()
}

func grows(now, before float64) bool { return now > before+1 }

// clearingTyres offers the tyre of the same kind that clears and comes nearest in
// width.
func clearingTyres(f *Facts, t *plan.Tyre, forward float64) []Remedy {
	b := f.Built.Bike
	var best *plan.Part
	for _, p := range f.Shelf {
		if p.Slot != plan.RearTyre || p.Tyre == nil || p.Tyre.Kind != t.Kind || p.Tyre.Size.RimIn != t.Size.RimIn ||
			!(p.Tyre.WidthMM() <= b.RearMaxWidth.In("mm")-clearanceTight) ||
			!(p.Tyre.DiameterMM()+2*forward <= b.RearMaxDiameter.In("mm")-clearanceTight) {
			continue
		}
		if best == nil || p.Tyre.WidthMM() > best.Tyre.WidthMM() {
			best = p
		}
	}
	return chooseOne(best, "Take %s, which clears")
}

func speedSymbol(f *Facts, s plan.Slot) (Finding, bool) {
	t := f.Built.Tyre(s)
	if t == nil || t.Size.Speed == "" {
		return Finding{}, false
	}
	rated, _ := tyre.MaxSpeedKmh(t.Size.Speed)
	top := f.Built.Bike.TopSpeed.In("km/h")
	finding := Finding{
		What: say("The %s tyre's symbol %s allows {%.0f km/h}; the bike's top speed is {%.0f km/h}.", wheelName(s), t.Size.Speed, rated, top),
		Why:  "Above its symbol a loaded tyre overheats; approval and insurance hang on it too.",
		Do:   "Choose a tyre with the symbol in the bike's papers. Local law decides.",
	}
	switch {
	case f.CruiseKmh > rated:
		finding.State = verdict.Stop
		finding.What = say("The %s tyre's symbol %s allows {%.0f km/h}; the brief's cruise is {%.0f km/h}.", wheelName(s), t.Size.Speed, rated, f.CruiseKmh)
		return finding, true
	case top > rated && t.Size.MudAndSnow:
		finding.State = verdict.Watch
		finding.Do = "Some countries allow a lower symbol on an M+S tyre with a notice in the rider's sight. Ask before you order."
		return finding, true
	case top > rated:
		finding.State = verdict.Stop
		return finding, true
	}
	return Finding{}, false
}

func rearInFront(f *Facts) (Finding, bool) {
	t := f.Built.Tyre(plan.FrontTyre)
	if t == nil || !t.Size.RearOnly {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Over,
		What:  say("%s is marked for the rear and is planned for the front.", t.Size),
		Why:   "Its carcass is laid for drive, not for braking and steering.",
		Do:    "Choose a front tyre.",
	}, true
}

func frontRearMix(f *Facts) (Finding, bool) {
	if !(math.Abs(f.MixPercent) > mixNotice) {
		return Finding{}, false
	}
	b := f.Built.Bike
	finding := Finding{
		State: verdict.Watch,
		What:  say("Front against rear circumference is %s %% from standard.", signed(f.MixPercent, 1)),
		Why:   "The steering changes; a speedometer may lie.",
		Do:    "Balance the other end, or accept it and ride it in.",
	}
	if b.AntiLock || b.TractionControl {
		finding.State = verdict.Over
		finding.Why = "Anti-lock and traction control compare the two wheels: beyond about 3 % they see a slide that is not there."
		finding.Do = "Balance the other end, or ask the maker's dealer whether the unit can be taught the new sizes."
	}
	finding.Remedies = balancingTyres(f)
	return finding, true
}

// balancingTyres offers the tyre at the end that was not changed that brings the
// circumferences back together.
func balancingTyres(f *Facts) []Remedy {
	slot := plan.FrontTyre
	if f.Built.Chosen(plan.FrontTyre) && !f.Built.Chosen(plan.RearTyre) {
		slot = plan.RearTyre
	}
	rim := f.Built.Rim(slot)
	standard := f.StandardCircumferenceMM.Front / f.StandardCircumferenceMM.Rear
	var best *plan.Part
	bestOff := mixNotice
	for _, p := range f.Shelf {
		if p.Slot != slot || p.Tyre == nil || p.Tyre.Size.RimIn != rim.DiameterIn {
			continue
		}
		ends := f.CircumferenceMM
		if slot == plan.FrontTyre {
			ends.Front = p.Tyre.CircumferenceMM()
		} else {
			ends.Rear = p.Tyre.CircumferenceMM()
		}
		if off := math.Abs(ends.Front/ends.Rear/standard-1) * 100; off < bestOff {
			best, bestOff = p, off
		}
	}
	return chooseOne(best, "Balance it with %s")
}

func tyreAgainstGround(f *Facts) (Finding, bool) {
	t, mix := f.Built.Tyre(plan.RearTyre), f.Plan.Brief.Mix()
	if t == nil || mix == nil {
		return Finding{}, false
	}
	c, _ := tyre.CharacterOf(t.Kind)
	loose := mix[terrain.Mud] + mix[terrain.Sand]
	switch {
	case mix.Road()-c.RoadShare > roadShareOff:
		return Finding{
			State:    verdict.Watch,
			What:     say("%.0f %% of the trip is road; the rear tyre is %s.", 100*mix.Road(), t.Kind),
			Why:      "Blocks let go early on tarmac, above all in the wet, and a large road share eats them.",
			Do:       "Take a tyre nearer to the road share, or carry the soft ones and change them at the trail head.",
			Remedies: tyreNearer(f, t, mix.Road()),
		}, true
	case c.RoadShare >= 0.7 && loose > mudShareOff:
		return Finding{
			State:    verdict.Watch,
			What:     say("%.0f %% of the trip is mud and sand; the rear tyre is %s.", 100*loose, t.Kind),
			Why:      "Road treads manage dry, flat gravel. They fill with mud and slide at once.",
			Do:       "Take an all-round or dirt-biased tyre, or ride round the wet parts.",
			Remedies: tyreNearer(f, t, mix.Road()),
		}, true
	}
	return Finding{}, false
}

// tyreNearer offers the rear tyre whose kind suits the road share best, nearest
// in size to the one it replaces.
func tyreNearer(f *Facts, t *plan.Tyre, road float64) []Remedy {
	var best *plan.Part
	bestOff := math.Inf(1)
	for _, p := range f.Shelf {
		if p.Slot != plan.RearTyre || p.Tyre == nil || p.Tyre.Size.RimIn != t.Size.RimIn {
			continue
		}
		c, _ := tyre.CharacterOf(p.Tyre.Kind)
		off := math.Abs(c.RoadShare-min(road, 0.6)) + math.Abs(p.Tyre.CircumferenceMM()/t.CircumferenceMM()-1)
		if p.Tyre.Kind != t.Kind && off < bestOff {
			best, bestOff = p, off
		}
	}
	return chooseOne(best, "Take %s, nearer to your ground")
}

func seatHeight(f *Facts) (Finding, bool) {
	if !(math.Abs(f.SeatRiseMM) > seatNoticeMM) {
		return Finding{}, false
	}
	if f.SeatRiseMM < 0 {
		return Finding{
			State: verdict.Watch,
			What:  say("The tyres lower the seat by {%.0f mm}.", -f.SeatRiseMM),
			Why:   "The engine comes down with it: less room over rock, and the stand may hold the bike too upright.",
			Do:    "Measure the clearance under the engine with the rider on.",
		}, true
	}
	return Finding{
		State: verdict.Watch,
		What:  say("The tyres raise the seat by {%.0f mm}.", f.SeatRiseMM),
		Why:   "Half of what the diameter grows goes into the height: feet reach less far.",
		Do:    "Sit on it in boots, on the kind of ground where you will stop.",
	}, true
}

func standTooShort(f *Facts) (Finding, bool) {
	if !(f.StandShortMM > standNoticeMM) {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     say("The bike stands {%.0f mm} higher than its side stand was made for.", f.StandShortMM),
		Why:      "A taller bike leans further on its stand; with bags, on soft ground, it falls.",
		Do:       "Lengthen the stand or put a thicker foot on it, and mind its switch.",
		Remedies: longerStand(f),
	}, true
}

func longerStand(f *Facts) []Remedy {
	var best *plan.Part
	for _, p := range f.Shelf {
		if p.Slot == plan.SideStand && f.Built.Fits(p) && f.StandShortMM-p.Adds(plan.StandLength) <= standNoticeMM &&
			(best == nil || p.Adds(plan.StandLength) < best.Adds(plan.StandLength)) {
			best = p
		}
	}
	return chooseOne(best, "Fit %s")
}

func rake(f *Facts) (Finding, bool) {
	if !(math.Abs(f.RakeDegrees) > rakeNotice) {
		return Finding{}, false
	}
	how, why := "steeper", Text("Trail falls with it: quicker steering, less steady at speed and in sand.")
	if f.RakeDegrees < 0 {
		how, why = "flatter", "Trail grows with it: steadier, slower to turn."
	}
	return Finding{
		State: verdict.Watch,
		What:  say("One end is higher than the other by more than before: the steering head is %.1f° %s.", math.Abs(f.RakeDegrees), how),
		Why:   why + " The headlamp's aim moves too.",
		Do:    "Balance the other end, or slide the fork in its clamps within the maker's marks; then aim the lamp.",
	}, true
}

// chooseOne is the remedy of taking one part, none when there is none.
func chooseOne(p *plan.Part, label string) []Remedy {
	if p == nil {
		return nil
	}
	return []Remedy{{Label: fmt.Sprintf(label, p.Name), Choices: []plan.Choice{{Slot: p.Slot, Part: p}}}}
}
