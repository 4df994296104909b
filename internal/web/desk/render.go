package desk

import (
	"bytes"
	"embed"
	"fmt"
	"html/template"
	"io/fs"
	"net/http"
	"path"
	"regexp"
	"strings"
	"sync"

	thirdparty "valiantmule/third_party"
)

//go:embed pages/*.gohtml
var pageFiles embed.FS

// Frame is what every page is given.
type Frame struct {
	Title string
	Here  string // path and query, for the way back
	Theme string
	Rider string // name of who is signed in
	Who   string // mark of theirs that a page can read, see [WhoOf]
	Away  bool   // a device may keep the page, see [KeepHeader]
	Plan  *PlanView
	Body  any
}

// parse reads every page with what it shares: the frame and the parts beside it
// here, and the stage's own.
func (s *House) parse(asset func(name string) string, own fs.FS) error {
	icons, err := iconsOf()
	if err != nil {
		return err
	}
	shared := template.New("_layout.gohtml").Funcs(template.FuncMap{
		"asset": asset,
		"glyph": glyph,
		"join":  strings.Join,
		"row":   row,
		"word":  s.Help.Of,
		"icon": func(name string) (template.HTML, error) {
			svg, ok := icons[name]
			if !ok {
				return "", fmt.Errorf("no icon %q: scripts/assets lists them", name)
			}
			return svg, nil
		},
	})
	frame, err := fs.Glob(pageFiles, "pages/_*.gohtml")
	if err != nil {
		return err
	}
	if err := parseFiles(shared, pageFiles, frame...); err != nil {
		return err
	}
	s.pages = map[string]*template.Template{}
	sources := []fs.FS{own}
	for _, st := range s.Stages {
		sources = append(sources, st.Files)
	}
	for _, source := range sources {
		if err := s.parsePages(shared, source); err != nil {
			return err
		}
	}
	return nil
}

// parsePages parses the files of pages/, with those that start with an underscore.
func (s *House) parsePages(shared *template.Template, source fs.FS) error {
	entries, err := fs.ReadDir(source, "pages")
	if err != nil {
		return err
	}
	var parts, pages []string
	for _, e := range entries {
		if strings.HasPrefix(e.Name(), "_") {
			parts = append(parts, "pages/"+e.Name())
		} else {
			pages = append(pages, e.Name())
		}
	}
	for _, name := range pages {
		t, err := shared.Clone()
		if err != nil {
			return err
		}
		if err := parseFiles(t, source, append(parts[:len(parts):len(parts)], "pages/"+name)...); err != nil {
			return err
		}
		s.pages[strings.TrimSuffix(name, path.Ext(name))] = t
	}
	return nil
}

// indent is for those who read the markup; a third of a page would be blanks.
var indent = regexp.MustCompile(`(?m)^[ \t]+`)

// parseFiles adds files to a template by their names, as its ParseFS does, without the
// blanks at the start of their lines.
func parseFiles(t *template.Template, source fs.FS, names ...string) error {
	for _, name := range names {
		text, err := fs.ReadFile(source, name)
		if err != nil {
			return err
		}
		file := t
		if base := path.Base(name); base != t.Name() {
			file = t.New(base)
		}
		if _, err := file.Parse(indent.ReplaceAllString(string(text), "")); err != nil {
			return err
		}
	}
	return nil
}

// iconsOf reads the vendored icons, hidden from screen readers: a word stands
// beside each.
func iconsOf() (map[string]template.HTML, error) {
	const dir = "bootstrap-icons"
	entries, err := thirdparty.Files.ReadDir(dir)
	if err != nil {
		return nil, err
	}
	icons := map[string]template.HTML{}
	for _, e := range entries {
		svg, err := thirdparty.Files.ReadFile(dir + "/" + e.Name())
		if err != nil {
			return nil, err
		}
		icons[strings.TrimSuffix(e.Name(), ".svg")] = template.HTML(strings.Replace(string(svg), "<svg ", `<svg aria-hidden="true" `, 1))
	}
	return icons, nil
}

// KeepHeader tells a device's worker the address under which it may keep an answer for where there
// is no network.
const KeepHeader = "Mule-Keep"

// header of every page: it is another one for who names parts of it.
func header(h http.Header) {
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Add("Vary", PartsHeader)
}

// buffers hold pages until they are whole.
var buffers = sync.Pool{New: func() any { return new(bytes.Buffer) }}

// Show answers with a page that is not a plan's.
func (s *House) Show(w http.ResponseWriter, r *http.Request, status int, name, title string, body any) error {
	return s.Render(w, r, status, name, Frame{Title: title, Body: body})
}

// Render makes the page, or the parts of it that are asked for, before the first byte
// is sent, so an error in it is still an error page.
func (s *House) Render(w http.ResponseWriter, r *http.Request, status int, name string, f Frame) error {
	p, ok := s.pages[name]
	if !ok {
		return fmt.Errorf("no page %q", name)
	}
	f.Theme = theme(r)
	f.Here = "/"
	if r.Method == http.MethodGet || r.Method == http.MethodHead {
		f.Here = r.URL.RequestURI()
	} else if f.Plan != nil {
		f.Here = f.Plan.Href(f.Plan.Page)
	}
	f.Rider = nameOf(r)
	f.Who = WhoOf(f.Rider)
	f.Away = w.Header().Get(KeepHeader) != ""
	out := buffers.Get().(*bytes.Buffer)
	defer func() { out.Reset(); buffers.Put(out) }()
	if err := fragmentOf(r).execute(out, p, f); err != nil {
		return err
	}
	header(w.Header())
	w.Header().Set("Cache-Control", "no-store")
	return s.memo.answer(w, r, status, shown(out.Bytes()))
}

// row gives a template several things by name: "Plan" $.Plan "Guess" .
func row(pairs ...any) (map[string]any, error) {
	m := make(map[string]any, len(pairs)/2)
	for i := 0; i+1 < len(pairs); i += 2 {
		name, ok := pairs[i].(string)
		if !ok {
			return nil, fmt.Errorf("row: %v is no name", pairs[i])
		}
		m[name] = pairs[i+1]
	}
	return m, nil
}
