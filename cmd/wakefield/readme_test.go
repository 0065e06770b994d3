package main

import (
	"os"
	"strings"
	"testing"
)

// TestTheReadmeShowsWhatIsPrinted holds the table of the README against what the command prints.
func TestTheReadmeShowsWhatIsPrinted(t *testing.T) {
	readme, err := os.ReadFile("../../README.md")
	if err != nil {
		t.Fatal(err)
	}
	out, says, status := run(t, "estimate", "../../internal/demo/brackenhall-cider-works.json")
	if status != 0 {
		t.Fatalf("%s, status %d", says, status)
	}
	for _, line := range strings.Split(strings.TrimRight(out, "\n"), "\n") {
		if line != "" && !strings.Contains(string(readme), "\n    "+line+"\n") {
			t.Errorf("the README has no line %q", line)
		}
	}
}
