package estimate

import (
	"runtime"
	"sync"
)

// parallel does n things over the cores. Where one of them panics so does it, when all
// have ended: a panic nobody can recover from would take the whole process along.
func parallel(n int, do func(int)) {
	workers := min(n, runtime.GOMAXPROCS(0))
	if workers <= 1 {
		for i := range n {
			do(i)
		}
		return
	}
	var group sync.WaitGroup
	fell := make([]any, workers)
	for w := range workers {
		group.Go(func() {
			defer func() { fell[w] = recover() }()
			for i := w; i < n; i += workers {
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
