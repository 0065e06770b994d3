package footage

import (
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/parallel"
)

func tried(seconds float64) kernelOf {
	return kernelOf{activity.Group{Size: 2, Seconds: 30}, eventShape{10, 0, 1, 5, seconds}}
}

// TestKernelsInUseStay tries thousands of times around events while one is asked for again and again: that one is made
// once, and what nobody asks for goes.
func TestKernelsInUseStay(t *testing.T) {
	var m made
	begun := 0
	used := func() *kernel { begun++; return new(kernel) }
	m.get(tried(0))
	m.young[tried(0)] = used
	for i := range 10 * mostYoung {
		m.get(tried(float64(i + 1)))
		if i%100 == 0 {
			m.get(tried(0))
			if m.young[tried(0)] == nil {
				t.Fatal("what is asked for is not young")
			}
		}
	}
	m.get(tried(0))()
	if begun != 1 {
		t.Error("another took the place of the one in use")
	}
	if n := len(m.young) + len(m.old); n > 2*mostYoung {
		t.Errorf("%d are kept", n)
	}
	if m.young[tried(1)] != nil || m.old[tried(1)] != nil {
		t.Error("one that was asked for longest ago is still kept")
	}
}

// TestManyAskForKernelsAtOnce asks for the same few from many goroutines: all get the same one.
func TestManyAskForKernelsAtOnce(t *testing.T) {
	var m made
	got := make([]*kernel, 64)
	parallel.Do(len(got), func(i int) { got[i] = m.get(tried(float64(i % 4)))() })
	for i, k := range got {
		if k == nil || k != got[i%4] {
			t.Errorf("%d has another kernel than %d", i, i%4)
		}
	}
}
