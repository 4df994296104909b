package schema

import (
	"fmt"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
)

// Kinds is docs/kinds.md: the table of kinds as a rider or a shop reads it who writes parts.
func Kinds() string {
	var b strings.Builder
	b.WriteString("# Kinds of part\n\nMade from the table in `internal/core/parts`; the golden test of `internal/schema` holds it there. A part has the properties of its\nkind under `has`, each by its key, and none that is not known.\n")
	for i := range parts.Kinds() {
		k := &parts.Kinds()[i]
		fmt.Fprintf(&b, "\n## %s (`%s`)\n\n%s\n", k.Name, k.Slot, kindSays(k))
		if len(k.Asks) == 0 {
			continue
		}
		b.WriteString("\n| Key | Is | Believed |\n| --- | --- | --- |\n")
		for _, p := range k.Asks {
			fmt.Fprintf(&b, "| `%s` | %s | %s |\n", p.Key, strings.TrimPrefix(p.Label, "… "), believed(&p))
		}
	}
	return b.String()
}

func kindSays(k *parts.Kind) string {
	says := []string{fmt.Sprintf("Sits: %s.", k.Place)}
	if k.Hours > 0 {
		says = append(says, fmt.Sprintf("Fitting takes %g h.", k.Hours))
	}
	if k.AtOnce > 1 {
		says = append(says, fmt.Sprintf("A bike has room for %d.", k.AtOnce))
	}
	if k.Used != "" {
		says = append(says, "Of one's own, it is on "+strings.ToLower(entry.NameOf(parts.Uses(), string(k.Used)))+" until somebody says otherwise.")
	}
	if k.Weighs.Known() {
		says = append(says, fmt.Sprintf("Usually %g to %g kg.", k.Weighs.Value-k.Weighs.Half, k.Weighs.Value+k.Weighs.Half))
	}
	return strings.Join(says, " ")
}

// believed is what a property may be.
func believed(p *parts.Property) string {
	var says []string
	if p.Max > p.Min {
		says = append(says, strings.TrimSpace(fmt.Sprintf("%g to %g %s", p.Min, p.Max, p.Unit)))
	}
	if p.Options != nil {
		var words []string
		for _, o := range p.Options() {
			words = append(words, "`"+o.Value+"`")
		}
		says = append(says, strings.Join(words, ", "))
	}
	if p.Usual.Known() {
		says = append(says, strings.TrimSpace(fmt.Sprintf("usually %g to %g %s", p.Usual.Value-p.Usual.Half, p.Usual.Value+p.Usual.Half, p.Unit)))
	}
	return strings.Join(says, "; ")
}
