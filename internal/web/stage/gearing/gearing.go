package gearing

import (
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// gearingView is the sprocket field and the fan.
type gearingView struct {
	Has      bool // sprockets to speak of
	Shaft    bool
	Missing  []desk.LinkView
	Field    draw.Field
	Marks    []markView
	Table    []fieldRow
	Rears    []int
	Hint     string
	Speed    string // unit of road speeds
	Tooth    string // one front tooth in rear teeth
	Fan      draw.Fan
	FanTable []gearRow
	Working  []desk.GaugeView

	Altitudes   []desk.LinkView
	SteepGround string // that the field's slopes are on
}

// markView is a mark of the field with its link. The field has some hundred of
// them, so what the template would work out is worked out here.
type markView struct {
	X, Y, Front, Rear string
	Class             string
	Href, Title       string
	Standard, Weak    bool
	Under             string // class and shape of the sign under it, "" for none
}

type fieldRow struct {
	Front int
	Cells []fieldCell
}

type fieldCell struct{ Class, Pace, RPM, Words string }

type gearRow struct{ Gear, From, To, Cruise, Step string }

func gearingPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	bench, tried, err := d.Tried(r, "gearing")
	if err != nil {
		return err
	}
	view, err := gearingOf(d, r.URL.Query().Get("altitude"), tried)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "gearing", bench, view)
}

func gearingOf(d *desk.Desk, altitude string, tried desk.Laid) (gearingView, error) {
	v := gearingView{Speed: d.Units.Of("km/h")}
	p, at := atAltitude(d.Plan, altitude)
	v.Shaft = p.Bike != nil && p.Bike.Shaft()
	if p.Bike != nil {
		v.fan(d, d.After)
	}
	if !d.Wants("main") {
		return v, nil
	}
	v.working(d)
	if v.Shaft {
		return v, nil
	}
	before, err := d.On.Evaluate(p)
	if err != nil {
		return v, err
	}
	field := gearing.Sprockets(before.Facts)
	if len(field.Pairs) == 0 {
		v.Missing = []desk.LinkView{{Name: "sprocket teeth of the bike", Href: d.Href("sheet")}}
		if p.Bike == nil {
			v.Missing = []desk.LinkView{{Name: "a bike", Href: d.Href("bike")}}
		}
		return v, nil
	}
	v.Has = true
	v.Field = draw.SprocketField(shown(d, field))
	var keep []string
	if at != "" {
		keep = []string{"altitude", at}
	}
	for _, m := range v.Field.Marks {
		v.Marks = append(v.Marks, mark(d, m, tried, keep))
	}
	v.Altitudes = altitudes(d, "gearing", at, tried.Query())
	v.SteepGround = p.Brief.SteepGround().Name
	v.table(d, field)
	v.Hint = hint(d.Units, field)
	v.Tooth = words.Number(field.RearForOneFront, 1)
	return v, nil
}

func (v *gearingView) working(d *desk.Desk) {
	v.Working = d.Gauges(d.Report, "gearing", desk.Laid{}, "cruise-rpm", "crawl-speed", "gear-change", "crawl-pull", "hold-gear", "speedometer")
}

// shown is a field with its road speeds in the rider's unit, to be drawn.
func shown(d *desk.Desk, field gearing.SprocketField) gearing.SprocketField {
	for _, v := range []*float64{&field.PaceByRatio, &field.PaceLimitKmh, &field.CruiseKmh} {
		*v, _ = d.Units.Convert(*v, "km/h")
	}
	return field
}

// shownGears is shown for the fan.
func shownGears(d *desk.Desk, gears []gearing.GearRange) []gearing.GearRange {
	gears = slices.Clone(gears)
	for i := range gears {
		gears[i].FromKmh, _ = d.Units.Convert(gears[i].FromKmh, "km/h")
		gears[i].ToKmh, _ = d.Units.Convert(gears[i].ToKmh, "km/h")
	}
	return gears
}

func mark(d *desk.Desk, m draw.Mark, tried desk.Laid, keep []string) markView {
	p, u := m.Figures, d.Units
	v := markView{
		X: m.X.String(), Y: m.Y.String(), Front: strconv.Itoa(p.Pair.Front), Rear: strconv.Itoa(p.Pair.Rear),
		Href: d.Href("gearing", append(tried.Instead(p.Choices...), keep...)...), Weak: p.Weak, Standard: p.Standard, Class: "pair",
	}
	for _, class := range []struct {
		is   bool
		name string
	}{{p.Allowed, " is-allowed"}, {p.Current, " is-current"}, {p.Own, " is-own"}, {p.NoChain, " is-unreachable"}, {tried.Any() && p.Pair == d.After.Facts.Drive.Pair, " is-tried"}} {
		if class.is {
			v.Class += class.name
		}
	}
	switch {
	case p.NoChain:
		v.Under = "no-chain"
	case p.NewChain:
		v.Under = "new-chain"
	}
	v.Title = fmt.Sprintf("%d/%d: %s against standard, walking pace %s, %s at the cruise, %s", p.Pair.Front, p.Pair.Rear,
		u.As(figure.GearChange, p.ChangePercent),
		u.As(figure.CrawlSpeed, p.PaceKmh), u.As(figure.CruiseRPM, p.CruiseRPM), pairWord(p))
	if !math.IsNaN(p.ClimbPercent) {
		v.Title += fmt.Sprintf(", climbs %.0f %% at walking pace", p.ClimbPercent)
	}
	if p.Weak {
		v.Title += ", top gear does not hold the cruise"
	}
	return v
}

// pairWord is what stands against or for a pair.
func pairWord(p gearing.PairFigures) string {
	word := "outside the brief"
	if p.Allowed {
		word = "the brief allows it"
	}
	switch {
	case p.NoChain:
		word += ", no chain fits the slots"
	case p.NewChain:
		word += fmt.Sprintf(", needs a chain of %d links", p.Links)
	}
	if p.Current {
		word = "in the plan, " + word
	}
	if p.Standard {
		word = "standard, " + word
	}
	if p.Own {
		word = "your own, " + word
	}
	return word
}

// table is the field as a table: front sprockets down, rear across.
func (v *gearingView) table(d *desk.Desk, field gearing.SprocketField) {
	at := map[drive.Pair]gearing.PairFigures{}
	rears, fronts := map[int]bool{}, []int{}
	for _, p := range field.Pairs {
		at[p.Pair] = p
		rears[p.Pair.Rear] = true
		if len(fronts) == 0 || fronts[len(fronts)-1] != p.Pair.Front {
			fronts = append(fronts, p.Pair.Front)
		}
	}
	for rear := range 100 {
		if rears[rear] {
			v.Rears = append(v.Rears, rear)
		}
	}
	for _, front := range fronts {
		row := fieldRow{Front: front}
		for _, rear := range v.Rears {
			p, ok := at[drive.Pair{Front: front, Rear: rear}]
			if !ok {
				row.Cells = append(row.Cells, fieldCell{Class: "num"})
				continue
			}
			cell := fieldCell{Class: "num", Pace: d.Units.As(figure.CrawlSpeed, p.PaceKmh), RPM: words.Number(p.CruiseRPM, 0)}
			for _, mark := range []struct {
				is          bool
				class, word string
			}{{p.Current, " is-current", "plan "}, {p.Standard, "", "std "}, {p.Own, "", "yours "}, {p.Allowed, " is-allowed", "fits"}} {
				if mark.is {
					cell.Class += mark.class
					cell.Words += mark.word
				}
			}
			row.Cells = append(row.Cells, cell)
		}
		v.Table = append(v.Table, row)
	}
}

// hint says in a sentence what the field shows.
func hint(u words.Units, field gearing.SprocketField) string {
	low, high := field.Window()
	if math.IsNaN(low) || math.IsNaN(high) {
		return "Give walking pace, cruise and cruise limit in the brief, and the field shows which pairs it allows."
	}
	if low > high {
		return fmt.Sprintf("No gearing does both: %s walking pace wants a ratio of %s or more, %s at the cruise %s or less. A slower pace wish, a lower cruise or a higher limit opens the window.",
			u.As(figure.CrawlSpeed, field.PaceLimitKmh), words.Number(low, 2), u.As(figure.CruiseRPM, field.CruiseLimitRPM), words.Number(high, 2))
	}
	return fmt.Sprintf("The brief leaves a window between ratio %s (walking pace) and %s (cruise): %d of %d pairs stand in it.",
		words.Number(low, 2), words.Number(high, 2), field.Allowed(), len(field.Pairs))
}

func (v *gearingView) fan(d *desk.Desk, after *eval.LoadoutReport) {
	gears, u := gearing.Fan(after.Facts), d.Units
	if gears == nil {
		return
	}
	limits := draw.FanLimits{
		Pace: math.NaN(), CruiseRPM: math.NaN(), Unit: u.Of("km/h"),
		ComfortRPM: d.Plan.Bike.ComfortRPM.In("rpm"),
	}
	limits.Cruise, _ = u.Convert(after.Facts.Drive.CruiseKmh, "km/h")
	if f, ok := after.Figure(figure.CrawlSpeed); ok && f.Limited {
		limits.Pace, _ = u.Convert(f.Limit, "km/h")
	}
	if f, ok := after.Figure(figure.CruiseRPM); ok && f.Limited {
		limits.CruiseRPM = f.Limit
	}
	var was []gearing.GearRange
	if after != d.Report {
		was = gearing.Fan(d.Report.Facts)
	}
	v.Fan = draw.SpeedFan(shownGears(d, gears), shownGears(d, was), limits)
	for _, g := range gears {
		row := gearRow{
			Gear: fmt.Sprint(g.Gear), From: u.As(figure.CrawlSpeed, g.FromKmh), To: u.Quantity(g.ToKmh, "km/h"),
			Cruise: "out of its range", Step: "–",
		}
		if g.CruiseRPM >= g.FromRPM && g.CruiseRPM <= g.ToRPM {
			row.Cruise = u.As(figure.CruiseRPM, g.CruiseRPM)
		}
		if !math.IsNaN(g.StepToNextPercent) {
			row.Step = "−" + u.Quantity(g.StepToNextPercent, "%")
		}
		v.FanTable = append(v.FanTable, row)
	}
}
