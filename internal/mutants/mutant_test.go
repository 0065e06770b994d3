package main

import (
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

const sample = `package sample

type limits struct{ most [4]int }

func held(days, need float64, on bool) (ok bool) {
	list := make([]int, 0, 8)
	if !on && days < need {
		return false
	}
	days -= 0.5
	println(len(list))
	return days*2 >= need
}
`

// TestEachChangeIsOne makes every change to a small file and asks that it is one change, in Go still.
func TestEachChangeIsOne(t *testing.T) {
	file := filepath.Join(t.TempDir(), "sample.go")
	if err := os.WriteFile(file, []byte(sample), 0o644); err != nil {
		t.Fatal(err)
	}
	all, err := mutantsOf(file)
	if err != nil {
		t.Fatal(err)
	}
	made := map[string]bool{}
	for _, m := range all {
		text := string(m.text())
		if _, err := parser.ParseFile(token.NewFileSet(), "changed.go", text, 0); err != nil {
			t.Errorf("%s: %v", m, err)
		}
		if made[text] || text == sample {
			t.Errorf("%s is nothing new", m)
		}
		made[text] = true
	}
	for _, want := range []string{"!on || days", "days <= need", "if on && days", "return true", "days += 0.5", "days*3", "days/2",
		"* 2 > need", "days -= 0.85", "if false && (!on"} {
		found := false
		for text := range made {
			found = found || strings.Contains(strings.ReplaceAll(text, "days*2 > ", "days * 2 > "), want)
		}
		if !found {
			t.Errorf("nobody writes %q", want)
		}
	}
	for text := range made {
		if strings.Contains(text, "0, 9)") || strings.Contains(text, "[5]int") {
			t.Error("the size of a list is nothing to notice")
		}
	}
}

// TestSurvivorsAreFoundAgain finds a change of a report where the file has grown by some lines.
func TestSurvivorsAreFoundAgain(t *testing.T) {
	folder := t.TempDir()
	file, report := filepath.Join(folder, "sample.go"), filepath.Join(folder, "report.txt")
	if err := os.WriteFile(file, []byte(sample), 0o644); err != nil {
		t.Fatal(err)
	}
	all, err := mutantsOf(file)
	if err != nil {
		t.Fatal(err)
	}
	lines := "noticed          " + all[1].String() + " by TestIt\nSURVIVED         " + all[2].String() +
		" \nSURVIVED         gone.go:3: \"1\" for \"0\" \n"
	os.WriteFile(report, []byte(lines), 0o644)
	os.WriteFile(file, []byte(strings.Replace(sample, "type limits", "// More.\n\n// And more.\ntype limits", 1)), 0o644)
	moved, err := mutantsOf(file)
	if err != nil {
		t.Fatal(err)
	}
	again, err := survivors(report, moved)
	if err != nil || len(again) != 1 || again[0].change() != all[2].change() || again[0].line != all[2].line+3 {
		t.Errorf("%v, %v", again, err)
	}
}
