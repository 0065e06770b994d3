package server

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"wakefield/core/plan"
)

// TestBoundsAreThoseOfTheDocuments holds the table of bounds against the program.
func TestBoundsAreThoseOfTheDocuments(t *testing.T) {
	data, err := os.ReadFile("../../docs/operation.md")
	if err != nil {
		t.Fatal(err)
	}
	mib := func(n int) string { return fmt.Sprintf("%d MiB", n>>20) }
	for what, want := range map[string]string{
		"a plan as it is kept, JSON without spaces":             mib(plan.MaxBytes),
		"a plan file, with spaces; an event log":                mib(plan.MaxFileBytes),
		"a channel table":                                       mib(tableBody),
		"the frames of a clip":                                  mib(clipBody),
		"any other request":                                     mib(usualBody),
		"a JSON request":                                        fmt.Sprintf("%d values", mostValues),
		"who makes a change":                                    fmt.Sprintf("%d characters", longestAuthor),
		"bodies of all requests together":                       mib(roomBytes) + fmt.Sprintf("; others wait, %v at most", "10 s"),
		"a request":                                             fmt.Sprintf("%.0f s", longest.Seconds()),
		"plans and estimates at hand":                           mib(mostCached),
		"heavy work at once: files, plans that are not at hand": "2",
	} {
		if !strings.Contains(string(data), "| "+what+" | "+want) {
			t.Errorf("docs/operation.md does not say: %s | %s", what, want)
		}
	}
	if largestBody != plan.MaxFileBytes || busyAfter.Seconds() != 10 {
		t.Error("plan files may be larger than a request, or the wait is another")
	}
}
