package main

import (
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/format"
	"valiantmule/internal/words"
)

// check evaluates a plan file and prints its gauges and findings.
func check(args []string, in io.Reader, out io.Writer) error {
	asked, err := checkArgs(args)
	if errors.Is(err, flag.ErrHelp) {
		_, err := io.WriteString(out, checkHelp)
		return err
	}
	if err != nil {
		return errUse{"check: " + err.Error()}
	}
	p, err := readPlanFile(asked.path, in)
	if err != nil {
		return errUse{fmt.Sprintf("check: %s: %v", asked.path, err)}
	}
	report := eval.Evaluate(p, nil, asked.asOf)
	if asked.form == "json" {
		err = json.MarshalWrite(out, checkDocument(report), jsontext.WithIndent("  "))
		fmt.Fprintln(out)
	} else {
		_, err = io.WriteString(out, checkText(p, report))
	}
	if err != nil {
		return err
	}
	for i := range report.Loadouts {
		if report.Loadouts[i].Worst() == verdict.Stop {
			return exit(1)
		}
	}
	return nil
}

const checkHelp = `mule check [-format text|json] [-as-of DATE] FILE|-

Evaluates a plan file, or with - what comes on standard input, in every loadout: its
gauges, each with its limit and what it lacks, and what the rules of the trade say.

  -format text|json   what is written (text)
  -as-of DATE         the day on which it is looked at (today), e.g. 2026-11-26

It exits 0; 1 if anything in any loadout is stop; 2 when the file cannot be read, with the
place in it on standard error.
`

// checking is what a call of check asks for.
type checking struct {
	form, path string
	asOf       string // date, 2026-11-26
}

// checkArgs reads the flags, before or after the file.
func checkArgs(args []string) (asked checking, err error) {
	flags := flag.NewFlagSet("check", flag.ContinueOnError)
	flags.SetOutput(io.Discard)
	flags.StringVar(&asked.form, "format", "text", "")
	flags.StringVar(&asked.asOf, "as-of", time.Now().Format(time.DateOnly), "")
	var files []string
	for rest := args; len(rest) > 0; {
		if err := flags.Parse(rest); err != nil {
			return asked, err
		}
		if rest = flags.Args(); len(rest) > 0 {
			files, rest = append(files, rest[0]), rest[1:]
		}
	}
	if asked.form != "text" && asked.form != "json" {
		return asked, fmt.Errorf("-format %q, want text or json", asked.form)
	}
	if _, err := time.Parse(time.DateOnly, asked.asOf); err != nil {
		return asked, fmt.Errorf("-as-of %q, want a date, e.g. 2026-11-26", asked.asOf)
	}
	if len(files) != 1 {
		return asked, fmt.Errorf("want one plan file, or - for standard input; got %d", len(files))
	}
	asked.path = files[0]
	return asked, nil
}

func readPlanFile(path string, in io.Reader) (*plan.Plan, error) {
	if path == "-" {
		return format.ReadPlan(in)
	}
	file, err := os.Open(path)
	if err != nil {
		return nil, fmt.Errorf("cannot be read")
	}
	defer file.Close()
	return format.ReadPlan(file)
}

// The JSON of check is a contract; see the product's commands.
type (
	checkJSON struct {
		Version  int           `json:"version"`
		Gauges   []gaugeJSON   `json:"gauges"`
		Findings []findingJSON `json:"findings"`
	}
	gaugeJSON struct {
		ID      string        `json:"id"`
		Loadout string        `json:"loadout"`
		State   verdict.State `json:"state"`
		Value   any           `json:"value"` // a number, of a day its date, null when it is unknown
		Unit    string        `json:"unit"`
		Limit   any           `json:"limit"`
		Missing []string      `json:"missing"`
		Low     any           `json:"low"`
		High    any           `json:"high"`
		// ByEstimate is how many numbers under it are guessed or usual ones that nobody has said.
		ByEstimate int `json:"by_estimate"`
	}
	findingJSON struct {
		ID      string        `json:"id"`
		State   verdict.State `json:"state"`
		Loadout string        `json:"loadout"`
		What    string        `json:"what"`
		Why     string        `json:"why"`
		Do      string        `json:"do"`
		Cause   cause.ID      `json:"cause"` // findings of one are one card
		Class   cause.Class   `json:"class"` // what it would cost the trip, 1 (fails or will not start) to 7; they are listed in that order
		Aside   string        `json:"aside"` // "set" for what its rider has set aside, "guess" for what a guess decides, "small", "day" for what is set when it is loaded, "" for an open point
	}
)

const checkVersion = 1

func checkDocument(report *eval.Report) checkJSON {
	doc := checkJSON{Version: checkVersion, Gauges: []gaugeJSON{}, Findings: []findingJSON{}}
	for _, l := range report.Loadouts {
		for _, g := range l.Gauges {
			out := gaugeJSON{ID: string(g.ID), Loadout: l.ID, State: g.State, Unit: g.Unit, Missing: g.Missing}
			written := func(v float64) any {
				if g.IsDate() {
					return calendar.Day(v).String()
				}
				return v
			}
			if g.Known {
				out.Value, out.ByEstimate = written(g.Value), int(g.Usual)
			}
			if g.Known && g.Banded {
				out.Low, out.High = written(g.Low), written(g.High)
			}
			if g.Limited {
				out.Limit = written(g.Limit)
			}
			doc.Gauges = append(doc.Gauges, out)
		}
		for _, f := range study.InOrder(l.Findings) {
			told := f.Tell()
			doc.Findings = append(doc.Findings, findingJSON{f.ID, f.State, l.ID, told.What.String(), told.Why.String(), told.Do.String(), f.Cause, f.Class, f.Aside()})
		}
	}
	return doc
}

// metric is what a file that goes anywhere is told in.
var metric words.Units

// inLines writes what stands aside.
func inLines(b *strings.Builder, title string, findings []study.Finding) {
	for i, f := range findings {
		if i == 0 {
			fmt.Fprintf(b, "\n  %s:\n", title)
		}
		told := f.Tell()
		fmt.Fprintf(b, "    %s [%s]\n", told.What, f.ID)
		if f.Waived != nil {
			fmt.Fprintf(b, "      Why: %s\n", f.Waived.Why)
		}
	}
}

func checkText(p *plan.Plan, report *eval.Report) string {
	var b strings.Builder
	fmt.Fprintln(&b, p.Name)
	for _, l := range report.Loadouts {
		fmt.Fprintf(&b, "\n%s\n", l.Name)
		for _, g := range l.Gauges {
			fmt.Fprintf(&b, "  %-8s %-14s %14s", g.State, g.Name, metric.Value(g))
			if g.Limited {
				fmt.Fprintf(&b, "  of %s", metric.Limit(g))
			}
			if g.Known && g.Usual > 0 {
				fmt.Fprintf(&b, "  about: %d by what is usual", g.Usual)
				if g.Banded {
					fmt.Fprintf(&b, ", %s", metric.Band(g))
				}
			}
			if len(g.Missing) > 0 {
				fmt.Fprintf(&b, "  missing: %s", strings.Join(g.Missing, "; "))
			}
			b.WriteString("\n")
		}
		for _, card := range study.Cards(l.Findings) {
			told := card.Lead.Tell()
			fmt.Fprintf(&b, "\n  %s: %s [%s]\n    %s\n    Do: %s\n", card.Lead.State, told.What, card.Lead.ID, told.Why, told.Do)
			if w := card.Lead.Waived; w != nil {
				fmt.Fprintf(&b, "    You noted: %s\n", w.Why)
			}
			for _, f := range card.More {
				told := f.Tell()
				fmt.Fprintf(&b, "    Of it too, %s: %s [%s]\n      Do: %s\n", f.State, told.What, f.ID, told.Do)
			}
		}
		inLines(&b, "On the day", study.OfTheDay(l.Findings))
		inLines(&b, "Small things", study.SmallThings(l.Findings))
		inLines(&b, "A guess decides", study.Guessed(l.Findings))
		inLines(&b, "Set aside", study.SetAside(l.Findings))
	}
	if n := len(report.Usuals()); n > 0 {
		fmt.Fprintf(&b, "\n%d numbers of the plan are guessed or usual ones that nobody has said.\n", n)
	}
	b.WriteString("\nComputed from what the plan says; the maker's manual, local law and a competent mechanic decide.\n")
	return b.String()
}
