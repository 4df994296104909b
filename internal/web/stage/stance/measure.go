package stance

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/draw"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// measureView is the worksheet of two people in a garage, and what was measured so far.
type measureView struct {
	desk.ReadingHead
	Has     bool
	Asks    string // what is missing to say more than millimetres
	As      []desk.OptionView
	Ends    []measureEnd
	Add     string
	Revoke  string
	Kept    string // the verdict on what was just kept
	Sat     []satRow
	Rates   []rateRow
	Drawing draw.Measured
	Formula string
}

type measureEnd struct {
	Name   string
	Fields []desk.FieldView
}

// satRow is one session, with what it says.
type satRow struct {
	ID, On, As, Note string
	Ends             []satEnd
	Leads            bool
}

type satEnd struct {
	Name, Free, Rider, Stiction, Says string
	State                             desk.StateView
}

// rateRow is what several loads say of an end.
type rateRow struct{ Name, Points, Wheel, Spring, Sheet, Residual string }

// As what the bike stood there: as it came with its rider alone, or a loadout with all of it
// or with the rider alone.
const (
	asItCame   = "came"
	aloneAfter = ":alone"
)

func standings(d *desk.Desk) []entry.Option {
	if d.Kind == store.OfBike {
		l := d.Plan.Loadouts[0]
		return []entry.Option{{Value: l.ID + aloneAfter, Name: l.Name + ", you alone"}, {Value: asItCame, Name: "As it came, you alone"}}
	}
	list := []entry.Option{}
	for _, l := range d.Plan.Loadouts {
		list = append(list, entry.Option{Value: l.ID, Name: "As planned, " + l.Name + ", everything on"}, entry.Option{Value: l.ID + aloneAfter, Name: "As planned, " + l.Name + ", you alone"})
	}
	return append(list, entry.Option{Value: asItCame, Name: "As it came, you alone"})
}

func measurePage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "measure", nil, measure(d, r.URL.Query().Get("kept"), nil, nil))
}

func measure(d *desk.Desk, kept string, form url.Values, errs desk.FormErrors) measureView {
	v := measureView{Has: d.Plan.Bike != nil, Add: d.Href("measure"), Revoke: d.Href("measure/revoke"), Formula: stance.LineFormula.Text}
	if !v.Has {
		return v
	}
	v.ReadingHead = desk.ReadingHeadOf(form, errs, "Which mark, how old the oil is.")
	v.As = desk.OptionsOf(standings(d), desk.Typed(form, "as", d.Loadout), "")
	for _, rear := range []bool{true, false} {
		end := measureEnd{Name: "Front"}
		if rear {
			end.Name = "Rear"
		}
		var blank logbook.SagEnd
		for _, f := range blank.Fields(rear) {
			end.Fields = append(end.Fields, desk.FieldOf(d.Units, f, orEmpty(form), errs))
		}
		v.Ends = append(v.Ends, end)
	}
	f := d.Report.Facts
	if math.IsNaN(f.Springs.Rear.LoadedKg) {
		v.Asks = "Without the mass on each wheel a sag is millimetres and no rate: kerb mass, what of it is in front, wheelbase, you."
	}
	v.sessions(d, kept)
	v.rates(d)
	return v
}

// orEmpty is a form that shows what was sent, and nothing where nothing was.
func orEmpty(form url.Values) url.Values {
	if form == nil {
		return url.Values{}
	}
	return form
}

// sessions lists what was measured, the newest first.
func (v *measureView) sessions(d *desk.Desk, kept string) {
	s := &d.Report.Facts.Springs
	live := d.Plan.ReadingsOf(logbook.SagRead)
	for _, r := range slices.Backward(live) {
		row := satRow{ID: r.ID, On: r.On, As: r.Sag().Name, Note: r.Note, Leads: r.ID == s.Rear.Measured.Reading || r.ID == s.Front.Measured.Reading}
		for _, rear := range []bool{true, false} {
			if end, ok := satEndOf(d, s.Of(rear), r.Sag().Of(rear), rear); ok {
				row.Ends = append(row.Ends, end)
			}
		}
		if r.ID == kept {
			v.Kept = "Kept. " + verdictOf(row.Ends)
		}
		v.Sat = append(v.Sat, row)
	}
}

// verdictOf joins what both ends say.
func verdictOf(ends []satEnd) string {
	var said []string
	for _, e := range ends {
		said = append(said, e.Name+": "+e.Says)
	}
	return strings.Join(said, " ")
}

// satEndOf is one end of a session in words.
func satEndOf(d *desk.Desk, e *facts.SpringEnd, m *logbook.SagEnd, rear bool) (satEnd, bool) {
	free, rider := m.FreeMM(), m.RiderMM()
	if math.IsNaN(free) && math.IsNaN(rider) {
		return satEnd{}, false
	}
	of := func(mm float64) string {
		if math.IsNaN(mm) {
			return "–"
		}
		text := d.Units.Quantity(mm, "mm")
		if share := e.Share(mm); !math.IsNaN(share) {
			text += fmt.Sprintf(", %.0f %%", 100*share)
		}
		return text
	}
	row := satEnd{Name: "Front", Free: of(free), Rider: of(rider), Stiction: of(math.NaN()), State: desk.StateOf("unknown")}
	if rear {
		row.Name = "Rear"
	}
	if stiction := m.StictionMM(); !math.IsNaN(stiction) {
		row.Stiction = "± " + d.Units.Quantity(stiction/2, "mm")
	}
	share := e.Share(rider)
	switch {
	case math.IsNaN(share) || math.IsNaN(e.Band.Low):
		row.Says = "the travel or the ground is not known."
	case share > e.Band.High+0.005:
		row.State = desk.StateOf("over")
		row.Says = fmt.Sprintf("%.0f %% of the travel, %s wanted: too soft; preload first%s.", 100*share, bandWords(e.Band), presetWords(d, e))
	case share < e.Band.Low-0.005:
		row.State = desk.StateOf("watch")
		row.Says = fmt.Sprintf("%.0f %% of the travel, %s wanted: too stiff; let it out first%s.", 100*share, bandWords(e.Band), presetWords(d, e))
	default:
		row.State = desk.StateOf("ok")
		row.Says = fmt.Sprintf("%.0f %% of the travel, where riders set it.", 100*share)
		row.Says += freeWords(e, free)
	}
	return row, true
}

// presetWords says what preload the model, corrected by now, would set.
func presetWords(d *desk.Desk, e *facts.SpringEnd) string {
	if math.IsNaN(e.WantPreloadMM) || e.WantPreloadMM < 0 {
		return ""
	}
	return ", to " + setWords(d, e, e.WantPreloadMM) + " with everything on"
}

// freeWords is the second half of the test, at a right rider sag.
func freeWords(e *facts.SpringEnd, free float64) string {
	switch share := e.Share(free); {
	case share < e.FreeBand.Low-0.01:
		return " Hardly any free sag with it: the spring is too soft, and held up by its preload."
	case share > e.FreeBand.High+0.01:
		return " Plenty of free sag with it: the spring is too stiff."
	case math.IsNaN(share):
		return " The free sag says whether the spring is the right one."
	}
	return " Free sag fits: so does the spring."
}

// pointsOf are the loads under which an end was measured with the spring and the preload of
// the latest session.
func pointsOf(p *plan.Plan, rear bool) (points []stance.Point, stiction []float64) {
	live := p.ReadingsOf(logbook.SagRead)
	var last *logbook.SagEnd
	for _, r := range slices.Backward(live) {
		e := r.Sag().Of(rear)
		if !e.Hanging.Known() {
			continue
		}
		if last == nil {
			last = e
		}
		const same = 0.05
		if math.Abs(e.Spring.In("N/mm")-last.Spring.In("N/mm")) > same || math.Abs(e.Preload.In("mm")-last.Preload.In("mm")) > same {
			continue
		}
		add := func(kg, mm, apart float64) {
			if !math.IsNaN(kg + mm) {
				if math.IsNaN(apart) {
					apart = 0
				}
				points, stiction = append(points, stance.Point{Kg: kg, MM: mm}), append(stiction, apart)
			}
		}
		add(e.FreeSprung.In("kg"), e.FreeMM(), math.Abs(e.FreeUp.In("mm")-e.FreeDown.In("mm")))
		add(e.Sprung.In("kg"), e.RiderMM(), math.Abs(e.RiderUp.In("mm")-e.RiderDown.In("mm")))
	}
	return points, stiction
}

// rates are what loads that differ say of the springs.
func (v *measureView) rates(d *desk.Desk) {
	var plots []draw.MeasuredEnd
	for _, rear := range []bool{false, true} {
		e, name := d.Report.Facts.Springs.Of(rear), "Front"
		if rear {
			name = "Rear"
		}
		points, stiction := pointsOf(d.Plan, rear)
		plot := draw.MeasuredEnd{Name: name, TravelMM: e.End.TravelMM}
		for i, p := range points {
			plot.Points = append(plot.Points, draw.MeasuredPoint{Kg: p.Kg, MM: p.MM, ApartMM: stiction[i]})
		}
		if line, err := stance.LineOf(points, e.End.Along); err == nil {
			rate := func(nmm float64) string { return d.Units.Quantity(nmm, "N/mm") }
			row := rateRow{Name: name, Points: strconv.Itoa(line.Points), Wheel: rate(line.WheelNmm), Spring: words.Unknown, Sheet: "not said", Residual: "two loads say nothing of it"}
			if !math.IsNaN(e.End.Ratio) {
				row.Spring = rate(stance.SpringOfRate(line.WheelNmm, e.End.Ratio))
			}
			if e.SetNmm > 0 {
				row.Sheet = rate(e.SetNmm)
			}
			if !math.IsNaN(line.ResidualMM) {
				row.Residual = d.Units.Quantity(line.ResidualMM, "mm")
			}
			v.Rates = append(v.Rates, row)
			plot.Line = func(kg float64) float64 { return line.MM(kg, e.End.Along) }
		}
		plots = append(plots, plot)
	}
	in := func(metric string, digits int) func(v float64) string {
		return func(v float64) string {
			own, symbol := d.Units.Convert(v, metric)
			if symbol == "in" {
				digits = 1
			}
			return words.Number(own, digits) + " " + symbol
		}
	}
	v.Drawing = draw.MeasuredSags(plots, in("mm", 0), in("kg", 0))
}

// fillSag enters one session.
func fillSag(d *desk.Desk, form url.Values, into *logbook.Reading, errs desk.FormErrors) error {
	sag := &logbook.Sag{}
	into.Read = sag
	for _, rear := range []bool{true, false} {
		desk.Enter(d.Units, sag.Of(rear).Fields(rear), form, errs)
	}
	return stoodAs(d, form.Get("as"), sag)
}

// stoodAs notes what stood on the springs: their masses, preload and rates as the plan has
// them.
func stoodAs(d *desk.Desk, as string, into *logbook.Sag) error {
	id, alone := strings.CutSuffix(as, aloneAfter)
	p := d.Plan
	if as == asItCame {
		p, id, alone = eval.AsItCame(d.Plan, d.Plan.Bike), d.Loadout, true
	}
	if _, err := p.Loadout(id); err != nil {
		id = d.Loadout
	}
	report, err := eval.EvaluateLoadout(p, d.Shelf, id, d.AsOf)
	if err != nil {
		return err
	}
	for _, o := range standings(d) {
		if o.Value == as {
			into.Name = o.Name
		}
	}
	for _, rear := range []bool{false, true} {
		e, end := report.Facts.Springs.Of(rear), into.Of(rear)
		kg := e.LoadedKg
		if alone {
			kg = e.AloneKg
		}
		if err := desk.NoteThen(2, desk.Then{Into: &end.FreeSprung, V: e.FreeKg, Unit: "kg"}, desk.Then{Into: &end.Sprung, V: kg, Unit: "kg"},
			desk.Then{Into: &end.Preload, V: e.SetMM, Unit: "mm"}, desk.Then{Into: &end.Spring, V: e.SetNmm, Unit: "N/mm"}); err != nil {
			return err
		}
	}
	return nil
}
