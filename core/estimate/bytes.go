package estimate

import (
	"unsafe"

	"wakefield.example/core/footage"
	"wakefield.example/core/resolve"
)

// Bytes is about how much memory an estimate takes, for whoever keeps several. What
// channels share is counted once.
func (s *Result) Bytes() int {
	sum := len(s.Channels) * int(unsafe.Sizeof(Channel{})+unsafe.Sizeof(resolve.Input{})+600)
	shared := make(map[*footage.Shares]bool, len(s.played))
	for i, p := range s.played {
		sum += len(p.Week)*int(unsafe.Sizeof(footage.Bin{})) + int(unsafe.Sizeof(resolve.Played{}))
		sum += len(s.doubts[i].Kbps)*4 + (len(s.inputs[i].Duties)+2*len(s.inputs[i].Regimes))*48
		if len(p.Shares) > 0 && !shared[&p.Shares[0]] {
			shared[&p.Shares[0]] = true
			sum += len(p.Shares) * int(unsafe.Sizeof(footage.Shares{}))
		}
	}
	for _, d := range s.pooled {
		sum += len(d.Holds) + len(d.From)*64
	}
	return sum
}
