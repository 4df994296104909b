package web

import (
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/core/calc"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// calculatorView is one calculator with what was put in and what comes out.
type calculatorView struct {
	All     []desk.LinkView
	Name    string
	Title   string
	Caution string
	Fields  []desk.FieldView
	Results []desk.ValueView
	Steps   []desk.StepView
	Error   string // of the inputs together
	Plan    *calculatorPlan
	Command string // the same on the command line
}

// calculatorPlan is the plan that a calculator takes its numbers from and that
// keeps its results.
type calculatorPlan struct {
	ID, Name, Revision string
	Kept               []keptView
}

type keptView struct {
	Index               int
	Title, Note, Result string
	Href                string
}

func (s *Server) calculators(w http.ResponseWriter, r *http.Request) error {
	return desk.SeeOther(w, r, "/calculators/"+calc.All()[0].Name)
}

func (s *Server) calculator(w http.ResponseWriter, r *http.Request) error {
	c, err := calc.Find(chi.URLParam(r, "name"))
	if err != nil {
		return store.ErrNotFound
	}
	var on *store.Snapshot
	if id := r.URL.Query().Get("plan"); id != "" {
		if on, err = s.Store.Plan(r.Context(), s.Rider(r), id); err != nil {
			return err
		}
	}
	return s.Show(w, r, http.StatusOK, "calculator", c.Title, calculatorOf(desk.UnitsOf(r), c, r.URL.Query(), on))
}

// calculatorOf computes with what the address says, or else with the plan's own
// numbers, or else with the example.
func calculatorOf(u words.Units, c calc.Calculator, query url.Values, on *store.Snapshot) calculatorView {
	v := calculatorView{Name: c.Name, Title: c.Title, Caution: c.Caution}
	tail, known := "", map[string]string{}
	if on != nil {
		tail, known = "?plan="+on.ID, planNumbers(on.Plan)
		v.Plan = &calculatorPlan{ID: on.ID, Name: on.Plan.Name, Revision: on.Revision, Kept: kept(u, on)}
	}
	for _, other := range calc.All() {
		v.All = append(v.All, desk.LinkView{Name: other.Title, Href: "/calculators/" + other.Name + tail, Current: other.Name == c.Name})
	}
	asked := slices.ContainsFunc(c.Keys, func(k calc.Key) bool { return query.Has(k.Name) })
	var args []string
	unread := false
	for _, k := range c.Keys {
		f := desk.FieldView{Key: k.Name, Label: k.Label, Unit: k.Unit, Help: k.Help, Value: k.Example}
		if n := known[c.Name+"."+k.Name]; n != "" {
			f.Value, f.Origin = n, "from the plan"
		}
		if asked {
			f.Value, f.Origin = strings.TrimSpace(query.Get(k.Name)), ""
		}
		if f.Value != "" {
			plain, err := plainNumber(u, f.Value, k)
			if err != nil { // which of two numbers it is, only who typed it knows
				f.Error, unread = err.Error(), true
			}
			args = append(args, k.Name+"="+plain)
		}
		v.Fields = append(v.Fields, f)
	}
	if unread {
		return v
	}
	results, working, err := c.Explain(args)
	var bad calc.ErrKey
	switch {
	case errors.As(err, &bad):
		for i := range v.Fields {
			if v.Fields[i].Key == bad.Key {
				v.Fields[i].Error = bad.Err.Error()
			}
		}
	case err != nil:
		v.Error = err.Error()
	default:
		v.Results, v.Steps = resultsOf(u, results), desk.StepsOf(u, working)
		v.Command = command(c.Name, args)
	}
	return v
}

// plainNumber lets a rider write numbers in their convention, and another unit than the
// calculator's: "2,5 in" for a key in mm.
func plainNumber(u words.Units, text string, k calc.Key) (string, error) {
	if k.Kind != calc.Number && k.Kind != calc.Whole {
		return text, nil
	}
	text, err := u.Numbers().PlainRatio(text) // its examples have points before three decimals
	if err != nil {
		return text, err
	}
	end := strings.LastIndexAny(text, "0123456789.") + 1
	v, err := strconv.ParseFloat(text[:end], 64)
	if symbol := strings.TrimSpace(text[end:]); err == nil && symbol != "" {
		if own, ok := unit.Convert(v, symbol, k.Unit); ok {
			return strconv.FormatFloat(own, 'f', -1, 64), nil
		}
	}
	return text, nil
}

func command(name string, args []string) string {
	words := []string{"mule", "calc", name}
	for _, a := range args {
		if strings.ContainsAny(a, " ()@&*") {
			a = "'" + a + "'"
		}
		words = append(words, a)
	}
	return strings.Join(words, " ")
}

func resultsOf(u words.Units, results []calc.Result) []desk.ValueView {
	var views []desk.ValueView
	for _, r := range results {
		v := desk.ValueView{Name: r.Label}
		switch value := r.Value.(type) {
		case float64:
			v.Value = u.Plain(value, r.Unit)
		case []float64:
			list := make([]string, len(value))
			for i, n := range value {
				list[i] = u.Plain(n, r.Unit)
			}
			v.Value = strings.Join(list, ", ")
		default:
			v.Value = fmt.Sprint(value)
		}
		views = append(views, v)
	}
	return views
}

// planNumbers are the plan's own numbers for calculators, by "calculator.key".
func planNumbers(p *plan.Plan) map[string]string {
	n := map[string]string{}
	if p.Bike == nil {
		return n
	}
	built, standard := p.Build(p.Loadouts[len(p.Loadouts)-1].ID), p.BuildStandard()
	put := func(v float64, keys ...string) {
		if !math.IsNaN(v) && v != 0 { // teeth that are not known are 0
			for _, key := range keys {
				n[key] = strconv.FormatFloat(v, 'f', -1, 64)
			}
		}
	}
	b := p.Bike
	put(b.Primary.In(""), "gearing.primary")
	if b.Gearbox.Known() {
		ratios := make([]string, len(b.Gearbox.Ratios()))
		for i, r := range b.Gearbox.Ratios() {
			ratios[i] = strconv.FormatFloat(r, 'f', -1, 64)
		}
		n["gearing.gearbox"] = strings.Join(ratios, ",")
	}
	put(b.ComfortRPM.In("rpm"), "gearing.rpm")
	pair, _ := built.Sprockets()
	was, _ := standard.Sprockets()
	put(float64(pair.Front), "gearing.front", "chain.front")
	put(float64(pair.Rear), "gearing.rear", "chain.rear")
	put(float64(was.Front), "gearing.stock_front")
	put(float64(was.Rear), "gearing.stock_rear")
	if t := built.Tyre(parts.RearTyre); t != nil {
		put(t.CircumferenceMM(), "gearing.circumference_mm")
		n["tyre.code"] = t.Size.String()
	}
	if t := standard.Tyre(parts.RearTyre); t != nil {
		put(t.CircumferenceMM(), "gearing.stock_circumference_mm")
	}
	if t := built.Tyre(parts.FrontTyre); t != nil {
		put(t.DiameterMM(), "geometry.front_diameter_mm")
	}
	if pitch, ok := drive.PitchMM(b.Chain); ok {
		put(pitch, "chain.pitch_mm")
	}
	put(b.Centre.In("mm"), "chain.centre_mm")
	put(b.Wheelbase.In("mm"), "axles.wheelbase_mm", "geometry.wheelbase_mm")
	put(b.KerbFront.In("kg"), "axles.kerb_front_kg")
	put(b.KerbMass.In("kg")-b.KerbFront.In("kg"), "axles.kerb_rear_kg")
	n["axles.items"] = planItems(p)
	return n
}

// planItems are rider and loads of the last loadout at their places.
func planItems(p *plan.Plan) string {
	base := p.Bike.Wheelbase.In("mm")
	var items []string
	add := func(kg float64, place load.Place) {
		if at := place.XMM(base); !math.IsNaN(kg) && !math.IsNaN(at) {
			items = append(items, fmt.Sprintf("%g@%.0f", kg, at))
		}
	}
	add(p.Brief.Rider.In("kg"), load.Rider)
	for _, l := range p.Loadouts[len(p.Loadouts)-1].Loads {
		add(l.Mass.In("kg"), l.Place)
	}
	return strings.Join(items, ",")
}

// kept shows the calculations that a plan keeps, worked out anew.
func kept(u words.Units, on *store.Snapshot) []keptView {
	var views []keptView
	for i, k := range on.Plan.Calculations {
		v := keptView{Index: i, Title: k.Calculator, Note: k.Note, Result: "This program has no such calculator."}
		if c, err := calc.Find(k.Calculator); err == nil {
			query := url.Values{"plan": {on.ID}}
			var args []string
			for _, key := range c.Keys {
				if text, ok := k.Inputs[key.Name]; ok {
					query.Set(key.Name, text)
					plain, _ := plainNumber(nil, text, key) // what cannot be read the calculator refuses
					args = append(args, key.Name+"="+plain)
				}
			}
			v.Title, v.Href = c.Title, "/calculators/"+c.Name+"?"+query.Encode()
			results, err := c.Run(args)
			if err != nil {
				v.Result = err.Error()
			} else {
				var parts []string
				for _, r := range resultsOf(u, results) {
					parts = append(parts, r.Name+" "+r.Value)
				}
				v.Result = strings.Join(parts, " · ")
			}
		}
		views = append(views, v)
	}
	return views
}

// keepCalculation puts a calculation into the plan.
func (s *Server) keepCalculation(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	c, err := calc.Find(r.PostFormValue("calculator"))
	if err != nil {
		return store.ErrNotFound
	}
	kept := plan.Calculation{Calculator: c.Name, Inputs: map[string]string{}, Note: strings.TrimSpace(r.PostFormValue("note"))}
	back := url.Values{"plan": {d.ID}}
	read := true
	for _, k := range c.Keys {
		if text := strings.TrimSpace(r.PostForm.Get(k.Name)); text != "" {
			plain, err := plainNumber(d.Units, text, k)
			read = read && err == nil
			kept.Inputs[k.Name] = plain
			back.Set(k.Name, text)
		}
	}
	if !read { // the page says which of them could be two numbers
		return desk.SeeOther(w, r, "/calculators/"+c.Name+"?"+back.Encode())
	}
	changed := *d.Plan
	changed.Calculations = append(slices.Clone(changed.Calculations), kept)
	return s.saveCalculations(w, r, d, &changed, "Kept a calculation: "+c.Title, "/calculators/"+c.Name+"?"+back.Encode())
}

// dropCalculation takes a kept one out.
func (s *Server) dropCalculation(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	at, err := strconv.Atoi(r.PostFormValue("index"))
	if err != nil || at < 0 || at >= len(d.Plan.Calculations) {
		return store.ErrNotFound
	}
	changed := *d.Plan
	changed.Calculations = slices.Delete(slices.Clone(changed.Calculations), at, at+1)
	name := d.Plan.Calculations[at].Calculator
	return s.saveCalculations(w, r, d, &changed, "Dropped a calculation: "+name, "/calculators/"+name+"?plan="+d.ID)
}

func (s *Server) saveCalculations(w http.ResponseWriter, r *http.Request, d *desk.Desk, changed *plan.Plan, summary, back string) error {
	if err := s.Save(r, d, r.PostFormValue("base"), changed, summary); err != nil {
		return err
	}
	return desk.SeeOther(w, r, back)
}
