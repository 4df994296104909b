package gearing

import (
	"fmt"
	"math"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/chains"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// Rows of sprockets and chain, and of what a tyre does to them.

const (
	shiftNoticeMM  = 6.0   // of axle position that moves more than the chain
	cautionTeeth   = 13    // front sprockets below this: caution [practice]
	warnTeeth      = 12    // … and below this: warn [practice]
	wornHalf       = 0.5   // of its measure, from which an old part hooks a new one [practice]
	wornKm         = 5000  // after which old chain and new sprocket eat each other [practice]
	speedoNotice   = 0.005 // of the reading, when the display's own error is unknown
	tyreMovesFloor = 1.0   // % of circumference that is called a change
	gearingNotice  = 1.5   // % of gearing that a rider feels [practice]
)

func tyreMovesGearing(f *facts.All) (study.Finding, bool) {
	grown := (f.Wheels.CircumferenceMM.Rear/f.Wheels.StandardCircumferenceMM.Rear - 1) * 100
	if !(math.Abs(grown) > math.Max(tyreMovesFloor, rollHalf(f))) || f.Drive.Pair.Front == 0 {
		return study.Finding{}, false
	}
	// The tyre's own share still stands when sprockets have not answered it.
	taller := grown > 0 && f.Drive.ChangePercent < -gearingNotice
	shorter := grown < 0 && f.Drive.ChangePercent > gearingNotice
	if !taller && !shorter {
		return study.Finding{}, false
	}
	exact := drive.RearTeethFor(0, f.Drive.Pair.Front, f.Drive.StandardPair, f.Wheels.CircumferenceMM.Rear, f.Wheels.StandardCircumferenceMM.Rear)
	teeth := int(math.Round(exact))
	return study.Finding{
		State: verdict.Watch,
		Value: math.Abs(grown),
		Offer: func() []study.Remedy { return rearTeeth(f, teeth, "%d teeth behind restore the gearing") },
		Tell: func() study.Words {
			how, why := "taller", study.Text("First goes faster at walking pace, loaded pull-away suffers, and the clutch slips more.")
			if shorter {
				how, why = "shorter", "The engine turns faster at the cruise."
			}
			return study.Words{
				What: study.Say("The rear tyre rolls %s %% per turn: the gearing is %.1f %% %s than standard before a sprocket is touched.", study.Signed(grown, 1), math.Abs(f.Drive.ChangePercent), how),
				Why:  why,
				Do:   study.Say("%d teeth behind restore it (%.1f exactly).", teeth, exact),
			}
		},
	}, true
}

// rollHalf is half of the band, %, in which the rear tyre's growth is known where it is built
// another way than the standard one: both roll by a factor then, unless somebody measured.
func rollHalf(f *facts.All) float64 {
	now, was := f.Built.Tyre(parts.RearTyre), f.Standard.Tyre(parts.RearTyre)
	if now == nil || was == nil || now.Size.Construction == was.Size.Construction || now.RollOut.Known() && was.RollOut.Known() {
		return 0
	}
	return 2 * 100 * tyre.RollingHalf
}

// rearTeeth offers a rear sprocket, with the chain that it needs.
func rearTeeth(f *facts.All, teeth int, label string) []study.Remedy {
	pair := drive.Pair{Front: f.Drive.Pair.Front, Rear: teeth}
	if pair == f.Drive.Pair {
		return nil
	}
	return chains.PairRemedy(f, pair, fmt.Sprintf(label, teeth))
}

func chainLength(f *facts.All) (study.Finding, bool) {
	c := &f.Chain
	if c.Links == 0 || math.IsNaN(c.ShiftMM) || c.Adjuster.Reaches(c.ShiftMM) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Stop,
		Offer: func() []study.Remedy { return chains.Remedy(f, "Take %s") },
		Tell: func() study.Words {
			do := study.Text("No even number of links brings the axle into its slots: choose another pair.")
			if c.Best > 0 {
				do = study.Say("Take a chain of %d links: it puts the axle %s.", c.Best, shiftWords(c.BestShift))
			}
			return study.Words{
				What: study.Say("%d/%d on %d links wants the axle %s; its slots reach {%.0f mm} forward and {%.0f mm} back.",
					f.Drive.Pair.Front, f.Drive.Pair.Rear, c.Links, shiftWords(c.ShiftMM), c.Adjuster.ForwardMM, c.Adjuster.BackMM),
				Why: "The chain cannot be set: too slack it jumps and cases crack, too tight it breaks bearings.",
				Do:  do,
			}
		},
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

func axlePosition(f *facts.All) (study.Finding, bool) {
	c := &f.Chain
	if !(math.Abs(c.ShiftMM) > shiftNoticeMM) || !c.Adjuster.Reaches(c.ShiftMM) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: math.Abs(c.ShiftMM),
		Offer: func() []study.Remedy { return chains.Closer(f) },
		Tell: func() study.Words {
			why := study.Text("Further forward the tyre comes nearer to the swingarm, and as the chain wears the axle has more slot left.")
			if c.ShiftMM > 0 {
				why = study.Say("Further back leaves {%.0f mm} of slot for a wearing chain; the steering gets a little slower.", c.Adjuster.BackMM-c.ShiftMM)
			}
			return study.Words{
				What: study.Say("The chain sets the axle %s.", shiftWords(c.ShiftMM)),
				Why:  why,
				Do:   "Check brake hose, tyre clearance and wheel alignment; set the slack at the tightest point of the travel.",
			}
		},
	}, true
}

func chainSlider(f *facts.All) (study.Finding, bool) {
	if f.Drive.Pair.Front == 0 || f.Drive.Pair.Front >= f.Drive.StandardPair.Front || f.Built.Provides("hard-slider") {
		return study.Finding{}, false
	}
	rear := int(math.Round(f.Drive.Pair.Ratio() * float64(f.Drive.StandardPair.Front)))
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy {
			same := chains.PairRemedy(f, drive.Pair{Front: f.Drive.StandardPair.Front, Rear: rear}, fmt.Sprintf("%d/%d gives nearly the same gearing", f.Drive.StandardPair.Front, rear))
			return append(same, study.Providing(f, parts.ChainSlider, "hard-slider", "Fit %s")...)
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("%d teeth in front, standard is %d: the chain runs lower over the swingarm.", f.Drive.Pair.Front, f.Drive.StandardPair.Front),
				Why:  "It saws through the slider and then into the swingarm, and it bends tighter at each link.",
				Do:   study.Say("Look at the slider every {1000 km} and carry a spare one, or get the same gearing with %d/%d.", f.Drive.StandardPair.Front, rear),
			}
		},
	}, true
}

func smallFrontSprocket(f *facts.All) (study.Finding, bool) {
	if f.Drive.Pair.Front == 0 || f.Drive.Pair.Front >= cautionTeeth || f.Drive.Pair.Front >= f.Drive.StandardPair.Front {
		return study.Finding{}, false
	}
	state := verdict.Watch
	if f.Drive.Pair.Front < warnTeeth {
		state = verdict.Over
	}
	return study.Found(state, func() study.Words {
		return study.Words{
			What: study.Say("%d teeth in front.", f.Drive.Pair.Front),
			Why:  "Few teeth carry the whole pull and bend the chain hard: both wear quickly and run rough.",
			Do:   "Stay at 13 teeth or more where the rear can give the gearing instead.",
		}
	})
}

// soundDrive reports whether somebody has looked at all that stays of chain and sprockets,
// and found it good or, measured, less than half worn.
func soundDrive(f *facts.All) bool {
	sound := map[parts.Slot]bool{}
	for _, a := range f.Plan.Baseline.Answers {
		slot := plan.SlotOf(a.Check)
		w := a.Worn()
		used := (w.NewMM - w.NowMM) / (w.NewMM - w.LimitMM)
		sound[slot] = used < wornHalf || math.IsNaN(used) && (a.Verdict == baseline.Good || a.Verdict == baseline.Done)
	}
	return (sound[parts.Chain] || f.Built.Chosen(parts.Chain)) &&
		(sound[parts.RearSprocket] || f.Built.Chosen(parts.FrontSprocket) && f.Built.Chosen(parts.RearSprocket))
}

func wornTogether(f *facts.All) (study.Finding, bool) {
	sprockets := f.Built.Chosen(parts.FrontSprocket) || f.Built.Chosen(parts.RearSprocket)
	chain := f.Built.Chosen(parts.Chain)
	all := f.Built.Chosen(parts.FrontSprocket) && f.Built.Chosen(parts.RearSprocket) && chain
	run := f.Built.Bike.Odometer.In("km")
	if !sprockets && !chain || all || run < wornKm || soundDrive(f) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return chains.RestOfTheDrive(f) },
		Tell: func() study.Words {
			what := study.Text("New and old parts run together in the final drive.")
			if !math.IsNaN(run) {
				what = study.Say("New and old parts run together in the final drive of a bike with {%.0f km}.", run)
			}
			return study.Words{
				What: what,
				Why:  "A worn chain hooks new teeth within weeks, and worn teeth stretch a new chain.",
				Do:   "Measure the chain over 20 links (1–2 % is its limit) and look at the teeth; plan chain and both sprockets together if they are past half.",
			}
		},
	}, true
}

func speedometer(f *facts.All) (study.Finding, bool) {
	if f.Built.Provides("speedometer-corrected") {
		return study.Finding{}, false
	}
	changed := math.Abs(f.Speedo.Factor-1) > 1e-6
	low, high := changed && f.Speedo.Over < 0, changed && 100*(1+f.Speedo.Over) > drive.SpeedometerHighest(100)
	state := verdict.Over
	if unchecked := math.IsNaN(f.Speedo.Over) && f.Speedo.Factor < 1-speedoNotice; unchecked {
		state = verdict.Watch
	} else if !low && !high {
		return study.Finding{}, false
	}
	return study.Finding{
		State: state,
		Offer: func() []study.Remedy { return study.Providing(f, parts.Speedometer, "speedometer-corrected", "Fit %s") },
		Tell: func() study.Words {
			words := study.Words{
				What: study.Say("The speedometer shows %.1f %% less than it did, and nobody has checked what it showed.", 100*(1-f.Speedo.Factor)),
				Why:  "A speedometer must never show less than the true speed; trip and range figures err with it.",
				Do:   "Check it against a GPS; fit a corrector or have the pulse count changed.",
			}
			switch {
			case low:
				words.What = study.Say("The speedometer reads %.1f %% low.", -100*f.Speedo.Over)
			case high:
				words.What = study.Say("The speedometer reads %.1f %% high: more than is allowed.", 100*f.Speedo.Over)
			}
			return words
		},
	}, true
}
