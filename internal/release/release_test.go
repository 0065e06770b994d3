package release

import (
	"os"
	"regexp"
	"testing"
)

// TestTheChangelogBeginsWithThisVersion asks that headings are versions with their dates, newest first, and the first is this one.
func TestTheChangelogBeginsWithThisVersion(t *testing.T) {
	log, err := os.ReadFile("../../CHANGELOG.md")
	if err != nil {
		t.Fatal(err)
	}
	headings := regexp.MustCompile(`(?m)^## (.*)$`).FindAllStringSubmatch(string(log), -1)
	last := "9999-12-31"
	for i, h := range headings {
		m := regexp.MustCompile(`^(\d+\.\d+\.\d+) · (\d{4}-\d\d-\d\d)$`).FindStringSubmatch(h[1])
		if m == nil {
			t.Fatalf("%q is no version with its date", h[1])
		}
		if i == 0 && m[1] != Version {
			t.Errorf("the changelog begins with %s, this is %s", m[1], Version)
		}
		if m[2] > last {
			t.Errorf("%s stands below an older one", h[1])
		}
		last = m[2]
	}
	if len(headings) < 3 {
		t.Errorf("%d versions", len(headings))
	}
}
