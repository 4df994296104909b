package web

import (
	"cmp"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
)

// briefState is ok once every question of the brief that a gauge asks is
// answered.
func briefState(b *plan.Brief) verdict.State {
	for _, q := range []interface{ Known() bool }{b.Distance, b.Cruise, b.WalkingPace, b.Gap, b.Rider, b.Inseam, b.Sole} {
		if !q.Known() {
			return verdict.Unknown
		}
	}
	if len(b.Terrain) == 0 || !b.Budget.Known() {
		return verdict.Unknown
	}
	return verdict.OK
}

var briefForm = stageForm{
	stage: "brief", title: "The brief as typed", save: "Save the brief", read: (*desk).readBrief,
	view: func(_ *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
		return d.brief(typed, errs), nil
	},
}

// briefView is the form of the brief and of one loadout.
type briefView struct {
	Name, Start fieldView
	Budget      fieldView
	Sections    []sectionView
	Grounds     []optionView // where the steepest climb is
	Shares      []fieldView
	SharesError string
	Styles      []optionView
	Skills      []optionView
	Weathers    []optionView
	Spanners    []optionView
	HourRate    string
	RateError   string
	Loadout     string
	Pillion     fieldView
	Ships       fieldView
	TieDown     fieldView
	formState
}

// fields lists the values of the form, for what changed in two places.
func (v briefView) fields() []fieldView {
	fields := []fieldView{v.Name, v.Start, v.Budget}
	for _, section := range v.Sections {
		fields = append(fields, section.Fields...)
	}
	fields = append(fields, selected("style", "On tyres", v.Styles), selected("skill", "Where it is loose", v.Skills), selected("weather", "Weather", v.Weathers), selected("spanner", "Spanners", v.Spanners), fieldView{Key: "hour_rate", Label: "Workshop, an hour", Value: v.HourRate}, selected("climb_ground", "Steepest climb on", v.Grounds))
	return append(append(fields, v.Shares...), v.Pillion, v.Ships, v.TieDown)
}

// blankRows are offered for new lines.
const blankRows = 2

func (v briefView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

func (d *desk) brief(form url.Values, errs formErrors) briefView {
	p := d.Plan
	loadout, _ := p.Loadout(d.loadout)
	v := briefView{
		Name: fieldView{Key: "name", Label: "Name of the plan", Value: typed(form, "name", p.Name), Error: errs["name"]},
		Start: fieldView{Key: "start", Label: "Start", Value: typed(form, "start", p.Brief.Start), Error: errs["start"],
			Help: "The day the bike must be ready, or leaves on a truck."},
		Budget: fieldView{Key: "budget", Label: "Budget", Unit: p.Currency, Value: typed(form, "budget", p.Brief.Budget.String()), Error: errs["budget"],
			Help: "For everything but the bike and the fuel, unless you add those as lines."},
		SharesError: errs["terrain"], Loadout: loadout.Name,
		Ships:     fieldView{Key: "ships", Label: "Ships on", Value: typed(form, "ships", p.Brief.Ships), Error: errs["ships"], Help: "A truck, trailer or ferry takes it then. Empty: it is ridden there."},
		TieDown:   fieldView{Key: "tie_down", Label: "Tied down by", Value: typed(form, "tie_down", p.Brief.TieDown), Error: errs["tie_down"], Help: "Where its straps go: lower yoke, swingarm, rack mounts."},
		Pillion:   fieldView{Key: "pillion", Label: "Pillion, dressed", Unit: d.units.Of("kg"), Value: typed(form, "pillion", loadout.Pillion.String()), Error: errs["pillion"]},
		Styles:    optionsOf(plan.Styles(), typed(form, "style", string(p.Brief.Style)), "Not said"),
		Spanners:  optionsOf(plan.Spanners(), typed(form, "spanner", string(p.Brief.Spanner)), "Not said"),
		HourRate:  typed(form, "hour_rate", p.Brief.HourRate.String()),
		RateError: errs["hour_rate"],
		Weathers:  optionsOf(plan.Weathers(), typed(form, "weather", string(p.Brief.Weather)), "Not said"),
		Skills:    optionsOf(plan.Skills(), typed(form, "skill", string(p.Brief.Skill)), "Not said"),
		formState: formState{Error: errs["form"], Try: d.href("brief/try"), Save: d.href("brief")},
	}
	for _, section := range p.Brief.Sections() {
		shown := sectionView{Name: section.Name}
		for _, f := range section.Fields {
			shown.Fields = append(shown.Fields, fieldOf(d.units, f, form, errs))
		}
		v.Sections = append(v.Sections, shown)
	}
	var grounds []plan.Option
	for _, g := range terrain.Grounds() {
		grounds = append(grounds, plan.Option{Value: string(g.Kind), Name: g.Name})
	}
	v.Grounds = optionsOf(grounds, typed(form, "climb_ground", string(p.Brief.ClimbGround)), "The roughest of the trip")
	for _, g := range terrain.Grounds() {
		key := "share." + string(g.Kind)
		share := p.Brief.Share(g.Kind)
		v.Shares = append(v.Shares, fieldView{Key: key, Label: g.Name, Unit: "%", Value: typed(form, key, share.String()), Error: errs[key]})
	}
	return v
}

// places where luggage goes; the others are for parts.
func places() []plan.Option {
	var options []plan.Option
	for _, s := range load.Spots() {
		if !slices.Contains([]load.Place{load.FrontWheel, load.RearWheel, load.Rider, load.Tank}, s.Place) {
			options = append(options, plan.Option{Value: string(s.Place), Name: s.Name})
		}
	}
	return options
}

// readBrief is the plan with a brief as typed, and what changed in words.
func (d *desk) readBrief(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed := *d.Plan
	b := &changed.Brief
	var summary []string
	note := func(label, was, now string) {
		if was != now {
			summary = append(summary, changedWords(label, was, now))
		}
	}
	changed.Name = strings.TrimSpace(form.Get("name"))
	note("Name", d.Plan.Name, changed.Name)
	b.Start = strings.TrimSpace(form.Get("start"))
	note("Start", d.Plan.Brief.Start, b.Start)
	b.Ships, b.TieDown = strings.TrimSpace(form.Get("ships")), strings.TrimSpace(form.Get("tie_down"))
	note("Ships on", d.Plan.Brief.Ships, b.Ships)
	note("Tied down by", d.Plan.Brief.TieDown, b.TieDown)
	b.Style, b.Skill = tyre.Style(form.Get("style")), guard.Skill(form.Get("skill"))
	b.Weather, b.Spanner = plan.Weather(form.Get("weather")), plan.Spanner(form.Get("spanner"))
	note("Spanners", string(d.Plan.Brief.Spanner), string(b.Spanner))
	if rate, err := readAmount(form.Get("hour_rate"), d.Plan.Currency); err != nil {
		errs["hour_rate"] = err.Error()
	} else {
		note("Workshop, an hour", b.HourRate.String(), rate.String())
		b.HourRate = rate
	}
	note("Weather", string(d.Plan.Brief.Weather), string(b.Weather))
	b.ClimbGround = terrain.Kind(form.Get("climb_ground"))
	note("Steepest climb on", string(d.Plan.Brief.ClimbGround), string(b.ClimbGround))
	note("Style", string(d.Plan.Brief.Style), string(b.Style))
	note("Where it is loose", string(d.Plan.Brief.Skill), string(b.Skill))
	summary = append(summary, enter(d.units, b.Fields(), form, errs)...)
	if amount, err := readAmount(form.Get("budget"), d.Plan.Currency); err != nil {
		errs["budget"] = err.Error()
	} else if amount.Known() && amount.Code() != d.Plan.Currency {
		errs["budget"] = fmt.Sprintf("the plan counts in %s: give the budget in it", d.Plan.Currency)
	} else {
		b.Budget = amount
	}
	note("Budget", d.Plan.Brief.Budget.String(), b.Budget.String())
	b.Terrain = readShares(form, errs)
	note("Terrain", sharesText(d.Plan.Brief.Terrain), sharesText(b.Terrain))
	d.readPillion(&changed, form, errs)
	was, _ := d.Plan.Loadout(d.loadout)
	now, _ := changed.Loadout(d.loadout)
	note("Pillion, "+d.loadout, was.Pillion.String(), now.Pillion.String())
	if len(errs) == 0 {
		problems(&changed, "brief.", errs)
	}
	return &changed, summary, errs
}

func readShares(form url.Values, errs formErrors) []plan.Stretch {
	var list []plan.Stretch
	for _, g := range terrain.Grounds() {
		var share unit.Ratio
		key := "share." + string(g.Kind)
		if err := share.Enter(form.Get(key), "%"); err != nil {
			errs[key] = err.Error()
		} else if share.Known() && share.Base() != 0 {
			list = append(list, plan.Stretch{Ground: g.Kind, Share: share})
		}
	}
	return list
}

func sharesText(list []plan.Stretch) string {
	words := make([]string, len(list))
	for i, s := range list {
		words[i] = fmt.Sprintf("%s %s", s.Ground, s.Share)
	}
	return strings.Join(words, ", ")
}

// readPillion sets who rides along in the loadout on view.
func (d *desk) readPillion(changed *plan.Plan, form url.Values, errs formErrors) {
	changed.Loadouts = slices.Clone(d.Plan.Loadouts)
	loadout, err := changed.Loadout(d.loadout)
	if err != nil {
		errs["form"] = err.Error()
		return
	}
	if err := cmp.Or(loadout.Pillion.Enter(form.Get("pillion"), d.units.Of("kg")), loadout.Check()); err != nil {
		errs["pillion"] = err.Error()
	}
}
