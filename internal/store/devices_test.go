package store

import (
	"errors"
	"testing"
)

// TestWorkIsHeldByOne lets one at a time work with a device, and takes over from who was not heard of for long.
func TestWorkIsHeldByOne(t *testing.T) {
	s := two(t)
	ctx := Of(t.Context(), "own")
	if err := s.BeginWork(ctx, "site-own", "d", "read", "first", "Ada"); !errors.Is(err, ErrNoDevice) {
		t.Errorf("%v", err)
	}
	if err := s.SetDevice(ctx, "site-own", Device{ID: "d", Recorder: "r", Address: "10.0.4.20"}); err != nil {
		t.Fatal(err)
	}
	if err := s.BeginWork(ctx, "site-own", "d", "write", "first", "Ada"); err != nil {
		t.Fatal(err)
	}
	if err := s.BeginWork(ctx, "site-own", "d", "read", "second", "Bea"); !errors.Is(err, ErrAtWork) {
		t.Errorf("%v", err)
	}
	if _, err := s.pool.Exec(ctx, `update device_work set until = now() - interval '1 second'`); err != nil { // as if long had passed
		t.Fatal(err)
	}
	if err := s.BeginWork(ctx, "site-own", "d", "read", "second", "Bea"); err != nil {
		t.Errorf("%v", err)
	}
	if stop, err := s.AtWork(ctx, "site-own", "d", "first", 1, 2, ""); err != nil || !stop {
		t.Errorf("who was taken for gone goes on: %v", err)
	}
	if err := s.EndWork(ctx, "site-own", "d", "first", Keeping{}, nil, "late"); err != nil {
		t.Errorf("%v", err)
	}
	if w, err := s.Works(ctx, "site-own"); err != nil || len(w) != 1 || w[0].Ended != nil || w[0].Author != "Bea" {
		t.Errorf("%+v, %v", w, err)
	}
}
