// Package desk is what all stages share: a request's plan evaluated in the loadout
// that it looks at, the bench that options are laid on, forms that are tried before
// they are saved, lists of options, and the frame around every page.
//
// A stage is a package that offers one [Stage]; it imports desk and never another
// stage. Package web gathers them and adds what is not of a plan's stage.
package desk

import (
	"html/template"
	"io/fs"
	"net/http"

	"valiantmule/internal/help"
	"valiantmule/internal/store"

	"github.com/maypok86/otter/v2"
)

// House is what is there for every request.
type House struct {
	Store  *store.Store
	Rider  func(*http.Request) string // id of who is signed in, "" when nobody is
	Stages []Stage
	// Answered is told of each page of a plan that may be kept whether it was made, kept here,
	// or unchanged since the browser had it.
	Answered func(how string)
	Help     *help.Help // what pages are for, and the words of the trade

	pages  map[string]*template.Template
	memo   *memo
	opened *otter.Cache[openedKey, *opened]
	things *otter.Cache[thingsKey, *store.Things]
}

// NewHouse checks the stages and parses their templates, and those of pages that
// are of no stage. asset is the address of an asset by its name; kept is how many bytes
// of answers are kept, none for 0.
func NewHouse(st *store.Store, rider func(*http.Request) string, asset func(name string) string, own fs.FS, kept int64, stages []Stage) (*House, error) {
	if err := Check(stages); err != nil {
		return nil, err
	}
	m, err := newMemo(kept)
	if err != nil {
		return nil, err
	}
	words, err := help.Read()
	if err != nil {
		return nil, err
	}
	s := &House{Store: st, Rider: rider, Stages: stages, Help: words, Answered: func(string) {}, memo: m, opened: newOpened(), things: newThings()}
	return s, s.parse(asset, own)
}
