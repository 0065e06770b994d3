// Package house asks of the code what its rooms promise each other: which imports which, and that a figure has one name.
package house

import (
	"go/ast"
	"go/parser"
	"go/scanner"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"
	"unicode/utf8"
)

// rooms of the core, each below those that stand before it: an import points downward.
var rooms = [][]string{
	{"measured", "overview"},
	{"check", "walktest", "readout"},
	{"handover", "solve", "rehearse", "compare"},
	{"estimate"},
	{"year", "doubt"},
	{"effect"},
	{"resolve"},
	{"cause", "edit"},
	{"table"},
	{"plan"},
	{"uplink"},
	{"footage", "alert", "storage", "picture"},
	{"activity", "video"},
	{"week"},
	{"document", "looked", "parallel", "quantity", "seeded"},
}

// eachFile calls f with every Go file of a folder and below it that is no test.
func eachFile(t *testing.T, folder string, f func(path string, file *ast.File)) {
	t.Helper()
	seen := 0
	err := filepath.WalkDir(folder, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ParseComments)
		if err == nil {
			seen++
			f(path, file)
		}
		return err
	})
	if err != nil || seen == 0 {
		t.Fatalf("%d files of %s, %v", seen, folder, err)
	}
}

// TestImportsPointDownward asks every room of the core what it imports, and that no room has been forgotten here.
func TestImportsPointDownward(t *testing.T) {
	level := make(map[string]int)
	for i, list := range rooms {
		for _, room := range list {
			level[room] = i
		}
	}
	listed, err := os.ReadFile("../../CONTRIBUTING.md")
	if err != nil {
		t.Fatal(err)
	}
	for room := range level {
		if !strings.Contains(string(listed), "\n      "+room+"/ ") {
			t.Errorf("CONTRIBUTING.md does not say what core/%s is", room)
		}
	}
	eachFile(t, "../../core", func(path string, file *ast.File) {
		room := strings.Split(filepath.ToSlash(path), "/")[3]
		own, known := level[room]
		if !known {
			t.Errorf("%s: no place is said for its room", path)
			return
		}
		for _, spec := range file.Imports {
			of, _ := strconv.Unquote(spec.Path.Value)
			other, ours := strings.CutPrefix(of, "wakefield.example/core/")
			if !ours || strings.HasPrefix(other, room+"/") || strings.HasPrefix(other, "plan/plantest") {
				continue
			}
			if level[strings.Split(other, "/")[0]] <= own && room != other {
				t.Errorf("%s imports %s, which is not below it", path, other)
			}
		}
	})
}

// TestAFigureHasOneName asks of every member that is read or written as JSON that its Go name is the same, so that neither
// leaves out a unit.
func TestAFigureHasOneName(t *testing.T) {
	members := 0
	for _, folder := range []string{"../../core", ".."} {
		eachFile(t, folder, func(path string, file *ast.File) {
			ast.Inspect(file, func(n ast.Node) bool {
				f, ok := n.(*ast.Field)
				if !ok || f.Tag == nil || len(f.Names) != 1 {
					return true
				}
				tag, _ := strconv.Unquote(f.Tag.Value)
				name, _, _ := strings.Cut(reflect.StructTag(tag).Get("json"), ",")
				if name == "" || name == "-" {
					return true
				}
				members++
				if !strings.EqualFold(name, f.Names[0].Name) {
					t.Errorf("%s: %s is called %s in JSON", path, f.Names[0].Name, name)
				}
				return true
			})
		})
	}
	if members < 1000 {
		t.Errorf("%d members were looked at", members)
	}
}

// TestEachRoomSaysWhatItIs asks every package for a comment that tells its idea.
func TestEachRoomSaysWhatItIs(t *testing.T) {
	said := make(map[string]bool)
	for _, folder := range []string{"../../core", "..", "../../cmd"} {
		eachFile(t, folder, func(path string, file *ast.File) {
			dir := filepath.Dir(path)
			said[dir] = said[dir] || file.Doc != nil && len(strings.Fields(file.Doc.Text())) >= 6
		})
	}
	var silent []string
	for dir, yes := range said {
		if !yes {
			silent = append(silent, dir)
		}
	}
	slices.Sort(silent)
	if len(silent) > 0 {
		t.Errorf("no word on what they are: %v", silent)
	}
}

// widest is how many characters a line of Go has at most, unless one text or tag alone is what makes it longer.
const widest = 140

// TestLinesAreReadable asks of every line of Go, tests too, that it can be read without scrolling sideways.
func TestLinesAreReadable(t *testing.T) {
	lines := 0
	for _, folder := range []string{"../../core", "..", "../../cmd", "../../e2e", "../../web"} {
		err := filepath.WalkDir(folder, func(path string, d fs.DirEntry, err error) error {
			if err == nil && d.IsDir() && d.Name() == "node_modules" {
				return filepath.SkipDir
			}
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
				return err
			}
			text, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			lines += strings.Count(string(text), "\n")
			for _, at := range tooWide(string(text)) {
				t.Errorf("%s:%d has more than %d characters", path, at, widest)
			}
			return nil
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	if lines < 40_000 {
		t.Errorf("%d lines were looked at", lines)
	}
	wide := "package a\n\nvar b = f(" + strings.Repeat("c, ", 60) + "d)\nvar e = `" + strings.Repeat("f", 200) + "`\n"
	if got := tooWide(wide); !slices.Equal(got, []int{3}) {
		t.Errorf("of one line too wide and one long text, lines %v are found", got)
	}
}

// tooWide are the lines of a file that could be broken and are not.
func tooWide(text string) (at []int) {
	long := make(map[int]bool) // lines with a long text, or that lie in one
	var s scanner.Scanner
	set := token.NewFileSet()
	s.Init(set.AddFile("", set.Base(), len(text)), []byte(text), nil, 0)
	for {
		pos, kind, literal := s.Scan()
		if kind == token.EOF {
			break
		}
		if kind == token.STRING && (utf8.RuneCountInString(literal) > widest/2 || strings.Contains(literal, "\n")) {
			for i := range strings.Count(literal, "\n") + 1 {
				long[set.Position(pos).Line+i] = true
			}
		}
	}
	for i, line := range strings.Split(text, "\n") {
		if utf8.RuneCountInString(line) > widest && !long[i+1] {
			at = append(at, i+1)
		}
	}
	return at
}
