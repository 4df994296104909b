package plan

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
)

// Limits on the size of a document, far above any real plan.
const (
	maxLines    = 1000
	maxLoadouts = 12
	maxLoads    = 400
	maxFacts    = 200 // changes, and facts as built
	maxKept     = 100 // calculations
	maxInputs   = 20
	maxInput    = 4000 // bytes of one
)

// Validate lists what is wrong with the document: not what is missing, which is
// allowed, but what cannot be. The list is in the order of the document.
func (p *Plan) Validate() []entry.Problem {
	v := new(entry.Problems)
	v.That(p.Format == Format, "format", "is %q, want %q", p.Format, Format)
	v.That(p.Version == Version, "version", "is %d, want %d", p.Version, Version)
	v.Name("name", p.Name)
	v.That(p.Guesses >= 0 && p.Guesses <= GuessTable, "guesses", "is %d, want 0 for none, or a table up to %d", p.Guesses, GuessTable)
	v.That(p.Trip == "" || entry.ValidID(p.Trip), "trip", "%q is not 26 letters and digits of A–Z, 2–7", entry.Cut(p.Trip))
	v.That(money.Valid(p.Currency), "currency", "%q is not an ISO 4217 code, want e.g. EUR", p.Currency)
	p.Brief.validate(v)
	p.Machine.validate(v)
	for _, f := range p.Turned() {
		v.Check(f.Key, f.Check())
	}
	validateTrials(v, p.Trials)
	p.validateWiring(v)
	p.validateLines(v)
	validateLoadouts(v, p.Loadouts)
	p.Route.validate(v)
	p.validateOthers(v)
	p.validateTouches(v)
	p.validateWaivers(v)
	p.validateAlone(v)
	p.Risk.validate(v)
	p.Ready.validate(v)
	p.Card.validate(v)
	p.validateRates(v)
	validateCalculations(v, p.Calculations)
	return v.List
}

// SetAside makes unsaid what is refused of the plan's parts, and lists it: a document that
// was believed when it was kept still opens. The plan's own lists are made anew, what they
// share with others stays.
func (p *Plan) SetAside() (all []entry.Problem) {
	aside := asideInto(&all)
	for i := range p.Lines {
		if p.Lines[i].Part != nil {
			p.Lines[i].Part = aside(p.Lines[i].Part, "lines"+entry.At(i)+".part")
		}
	}
	p.Machine.setAside(aside)
	return all
}

// asideInto makes unsaid what is refused of a part, and lists it.
func asideInto(all *[]entry.Problem) func(part *parts.Part, path string) *parts.Part {
	return func(part *parts.Part, path string) *parts.Part {
		left, problems := part.Aside(path)
		*all = append(*all, problems...)
		return left
	}
}
