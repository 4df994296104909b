package stance

import (
	"fmt"
	"math"
	"net/url"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// heightForm is how the fork stands in its clamps, and where the rider sits.
var heightForm = desk.SettingsOf(desk.StageForm{Stage: "height", Title: "Turned as typed", Save: "Keep it so", Read: readHeight}, heightOf)

type heightView struct {
	Has     bool
	Missing []desk.LinkView
	Says    string
	Tried   bool
	Sliders []desk.Slider
	Sits    []desk.OptionView
	States  []desk.LinkView
	Riders  []desk.LinkView
	Drawing draw.TurnedView
	Rows    []heightRow
	Found   bool // it was found otherwise than it came
	Beds    []bedRow
	Where   string // on this trip it matters to reach the ground
	Working []desk.GaugeView
	Lists   []desk.OptionList
	desk.FormState
}

// heightRow is a measure as it came and as built.
type heightRow struct{ Name, Came, Found, Now string }

// bedRow is ground under the stand.
type bedRow struct {
	Name, Bears, Says string
	State             desk.StateView
}

func (v heightView) Fields() []desk.FieldView {
	return append(desk.SliderFields(v.Sliders), desk.Selected("sits", "Rider sits", v.Sits))
}

func (v heightView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// readHeight is the plan with the fork as typed, and what changed in words.
func readHeight(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed, l := loadoutOf(d)
	summary := desk.Enter(d.Units, desk.Sent(changed.Turned(), form), form, errs)
	return changed, append(summary, readSits(form, l, errs)...), errs
}

// heightStates are how the bike can be drawn.
var heightStates = []entry.Option{{Value: "loaded", Name: "everything on"}, {Value: "static", Name: "by itself"}, {Value: "pressed", Name: "all travel used"}}

// riderPoses are what its rider can do.
var riderPoses = []entry.Option{{Value: string(draw.LegsDown), Name: "legs down"}, {Value: string(draw.Seated), Name: "seated"}, {Value: string(draw.OnPegs), Name: "standing"}}

// chosen is the one of a list that an address names, or the first.
func chosen(list []entry.Option, value string) string {
	for _, o := range list {
		if o.Value == value {
			return value
		}
	}
	return list[0].Value
}

// heightSlots are what the page offers, in the order in which they are tried.
var heightSlots = []parts.Slot{parts.Seat, parts.Links, parts.SideStand, parts.StandPlateSlot, parts.Risers, parts.Pegs, parts.SteeringDamper, parts.Shock, parts.Fork}

func heightOf(d *desk.Desk, s desk.Shown) (desk.FormBody, error) {
	v := heightView{Has: s.After != nil, Tried: s.Touched(), FormState: s.State}
	if !v.Has {
		return v, nil
	}
	after, tried, form, errs := s.After, s.Tried, s.Form, s.Errs
	_, l := loadoutOf(d)
	for _, f := range s.Plan.Turned() {
		field := f
		if form == nil || len(errs) > 0 {
			field = d.Plan.Turned()[0]
		}
		v.Sliders = append(v.Sliders, d.SliderOf(field, -15, 25, 1, form, errs).Holding(d, 0, "mm"))
	}
	v.Sits = sitsOf(form, l)
	state, pose := chosen(heightStates, s.Query.Get("state")), chosen(riderPoses, s.Query.Get("rider"))
	for _, o := range heightStates {
		v.States = append(v.States, desk.LinkView{Name: o.Name, Href: d.Href("height", append(tried.Query(), "state", o.Value, "rider", pose)...), Current: o.Value == state})
	}
	for _, o := range riderPoses {
		v.Riders = append(v.Riders, desk.LinkView{Name: o.Name, Href: d.Href("height", append(tried.Query(), "state", state, "rider", o.Value)...), Current: o.Value == pose})
	}
	v.Drawing = draw.TurnedBike(turned(d, after, state, draw.RiderPose(pose)))
	v.Rows, v.Beds, v.Found = heightRows(d, after), bedRows(d, after), after.Facts.Plan.Baseline.Differs()
	v.Says, v.Where = heightSays(d, after), whereItMatters(d.Plan)
	v.Working = d.Gauges(after, "height", tried, "seat-reach", "clearance", "room-static", "room-pressed", "rake", "trail", "wheelbase", "stand-lean", "stand-pressure", "stand-short", "knee", "back-seated", "back-standing")
	v.Missing = desk.MissingOf(v.Working)
	var err error
	v.Lists, err = d.ListsOf(heightSlots, "height", heightColumns, tried)
	return v, err
}

// heightColumns are what parts of a slot move here.
func heightColumns(slot parts.Slot) []desk.Column {
	cost, reach, clearance := desk.Moves("Cost", "cost"), desk.Moves("Reach", "seat-reach"), desk.Moves("Clearance", "clearance")
	knee, back := desk.Moves("Knee", "knee"), desk.Moves("Back, standing", "back-standing")
	switch slot {
	case parts.Pegs:
		return []desk.Column{cost, knee, back}
	case parts.Risers:
		return []desk.Column{cost, back, desk.Becomes("Bars low by", "bar-short")}
	case parts.SideStand, parts.StandPlateSlot:
		return []desk.Column{cost, desk.Becomes("Leans then", "stand-lean"), desk.Becomes("Under its foot", "stand-pressure"), desk.Becomes("Short by", "stand-short")}
	case parts.Seat:
		return []desk.Column{cost, reach, clearance, knee}
	}
	return []desk.Column{cost, reach, clearance, desk.Becomes("Trail then", "trail"), desk.Becomes("Stand short by", "stand-short")}
}

// turned is what the drawing is made of.
func turned(d *desk.Desk, after *eval.LoadoutReport, state string, pose draw.RiderPose) draw.Turned {
	f, b, built := after.Facts, after.Facts.Plan.Bike, after.Facts.Built
	brief, loadout := &f.Plan.Brief, f.Loadout
	now := map[string]stance.Pose{"loaded": f.Poses.Loaded, "static": f.Poses.Static, "pressed": f.Poses.Pressed}[state]
	bar := b.BarHeight.In("mm")
	usual, _ := load.SpotOf(load.Rider)
	sits, _ := load.SpotOf(loadout.Sits.Place())
	t := draw.Turned{
		Bike: desk.Silhouette(b, after), Frame: f.Poses.Frame, Pose: now, Rider: pose,
		Body: fit.BodyOf(brief.Stature.In("mm"), brief.Inseam.In("mm")), InseamMM: brief.Inseam.In("mm"),
		SeatMM: b.SeatHeight.In("mm") + built.Figure(parts.SeatRise), PegMM: b.PegHeight.In("mm") - built.Figure(parts.PegDrop),
		Grip: fit.Place{
			X: fit.GripXMM(f.Poses.Frame.WheelbaseMM, f.Poses.Frame.FrontRadiusMM, f.Poses.Frame.RakeDeg, f.Poses.Frame.OffsetMM, bar) - built.Figure(parts.BarBack),
			Z: bar + built.Figure(parts.BarRise),
		},
		Back: f.Body.BackSeatedDeg, AheadMM: b.PegAheadMM(), SitsMM: (sits.Share - usual.Share) * f.Poses.Frame.WheelbaseMM,
		ReachMM: f.Reach.MM, Feet: fit.FeetAt(f.Reach.MM), Words: func(mm float64) string { return d.Units.Quantity(mm, "mm") },
	}
	if pose == draw.OnPegs {
		t.Back = f.Body.BackStandingDeg
	}
	return t
}

// heightRows hold the bike as it came, its rider alone, against the bike as built.
func heightRows(d *desk.Desk, after *eval.LoadoutReport) []heightRow {
	f := after.Facts
	came, err := d.On.Evaluate(eval.AsItCame(f.Plan, f.Plan.Bike))
	if err != nil {
		return nil
	}
	found := came
	if f.Plan.Baseline.Differs() {
		if found, err = d.On.Evaluate(eval.AsFound(f.Plan)); err != nil {
			return nil
		}
	}
	var rows []heightRow
	for _, g := range []struct {
		name string
		id   figure.ID
	}{
		{"Heel at a stop", "seat-reach"}, {"Under the engine, everything on", "clearance"}, {"… by itself", "room-static"}, {"… all travel used", "room-pressed"},
		{"Rake, by itself", "rake"}, {"Trail, by itself", "trail"}, {"Wheelbase, by itself", "wheelbase"}, {"Leans on its stand, loaded", "stand-lean"},
		{"Knee, seated", "knee"}, {"Back, seated", "back-seated"}, {"Back, standing", "back-standing"},
	} {
		now, _ := after.Figure(g.id)
		was, _ := came.Figure(g.id)
		stood, _ := found.Figure(g.id)
		rows = append(rows, heightRow{g.name, d.Units.Told(was), d.Units.Told(stood), d.Units.Told(now)})
	}
	return rows
}

// bedRows are grounds under the foot of the stand.
func bedRows(d *desk.Desk, after *eval.LoadoutReport) []bedRow {
	kPa := after.Facts.Stood.KPa
	if math.IsNaN(kPa) {
		return nil
	}
	var rows []bedRow
	for _, b := range stance.Beds() {
		row := bedRow{Name: b.Name, Bears: "more than it ever gets", Says: "holds", State: desk.StateOf("ok")}
		if !math.IsInf(b.BearsKPa, 1) {
			row.Bears = "about " + d.Units.Quantity(b.BearsKPa, "kPa")
		}
		if kPa > b.BearsKPa {
			row.Says, row.State = "sinks in", desk.StateOf("watch")
		}
		rows = append(rows, row)
	}
	return rows
}

// heightSays is the page in a sentence.
func heightSays(d *desk.Desk, after *eval.LoadoutReport) string {
	f := after.Facts
	if math.IsNaN(f.Reach.MM) {
		return "The bike turned about its wheels: seat, clearance, rake, trail, the stand, and you on it."
	}
	text := fmt.Sprintf("At a stop, everything on: %s on the ground.", fit.FeetAt(f.Reach.MM))
	if !math.IsNaN(f.Room.MM) {
		text += fmt.Sprintf(" %s under the engine, %s with all travel used.", d.Units.Quantity(f.Room.MM, "mm"), d.Units.Quantity(math.Max(0, f.Room.PressedMM), "mm"))
	}
	if change := f.Poses.RakeDegrees; math.Abs(change) >= 0.1 && !math.IsNaN(f.Poses.TrailMM) {
		how := "steeper"
		if change < 0 {
			how = "flatter"
		}
		text += fmt.Sprintf(" The steering head stands %s° %s: %s of trail.", words.Number(math.Abs(change), 1), how, d.Units.Quantity(f.Poses.TrailMM, "mm"))
	}
	return text
}

// whereItMatters says on which of the trip's grounds feet are put down.
func whereItMatters(p *plan.Plan) string {
	mix := p.Brief.Mix()
	if !mix.Said() {
		return ""
	}
	var places []string
	add := func(share float64, where string) {
		if share >= 0.05 {
			places = append(places, fmt.Sprintf("%s (%.0f %%)", where, 100*share))
		}
	}
	add(mix.Of(terrain.RoughGravel)+mix.Of(terrain.SingleTrack), "slow rock and single track")
	add(mix.Of(terrain.Sand)+mix.Of(terrain.Mud), "sand and mud")
	add(mix.Of(terrain.Paved), "stops and turns on the road")
	if climb := p.Brief.Climb; climb.Known() && climb.Base() >= 0.15 {
		places = append(places, "slopes, where one side is lower")
	}
	if len(places) == 0 {
		return ""
	}
	return "On this trip feet go down on: " + strings.Join(places, "; ") + ". Some ride happily on tiptoe, others sell a tall seat within a month."
}
