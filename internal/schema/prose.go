package schema

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path"
	"reflect"
	"strings"
	"unicode"
	"unicode/utf8"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
)

// prose is what comments say of types and their fields, by "plan.Bike" and "plan.Bike.Tank".
type prose map[string]string

// rooms are the packages whose types are the document.
var rooms = []string{"plan", "parts", "logbook", "terrain", "track"}

func readProse(root fs.FS) (prose, error) {
	p := prose{}
	for _, room := range rooms {
		files, err := fs.Glob(root, path.Join("internal/core", room, "*.go"))
		if err != nil {
			return nil, err
		}
		for _, name := range files {
			if strings.HasSuffix(name, "_test.go") {
				continue
			}
			source, err := fs.ReadFile(root, name)
			if err != nil {
				return nil, err
			}
			file, err := parser.ParseFile(token.NewFileSet(), name, source, parser.ParseComments)
			if err != nil {
				return nil, err
			}
			p.read(room, file)
		}
	}
	return p, nil
}

func (p prose) read(room string, file *ast.File) {
	ast.Inspect(file, func(n ast.Node) bool {
		decl, ok := n.(*ast.GenDecl)
		if !ok || decl.Tok != token.TYPE {
			return true
		}
		for _, spec := range decl.Specs {
			typ := spec.(*ast.TypeSpec)
			name := room + "." + typ.Name.Name
			p[name] = decl.Doc.Text()
			fields, isStruct := typ.Type.(*ast.StructType)
			if !isStruct {
				continue
			}
			for _, f := range fields.Fields.List {
				for _, id := range f.Names {
					p[name+"."+id.Name] = f.Comment.Text()
				}
			}
		}
		return true
	})
}

// rows are the tables that describe numbers of a struct better than comments do.
var rows = map[reflect.Type][]entry.Field{
	reflect.TypeFor[plan.Bike]():     new(plan.Bike).Fields(),
	reflect.TypeFor[plan.Brief]():    new(plan.Brief).Fields(),
	reflect.TypeFor[plan.AsSet]():    new(plan.AsSet).Fields(),
	reflect.TypeFor[plan.Person]():   new(plan.Person).Fields(),
	reflect.TypeFor[plan.Setting]():  new(plan.Setting).Fields(),
	reflect.TypeFor[plan.Wired]():    new(plan.Wired).Fields(""),
	reflect.TypeFor[plan.Pressure](): new(plan.Pressure).Fields(),
	reflect.TypeFor[plan.Clicks]():   new(plan.Clicks).Fields(""),
	reflect.TypeFor[logbook.Volts](): new(logbook.Volts).Fields(),
}

// ofField is what is said of a field: by its row, or by its comment.
func (p prose) ofField(t reflect.Type, name, key string) string {
	for _, f := range rows[t] {
		if f.Key == key {
			return sentence(f.Label, f.Unit, f.Min, f.Max, f.Help)
		}
	}
	return begun(p[typeName(t)+"."+name])
}

// ofType is what is said of a type, without the name that the comment of one starts with.
func (p prose) ofType(t reflect.Type) string {
	text := p[typeName(t)]
	if rest, ok := strings.CutPrefix(text, t.Name()+" is "); ok {
		text = rest
	} else if rest, ok := strings.CutPrefix(text, t.Name()+" are "); ok {
		text = rest
	}
	return begun(text)
}

func typeName(t reflect.Type) string {
	return t.PkgPath()[strings.LastIndex(t.PkgPath(), "/")+1:] + "." + t.Name()
}

// begun is a comment as a sentence by itself.
func begun(comment string) string {
	text := strings.Join(strings.Fields(comment), " ")
	if text == "" {
		return ""
	}
	first, size := utf8.DecodeRuneInString(text)
	text = string(unicode.ToUpper(first)) + text[size:]
	if !strings.HasSuffix(text, ".") {
		text += "."
	}
	return text
}
