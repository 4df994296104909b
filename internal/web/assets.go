package web

import (
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"io/fs"
	"maps"
	"mime"
	"net/http"
	"path"
	"slices"
	"strconv"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/web/desk"
	thirdparty "valiantmule/third_party"
)

//go:embed static
var static embed.FS

// bundle is every asset under a path that holds a hash of them all, so that a
// browser keeps them for a year and never sees an old one with a new page.
type bundle struct {
	files map[string][]byte
	hash  string
}

func newBundle(stages []desk.Stage) (*bundle, error) {
	b := &bundle{files: map[string][]byte{}}
	sources := []fs.FS{static, thirdparty.Files}
	for _, st := range stages {
		if st.Script == "" {
			continue
		}
		own, err := fs.Sub(st.Files, "static")
		if err != nil {
			return nil, err
		}
		sources = append(sources, own)
	}
	for _, source := range sources {
		err := fs.WalkDir(source, ".", func(name string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() {
				return err
			}
			base := path.Base(name)
			if _, twice := b.files[base]; twice && path.Ext(base) == ".js" {
				return fmt.Errorf("script %q is there twice", base)
			}
			b.files[base], err = fs.ReadFile(source, name)
			return err
		})
		if err != nil {
			return nil, err
		}
	}
	sum := sha256.New()
	names := make([]string, 0, len(b.files))
	for name := range b.files {
		names = append(names, name)
	}
	slices.Sort(names)
	for _, name := range names {
		sum.Write([]byte(name + strconv.Itoa(len(b.files[name]))))
		sum.Write(b.files[name])
	}
	b.hash = hex.EncodeToString(sum.Sum(nil))[:16]
	return b, nil
}

// path of an asset.
func (b *bundle) path(name string) string { return "/assets/" + b.hash + "/" + name }

// ServeHTTP answers for an asset; another version's path is not found.
func (b *bundle) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	name := chi.URLParam(r, "name")
	content, ok := b.files[name]
	if !ok || chi.URLParam(r, "hash") != b.hash {
		http.NotFound(w, r)
		return
	}
	if r.Method != http.MethodGet && r.Method != http.MethodHead {
		w.WriteHeader(http.StatusMethodNotAllowed)
		return
	}
	w.Header().Set("Content-Type", contentType(name))
	w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
	_, _ = w.Write(content)
}

// worker answers with the script that keeps pages on a device: it is told the version of the
// assets, so that another version is another script, and what of them pages load.
func (b *bundle) worker(w http.ResponseWriter, _ *http.Request) {
	var files []string
	for _, name := range slices.Sorted(maps.Keys(b.files)) {
		if loaded[path.Ext(name)] || name == "mark.svg" {
			files = append(files, b.path(name))
		}
	}
	list, err := json.Marshal(files)
	if err != nil {
		http.Error(w, err.Error(), http.StatusInternalServerError)
		return
	}
	w.Header().Set("Content-Type", contentType("worker.js"))
	w.Header().Set("Cache-Control", "no-cache")
	_, _ = fmt.Fprintf(w, "const VERSION = %q, FILES = %s;\n%s", b.hash, list, b.files["worker.js"])
}

// loaded are the kinds of asset that pages load by themselves.
var loaded = map[string]bool{".css": true, ".js": true, ".woff2": true}

// contentType does not ask the machine's own table, which may lack fonts.
func contentType(name string) string {
	switch ext := path.Ext(name); ext {
	case ".woff2":
		return "font/woff2"
	case ".webmanifest":
		return "application/manifest+json"
	case ".js":
		return "text/javascript; charset=utf-8"
	default:
		return mime.TypeByExtension(ext)
	}
}
