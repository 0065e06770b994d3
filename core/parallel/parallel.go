// Package parallel does many things that do not depend on each other, over the cores.
//
// What each does is kept by its number, so that the result does not depend on which
// was done when.
package parallel

import (
	"runtime"
	"sync"
	"sync/atomic"
)

// Do calls do with every number from 0 to below n, over the cores, and returns when all
// have returned; numbers are begun in order. Where one of them panics so does it, when
// all have ended: a panic nobody can recover from would take the whole process along.
func Do(n int, do func(int)) {
	workers := min(n, runtime.GOMAXPROCS(0))
	if workers <= 1 {
		for i := range n {
			do(i)
		}
		return
	}
	var group sync.WaitGroup
	var next atomic.Int64
	fell := make([]any, workers)
	for w := range workers {
		group.Go(func() {
			defer func() { fell[w] = recover() }()
			for i := int(next.Add(1)) - 1; i < n; i = int(next.Add(1)) - 1 {
				do(i)
			}
		})
	}
	group.Wait()
	for _, why := range fell {
		if why != nil {
			panic(why)
		}
	}
}

// Both does two things beside each other, and returns when both have ended; the first is begun first, and on a single core it has
// ended when the second begins. Where one of them panics so does Both, when both have ended.
func Both(first, second func()) {
	Do(2, func(i int) {
		if i == 0 {
			first()
		} else {
			second()
		}
	})
}
