package tyres

import (
	"fmt"
	"math"
	"net/http"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// insideView is what goes into the tyres, and what mends them.
type insideView struct {
	Has     bool // a bike
	Lists   []desk.OptionList
	Schools []schoolView
	Hidden  int
}

// schoolView is one way of thinking, with what it would come to on this plan.
type schoolView struct{ Name, Says string }

// wheelSlots are the slots of one wheel.
type wheelSlots struct {
	tyre, tube, lock, sealant, wheel parts.Slot
	gains                            figure.ID // figure of what the plan adds to it
	front                            bool
}

var wheelsOfBike = []wheelSlots{
	{parts.RearTyre, parts.RearTube, parts.RearLock, parts.RearSealant, parts.RearWheel, "rear-unsprung", false},
	{parts.FrontTyre, parts.FrontTube, parts.FrontLock, parts.FrontSealant, parts.FrontWheel, "front-unsprung", true},
}

// rockAdvice is the pressure for rock at one wheel.
func rockAdvice(r *eval.LoadoutReport, front bool) float64 {
	for _, p := range r.Facts.Pressures {
		if p.Surface.ID != "rock" {
			continue
		}
		if front {
			return p.Front.Advice
		}
		return p.Rear.Advice
	}
	return math.NaN()
}

func insidePage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return s.PartsPage(w, r, "inside", func(d *desk.Desk, tried desk.Laid) (any, error) {
		view := insideView{Has: d.Plan.Bike != nil}
		if !view.Has {
			return view, nil
		}
		err := inside(d, &view, tried)
		return view, err
	})
}

func inside(d *desk.Desk, view *insideView, tried desk.Laid) error {
	built := d.Plan.Build(d.Loadout)
	for _, c := range tyre.Contents() {
		view.Schools = append(view.Schools, schoolView{c.Name, c.School})
	}
	for _, w := range wheelsOfBike {
		rim, tubeless := built.Rim(w.tyre), built.WheelBuild(w.tyre).Tubeless()
		fits := func(p *parts.Part) bool {
			f := p.Filling()
			switch {
			case f == nil:
				return true
			case f.Rim.Known() && rim.DiameterIn > 0 && f.Rim.In("in") != rim.DiameterIn:
				return false
			case f.RimWidth.Known() && rim.WidthIn > 0 && math.Abs(f.RimWidth.In("in")-rim.WidthIn) > 0.3:
				return false
			case tubeless && (f.Kind == tyre.RimLock || f.Kind == tyre.RimTape):
				return false
			}
			return true
		}
		onRock := desk.Column{Title: "On rock", Cell: func(u words.Units, diff eval.Difference) string {
			if filling := diff.After.Facts.Built.Filling(w.tube); filling != nil && filling.Kind == tyre.Foam {
				return "no air"
			}
			return pressureWords(u, rockAdvice(diff.After, w.front))
		}}
		columns := []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Wheel gains", w.gains), onRock}
		for _, slot := range []parts.Slot{w.tube, w.lock, w.sealant} {
			list, err := d.OptionsFor(slot, "inside", fits, columns, nil, tried)
			if err != nil {
				return err
			}
			view.Hidden += list.Hidden
			if len(list.Options) == 1 && slot == w.lock { // nothing but none
				continue
			}
			if slot == w.tube {
				info, _ := parts.KindOf(w.tyre)
				list.Name, list.Aside = "Inside the "+strings.ToLower(info.Name), rimWords(d, rim)
			}
			view.Lists = append(view.Lists, list)
		}
	}
	kits, err := d.OptionsFor(parts.TyreKit, "inside", desk.Every, []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Loaded mass", "loaded-mass")}, nil, tried)
	view.Lists = append(view.Lists, kits)
	return err
}

func pressureWords(u words.Units, kPa float64) string {
	if math.IsNaN(kPa) {
		return words.Unknown
	}
	return u.Quantity(kPa, "kPa")
}

// wheelsView is the wheels of the bike, and others for it.
type wheelsView struct {
	Has   bool
	Now   []wheelNow
	Lists []desk.OptionList
	Own   string // leads to the sheet of a spare tyre of one's own
}

// wheelNow is one wheel as built, and what its rim leaves to choose from.
type wheelNow struct {
	Name, Build, Rim string
	Kinds            []string // how many tyres of each kind there are for it
}

func wheelsPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return s.PartsPage(w, r, "wheels", func(d *desk.Desk, tried desk.Laid) (any, error) {
		view := wheelsView{Has: d.Plan.Bike != nil}
		if !view.Has {
			return view, nil
		}
		built := d.Plan.Build(d.Loadout)
		for _, wheel := range wheelsOfBike {
			view.Now = append(view.Now, wheelNowOf(d, built, wheel))
			fits := func(p *parts.Part) bool { return built.Fits(p) }
			list, err := d.OptionsFor(wheel.wheel, "wheels", fits, []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Wheel gains", wheel.gains)}, nil, tried)
			if err != nil {
				return nil, err
			}
			view.Lists = append(view.Lists, list)
		}
		for _, slot := range []parts.Slot{parts.SpareFront, parts.SpareRear} {
			list, err := d.OptionsFor(slot, "wheels", built.Goes, []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Mass", "loaded-mass"), desk.Becomes("Tyres last", "tyre-life")}, nil, tried)
			if err != nil {
				return nil, err
			}
			view.Lists = append(view.Lists, list)
		}
		view.Own = d.Href("part", "slot", string(parts.SpareRear))
		return view, nil
	})
}

func wheelNowOf(d *desk.Desk, built *plan.Built, w wheelSlots) wheelNow {
	info, _ := parts.KindOf(w.wheel)
	rim := built.Rim(w.tyre)
	v := wheelNow{Name: info.Name, Build: buildWords[built.WheelBuild(w.tyre)], Rim: rimWords(d, rim)}
	if rim.DiameterIn == 0 {
		return v
	}
	for _, c := range tyre.Characters() {
		n := 0
		for _, p := range d.Shelf {
			if p.Slot == w.tyre && parts.TyreKind.In(p) == c.Kind && parts.TyreCode.In(p).RimIn == rim.DiameterIn {
				n++
			}
		}
		v.Kinds = append(v.Kinds, fmt.Sprintf("%s %d", c.Name, n))
	}
	return v
}

var buildWords = map[parts.WheelBuild]string{
	"": "how it is built is not known", parts.Spoked: "spoked, with a tube", parts.SpokedTubeless: "spoked, tubeless", parts.Cast: "cast, tubeless",
}

// surfaceWords are the surfaces of the card.
func surfaceWords(d *desk.Desk, s terrain.Surface) string {
	share := s.Share(d.Plan.Brief.Mix())
	switch {
	case share == 0:
		return "not on this trip"
	case math.IsNaN(share):
		return "the brief does not say how much"
	}
	return fmt.Sprintf("%.0f %% of the trip", 100*share)
}
