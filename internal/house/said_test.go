package house

import (
	"go/ast"
	"go/token"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"wakefield.example/core/plan"
)

// counts finds what a number that need not be whole counts in a format.
var counts = regexp.MustCompile(`%(?:\.\d)?[vg] ([a-z]+s)\b`)

// TestWhatIsCountedIsSaid holds every format in which a number counts something to plan.Say, which knows one from many of it.
func TestWhatIsCountedIsSaid(t *testing.T) {
	verbs := []string{"is", "has", "was", "keeps", "takes"}
	asked := 0
	for _, folder := range []string{"../../core", "../../internal", "../../cmd"} {
		eachFile(t, folder, func(path string, file *ast.File) {
			var said []*ast.CallExpr
			ast.Inspect(file, func(n ast.Node) bool {
				switch n := n.(type) {
				case *ast.CallExpr:
					name := ""
					switch f := n.Fun.(type) {
					case *ast.Ident:
						name = f.Name
					case *ast.SelectorExpr:
						name = f.Sel.Name
					}
					if strings.EqualFold(name, "say") {
						said = append(said, n)
					}
				case *ast.BasicLit:
					text, err := strconv.Unquote(n.Value)
					if n.Kind != token.STRING || err != nil {
						return true
					}
					for _, found := range counts.FindAllStringSubmatch(text, -1) {
						if slices.Contains(verbs, found[1]) || strings.Contains(text, found[0]+" as ") {
							continue
						}
						asked++
						if plan.Say("%v "+found[1], 1.0) == "1 "+found[1] {
							t.Errorf("%s: plan.Say does not know one of %q, in %q", path, found[1], text)
						}
						if !slices.ContainsFunc(said, func(c *ast.CallExpr) bool { return c.Pos() <= n.Pos() && n.End() <= c.End() }) {
							t.Errorf("%s: %q counts and is not said by plan.Say", path, text)
						}
					}
				}
				return true
			})
		})
	}
	if asked < 30 {
		t.Errorf("%d formats were found", asked)
	}
}
