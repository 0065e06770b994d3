package formats

import (
	"go/ast"
	"go/parser"
	"go/token"
	"path/filepath"
	"strings"
	"testing"
)

// TestWhatReadsForeignDataCanBeStopped asks of every function that others hand foreign data to, and that goes through them or
// hands them on, that it takes a context first: what nobody waits for any more ends.
func TestWhatReadsForeignDataCanBeStopped(t *testing.T) {
	checked := 0
	for _, dir := range []string{".", "../stills", "../backup"} {
		files, err := filepath.Glob(filepath.Join(dir, "*.go"))
		if err != nil {
			t.Fatal(err)
		}
		for _, file := range files {
			if strings.HasSuffix(file, "_test.go") {
				continue
			}
			parsed, err := parser.ParseFile(token.NewFileSet(), file, nil, 0)
			if err != nil {
				t.Fatal(err)
			}
			for _, d := range parsed.Decls {
				f, ok := d.(*ast.FuncDecl)
				if !ok || !f.Name.IsExported() || !takesData(f) || !works(f) {
					continue
				}
				checked++
				if first, ok := f.Type.Params.List[0].Type.(*ast.SelectorExpr); !ok || first.Sel.Name != "Context" {
					t.Errorf("%s: %s goes through data and takes no context first", file, f.Name.Name)
				}
			}
		}
	}
	if checked < 6 {
		t.Errorf("%d functions were looked at", checked)
	}
}

// takesData tells whether a function is handed bytes or a file.
func takesData(f *ast.FuncDecl) bool {
	for _, p := range f.Type.Params.List {
		switch kind := p.Type.(type) {
		case *ast.ArrayType:
			if of, ok := kind.Elt.(*ast.Ident); ok && of.Name == "byte" {
				return true
			}
		case *ast.SelectorExpr:
			if kind.Sel.Name == "Reader" {
				return true
			}
		case *ast.Ident:
			if kind.Name == "string" && len(p.Names) > 0 && (p.Names[0].Name == "file" || p.Names[0].Name == "data") {
				return true
			}
		}
	}
	return false
}

// works tells whether a function does more than one thing with it.
func works(f *ast.FuncDecl) bool {
	loops, calls := 0, 0
	ast.Inspect(f, func(n ast.Node) bool {
		switch n.(type) {
		case *ast.ForStmt, *ast.RangeStmt:
			loops++
		case *ast.CallExpr:
			calls++
		}
		return true
	})
	return loops > 0 || calls > 4
}
