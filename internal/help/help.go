// Package help is what the program says of itself: the words of the trade, and of each page what
// it is for. Both stand in one file that is read at start.
package help

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"
)

//go:embed help.txt
var file string

// Word is one of the trade.
type Word struct {
	ID, Name, Text string
	Of             []string // keys of fields and ids of figures whose labels lead to it
}

// Page is what one page is for.
type Page struct {
	ID    string
	Lines []string // at most five
	Words []string // ids
}

// Help is all of it.
type Help struct {
	Words []Word
	Pages []Page
}

// linesMost is how many lines a page has at most.
const linesMost = 5

// Read is the program's own, which is known to fit together.
func Read() (*Help, error) { return Parse(file) }

// Parse reads a text of the file's form; an error names the line.
func Parse(text string) (*Help, error) {
	h := &Help{}
	var page *Page
	var word *Word
	for n, line := range strings.Split(text, "\n") {
		line = strings.TrimSpace(line)
		rest, isWords := strings.CutPrefix(line, "words:")
		of, isOf := strings.CutPrefix(line, "of:")
		point, isPoint := strings.CutPrefix(line, "- ")
		id, name, isHead := strings.Cut(strings.TrimPrefix(line, "["), "]")
		isHead = isHead && strings.HasPrefix(line, "[")
		switch {
		case line == "" || strings.HasPrefix(line, "#"):
		case isHead && strings.HasPrefix(id, "page "):
			h.Pages = append(h.Pages, Page{ID: strings.TrimPrefix(id, "page ")})
			page, word = &h.Pages[len(h.Pages)-1], nil
		case isHead:
			h.Words = append(h.Words, Word{ID: id, Name: strings.TrimSpace(name)})
			page, word = nil, &h.Words[len(h.Words)-1]
		case page != nil && isPoint:
			page.Lines = append(page.Lines, point)
		case page != nil && isWords:
			page.Words = strings.Fields(rest)
		case word != nil && isOf:
			word.Of = strings.Fields(of)
		case word != nil && word.Text == "":
			word.Text = line
		default:
			return nil, fmt.Errorf("help, line %d: %q is of no word and no page", n+1, line)
		}
	}
	return h, h.check()
}

// check finds what does not fit together: a word twice or without a text, a label of two words, a
// page with too many lines or a word that there is not.
func (h *Help) check() error {
	ids, of := map[string]bool{}, map[string]string{}
	for _, w := range h.Words {
		if ids[w.ID] || w.Name == "" || w.Text == "" {
			return fmt.Errorf("help: the word %q stands there twice, or has no name or text", w.ID)
		}
		ids[w.ID] = true
		for _, key := range w.Of {
			if of[key] != "" {
				return fmt.Errorf("help: the label %q is of %q and of %q", key, of[key], w.ID)
			}
			of[key] = w.ID
		}
	}
	pages := map[string]bool{}
	for _, p := range h.Pages {
		if pages[p.ID] || len(p.Lines) == 0 || len(p.Lines) > linesMost {
			return fmt.Errorf("help: the page %q stands there twice, or has not one to %d lines", p.ID, linesMost)
		}
		pages[p.ID] = true
		for _, id := range p.Words {
			if !ids[id] {
				return fmt.Errorf("help: the page %q has the word %q, which there is not", p.ID, id)
			}
		}
	}
	return nil
}

// Page finds what a page is for.
func (h *Help) Page(id string) (Page, bool) {
	at := slices.IndexFunc(h.Pages, func(p Page) bool { return p.ID == id })
	if at < 0 {
		return Page{}, false
	}
	return h.Pages[at], true
}

// WordsOf are the words of a page, all of them for one that has none.
func (h *Help) WordsOf(p Page) []Word {
	if len(p.Words) == 0 {
		return h.Words
	}
	return slices.DeleteFunc(slices.Clone(h.Words), func(w Word) bool { return !slices.Contains(p.Words, w.ID) })
}

// Of is the word that the label of a field or figure leads to, nil for none.
func (h *Help) Of(key string) *Word {
	for i := range h.Words {
		if slices.Contains(h.Words[i].Of, key) {
			return &h.Words[i]
		}
	}
	return nil
}
