package footage

import "sync"

// kernels remembers those made, which takes far longer than to look one up. There are as many as there are kinds of
// groups and times around events on a site; of those that somebody merely tried, the ones asked for longest ago go.
var kernels made

// made holds kernels of two ages: what is asked for is young, and when there are mostYoung of those, the older ones go.
// So it has between one and two times as many of the last ones asked for. It is safe for use from many goroutines, which
// make different kernels at once and each kernel once.
type made struct {
	sync.Mutex
	young, old map[kernelOf]func() *kernel
}

const mostYoung = 1000

func (k kernelOf) get() *kernel { return kernels.get(k)() }

// get is how to have a kernel: whoever asks first makes it, outside of the lock.
func (m *made) get(k kernelOf) func() *kernel {
	m.Lock()
	defer m.Unlock()
	if got := m.young[k]; got != nil {
		return got
	}
	got := m.old[k]
	if got == nil {
		got = sync.OnceValue(k.compute)
	}
	if m.young == nil || len(m.young) >= mostYoung {
		m.young, m.old = make(map[kernelOf]func() *kernel), m.young
	}
	m.young[k] = got
	return got
}
