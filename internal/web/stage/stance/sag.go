package stance

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// sagForm is the preload, the air and the seat of the loadout on view.
var sagForm = desk.SettingsOf(desk.StageForm{Stage: "stance", Title: "Set as typed", Save: "Keep this setting", Read: readSag}, sagOf)

type sagView struct {
	Has      bool
	Missing  []desk.LinkView
	Says     string
	Loadout  string
	Tried    bool
	Sliders  []desk.Slider
	Sits     []desk.OptionView
	Uses     []desk.OptionView
	Travels  draw.Travels
	Rows     []sagRow
	Measured []measuredView
	Revoke   string
	Working  []desk.GaugeView
	Lists    []desk.OptionList
	desk.FormState
}

// sagRow is a line of the table beside the drawing.
type sagRow struct{ Name, Front, Rear string }

// measuredView is a sag that was measured, and what it made of the sheet.
type measuredView struct{ End, Name, Says string }

func (v sagView) Fields() []desk.FieldView {
	return append(desk.SliderFields(v.Sliders), desk.Selected("sits", "Rider sits", v.Sits), desk.Selected("springs_for", "Springs are set for", v.Uses))
}

func (v sagView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// readSag is the plan with the loadout set as typed, and what changed in words.
func readSag(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed, l := loadoutOf(d)
	summary := desk.Enter(d.Units, desk.Sent(l.Setting.Fields(), form), form, errs)
	summary = append(summary, readSits(form, l, errs)...)
	if len(summary) > 0 {
		summary[0] = l.Name + ": " + summary[0]
	}
	if use := form.Get("springs_for"); use != "" && !entry.Among(plan.SpringUses(), use) {
		errs["springs_for"] = "choose one of them"
		return changed, summary, errs
	}
	summary = append(summary, desk.Picked(&changed.Brief.SpringsFor, "Springs are set for", plan.SpringUses(), form, "springs_for")...)
	return changed, summary, errs
}

// sagSlots are what the page offers, in the order in which they are tried.
var sagSlots = []parts.Slot{parts.ShockSpring, parts.ForkSprings, parts.ShockAdjuster, parts.ForkCaps, parts.ForkOil, parts.ForkValving, parts.ShockValving, parts.Shock, parts.Fork}

func sagOf(d *desk.Desk, shown desk.Shown) (desk.FormBody, error) {
	v := sagView{Has: shown.After != nil, Tried: shown.Touched(), Revoke: d.Href("stance/measured"), FormState: shown.State}
	if !v.Has {
		return v, nil
	}
	after := shown.After
	v.form(d, after, shown.Form, shown.Errs)
	s, was := &after.Facts.Springs, &d.Report.Facts.Springs
	mm := func(v float64) string { return d.Units.Quantity(v, "mm") }
	v.Travels = draw.SagColumns(travelEnd("Front", &s.Front, &was.Front, v.Tried, mm), travelEnd("Rear", &s.Rear, &was.Rear, v.Tried, mm), mm)
	v.Rows = sagRows(d, s)
	v.Says = sagSays(d, s)
	for _, rear := range []bool{false, true} {
		if m, ok := measured(d, s.Of(rear), rear); ok {
			v.Measured = append(v.Measured, m)
		}
	}
	v.Working = d.Gauges(after, "stance", shown.Tried, "sag-front", "sag-rear", "free-front", "free-rear", "preload-front", "preload-rear", "spring-front", "spring-rear")
	v.Missing = desk.MissingOf(v.Working)
	columns := []desk.Column{desk.Moves("Cost", "cost"), desk.Becomes("Front then", "sag-front"), desk.Becomes("Rear then", "sag-rear"), desk.Moves("Reach", "seat-reach"), desk.Moves("Own hours", "own-hours")}
	var err error
	v.Lists, err = d.ListsOf(sagSlots, "stance", func(parts.Slot) []desk.Column { return columns }, shown.Tried)
	return v, err
}

// form are the sliders and choices.
func (v *sagView) form(d *desk.Desk, after *eval.LoadoutReport, form url.Values, errs desk.FormErrors) {
	_, l := loadoutOf(d)
	v.Loadout = l.Name
	f := after.Facts
	for i, field := range l.Setting.Fields() {
		low, high, step, metric := 0.0, 40.0, 1.0, "mm"
		var holds float64 // where the slider stands while nothing is typed
		switch field.Key {
		case "fork_air":
			if !f.Built.Provides("fork-valves") && !d.Plan.Bike.ForkAir.Known() && !l.Setting.ForkAir.Known() {
				continue
			}
			high, step, metric, holds = 150, 5, "kPa", f.Springs.Front.End.Air.KPa
			if math.IsNaN(holds) {
				holds = 0
			}
		default:
			e := f.Springs.Of(i == 1)
			holds = e.End.PreloadMM
			if most := e.MostMM(); most > e.Adjuster.LeastMM() {
				low, high = e.Adjuster.LeastMM(), most
			}
		}
		s := d.SliderOf(field, low, high, step, form, errs)
		if !math.IsNaN(holds) {
			s = s.Holding(d, holds, metric)
		}
		v.Sliders = append(v.Sliders, s)
	}
	v.Sits = sitsOf(form, l)
	byGround := "by the ground"
	if mix := d.Plan.Brief.Mix(); mix.Said() {
		byGround = "by the ground: " + strings.ToLower(entry.NameOf(plan.SpringUses(), string(stance.UseOf(mix.Loose()))))
	}
	v.Uses = desk.OptionsOf(plan.SpringUses(), desk.Typed(form, "springs_for", string(d.Plan.Brief.SpringsFor)), byGround)
}

// travelEnd is one end for its column.
func travelEnd(name string, e, was *facts.SpringEnd, tried bool, mm func(float64) string) draw.TravelEnd {
	end := draw.TravelEnd{
		Name: name, TravelMM: e.End.TravelMM, FreeMM: e.FreeMM, AloneMM: e.AloneMM, LoadedMM: e.LoadedMM, TriedMM: math.NaN(),
		BandLow: e.Band.Low, BandHigh: e.Band.High, FreeLow: e.FreeBand.Low, FreeHigh: e.FreeBand.High,
		PreloadMM: e.End.PreloadMM, WantMM: e.WantPreloadMM, LeastMM: e.Adjuster.LeastMM(), MostMM: e.MostMM(),
		BandWords: bandWords(e.Band), WantsWords: mm(e.WantPreloadMM),
	}
	if tried && math.Abs(e.LoadedMM-was.LoadedMM) >= 0.5 {
		end.LoadedMM, end.TriedMM = was.LoadedMM, e.LoadedMM
	}
	return end
}

func bandWords(b stance.Band) string {
	if math.IsNaN(b.Low) {
		return ""
	}
	return fmt.Sprintf("%.0f–%.0f %%", 100*b.Low, 100*b.High)
}

// setWords is a preload with the count of its adjuster.
func setWords(d *desk.Desk, e *facts.SpringEnd, mm float64) string {
	switch {
	case math.IsNaN(mm):
		return words.Unknown
	case mm < 0:
		return "too stiff without any"
	}
	text := d.Units.Quantity(mm, "mm")
	if n, ok := e.Adjuster.Count(mm); ok && n > -0.5 && !(mm > e.MostMM()+0.5) {
		text += ", " + words.Number(math.Max(0, n), 0) + " " + string(e.Adjuster.By)
	}
	return text
}

// sagRows are both ends in numbers.
func sagRows(d *desk.Desk, s *facts.Springs) []sagRow {
	both := func(name string, of func(e *facts.SpringEnd) string) sagRow {
		return sagRow{name, of(&s.Front), of(&s.Rear)}
	}
	length := func(v float64) string {
		if math.IsNaN(v) {
			return words.Unknown
		}
		return d.Units.Quantity(v, "mm")
	}
	share := func(mm func(e *facts.SpringEnd) float64) func(e *facts.SpringEnd) string {
		return func(e *facts.SpringEnd) string {
			if math.IsNaN(mm(e)) {
				return words.Unknown
			}
			return fmt.Sprintf("%s, %.0f %%", length(mm(e)), 100*e.Share(mm(e)))
		}
	}
	rate := func(v float64) string {
		if math.IsNaN(v) {
			return words.Unknown
		}
		return d.Units.Quantity(v, "N/mm")
	}
	return []sagRow{
		both("Travel", func(e *facts.SpringEnd) string { return length(e.End.TravelMM) }),
		both("By itself, full tank", share(func(e *facts.SpringEnd) float64 { return e.FreeMM })),
		both("You on it", share(func(e *facts.SpringEnd) float64 { return e.AloneMM })),
		both("Everything on it", share(func(e *facts.SpringEnd) float64 { return e.LoadedMM })),
		both("Riders set it to", func(e *facts.SpringEnd) string { return bandWords(e.Band) }),
		both("Left to the bump", func(e *facts.SpringEnd) string { return length(e.End.TravelMM - e.LoadedMM) }),
		both("Preload as set", func(e *facts.SpringEnd) string { return setWords(d, e, e.End.PreloadMM) }),
		both("… this load wants", func(e *facts.SpringEnd) string { return setWords(d, e, e.WantPreloadMM) }),
		both("… you alone", func(e *facts.SpringEnd) string { return setWords(d, e, e.AlonePreloadMM) }),
		both("Spring as built", func(e *facts.SpringEnd) string {
			text := rate(e.End.Spring.Nmm)
			if e.End.Spring.SecondNmm > 0 {
				text += ", then " + rate(e.End.Spring.SecondNmm)
			}
			return text
		}),
		both("… for this load", func(e *facts.SpringEnd) string { return rate(e.WantNmm) }),
	}
}

// sagSays is the page in a sentence.
func sagSays(d *desk.Desk, s *facts.Springs) string {
	if s.Use == "" {
		return "How far each wheel is pushed in: by itself, by you, by everything on it."
	}
	end := func(name string, e *facts.SpringEnd) string {
		share := e.Share(e.LoadedMM)
		text := name + " unknown"
		if !math.IsNaN(share) {
			text = fmt.Sprintf("%s %.0f %% (%s)", name, 100*share, bandWords(e.Band))
		}
		switch {
		case e.RunsOut():
			text += fmt.Sprintf(", wants %s of preload where the adjuster ends at %s", d.Units.Quantity(e.WantPreloadMM, "mm"), d.Units.Quantity(e.MostMM(), "mm"))
		case share > e.Band.High+0.005, share < e.Band.Low-0.005:
			text += ", wants a preload of " + setWords(d, e, e.WantPreloadMM)
		}
		return text
	}
	use := map[stance.Use]string{stance.Trail: "the trail", stance.Mixed: "road and trail", stance.Road: "the road"}[s.Use]
	return fmt.Sprintf("Set for %s, with everything on: %s; %s.", use, end("front", &s.Front), end("rear", &s.Rear))
}

// measured says what a measured sag made of the sheet.
func measured(d *desk.Desk, e *facts.SpringEnd, rear bool) (measuredView, bool) {
	v, sag := measuredView{End: "front", Name: "Front"}, d.Plan.Bike.FrontSag
	if rear {
		v, sag = measuredView{End: "rear", Name: "Rear"}, d.Plan.Bike.RearSag
	}
	if !sag.Known() {
		return v, false
	}
	v.Says = v.Name + " sag measured, you alone: " + d.Units.Quantity(sag.In("mm"), "mm") + ". It leads."
	c := e.Corrected
	switch {
	case e.Doubtful:
		v.Says = v.Name + " sag measured, you alone: " + d.Units.Quantity(sag.In("mm"), "mm") + ". It does not go with the spring, and is left out."
	case c.Of == stance.Preload:
		v.Says += " Computed with a preload of " + d.Units.Quantity(c.Now, "mm") + " instead of " + d.Units.Quantity(c.Was, "mm") + "."
	case c.Of == stance.Ratio:
		v.Says += fmt.Sprintf(" Computed with a shock over wheel travel of %.3f instead of %.3f.", c.Now, c.Was)
	case c.Of == stance.Rate:
		v.Says += " Computed with a spring of " + d.Units.Quantity(c.Now, "N/mm") + " instead of " + d.Units.Quantity(c.Was, "N/mm") + "."
	}
	return v, true
}

// unmeasure takes a measured sag out of the sheet.
func unmeasure(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return desk.SeeOther(w, r, d.Href("stance"))
	}
	changed, bike := *d.Plan, *d.Plan.Bike
	changed.Bike = &bike
	sag, name := &bike.FrontSag, "Front sag"
	if r.PostFormValue("end") == "rear" {
		sag, name = &bike.RearSag, "Rear sag"
	}
	was := sag.String()
	*sag = unit.Length{}
	if err := s.Save(r, d, r.PostFormValue("base"), &changed, desk.ChangedWords(name+" as measured", was, "")); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("stance"))
}
