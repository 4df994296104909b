package brief

import (
	"cmp"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// briefState is ok once every question of the brief that a gauge asks is
// answered, or guessed.
func briefState(b *plan.Brief) verdict.State {
	for _, q := range []interface{ Known() bool }{b.Distance, b.Cruise, b.WalkingPace, b.Gap, b.Rider, b.Inseam, b.Sole} {
		if !q.Known() {
			return verdict.Unknown
		}
	}
	if len(b.Terrain) == 0 || !b.Budget.Known() && !b.Unlimited {
		return verdict.Unknown
	}
	return verdict.OK
}

var briefForm = desk.StageForm{
	Stage: "brief", Title: "The brief as typed", Save: "Save the brief", Read: readBrief,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return brief(d, typed, errs), nil
	},
	Kept: func(s *desk.House, r *http.Request, d *desk.Desk, changed *plan.Plan) (string, error) {
		if changed.Brief.Person != d.Plan.Brief.Person && changed.Held != plan.Another {
			if err := s.Store.SetPerson(r.Context(), s.Rider(r), changed.Brief.Person); err != nil {
				return "", err
			}
		}
		return d.Href("brief"), nil
	},
}

// briefView is the form of the brief and of one loadout.
type briefView struct {
	Name, Start desk.FieldView
	Budget      desk.FieldView
	Sections    []desk.SectionView
	Grounds     []desk.OptionView // where the steepest climb is
	Shares      []desk.FieldView
	SharesError string
	Styles      []desk.OptionView
	Skills      []desk.OptionView
	Weathers    []desk.OptionView
	Bothers     []desk.OptionView
	Spanners    []desk.OptionView
	HourRate    string
	RateError   string
	Loadout     string
	First       []desk.PointView // what leads
	Next        *desk.LinkView   // in the work, where nothing does
	Pillion     desk.FieldView
	Ships       desk.FieldView
	TieDown     desk.FieldView
	desk.FormState
}

// Fields lists the values of the form, for what changed in two places.
func (v briefView) Fields() []desk.FieldView {
	fields := []desk.FieldView{v.Name, v.Start, v.Budget}
	for _, section := range v.Sections {
		fields = append(fields, section.Fields...)
	}
	fields = append(fields, desk.Selected("style", "On tyres", v.Styles), desk.Selected("skill", "Where it is loose", v.Skills), desk.Selected("weather", "Weather", v.Weathers), desk.Selected("bothers", "Bothers most", v.Bothers), desk.Selected("spanner", "Spanners", v.Spanners), desk.FieldView{Key: "hour_rate", Label: "Workshop, an hour", Value: v.HourRate}, desk.Selected("climb_ground", "Steepest climb on", v.Grounds))
	return append(append(fields, v.Shares...), v.Pillion, v.Ships, v.TieDown)
}

func (v briefView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func brief(d *desk.Desk, form url.Values, errs desk.FormErrors) briefView {
	p := d.Plan
	loadout, _ := p.Loadout(d.Loadout)
	var first []desk.PointView
	var next *desk.LinkView
	if p.Bike != nil && d.Wants("main") {
		first, next = d.Leads("")
	}
	v := briefView{
		First: first, Next: next,
		Name: desk.FieldView{Key: "name", Label: "Name of the plan", Value: desk.Typed(form, "name", p.Name), Error: errs["name"]},
		Start: desk.FieldView{Key: "start", Label: "Start", Value: desk.Typed(form, "start", p.Brief.Start), Error: errs["start"],
			Help: "The day the bike must be ready, or leaves on a truck."},
		Budget: desk.FieldView{Key: "budget", Label: "Budget", Unit: p.Currency, Value: desk.Typed(form, "budget", budgetWords(d, &p.Brief)), Error: errs["budget"],
			Help: "For everything but the bike and the fuel, unless you add those as lines. Write “none” where there is none."},
		SharesError: errs["terrain"], Loadout: loadout.Name,
		Ships:     desk.FieldView{Key: "ships", Label: "Ships on", Value: desk.Typed(form, "ships", p.Brief.Ships), Error: errs["ships"], Help: "A truck, trailer or ferry takes it then. Empty: it is ridden there."},
		TieDown:   desk.FieldView{Key: "tie_down", Label: "Tied down by", Value: desk.Typed(form, "tie_down", p.Brief.TieDown), Error: errs["tie_down"], Help: "Where its straps go: lower yoke, swingarm, rack mounts."},
		Pillion:   desk.FieldView{Key: "pillion", Label: "Pillion, dressed", Unit: d.Units.Of("kg"), Value: desk.Typed(form, "pillion", d.Units.Shown(loadout.Pillion.String())), Error: errs["pillion"]},
		Styles:    desk.OptionsOf(parts.Styles(), desk.Typed(form, "style", string(p.Brief.Style)), "Not said"),
		Spanners:  desk.OptionsOf(plan.Spanners(), desk.Typed(form, "spanner", string(p.Brief.Spanner)), "Not said"),
		HourRate:  desk.Typed(form, "hour_rate", d.Units.Shown(p.Brief.HourRate.String())),
		RateError: errs["hour_rate"],
		Weathers:  desk.OptionsOf(plan.Weathers(), desk.Typed(form, "weather", string(p.Brief.Weather)), "Not said"),
		Bothers:   desk.OptionsOf(plan.Bothers(), desk.Typed(form, "bothers", string(p.Brief.Bothers)), "Nothing yet"),
		Skills:    desk.OptionsOf(plan.Skills(), desk.Typed(form, "skill", string(p.Brief.Skill)), "Not said"),
		FormState: desk.FormState{Error: errs["form"], Try: d.Href("brief/try"), Save: d.Href("brief")},
	}
	guessed := d.Guessed("brief")
	for _, section := range p.Brief.Sections() {
		shown := desk.SectionView{Name: section.Name}
		for _, f := range section.Fields {
			field := desk.FieldOf(d.Units, f, form, errs)
			field.Guess = guessed[f.Key]
			shown.Fields = append(shown.Fields, field)
		}
		v.Sections = append(v.Sections, shown)
	}
	var grounds []entry.Option
	for _, g := range terrain.Grounds() {
		grounds = append(grounds, entry.Option{Value: string(g.Kind), Name: g.Name})
	}
	v.Grounds = desk.OptionsOf(grounds, desk.Typed(form, "climb_ground", string(p.Brief.ClimbGround)), "The roughest of the trip")
	for _, g := range terrain.Grounds() {
		key := "share." + string(g.Kind)
		share := p.Brief.Share(g.Kind)
		v.Shares = append(v.Shares, desk.FieldView{Key: key, Label: g.Name, Unit: "%", Value: desk.Typed(form, key, d.Units.Shown(share.String())), Error: errs[key]})
	}
	return v
}

// readBrief is the plan with a brief as typed, and what changed in words.
func readBrief(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	b := &changed.Brief
	var summary []string
	note := func(label, was, now string) {
		if was != now {
			summary = append(summary, desk.ChangedWords(label, was, now))
		}
	}
	changed.Name = strings.TrimSpace(form.Get("name"))
	note("Name", d.Plan.Name, changed.Name)
	var err error
	if b.Start, err = d.Units.DayFrom(form.Get("start"), d.AsOf); err != nil {
		errs["start"] = err.Error()
	}
	note("Start", d.Plan.Brief.Start, b.Start)
	if b.Ships, err = d.Units.Date(form.Get("ships")); err != nil {
		errs["ships"] = err.Error()
	}
	b.TieDown = strings.TrimSpace(form.Get("tie_down"))
	note("Ships on", d.Plan.Brief.Ships, b.Ships)
	note("Tied down by", d.Plan.Brief.TieDown, b.TieDown)
	b.Style, b.Skill = tyre.Style(form.Get("style")), guard.Skill(form.Get("skill"))
	b.Weather, b.Spanner = plan.Weather(form.Get("weather")), plan.Spanner(form.Get("spanner"))
	note("Spanners", named(plan.Spanners(), d.Plan.Brief.Spanner), named(plan.Spanners(), b.Spanner))
	if rate, err := d.Units.Amount(form.Get("hour_rate"), d.Plan.Currency); err != nil {
		errs["hour_rate"] = err.Error()
	} else {
		note("Workshop, an hour", b.HourRate.String(), rate.String())
		b.HourRate = rate
	}
	if form.Has("bothers") {
		b.Bothers = plan.Bother(form.Get("bothers"))
	}
	note("Bothers most", named(plan.Bothers(), d.Plan.Brief.Bothers), named(plan.Bothers(), b.Bothers))
	note("Weather", named(plan.Weathers(), d.Plan.Brief.Weather), named(plan.Weathers(), b.Weather))
	b.ClimbGround = terrain.Kind(form.Get("climb_ground"))
	note("Steepest climb on", groundName(d.Plan.Brief.ClimbGround), groundName(b.ClimbGround))
	note("Style", named(parts.Styles(), d.Plan.Brief.Style), named(parts.Styles(), b.Style))
	note("Where it is loose", named(plan.Skills(), d.Plan.Brief.Skill), named(plan.Skills(), b.Skill))
	summary = append(summary, desk.Enter(d.Units, b.Fields(), form, errs)...)
	if err := EnterBudget(d.Units, b, form.Get("budget"), d.Plan.Currency); err != nil {
		errs["budget"] = err.Error()
	}
	note("Budget", budgetWords(d, &d.Plan.Brief), budgetWords(d, b))
	b.Terrain = readShares(d, form, errs)
	note("Terrain", sharesText(d.Plan.Brief.Terrain), sharesText(b.Terrain))
	readPillion(d, &changed, form, errs)
	was, _ := d.Plan.Loadout(d.Loadout)
	now, _ := changed.Loadout(d.Loadout)
	note("Pillion, "+was.Name, was.Pillion.String(), now.Pillion.String())
	if len(errs) == 0 {
		desk.Problems(&changed, "brief.", errs)
	}
	return &changed, summary, errs
}

// noBudget is what a rider writes who has none.
const noBudget = "none"

// EnterBudget sets the budget as it is typed, in the plan's currency; on an error nothing changes.
func EnterBudget(u words.Units, b *plan.Brief, text, currency string) error {
	if strings.EqualFold(strings.TrimSpace(text), noBudget) {
		b.Unlimited, b.Budget = true, money.Amount{}
		return nil
	}
	amount, err := u.Amount(text, currency)
	if err != nil {
		return err
	}
	if amount.Known() && amount.Code() != currency {
		return fmt.Errorf("the plan counts in %s: give the budget in it", currency)
	}
	b.Unlimited, b.Budget = false, amount
	return nil
}

// budgetWords is the budget as it stands in its field.
func budgetWords(d *desk.Desk, b *plan.Brief) string {
	if b.Unlimited {
		return noBudget
	}
	return d.Units.Shown(b.Budget.String())
}

// named is a word of a closed list as it is shown, "" for none.
func named[S ~string](options []entry.Option, value S) string {
	if value == "" {
		return ""
	}
	return strings.ToLower(entry.NameOf(options, string(value)))
}

func groundName(k terrain.Kind) string {
	g, ok := terrain.Of(k)
	if !ok {
		return ""
	}
	return strings.ToLower(g.Name)
}

func readShares(d *desk.Desk, form url.Values, errs desk.FormErrors) []terrain.Stretch {
	var list []terrain.Stretch
	for _, g := range terrain.Grounds() {
		var share unit.Ratio
		key := "share." + string(g.Kind)
		if err := d.Units.Enter(&share, form.Get(key), "%"); err != nil {
			errs[key] = err.Error()
		} else if share.Known() && share.Base() != 0 {
			list = append(list, terrain.Stretch{Ground: g.Kind, Share: share})
		}
	}
	return list
}

func sharesText(list []terrain.Stretch) string {
	words := make([]string, len(list))
	for i, s := range list {
		words[i] = fmt.Sprintf("%s %s", s.Ground, s.Share)
	}
	return strings.Join(words, ", ")
}

// readPillion sets who rides along in the loadout on view.
func readPillion(d *desk.Desk, changed *plan.Plan, form url.Values, errs desk.FormErrors) {
	changed.Loadouts = slices.Clone(d.Plan.Loadouts)
	loadout, err := changed.Loadout(d.Loadout)
	if err != nil {
		errs["form"] = err.Error()
		return
	}
	if err := cmp.Or(d.Units.Enter(&loadout.Pillion, form.Get("pillion"), "kg"), loadout.Check()); err != nil {
		errs["pillion"] = err.Error()
	}
}
