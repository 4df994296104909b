package electrics

import (
	"fmt"
	"maps"
	"math"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	study "valiantmule/internal/core/study/electrics"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// wiringForm is what is laid to each accessory, and where the box sits.
var wiringForm = desk.SettingsOf(desk.StageForm{Stage: "wiring", Title: "Laid as typed", Save: "Keep it so", Read: readWiring}, wiringOf)

type wiringView struct {
	Has      bool
	Says     string
	Drawing  draw.OneLine
	ToBuy    string
	Circuits []circuitView
	Sits     []desk.OptionView
	HasBox   bool
	Off      string // what comes off to reach the box
	MainFuse string // of the box
	MainWire string
	Flash    flashView
	Working  []desk.GaugeView
	Lists    []desk.OptionList
	desk.FormState
}

// circuitView is an accessory's circuit: what it should be, and what is laid.
type circuitView struct {
	Slot, Name, Draws string
	Feed              string
	Fuse, Wire, Drop  string
	Plug, Relay       string
	Wrong             string // why none does
	Fields            []laidField
	Channels          []desk.OptionView
	Bad               bool
}

// laidField is a number of what is laid, with what holds while it is empty.
type laidField struct {
	desk.FieldView
	Stands string
}

// flashView is the pace of the indicators.
type flashView struct {
	PerMin, Lamps, Relay string
	State                desk.StateView
	Guess                string
	Pulses               draw.Pulses
}

func (v wiringView) Fields() []desk.FieldView {
	fields := []desk.FieldView{desk.Selected("box_sits", "The box sits", v.Sits)}
	for _, c := range v.Circuits {
		for _, f := range c.Fields {
			f.Label = c.Name + ": " + f.Label
			fields = append(fields, f.FieldView)
		}
		if len(c.Channels) > 0 {
			fields = append(fields, desk.Selected("channel."+c.Slot, c.Name+", hangs on", c.Channels))
		}
	}
	return fields
}

func (v wiringView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// readWiring is the plan with its circuits laid as typed, and what changed in words.
func readWiring(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	if d.Plan.Bike == nil {
		return &changed, nil, errs
	}
	summary := rewired(d, &changed, func(w *plan.Wired, _ plan.Wired, of string) []string {
		said := desk.Enter(d.Units, desk.Sent(w.Fields(of), form), gauged(form, "area"+of), errs)
		return append(said, desk.Picked(&w.Channel, "hangs on", channels, form, "channel"+of)...)
	})
	summary = append(summary, desk.Picked(&changed.BoxSits, "The box sits", plan.BoxPlaces(), form, "box_sits")...)
	return &changed, summary, errs
}

// gauge is a wire by its number, "AWG 16" or "16 awg".
var gauge = regexp.MustCompile(`(?i)^\s*(?:awg\s*#?(\d{1,2})|#?(\d{1,2})\s*(?:awg|ga|gauge))\s*$`)

// gauged is a form in which a wire that was typed by its gauge is written as a cross-section.
func gauged(form url.Values, key string) url.Values {
	m := gauge.FindStringSubmatch(form.Get(key))
	if m == nil {
		return form
	}
	n, err := strconv.Atoi(m[1] + m[2])
	if err != nil {
		return form
	}
	form = maps.Clone(form)
	form[key] = []string{strconv.FormatFloat(power.AWGAreaMM2(n), 'f', 2, 64) + " mm²"}
	return form
}

// byGauge reports whether the rider's wires go by number.
func byGauge(d *desk.Desk) bool { return d.Units.Of("mm") == "in" }

// channels are those that are no number.
var channels = []entry.Option{{Value: "", Name: "the next free channel"}, {Value: string(plan.OwnFuse), Name: "a fuse of its own"}}

// wiringSlots are what the page offers.
var wiringSlots = []parts.Slot{parts.PowerBox, parts.Flashing, parts.BagLead}

func wiringOf(d *desk.Desk, s desk.Shown) (desk.FormBody, error) {
	v := wiringView{Has: s.After != nil, FormState: s.State}
	if !v.Has {
		return v, nil
	}
	w := &s.After.Facts.Wiring
	v.circuits(d, s)
	v.HasBox, v.Off = w.Box != nil, study.ComesOff(s.Plan.BoxSits)
	v.MainFuse, v.MainWire = feedOf(w)
	v.Sits = desk.OptionsOf(plan.BoxPlaces(), desk.Typed(s.Form, "box_sits", string(d.Plan.BoxSits)), "not said")
	v.Drawing = oneLine(d, &s.After.Facts.Charging, w)
	v.ToBuy = toBuy(d, w)
	v.Flash = flashOf(d, s)
	v.Says = wiringSays(w)
	v.Working = d.Gauges(s.After, "wiring", s.Tried, "flash-rate", "parked-days")
	var err error
	v.Lists, err = d.ListsOf(wiringSlots, "wiring", wiringColumns, s.Tried)
	return v, err
}

// wiringColumns are what parts of a slot move here.
func wiringColumns(slot parts.Slot) []desk.Column {
	if slot == parts.Flashing {
		return []desk.Column{desk.Moves("Cost", "cost"), desk.Becomes("Flashes then", "flash-rate")}
	}
	return []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Mass", "loaded-mass"), desk.Becomes("Charging then", "charge-margin"), desk.Becomes("Parked", "parked-days")}
}

// circuits are the rows of the form.
func (v *wiringView) circuits(d *desk.Desk, s desk.Shown) {
	w := &s.After.Facts.Wiring
	for i := range w.Circuits {
		c := &w.Circuits[i]
		slot := string(c.Draw.Slot)
		row := circuitView{
			Slot: slot, Name: c.Draw.Part.Name, Draws: watts(c.Watts) + ", " + amps(c.Amps), Feed: entry.NameOf(parts.Feeds(), string(c.Draw.Feed)),
			Bad: c.Wrong(),
		}
		if c.Err != nil {
			row.Wrong = c.Err.Error()
		} else {
			row.Fuse, row.Wire, row.Drop, row.Plug = fuseWords(c.FuseA), wireWords(c.Wire.AreaMM2), dropWords(c.DropV, c.DropPercent()), c.Plug
			if c.Relayed() {
				row.Relay = "relay"
			}
		}
		if slices.ContainsFunc(v.Circuits, func(before circuitView) bool { return before.Slot == slot }) { // wired as the first there
			v.Circuits = append(v.Circuits, row)
			continue
		}
		kept := d.Plan.WiredIn(c.Draw.Slot)
		stands := []string{wireLength(d, c.LengthM), "", ""}
		if c.Err == nil {
			stands[1], stands[2] = sizeWords(d, c.Wire.AreaMM2), fuseWords(c.FuseA)
		}
		for j, f := range kept.Fields("." + slot) {
			row.Fields = append(row.Fields, laidField{desk.FieldOf(d.Units, f, s.Form, s.Errs), stands[j]})
		}
		if w.Box != nil {
			row.Channels = channelsOf(w, desk.Typed(s.Form, "channel."+slot, string(kept.Channel)), c)
		}
		v.Circuits = append(v.Circuits, row)
	}
}

// channelsOf lists the box's channels for an accessory.
func channelsOf(w *facts.Wiring, typed string, c *facts.Circuit) []desk.OptionView {
	next := "next free"
	if typed == "" {
		next = "next free: none"
		if c.Channel > 0 {
			next = fmt.Sprintf("next free: %d", c.Channel)
		}
	}
	options := []entry.Option{{Value: "", Name: next}, channels[1]}
	for n := 1; n <= w.Box.Count(); n++ {
		options = append(options, entry.Option{Value: strconv.Itoa(n), Name: fmt.Sprintf("channel %d", n)})
	}
	if !entry.Among(options, typed) { // of a larger box
		options = append(options, entry.Option{Value: typed, Name: "channel " + typed + ", not on this box"})
	}
	return desk.OptionsOf(options, typed, "")
}

func amps(a float64) string { return words.Number(a, 1) + " A" }

func fuseWords(a float64) string { return strconv.FormatFloat(a, 'f', -1, 64) + " A" }

// wireLength is one with a decimal: half a metre more is a size of wire.
func wireLength(d *desk.Desk, m float64) string {
	own, symbol := d.Units.Convert(m, "m")
	return words.Number(own, 1) + " " + symbol
}

func areaWords(mm2 float64) string { return strconv.FormatFloat(mm2, 'f', -1, 64) + " mm²" }

// sizeWords are a wire's size as the rider buys it: the gauge that is at least as thick, or
// the cross-section.
func sizeWords(d *desk.Desk, mm2 float64) string {
	const rounded = 0.01 // a gauge typed and kept with two decimals is still that gauge
	if n := power.AWGFor(mm2 * (1 - rounded)); byGauge(d) && n > 0 {
		return fmt.Sprintf("AWG %d", n)
	}
	return areaWords(mm2)
}

// wireWords are a cross-section and the gauge that is at least as thick.
func wireWords(mm2 float64) string {
	text := areaWords(mm2)
	if n := power.AWGFor(mm2); n > 0 {
		text += fmt.Sprintf(", AWG %d", n)
	}
	return text
}

func dropWords(volts, percent float64) string {
	return words.Number(volts, 2) + " V, " + words.Number(percent, 1) + " %"
}

// feedOf is fuse and wire from the battery to the box.
func feedOf(w *facts.Wiring) (fuse, wire string) {
	switch {
	case w.Box == nil || w.BoxAmps == 0:
		return "", ""
	case w.MainErr != nil:
		return "none", w.MainErr.Error()
	}
	return fuseWords(w.Main.FuseA), wireWords(w.Main.Wire.AreaMM2)
}

// oneLine draws what hangs on what.
func oneLine(d *desk.Desk, charging *facts.Charging, w *facts.Wiring) draw.OneLine {
	battery := "battery"
	if !math.IsNaN(charging.BatteryAh) {
		battery = strconv.FormatFloat(charging.BatteryAh, 'f', -1, 64) + " Ah"
	}
	list, taken := circuitsDrawn(d, w)
	waits := ""
	if w.Box != nil {
		for n := 1; n <= w.Box.Count(); n++ {
			if !taken[n] {
				list = append(list, draw.OneCircuit{Channel: strconv.Itoa(n), Spare: true})
			}
		}
		slices.SortStableFunc(list, func(a, b draw.OneCircuit) int {
			m, n := plan.Channel(a.Channel).Number(), plan.Channel(b.Channel).Number()
			return m - n
		})
		if w.Box.Delay.Known() {
			waits = "waits " + w.Box.Delay.String()
		}
	}
	fuse, _ := feedOf(w)
	return draw.OneLineOf(battery, w.BoxName, fuse, waits, list)
}

func circuitsDrawn(d *desk.Desk, w *facts.Wiring) (list []draw.OneCircuit, taken map[int]bool) {
	taken = map[int]bool{}
	for i := range w.Circuits {
		c := &w.Circuits[i]
		row := draw.OneCircuit{
			Name: c.Draw.Part.Name, Draws: watts(c.Watts) + " · " + amps(c.Amps), Always: c.Draw.Feed == parts.FeedAlways,
			Relay: c.Relayed(), Feed: map[parts.Feed]string{parts.FeedIgnition: "ignition", parts.FeedEngine: "engine", parts.FeedAlways: "always live"}[c.Draw.Feed],
		}
		if c.Channel > 0 {
			row.Channel, taken[c.Channel] = strconv.Itoa(c.Channel), true
		}
		row.Fuse = fuseWords(c.InA())
		area := c.Wire.AreaMM2
		if c.LaidMM2 > 0 {
			area = c.LaidMM2
		}
		row.Wire = sizeWords(d, area) + " · " + wireLength(d, c.LengthM)
		if row.Bad = c.Wrong(); c.Err != nil {
			row.Fuse, row.Wire = "none", "no wire does"
		}
		list = append(list, row)
	}
	return list, taken
}

// toBuy is the wire and the fuses that are still to be had, in words.
func toBuy(d *desk.Desk, w *facts.Wiring) string {
	reels, fuses := w.ToBuy()
	var list []string
	for _, r := range reels {
		list = append(list, wireLength(d, r.LengthM)+" of "+sizeWords(d, r.AreaMM2))
	}
	if len(fuses) > 0 {
		var blades []string
		for _, a := range fuses {
			blades = append(blades, fuseWords(a))
		}
		list = append(list, "blades of "+strings.Join(blades, ", ")+" and a spare of each")
	}
	return strings.Join(list, "; ")
}

// flashOf is the pace of the indicators in words and pulses.
func flashOf(d *desk.Desk, s desk.Shown) flashView {
	f := &s.After.Facts.Wiring.Flash
	gauge, _ := s.After.Figure("flash-rate")
	v := flashView{
		PerMin: d.Units.Told(gauge), State: desk.StateOf(gauge.State),
		Lamps: fmt.Sprintf("%s in front, %s behind", watts(f.FrontW), watts(f.RearW)), Relay: entry.NameOf(parts.FlasherKinds(), string(f.Relay)),
		Pulses: draw.PulsesOf(f.PerMin, power.FlashLeast, power.FlashMost),
	}
	if f.Relay == power.LoadSensing {
		v.Relay += fmt.Sprintf(", made for %s a side", watts(f.RatedW))
	}
	if f.GuessedBike {
		v.Guess = "The bike's own bulbs and relay are taken as is usual: 10 W, one that senses the load."
	}
	return v
}

// wiringSays is the page in a sentence.
func wiringSays(w *facts.Wiring) string {
	if len(w.Circuits) == 0 {
		return "Fuse, wire, plug and relay for whatever hangs on the bike, and where it hangs."
	}
	bad, unsaid := 0, 0
	for i := range w.Circuits {
		c := &w.Circuits[i]
		if c.Wrong() {
			bad++
		}
		if !(c.LaidMM2 > 0) {
			unsaid++
		}
	}
	text := fmt.Sprintf("%d %s", len(w.Circuits), desk.Plural(len(w.Circuits), "circuit"))
	if w.Box != nil {
		text += fmt.Sprintf(", %d %s spare on the box", w.Spare, desk.Plural(w.Spare, "channel"))
	}
	if bad > 0 {
		text += fmt.Sprintf(", %d of them wrong", bad)
	}
	if unsaid > 0 {
		text += fmt.Sprintf("; of %d nobody has said what is laid", unsaid)
	}
	return text + "."
}
