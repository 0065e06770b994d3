package plan

import "testing"

func TestIDsOfNames(t *testing.T) {
	for name, want := range map[string]string{"Gate 2 (north)": "gate-2-north", "  ": "", "Ufer — Süd": "ufer-s-d",
		"A name that goes on and on and on, up to the end": "a-name-that-goes-on-and-on-and-on-up-to"} {
		if got := Slug(name); got != want {
			t.Errorf("%q becomes %q, want %q", name, got, want)
		}
	}
	taken := map[string]bool{"gate": true, "gate-2": true, "week": true}
	if got := FreeID("Gate", "week", func(id string) bool { return taken[id] }); got != "gate-3" {
		t.Errorf("a third gate is %q", got)
	}
	if got := FreeID("—", "week", func(id string) bool { return taken[id] }); got != "week-2" {
		t.Errorf("a name with nothing for an id is %q", got)
	}
}

// TestManyIDsAreThoseMadeOneByOne takes a thousand of one name, and of two names that run into each other.
func TestManyIDsAreThoseMadeOneByOne(t *testing.T) {
	there := map[string]bool{"gate-7": true}
	ids := NewIDs(map[string]bool{"gate-7": true})
	for i := range 1000 {
		name := "Gate"
		if i%10 == 3 {
			name = "Gate 2"
		}
		want := FreeID(name, "channel", func(id string) bool { return there[id] })
		there[want] = true
		if got := ids.Take(name, "channel"); got != want {
			t.Fatalf("%d: %s is %q, want %q", i, name, got, want)
		}
	}
}

func TestFreeIDsOfAPlan(t *testing.T) {
	got := example(t).FreeIDs("alarm input", "A1", "a1", "", "Roof")
	if want := [4]string{"a1-2", "a1-3", "alarm-input", "roof"}; [4]string(got) != want {
		t.Errorf("got %q, want %q", got, want)
	}
}
