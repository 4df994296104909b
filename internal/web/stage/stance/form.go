package stance

import (
	"net/url"
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// loadoutOf is a copy of the plan with a loadout on view of its own.
func loadoutOf(d *desk.Desk) (*plan.Plan, *plan.Loadout) {
	changed := *d.Plan
	changed.Loadouts = slices.Clone(d.Plan.Loadouts)
	l, err := changed.Loadout(d.Loadout)
	if err != nil {
		l = &plan.Loadout{}
	}
	return &changed, l
}

// readSits takes where the rider sits.
func readSits(form url.Values, l *plan.Loadout, errs desk.FormErrors) (changed []string) {
	if !form.Has("sits") {
		return nil
	}
	was, now := l.Sits, plan.Sit(form.Get("sits"))
	if !entry.Among(plan.Sits(), string(now)) {
		errs["sits"] = "choose one of them"
		return nil
	}
	if l.Sits = now; now != was {
		changed = append(changed, desk.ChangedWords("Rider sits", entry.NameOf(plan.Sits(), string(was)), entry.NameOf(plan.Sits(), string(now))))
	}
	return changed
}

// sitsOf are the places as a form has them, or the loadout.
func sitsOf(form url.Values, l *plan.Loadout) []desk.OptionView {
	return desk.OptionsOf(plan.Sits(), desk.Typed(form, "sits", string(l.Sits)), "")
}
