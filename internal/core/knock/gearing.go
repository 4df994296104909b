package knock

import (
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
)

// Rows of sprockets and chain, and of what a tyre does to them.

const (
	shiftNoticeMM  = 6.0   // of axle position that moves more than the chain
	cautionTeeth   = 13    // front sprockets below this: caution [practice]
	warnTeeth      = 12    // … and below this: warn [practice]
	wornKm         = 5000  // after which old chain and new sprocket eat each other [practice]
	speedoNotice   = 0.005 // of the reading, when the display's own error is unknown
	restoreWithin  = 1.0   // % at which sprockets have restored what a tyre did
	tyreMovesFloor = 1.0   // % of circumference that is called a change
)

func tyreMovesGearing(f *Facts) (Finding, bool) {
	grown := (f.CircumferenceMM.Rear/f.StandardCircumferenceMM.Rear - 1) * 100
	if !(math.Abs(grown) > tyreMovesFloor) || f.Pair.Front == 0 {
		return Finding{}, false
	}
	// The tyre's own share still stands when sprockets have not answered it.
	taller := grown > 0 && f.ChangePercent < -gearingNotice
	shorter := grown < 0 && f.ChangePercent > gearingNotice
	if !taller && !shorter {
		return Finding{}, false
	}
	exact := drive.RearTeethFor(0, f.Pair.Front, f.StandardPair, f.CircumferenceMM.Rear, f.StandardCircumferenceMM.Rear)
	teeth := int(math.Round(exact))
	how, why := "taller", Text("First goes faster at walking pace, loaded pull-away suffers, and the clutch slips more.")
	if shorter {
		how, why = "shorter", "The engine turns faster at the cruise."
	}
	return Finding{
		State:    verdict.Watch,
		What:     say("The rear tyre rolls %s %% per turn: the gearing is %.1f %% %s than standard before a sprocket is touched.", signed(grown, 1), math.Abs(f.ChangePercent), how),
		Why:      why,
		Do:       say("%d teeth behind restore it (%.1f exactly).", teeth, exact),
		Remedies: rearTeeth(f, teeth, "%d teeth behind restore the gearing"),
	}, true
}

// rearTeeth offers a rear sprocket, with the chain that it needs.
func rearTeeth(f *Facts, teeth int, label string) []Remedy {
	pair := drive.Pair{Front: f.Pair.Front, Rear: teeth}
	if pair == f.Pair {
		return nil
	}
	return pairRemedy(f, pair, fmt.Sprintf(label, teeth))
}

// pairRemedy offers a pair of sprockets from the shelf, and the chain if the one
// that is on does not reach.
func pairRemedy(f *Facts, pair drive.Pair, label string) []Remedy {
	choices := PairChoices(f, pair)
	if choices == nil {
		return nil
	}
	if links, _, ok := ChainFor(f, pair); ok && links != f.Chain.Links {
		choices = append(choices, plan.Choice{Slot: plan.Chain, Part: chainOf(f, links)})
		label += fmt.Sprintf(", with a chain of %d links", links)
	}
	return []Remedy{{Label: label, Choices: choices}}
}

// PairChoices are the choices that bring the bike from its pair to another; nil
// for the pair that is on.
func PairChoices(f *Facts, pair drive.Pair) []plan.Choice {
	var choices []plan.Choice
	for _, want := range []struct {
		slot     plan.Slot
		figure   plan.Figure
		teeth    int
		now, std int
	}{
		{plan.FrontSprocket, plan.FrontTeeth, pair.Front, f.Pair.Front, f.StandardPair.Front},
		{plan.RearSprocket, plan.RearTeeth, pair.Rear, f.Pair.Rear, f.StandardPair.Rear},
	} {
		if want.teeth == want.now {
			continue
		}
		if want.teeth == want.std {
			choices = append(choices, plan.Choice{Slot: want.slot})
			continue
		}
		choices = append(choices, plan.Choice{Slot: want.slot, Part: partWith(f, want.slot, want.figure, want.teeth)})
	}
	return f.Plan.Scoped(choices, f.Loadout)
}

// partWith is the shelf's part that sets a figure to a count and goes on the
// bike, or else one that is not listed and has no price yet.
func partWith(f *Facts, slot plan.Slot, figure plan.Figure, count int) *plan.Part {
	for _, p := range f.Shelf {
		if p.Slot == slot && int(p.Sets(figure)) == count && f.Standard.Fits(p) {
			return p
		}
	}
	return plan.Unlisted(f.Built.Bike, slot, count)
}

// ChainFor is the chain for a pair: the one that is on if the adjuster reaches,
// or else the even number of links that it does reach.
func ChainFor(f *Facts, pair drive.Pair) (links int, shiftMM float64, ok bool) {
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	centre, err := f.StandardCentreMM()
	if !known || err != nil {
		return 0, 0, false
	}
	if now, err := drive.CentreMM(pair, pitch, float64(f.Chain.Links)); err == nil && f.Chain.Adjuster.Reaches(now-centre) {
		return f.Chain.Links, now - centre, true
	}
	return drive.LinksInReach(pair, pitch, centre, f.Chain.Adjuster)
}

// StandardCentreMM is where the standard chain holds the axle on the standard
// sprockets.
func (f *Facts) StandardCentreMM() (float64, error) {
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	links := f.Standard.Figure(plan.ChainLinks)
	if !known || links == 0 || f.StandardPair.Front == 0 {
		return 0, fmt.Errorf("standard chain or sprockets unknown")
	}
	return drive.CentreMM(f.StandardPair, pitch, links)
}

func chainOf(f *Facts, links int) *plan.Part {
	return partWith(f, plan.Chain, plan.ChainLinks, links)
}

// ChainChoice fits a chain of so many links.
func ChainChoice(f *Facts, links int) []plan.Choice {
	c := plan.Choice{Slot: plan.Chain}
	if int(f.Standard.Figure(plan.ChainLinks)) != links {
		c.Part = chainOf(f, links)
	}
	return f.Plan.Scoped([]plan.Choice{c}, f.Loadout)
}

func chainRemedy(f *Facts, label string) []Remedy {
	if f.Chain.Best == 0 || f.Chain.Best == f.Chain.Links {
		return nil
	}
	choices := ChainChoice(f, f.Chain.Best)
	if choices[0].Part == nil {
		return []Remedy{{Label: "Back to the standard chain", Choices: choices}}
	}
	return []Remedy{{Label: fmt.Sprintf(label, choices[0].Part.Name), Choices: choices}}
}

func chainLength(f *Facts) (Finding, bool) {
	c := f.Chain
	if c.Links == 0 || math.IsNaN(c.ShiftMM) || c.Adjuster.Reaches(c.ShiftMM) {
		return Finding{}, false
	}
	do := Text("No even number of links brings the axle into its slots: choose another pair.")
	if c.Best > 0 {
		do = say("Take a chain of %d links: it puts the axle %s.", c.Best, shiftWords(c.BestShift))
	}
	return Finding{
		State: verdict.Stop,
		What: say("%d/%d on %d links wants the axle %s; its slots reach {%.0f mm} forward and {%.0f mm} back.",
			f.Pair.Front, f.Pair.Rear, c.Links, shiftWords(c.ShiftMM), c.Adjuster.ForwardMM, c.Adjuster.BackMM),
		Why:      "The chain cannot be set: too slack it jumps and cases crack, too tight it breaks bearings.",
		Do:       do,
		Remedies: chainRemedy(f, "Take %s"),
	}, true
}

func shiftWords(mm float64) string {
	switch {
	case math.Abs(mm) < 0.5:
		return "where it is"
	case mm < 0:
		return fmt.Sprintf("{%.1f mm} further forward", -mm)
	}
	return fmt.Sprintf("{%.1f mm} further back", mm)
}

func axlePosition(f *Facts) (Finding, bool) {
	c := f.Chain
	if !(math.Abs(c.ShiftMM) > shiftNoticeMM) || !c.Adjuster.Reaches(c.ShiftMM) {
		return Finding{}, false
	}
	why := Text("Further forward the tyre comes nearer to the swingarm, and as the chain wears the axle has more slot left.")
	if c.ShiftMM > 0 {
		why = say("Further back leaves {%.0f mm} of slot for a wearing chain; the steering gets a little slower.", c.Adjuster.BackMM-c.ShiftMM)
	}
	return Finding{
		State:    verdict.Watch,
		What:     say("The chain sets the axle %s.", shiftWords(c.ShiftMM)),
		Why:      why,
		Do:       "Check brake hose, tyre clearance and wheel alignment; set the slack at the tightest point of the travel.",
		Remedies: closerChain(f),
	}, true
}

// closerChain is chainRemedy when another chain sets the axle clearly nearer.
func closerChain(f *Facts) []Remedy {
	if math.Abs(f.Chain.BestShift) > math.Abs(f.Chain.ShiftMM)-2 {
		return nil
	}
	return chainRemedy(f, "Take %s: the axle stays nearer to where it was")
}

func chainSlider(f *Facts) (Finding, bool) {
	if f.Pair.Front == 0 || f.Pair.Front >= f.StandardPair.Front || f.Built.Provides("hard-slider") {
		return Finding{}, false
	}
	rear := int(math.Round(f.Pair.Ratio() * float64(f.StandardPair.Front)))
	remedies := pairRemedy(f, drive.Pair{Front: f.StandardPair.Front, Rear: rear}, fmt.Sprintf("%d/%d gives nearly the same gearing", f.StandardPair.Front, rear))
	return Finding{
		State:    verdict.Watch,
		What:     say("%d teeth in front, standard is %d: the chain runs lower over the swingarm.", f.Pair.Front, f.StandardPair.Front),
		Why:      "It saws through the slider and then into the swingarm, and it bends tighter at each link.",
		Do:       say("Look at the slider every {1000 km} and carry a spare one, or get the same gearing with %d/%d.", f.StandardPair.Front, rear),
		Remedies: append(remedies, providing(f, plan.ChainSlider, "hard-slider", "Fit %s")...),
	}, true
}

func smallFrontSprocket(f *Facts) (Finding, bool) {
	if f.Pair.Front == 0 || f.Pair.Front >= cautionTeeth || f.Pair.Front >= f.StandardPair.Front {
		return Finding{}, false
	}
	state := verdict.Watch
	if f.Pair.Front < warnTeeth {
		state = verdict.Over
	}
	return Finding{
		State: state,
		What:  say("%d teeth in front.", f.Pair.Front),
		Why:   "Few teeth carry the whole pull and bend the chain hard: both wear quickly and run rough.",
		Do:    "Stay at 13 teeth or more where the rear can give the gearing instead.",
	}, true
}

func wornTogether(f *Facts) (Finding, bool) {
	sprockets := f.Built.Chosen(plan.FrontSprocket) || f.Built.Chosen(plan.RearSprocket)
	chain := f.Built.Chosen(plan.Chain)
	all := f.Built.Chosen(plan.FrontSprocket) && f.Built.Chosen(plan.RearSprocket) && chain
	run := f.Built.Bike.Odometer.In("km")
	if !sprockets && !chain || all || run < wornKm {
		return Finding{}, false
	}
	what := "New and old parts run together in the final drive"
	if !math.IsNaN(run) {
		what += fmt.Sprintf(" of a bike with {%.0f km}", run)
	}
	finding := Finding{
		State: verdict.Watch,
		What:  Text(what + "."),
		Why:   "A worn chain hooks new teeth within weeks, and worn teeth stretch a new chain.",
		Do:    "Measure the chain over 20 links (1–2 % is its limit) and look at the teeth; plan chain and both sprockets together if they are past half.",
	}
	if !chain {
		links := f.Chain.Links
		if f.Chain.Best > 0 && !f.Chain.Adjuster.Reaches(f.Chain.ShiftMM) {
			links = f.Chain.Best
		}
		finding.Remedies = chooseOne(chainOf(f, links), "Add %s")
	}
	return finding, true
}

func speedometer(f *Facts) (Finding, bool) {
	if f.Built.Provides("speedometer-corrected") {
		return Finding{}, false
	}
	finding := Finding{
		Why:      "A speedometer must never show less than the true speed; trip and range figures err with it.",
		Do:       "Check it against a GPS; fit a corrector or have the pulse count changed.",
		Remedies: providing(f, plan.Speedometer, "speedometer-corrected", "Fit %s"),
	}
	changed := math.Abs(f.SpeedoFactor-1) > 1e-6
	switch {
	case f.SpeedoOver < 0 && changed:
		finding.State = verdict.Over
		finding.What = say("The speedometer reads %.1f %% low.", -100*f.SpeedoOver)
	case changed && 100*(1+f.SpeedoOver) > drive.SpeedometerHighest(100):
		finding.State = verdict.Over
		finding.What = say("The speedometer reads %.1f %% high: more than is allowed.", 100*f.SpeedoOver)
	case math.IsNaN(f.SpeedoOver) && f.SpeedoFactor < 1-speedoNotice:
		finding.State = verdict.Watch
		finding.What = say("The speedometer shows %.1f %% less than it did, and nobody has checked what it showed.", 100*(1-f.SpeedoFactor))
	default:
		return Finding{}, false
	}
	return finding, true
}

// providing offers the first part for a slot that goes on and provides a tag.
func providing(f *Facts, slot plan.Slot, tag, label string) []Remedy {
	return offered(f, slot, label, func(p *plan.Part) bool { return slices.Contains(p.Provides, tag) })
}

// offer is the first part for a slot that goes on and is liked, under its own name.
func offer(f *Facts, slot plan.Slot, likes func(*plan.Part) bool) []Remedy {
	return offered(f, slot, "%s", likes)
}

func offered(f *Facts, slot plan.Slot, label string, likes func(*plan.Part) bool) []Remedy {
	for _, p := range f.Shelf {
		if p.Slot == slot && likes(p) && f.Built.Fits(p) {
			return chooseOne(p, label)
		}
	}
	return nil
}
