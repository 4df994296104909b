package studytest

import (
	"fmt"
	"reflect"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/golden"
)

// Golden holds what a study finds of each of the [Scenes]: its facts, figures, findings
// and needs, one a line, in numbers and without their wording. testdata/golden is the
// file, read as a diff when a rate or a rule is meant to change.
func Golden(t *testing.T, s study.Study) {
	t.Helper()
	b := New(t)
	var text strings.Builder
	for _, scene := range Scenes(b) {
		for i, l := range eval.Evaluate(scene.Plan, b.Shelf, Today).Loadouts {
			if scene.All || i == len(scene.Plan.Loadouts)-1 {
				fmt.Fprintf(&text, "# %s, %s\n", scene.Name, l.Name)
				describe(&text, &l, s)
				worked(t, &text, scene.Plan, l.ID, s)
			}
		}
	}
	golden.Held(t, "golden", text.String())
}

// worked writes the numbers of a study's workings.
func worked(t *testing.T, w *strings.Builder, p *plan.Plan, loadout string, s study.Study) {
	t.Helper()
	for _, step := range s.Steps {
		for _, id := range step.Figures {
			_, working, err := eval.Explain(p, loadout, id, Today)
			require.NoError(t, err)
			if len(working.Steps) == 0 {
				continue
			}
			fmt.Fprintf(w, "= %s:", id)
			for _, done := range working.Steps {
				fmt.Fprintf(w, " %s of", golden.Number(done.Out.Number))
				for _, in := range done.In {
					w.WriteString(" " + golden.Number(in.Number))
				}
				w.WriteString(";")
			}
			fmt.Fprintf(w, " %d notes\n", len(working.Notes))
		}
	}
}

// describe writes what a study has found in a loadout.
func describe(w *strings.Builder, l *eval.LoadoutReport, s study.Study) {
	all := reflect.ValueOf(l.Facts).Elem()
	for _, step := range s.Steps {
		for _, group := range step.Gives.Groups() {
			golden.Write(w, group.String(), all.FieldByName(group.String()).Interface())
		}
		for _, id := range step.Figures {
			f, _ := l.Figure(id)
			golden.Write(w, string(id), struct {
				State                   verdict.State
				Value, Limit, Low, High float64
				Missing                 int
			}{f.State, f.Value, f.Limit, f.Low, f.High, len(f.Missing)})
		}
	}
	for _, r := range s.Rules {
		if f, ok := r.Speak(l.Facts); ok {
			words := f.Tell()
			fmt.Fprintf(w, "! %s %s%s;%s\n", f.State, f.ID, quantities(words.What, words.Why, words.Do), offered(f))
		}
	}
	if needs, known := l.Needs(); known {
		for _, n := range needs {
			if slices.ContainsFunc(s.Needs, func(r study.NeedRule) bool { return r.ID == n.ID }) {
				a := n.Tell()
				fmt.Fprintf(w, "? %s met %t%s\n", n.ID, n.Met, quantities(a.Because, a.Bare, a.Fitted, a.Short))
			}
		}
	}
}

// figures of sentences: what stands between braces.
var inBraces = regexp.MustCompile(`\{[^}]*\}|[0-9][0-9.,/–-]*`)

func quantities(texts ...study.Text) string {
	var b strings.Builder
	for _, text := range texts {
		b.WriteString(" |")
		for _, q := range inBraces.FindAllString(string(text), -1) {
			b.WriteString(" " + strings.Trim(q, "{}"))
		}
	}
	return b.String()
}

// offered names the parts of a finding's remedies.
func offered(f study.Finding) string {
	var b strings.Builder
	for _, r := range f.Remedies() {
		for _, c := range r.Choices {
			if c.Part != nil {
				b.WriteString(" " + c.Part.ID)
			}
		}
		b.WriteString(",")
	}
	return b.String()
}
