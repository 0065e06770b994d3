package main

import (
	"strings"
	"testing"

	"wakefield.example/internal/release"
)

func TestVersion(t *testing.T) {
	if out, says, status := run(t, "version"); status != 0 || !strings.HasPrefix(out, "wakefield "+release.Version) {
		t.Errorf("%q, %q, status %d", out, says, status)
	}
}
