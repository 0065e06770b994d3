// Package house asks of the code what its rooms promise each other: which imports which, and that a figure has one name.
package house

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"
)

// rooms of the core, each below those that stand before it: an import points downward.
var rooms = [][]string{
	{"check"},
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
	{"document", "looked", "parallel", "seeded"},
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
			other, ours := strings.CutPrefix(of, "wakefield/core/")
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
