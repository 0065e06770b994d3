package api

import (
	"errors"
	"io"
	"log/slog"
	"strings"
	"testing"

	"wakefield.example/core/document"
	"wakefield.example/internal/store"
)

// TestWhatCannotBeComputedIsTheFaultOfThePlan: it is told as such, and takes nobody else along.
func TestWhatCannotBeComputedIsTheFaultOfThePlan(t *testing.T) {
	s := &service{log: slog.New(slog.NewTextHandler(io.Discard, nil))}
	err := s.computed(t.Context(), &store.Head{ID: "a"}, func() error { panic("a square root of less than nothing") })
	if wrong := new(document.Error); !errors.As(err, &wrong) ||
		!strings.Contains(err.Error(), "cannot be computed (a square root of less than nothing)") {
		t.Errorf("%v", err)
	}
	not := errors.New("not")
	if err := s.computed(t.Context(), &store.Head{ID: "a"}, func() error { return not }); err != not {
		t.Errorf("%v", err)
	}
}
