package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// TestEnds are on the bike while what they name is: the bike's own until the plan puts
// another there, a part of the plan while it goes on, a place always.
func TestEnds(t *testing.T) {
	p := plan.New("Touches", "EUR")
	p.Bike = &plan.Bike{ID: "own-bike", Name: "Mine"}
	silencer := &parts.Part{ID: "own-silencer", Slot: parts.Silencer, Name: "Short silencer"}
	with := p.With(plan.Choice{Slot: parts.Silencer, Part: silencer, Decision: plan.Chosen})
	for _, c := range []struct {
		touch     plan.Touch
		bare, has bool
	}{
		{plan.Touch{One: plan.SlotEnd(parts.Silencer), Other: "at:heels"}, true, false},
		{plan.Touch{One: plan.PartEnd(silencer), Other: "at:heels"}, false, true},
		{plan.Touch{One: "at:frame", Other: "at:heels"}, true, true},
		{plan.Touch{One: plan.PartEnd(silencer), Other: plan.SlotEnd(parts.SideStand)}, false, true},
	} {
		assert.Equal(t, c.bare, c.touch.Meets(p.Build("travel")), c.touch.One)
		assert.Equal(t, c.has, c.touch.Meets(with.Build("travel")), c.touch.One)
	}
}

// TestUsualTouches are those of what the plan has chosen, as long as they are not told of.
func TestUsualTouches(t *testing.T) {
	p := plan.New("Touches", "EUR")
	p.Bike = &plan.Bike{ID: "own-bike", Name: "Mine"}
	assert.Empty(t, p.UsualTouches(p.Build("travel")), "nothing was changed")
	bags := &parts.Part{ID: "own-bags", Slot: parts.SideBags, Name: "Bags"}
	p = p.With(plan.Choice{Slot: parts.SideBags, Part: bags, Decision: plan.Chosen})
	usual := p.UsualTouches(p.Build("travel"))
	if assert.Len(t, usual, 2, "the silencer, and the passenger's pegs") {
		assert.Equal(t, plan.PartEnd(bags), usual[0].One)
		p.Touches = usual[:1]
		assert.Len(t, p.UsualTouches(p.Build("travel")), 1)
		assert.Empty(t, p.Validate())
	}
}

func TestValidateTouches(t *testing.T) {
	p := plan.New("Touches", "EUR")
	p.Touches = []plan.Touch{{How: "rubs", One: "bike:hull", Other: "at:moon"}, {How: plan.Touches, One: "at:heels", Other: "at:heels"}, {How: plan.Never, One: "part:own-gone", Other: "at:heels"}}
	var paths []string
	for _, problem := range p.Validate() {
		paths = append(paths, problem.Path)
	}
	assert.Equal(t, []string{"touches[0].how", "touches[0].one", "touches[0].other", "touches[1].other"}, paths, "a part that has gone is no fault")
}
