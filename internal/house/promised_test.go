package house

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
)

// TestFiguresOfThePageArePrinted holds the table of what the page takes in docs/operation.md to the benchmarks that print it, in the
// same words, both ways; and the table to a date.
func TestFiguresOfThePageArePrinted(t *testing.T) {
	var printed []string
	files, _ := filepath.Glob("../../e2e/bench*_test.go")
	for _, name := range files {
		file, err := parser.ParseFile(token.NewFileSet(), name, nil, 0)
		if err != nil {
			t.Fatal(err)
		}
		ast.Inspect(file, func(n ast.Node) bool {
			call, ok := n.(*ast.CallExpr)
			if !ok {
				return true
			}
			if f, ok := call.Fun.(*ast.Ident); ok && f.Name == "promised" {
				if words, ok := call.Args[1].(*ast.BasicLit); ok {
					text, _ := strconv.Unquote(words.Value)
					printed = append(printed, text)
				}
			}
			return true
		})
	}
	text, err := os.ReadFile("../../docs/operation.md")
	if err != nil {
		t.Fatal(err)
	}
	_, table, _ := strings.Cut(string(text), "Medians in the browser")
	heading, table, _ := strings.Cut(table, "\n")
	if !regexp.MustCompile(`\d{1,2} [A-Z][a-z]+ 20\d\d`).MatchString(heading) {
		t.Errorf("the figures have no date: %s", heading)
	}
	var told []string
	for _, line := range strings.Split(table, "\n") {
		if words, _, is := strings.Cut(strings.TrimPrefix(line, "| "), " |"); is && words != "" && words[0] != '|' {
			told = append(told, words)
		}
	}
	for _, words := range printed {
		if !slices.Contains(told, words) {
			t.Errorf("docs/operation.md does not have what is printed: %s", words)
		}
	}
	for _, words := range told {
		if !slices.Contains(printed, words) {
			t.Errorf("no benchmark prints: %s", words)
		}
	}
	if len(printed) < 20 {
		t.Errorf("%d figures are printed", len(printed))
	}
}
