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
