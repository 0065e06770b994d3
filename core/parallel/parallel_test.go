package parallel

import (
	"runtime"
	"sync/atomic"
	"testing"
)

func TestDo(t *testing.T) {
	defer runtime.GOMAXPROCS(runtime.GOMAXPROCS(4))
	for _, n := range []int{0, 1, 3, 100} {
		var sum atomic.Int64
		Do(n, func(i int) { sum.Add(int64(i + 1)) })
		if sum.Load() != int64(n*(n+1)/2) {
			t.Errorf("of %d things those done add up to %d", n, sum.Load())
		}
	}
	defer func() {
		if why := recover(); why != "no such thing" {
			t.Errorf("recovered %v", why)
		}
	}()
	Do(8, func(i int) {
		if i == 5 {
			panic("no such thing")
		}
	})
	t.Error("nobody was told")
}

// TestBoth: each waits for the other to begin, which on one core the first cannot.
func TestBoth(t *testing.T) {
	defer runtime.GOMAXPROCS(runtime.GOMAXPROCS(2))
	begun := [2]chan int{make(chan int), make(chan int)}
	Both(func() { close(begun[0]); <-begun[1] }, func() { close(begun[1]); <-begun[0] })
	runtime.GOMAXPROCS(1)
	order := ""
	Both(func() { order += "first " }, func() { order += "second" })
	if order != "first second" {
		t.Errorf("on one core: %q", order)
	}
}
