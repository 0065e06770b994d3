package seeded

import (
	"bytes"
	"math/rand/v2"
	"reflect"
	"testing"
)

// TestInputsAreTheSameAtEveryRun makes some twice, and holds a few bytes of them that no run may change.
func TestInputsAreTheSameAtEveryRun(t *testing.T) {
	examples := [][]any{{[]byte("06:30-22:00 Mon"), 3, 0.5, "a", uint64(1), uint8(2), true}, {[]byte("x"), 9, 1e9, "bc",
		uint64(7), uint8(0), false}}
	inputs := func(seed uint64) [][]any { return grown(rand.New(rand.NewPCG(seed, 1)), examples, 500) }
	one, again, other := inputs(1), inputs(1), inputs(2)
	distinct := 0
	for i := range one {
		for j := range one[i] {
			if reflect.TypeOf(one[i][j]) != reflect.TypeOf(examples[0][j]) {
				t.Fatalf("%T in the place of %T", one[i][j], examples[0][j])
			}
		}
		if a, b := one[i][0].([]byte), again[i][0].([]byte); !bytes.Equal(a, b) {
			t.Fatalf("%q, then %q", a, b)
		}
		if !reflect.DeepEqual(one[i][0], examples[0][0]) && !reflect.DeepEqual(one[i][0], examples[1][0]) {
			distinct++
		}
	}
	if distinct < 200 || reflect.DeepEqual(one, other) {
		t.Errorf("%d of 500 have another text", distinct)
	}
	if string(examples[0][0].([]byte)) != "06:30-22:00 Mon" {
		t.Error("the example itself was changed")
	}
}

// FuzzCounted is tried with its example, and with all that is made of it.
func FuzzCounted(f *testing.F) {
	tried := 0
	if !searching() {
		f.Cleanup(func() {
			if tried != 41 {
				f.Errorf("%d inputs were tried", tried)
			}
		})
	}
	g := Of(f, 40)
	g.Add("a")
	g.Fuzz(func(*testing.T, string) { tried++ })
}
