package electrics

import (
	"fmt"
	"math"
	"net/url"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// powerForm is what each accessory hangs on and when it is used.
var powerForm = desk.SettingsOf(desk.StageForm{Stage: "electrics", Title: "Wired as typed", Save: "Keep it so", Read: readPower}, powerOf)

type powerView struct {
	Has     bool
	Missing []desk.LinkView
	Says    string
	Read    string // day of the volts that lead over the sheet
	Lanes   []laneView
	Weather []desk.OptionView
	Night   desk.Slider
	Drawing draw.Supply
	Rows    []supplyRow
	Draws   []drawRow
	Working []desk.GaugeView
	Lists   []desk.OptionList
	desk.FormState
}

// laneView is what something can hang on, with what does.
type laneView struct {
	Feed, Name string
	Blocks     []blockView
}

// blockView is an accessory.
type blockView struct {
	Slot, Name, Draws string
	Feeds, Uses       []desk.OptionView
}

// supplyRow is one engine speed in numbers.
type supplyRow struct{ Name, RPM, Supply, Drawn, Margin string }

// drawRow is one accessory in numbers.
type drawRow struct{ Name, Full, Used, Mean, Parked string }

func (v powerView) Fields() []desk.FieldView {
	fields := append(desk.SliderFields([]desk.Slider{v.Night}), desk.Selected("weather", "Weather", v.Weather))
	for _, l := range v.Lanes {
		for _, b := range l.Blocks {
			fields = append(fields, desk.Selected("feed."+b.Slot, b.Name+", hangs on", b.Feeds), desk.Selected("use."+b.Slot, b.Name+", is on", b.Uses))
		}
	}
	return fields
}

func (v powerView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// readPower is the plan with its accessories wired as typed, and what changed in words.
func readPower(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	if d.Plan.Bike == nil {
		return &changed, nil, errs
	}
	summary := desk.Enter(d.Units, desk.Sent(keyed(changed.Brief.Fields(), []string{"night_share"}), form), form, errs)
	summary = append(summary, desk.Picked(&changed.Brief.Weather, "Weather", plan.Weathers(), form, "weather")...)
	summary = append(summary, rewired(d, &changed, func(w *plan.Wired, is plan.Wired, of string) []string {
		said := desk.Picked(&is.Feed, "hangs on", parts.Feeds(), form, "feed"+of)
		if len(said) > 0 {
			w.Feed = is.Feed
		}
		used := desk.Picked(&is.Use, "is on", parts.Uses(), form, "use"+of)
		if len(used) > 0 {
			w.Use = is.Use
		}
		return append(said, used...)
	})...)
	return &changed, summary, errs
}

// rewired changes what the rider has said of the wiring of the accessories of the loadout on
// view, and says in words what changed. Each is given as it is, and with the suffix that its
// keys have in a form.
func rewired(d *desk.Desk, changed *plan.Plan, change func(w *plan.Wired, is plan.Wired, of string) []string) (summary []string) {
	for _, f := range d.Plan.Build(d.Loadout).Fitted {
		e := f.Electric()
		if e == nil {
			continue
		}
		w := d.Plan.WiredIn(f.Slot)
		if said := change(&w, d.Plan.Wiring(f.Part, e), "."+string(f.Slot)); len(said) > 0 {
			changed.Wired = changed.Rewired(w)
			summary = append(summary, f.Part.Name+": "+strings.Join(said, ", "))
		}
	}
	return summary
}

// powerSlots are what the page offers.
var powerSlots = []parts.Slot{
	parts.Grips, parts.VestLead, parts.Navigator, parts.Socket, parts.BagLead, parts.Camera, parts.Inflator, parts.Monitor, parts.Horn, parts.Battery, parts.Stator, parts.Regulator,
}

func powerOf(d *desk.Desk, s desk.Shown) (desk.FormBody, error) {
	v := powerView{Has: s.After != nil, FormState: s.State}
	if !v.Has {
		return v, nil
	}
	c := &s.After.Facts.Charging
	v.lanes(c)
	brief := d.Plan.Brief
	v.Weather = desk.OptionsOf(plan.Weathers(), desk.Typed(s.Form, "weather", string(brief.Weather)), "not said")
	v.Night = d.SliderOf(keyed(brief.Fields(), []string{"night_share"})[0], 0, 100, 5, s.Form, s.Errs).Holding(d, 0, "%")
	v.charges(d, c)
	v.Says, v.Read = powerSays(c), readOn(s.After.Facts)
	v.Working = d.Gauges(s.After, "electrics", s.Tried, "charge-margin", "charge-idle", "idle-minutes", "parked-days")
	v.Missing = desk.MissingOf(v.Working)
	var err error
	v.Lists, err = d.ListsOf(powerSlots, "electrics", powerColumns, s.Tried)
	return v, err
}

// powerColumns are what parts of a slot move here.
func powerColumns(parts.Slot) []desk.Column {
	return []desk.Column{desk.Moves("Cost", "cost"), desk.Becomes("Charging then", "charge-margin"), desk.Becomes("At idle", "charge-idle"), desk.Becomes("Parked", "parked-days")}
}

// lanes put each accessory under what it hangs on.
func (v *powerView) lanes(c *facts.Charging) {
	seen := map[parts.Slot]bool{}
	for _, o := range parts.Feeds() {
		lane := laneView{Feed: o.Value, Name: o.Name}
		for _, a := range c.Draws {
			if string(a.Feed) == o.Value {
				block := blockView{Slot: string(a.Slot), Name: a.Part.Name, Draws: watts(a.FullW)}
				if !seen[a.Slot] { // several in one slot are wired alike
					block.Feeds, block.Uses = desk.OptionsOf(parts.Feeds(), string(a.Feed), ""), desk.OptionsOf(parts.Uses(), string(a.Use), "")
				}
				seen[a.Slot] = true
				lane.Blocks = append(lane.Blocks, block)
			}
		}
		v.Lanes = append(v.Lanes, lane)
	}
}

func watts(w float64) string {
	if math.IsNaN(w) {
		return "? W"
	}
	return words.Number(w, 0) + " W"
}

// charges are the three engine speeds, drawn and in numbers.
func (v *powerView) charges(d *desk.Desk, c *facts.Charging) {
	drawn := []draw.DrawnBy{{Name: "the bike itself", W: c.OwnW, Own: true}}
	for _, a := range c.Draws {
		drawn = append(drawn, draw.DrawnBy{Name: a.Part.Name, W: a.MeanW})
		row := drawRow{Name: a.Part.Name, Full: watts(a.FullW), Used: fmt.Sprintf("%.0f %%", 100*a.Used), Mean: watts(a.MeanW), Parked: "–"}
		if a.ParkedMA > 0 {
			row.Parked = words.Number(a.ParkedMA, 0) + " mA"
		}
		v.Draws = append(v.Draws, row)
	}
	var at []draw.SupplyAt
	for _, s := range []struct {
		name string
		is   facts.Charge
	}{{"Idle", c.Idle}, {"Trail", c.Trail}, {"Cruise", c.Cruise}} {
		if s.name == "Trail" && d.Plan.Brief.Mix().Said() && !(d.Plan.Brief.Mix().Loose() > 0) { // a trip without one
			continue
		}
		rpm, margin := words.Unknown, words.Unknown
		if !math.IsNaN(s.is.RPM) {
			rpm = d.Units.Quantity(s.is.RPM, "rpm")
		}
		if !math.IsNaN(s.is.MarginW) {
			margin = watts(s.is.MarginW) + " to spare"
			if s.is.MarginW < 0 {
				margin = watts(-s.is.MarginW) + " lacking"
			}
			at = append(at, draw.SupplyAt{Name: s.name, Text: rpm, SupplyW: s.is.SupplyW, SupplyText: watts(s.is.SupplyW), MarginText: margin})
		}
		v.Rows = append(v.Rows, supplyRow{s.name, rpm, watts(s.is.SupplyW), watts(c.OwnW + c.DrawnW), margin})
	}
	v.Drawing = draw.SupplyChart(at, drawn, func(w float64) string { return watts(w) })
}

// readOn is the day of the volts that lead over the sheet, "" where none do.
func readOn(f *facts.All) string {
	for _, r := range f.Metered {
		if r.ID == f.Charging.Read {
			return r.On
		}
	}
	return ""
}

// powerSays is the page in a sentence.
func powerSays(c *facts.Charging) string {
	if math.IsNaN(c.Mean.MarginW) {
		return "What the alternator gives at idle, on the trail and at the cruise, against what the bike and all that hangs on it take."
	}
	says := fmt.Sprintf("%s to spare on average over the hours of riding.", watts(c.Mean.MarginW))
	if c.Mean.MarginW < 0 {
		says = fmt.Sprintf("%s are lacking on average over the hours of riding: the battery pays for it until it is empty.", watts(-c.Mean.MarginW))
	}
	if c.Hour.MarginW < 0 && !math.IsNaN(c.Hour.Minutes) {
		says += fmt.Sprintf(" With everything on at the slowest going %s are lacking: %s min to a fifth off the battery.", watts(-c.Hour.MarginW), words.Number(c.Hour.Minutes, 0))
	}
	return says
}
