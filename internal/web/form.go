package web

import (
	"fmt"
	"net/url"
	"strings"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/words"
)

// formErrors are what is wrong with a form, by field.
type formErrors map[string]string

// at is the state with the addresses of another.
func (s formState) at(other formState) formState {
	s.Try, s.Save = other.Try, other.Save
	return s
}

// fieldView is one field of a form.
type fieldView struct {
	Key, Label, Unit, Help string
	Value, Error           string
	Origin                 string
	List                   *list // that the field is in a row of, nil for most
}

// formState is what every stage's form shows beside its fields.
type formState struct {
	Error     string // of the form as a whole
	Note      string // why it is shown again
	Conflicts []conflictView
	Try, Save string // where a change is tried, and saved
}

// typed is the value of a field: as it was sent, or else as it is stored.
func typed(form url.Values, key, stored string) string {
	if form != nil {
		return form.Get(key)
	}
	return stored
}

func fieldOf(u words.Units, f plan.Field, form url.Values, errs formErrors) fieldView {
	return fieldView{Key: f.Key, Label: f.Label, Unit: u.Of(f.Unit), Help: f.Help, Value: typed(form, f.Key, f.Entry.String()), Error: errs[f.Key]}
}

// enter sets fields from a form, a bare number in the rider's unit; it returns
// what changed, in words.
func enter(u words.Units, fields []plan.Field, form url.Values, errs formErrors) []string {
	var changed []string
	for _, f := range fields {
		was := f.Entry.String()
		text := strings.TrimSpace(form.Get(f.Key))
		if text == was {
			continue
		}
		if err := f.Enter(text, u.Of(f.Unit)); err != nil {
			errs[f.Key] = err.Error()
			continue
		}
		if f.Entry.String() != was {
			changed = append(changed, changedWords(f.Label, was, f.Entry.String()))
		}
	}
	return changed
}

func changedWords(label, was, now string) string {
	switch {
	case was == "":
		return label + " " + now
	case now == "":
		return label + " " + was + " taken out"
	}
	return label + " " + was + " → " + now
}

// problems sorts what validation says under the fields of a form whose part of
// the document starts with prefix; the rest goes under "form".
func problems(p *plan.Plan, prefix string, errs formErrors) {
	for _, problem := range p.Validate() {
		key, found := strings.CutPrefix(problem.Path, prefix)
		switch {
		case problem.Path == "name": // the plan's own
			key = "name"
		case !found || strings.ContainsAny(key, ".["):
			key = "form"
		}
		if errs[key] == "" {
			errs[key] = problem.What
			if key == "form" {
				errs[key] = problem.Error()
			}
		}
	}
}

// optionView is one option of a select.
type optionView struct {
	Value, Name string
	Selected    bool
}

// selected is a select's value as a field.
func selected(key, label string, options []optionView) fieldView {
	f := fieldView{Key: key, Label: label}
	for _, o := range options {
		if o.Selected {
			f.Value = o.Value
		}
	}
	return f
}

// checked is a checkbox's value as a field.
func checked(key, label string, on bool) fieldView {
	f := fieldView{Key: key, Label: label}
	if on {
		f.Value = "on"
	}
	return f
}

// readAmount reads money from a form, a bare number in a currency; empty is
// missing.
func readAmount(text, currency string) (money.Amount, error) {
	if text = strings.TrimSpace(text); text == "" {
		return money.Amount{}, nil
	}
	return money.Parse(text, currency)
}

// rowKey is the name of a field in row i of a list.
func rowKey(name string, i int) string { return fmt.Sprintf("%s.%d", name, i) }

func optionsOf(options []plan.Option, selected, none string) []optionView {
	var list []optionView
	if none != "" {
		list = append(list, optionView{"", none, selected == ""})
	}
	for _, o := range options {
		list = append(list, optionView{o.Value, o.Name, o.Value == selected})
	}
	return list
}
