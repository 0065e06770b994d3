package house

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"wakefield.example/internal/demo"
)

// TestTheCoreIsALibrary has a module of its own, beside this one, that is the program of the README, and runs it on a
// sample site: what is written there compiles, and imports by a path that the go command understands.
func TestTheCoreIsALibrary(t *testing.T) {
	readme, err := os.ReadFile("../../README.md")
	if err != nil {
		t.Fatal(err)
	}
	_, program, found := strings.Cut(string(readme), "\n    package main\n")
	if !found {
		t.Fatal("the README has no program")
	}
	program, _, _ = strings.Cut(program, "\n\n"+"In a module of your own")
	program = "package main\n" + strings.ReplaceAll(program, "\n    ", "\n")
	root, err := filepath.Abs("../..")
	if err != nil {
		t.Fatal(err)
	}
	dir := t.TempDir()
	sample, err := demo.PennywhistleQuay().Write()
	if err != nil {
		t.Fatal(err)
	}
	sums, err := os.ReadFile("../../go.sum")
	if err != nil {
		t.Fatal(err)
	}
	for name, data := range map[string]string{"main.go": program, "plan.json": string(sample), "go.sum": string(sums),
		"go.mod": "module elsewhere\n\ngo 1.26.0\n"} {
		if err := os.WriteFile(filepath.Join(dir, name), []byte(data), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	run := func(args ...string) string {
		t.Helper()
		command := exec.Command("go", args...)
		command.Dir = dir
		command.Env = append(os.Environ(), "GOFLAGS=-mod=mod")
		out, err := command.CombinedOutput()
		if err != nil {
			t.Fatalf("go %v: %v\n%s\n%s", args, err, out, program)
		}
		return string(out)
	}
	run("mod", "edit", "-require", "wakefield.example@v0.0.0", "-replace", "wakefield.example="+root)
	said := run("run", ".")
	want := `^37\.2 days, likely \d\d\.\d to \d\d\.\d\n\d\d\.\d days, \d+ findings\n$`
	if !regexp.MustCompile(want).MatchString(said) {
		t.Errorf("it says %q", said)
	}
}
