package stance

import (
	"cmp"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// clickersForm is the damping: standard, as it stands, and by surface for the loadout on view.
var clickersForm = desk.StageForm{
	Stage: "clickers", Title: "The clicks as typed", Save: "Keep the clicks", Read: readClickers,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return clickers(d, typed, errs), nil
	},
}

type clickersView struct {
	Has     bool
	Loadout string
	Rows    []clickRow
	Preload []sagRow // of the card
	Oil     desk.FieldView
	Facts   []plan.Fact // that the record would be given
	Record  string
	desk.FormState
}

// clickRow is one line of the card.
type clickRow struct {
	Name, Sub string
	Off       bool // not on this trip
	Cells     []clickCell
}

type clickCell struct{ Key, Name, Value, Error, Advice, Other string }

func (v clickersView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Rows {
		for _, c := range row.Cells {
			fields = append(fields, desk.FieldView{Key: c.Key, Label: c.Name + ", " + row.Name, Value: c.Value})
		}
	}
	return fields
}

func (v clickersView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// clickers is the card of the loadout on view.
func clickers(d *desk.Desk, form url.Values, errs desk.FormErrors) clickersView {
	_, l := loadoutOf(d)
	v := clickersView{Has: d.Plan.Bike != nil, Loadout: l.Name, Record: d.Href("clickers/record"), FormState: desk.FormState{Error: errs["form"], Try: d.Href("clickers/try"), Save: d.Href("clickers")}}
	if !v.Has {
		return v
	}
	standard, now := d.Plan.Bike.Clicks, d.Plan.Clicks
	row := func(name, sub, prefix string, clicks plan.Clicks, advice func(at int) (string, string)) clickRow {
		r := clickRow{Name: name, Sub: sub}
		for i, f := range clicks.Fields(prefix) {
			c := clickCell{Key: f.Key, Name: f.Label, Value: desk.Typed(form, f.Key, d.Units.ShownOf(f.Entry)), Error: errs[f.Key]}
			if advice != nil {
				c.Advice, c.Other = advice(i)
			}
			r.Cells = append(r.Cells, c)
		}
		return r
	}
	v.Rows = append(v.Rows, row("Standard", "By the manual.", "std.", standard, nil), row("Now", "As counted on the bike.", "now.", now, nil))
	s, mix := &d.Report.Facts.Springs, d.Plan.Brief.Mix()
	for _, surface := range terrain.Surfaces() {
		r := row(surface.Name, "", surface.ID+".", l.ClicksOn(surface.ID), func(at int) (string, string) { return clickAdvice(d, s, standard, surface.ID, at) })
		if share := surface.Share(mix); share > 0 {
			r.Sub = words.Number(100*share, 0) + " % of the trip"
		} else if mix.Said() {
			r.Sub, r.Off = "not on this trip", true
		}
		v.Rows = append(v.Rows, r)
	}
	v.Preload = []sagRow{{"Preload", setWords(d, &s.Front, s.Front.End.PreloadMM), setWords(d, &s.Rear, s.Rear.End.PreloadMM)}}
	v.Facts = recordOf(d)
	v.Oil = desk.FieldView{Key: "oil", Label: "Fork oil: weight, level, date", Value: factOf(d.Plan, "Fork oil and level"), Help: "As it went in. It is the first that is forgotten."}
	return v
}

// clickAdvice is what standard, surface and load make of a clicker: the school that lets
// damping follow the load, and the one that leaves it where that differs.
func clickAdvice(d *desk.Desk, s *facts.Springs, standard plan.Clicks, surface string, at int) (follows, left string) {
	std := standard.Fields("")[at].Entry.(interface{ In(string) float64 }).In("")
	kind, e, sheet := stance.Compression, &s.Front, d.Plan.Bike.FrontPre.In("mm")
	rate := d.Plan.Bike.FrontSpring.In("N/mm")
	if at%2 == 1 {
		kind = stance.Rebound
	}
	if at >= 2 {
		e, sheet, rate = &s.Rear, d.Plan.Bike.RearPre.In("mm"), d.Plan.Bike.RearSpring.In("N/mm")
	}
	clicks := stance.Clicks(kind, std, surface, e.End.PreloadMM-sheet, e.SetNmm/rate-1)
	if math.IsNaN(clicks) {
		return "", ""
	}
	follows = words.Number(clicks, 0)
	if other := stance.Clicks(kind, std, surface, 0, 0); other != clicks {
		left = words.Number(other, 0)
	}
	return follows, left
}

// readClickers is the plan with the clicks as typed, and what changed in words.
func readClickers(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed, l := loadoutOf(d)
	if d.Plan.Bike == nil {
		return changed, nil, errs
	}
	bike := *d.Plan.Bike
	changed.Bike = &bike
	summary := desk.Enter(d.Units, bike.Clicks.Fields("std."), form, errs)
	summary = append(summary, desk.Enter(d.Units, changed.Clicks.Fields("now."), form, errs)...)
	was := l.Clicks
	l.Clicks = nil
	for _, s := range terrain.Surfaces() {
		own := plan.SurfaceClicks{Surface: s.ID}
		for _, c := range was {
			if c.Surface == s.ID {
				own.Clicks = c.Clicks
			}
		}
		for _, said := range desk.Enter(d.Units, own.Fields(s.ID+"."), form, errs) {
			summary = append(summary, l.Name+", "+s.Name+": "+said)
		}
		if own.Clicks != (plan.Clicks{}) {
			l.Clicks = append(l.Clicks, own)
		}
	}
	for i := range summary {
		if i > 3 {
			summary = append(summary[:3], "and more clicks")
			break
		}
	}
	return changed, summary, errs
}

// factOf is what the record says under a name.
func factOf(p *plan.Plan, name string) string {
	for _, f := range p.Baseline.AsBuilt {
		if f.Name == name {
			return f.Value
		}
	}
	return ""
}

// recordOf is what the suspension adds to the bike as built: springs, links, shock and where
// it came from, preload, clicks.
func recordOf(d *desk.Desk) []plan.Fact {
	var list []plan.Fact
	add := func(name, value string) {
		if value != "" && value != words.Unknown {
			list = append(list, plan.Fact{Name: name, Value: value, On: d.AsOf})
		}
	}
	built, s := d.Report.Facts.Built, &d.Report.Facts.Springs
	for _, end := range []struct {
		name string
		e    *facts.SpringEnd
	}{{"Fork springs", &s.Front}, {"Shock spring", &s.Rear}} {
		if !(end.e.SetNmm > 0) {
			continue
		}
		value := d.Units.Quantity(end.e.SetNmm, "N/mm")
		if end.e.By != nil {
			value += " (" + end.e.By.Name + ")"
		}
		add(end.name, value)
	}
	add("Fork preload", setWords(d, &s.Front, s.Front.SetMM))
	add("Shock preload", setWords(d, &s.Rear, s.Rear.SetMM))
	for _, slot := range []parts.Slot{parts.Shock, parts.Fork, parts.Links, parts.ForkOil, parts.ForkValving, parts.ShockValving} {
		p := built.Part(slot)
		if p == nil || !built.Chosen(slot) {
			continue
		}
		info, _ := parts.KindOf(slot)
		value := p.Name
		for i := range d.Plan.Lines {
			if l := &d.Plan.Lines[i]; l.Part == p && l.Source != "" {
				value += ", " + strings.ToLower(entry.NameOf(plan.Sources(), string(l.Source)))
			}
		}
		add(info.Name, value)
	}
	for _, half := range []struct {
		name string
		from int
	}{{"Fork clicks, as set", 0}, {"Shock clicks, as set", 2}} {
		fields := d.Plan.Clicks.Fields("")[half.from : half.from+2]
		if fields[0].Entry.Known() || fields[1].Entry.Known() {
			add(half.name, "compression "+cmp.Or(fields[0].Entry.String(), uncounted)+", rebound "+cmp.Or(fields[1].Entry.String(), uncounted))
		}
	}
	return list
}

const uncounted = "not counted"

// keepRecord writes them into the record, each over what stood under its name.
func keepRecord(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return desk.SeeOther(w, r, d.Href("clickers"))
	}
	list := recordOf(d)
	if oil := strings.TrimSpace(r.PostFormValue("oil")); oil != "" {
		list = append(list, plan.Fact{Name: "Fork oil and level", Value: oil, On: d.AsOf})
	}
	changed := *d.Plan
	changed.Baseline.AsBuilt = slices.Clone(d.Plan.Baseline.AsBuilt)
	for _, f := range list {
		at := slices.IndexFunc(changed.Baseline.AsBuilt, func(is plan.Fact) bool { return is.Name == f.Name })
		switch {
		case at < 0:
			changed.Baseline.AsBuilt = append(changed.Baseline.AsBuilt, f)
		case changed.Baseline.AsBuilt[at].Value != f.Value:
			changed.Baseline.AsBuilt[at] = f
		}
	}
	if err := s.Save(r, d, r.PostFormValue("base"), &changed, "Suspension into the record as built"); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("record"))
}
