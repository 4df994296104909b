package web

import (
	"bytes"
	"embed"
	"fmt"
	"html/template"
	"net/http"
	"path"
	"strings"
	"sync"

	thirdparty "valiantmule/third_party"
)

//go:embed pages/*.gohtml
var pageFiles embed.FS

// page is one template with everything that it includes.
type page struct{ template *template.Template }

// frame is what every page is given.
type frame struct {
	Title string
	Here  string // path and query, for the way back
	Theme string
	Rider string // name of who is signed in
	Plan  *planView
	Body  any
}

// parsePages parses each file of pages/ with the shared ones, which start with
// an underscore.
func parsePages(assets *bundle) (map[string]*page, error) {
	icons, err := iconsOf()
	if err != nil {
		return nil, err
	}
	functions := template.FuncMap{
		"asset": assets.path,
		"join":  strings.Join,
		"icon": func(name string) (template.HTML, error) {
			svg, ok := icons[name]
			if !ok {
				return "", fmt.Errorf("no icon %q: scripts/assets lists them", name)
			}
			return svg, nil
		},
	}
	entries, err := pageFiles.ReadDir("pages")
	if err != nil {
		return nil, err
	}
	pages := map[string]*page{}
	for _, e := range entries {
		if strings.HasPrefix(e.Name(), "_") {
			continue
		}
		t, err := template.New("_layout.gohtml").Funcs(functions).ParseFS(pageFiles, "pages/_*.gohtml", "pages/"+e.Name())
		if err != nil {
			return nil, err
		}
		pages[strings.TrimSuffix(e.Name(), path.Ext(e.Name()))] = &page{t}
	}
	return pages, nil
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

// buffers hold pages until they are whole.
var buffers = sync.Pool{New: func() any { return new(bytes.Buffer) }}

// show answers with a page that is not a plan's.
func (s *Server) show(w http.ResponseWriter, r *http.Request, status int, name, title string, body any) error {
	return s.render(w, r, status, name, frame{Title: title, Body: body})
}

// render makes the whole page before the first byte is sent, so an error in it
// is still an error page.
func (s *Server) render(w http.ResponseWriter, r *http.Request, status int, name string, f frame) error {
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
	out := buffers.Get().(*bytes.Buffer)
	defer func() { out.Reset(); buffers.Put(out) }()
	if err := p.template.Execute(out, f); err != nil {
		return err
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.Header().Set("Cache-Control", "no-store")
	w.WriteHeader(status)
	_, err := out.WriteTo(w)
	return err
}
