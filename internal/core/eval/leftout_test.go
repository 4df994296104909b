package eval_test

import (
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// wishes are fields of the brief in whose place something else is known: without the rider's wish
// the bike's own limit counts.
var wishes = map[string]bool{"cruise_rpm": true}

// leftOut visits a plan with one thing left out after another: each number of the bike, of the
// brief, of the parts on it and of what is packed, the ground and the weather.
func leftOut(p *plan.Plan, visit func(what string, p *plan.Plan)) {
	clear := func(f entry.Field) bool { return f.Entry.Known() && f.Entry.Enter("", f.Unit) == nil }
	for n := range p.Bike.Fields() {
		bike, changed := *p.Bike, *p
		changed.Bike = &bike
		if f := bike.Fields()[n]; clear(f) {
			visit("bike "+f.Key, &changed)
		}
	}
	for n := range p.Brief.Fields() {
		changed := *p
		if f := changed.Brief.Fields()[n]; !wishes[f.Key] && clear(f) {
			visit("brief "+f.Key, &changed)
		}
	}
	changed := *p
	changed.Brief.Terrain = nil
	visit("brief terrain", &changed)
	changed = *p
	changed.Brief.Weather, changed.Brief.Skill, changed.Brief.Style = "", "", ""
	visit("brief words", &changed)
	for i := range p.Lines {
		for _, f := range p.Lines[i].Part.Says() {
			changed, part := *p, *p.Lines[i].Part
			_ = part.Say(f.Key, "")
			changed.Lines = append([]plan.Line{}, p.Lines...)
			changed.Lines[i].Part = &part
			visit("part "+part.ID+" "+f.Key, &changed)
		}
	}
	for i := range p.Bike.Standard {
		for _, f := range p.Bike.Standard[i].Says() {
			bike, changed := *p.Bike, *p
			bike.Standard = append([]parts.Part{}, p.Bike.Standard...)
			_ = bike.Standard[i].Say(f.Key, "")
			changed.Bike = &bike
			visit("standard "+string(bike.Standard[i].Slot)+" "+f.Key, &changed)
		}
	}
	for i := range p.Loadouts[1].Loads {
		changed := *p
		changed.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
		changed.Loadouts[1].Loads = append([]plan.Load{}, p.Loadouts[1].Loads...)
		load := &changed.Loadouts[1].Loads[i]
		_ = load.Mass.Enter("", "kg")
		visit("mass of "+load.Name, &changed)
	}
}

// unsaid is what a sentence holds that was made of a number that is missing.
var unsaid = regexp.MustCompile(`NaN|Inf\b|(^|[ {])\?|  | \.|\{ ?\}`)

// TestLeavingOut: on every bike with each of three loads no number that is left out makes a gauge
// ok that was not, or ends an open point while its stage has nothing to ask; and no sentence is
// made of what is missing.
func TestLeavingOut(t *testing.T) {
	b := studytest.New(t)
	tried := 0
	for i, trip := range studytest.Trips(b) {
		if rider, ground := i%36/12, i%4; rider != 1 || ground != 2 {
			continue
		}
		before := b.Report(trip.Plan)
		leftOut(trip.Plan, func(what string, p *plan.Plan) {
			tried++
			after := b.Report(p)
			for i := range before.Gauges {
				was, now := &before.Gauges[i], &after.Gauges[i]
				assert.False(t, now.State == verdict.OK && was.State != verdict.OK, "%s without %s: %s from %s to ok", trip.Name, what, now.ID, was.State)
			}
			said := map[string]bool{}
			for _, f := range after.Findings {
				said[f.ID] = true
				words := f.Tell()
				for _, text := range []study.Text{words.What, words.Why, words.Do, words.Short} {
					assert.NotRegexp(t, unsaid, string(text), "%s without %s: %s", trip.Name, what, f.ID)
				}
			}
			for _, f := range study.Loud(before.Findings) {
				assert.False(t, !said[f.ID] && after.Stage(f.Stage) == verdict.OK, "%s without %s: nothing is said of %s", trip.Name, what, f.ID)
			}
			needs(t, after, trip.Name+" without "+what)
		})
	}
	assert.Greater(t, tried, 2000)
}

func needs(t *testing.T, r *eval.LoadoutReport, name string) {
	list, _ := r.Needs()
	for _, n := range list {
		told := n.Tell()
		for _, text := range []study.Text{told.Because, told.Bare, told.Fitted, told.Short} {
			assert.NotRegexp(t, unsaid, string(text), "%s: %s", name, n.ID)
		}
	}
}

// TestNoSentenceOfNothing: nor on bikes of which little is known, with the riders' own things.
func TestNoSentenceOfNothing(t *testing.T) {
	b := studytest.New(t)
	for _, scene := range studytest.Scenes(b) {
		bare := *scene.Plan
		bare.Bike = &plan.Bike{ID: "own", Name: "Own", Standard: scene.Plan.Bike.Standard}
		for _, p := range []*plan.Plan{scene.Plan, &bare} {
			for _, l := range eval.Evaluate(p, b.Shelf, studytest.Today).Loadouts {
				for _, f := range l.Findings {
					words := f.Tell()
					for _, text := range []study.Text{words.What, words.Why, words.Do, words.Short} {
						assert.NotRegexp(t, unsaid, string(text), "%s: %s", scene.Name, f.ID)
					}
				}
				needs(t, &l, scene.Name)
			}
		}
	}
}
