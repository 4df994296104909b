package desk

import (
	"html/template"

	"valiantmule/internal/core/verdict"
)

// glyphs are the marks of the states, ready to be sent: a page has up to two hundred,
// and a word stands beside each.
var glyphs = glyphsOf(map[verdict.State]string{
	verdict.OK:      `<path class="line" d="M4.5 1.9h7L15 8l-3.5 6.1h-7L1 8z"/><circle class="body" cx="8" cy="8" r="2.6"/>`,
	verdict.Watch:   `<path class="line" d="M4.5 1.9h7L15 8l-3.5 6.1h-7L1 8z"/><path class="body" d="M1 8h14l-3.5 6.1h-7z"/>`,
	verdict.Over:    `<path class="body" d="M4.5 1.9h7L15 8l-3.5 6.1h-7L1 8z"/><path class="cut" d="M8 3.6v8M4.8 6.8L8 3.6l3.2 3.2"/>`,
	verdict.Stop:    `<path class="body" d="M1 1h14v14H1z"/><path class="cut" d="M4.5 4.5l7 7M11.5 4.5l-7 7"/>`,
	verdict.Unknown: `<path class="line dashed" d="M4.5 1.9h7L15 8l-3.5 6.1h-7L1 8z"/><path class="line" d="M6.2 6.4a1.9 1.9 0 1 1 2.6 1.8q-.8.3-.8 1.2M8 11.4v.4"/>`,
})

func glyphsOf(marks map[verdict.State]string) map[verdict.State]template.HTML {
	ready := map[verdict.State]template.HTML{}
	for state, mark := range marks {
		ready[state] = template.HTML(`<svg class="glyph glyph-` + string(state) + `" viewBox="0 0 16 16" aria-hidden="true">` + mark + `</svg>`)
	}
	return ready
}

// glyph of a state; one that nobody has said is not known.
func glyph(s StateView) template.HTML {
	if mark, ok := glyphs[s.ID]; ok {
		return mark
	}
	return glyphs[verdict.Unknown]
}
